"""Whole tools by what a feature asks for: drills, taps, centre drills, groovers, threaders, blades."""

import math
from collections.abc import Callable, Collection
from dataclasses import replace

from toreuma.core.advise.ask import Ask, Verdict
from toreuma.core.advise.bore_drills import BORE_ALLOWANCE_MM, drill_for_bore, parted_hollow_mm, past_hole_mm
from toreuma.core.advise.candidate import Candidate, Rejected
from toreuma.core.advise.carriers import least_bore_mm
from toreuma.core.advise.seated import NOTHING_SHARE
from toreuma.core.advise.tried import REACH_TOLERANCE_MM2
from toreuma.core.geometry.region import Region, polygons, thickness
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Check
from toreuma.core.model.catalogue import Catalogue, WholeTool
from toreuma.core.model.feature import AxialHole, CentreHole, FaceGroove, Groove, Knurl, Relief, ThreadFeature
from toreuma.core.model.tool import (
    BarPuller,
    BarStop,
    Drill,
    FormTool,
    GroovingTool,
    KnurlingTool,
    PartingTool,
    Tap,
    ThreadingTool,
)
from toreuma.core.reach.tool_reach import reach_on, surface_metal
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads.same import cuts_thread

__all__ = ["groove_depth_mm", "whole_candidates"]


HOLDER_FREE_MM = 1.0
"""Between the face and what holds a tap."""

OWN_DRILL_MM = 0.06
DEPTH_FREE_MM = 0.3
ROUND_SHARE = 0.9
WALLS_MM = 0.3
"""The first plunge stays off the wall of a groove by this much on diameter."""

LAYER_MM, CORNER_NOSES = 0.003, 2.0
"""A floor is not to keep more than sizes without limits are held to; so many noses wide is a corner."""


MOST_SLENDER = 9.0
"""Depth over width of a blade beyond which it runs out of line: typical."""


def whole_candidates(
    ask: Ask, store: Catalogue, rack: Collection[str], check: Check
) -> tuple[list[Candidate], list[Rejected]]:
    """Every tool of the right kind, judged; those of the right kind that cannot do it with the number that says so."""
    judge = JUDGES[ask.wish.use]
    found: list[Candidate] = []
    rejected: list[tuple[tuple[float, ...], Rejected]] = []
    for tool in store.tools:
        check()
        verdict = judge(ask, tool)
        if verdict is None:
            continue
        if isinstance(verdict, str):
            rejected.append((_far(ask, tool), Rejected(tool.name or tool.id, verdict)))
            continue
        rank, reasons, left = verdict
        code = tool.name or tool.id
        on_rack, in_turret = code in rack, any(one.name == tool.name for one in ask.job.tools)
        order = (0.0 if in_turret else 1.0, 0.0 if on_rack else 1.0)
        found.append(
            Candidate(
                tool=tool,
                codes=(code,),
                on_rack=on_rack,
                in_turret=in_turret,
                left_mm2=left,
                strength=1.0,
                reasons=reasons,
                against="",
                rank=(*rank[:1], *order, *rank[1:]),
            )
        )
    ranked = sorted(found, key=lambda one: one.rank)
    nearest = [one for _, one in sorted(rejected, key=lambda row: row[0])]
    return [*ranked[:1], *(replace(one, against=_against(one, ranked[0])) for one in ranked[1:])], nearest


def _far(ask: Ask, tool: WholeTool) -> tuple[float, ...]:
    """How far a tool is from what was wanted: the nearest of those that cannot do it is told first."""
    feature = ask.feature
    if isinstance(tool, Drill):
        hole = feature if isinstance(feature, AxialHole) else None
        wanted = least_bore_mm(ask.scene) - 2 * BORE_ALLOWANCE_MM if hole is None else hole.d_mm
        off = abs(tool.d_mm - wanted)
        return float(hole is None and tool.d_mm > wanted + 1e-6), round(off), -tool.flute_length_mm, off
    if isinstance(tool, GroovingTool):
        width = float(getattr(feature, "width_mm", 0.0) or getattr(feature, "length_mm", 0.0))
        return max(tool.blade.width_mm - width, 0.0), -tool.blade.width_mm, -tool.blade.depth_mm
    if isinstance(tool, PartingTool):
        return -tool.blade.depth_mm, tool.blade.width_mm
    if isinstance(tool, ThreadingTool):
        thread = ask.threads.get(getattr(feature, "designation", ""))
        flank = abs(tool.insert.profile_deg - thread.flank_deg) if thread is not None else 0.0
        pitch = thread.pitch_mm if thread is not None else 0.0
        off = max(tool.insert.pitch_mm[0] - pitch, pitch - tool.insert.pitch_mm[1], 0.0)
        return flank, round(off, 3), tool.bar.least_bore_mm if tool.bar is not None else 0.0
    return (FARTHEST,)


