"""Routes for parts whose hold decides: slender ones, bores that widen to both ends, keyways under the jaws."""

import pytest

from tests.support.long import everyday
from toreuma.core.auto.propose import Proposed
from toreuma.core.edit.reshape import mirrored
from toreuma.core.model import Job
from toreuma.core.model.tool import BoringTool, Reamer
from toreuma.core.plan import plan
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.proposals import with_second_grip

DONE = ("finished", "finished but for")


def job_of(line: str, machine: str = "slant-bed", units: str = "mm", material: str = "C45") -> Job:
    return new_job("part", units, material, machine, line)[0]  # type: ignore[arg-type]


def routed(line: str, machine: str = "slant-bed", units: str = "mm", material: str = "C45") -> Proposed:
    found = Engine().route(job_of(line, machine, units, material))
    assert found.state in DONE, found.words
    return found


SLENDER = "20 h7 x 120 c1 both; centre 2.5 both"


def test_a_slender_shaft_with_a_centre_hole_gets_a_live_centre() -> None:
    """It stands out more than four diameters; parting off waits until the centre is drawn back."""
    found = routed(SLENDER)
    first = found.job.setups[0]
    assert first.centre is not None
    assert any("live centre" in one for one in found.taken)
    back = [one.kind for one in first.operations if one.centre_back]
    assert back[0] == "face"
    assert back[-1] == first.operations[-1].kind == "part_off"


@pytest.mark.long
def test_without_a_tailstock_it_has_none_and_takes_longer() -> None:
    job = job_of(SLENDER)
    bare = Engine().route(job.changed(machine=job.machine.changed(tailstock=False)))
    assert all(setup.centre is None for setup in bare.job.setups)
    assert bare.seconds > routed(SLENDER).seconds


@pytest.mark.parametrize(
    "line",
    everyday(
        [
            "24 x 60 c1 both; bore 12 through / 18 H8 x 20 c0.5 / 18 H8 x 20 from back c0.5",
            "30 h7 x 30 c1 both; bore 15 through c1 both; 2 flats 24 from 0 to 12",
            "40 x 15 c1 / 20 x 15 / 40 x 15 c1 back; hole M8 x 20",
            "8 h6 x 25 c0.3 / 14 x 3 c0.3 both / 8 h6 x 25 c0.3 back; g 0.9 x 7.6 at 3",
            "36 x 10 c0.5 / 30 x 10 / 36 x 10 c0.5 back; bore 16 H7 through c0.5 both",
        ],
        "36 x 10 c0.5 / 30 x 10 / 36 x 10 c0.5 back; bore 16 H7 through c0.5 both",
    ),
)
def test_what_one_plain_hold_leaves_open_is_finished_another_way(line: str) -> None:
    routed(line, "twin-spindle mill-turn" if "flats" in line else "slant-bed")


def test_a_neck_between_two_equal_diameters_is_cut_by_a_blade() -> None:
    found = routed("12 f7 x 30 c0.5 / 10 x 4 / 12 f7 x 30 c0.5 back", "toolroom lathe")
    assert "groove" in [one.kind for one in found.job.setups[0].operations]
    assert any("necks are drawn as grooves" in one for one in found.taken)


@pytest.mark.long
def test_the_first_hold_takes_the_most_metal() -> None:
    """A flange in front of its shank is begun from the shank: the second hold sits on it, not on the thin flange."""
    line = "70 x 10 c1 both / 40 x 30 c0.5 back; bore 25 H7 through c1 both; 3 x M6 x 12 on 55"
    found = routed(line, "twin-spindle mill-turn")
    assert found.way.startswith("begun from its other end")
    assert found.seconds < 400


@pytest.mark.long
def test_a_keyway_lies_between_the_jaws_of_the_second_hold() -> None:
    line = "65 x 30 c1 both; bore 40 H7 through c1 both; slot 12 x 3.3 from 0 to 30"
    found = routed(line, "twin-spindle mill-turn")
    told = [one.code for side in Engine().sides(found.job) for one in side.all_findings]
    assert "second.keyway" in told


@pytest.mark.long
def test_an_inch_bore_is_reamed_with_a_reamer_of_the_inch() -> None:
    found = routed("1.000 x 2.250 c.03 both; bore .500 H7 through c.02 both", units="inch")
    assert "RM 1/2 H7" in [one.name for one in found.job.tools if isinstance(one, Reamer)]


def test_side_two_asks_for_nothing_that_only_corners_leave() -> None:
    """The flange is turned on side one but for the round of the nose at its foot: no cut in the air on side two."""
    found = routed("32 m6 x 36 c1 / 44 x 5 c0.5 both; bore 20 H7 through c0.5 both", "geared lathe", "mm", "POM-C")
    assert [one.kind for one in found.job.setups[1].operations] == ["finish_bore"]


