"""A hundred operations: an edit in the middle plans again what it touches, and nothing else."""

from collections.abc import Callable
from functools import cache

import pytest

from tests.support.hundred import hundred_operations
from tests.support.kept import plan
from toreuma.core.dialect import Dialect
from toreuma.core.memo import Memo
from toreuma.core.model import Job, Pins
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.read import read

MIDDLE = "g48"


@cache
def planned() -> tuple[Job, Memo, Plan]:
    job, memo = hundred_operations(), Memo()
    return job, memo, plan(job, memo)


def planned_again(job: Job) -> tuple[Plan, list[str]]:
    """The plan of an edited job, and which operations have other cuts than before."""
    _, memo, first = planned()
    again = plan(job, memo)
    cuts = {one.operation.id: one.cuts for one in first.operations}
    return again, [one.operation.id for one in again.operations if one.cuts is not cuts[one.operation.id]]


def test_there_are_a_hundred_and_they_are_planned() -> None:
    job, _, first = planned()
    assert len(job.operations) == 100
    assert all(one.motions for one in first.operations)


@pytest.mark.parametrize("change", [{"pins": Pins(feed_mm_rev=0.06)}, {"method": "straight"}])
def test_another_number_is_planned_where_it_stands(change: dict[str, object]) -> None:
    again, anew = planned_again(planned()[0].with_operation(MIDDLE, lambda op: op.changed(**change)))
    assert anew == [MIDDLE]
    assert again.of(MIDDLE) is not None


@pytest.mark.long
def test_what_is_left_out_touches_its_neighbours_only() -> None:
    job = planned()[0]
    again, anew = planned_again(job.with_operation(MIDDLE, lambda op: op.changed(enabled=False)))
    assert anew[-1] == "off"  # parting off meets all of the bar
    assert {int(name[1:]) for name in anew[:-1]} <= set(range(49, 56))
    fresh = plan(job.with_operation(MIDDLE, lambda op: op.changed(enabled=False)))
    for one, other in zip(again.operations, fresh.operations, strict=True):
        assert [m.segment for m in one.motions] == [m.segment for m in other.motions]
    assert again.operations[-1].after.equals_exact(fresh.operations[-1].after, 1e-9)


@pytest.mark.parametrize(
    "damage",
    [
        lambda text: text,
        lambda text: text.replace("G1 X", "G1 F0.033 X", 40),
        lambda text: text.replace("OP 50:", "LATER:"),
        lambda text: "\n".join(line for n, line in enumerate(text.splitlines()) if n % 211),
        lambda text: text.replace("OP 60:", "TWICE)\nG1 X-3. F0.\n(OP 60:"),
        lambda text: text.replace("G99", "G98"),
    ],
)
def test_a_program_is_read_the_same_where_parts_of_it_were_read_before(
    damage: Callable[[str], str], language: Dialect
) -> None:
    _, _, first = planned()
    text, memo, reference = post(first, language).text, Memo(), first.scene.reference
    read(text, language, reference, memo)
    for changed in (damage(text), text):
        assert read(changed, language, reference, memo) == read(changed, language, reference)
    misses = memo.misses
    read(text, language, reference, memo)
    assert memo.misses == misses
