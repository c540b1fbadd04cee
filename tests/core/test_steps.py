"""Speeds and feeds in the steps a control takes: planned so, written so, and read back so."""

from dataclasses import replace

import pytest

from tests.support.kept import plan, prove_plan
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.model import Job
from toreuma.core.model.steps import Steps
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.read import read


@pytest.mark.parametrize(
    ("units", "m_min", "step", "typed"), [("mm", 22.5, 22.0, 22.0), ("mm", 0.4, 1.0, 1.0), ("mm", 22.7, 22.0, 23.0),
                                          ("inch", 0.3048 * 100.7, 0.3048 * 100, 0.3048 * 101)],
)  # fmt: skip
def test_a_speed_is_stepped_down_and_never_to_nothing(units: str, m_min: float, step: float, typed: float) -> None:
    steps = Steps.usual(units)  # type: ignore[arg-type]
    assert steps.surface(m_min) == pytest.approx(step, rel=1e-12)
    assert steps.surface(m_min, typed=True) == pytest.approx(typed, rel=1e-12)


def slow(job: Job, m_min: float) -> Job:
    return job.with_operation("op2", lambda op: op.changed(pins=op.pins.changed(vc_m_min=m_min)))


@pytest.mark.parametrize("units", ["mm", "inch"])
@pytest.mark.parametrize("m_min", [22.5, 0.4, 7.1, 131.3])
def test_what_is_planned_is_what_is_written_and_read(spear: Job, language: Dialect, units: str, m_min: float) -> None:
    planned = plan(slow(spear.changed(units=units), m_min))
    text = post(planned, language).text
    rough = planned.of("op2")
    assert rough is not None
    spoken = next(motion.spindle for motion in rough.motions if motion.feed is not None)
    assert spoken.value == rough.reasons["vc"].number > 0
    program = read(text, language, planned.scene.reference)
    heard = [m.spindle for m in program.motions if program.sections[m.section].number == 2 and m.feed is not None]
    assert {round(one.value, 9) for one in heard} == {round(spoken.value, 9)}


def test_the_writer_refuses_to_lose_more(spear_plan: Plan, language: Dialect) -> None:
    def faster(planned: Plan) -> Plan:
        first = planned.operations[1]
        moves = tuple(replace(m, spindle=replace(m.spindle, value=m.spindle.value + 0.4)) for m in first.motions)
        changed = replace(first, cuts=replace(first.cuts, motions=moves))
        return replace(planned, operations=(planned.operations[0], changed, *planned.operations[2:]))

    with pytest.raises(ProgramError, match="takes no S"):
        post(faster(spear_plan), language)


@pytest.mark.parametrize(
    ("pattern", "instead", "code", "severity"),
    [
        ("S200 M3", "S250 M3", "told.speed", "error"),
        ("S200 M3", "S150 M3", "told.speed", "warning"),
        ("F0.4", "F0.6", "told.feed", "error"),
        ("F0.4", "F0.3", "told.feed", "warning"),
        ("G50 S", "G50 S1", "told.speed", "error"),
    ],
)
def test_a_changed_speed_or_feed_is_told_at_its_line(
    spear: Job, language: Dialect, pattern: str, instead: str, code: str, severity: str
) -> None:
    pinned = spear.with_operation("op2", lambda op: op.changed(pins={"vc_m_min": 200.0, "feed_mm_rev": 0.4}))
    planned = plan(pinned)
    text = post(planned, language).text
    at = text.index(pattern, text.index("(OP 2"))
    spoiled = text[:at] + instead + text[at + len(pattern) :]
    found = [one for one in prove_plan(planned, language, spoiled).findings if one.code == code]
    assert [one.severity for one in found] == [severity]
    assert found[0].line is not None
    assert not [one for one in prove_plan(planned, language, text).findings if one.code.startswith("told.")]
