"""A live centre in front: planning stays clear of it, the proof finds nothing touched."""

import pytest

from tests.support.engine import followed, proved
from tests.support.kept import plan, prove
from toreuma.core.model import Centre, Job, Part

SHAFT = {
    "outside": [
        {"z_mm": 0, "d_mm": 30},
        {"z_mm": -25, "d_mm": 30},
        {"z_mm": -25, "d_mm": 40},
        {"z_mm": -60, "d_mm": 40},
        {"z_mm": -60, "d_mm": 36},
        {"z_mm": -75, "d_mm": 36},
    ],
    "features": [{"kind": "centre_hole", "d_mm": 4, "mouth_d_mm": 8.5}],
}


@pytest.fixture
def supported(spear: Job) -> Job:
    """A stepped shaft, faced already, between chuck and centre."""
    job = spear.changed(part=Part.model_validate(SHAFT), stock=spear.stock.changed(d_mm=44, face_allowance_mm=0))
    hold = job.setup.hold.changed(stick_out_mm=100.0)
    operations = tuple(op for op in job.operations if op.kind != "part_off")
    return job.with_setup(hold=hold, centre=Centre(d_mm=18, body_length_mm=60), operations=operations)


def test_turning_goes_round_the_centre(supported: Job) -> None:
    outcome = followed(supported)
    proof = proved(outcome.job)
    assert not proof.contacts
    assert proof.gouge_um < 2
    turned = next(op for op in outcome.plan.operations if op.operation.kind == "finish_od")
    assert turned.after.intersection(outcome.plan.scene.part).area == pytest.approx(
        outcome.plan.scene.part.area, rel=1e-4
    )


def test_facing_stops_at_the_centre_and_says_so(supported: Job) -> None:
    thick = supported.changed(stock=supported.stock.changed(face_allowance_mm=1.5))
    thick = thick.with_setup(operations=tuple(op for op in thick.operations if op.kind == "face"))
    outcome = followed(thick)
    finding = next(f for f in outcome.plan.all_findings if f.code == "face.centre")
    assert "Ø" in finding.what
    assert not proved(thick).contacts
    free = plan(finding.cures[0].apply(thick))
    assert "face.centre" not in {f.code for f in free.all_findings}
    lowest = min(motion.segment.end[1] for motion in free.operations[0].motions)
    assert lowest < 0


def test_without_a_centre_the_same_cut_would_hit_it(supported: Job) -> None:
    """The proof sees a centre that planning did not know of."""
    thick = supported.changed(stock=supported.stock.changed(face_allowance_mm=1.5))
    blind = followed(thick.with_setup(centre=None))
    seen = prove(thick, plan(thick).scene, blind.program, blind.plan.declared)
    assert seen.contacts
