"""What a control makes of one cycle block: the moves behind it, by the word meanings of lathe system A.

Pure functions from the numbers in the block to moves of the programmed point, (z, r) in mm. Planning lays its cuts out
with them where an operation is written as a cycle; reading makes moves of the numbers it finds in the text.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from toreuma.core.geometry.elements import Arc, Line, Point, Segment

__all__ = [
    "Made",
    "faced_pass",
    "follow",
    "groove_pecks",
    "pattern_passes",
    "rough_passes",
    "rough_pockets",
    "thread_depths",
    "thread_passes",
    "threaded_pass",
    "turned_pass",
]

SAME_MM = 1e-7


@dataclass(frozen=True)
class Made:
    """One move of a cycle."""

    segment: Segment
    how: Literal["rapid", "feed", "thread"]


class _Way:
    """Moves written down one after the other."""

    def __init__(self, start: Point) -> None:
        self.at = start
        self.made: list[Made] = []

    def rapid(self, z: float | None = None, r: float | None = None) -> None:
        self._go(z, r, "rapid")

    def feed(self, z: float | None = None, r: float | None = None) -> None:
        self._go(z, r, "feed")

    def thread(self, z: float, r: float) -> None:
        self._go(z, r, "thread")

    def along(self, segments: Sequence[Segment]) -> None:
        for segment in segments:
            if math.dist(segment.start, self.at) > SAME_MM:
                self._go(*segment.start, "feed")
            self.made.append(Made(segment, "feed"))
            self.at = segment.end

    def _go(self, z: float | None, r: float | None, how: Literal["rapid", "feed", "thread"]) -> None:
        target = (self.at[0] if z is None else z, self.at[1] if r is None else r)
        if math.dist(target, self.at) > SAME_MM:
            self.made.append(Made(Line(self.at, target), how))
            self.at = target


def turned_pass(start: Point, z: float, r: float, taper: float = 0.0) -> list[Made]:
    """One turning pass: down, along Z, out along X with the feed, and back to the start. ``taper`` is by how much the
    pass begins farther out than it ends, on radius (R of system A)."""
    way = _Way(start)
    way.rapid(r=r + taper)
    way.feed(z=z, r=r)
    way.feed(r=start[1])
    way.rapid(z=start[0])
    return way.made


def faced_pass(start: Point, z: float, r: float, taper: float = 0.0) -> list[Made]:
    """One facing pass: along Z, in along X, out along Z with the feed, and back to the start. ``taper`` is by how much
    the pass begins farther in front than it ends, along Z."""
    return [_exchanged(one) for one in turned_pass(start[::-1], r, z, taper)]


def threaded_pass(start: Point, z: float, r: float, taper: float = 0.0, pull_out_mm: float = 0.0) -> list[Made]:
    """One pass of a thread: down, along in step with the spindle, out, and back to the start. ``taper`` as of a turning
    pass; over ``pull_out_mm`` before its end the tool comes out at 45 degrees, else straight at it."""
    way = _Way(start)
    way.rapid(r=r + taper)
    long = abs(start[0] - z)
    pull = min(pull_out_mm, long)
    if pull > 0:
        leaves = r + taper * pull / long
        way.thread(z + math.copysign(pull, start[0] - z), leaves)
        way.thread(z, leaves + math.copysign(pull, start[1] - r))
    else:
        way.thread(z, r)
    way.rapid(r=start[1])
    way.rapid(z=start[0])
    return way.made


def rough_passes(
    start: Point,
    contour: Sequence[Segment],
    depth_mm: float,
    retract_mm: float,
    leave_z: float,
    leave_r: float,
    facing: bool = False,
) -> list[Made]:
    """Roughing in even passes from the start's height down to a contour, then once along what is left on it.

    The contour begins at the start's Z and never falls on its way; in a bore, where it lies above the start, it never
    rises. ``depth_mm`` and ``leave_r`` are on radius. Facing has both axes exchanged: passes along X, ``depth_mm``
    along Z.
    """
    if facing:
        turned = [_swapped(segment) for segment in contour]
        made = rough_passes(start[::-1], turned, depth_mm, retract_mm, leave_r, leave_z)
        return [_exchanged(one) for one in made]
    if contour[0].start[1] > start[1] + SAME_MM:
        turned = [_upside_down(segment) for segment in contour]
        made = rough_passes((start[0], -start[1]), turned, depth_mm, retract_mm, leave_z, -leave_r)
        return [Made(_upside_down(one.segment), one.how) for one in made]
    shifted = [segment.moved(leave_z, leave_r) for segment in contour]
    way, floor = _Way(start), shifted[0].start[1]
    count = max(0, math.ceil((start[1] - floor) / depth_mm - 1e-6))
    for index in range(1, count + 1):
        level = max(start[1] - index * depth_mm, floor)
        end = _met(shifted, level)
        if end > start[0] - SAME_MM:
            continue
        way.rapid(r=level)
        way.feed(z=end)
        way.feed(z=end + retract_mm, r=level + retract_mm)
        way.rapid(z=start[0])
    way.rapid(r=start[1])
    _once_along(way, shifted)
    way.rapid(r=max(start[1], way.at[1]))
    way.rapid(*start)
    return way.made


def rough_pockets(
    start: Point,
    contour: Sequence[Segment],
    depth_mm: float,
    retract_mm: float,
    leave_z: float,
    leave_r: float,
    facing: bool = False,
) -> list[Made]:
    """The same down to a contour that may fall and rise again on its way toward the chuck, but never turns back along
    Z: at every level one valley after the other, then once along what is left."""
    if facing:
        turned = [_swapped(segment) for segment in contour]
        made = rough_pockets(start[::-1], turned, depth_mm, retract_mm, leave_r, leave_z)
        return [_exchanged(one) for one in made]
    if sum(segment.end[1] for segment in contour) / len(contour) > start[1] + SAME_MM:
        turned = [_upside_down(segment) for segment in contour]
        made = rough_pockets((start[0], -start[1]), turned, depth_mm, retract_mm, leave_z, -leave_r)
        return [Made(_upside_down(one.segment), one.how) for one in made]
    shifted = [segment.moved(leave_z, leave_r) for segment in contour]
    floor = min(_lowest(segment) for segment in shifted)
    way, over = _Way(start), start[1]
    count = max(0, math.ceil((start[1] - floor) / depth_mm - 1e-6))
    toward = 1.0 if contour[-1].end[0] > start[0] else -1.0
    for index in range(1, count + 1):
        level = max(start[1] - index * depth_mm, floor)
        for begin, end in _valleys(shifted, level, start[0]):
            if (end - begin) * toward < SAME_MM:
                continue
            way.rapid(r=start[1])
            way.rapid(z=begin)
            way.rapid(r=level if begin == start[0] else min(over + retract_mm, start[1]))
            way.feed(r=level)
            way.feed(z=end)
            way.feed(z=end - toward * min(retract_mm, abs(end - begin)), r=level + retract_mm)
        over = level
        way.rapid(r=start[1])
        way.rapid(z=start[0])
    _once_along(way, shifted)
    way.rapid(r=max(start[1], way.at[1]))
    way.rapid(*start)
    return way.made


def _lowest(segment: Segment) -> float:
    return float(segment.points(1e-3)[:, 1].min())


def _valleys(contour: Sequence[Segment], level: float, start: float) -> Iterator[tuple[float, float]]:
    """Where along Z the contour lies below a level, in the order it is followed."""
    begin: float | None = start if contour[0].start[1] < level + SAME_MM else None
    for segment in contour:
        points = segment.points(1e-3)
        for (z0, r0), (z1, r1) in zip(points[:-1].tolist(), points[1:].tolist(), strict=True):
            if r0 > level + SAME_MM >= r1 and begin is None:
                begin = z0 + (z1 - z0) * (level - r0) / (r1 - r0)
            elif r1 > level + SAME_MM >= r0 and begin is not None:
                yield begin, z0 + (z1 - z0) * max(level - r0, 0.0) / (r1 - r0)
                begin = None
    if begin is not None:
        yield begin, contour[-1].end[0]


def pattern_passes(
    start: Point, contour: Sequence[Segment], out_z: float, out_r: float, count: int, leave_z: float, leave_r: float
) -> list[Made]:
    """The contour cut ``count`` times, the first so far outside it, the last with the allowances left."""
    way = _Way(start)
    for index in range(count):
        share = 1 - index / (count - 1) if count > 1 else 0.0
        by = (leave_z + out_z * share, leave_r + out_r * share)
        way.rapid(start[0] + by[0], start[1] + by[1])
        _once_along(way, [segment.moved(*by) for segment in contour])
        way.rapid(r=max(start[1] + by[1], way.at[1]))
    way.rapid(*start)
    return way.made


def follow(start: Point, contour: Sequence[Segment]) -> list[Made]:
    """Once along the contour, and back to the start."""
    way = _Way(start)
    _once_along(way, contour)
    way.rapid(r=max(start[1], way.at[1]))
    way.rapid(*start)
    return way.made


def groove_pecks(
    start: Point,
    end: Point,
    peck_mm: float,
    step_mm: float,
    lift_mm: float,
    facing: bool = False,
    aside_mm: float = 0.0,
) -> list[Made]:
    """Plunges along X with a little lift after every peck, one beside the other from the start's Z to the end's.

    Facing has both axes exchanged: plunges along Z, as for a deep hole or a groove in a face. ``aside_mm`` is how far
    the tool goes back on its way at every bottom before it comes out.
    """
    if facing:
        turned = groove_pecks(start[::-1], end[::-1], peck_mm, step_mm, lift_mm, aside_mm=aside_mm)
        return [_exchanged(one) for one in turned]
    way = _Way(start)
    for z in _places(start[0], end[0], step_mm):
        way.rapid(z=z)
        down = -1.0 if end[1] < start[1] else 1.0
        bottom = start[1] + down * peck_mm
        while peck_mm > SAME_MM and (bottom - end[1]) * down < -SAME_MM:
            way.feed(r=bottom)
            way.rapid(r=bottom - down * lift_mm)
            bottom += down * peck_mm
        way.feed(r=end[1])
        if aside_mm:
            way.feed(z=z + math.copysign(aside_mm, start[0] - end[0]))
        way.rapid(r=start[1])
    way.rapid(*start)
    return way.made


def thread_depths(
    height_mm: float, first_mm: float, least_mm: float, allowance_mm: float, finishing: int
) -> list[float]:
    """Depths of a threading cycle: ``first sqrt(n)``, each at least so much more than the one before, then the full
    height, as often as wished."""
    rough, found = height_mm - allowance_mm, [0.0]
    while found[-1] < rough - SAME_MM and len(found) < 1000:
        found.append(min(max(first_mm * math.sqrt(len(found)), found[-1] + least_mm), rough))
    return [*found[1:], *[height_mm] * max(finishing, 1 if allowance_mm > 0 else 0)]


def thread_passes(
    start: Point,
    end: Point,
    height_mm: float,
    depths: Sequence[float],
    flank_deg: float,
    pull_out_mm: float,
    taper: float = 0.0,
) -> list[Made]:
    """All passes of a thread whose root is at the end's radius, along one flank.

    ``flank_deg`` 0 goes straight in; over ``pull_out_mm`` before its end the tool comes out at 45 degrees. ``taper`` is
    by how much the thread begins farther out than it ends, on radius.
    """
    way = _Way(start)
    out = 1.0 if start[1] > end[1] else -1.0
    toward = 1.0 if start[0] > end[0] else -1.0
    slope = math.tan(math.radians(flank_deg) / 2)
    for depth in depths:
        r = end[1] + out * (height_mm - depth)
        begin = start[0] - toward * (depth - depths[0]) * slope
        leaves_r = r + taper * pull_out_mm / max(abs(begin - end[0]), SAME_MM)
        way.rapid(z=begin)
        way.rapid(r=r + taper)
        way.thread(end[0] + toward * pull_out_mm, leaves_r)
        if pull_out_mm > 0:
            way.thread(end[0], leaves_r + out * pull_out_mm)
        way.rapid(r=start[1])
    way.rapid(*start)
    return way.made


def _once_along(way: _Way, contour: Sequence[Segment]) -> None:
    way.rapid(z=contour[0].start[0])
    way.rapid(r=contour[0].start[1])
    way.along(contour)


def _places(start: float, end: float, step: float) -> Iterator[float]:
    toward = 1.0 if end > start else -1.0
    at = start
    while step > SAME_MM and (end - at) * toward > SAME_MM:
        yield at
        at += toward * step
    yield end


def _met(contour: Sequence[Segment], level: float) -> float:
    """Z at which the contour, on its way toward the chuck, rises above a level."""
    for segment in contour:
        if segment.end[1] > level + SAME_MM:
            return segment.start[0] if segment.start[1] > level + SAME_MM else _crossing(segment, level)
    return contour[-1].end[0]


def _crossing(segment: Segment, level: float) -> float:
    (z0, r0), (z1, r1) = segment.start, segment.end
    if isinstance(segment, Line):
        return z0 + (z1 - z0) * (level - r0) / (r1 - r0) if abs(r1 - r0) > SAME_MM else z1
    across = math.sqrt(max(segment.radius**2 - (level - segment.centre[1]) ** 2, 0.0))
    low, high = sorted((z0, z1))
    both = (segment.centre[0] - across, segment.centre[0] + across)
    return min(both, key=lambda z: max(low - z, z - high, 0.0))


def _swapped(segment: Segment) -> Segment:
    if isinstance(segment, Line):
        return Line(segment.start[::-1], segment.end[::-1])
    return Arc(segment.start[::-1], segment.end[::-1], segment.centre[::-1], not segment.clockwise)


def _upside_down(segment: Segment) -> Segment:
    (z0, r0), (z1, r1) = segment.start, segment.end
    if isinstance(segment, Line):
        return Line((z0, -r0), (z1, -r1))
    return Arc((z0, -r0), (z1, -r1), (segment.centre[0], -segment.centre[1]), not segment.clockwise)


def _exchanged(one: Made) -> Made:
    return Made(_swapped(one.segment), one.how)
