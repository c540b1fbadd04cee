"""Slots, keyways and pockets: down in layers along the middle, then outward in steps of one width of cut."""

import math

import shapely

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.milled import Sunk
from toreuma.core.model import MillSlot, Slot
from toreuma.core.model.tool import EndMill
from toreuma.core.plan.ground.layers import layers
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven import carrier_and_drive, feature_of, near_hold, places_of
from toreuma.core.plan.mill.driven_holder import holder_in_the_way
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.edge_break import break_edges
from toreuma.core.plan.mill.milling import mill_numbers
from toreuma.core.plan.mill.outward import Outward
from toreuma.core.plan.mill.start_hole import start_holes
from toreuma.core.spoken import q, said

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
        what = said(
            "the slot is {} wide, {} is Ø{}",
            q(feature.width_mm, "mm", "g"),
            tool.id,
            q(tool.d_mm, "mm", "g", bare=True),
        )
        raise OperationFault("mill.wide", what, "choose a mill no wider than the slot")
    aside = max((feature.width_mm - tool.d_mm) / 2, 0.0)
    if aside > SAME_MM and aside > carrier.y_mm:
        what = said(
            "the walls lie {} beside the middle, Y of the {} reaches {}",
            q(aside, "mm", ".1f"),
            carrier.name,
            q(carrier.y_mm, "mm", "g"),
        )
        raise OperationFault("y.travel", what, "choose a mill of the slot's width, or another carrier")
    place = places[0]
    depth = place.top - place.level
    numbers = mill_numbers(work, tool, live, tool.d_mm, depth)
    leave = operation.leave_mm if aside > SAME_MM else 0.0
    ways = [_outward(one, feature, tool.d_mm) for one in places]
    begun = start_holes(work, operation, places, [way.end for way in ways]) if operation.start_tool else None
    path = DrivenPath(work, numbers.rpm)
    for one, way in zip(places, ways, strict=True):
        _one_slot(path, one, way, tool, numbers.ap_mm, leave, numbers.vf_mm_min, begun is not None)
    path.leave(along_x=place.along == "x")
    low = place.region.bounds[0] if place.along == "x" else place.level
    findings = (
        *_findings(work, operation, feature, tool, depth),
        *near_hold(work, float(low)),
        *holder_in_the_way(work, path.motions),
    )
    drawn = tuple(
        Pass((one.segment,), numbers.ap_mm)
        for one in path.motions
        if not one.is_rapid
        and one.driven is not None
        and one.driven.y == (0.0, 0.0)
        and one.driven.c_deg == place.c_deg
    )
    motions, reasons = tuple(path.motions), numbers.reasons
    if begun is not None:
        motions, reasons = (*begun.motions, *motions), {**reasons, **begun.reasons}
        findings = (*findings, *begun.findings)
    if operation.edge_tool:
        broken = break_edges(work, operation, places, [_outward(one, feature, 0.0) for one in places])
        motions, reasons = (*motions, *broken.motions), {**reasons, **broken.reasons}
        findings = (*findings, *broken.findings)
    opens, figures = (operation.feature,), numbers.figures
    return Cuts(
        motions=motions,
        passes=drawn,
        reasons=reasons,
        findings=findings,
        becomes=work.stock,
        opens=opens,
        figures=figures,
    )


def _outward(place: Sunk, feature: Slot, d_mm: float) -> Outward:
    """Where the middle of a mill of that diameter goes in one slot."""
    start, end = _ends(place, feature)
    aside = max((feature.width_mm - d_mm) / 2, 0.0)
    corner = min(max(feature.corner_radius_mm - d_mm / 2, 0.0), aside)
    across = feature.on != "outside" and not feature.length_mm
    return Outward(start=start, end=end, aside=aside, corner=corner, round_ends=feature.round_ends and not across)


def _ends(place: Sunk, feature: Slot) -> tuple[float, float]:
    """From one end of the middle line to the other, along the slot."""
    half = feature.width_mm / 2
    if place.along == "z":
        if not feature.length_mm:  # right across: it runs out of the metal on both sides
            across = float(shapely.hausdorff_distance(place.region, shapely.Point(0, 0)))
            return -across, across
        return feature.off_mm + half - feature.length_mm / 2, feature.off_mm + feature.length_mm / 2 - half
    low, _, high, _ = place.region.bounds
    runs_out = high > max(feature.from_z_mm, feature.to_z_mm) + SAME_MM
    return low + half, high if runs_out else high - half


def _one_slot(
    path: DrivenPath, place: Sunk, way: Outward, tool: EndMill, ap: float, leave: float, vf: float, drilled: bool
) -> None:
    """One slot in layers; ``leave`` is left on its walls for the last cut. Where a start hole is ``drilled`` the mill
    goes down in it, else wherever it stands."""
    clear = place.top + APPROACH_MM
    path.index(place.c_deg)
    across = place.along == "x"

    def go(u: float, v: float, feed: float | None = None) -> None:
        move = {"z": u, "y": v} if across else {"x": u, "y": v}
        path.rapid(**move) if feed is None else path.feed(feed, **move)

    def sink(level: float, feed: float | None = None) -> None:
        move = {"x": level} if across else {"z": level}
        path.rapid(**move) if feed is None else path.feed(feed, **move)

    go(way.end, 0.0)
    sink(clear)
    at, far = way.end, way.start
    for level in layers(place.top, place.level, ap, 0.0):
        if drilled and at != way.end:
            go(way.end, 0.0, vf)
            at, far = way.end, way.start
        sink(level, DOWN_SHARE * vf)
        go(far, 0.0, vf)
        at, far = far, at
        for ring in way.rings(leave, ENGAGED_SHARE * tool.d_mm, CHORD_MM if leave <= 0 else ROUGH_CHORD_MM):
            for u, v in _from(ring, at):
                go(u, v, vf)
    if way.aside > SAME_MM and leave > 0:
        for u, v in _from(way.last(CHORD_MM), at):
            go(u, v, vf)
    sink(clear)


def _from(ring: list[Point], at: float) -> list[Point]:
    """Once round, beginning and ending at ``at`` on the middle line."""
    first = min(range(len(ring)), key=lambda n: math.dist(ring[n], (at, 0.0)))
    return [*ring[first:], *ring[:first], ring[first], (at, 0.0)]


def _findings(work: Work, operation: MillSlot, feature: Slot, tool: EndMill, depth: float) -> list[Finding]:
    found = []
    if depth > tool.out_mm:
        what = said("the slot is {} deep, the mill stands out {}", q(depth, "mm", ".1f"), q(tool.out_mm, "mm", ".1f"))
        found.append(
            Finding("error", "mill.short", what, "its holder meets the part: take a longer one", operation=operation.id)
        )
    if not tool.centre_cutting and operation.start_tool is None:
        what = f"{tool.id} does not cut on its middle and would go straight down"
        why = "let a drill make a hole to go down in, or choose a mill that cuts there"
        found.append(Finding("warning", "mill.start", what, why, operation=operation.id))
    across = feature.on != "outside" and not feature.length_mm
    if not feature.round_ends and not across and tool.d_mm / 2 > feature.corner_radius_mm + SAME_MM:
        what = said("R {} stays in the corners of the slot", q(tool.d_mm / 2, "mm", "g", bare=True))
        if feature.corner_radius_mm:
            what += said(", R {} is wanted", q(feature.corner_radius_mm, "mm", "g", bare=True))
        found.append(
            Finding("warning", "mill.corner", what, "a mill is round: take a smaller one", operation=operation.id)
        )
    return found
