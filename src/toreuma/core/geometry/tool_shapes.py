"""Which shape each kind of tool has, in the orientation it works in.

A right-hand tool outside leads toward the chuck (-z) and comes from above; inside it comes up from the axis; face
and axial tools point toward the chuck. A left-hand tool is the mirror image; so is a right-hand one at the second
spindle. A new kind of tool is a model in `toreuma.core.model.tool` and one function here, named in `SHAPES`.
"""

import itertools
import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import shapely

from toreuma.core.geometry.centre_forms import centre_profile
from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.insert_outline import bisector, outline, tip_to_centre
from toreuma.core.geometry.shape import ToolShape, mirrored, turned, turned_inside
from toreuma.core.model.tool import (
    Bar,
    BarPuller,
    BarStop,
    Blade,
    BoringTool,
    ChamferMill,
    Drill,
    EndMill,
    FormTool,
    GroovingTool,
    Insert,
    KnurlingTool,
    PartingTool,
    PullTool,
    Reamer,
    Tap,
    ThreadingTool,
    ThreadMill,
    Tool,
    TurningTool,
)

__all__ = ["ROUND", "shape_of"]

SEAT_MM = 0.6
"""How far the holder's head stays behind the insert's edges."""

TOOTH_HEIGHT = 0.5413
"""Height of a tap's tooth over its pitch: 5/8 of the fundamental triangle (ISO 68-1)."""

SLIM_SHARE = 0.1
"""How much narrower a blade is behind its cutting width, each side, as a share of that."""


ROUND = (Drill, Reamer, Tap, EndMill, ChamferMill, ThreadMill, BarStop, BarPuller)
"""Tools that have no hand of their own: they look the same from both spindles."""

ALONG_X = np.array([[0.0, 1.0], [1.0, 0.0]])
"""Turns a tool along Z into one along X."""


def shape_of(tool: Tool) -> ToolShape:
    """The shape of a tool, mm from its nose centre."""
    shape = SHAPES[type(tool)](tool)
    if tool.mount == "radial":
        return turned(shape, ALONG_X)
    if isinstance(tool, ROUND):
        return shape
    other_way = (tool.hand == "left") is not (tool.spindle == "sub")
    return mirrored(shape) if other_way else shape


def _turning(tool: TurningTool) -> ToolShape:
    insert, holder = tool.insert, tool.holder
    core, radius, seat, lead = _seated(insert, holder.entering_angle_deg)
    tip = (-radius, -radius)
    shank = _shank(tip, holder.functional_width_mm, holder.shank_width_mm, holder.head_length_mm,
                   holder.functional_length_mm)  # fmt: skip
    neck = np.vstack([_back_half(seat, insert, lead), shank[:2]])
    bodies = (_hull(seat), _hull(neck), shank)
    return ToolShape(
        core=core,
        nose_radius=radius,
        bodies=bodies,
        tip=tip,
        entering_angle_deg=holder.entering_angle_deg,
        edge_length=_edge(core, insert, radius),
    )


def _seated(insert: Insert, entering_deg: float) -> tuple[Points, float, Points, float]:
    """Cutting core, nose radius, seat behind the edges, and the direction of the leading edge."""
    radius = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    lead = math.radians(180.0 - entering_deg)
    core = outline(insert, radius, lead)
    behind = min(SEAT_MM, insert.ic_mm / 2 - 0.3)
    shift = bisector(insert, lead) * (tip_to_centre(insert, behind) - tip_to_centre(insert, radius))
    return core, radius, outline(insert, behind, lead) + shift, lead


def _shank(tip: tuple[float, float], far_mm: float, width_mm: float, head_mm: float, length_mm: float) -> Points:
    """Two corners at the head first. ``far_mm`` is from the tip to the far side along z."""
    far = tip[0] + far_mm
    near, top, shoulder = far - width_mm, tip[1] + length_mm, tip[1] + head_mm
    return np.array([[near, shoulder], [far, shoulder], [far, top], [near, top]])


def _back_half(seat: Points, insert: Insert, lead: float) -> Points:
    middle = seat.mean(axis=0)
    return np.asarray(seat[(seat - middle) @ bisector(insert, lead) >= -1e-6])


def _edge(core: Points, insert: Insert, radius: float) -> float:
    return radius if insert.shape == "R" else float(np.linalg.norm(core[1] - core[0]))


