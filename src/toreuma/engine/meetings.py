"""A proposed route in which no two tools meet: those that do wait for each other."""

from collections.abc import Callable

from toreuma.core.model import Job
from toreuma.engine.pair import PairProof

__all__ = ["without_meetings"]

MOST_PAIRS = 6


def without_meetings(job: Job, proved: Callable[[Job], PairProof | None]) -> Job:
    """The job with all tools kept apart that meet by the proof of both channels; as it is where nothing is handed
    over."""
    if job.hand_over is None:
        return job
    for _ in range(MOST_PAIRS):
        pair = proved(job)
        met = [one for one in pair.findings if one.code == "beside.meet" and one.cures] if pair is not None else []
        if not met:
            break
        job = met[0].cures[0].apply(job)
    return job
