"""What stands at the end of a program as a drawing: elements outside and in the bore, square grooves as features."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
from shapely import LinearRing

from toreuma.core.errors import ProgramError
from toreuma.core.geometry.elements import Arc, Line, Point, Segment, arc_through_ends
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region
from toreuma.core.prove.piece import outline_of

__all__ = ["part_of_piece"]

FIT_MM = 0.001
"""How far a corner of the cut metal may lie from the line or arc drawn through it."""

TAIL_MM = 0.3
"""A straight stretch so short before or after an arc may be its first or last chord."""

SAME_MM = 0.003
SHORT_MM = FLAT_MM = 1e-4
DIGITS = 4

Row = dict[str, Any]


def part_of_piece(piece: Region, front: float) -> Row:
    """A part as data, its front face at zero; ``front`` is where it stands now, mm. Raises `ProgramError`."""
    ring = outline_of(piece) - np.array([front, 0.0])
    if len(ring) < 3:
        raise ProgramError("program", "nothing is left of the blank", "look at its blank and its tools")
    if not LinearRing(ring).is_ccw:
        ring = np.roll(ring[::-1], 1, axis=0)
    at_back = np.flatnonzero(ring[:, 0] < ring[:, 0].min() + FLAT_MM)
    face = next(n for n in range(len(ring)) if ring[(n + 1) % len(ring), 0] < ring[0, 0] - FLAT_MM)
    outside = _segments([(float(ring[0, 0]), 0.0), *map(tuple, ring[face : at_back[0] + 1])])
    outside, grooves = _without_grooves(outside)
    found: Row = {"outside": [_element(one, "outside") for one in outside], "features": grooves}
    if ring[0, 1] < FLAT_MM:
        return found
    bore = _to_the_axis([tuple(ring[0]), *map(tuple, ring[:0:-1])], float(ring[:, 0].min()))
    return found | {"inside": [_element(one, "inside") for one in _segments([(float(ring[0, 0]), 0.0), *bore])]}


def _to_the_axis(corners: list[Point], back: float) -> list[Point]:
    """The walls of a bore from its mouth to its bottom on the axis, or to the back face."""
    last = next((n for n, (z, r) in enumerate(corners) if r < FLAT_MM or z < back + FLAT_MM), len(corners) - 1)
    return corners[: last + 1]


def _segments(corners: list[Point]) -> list[Segment]:
    """Lines and arcs through corners; the first rises from the axis."""
    apart = [corners[0], *(b for a, b in pairwise(corners) if math.dist(a, b) > SHORT_MM)]
    if len(apart) < 2:
        return []
    square, rest = Line(apart[0], apart[1]), apart[1:]
    found = _with_whole_arcs(recover(np.array(rest), FIT_MM)) if len(rest) > 1 else []
    return [square, *found] if square.length > SHORT_MM else found


def _with_whole_arcs(segments: list[Segment]) -> list[Segment]:
    """Arcs that take in the short chords that were left at their ends."""
    found: list[Segment] = []
    for one in segments:
        last = found[-1] if found else None
        whole: Arc | None = None
        if isinstance(one, Arc) and isinstance(last, Line):
            whole = _longer(last.start, one.end, one, last.end)
        elif isinstance(one, Line) and isinstance(last, Arc):
            whole = _longer(last.start, one.end, last, one.start)
        found[-1:] = [whole] if whole is not None else [*found[-1:], one]
    return found


def _longer(start: Point, end: Point, arc: Arc, between: Point) -> Arc | None:
    """The arc from ``start`` to ``end`` if what it takes in is short and lies on it."""
    if min(math.dist(start, between), math.dist(end, between)) > TAIL_MM:
        return None
    try:
        whole = arc_through_ends(start, end, arc.radius, clockwise=arc.clockwise)
    except ValueError:
        return None
    near = abs(math.dist(whole.centre, between) - arc.radius) < FIT_MM
    return whole if near and math.dist(whole.centre, arc.centre) < SAME_MM else None


@dataclass(frozen=True)
class _Recess:
    """Places of its walls among the segments, and the groove as a feature."""

    first: int
    last: int
    groove: Row


def _without_grooves(segments: list[Segment]) -> tuple[list[Segment], list[Row]]:
    """The outside as if no square groove were cut in its cylinders, and those grooves."""
    found, grooves = list(segments), []
    while recess := _recess(found):
        before, after = found[recess.first - 1], found[recess.last + 1]
        found[recess.first - 1 : recess.last + 2] = [Line(before.start, after.end)]
        grooves.append(recess.groove)
    return found, grooves


def _recess(segments: list[Segment]) -> _Recess | None:
    """The first groove with square walls in a cylinder: down, along, and up to the same diameter."""
    for first, down in enumerate(segments):
        if not first or not _is_square(down) or down.end[1] >= down.start[1] or not _is_level(segments[first - 1]):
            continue
        last = first + 1
        rounds: list[float] = []
        while last < len(segments) - 1 and not _is_square(segments[last]) and last - first <= 4:
            one = segments[last]
            if isinstance(one, Arc):
                rounds.append(one.radius)
            last += 1
        up = segments[last] if last < len(segments) - 1 else None
        if up is None or not _is_square(up) or up.end[1] <= up.start[1] or not _is_level(segments[last + 1]):
            continue
        floor = [one for one in segments[first + 1 : last] if isinstance(one, Line)]
        if abs(up.end[1] - down.start[1]) > SAME_MM or len(floor) != 1 or not _is_level(floor[0]):
            continue
        if len(rounds) not in (0, 2) or (rounds and abs(rounds[0] - rounds[1]) > SAME_MM):
            continue
        groove = {"kind": "groove", "z_mm": round(down.start[0], DIGITS), "d_mm": round(2 * floor[0].end[1], DIGITS),
                  "width_mm": round(down.start[0] - up.start[0], DIGITS),
                  "floor_round_mm": round(sum(rounds) / 2, 3) if rounds else 0.0}  # fmt: skip
        return _Recess(first, last, groove)
    return None


def _is_square(one: Segment) -> bool:
    return isinstance(one, Line) and abs(one.start[0] - one.end[0]) < SAME_MM < abs(one.start[1] - one.end[1])


def _is_level(one: Segment) -> bool:
    return isinstance(one, Line) and abs(one.start[1] - one.end[1]) < SAME_MM < abs(one.start[0] - one.end[0])


def _element(segment: Segment, side: str) -> Row:
    z, r = segment.end
    found: Row = {"z_mm": min(round(z, DIGITS), 0.0), "d_mm": max(round(2 * r, DIGITS), 0.0)}
    if isinstance(segment, Arc):
        bulge = "concave" if segment.clockwise == (side == "outside") else "convex"
        found |= {"kind": "arc", "radius_mm": round(segment.radius, DIGITS), "bulge": bulge}
    return found
