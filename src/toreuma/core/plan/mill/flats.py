"""Flats: the work stands at each angle while an end mill goes across, with its end or with its side."""

import math
from dataclasses import dataclass

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.milled import Along, Sunk
from toreuma.core.geometry.region import box
from toreuma.core.model import Carrier, Flats, MillFlats
from toreuma.core.model.tool import EndMill, Mill
from toreuma.core.plan.ground.layers import layers
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven import carrier_and_drive, feature_of, near_hold, places_of
from toreuma.core.plan.mill.driven_holder import holder_in_the_way
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.edge_break import break_front
from toreuma.core.plan.mill.milling import mill_numbers, side_step_mm
from toreuma.core.spoken import q, said

__all__ = ["crosses_by", "plan_flats"]

RUN_OUT_MM = 1.0


@dataclass(frozen=True)
class _Way:
    """Where the mill goes across: its middle on every stripe, the levels it sinks to, and how far it goes to a side."""

    stripes: tuple[float, ...]
    levels: tuple[float, ...]
    half_mm: float
    clear: float


def plan_flats(work: Work, operation: MillFlats) -> Cuts:
    """Each flat from above in layers where the mill stands along X, from its side where it stands along Z."""
    tool = work.tool
    if not isinstance(tool, EndMill):
        raise OperationFault("tool.kind", f"{tool.id} is no end mill", "choose an end mill")
    carrier, live = carrier_and_drive(work)
    feature = feature_of(work, operation.feature, Flats)
    along: Along = "z" if tool.mount == "axial" else "x"
    places = places_of(work, operation.feature, feature, along)
    polar = crosses_by(operation.by, carrier, tool) == "polar"
    low, high = sorted((feature.from_z_mm, feature.to_z_mm))
    depth = places[0].top - (places[0].level if along == "x" else 0.0)
    if along == "x":
        width = places[0].region.bounds[2] - places[0].region.bounds[0]
        numbers = mill_numbers(work, tool, live, min(side_step_mm(tool), width), depth)
        way = _from_above(places[0], feature, tool, numbers.ap_mm, operation.leave_mm)
    else:
        if high < float(work.scene.part.bounds[2]) - 1e-6:
            raise OperationFault("flats.behind", "metal stands in front of the flats", "mount the mill along X")
        outer = float(work.stock.intersection(box(low, 0, high, 1e5)).bounds[3])
        aside = outer - feature.distance_mm
        numbers = mill_numbers(work, tool, live, min(aside, side_step_mm(tool)), high - low)
        way = _from_the_side(places[0], feature, tool, numbers.ap_mm, operation.leave_mm, outer)
    if not polar and way.half_mm > carrier.y_mm + 1e-9:
        what = said(
            "the mill goes {} to each side, Y of the {} reaches {}",
            q(way.half_mm, "mm", ".1f"),
            carrier.name,
            q(carrier.y_mm, "mm", "g"),
        )
        raise OperationFault(
            "y.travel", what, "turn the work instead, or use another carrier", *_by_turning(operation, tool)
        )
    path = DrivenPath(work, numbers.rpm)
    for place in places:
        _one_flat(path, place, along, way, numbers.vf_mm_min, polar)
    path.leave(along_x=along == "x")
    findings = (*_findings(operation, tool, way, along), *near_hold(work, low), *holder_in_the_way(work, path.motions))
    drawn, motions, reasons = _drawn(places[0], feature, way, along), tuple(path.motions), numbers.reasons
    if operation.edge_tool:
        broken = break_front(work, operation, feature, places)
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


def crosses_by(wanted: str, carrier: Carrier, tool: Mill) -> str:
    """What makes the way across: ``y`` or ``polar``. Raises `OperationFault` where neither can."""
    if wanted == "polar" and tool.mount == "radial":
        what = f"{tool.id} stands along X: turning the work does not take it across"
        raise OperationFault("polar.radial", what, "use Y, or mount the mill along Z")
    if wanted in ("", "y") and carrier.y_mm > 0:
        return "y"
    if tool.mount == "axial" and wanted != "y":
        return "polar"
    what = f"the {carrier.name} has no Y"
    raise OperationFault("y.none", what, "mount the mill along Z and turn the work, or use another carrier")


