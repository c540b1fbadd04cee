"""Minkowski sums with convex cores, and sweeps of them along paths.

The sum of a region with a convex core is the union of the region, shifted by one point of the core, and of the
convex hulls of each boundary edge summed with the core. Growing the result by a disc turns the sharp core into
a rounded one (Minkowski sums are associative).
"""

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import EMPTY, Region, rings
from toreuma.core.geometry.shape import grow

__all__ = ["hulls", "sum_with", "sweep"]


def sum_with(region: Region, core: Points, within: Region | None = None) -> Region:
    """Region plus convex core, both in mm; ``core`` has shape (m, 2). What lies outside the bounds of ``within`` may be
    left out."""
    outlines = rings(region)
    if not outlines:
        return EMPTY
    edges = np.concatenate([np.stack([ring[:-1], ring[1:]], axis=1) for ring in outlines])
    shifted = shapely.transform(region, lambda points: points + core[0])
    if len(core) == 1:
        return shifted
    summed = hulls(edges, core)
    if within is not None:
        summed = summed[shapely.intersects(shapely.envelope(summed), within.envelope)]
    return shapely.union_all(np.append(summed, shifted))


def sweep(points: Points, core: Points, nose_radius: float, chord_mm: float = 0.0002) -> Region:
    """What a rounded core covers when its nose centre runs along a polyline, shape (n, 2)."""
    if len(points) == 1:
        points = np.vstack([points, points])
    edges = np.stack([points[:-1], points[1:]], axis=1)
    covered = shapely.union_all(hulls(edges, core))
    return grow(covered, nose_radius, chord_mm)


def hulls(edges: Points, core: Points) -> "np.ndarray[tuple[int], np.dtype[np.object_]]":
    """Convex hulls of each edge summed with the core. ``edges`` has shape (n, 2, 2)."""
    spread = (edges[:, :, None, :] + core[None, None, :, :]).reshape(len(edges), -1, 2)
    hulls = shapely.convex_hull(shapely.linestrings(spread))  # a line through the points has the same hull
    return np.asarray(hulls, dtype=object)
