"""The true shape of a tool: what cuts, what carries it, and the point the program moves.

Everything is measured from the *nose centre*, the centre of the nose arc. The cutting part is a sharp convex
core grown by a disc of the nose radius, which is what makes reach and sweep fast (see `minkowski`).
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region
from toreuma.core.model.tool import Blade, Insert, PartingTool, Tool, TurningTool

__all__ = ["ToolShape", "shape_of"]

SEAT_MM = 0.6
"""How far the holder's head stays behind the insert's edges."""

TRAIL_LENGTH_MM = 80.0
"""How far behind the nose the trailing edge still counts as a limit."""

TRAIL_MARGIN_DEG = 2.0
"""Clearance kept between the trailing edge and a wall it follows down."""


@dataclass(frozen=True)
class ToolShape:
    """Cutting core, nose radius, bodies and tip, in mm from the nose centre.

    ``core`` has shape (n, 2), convex; ``bodies`` are convex pieces of holder and shank; ``tip`` is the
    programmed point.
    """

    core: Points
    nose_radius: float
    bodies: tuple[Points, ...]
    tip: tuple[float, float]
    entering_angle_deg: float
    edge_length: float

    @cached_property
    def cutting(self) -> Region:
        """The insert or blade with its rounded corners."""
        return grow(shapely.MultiPoint(self.core).convex_hull, self.nose_radius)

    @cached_property
    def body(self) -> Region:
        return shapely.union_all([shapely.MultiPoint(piece).convex_hull for piece in self.bodies])

    @cached_property
    def guarded_core(self) -> Points:
        """The core widened behind the trailing edge, so that the edge does not rub down a wall.

        The edge is also drawn out far behind the insert: past its end the tool could drop more steeply, but only
        by plunging with the whole trailing edge.
        """
        if len(self.core) < 3 or self.is_blade:
            return self.core
        side = 1.0 if self.leads_toward_chuck else -1.0
        turned = _rotate(self.core, -side * math.radians(TRAIL_MARGIN_DEG))
        trail = turned[-1] * (TRAIL_LENGTH_MM / np.linalg.norm(turned[-1]))
        hull = shapely.MultiPoint(np.vstack([self.core, turned, trail])).convex_hull
        return np.asarray(shapely.get_coordinates(hull.exterior)[:-1])

    @property
    def is_blade(self) -> bool:
        """Square to the axis, with a flat front."""
        lowest = self.core[:, 1].min()
        return int(np.sum(self.core[:, 1] < lowest + 1e-9)) > 1

    @property
    def leads_toward_chuck(self) -> bool:
        return self.tip[0] < 0

    @property
    def height(self) -> float:
        """How far the tool reaches up from its nose centre, mm."""
        return float(max(piece[:, 1].max() for piece in self.bodies))


def grow(region: Region, radius: float, tolerance_mm: float = 0.0002) -> Region:
    """The region grown by a disc; chords of the new arcs stay within the tolerance."""
    if radius <= 0:
        return region
    return region.buffer(radius, quad_segs=quarter_chords(radius, tolerance_mm))


def quarter_chords(radius: float, tolerance_mm: float = 0.0002) -> int:
    step = 2 * math.acos(max(1 - tolerance_mm / max(radius, tolerance_mm), 0.0))
    return max(2, math.ceil(math.pi / 2 / step))


def shape_of(tool: Tool) -> ToolShape:
    """The shape of a tool that works the outside from above the axis.

    A right-hand turning tool leads toward the chuck (-z); a left-hand one is its mirror image.
    """
    shape = _turning(tool) if isinstance(tool, TurningTool) else _parting(tool.blade, tool)
    return _mirrored(shape) if tool.hand == "left" else shape


def _turning(tool: TurningTool) -> ToolShape:
    insert, holder = tool.insert, tool.holder
    radius = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    lead = math.radians(180.0 - holder.entering_angle_deg)
    outer = _outline(insert, insert.ic_mm / 2 - radius, lead)
    seat = _outline(insert, max(insert.ic_mm / 2 - SEAT_MM, 0.3), lead)
    tip = (-radius, -radius)
    far = tip[0] + holder.functional_width_mm
    near = far - holder.shank_width_mm
    top, shoulder = tip[1] + holder.functional_length_mm, tip[1] + holder.head_length_mm
    shank = np.array([[near, shoulder], [far, shoulder], [far, top], [near, top]])
    inset = seat + _seat_shift(insert, radius, lead)
    middle = inset.mean(axis=0)
    back_half = inset[(inset - middle) @ _bisector(insert, lead) >= -1e-6]
    neck = np.vstack([back_half, shank[:2]])
    edge = radius if insert.shape == "R" else float(np.linalg.norm(outer[1] - outer[0]))
    return ToolShape(outer, radius, (_hull(inset), _hull(neck), shank), tip, holder.entering_angle_deg, edge)


def _bisector(insert: Insert, lead: float) -> Points:
    angle = lead - math.radians(_corner_deg(insert)) / 2
    return np.array([math.cos(angle), math.sin(angle)])


def _corner_deg(insert: Insert) -> float:
    if insert.shape == "T":
        return 60.0
    return 90.0 if insert.shape in "SR" else insert.included_angle_deg


def _seat_shift(insert: Insert, radius: float, lead: float) -> Points:
    """From the working corner of the sharp seat outline to the nose centre's frame."""
    if insert.shape == "R":
        return np.zeros(2)
    half = math.radians(_corner_deg(insert)) / 2
    return _bisector(insert, lead) * (SEAT_MM - radius) / math.sin(half)


