"""Tools that would meet are kept apart: while one of the pair works, the other one waits."""

from collections.abc import Iterable
from functools import partial

from toreuma.core.findings import Cure
from toreuma.core.model import Job
from toreuma.core.spoken import said

__all__ = ["held_back", "kept_apart"]

FIRST = -1000
"""Numbers of pairs begin below the ones of carriers that cannot pass each other."""


def held_back(job: Job, tools: Iterable[str]) -> tuple[int, ...]:
    """Numbers far below zero, one for every pair of tools that is kept apart and has one of these: what bears the same
    number cannot be done at the same time."""
    if job.hand_over is None:
        return ()
    here = set(tools)
    return tuple(FIRST - number for number, pair in enumerate(job.hand_over.apart) if here & set(pair))


def kept_apart(job: Job, one: str, other: str) -> tuple[Cure, ...]:
    """The cure for two tools that meet; none where they are kept apart already, or nothing is handed over."""
    if job.hand_over is None or any({one, other} == set(pair) for pair in job.hand_over.apart):
        return ()
    return (Cure(said("Let {} wait for {}", other, one), partial(_apart, one=one, other=other)),)


def _apart(job: Job, one: str, other: str) -> Job:
    settings = job.hand_over
    return job if settings is None else job.changed(hand_over=settings.changed(apart=(*settings.apart, (one, other))))
