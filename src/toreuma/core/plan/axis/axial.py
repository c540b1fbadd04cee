"""Tools on the axis: where the metal begins for them, and how deep the finished part lets them go."""

import shapely.affinity

from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.plan.ground.work import Work

__all__ = ["deepest_z", "metal_front", "swept"]

CONSISTENT_MM2, DEPTH_MM = 1e-7, 1e-4
"""Smaller overlaps with the part come from rounding; how exactly the depth is sought."""


def metal_front(work: Work, r_mm: float) -> float | None:
    """The foremost Z of the stock within a radius of the axis; None where there is no metal."""
    met = work.stock.intersection(box(-1e5, 0, 1e5, r_mm))
    return None if met.is_empty else float(met.bounds[2])


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
