"""The same thing as many people write it: one solid; and what could be meant two ways is asked, never taken in
silence."""

import math

import pytest
import shapely

from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Part
from toreuma.core.units import System
from toreuma.engine.line import said


def part_of(text: str, units: System = "mm") -> Part:
    line = said(text, units)
    assert line.part is not None, line.faults
    assert line.is_whole, line.faults
    return line.part


def same(one: Part, other: Part) -> bool:
    sections = [build_part(part).region for part in (one, other)]
    return bool(sections[0].symmetric_difference(sections[1]).area < 1e-6) and one.features == other.features


@pytest.mark.parametrize(
    ("typed", "plain"),
    [
        ("G 1/2 x 15 relief / 28 x 10", "G1/2 x 15 relief / 28 x 10"),
        ('G1/2" x 15 / 28 x 10', "G1/2 x 15 / 28 x 10"),
        ("28 x 10 / G 3/4 A x 20", "28 x 10 / G3/4A x 20"),
        ("R 1/2 x 15 / 30 x 10", "R1/2 x 15 / 30 x 10"),
        ("20 x 30; M8 x 20 deep", "20 x 30; hole M8 x 20"),
        ("20 x 30; M8 tap 20", "20 x 30; hole M8 x 20"),
        ("20 x 30; M8-6H tapped x 20", "20 x 30; hole M8-6H x 20"),
        ("30 x 40; bore 18 through; internal groove 1.1 x 19 at 5", "30 x 40; bore 18 through; inside g 1.1 x 19 at 5"),
        ("30 x 40; bore 18 through; g 1.1 x 19 at 5 inside", "30 x 40; bore 18 through; inside g 1.1 x 19 at 5"),
        ("30 x 40; bore 18 through; groove 1.1 x 19 at 5 in the bore", "30 x 40; bore 18 through; id g 1.1 x 19 at 5"),
        ("D30 x 40 / D40 x 20", "30 x 40 / 40 x 20"),
        ("cone 30 to 40 x 20 / 50 x 10", "30 > 40 x 20 / 50 x 10"),
        ("SW24 x 10 / 20 x 30", "hex 24 x 10 / 20 x 30"),
        ("AF 24 x 10 / 20 x 30", "hexagon 24 x 10 / 20 x 30"),
        ("M10x1x12/16x20", "M10x1 x 12 / 16 x 20"),
        ("30x10/16x20", "30 x 10 / 16 x 20"),
        ("30 x 40; center drill A3.15", "30 x 40; centre 3.15"),
        ("30 x 40; ISO 2768-mK", "30 x 40; general m"),
        ("30 x 60; flat 26 x 15", "30 x 60; flat 11 x 15"),
        ("60 x 12; bore 20; keyway 6 x 2.8 through bore", "60 x 12; bore 20; keyway 6 x 2.8 inside at 0 to 12"),
        ("sphere 30 / 16 x 40", "ball 30 / 16 x 40"),
    ],
)  # fmt: skip
def test_many_hands_write_one_thing(typed: str, plain: str) -> None:
    assert same(part_of(typed), part_of(plain))


def test_in_a_job_of_inches_a_groove_may_be_a_fraction_wide() -> None:
    part = part_of("1 x 2; G 1/4 x .75 at .5", "inch")
    (groove,) = part.features
    assert groove.kind == "groove"
    assert groove.width_mm == pytest.approx(6.35)


def test_a_ball_goes_on_past_its_middle_to_the_neck() -> None:
    part = part_of("ball 30 / 16 x 40")
    deep = 15 + math.sqrt(15**2 - 8**2)
    assert part.outside[0].z_mm == pytest.approx(-deep, abs=1e-5)
    around = [(-15 + 15 * math.cos(t / 500), 15 * math.sin(t / 500)) for t in range(1571)]
    ball = shapely.Polygon([(-30, 0), *reversed(around)]).intersection(shapely.box(-deep, 0, 0, 20))
    ball = ball.union(shapely.Point(-15, 0).buffer(15, 256).intersection(shapely.box(-deep, 0, 0, 20)))
    neck = shapely.box(-deep - 40, 0, -deep, 8)
    assert build_part(part).region.symmetric_difference(ball.union(neck)).area < 0.2
    assert part_of("ball r15 / 16 x 40") == part


def test_a_ball_on_nothing_narrower_is_a_dome() -> None:
    assert part_of("ball 30 / 30 x 10").outside[0].z_mm == pytest.approx(-15)


@pytest.mark.parametrize(
    ("typed", "word"),
    [
        ("20 x 30; hole M8 x 20 / 6.8 x 25", "behind a hole"),
        ("20 x 30; hole 8 x 20 x 2", "twice"),
        ("60 x 12; bore 20 H7 through; keyway 6 JS9 x 2.8", "length"),
        ("20 x 30; tap M8 x 20 / 30 x 10", "behind a hole"),
    ],
)
def test_what_could_be_meant_two_ways_is_asked(typed: str, word: str) -> None:
    line = said(typed, "mm")
    assert not line.is_whole
    assert any(word in one.what for one in line.faults)
    assert all(one.expected for one in line.faults)


def test_a_width_with_limits_is_cut_to_their_middle_and_that_is_said() -> None:
    line = said("60 x 12; bore 20 through; keyway 6 D10 x 2.8 through bore", "mm")
    assert line.part is not None
    (slot,) = line.part.features
    assert slot.width_mm == pytest.approx(6 + (0.030 + 0.078) / 2)  # ISO 286: 6 D10 is +30 to +78 um
    assert any("middle" in one.what for one in line.notes)
