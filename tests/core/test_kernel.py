"""The geometry kernel: sums, sweeps, recovered arcs, reach."""

import itertools
import math
import random

import numpy as np
import pytest
import shapely
from hypothesis import given, reject
from hypothesis import strategies as st

from tests.support.long import everyday
from tests.support.parts import INSERTS, job_for, random_part
from toreuma.core.errors import PartError
from toreuma.core.geometry.crossings import crossings
from toreuma.core.geometry.elements import Arc, Line, arc_through_ends, chords
from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.minkowski import sum_with, sweep
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.reach import blocked_by_part, covered
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region, depth_inside, fold, rotated_volume
from toreuma.core.geometry.shape import grow
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.scene import build_scene

coordinate = st.floats(-20, 20).map(lambda x: round(x, 3))


def test_sum_of_two_rectangles_is_a_rectangle() -> None:
    total = sum_with(shapely.box(0, 0, 4, 2), np.array([[0, 0], [1, 0], [1, 3], [0, 3]], dtype=float))
    assert total.equals(shapely.box(0, 0, 5, 5))


@given(st.lists(st.tuples(coordinate, coordinate), min_size=3, max_size=8), st.floats(0.1, 3))
def test_sum_has_the_area_the_mixed_formula_gives(points: list, radius: float) -> None:  # type: ignore[type-arg]
    """Steiner: a convex region grown by a disc has area A + L r + pi r^2."""
    hull = shapely.MultiPoint(points).convex_hull
    if hull.geom_type != "Polygon" or hull.area < 1:
        return
    grown = grow(hull, radius)
    assert grown.area == pytest.approx(hull.area + hull.length * radius + math.pi * radius**2, rel=1e-3)


@given(coordinate, coordinate, st.floats(0.2, 40), st.floats(5, 140), st.floats(0, 360), st.booleans())
def test_arcs_come_back_as_arcs(z: float, r: float, radius: float, sweep_deg: float, turn: float, cw: bool) -> None:
    a0, a1 = math.radians(turn), math.radians(turn + (-sweep_deg if cw else sweep_deg))
    ends = [(z + radius * math.cos(a), r + radius * math.sin(a)) for a in (a0, a1)]
    arc = arc_through_ends(ends[0], ends[1], radius, cw)
    before = Line((arc.start[0] - 3 * arc.tangent()[0], arc.start[1] - 3 * arc.tangent()[1]), arc.start)
    after = Line(arc.end, (arc.end[0] + 3 * arc.tangent(1.0)[0], arc.end[1] + 3 * arc.tangent(1.0)[1]))
    points = chords([before, arc, after])
    found = recover(points)
    true = shapely.LineString(points)
    for segment in found:
        off = shapely.distance(shapely.points(segment.points(1e-4)), true)
        assert off.max() < 0.0015
    arcs = [segment for segment in found if isinstance(segment, Arc)]
    if radius * math.radians(sweep_deg) > 0.5 and radius * (1 - math.cos(math.radians(sweep_deg) / 2)) > 0.02:
        assert len(arcs) == 1
        assert arcs[0].radius == pytest.approx(radius, rel=0.02, abs=0.003)
        assert arcs[0].clockwise == cw
        assert len(found) <= 5


@given(st.lists(st.tuples(coordinate, st.floats(2, 20)), min_size=2, max_size=6))
def test_a_sweep_covers_every_place_the_tool_takes(points: list) -> None:  # type: ignore[type-arg]
    core = np.array([[0, 0], [0.5, 9], [8, 13], [8, 4]], dtype=float)
    path = np.array(points)
    if np.hypot(*np.diff(path, axis=0).T).min() < 1e-3:
        return
    swept = sweep(path, core, 0.4)
    for start, end in itertools.pairwise(path):
        for share in (0.0, 0.37, 1.0):
            placed = grow(shapely.MultiPoint(core + start + share * (end - start)).convex_hull, 0.4)
            assert placed.difference(swept.buffer(0.001)).area < 1e-9


def _random_scene(seed: int, insert: str) -> tuple[Job, object]:
    source = random.Random(seed)
    while True:
        try:
            job = job_for(random_part(source)[0], insert)
            return job, build_scene(job)
        except PartError:
            continue


