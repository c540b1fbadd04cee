"""Operations planned against the stock that is there, with numbers that say why."""

import itertools
import math
from dataclasses import replace

import pytest
from pydantic import ValidationError

from tests.support.kept import plan, plan_sides, prove_plan
from tests.support.machines import with_carrier
from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, PartError
from toreuma.core.geometry.region import polygons, rotated_volume
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo
from toreuma.core.model import Job, Operation
from toreuma.core.model.stock import RoundBar
from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.kinds import KINDS
from toreuma.core.plan.route import plan as fresh_plan
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.shipped.library import demo_job, materials


def op(planned: Plan, operation_id: str) -> OperationPlan:
    found = planned.of(operation_id)
    assert found is not None
    return found


def pinned(job: Job, operation_id: str, **pins: float | None) -> Job:
    return job.with_operation(operation_id, lambda o: o.changed(pins=o.pins.changed(**pins)))


def with_field(job: Job, operation_id: str, **fields: object) -> Job:
    return job.with_operation(operation_id, lambda o: o.changed(**fields))


def only(job: Job, *operation_ids: str) -> Job:
    return job.with_setup(operations=tuple(o for o in job.operations if o.id in operation_ids))


def codes(planned: Plan) -> set[str]:
    return {finding.code for finding in planned.all_findings}


def test_the_demo_plans_without_findings(spear_plan: Plan) -> None:
    assert spear_plan.all_findings == ()
    assert [len(o.motions) > 0 for o in spear_plan.operations] == [True] * 5


def test_facing_goes_past_the_centre_by_more_than_the_nose(spear_plan: Plan, spear: Job) -> None:
    face = op(spear_plan, "op1")
    deepest = min(motion.end[1] for motion in face.motions if not motion.is_rapid)
    assert -deepest > spear.tools[0].insert.nose_radius_mm  # type: ignore[union-attr]
    assert face.after.bounds[2] == pytest.approx(0, abs=1e-9)


def test_facing_divides_the_depth_evenly(spear: Job) -> None:
    planned = plan(pinned(spear.changed(stock=spear.stock.changed(face_allowance_mm=5)), "op1", ap_mm=2.0))
    face = op(planned, "op1")
    assert [p.depth_mm for p in face.cuts.passes] == pytest.approx([5 / 3] * 3)
    left = with_field(spear, "op1", leave_mm=0.3)
    assert op(plan(left), "op1").after.bounds[2] == pytest.approx(0.3, abs=1e-9)


def test_nothing_to_face_is_a_note_not_a_cut(spear: Job) -> None:
    planned = plan(only(spear.changed(stock=spear.stock.changed(face_allowance_mm=0)), "op1"))
    assert codes(planned) == {"face.nothing"}
    assert not op(planned, "op1").motions


@pytest.mark.parametrize("limit", [0.4, 0.9, 1.7, 3.0])
def test_roughing_passes_are_even_and_not_above_the_limit(spear: Job, limit: float) -> None:
    rough = op(plan(pinned(spear, "op2", ap_mm=limit)), "op2")
    depths = [p.depth_mm for p in rough.cuts.passes]
    assert depths
    assert max(depths) <= limit + 1e-9
    assert rough.reasons["ap"].number == pytest.approx(max(depths))
    assert rough.reasons["passes"].number == len(depths)


def test_roughing_leaves_the_allowances(spear: Job) -> None:
    """No cut comes closer to the part than the allowance, and on the guide it is exactly that."""
    job = with_field(spear, "op2", leave_radial_mm=0.5, leave_axial_mm=0.2)
    planned = plan(only(job, "op1", "op2"))
    left = op(planned, "op2").after
    part = planned.scene.part
    assert part.difference(left).area < 1e-9
    guide = left.intersection(part.buffer(3).intersection(_slab(-34, -30)))
    assert guide.bounds[3] == pytest.approx(11.5, abs=0.003)
    shoulder = left.intersection(_slab(-60, -50))
    assert rotated_volume(shoulder) > 0