FARTHEST = 1e9


def _against(one: Candidate, first: Candidate) -> str:
    if one.left_mm2 > first.left_mm2 + REACH_TOLERANCE_MM2:
        return said("leaves {}, the first {}", q(one.left_mm2, "mm2", ".2f"), q(first.left_mm2, "mm2", ".2f"))
    if first.in_turret or (first.on_rack and not one.on_rack):
        return "the first is at hand"
    return said("the first: {}", first.reasons[0])


WHOLE_DRILLS = ("twist", "spade", "indexable")
"""Drills that start on the full and make one diameter."""


def _drill(ask: Ask, tool: WholeTool) -> Verdict | None:
    if not isinstance(tool, Drill) or tool.form not in WHOLE_DRILLS:
        return None
    point = tool.d_mm / 2 / math.tan(math.radians(tool.point_deg) / 2)
    hole, scene = ask.feature, ask.scene
    if not isinstance(hole, AxialHole):
        return drill_for_bore(ask, tool, point)
    through = hole.depth_mm is None
    past = past_hole_mm(ask.job, hole, ask.store)
    depth = hole.depth_mm if hole.depth_mm is not None else -scene.profile.back_z + point + past
    if abs(tool.d_mm - hole.d_mm) > OWN_DRILL_MM:
        return (
            said("Ø {}, the hole is Ø {}", q(tool.d_mm, "mm", "g"), q(hole.d_mm, "mm", ".3g"))
            if abs(tool.d_mm - hole.d_mm) < 1
            else None
        )
    if tool.flute_length_mm < depth:
        return said("its flutes are {} long, {} are needed", q(tool.flute_length_mm, "mm", "g"), q(depth, "mm", ".1f"))
    deep = said("{} deep", q(depth, "mm", ".1f")) + (
        said(" with {} of point and {} past", q(point, "mm", ".1f"), q(past, "mm", "g")) if through else ""
    )
    same_point = abs(tool.point_deg - hole.point_deg)
    reasons = (
        said("Ø {}, {} of flute for {}", q(tool.d_mm, "mm", "g"), q(tool.flute_length_mm, "mm", "g"), deep),
        f"point {tool.point_deg:g}°",
    )
    return (abs(tool.d_mm - hole.d_mm), 0.0 if through else same_point, tool.flute_length_mm), reasons, 0.0


def _tap(ask: Ask, tool: WholeTool) -> Verdict | None:
    hole = ask.feature
    if not isinstance(tool, Tap) or not isinstance(hole, AxialHole):
        return None
    if not cuts_thread(tool.thread, tool.pitch_mm, hole.thread, hole.d_mm):
        return None
    blind = hole.depth_mm is not None
    deep = hole.thread_length_mm or hole.depth_mm or 0.0
    lead = tool.lead_pitches * tool.pitch_mm
    room = (hole.depth_mm - deep) if hole.depth_mm is not None else math.inf
    if blind and room < lead - 1e-6 and hole.thread_length_mm and not tool.taper:
        return said(
            "its lead is {}, the hole is only {} deeper than the thread", q(lead, "mm", ".1f"), q(room, "mm", ".1f")
        )
    goes = tool.depth_mm(deep or -ask.scene.profile.back_z)
    if tool.taper > 0 and blind and hole.depth_mm is not None and hole.depth_mm < goes + tool.pitch_mm / 2:
        return said("it goes {} deep, the hole is {} deep", q(goes, "mm", ".1f"), q(hole.depth_mm, "mm", "g"))
    behind = min((float(body[:, 0].min()) for body in shape_of(tool).held), default=math.inf)
    if goes + HOLDER_FREE_MM > behind:
        return said(
            "it goes {} deep, what holds it begins {} behind its end", q(goes, "mm", ".1f"), q(behind, "mm", "g")
        )
    if goes > tool.flute_length_mm and not tool.follows_into(hole.d_mm):
        return said(
            "it goes {} deep, its thread is {} long and its shank Ø {} does not follow into Ø {}",
            q(goes, "mm", ".1f"),
            q(tool.flute_length_mm, "mm", "g"),
            q(tool.shank_d_mm, "mm", "g"),
            q(hole.d_mm, "mm", "g"),
        )
    wanted = "blind" if blind else "through"
    reasons = (
        said("{} form, lead {} pitches ({})", tool.form, f"{tool.lead_pitches:g}", q(lead, "mm", ".1f")),
        f"chips go out {_chips(tool)}",
    )
    return (0.0 if tool.form == wanted else 1.0, lead), reasons, 0.0