FLIP_Z = np.array([-1.0, 1.0])


def _boring(tool: BoringTool) -> ToolShape:
    """As an outside tool turned upside down, on a bar that runs back along z."""
    insert, bar = tool.insert, tool.bar
    core, radius, seat, lead = _seated(insert, bar.entering_angle_deg)
    tip = (-radius, -radius)
    behind = _back_half(seat, insert, lead)
    if bar.back:  # the insert end for end, the bar as ever
        core, seat, behind, tip = core * FLIP_Z, seat * FLIP_Z, behind * FLIP_Z, (radius, -radius)
    rod = _rod(bar, tip, float(seat[:, 0].min()), float(seat[:, 0].mean()))
    neck = _hull(np.vstack([behind, rod[:2]]))
    shape = ToolShape(
        core=core,
        nose_radius=radius,
        bodies=(_hull(seat), neck, rod),
        held=(_block(bar, tip),),
        tip=tip,
        entering_angle_deg=bar.entering_angle_deg,
        edge_length=_edge(core, insert, radius),
    )
    return turned_inside(shape)


def _rod(bar: Bar, tip: tuple[float, float], front: float, begin: float) -> Points:
    """The bar in the upside-down frame, in which the bore's wall lies below; its front two corners first.

    It ends a little behind the front of the seat, ``front``, and begins in full at ``begin``.
    """
    middle = tip[1] + bar.functional_width_mm
    low, high, end = middle - bar.diameter_mm / 2, middle + bar.diameter_mm / 2, tip[0] + bar.functional_length_mm
    at = max(min(begin, end - 1.0), front)
    return np.array([[at, low], [at, high], [end, high], [end, low]])


def _parting(tool: PartingTool) -> ToolShape:
    shape = _bladed(tool.blade)
    if tool.programmed_corner == "free end":
        return shape
    flat = tool.blade.width_mm - 2 * tool.blade.corner_radius_mm
    shift = np.array([flat, 0.0])
    bodies = tuple(piece + shift for piece in shape.bodies)
    radius = tool.blade.corner_radius_mm
    back_by = flat * math.tan(math.radians(tool.blade.front_deg))
    return ToolShape(
        core=shape.core + shift,
        nose_radius=radius,
        bodies=bodies,
        tip=(-radius, back_by - radius),
        entering_angle_deg=90.0,
        edge_length=tool.blade.width_mm,
    )


def _bladed(blade: Blade, block_first: bool = False) -> ToolShape:
    """A blade whose free-end corner is programmed; where its front leans the other corner stands back.

    As a turning tool of its hand leads with its edge, the blade sits at the end of its block: a right-hand one gets
    close to jaws and shoulders on the chuck's side, and its block lies over what is in front of the cut. With
    ``block_first`` it lies on the other side.
    """
    radius, width = blade.corner_radius_mm, blade.width_mm
    flat, depth = width - 2 * radius, blade.depth_mm - radius
    back_by = flat * math.tan(math.radians(blade.front_deg))
    core = np.array([[0.0, 0.0], [0.0, depth], [-flat, depth], [-flat, back_by]])
    slim = width * SLIM_SHARE
    back = blade.functional_length_mm - radius
    left, right = -flat - radius, radius
    foot = radius + back_by
    stem = np.array([[left + slim, foot], [right - slim, foot], [right - slim, depth], [left + slim, depth]])
    more = blade.block_width_mm - width
    near, far = (left - more, right) if block_first else (left, right + more)
    block = np.array([[near, depth], [far, depth], [far, back], [near, back]])
    return ToolShape(
        core=core,
        nose_radius=radius,
        bodies=(stem, block),
        tip=(radius, -radius),
        entering_angle_deg=90.0,
        edge_length=width,
    )