def _slab(z0: float, z1: float):  # type: ignore[no-untyped-def]
    from toreuma.core.geometry.region import box

    return box(z0, 0, z1, 100)


def test_a_second_roughing_cuts_only_what_the_first_left(spear: Job, spear_plan: Plan) -> None:
    neck = op(spear_plan, "op3")
    for piece in polygons(neck.removed):
        if piece.area > 0.5:
            z0, _, z1, _ = piece.bounds
            assert -55 < z0 < z1 < -34
    alone = plan(only(spear, "op1", "op3"))
    assert op(alone, "op3").removed.area > 10 * neck.removed.area


def test_operations_follow_the_stock_before_them(spear: Job, spear_plan: Plan) -> None:
    for before, after in zip(spear_plan.operations, spear_plan.operations[1:], strict=False):
        assert after.before is before.after
    swapped = spear.with_setup(operations=(spear.operations[1], spear.operations[0], *spear.operations[2:]))
    planned = plan(swapped)
    assert op(planned, "op2").before.equals(planned.scene.stock)
    assert op(planned, "op2").times.cutting_s != op(spear_plan, "op2").times.cutting_s


def test_finishing_runs_past_the_end_and_comes_in_through_the_air(spear: Job, spear_plan: Plan) -> None:
    finish = op(spear_plan, "op4")
    assert min(motion.end[0] for motion in finish.motions) == pytest.approx(-76 - 3.2, abs=1e-6)
    longer = op(plan(with_field(spear, "op4", extension_mm=1.0)), "op4")
    assert min(motion.end[0] for motion in longer.motions) == pytest.approx(-76, abs=1e-6)


def test_finishing_of_a_round_tip_comes_in_below_the_axis_in_front(spear_plan: Plan) -> None:
    finish = op(spear_plan, "op4")
    first = next(m for m in finish.motions if not m.is_rapid)
    assert 0 < first.start[0] < 1.0  # a rapid comes near
    assert first.start[1] < 0
    assert finish.times.cutting_s < 16


def test_finishing_goes_only_toward_the_chuck_unless_allowed(spear: Job) -> None:
    """An undercut that leans toward the front needs a move away from the chuck: allowed, it is cut."""
    elements = [
        {"z_mm": 0, "d_mm": 20}, {"z_mm": -12, "d_mm": 20}, {"z_mm": -22, "d_mm": 14}, {"z_mm": -21.5, "d_mm": 26},
        {"z_mm": -40, "d_mm": 26},
    ]  # fmt: skip
    job = only(spear.changed(part={"outside": elements}), "op1", "op2", "op4")
    toward = op(plan(job), "op4")
    contour = [m for m in toward.motions if not m.is_rapid][2:-1]
    assert all(m.end[0] <= m.start[0] + 1e-6 for m in contour)
    away = op(plan(with_field(job, "op4", allow_away=True)), "op4")
    assert any(m.end[0] > m.start[0] + 0.05 for m in away.motions if not m.is_rapid and m.end[1] > 7)
    part = plan(job).scene.part
    assert part.difference(away.after).area < 1e-4


def test_part_off_breaks_the_edge_slows_and_clamps(spear: Job, spear_plan: Plan) -> None:
    cut = op(spear_plan, "op5")
    feeds = sorted({round(m.feed, 4) for m in cut.motions if m.feed})
    assert feeds[0] == pytest.approx(cut.reasons["f_centre"].number)
    assert cut.reasons["f_centre"].number == pytest.approx(0.5 * cut.reasons["f"].number)
    last = [m for m in cut.motions if not m.is_rapid][-1]
    assert last.start[1] == pytest.approx(2.0, abs=1e-6)
    assert last.end[1] < -spear.tools[2].blade.corner_radius_mm  # type: ignore[union-attr]
    clamp = cut.reasons["clamp"]
    assert clamp.bit is not None
    assert "steady below" in clamp.bit.label
    assert clamp.number == math.floor(1000 * cut.reasons["vc"].number / (math.pi * 12))
    pieces = sorted(polygons(cut.after), key=lambda p: p.bounds[0])
    assert len(pieces) == 2
    assert pieces[1].difference(spear_plan.scene.part.buffer(0.02)).area < 1e-6