def _chips(tool: Tap) -> str:
    return {"through": "ahead of the tap", "blind": "backward", "forming": "nowhere: it makes none"}[tool.form]


def _centre(ask: Ask, tool: WholeTool) -> Verdict | None:
    hole = ask.feature
    if not isinstance(tool, Drill) or tool.form != "centre" or not isinstance(hole, CentreHole):
        return None
    if tool.centre_form != hole.form:
        return f"it is of form {tool.centre_form}, the centre hole of form {hole.form}"
    if tool.d_mm < hole.mouth_d_mm:
        return said("its cone ends at Ø {}, the mouth is Ø {}", q(tool.d_mm, "mm", "g"), q(hole.mouth_d_mm, "mm", "g"))
    away = abs((tool.pilot_d_mm or 0.0) - hole.d_mm)
    return (
        (away, tool.d_mm),
        (said("pilot Ø {}, cone up to Ø {}", q(tool.pilot_d_mm or 0.0, "mm", "g"), q(tool.d_mm, "mm", "g")),),
        0.0,
    )


def _groove(ask: Ask, tool: WholeTool) -> Verdict | None:
    """The widest blade that goes in, or a form ground to it, by what it leaves."""
    feature, scene = ask.feature, ask.scene
    if isinstance(tool, FormTool):
        return _formed(ask, tool)
    if not isinstance(tool, GroovingTool) or ask.wish.surface is None:
        return None
    where = "face" if isinstance(feature, FaceGroove) else getattr(feature, "side", "outside")
    if tool.where != where:
        return None
    if tool.round_tip and getattr(feature, "floor_round_mm", 0.0) < ROUND_SHARE * tool.blade.corner_radius_mm:
        return "its tip is round: it leaves the corners of the floor standing"
    why = _groove_room(scene, feature, tool)
    if why:
        return why
    reach = reach_on(scene, tool, ask.wish.surface)
    if reach.area_mm2 > NOTHING_SHARE * surface_metal(scene, ask.wish.surface).area:
        return "jaws, chuck or the part itself stand in its way"
    width, layer = tool.blade.width_mm, _layer_mm(reach.leftover, scene.part, tool.blade.corner_radius_mm)
    stays = said("leaves {}", q(reach.area_mm2, "mm2", ".2f"))
    if layer > LAYER_MM:  # it does not come down to the floor
        stays = said("{} of the floor stays", q(1000 * layer, "um", ".0f"))
    reasons = (
        said("{} wide, {}", q(width, "mm", "g"), stays),
        said("{} deep at most", q(tool.blade.depth_mm, "mm", "g")),
    )
    return (layer > LAYER_MM, round(reach.area_mm2 / 0.05), -width), reasons, reach.area_mm2


def _layer_mm(leftover: Region, part: Region, nose_mm: float) -> float:
    """The thickest of what stays on more than a corner that the nose rounds, mm."""
    wide = [one for one in polygons(leftover) if one.bounds[2] - one.bounds[0] > CORNER_NOSES * nose_mm + LAYER_MM]
    return max((thickness(one, part) for one in wide), default=0.0)