def _by_turning(operation: MillFlats, tool: EndMill) -> tuple[Cure, ...]:
    if tool.mount != "axial":
        return ()
    return (
        Cure(
            "Go across by turning the work", lambda j: j.with_operation(operation.id, lambda o: o.changed(by="polar"))
        ),
    )


def _from_above(place: Sunk, feature: Flats, tool: EndMill, ap: float, leave: float) -> _Way:
    r = tool.d_mm / 2
    low, _, high, _ = place.region.bounds
    inner, outer = low + r, high - r
    is_open = high > max(feature.from_z_mm, feature.to_z_mm) + 1e-6
    if outer < inner - 1e-9 and not is_open:
        what = said(
            "the flats are {} long between walls, {} is Ø{}",
            q(high - low, "mm", "g"),
            tool.id,
            q(tool.d_mm, "mm", "g", bare=True),
        )
        raise OperationFault("mill.wide", what, "choose a thinner mill")
    count = max(math.ceil((outer - inner) / side_step_mm(tool) - 1e-9), 0)
    stripes = tuple(inner + (outer - inner) * n / count for n in range(count + 1)) if count else (inner,)
    half = math.sqrt(max(place.top**2 - place.level**2, 0.0)) + r + RUN_OUT_MM
    return _Way(stripes, tuple(layers(place.top, place.level, ap, leave)), half, place.top + APPROACH_MM)


def _from_the_side(place: Sunk, feature: Flats, tool: EndMill, ap: float, leave: float, outer: float) -> _Way:
    r = tool.d_mm / 2
    stripes = tuple(level + r for level in layers(outer, feature.distance_mm, side_step_mm(tool), leave))
    half = math.sqrt(max(outer**2 - feature.distance_mm**2, 0.0)) + r + RUN_OUT_MM
    return _Way(stripes, tuple(layers(place.top, place.level, ap, 0.0)), half, place.top + APPROACH_MM)


def _one_flat(path: DrivenPath, place: Sunk, along: Along, way: _Way, vf: float, polar: bool) -> None:
    """To and fro across the flat; a layer is sunk to beside the metal."""
    path.index(place.c_deg, braked=not polar)
    if along == "x":
        path.rapid(z=way.stripes[-1])
        path.rapid(y=-way.half_mm)
        path.rapid(x=way.clear)
    else:
        path.rapid(x=way.stripes[0])
        path.polar(polar)
        path.rapid(y=-way.half_mm)
        path.rapid(z=way.clear)
    side = -1.0
    for level in way.levels:
        for stripe in reversed(way.stripes) if along == "x" else way.stripes:
            path.rapid(z=stripe) if along == "x" else path.rapid(x=stripe)
            path.rapid(x=level) if along == "x" else path.rapid(z=level)
            side = -side
            path.feed(vf, y=side * way.half_mm)
    path.rapid(x=way.clear) if along == "x" else path.rapid(z=way.clear)
    path.rapid(y=0.0)
    path.polar(False)


def _drawn(place: Sunk, feature: Flats, way: _Way, along: Along) -> tuple[Pass, ...]:
    """The layers, as the section shows them: along the flat, one under the other."""
    levels = (
        way.levels if along == "x" else tuple(stripe - way.stripes[-1] + feature.distance_mm for stripe in way.stripes)
    )
    low, high = sorted((feature.from_z_mm, feature.to_z_mm))
    tops = (place.top, *levels) if along == "x" else (levels[0], *levels)
    return tuple(
        Pass((Line((low, level), (high, level)),), max(before - level, 0.0), finishing=level == levels[-1])
        for before, level in zip(tops, levels, strict=False)
    )


def _findings(operation: MillFlats, tool: EndMill, way: _Way, along: Along) -> list[Finding]:
    deep = way.clear - APPROACH_MM - way.levels[-1]
    if deep > tool.out_mm:
        what = said("the mill goes {} deep and stands out {}", q(deep, "mm", ".1f"), q(tool.out_mm, "mm", ".1f"))
        return [
            Finding("error", "mill.short", what, "its holder meets the part: take a longer one", operation=operation.id)
        ]
    if along == "z" and deep > tool.flute_length_mm and len(way.levels) > 1:
        what = said(
            "the wall is {} high, the flutes {}: it is cut in layers",
            q(deep, "mm", ".1f"),
            q(tool.flute_length_mm, "mm", "g"),
        )
        return [Finding("note", "mill.layers", what, "steps of a few µm may show between them", operation=operation.id)]
    return []
