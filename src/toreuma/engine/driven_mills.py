"""What a driven mill cuts at one angle of the work, from its moves: a flat, a slot outside, or one in the face."""

import math
from typing import Any

from toreuma.core.geometry.region import Region, box
from toreuma.core.model.tool import EndMill
from toreuma.core.motion import Motion
from toreuma.engine.driven_places import AXIAL, RADIAL, SAME_MM

__all__ = ["FLATS", "SLOTS", "Flat"]

DIGITS = 4
FAR_MM = 1e5

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
    return {
        "kind": "slot", "on": "outside", "width_mm": round(high - low + tool.d_mm, DIGITS),
        "depth_mm": round(outer - level, DIGITS), "from_z_mm": 0.0 if is_open else round(front, DIGITS),
        "to_z_mm": round(back, DIGITS), "round_ends": True,
    }  # fmt: skip


def _slot_in_face(part: Region, tool: EndMill, cuts: list[Motion]) -> Row | None:
    level = min(one.end[0] for one in cuts)
    floor = [one for one in cuts if max(one.start[0], one.end[0]) < level + SAME_MM]
    if not floor or level >= -SAME_MM:
        return None
    places = [x for one in floor for x in (one.start[1], one.end[1])]
    begin, end = min(places) - tool.d_mm / 2, max(places) + tool.d_mm / 2
    low, high = _across(floor)
    outer = _outer(part, level, 0.0)
    if abs(low + high) > SAME_MM or end - begin < high - low + tool.d_mm - SAME_MM:
        return None
    whole = begin <= -outer + SAME_MM and end >= outer - SAME_MM
    return {
        "kind": "slot", "on": "front", "width_mm": round(high - low + tool.d_mm, DIGITS),
        "depth_mm": round(-level, DIGITS), "length_mm": 0.0 if whole else round(end - begin, DIGITS),
        "off_mm": 0.0 if whole else round(abs(begin + end) / 2, DIGITS), "round_ends": True,
    }  # fmt: skip


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


FLATS = {RADIAL: _flat_from_above, AXIAL: _flat_from_the_side}
SLOTS = {RADIAL: _slot_outside, AXIAL: _slot_in_face}
"""By the way the mill stands; each gives None for what is nothing of the kind."""
