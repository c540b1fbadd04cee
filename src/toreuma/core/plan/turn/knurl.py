"""Knurling: wheels are pressed into the turning piece and fed along it; the ridges they leave stand above it.

The wheels begin half on the piece where its end is free, so that they find their way, stand there for a few turns,
go along, and stand again. Nothing is cut: metal goes up as far as it is pressed away below (DIN 82).
"""

import math
from dataclasses import dataclass

import shapely
from shapely.affinity import translate

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.model import Knurl, RollKnurl
from toreuma.core.model.tool import KnurlingTool
from toreuma.core.motion import Spindle
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.plan.numbers.situations import rung_of_feed
from toreuma.core.spoken import q, said
from toreuma.core.standards.knurls import blank_d_mm, pressed_mm, raised_mm

__all__ = ["plan_knurl"]

SPEED_SHARE = 0.8
"""Surface speed against that of roughing with the same tool material: typical."""

PRESS_SHARE = 0.4
"""Feed inwards against that along the piece: the wheels shall mark it in few turns."""

SAME_MM, BLANK_MM, PITCH_MM = 1e-6, 0.05, 0.01
TOUCH_MM2 = 0.01
LIFT_MM = 0.1


@dataclass(frozen=True, kw_only=True)
class _Place:
    """Where the middle of the wheels goes from and to along Z, and the radii of surface, ridges and roots."""

    from_z: float
    to_z: float
    surface_r: float
    ridge_r: float
    root_r: float


def plan_knurl(work: Work, operation: RollKnurl) -> Cuts:
    """Roll a knurl of the part. Raises `OperationFault` where wheels and knurl do not suit each other."""
    tool, knurl = work.tool, _knurl(work, operation)
    if not isinstance(tool, KnurlingTool):
        raise OperationFault("tool.kind", f"{tool.id} is no knurling tool", "choose one with the knurl's wheels")
    if tool.form != knurl.form or abs(tool.pitch_mm - knurl.pitch_mm) > PITCH_MM:
        what = f"{tool.id} rolls {tool.form} {tool.pitch_mm:g}, the part has {knurl.form} {knurl.pitch_mm:g}"
        raise OperationFault("knurl.other", what, "choose the wheels of the knurl")
    place = _place(work, knurl, tool)
    figures, reasons = _numbers(work, tool, knurl, place)
    feed, rpm = figures.feed_mm_rev or 0.0, figures.rpm or 0.0
    path = Path(work, Spindle("fixed", rpm))
    clear, dwell_s = place.ridge_r + APPROACH_MM, operation.dwell_turns * 60 / rpm
    path.come(place.from_z, clear)
    begin = len(path.motions)
    path.feed(feed * PRESS_SHARE, r=place.root_r)
    path.event("", dwell_s)
    if place.to_z < place.from_z - SAME_MM:
        path.feed(feed, z=place.to_z)
        path.event("", dwell_s)
    drawn = tuple(motion.segment for motion in path.motions[begin:] if motion.feed is not None)
    path.feed(feed, r=place.ridge_r + LIFT_MM)  # out of the ridges first
    path.rapid(r=clear)
    path.leave()
    ring = box(knurl.from_z_mm - knurl.length_mm, place.surface_r, knurl.from_z_mm, place.ridge_r)
    return Cuts(
        motions=tuple(path.motions),
        passes=(Pass(drawn, place.surface_r - place.root_r, finishing=True),),
        reasons=reasons,
        findings=(*_surface(work, operation, knurl, place), *_in_the_way(work, operation, place)),
        becomes=union([work.stock, ring]),
        figures=figures,
    )


def _knurl(work: Work, operation: RollKnurl) -> Knurl:
    features = work.given.part.features
    found = features[operation.feature] if operation.feature < len(features) else None
    if not isinstance(found, Knurl):
        raise OperationFault("knurl.none", f"feature {operation.feature + 1} is no knurl", "choose a knurl of the part")
    return found


