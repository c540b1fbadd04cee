"""All sides of a job proved one on the other, and the verdict over them."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial

from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job, ThreadForm
from toreuma.core.plan import Plan
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.prove import Proof
from toreuma.core.read import Program, read
from toreuma.core.scene import build_scene
from toreuma.core.standards.threads.form import form_of
from toreuma.core.verdict import SideMade, Verdict, verdict_of
from toreuma.engine.hand_changes import written
from toreuma.engine.proving import prove_read
from toreuma.shipped.library import known_threads

__all__ = ["Whole", "planned_findings", "prove_whole", "thread_forms", "verdict_of_sides"]

Progress = Callable[[float], None]


@dataclass(frozen=True, kw_only=True)
class Whole:
    """Every side as it was cut, with all findings, and the verdict."""

    plans: tuple[Plan, ...]
    sides: tuple[SideMade, ...]
    verdict: Verdict

    @property
    def proofs(self) -> tuple[Proof, ...]:
        return tuple(side.proof for side in self.sides)


def prove_whole(
    plans: Sequence[Plan],
    language: Dialect,
    texts: Mapping[int, str] | None = None,
    check: Check = never_cancel,
    progress: Progress = lambda share: None,
    memo: Memo | None = None,
    more: Sequence[Finding] = (),
) -> Whole:
    """Prove the sides of a job one after the other, each on what the one before really left.

    ``texts`` are programs to take instead of the planned ones, by side counted from 0; ``more`` is what else was found.
    """
    texts = texts or {}
    made: list[SideMade] = []
    for number, planned in enumerate(plans):

        def told(share: float, number: int = number) -> None:
            progress((number + share) / len(plans))

        program = _program(planned, language, texts.get(number), memo)
        job = None if number == 0 else second_side(plans[0].job, plans[0], made[0].proof.final)
        kept = memo or Memo()
        key = ("side proved", *map(kept.digest, (planned.job, job, program.text, language)))
        prove_side = partial(prove_read, planned, program, check, told, made_of=job, memo=memo)
        proof = kept.get(key, prove_side)
        scene = planned.scene if job is None else build_scene(job)
        made.append(SideMade(job=job or planned.job, scene=scene, proof=proof, turned=number > 0))
    return Whole(plans=tuple(plans), sides=tuple(made), verdict=verdict_of_sides(plans, made, more))


def _program(planned: Plan, language: Dialect, text: str | None, memo: Memo | None) -> Program:
    if text is None and not any(one.motions for one in planned.operations):
        return Program(text="", motions=(), sections=(), findings=())
    text = text if text is not None else written(planned, language).text
    return read(text, language, planned.scene.reference, memo, machine=planned.job.machine.own_words)


def verdict_of_sides(plans: Sequence[Plan], made: Sequence[SideMade], more: Sequence[Finding] = ()) -> Verdict:
    """The verdict over sides that were cut; ``more`` is what was found besides plan and proof."""
    found = [finding for side in made for finding in side.proof.findings]
    planned, unplanned = planned_findings(plans)
    return verdict_of(plans[0].job, made, thread_forms(plans[0].job), (*planned, *found, *more), unplanned)


def planned_findings(plans: Sequence[Plan]) -> tuple[tuple[Finding, ...], tuple[Finding, ...]]:
    """What planning found, and of that what keeps an operation out of the program."""
    kept: list[Finding] = []
    out: list[Finding] = []
    for planned in plans:
        dropped = {one.operation.id for one in planned.operations if not one.motions}
        for finding in planned.all_findings:
            lost = finding.severity == "error" and finding.operation in dropped
            (out if lost else kept).append(finding)
    return tuple(kept), tuple(replace(one, cures=()) for one in out)


def thread_forms(job: Job) -> dict[int, ThreadForm]:
    """The threads of a drawing by their place among its features: as an operation cuts them, else by their standard."""
    found: dict[int, ThreadForm] = {}
    known = known_threads(job.part)
    for index, feature in enumerate(job.part.features):
        name = feature.designation if feature.kind == "thread" else getattr(feature, "thread", "")
        if name in known:
            side = feature.side if feature.kind == "thread" else "inside"
            found[index] = form_of(known[name], side, name)
    for setup in job.setups:
        for operation in setup.operations:
            found |= {index: form for index, form in operation.threads_cut if index < len(job.part.features)}
    return found
