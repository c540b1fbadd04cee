"""The upper envelope of a region: how far down a tool can go that only comes from above."""

from dataclasses import dataclass

import numpy as np

from toreuma.core.geometry.elements import Line, Point, Points
from toreuma.core.geometry.region import Region, box, region_from_points, rings

__all__ = ["Envelope", "upper_envelope"]

FLOOR = -1e3
TOUCH_MM = 2e-6


@dataclass(frozen=True, eq=False)
class Envelope:
    """The top of what is blocked, as a polyline from large z to small z; vertical steps allowed.

    ``points`` has shape (n, 2), z not rising.
    """

    points: Points

    def below(self, depth: float = FLOOR) -> Region:
        """Everything under the envelope, down to ``depth``."""
        z = self.points[:, 0]
        feet = np.array([[z[-1], depth], [z[0], depth]])
        return region_from_points(np.vstack([self.points, feet]))

    def above(self, height: float) -> Region:
        """Everything over the envelope, up to ``height``: the free positions."""
        z = self.points[:, 0]
        return box(z[-1], FLOOR, z[0], height).difference(self.below(FLOOR - 1))

    def height(self, z: float) -> float:
        """The highest blocked r at ``z``."""
        inside = self._crossings(z)
        return max(inside) if inside else FLOOR

    def _crossings(self, z: float) -> list[float]:
        (z0, r0), (z1, r1) = self.points[:-1].T, self.points[1:].T
        hit = (z0 >= z) & (z1 <= z)
        share = np.divide(z0 - z, z0 - z1, out=np.zeros_like(z0), where=z0 > z1)
        at = r0 + share * (r1 - r0)
        return [*at[hit].tolist(), *r1[hit & (z0 == z1)].tolist()]

    def highest(self, z_a: float, z_b: float) -> float:
        """The highest blocked r between two places."""
        low, high = min(z_a, z_b), max(z_a, z_b)
        inside = self.points[(self.points[:, 0] >= low) & (self.points[:, 0] <= high), 1]
        return max(float(inside.max(initial=FLOOR)), self.height(low), self.height(high))

    def clears(self, start: Point, end: Point) -> bool:
        """A straight move between two places stays free, tried at closely spaced places; touching a wall is free."""
        line = Line(start, end)
        places = (line.at(i / 32) for i in range(33))
        return all(min(self.height(z - TOUCH_MM), self.height(z + TOUCH_MM)) <= r + TOUCH_MM for z, r in places)

    def with_levels(self, levels: Points) -> "Envelope":
        """The same line with a point added wherever it crosses one of the levels."""
        start, end = self.points[:-1], self.points[1:]
        low, high = np.minimum(start[:, 1], end[:, 1]), np.maximum(start[:, 1], end[:, 1])
        edge, level = np.nonzero((low[:, None] < levels - 1e-9) & (high[:, None] > levels + 1e-9))
        share = (levels[level] - start[edge, 1]) / (end[edge, 1] - start[edge, 1])
        extra = np.column_stack([start[edge, 0] + share * (end[edge, 0] - start[edge, 0]), levels[level]])
        place = np.concatenate([np.arange(len(self.points), dtype=float), edge + share])
        return Envelope(np.vstack([self.points, extra])[np.argsort(place, kind="stable")])


def upper_envelope(blocked: Region, z_from: float, z_to: float, least_r: float = FLOOR) -> Envelope:
    """The upper envelope of a region between ``z_from`` and ``z_to`` (``z_from`` > ``z_to``).

    Edges that lie below ``least_r`` as a whole are known not to be the top anywhere and left out.

    Between two neighbouring vertex places the top is one edge, because edges of a region do not cross; so the
    edge that is highest in the middle of each slab is the top of the slab.
    """
    outlines = rings(blocked)
    if not outlines:
        return Envelope(np.array([[z_from, FLOOR], [z_to, FLOOR]]))
    start = np.concatenate([ring[:-1] for ring in outlines])
    end = np.concatenate([ring[1:] for ring in outlines])
    leaning = start[:, 0] > end[:, 0]  # shapely's outer rings may run either way: keep both, ordered
    left, right = np.where(leaning[:, None], end, start), np.where(leaning[:, None], start, end)
    wide = (right[:, 0] - left[:, 0] > 1e-12) & (np.maximum(left[:, 1], right[:, 1]) > least_r)
    left, right = left[wide], right[wide]
    marks = np.unique(np.concatenate([left[:, 0], right[:, 0], [z_from, z_to]]))
    marks = marks[(marks >= z_to) & (marks <= z_from)]
    marks = marks[np.concatenate([[True], np.diff(marks) > 1e-9])]
    middle = (marks[:-1] + marks[1:]) / 2
    slope = (right[:, 1] - left[:, 1]) / (right[:, 0] - left[:, 0])
    points: list[tuple[float, float]] = []
    for first in range(0, len(middle), 256):
        chunk = slice(first, first + 256)
        mid = middle[chunk, None]
        over = (left[:, 0] <= mid) & (right[:, 0] >= mid)
        heights = np.where(over, left[:, 1] + slope * (mid - left[:, 0]), -np.inf)
        top = heights.argmax(axis=1)
        open_slab = ~np.isfinite(heights[np.arange(len(top)), top])
        for index, edge in enumerate(top):
            z0, z1 = marks[first + index], marks[first + index + 1]
            if open_slab[index]:
                points += [(z0, FLOOR), (z1, FLOOR)]
            else:
                base = left[edge]
                points += [(z0, base[1] + slope[edge] * (z0 - base[0])), (z1, base[1] + slope[edge] * (z1 - base[0]))]
    return Envelope(_tidy(np.array(points[::-1])))


def _tidy(points: Points) -> Points:
    """Without repeated points."""
    keep = np.concatenate([[True], np.any(np.abs(np.diff(points, axis=0)) > 1e-9, axis=1)])
    return np.asarray(points[keep])
