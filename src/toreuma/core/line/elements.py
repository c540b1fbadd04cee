"""From placed steps to the elements of a profile, with their corners."""

import math
from dataclasses import replace
from typing import Literal

from toreuma.core.line.fault import Misread
from toreuma.core.line.place import SAME_MM, Placed
from toreuma.core.line.step import CornerWord
from toreuma.core.model import Element
from toreuma.core.model.part import Corner

__all__ = ["elements_of", "end_of_corner", "is_edge"]

Side = Literal["outside", "inside"]
End = Literal["front", "back"]


def is_edge(placed: list[Placed], index: int, end: End, side: Side, through: bool = True) -> bool | None:
    """Whether metal ends in an outer edge at an end of a step (True), or in an inner corner (False); None where the
    step runs on without a face."""
    here = placed[index]
    d = here.d0 if end == "front" else here.d1
    beside = index - 1 if end == "front" else index + 1
    if beside < 0 or beside >= len(placed):
        if side == "inside" and end == "back" and not through:
            return False  # the bottom of a blind bore
        return True if d > SAME_MM else None
    other = placed[beside].d1 if end == "front" else placed[beside].d0
    if abs(other - d) < SAME_MM:
        return None
    return (d > other) == (side == "outside")


def end_of_corner(placed: list[Placed], index: int, corner: CornerWord, side: Side, through: bool) -> tuple[End, ...]:
    """The ends of a step a corner belongs to."""
    if corner.where == "both":
        return ("front", "back")
    if corner.where:
        return (corner.where,)
    front, back = (is_edge(placed, index, end, side, through) for end in ("front", "back"))
    if corner.kind == "chamfer":
        return ("front",) if front else ("back",)
    if back is False:
        return ("back",)
    if front is False:
        return ("front",)
    return ("front",) if front and not back else ("back",)


def elements_of(placed: list[Placed], side: Side, through: bool = True) -> tuple[Element, ...]:
    """Elements of a profile that begins on the axis at Z 0. Raises `Misread`."""
    corners: list[dict[End, CornerWord]] = []
    for index, one in enumerate(placed):
        mine: dict[End, CornerWord] = {}
        for word in one.step.corners:
            corner = _sized(word, one)
            for end in end_of_corner(placed, index, corner, side, through):
                other: End = "back" if end == "front" else "front"
                if end in mine and not corner.where and other not in mine:
                    end = other  # two corners without words: one at either end
                mine[end] = corner
        corners.append(mine)
    found: list[Element] = []
    _z, d = 0.0, 0.0
    for index, one in enumerate(placed):
        mine = corners[index]
        front, back = mine.get("front"), mine.get("back")
        d0, z0 = one.d0, one.z0 + 0.0
        cone_front = _cone(one, front, is_edge(placed, index, "front", side, through))
        cone_back = _cone(one, back, is_edge(placed, index, "back", side, through))
        sign = -1 if side == "outside" else 1
        if cone_front:
            d0 = round(d0 + sign * 2 * cone_front[1], 6)
        if abs(d0 - d) > SAME_MM:
            edge = _corner(front) if not cone_front else None
            found.append(Element(z_mm=z0, d_mm=d0, corner=edge, ra_um=one.step.face_ra_um, name=one.step.face_name))
        elif front is not None and not cone_front and found:
            found[-1] = found[-1].changed(corner=_corner(front))
        if cone_front:
            found.append(Element(z_mm=round(z0 - cone_front[0], 6), d_mm=one.d0))
        end_z = one.z1 + (cone_back[0] if cone_back else 0.0)
        arc = {"kind": "arc", "radius_mm": one.step.radius_mm} if one.step.radius_mm is not None else {}
        bulge = "concave" if one.step.hollow else "convex"
        found.append(
            Element.model_validate(
                {
                    **arc,
                    "bulge": bulge,
                    "z_mm": round(end_z, 6),
                    "d_mm": one.d1,
                    "size": one.step.size,
                    "corner": _corner(back) if back is not None and not cone_back else None,
                    "ra_um": one.step.ra_um,
                    "grind_mm": one.step.grind_mm,
                    "name": one.step.name,
                }
            )
        )
        d = one.d1
        if cone_back:
            d = round(one.d1 + sign * 2 * cone_back[1], 6)
            found.append(Element(z_mm=one.z1, d_mm=d))
    return tuple(found)


def _sized(word: CornerWord, one: Placed) -> CornerWord:
    """A chamfer given by the diameter it reaches, by its size."""
    if word.to_d_mm is None:
        return word
    size = round(abs(word.to_d_mm - (one.d1 if word.where == "back" else one.d0)) / 2, 6)
    if size <= 0:
        raise Misread(one.step.start, one.step.end, "the chamfer has no size", "type the diameter it reaches")
    return replace(word, size_mm=size, to_d_mm=None)


def _corner(word: CornerWord | None) -> Corner | None:
    return Corner(kind=word.kind, size_mm=word.size_mm) if word is not None else None


def _cone(one: Placed, corner: CornerWord | None, edge: bool | None) -> tuple[float, float] | None:
    """Length along Z and height of a chamfer that is not 45°."""
    if corner is None or corner.kind == "round" or abs(corner.angle_deg - 45) < 1e-9:
        return None
    if edge is not True or one.step.tapers:
        what = "a chamfer that is not 45° stands on the outer edge of a cylinder"
        raise Misread(one.step.start, one.step.end, what, "write it as a taper of its own, such as 30>40 x 3")
    return corner.size_mm, round(corner.size_mm * math.tan(math.radians(corner.angle_deg)), 6)
