"""Which standard a designation belongs to. A new family is one entry here and one table in the data file."""

import difflib
import re
from collections.abc import Callable

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.acme import ACME, acme_thread
from toreuma.core.standards.threads.basic import NO_LIMITS, basic_thread
from toreuma.core.standards.threads.inches import INCH_SIZE
from toreuma.core.standards.threads.metric import METRIC, metric_thread
from toreuma.core.standards.threads.mj import MJ, mj_thread
from toreuma.core.standards.threads.npsm import NPSM, npsm_thread
from toreuma.core.standards.threads.pipe import NPT, PIPE, npt_thread, pipe_thread
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Thread
from toreuma.core.standards.threads.trapezoidal import TRAPEZOIDAL, trapezoidal_thread
from toreuma.core.standards.threads.unified import UNIFIED, unified_thread
from toreuma.core.standards.threads.whitworth import WHITWORTH, whitworth_thread

__all__ = ["FAMILIES", "thread_of"]

Maker = Callable[["re.Match[str]", ThreadTables], Thread]

LIKE = "M10x1.5-6g, 1/2-13 UNC-2A, G1/2, NPT 1/2, Tr20x4 or 1-5 ACME-2G"

LONG_NUMBER = r"\d{7}"

NEAR = 0.5
"""So alike in spelling a designation is offered."""

FAMILIES: tuple[tuple[re.Pattern[str], Maker], ...] = (
    (MJ, mj_thread),
    (METRIC, metric_thread),
    (TRAPEZOIDAL, trapezoidal_thread),
    (PIPE, pipe_thread),
    (NPT, npt_thread),
    (NPSM, npsm_thread),
    (WHITWORTH, whitworth_thread),
    (UNIFIED, unified_thread),
)


REFUSED: tuple[tuple[re.Pattern[str], str, str], ...] = (
    (
        re.compile(r".*\b(NPSC|NPSF|NPSL|NPSI|NPSH|NPTR|ANPT)\b", re.I),
        "of American pipe threads NPT, NPTF and NPSM are listed here",
        "take the limits of this one from its standard; the others have other limits",
    ),
    (
        re.compile(r"^PG\s*\d", re.I),
        "conduit threads PG (DIN 40430, flanks of 80°) are not listed here",
        "today's conduit threads are metric, like M20x1.5",
    ),
    (
        re.compile(r"^W\s*[\d/]", re.I),
        "W alone names several threads: BSW in inches, and those of gas cylinders (DIN 477)",
        "write BSW and the size for the first",
    ),
)
"""Threads that are known by name, and why there are no limits of them."""


def thread_of(designation: str, tables: ThreadTables) -> Thread:
    """The thread a designation names. Raises `StandardError`."""
    text = _usual(designation.strip())
    if re.search(LONG_NUMBER, text):
        raise StandardError(f"{text[:24]}...", "no thread has a number so long", f"write it like {LIKE}")
    if "ACME" in text.upper() and (match := ACME.match(text)):
        return acme_thread(match, tables)
    for pattern, make in FAMILIES:
        if match := pattern.match(text):
            return make(match, tables)
    if (basic := basic_thread(text)) is not None:
        raise StandardError(
            designation, f"{basic.family} thread, {basic.words}; {NO_LIMITS}", "a plan needs its limits"
        )
    for pattern, what, cure in REFUSED:
        if pattern.match(text):
            raise StandardError(designation, what, cure)
    near = nearest_threads(text, tables)
    raise StandardError(
        designation or "thread",
        "this is no thread designation known here",
        f"the nearest are {', '.join(near)}" if near else f"write it like {LIKE}",
    )


SERIES_FIRST = re.compile(rf"^(?P<series>UN\w*)[\s-]*(?P<size>{INCH_SIZE})(?P<rest>.*)$", re.I)
"""``UNC 1/4-20``: the standard has the series behind the size."""

NUMBERED = re.compile(r"^(?:no|nr)\.?\s*(?=\d)", re.I)
"""``No. 10-24``: the standard writes ``#10``."""


def _usual(text: str) -> str:
    """A designation in the order of its standard."""
    text = NUMBERED.sub("#", text)
    first = SERIES_FIRST.match(text)
    if first is None:
        return text
    turns = re.match(r"\s*-\s*\d+(?![AB\d])", first["rest"], re.I)
    end = turns.end() if turns else 0
    return f"{first['size']}{first['rest'][:end]} {first['series']}{first['rest'][end:]}"


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
    names += [f"NPT {size}" for size in tables.npt.sizes] + [f"NPSM {size}" for size in tables.npsm.sizes]
    names += [f"Tr{d}x{pitch:g}" for d, pitch in tables.trapezoidal.usual_pitch_mm.items()]
    plain = {re.sub(r"\s", "", name).upper(): name for name in names}
    return [plain[one] for one in difflib.get_close_matches(bare, plain, 3, NEAR)]
