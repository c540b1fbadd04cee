"""Single-point threads, outside and in a bore: where they start and end, the passes, and what limits the speed.

The depth is that at which this insert makes the middle of the pitch diameter's limits: the flanks of its tooth,
drawn down to a point, stand ``P/(4 tan(α/2))`` below the pitch line, and its round keeps it ``r (1/sin(α/2) - 1)``, or
its flat ``F/(2 tan(α/2))``, above that point (plane geometry of ISO 68-1 and ISO 2904). A taper thread has that
diameter in its gauge plane and grows from there.
"""

import math
from dataclasses import dataclass, replace

import shapely

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.infeed import InfeedPass, Tip, first_depth_mm, infeed, pass_count
from toreuma.core.cutting.speed import bound, lowest
from toreuma.core.findings import Finding
from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.slender import rises_slowly
from toreuma.core.model import CutThread, ThreadForm
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.tool import ThreadingTool
from toreuma.core.motion import Spindle
from toreuma.core.plan.ground.frame import INSIDE, OUTSIDE, Frame
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, Cycle, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import axial_speed
from toreuma.core.plan.thread.checks import thread_findings
from toreuma.core.plan.thread.cycle import ThreadBlock, all_as_one, one_as_cycle, thread_block
from toreuma.core.spoken import q, said

__all__ = ["plan_thread", "tip_radius"]

SPEED_SHARE = 0.75
"""Threading speed against roughing with the same tool material: typical."""

AXIS_SHARE = 0.5
"""In step with the spindle an axis may go this share of its rapid: typical; the machine's manual says."""

RUN_IN_PITCHES = 3.0
PAST_FREE = 2.0
"""In a relief or past the end a thread is run on by so many turns at most."""

CLEAR_MM = 0.3

MOST_DEPTH = 1.3
"""A pointed tooth that goes deeper than this many depths of the standard is none for the thread."""

SHOULDER_MM, CONE_LONG_MM = 0.1, 12.0
"""What stands higher beside a thread is a shoulder, but for a slender cone at least so long."""
FAR_MM = 1e4


@dataclass(frozen=True)
class _Slope:
    """A taper thread in its frame rises toward the chuck, outside and in a bore, from a place along Z."""

    per_mm: float
    from_z: float

    def rise(self, z: float) -> float:
        return self.per_mm * (self.from_z - z)


@dataclass(frozen=True, kw_only=True)
class _Thread:
    """The thread in its frame: heights of crest and tip at its middle, and of safe travel; Z where the tip starts
    and ends; the room there is in front and behind, which may be less than wanted."""

    frame: Frame
    shape: ToolShape
    crest: float
    tip: float
    safe: float
    start_z: float
    end_z: float
    room_in_front: float
    room_behind: float
    runs_out: bool
    slope: "_Slope"

    @property
    def depth(self) -> float:
        return self.crest - self.tip


def tip_radius(pitch_d_mm: float, pitch_mm: float, flank_deg: float, tip: Tip, inside: bool) -> float:
    """Radius of the tip of a threading tool, mm, at which its flanks make a pitch diameter."""
    half = math.radians(flank_deg / 2)
    below = pitch_mm / (4 * math.tan(half)) - tip.lacks_mm(half)
    return pitch_d_mm / 2 + below if inside else pitch_d_mm / 2 - below