def _grooving(tool: GroovingTool) -> ToolShape:
    """Pointing down outside, up inside, and toward the chuck in a face."""
    shape = (
        _pointed(tool)
        if tool.tip_deg < 180
        else _round_ended(tool)
        if tool.round_tip
        else _bladed(tool.blade, tool.where == "face")
    )
    if tool.where == "outside":
        return shape
    if tool.where == "inside":
        bar = tool.bar
        rod = () if bar is None else (_rod(bar, shape.tip, 0.0, shape.tip[0] + tool.blade.width_mm / 2),)
        stem = shape.bodies[0]
        return turned_inside(
            ToolShape(
                core=shape.core,
                nose_radius=shape.nose_radius,
                bodies=(stem, *rod),
                held=() if bar is None else (_block(bar, shape.tip),),
                tip=shape.tip,
                entering_angle_deg=90.0,
                edge_length=shape.edge_length,
            )
        )
    return _facing(shape)


def _pull(tool: PullTool) -> ToolShape:
    """The nose stands toward the chuck; the long edge rises from it toward the front."""
    blade, angle = tool.blade, math.radians(tool.pull_deg)
    radius = blade.corner_radius_mm
    flat, depth = blade.width_mm - 2 * radius, blade.depth_mm - radius
    core = np.array([[0.0, 0.0], [flat, flat * math.tan(angle)], [flat, depth], [0.0, depth]])
    square = _bladed(blade, block_first=True)
    bodies = tuple(piece + np.array([flat, 0.0]) for piece in square.bodies)
    rise = flat * math.tan(angle) + radius
    stem = np.maximum(bodies[0], [-math.inf, rise])
    return ToolShape(
        core=core,
        nose_radius=radius,
        bodies=(stem, bodies[1]),
        tip=(-radius, -radius),
        entering_angle_deg=tool.pull_deg,
        edge_length=blade.width_mm,
    )


def _form(tool: FormTool) -> ToolShape:
    core = _hull(np.array(tool.outline_mm, dtype=float))
    top, middle = float(core[:, 1].max()), float((core[:, 0].min() + core[:, 0].max()) / 2)
    half = tool.block_width_mm / 2
    end = max(tool.functional_length_mm, top + 1.0)
    block = np.array([[middle - half, top], [middle + half, top], [middle + half, end], [middle - half, end]])
    return ToolShape(
        core=core,
        nose_radius=0.0,
        bodies=(block,),
        tip=(0.0, 0.0),
        entering_angle_deg=90.0,
        edge_length=float(core[:, 0].max() - core[:, 0].min()),
    )


def _round_ended(tool: GroovingTool) -> ToolShape:
    radius = tool.blade.width_mm / 2
    shape = _bladed(tool.blade.changed(corner_radius_mm=radius))
    core = np.array([[0.0, 0.0], [0.0, tool.blade.depth_mm - radius]])
    return ToolShape(
        core=core,
        nose_radius=radius,
        bodies=shape.bodies,
        tip=(0.0, -radius),
        entering_angle_deg=90.0,
        edge_length=tool.blade.width_mm,
    )


def _pointed(tool: GroovingTool) -> ToolShape:
    """A V with a rounded point; the programmed point is the middle of its nose."""
    blade, half = tool.blade, math.radians(tool.tip_deg) / 2
    square = _bladed(blade)
    middle = float(square.core[:, 0].mean())
    flat = blade.width_mm / 2 - blade.corner_radius_mm * (1 / math.cos(half) - math.tan(half))
    rise = max(flat, 0.0) / math.tan(half)
    depth = max(blade.depth_mm - blade.corner_radius_mm, rise)
    core = np.array([[0.0, 0.0], [flat, rise], [flat, depth], [-flat, depth], [-flat, rise]])
    stem, block = (piece - np.array([middle, 0.0]) for piece in square.bodies)
    stem = stem + np.array([[0.0, rise], [0.0, rise], [0.0, 0.0], [0.0, 0.0]])
    radius = blade.corner_radius_mm
    return ToolShape(
        core=core,
        nose_radius=radius,
        bodies=(stem, block),
        tip=(0.0, -radius),
        entering_angle_deg=90.0,
        edge_length=blade.width_mm,
    )


def _facing(shape: ToolShape) -> ToolShape:
    """A blade turned to plunge along -z: what pointed down points toward the chuck."""
    return turned(shape, np.array([[0.0, 1.0], [1.0, 0.0]]))


