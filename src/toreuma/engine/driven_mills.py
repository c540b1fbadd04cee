"""What a driven mill cuts at one angle of the work, from its moves: a flat, a slot outside, or one in the face."""

import math
from typing import Any

import shapely
from pydantic import ValidationError
from shapely.affinity import scale

from toreuma.core.errors import PartError
from toreuma.core.geometry.milled import sunk_of
from toreuma.core.geometry.region import Region, box
from toreuma.core.model.feature import Slot
from toreuma.core.model.tool import EndMill
from toreuma.core.motion import Motion
from toreuma.engine.driven_places import AXIAL, RADIAL, SAME_MM

__all__ = ["FLATS", "SLOTS", "Flat", "is_same_place", "is_within"]

DIGITS = 4
FAR_MM = 1e5
SHAPE_MM = 0.03
"""What is cut and what is drawn may differ by so much all round."""

ROUND_SEGS = 16

Row = dict[str, Any]
Flat = tuple[float, tuple[float, float]]
"""How far it is from the axis, and where along Z it begins and ends, mm."""


def _flat_from_above(part: Region, tool: EndMill, cuts: list[Motion]) -> Flat | None:
    level = min(one.end[1] for one in cuts)
    floor = [one for one in cuts if max(one.start[1], one.end[1]) < level + SAME_MM]
    if not floor or level <= 0:
        return None
    span = _span(floor, tool.d_mm / 2)
    front, back = min(span[1], 0.0), span[0]
    outer = _outer(part, back, front)
    half = math.sqrt(max(outer**2 - level**2, 0.0))
    wide = _across(floor)
    covers = wide[0] - tool.d_mm / 2 <= -half + SAME_MM and wide[1] + tool.d_mm / 2 >= half - SAME_MM
    return (level, (front, back)) if half > SAME_MM and covers and front - back > SAME_MM else None


def _flat_from_the_side(part: Region, tool: EndMill, cuts: list[Motion]) -> Flat | None:
    back = min(one.end[0] for one in cuts)
    across = [one for one in cuts if one.driven is not None and abs(one.driven.y[1] - one.driven.y[0]) > SAME_MM
              and abs(one.end[1] - one.start[1]) < SAME_MM]  # fmt: skip
    if not across or back >= -SAME_MM:
        return None
    distance = min(one.end[1] for one in across) - tool.d_mm / 2
    outer = _outer(part, back, 0.0)
    wide = _across(across)
    half = math.sqrt(max(outer**2 - distance**2, 0.0)) if distance > 0 else 0.0
    covers = half > SAME_MM and wide[0] <= -half + SAME_MM and wide[1] >= half - SAME_MM
    return (distance, (0.0, back)) if covers else None


def _slot_outside(part: Region, tool: EndMill, cuts: list[Motion]) -> Row | None:
    level = min(one.end[1] for one in cuts)
    floor = [one for one in cuts if max(one.start[1], one.end[1]) < level + SAME_MM]
    if not floor or level <= 0:
        return None
    back, front = _span(floor, tool.d_mm / 2)
    low, high = _across(floor)
    is_open = front > SAME_MM
    front = min(front, 0.0)
    outer = _outer(part, back, front)
    if outer - level < SAME_MM or front - back < SAME_MM or abs(low + high) > SAME_MM:
        return None
    return _of_that_shape(part, tool, floor, {
        "kind": "slot", "on": "outside", "width_mm": round(high - low + tool.d_mm, DIGITS),
        "depth_mm": round(outer - level, DIGITS), "from_z_mm": 0.0 if is_open else round(front, DIGITS),
        "to_z_mm": round(back, DIGITS),
    })  # fmt: skip


