"""Where two lines or arcs meet, what goes beside them, and what breaks the corner between them. Pure plane geometry."""

import math
from collections.abc import Iterator
from dataclasses import replace
from typing import cast

from toreuma.core.geometry.elements import Arc, Line, Point, Segment

__all__ = ["beside", "bevelled", "corner_deg", "cut_at", "line_from_angle", "meetings", "rounded"]

SAME_MM = 1e-7
ON_MM = 1e-4
"""How far from a segment's ends a place may lie and still be on it."""


def meetings(one: Segment, other: Segment) -> list[Point]:
    """Where the lines or circles that two segments lie on meet, in front of or behind their ends too."""
    if isinstance(one, Line) and isinstance(other, Line):
        return _lines(one, other)
    if isinstance(one, Arc) and isinstance(other, Arc):
        return _circles(one, other)
    line, arc = (one, other) if isinstance(one, Line) else (other, one)
    return _line_circle(cast(Line, line), cast(Arc, arc))


def _lines(one: Line, other: Line) -> list[Point]:
    (az, ar), (bz, br) = one.tangent(), other.tangent()
    cross = az * br - ar * bz
    if abs(cross) < 1e-9:
        return []
    dz, dr = other.start[0] - one.start[0], other.start[1] - one.start[1]
    way = (dz * br - dr * bz) / cross
    return [(one.start[0] + way * az, one.start[1] + way * ar)]


def _line_circle(line: Line, arc: Arc) -> list[Point]:
    (tz, tr), (cz, cr) = line.tangent(), arc.centre
    along = (cz - line.start[0]) * tz + (cr - line.start[1]) * tr
    foot = (line.start[0] + along * tz, line.start[1] + along * tr)
    away = math.dist(foot, arc.centre)
    if away > arc.radius + SAME_MM:
        return []
    half = math.sqrt(max(arc.radius**2 - away**2, 0.0))
    return [(foot[0] + side * half * tz, foot[1] + side * half * tr) for side in (-1.0, 1.0)]


def _circles(one: Arc, other: Arc) -> list[Point]:
    apart = math.dist(one.centre, other.centre)
    if apart < SAME_MM or apart > one.radius + other.radius + SAME_MM:
        return []
    if apart < abs(one.radius - other.radius) - SAME_MM:
        return []
    along = (apart**2 + one.radius**2 - other.radius**2) / (2 * apart)
    half = math.sqrt(max(one.radius**2 - along**2, 0.0))
    tz, tr = (other.centre[0] - one.centre[0]) / apart, (other.centre[1] - one.centre[1]) / apart
    middle = (one.centre[0] + along * tz, one.centre[1] + along * tr)
    return [(middle[0] - side * half * tr, middle[1] + side * half * tz) for side in (-1.0, 1.0)]


def cut_at(segment: Segment, place: Point, *, start: bool = False) -> Segment:
    """The segment made to end (or ``start``) at a place on its line or circle."""
    return replace(segment, start=place) if start else replace(segment, end=place)


def _holds(segment: Segment, place: Point) -> bool:
    """Whether a place on the segment's line or circle lies between its ends."""
    if math.dist(place, segment.start) < ON_MM or math.dist(place, segment.end) < ON_MM:
        return True
    if isinstance(segment, Line):
        tz, tr = segment.tangent()
        along = (place[0] - segment.start[0]) * tz + (place[1] - segment.start[1]) * tr
        return 0 <= along <= segment.length
    return abs(replace(segment, end=place).sweep_rad) <= abs(segment.sweep_rad)


def beside(segment: Segment, way: float) -> Segment | None:
    """The segment moved square to itself by ``way`` mm, to the left of its direction where positive.

    None where an arc is too narrow for it.
    """
    if isinstance(segment, Line):
        tz, tr = segment.tangent()
        return segment.moved(-tr * way, tz * way)
    radius = segment.radius + (way if segment.clockwise else -way)
    if radius < SAME_MM:
        return None
    share = radius / segment.radius
    (z, r), ends = segment.centre, (segment.start, segment.end)
    start, end = ((z + (one[0] - z) * share, r + (one[1] - r) * share) for one in ends)
    return Arc(start, end, segment.centre, segment.clockwise)


