"""Which standard a designation belongs to. A new family is one entry here and one table in the data file."""

import re
from collections.abc import Callable

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.metric import METRIC, metric_thread
from toreuma.core.standards.threads.pipe import NPT, PIPE, npt_thread, pipe_thread
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Thread
from toreuma.core.standards.threads.trapezoidal import ACME, TRAPEZOIDAL, acme_thread, trapezoidal_thread
from toreuma.core.standards.threads.unified import UNIFIED, unified_thread

__all__ = ["FAMILIES", "thread_of"]

Maker = Callable[["re.Match[str]", ThreadTables], Thread]

FAMILIES: tuple[tuple[re.Pattern[str], Maker], ...] = (
    (METRIC, metric_thread),
    (TRAPEZOIDAL, trapezoidal_thread),
    (PIPE, pipe_thread),
    (NPT, npt_thread),
    (UNIFIED, unified_thread),
)


def thread_of(designation: str, tables: ThreadTables) -> Thread:
    """The thread a designation names. Raises `StandardError`."""
    text = designation.strip()
    if "ACME" in text.upper() and (match := ACME.match(text)):
        return acme_thread(match, tables)
    for pattern, make in FAMILIES:
        if match := pattern.match(text):
            return make(match, tables)
    raise StandardError(
        designation or "thread",
        "this is no thread designation known here",
        "write it like M10x1.5-6g, 1/2-13 UNC-2A, G1/2, NPT 1/2, Tr20x4 or 1-5 ACME-2G",
    )
