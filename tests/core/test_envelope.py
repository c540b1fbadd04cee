"""The upper envelope, and what a tool removes from the places above it."""

import math
import random

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from tests.support.kept import plan
from tests.support.long import everyday
from tests.support.parts import INSERTS, job_for, random_part
from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Arc, Line, arc_through_ends
from toreuma.core.geometry.envelope import FLOOR, Envelope, upper_envelope
from toreuma.core.geometry.region import box, fold, mirrored_at_axis, polygons, thickness, tidy


def test_the_envelope_of_two_steps_and_a_gap() -> None:
    steps = shapely.union_all([shapely.box(-10, 0, -5, 4), shapely.box(-3, 0, 0, 2)])
    line = upper_envelope(steps, 2.0, -12.0)
    assert [line.height(z) for z in (1, -1, -4, -7, -11)] == [FLOOR, 2, FLOOR, 4, FLOOR]
    assert line.highest(-4, 1) == 2
    assert line.clears((1, 3), (-4, 3))
    assert not line.clears((1, 3), (-7, 3))
    assert line.clears((0, -1), (0, 2))  # touching the wall from the free side
    assert not line.clears((-1, -1), (-1, 2))


def test_overhangs_are_filled_because_nothing_comes_from_below() -> None:
    hook = shapely.Polygon([(-10, 0), (0, 0), (0, 1), (-6, 1), (-6, 3), (-2, 3), (-2, 5), (-10, 5)])
    line = upper_envelope(hook, 1.0, -9.0)
    assert line.height(-4) == 5
    assert line.height(-1) == 1
    assert line.below().covers(hook.intersection(box(-9, -1, 1, 9)).buffer(-1e-6))


@given(st.lists(st.tuples(st.floats(-9, 0), st.floats(0.5, 9), st.floats(0.3, 4)), min_size=1, max_size=6))
def test_the_envelope_is_the_highest_of_its_pieces(pieces: list) -> None:  # type: ignore[type-arg]
    region = shapely.union_all([shapely.Point(z, 0).buffer(r, quad_segs=5) for z, r, _ in pieces])
    line = upper_envelope(region, 10.0, -20.0)
    assert np.all(np.diff(line.points[:, 0]) <= 1e-12)
    for z in np.linspace(-18.37, 9.41, 23):
        cut = region.intersection(shapely.LineString([(z, -50), (z, 50)]))
        want = cut.bounds[3] if not cut.is_empty else FLOOR
        assert line.height(float(z)) == pytest.approx(want, abs=1e-6)


def test_levels_are_added_where_the_line_crosses_them() -> None:
    line = Envelope(np.array([[0.0, 0.0], [-4.0, 8.0], [-4.0, 2.0], [-9.0, 2.0]]))
    marked = line.with_levels(np.array([4.0])).points
    assert [tuple(p) for p in marked] == [(0, 0), (-2, 4), (-4, 8), (-4, 4), (-4, 2), (-9, 2)]


@pytest.mark.parametrize("insert", everyday(sorted(INSERTS), "80 rhomb"))
@given(seed=st.integers(0, 150))
def test_what_is_left_after_finishing_is_what_reach_declared(insert: str, seed: int) -> None:
    source = random.Random(seed)
    while True:
        try:
            planned = plan(job_for(random_part(source)[0], insert))
            break
        except PartError:
            continue
    final = max(polygons(planned.operations[-1].after), key=lambda piece: piece.bounds[2])
    left = final.difference(planned.scene.part).difference(planned.declared.buffer(0.002))
    assert thickness(left, planned.scene.part) < 0.004
    shown = planned.declared.intersection(planned.scene.part)
    assert shown.area < 1e-6


def test_folding_and_mirroring_at_the_axis() -> None:
    swept = shapely.box(0, -2, 1, 5)
    assert fold(swept).equals(shapely.box(0, 0, 1, 5))
    assert fold(shapely.box(0, -5, 1, 2)).equals(shapely.box(0, 0, 1, 5))
    both = mirrored_at_axis(shapely.box(-10, 0, 0, 8), 3)
    assert both.equals(shapely.box(-10, -3, 0, 8))
    crumbs = shapely.union_all([shapely.box(0, 0, 1, 1), shapely.box(5, 5, 5.00001, 5.00001)])
    assert tidy(crumbs).equals(shapely.box(0, 0, 1, 1))


@given(st.floats(1, 50), st.floats(5, 170), st.floats(0, 360), st.booleans(), st.floats(0.1, 0.9))
def test_arcs_know_their_parts(radius: float, sweep_deg: float, turn: float, cw: bool, share: float) -> None:
    angles = [math.radians(turn), math.radians(turn + (-sweep_deg if cw else sweep_deg))]
    ends = [(radius * math.cos(a), radius * math.sin(a)) for a in angles]
    arc = arc_through_ends(ends[0], ends[1], radius, cw)
    assert arc.centre == pytest.approx((0, 0), abs=1e-6 * radius)
    assert math.degrees(abs(arc.sweep_rad)) == pytest.approx(sweep_deg, abs=1e-4)
    assert arc.part(share).length == pytest.approx(share * arc.length, rel=1e-6)
    assert arc.reversed().at(1 - share) == pytest.approx(arc.at(share), abs=1e-6 * radius)
    assert arc.mirrored().mirrored() == arc
    dz, dr = arc.tangent(share)
    z, r = arc.at(share)
    assert dz * z + dr * r == pytest.approx(0, abs=1e-6 * radius)
    moved = arc.moved(3, -2)
    assert isinstance(moved, Arc)
    assert moved.radius == pytest.approx(radius)
    line = Line(ends[0], ends[1])
    assert line.length <= arc.length + 1e-9
