"""Nuts, nipples, studs and what is tapped from both ends: threads that run out behind the part or into a cone, holes
drilled past it for the tap, and the order in which two ends are served."""

import pytest

from tests.support.long import everyday
from toreuma.core.auto.propose import Proposed
from toreuma.core.model import Job
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.plan.ground.given import threads_past_mm
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.proposals import farther_out, with_second_grip

DONE = ("finished", "finished but for")


def job_of(line: str, machine: str = "slant-bed", material: str = "11SMnPb30") -> Job:
    return new_job("part", "mm", material, machine, line)[0]


def route(line: str, machine: str = "slant-bed") -> Proposed:
    return Engine().route(job_of(line, machine))


def kinds(found: Proposed, side: int = 0) -> list[str]:
    return [one.kind for one in found.job.setups[side].operations]


def test_a_nut_is_drilled_so_far_past_its_back_that_the_tap_has_room() -> None:
    found = route("hex 13 x 6.5 c0.8 both; hole M8 through", "twin-spindle bar lathe")
    assert found.state in DONE, found.words
    drill = next(one for one in found.job.operations if one.kind == "drill" and one.name != "Spot")
    tap = next(one for one in found.job.tools if one.kind == "tap")
    assert drill.breakthrough_mm >= (tap.lead_pitches + 1.5) * tap.pitch_mm  # type: ignore[union-attr]
    assert kinds(found).index("tap") < kinds(found).index("part_off")


def test_holes_that_meet_are_drilled_once_and_tapped_from_both_ends() -> None:
    found = route("hex 10 x 25 c0.5 both; hole M5 x 12; hole M5 x 12 back")
    assert found.state in DONE, found.words
    assert kinds(found).count("tap") == kinds(found, 1).count("tap") == 1


@pytest.mark.parametrize(
    "line",
    everyday(
        [
            "M10 x 20 c1 both",
            "M12 x 60 c1 both",
            "hex 24 x 48 c1 both; hole M16 through",  # the blade goes on through the teeth the piece hangs by
            "hex 19 x 9.6 c1 both; bore M12-6H through c1 both",
            "R1/2 x 18 c1 / 21.3 x 20 / R1/2 x 18 c1 back; bore 16 through",
            "hex 24 x 36 c1 both; bore 8 through / M18x1.5-6H x 12 c1 / M18x1.5-6H x 12 from back c1",
            "M8-6g x 12 c1 / 8>12 x 50 / 25 x 20 c1 both",
            "30 x 35 c1 both; bore G1/4 x 16 / 8 through",
            "28 x 16 knurl straight 1 c1 both / 12 x 8 c0.5; hole M6 x 14 back",
        ],
        "M10 x 20 c1 both",
        "M8-6g x 12 c1 / 8>12 x 50 / 25 x 20 c1 both",
    ),
)
def test_it_comes_out_finished(line: str) -> None:
    found = route(line)
    assert found.state in DONE, (line, found.words)


@pytest.mark.parametrize(
    "line",
    everyday(
        [
            "16 f6 x 12 c0.5 / 12 x 8 / 16 f6 x 14 / 12 x 8 / 16 f6 x 12 c0.5 back",
            "30 x 20 c1 / 18 x 40 / 30 x 20 c1 back",
            "45 x 50 c1 both; bore 30 H7 x 15 c0.5 / 20 x 15 / 12 x 10",
            "40 x 80 c1 both; bore 12 H7 through c0.5 both",
        ]
    ),
)
def test_walls_on_both_sides_steps_and_deep_bores_come_out_finished(line: str) -> None:
    for machine in ("slant-bed", "toolroom lathe"):
        found = route(line, machine)
        assert found.state in DONE, (line, machine, found.words)


def test_a_taper_thread_knows_the_end_its_mate_goes_on_from() -> None:
    part = job_of("R1/2 x 18 c1 / 21.3 x 20 / R1/2 x 18 c1 back").part
    front, back = (one for one in part.features if isinstance(one, ThreadFeature))
    assert (front.entry, back.entry) == ("front", "back")
    assert front.gauge_z_mm(8.0) == pytest.approx(-8.0)
    assert back.gauge_z_mm(8.0) == pytest.approx(part.outside[-1].z_mm + 8.0)
    assert front.taper_sign == -back.taper_sign == 1.0


def test_only_a_thread_that_ends_at_the_back_asks_for_room_behind_it() -> None:
    through, short = (Engine().route(job_of(line)).job for line in ("M10 x 20 c1 both", "M10-6g x 20 c1 / 16 x 10"))
    assert threads_past_mm(through, "outside") > 2.0
    assert threads_past_mm(through, "inside") == threads_past_mm(short, "outside") == 0.0


def test_a_bar_stands_out_farther_only_where_nobody_set_it_and_it_is_no_whip() -> None:
    job = job_of("16 x 40")
    out = farther_out(job)
    assert out is not None
    assert out.setup.hold.stick_out_mm > job.setup.hold.stick_out_mm + 20
    assert farther_out(job.changed(follows=())) is None
    assert farther_out(job_of("6 x 40")) is None


def test_a_second_hold_never_grips_more_than_there_is() -> None:
    job = new_job("nut", "inch", "1018", "slant-bed", "hex .75 x .437 c.03 both; bore .4 through")[0]
    held = with_second_grip(job)
    assert held is not None
    assert held.second_hold is not None
    free = -job.part.outside[-1].z_mm - sum(one.corner.size_mm for one in job.part.outside if one.corner is not None)
    assert held.second_hold.grip_length_mm <= free
