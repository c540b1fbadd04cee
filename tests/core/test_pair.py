"""Two parts back to back: the second end is held on the first, and parts the pair."""

import pytest

from tests.support.engine import proved
from tests.support.kept import plan
from toreuma.core.errors import JobError
from toreuma.core.geometry.region import box
from toreuma.core.model import Job
from toreuma.core.plan.sides.pair import second_end
from toreuma.core.scene import build_scene


@pytest.fixture
def pair(spear: Job) -> Job:
    supply = spear.stock.supply.changed(back_to_back=True)
    job = spear.changed(stock=spear.stock.changed(supply=supply))
    return job.changed(second_hold={"element": 2, "grip_length_mm": 10, "jaws": "soft"})


def test_the_first_end_stays_on_the_bar(pair: Job) -> None:
    parting = next(op for op in plan(pair).operations if op.operation.kind == "part_off")
    assert not parting.motions
    assert [f.code for f in parting.findings] == ["pair.stays"]


def test_the_second_end_carries_the_finished_part(pair: Job) -> None:
    scene = build_scene(second_end(pair))
    length = -pair.part.outside[-1].z_mm
    blade = next(tool.blade.width_mm for tool in pair.tools if tool.kind == "parting")
    assert scene.stock.bounds[2] == pytest.approx(pair.stock.face_allowance_mm)
    assert scene.stock.bounds[0] == pytest.approx(-(2 * length + blade), abs=1e-3)
    first = build_scene(pair).shape.solid.area
    behind = scene.stock.intersection(box(-1e4, 0, -(length + blade), 1e4))
    assert behind.area == pytest.approx(first, rel=0.01)
    assert scene.grip_r == pytest.approx(pair.part.outside[2].d_mm / 2)
    assert not scene.jaws.intersection(scene.stock).area > 1e-3


def test_the_second_program_parts_the_pair_and_is_proved(pair: Job) -> None:
    proof = proved(second_end(pair))
    assert proof.parted
    assert proof.gouge_um < 2
    assert not [contact for contact in proof.contacts if contact.depth_mm > 0]


def test_without_a_surface_to_grip_there_is_no_second_end(pair: Job) -> None:
    with pytest.raises(JobError, match="second hold"):
        second_end(pair.changed(second_hold=None))
    with pytest.raises(JobError, match="no cylinder"):
        second_end(pair.changed(second_hold={"element": 1, "grip_length_mm": 5}))
