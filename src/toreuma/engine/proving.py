"""The one chain from a plan to its proof: written, read back, cut, and held against what was planned."""

from collections.abc import Callable, Iterable

from toreuma.core.dialect import Dialect
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.plan.bar.feed_bar import bar_before
from toreuma.core.prove import Proof, prove
from toreuma.core.prove.told import Told, told_to
from toreuma.core.read import Program, read
from toreuma.core.scene import build_scene
from toreuma.engine.hand_changes import written

__all__ = ["prove_plan", "prove_read"]


def prove_plan(plan: Plan, language: Dialect, text: str | None = None, check: Check = never_cancel) -> Proof:
    """Write a plan (or take other program text for it), read that back and prove it, with nothing remembered."""
    text = text if text is not None else written(plan, language).text
    program = read(text, language, plan.scene.reference, machine=plan.job.machine.own_words)
    return prove_read(plan, program, check)


def prove_read(
    plan: Plan,
    program: Program,
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
    made_of: Job | None = None,
    told: Iterable[Told] | None = None,
    memo: Memo | None = None,
) -> Proof:
    """Prove a program that was read.

    ``made_of`` is the job on another blank than the planned one: what the side before left; ``told`` what the tools
    are told, where the program is not that of the plan alone; with ``memo``, what was cut before is not cut again.
    Whatever ``check`` raises stops the work.
    """
    job, scene = (plan.job, plan.scene) if made_of is None else (made_of, build_scene(made_of))
    meant = _told_by(plan) if told is None else tuple(told)
    return prove(job, scene, program, plan.declared, check, progress, bar_before(job, scene), meant, memo)


def _told_by(plan: Plan) -> tuple[Told, ...]:
    """What every operation was planned to tell the control, by its number in the route."""
    numbers = {operation.id: count for count, operation in enumerate(plan.job.operations, 1)}
    each = (told_to(one.motions, numbers[one.operation.id]) for one in plan.operations)
    return tuple(told for operation in each for told in operation)