def _place(work: Work, knurl: Knurl, tool: KnurlingTool) -> _Place:
    half, low = tool.wheel_width_mm / 2, knurl.from_z_mm - knurl.length_mm
    middle = (low + knurl.from_z_mm) / 2
    surface_r = _height(work.scene.part, middle, middle + SAME_MM)
    root_r = surface_r - pressed_mm(knurl.form, knurl.pitch_mm)
    ridge_r = surface_r + raised_mm(knurl.form, knurl.pitch_mm)
    free_front = _height(work.stock, knurl.from_z_mm, knurl.from_z_mm + 2 * half) <= surface_r + BLANK_MM
    free_back = _height(work.stock, low - 2 * half, low) <= surface_r + BLANK_MM
    first = knurl.from_z_mm if free_front else knurl.from_z_mm - half
    last = low if free_back else low + half
    if last > first + SAME_MM:
        what = said("the wheels are {} wide, the knurl between its shoulders {}", q(2 * half), q(knurl.length_mm))
        raise OperationFault("knurl.wide", what, "narrower wheels")
    return _Place(from_z=first, to_z=last, surface_r=surface_r, ridge_r=ridge_r, root_r=root_r)


def _height(region: Region, low: float, high: float) -> float:
    """The highest radius of a region between two places along Z, mm; 0 where there is nothing."""
    there = shapely.clip_by_rect(region, low, 0, high, 1e4)
    return 0.0 if there.is_empty else float(there.bounds[3])


def _numbers(work: Work, tool: KnurlingTool, knurl: Knurl, place: _Place) -> tuple[Figures, Reasons]:
    pitch, nominal = knurl.pitch_mm, 2 * place.ridge_r
    speed = axial_speed(work, tool.material, nominal, SPEED_SHARE, "knurling")
    usual = rung_of_feed(work.given.machine, round(sum(tool.feed_mm_rev) / 2, 3))
    feed = Evidence("feed", "f", usual, "mm/rev", formula="middle of the wheels' range", typable=True)
    inputs = (Input("over the ridges", "d1", nominal, "mm"), Input("pitch", "t", pitch, "mm"))
    source = "DIN 82"
    wanted = work.operation.pins.feed_mm_rev
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=speed.rpm, feed_mm_rev=usual if wanted is None else wanted)
    return figures, {
        **speed.reasons,
        Figure.FEED: pinned(feed, wanted),
        Figure.BLANK: Evidence(
            "turned before it to", "d2", blank_d_mm(knurl.form, nominal, pitch), "mm", measured_on="on diameter",
            formula="d2 = d1 − 0.5 t" if knurl.form == "RAA" else "d2 = d1 − 0.67 t", source=source, inputs=inputs,
        ),
        Figure.PRESSED: Evidence(
            "wheels pressed in", "", place.surface_r - place.root_r, "mm", measured_on="on radius",
            formula="t/2 − (d1 − d2)/2", source=source, inputs=inputs,
        ),
        Figure.RIDGES: Evidence(
            "ridges round the piece", "", math.pi * 2 * place.surface_r / pitch, "", formula="π d2 / t",
            note="Near a whole number the wheels fall into their own marks after the first turn.",
        ),
    }  # fmt: skip


def _surface(work: Work, operation: RollKnurl, knurl: Knurl, place: _Place) -> list[Finding]:
    """The cylinder has to be turned to the knurl's own diameter first."""
    there = _height(work.stock, knurl.from_z_mm - knurl.length_mm + SAME_MM, knurl.from_z_mm - SAME_MM)
    if abs(there - place.surface_r) <= BLANK_MM:
        return []
    what = said("the metal stands at Ø {}, the knurl wants Ø {}", q(2 * there), q(2 * place.surface_r))
    return [Finding("error", "knurl.blank", what, "turn it to that before", operation=operation.id)]


def _in_the_way(work: Work, operation: RollKnurl, place: _Place) -> list[Finding]:
    """The holder beside the wheels against the piece, and both against the hold."""
    found = []
    missing = work.limit_z - place.to_z
    if missing > 0:
        what = said("the wheels come {} too close to the jaws", q(missing))
        cure = stick_out_more(float(int(missing + 1) + 1))
        found.append(
            Finding("error", "hold.short", what, "they keep their clearance", operation=operation.id, cures=(cure,))
        )
    body = work.shape.body
    for z in {place.from_z, place.to_z}:
        met = translate(body, z, place.root_r).intersection(work.stock)
        if met.area > TOUCH_MM2:
            what = said("the holder of {} stands {} inside the piece", work.tool.id, q(met.bounds[3] - met.bounds[1]))
            why = "a slimmer holder, or knurl it before the shoulder beside it stands"
            found.append(Finding("error", "knurl.holder", what, why, operation=operation.id))
            break
    return found