def test_a_round_back_edge_is_cut_with_the_corner_too(spear: Job) -> None:
    elements = list(spear.part.outside)
    elements[-1] = elements[-1].changed(corner={"kind": "round", "size_mm": 1.5})
    planned = plan(spear.changed(part=spear.part.changed(outside=tuple(elements))))
    piece = max(polygons(op(planned, "op5").after), key=lambda p: p.bounds[2])
    assert piece.symmetric_difference(planned.scene.part).intersection(_slab(-77, -74)).area < 0.002


# Numbers and what limits them


def test_the_clamp_is_the_lowest_of_its_limits(spear: Job) -> None:
    slow_chuck = spear.with_setup(hold=spear.setup.hold.changed(max_rpm=1800))
    clamp = op(plan(slow_chuck), "op2").reasons["clamp"]
    assert clamp.number == 1800
    assert clamp.bit is not None
    assert clamp.bit.label == "chuck plate"


def test_depth_is_limited_by_power_on_a_weak_machine(spear: Job, spear_plan: Plan) -> None:
    weak = spear.changed(machine=spear.machine.changed(power=({"rpm": 0, "power_kw": 0}, {"rpm": 1000, "power_kw": 2})))
    numbers = op(plan(weak), "op2").reasons
    bits = [numbers[key].bit for key in ("ap_max", "f", "vc")]
    assert any(bit is not None and bit.label.startswith("power") for bit in bits)
    assert numbers["q"].number < op(spear_plan, "op2").reasons["q"].number
    power = op(plan(weak), "op2").reasons["power"]
    assert power.number <= power.limits[0].number * 1.0001


def test_a_pin_beyond_a_limit_is_kept_and_flagged_with_a_cure(spear: Job) -> None:
    job = pinned(spear, "op2", ap_mm=6.0)
    planned = plan(job)
    numbers = op(planned, "op2").reasons
    assert numbers["ap_max"].number == 6.0
    assert numbers["ap_max"].pinned
    assert numbers["ap_max"].proposed == pytest.approx(op(plan(spear), "op2").reasons["ap_max"].number)
    flagged = {f.code: f for f in op(planned, "op2").findings}
    assert set(flagged) == {"pin.ap_mm"}  # feed and speed give way, so that the power suffices
    assert "crushed" in (flagged["pin.ap_mm"].why)
    cured = flagged["pin.ap_mm"].cures[0].apply(job)
    assert codes(plan(cured)) == set()
    stalls = pinned(spear, "op2", ap_mm=6.0, feed_mm_rev=0.3, vc_m_min=150.0)
    short = next(f for f in op(plan(stalls), "op2").findings if f.code == "power.short")
    shallower = short.cures[-1].apply(stalls)
    assert "power.short" not in codes(plan(shallower))


def test_every_number_says_why(spear_plan: Plan) -> None:
    for planned in spear_plan.operations:
        for evidence in planned.reasons.values():
            assert evidence.formula or evidence.limits or evidence.note or evidence.name == "blade width"
            assert math.isfinite(evidence.number)
            assert sum(limit.bit for limit in evidence.limits) <= 1


# Things that cannot be, each in a clear finding