def _slot_in_face(part: Region, tool: EndMill, cuts: list[Motion]) -> Row | None:
    level = min(one.end[0] for one in cuts)
    floor = [one for one in cuts if max(one.start[0], one.end[0]) < level + SAME_MM]
    if not floor or level >= -SAME_MM:
        return None
    places = [x for one in floor for x in (one.start[1], one.end[1])]
    turned = min(places) + max(places) < -SAME_MM  # it lies beyond the axis: on the other side of the part
    if turned:
        places = [-x for x in places]
    begin, end = min(places) - tool.d_mm / 2, max(places) + tool.d_mm / 2
    low, high = _across(floor)
    outer = _outer(part, level, 0.0)
    if abs(low + high) > SAME_MM or end - begin < high - low + tool.d_mm - SAME_MM:
        return None
    whole = begin <= -outer + SAME_MM and end >= outer - SAME_MM
    row = {
        "kind": "slot", "on": "front", "width_mm": round(high - low + tool.d_mm, DIGITS),
        "depth_mm": round(-level, DIGITS), "length_mm": 0.0 if whole else round(end - begin, DIGITS),
        "off_mm": 0.0 if whole else round((begin + end) / 2, DIGITS),
    }  # fmt: skip
    found = _of_that_shape(part, tool, floor, row, turned)
    return found if found is None or not turned else found | {"start_deg": 180.0}


def _of_that_shape(part: Region, tool: EndMill, floor: list[Motion], row: Row, turned: bool = False) -> Row | None:
    """The slot with round ends, or the pocket with corners as round as the mill, that is cut there; None where what is
    cut is neither. ``turned``: it is seen from the other side of the axis."""
    face = row["on"] == "front"
    ways = [[(one.start[1 if face else 0], one.driven.y[0]), (one.end[1 if face else 0], one.driven.y[1])]
            for one in floor if one.driven is not None]  # fmt: skip
    cut = shapely.union_all([shapely.LineString(way).buffer(tool.d_mm / 2, quad_segs=ROUND_SEGS) for way in ways])
    if turned:
        cut = scale(cut, -1.0, -1.0, origin=(0.0, 0.0))
    back, _, _, outer = part.bounds
    metal = shapely.Point(0.0, 0.0).buffer(outer) if face else box(back, -outer, 0.0, outer)
    for ends in ({"round_ends": True}, {"round_ends": False, "corner_radius_mm": round(tool.d_mm / 2, DIGITS)}):
        try:
            drawn = shapely.union_all([one.region for one in sunk_of(0, Slot.model_validate(row | ends), part)])
        except (PartError, ValidationError):
            continue
        apart = (cut.difference(drawn.buffer(SHAPE_MM)), drawn.difference(cut.buffer(SHAPE_MM)))
        if not any(one.intersects(metal.buffer(-SHAPE_MM)) for one in apart):
            return row | ends
    return None


def _outer(part: Region, back: float, front: float) -> float:
    """The widest of the part between two places, on radius."""
    cut = part.intersection(box(back, 0.0, front, FAR_MM))
    return 0.0 if cut.is_empty else float(cut.bounds[3])


def _span(cuts: list[Motion], r: float) -> tuple[float, float]:
    """Back and front of what a mill along X passes over."""
    places = [z for one in cuts for z in (one.start[0], one.end[0])]
    return min(places) - r, max(places) + r


def _across(cuts: list[Motion]) -> tuple[float, float]:
    places = [y for one in cuts if one.driven is not None for y in one.driven.y]
    return min(places), max(places)


def is_same_place(one: Row, other: Row) -> bool:
    """Flats, or slots, of the same side at the same angles."""
    names = ("kind", "on", "count", "start_deg", "off_mm")
    return all(one.get(name) == other.get(name) for name in names)


def is_within(one: Row, other: Row) -> bool:
    """Whether what is cut there lies in the other."""
    if one["kind"] == "flats":
        bounds = [one["distance_mm"] >= other["distance_mm"] - SAME_MM]
    else:
        pairs = ((one[name], other[name]) for name in ("width_mm", "depth_mm"))
        bounds = [a <= b + SAME_MM for a, b in pairs]
        if "length_mm" in one:
            bounds.append(not other["length_mm"] or 0 < one["length_mm"] <= other["length_mm"] + SAME_MM)
    if "from_z_mm" in one:
        bounds += [one["from_z_mm"] <= other["from_z_mm"] + SAME_MM, one["to_z_mm"] >= other["to_z_mm"] - SAME_MM]
    return all(bounds)


FLATS = {RADIAL: _flat_from_above, AXIAL: _flat_from_the_side}
SLOTS = {RADIAL: _slot_outside, AXIAL: _slot_in_face}
"""By the way the mill stands; each gives None for what is nothing of the kind. The ``start_deg`` of a slot counts from
where the work stands."""
