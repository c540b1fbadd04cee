"""Moves in time, and the metal at any moment."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.support.engine import followed, recorded
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.region import rotated_volume
from toreuma.core.model import Job
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.simulate.clock import dwell_and_change_s, spindle_change_s, times_of
from toreuma.core.simulate.timeline import ENDLESS_S, timeline_of
from toreuma.engine.follow import Outcome
from toreuma.shipped.library import demo_job


@pytest.fixture(scope="module")
def outcome(spear: Job) -> Outcome:
    return followed(spear)


def test_spans_follow_each_other_without_gaps(outcome: Outcome) -> None:
    spans = outcome.timeline.spans
    assert spans[0].wait_s == 0
    for before, after in itertools.pairwise(spans):
        assert after.wait_s == pytest.approx(before.end_s)
        assert after.wait_s <= after.start_s <= after.end_s
    assert outcome.timeline.total_s == spans[-1].end_s


@given(share=st.floats(0, 1))
def test_a_moment_lies_in_the_span_it_names(share: float) -> None:
    timeline = _outcome().timeline
    seconds = share * timeline.total_s
    moment = timeline.at(seconds)
    span = timeline.spans[moment.index]
    assert span.wait_s - 1e-9 <= seconds <= span.end_s + 1e-9
    assert 0 <= moment.share <= 1


def _outcome() -> Outcome:
    return followed(demo_job("spear"))


def test_sections_are_the_operations_in_order(outcome: Outcome) -> None:
    named = [(outcome.sections[s], start, end) for s, start, end in outcome.timeline.sections() if s >= 0]
    assert [name for name, _, _ in named] == ["op1", "op2", "op3", "op4", "op5"]
    for name, start, end in named:
        assert outcome.times_of(name) == (start, end)
        assert outcome.operation_at((start + end) / 2) == name


def test_spindle_speed_stays_under_its_clamp(outcome: Outcome) -> None:
    points = outcome.timeline.speeds(outcome.job.machine)
    assert all(earlier[0] <= later[0] + 1e-9 for earlier, later in itertools.pairwise(points))
    assert max(rpm for _, rpm in points) == pytest.approx(4000)
    start, end = outcome.times_of("op5") or (0, 0)
    parting = [rpm for seconds, rpm in points if start < seconds < end - 3]
    clamp = outcome.plan.of("op5").reasons["clamp"].number  # type: ignore[union-attr]
    assert clamp < 2600
    assert max(parting) == pytest.approx(clamp)


def test_an_endless_move_is_drawn_as_an_hour(spear: Job) -> None:
    standing = Motion(Line((0, 10), (-5, 10)), 0.1, STOPPED, 1)
    change = spear.machine.carriers[0].tool_change_s
    assert timeline_of([standing], spear.machine).total_s == pytest.approx(ENDLESS_S + change)
    assert timeline_of([], spear.machine).at(3.0).index == -1


def test_changes_cost_time(spear: Job) -> None:
    machine = spear.machine
    slow, fast = Spindle("fixed", 500), Spindle("fixed", 1500)
    first = Motion(Line((0, 10), (-5, 10)), 0.1, slow, 1)
    second = Motion(Line((-5, 10), (-9, 10)), 0.1, fast, 1)
    other = Motion(Line((-5, 10), (-9, 10)), 0.1, slow, 2)
    assert dwell_and_change_s(first, second, machine) == pytest.approx(1000 / machine.spindle_ramp_rpm_s)
    assert dwell_and_change_s(first, other, machine) == pytest.approx(machine.carriers[0].tool_change_s)
    assert spindle_change_s(300, 300, machine) == 0
    times = times_of([first, second], machine)
    assert times.total_s == pytest.approx(times.cutting_s + times.rapid_s + times.idle_s)
    waiting = Motion(Line((0, 1), (0, 1)), None, slow, 1, dwell_s=2.0)
    assert times_of([first, waiting], machine).idle_s == pytest.approx(times_of([first], machine).idle_s + 2)


def test_metal_only_gets_less_with_time(outcome: Outcome) -> None:
    total = outcome.timeline.total_s
    volumes = [rotated_volume(outcome.replay.stock_at(total * i / 24)) for i in range(25)]
    assert all(later <= earlier + 0.05 for earlier, later in itertools.pairwise(volumes))
    assert volumes[0] == pytest.approx(rotated_volume(outcome.plan.scene.stock))
    assert volumes[-1] < volumes[0]


def test_replay_of_what_was_read_agrees_with_the_plan(outcome: Outcome) -> None:
    made = recorded().prove(outcome)
    proof, replay = made.proof, made.replay
    assert proof.ok
    for operation, planned in zip(outcome.sections, outcome.plan.operations, strict=True):
        _, end = outcome.times_of(operation) or (0, 0)
        read = replay.stock_at(end)
        assert read.symmetric_difference(planned.after).area < 0.02
        assert outcome.replay.stock_at(end).symmetric_difference(planned.after).area < 0.02


def test_half_a_move_cuts_half_the_way(outcome: Outcome) -> None:
    index, span = max(
        ((i, s) for i, s in enumerate(outcome.timeline.spans) if s.motion.section == 1 and not s.motion.is_rapid),
        key=lambda pair: pair[1].motion.segment.length,
    )
    areas = [outcome.replay.stock_at(t).area for t in (span.start_s, (span.start_s + span.end_s) / 2, span.end_s)]
    assert areas[0] > areas[1] > areas[2]
    assert areas[0] - areas[1] == pytest.approx((areas[0] - areas[2]) / 2, rel=0.15)
    body, cutting = outcome.replay.tool_at(span.end_s) or ([], [])
    tip = span.motion.end
    assert min(ring[:, 0].min() for ring in cutting) == pytest.approx(tip[0], abs=1e-3)
    assert min(ring[:, 1].min() for ring in cutting) == pytest.approx(tip[1], abs=1e-3)
    assert body
    assert outcome.operation_of(index) == "op2"
