"""Blanks and holds to scale, what the hold allows, and the second grip."""

import math
from typing import Any

import pytest

from tests.support.kept import plan
from toreuma.core.errors import JobError
from toreuma.core.model import Job, Part
from toreuma.core.plan.asked.grips import operation_grips
from toreuma.core.plan.sides.second_side import second_setup
from toreuma.core.scene import build_scene
from toreuma.shipped.library import demo_job


def with_hold(job: Job, **changes: Any) -> Job:
    return job.with_setup(hold=job.setup.hold.changed(**changes))


def with_stock(job: Job, **fields: Any) -> Job:
    material = job.stock.material.model_dump()
    return job.changed(stock={"material": material, "face_allowance_mm": 1.5, **fields})


def codes(job: Job) -> set[str]:
    return {finding.code for finding in plan(job).findings}


def test_polygon_bars_reach_out_to_their_corners(spear: Job) -> None:
    hexagon = with_stock(spear, kind="polygon", sides=6, across_mm=32)
    assert build_scene(hexagon).stock_r == pytest.approx(16 / math.cos(math.pi / 6))
    square = with_stock(spear, kind="polygon", sides=4, across_mm=32)
    assert build_scene(square).stock_r == pytest.approx(16 * math.sqrt(2))


def test_tubes_and_cored_blanks_are_hollow(spear: Job) -> None:
    tube = build_scene(with_stock(spear, kind="tube", d_mm=40, bore_d_mm=20)).stock
    assert tube.bounds[1] == pytest.approx(10)
    cored = build_scene(with_stock(spear, kind="tube", d_mm=40, bore_d_mm=20, bore_depth_mm=30)).stock
    assert cored.bounds[1] == 0
    assert cored.area == pytest.approx(20 * (cored.bounds[2] - cored.bounds[0]) - 10 * 30)


def test_a_sawn_piece_ends_after_its_length(spear: Job) -> None:
    piece = build_scene(with_stock(spear, kind="round", d_mm=32, length_mm=100)).stock
    assert piece.bounds[2] - piece.bounds[0] == pytest.approx(100)


def test_a_casting_is_the_part_with_an_allowance(spear: Job) -> None:
    scene = build_scene(with_stock(spear, kind="free", allowance_mm=2))
    assert scene.stock.contains(scene.part)
    assert scene.stock_r == pytest.approx(17)
    assert scene.stock_front_z == pytest.approx(2, abs=0.1)


def test_the_speed_is_clamped_where_the_grip_is_just_enough(spear: Job) -> None:
    held = with_hold(spear, force_n=45_000.0, jaw_mass_kg=1.2, jaw_centre_r_mm=60.0, grip_length_mm=60.0)
    planned = plan(held)
    safe = planned.hold.safe_speed
    assert safe is not None
    assert safe.number < held.machine.max_rpm
    clamps = [op.reasons["clamp"] for op in planned.operations[:-1]]
    assert min(clamp.number for clamp in clamps) == pytest.approx(safe.number, abs=1)  # the hardest cut's own
    assert clamps[0].bit.label == "grip at speed"  # type: ignore[union-attr]
    lighter = planned.operations[3].reasons
    assert lighter["force"].number < planned.hold.force.number
    assert lighter["clamp"].number > safe.number  # each cut is clamped by what it asks of the grip itself
    loose = plan(with_hold(held, force_n=200_000.0))
    assert loose.operations[0].reasons["clamp"].number == 4000


def test_every_operation_knows_its_safety(spear: Job) -> None:
    held = with_hold(spear, force_n=60_000.0, jaw_mass_kg=1.2, jaw_centre_r_mm=60.0)
    planned = plan(held)
    grips = dict(operation_grips(planned))
    assert list(grips) == [op.operation.id for op in planned.operations if "force" in op.reasons]
    assert grips["op4"].number > 2.5


