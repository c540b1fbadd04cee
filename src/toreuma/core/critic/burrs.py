"""What throws its burr into something that is finished."""

from collections.abc import Iterator

from toreuma.core.critic.moves import move_before, name_of
from toreuma.core.findings import Finding
from toreuma.core.model import CutGroove, Job
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan

__all__ = ["burrs"]

NEAR_MM = 2.0

THREADS, BORES = ("thread", "tap"), ("finish_bore", "ream")
MAKERS = ("groove", "drill", "rough_bore")

BROKEN_MM = 0.1
"""A groove whose edges are broken by so much keeps its burr to itself."""


def burrs(planned: Plan) -> Iterator[Finding]:
    """Grooves and holes cut after the thread or the bore they throw their burr into."""
    done: list[OperationPlan] = []
    for one in planned.operations:
        for before in done if one.operation.kind in MAKERS else ():
            if not _harmed(before, one, planned.job) or not _meet(before, one):
                continue
            again = before.times.cutting_s / max(len(before.cuts.passes), 1)
            yield Finding(
                "warning",
                "order.burr",
                f"'{name_of(one.operation)}' throws a burr into '{name_of(before.operation)}', cut before it: "
                f"going through it once more costs {again:.1f} s",
                "the gauge jams on it: first what makes burrs, then the thread or the bore",
                operation=one.operation.id,
                cures=(move_before(one.operation, before.operation),),
            )
        if one.motions:
            done.append(one)


def _harmed(before: OperationPlan, one: OperationPlan, job: Job) -> bool:
    """A thread by every burr; a bore by what goes on inside it and does not break its edges."""
    if before.operation.kind in THREADS:
        return one.operation.kind != "rough_bore"
    if before.operation.kind not in BORES:
        return False
    operation = one.operation
    if not isinstance(operation, CutGroove):
        return True
    feature = job.part.features[operation.feature] if operation.feature < len(job.part.features) else None
    return getattr(feature, "side", "") == "inside" and getattr(feature, "edge_break_mm", 0.0) < BROKEN_MM


def _meet(a: OperationPlan, b: OperationPlan) -> bool:
    """What both take away lies close together along Z and on the same side of the metal."""
    if a.removed.is_empty or b.removed.is_empty:
        return False
    return bool(a.removed.distance(b.removed) < NEAR_MM)
