"""Demo jobs that are handed over, planned on both sides."""

from collections.abc import Sequence
from functools import cache

from tests.support.kept import plan_sides
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.shipped.library import demo_job

__all__ = ["Planned", "handed", "planned_demo"]

Planned = tuple[Job, Sequence[Plan], Transfer]
"""A job, the plans of both sides, and the hand-over between them."""


def handed(job: Job) -> Planned:
    """A job with a hand-over, planned."""
    sides = plan_sides(job)
    taken = hand_over(job, sides[0])
    assert taken is not None
    return job, sides, taken


@cache
def planned_demo(name: str, parts: int = 0) -> Planned:
    """A demo job, planned once; ``parts`` in a run, or as many as it ships with."""
    job = demo_job(name)
    return handed(job.changed(program=job.program.changed(parts=parts)) if parts else job)