@pytest.mark.parametrize("insert", everyday(sorted(INSERTS), "55 rhomb"))
@given(seed=st.integers(0, 400))
def test_no_free_position_gouges_and_free_with_blocked_is_everything(insert: str, seed: int) -> None:
    job, scene = _random_scene(seed, insert)
    shape = shape_of(job.tools[0])
    blocked = blocked_by_part(scene.part_both_halves, shape)  # type: ignore[attr-defined]
    line = upper_envelope(blocked, 5.0, scene.profile.back_z)  # type: ignore[attr-defined]
    path = chords(recover(line.points[line.points[:, 1] > -0.5]))
    cut = fold(sweep(path, shape.core, shape.nose_radius))
    over = cut.intersection(scene.part)  # type: ignore[attr-defined]
    assert depth_inside(over, scene.part) < 0.002  # type: ignore[attr-defined]
    reached = covered(line.above(100.0), shape)
    over = reached.intersection(scene.part)  # type: ignore[attr-defined]
    assert depth_inside(over, scene.part) < 0.002  # type: ignore[attr-defined]


@given(seed=st.integers(0, 400))
def test_a_left_hand_tool_is_the_mirror_image(seed: int) -> None:
    job, scene = _random_scene(seed, "55 rhomb")
    right = shape_of(job.tools[1])
    left = shape_of(job.tools[1].changed(hand="left"))
    part = scene.part_both_halves  # type: ignore[attr-defined]
    turned = shapely.transform(part, lambda p: p * [-1, 1])
    a = blocked_by_part(part, right)
    b = shapely.transform(blocked_by_part(turned, left), lambda p: p * [-1, 1])
    assert a.symmetric_difference(b).area < 1e-4 * a.area
    assert left.tip == (-right.tip[0], right.tip[1])


def test_the_true_shape_has_the_inscribed_circle_and_the_angle_of_its_insert(spear: Job) -> None:
    for tool, angle in ((spear.tools[0], 80), (spear.tools[1], 55)):
        shape = shape_of(tool)
        edges = np.roll(shape.core, -1, axis=0) - shape.core
        one, other = edges[0], -edges[-1]
        cosine = one @ other / np.linalg.norm(one) / np.linalg.norm(other)
        assert math.degrees(math.acos(cosine)) == pytest.approx(angle, abs=1e-6)
        centre = shape.core.mean(axis=0)
        inner = shapely.Point(centre).distance(shapely.LinearRing(shape.core)) + shape.nose_radius
        assert inner == pytest.approx(tool.insert.ic_mm / 2, abs=1e-6)  # type: ignore[union-attr]
        low = shapely.get_coordinates(shape.cutting).min(axis=0)
        assert low == pytest.approx(shape.tip, abs=3e-4)


def test_pappus_gives_the_volume_of_a_cylinder() -> None:
    assert rotated_volume(shapely.box(0, 0, 10, 5)) == pytest.approx(math.pi * 25 * 10)


def test_gouge_depth_of_grooves_and_of_lost_corners() -> None:
    base = shapely.box(-20, 0, 0, 10)
    groove = shapely.box(-12, 9.7, -8, 11)
    assert depth_inside(groove, base) == pytest.approx(0.3)
    corner = shapely.Polygon([(0.1, 10.1), (-0.5, 10.1), (-0.5, 10.0), (0.0, 9.5), (0.1, 9.5)])
    assert depth_inside(corner, base) == pytest.approx(0.5 / math.sqrt(2), abs=1e-6)
    through = shapely.box(-11, -1, -10, 11)
    assert depth_inside(through, base) > 0.4
    assert depth_inside(shapely.box(1, 0, 2, 5), base) == 0


def part_of(seed: int) -> Region:
    """A random part, with a hole through it by every other seed."""
    part, _ = random_part(random.Random(seed))
    try:
        region = build_part(part).region
    except PartError:  # it crosses itself
        reject()
    return region.difference(shapely.box(-1e3, 0.0, 1e3, 2.0)) if seed % 2 else region


@given(st.integers(0, 10_000), st.lists(st.floats(-60.0, 5.0), min_size=1, max_size=6))
def test_crossings_are_where_a_line_meets_the_metal(seed: int, places: list[float]) -> None:
    """Against the library's own cut of the same line: the same ends, and the same length of metal."""
    region = part_of(seed)
    if min(abs(z - corner) for z in places for corner in shapely.get_coordinates(region)[:, 0]) < 1e-6:
        return  # a line along a face meets it in a point or all along it
    index, radii, outward = crossings(region, np.array(places))
    for number, z in enumerate(places):
        line = shapely.intersection(region, shapely.LineString([(z, -1.0), (z, 1e4)]))
        here, ends = index == number, np.where(outward, 1.0, -1.0)
        assert float((radii * ends)[here].sum()) == pytest.approx(line.length, abs=1e-9)
        if line.length > 0:
            assert float(radii[here].max()) == pytest.approx(line.bounds[3], abs=1e-9)