def plan_thread(work: Work, operation: CutThread) -> Cuts:
    """Cut a thread in passes."""
    tool, feature = work.tool, _feature(work, operation)
    if not isinstance(tool, ThreadingTool) or tool.where != feature.side:
        raise OperationFault(
            "tool.kind", f"{tool.id} does not cut a thread {feature.side}", "choose a threading tool for that side"
        )
    form, material = operation.form, work.given.stock.material
    figures, reasons = _speed(work, operation, tool)
    rpm = figures.rpm or 0.0
    thread = _place(work, operation, tool, feature, rpm)
    end = _tip(tool)
    count = operation.passes or pass_count(thread.depth, form.pitch_mm, material, form.flank_deg, end)
    passes = infeed(
        thread.depth, form.flank_deg, count, operation.infeed, operation.division, material,
        end, operation.spring_passes, operation.typed_mm,
    )  # fmt: skip
    if operation.measured_over_wires_mm is not None:
        passes = [replace(passes[-1], infeed_mm=0.0, shift_mm=0.0)]
    if form.depth_mm is not None and thread.depth > MOST_DEPTH * form.depth_mm:
        raise OperationFault(
            "thread.tooth",
            said(
                "the insert's tooth comes to a point: it would go {} deep, the thread is {}",
                q(thread.depth),
                q(form.depth_mm),
            ),
            "an insert of the thread's own profile, with its flat",
        )
    if form.left_hand and thread.runs_out:
        raise OperationFault(
            "thread.relief",
            "a left-hand thread is cut away from the chuck, and there is no relief for it to begin in",
            "give the thread a relief at its far end",
        )
    path = Path(work, Spindle("fixed", rpm), thread.frame, thread.safe)
    written, more = _written(operation, thread)
    if written == "whole":
        block = thread_block(operation, thread.depth, count, thread.runs_out, CLEAR_MM)
        passes = infeed(
            thread.depth, form.flank_deg, count, "flank" if block.flank_deg else "radial", "typed", material, end,
            block.springs, block.depths[: -block.springs],
        )  # fmt: skip
        drawn, cycles = _whole(path, thread, block, form)
    elif written == "passes":
        drawn, cycles = _each(path, thread, passes, form)
    else:
        most_shift = max(one.shift_mm for one in passes)
        starts = [start * form.pitch_mm for start in range(form.starts)]
        drawn = [_write(path, thread, one, form, offset, most_shift) for offset in starts for one in passes]
        cycles = []
    path.leave()
    reasons |= _reasons(work, operation, thread, passes)
    hardest = max((one.force_n for one in passes), default=0.0)
    figures = replace(figures, ap_mm=thread.depth, force_n=hardest)
    findings = thread_findings(work, operation, tool, feature, (thread.room_in_front, thread.room_behind))
    return Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=(*more, *findings),
        infeed=tuple(passes),
        cycles=tuple(cycles),
        figures=figures,
    )


def _written(operation: CutThread, thread: _Thread) -> tuple[str, list[Finding]]:
    """How the thread can be written, and why not as wished."""
    form, wished = operation.form, operation.written
    bars = [
        (form.taper > 0, "a taper thread"),
        (form.starts > 1, "a thread of several starts"),
        (form.left_hand, "a left-hand thread"),
        (operation.measured_over_wires_mm is not None, "a thread that is cut again"),
        (wished == "passes" and thread.runs_out, "a thread that runs out"),
    ]
    why = next((words for bar, words in bars if bar), "")
    if wished == "moves" or not why:
        return wished, []
    what = f"{why} is written move by move"
    note = Finding("note", "cycle.none", what, "the cycle of the control does not make it here", operation=operation.id)
    return "moves", [note]


def _whole(path: Path, thread: _Thread, block: ThreadBlock, form: ThreadForm) -> tuple[list[Pass], list[Cycle]]:
    path.come(thread.start_z, thread.safe)
    end = thread.frame.point((thread.end_z + path.tip[0], thread.tip + thread.shape.nose_radius + path.tip[1]))
    drawn, cycle = all_as_one(path, block, end, form.lead_mm)
    return drawn, [cycle]


def _each(path: Path, thread: _Thread, passes: list[InfeedPass], form: ThreadForm) -> tuple[list[Pass], list[Cycle]]:
    drawn, cycles = [], []
    for one in passes:
        begin = thread.start_z + one.shift_mm
        if path.motions:
            path.rapid(z=begin)
        else:
            path.come(begin, thread.safe)
        nose = thread.crest - one.depth_mm + thread.shape.nose_radius
        end = thread.frame.point((thread.end_z + path.tip[0], nose + path.tip[1]))
        made, cycle = one_as_cycle(path, end, form.lead_mm, one.infeed_mm)
        drawn.append(made)
        cycles.append(cycle)
    return drawn, cycles


def _tip(tool: ThreadingTool) -> Tip:
    return Tip(tool.insert.tip_radius_mm, tool.insert.tip_flat_mm)