@pytest.mark.parametrize(
    ("change", "code"),
    [
        (lambda j: j.changed(stock=j.stock.changed(d_mm=24)), "stock.small"),
        (lambda j: j.with_setup(hold=j.setup.hold.changed(stick_out_mm=60)), "hold.inside"),
        (lambda j: j.with_setup(hold=j.setup.hold.changed(stick_out_mm=81)), "hold.short"),
        (lambda j: j.with_setup(hold=j.setup.hold.changed(stick_out_mm=120)), "hold.long"),
        (lambda j: with_field(j, "op2", tool="T9"), "tool.missing"),
        (lambda j: with_field(j, "op2", tool="T3"), "tool.kind"),
        (lambda j: with_field(j, "op5", tool="T1"), "tool.kind"),
        (lambda j: j.changed(tools=tuple(t.changed(hand="left") for t in j.tools)), "tool.shape"),
        (lambda j: j.changed(machine=with_carrier(j.machine, stations=2)), "tool.station"),
        (lambda j: with_field(j, "op4", to_z_mm=-200.0), "range.outside"),
        (lambda j: with_field(j, "op4", from_z_mm=-90.0), "range.empty"),
        (lambda j: j.changed(stock=j.stock.changed(material=j.stock.material.changed(speeds=()))), "speed.unknown"),
        (lambda j: j.changed(machine=j.machine.changed(efficiency=1e-6)), "power.short"),
    ],
)
def test_bad_input_is_a_finding_and_the_rest_is_planned(spear: Job, change, code: str) -> None:  # type: ignore[no-untyped-def]
    planned = plan(change(spear))
    found = [f for f in planned.all_findings if f.code == code]
    assert found, codes(planned)
    assert "\n" not in found[0].what
    for cure in found[0].cures:
        once = plan(cure.apply(change(spear)))
        assert len([f for f in once.all_findings if f.code == code]) < len(found), cure.label


@pytest.mark.parametrize(("name", "d_mm"), [("runner-hub", 40.0), ("runner-hub", 10.0), ("strainer-union", 8.0)])
def test_a_blank_far_too_small_gives_findings_and_no_move_that_leads_nowhere(name: str, d_mm: float) -> None:
    job = demo_job(name)
    outcome = Engine().follow(job.changed(stock=RoundBar(material=job.stock.material, d_mm=d_mm)))
    planned = outcome.plan
    assert "stock.small" in codes(planned)
    for operation in planned.operations:
        assert all(motion.is_finite for motion in operation.motions), operation.operation.id
        assert math.isfinite(operation.times.total_s)
        assert operation.motions or operation.findings, f"{operation.operation.id} cuts nothing without a word"
    assert "nan" not in outcome.program.text.lower()


def test_nothing_left_for_the_second_side_is_no_second_side() -> None:
    job = demo_job("runner-hub")
    with pytest.raises(JobError, match="nothing of the blank"):
        plan_sides(job.changed(stock=job.stock.changed(d_mm=10.0)))


def test_a_groove_narrower_than_the_tool_is_declared_with_its_place(spear: Job) -> None:
    elements = [
        {"z_mm": 0, "d_mm": 28}, {"z_mm": -20, "d_mm": 28}, {"z_mm": -20, "d_mm": 20}, {"z_mm": -22, "d_mm": 20},
        {"z_mm": -22, "d_mm": 28}, {"z_mm": -60, "d_mm": 28},
    ]  # fmt: skip
    planned = plan(spear.changed(part={"outside": elements}))
    left = max(polygons(planned.declared), key=lambda p: p.area)
    assert -22.1 < left.bounds[0] < left.bounds[2] < -19.9
    assert left.bounds[3] > 13.9


def test_a_lead_edge_ahead_of_the_nose_cannot_face(spear: Job) -> None:
    tools = tuple(
        t.changed(
            insert=t.insert.changed(shape="S", included_angle_deg=90), holder=t.holder.changed(entering_angle_deg=45)
        )
        if t.kind == "turning"
        else t
        for t in spear.tools
    )
    assert "tool.shape" in codes(plan(spear.changed(tools=tools)))


