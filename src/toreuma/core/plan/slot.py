"""Slots and keyways: down in layers along the middle, then outward to the walls in steps of one width of cut."""

import math

import shapely

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.milled import Sunk
from toreuma.core.geometry.shape import quarter_chords
from toreuma.core.model import MillSlot, Slot
from toreuma.core.model.tool import EndMill
from toreuma.core.plan.driven import carrier_and_drive, feature_of, near_hold, places_of
from toreuma.core.plan.driven_path import DrivenPath
from toreuma.core.plan.layers import layers
from toreuma.core.plan.milling import mill_numbers
from toreuma.core.plan.result import Cuts, OperationFault, Pass
from toreuma.core.plan.work import APPROACH_MM, Work

__all__ = ["plan_slot"]

ENGAGED_SHARE = 0.4
"""Steps outward are no wider than this share of the mill, so that every one takes the same chip."""

SAME_MM = 0.02
DOWN_SHARE = 0.4
"""Feed straight down against that along the slot: typical."""

ROUGH_CHORD_MM, CHORD_MM = 0.02, 0.0015
"""How far chords lie inside the rounds of the way, in the roughing cuts and in the last one."""


def plan_slot(work: Work, operation: MillSlot) -> Cuts:
    """Every slot in turn, the work standing at its angle."""
    tool = work.tool
    if not isinstance(tool, EndMill):
        raise OperationFault("tool.kind", f"{tool.id} is no end mill", "choose an end mill")
    carrier, live = carrier_and_drive(work)
    feature = feature_of(work, operation.feature, Slot)
    places = places_of(work, operation.feature, feature)
    if tool.d_mm > feature.width_mm + SAME_MM:
        what = f"the slot is {feature.width_mm:g} mm wide, {tool.id} is Ø{tool.d_mm:g}"
        raise OperationFault("mill.wide", what, "choose a mill no wider than the slot")
    aside = max((feature.width_mm - tool.d_mm) / 2, 0.0)
    if aside > SAME_MM and aside > carrier.y_mm:
        what = f"the walls lie {aside:.1f} mm beside the middle, Y of the {carrier.name} reaches {carrier.y_mm:g} mm"
        raise OperationFault("y.travel", what, "choose a mill of the slot's width, or another carrier")
    place = places[0]
    depth = place.top - place.level
    numbers = mill_numbers(work, tool, live, tool.d_mm, depth)
    leave = operation.leave_mm if aside > SAME_MM else 0.0
    path = DrivenPath(work, numbers.rpm)
    for one in places:
        _one_slot(path, one, feature, tool, numbers.ap_mm, (aside, leave), numbers.vf_mm_min)
    path.leave(along_x=place.along == "x")
    low = place.region.bounds[0] if place.along == "x" else place.level
    findings = (*_findings(operation, feature, tool, depth, aside), *near_hold(work, float(low)))
    drawn = tuple(
        Pass((one.segment,), numbers.ap_mm)
        for one in path.motions
        if not one.is_rapid
        and one.driven is not None
        and one.driven.y == (0.0, 0.0)
        and one.driven.c_deg == place.c_deg
    )
    return Cuts(tuple(path.motions), drawn, numbers.values, findings, becomes=work.stock, opens=operation.feature)


def _ends(place: Sunk, feature: Slot) -> tuple[float, float]:
    """From one end of the middle line to the other, along the slot."""
    half = feature.width_mm / 2
    if place.along == "z":
        if not feature.length_mm:  # right across: it runs out of the metal on both sides
            across = float(shapely.hausdorff_distance(place.region, shapely.Point(0, 0)))
            return -across, across
        return half - feature.length_mm / 2, feature.length_mm / 2 - half
    low, _, high, _ = place.region.bounds
    runs_out = high > max(feature.from_z_mm, feature.to_z_mm) + SAME_MM
    return low + half, high if runs_out else high - half


def _one_slot(
    path: DrivenPath, place: Sunk, feature: Slot, tool: EndMill, ap: float, walls: tuple[float, float], vf: float
) -> None:
    """``walls``: how far they lie from the middle of the mill, and what is left on them for the last cut."""
    start, end = _ends(place, feature)
    aside, leave = walls
    clear = place.top + APPROACH_MM
    path.index(place.c_deg)
    across = place.along == "x"

    def go(u: float, v: float, feed: float | None = None) -> None:
        move = {"z": u, "y": v} if across else {"x": u, "y": v}
        path.rapid(**move) if feed is None else path.feed(feed, **move)

    def sink(level: float, feed: float | None = None) -> None:
        move = {"x": level} if across else {"z": level}
        path.rapid(**move) if feed is None else path.feed(feed, **move)

    go(end, 0.0)
    sink(clear)
    at, far = end, start
    for level in layers(place.top, place.level, ap, 0.0):
        sink(level, DOWN_SHARE * vf)
        go(far, 0.0, vf)
        at, far = far, at
        rough = max(aside - leave, 0.0)
        count = math.ceil(rough / (ENGAGED_SHARE * tool.d_mm) - 1e-9) if rough > SAME_MM else 0
        for step in range(count):
            chord = CHORD_MM if leave <= 0 and step == count - 1 else ROUGH_CHORD_MM
            for u, v in _round((start, end), at, rough * (step + 1) / count, feature.round_ends, chord):
                go(u, v, vf)
    if aside > SAME_MM and leave > 0:
        for u, v in _round((start, end), at, aside, feature.round_ends, CHORD_MM):
            go(u, v, vf)
    sink(clear)


def _round(ends: tuple[float, float], at: float, aside: float, round_ends: bool, chord_mm: float) -> list[Point]:
    """Once round the middle line at a distance, beginning and ending at ``at`` on it."""
    if ends[1] - ends[0] < SAME_MM:  # as long as it is wide
        line = shapely.Point((ends[0] + ends[1]) / 2, 0.0)
    else:
        line = shapely.LineString([(ends[0], 0.0), (ends[1], 0.0)])
    style = "round" if round_ends else "square"
    ring = line.buffer(aside, quad_segs=quarter_chords(aside, chord_mm), cap_style=style, join_style="mitre")
    points = [(float(u), float(v)) for u, v in shapely.get_coordinates(ring.exterior)[:-1]]
    first = min(range(len(points)), key=lambda n: math.dist(points[n], (at, 0.0)))
    return [*points[first:], *points[:first], points[first], (at, 0.0)]


def _findings(operation: MillSlot, feature: Slot, tool: EndMill, depth: float, aside: float) -> list[Finding]:
    found = []
    if depth > tool.out_mm:
        what = f"the slot is {depth:.1f} mm deep, the mill stands out {tool.out_mm:.1f} mm"
        found.append(Finding("error", "mill.short", what, "its holder meets the part: take a longer one", operation.id))
    if not tool.centre_cutting:
        what = f"{tool.id} does not cut on its middle and would go straight down"
        cure = f"drill a start hole Ø{tool.d_mm:g} first, or choose one that does"
        found.append(Finding("warning", "mill.start", what, cure, operation.id))
    if not feature.round_ends and aside > SAME_MM:
        what = f"R {tool.d_mm / 2:g} stays in the corners of the slot"
        found.append(Finding("warning", "mill.corner", what, "a mill is round: draw the ends round", operation.id))
    return found
