"""From a region of metal to the elements a turner would dimension: outside, inside, blind holes from the back."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from toreuma.core.errors import PartError
from toreuma.core.geometry.corners import gathered
from toreuma.core.geometry.elements import Arc, Line, Points, Segment
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region
from toreuma.core.model.feature import AxialHole
from toreuma.core.model.part import Corner, Element

__all__ = ["Dimensioned", "dimensioned"]

AXIS_MM = 1e-5
FACE_MM = 2e-4
DECIMALS = 5
FACE_BESIDE_MM = 20.0
FIT_MM = 0.0004


@dataclass(frozen=True, kw_only=True)
class Dimensioned:
    """``shift_mm`` is what was added to z to bring the front face to 0."""

    outside: tuple[Element, ...]
    inside: tuple[Element, ...]
    holes: tuple[AxialHole, ...]
    shift_mm: float
    left_out: tuple[str, ...] = ()


def dimensioned(metal: Region, fit_mm: float = FIT_MM) -> Dimensioned:
    """Elements of a half section of metal. Raises `PartError` when it cannot be a turned part."""
    if metal.geom_type != "Polygon" or len(metal.interiors):
        raise PartError(-1, "", "the profile holds a closed hollow inside the metal", "leave it out", "outside")
    ring = _front_first(np.asarray(metal.exterior.coords)[:-1])
    shift = -float(ring[:, 0].max())
    ring = np.column_stack([ring[:, 0] + shift, ring[:, 1]])
    back = float(ring[:, 0].min())
    on_axis = ring[:, 1] < AXIS_MM
    at_front = np.flatnonzero(ring[:, 0] > -FACE_MM)
    at_back = np.flatnonzero(ring[:, 0] < back + FACE_MM)
    mouth = int(at_front[ring[at_front, 1].argmin()])
    rear = int(at_back[ring[at_back, 1].argmin()])
    ring, rear = np.roll(ring, -mouth, axis=0), (rear - mouth) % len(ring)
    on_axis = np.roll(on_axis, -mouth)
    outer = ring[: rear + 1]
    inner = np.vstack([ring[rear:], ring[:1]])
    outside = _outside(outer, fit_mm)
    if not on_axis[rear:].any() and inner[:, 1].min() > AXIS_MM:
        return Dimensioned(outside=outside, inside=_inside(inner[::-1], fit_mm, through=True), holes=(), shift_mm=shift)
    axial = np.flatnonzero(inner[:, 1] < AXIS_MM)
    front_part, back_part = inner[axial[-1] :], inner[: axial[0] + 1]
    inside = _inside(front_part[::-1], fit_mm) if len(front_part) > 1 and front_part[-1, 1] > AXIS_MM else ()
    holes, left_out = _back_hole(back_part, back, fit_mm)
    return Dimensioned(outside=outside, inside=inside, holes=holes, shift_mm=shift, left_out=left_out)


def _front_first(ring: Points) -> Points:
    """The ring so that it runs from the front over the outside to the back: counter-clockwise in (z, r)."""
    z, r = ring[:, 0], ring[:, 1]
    area = float((z * np.roll(r, -1) - np.roll(z, -1) * r).sum())
    return ring if area > 0 else np.asarray(ring[::-1])


def _outside(points: Points, fit_mm: float) -> tuple[Element, ...]:
    rows = gathered(_recovered(points, fit_mm))
    first, start = rows[0][0], rows[0][0].start
    elements = [Element(z_mm=0.0, d_mm=_size(2 * start[1]))] if start[1] > AXIS_MM else []
    if elements and isinstance(first, Line) and abs(first.end[0]) < FACE_MM:
        elements = []  # the front face itself is the first element
    while len(rows) > 1 and isinstance(rows[-1][0], Line) and _flat_back(rows[-1][0]):
        rows.pop()  # the back face closes the profile by itself
    return (*elements, *(_element(segment, corner, outside=True) for segment, corner in rows))


def _flat_back(segment: Segment) -> bool:
    return abs(segment.end[0] - segment.start[0]) < FACE_MM and segment.end[1] < segment.start[1]


def _inside(points: Points, fit_mm: float, through: bool = False) -> tuple[Element, ...]:
    """The bore from its mouth inward; the faces it opens in are drawn on, so that its edges have both sides."""
    (z0, r0), (z1, r1) = points[0], points[-1]
    face = Line((float(z0), float(r0) + FACE_BESIDE_MM), (float(z0), float(r0)))
    segments: list[Segment] = [face, *_recovered(points, fit_mm)]
    if through:
        segments.append(Line((float(z1), float(r1)), (float(z1), float(r1) + FACE_BESIDE_MM)))
    rows = gathered(segments)
    rows = rows[:-1] if through else rows
    mouth = Element(z_mm=0.0, d_mm=_size(2 * rows[0][0].end[1]), corner=rows[0][1])
    rows = rows[1:]
    while rows and isinstance(rows[-1][0], Line) and _flat_bottom(rows[-1][0]):
        rows.pop()  # a flat bottom closes by itself
    return (mouth, *(_element(segment, corner, outside=False) for segment, corner in rows))


def _flat_bottom(segment: Segment) -> bool:
    return segment.end[1] < AXIS_MM and abs(segment.end[0] - segment.start[0]) < FACE_MM


def _back_hole(points: Points, back: float, fit_mm: float) -> tuple[tuple[AxialHole, ...], tuple[str, ...]]:
    """A blind hole from the back, when it is a drilled one."""
    if len(points) < 2 or points[0][1] < AXIS_MM:
        return (), ()
    segments = _recovered(points, fit_mm)
    wall = segments[0]
    level = isinstance(wall, Line) and abs(wall.start[1] - wall.end[1]) < FACE_MM
    bottom = segments[1] if len(segments) == 2 else None
    if not level or not isinstance(bottom, Line):
        return (), ("a stepped blind bore from the back",)
    depth, radius = wall.end[0] - back, wall.end[1]
    point = bottom.end[0] - bottom.start[0]
    angle = 180.0 if abs(point) < FACE_MM else 2 * math.degrees(math.atan2(radius, point))
    if not 30 < angle <= 180:
        return (), ("a blind bore from the back with an odd bottom",)
    return (AxialHole(end="back", d_mm=_size(2 * radius), depth_mm=_size(depth), point_deg=round(angle, 3)),), ()


def _recovered(points: Points, fit_mm: float) -> list[Segment]:
    return recover(np.asarray(points), fit_mm)


def _element(segment: Segment, corner: Corner | None, outside: bool) -> Element:
    z, d = _size(segment.end[0]), _size(2 * max(segment.end[1], 0.0))
    if isinstance(segment, Arc):
        convex = segment.clockwise != outside
        bulge: Literal["convex", "concave"] = "convex" if convex else "concave"
        return Element(kind="arc", z_mm=z, d_mm=d, radius_mm=_radius(segment), bulge=bulge)
    return Element(z_mm=z, d_mm=d, corner=corner)


def _radius(arc: Arc) -> float:
    """Rounded to the decimals of a drawing where that changes nothing."""
    half = math.dist(arc.start, arc.end) / 2
    return max(round(arc.radius, 6), math.ceil(half * 1e6) / 1e6)


def _size(value: float) -> float:
    """A dimension without the dust of arithmetic."""
    rounded = round(value, DECIMALS)
    tidy = round(value, 3)
    return (tidy if abs(tidy - rounded) < 2e-5 else rounded) + 0.0