def test_roughing_without_allowance_still_does_not_gouge(spear: Job) -> None:
    from toreuma.core.geometry.region import depth_inside

    planned = plan(only(with_field(spear, "op2", leave_radial_mm=0.0, leave_axial_mm=0.0), "op1", "op2"))
    part = planned.scene.part
    assert depth_inside(part.difference(planned.operations[-1].after), part) < 0.002


def test_too_short_a_blade_is_an_error(spear: Job) -> None:
    tools = (*spear.tools[:2], spear.tools[2].changed(blade=spear.tools[2].blade.changed(depth_mm=10)))  # type: ignore[union-attr]
    assert "blade.short" in codes(plan(spear.changed(tools=tools)))


def test_an_impossible_part_names_its_element(spear: Job) -> None:
    bad = spear.changed(part={"outside": [{"z_mm": 0, "d_mm": 20}, {"z_mm": 0, "d_mm": 20}]})
    with pytest.raises(PartError, match=r"part\.outside\[1\]"):
        plan(bad)


# Sizes, tools, memo


@pytest.mark.parametrize("scale", [0.15, 0.5, 3.0, 12.0])
def test_tiny_and_huge_parts_plan(spear: Job, scale: float) -> None:
    elements = []
    for e in spear.part.outside:
        corner = e.corner.changed(size_mm=e.corner.size_mm * scale) if e.corner else None
        radius = e.radius_mm * scale if e.radius_mm else None
        elements.append(e.changed(z_mm=e.z_mm * scale, d_mm=e.d_mm * scale, radius_mm=radius, corner=corner))
    job = spear.changed(
        part=spear.part.changed(outside=tuple(elements)),
        stock=spear.stock.changed(d_mm=32 * scale),
        tools=(*spear.tools[:2], spear.tools[2].changed(blade=spear.tools[2].blade.changed(depth_mm=17.5 * scale + 5))),  # type: ignore[union-attr]
    ).with_setup(hold=spear.setup.hold.changed(stick_out_mm=78 * scale + 20))
    planned = plan(job)
    assert all(o.motions for o in planned.operations if o.operation.kind != "rough_od")
    final = planned.operations[-1].after
    over = planned.scene.part.difference(final)
    from toreuma.core.geometry.region import depth_inside

    assert depth_inside(over, planned.scene.part) < 0.002


def test_memo_keeps_what_an_edit_does_not_touch(spear: Job) -> None:
    memo = Memo()
    first = plan(spear, memo)
    second = plan(pinned(spear, "op4", feed_mm_rev=0.1), memo)
    assert [a is b for a, b in zip(first.operations, second.operations, strict=True)] == [True] * 3 + [False, True]


def test_memo_forgets_the_oldest() -> None:
    memo = Memo(size=2)
    assert [memo.get(key, lambda k=key: k) for key in (1, 2, 3, 1)] == [1, 2, 3, 1]  # type: ignore[misc]
    assert (memo.hits, memo.misses) == (0, 4)


def test_a_hundred_operations(spear: Job) -> None:
    copies: list[Operation] = []
    for index in range(98):
        base = spear.operations[1 + index % 3]
        copies.append(base.changed(id=f"x{index}"))
    job = spear.with_setup(operations=(spear.operations[0], *copies, spear.operations[-1]))
    planned = plan(job)
    assert len(planned.operations) == 100
    assert shape_of(spear.tools[0]).nose_radius == 0.8


def test_cancelling_stops_between_operations(spear: Job) -> None:
    from toreuma.core.errors import Cancelled

    calls = []

    def check() -> None:
        calls.append(1)
        if len(calls) == 3:
            raise Cancelled

    with pytest.raises(Cancelled):
        plan(spear, check=check)
    assert len(calls) == 3