def _threading(tool: ThreadingTool) -> ToolShape:
    """A tooth of the thread's flank angle; the programmed point is its crest."""
    insert, half = tool.insert, math.radians(tool.insert.profile_deg) / 2
    radius, flat = insert.tip_radius_mm, 0.0
    high = insert.profile_depth_mm + radius * (1 / math.sin(half) - 1)
    core = np.array([[0.0, 0.0]])
    if insert.tip_flat_mm > 0:  # the flanks meet the flat in corners of the radius
        flat = max(insert.tip_flat_mm / 2 - radius * (1 / math.cos(half) - math.tan(half)), 0.0)
        high = insert.profile_depth_mm
        core = np.array([[-flat, 0.0], [flat, 0.0]])
    wide = flat + high * math.tan(half)
    core = np.vstack([core, [wide, high], [-wide, high]])
    tip = (0.0, -insert.tip_radius_mm)
    half_width = max(insert.width_mm / 2, wide)
    pad = np.array([[-half_width, high], [half_width, high], [half_width, high + 4.0], [-half_width, high + 4.0]])
    if tool.where == "inside" and tool.bar is not None:
        rod = _rod(tool.bar, tip, -half_width, 0.0)
        return turned_inside(
            ToolShape(
                core=core,
                nose_radius=insert.tip_radius_mm,
                bodies=(pad, rod),
                held=(_block(tool.bar, tip),),
                tip=tip,
                entering_angle_deg=90.0,
                edge_length=insert.profile_depth_mm,
            )
        )
    holder = tool.holder
    assert holder is not None
    shank = _shank((-half_width, tip[1]), holder.functional_width_mm, holder.shank_width_mm, holder.head_length_mm,
                   holder.functional_length_mm)  # fmt: skip
    neck = _hull(np.vstack([pad, shank[:2]]))
    return ToolShape(
        core=core,
        nose_radius=insert.tip_radius_mm,
        bodies=(neck, shank),
        tip=tip,
        entering_angle_deg=90.0,
        edge_length=insert.profile_depth_mm,
    )


def _drill(tool: Drill) -> ToolShape:
    r, shank = tool.d_mm / 2, tool.shank_d_mm / 2
    if tool.form == "centre" and tool.pilot_d_mm is not None:
        return _centring(tool, tool.pilot_d_mm)
    if tool.form == "step" and tool.pilot_d_mm is not None and tool.step_length_mm is not None:
        lead = _rise(tool.pilot_d_mm / 2, tool.point_deg)
        return _fronted(tool, tool.pilot_d_mm / 2, max(tool.step_length_mm - lead, 0.0), tool.step_deg)
    rise = _rise(r, tool.point_deg)
    return _axial([(rise, r), (max(tool.flute_length_mm, rise), r)], tool.overall_length_mm, shank)


def _rise(r: float, point_deg: float) -> float:
    """Length of a point, mm; that of a flat end is nothing."""
    return r / math.tan(math.radians(point_deg) / 2)


def _centring(tool: Drill, pilot_d: float) -> ToolShape:
    """A centre drill: each stretch of its profile is a piece, the last one with the body behind it."""
    profile = centre_profile(tool.centre_form, pilot_d, tool.d_mm, tool.point_deg)
    begin, end = profile[-2], profile[-1]
    outline = [(begin[0], begin[1]), (end[0], end[1]), (max(tool.flute_length_mm, end[0] + 1.0), end[1])]
    shape = _axial(outline, tool.overall_length_mm, tool.shank_d_mm / 2, begin[0])
    front = [np.array([[0.0, 0.0], *profile[1:3], *([x, -r] for x, r in reversed(profile[1:3]))])]
    cones = [np.array([a, b, [b[0], -b[1]], [a[0], -a[1]]]) for a, b in itertools.pairwise(profile[2:-1])]
    return replace(shape, ahead=(*front, *cones))


def _fronted(tool: Drill, pilot: float, length: float, cone_deg: float) -> ToolShape:
    """The body with its cone, and the thinner front before it as a piece of its own; ``length`` behind its point."""
    r = tool.d_mm / 2
    lead = _rise(pilot, tool.point_deg)
    begin = lead + length
    cone = begin + max(_rise(r - pilot, cone_deg), 0.0)
    outline = [(begin, pilot), (cone, r), (max(tool.flute_length_mm, cone + 1.0), r)]
    shape = _axial(outline, tool.overall_length_mm, tool.shank_d_mm / 2, begin)
    front = np.array([[0.0, 0.0], [lead, pilot], [begin, pilot], [begin, -pilot], [lead, -pilot]])
    return replace(shape, ahead=(front,))


