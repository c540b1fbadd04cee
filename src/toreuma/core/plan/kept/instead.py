"""Operations put in the place of one that was kept as written."""

from collections.abc import Sequence

from toreuma.core.errors import JobError
from toreuma.core.model import AsWritten, Job, Operation

__all__ = ["free_id", "instead_of"]


def free_id(job: Job, fresh: Sequence[Operation]) -> str:
    """A name that no operation has."""
    taken = {one.id for one in (*job.operations, *fresh)}
    return next(name for name in (f"op{n}" for n in range(1, len(taken) + 2)) if name not in taken)


def instead_of(job: Job, kept: AsWritten, fresh: Sequence[Operation]) -> Job:
    """The job with those operations in the place of that one. Raises `JobError` where there are none."""
    if not fresh:
        raise JobError(kept.name or kept.id, "no kind of operation does what these moves do", "keep them as written")
    at = job.operations.index(kept)
    return job.with_setup(operations=(*job.operations[:at], *fresh, *job.operations[at + 1 :]))
