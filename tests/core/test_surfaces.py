"""Surfaces of the finished piece against the drawn ones, and what rubs behind the edge."""

import pytest

from tests.support.kept import plan, prove
from tests.support.long import everyday
from tests.support.routes import bored_job, proof_of, tool_of, turned_job
from toreuma.core.dialect import Dialect
from toreuma.core.model import CutGroove, Job
from toreuma.core.model.feature import FaceGroove
from toreuma.core.model.part import Element
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.prove.surfaces import SurfaceMade
from toreuma.core.read import read
from toreuma.shipped.library import demo_job, demo_names


def proved_with(job: Job, other: Job, language: Dialect, change: tuple[str, str] = ("", "")) -> Proof:
    """The program of one job, edited, cut with the tools of another."""
    planned = plan(job)
    text = post(planned, language).text
    assert change[0] in text
    program = read(text.replace(*change) if change[0] else text, language, planned.scene.reference)
    return prove(other, planned.scene, program, planned.declared)


def surface(proof: Proof, name: str) -> SurfaceMade:
    return next(one for one in proof.surfaces if one.name == name)


def test_every_cut_surface_lies_within_its_limits() -> None:
    proof = proof_of(demo_job("spear"))
    guide = surface(proof, "Guide")
    assert guide.bounded
    assert guide.allowed_um == pytest.approx((21 - 0) / 4)
    assert all(one.cut and one.share <= 1 for one in proof.surfaces)
    assert {"Tip", "Cone 20°", "Neck", "Flange face"} <= {one.name for one in proof.surfaces}
    assert proof.gouged.is_empty


def test_a_diameter_cut_too_small_is_measured_where_it_is(language: Dialect) -> None:
    spear = demo_job("spear")
    proof = proved_with(spear, spear, language, ("X21.97", "X21.95"))
    guide = surface(proof, "Guide")
    assert guide.under_um == pytest.approx(1000 * (21.9695 - 21.95) / 2, abs=0.3)
    assert guide.deviation_um == pytest.approx(-guide.under_um)
    assert guide.share > 1
    assert surface(proof, "Neck").share < 0.5
    assert proof.gouged.area > 0
    assert max(gouge.depth_mm for gouge in proof.gouges) == pytest.approx(guide.under_um / 1000, abs=0.001)


def test_metal_left_stands_above_and_has_its_place(language: Dialect) -> None:
    spear = demo_job("spear")
    proof = proved_with(spear, spear, language, ("X21.97", "X21.99"))
    guide = surface(proof, "Guide")
    assert guide.over_um == pytest.approx(1000 * (21.99 - 21.9695) / 2, abs=0.3)
    (z, r), um = proof.left[0]
    assert -36 < z < -22
    assert r == pytest.approx(10.99, abs=0.02)
    assert um == pytest.approx(guide.over_um, abs=0.5)


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "vane-stud"))
def test_nothing_rubs_on_the_demo_jobs(name: str) -> None:
    assert not [contact for contact in proof_of(demo_job(name)).contacts if "flank" in contact.what]


def test_a_bar_in_too_small_a_bore_rubs_with_its_insert(language: Dialect) -> None:
    job = bored_job((Element(z_mm=0, d_mm=40.0), Element(z_mm=-50, d_mm=40.0)))
    bar = job.tools[1]
    large = job.changed(tools=(job.tools[0], bar.changed(bar=bar.bar.changed(least_bore_mm=48.0))))  # type: ignore[union-attr]
    assert not proof_of(job).contacts
    proof = proved_with(job, large, language)
    rubbing = [contact for contact in proof.contacts if "flank in a bore" in contact.what]
    assert rubbing
    assert max(one.depth_mm for one in rubbing) == pytest.approx((0.95 * 48.0 - 2 * 13.9) / 2, abs=1.2)
    assert "bore.flank" in {finding.code for finding in plan(large).all_findings}


@pytest.mark.parametrize(("first_cut", "which"), [((70.0, 110.0), "outer flank"), ((20.0, 40.0), "inner flank")])
def test_a_face_blade_curved_for_other_rings_rubs(
    language: Dialect, first_cut: tuple[float, float], which: str
) -> None:
    blade = tool_of("GF 4 40-90", 3)
    groove = FaceGroove(d_mm=60.0, width_mm=4.0, depth_mm=4.0)
    job = turned_job((groove,), (blade,), bore_d=0.0).with_setup(
        operations=(CutGroove(id="g", tool=blade.id, feature=0),)
    )
    assert not proof_of(job).contacts
    other = job.changed(tools=(blade.changed(first_cut_mm=first_cut),))
    proof = proved_with(job, other, language)
    assert any(which in contact.what for contact in proof.contacts)


def test_an_insert_too_wide_for_a_pocket_rubs_with_its_flank(spear: Job, language: Dialect) -> None:
    """Its trailing edge is less than two degrees off the wall that was followed down."""
    slim = next(tool for tool in spear.tools if tool.id == "T2")
    wide = slim.changed(insert=slim.insert.changed(included_angle_deg=59.5))  # type: ignore[union-attr]
    other = spear.changed(tools=tuple(wide if tool.id == "T2" else tool for tool in spear.tools))
    assert any("insert's flank" in contact.what for contact in proved_with(spear, other, language).contacts)
