"""What operations a wish becomes with the tool advised for it."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from toreuma.core.advise.advice import Advice
from toreuma.core.advise.bore_drills import past_hole_mm, past_through_mm
from toreuma.core.advise.candidate import Candidate
from toreuma.core.advise.carriers import bar_reach_mm, served_bore_z
from toreuma.core.advise.seated import Split
from toreuma.core.advise.whole import groove_depth_mm
from toreuma.core.advise.wishes import Wish
from toreuma.core.geometry.bore_steps import step_at
from toreuma.core.geometry.region import box, polygons, without_film
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import (
    CutGroove,
    CutThread,
    DrillHole,
    Face,
    FeedBar,
    FinishBore,
    FinishOd,
    Job,
    Operation,
    PartOff,
    RollKnurl,
    RoughBore,
    RoughOd,
    TapHole,
)
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.feature import AxialHole, Groove, Relief, ThreadFeature
from toreuma.core.model.tool import BoringTool, Drill, GroovingTool, Tool
from toreuma.core.reach.relieved import relieved
from toreuma.core.reach.tool_reach import surface_metal
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads import Thread
from toreuma.core.standards.threads.form import form_of

__all__ = ["REST", "SPOT", "RouteStep", "spot_for", "steps_of"]

ID = "new"
REST, SPOT, FLOOR = "what is left", "Spot", "Clear the flat floor"
"""The end of the names of cuts with a second tool; the name of what starts a drill."""

UNATTENDED_CHIP_MM = 10.0
"""With nobody watching, the feed of roughing goes back every so many mm: a nest of chips stops the machine."""

OUT_OF_BORE_MM, RUN_OUT_MM, RUN_OUT_PITCHES = 3.0, 6.0, 2.5
CLEAR_OF_HOLD_MM, PAST_EDGE_MM = 1.2, 1.5
"""Kept before the hold; room behind the back edge that a cut past it asks for."""


SQUARE_DEG, DEEP_V_MM = 180.0, 3.0
"""A V deeper than this is opened with a square blade first."""

NEAR_EDGE_MM = 0.05
BACK_FACE_MM = 0.3
"""Left on the back face where a second side cuts what is behind."""
BEGUN_MM, FAR_MM = 0.5, 1e4
RUN_ON_MM = 1.0
"""Over the end of a stretch, onto what another cut has finished."""
LEAST_MM2, FILM_MM = 0.002, 0.01
"""Smaller and thinner pieces of metal are no reason for a cut."""

FLAT_DEG, SAME_D_MM, NARROW_MM = 170.0, 0.01, 20.0
"""From this angle on a floor counts as flat; in holes up to this diameter no bar faces the rest down to the axis."""


@dataclass(frozen=True, kw_only=True)
class RouteStep:
    """An operation to come, the tool for it, and the group that says when it is cut.

    ``also`` are further tools of the operation, each with the field that names it.
    """

    group: str
    operation: Operation
    tool: Tool
    reasons: tuple[str, ...]
    also: tuple[tuple[str, Tool], ...] = ()

    @property
    def tools(self) -> tuple[Tool, ...]:
        return (self.tool, *(tool for _, tool in self.also))


@dataclass(frozen=True, kw_only=True)
class _Ask:
    job: Job
    scene: Scene
    wish: Wish
    advice: Advice
    best: Candidate
    store: Catalogue
    threads: Mapping[str, Thread]

    def step(self, group: str, operation: Operation, candidate: Candidate | None = None) -> RouteStep:
        one = candidate or self.best
        tool = set_out(one.tool, self.scene, _feature_depth_mm(self))
        return RouteStep(group=group, operation=operation, tool=tool, reasons=one.reasons)


def _feature_depth_mm(ask: _Ask) -> float:
    """How deep the far end of what is wished for lies, from the front of the blank."""
    feature = ask.job.part.features[ask.wish.feature] if ask.wish.feature >= 0 else None
    if isinstance(feature, ThreadFeature):
        thread = ask.threads.get(feature.designation)
        out = max(RUN_OUT_MM, RUN_OUT_PITCHES * thread.pitch_mm if thread is not None else 0.0)
        return ask.scene.stock_front_z - feature.from_z_mm + feature.length_mm + out
    return 0.0


def set_out(tool: Tool, scene: Scene, deep_mm: float = 0.0) -> Tool:
    """A bar stands out of its holder as far as the bore asks for, and at least so deep; no farther."""
    bar = getattr(tool, "bar", None)
    if bar is None or bar.stick_out_mm is not None:
        return tool
    wanted = float(math.ceil(max(bar_reach_mm(scene), deep_mm) + OUT_OF_BORE_MM))
    return tool.changed(bar=bar.changed(stick_out_mm=min(wanted, bar.functional_length_mm)))


def steps_of(
    job: Job, scene: Scene, wish: Wish, advice: Advice, store: Catalogue, threads: Mapping[str, Thread]
) -> list[RouteStep]:
    """The steps of one wish; there is advice for it."""
    assert advice.best is not None
    return MAKERS[wish.use](
        _Ask(job=job, scene=scene, wish=wish, advice=advice, best=advice.best, store=store, threads=threads)
    )


def _face(ask: _Ask) -> list[RouteStep]:
    return [ask.step("face", Face(id=ID, name="Face the front", tool=ID))]


def _rough(ask: _Ask) -> list[RouteStep]:
    inside = ask.wish.surface is not None and ask.wish.surface.kind == "bore"
    kind, group = (RoughBore, "rough bore") if inside else (RoughOd, "rough outside")

    begin, stop = _where_metal(ask)

    def rough(name: str, tool: Tool, start: float | None = begin, end: float | None = stop) -> Operation:
        if not inside:
            end = _before_hold(end, reachable_end(ask.scene, tool))
        hardens = ask.job.stock.material.work_hardens
        breaks = None if ask.job.conditions.attended else UNATTENDED_CHIP_MM
        return kind(id=ID, name=name, tool=ID, from_z_mm=start, to_z_mm=end, varied=hardens, chip_break_mm=breaks)

    steps = [ask.step(group, rough(ask.wish.words, ask.best.tool))]
    split = ask.advice.split
    if split is not None:
        # A tool that cuts outward begins where it is needed; others only find what is left anyway.
        where = _between_edges(ask, split) if _cuts_outward(split.candidate.tool) else (begin, stop)
        rest = rough(f"{ask.wish.words}: {REST}", split.candidate.tool, *where)
        steps.append(ask.step(group, rest, split.candidate))
    return steps


def _cuts_outward(tool: Tool) -> bool:
    """Its edge leads away from the chuck."""
    return tool.hand == "left" or (isinstance(tool, BoringTool) and tool.bar.back)


def _where_metal(ask: _Ask) -> tuple[float | None, float | None]:
    """The stretch where there is metal to cut, from edge to edge; None where it is all the way to either end."""
    assert ask.wish.surface is not None
    metal = without_film(surface_metal(ask.scene, ask.wish.surface), FILM_MM)
    pieces = [one for one in polygons(metal) if one.area > LEAST_MM2]
    if not pieces:
        return None, None
    low, high = min(one.bounds[0] for one in pieces), max(one.bounds[2] for one in pieces)
    edges = _edges(ask)
    start = min((z for z in edges if z >= high - NEAR_EDGE_MM), default=None)
    end = max((z for z in edges if z <= low + NEAR_EDGE_MM), default=None)
    last = min(edges, default=0.0)
    bore = ask.scene.shape.bore if ask.wish.surface.kind == "bore" else None
    stepped = bore is not None and end is not None and step_at(bore.segments[1:], end) is not None
    run_on = 0.0 if stepped else RUN_ON_MM
    return (
        start + RUN_ON_MM if start is not None and start + RUN_ON_MM < -NEAR_EDGE_MM else None,
        end - run_on if end is not None and end - run_on > last + NEAR_EDGE_MM else None,
    )


def _edges(ask: _Ask) -> list[float]:
    """Along Z, where a surface of the contour ends and another begins."""
    if ask.wish.surface is not None and ask.wish.surface.kind == "bore":
        segments = ask.scene.shape.bore.segments if ask.scene.shape.bore is not None else ()
    else:  # the edge at the back is the blade's, or the other side's
        segments = ask.scene.profile.segments[: ask.scene.profile.outside_end]
    return [point[0] for segment in segments for point in (segment.start, segment.end)]


def _before_hold(end: float | None, reachable: float | None, only_later: bool = False) -> float | None:
    """The end of a stretch, before the hold."""
    if reachable is None or (only_later and end is None):
        return end
    return reachable if end is None else max(end, reachable)


def _between_edges(ask: _Ask, split: Split) -> tuple[float | None, float | None]:
    """The stretch of a second tool, run on to the next edges: two tools meet on an edge and leave no step."""
    edges = _edges(ask)
    start = min((z for z in edges if z >= split.from_z - NEAR_EDGE_MM), default=None)
    end = max((z for z in edges if z <= split.to_z + NEAR_EDGE_MM), default=None)
    return start if start is not None and start < -NEAR_EDGE_MM else None, end


def _finish(ask: _Ask) -> list[RouteStep]:
    inside = ask.wish.surface is not None and ask.wish.surface.kind == "bore"
    ra = _finest(ask.job, inside)
    kind, group = (FinishBore, "finish bore") if inside else (FinishOd, "finish outside")
    begin, end = _where_metal(ask)
    if not inside:
        end = _before_hold(end, reachable_end(ask.scene, ask.best.tool))
    whole = kind(id=ID, name=ask.wish.words, tool=ID, wanted_ra_um=ra, from_z_mm=begin, to_z_mm=end)
    if _into_shoulders(ask):
        whole = whole.changed(allow_away=True)
    steps = [ask.step(group, whole)]
    split = ask.advice.split
    if split is not None:
        start, stop = _between_edges(ask, split)
        stop = stop if inside else _before_hold(stop, reachable_end(ask.scene, split.candidate.tool), only_later=True)
        name = f"{ask.wish.words}: {REST}"
        rest = kind(id=ID, name=name, tool=ID, wanted_ra_um=ra, from_z_mm=start, to_z_mm=stop)
        if not inside and _cuts_outward(split.candidate.tool):  # its round has to roll over the edge it ends on
            rest = rest.changed(extension_mm=split.candidate.tool.insert.nose_radius_mm)  # type: ignore[union-attr]
        steps.append(ask.step(group, rest, split.candidate))
    return steps


def _into_shoulders(ask: _Ask) -> bool:
    """The tool takes undercuts along that go into their shoulder, if it may."""
    shape, part = shape_of(ask.best.tool), ask.job.part
    return relieved(part, shape, True) != relieved(part, shape, False)


def reachable_end(scene: Scene, tool: Tool) -> float | None:
    """Where turning the outside has to end before the hold; None where the back edge is reached."""
    profile, shape = scene.profile, shape_of(tool)
    edge = profile.segments[profile.outside_end - 1].end[0]
    reach = max(-float(piece[:, 0].min()) for piece in (*shape.bodies, shape.core)) + shape.nose_radius + shape.tip[0]
    end = scene.clear_z + reach + CLEAR_OF_HOLD_MM
    return None if edge - PAST_EDGE_MM >= end else math.ceil(10 * end) / 10


def _finest(job: Job, inside: bool) -> float:
    """The finest roughness wanted on the side, um."""
    elements = job.part.inside if inside else job.part.outside
    marks = [element.ra_um for element in elements if element.ra_um is not None and element.grind_mm is None]
    return min([*marks, job.part.ra_um or 3.2])


def _groove(ask: _Ask) -> list[RouteStep]:
    feature = ask.job.part.features[ask.wish.feature]
    inside = getattr(feature, "side", "outside") == "inside"
    operation = CutGroove(id=ID, name=ask.wish.words, tool=ID, feature=ask.wish.feature)
    at_shoulder = isinstance(feature, Relief)  # its blade comes to the shoulder, which is cut to size before
    group = ("relief inside" if at_shoulder else "groove inside") if inside else "groove"
    step = ask.step(group, operation)
    square = _opener(ask, feature)
    if square is None:
        return [step]
    words = said(
        "{} square opens the groove in steps: the pointed one meets its flanks only",
        q(square.blade.width_mm, "mm", "g"),
    )
    reasons = (words, *step.reasons)
    return [replace(step, tool=square, also=(("root_tool", step.tool), ("wall_tool", step.tool)), reasons=reasons)]


def _opener(ask: _Ask, feature: object) -> GroovingTool | None:
    """The widest square blade that takes most of a V before the pointed one advised for it."""
    pointed = ask.best.tool
    if not isinstance(pointed, GroovingTool) or pointed.tip_deg >= SQUARE_DEG or not isinstance(feature, Groove):
        return None
    deep = groove_depth_mm(ask.scene, feature)
    half_way = feature.width_mm - deep * math.tan(math.radians(feature.wall_deg))
    blades = [
        tool
        for tool in ask.store.tools
        if isinstance(tool, GroovingTool) and tool.where == pointed.where and tool.tip_deg == SQUARE_DEG
        and tool.blade.depth_mm >= deep and tool.blade.width_mm <= half_way
    ]  # fmt: skip
    return max(blades, key=lambda tool: tool.blade.width_mm, default=None) if deep >= DEEP_V_MM else None


def _drill(ask: _Ask) -> list[RouteStep]:
    group = "drill bore" if ask.wish.key.startswith("drill bore") else "drill"
    steps = []
    spot = _spot(ask)
    if spot is not None:
        reasons = (said("Ø {}, {}°: starts the drill in the middle", q(spot.d_mm, "mm", "g"), f"{spot.point_deg:g}"),)
        operation = DrillHole(id=ID, name=SPOT, tool=ID, depth_mm=None)
        steps.append(RouteStep(group=group, operation=operation, tool=spot, reasons=reasons))
    hole = ask.job.part.features[ask.wish.feature] if ask.wish.feature >= 0 else None
    past = past_hole_mm(ask.job, hole, ask.store) if isinstance(hole, AxialHole) else past_through_mm(ask.job)
    steps.append(ask.step(group, DrillHole(id=ID, name=ask.wish.words, tool=ID, breakthrough_mm=past)))
    flat = _flat(ask)
    if flat is not None:
        reasons = (said("Ø {}, no point: clears the floor that the drill's point left", q(flat.d_mm, "mm", "g")),)
        steps.append(
            RouteStep(
                group=group, operation=DrillHole(id=ID, name=FLOOR, tool=ID, peck=False), tool=flat, reasons=reasons
            )
        )
    return steps


def _flat(ask: _Ask) -> Drill | None:
    """A drill without a point for a blind hole whose floor is drawn flat."""
    hole = ask.job.part.features[ask.wish.feature] if ask.wish.feature >= 0 else None
    if hole is None:
        return _flat_for_bore(ask)
    if not isinstance(hole, AxialHole) or hole.depth_mm is None or hole.point_deg < FLAT_DEG:
        return None
    flats = (tool for tool in ask.store.tools if isinstance(tool, Drill) and tool.form == "flat")
    same = sorted(
        (tool for tool in flats if abs(tool.d_mm - hole.d_mm) < SAME_D_MM), key=lambda one: one.flute_length_mm
    )
    return next((tool for tool in same if tool.flute_length_mm >= hole.depth_mm), same[-1] if same else None)


def _flat_for_bore(ask: _Ask) -> Drill | None:
    """A drill without a point for the floor of a blind bore, where a pointed one leaves a cone that no bar faces."""
    drill, low = ask.best.tool, served_bore_z(ask.scene)
    if not isinstance(drill, Drill) or low <= ask.scene.profile.back_z + NEAR_EDGE_MM:
        return None
    if drill.point_deg >= (FLAT_DEG if drill.d_mm > NARROW_MM else SQUARE_DEG):
        return None
    flats = [tool for tool in ask.store.tools if isinstance(tool, Drill) and tool.form == "flat"]
    depth = ask.scene.stock_front_z - low
    able = [one for one in flats if one.d_mm <= drill.d_mm + SAME_D_MM and one.flute_length_mm >= depth]
    return max(able, key=lambda one: one.d_mm, default=None)


def _is_begun(scene: Scene) -> bool:
    """A wider drill has made the way in."""
    core = scene.stock.intersection(box(-FAR_MM, 0.0, FAR_MM, BEGUN_MM))
    return core.is_empty or float(core.bounds[2]) < scene.profile.front_z - BEGUN_MM


def _spot(ask: _Ask) -> Drill | None:
    """A spot drill for a slender drill of high-speed steel, or for any small twist drill."""
    drill = ask.best.tool
    if not isinstance(drill, Drill) or drill.form != "twist" or _is_begun(ask.scene):
        return None
    return spot_for(drill, ask.store)


def spot_for(drill: Drill, store: Catalogue) -> Drill | None:
    """The spot drill nearest to a drill's diameter, with a point not sharper than its own where there is one."""
    spots = [tool for tool in store.tools if isinstance(tool, Drill) and tool.form == "spot"]
    fitting = [spot for spot in spots if spot.point_deg >= drill.point_deg - 1e-6] or spots
    return min(fitting, key=lambda spot: abs(spot.d_mm - drill.d_mm), default=None)


