"""Loose lines to metal, and metal to the elements of a turned part."""

import math
from itertools import pairwise

import pytest
import shapely

from toreuma.core.errors import PartError
from toreuma.core.geometry.assemble import metal_of
from toreuma.core.geometry.dimension import dimensioned
from toreuma.core.geometry.elements import Line, Segment, arc_through_ends
from toreuma.core.geometry.region import box


def lines(*places: tuple[float, float]) -> list[Segment]:
    return [Line(a, b) for a, b in pairwise(places)]


STEPPED = lines((0, 0), (0, 10), (-20, 10), (-20, 15), (-40, 15), (-40, 0))
BORE = lines((0, 4), (-40, 4))


def test_a_solid_closes_on_the_axis() -> None:
    metal, gaps = metal_of(STEPPED, 0.01)
    assert metal.area == pytest.approx(20 * 10 + 20 * 15)
    assert gaps == []


def test_visible_edges_inside_the_metal_vanish() -> None:
    metal, _ = metal_of([*STEPPED, *lines((-20, 0), (-20, 10)), *lines((-30, 15), (-30, 0))], 0.01)
    assert metal.area == pytest.approx(500)


def test_a_bore_between_the_faces_is_hollow() -> None:
    metal, _ = metal_of([*STEPPED, *BORE], 0.01)
    assert metal.area == pytest.approx(500 - 160)
    assert metal.bounds[1] == pytest.approx(4)


def test_edges_seen_in_a_stepped_bore_do_not_make_metal() -> None:
    """A stepped bore with the lines of its steps drawn down to the axis."""
    bore = lines((0, 6), (-15, 6), (-15, 4), (-40, 4))
    metal, _ = metal_of([*STEPPED, *bore, *lines((-15, 4), (-15, 0))], 0.01)
    assert metal.area == pytest.approx(500 - 15 * 6 - 25 * 4)


def test_a_blind_bore_keeps_the_metal_behind_it() -> None:
    blind = lines((0, 5), (-25, 5), (-28, 0))
    metal, _ = metal_of([*STEPPED, *blind], 0.01)
    assert metal.area == pytest.approx(500 - 125 - 7.5)


def test_loose_ends_run_on_to_where_they_cross() -> None:
    short = [Line((0, 0), (0, 9.98)), *STEPPED[1:]]
    metal, gaps = metal_of(short, 0.05)
    assert metal.area == pytest.approx(500)
    assert len(gaps) == 1
    assert gaps[0].width_mm == pytest.approx(0.02)
    with pytest.raises(PartError, match="enclose no area"):
        metal_of([*lines((0, 0.5), (0, 9)), *STEPPED[1:]], 0.05)


def test_nothing_drawn_is_said() -> None:
    with pytest.raises(PartError, match="no lines or arcs"):
        metal_of([], 0.05)


def test_elements_of_a_stepped_solid() -> None:
    found = dimensioned(metal_of(STEPPED, 0.01)[0])
    assert [(e.z_mm, e.d_mm) for e in found.outside] == [(0, 20), (-20, 20), (-20, 30), (-40, 30)]
    assert found.inside == ()
    assert found.shift_mm == 0


def test_the_front_goes_to_zero_wherever_it_was_drawn() -> None:
    moved = [segment.moved(123.4, 0.0) for segment in STEPPED]
    found = dimensioned(metal_of(moved, 0.01)[0])
    assert found.shift_mm == pytest.approx(-123.4)
    assert found.outside[-1].z_mm == pytest.approx(-40)


def test_arcs_come_back_as_arcs_the_right_way_round() -> None:
    """A ball nose of radius 10 outside, a hollow of radius 30 behind it."""
    nose = arc_through_ends((0, 0), (-10, 10), 10, clockwise=False)
    hollow = arc_through_ends((-10, 10), (-30, 14), 30, clockwise=True)
    found = dimensioned(metal_of([nose, hollow, *lines((-30, 14), (-40, 14), (-40, 0))], 0.01)[0])
    kinds = [(e.kind, e.bulge, e.radius_mm) for e in found.outside]
    assert kinds[0][:2] == ("arc", "convex")
    assert kinds[0][2] == pytest.approx(10, abs=1e-3)
    assert kinds[1][:2] == ("arc", "concave")
    assert kinds[1][2] == pytest.approx(30, abs=1e-2)


def test_a_through_bore_begins_with_its_mouth() -> None:
    found = dimensioned(metal_of([*STEPPED, *BORE], 0.01)[0])
    assert [(e.z_mm, e.d_mm) for e in found.inside] == [(0, 8), (-40, 8)]


def test_a_hole_from_the_back_is_told_by_its_point() -> None:
    point = 3 / math.tan(math.radians(59))
    drilled = lines((-40, 3), (-30, 3), (-30 + point, 0))
    hole = dimensioned(metal_of([*STEPPED, *drilled], 0.01)[0]).holes[0]
    assert (hole.end, hole.d_mm, hole.depth_mm) == ("back", 6, 10)
    assert hole.point_deg == pytest.approx(118, abs=0.01)
    flat = lines((-40, 3), (-30, 3), (-30, 0))
    assert dimensioned(metal_of([*STEPPED, *flat], 0.01)[0]).holes[0].point_deg == 180


def test_a_stepped_bore_from_the_back_is_left_out_and_named() -> None:
    stepped = lines((-40, 6), (-35, 6), (-35, 3), (-30, 3), (-30, 0))
    found = dimensioned(metal_of([*STEPPED, *stepped], 0.01)[0])
    assert found.holes == ()
    assert "stepped blind bore" in found.left_out[0]


def test_a_hollow_closed_all_round_is_no_turned_part() -> None:
    shell = box(-40, 0, 0, 20).difference(box(-30, 5, -10, 10))
    with pytest.raises(PartError, match="closed hollow"):
        dimensioned(shell)
    two = shapely.union(box(-40, 0, 0, 20), box(-90, 0, -60, 20))
    with pytest.raises(PartError):
        dimensioned(two)


def test_chamfers_and_rounds_are_told_from_tapers() -> None:
    """A chamfer of 1 in front, a round of 2 in the inner corner, a taper of 8 that stays, a chamfer at the back."""
    fillet = arc_through_ends((-18, 10), (-20, 12), 2, clockwise=True)
    profile = [
        *lines((0, 0), (0, 9), (-1, 10), (-18, 10)),
        fillet,
        *lines((-20, 12), (-20, 15), (-28, 19), (-39, 19), (-40, 18), (-40, 0)),
    ]
    found = dimensioned(metal_of(profile, 0.01)[0])
    rows = [(e.z_mm, e.d_mm, e.corner and (e.corner.kind, e.corner.size_mm)) for e in found.outside]
    assert rows == [
        (0, 20, ("chamfer", 1)),
        (-20, 20, ("round", 2)),
        (-20, 30, None),
        (-28, 38, None),
        (-40, 38, ("chamfer", 1)),
    ]


def test_the_mouths_of_a_bore_are_told_as_corners() -> None:
    bore = lines((0, 5), (-1, 4), (-38.5, 4), (-40, 5.5))
    found = dimensioned(metal_of([*STEPPED, *bore], 0.01)[0])
    rows = [(e.z_mm, e.d_mm, e.corner and e.corner.size_mm) for e in found.inside]
    assert rows == [(0, 8, 1), (-40, 8, 1.5)]