def test_a_finishing_cut_thinner_than_its_nose_wants_is_said(spear: Job) -> None:
    """Two thirds of the nose radius at least: more is left, or a smaller nose is taken."""
    thin = with_field(with_field(spear, "op2", leave_radial_mm=0.1), "op3", leave_radial_mm=0.1)
    found = next(f for f in plan(thin).all_findings if f.code == "finish.thin")
    assert "2/3 of the nose radius 0.4" in found.what
    assert [cure.label for cure in found.cures] == ["Leave 0.3 mm on radius"]
    mended = found.cures[0].apply(thin)
    assert mended.operation("op2").leave_radial_mm == 0.3  # type: ignore[union-attr]
    assert "finish.thin" not in codes(plan(mended))
    blunt = with_field(thin, "op4", tool="T1")
    blunt = with_field(with_field(blunt, "op3", leave_radial_mm=0.3), "op2", leave_radial_mm=0.3)
    found = next(f for f in plan(blunt).all_findings if f.code == "finish.thin")
    assert "Finish with T2, nose 0.4 mm" in [cure.label for cure in found.cures]
    assert "finish.thin" not in codes(plan(found.cures[-1].apply(blunt)))


# Roughing in other ways


@pytest.mark.parametrize(
    "change",
    [
        {"pattern": "along_x"},
        {"pattern": "contour"},
        {"varied": True},
        {"chip_break_mm": 5.0},
        {"chip_break_mm": 5.0, "chip_break": "stop"},
    ],
)
def test_every_way_of_roughing_leaves_the_same_for_finishing(spear: Job, language: Dialect, change: dict) -> None:  # type: ignore[type-arg]
    job = spear.with_operation("op2", lambda op: op.changed(**change))
    planned, usual = plan(job), plan(spear)
    proof = prove_plan(planned, language)
    assert (proof.gouge_um <= 2, proof.contacts, proof.leftover_um) == (True, (), 0)
    finish, before = planned.of("op4"), usual.of("op4")
    assert finish is not None
    assert before is not None
    assert finish.reasons["ap"].number == pytest.approx(before.reasons["ap"].number, abs=0.25)


def test_passes_toward_the_axis_run_along_x(spear: Job) -> None:
    planned = plan(spear.with_operation("op2", lambda op: op.changed(pattern="along_x"))).of("op2")
    assert planned is not None
    along_x = [
        s for p in planned.cuts.passes for s in p.segments if abs(s.end[1] - s.start[1]) > abs(s.end[0] - s.start[0])
    ]
    assert sum(s.length for s in along_x) > 0.7 * sum(s.length for p in planned.cuts.passes for s in p.segments)
    assert all(s.end[1] < s.start[1] for s in along_x if s.length > 3)


def test_varied_passes_are_deeper_and_shallower_by_turns_and_within_the_limit(spear: Job) -> None:
    planned = plan(spear.with_operation("op2", lambda op: op.changed(varied=True))).of("op2")
    assert planned is not None
    depths = [one.depth_mm for one in planned.cuts.passes]
    limit = planned.reasons["ap_max"].number
    assert max(depths) <= limit * 1.001
    pairs = [(a, b) for a, b in itertools.pairwise(depths) if abs(a - b) > 0.05 * a]
    assert pairs


def test_going_back_to_break_chips_costs_time_and_says_how_much(spear: Job) -> None:
    plain = plan(spear).of("op2")
    broken = plan(spear.with_operation("op2", lambda op: op.changed(chip_break_mm=5.0))).of("op2")
    assert plain is not None
    assert broken is not None
    evidence = broken.reasons["breaks"]
    assert evidence.number > 20
    said = float(evidence.note.removeprefix("They cost ").removesuffix(" s."))
    assert broken.times.total_s - plain.times.total_s == pytest.approx(said, abs=1.0)