def _feature(work: Work, operation: CutThread) -> ThreadFeature:
    features = work.given.part.features
    feature = features[operation.feature] if operation.feature < len(features) else None
    if not isinstance(feature, ThreadFeature):
        raise OperationFault(
            "thread.none", f"feature {operation.feature + 1} of the part is no thread", "choose a thread of the part"
        )
    return feature


def _speed(work: Work, operation: CutThread, tool: ThreadingTool) -> tuple[Figures, Reasons]:
    form, machine = operation.form, work.given.machine
    speed = axial_speed(work, tool.insert.material, max(form.crest_d_mm), SPEED_SHARE, "threading")
    axis = Limit(f"axis feed, {AXIS_SHARE:.0%} of rapid", AXIS_SHARE * machine.rapid_z_mm_min / form.lead_mm, "rpm")
    rpm, n = speed.rpm, speed.n
    if operation.pins.clamp_rpm is None:
        limits = [Limit(n.bit.label if n.bit else "surface speed", rpm, "rpm"), axis]
        rpm = work.given.steps.turns(bound(limits))
        n = lowest("spindle speed", "n", "rpm", limits, formula="n = 1000 vc / (π d), n ≤ v / P")
        n = replace(n, number=rpm, typable=True)
    feed = Evidence("lead", "P", form.lead_mm, "mm/rev", formula="pitch times starts")
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=rpm, feed_mm_rev=form.lead_mm)
    return figures, {Figure.SPEED: speed.vc, Figure.TURNS: n, Figure.FEED: feed}


def _place(work: Work, operation: CutThread, tool: ThreadingTool, feature: ThreadFeature, rpm: float) -> _Thread:
    form, inside = operation.form, feature.side == "inside"
    frame = INSIDE if inside else OUTSIDE
    shape = frame.shape(work.shape)
    sign = -1.0 if inside else 1.0
    crest = sign * sum(form.crest_d_mm) / 4
    tip = sign * tip_radius(sum(form.pitch_d_mm) / 2, form.pitch_mm, form.flank_deg, _tip(tool), inside)
    stock = frame.region(work.stock)
    front, back = feature.from_z_mm, feature.from_z_mm - feature.length_mm
    slope = _Slope(feature.taper_sign * form.taper / 2, feature.gauge_z_mm(form.gauge_mm))
    to_middle = slope.rise((front + back) / 2)
    tip, crest = tip + to_middle, crest + to_middle
    slope = _Slope(slope.per_mm, (front + back) / 2)
    run_in = operation.start_mm or _run_in(work, form.lead_mm, rpm)
    nose = tip + shape.nose_radius
    before, behind, gap, begins = _beside(stock, front, back, tip, crest)
    most_z = _first_blocked(before, shape, nose, front, 1.0) if before is not None else FAR_MM
    least_z = _first_blocked(behind, shape, nose, back, -1.0) if behind is not None else -FAR_MM
    start_z = min(front + run_in, most_z)
    free = behind is None and _reaches(stock, back - PAST_FREE * form.lead_mm, back, tip)
    past = PAST_FREE * form.lead_mm if gap or free else 0.0
    if form.left_hand and gap:  # it begins there: as far from the thread as insert and holder get
        past = FAR_MM
    # A bar goes into the hold with the bore it is in; what it carries is looked at by the proof.
    end_z = max(back - past, least_z, -FAR_MM if inside else work.limit_z)
    if start_z <= end_z:
        raise OperationFault("thread.room", "there is no room for the thread", "look at what stands beside it")
    if inside:
        way = shapely.clip_by_rect(work.stock, end_z, 0, FAR_MM, FAR_MM)
        safe = min(float(way.bounds[1]) - CLEAR_MM - shape.height, crest + shape.nose_radius + APPROACH_MM)
        if safe < crest + shape.nose_radius + 0.1:
            raise OperationFault(
                "bore.narrow",
                said("{} does not fit the bore of Ø {}", tool.id, q(2 * float(way.bounds[1]))),
                "a thinner bar, or a tap",
            )
    else:
        near = shapely.clip_by_rect(stock, end_z - 1.0, 0, max(start_z, end_z) + 1.0, FAR_MM)
        safe = float(near.bounds[3]) + shape.nose_radius + APPROACH_MM
    if past == 0.0:  # whole turns, so that the way out begins where the last turn ends; it needs room as well
        end_z = max(end_z, least_z + crest - tip + CLEAR_MM)
        turns = (start_z - end_z) / form.lead_mm
        more = end_z + math.ceil(turns - 1e-6) * form.lead_mm
        start_z = more if more <= most_z else end_z + math.floor(turns + 1e-6) * form.lead_mm
    return _Thread(
        frame=frame,
        shape=shape,
        crest=crest,
        tip=tip,
        safe=safe,
        start_z=start_z,
        end_z=end_z,
        room_in_front=start_z - (begins if start_z < begins else front),
        room_behind=back - end_z,
        runs_out=past == 0.0,
        slope=slope,
    )