def _reamer(tool: Reamer) -> ToolShape:
    r = tool.d_mm / 2
    return _axial([(0.0, 0.95 * r), (tool.lead_mm, r), (tool.flute_length_mm, r)], tool.overall_length_mm,
                  tool.shank_d_mm / 2)  # fmt: skip


def _tap(tool: Tap) -> ToolShape:
    """A web with a tooth at every pitch, lower in the lead; the programmed point is its end."""
    pitch, r = tool.pitch_mm, tool.d_mm / 2
    lead, high = tool.lead_pitches * pitch, TOOTH_HEIGHT * pitch
    web = max(r - 1.2 * high, 0.3 * r)
    shape = _axial([(0.0, 0.8 * web), (0.3 * pitch, web), (tool.flute_length_mm, web)], tool.overall_length_mm,
                   tool.shank_d_mm / 2)  # fmt: skip
    teeth = []
    for count in range(int(tool.flute_length_mm / pitch)):
        z = (count + 0.5) * pitch
        crest = r - high * max(1 - z / lead, 0.0)
        wide = (crest - (r - high)) * math.tan(math.radians(30)) + pitch / 16
        if crest > web:
            tooth = [[z - pitch / 16, crest], [z + pitch / 16, crest], [z + wide, r - high], [z - wide, r - high]]
            teeth += [np.array(tooth), np.array(tooth) * [1.0, -1.0]]
    return replace(shape, ahead=tuple(teeth))


COLLET_NOSE_MM, COLLET_MM = 15.0, 60.0
"""How much farther than the shank a collet holder reaches on radius, and how long it is: typical."""

GRIPPED = ((3.0, 28.0), (6.0, 36.0), (10.0, 40.0), (12.0, 45.0), (16.0, 48.0), (20.0, 50.0), (25.0, 56.0), (1e9, 60.0))
"""Length of a shank that its holder takes, by diameter (lengths of plain shanks, DIN 6535; the first one typical)."""

TAP_GRIPPED = (6.0, 2.0)
"""Chucks for taps take the square and a collar of the shank: so many mm and so many of its diameters (typical)."""

CLAMPED_DIAMETERS = 2.5
BLOCK_MM = 14.0
"""A bar is clamped over so many of its diameters, in a block that stands so far round it: typical."""


def _held(shape: ToolShape, tool: Drill | Reamer | Tap) -> ToolShape:
    """An axial tool with the collet it is held in, behind its flutes and as much of its shank as is not gripped."""
    if isinstance(tool, Tap):
        gripped = TAP_GRIPPED[0] + TAP_GRIPPED[1] * tool.shank_d_mm
    else:
        gripped = next(long for d, long in GRIPPED if tool.shank_d_mm <= d)
    out = max(tool.overall_length_mm - gripped, tool.flute_length_mm + 1.0)
    nose = tool.shank_d_mm / 2 + COLLET_NOSE_MM
    holder = np.array([[0.0, -nose], [COLLET_MM, -nose], [COLLET_MM, nose], [0.0, nose]]) + np.array([out, 0.0])
    return replace(shape, held=(holder,))


def _block(bar: Bar, tip: tuple[float, float]) -> Points:
    """What a bar is clamped in, in the upside-down frame."""
    out = bar.stick_out_mm or max(
        bar.functional_length_mm - CLAMPED_DIAMETERS * bar.diameter_mm, bar.functional_length_mm / 2
    )
    middle, half = tip[1] + bar.functional_width_mm, bar.diameter_mm / 2 + BLOCK_MM
    begin, end = tip[0] + out, tip[0] + max(out, bar.functional_length_mm) + COLLET_MM
    return np.array([[begin, middle - half], [begin, middle + half], [end, middle + half], [end, middle - half]])


def _end_mill(tool: EndMill | ThreadMill) -> ToolShape:
    """Its end is the programmed point; teeth of threads turn within the cylinder over them."""
    r = tool.d_mm / 2
    return _collet(tool, [(0.0, r), (min(tool.flute_length_mm, tool.out_mm), r)])


