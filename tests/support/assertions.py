"""What tests say of plans and programs, with the first difference in the message."""

from collections.abc import Iterator

from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.prove import Proof
from toreuma.core.read import Program

__all__ = ["assert_same_plan", "assert_same_program", "assert_same_proof"]


def assert_same_plan(one: Plan, other: Plan) -> None:
    """Both plans make the same moves of the same stock, with the same numbers and the same to say."""
    difference = next(_differences(one, other), None)
    assert difference is None, difference


def _differences(one: Plan, other: Plan) -> Iterator[str]:
    ids = [[planned.operation.id for planned in plan.operations] for plan in (one, other)]
    if ids[0] != ids[1]:
        yield f"operations {ids[0]} against {ids[1]}"
        return
    for a, b in zip(one.operations, other.operations, strict=True):
        for what, left, right in _of(a, b):
            if left != right:
                yield f"{a.operation.id} ({a.operation.kind}), {what}: {left!r:.600} against {right!r:.600}"
    said = [[(f.code, f.what, f.operation, *(c.label for c in f.cures)) for f in p.all_findings] for p in (one, other)]
    if said[0] != said[1]:
        yield f"findings: {set(said[0]) ^ set(said[1])}"


def _of(a: OperationPlan, b: OperationPlan) -> Iterator[tuple[str, object, object]]:
    yield "count of moves", len(a.motions), len(b.motions)
    for n, (left, right) in enumerate(zip(a.motions, b.motions, strict=False)):
        if left != right:
            yield f"move {n}", left, right
            break
    yield "numbers", _numbers(a), _numbers(b)
    yield "findings", [(f.code, f.what) for f in a.findings], [(f.code, f.what) for f in b.findings]
    yield "seconds", a.times, b.times
    yield "metal before, mm2", round(a.before.area, 6), round(b.before.area, 6)
    yield "metal after, mm2", round(a.after.area, 6), round(b.after.area, 6)
    yield "clean, mm2", round(a.covered.area, 6), round(b.covered.area, 6)
    yield "cycles", [(c.name, c.words) for c in a.cuts.cycles], [(c.name, c.words) for c in b.cuts.cycles]


def _numbers(planned: OperationPlan) -> list[tuple[object, ...]]:
    return [(str(key), one.number, one.formula, one.limits, one.inputs) for key, one in planned.reasons.items()]


def assert_same_program(one: Program, other: Program) -> None:
    """Both readings made the same moves and found the same."""
    assert one.sections == other.sections
    assert [f.what for f in one.findings] == [f.what for f in other.findings]
    for n, (left, right) in enumerate(zip(one.motions, other.motions, strict=True)):
        assert left == right, f"move {n}: {left} against {right}"


def assert_same_proof(one: Proof, other: Proof) -> None:
    """Both proofs cut the same metal, measured the same and have the same to say, at the same lines."""
    for what in ("gouge_um", "leftover_um", "declared_um", "contacts", "gouges", "parted", "threads", "sizes"):
        left, right = getattr(one, what), getattr(other, what)
        assert left == right, f"{what}: {left!r:.400} against {right!r:.400}"
    assert [(f.code, f.what, f.line) for f in one.findings] == [(f.code, f.what, f.line) for f in other.findings]
    assert [section for section, _ in one.states] == [section for section, _ in other.states]
    assert one.final.equals(other.final), f"final pieces differ by {one.final.symmetric_difference(other.final).area}"
    for n, (left, right) in enumerate(zip(one.steps, other.steps, strict=True)):
        assert left == right, f"step {n}: {left} against {right}"