def test_the_feed_stands_to_break_chips_and_says_what_it_costs(spear: Job, language: Dialect) -> None:
    stopping = spear.with_operation("op2", lambda op: op.changed(chip_break_mm=5.0, chip_break="stop"))
    plain, broken = (plan(job).of("op2") for job in (spear, stopping))
    assert plain is not None
    assert broken is not None
    stops = [motion.dwell_s for motion in broken.motions if motion.dwell_s]
    assert len(stops) == broken.reasons["breaks"].number > 20
    assert broken.times.total_s - plain.times.total_s == pytest.approx(sum(stops), abs=0.05)
    slowest = broken.reasons["n"].number
    assert min(stops) == pytest.approx(60 * 1.5 / slowest, rel=0.02)
    assert f"G4 P{round(1000 * stops[0])}" in post(plan(stopping), language).text
    rubs = next(finding for finding in broken.findings if finding.code == "chips.stop")
    assert "chips.stop" not in codes(plan(rubs.cures[0].apply(stopping)))
    steel = stopping.changed(stock=stopping.stock.changed(material=materials()["C45"]))
    assert "chips.stop" not in codes(plan(steel))


def test_a_part_that_falls_with_nobody_there_is_caught(spear: Job, language: Dialect) -> None:
    alone = spear.changed(conditions=spear.conditions.changed(attended=False))
    assert "part_off.falls" not in codes(plan(spear))
    found = next(f for f in plan(alone).all_findings if f.code == "part_off.falls")
    caught = found.cures[0].apply(alone)
    assert "part_off.falls" not in codes(plan(caught))
    text = post(plan(caught), language).text
    assert text.index("M76") < text.index("M77")
    proof = prove_plan(plan(caught), language)
    assert proof.parted
    assert not [f for f in proof.findings if f.severity == "error"]


@pytest.mark.parametrize("sizes", [{"corner_radius_mm": 400.0}, {"corner_radius_mm": 0.0, "width_mm": 1e-6}])
def test_a_tool_that_cannot_be_is_told_and_the_rest_is_planned(sizes: dict[str, float]) -> None:
    job = demo_job("vane-stud")
    blade = next(tool for tool in job.tools if getattr(tool, "blade", None) is not None)
    odd = blade.changed(blade=blade.blade.changed(**sizes))
    made = plan(job.changed(tools=tuple(odd if tool.id == blade.id else tool for tool in job.tools)))
    uses = [op for op in made.operations if op.operation.tool == blade.id]
    assert uses
    assert all([finding.code for finding in op.findings] == ["tool.sizes"] and not op.motions for op in uses)
    assert any(op.motions for op in made.operations)


def test_what_nobody_foresaw_ends_in_a_finding_and_not_in_the_window(monkeypatch: pytest.MonkeyPatch) -> None:
    job = demo_job("spear")
    first = job.operations[0]

    def breaks(*_: object) -> object:
        raise ZeroDivisionError("float division by zero")

    kind = KINDS[first.kind]
    monkeypatch.setitem(KINDS, first.kind, replace(kind, plan=breaks))
    made = fresh_plan(job, Memo())
    here = next(op for op in made.operations if op.operation.id == first.id)
    assert [finding.code for finding in here.findings] == ["plan.fault"]
    assert not here.motions
    assert all(op.motions for op in made.operations if op.operation.kind != first.kind)


def test_an_operation_of_far_too_many_moves_is_told() -> None:
    job = demo_job("runner-hub")
    mill = next(tool for tool in job.tools if tool.kind == "end_mill")
    worn = mill.changed(flute_length_mm=1e-5)
    made = plan(job.changed(tools=tuple(worn if tool.id == mill.id else tool for tool in job.tools)))
    codes = {finding.code for op in made.operations if op.operation.tool == mill.id for finding in op.findings}
    assert "moves.many" in codes


def test_the_second_spindle_has_a_curve_that_rises_and_a_torque_of_its_own() -> None:
    machine = demo_job("vane-stud").machine.changed(torque_nm=9.0)
    second = machine.second
    assert second is not None
    assert machine.seen_from_second(300.0).torque_nm is None
    with pytest.raises(ValidationError, match="second spindle"):
        machine.changed(second=second.changed(power=tuple(reversed(second.power))))