def _formed(ask: Ask, tool: FormTool) -> Verdict | None:
    """A form tool for a groove of its own shape."""
    feature, surface = ask.feature, ask.wish.surface
    if not isinstance(feature, Groove) or feature.side != "outside" or surface is None:
        return None
    reach = reach_on(ask.scene, tool, surface)
    if reach.area_mm2 > NOTHING_SHARE * surface_metal(ask.scene, surface).area:
        return "its form does not go into the groove"
    layer = _layer_mm(reach.leftover, ask.scene.part, 0.0)
    if layer > LAYER_MM:
        return said("its form is not the groove's: {} stays", q(layer, "mm", ".3f"))
    width = max(z for z, _ in tool.outline_mm) - min(z for z, _ in tool.outline_mm)
    words = (
        said("ground to the shape: one plunge leaves {}", q(reach.area_mm2, "mm2", ".2f")),
        f"{tool.material}: slow, and quiet",
    )
    return (False, round(reach.area_mm2 / 0.05), -width), words, reach.area_mm2


def _groove_room(scene: Scene, feature: object, tool: GroovingTool) -> str:
    width, depth = tool.blade.width_mm, tool.blade.depth_mm
    if isinstance(feature, FaceGroove):
        low, high = tool.first_cut_mm or (0.0, 1e9)
        if not low <= feature.d_mm - WALLS_MM or feature.d_mm > high:
            return said(
                "its first cut is Ø {} to {}, the groove is Ø {}",
                q(low, "mm", "g", bare=True),
                q(high, "mm", "g"),
                q(feature.d_mm, "mm", "g"),
            )
        return (
            said("{} wide, the groove is {}", q(width, "mm", "g"), q(feature.width_mm, "mm", "g"))
            if width > feature.width_mm
            else ""
        )
    if isinstance(feature, Groove):
        narrow = feature.width_mm
        if tool.tip_deg == 180:
            narrow -= 2 * groove_depth_mm(scene, feature) * math.tan(math.radians(feature.wall_deg))
        if width > narrow + 1e-6:
            return said("{} wide, the groove has room for {}", q(width, "mm", "g"), q(max(narrow, 0)))
        if groove_depth_mm(scene, feature) + DEPTH_FREE_MM > depth:
            return said(
                "{} deep at most, the groove with room for its block asks for {}",
                q(depth, "mm", "g"),
                q(groove_depth_mm(scene, feature) + DEPTH_FREE_MM, "mm", ".1f"),
            )
    if isinstance(feature, Relief) and width > feature.length_mm:
        return said("{} wide, the relief is {} long", q(width, "mm", "g"), q(feature.length_mm, "mm", "g"))
    if tool.bar is not None and tool.bar.least_bore_mm > least_bore_mm(scene):
        return said(
            "it needs a bore of {}, the smallest here is {}",
            q(tool.bar.least_bore_mm, "mm", "g"),
            q(least_bore_mm(scene), "mm", ".4g"),
        )
    return ""


def groove_depth_mm(scene: Scene, feature: Groove) -> float:
    """Depth of a groove below its surface, on radius."""
    chain = scene.profile if feature.side == "outside" else scene.shape.bore
    middle = feature.z_mm - feature.width_mm / 2
    for segment in chain.segments if chain is not None else ():
        (z0, r0), (z1, r1) = segment.start, segment.end
        if min(z0, z1) <= middle <= max(z0, z1) and abs(z1 - z0) > 1e-9:
            return abs(r0 + (r1 - r0) * (middle - z0) / (z1 - z0) - feature.d_mm / 2)
    return 0.0


