"""Tools on the axis: where the metal begins for them, and how deep the finished part lets them go."""

import itertools

import numpy as np
import shapely
import shapely.affinity

from toreuma.core.geometry.elements import Line, Points
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.work import Work

__all__ = ["before_metal", "deepest_z", "metal_front", "swept", "touch_z"]

ALONGSIDE_MM, SAMPLED_MM = 0.02, 0.5
"""A wall as wide as the tool is passed along; how finely what it meets is looked at."""

FACED_MM, BEFORE_FACED_MM = 0.02, 0.5
"""Metal that stands out no more has been faced: the point comes so near to it at a rapid."""

CONSISTENT_MM2, DEPTH_MM = 1e-7, 1e-4
"""Smaller overlaps with the part come from rounding; how exactly the depth is sought."""


def before_metal(start_z: float) -> float:
    """Where a rapid ends in front of metal that begins at ``start_z``."""
    return start_z + (BEFORE_FACED_MM if start_z <= FACED_MM else APPROACH_MM)


def metal_front(work: Work, r_mm: float) -> float | None:
    """The foremost Z of the stock within a radius of the axis; None where there is no metal."""
    met = work.stock.intersection(box(-1e5, 0, 1e5, r_mm))
    return None if met.is_empty else float(met.bounds[2])


def touch_z(work: Work) -> float | None:
    """The Z of the point at which the tool, coming in along the axis, first touches metal; None where it never does."""
    pieces = (work.shape.core, *work.shape.ahead)
    widest = max(float(np.abs(piece[:, 1]).max()) for piece in pieces)
    met = work.stock.intersection(box(-1e5, 0, 1e5, widest - ALONGSIDE_MM))
    if met.is_empty:
        return None
    points = shapely.get_coordinates(shapely.segmentize(met, SAMPLED_MM))
    front = np.min([_front_of(piece, points[:, 1]) for piece in pieces], axis=0)
    return float(np.max(points[:, 0] - front))


def _front_of(piece: Points, r: Points) -> Points:
    """How far behind the point a convex piece of a tool begins at each radius; without end where it has nothing."""
    ring = np.vstack([piece, piece[:1]])
    found = np.full(len(r), np.inf)
    for (z0, r0), (z1, r1) in itertools.pairwise(ring):
        low, high = sorted((r0, r1))
        on = (r >= low - 1e-9) & (r <= high + 1e-9)
        share = (r[on] - r0) / (r1 - r0) if high - low > 1e-9 else np.zeros(int(on.sum()))
        found[on] = np.minimum(found[on], z0 + share * (z1 - z0) if high - low > 1e-9 else min(z0, z1))
    return found


def deepest_z(work: Work, start_z: float, lowest_z: float) -> float:
    """The lowest Z of the point at which the tool does not cut into the finished part; at least ``lowest_z``."""
    if not _gouges(work, start_z, lowest_z):
        return lowest_z
    high, low = min(start_z, 0.0), lowest_z
    while high - low > DEPTH_MM:
        middle = (high + low) / 2
        high, low = (high, middle) if _gouges(work, start_z, middle) else (middle, low)
    return high


def swept(work: Work, from_z: float, to_z: float) -> Region:
    """What the drill passes over on its way, upper half."""
    shape = work.shape
    way = Line((from_z, 0.0), (to_z, 0.0)).points(0.01)
    pieces = [sweep(way, piece, 0.0) for piece in (shape.core, *shape.ahead)]
    return union(pieces).intersection(box(-1e5, 0, 1e5, 1e4))


def _gouges(work: Work, start: float, end: float) -> bool:
    at_end = shapely.affinity.translate(work.shape.cutting, end, 0.0).intersection(box(-1e5, 0, 1e5, 1e4))
    behind = box(end, 0.0, start, 1e-6)
    return bool(union([at_end, behind]).intersection(work.scene.part).area > CONSISTENT_MM2)