def _run_in(work: Work, lead: float, rpm: float) -> float:
    """Far enough in front for the axis to reach the feed: v²/(2a), and a few turns to settle."""
    speed = rpm * lead / 60
    return max(RUN_IN_PITCHES * lead, speed**2 / (2 * work.given.machine.acceleration_mm_s2) + lead)


def _reaches(stock: Region, low: float, high: float, tip: float) -> bool:
    """Nothing stands at the tip's depth between two places: the thread ends in air."""
    line = shapely.LineString([(low, tip + 1e-3), (high - 0.1, tip + 1e-3)])
    return bool(shapely.intersection(stock, line).length < 1e-3)


def _beside(
    stock: Region, front: float, back: float, tip: float, crest: float
) -> tuple[Region | None, Region | None, bool, float]:
    """Metal at the tip's depth in front of and behind the thread, parted from it by air; None where there is none.
    And whether there is such a gap behind it, and where the metal it is cut into begins along Z.

    Where no air parts them it is the shoulder that counts, metal higher than the crest.
    """
    high = tip + 1e-3
    line = shapely.intersection(stock, shapely.LineString([(-FAR_MM, high), (FAR_MM, high)]))
    spans = sorted((part.bounds[0], part.bounds[2]) for part in shapely.get_parts(line) if part.length > 1e-6)
    own = [span for span in spans if span[0] < front and span[1] > back]
    low, top = (min(s[0] for s in own), max(s[1] for s in own)) if own else (back, front)
    before = box(max(top, front) + 1e-3, -FAR_MM, FAR_MM, FAR_MM)
    behind = box(-FAR_MM, -FAR_MM, min(low, back) - 1e-3, FAR_MM)
    shoulder_before = box(front + 1e-3, -FAR_MM, FAR_MM, FAR_MM)
    shoulder_behind = box(-FAR_MM, -FAR_MM, back - 1e-3, FAR_MM)
    parted = _metal(stock, behind, high)
    return (
        _metal(stock, before, high) or _shoulder(stock, shoulder_before, front + 1e-3, crest, 1.0),
        parted or _shoulder(stock, shoulder_behind, back - 1e-3, crest, -1.0),
        parted is not None,
        max(top, front),
    )


def _shoulder(stock: Region, where: Region, z: float, crest: float, side: float) -> Region | None:
    """Metal higher than the crest beside a place along Z, on the side of +Z (1) or -Z (-1); a slender cone that rises
    from there is no shoulder: the thread runs out into it."""
    found = _metal(stock, where, crest + SHOULDER_MM)
    if found is None:
        return None
    slender = rises_slowly(stock, z, crest + SHOULDER_MM, side, CONE_LONG_MM)
    return None if slender else found


def _metal(stock: Region, where: Region, high: float) -> Region | None:
    metal = stock.intersection(where).intersection(box(-FAR_MM, high, FAR_MM, FAR_MM))
    return metal if metal.area > 1e-6 else None


def _first_blocked(metal: Region, shape: ToolShape, nose: float, place: float, side: float) -> float:
    """How far along Z the nose can go from ``place`` before insert or holder come too near the metal; in front short
    of it where it cannot even come down there."""
    blocked = union(
        [blocked_by_part(metal, shape, CLEAR_MM, 0.0), blocked_by_body(metal, shape.bodies, CLEAR_MM, -FAR_MM)]
    )
    met = shapely.intersection(blocked, shapely.LineString([(-FAR_MM, nose), (FAR_MM, nose)]))
    spans = [(part.bounds[0], part.bounds[2]) for part in shapely.get_parts(met) if not part.is_empty]
    if side > 0:
        return float(min((low for low, high in spans if high > place), default=FAR_MM))
    return float(max((min(high, place) for low, high in spans if low < place), default=-FAR_MM))


