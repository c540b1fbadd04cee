"""Roughing toward the chuck, outside and in a bore.

Passes are straight lines clipped by reach and by the stock. The depth from the top down to the next shoulder is
divided evenly, then each stretch below that shoulder on its own, so every step ends exactly at its allowance.
At a wall the tool follows it up to the level before, which leaves no steps; into a pocket it goes down along the
wall behind it, which is as steep as its trailing edge allows.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np
import shapely

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import CHORD_MM, Points
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.minkowski import sum_with
from toreuma.core.geometry.reach import Reach
from toreuma.core.geometry.recover import FIT_MM
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.shape import grow
from toreuma.core.memo import fingerprint
from toreuma.core.model import RoughBore, RoughOd
from toreuma.core.plan.grounds import interruption, proposed, spindle_of
from toreuma.core.plan.numbers import passes
from toreuma.core.plan.result import PLANNING_CHORD_MM, Cuts, Pass
from toreuma.core.plan.stretch import Stretch, reach_of, stretch_of
from toreuma.core.plan.turning import rough_situation
from toreuma.core.plan.work import APPROACH_MM, PULL_OUT_MM, Path, Work
from toreuma.core.propose.proposal import Proposal

__all__ = ["plan_rough"]

Roughing = RoughOd | RoughBore

SLIVER_MM = 0.02
"""Stock thinner than this above the contour is not worth a pass."""

WORTH_MM, WORTH_MM2 = 0.8, 0.4
"""Cuts shorter than this, of a smaller area, are left to finishing: it meets as much in any inner corner."""

NEAR_MM = 1.0
"""How far apart along Z two cuts may be for the upper one to clear the way of the lower one."""

JOIN_MM = 3.0
"""Cuts closer together than this are made in one feed."""

PAST_FINISH_MM = 0.3
"""Roughing runs this much farther past the end than finishing."""

COARSE_MM = 0.002
"""Chords and arcs of roughing hold this where it leaves an allowance much larger than it."""

SAME_MM = 1e-6

FLAT_MM2 = 1e-9
"""Product of the rises on both sides of a point at or below which the contour turns or runs level there."""


@dataclass(frozen=True)
class _Cut:
    """One pass of the nose centre at ``level``: from ``start_z`` to ``end_z``, then ``climb`` along the wall.

    ``entry`` is the way down the wall behind, empty where the tool comes in through the air; ``above`` is the
    level before.
    """

    level: float
    above: float
    start_z: float
    end_z: float
    entry: Points
    climb: Points
    touched_mm: float

    @property
    def worth(self) -> bool:
        return self.touched_mm >= WORTH_MM or self.touched_mm * (self.above - self.level) >= WORTH_MM2

    @property
    def stretch(self) -> tuple[float, float]:
        """Everything along Z that the cut passes over."""
        z = [self.start_z, self.end_z, *self.entry[:, 0], *self.climb[:, 0]]
        return min(z), max(z)


def plan_rough(work: Work, operation: Roughing) -> Cuts:
    """Remove everything the tool reaches above the contour and its allowances."""
    stretch, reach = _reach(work, operation)
    fit = COARSE_MM if _is_coarse(operation) else FIT_MM
    touched = _engagement(work, stretch)
    top = stretch.top
    proposal = _proposal(work, operation, stretch, reach)
    values = {**proposal.numbers, **_left(operation), **interruption(work, proposal)}
    limit = values["ap_max"].number
    cuts = work.memo.get(
        ("cuts", work.tool, reach.envelope.points.tobytes(), fingerprint(work.stock), limit, top),
        lambda: _cuts(reach.envelope, touched, top, _floor(stretch), limit),
    )
    findings = list(stretch.findings)
    if not cuts:
        findings.append(
            Finding(
                "note",
                "rough.nothing",
                "the tool finds nothing to rough here",
                "earlier operations left no stock it can reach",
                operation.id,
            )
        )
    path = Path(work, spindle_of(work, proposal), stretch.frame, stretch.safe)
    drawn = [_write(path, cut, stretch.safe, values["f"].number, reach.envelope, fit) for cut in cuts]
    if cuts:
        path.leave()
    depths = [cut.above - cut.level for cut in cuts]
    values |= passes(depths, values["ap_max"])
    chord = COARSE_MM if _is_coarse(operation) else PLANNING_CHORD_MM
    return Cuts(tuple(path.motions), tuple(drawn), values, tuple(findings), proposal, chord_mm=chord)


def _is_coarse(operation: Roughing) -> bool:
    return min(operation.leave_axial_mm, operation.leave_radial_mm) > 10 * COARSE_MM


def _reach(work: Work, operation: Roughing) -> tuple[Stretch, Reach]:
    chord = COARSE_MM if _is_coarse(operation) else CHORD_MM
    stretch = stretch_of(work, operation, PAST_FINISH_MM, chord)
    return stretch, reach_of(work, stretch, operation.leave_axial_mm, operation.leave_radial_mm, chord)


def _proposal(work: Work, operation: Roughing, stretch: Stretch, reach: Reach) -> Proposal:
    """The numbers, from the steps between shoulders and the piece as it will be."""
    top, nose = stretch.top, stretch.shape.nose_radius
    steps = work.memo.get(
        ("steps", reach.envelope.points.tobytes(), top), lambda: tuple(_steps(reach.envelope, top, _floor(stretch)))
    )
    lowest = top - max((height for height, _ in steps), default=0.0) - nose
    return proposed(work, rough_situation(work, stretch, operation.leave_radial_mm, (top - nose, lowest)), steps)


def _left(operation: Roughing) -> dict[str, Evidence]:
    """What roughing leaves."""
    formula = "about two thirds of the finishing nose radius"
    radial = Evidence(
        "left for finishing", "aX", operation.leave_radial_mm, "mm", measured_on="on radius", formula=formula
    )
    axial = Evidence("left on faces", "aZ", operation.leave_axial_mm, "mm", measured_on="along Z", formula="typed")
    return {"leave_radial": radial, "leave_axial": axial}


def _floor(stretch: Stretch) -> float:
    """The lowest nose centre: with the tip on the axis outside."""
    return stretch.bottom if stretch.is_bore else stretch.shape.nose_radius


def _engagement(work: Work, stretch: Stretch) -> Region:
    """Nose centres at which the insert touches stock worth cutting."""

    def compute() -> Region:
        worth = stretch.stock.buffer(-SLIVER_MM, join_style="mitre")
        return grow(sum_with(worth, -stretch.shape.core), stretch.shape.nose_radius, 0.005)

    return work.memo.get(("engagement", work.tool, fingerprint(stretch.stock)), compute)


def _cuts(envelope: Envelope, touched: Region, top: float, floor: float, limit: float) -> list[_Cut]:
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
        count = max(1, math.ceil((height - key) / limit - 1e-6))
        levels = np.linspace(height, key, count + 1)
        made = [
            cut
            for above, level in pairwise(levels)
            for cut in _level_cuts(Envelope(points), first, last, float(level), float(above), touched)
        ]
        steps.append(_Step(made, parent))
        spans = _spans(points[:, 1] < key - SAME_MM, first, last)
        stack.extend((a, b, key, len(steps) - 1) for a, b in reversed(spans))
    return [cut for step in _worthwhile(steps) for cut in step.cuts]


def _steps(envelope: Envelope, top: float, floor: float) -> Iterator[tuple[float, float]]:
    """Height and length of the metal from shoulder to shoulder, as `_cuts` divides it, mm."""
    points = envelope.points.copy()
    points[:, 1] = np.maximum(points[:, 1], floor)
    stack = [(0, len(points) - 1, top)]
    while stack:
        first, last, height = stack.pop()
        key = _next_shoulder(points[first : last + 1], height)
        if key is None:
            continue
        yield height - key, float(abs(points[first, 0] - points[last, 0]))
        stack.extend((a, b, key) for a, b in _spans(points[:, 1] < key - SAME_MM, first, last))


@dataclass
class _Step:
    """The cuts of one stretch down to one shoulder; ``parent`` is the step above it.

    ``below`` are the places along Z where a step underneath is cut, for which this one must clear the way.
    """

    cuts: list[_Cut]
    parent: int
    below: list[tuple[float, float]] = field(default_factory=list)


def _worthwhile(steps: list[_Step]) -> list[_Step]:
    """Steps without the cuts that are too short to be worth it and clear the way for nothing."""
    for step in reversed(steps):  # a step stands behind its parent, so needs travel upward
        step.cuts = [cut for cut in step.cuts if cut.worth or _over(cut, step)]
        if step.parent >= 0:
            steps[step.parent].below += step.below + [cut.stretch for cut in step.cuts]
    return steps


def _over(cut: _Cut, step: _Step) -> bool:
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


def _level_cuts(
    envelope: Envelope, first: int, last: int, level: float, above: float, touched: Region
) -> Iterator[_Cut]:
    """The passes at one level inside one stretch of the contour."""
    marked = Envelope(envelope.points[first : last + 1]).with_levels(np.array([level, above])).points
    low = marked[:, 1] <= level + SAME_MM
    edges = np.flatnonzero(np.diff(np.concatenate([[0], low.astype(int), [0]])))
    for a, b in edges.reshape(-1, 2):
        right, left = int(a), int(b) - 1
        z_right, z_left = float(marked[right, 0]), float(marked[left, 0])
        open_right = right == 0 and first == 0
        for e_right, e_left in _touching(touched, z_right, z_left, level):
            start = min(z_right, e_right + APPROACH_MM)
            walled = not open_right and start > z_right - SAME_MM
            end = z_left if e_left - z_left < JOIN_MM else e_left - PULL_OUT_MM
            climb = _climb(marked, left, above) if end == z_left else marked[:0]
            entry = _descent(marked, right, above) if walled else marked[:0]
            yield _Cut(level, above, start, end, entry, climb, e_right - e_left)


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


def _write(path: Path, cut: _Cut, safe: float, feed: float, contour: Envelope, fit: float) -> Pass:
    """Write one pass down and return what to draw."""
    head = cut.entry[0] if len(cut.entry) else np.array([cut.start_z, cut.level])
    _travel(path, (float(head[0]), float(head[1])), safe, contour)
    begin = len(path.motions)
    if len(cut.entry) > 1:
        path.along(path.recovered(cut.entry, fit), feed)
    path.feed(feed, z=cut.start_z, r=cut.level)
    path.feed(feed, z=cut.end_z)
    if len(cut.climb) > 1:
        path.along(path.recovered(cut.climb, fit), feed)
    segments = tuple(motion.segment for motion in path.motions[begin:])
    z, r = path.nose
    path.feed(feed, z=z + PULL_OUT_MM, r=min(r + PULL_OUT_MM, safe))
    return Pass(segments, cut.above - cut.level)


def _travel(path: Path, head: tuple[float, float], safe: float, contour: Envelope) -> None:
    """From where the tool is to just above the start of a pass: straight back if nothing stands between."""
    z, r = path.nose
    clear = min(head[1] + PULL_OUT_MM, safe)
    if not path.motions:
        path.come(head[0], max(clear, min(safe, r)))
    elif head[0] > z and r >= max(clear - SAME_MM, contour.highest(z, head[0]) + PULL_OUT_MM / 2):
        path.rapid(z=head[0])
    else:
        path.rapid(r=safe)
        path.rapid(z=head[0])
    path.rapid(r=clear)
