"""A hundred operations: an edit in the middle plans again what it touches, and nothing else."""

from functools import cache

import pytest

from tests.support.hundred import hundred_operations
from toreuma.core.memo import Memo
from toreuma.core.model import Job, Pins
from toreuma.core.plan import Plan, plan

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


def test_what_is_left_out_touches_its_neighbours_only() -> None:
    job = planned()[0]
    again, anew = planned_again(job.with_operation(MIDDLE, lambda op: op.changed(enabled=False)))
    assert anew[-1] == "off"  # parting off meets all of the bar
    assert {int(name[1:]) for name in anew[:-1]} <= set(range(49, 56))
    fresh = plan(job.with_operation(MIDDLE, lambda op: op.changed(enabled=False)))
    for one, other in zip(again.operations, fresh.operations, strict=True):
        assert [m.segment for m in one.motions] == [m.segment for m in other.motions]
    assert again.operations[-1].after.equals_exact(fresh.operations[-1].after, 1e-9)
