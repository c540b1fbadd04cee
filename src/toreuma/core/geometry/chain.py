"""Elements joined end to end, with their chamfers and rounds, into true lines and arcs.

Outside and inside are built alike; what differs is on which side the metal lies.
"""

import math
from dataclasses import dataclass
from typing import Literal

from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Line, Point, Segment, arc_through_ends
from toreuma.core.model.part import Corner, Element, turned_size

__all__ = ["TINY", "Chain", "bare_segments", "effective_diameters", "joined"]

TINY = 1e-6

EDGE_SHARE = 0.34
"""An automatic edge break takes at most this share of the edges beside it."""

Side = Literal["outside", "inside"]


@dataclass(frozen=True)
class Chain:
    """Segments with where each comes from: the index of its element, and whether it is that element's corner."""

    segments: tuple[Segment, ...]
    elements: tuple[int, ...]
    corners: tuple[bool, ...]


def effective_diameters(elements: tuple[Element, ...], side: Side) -> list[float]:
    """Diameters to cut, mm: the middle of the limits where an element has some, with what is left for grinding.

    Limits belong to a cylinder, so the element before it, which ends where the cylinder begins, moves along; one that
    is a cylinder itself stays.
    """
    found = [element.d_mm for element in elements]
    for index, element in enumerate(elements):
        size = turned_size(element, side)
        if size is None:
            continue
        found[index] = element.d_mm + size.middle_mm
        before = elements[index - 1] if index else None
        if before is None or before.d_mm != element.d_mm or turned_size(before, side) is not None:
            continue
        level = index > 1 and before.kind == "line" and elements[index - 2].d_mm == before.d_mm
        found[index - 1] = found[index - 1] if level else found[index]
    return found


def bare_segments(elements: tuple[Element, ...], side: Side) -> list[Segment]:
    """The elements without corners, from the axis at Z 0. Raises `PartError`.

    Cylinders of one diameter with limits of their own do not meet: the next one begins where its limits want it, and
    the step between them belongs to none.
    """
    at: Point = (0.0, 0.0)
    segments: list[Segment] = []
    for index, (element, diameter) in enumerate(zip(elements, effective_diameters(elements, side), strict=True)):
        end = (element.z_mm, diameter / 2)
        if index and element.kind == "line" and element.d_mm == elements[index - 1].d_mm and at[0] - end[0] > TINY:
            at = (at[0], end[1])
        if math.dist(at, end) < TINY:
            raise PartError(index, "z_mm", "the element has no length", "change where it ends or delete it", side)
        if end[0] > TINY:
            raise PartError(
                index, "z_mm", "the element ends in front of the finished face at Z 0", "use a Z of 0 or below", side
            )
        segments.append(_segment(index, element, at, end, side))
        at = end
    return segments


def _segment(index: int, element: Element, start: Point, end: Point, side: Side) -> Segment:
    if element.kind == "line":
        return Line(start, end)
    if element.radius_mm is None:
        raise PartError(index, "radius_mm", "an arc needs a radius", "type the radius or make it a line", side)
    try:
        clockwise = (element.bulge == "concave") == (side == "outside")
        arc = arc_through_ends(start, end, element.radius_mm, clockwise=clockwise)
    except ValueError:
        least = math.dist(start, end) / 2
        raise PartError(
            index,
            "radius_mm",
            f"radius {element.radius_mm:g} is too small to join both ends",
            f"use {least:.4g} or more",
            side,
        ) from None
    if float(arc.points(0.001)[:, 0].max()) > 1e-4:
        raise PartError(
            index, "radius_mm", "the arc bows out in front of the finished face at Z 0", "use a larger radius", side
        )
    if min(point[1] for point in arc.points(0.01)) < -TINY:
        raise PartError(index, "radius_mm", "the arc dips below the axis", "use a larger radius", side)
    return arc


def joined(bare: list[Segment], elements: tuple[Element, ...], side: Side, edge_break_mm: float = 0.0) -> Chain:
    """Bare segments with the corners of their elements cut in; ``bare`` has one segment more than the elements.

    Sharp outer edges without a corner get the edge break, as far as the edges beside them have room for it.
    Raises `PartError`.
    """
    segments: list[Segment] = [bare[0]]
    origin, is_corner = [0], [False]
    for index, following in enumerate(bare[1:], 1):
        corner = elements[index - 1].corner
        if corner is None and edge_break_mm > 0:
            corner = _edge_break(segments[-1], following, side, edge_break_mm)
        if corner is not None:
            before, blend, following = _cut_corner(index - 1, corner, segments[-1], following, side)
            segments[-1] = before
            segments.append(blend)
            origin.append(index - 1)
            is_corner.append(True)
        elif math.dist(segments[-1].end, following.start) > TINY:
            segments.append(Line(segments[-1].end, following.start))
            origin.append(index - 1)
            is_corner.append(True)
        segments.append(following)
        origin.append(index)
        is_corner.append(False)
    return Chain(tuple(segments), tuple(origin), tuple(is_corner))


def _turn(before: Segment, after: Segment) -> float:
    """How far the path turns from one line to the next, rad; positive to the left."""
    t0, t1 = before.tangent(1.0), after.tangent()
    return math.atan2(t0[0] * t1[1] - t0[1] * t1[0], t0[0] * t1[0] + t0[1] * t1[1])


def _edge_break(before: Segment, after: Segment, side: Side, size: float) -> Corner | None:
    """The chamfer for a sharp outer edge; None for inner corners, flowing joints and edges without room."""
    if not isinstance(before, Line) or not isinstance(after, Line) or min(before.length, after.length) < TINY:
        return None
    turn = _turn(before, after) if side == "outside" else -_turn(before, after)
    room = EDGE_SHARE * min(before.length, after.length)
    if turn < math.radians(25) or size > room:
        return None
    return Corner(kind="chamfer", size_mm=size)


def _cut_corner(
    index: int, corner: Corner, before: Segment, after: Segment, side: Side
) -> tuple[Segment, Segment, Segment]:
    """Shorten both neighbours and put the chamfer or round between them."""
    if not isinstance(before, Line) or not isinstance(after, Line):
        raise PartError(
            index,
            "corner",
            "a chamfer or round here needs a straight element on both sides",
            "take the corner away or draw the blend as an arc",
            side,
        )
    t0, t1 = before.tangent(), after.tangent()
    turn = _turn(before, after)
    if abs(turn) < 1e-6:
        raise PartError(index, "corner", "the two elements run on straight, there is no corner", "take it away", side)
    size = corner.size_mm
    trim = size if corner.kind == "chamfer" else size * math.tan(abs(turn) / 2)
    room = min(before.length, after.length)
    if trim > room - TINY:
        raise PartError(
            index,
            "corner",
            f"the {corner.kind} of {size:g} is larger than the edge it sits on",
            f"use less than {size * room / trim:.4g}",
            side,
        )
    corner_at = before.end
    start = (corner_at[0] - trim * t0[0], corner_at[1] - trim * t0[1])
    end = (corner_at[0] + trim * t1[0], corner_at[1] + trim * t1[1])
    blend: Segment = Line(start, end)
    if corner.kind == "round":
        blend = arc_through_ends(start, end, size, clockwise=turn < 0)
    return Line(before.start, start), blend, Line(end, after.end)