def _write(path: Path, thread: _Thread, one: InfeedPass, form: ThreadForm, offset: float, most_shift: float) -> Pass:
    """One pass: to its start, in step along the thread, out, and back."""
    lead, left_hand, slope = form.lead_mm, form.left_hand, thread.slope
    begin, end = thread.start_z + one.shift_mm - offset, thread.end_z
    if left_hand:  # it begins in the relief and never nearer the shoulder than ``end_z``
        begin, end = thread.end_z + most_shift - one.shift_mm + offset, thread.start_z
    nose = thread.crest - one.depth_mm + thread.shape.nose_radius
    out = one.depth_mm + CLEAR_MM
    if thread.runs_out:  # whole turns, so that the way out begins where the last turn ends
        end = begin - math.floor((begin - thread.end_z) / lead + 1e-6) * lead
    if not path.motions:
        path.come(begin, thread.safe)
    else:
        path.rapid(r=thread.safe)
        path.rapid(z=begin)
    path.rapid(r=nose + slope.rise(begin))
    first = len(path.motions)
    path.thread(lead, end, nose + slope.rise(end))
    if thread.runs_out:
        path.thread(lead, end - out, nose + slope.rise(end) + out)
    segments = tuple(motion.segment for motion in path.motions[first:])
    path.rapid(r=thread.safe)
    return Pass(segments, one.infeed_mm, finishing=one.spring)


def _reasons(work: Work, operation: CutThread, thread: _Thread, passes: list[InfeedPass]) -> Reasons:
    form = operation.form
    cap = first_depth_mm(form.pitch_mm, work.given.stock.material)
    worst = max(passes, key=lambda one: one.force_n)
    found = {
        Figure.DEPTH: Evidence(
            "depth of the thread", "h", thread.depth, "mm", measured_on="on radius",
            formula="crest to tip, for the middle of the pitch diameter's limits",
            source="ISO 68-1 geometry with the insert's own round",
            inputs=(Input("pitch diameter, middle", "d2", sum(form.pitch_d_mm) / 2, "mm"),
                    Input("crest, middle", "d", sum(form.crest_d_mm) / 2, "mm")),
        ),
        Figure.PASSES: Evidence(
            "passes", "i", float(len(passes)), "", formula="n = (h / first)², and spring passes",
            inputs=(Input("first pass at most", "a1", cap, "mm"),),
        ),
        Figure.FORCE: Evidence(
            "cutting force, hardest pass", "Fc", worst.force_n, "N", formula="Fc = kc A",
            inputs=(Input("chip area", "A", worst.area_mm2, "mm2"),), source="Kienzle 1952, ±20 %",
        ),
        Figure.START: Evidence(
            "run-in", "δ1", thread.room_in_front, "mm", measured_on="along Z",
            formula="v² / (2 a) and a turn, at least 3 turns",
        ),
        Figure.END: Evidence("run-out past the thread", "δ2", thread.room_behind, "mm", measured_on="along Z",
                        formula="as far as the relief has room, two turns at most"),
    }  # fmt: skip
    if operation.measured_over_wires_mm is not None:
        half = math.radians(form.flank_deg / 2)
        wire = form.pitch_mm / (2 * math.cos(half))
        over = sum(form.pitch_d_mm) / 2 + wire * (1 + 1 / math.sin(half)) - form.pitch_mm / 2 / math.tan(half)
        add = (operation.measured_over_wires_mm - over) / 2
        found[Figure.AGAIN] = Evidence(
            "to add on radius", "Δ", add, "mm", measured_on="on radius",
            formula="(M found - M wanted) / 2, into the tool's X offset",
            inputs=(Input("wire", "w", wire, "mm"), Input("M wanted", "M", over, "mm")), source="three-wire method",
        )  # fmt: skip
    return found
