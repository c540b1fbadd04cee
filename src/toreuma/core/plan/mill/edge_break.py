"""Edges of slots, pockets and flats broken with a pointed tool that is driven along them."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from shapely.affinity import translate

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk, hole_edge_mm
from toreuma.core.geometry.region import box, depth_inside
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Flats, MillFlats, MillSlot, Slot, Tool
from toreuma.core.model.tool import ChamferMill, Drill
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.milling import SPEED_SHARE
from toreuma.core.plan.mill.outward import Outward
from toreuma.core.plan.numbers.axial_speed import axial_speed
from toreuma.core.spoken import q, said

__all__ = ["break_edges", "break_front"]

SQUARE_DEG, WITHIN_DEG = 90.0, 2.0
"""Edges are broken alike on both sides by a cone of a right angle."""

BESIDE_MM = 0.3
"""The point runs so far beside the edge: its very end does not cut."""

CHORD_MM, TOUCH_MM = 0.005, 0.02
TEETH = 2
OUT_MM = 1.0
POINTED = ("spot", "centre")


def _is_pointed(tool: Tool | None) -> bool:
    """Whether a tool breaks edges when it is driven along them."""
    return isinstance(tool, ChamferMill) or (isinstance(tool, Drill) and tool.form in POINTED)


@dataclass(frozen=True, kw_only=True)
class _Pointed:
    """The tool at work, how far its middle runs beside the edge, how deep its end goes below the surface, its feed and
    the numbers of all."""

    work: Work
    edge: float
    beside: float
    deep: float
    rpm: float
    vf: float
    reasons: Reasons
    findings: tuple[Finding, ...]


def _pointed(work: Work, operation: MillSlot | MillFlats) -> _Pointed:
    """The pointed tool of an operation. Raises `OperationFault` where it cannot do it."""
    tool = work.given.tool(operation.edge_tool or "")
    if not _is_pointed(tool):
        what = f"{operation.edge_tool} is no pointed tool"
        raise OperationFault("edge.kind", what, "choose a chamfer mill or a spot drill for the edges, or none")
    assert isinstance(tool, Drill | ChamferMill)
    if tool.mount != work.tool.mount:
        raise OperationFault("edge.mount", f"{tool.id} is not mounted as {work.tool.id} is", "mount both the same way")
    carrier = work.given.machine.carrier_of(tool.station)
    if carrier.live is None:
        raise OperationFault("edge.live", f"the {carrier.name} drives no tools", "put it on another carrier")
    edge, lean = hole_edge_mm(work.given.part.edge_break_mm), math.tan(math.radians(tool.point_deg) / 2)
    beside = BESIDE_MM + (tool.tip_d_mm / 2 if isinstance(tool, ChamferMill) else 0.0)
    deep, across_mm = (edge + BESIDE_MM) / lean, 2 * (edge + beside)
    pointed = replace(work, tool=tool, shape=shape_of(tool))
    speed = axial_speed(pointed, tool.material, across_mm, SPEED_SHARE, "milling")
    if isinstance(tool, ChamferMill):
        tooth, teeth, of = sum(tool.fz_mm) / 2, tool.teeth, "the middle of its range a tooth"
    else:
        tooth, teeth, of = sum(tool.feed_mm_rev) / 4, TEETH, "half the drill's feed a tooth"
    vf = tooth * teeth * speed.rpm
    reasons = {
        Figure.EDGE: Evidence("edge broken", "", edge, "mm", formula="edge break of the part, else a small one"),
        Figure.EDGE_DEEP: Evidence(
            "point below the surface", "", deep, "mm", formula="(edge + beside) / tan(σ/2)",
            inputs=(Input("edge", "", edge, "mm"), Input("beside it", "", beside, "mm"),
                    Input("point angle", "σ", tool.point_deg, "deg")),
        ),
        Figure.EDGE_SPEED: replace(speed.vc, name="surface speed at the edge", typable=False),
        Figure.EDGE_FEED: Evidence("feed along the edge", "vf", vf, "mm/min", formula=of),
    }  # fmt: skip
    found: tuple[Finding, ...] = ()
    if across_mm > tool.d_mm:
        what = said(
            "{} is Ø{}, the edge wants Ø{}",
            tool.id,
            q(tool.d_mm, "mm", "g", bare=True),
            q(across_mm, "mm", "g", bare=True),
        )
        found = (Finding("error", "edge.small", what, "choose a larger one", operation=operation.id),)
    if abs(tool.point_deg - SQUARE_DEG) > WITHIN_DEG:
        other = q(edge / lean)
        what = said("{} has a cone of {}°: an edge of {} comes out as {} by {}", tool.id, f"{tool.point_deg:g}",
                    q(edge, "mm", "g"), q(edge, "mm", "g", bare=True), other)  # fmt: skip
        found = (*found, Finding("error", "edge.angle", what, "choose one of 90°", operation=operation.id))
    return _Pointed(
        work=pointed, edge=edge, beside=beside, deep=deep, rpm=speed.rpm, vf=vf, reasons=reasons, findings=found
    )


def break_edges(work: Work, operation: MillSlot, places: Sequence[Sunk], ways: Sequence[Outward]) -> Cuts:
    """Once round every slot; ``ways`` are where the middle of a tool without a diameter would go along the walls.

    Raises `OperationFault`.
    """
    made = _pointed(work, operation)
    feature, place = work.given.part.features[operation.feature], places[0]
    assert isinstance(feature, Slot)
    if made.deep > place.top - place.level or made.edge + 2 * made.beside > feature.width_mm:
        what = said("the point would go {} down to break an edge of {}", q(made.deep), q(made.edge, "mm", "g"))
        why = "the slot is too narrow or too shallow: use a more pointed tool, or none"
        raise OperationFault("edge.deep", what, why)
    path = DrivenPath(made.work, made.rpm)
    for one, way in zip(places, ways, strict=True):
        _round(path, one, way, made)
    path.leave(along_x=place.along == "x")
    beside = _beside(made.work, operation, place, path.motions, made.edge)
    return Cuts(motions=tuple(path.motions), passes=(), reasons=made.reasons, findings=(*made.findings, *beside))


def break_front(work: Work, operation: MillFlats, feature: Flats, places: Sequence[Sunk]) -> Cuts:
    """The edge of every flat with the front face; those with the round beside it are blunt anyway.

    Raises `OperationFault`.
    """
    made = _pointed(work, operation)
    front, high = float(work.scene.part.bounds[2]), max(feature.from_z_mm, feature.to_z_mm)
    if high < front - 1e-6:
        raise OperationFault("edge.none", "the flats do not run out at the front", "take the tool for their edges out")
    radial = made.work.tool.mount == "radial"
    r = float(work.scene.part.bounds[3])
    half = math.sqrt(max(r**2 - feature.distance_mm**2, 0.0)) + made.edge + OUT_MM
    reach = work.given.machine.carrier_of(made.work.tool.station).y_mm
    if half > reach:
        what = said("the edge is {} long to each side, Y reaches {}", q(half, "mm", ".1f"), q(reach, "mm", "g"))
        raise OperationFault("edge.y", what, "take the tool for the edges out, or use another carrier")
    path = DrivenPath(made.work, made.rpm)
    for place in places:
        path.index(place.c_deg)
        clear = (r if radial else front) + APPROACH_MM
        if radial:
            path.rapid(z=front + made.beside)
            path.rapid(y=-half)
            path.rapid(x=clear)
            path.feed(made.vf, x=feature.distance_mm - made.deep)
        else:
            path.rapid(x=feature.distance_mm + made.beside)
            path.rapid(y=-half)
            path.rapid(z=clear)
            path.feed(made.vf, z=front - made.deep)
        path.feed(made.vf, y=half)
        path.rapid(x=clear) if radial else path.rapid(z=clear)
        path.rapid(y=0.0)
    path.leave(along_x=radial)
    return Cuts(motions=tuple(path.motions), passes=(), reasons=made.reasons, findings=made.findings)


def _beside(work: Work, operation: MillSlot, place: Sunk, motions: Sequence[Motion], edge: float) -> list[Finding]:
    """A shoulder beside the slot that the cone of the tool runs into, in the plane the tool stands in."""
    low, _, high, _ = place.region.bounds
    if place.along != "x":
        return []
    far = 1e4
    slot = box(low - 2 * edge, 0, high + 2 * edge, far)
    metal = work.scene.part.difference(slot)
    body = translate(work.shape.cutting, -work.shape.tip[0], -work.shape.tip[1])
    ends = {motion.end for motion in motions if not motion.is_rapid and not motion.event}
    deep = max((depth_inside(translate(body, z, x).intersection(metal), metal) for z, x in ends), default=0.0)
    if deep <= TOUCH_MM:
        return []
    what = said("{} would cut {} into the shoulder beside the slot", work.tool.id, q(deep, "mm", ".1f"))
    return [Finding("error", "edge.shoulder", what, "take a thinner pointed tool, or none", operation=operation.id)]


def _round(path: DrivenPath, place: Sunk, way: Outward, made: _Pointed) -> None:
    """Once round the mouth of one slot; on a round surface the point follows it."""
    path.index(place.c_deg)
    across = place.along == "x"

    def level(v: float) -> float:
        return (math.sqrt(max(place.top**2 - v**2, 0.0)) if across else place.top) - made.deep

    def go(u: float, v: float, feed: float | None, high: float | None = None) -> None:
        w = level(v) if high is None else high
        move = {"z": u, "y": v, "x": w} if across else {"x": u, "y": v, "z": w}
        path.rapid(**move) if feed is None else path.feed(feed, **move)

    inside = replace(way, aside=way.aside - made.beside, corner=max(way.corner - made.beside, 0.0))
    ring = inside.last(CHORD_MM)
    clear = place.top + APPROACH_MM
    u, v = ring[0]
    if across:
        path.rapid(z=u, y=v)
        path.rapid(x=clear)
    else:
        path.rapid(x=u, y=v)
        path.rapid(z=clear)
    for u, v in [*ring, ring[0]]:
        go(u, v, made.vf)
    path.rapid(x=clear) if across else path.rapid(z=clear)
