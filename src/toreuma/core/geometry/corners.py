"""Short bevels and tangent arcs between straight edges, told as the chamfers and rounds they are."""

import math

from toreuma.core.geometry.elements import Line, Point, Segment
from toreuma.core.model.part import Corner

__all__ = ["gathered"]

SAME_MM = 2e-4
SAME_RAD = 2e-4
LARGEST_MM = 6.0
LEAST_TURN = math.radians(60)
"""Edges that turn by less meet in a taper, not in a corner."""


def gathered(segments: list[Segment]) -> list[tuple[Segment, Corner | None]]:
    """The segments without their corners; each corner goes to the edge before it, and both edges run on to meet."""
    found: list[tuple[Segment, Corner | None]] = []
    rest = list(segments)
    index = 0
    while index < len(rest):
        here = rest[index]
        before, taken = found[-1] if found else (None, None)
        after = rest[index + 1] if index + 1 < len(rest) else None
        if isinstance(before, Line) and isinstance(after, Line) and taken is None:
            corner = _corner(before, here, after)
            if corner is not None:
                kind, meeting = corner
                found[-1] = (Line(before.start, meeting), kind)
                rest[index + 1] = Line(meeting, after.end)
                index += 1
                continue
        found.append((here, None))
        index += 1
    return found


def _corner(before: Line, here: Segment, after: Line) -> tuple[Corner, Point] | None:
    """The chamfer or round a segment is between two edges, and where the edges would meet."""
    if min(before.length, after.length, here.length) < SAME_MM:
        return None
    t0, t1 = before.tangent(), after.tangent()
    turn = math.atan2(t0[0] * t1[1] - t0[1] * t1[0], t0[0] * t1[0] + t0[1] * t1[1])
    if not LEAST_TURN <= abs(turn) <= math.pi - 0.1:
        return None
    cross = t0[0] * t1[1] - t0[1] * t1[0]
    gap = (here.end[0] - here.start[0], here.end[1] - here.start[1])
    first = (gap[0] * t1[1] - gap[1] * t1[0]) / cross
    second = (t0[0] * gap[1] - t0[1] * gap[0]) / cross
    if min(first, second) < SAME_MM or abs(first - second) > SAME_MM or first > LARGEST_MM:
        return None
    meeting = (here.start[0] + first * t0[0], here.start[1] + first * t0[1])
    size = (first + second) / 2
    if isinstance(here, Line):
        return Corner(kind="chamfer", size_mm=_tidy(size)), meeting
    if not _flows(t0, here.tangent()) or not _flows(here.tangent(1.0), t1):
        return None
    return Corner(kind="round", size_mm=_tidy(here.radius)), meeting


def _flows(a: Point, b: Point) -> bool:
    return abs(a[0] * b[1] - a[1] * b[0]) < 20 * SAME_RAD and a[0] * b[0] + a[1] * b[1] > 0


def _tidy(size: float) -> float:
    tidy = round(size, 3)
    return tidy if abs(tidy - size) < 1e-4 else round(size, 5)
