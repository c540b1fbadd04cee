"""Necks between two equal diameters, drawn as steps, written as the grooves they are."""

from toreuma.core.kinds.features import FEATURES
from toreuma.core.model.feature import Groove
from toreuma.core.model.part import Corner, Element, Part

__all__ = ["necks_as_grooves"]

SAME_MM = 1e-6
WIDEST_MM = 25.0
"""A wider one is turned, not plunged."""


def necks_as_grooves(part: Part) -> Part | None:
    """The same part with square necks as grooves; None where it has none that a groove can say.

    A neck is a cylinder between two faces of one height, without limits, roughness or rounds of its own; what lies
    beside it is of one diameter, with the same limits.
    """
    outside, grooves = list(part.outside), []
    at = 1
    while at + 4 < len(outside):
        groove = _neck(outside[at - 1 : at + 5], part)
        if groove is None:
            at += 1
            continue
        grooves.append(groove)
        del outside[at : at + 4]
    if not grooves:
        return None
    found: Part = part.changed(outside=tuple(outside), features=(*part.features, *grooves))
    return found


def _neck(chain: list[Element], part: Part) -> Groove | None:
    """The groove of six elements: the place before, and the ends of a cylinder, a face, the neck's floor, the other
    face, and the cylinder behind."""
    before, edge, foot, floor, top, behind = chain
    if any(one.kind != "line" for one in chain):
        return None
    level = all(abs(one.d_mm - edge.d_mm) < SAME_MM for one in (before, top, behind))
    faces = abs(edge.z_mm - foot.z_mm) < SAME_MM and abs(floor.z_mm - top.z_mm) < SAME_MM
    flat = abs(foot.d_mm - floor.d_mm) < SAME_MM and foot.d_mm < edge.d_mm - SAME_MM
    width = foot.z_mm - floor.z_mm
    if not (level and faces and flat) or not SAME_MM < width <= WIDEST_MM:
        return None
    if any(one.size or one.ra_um for one in (foot, floor, top)) or foot.corner or floor.corner:
        return None
    if (edge.size, edge.ra_um) != (behind.size, behind.ra_um):
        return None
    broken = _broken(edge.corner), _broken(top.corner)
    if broken[0] is None or broken[0] != broken[1] or _carries(part, foot.z_mm, floor.z_mm):
        return None
    return Groove(
        z_mm=edge.z_mm, width_mm=round(width, 6), d_mm=foot.d_mm, edge_break_mm=broken[0], name=floor.name or top.name
    )


def _broken(corner: Corner | None) -> float | None:
    """How far an edge is broken; None where it is rounded."""
    if corner is None:
        return 0.0
    return corner.size_mm if corner.kind == "chamfer" else None


def _carries(part: Part, front: float, back: float) -> bool:
    """A feature lies in a stretch of the outside."""
    lies = (FEATURES[one.kind].on_outside(one) for one in part.features)
    return any(one is not None and one[2] < front - SAME_MM and one[1] > back + SAME_MM for one in lies)
