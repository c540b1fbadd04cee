"""Grooves and reliefs as operations: outside, inside, in a face; narrow, wide, leaning; what does not fit."""

import pytest

from tests.support.kept import plan
from tests.support.routes import proof_of, tool_of, turned_job
from toreuma.core.cutting.figures import Figure
from toreuma.core.model import CutGroove, Job
from toreuma.core.model.feature import FaceGroove, Feature, Groove, Relief
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.shipped.library import demo_job


def grooved(feature: Feature, tool: str, **changes: object) -> Job:
    """A bush of C45 already turned and bored to size, and one groove cut into it."""
    blade = tool_of(tool, 1)
    job = turned_job((feature,), (blade,), bore_d=40.0)
    return job.with_setup(operations=(CutGroove(id="g", tool=blade.id, feature=0, **changes),))


def cut_of(job: Job) -> OperationPlan:
    return plan(job).operations[0]


CASES = {
    "wide, square": (Groove(z_mm=-12, width_mm=6.4, d_mm=62, edge_break_mm=0.3), "GO 2 8"),
    "as wide as the blade": (Groove(z_mm=-12, width_mm=2.0, d_mm=66), "GO 2 8"),
    "leaning walls": (Groove(z_mm=-10, width_mm=13, d_mm=50, wall_deg=17.0, floor_round_mm=0.4), "GO 3 14"),
    "a V": (Groove(z_mm=-10, width_mm=8.24, d_mm=58, wall_deg=30.0), "GV 38 6"),
    "in the bore": (Groove(side="inside", z_mm=-10, width_mm=3.2, d_mm=44), "GI 2 16"),
    "in the face": (FaceGroove(d_mm=62, width_mm=6, depth_mm=5, floor_round_mm=0.3), "GF 4 40-90"),
    "relief, form thread": (
        Relief(form="thread", z_mm=-40, length_mm=6, depth_mm=1.6, radius_mm=1.0), "GO 3 14"),
}  # fmt: skip


@pytest.mark.parametrize("method", ["plunges", "plunge_turn", "straight"])
@pytest.mark.parametrize("name", CASES)
def test_every_kind_is_cut_without_gouge_or_contact(name: str, method: str) -> None:
    feature, tool = CASES[name]
    job = grooved(feature, tool, method=method)
    proof = proof_of(job)
    assert proof.contacts == ()
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    void = dict(plan(job).scene.shape.voids)[0].cut
    whole = void.intersection(plan(job).scene.stock)
    left = proof.final.intersection(void).area
    assert left < 0.35 * whole.area if name == "a V" else left < 0.05 * whole.area


def test_walls_are_finished_from_the_top_to_one_place_on_the_floor() -> None:
    feature, tool = CASES["wide, square"]
    planned = cut_of(grooved(feature, tool))
    ends = [one.segments[-1].end for one in planned.cuts.passes if one.finishing]
    assert len(ends) == 2
    assert ends[0] == pytest.approx(ends[1], abs=1e-6)
    assert all(one.segments[0].start[1] > one.segments[-1].end[1] for one in planned.cuts.passes)


def test_plunges_go_from_the_middle_outward_no_farther_apart_than_the_flat() -> None:
    planned = cut_of(grooved(*CASES["wide, square"]))
    places = [one.segments[0].start[0] for one in planned.cuts.passes if not one.finishing]
    middle = sum(places) / len(places)
    assert abs(places[0] - middle) <= min(abs(z - middle) for z in places) + 1e-6
    assert max(b - a for a, b in zip(sorted(places), sorted(places)[1:], strict=False)) <= 0.8 * 1.6 + 1e-6


def test_plunging_and_turning_is_shorter_in_a_wide_shallow_groove() -> None:
    feature = Groove(z_mm=-10, width_mm=20, d_mm=67)
    plunged, turned = (
        cut_of(grooved(feature, "GO 3 14", method=m)).times.cutting_s for m in ("plunges", "plunge_turn")
    )
    assert turned != plunged


