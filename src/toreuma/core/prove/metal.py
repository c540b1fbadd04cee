"""The metal in space while driven tools cut it: kept whole, and near the tool as a small block that is quick to cut."""

import math
from copy import copy

import shapely

from toreuma.core.geometry.region import Region, box
from toreuma.core.geometry.solids import Bounds, Solid, block, joined, revolved

__all__ = ["COARSE", "SIMPLE_MM", "Metal", "is_full", "may_meet"]

COARSE = 96
"""Facets of round metal where only contact is looked for."""

SIMPLE_MM = 0.005
"""Round metal need not be finer where it only bounds what is compared."""

AROUND_MM = 12.0
"""How far the block reaches beyond the way it was first cut out for."""


class Metal:
    """Round stock and what driven tools took from it."""

    def __init__(self, stock: Region) -> None:
        self.stock = stock
        self._whole = revolved(stock.simplify(SIMPLE_MM), COARSE)
        self._since: list[Solid] = []
        self._taken: list[Bounds] = []
        self._block = Solid()
        self._bounds: Bounds | None = None

    def copy(self) -> "Metal":
        made = copy(self)
        made._since, made._taken = list(self._since), list(self._taken)
        return made

    def near(self, body: Solid) -> Solid:
        """The metal round a body: all of it that the body could meet."""
        bounds = body.bounding_box()
        if self._bounds is None or not _inside(bounds, self._bounds):
            x0, y0, z0, x1, y1, z1 = bounds
            self._bounds = (x0 - AROUND_MM, y0 - AROUND_MM, z0 - AROUND_MM,
                            x1 + AROUND_MM, y1 + AROUND_MM, z1 + AROUND_MM)  # fmt: skip
            self._block = self.whole() ^ block(self._bounds)
        return self._block

    def take(self, way: Solid) -> None:
        """Take a body away."""
        self._since.append(way)
        self._taken.append(way.bounding_box())
        if self._bounds is not None and _meet(way.bounding_box(), self._bounds):
            self._block = self._block - way

    def is_cut_near(self, bounds: Bounds) -> bool:
        """Whether something was taken away within these bounds."""
        return any(_meet(one, bounds) for one in self._taken)

    def whole(self) -> Solid:
        """All of the metal."""
        if self._since:
            self._whole = self._whole - joined(self._since)
            self._since = []
        return self._whole


def may_meet(solid: Region, bounds: Bounds) -> bool:
    """Whether a body with these bounds could meet a round solid, given as its upper half."""
    return not solid.is_empty and bool(shapely.intersects(solid, _turned_out(bounds)))


def is_full(solid: Region, bounds: Bounds) -> bool:
    """Whether a round solid, given as its upper half, fills a body with these bounds."""
    return bool(shapely.covers(solid, _turned_out(bounds)))


def _turned_out(bounds: Bounds) -> Region:
    """All (z, r) that a body with these bounds can take."""
    x0, y0, z0, x1, y1, z1 = bounds
    nearest = math.hypot(max(x0, -x1, 0.0), max(y0, -y1, 0.0))
    farthest = math.hypot(max(abs(x0), abs(x1)), max(abs(y0), abs(y1)))
    return box(z0, nearest, z1, farthest)


def _inside(bounds: Bounds, around: Bounds) -> bool:
    low = all(a >= b for a, b in zip(bounds[:3], around[:3], strict=True))
    return low and all(a <= b for a, b in zip(bounds[3:], around[3:], strict=True))


def _meet(one: Bounds, other: Bounds) -> bool:
    return all(one[n] <= other[n + 3] and other[n] <= one[n + 3] for n in range(3))
