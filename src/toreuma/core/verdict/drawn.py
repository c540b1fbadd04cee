"""The drawing as a list of things to be made: surfaces, edges and faces of the section, and walls of features."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.chain import Chain
from toreuma.core.geometry.elements import Arc, Line, Points, Segment
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.profile import Profile
from toreuma.core.geometry.region import Region
from toreuma.core.model import Part
from toreuma.core.model.part import Element, turned_size
from toreuma.core.spoken import q, said

__all__ = ["Drawn", "drawn_of"]

SAME_MM, ON_MM = 1e-4, 2e-4
STEP_MM, FEWEST, MOST = 0.1, 7, 400
"""How closely a line is looked at."""

FREE_UM = 10.0
"""Square to the surface, where the drawing gives no limits."""

RELIEF_UM = 50.0
"""A relief keeps something free: its diameter has h13 (DIN 76-1), its depth a tenth (DIN 509)."""

LEAST_UM = 2.0
"""What a program of this resolution can hold."""


@dataclass(frozen=True, kw_only=True)
class Drawn:
    """A thing of the section. ``line`` is where it lies on the outline, ``points`` (n, 2) on it, ``normals`` (n, 2) out
    of the metal; ``allowed_um`` may stand or be missing square to it. ``element`` is its place in its profile, and
    ``feature`` its place among the part's features."""

    key: str
    what: str
    wanted: str
    side: str
    line: Region
    points: Points
    normals: Points
    allowed_um: float = FREE_UM
    element: int | None = None
    feature: int | None = None

    @property
    def at(self) -> tuple[float, float]:
        z, r = self.points[len(self.points) // 2]
        return float(z), float(r)


def drawn_of(part: Part, shape: PartShape) -> tuple[Drawn, ...]:
    """Everything the section of a part shows."""
    boundary = shapely.boundary(shape.region)
    near = boundary.buffer(ON_MM)
    found: list[Drawn] = []
    chains: list[tuple[str, tuple[Element, ...], Chain | Profile]] = [("outside", part.outside, shape.profile)]
    if shape.bore is not None:
        chains.append(("inside", part.inside, shape.bore))
    for side, elements, chain in chains:
        found += _of_chain(part, side, elements, chain, near, shape.region)
    if shape.bore is None and shape.void is not None:  # read from the back: one thing
        line = shapely.intersection(shapely.boundary(shape.void), near)
        one = _placed("bore", "the bore", "as drawn", "inside", line, shape.region)
        found += [one] if one is not None else []
    for index, void in shape.voids:
        feature = part.features[index]
        line = shapely.intersection(shapely.boundary(void.cut), near)
        side = "inside" if getattr(feature, "side", "") == "inside" else "outside"
        name = feature.name or feature.kind.replace("_", " ")
        allowed = RELIEF_UM if feature.kind == "relief" else FREE_UM
        placed = _placed(f"feature {index}", name, "as drawn", side, line, shape.region, allowed, feature=index)
        found += [placed] if placed is not None else []
    return tuple(found)


def _of_chain(
    part: Part, side: str, elements: tuple[Element, ...], chain: Chain | Profile, near: Region, region: Region
) -> Iterator[Drawn]:
    for number, (segment, index, corner) in enumerate(zip(chain.segments, chain.elements, chain.corners, strict=True)):
        if segment.length < SAME_MM:
            continue
        line = shapely.intersection(shapely.LineString(segment.points(0.0005)), near)
        element = elements[index] if index < len(elements) else None
        what, wanted = _words(part, side, segment, element, corner, number, chain)
        level = element is not None and not corner and _is_level(segment)
        size = turned_size(element, side) if element is not None and level else None
        allowed = max((size.upper_um - size.lower_um) / 4, LEAST_UM) if size is not None else FREE_UM
        key = f"{side} {index}{' corner' if corner else ''}"
        one = _placed(key, what, wanted, side, line, region, allowed=allowed, element=None if corner else index)
        if one is not None:
            yield one


def _words(
    part: Part, side: str, segment: Segment, element: Element | None, corner: bool, number: int, chain: Chain | Profile
) -> tuple[str, str]:
    """What a segment is, and what is wanted of it."""
    z, r = segment.at(0.5)
    place = said("Z {}, Ø {}", q(z, "mm", "-.2f", bare=True), q(2 * r, "mm", "g", bare=True))
    if corner:
        kind = element.corner if element is not None else None
        if kind is None and abs(segment.start[0] - segment.end[0]) < SAME_MM:  # between cylinders of other limits
            return said("step at {}", place), said("{} on radius", q(segment.length, "mm", "g"))
        if kind is None:
            return said("edge break at {}", place), said("{}", q(part.edge_break_mm, "mm", "g"))
        word = "chamfer" if kind.kind == "chamfer" else "round"
        return said("{} at {}", word, place), said("{}", q(kind.size_mm, "mm", "g"))
    (z0, r0), (z1, r1) = segment.start, segment.end
    named = element.name if element is not None else ""
    if isinstance(segment, Line) and abs(z1 - z0) < SAME_MM:
        if side == "outside" and number == 0:
            return named or "front face", said("Z {}", q(z1, "mm", "-g"))
        if side == "outside" and number == len(chain.segments) - 1:
            return "back face", said("Z {}", q(z1, "mm", "-g"))
        where = said("face at Z {}", q(z1, "mm", "-g", bare=True))
        return named or where, said("Ø {} to Ø {}", q(2 * r0, "mm", "g", bare=True), q(2 * r1, "mm", "g"))
    long = said("Z {} to {}", q(z0, "mm", "-g", bare=True), q(z1, "mm", "-g"))
    where = "bore" if side == "inside" else "outside"
    if isinstance(segment, Arc):
        return named or said("arc, {} {}", where, place), long
    if _is_level(segment):
        words = said("Ø {}, {}", q(2 * r0, "mm", "g", bare=True), where)
        return named or words, said("Ø {}, {}", q(2 * r0, "mm", "g", bare=True), long)
    ends = said("Ø {} to Ø {}", q(2 * r0, "mm", "g", bare=True), q(2 * r1, "mm", "g", bare=True))
    return named or said("cone, {} {}", where, ends), long


def _is_level(segment: Segment) -> bool:
    return isinstance(segment, Line) and abs(segment.start[1] - segment.end[1]) < SAME_MM


def _placed(
    key: str,
    what: str,
    wanted: str,
    side: str,
    line: Region,
    region: Region,
    allowed: float = FREE_UM,
    element: int | None = None,
    feature: int | None = None,
) -> Drawn | None:
    """A thing with places on it; None where nothing of it is left on the outline."""
    lines = [one for one in shapely.get_parts(_lines(line)) if one.length > SAME_MM]
    points, normals = [], []
    for one in lines:
        count = int(min(max(one.length / STEP_MM, FEWEST), MOST))
        along = np.linspace(0.0, one.length, count + 2)[1:-1]
        here = shapely.get_coordinates(shapely.line_interpolate_point(one, along))
        step = min(0.01, one.length / 10)
        ahead = shapely.get_coordinates(shapely.line_interpolate_point(one, along + step))
        behind = shapely.get_coordinates(shapely.line_interpolate_point(one, np.maximum(along - step, 0.0)))
        way = ahead - behind
        way /= np.maximum(np.linalg.norm(way, axis=1, keepdims=True), 1e-12)
        across = np.column_stack([-way[:, 1], way[:, 0]])
        probe = here + 0.002 * across
        inward = shapely.contains_xy(region, probe[:, 0], probe[:, 1])
        across[inward] *= -1.0
        points.append(here)
        normals.append(across)
    if not points:
        return None
    return Drawn(
        key=key,
        what=what,
        wanted=wanted,
        side=side,
        line=shapely.MultiLineString(lines),
        points=np.vstack(points),
        normals=np.vstack(normals),
        allowed_um=allowed,
        element=element,
        feature=feature,
    )


def _lines(region: Region) -> Region:
    """Only the lines of what was cut out of an outline, joined."""
    lines = [one for one in shapely.get_parts(region) if one.geom_type == "LineString" and not one.is_empty]
    return shapely.line_merge(shapely.MultiLineString(lines)) if lines else shapely.MultiLineString()