def test_a_square_blade_first_and_the_v_after_it() -> None:
    """Pre-cut in steps, then the flanks: the second tool finds only what the first left."""
    feature = Groove(z_mm=-10, width_mm=13, d_mm=48, wall_deg=17.0)
    square, sharp = tool_of("GO 2.5 10", 1), tool_of("GV 36 8", 3)
    job = turned_job((feature,), (square, sharp), bore_d=40.0).with_setup(
        operations=(
            CutGroove(id="a", tool=square.id, feature=0, leave_mm=0.2),
            CutGroove(id="b", tool=sharp.id, feature=0),
        )
    )
    first, second = plan(job).operations
    assert first.removed.area > 2 * second.removed.area
    proof = proof_of(job)
    assert (proof.contacts, proof.gouge_um <= 2) == ((), True)


@pytest.mark.parametrize(
    ("feature", "tool", "code"),
    [
        (Groove(z_mm=-12, width_mm=1.6, d_mm=66), "GO 2 8", "groove.narrow"),
        (Groove(z_mm=-12, width_mm=4, d_mm=66), "GI 2 16", "tool.where"),
        (Groove(z_mm=-12, width_mm=6, d_mm=50), "GO 2 8", "groove.deep"),
        (FaceGroove(d_mm=68, width_mm=6, depth_mm=5), "GF 3 24-40", "groove.ring"),
        (FaceGroove(end="back", d_mm=62, width_mm=6, depth_mm=5), "GF 3 24-40", "groove.back"),
    ],
)
def test_what_does_not_fit_is_told(feature: Feature, tool: str, code: str) -> None:
    assert code in {finding.code for finding in cut_of(grooved(feature, tool)).findings}


def test_more_left_than_there_is_room_for() -> None:
    feature, tool = CASES["wide, square"]
    assert {f.code for f in cut_of(grooved(feature, tool, leave_mm=20.0)).findings} == {"groove.leave"}


def test_a_groove_that_is_not_there(spear: Job) -> None:
    blade = tool_of("GO 2 8", 4)
    job = spear.changed(tools=(*spear.tools, blade)).with_setup(
        operations=(CutGroove(id="g", tool=blade.id, feature=7),)
    )
    assert cut_of(job).findings[0].code == "groove.none"


def test_one_card_opens_the_v_its_root_and_its_walls() -> None:
    feature = Groove(z_mm=-10, width_mm=13, d_mm=48, wall_deg=17.0)
    square, sharp = tool_of("GO 2.5 10", 1), tool_of("GV 36 8", 3)
    job = turned_job((feature,), (square, sharp), bore_d=40.0).with_setup(
        operations=(CutGroove(id="g", tool=square.id, root_tool=sharp.id, feature=0),)
    )
    one = cut_of(job)
    assert list(dict.fromkeys(motion.station for motion in one.motions)) == [1, 3]
    assert one.cuts.further[0][Figure.FEED].name.endswith("T3 in the root")
    proof = proof_of(job)
    assert (proof.contacts, proof.gouge_um <= 2, proof.leftover_um) == ((), True, 0)
    assert proof.program.text.count("T0303") == 1


def test_a_tool_of_the_card_that_is_not_there() -> None:
    job = grooved(Groove(z_mm=-12, width_mm=4, d_mm=66), "GO 2 8", wall_tool="T9")
    assert [finding.code for finding in cut_of(job).findings] == ["tool.missing"]


def test_a_deep_groove_is_opened_step_by_step() -> None:
    """No plunge goes more than three widths deeper than its neighbours have been."""
    deep = cut_of(grooved(Groove(z_mm=-12, width_mm=8, d_mm=48), "GO 3 14"))
    bottoms: list[tuple[float, float]] = []
    for motion in deep.motions:
        if motion.is_rapid and motion.end[1] > 36 and (not bottoms or bottoms[-1][0] != motion.end[0]):
            bottoms.append((motion.end[0], 99.0))
        elif not motion.is_rapid and bottoms:
            bottoms[-1] = (bottoms[-1][0], min(bottoms[-1][1], motion.end[1]))
    first = [r for _, r in bottoms if r < 99][:2]
    assert min(first) > 36 - 3 * 3 - 0.5
    assert min(r for _, r in bottoms) == pytest.approx(24, abs=0.2)


def test_a_wall_beside_metal_left_for_finishing_is_come_down_to_at_feed() -> None:
    """Without its finishing cut the flange still stands out over the relief beside it."""
    job = demo_job("spear").with_operation("op4", lambda op: op.changed(enabled=False))
    proof = proof_of(job)
    assert proof.contacts == ()
    assert proof.gouge_um <= 2
