"""Derates: each a named factor, each with its switch, and never a silent one."""

import math
from typing import Any

import pytest
from pydantic import ValidationError

from tests.support.kept import plan
from toreuma.core.model import Job
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.numbers.derates import counted, derates_of, without_derate
from toreuma.files.jobs import job_text, parse_job


def run(job: Job, **conditions: Any) -> Job:
    return job.changed(conditions=job.conditions.changed(**conditions))


def speed(job: Job) -> float:
    return plan(job).operations[1].reasons["vc"].number


def for_life(job: Job) -> float:
    """Speed of roughing, free of what feed and depth do to the life (Taylor: vc f^0.35 ap^0.15)."""
    numbers = plan(job).operations[1].reasons
    return speed(job) * numbers["f"].number ** 0.35 * numbers["ap_max"].number ** 0.15


def test_a_plain_job_has_none(spear: Job) -> None:
    assert derates_of(Given.of(spear)) == ()
    evidence = plan(spear).operations[1].reasons["vc"]
    assert [one.label for one in evidence.inputs] == ["table"]


@pytest.mark.parametrize(
    ("change", "key", "factor"),
    [
        (lambda j: j.changed(stock=j.stock.changed(skin="hard", skin_mm=1.0)), "skin", 0.7),
        (lambda j: j.changed(stock=j.stock.changed(skin="scale", skin_mm=1.0)), "skin", 0.85),
        (lambda j: j.with_setup(hold=j.setup.hold.changed(stick_out_mm=4 * 32.0)), "overhang", 0.9),
        (lambda j: run(j, coolant="dry"), "dry", 0.6),  # group M wants its coolant
        (lambda j: run(j, attended=False), "unattended", 0.85),
        (lambda j: run(j, stance="gentle"), "stance", 0.8),
        (lambda j: run(j, stance="hard"), "stance", 1.15),
    ],
)
def test_every_cause_is_a_factor_of_its_own(spear: Job, change: Any, key: str, factor: float) -> None:
    job = change(spear)
    found = derates_of(Given.of(job))
    assert [(one.key, one.speed) for one in found] == [(key, pytest.approx(factor))]
    assert for_life(job) == pytest.approx(for_life(spear) * factor, rel=0.03)
    inputs = plan(job).operations[1].reasons["vc"].inputs
    assert [i.number for i in inputs[1:]] == [pytest.approx(factor)]


def test_factors_multiply_and_each_is_named(spear: Job) -> None:
    job = run(spear, attended=False, coolant="dry", stance="gentle")
    assert math.prod(one.speed for one in counted(Given.of(job))) == pytest.approx(0.85 * 0.6 * 0.8)
    evidence = plan(job).operations[1].reasons["vc"]
    assert len(evidence.inputs) == 4
    assert plan(job).operations[1].reasons["life"].number > 15 * (0.85 * 0.8) ** -4 * 0.95  # dry wears, the rest lasts


def test_a_derate_is_left_out_for_a_reason_that_stays(spear: Job) -> None:
    job = run(spear, attended=False)
    left = without_derate(job, "unattended", "a camera watches")
    assert speed(left) == speed(spear)
    assert derates_of(Given.of(left))[0].left_out == "a camera watches"
    assert parse_job(job_text(left)) == left
    assert speed(without_derate(left, "unattended", "")) == speed(job)
    with pytest.raises(ValidationError):
        job.conditions.changed(left_out=({"derate": "skin", "reason": ""},))


def test_pins_are_not_derated_and_feeds_stay_in_the_window(spear: Job) -> None:
    pinned = spear.with_operation("op2", lambda op: op.changed(pins=op.pins.changed(vc_m_min=111.0)))
    assert speed(run(pinned, stance="gentle")) == 111
    gentle, hard = (plan(run(spear, stance=stance)).operations[1].reasons["f"].number for stance in ("gentle", "hard"))
    tool = spear.tool("T1")
    window = [f for f, _ in tool.insert.chip_window]  # type: ignore[union-attr]
    assert min(window) <= gentle < hard <= 0.5 * tool.insert.nose_radius_mm + 1e-9  # type: ignore[union-attr]
