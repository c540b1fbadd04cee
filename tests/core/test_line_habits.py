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
        ("32 x 55; bore 16 x 38 flat bottom", "32 x 55; bore 16 x 38"),
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
        ("Ø50 L80", "50 x 80"),
        ("50 dia. 80 long", "50 x 80"),
        ("40 x 50, 10 through hole", "40 x 50; hole 10"),
        ("40 x 50; thru hole 10", "40 x 50; hole 10"),
        ("40 x 50, blind hole 10 x 20 flat bottom", "40 x 50; hole 10 x 20 flat"),
        ("40 x 50, M8 x 20 hole", "40 x 50; hole M8 x 20"),
        ("40 x 50, M8 tapped hole x 20", "40 x 50; hole M8 x 20"),
        ("18 x 25, M12 hole x 18", "18 x 25; hole M12 x 18 through"),
        ("40 x 50, O-ring groove 3 x 2 deep at 15", "40 x 50; g 3 x 36 at 15"),
        ("40 x 50, circlip groove 1.85 x 37.5 at 25", "40 x 50; g 1.85 x 37.5 at 25"),
        ("28 x 40, bore 16, groove inside 1.1 x 17 at 5", "28 x 40; bore 16; inside g 1.1 x 17 at 5"),
        ("80 x 10, holes 6 x 6.6 on 60", "80 x 10; 6 x 6.6 on 60"),
        ("80 x 10, 6 x Ø6.6 equispaced on 60 PCD", "80 x 10; 6 x 6.6 on 60"),
        ("40 x 50, 2 flats 34 AF x 10", "40 x 50; 2 flats 34 x 10"),
        ("40 x 50, slot 6 wide x 20 long x 3 deep at 10", "40 x 50; slot 6 x 3 x 20 at 10"),
        ("24 A/F hex x 10 / M16 x 30", "hex 24 x 10 / M16 x 30"),
        ("24 AF x 10 / M16 x 30", "hex 24 x 10 / M16 x 30"),
        ("40 x 30 fillet R2 / 60 x 10", "40 x 30 r2 / 60 x 10"),
        ("40 x 30 / taper 40 to 50 x 20", "40 x 30 / 40 > 50 x 20"),
        ("25 h6 x 30 undercut DIN 509 F 0.6x0.3 / 40 x 10", "25 h6 x 30 undercut F 0.6x0.3 / 40 x 10"),
        ("M20 x 30 relief DIN 76 / 30 x 10", "M20 x 30 relief / 30 x 10"),
        ("90 x 40, taper bore 30 to 24 x 40", "90 x 40; bore 30 > 24 x 40"),
        ("50 x 30, bore 30, M36x2 inside x 15", "50 x 30; bore M36x2 x 15 / 30"),
        ("Tr 20 x 4 x 60 / 30 x 20", "Tr20x4 x 60 / 30 x 20"),
        ("M20 left hand x 30 relief / 30 x 20", "M20 LH x 30 relief / 30 x 20"),
        ("40 x 60; centres A3.15 both ends", "40 x 60; centre A3.15 both"),
        ("30 x 40, 2 x 5 cross holes at 20", "30 x 40; cross 2 x 5 at 20"),
        ("30 x 40, 4 radial holes 5 at 20", "30 x 40; cross 4 x 5 at 20"),
        ("all edges 0.3; 40 x 20", "40 x 20; break 0.3"),
        ("40 x 60; c'bore 30 x 10; bore 20", "40 x 60; counterbore 30 x 10; bore 20"),
        ("22 x 50 c1 both, knurl 0.8 x 20", "22 x 20 c1 front / 22 x 30 c1 back; knurl 0.8 x 20"),
    ],
)  # fmt: skip
def test_many_hands_write_one_thing(typed: str, plain: str) -> None:
    assert same(part_of(typed), part_of(plain))


def test_a_thread_said_behind_a_comma_is_cut_on_the_shaft_that_is_there() -> None:
    part = part_of("16 x 90, M16 x 30 both ends")
    assert part.outside[-1].z_mm == -90
    assert same(part, part_of("M16 x 30 / 16 x 30 / M16 x 30"))
    assert part == part_of("16 x 90, thread M16 x 30, thread M16 x 30 back")
    assert part == part_of("16 x 90; M16 x 30 at front; M16 x 30 at back")
    # Another diameter, or a step behind a slash, is a step of its own.
    assert part_of("12 x 20, thread M16 x 30").outside[-1].z_mm == -50
    assert part_of("16 x 90 / thread M16 x 30").outside[-1].z_mm == -120


@pytest.mark.parametrize(
    ("typed", "d_mm", "word"),
    [
        ("20 x 60; groove 2 x 1 at 10", 18, "1 mm deep"),
        ("28 x 40, bore 16, groove 1.1 x 0.5 at 5", 17, "0.5 mm deep in the bore"),
        ("20 x 60; groove 2 x Ø5 at 10", 5, ""),
        ("20 x 60; groove 2 x 12 at 10", 12, ""),
    ],
)
def test_a_floor_no_groove_has_is_its_depth_and_that_is_said(typed: str, d_mm: float, word: str) -> None:
    line = said(typed, "mm")
    assert line.part is not None
    assert line.part.features[-1].d_mm == pytest.approx(d_mm)
    assert [word in one.what for one in line.notes] == ([True] if word else [])


def test_a_bore_that_widens_behind_a_narrow_one_is_said() -> None:
    line = said("60 x 80, bore 30 x 50, M36x1.5 inside x 20", "mm")
    assert any("behind" in one.what and "first" in one.expected for one in line.notes)
    assert not said("60 x 80; bore 40 x 20 / 30 x 50", "mm").notes


def test_a_key_by_its_standard_is_asked_for_its_depth() -> None:
    """8 x 7 is the key, not what is milled into the shaft."""
    assert not said("30 k6 x 50, keyway DIN 6885 8x7x25 at 10", "mm").is_whole


def test_in_a_job_of_inches_a_groove_may_be_a_fraction_wide() -> None:
    part = part_of("1 x 2; G 1/4 x .75 at .5", "inch")
    (groove,) = part.features
    assert groove.kind == "groove"
    assert groove.width_mm == pytest.approx(6.35)


def test_a_centre_without_a_size_gets_the_usual_one_and_that_is_said() -> None:
    line = said("30 h6 x 40 / 40 x 8 / 20 h6 x 40, centre both", "mm")
    assert line.part is not None
    assert [(one.end, one.d_mm) for one in line.part.features] == [("front", 3.15), ("back", 2.5)]
    assert any("usual" in one.what for one in line.notes)


def test_screw_threads_by_their_number_need_no_series() -> None:
    for typed in ("#10-24 x .6 / .7 x .5", "No. 10-24 x .6 / .7 x .5"):
        assert same(
            part_of(typed, "inch").changed(features=()),
            part_of("#10-24 UNC x .6 / .7 x .5", "inch").changed(features=()),
        )
    (hole,) = part_of(".8 x 1; tap #8-32 x .4", "inch").features
    assert hole.kind == "axial_hole"
    assert hole.thread == "#8-32"


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
