"""Regions of the half plane, as shapely polygons.

Every solid that turns is drawn with its lower half too, as far as a tool can meet it there: what is below the
axis is as real for a tool that runs past the centre as what is above.
"""

from collections.abc import Iterable, Sequence
from typing import Any, TypeAlias

import numpy as np
import shapely
from shapely.affinity import scale
from shapely.geometry.base import BaseGeometry

from toreuma.core.geometry.elements import Points

__all__ = [
    "EMPTY",
    "Region",
    "about",
    "box",
    "depth_inside",
    "fold",
    "mirrored_at_axis",
    "polygons",
    "region_from_points",
    "rings",
    "rotated_volume",
    "thickness",
    "tidy",
    "union",
    "without_film",
]

Region: TypeAlias = BaseGeometry
EMPTY: Region = shapely.Polygon()
SLIVER_MM2 = 1e-9
GRID_MM = 1e-6
SURE_MM = 0.0005
"""How closely the farthest place is found."""

DENSE_MM, MOST_EDGES, LIKELY = 0.05, 20_000, 100


def region_from_points(points: Points | Sequence[Sequence[float]]) -> Region:
    """The region inside a closed polyline, shape (n, 2)."""
    return _valid(shapely.Polygon(points))


def box(z0: float, r0: float, z1: float, r1: float) -> Region:
    """The rectangle between two corners; empty when it has no area."""
    if z1 - z0 <= 0 or r1 - r0 <= 0:
        return EMPTY
    return shapely.box(z0, r0, z1, r1)


def polygons(region: Region) -> list[Any]:
    """The polygons of a region, without slivers."""
    parts = shapely.get_parts(region)
    return [part for part in parts if part.geom_type == "Polygon" and part.area > SLIVER_MM2]


def rings(region: Region) -> list[Points]:
    """Outer and inner rings of all polygons, each closed, shape (n, 2)."""
    found = []
    for polygon in polygons(region):
        found.append(shapely.get_coordinates(polygon.exterior))
        found.extend(shapely.get_coordinates(hole) for hole in polygon.interiors)
    return found


def union(regions: Iterable[Region]) -> Region:
    some = [region for region in regions if not region.is_empty]
    return some[0] if len(some) == 1 else shapely.union_all(some)


def fold(region: Region) -> Region:
    """What a swept region cuts from turning stock: the lower half counts above the axis as well."""
    low = shapely.get_coordinates(region)[:, 1].min(initial=0.0)
    if low >= 0:
        return region
    flipped = scale(region, 1, -1, origin=(0, 0))
    return shapely.clip_by_rect(shapely.union(region, flipped), -1e6, 0, 1e6, 1e6)


def about(region: Region, by_mm: float) -> Region:
    """The box round a region, so much larger on every side."""
    z0, r0, z1, r1 = region.bounds
    return box(z0 - by_mm, r0 - by_mm, z1 + by_mm, r1 + by_mm)


def mirrored_at_axis(region: Region, depth_mm: float) -> Region:
    """The region with its mirror image below the axis, down to ``depth_mm``."""
    lower = shapely.clip_by_rect(scale(region, 1, -1, origin=(0, 0)), -1e6, -depth_mm, 1e6, 0)
    return _valid(shapely.union(region, lower))


def tidy(region: Region, tolerance_mm: float = 1e-6) -> Region:
    """Drop points that lie on a straight line and pieces without area."""
    return union(polygons(region.simplify(tolerance_mm)))


def without_film(region: Region, film_mm: float) -> Region:
    """Without layers thinner than twice a film: what the resolution of a program leaves everywhere.

    Corners stay sharp. Slivers whose sides are all but parallel make the sharp corner of a shrunken outline run away;
    where a number is lost on the way, corners are rounded by the film instead.
    """
    with np.errstate(all="ignore"):
        opened = region.buffer(-film_mm, join_style="mitre").buffer(film_mm, join_style="mitre")
        if not np.isfinite(shapely.get_coordinates(opened)).all():
            opened = region.buffer(-film_mm).buffer(film_mm)
    return shapely.union_all(polygons(_met(opened, region)))


