"""The way of a tool beside its contour: what a control makes of the programmed one while compensation is on.

The programmed way is where the edge of the nose is meant to be; the centre of the nose goes beside it by its radius,
and the programmed point lies at its place about the centre. Outer corners are gone round along straight lines, inner
ones are cut short (ISO 6983-1, G41 and G42, seen in the plane of Z and X).
"""

import math
from dataclasses import dataclass, replace

from toreuma.core.geometry.elements import Arc, Line, Point, Segment
from toreuma.core.geometry.joins import beside, corner_deg, cut_at, meetings
from toreuma.core.read.state import Nose

__all__ = ["Along", "NoseError", "compensated", "tip_from_centre"]

SAME_MM = 1e-6
STRAIGHT_DEG = 0.05
ROUND_DEG = 90.0
"""Outer corners that turn by more are gone round by a third line."""


class NoseError(ValueError):
    """Where the way beside the contour cannot be gone; ``index`` counts its segments."""

    def __init__(self, index: int, what: str) -> None:
        super().__init__(what)
        self.index = index


@dataclass(frozen=True, slots=True)
class Along:
    """A segment of the way of the programmed point, and which segment of the contour it belongs to."""

    segment: Segment
    index: int


def tip_from_centre(nose: Nose) -> Point:
    """Where the programmed point lies seen from the centre of the nose, mm (z, r)."""
    ways = {1: (1, 1), 2: (-1, 1), 3: (-1, -1), 4: (1, -1), 5: (1, 0), 6: (0, 1), 7: (-1, 0), 8: (0, -1)}
    z, r = ways.get(nose.tip, (0, 0))
    return z * nose.radius_mm, r * nose.radius_mm


def compensated(way: list[Segment], nose: Nose, left: bool, *, begins: bool, ends: bool) -> list[Along]:
    """The way of the programmed point along a contour. ``begins``: its first segment leads onto the contour, ``ends``:
    its last one leads off it. Segments are joined end to start and none is of no length.

    Raises `NoseError` where the nose does not fit into the contour.
    """
    side = nose.radius_mm if left else -nose.radius_mm
    inner = way[(1 if begins else 0) : (len(way) - 1 if ends else len(way))]
    if not inner or nose.radius_mm <= 0:
        return [Along(segment, n) for n, segment in enumerate(way)]
    first = 1 if begins else 0
    shifted: list[Segment] = []
    for n, segment in enumerate(inner, first):
        off = beside(segment, side)
        if off is None:
            raise NoseError(
                n, f"an arc of radius {_radius(segment):g} mm is narrower than the nose of {nose.radius_mm:g} mm"
            )
        shifted.append(off)
    found = _joined(inner, shifted, side, first)
    tip = tip_from_centre(nose)
    made = [Along(one.segment.moved(*tip), one.index) for one in found]
    if begins:
        made.insert(0, Along(Line(way[0].start, made[0].segment.start), 0))
    if ends:
        made.append(Along(Line(made[-1].segment.end, way[-1].end), len(way) - 1))
    return [one for one in made if one.segment.length > SAME_MM]


def _radius(segment: Segment) -> float:
    return segment.radius if isinstance(segment, Arc) else math.inf


def _joined(contour: list[Segment], shifted: list[Segment], side: float, first: int) -> list[Along]:
    """The shifted segments joined: inner corners cut short, outer ones gone round."""
    found = [Along(shifted[0], first)]
    for n in range(1, len(contour)):
        turn = corner_deg(contour[n - 1], contour[n])
        before, after = found[-1].segment, shifted[n]
        if abs(turn) < STRAIGHT_DEG or math.dist(before.end, after.start) < SAME_MM:
            found.append(Along(after, first + n))
        elif (turn > 0) == (side > 0):
            found[-1:] = _cut_short(found[-1], after, first + n)
        else:
            found += _round(before, after, turn, abs(side), first + n)
    return found


def _cut_short(before: Along, after: Segment, index: int) -> list[Along]:
    """An inner corner: both ways end where they meet."""
    places = [
        place for place in meetings(before.segment, after) if _ahead(before.segment, place) and _behind(after, place)
    ]
    if not places:
        raise NoseError(index, "the step is smaller than the nose: it would cut into what comes next")
    corner = min(places, key=lambda place: math.dist(place, after.start) + math.dist(place, before.segment.end))
    return [replace(before, segment=cut_at(before.segment, corner)), Along(cut_at(after, corner, start=True), index)]


def _ahead(segment: Segment, place: Point) -> bool:
    """Whether the segment comes to a place on its line or circle before its end."""
    if math.dist(place, segment.start) < SAME_MM or math.dist(place, segment.end) < SAME_MM:
        return True
    if isinstance(segment, Line):
        tz, tr = segment.tangent()
        way = (place[0] - segment.start[0]) * tz + (place[1] - segment.start[1]) * tr
        return -SAME_MM <= way <= segment.length + SAME_MM
    return abs(replace(segment, end=place).sweep_rad) <= abs(segment.sweep_rad) + 1e-9


def _behind(segment: Segment, place: Point) -> bool:
    return _ahead(segment.reversed(), place)


def _round(before: Segment, after: Segment, turn: float, radius: float, index: int) -> list[Along]:
    """An outer corner: both ways go on straight until they meet, or a third line joins them."""
    (az, ar), (bz, br) = before.tangent(1.0), after.tangent(0.0)
    if abs(turn) <= ROUND_DEG + 1e-6:
        reach = radius * math.tan(math.radians(abs(turn)) / 2)
        middle = (before.end[0] + az * reach, before.end[1] + ar * reach)
        lines: list[Segment] = [Line(before.end, middle), Line(middle, after.start)]
    else:
        one = (before.end[0] + az * radius, before.end[1] + ar * radius)
        two = (after.start[0] - bz * radius, after.start[1] - br * radius)
        lines = [Line(before.end, one), Line(one, two), Line(two, after.start)]
    return [
        *(Along(line, index - 1 if n < len(lines) / 2 else index) for n, line in enumerate(lines)),
        Along(after, index),
    ]
