"""Metal on a raster: cells of the half section, and convex tools that pass over them."""

import math

import numpy as np
import numpy.typing as npt

__all__ = ["Cells", "Points", "Raster", "Window", "hull", "round_ways"]

Cells = npt.NDArray[np.bool_]
Points = npt.NDArray[np.float64]
Window = tuple[slice, slice]


class Raster:
    """A grid of square cells over (z, r); ``metal`` is true where there is some. Row n is at radius (n + 0.5) cells."""

    def __init__(self, z0: float, z1: float, r1: float, cell: float) -> None:
        self.cell, self.z0 = cell, z0
        self.shape = (math.ceil(r1 / cell), math.ceil((z1 - z0) / cell))
        self.metal: Cells = np.zeros(self.shape, bool)

    def empty(self) -> Cells:
        return np.zeros(self.shape, bool)

    def inside(self, ring: Points) -> Cells:
        """Cells whose middle lies in a closed outline: crossings counted column by column."""
        found = self.empty()
        z, r = ring[:, 0], ring[:, 1]
        z2, r2 = np.roll(z, -1), np.roll(r, -1)
        rows = (np.arange(self.shape[0]) + 0.5) * self.cell
        first = max(0, int((z.min() - self.z0) / self.cell) - 1)
        last = min(self.shape[1], int((z.max() - self.z0) / self.cell) + 2)
        for column in range(first, last):
            at = self.z0 + (column + 0.5) * self.cell
            hit = (z > at) != (z2 > at)
            if hit.any():
                crossed = np.sort(r[hit] + (at - z[hit]) / (z2[hit] - z[hit]) * (r2[hit] - r[hit]))
                found[:, column] = np.searchsorted(crossed, rows) % 2 == 1
        return found

    def window(self, core: Points, radius: float, step: int = 1) -> Window:
        """The part of the raster within ``radius`` of an outline; what lies below the axis counts above it. Only
        every ``step``-th cell is looked at."""
        low, high = core.min(axis=0) - radius, core.max(axis=0) + radius
        r_low = 0.0 if low[1] < 0 else low[1]
        r_high = max(high[1], -low[1])
        rows = slice(max(0, int(r_low / self.cell) - 1), min(self.shape[0], int(r_high / self.cell) + 2), step)
        columns = slice(max(0, int((low[0] - self.z0) / self.cell) - 1),
                        min(self.shape[1], int((high[0] - self.z0) / self.cell) + 2), step)  # fmt: skip
        return rows, columns

    def within(self, window: Window, among: Cells, core: Points, reach: float) -> Cells:
        """Those of some cells of a window that lie within ``reach`` of a convex outline; below zero: so deep in it."""
        found = np.zeros(among.shape, bool)
        row, column = np.nonzero(among)
        if not len(row):
            return found
        rows, columns = window
        r = (rows.start + row * rows.step + 0.5) * self.cell
        z = self.z0 + (columns.start + column * columns.step + 0.5) * self.cell
        near = _near(z, r, core, reach)
        if core[:, 1].min() - max(reach, 0.0) < 0:
            near |= _near(z, -r, core, reach)
        found[row, column] = near
        return found


def _near(z: Points, r: Points, core: Points, reach: float) -> Cells:
    """Within ``reach`` of a convex outline that runs to the left; below zero: so deep inside it."""
    a, b = core, np.roll(core, -1, axis=0)
    if len(core) == 1:
        return np.hypot(z - a[0, 0], r - a[0, 1]) <= reach
    deep = np.full(z.shape, -np.inf)
    away = np.full(z.shape, np.inf)
    for (az, ar), (bz, br) in zip(a, b, strict=True):
        dz, dr = bz - az, br - ar
        long = math.hypot(dz, dr)
        if long < 1e-12:
            continue
        side = ((z - az) * dr - (r - ar) * dz) / long
        deep = np.maximum(deep, side)
        if reach > 0:
            share = np.clip(((z - az) * dz + (r - ar) * dr) / long**2, 0, 1)
            away = np.minimum(away, np.hypot(z - az - share * dz, r - ar - share * dr))
    if len(core) == 2:
        return away <= max(reach, 0.0)
    return np.where(deep <= 0, deep, away) <= reach if reach > 0 else deep <= reach


def hull(points: Points) -> Points:
    """The convex outline of some places, to the left (monotone chain)."""
    ordered = sorted({(round(float(a), 9), round(float(b), 9)) for a, b in points})
    if len(ordered) < 3:
        return np.array(ordered)

    def half(row: list[tuple[float, float]]) -> list[tuple[float, float]]:
        kept: list[tuple[float, float]] = []
        for place in row:
            while len(kept) > 1 and _turn(kept[-2], kept[-1], place) <= 0:
                kept.pop()
            kept.append(place)
        return kept[:-1]

    return np.array(half(ordered) + half(ordered[::-1]))


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def round_ways(
    start: tuple[float, float], end: tuple[float, float], middle: tuple[float, float] | None, clockwise: bool,
    chord: float = 0.003,
) -> Points:  # fmt: skip
    """Places along a way."""
    if middle is None:
        return np.array([start, end])
    a, b = (math.atan2(p[1] - middle[1], p[0] - middle[0]) for p in (start, end))
    r = math.dist(start, middle)
    turn = (b - a) % (2 * math.pi)
    if clockwise:
        turn -= 2 * math.pi
    if abs(turn) < 1e-9 or abs(abs(turn) - 2 * math.pi) < 1e-9:
        turn = 0.0
    count = max(2, int(abs(turn) / (2 * math.acos(max(1 - chord / r, -1.0)) or 1)) + 2) if r > chord else 2
    angles = a + turn * np.linspace(0, 1, count)
    places = np.column_stack([middle[0] + r * np.cos(angles), middle[1] + r * np.sin(angles)])
    places[0], places[-1] = start, end
    return places
