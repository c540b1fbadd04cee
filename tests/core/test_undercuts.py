"""Undercuts behind a collar in a bore: a bar whose edge looks back cuts them on its way out."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.support.engine import routed
from tests.support.kept import plan
from tests.support.routes import bored_job, boring_tool, proof_of
from toreuma.core.critic import critique
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FinishBore, Job, RoughBore
from toreuma.core.model.part import Element
from toreuma.core.model.tool import BoringTool


def pocket(wall: float, wide: float, collar: float = 12.0) -> tuple[Element, ...]:
    """A bore Ø 40 with a pocket behind its collar; its front wall ``wall`` mm long along Z, square at 0."""
    places = [(0, 40.0), (-collar, 40.0), (-collar - wall, wide), (-35, wide), (-35, 40.0), (-50, 40.0)]
    return tuple(Element(z_mm=z, d_mm=d) for z, d in places)


def backed(inside: tuple[Element, ...]) -> Job:
    """Drilled and bored from the front, then the pocket from behind."""
    job = bored_job(inside)
    job = job.changed(tools=(*job.tools, boring_tool("BK16 DC07", "DCMT070204-fine", 5)))
    where = {"from_z_mm": inside[1].z_mm, "to_z_mm": -35.0}
    back = (RoughBore(id="back", tool="T5", **where), FinishBore(id="last", tool="T5", **where))
    return job.with_setup(operations=(*job.operations, *back))


def test_the_edge_looks_back_and_the_bar_still_comes_from_the_front() -> None:
    back, usual = boring_tool("BK16 DC07", "DCMT070204-fine", 1), boring_tool("A16R-SDUCR07", "DCMT070204-fine", 1)
    one, other = shape_of(back), shape_of(usual)
    assert one.tip[0] > 0 > other.tip[0]
    assert not one.leads_toward_chuck
    assert max(piece[:, 0].max() for piece in one.bodies) > 150
    assert min(piece[:, 0].min() for piece in one.bodies) > -12


@given(wall=st.floats(0.0, 8.0), deep=st.floats(2.0, 5.0), collar=st.floats(6.0, 15.0))
def test_it_cuts_the_pocket_out_and_touches_nothing(wall: float, deep: float, collar: float) -> None:
    job = backed(pocket(round(wall, 2), round(40 + 2 * deep, 2), round(collar, 2)))
    planned = plan(job)
    rough, finish = planned.operations[-2:]
    assert rough.removed.area > 5
    long = [m for m in finish.motions if not m.is_rapid and abs(m.end[0] - m.start[0]) > 3]
    assert long
    assert all(motion.end[0] > motion.start[0] for motion in long)
    proof = proof_of(job)
    assert (proof.contacts, proof.leftover_um) == ((), 0)
    assert proof.gouge_um <= 2


@pytest.mark.long
def test_a_route_finds_it_for_what_no_other_bar_reaches() -> None:
    base = bored_job(pocket(0.0, 50.0))
    base = base.changed(stock=base.stock.changed(length_mm=75.0))
    found = routed(base.with_setup(hold=base.setup.hold.changed(stick_out_mm=55.0)))
    tools = {tool.id: tool for tool in found.job.tools}
    backs = [op for op in found.job.operations if isinstance(tool := tools[op.tool], BoringTool) and tool.bar.back]
    assert {op.kind for op in backs} == {"rough_bore", "finish_bore"}
    stretch = backs[0].from_z_mm, backs[0].to_z_mm  # type: ignore[union-attr]
    assert stretch in ((-12.0, -35.0), (-15.0, -38.0))  # from either end
    assert found.state == "finished but for"  # what the bar leaves behind the collar the other side takes
    proof = proof_of(found.job)
    assert (proof.gouge_um <= 2, proof.contacts, proof.leftover_um) == (True, (), 0)
    assert "order.joint" not in {finding.code for finding in critique(plan(found.job))}


@pytest.mark.long
def test_without_a_pocket_it_is_not_taken() -> None:
    found = routed(bored_job((Element(z_mm=0, d_mm=40.0), Element(z_mm=-50, d_mm=40.0))))
    assert not [tool for tool in found.job.tools if isinstance(tool, BoringTool) and tool.bar.back]


def test_a_pocket_deeper_than_the_tip_stands_out_is_told_as_left() -> None:
    job = backed(pocket(0.0, 62.0))
    proof = proof_of(job)
    assert proof.contacts == ()
    assert proof.leftover_um == 0
    assert any(finding.code == "reach.left" for finding in proof.findings)


def test_a_free_cut_both_ways_keeps_its_holder_off_the_collar() -> None:
    job = bored_job(pocket(0.0, 52.0), "A16R-SDUCR07", "DCMT070204-fine")
    both = job.with_operation("finish", lambda op: op.changed(allow_away=True))
    assert proof_of(both).contacts == ()


@pytest.mark.parametrize("start", [-40.0, -35.0])
def test_a_stretch_that_is_none_is_told(start: float) -> None:
    job = backed(pocket(0.0, 50.0)).with_operation("back", lambda op: op.changed(from_z_mm=start))
    planned = plan(job).of("back")
    assert planned is not None
    assert {finding.code for finding in planned.findings} & {"range.empty", "rough.nothing"}
