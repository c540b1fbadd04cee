"""A route from the shipped catalogue and the person's own rack."""

from collections.abc import Callable

from toreuma.core.advise.from_rack import with_rack
from toreuma.core.auto.propose import Proposed, propose_route
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.files.rack import load_rack
from toreuma.shipped.library import catalogue, code_tables, known_threads

__all__ = ["route_for"]


def route_for(
    job: Job, check: Check = never_cancel, progress: Callable[[float], None] = lambda share: None
) -> Proposed:
    """A whole route for a job. Raises `ToreumaError` for parts that cannot be; a rack that cannot be read is empty."""
    try:
        codes = {item.code for item in load_rack()}
    except ToreumaError:
        codes = set()
    store = with_rack(catalogue(), codes, code_tables())
    return propose_route(job, store, codes, known_threads(job.part), check, progress)
