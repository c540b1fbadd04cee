"""Passes without what takes nothing: the ones before them have been there already."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.region import Region
from toreuma.core.plan.turn.levels import LevelCut

__all__ = ["that_cut"]

LEAST_MM2 = 0.01
"""Metal of less half section than this is none: the finishing cut takes it with its own."""

MOST = 150
"""More passes than this are not looked at one by one."""

CHORD_MM = 0.005


def that_cut(cuts: Sequence[LevelCut], stock: Region, core: Points, nose: float) -> list[LevelCut]:
    """Passes in their order, each on the stock that those before it leave: none that takes no metal, and no way up a
    wall that takes none. Places are of the nose centre, ``core`` of shape (n, 2)."""
    if len(cuts) > MOST:
        return list(cuts)
    found = []
    for cut in cuts:
        straight = np.vstack([cut.entry, [[cut.start_z, cut.level], [cut.end_z, cut.level]]])
        way, left = _taken(straight, stock, core, nose)
        up, stock = _taken(cut.climb, left, core, nose) if len(cut.climb) > 1 else (0.0, left)
        if way + up < LEAST_MM2:
            continue
        found.append(cut if up >= LEAST_MM2 else replace(cut, climb=cut.climb[:0]))
    return found


def _taken(way: Points, stock: Region, core: Points, nose: float) -> tuple[float, Region]:
    """Area taken along a way, mm2, and what is left."""
    swept = sweep(way, core, nose, CHORD_MM)
    met = shapely.intersection(swept, stock)
    return (float(met.area), shapely.difference(stock, swept)) if met.area > 0 else (0.0, stock)
