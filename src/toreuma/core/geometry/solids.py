"""Bodies in space, for what is not round about the spindle axis: x and y square to the axis, z along it.

Angles count from x toward y, as the spindle's own. Facets lie within `CHORD_MM` inside the true rounds.
"""

import math
from collections.abc import Iterable

import manifold3d
import numpy as np
import shapely
from manifold3d import Manifold as Solid

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region, polygons

__all__ = [
    "ALONG_X",
    "Bounds",
    "Solid",
    "block",
    "facets",
    "joined",
    "prism",
    "revolved",
    "swept",
    "thickness_um",
    "turned_about_z",
]

Bounds = tuple[float, float, float, float, float, float]
"""Least x, y and z, then greatest, mm."""

CHORD_MM = 0.0005
MOST_FACETS = 512

ALONG_X = np.array([[0.0, 0.0, 1.0, 0.0], [0.0, 1.0, 0.0, 0.0], [1.0, 0.0, 0.0, 0.0]])
"""From (z, y, x), in which what points along X is seen, to (x, y, z)."""


def facets(radius: float) -> int:
    """Facets of a round whose chords stay within `CHORD_MM`, a multiple of four."""
    half = math.acos(max(1 - CHORD_MM / max(radius, CHORD_MM), -1.0))
    return min(4 * math.ceil(math.pi / max(half, 1e-6) / 4), MOST_FACETS)


def revolved(region: Region, count: int = 360, deg: float = 360.0) -> Solid:
    """A half section (z, r) turned about the axis, all round or so many degrees from x toward y."""
    rings: list[Points] = []
    for one in polygons(region):
        rings += [shapely.get_coordinates(ring)[:-1][:, ::-1] for ring in (one.exterior, *one.interiors)]
    if not rings:
        return Solid()
    section = manifold3d.CrossSection([np.ascontiguousarray(ring) for ring in rings], manifold3d.FillRule.EvenOdd)
    return Solid.revolve(section, count, deg)


def prism(outlines: list[Points], low: float, high: float) -> Solid:
    """Outlines (x, y), holes among them, drawn out along z from ``low`` to ``high``."""
    rings = [np.ascontiguousarray(ring, dtype=float) for ring in outlines]
    section = manifold3d.CrossSection(rings, manifold3d.FillRule.EvenOdd)
    return Solid.extrude(section, high - low).translate((0.0, 0.0, low))


def block(bounds: Bounds) -> Solid:
    """A box with these bounds."""
    x0, y0, z0, x1, y1, z1 = bounds
    return Solid.cube((x1 - x0, y1 - y0, z1 - z0)).translate((x0, y0, z0))


def swept(body: Solid, way: Points) -> Solid:
    """A convex body moved along a straight way from ``way[0]`` to ``way[1]``, each (x, y, z)."""
    ends = [body.translate(tuple(float(v) for v in place)) for place in way]
    return Solid.batch_hull(ends)


def joined(bodies: Iterable[Solid]) -> Solid:
    """All bodies as one."""
    kept = [body for body in bodies if not body.is_empty()]
    return Solid.batch_boolean(kept, manifold3d.OpType.Add) if kept else Solid()


def turned_about_z(body: Solid, deg: float) -> Solid:
    return body.rotate((0.0, 0.0, deg))


def thickness_um(body: Solid) -> float:
    """How thick the thickest piece of a body is, um: twice its volume over its surface, as of a plate."""
    pieces = (piece for piece in body.decompose() if piece.volume() > 1e-9)
    return max((2000 * piece.volume() / max(piece.surface_area(), 1e-12) for piece in pieces), default=0.0)