def _met(a: Region, b: Region) -> Region:
    """What two regions share; where edges all but lie on each other and no answer comes, on a grid of a nanometre."""
    try:
        return a.intersection(b)
    except shapely.errors.GEOSException:
        return shapely.intersection(shapely.make_valid(a), shapely.make_valid(b), grid_size=GRID_MM)


def rotated_volume(region: Region) -> float:
    """Volume in mm3 of the region spun about the axis (Pappus: 2 pi times area times centroid radius)."""
    return float(2 * np.pi * region.area * region.centroid.y) if region.area > 0 else 0.0


def thickness(region: Region, base: Region) -> float:
    """How far, mm, ``region`` stands out from the surface of ``base`` at most.

    Edges are looked at between their ends too: what fills a groove stands farthest out in its middle.
    """
    if region.is_empty or base.is_empty:
        return 0.0
    return _farthest(region, base)


def depth_inside(region: Region, base: Region) -> float:
    """How deep, mm, cutting ``region`` away reaches below the surface of ``base``; the axis is no surface.

    A groove is as deep as its bottom lies below the surface. A corner cut off has all its own corners on the
    surface: it is as deep as the lost corner stands off from what remains. The larger of both counts.
    """
    if region.is_empty or base.is_empty:
        return 0.0
    lost = shapely.union_all(polygons(_met(region, base)))
    if lost.is_empty:
        return 0.0
    mirror = scale(base, 1, -1, origin=(0, 0))
    surface = shapely.boundary(shapely.union(base, mirror))
    left = base.difference(lost)
    below = _farthest(lost, surface)
    return max(below, _farthest(lost, shapely.union(left, mirror))) if not left.is_empty else below


def _farthest(region: Region, other: Region) -> float:
    """The largest distance, mm, of a region's edge from something else, to `SURE_MM`.

    It is looked at closely first. A distance grows by no more than the way gone: between two places it is below the
    mean of theirs and half the way between them. Where that could still be a larger one, edges are halved further.
    """
    shapely.prepare(other)
    a, b = _edges(shapely.segmentize(region, max(DENSE_MM, region.length / MOST_EDGES)))
    if not len(a):
        return 0.0
    far_a = np.asarray(shapely.distance(shapely.points(a), other))
    far_b = _at_ends(far_a, a, b)
    best = float(max(far_a.max(), far_b.max()))
    while True:
        above = (far_a + far_b + np.hypot(*(b - a).T)) / 2
        open_ = np.flatnonzero(above > best + SURE_MM)
        if not len(open_):
            return best
        if len(open_) > LIKELY:
            open_ = open_[np.argsort(-np.maximum(far_a, far_b)[open_])[:LIKELY]]
        a, b, far_a, far_b = a[open_], b[open_], far_a[open_], far_b[open_]
        middle = (a + b) / 2
        far = np.asarray(shapely.distance(shapely.points(middle), other))
        best = max(best, float(far.max()))
        a, b = np.vstack([a, middle]), np.vstack([middle, b])
        far_a, far_b = np.concatenate([far_a, far]), np.concatenate([far, far_b])


def _at_ends(far: Points, begin: Points, end: Points) -> Points:
    """What was found where edges begin, (n,), as it is where they end: the next one's, of a ring's last its first."""
    found = np.roll(far, -1)
    last = np.flatnonzero((np.roll(begin, -1, axis=0) != end).any(axis=1))
    first = np.concatenate([[0], last[:-1] + 1])
    found[last] = far[first] if len(last) else found[last]
    return found


def _edges(region: Region) -> tuple[Points, Points]:
    """Begin and end of every edge, (n, 2); of slivers, which have none to speak of, only the places."""
    found = rings(region)
    if not found:
        places = shapely.get_coordinates(region)
        return places, places
    return np.vstack([ring[:-1] for ring in found]), np.vstack([ring[1:] for ring in found])


def _valid(region: Region) -> Region:
    return region if region.is_valid else shapely.make_valid(region)