def _chamfer_mill(tool: ChamferMill) -> ToolShape:
    """The blunt end of its cone is the programmed point."""
    r, tip = tool.d_mm / 2, tool.tip_d_mm / 2
    cone = _rise(r - tip, tool.point_deg)
    return _collet(tool, [(0.0, tip), (cone, r), (max(min(tool.flute_length_mm, tool.out_mm), cone), r)])


def _collet(tool: EndMill | ChamferMill | ThreadMill, outline: list[tuple[float, float]]) -> ToolShape:
    """What holds a mill begins where it stands out no more."""
    shank = tool.shank_d_mm / 2
    shape = _axial(outline, tool.out_mm, shank)
    nose = shank + COLLET_NOSE_MM
    holder = np.array([[0.0, -nose], [COLLET_MM, -nose], [COLLET_MM, nose], [0.0, nose]])
    return replace(shape, bodies=(*shape.bodies, holder + np.array([tool.out_mm, 0.0])))


def _knurling(tool: KnurlingTool) -> ToolShape:
    """The middle of the wheels' lowest line is the programmed point; the holder stands behind them."""
    half, d, head = tool.wheel_width_mm / 2, tool.wheel_d_mm, max(tool.head_mm, tool.wheel_width_mm) / 2
    wheel = np.array([[-half, 0.0], [half, 0.0], [half, d], [-half, d]])
    holder = np.array([[-head, d / 2], [head, d / 2], [head, d / 2 + tool.length_mm], [-head, d / 2 + tool.length_mm]])
    return ToolShape(
        core=wheel,
        nose_radius=0.0,
        bodies=(holder,),
        tip=(0.0, 0.0),
        entering_angle_deg=90.0,
        edge_length=tool.wheel_width_mm,
    )


def _bar_stop(tool: BarStop) -> ToolShape:
    """Its face is the programmed point."""
    return _axial([(0.0, tool.d_mm / 2), (min(5.0, tool.length_mm / 2), tool.d_mm / 2)], tool.length_mm,
                  tool.d_mm / 2)  # fmt: skip


def _bar_puller(tool: BarPuller) -> ToolShape:
    """Its stop, which the end of the bar meets, is the programmed point; the fingers reach over the bar."""
    r, out = tool.grips_mm[1] / 2, tool.grips_mm[1] / 2 + tool.finger_mm
    stop = _axial([(0.0, r), (min(5.0, tool.length_mm / 2), r)], tool.length_mm, out)
    fingers = [
        np.array([[-tool.grip_mm, a], [5.0, a], [5.0, b], [-tool.grip_mm, b]]) for a, b in ((r, out), (-out, -r))
    ]
    return replace(stop, bodies=(*stop.bodies, *fingers))


def _axial(outline: list[tuple[float, float]], overall: float, shank_r: float, begin: float = 0.0) -> ToolShape:
    """A tool on the axis from its outline (z, r) behind the point; the programmed point is the point."""
    upper = np.array(outline)
    whole = np.vstack([[begin, 0.0], upper, upper[::-1] * [1.0, -1.0]])
    z, end = float(upper[-1, 0]), max(overall, float(upper[-1, 0]) + 1.0)
    shank = np.array([[z, -shank_r], [end, -shank_r], [end, shank_r], [z, shank_r]])
    return ToolShape(
        core=_hull(whole),
        nose_radius=0.0,
        bodies=(shank,),
        tip=(0.0, 0.0),
        entering_angle_deg=90.0,
        edge_length=float(upper[:, 1].max()),
    )


def _hull(points: Points) -> Points:
    hull = shapely.MultiPoint(points).convex_hull
    return np.asarray(shapely.get_coordinates(hull.exterior)[:-1])


SHAPES: dict[type, Callable[[Any], ToolShape]] = {
    TurningTool: _turning,
    BoringTool: _boring,
    PartingTool: _parting,
    GroovingTool: _grooving,
    PullTool: _pull,
    FormTool: _form,
    ThreadingTool: _threading,
    Drill: lambda tool: _held(_drill(tool), tool),
    Reamer: lambda tool: _held(_reamer(tool), tool),
    Tap: lambda tool: _held(_tap(tool), tool),
    EndMill: _end_mill,
    ChamferMill: _chamfer_mill,
    ThreadMill: _end_mill,
    KnurlingTool: _knurling,
    BarStop: _bar_stop,
    BarPuller: _bar_puller,
}
