"""The second side: the part end for end, the blank as the first side left it."""

import pytest

from tests.support.kept import plan, plan_sides, prove_plan
from tests.support.long import everyday
from toreuma.core.errors import JobError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job
from toreuma.core.plan.sides.second_side import second_setup, second_side, turned_part
from toreuma.shipped.library import demo_job, demo_names, dialect


@pytest.mark.parametrize("name", demo_names())
def test_turning_a_part_round_twice_gives_it_back(name: str) -> None:
    part = demo_job(name).part
    once = build_part(turned_part(part)).region
    back = part.outside[-1].z_mm
    mirrored = {(round(back - z, 4), round(r, 4)) for z, r in build_part(part).region.exterior.coords}
    there = {(round(z, 4), round(r, 4)) for z, r in once.exterior.coords}
    assert len(mirrored ^ there) <= 0.02 * len(there)
    assert once.area == pytest.approx(build_part(part).region.area, rel=1e-6)
    twice = build_part(turned_part(turned_part(part))).region
    assert twice.symmetric_difference(build_part(part).region).area < 1e-3


def test_a_blind_bore_stays_where_it_is() -> None:
    part = demo_job("runner-hub").part
    blind = part.changed(inside=(part.inside[0], part.inside[1].changed(z_mm=-20.0, corner=None)), features=())
    turned = turned_part(blind)
    assert turned.inside_from_back
    assert build_part(turned).bore is None
    assert build_part(turned).region.area == pytest.approx(build_part(blind).region.area, rel=1e-6)
    back = turned_part(turned)
    assert not back.inside_from_back
    assert build_part(back).region.symmetric_difference(build_part(blind).region).area < 1e-3


@pytest.mark.parametrize("name", everyday(demo_names(), "runner-hub", "vane-stud"))
def test_every_demo_job_is_cut_on_all_its_sides(name: str) -> None:
    """No gouge, no contact, nothing left beyond what is declared, no error; threads within their limits."""
    for planned in plan_sides(demo_job(name)):
        proof = prove_plan(planned, dialect("system-a"))
        assert proof.gouge_um <= 2
        assert proof.leftover_um == 0
        assert proof.contacts == ()
        assert not [f.what for f in (*planned.all_findings, *proof.findings) if f.severity == "error"]
        assert all(made.ok for made in proof.threads)


def test_the_second_program_starts_from_what_the_first_left() -> None:
    job = demo_job("runner-hub")
    first, second = plan_sides(job)
    left = first.operations[-1].after
    assert second.scene.stock.area == pytest.approx(left.area, rel=1e-4)
    assert second.job.program.number == job.program.number + 1
    assert second.scene.jaw_face_z < 0 < second.scene.stock_front_z


def test_the_hold_of_the_second_side_covers_the_grip_wanted() -> None:
    job = demo_job("runner-hub")
    setup = second_setup(job)
    other = second_side(job.changed(setups=(job.setup, setup)), plan(job))
    scene = plan(other).scene
    assert job.second_hold is not None
    flange = [s for s in scene.profile.segments if abs(s.start[1] - 39.0) < 1e-6 and abs(s.end[1] - 39.0) < 1e-6]
    covered = scene.jaw_face_z - min(s.end[0] for s in flange)
    assert covered == pytest.approx(job.second_hold.grip_length_mm, abs=1e-6)


def test_without_a_second_hold_there_is_no_second_side(spear: Job) -> None:
    with pytest.raises(JobError):
        second_setup(spear)
    with pytest.raises(JobError):
        second_side(spear, plan(spear))
    assert len(plan_sides(spear)) == 1
