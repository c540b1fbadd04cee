"""Unsaved work of windows that were ended, as it is offered: seen, named, and what in it is not in its file."""

from dataclasses import dataclass
from datetime import date, datetime

from toreuma.core.edit.difference import differences
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job
from toreuma.engine.glimpse import region_of
from toreuma.files.jobs import load_job
from toreuma.files.journal import Left, left_behind

__all__ = ["Offer", "offers"]

SHOWN = 4
"""So many differences are told; the others are counted."""


@dataclass(frozen=True)
class Offer:
    """``saved`` is the job as its file has it, None where there is no such file; ``changes`` says in lines what the
    unsaved work has that the file has not."""

    left: Left
    region: Region | None
    when: str
    saved: Job | None
    changes: tuple[str, ...]

    @property
    def job(self) -> Job:
        return self.left.state.job


def offers() -> tuple[list[Offer], list[JobError]]:
    """What was not saved, latest first, and a line for each journal that cannot be read."""
    found, faults = left_behind()
    return [_offer(one) for one in found], faults


def _offer(left: Left) -> Offer:
    state = left.state
    try:
        saved = load_job(state.file) if state.file is not None else None
    except ToreumaError:
        saved = None
    return Offer(left, region_of(state.job.part), _when(state.at), saved, _changes(saved, state.job))


def _when(at: float) -> str:
    try:
        then = datetime.fromtimestamp(at)
    except (ValueError, OverflowError, OSError):
        return ""
    day = "today" if then.date() == date.today() else then.date().isoformat()
    return f"{day}, {then:%H:%M}"


def _changes(saved: Job | None, job: Job) -> tuple[str, ...]:
    if saved is None:
        operations = sum(len(setup.operations) for setup in job.setups)
        surfaces = len(job.part.outside) + len(job.part.inside)
        return (f"never saved: {surfaces} surfaces, {operations} operations",)
    found = [str(one) for one in differences(saved, job)]
    more = len(found) - SHOWN
    return (*found[:SHOWN], *([f"and {more} more"] if more > 0 else ()))
