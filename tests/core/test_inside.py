"""Bores: roughed and finished with a bar that fits, to the floor and past undercuts, and what stands in the way."""

import pytest

from tests.support.kept import plan
from tests.support.routes import bored_job, boring_tool, proof_of
from toreuma.core.geometry.elements import Arc, Line
from toreuma.core.model import DrillHole, FinishBore, Job, RoughBore
from toreuma.core.model.part import Element
from toreuma.core.plan.ground.frame import FACE, INSIDE, OUTSIDE, Frame
from toreuma.core.plan.ground.result import OperationPlan


def codes(planned: OperationPlan) -> set[str]:
    return {finding.code for finding in planned.findings}


def test_a_stepped_bore_is_cut_clean_and_nothing_is_touched() -> None:
    job = bored_job(
        (Element(z_mm=0, d_mm=44), Element(z_mm=-15, d_mm=44), Element(z_mm=-22, d_mm=32), Element(z_mm=-60, d_mm=32))
    )
    proof = proof_of(job)
    assert proof.contacts == ()
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    bore = proof.final.intersection(box_of(-59, -1))
    assert bore.bounds[1] == pytest.approx(16.0, abs=0.002)


def box_of(low: float, high: float):  # type: ignore[no-untyped-def]
    from toreuma.core.geometry.region import box

    return box(low, 0, high, 100)


def test_a_blind_bore_stops_at_its_floor() -> None:
    inside = (Element(z_mm=0, d_mm=40), Element(z_mm=-30, d_mm=40))
    planned = plan(bored_job(inside, point_deg=180.0, drill_d=30.0))
    deepest = min(m.end[0] for op in planned.operations for m in op.motions if not m.is_rapid)
    assert deepest == pytest.approx(-30.0, abs=0.002)
    proof = proof_of(bored_job(inside, point_deg=180.0, drill_d=30.0))
    assert (proof.gouge_um <= 2, proof.contacts) == (True, ())


def test_every_pass_keeps_the_bar_off_the_far_wall() -> None:
    """The bar's far side never comes nearer the axis line's other side than the hole of the moment."""
    inside = (Element(z_mm=0, d_mm=30), Element(z_mm=-50, d_mm=30))
    job = bored_job(inside, bar="A16R-SCLCR09", drill_d=21.0)
    proof = proof_of(job)
    assert [c.what for c in proof.contacts] == []


@pytest.mark.parametrize("drill", [0.0, 12.0])
def test_a_bar_too_thick_is_told_with_the_hole_it_needs(drill: float) -> None:
    inside = (Element(z_mm=0, d_mm=40), Element(z_mm=-50, d_mm=40))
    job = bored_job(inside, bar="A25T-PCLNR12", insert="CNMG120408-even", drill_d=drill)
    rough = next(one for one in plan(job).operations if one.operation.kind == "rough_bore")
    assert codes(rough) == {"bore.narrow" if drill else "bore.full"}
    assert "Ø" in rough.findings[0].why
    assert rough.motions == ()


def test_several_finishing_cuts_each_take_their_own_depth() -> None:
    inside = (Element(z_mm=0, d_mm=40), Element(z_mm=-50, d_mm=40))
    job = bored_job(inside)
    first = FinishBore(id="f1", tool="T2", leave_mm=0.1)
    job = job.with_setup(operations=(*job.operations[:2], first, *job.operations[2:]))
    planned = plan(job)
    semi, last = planned.of("f1"), planned.operations[-1]
    assert semi is not None
    assert semi.after.intersection(box_of(-40, -10)).bounds[1] == pytest.approx(19.9, abs=0.003)
    assert last.reasons["ap"].number == pytest.approx(0.1, abs=0.01)
    assert last.after.intersection(box_of(-40, -10)).bounds[1] == pytest.approx(20.0, abs=0.002)


def test_the_bar_bends_less_where_it_stands_out_less() -> None:
    shallow, deep = (
        plan(bored_job((Element(z_mm=0, d_mm=40), Element(z_mm=-depth, d_mm=40)))).operations[-1] for depth in (20, 60)
    )
    assert shallow.cuts.proposal is not None
    assert deep.cuts.proposal is not None

    def bend(one: OperationPlan) -> float:
        assert one.cuts.proposal is not None
        return next(use.number for use in one.cuts.proposal.uses if use.kind.name == "overhang of the bar")

    assert bend(deep) > 2 * bend(shallow) * 0.9


def test_bores_without_a_bore_or_past_its_end_say_so(spear: Job) -> None:
    tool = boring_tool("A12M-SCLCR06", "CCMT060204-fine", 5)
    job = spear.changed(tools=(*spear.tools, tool)).with_setup(operations=(RoughBore(id="r", tool=tool.id),))
    assert codes(plan(job).operations[0]) == {"bore.none"}
    bored = bored_job((Element(z_mm=0, d_mm=40), Element(z_mm=-50, d_mm=40)))
    far = bored.with_operation("rough", lambda op: op.changed(to_z_mm=-80.0))
    assert "range.outside" in codes(plan(far).operations[1])
    wrong = bored.with_operation("rough", lambda op: op.changed(tool="T1"))
    assert codes(plan(wrong).operations[1]) == {"tool.kind"}


def test_frames_turn_back_to_where_they_came_from() -> None:
    line, arc = Line((1, 2), (3, 5)), Arc((0, 1), (1, 0), (0, 0), True)
    for frame in (OUTSIDE, INSIDE, FACE, Frame(flip_z=True), Frame(flip_z=True, flip_r=True)):
        assert frame.segment(frame.segment(line)) == line
        twice = frame.segment(frame.segment(arc))
        assert isinstance(twice, Arc)
        assert twice.clockwise == arc.clockwise
        middle = frame.segment(arc).at(0.5)
        assert frame.point(middle) == pytest.approx(arc.at(0.5))


def test_the_hole_drilled_first_is_as_deep_as_the_bore_asks() -> None:
    inside = (Element(z_mm=0, d_mm=40), Element(z_mm=-35, d_mm=40))
    job = bored_job(inside, point_deg=140.0)
    drilled = plan(job).operations[0]
    assert isinstance(drilled.operation, DrillHole)
    assert min(m.end[0] for m in drilled.motions) == pytest.approx(-35.0, abs=0.01)