def test_a_weak_grip_a_wrong_size_and_a_missing_centre_hole_are_said(spear: Job) -> None:
    gentle = plan(with_hold(spear, force_n=12_000.0)).operations[1]
    assert gentle.cuts.proposal is not None
    grip = next(use for use in gentle.cuts.proposal.uses if use.kind.name == "grip")
    assert 0.9 < grip.share <= 1
    assert gentle.reasons["ap"].number < 1.2
    rubs = {finding.code for finding in plan(with_hold(spear, force_n=300.0)).all_findings}
    assert "cut.none" in rubs  # what the grip allows is no cut
    stubborn = with_hold(spear, force_n=3000.0).with_operation(
        "op2", lambda op: op.changed(pins={"ap_mm": 2.0, "feed_mm_rev": 0.3})
    )
    assert {"grip.short", "hold.weak"} <= {finding.code for finding in plan(stubborn).all_findings}
    assert "hold.range" in codes(with_hold(spear, grip_range_mm=(40.0, 120.0)))
    centre = spear.with_setup(centre={"d_mm": 30})
    assert "centre.hole" in codes(centre)
    finding = next(f for f in plan(centre).findings if f.code == "centre.hole")
    assert "centre.hole" not in codes(finding.cures[0].apply(centre))


def test_a_bar_behind_the_spindle_clamps_the_speed(spear: Job) -> None:
    material = spear.stock.material.changed(e_n_mm2=200_000.0)
    long = with_hold(spear.changed(stock=spear.stock.changed(material=material)), bar_behind_mm=900.0)
    planned = plan(long)
    assert "hold.whip" in {finding.code for finding in planned.findings}
    assert any(limit.label == "bar behind the spindle" for limit in planned.hold.limits)
    cured = next(f for f in planned.findings if f.code == "hold.whip").cures[0].apply(long)
    assert "hold.whip" not in codes(cured)


def test_collets_and_mandrels_stand_where_they_hold(spear: Job) -> None:
    base = {"stick_out_mm": 92, "grip_length_mm": 40, "body_d_mm": 120, "max_rpm": 6000}
    collet = spear.with_setup(
        hold={**base, "kind": "collet", "range_mm": (10, 42), "cap_length_mm": 25, "cap_d_mm": 80}
    )
    scene = build_scene(collet)
    assert scene.jaws.bounds[2] == pytest.approx(1.5 - 92)
    assert plan(collet).operations[-1].motions
    ring = Part.model_validate(
        {
            "outside": [{"z_mm": 0, "d_mm": 60}, {"z_mm": -40, "d_mm": 60}],
            "inside": [{"z_mm": 0, "d_mm": 30}, {"z_mm": -40, "d_mm": 30}],
        }
    )
    held = with_stock(spear.changed(part=ring), kind="tube", d_mm=64, bore_d_mm=30, length_mm=41.5)
    held = held.with_setup(hold={**base, "kind": "mandrel", "d_mm": 30, "length_mm": 30, "stick_out_mm": 41.5})
    scene = build_scene(held)
    assert scene.jaws.bounds[2] == pytest.approx(-10)
    assert scene.clear_z == pytest.approx(-40)


def test_jaw_relief_opens_the_front_of_the_jaws(spear: Job) -> None:
    plain = build_scene(spear).jaws
    relieved = build_scene(with_hold(spear, relief={"length_mm": 5, "height_mm": 10})).jaws
    assert plain.area - relieved.area == pytest.approx(50)


def second(job: Job, element: int, length: float, **more: Any) -> Job:
    return job.changed(second_hold={"element": element, "grip_length_mm": length, **more})


def test_the_second_hold_wants_a_finished_cylinder_long_enough(spear: Job) -> None:
    assert not plan(second(spear, 2, 10)).second.findings  # type: ignore[union-attr]
    assert "second.short" in codes(second(spear, 2, 20))
    assert "second.shape" in codes(second(spear, 1, 10))
    assert "second.range" in codes(second(spear, 2, 10, range_mm=(30, 60)))
    threaded = spear.changed(
        part=spear.part.changed(features=[{"kind": "thread", "designation": "M22", "from_z_mm": -23, "length_mm": 8}])
    )
    assert "second.disturbed" in codes(second(threaded, 2, 10))