def test_a_head_that_does_not_pass_the_jaws_is_not_put_behind_them() -> None:
    """Ø 30 lies between Ø 60 and Ø 40: jaws that open some millimetres take one of the ends."""
    job = job_of("60 x 10 c1 / 30 x 50 / 40 x 12 c1 back; bore 12 through c1 both")
    for one in (with_second_grip(job), with_second_grip(job.changed(part=mirrored(job.part)))):
        assert one is not None
        assert one.second_hold is not None
        assert one.part.outside[one.second_hold.element].d_mm != 30
    by_hand = job.with_setup(hold=job.setup.hold.changed(opens_mm=None))
    free = with_second_grip(by_hand)
    assert free is not None
    assert free.second_hold is not None
    assert free.part.outside[free.second_hold.element].d_mm == 30


def test_the_free_stretch_behind_a_groove_is_gripped() -> None:
    job = job_of("30 x 60 c1; g 3 x 24 at 8 / 20 x 15")
    held = with_second_grip(job)
    assert held is not None
    assert held.second_hold is not None
    assert held.second_hold.begins_mm >= 10  # behind its chamfer, past the groove


def test_a_long_piece_is_gripped_nearer_its_free_end_where_it_goes_into_the_spindle() -> None:
    job = job_of("20 x 120 c1 / 12 x 10")
    held = with_second_grip(job)
    assert held is not None
    assert held.second_hold is not None
    stands_out = 130 - held.second_hold.begins_mm - held.second_hold.grip_length_mm
    assert stands_out <= 2 * 20 + 1
    narrow = with_second_grip(job.changed(machine=job.machine.changed(spindle_bore_mm=18.0)))
    assert narrow is not None
    assert narrow.second_hold is not None
    chuck = narrow.setup.hold
    deep = narrow.second_hold.begins_mm + narrow.second_hold.grip_length_mm
    assert deep <= max(getattr(chuck, "jaw_length_mm", 0.0), getattr(chuck, "cap_length_mm", 0.0)) + 1


def test_recesses_from_both_ends_are_bored_by_bars_as_long_as_each_is_deep() -> None:
    """The land between them is open: it is no core the bar has to stop at, and no bar goes through to the other end."""
    found = routed("60 x 80 c1 both; bore 40 H7 x 30 c1 / 30 x 20 / 40 H7 x 30 from back c1", material="GJL-250")
    assert len(found.job.setups) == 2
    for tool in found.job.tools:
        if isinstance(tool, BoringTool):
            assert (tool.bar.stick_out_mm or 0.0) < 60
            assert tool.bar.diameter_mm >= 20


def test_a_broken_edge_does_not_slow_the_whole_finishing_cut() -> None:
    """The finisher meets twice its layer in a chamfer a millimetre wide: the feed is that of a part without one."""
    feeds = []
    for edge in ("", " c1"):
        found = Engine().route(job_of(f"60 x 80{edge}"), enough=lambda: True)
        planned = Engine().sides(found.job)[0]
        feeds.append(
            next(one.cuts.figures.feed_mm_rev for one in planned.operations if one.operation.kind == "finish_od")
        )
    assert feeds[1] == pytest.approx(feeds[0], rel=0.1)


def test_a_thick_layer_in_a_wide_place_still_counts() -> None:
    """A chamfer of four millimetres that nothing has roughed is no broken edge."""
    job = job_of("60 x 80 c4")
    found = Engine().route(job, enough=lambda: True)
    sides = Engine().sides(found.job)
    finish = next(one for one in sides[0].operations if one.operation.kind == "finish_od")
    bare = found.job.with_setup(operations=(finish.operation,))
    alone = plan(bare).operations[0]
    assert alone.cuts.figures.ap_mm is not None
    assert alone.cuts.figures.feed_mm_rev <= finish.cuts.figures.feed_mm_rev


def test_a_ring_is_gripped_over_the_groove_that_takes_most_of_it() -> None:
    """No land of it is long enough: the jaws sit on both."""
    found = routed("18.6 h7 x 12.8 c0.9 front c0.5 back; bore 9.8 H7 through c0.5; g 6.25 x 14.76 at 3.275; break 0.2")
    held = found.job.second_hold
    assert held is not None
    assert held.begins_mm < 3.275 < 3.275 + 6.25 < held.begins_mm + held.grip_length_mm
    assert not any("free to grip" in one.what for one in plan(found.job).all_findings)
