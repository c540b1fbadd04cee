"""A shaft between a face driver and a centre: the whole outside in one hold."""

import math

import pytest

from tests.support.kept import plan
from toreuma.core.cutting.grip import required_grip
from toreuma.core.model import Centre, FaceDriver, Job
from toreuma.core.plan.hold.standing import compliance
from toreuma.core.scene import build_scene
from toreuma.engine.fresh import new_job
from toreuma.engine.line import said, with_part
from toreuma.shipped.library import holds


def shaft(**driver: float) -> Job:
    """Ø 40, 200 long, from a sawn piece of Ø 45, between pins on Ø 24 and a centre that pushes 6 kN."""
    job, _ = new_job("shaft", "mm", "C45", "slant-bed")
    said_part = said("30 x 60 c1 / 40 x 140 c1 / centre 3.15", "mm").part
    assert said_part is not None
    job = with_part(job, said_part)
    hold = next(one for one in holds() if isinstance(one, FaceDriver) and one.pins_d_mm == 32).changed(
        **{"pins_d_mm": 24.0, **driver}
    )
    size = {"kind": "round", "d_mm": 45.0, "length_mm": 200.0, "face_allowance_mm": 0.0}
    stock = {**size, "material": job.stock.material}
    centre = Centre(d_mm=40.0, point_length_mm=30.0, force_n=6000.0)
    return job.changed(stock=stock, follows=()).with_setup(hold=hold, centre=centre)


def codes(job: Job) -> set[str]:
    return {one.code for one in plan(job).findings if one.severity == "error"}


def test_the_push_carries_the_torque_and_loses_the_feed() -> None:
    """Fc 1500 N on Ø 40, pins on Ø 24, a third of the push: 1500 * 40 / 24 / 0.35 + 400, times the safety."""
    driver = shaft().setup.hold
    found = required_grip(driver, 1500, 400, 700, 40, 24, 150).number
    assert found == pytest.approx(driver.safety * (1500 * 40 / 24 / 0.35 + 400))


def test_nothing_of_it_stands_outside_the_piece() -> None:
    scene = build_scene(shaft())
    assert scene.jaw_face_z == pytest.approx(-200.0)
    assert scene.jaws.bounds[3] == pytest.approx(15.0)
    assert scene.jaws.intersection(scene.stock).area == pytest.approx(0.0)


def test_the_piece_gives_way_as_a_beam_on_two_points() -> None:
    """Ø 45 over 200 mm, 1 N in the middle: L^3 / (48 E I)."""
    job = shaft()
    e = job.stock.material.e_n_mm2
    assert e is not None
    found = compliance(job, build_scene(job), build_scene(job).stock)
    assert found is not None
    assert found.at(-100.0) == pytest.approx(200**3 / (48 * e * math.pi / 64 * 45**4), rel=1e-3)
    assert found.at(-200.0) == found.at(0.0) == 0.0


def test_what_a_driver_needs_is_said() -> None:
    assert not codes(shaft())
    assert codes(shaft().with_setup(centre=None)) == {"driver.centre"}
    assert codes(shaft(pins_d_mm=44.0)) == {"driver.pins"}
    assert codes(shaft(force_n=9000.0)) == {"driver.push"}
    bar = shaft()
    assert "driver.piece" in codes(bar.changed(stock=bar.stock.changed(length_mm=None)))
    push = next(one for one in plan(shaft(force_n=9000.0)).findings if one.code == "driver.push")
    assert not codes(push.cures[0].apply(shaft(force_n=9000.0)))
