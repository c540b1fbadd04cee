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

__all__ = ["TRAIL_MARGIN_DEG", "ToolShape", "grow", "mirrored", "quarter_chords", "turned", "turned_inside"]

TRAIL_LENGTH_MM = 80.0
"""How far behind the nose the trailing edge still counts as a limit."""

FAR_MM = 1e4
LEAST_HIGH_MM, LEAST_LEAN = 0.2, 1e-3
"""So high above the nose an edge begins to tell how it leans; an edge square to the axis leans by no more."""

TRAIL_MARGIN_DEG = 2.0
"""Clearance kept between the trailing edge and a wall it follows down."""


@dataclass(frozen=True, kw_only=True)
class ToolShape:
    """Cutting core, nose radius, bodies and tip, in mm from the nose centre.

    ``core`` has shape (n, 2), convex; ``bodies`` are convex pieces of holder and shank; ``tip`` is the
    programmed point. ``ahead`` are further convex pieces that cut, sharp, as the pilot of a centre drill; ``held`` is
    what the tool is held in, behind all of it that is meant to go into the work.
    """

    core: Points
    nose_radius: float
    bodies: tuple[Points, ...]
    tip: tuple[float, float]
    entering_angle_deg: float
    edge_length: float
    ahead: tuple[Points, ...] = ()
    held: tuple[Points, ...] = ()

    @cached_property
    def key(self) -> tuple[object, ...]:
        """Shapes of one key are the same, to the last bit."""
        pieces = (self.core, *self.bodies, None, *self.ahead, None, *self.held)
        outlines = tuple(None if one is None else one.tobytes() for one in pieces)
        return outlines, self.nose_radius, self.tip, self.entering_angle_deg, self.edge_length

    @cached_property
    def cutting(self) -> Region:
        """The insert, blade or point with its rounded corners."""
        core = grow(shapely.MultiPoint(self.core).convex_hull, self.nose_radius)
        return shapely.union_all([core, *(shapely.MultiPoint(piece).convex_hull for piece in self.ahead)])

    @cached_property
    def body(self) -> Region:
        return shapely.union_all([shapely.MultiPoint(piece).convex_hull for piece in self.bodies])

    @cached_property
    def holding(self) -> Region:
        """What it is held in."""
        return shapely.union_all([shapely.MultiPoint(one).convex_hull for one in self.held])

    @cached_property
    def solid(self) -> Region:
        """All of it, with what it is held in."""
        return shapely.union_all([self.cutting, self.body, self.holding])

    @cached_property
    def guarded_core(self) -> Points:
        """The core widened behind the trailing edge, so that the edge does not rub down a wall.

        The edge is also drawn out far behind the insert: past its end the tool could drop more steeply, but only
        by plunging with the whole trailing edge.
        """
        if len(self.core) < 3 or self.is_blade or self.has_free_sides:
            return self.core
        side = 1.0 if self.leads_toward_chuck else -1.0
        turned = _rotate(self.core, -side * math.radians(TRAIL_MARGIN_DEG))
        trail = turned[-1] * (TRAIL_LENGTH_MM / np.linalg.norm(turned[-1]))
        hull = shapely.MultiPoint(np.vstack([self.core, turned, trail])).convex_hull
        return np.asarray(shapely.get_coordinates(hull.exterior)[:-1])

    @cached_property
    def widened_core(self) -> Points:
        """The core widened behind the trailing edge and no longer than it is: in a bore its line would meet the far
        wall."""
        if len(self.core) < 3 or self.tip[0] == 0:
            return self.core
        side = 1.0 if self.leads_toward_chuck == (self.tip[1] <= 0) else -1.0
        turned = _rotate(self.core, -side * math.radians(TRAIL_MARGIN_DEG))
        hull = shapely.MultiPoint(np.vstack([self.core, turned])).convex_hull
        return np.asarray(shapely.get_coordinates(hull.exterior)[:-1])

    @cached_property
    def widened(self) -> Region:
        """The insert with its corners round, widened behind its trailing edge."""
        return grow(shapely.MultiPoint(self.widened_core).convex_hull, self.nose_radius)

    @cached_property
    def leading_core(self) -> Points:
        """What of the core does not lie behind the nose of a tool that goes toward smaller z: in a straight cut the
        rest is where the nose has been."""
        ahead = shapely.clip_by_rect(shapely.MultiPoint(self.core).convex_hull, -FAR_MM, -FAR_MM, 0.0, FAR_MM)
        points = shapely.get_coordinates(ahead)
        return np.asarray(points) if len(points) else np.zeros((1, 2))

    @cached_property
    def leading_lean(self) -> float:
        """How far the edge that leads, of a tool that goes toward smaller z, stays behind its nose in a unit of height;
        infinite where it runs ahead of the nose, or is none."""
        high = self.core[self.core[:, 1] > LEAST_HIGH_MM]
        lean = float((high[:, 0] / high[:, 1]).min()) if len(high) else math.inf
        return lean if lean > -LEAST_LEAN else math.inf

    @property
    def is_blade(self) -> bool:
        """Square to the axis, with a flat front or one that leans a little."""
        z, lowest = self.core[:, 0], self.core[:, 1].min()
        sides = len(z) == 4 and abs(z[0] - z[1]) < 1e-9 and abs(z[2] - z[3]) < 1e-9
        return sides or int(np.sum(self.core[:, 1] < lowest + 1e-9)) > 1

    @property
    def has_free_sides(self) -> bool:
        """Plunges as a blade does: the side behind the nose is square to the axis, or both sides are alike."""
        square = abs(float(self.core[-1, 0])) < 1e-9 < float(self.core[-1, 1])
        return square or abs(float(self.core[:, 0].max() + self.core[:, 0].min())) < 1e-9

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


def mirrored(shape: ToolShape) -> ToolShape:
    """The shape of the other hand: what lay toward the chuck lies toward the front."""
    return turned(shape, np.diag([-1.0, 1.0]))


def turned_inside(shape: ToolShape) -> ToolShape:
    """The shape seen from below: what came down on the outside comes up into a bore."""
    return turned(shape, np.diag([1.0, -1.0]))


def turned(shape: ToolShape, matrix: Points) -> ToolShape:
    """The shape with its axes turned round or exchanged by a symmetric (2, 2) matrix."""
    tip = np.array(shape.tip) @ matrix
    return ToolShape(
        core=shape.core @ matrix,
        nose_radius=shape.nose_radius,
        bodies=tuple(piece @ matrix for piece in shape.bodies),
        tip=(float(tip[0]), float(tip[1])),
        entering_angle_deg=shape.entering_angle_deg,
        edge_length=shape.edge_length,
        ahead=tuple(piece @ matrix for piece in shape.ahead),
        held=tuple(piece @ matrix for piece in shape.held),
    )


def _rotate(points: Points, angle: float) -> Points:
    c, s = math.cos(angle), math.sin(angle)
    return np.asarray(points @ np.array([[c, s], [-s, c]]))
