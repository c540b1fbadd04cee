"""Left-hand tools outside: they go away from the chuck, and their path is the mirror image of a right-hand one."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.support.kept import plan
from tests.support.routes import boring_tool, insert, proof_of
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FinishBore, FinishOd, Job, Part, RoughOd, TubeBar
from toreuma.core.model.part import Element
from toreuma.core.model.tool import TurningTool
from toreuma.shipped.library import catalogue, demo_job

LENGTH = 90.0


def tool(hand: str, code: str = "VBMT160404-fine", carrier: str = "SVJBR2020K16") -> TurningTool:
    one = next(c for c in catalogue().carriers if c.code == carrier)
    made = one.with_insert(insert(code), "T1", 1)
    assert isinstance(made, TurningTool)
    return made.changed(hand=hand)


def necked(walls: tuple[float, float], d: float, hand: str, turned: bool = False, finish: bool = True) -> Job:
    """A bar with a neck between two collars; ``turned`` end for end."""
    near, far = (walls[1], walls[0]) if turned else walls
    outside = (
        Element(z_mm=0, d_mm=50), Element(z_mm=-25, d_mm=50), Element(z_mm=-25 - near, d_mm=d),
        Element(z_mm=-65 + far, d_mm=d), Element(z_mm=-65, d_mm=50), Element(z_mm=-LENGTH, d_mm=50),
    )  # fmt: skip
    base = demo_job("runner-hub")
    stock = base.stock.changed(d_mm=50.0, face_allowance_mm=0.0, length_mm=190.0)
    hold = base.setup.hold.changed(stick_out_mm=150.0, grip_length_mm=35.0, force_n=None)
    # The stretch ends on the collars; it starts on the other one.
    marks = {"from_z_mm": -20.0, "to_z_mm": -70.0}
    cuts = (RoughOd(id="r", tool="T1", **marks), FinishOd(id="f", tool="T1", **marks))
    setup = base.setup.changed(hold=hold, operations=cuts if finish else cuts[:1])
    return base.changed(part=Part(outside=outside), stock=stock, tools=(tool(hand),), setups=(setup,), second_hold=None)


def moves(job: Job, index: int) -> list[tuple[float, float, bool]]:
    return [(m.end[0], m.end[1], m.is_rapid) for m in plan(job).operations[index].motions]


@given(near=st.floats(3.0, 12.0), far=st.floats(14.0, 20.0), d=st.floats(36.0, 46.0))
def test_the_path_is_the_mirror_image(near: float, far: float, d: float) -> None:
    """Right hand on a neck, left hand on the same neck end for end: the same cuts, turned round."""
    walls = (round(far, 2), round(near, 2))
    right = necked(walls, round(d, 2), "right")
    left = necked(walls, round(d, 2), "left", turned=True)
    for index in (0, 1):
        one = plan(right).operations[index]
        other = plan(left).operations[index]
        assert not [f for f in (*one.findings, *other.findings) if f.severity == "error"]
        there = [(p.segments[-1].end[0], p.segments[-1].end[1]) for p in one.cuts.passes]
        here = [(-LENGTH - p.segments[-1].end[0], p.segments[-1].end[1]) for p in other.cuts.passes]
        assert len(there) == len(here)
        for a, b in zip(there, here, strict=True):
            assert a == pytest.approx(b, abs=0.004)


def test_a_tool_that_faces_the_second_spindle_goes_the_mirror_way() -> None:
    """A right-hand tool turned to the second spindle is the mirror image, and a turret cannot turn it back."""
    left = necked((16.0, 6.0), 40.0, "left", turned=True)
    turned = left.tools[0].changed(hand="right", spindle="sub")
    assert (shape_of(turned).core == shape_of(left.tools[0]).core).all()
    facing = left.changed(tools=(turned,))
    found = [one for planned in plan(facing).operations for one in planned.findings]
    assert {one.code for one in found} == {"tool.faces"}
    there = next(cure for cure in found[0].cures if "milling spindle" in cure.label)
    for one, other in zip(plan(left).operations, plan(there.apply(facing)).operations, strict=True):
        assert [m.segment for m in one.motions] == [m.segment for m in other.motions]
        assert one.motions


def test_it_goes_away_from_the_chuck_and_cuts_clean() -> None:
    job = necked((6.0, 16.0), 40.0, "left", turned=True)
    for one in plan(job).operations:
        longest = max((s for p in one.cuts.passes for s in p.segments), key=lambda s: s.length)
        assert longest.end[0] > longest.start[0]
    proof = proof_of(job)
    assert proof.contacts == ()
    assert proof.gouge_um <= 2
    assert proof.leftover_um <= 2


def test_its_shank_stands_toward_the_chuck() -> None:
    """Where the hold is near, there is no room for it, and the operation says so."""
    job = necked((6.0, 16.0), 40.0, "left", turned=True)
    near = job.with_setup(hold=job.setup.hold.changed(stick_out_mm=72.0))
    first = plan(near).operations[0]
    held = [m.end[0] for m in first.motions if not m.is_rapid]
    assert min(held) > -72.0 + 25.0


@given(rises=st.lists(st.tuples(st.floats(0.5, 3.0), st.floats(4.0, 9.0)), min_size=1, max_size=3))
def test_a_bore_is_finished_along_the_mirror_image_of_the_outside(rises: list[tuple[float, float]]) -> None:
    """Steps that rise outside narrow inside: the same insert follows the same line, seen from the axis."""
    outside, inside = [Element(z_mm=0, d_mm=60)], [Element(z_mm=0, d_mm=60)]
    z, h = 0.0, 0.0
    for rise, run in rises:
        z = round(z - run, 2)
        outside.append(Element(z_mm=z, d_mm=60 + 2 * h))
        inside.append(Element(z_mm=z, d_mm=60 - 2 * h))
        h = round(h + rise, 2)
        outside.append(Element(z_mm=z, d_mm=60 + 2 * h))
        inside.append(Element(z_mm=z, d_mm=60 - 2 * h))
    z -= 6.0
    outside.append(Element(z_mm=z, d_mm=60 + 2 * h))
    inside.append(Element(z_mm=z, d_mm=60 - 2 * h))
    base = demo_job("runner-hub")
    hold = base.setup.hold.changed(stick_out_mm=-z + 20.0, grip_length_mm=35.0, force_n=None)
    stock = base.stock.changed(d_mm=82.0, face_allowance_mm=0.0)
    setup = base.setup.changed(hold=hold)
    turner = tool("right", "VBMT160404-fine")
    outer = base.changed(
        part=Part(outside=tuple(outside)), stock=stock, tools=(turner,), second_hold=None,
        setups=(setup.changed(operations=(FinishOd(id="f", tool="T1", to_z_mm=z + 2.0),)),),
    )  # fmt: skip
    bar = boring_tool("A25T-SVUBR16", "VBMT160404-fine", 1)
    shell = (Element(z_mm=0, d_mm=80), Element(z_mm=z, d_mm=80))
    tube = TubeBar(material=stock.material, d_mm=82.0, bore_d_mm=46.0, face_allowance_mm=0.0, length_mm=-z + 60.0)
    inner = base.changed(
        part=Part(outside=shell, inside=tuple(inside)), stock=tube, tools=(bar,), second_hold=None,
        setups=(setup.changed(operations=(FinishBore(id="f", tool="T1", to_z_mm=z + 2.0),)),),
    )  # fmt: skip
    there = [s.end for p in plan(outer).operations[0].cuts.passes for s in p.segments]
    here = [(s.end[0], 60.0 - s.end[1]) for p in plan(inner).operations[0].cuts.passes for s in p.segments]
    inside_part = [point for point in there if point[0] < -0.5]
    other_part = [point for point in here if point[0] < -0.5]
    assert len(inside_part) == len(other_part)
    for a, b in zip(inside_part, other_part, strict=True):
        assert a == pytest.approx(b, abs=0.003)
