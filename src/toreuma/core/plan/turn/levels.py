"""Metal divided into passes: straight cuts at even depths from shoulder to shoulder, clipped by reach and stock."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.region import Region
from toreuma.core.plan.ground.path import PULL_OUT_MM
from toreuma.core.plan.ground.result import OperationFault

__all__ = ["SAME_MM", "SLIVER_MM", "LevelCut", "Metal", "level_cuts", "shoulder_steps"]

SLIVER_MM = 0.02
"""Stock thinner than this above the contour is not worth a pass."""

WORTH_MM, WORTH_MM2 = 0.8, 0.4
"""Cuts shorter than this, of a smaller area, are left to finishing: it meets as much in any inner corner."""

NEAR_MM = 1.0
"""How far apart along Z two cuts may be for the upper one to clear the way of the lower one."""

JOIN_MM = 3.0
"""Cuts closer together than this are made in one feed."""

SAME_MM = 1e-6

BEFORE_MM = 0.4
"""A pass begins so far in front of the metal: it comes there at a rapid."""

SQUARE_MM, LEFT_ON_WALL_MM = 0.01, 0.1
"""A wall is square where it lies so close to a plane; an edge that leaves no more on it need not follow it up."""

VARIES, LEAST_VARIED = 0.15, 1.2
"""How much deeper and shallower than even the passes are by turns; metal thinner than so many passes is not varied."""

FLAT_MM2 = 1e-9
"""Product of the rises on both sides of a point at or below which the contour turns or runs level there."""


@dataclass(frozen=True, kw_only=True)
class LevelCut:
    """One pass of the nose centre at ``level``: from ``start_z`` to ``end_z``, then ``climb`` along the wall.

    ``entry`` is the way down the wall behind, empty where the tool comes in through the air; ``above`` is the
    level before; at ``meets_z`` the nose comes into the metal, at ``leaves_z`` out of it.
    """

    level: float
    above: float
    start_z: float
    end_z: float
    entry: Points
    climb: Points
    meets_z: float
    leaves_z: float

    @property
    def touched_mm(self) -> float:
        return self.meets_z - self.leaves_z

    @property
    def begins_free(self) -> bool:
        """The tool comes down to its level in front of the metal."""
        return len(self.entry) == 0 and self.start_z - self.meets_z > BEFORE_MM / 2

    @property
    def worth(self) -> bool:
        return self.touched_mm >= WORTH_MM or self.touched_mm * (self.above - self.level) >= WORTH_MM2

    @property
    def stretch(self) -> tuple[float, float]:
        """Everything along Z that the cut passes over."""
        z = [self.start_z, self.end_z, *self.entry[:, 0], *self.climb[:, 0]]
        return min(z), max(z)


@dataclass(frozen=True)
class Metal:
    """The stock, the nose centres from which an insert meets what is worth it, and the nose radius, mm; ``leans`` is
    how far the edge that leads stays behind a square wall, in a unit of its height."""

    stock: Region
    touched: Region
    nose: float
    leans: float = math.inf


MOST_PASSES = 2_000


def level_cuts(
    envelope: Envelope, metal: Metal, top: float, floor: float, limit: float, varied: bool = False
) -> list[LevelCut]:
    """Passes from the top down, front before back. ``floor`` is the nose height with the tip on the axis."""
    points = envelope.points.copy()
    points[:, 1] = np.maximum(points[:, 1], floor)
    steps: list[_Step] = []
    stack = [(0, len(points) - 1, top, -1)]
    while stack:
        first, last, height, parent = stack.pop()
        key = _next_shoulder(points[first : last + 1], height)
        if key is None:
            continue
        levels = _levels(height, key, limit, varied)
        made = [
            cut
            for above, level in pairwise(levels)
            for cut in _at_level(Envelope(points), first, last, float(level), float(above), metal)
        ]
        steps.append(_Step(made, parent))
        spans = _spans(points[:, 1] < key - SAME_MM, first, last)
        stack.extend((a, b, key, len(steps) - 1) for a, b in reversed(spans))
    return [cut for step in _worthwhile(steps) for cut in step.cuts]


def _levels(height: float, key: float, limit: float, varied: bool) -> Points:
    """Heights of the passes: evenly spaced, or by turns a little more and a little less, so that the notch in the
    edge moves from pass to pass."""
    count = max(1, math.ceil((height - key) / limit - 1e-6))
    if count > MOST_PASSES:
        what = f"it would take more than {MOST_PASSES} passes"
        raise OperationFault("moves.many", what, "the depth of cut is far too small: look at the tool")
    if not varied or height - key < LEAST_VARIED * limit:
        return np.linspace(height, key, count + 1)
    count = max(2, math.ceil((height - key) / limit * (1 + VARIES) - 1e-6))
    weights = 1 + VARIES * np.array([1.0 if i % 2 == 0 else -1.0 for i in range(count)])
    return height - (height - key) * np.concatenate([[0.0], np.cumsum(weights) / weights.sum()])


def shoulder_steps(envelope: Envelope, top: float, floor: float) -> tuple[tuple[float, float], ...]:
    """Height and length of the metal from shoulder to shoulder, as `level_cuts` divides it, mm."""
    points = envelope.points.copy()
    points[:, 1] = np.maximum(points[:, 1], floor)
    found, stack = [], [(0, len(points) - 1, top)]
    while stack:
        first, last, height = stack.pop()
        key = _next_shoulder(points[first : last + 1], height)
        if key is None:
            continue
        found.append((float(height - key), float(abs(points[first, 0] - points[last, 0]))))
        stack.extend((a, b, key) for a, b in _spans(points[:, 1] < key - SAME_MM, first, last))
    return tuple(found)


@dataclass
class _Step:
    """The cuts of one stretch down to one shoulder; ``parent`` is the step above it.

    ``below`` are the places along Z where a step underneath is cut, for which this one must clear the way.
    """

    cuts: list[LevelCut]
    parent: int
    below: list[tuple[float, float]] = field(default_factory=list)


def _worthwhile(steps: list[_Step]) -> list[_Step]:
    """Steps without the cuts that are too short to be worth it and clear the way for nothing."""
    for step in reversed(steps):  # a step stands behind its parent, so needs travel upward
        step.cuts = [cut for cut in step.cuts if cut.worth or _over(cut, step)]
        if step.parent >= 0:
            steps[step.parent].below += step.below + [cut.stretch for cut in step.cuts]
    return steps


def _over(cut: LevelCut, step: _Step) -> bool:
    """A short cut stands over a cut that is made: one below it in its own step, or in a step underneath."""
    longer = [c.stretch for c in step.cuts if c.level < cut.level and c.worth]
    low, high = cut.stretch
    return any(low < z1 + NEAR_MM and z0 - NEAR_MM < high for z0, z1 in [*step.below, *longer])


def _next_shoulder(run: Points, height: float) -> float | None:
    """The highest flat, peak or bottom of the contour below ``height``; None when there is none."""
    r = run[:, 1]
    inner = r < height - SLIVER_MM
    if not inner.any():
        return None
    rising, falling = np.diff(r, prepend=r[0]), np.diff(r, append=r[-1])
    turns = (rising * falling <= FLAT_MM2) & inner
    return float(r[turns].max()) if turns.any() else float(r[inner].min())


def _spans(low: "np.ndarray[tuple[int], np.dtype[np.bool_]]", first: int, last: int) -> list[tuple[int, int]]:
    """Runs of True between two indices, each with one more point on either side, as (first, last)."""
    inside = np.zeros(len(low) + 2, dtype=int)
    inside[first + 1 : last + 2] = low[first : last + 1]
    edges = np.flatnonzero(np.diff(inside))
    return [(max(int(a) - 1, first), min(int(b), last)) for a, b in edges.reshape(-1, 2)]


def _at_level(
    envelope: Envelope, first: int, last: int, level: float, above: float, metal: Metal
) -> Iterator[LevelCut]:
    """The passes at one level inside one stretch of the contour."""
    marked = Envelope(envelope.points[first : last + 1]).with_levels(np.array([level, above])).points
    low = marked[:, 1] <= level + SAME_MM
    edges = np.flatnonzero(np.diff(np.concatenate([[0], low.astype(int), [0]])))
    for a, b in edges.reshape(-1, 2):
        right, left = int(a), int(b) - 1
        z_right, z_left = float(marked[right, 0]), float(marked[left, 0])
        open_right = right == 0 and first == 0
        for e_right, e_left in _touching(metal.touched, z_right, z_left, level):
            start = min(z_right, e_right + BEFORE_MM)
            walled = not open_right and start > z_right - SAME_MM
            cleared = _clears_at(metal, e_left, e_right, level, above)
            near = PULL_OUT_MM if last == len(envelope.points) - 1 and left == len(marked) - 1 else JOIN_MM
            end = z_left if cleared - z_left < near else min(cleared, e_right) - PULL_OUT_MM
            climb = _climb(marked, left, above) if end == z_left else marked[:0]
            if len(climb) and np.ptp(climb[:, 0]) < SQUARE_MM and metal.leans * (above - level) <= LEFT_ON_WALL_MM:
                climb = marked[:0]  # the edge has cleaned the wall by itself
            entry = _descent(marked, right, above) if walled else marked[:0]
            yield LevelCut(
                level=level,
                above=above,
                start_z=start,
                end_z=end,
                entry=entry,
                climb=climb,
                meets_z=e_right,
                leaves_z=e_left,
            )


def _clears_at(metal: Metal, low: float, high: float, level: float, above: float) -> float:
    """Where along Z the lowest point of the nose has passed all metal between two levels; ``low`` and ``high`` are
    where it touches any."""
    nose = metal.nose
    band = shapely.clip_by_rect(metal.stock, low - SAME_MM, level - nose, high + nose, above - nose)
    return float(band.bounds[0]) if not band.is_empty else low


def _touching(touched: Region, z_right: float, z_left: float, level: float) -> list[tuple[float, float]]:
    """Where a nose running along a level meets metal: (right, left) pairs, front first, near ones joined."""
    if z_right - z_left < 1e-4:
        return []
    line = shapely.LineString([(z_left, level), (z_right, level)])
    met = shapely.intersection(line, touched)
    spans = sorted((part.bounds[0], part.bounds[2]) for part in shapely.get_parts(met) if part.length > 0.05)
    joined: list[list[float]] = []
    for low, high in spans:
        if joined and low - joined[-1][1] < JOIN_MM:
            joined[-1][1] = high
        else:
            joined.append([low, high])
    return [(high, low) for low, high in reversed(joined)]


def _climb(marked: Points, left: int, above: float) -> Points:
    """The contour from the end of a pass up to the level before, or to the next peak."""
    end = left
    while end + 1 < len(marked) and marked[end + 1, 1] > marked[end, 1] - 1e-12 and marked[end, 1] < above - SAME_MM:
        end += 1
    return np.asarray(marked[left : end + 1])


def _descent(marked: Points, right: int, above: float) -> Points:
    """The contour from the level before down to the start of a pass."""
    start = right
    while start > 0 and marked[start - 1, 1] > marked[start, 1] - 1e-12 and marked[start, 1] < above - SAME_MM:
        start -= 1
    return np.asarray(marked[start : right + 1])