def test_the_cures_of_the_second_hold_mend_it(spear: Job) -> None:
    short = second(spear.with_operation("op4", lambda op: op.changed(to_z_mm=-30.0)), 2, 10)
    finding = next(f for f in plan(short).findings if f.code == "second.rough")
    cured = finding.cures[0].apply(short)
    assert "second.rough" not in codes(cured)
    shape = next(f for f in plan(second(spear, 1, 10)).findings if f.code == "second.shape")
    assert shape.cures[0].apply(second(spear, 1, 10)).second_hold.element != 1  # type: ignore[union-attr]


def test_weights_and_the_bars_yield(spear: Job) -> None:
    """77 mm of part and 4.5 mm of cut and facing from 3000 less 80 mm."""
    planned = plan(spear)
    pitch = 76 + 3 + 1.5
    assert planned.supply.pitch_mm == pytest.approx(pitch)
    assert planned.supply.parts == math.floor(2920 / pitch)
    told = {one.symbol: one.number for one in planned.supply.reasons}
    assert (told["p"], told["n"]) == (planned.supply.pitch_mm, planned.supply.parts)
    assert told["m0"] == pytest.approx(math.pi / 4 * 32**2 * pitch * 7980e-9)
    paired = spear.changed(stock=spear.stock.changed(supply={"back_to_back": True}))
    assert plan(paired).supply.pitch_mm == pytest.approx((2 * 76 + 2 * 3 + 2 * 1.5) / 2)
    short = spear.changed(stock=spear.stock.changed(supply={"bar_length_mm": 100}))
    assert "bar.short" in codes(short)


def test_soft_jaws_want_the_blanks_diameter_and_depth(spear: Job) -> None:
    soft = with_hold(spear, jaws="soft", bored_d_mm=31.0, bored_depth_mm=25.0)
    found = {finding.severity: finding for finding in plan(soft).findings if finding.code == "hold.bored"}
    assert set(found) == {"warning", "error"}
    mended = found["error"].cures[0].apply(found["warning"].cures[0].apply(soft))
    assert "hold.bored" not in codes(mended)
    piece = mended.changed(stock=mended.stock.changed(length_mm=92.0 + 25.0))
    jaws = build_scene(piece).jaws
    assert jaws.bounds[1] == pytest.approx(12.0)  # the step the piece rests on


def test_a_part_that_outgrows_its_casting_profile_is_said(spear: Job) -> None:
    """The size of a casting follows its profile and the part; nothing about it is kept twice."""
    own = [{"z_mm": 0, "d_mm": 28}, {"z_mm": -140, "d_mm": 28}]
    assert "stock.small" in codes(with_stock(spear, kind="free", outside=own))
    assert "stock.small" not in codes(with_stock(spear, kind="free", allowance_mm=1))


def test_the_grip_is_measured_by_the_cuts_as_planned(spear: Job) -> None:
    held = with_hold(spear, force_n=45_000.0, jaw_mass_kg=1.2, jaw_centre_r_mm=60.0, grip_length_mm=60.0)
    planned = plan(held)
    hardest = max(op.reasons["force"].number for op in planned.operations if "force" in op.reasons)
    assert planned.hold.force.number == hardest
    assert "as planned" in planned.hold.force.note
    safest = [number.number for _, number in operation_grips(planned)]
    assert min(safest) == pytest.approx(held.setup.hold.safety, rel=2e-3)  # the clamp is a whole number
    lighter = held.with_operation("op2", lambda op: op.changed(pins=op.pins.changed(ap_mm=0.4)))
    lighter = lighter.with_operation("op1", lambda op: op.changed(pins=op.pins.changed(ap_mm=0.4)))
    assert plan(lighter).hold.safe_speed.number > planned.hold.safe_speed.number  # type: ignore[union-attr]


