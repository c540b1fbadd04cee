"""A long shaft in a steady, or with a rest behind the tool."""

import math

import pytest

from tests.support.kept import plan
from toreuma.core.cutting.beam import Supports, compliance_of
from toreuma.core.geometry.region import box
from toreuma.core.model import Centre, FollowRest, Job, Rest, SteadyRest
from toreuma.core.plan.hold.rests import in_the_middle
from toreuma.core.plan.hold.standing import compliance
from toreuma.core.scene import build_scene
from toreuma.engine.fresh import new_job
from toreuma.engine.line import said, with_part
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import rests

STEEL = 210_000.0


def shaft(rest: Rest | None, centre: bool = False) -> Job:
    """Ø 30, 300 long, in the chuck of a lathe that takes a steady."""
    job, _ = new_job("shaft", "mm", "C45", "slant-bed")
    part = said("30 x 300 / bore 12 x 40 / centre 3.15" if not centre else "30 x 300 / centre 3.15", "mm").part
    assert part is not None
    job = with_part(job, part)
    size = {"kind": "round", "d_mm": 32.0, "length_mm": 350.0, "face_allowance_mm": 1.0}
    job = job.changed(stock={**size, "material": job.stock.material}, follows=())
    job = job.changed(machine=job.machine.changed(steady=True))
    hold = job.setup.hold.changed(stick_out_mm=305.0, grip_length_mm=35.0)
    live = Centre(d_mm=40.0, point_length_mm=30.0) if centre else None
    return job.with_setup(hold=hold, centre=live, rest=rest)


def steady(**fields: float | tuple[float, float]) -> SteadyRest:
    return SteadyRest(name="ours", range_mm=(8.0, 80.0)).changed(**{"z_mm": -60.0, **fields})


def codes(job: Job) -> set[str]:
    return {one.code for one in plan(job).findings if one.code.startswith(("rest.", "hold.long"))}


def test_what_it_carries_does_not_move_and_nothing_reaches_behind_it() -> None:
    job = shaft(steady())
    scene = build_scene(job)
    assert scene.clear_z == pytest.approx(-60.0 + 25.0)
    assert scene.steady.bounds[1] == pytest.approx(16.0)
    assert scene.fixed.intersects(box(-61.0, 20.0, -59.0, 30.0))
    found, free = compliance(job, scene, scene.stock), compliance(shaft(None), build_scene(shaft(None)), scene.stock)
    assert found is not None
    assert free is not None
    assert found.at(-60.0) < 1e-3 * free.at(-60.0)
    assert found.at(0.0) < 0.1 * free.at(0.0)


def test_it_takes_the_tilting_and_limits_the_speed() -> None:
    job, free = shaft(steady(max_rpm=900.0)), shaft(None)
    needed = {}
    for one in (job, free):
        made = plan(one)
        needed[one.setup.rest is None] = made.hold.needed.number
    assert needed[False] < needed[True]
    assert any(limit.label == "steady rest" and limit.number == 900.0 for limit in plan(job).hold.limits)


@pytest.mark.parametrize(
    ("fields", "code"),
    [
        ({}, ""),
        ({"z_mm": -300.0}, "rest.place"),
        ({"z_mm": 20.0}, "rest.place"),
        ({"z_mm": -900.0}, "rest.place"),
        ({"range_mm": (40.0, 80.0)}, "rest.range"),
    ],
)
def test_place_and_diameter_are_looked_at(fields: dict[str, float], code: str) -> None:
    job = shaft(steady(**fields))
    assert codes(job) == ({code} if code else set())
    if code == "rest.place":
        cure = next(one for one in plan(job).findings if one.code == code).cures[0]
        assert codes(cure.apply(job)) == set()


def test_a_rough_or_cornered_blank_and_a_bed_without_one_are_said() -> None:
    job = shaft(steady())
    assert codes(job.changed(stock=job.stock.changed(skin="scale"))) == {"rest.surface"}
    assert codes(job.changed(machine=job.machine.changed(steady=False))) == {"rest.machine"}
    hexagon = {"kind": "polygon", "sides": 6, "across_mm": 36.0, "length_mm": 350.0, "material": job.stock.material}
    assert codes(job.changed(stock=hexagon)) == {"rest.surface"}


def test_a_follow_rest_carries_the_piece_behind_the_tool() -> None:
    """Supported close to the force, a beam gives way by what little lies between: far less than without."""
    stock = box(-300, 0, 0, 8)
    plain = compliance_of(stock, Supports(-300, centre=True), STEEL)
    followed = compliance_of(stock, Supports(-300, centre=True, follow_mm=12.0), STEEL)
    assert followed.at(-150.0) < 0.02 * plain.at(-150.0)
    assert followed.at(0.0) == 0.0
    ei = STEEL * math.pi / 4 * 8**4
    propped = max(a**3 * (300 - a) ** 2 * (3 * a + 4 * (300 - a)) / (12 * ei * 300**3) for a in range(1, 300))
    assert plain.worst[1] == pytest.approx(propped, rel=0.01)
    alone = codes(shaft(FollowRest(range_mm=(6.0, 60.0))))
    assert alone == {"rest.centre"}
    assert codes(shaft(FollowRest(range_mm=(6.0, 60.0)), centre=True)) == set()


def test_only_finishing_is_followed() -> None:
    """In roughing the diameter under its rollers changes with every pass."""
    job = shaft(None, centre=True)
    scene = build_scene(job.with_setup(rest=FollowRest(range_mm=(6.0, 60.0))))
    assert scene.supports.follow_mm is None
    assert scene.supports_followed.follow_mm == 12.0
    assert scene.steady.is_empty


def test_rests_ship_travel_with_a_job_and_stand_in_the_middle() -> None:
    assert {one.kind for one in rests()} == {"steady", "follow"}
    job = shaft(None)
    placed = in_the_middle(job, rests()[0])
    assert isinstance(placed, SteadyRest)
    assert placed.z_mm == pytest.approx(-151.5, abs=1.0)
    with_rest = job.with_setup(rest=placed)
    assert parse_job(job_text(with_rest)) == with_rest
