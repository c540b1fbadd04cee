"""Which standard a designation belongs to. A new family is one entry here and one table in the data file."""

import difflib
import re
from collections.abc import Callable

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.acme import ACME, acme_thread
from toreuma.core.standards.threads.metric import METRIC, metric_thread
from toreuma.core.standards.threads.mj import MJ, mj_thread
from toreuma.core.standards.threads.pipe import NPT, PIPE, npt_thread, pipe_thread
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Thread
from toreuma.core.standards.threads.trapezoidal import TRAPEZOIDAL, trapezoidal_thread
from toreuma.core.standards.threads.unified import UNIFIED, unified_thread
from toreuma.core.standards.threads.whitworth import WHITWORTH, whitworth_thread

__all__ = ["FAMILIES", "thread_of"]

Maker = Callable[["re.Match[str]", ThreadTables], Thread]

LIKE = "M10x1.5-6g, 1/2-13 UNC-2A, G1/2, NPT 1/2, Tr20x4 or 1-5 ACME-2G"

NEAR = 0.5
"""So alike in spelling a designation is offered."""

FAMILIES: tuple[tuple[re.Pattern[str], Maker], ...] = (
    (MJ, mj_thread),
    (METRIC, metric_thread),
    (TRAPEZOIDAL, trapezoidal_thread),
    (PIPE, pipe_thread),
    (NPT, npt_thread),
    (WHITWORTH, whitworth_thread),
    (UNIFIED, unified_thread),
)


REFUSED: tuple[tuple[re.Pattern[str], str, str], ...] = (
    (re.compile(r"^(S\s*\d|BUTT|.*BUTT)", re.I), "buttress threads have limits of their own (DIN 513, ASME B1.9), "
     "which are not listed here", "take them from the standard; a trapezoidal thread of the size is no buttress"),
    (re.compile(r"^Rd\s*\d", re.I), "knuckle threads have limits of their own (DIN 405), which are not listed here",
     "take them from the standard"),
    (re.compile(r".*\b(NPSM|NPSC|NPSF|NPSL|NPSI|ANPT)\b", re.I), "of American pipe threads NPT and NPTF are listed "
     "here", "take the limits of this one from ASME B1.20.1 or B1.20.3; NPT has another form"),
)  # fmt: skip
"""Threads that are known by name, and why there are no limits of them."""


def thread_of(designation: str, tables: ThreadTables) -> Thread:
    """The thread a designation names. Raises `StandardError`."""
    text = designation.strip()
    if "ACME" in text.upper() and (match := ACME.match(text)):
        return acme_thread(match, tables)
    for pattern, make in FAMILIES:
        if match := pattern.match(text):
            return make(match, tables)
    for pattern, what, cure in REFUSED:
        if pattern.match(text):
            raise StandardError(designation, what, cure)
    near = nearest_threads(text, tables)
    raise StandardError(
        designation or "thread",
        "this is no thread designation known here",
        f"the nearest are {', '.join(near)}" if near else f"write it like {LIKE}",
    )


def nearest_threads(text: str, tables: ThreadTables) -> list[str]:
    """Up to three designations of the tables that are spelled much like a text."""
    bare = re.sub(r"[\s\"]", "", text).upper()
    if not bare:
        return []
    names = [f"M{d}" for d in tables.metric.coarse_pitch_mm]
    names += [
        f"{size}-{per:g} {series}" for series, rows in tables.unified.series.items() for size, per in rows.items()
    ]
    names += [f"{kind}{size}" for kind in ("G", "R", "Rc", "Rp") for size in tables.pipe.sizes]
    names += [f"{size} {kind}" for kind, rows in tables.whitworth.series.items() for size in rows]
    names += [f"NPT {size}" for size in tables.npt.sizes]
    names += [f"Tr{d}x{pitch:g}" for d, pitch in tables.trapezoidal.usual_pitch_mm.items()]
    plain = {re.sub(r"\s", "", name).upper(): name for name in names}
    return [plain[one] for one in difflib.get_close_matches(bare, plain, 3, NEAR)]