def test_a_ring_pressed_out_of_round_is_held_against_its_tightest_diameter() -> None:
    ring = demo_job("seat-ring")
    finding = next(f for f in plan(ring).findings if f.code == "hold.oval")
    assert codes(finding.cures[0].apply(ring)).isdisjoint({"hold.oval"})
    loose = ring.part.changed(
        outside=tuple(e.changed(size=None) for e in ring.part.outside),
        inside=tuple(e.changed(size=None) for e in ring.part.inside),
    )
    assert "hold.oval" not in codes(ring.changed(part=loose))


def test_the_block_of_a_blade_is_checked_against_its_neighbours(spear: Job) -> None:
    tool = next(tool for tool in spear.tools if tool.kind == "parting")
    short = tool.changed(blade=tool.blade.changed(depth_mm=6.0))
    blocked = spear.changed(tools=tuple(short if t is tool else t for t in spear.tools))
    found = {f.code for op in plan(blocked).operations for f in op.findings}
    assert "blade.block" in found
    assert "blade.block" not in {f.code for op in plan(spear).operations for f in op.findings}


def test_jaws_in_a_bore_that_is_not_there_are_refused(spear: Job) -> None:
    with pytest.raises(JobError, match="no bore"):
        plan(spear.with_setup(hold=spear.setup.hold.changed(side="inside")))


def test_a_grip_may_begin_behind_the_front_edge_of_its_surface(spear: Job) -> None:
    at_edge, behind = second(spear, 2, 6), second(spear, 2, 6, begins_mm=3.5)
    outs = [second_setup(one).hold.stick_out_mm for one in (at_edge, behind)]
    assert outs[0] - outs[1] == pytest.approx(3.5)  # so much less stands out
    assert not plan(behind).second.findings  # type: ignore[union-attr]
    length = -spear.part.outside[2].z_mm + spear.part.outside[1].z_mm
    assert "second.short" in codes(second(spear, 2, 6, begins_mm=length - 6))


def test_a_groove_at_the_front_edge_is_gripped_behind(spear: Job) -> None:
    before = spear.part.outside[1]
    groove = {"kind": "groove", "z_mm": before.z_mm - 1, "width_mm": 2, "d_mm": before.d_mm - 2}
    grooved = spear.changed(part=spear.part.changed(features=(*spear.part.features, groove)))
    assert not plan(second(grooved, 2, 10)).second.findings  # type: ignore[union-attr]  # jaws lie over it
    on_it = second(grooved, 2, 4)
    finding = next(one for one in plan(on_it).findings if one.code == "second.disturbed")
    cured = finding.cures[0].apply(on_it)
    assert cured.second_hold is not None
    assert cured.second_hold.begins_mm == pytest.approx(3)
    assert "second.disturbed" not in codes(cured)


@pytest.mark.parametrize(("opens", "told"), [(4.0, True), (10.5, False), (None, False)])
def test_a_head_wider_than_the_jaws_open_is_told(spear: Job, opens: float | None, told: bool) -> None:
    headed = spear.changed(
        part=Part(
            outside=(
                {"z_mm": 0, "d_mm": 40}, {"z_mm": -10, "d_mm": 40}, {"z_mm": -10, "d_mm": 30},
                {"z_mm": -40, "d_mm": 30}, {"z_mm": -40, "d_mm": 20}, {"z_mm": -50, "d_mm": 20},
            )
        )
    )  # fmt: skip
    chuck = demo_job("seat-ring").setup.hold.changed(opens_mm=opens)
    job = second(headed.with_setup(hold=chuck), 3, 10)
    assert ("second.head" in codes(job)) is told
    assert "second.head" not in codes(second(headed.with_setup(hold=chuck), 1, 5))  # nothing lies in front of it
