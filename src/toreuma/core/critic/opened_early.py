"""Holes, flats and slots opened before the turning they then interrupt."""

from collections.abc import Iterator
from functools import partial

from toreuma.core.critic.moves import LAST, name_of
from toreuma.core.findings import Cure, Finding
from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan, plan

__all__ = ["interrupted_cut", "opened_early"]


def opened_early(planned: Plan, memo: Memo) -> Iterator[Finding]:
    """Every opening with turning behind it that it interrupts, and what it gains to open it last."""
    operations = planned.operations
    for index, one in enumerate(operations):
        if not one.cuts.opens or not one.motions:
            continue
        if not any(later.cuts.interruption is not None for later in operations[index + 1 :]):
            continue
        with_it = [
            other.operation.id
            for other in operations
            if any(mill.feature in one.cuts.opens for mill in other.operation.milling)
        ]
        cure = Cure(f"Move '{name_of(one.operation)}' behind the turning", partial(_last, ids=with_it))
        after = plan(cure.apply(planned.job), memo, steps=planned.steps)
        now, then = interrupted_cut(operations), interrupted_cut(after.operations)
        if now[1] - then[1] < LEAST_HITS:
            continue
        saved = planned.times.total_s - after.times.total_s
        yield Finding(
            "warning",
            "order.opened",
            f"'{name_of(one.operation)}' opens what is turned later: {now[0]:.1f} s of interrupted cut and {now[1]} "
            f"hits; behind the turning {then[0]:.1f} s and {then[1]} hits, {saved:.1f} s less in all",
            "turn what is round while it is whole, then drill and mill",
            operation=one.operation.id,
            cures=(cure,),
        )


LEAST_HITS = 1


def interrupted_cut(operations: tuple[OperationPlan, ...]) -> tuple[float, int]:
    """Seconds of interrupted cut, and hits, of a whole plan."""
    seconds, hits = 0.0, 0.0
    for one in operations:
        if one.cuts.interruption is not None:
            seconds += one.cuts.interruption.seconds
            hits += one.cuts.interruption.hits
    return seconds, round(hits)


def _last(job: Job, ids: list[str]) -> Job:
    """The job with some operations moved to its end, in their order, in front of parting off."""
    moving = [one for one in job.operations if one.id in ids]
    rest = [one for one in job.operations if one.id not in ids]
    at = next((n for n, one in enumerate(rest) if one.kind == LAST), len(rest))
    return job.with_setup(operations=(*rest[:at], *moving, *rest[at:]))