def corner_deg(one: Segment, other: Segment) -> float:
    """By how much the way turns from the end of one segment to the start of the next, left positive, -180 to 180."""
    (az, ar), (bz, br) = one.tangent(1.0), other.tangent(0.0)
    return math.degrees(math.atan2(az * br - ar * bz, az * bz + ar * br))


def rounded(one: Segment, other: Segment, radius: float) -> tuple[Segment, Arc, Segment] | None:
    """Two joined segments with the corner between them rounded; None where the radius does not fit."""
    left = corner_deg(one, other) > 0
    corner = one.end
    found: list[tuple[float, Segment, Arc, Segment]] = []
    for centre in _centres(one, other, radius):
        first, second = _foot(one, centre), _foot(other, centre)
        if first is None or second is None or not (_holds(one, first) and _holds(other, second)):
            continue
        if math.dist(first, second) < SAME_MM:
            continue
        arc = Arc(first, second, centre, clockwise=not left)
        before, after = cut_at(one, first), cut_at(other, second, start=True)
        if (
            abs(arc.sweep_rad) > math.pi
            or not _flows(one, arc.tangent(0.0), first)
            or not _flows(other, arc.tangent(1.0), second)
        ):
            continue
        found.append((math.dist(centre, corner), before, arc, after))
    best = min(found, key=lambda each: each[0], default=None)
    return None if best is None else best[1:]


def _centres(one: Segment, other: Segment, radius: float) -> Iterator[Point]:
    for a in (beside(one, radius), beside(one, -radius)):
        for b in (beside(other, radius), beside(other, -radius)):
            if a is not None and b is not None:
                yield from meetings(a, b)


def _foot(segment: Segment, centre: Point) -> Point | None:
    """The place on the segment's line or circle nearest to a centre."""
    if isinstance(segment, Line):
        tz, tr = segment.tangent()
        along = (centre[0] - segment.start[0]) * tz + (centre[1] - segment.start[1]) * tr
        return segment.start[0] + along * tz, segment.start[1] + along * tr
    away = math.dist(centre, segment.centre)
    if away < SAME_MM:
        return None
    share = segment.radius / away
    return (segment.centre[0] + (centre[0] - segment.centre[0]) * share,
            segment.centre[1] + (centre[1] - segment.centre[1]) * share)  # fmt: skip


def _flows(segment: Segment, tangent: Point, at: Point) -> bool:
    """Whether a direction is the segment's own at a place on it."""
    own = segment.tangent() if isinstance(segment, Line) else replace(segment, start=at).tangent(0.0)
    return own[0] * tangent[0] + own[1] * tangent[1] > 1 - 1e-5


def bevelled(one: Segment, other: Segment, size: float) -> tuple[Segment, Line, Segment] | None:
    """Two joined segments with a chamfer of equal legs between them; None where it does not fit."""
    if size <= 0 or one.length < size - ON_MM or other.length < size - ON_MM:
        return None
    first = one.at(max(1 - size / one.length, 0.0))
    second = other.at(min(size / other.length, 1.0))
    if math.dist(first, second) < SAME_MM:
        return None
    return cut_at(one, first), Line(first, second), cut_at(other, second, start=True)


def line_from_angle(start: Point, deg: float, *, z: float | None = None, r: float | None = None) -> Point | None:
    """Where a line that leaves a point at an angle from +Z, against the clock, comes to a Z or a radius."""
    tz, tr = math.cos(math.radians(deg)), math.sin(math.radians(deg))
    if z is not None:
        return None if abs(tz) < 1e-9 else (z, start[1] + (z - start[0]) * tr / tz)
    assert r is not None
    return None if abs(tr) < 1e-9 else (start[0] + (r - start[1]) * tz / tr, r)
