"""What stands at the end of a program as a drawing: elements outside and in the bore, grooves as features."""

import math
from itertools import pairwise
from typing import Any

import numpy as np
from shapely import LinearRing

from toreuma.core.errors import ProgramError
from toreuma.core.geometry.elements import Arc, Line, Point, Segment, arc_through_ends
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region
from toreuma.core.prove.piece import outline_of
from toreuma.engine.piece_recesses import FACE, INSIDE, OUTSIDE, without_recesses

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
    outside, in_face = without_recesses(outside, FACE)
    outside, grooves = without_recesses(outside, OUTSIDE)
    found: Row = {"outside": [_element(one, "outside") for one in outside], "features": [*grooves, *in_face]}
    if ring[0, 1] < FLAT_MM:
        return found
    bore = _to_the_axis([tuple(ring[0]), *map(tuple, ring[:0:-1])], float(ring[:, 0].min()))
    walls, in_bore = without_recesses(_segments([(float(ring[0, 0]), 0.0), *bore]), INSIDE)
    return found | {
        "inside": [_element(one, "inside") for one in walls], "features": [*found["features"], *in_bore]
    }  # fmt: skip


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


def _element(segment: Segment, side: str) -> Row:
    z, r = segment.end
    found: Row = {"z_mm": min(round(z, DIGITS), 0.0), "d_mm": max(round(2 * r, DIGITS), 0.0)}
    if isinstance(segment, Arc):
        bulge = "concave" if segment.clockwise == (side == "outside") else "convex"
        found |= {"kind": "arc", "radius_mm": round(segment.radius, DIGITS), "bulge": bulge}
    return found