def _outline(insert: Insert, inradius: float, lead: float) -> Points:
    """Corners of the sharp outline with this inscribed radius, working corner first, leading edge next.

    ``lead`` is the direction of the leading edge seen from the working corner, from +z toward +r.
    """
    if insert.shape == "R":
        if inradius <= 1e-9:
            return np.zeros((1, 2))
        angle = np.linspace(0, 2 * math.pi, 24, endpoint=False)
        return np.column_stack([np.cos(angle), np.sin(angle)]) * inradius
    corner = math.radians(_corner_deg(insert))
    if insert.shape == "T":
        side = 2 * math.sqrt(3) * inradius
        spans = [(lead, side), (lead - corner, side)]
    else:
        side = 2 * inradius / math.sin(corner)
        spans = [(lead, side), (lead - corner / 2, 2 * side * math.cos(corner / 2)), (lead - corner, side)]
    points = [(0.0, 0.0), *((length * math.cos(a), length * math.sin(a)) for a, length in spans)]
    return np.array(points)


def _parting(blade: Blade, tool: PartingTool) -> ToolShape:
    radius, width = blade.corner_radius_mm, blade.width_mm
    flat, depth = width - 2 * radius, blade.depth_mm - radius
    core = np.array([[0.0, 0.0], [0.0, depth], [-flat, depth], [-flat, 0.0]])
    slim = width * 0.1
    back = blade.functional_length_mm - radius
    left, right = -flat - radius, radius
    stem = np.array([[left + slim, radius], [right - slim, radius], [right - slim, depth], [left + slim, depth]])
    block_left = left - (blade.block_width_mm - width)
    block = np.array([[block_left, depth], [right, depth], [right, back], [block_left, back]])
    shape = ToolShape(core, radius, (stem, block), (radius, -radius), 90.0, width)
    if tool.programmed_corner == "chuck side":
        shift = np.array([flat, 0.0])
        bodies = tuple(piece + shift for piece in shape.bodies)
        return ToolShape(core + shift, radius, bodies, (-radius, -radius), 90.0, width)
    return shape


def _mirrored(shape: ToolShape) -> ToolShape:
    flip = np.array([-1.0, 1.0])
    return ToolShape(
        shape.core * flip,
        shape.nose_radius,
        tuple(piece * flip for piece in shape.bodies),
        (-shape.tip[0], shape.tip[1]),
        shape.entering_angle_deg,
        shape.edge_length,
    )


def _hull(points: Points) -> Points:
    hull = shapely.MultiPoint(points).convex_hull
    return np.asarray(shapely.get_coordinates(hull.exterior)[:-1])


def _rotate(points: Points, angle: float) -> Points:
    c, s = math.cos(angle), math.sin(angle)
    return np.asarray(points @ np.array([[c, s], [-s, c]]))