def _centre(ask: _Ask) -> list[RouteStep]:
    return [ask.step("centre", DrillHole(id=ID, name=ask.wish.words, tool=ID))]


def _part_off(ask: _Ask) -> list[RouteStep]:
    taken: Literal["falls", "caught"] = "falls" if ask.job.conditions.attended else "caught"
    left = 0.0 if ask.scene.ends_z is None else BACK_FACE_MM
    return [ask.step("part off", PartOff(id=ID, name="Part off", tool=ID, taken=taken, leave_axial_mm=left))]


def _thread(ask: _Ask) -> list[RouteStep]:
    feature = ask.job.part.features[ask.wish.feature]
    assert isinstance(feature, ThreadFeature)
    form = form_of(ask.threads[feature.designation], feature.side, feature.designation)
    operation = CutThread(id=ID, name=ask.wish.words, tool=ID, feature=ask.wish.feature, form=form)
    return [ask.step("thread", operation)]


def _tap(ask: _Ask) -> list[RouteStep]:
    return [ask.step("tap", TapHole(id=ID, name=ask.wish.words, tool=ID))]


def _knurl(ask: _Ask) -> list[RouteStep]:
    return [ask.step("knurl", RollKnurl(id=ID, name=ask.wish.words, tool=ID, feature=ask.wish.feature))]


def _feed_bar(ask: _Ask) -> list[RouteStep]:
    return [ask.step("feed bar", FeedBar(id=ID, name=ask.wish.words, tool=ID))]


MAKERS: dict[str, Callable[[_Ask], list[RouteStep]]] = {
    "face": _face,
    "rough": _rough,
    "finish": _finish,
    "groove": _groove,
    "drill": _drill,
    "centre": _centre,
    "tap": _tap,
    "thread": _thread,
    "knurl": _knurl,
    "part_off": _part_off,
    "feed_bar": _feed_bar,
}
