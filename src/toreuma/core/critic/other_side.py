"""Holes, flats and slots opened on the first side that interrupt the turning of the second."""

from collections.abc import Iterator
from functools import partial

from toreuma.core.critic.moves import LAST
from toreuma.core.critic.opened_early import interrupted_cut
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Cure, Finding
from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.model.feature import HolePattern
from toreuma.core.plan.route import Plan, plan
from toreuma.core.plan.sides.second_side import second_side

__all__ = ["other_side"]


def other_side(planned: Plan, memo: Memo) -> Iterator[Finding]:
    """What is open when the part is turned round, what that costs there, and cutting it behind that turning.

    Only holes right through can be cut from either side; others are told without a cure.
    """
    job = planned.job
    cut = tuple(index for op in planned.operations if op.motions for index in op.cuts.opens)
    if len(job.setups) < 2 or not cut:
        return
    second = _second(job, planned, memo)
    if second is None:
        return
    now = interrupted_cut(second.operations)
    if now[1] < 1:
        return
    names = ", ".join(job.part.features[n].name or job.part.features[n].kind for n in dict.fromkeys(cut))
    found = []
    for index in dict.fromkeys(cut):
        feature = job.part.features[index]
        if not isinstance(feature, HolePattern) or feature.depth_mm is not None or feature.on == "outside":
            continue
        moved = _moved(job, index)
        then = _both(moved, memo)
        if then is None:
            continue
        gained = now[1] - interrupted_cut(then.operations)[1]
        if gained >= 1 and not any(one.severity == "error" for one in then.all_findings):
            name = feature.name or "the holes"
            found.append(Cure(f"Cut {name} on the second side, behind its turning", partial(_moved, index=index)))
    yield Finding(
        "warning" if found else "note",
        "order.other_side",
        f"{names} are open when the second side is turned: {now[0]:.1f} s of interrupted cut and {now[1]} hits there",
        "what is cut behind that turning interrupts nothing" if found else "it has to be cut from this side",
        operation=next(op.operation.id for op in planned.operations if op.motions and op.cuts.opens),
        cures=tuple(found),
    )


def _second(job: Job, planned: Plan, memo: Memo) -> Plan | None:
    try:
        return plan(second_side(job, planned), memo, steps=planned.steps)
    except ToreumaError:  # the hold stage says what is wrong with the second side
        return None


def _both(job: Job, memo: Memo) -> Plan | None:
    return _second(job, plan(job, memo), memo)


def _moved(job: Job, index: int) -> Job:
    """The operations of a feature at the end of the second side."""
    first, second = job.setups[0], job.setups[1]
    moving = [op for op in first.operations if any(one.feature == index for one in op.milling)]
    left = tuple(op for op in first.operations if op not in moving)
    taken = {op.id for op in second.operations}
    fresh = []
    for op in moving:
        name = next(text for text in (op.id, *(f"m{n}" for n in range(1, 1000))) if text not in taken)
        taken.add(name)
        fresh.append(op.changed(id=name))
    at = next((n for n, op in enumerate(second.operations) if op.kind == LAST), len(second.operations))
    there = (*second.operations[:at], *fresh, *second.operations[at:])
    return job.changed(setups=(first.changed(operations=left), second.changed(operations=there)))