def _thread(ask: Ask, tool: WholeTool) -> Verdict | None:
    feature = ask.feature
    if not isinstance(tool, ThreadingTool) or not isinstance(feature, ThreadFeature) or tool.where != feature.side:
        return None
    thread = ask.threads.get(feature.designation)
    if thread is None:
        return None
    (low, high), pitch = tool.insert.pitch_mm, thread.pitch_mm
    if abs(tool.insert.profile_deg - thread.flank_deg) > 0.5:
        return f"its flanks stand at {tool.insert.profile_deg:g}°, the thread's at {thread.flank_deg:g}°"
    if not low - 0.01 <= pitch <= high + 0.01:
        return said(
            "it cuts pitches of {} to {}, this one has {}",
            q(low, "mm", "g", bare=True),
            q(high, "mm", "g"),
            q(pitch, "mm", ".3f"),
        )
    deep = thread.depth_internal if feature.side == "inside" else thread.depth_external
    if not tool.insert.goes(deep):
        return said("its tooth is {} high, the thread {} deep", q(tool.insert.profile_depth_mm, "mm", "g"), q(deep))
    if tool.bar is not None and tool.bar.least_bore_mm > thread.internal.minor.min:
        return said("it needs a bore of {}", q(tool.bar.least_bore_mm, "mm", "g"))
    full = tool.insert.full_profile
    words = (
        "full profile: cuts the crest to size"
        if full
        else said("partial profile, {} to {} pitch", q(low, "mm", "g", bare=True), q(high, "mm", "g"))
    )
    return (
        (0.0 if full else 1.0, high),
        (words, said("pitch {}, flanks {}°", q(pitch, "mm", ".4g"), f"{thread.flank_deg:g}")),
        0.0,
    )


def _part_off(ask: Ask, tool: WholeTool) -> Verdict | None:
    """The narrowest blade that gets to the centre, or into a bore that is drilled through before."""
    scene = ask.scene
    if not isinstance(tool, PartingTool):
        return None
    depth = scene.stock_r - parted_hollow_mm(scene) + DEPTH_FREE_MM
    if tool.blade.depth_mm < depth:
        return said("cuts {} deep, {} on radius are needed", q(tool.blade.depth_mm, "mm", "g"), q(depth, "mm", ".1f"))
    slender = tool.blade.depth_mm / tool.blade.width_mm
    if slender > MOST_SLENDER:
        return f"depth over width {slender:.1f}: it runs out of line"
    words = (
        said(
            "{} wide, {} deep for {} on radius",
            q(tool.blade.width_mm, "mm", "g"),
            q(tool.blade.depth_mm, "mm", "g"),
            q(depth, "mm", ".1f"),
        ),
    )
    return (tool.blade.front_deg, tool.blade.width_mm, tool.blade.depth_mm), words, 0.0


def _knurl(ask: Ask, tool: WholeTool) -> Verdict | None:
    """Wheels of the knurl's form and pitch, the widest that go in."""
    feature = ask.feature
    if not isinstance(tool, KnurlingTool) or not isinstance(feature, Knurl) or tool.form != feature.form:
        return None
    if abs(tool.pitch_mm - feature.pitch_mm) > SAME_PITCH_MM:
        return said("its pitch is {}, the knurl's {}", q(tool.pitch_mm, "mm", "g"), q(feature.pitch_mm, "mm", "g"))
    wide = q(tool.wheel_width_mm, "mm", "g")
    words = said("wheels {} {}, {} wide", tool.form, q(tool.pitch_mm, "mm", "g"), wide)
    return (max(tool.wheel_width_mm - feature.length_mm, 0.0), -tool.wheel_width_mm), (words,), 0.0


def _feed_bar(ask: Ask, tool: WholeTool) -> Verdict | None:
    """A stop for what pushes the bar from behind; a gripper that draws it out where it has the size."""
    if isinstance(tool, BarStop):
        words = "the bar comes out against it: something pushes from behind"
        return (0.0, tool.length_mm), (words, said("Ø {}", q(tool.d_mm, "mm", "g"))), 0.0
    if not isinstance(tool, BarPuller):
        return None
    low, high = tool.grips_mm
    if not low <= 2 * ask.scene.stock_r <= high:
        return said("it grips Ø {} to {}", q(low, "mm", "g", bare=True), q(high, "mm", "g"))
    return (1.0, high), ("draws the bar out with its fingers: nothing has to push",), 0.0


SAME_PITCH_MM = 0.01

JUDGES: dict[str, Callable[[Ask, WholeTool], Verdict | None]] = {
    "drill": _drill,
    "tap": _tap,
    "centre": _centre,
    "groove": _groove,
    "part_off": _part_off,
    "thread": _thread,
    "knurl": _knurl,
    "feed_bar": _feed_bar,
}
