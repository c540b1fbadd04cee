"""Finishing, outside and in a bore: one cut along the contour, with run-in, extension past the end, and run-out."""

import math
from dataclasses import dataclass, replace

import numpy as np

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Point, Points, Segment
from toreuma.core.geometry.envelope import Envelope, upper_envelope
from toreuma.core.geometry.reach import Reach, covered
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import EMPTY, Region, box, polygons, thickness
from toreuma.core.model import FinishBore, FinishOd, Job, RoughBore, RoughOd, TurningTool
from toreuma.core.model.tool import BoringTool
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.plan.ground.contour import from_place, nose_at_start
from toreuma.core.plan.ground.met import MetMetal, Trimmed
from toreuma.core.plan.ground.path import APPROACH_MM, PULL_OUT_MM, Path
from toreuma.core.plan.ground.result import PLANNING_CHORD_MM, Cuts, Cycle, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.situations import proposed, spindle_of
from toreuma.core.plan.turn.as_cycle import follow_cycle
from toreuma.core.plan.turn.situations import finish_situation
from toreuma.core.plan.turn.stretch import Stretch, blocked_of, reach_of, stretch_of
from toreuma.core.propose.proposal import Proposal
from toreuma.core.spoken import q, said

__all__ = ["plan_finish"]

Finishing = FinishOd | FinishBore
Turner = TurningTool | BoringTool

NEAR_MM = 0.5
"""How near to metal a rapid ends on the way to a finishing cut."""

CLEAR_MM, STEPS_BACK_MM = 0.25, np.arange(0.0, 1.0, 0.1)
"""In front of the work it keeps so far from metal, beginning so much before its run-in where that is nearer."""

REACHED_MM = 0.002
"""A place this close to the contour is on it."""

DEPTH_MM = 0.002
"""How exactly the deepest layer is measured."""

LEAST_DEEP_MM2 = 0.25
"""Less metal than this beyond the deepest a finishing cut should take is that of a chamfer: it does no harm."""

USUAL_SHARES = (0.55, 0.7, 0.85)
"""Of the deepest layer, what may be the usual one."""

MOST_NOSE_RADII = 2.5
"""A finishing cut deeper than this many nose radii is a roughing cut with the wrong tool."""


def plan_finish(work: Work, operation: Finishing) -> Cuts:
    """Follow the contour as far as the tool reaches; what it cannot reach is declared by the coverage."""
    stretch = stretch_of(work, operation)
    reach = reach_of(work, stretch, operation.leave_mm, operation.leave_mm)
    tool = work.tool
    assert isinstance(tool, TurningTool | BoringTool)
    contour = _contour(work, operation, stretch, reach)
    if not contour:
        what = f"{tool.id} finds no way along this stretch"
        raise OperationFault("finish.nothing", what, "it does not get there: open the way first, or take another tool")
    met = MetMetal(stretch.frame.region(work.stock), stretch.shape)
    way = _Way(operation.lead_mm, stretch, reach, met, _trimmed(contour, met, operation))
    # The way is the same at any feed, so the stock it meets is known before the feed is chosen.
    trial = tuple(_walked(work, way, STOPPED, 1.0)[0].motions)
    deepest = _deepest(work, trial)
    proposal = _proposal(work, operation, stretch, _usual(work, trial, deepest[0]))
    feed, reasons = proposal.cut.feed_mm_rev, dict(proposal.reasons)
    reasons[Figure.DEPTH] = Evidence(
        "deepest cut",
        "ap",
        deepest[0],
        "mm",
        measured_on="square to the contour",
        formula="stock met by the edge, from the simulated cut",
    )
    cycles: list[Cycle] = []
    if isinstance(operation, FinishOd) and operation.written == "whole":
        path = Path(work, spindle_of(work, proposal), stretch.frame, stretch.safe)
        (_, cycles, dipped), line = follow_cycle(work, operation, path, feed)
        reach = Reach(Envelope(line), stretch.shape)
        cutting = slice(cycles[0].first, cycles[0].first + cycles[0].count)
        path.leave()
    else:
        path, cutting = _walked(work, way, spindle_of(work, proposal), feed)
        dipped = []
    motions = tuple(path.motions)
    drawn = tuple(motion.segment for motion in motions[cutting] if not motion.is_rapid)
    far = MOST_NOSE_RADII * tool.insert.nose_radius_mm
    deep = deepest[0] > far and _beyond(work, motions, far) > LEAST_DEEP_MM2
    findings = [*stretch.findings, *dipped]
    findings += _too_deep(operation, tool, deepest) if deep else []
    return Cuts(
        motions=motions,
        passes=(Pass(drawn, deepest[0], finishing=True),),
        reasons=reasons,
        findings=tuple(findings),
        proposal=proposal,
        figures=replace(proposal.figures, ap_mm=deepest[0]),
        coverage=lambda: _coverage(work, operation, stretch, reach) if operation.leave_mm == 0 else EMPTY,
        cycles=tuple(cycles),
    )


@dataclass(frozen=True)
class _Way:
    """The contour with its run-in and run-out, and the part of it that meets metal."""

    lead_mm: float
    stretch: Stretch
    reach: Reach
    met: MetMetal
    cut: Trimmed


def _walked(work: Work, way: _Way, spindle: Spindle, feed: float) -> tuple[Path, slice]:
    """The moves along the way, and which of them cut."""
    stretch, nose = way.stretch, way.stretch.shape.nose_radius
    met, contour, begins, ends = way.met, way.cut.way, way.cut.begins, way.cut.ends
    top = max(stretch.safe, work.scene.stock_r + APPROACH_MM + nose) if not stretch.is_bore else stretch.safe
    run_in = None if begins else _run_in(contour[0], way.lead_mm, stretch, way.reach)
    path = Path(work, spindle, stretch.frame, stretch.safe)
    if run_in is None:  # nothing but straight down is free
        start = contour[0].start
        path.come(start[0], top)
        path.rapid(r=met.down_to(start, top, NEAR_MM))
        begin = len(path.motions)
    else:
        path.come(max(run_in[0], work.stock.bounds[2] + APPROACH_MM + nose), top)
        path.rapid(r=run_in[1])
        near = next((z for z in run_in[0] + STEPS_BACK_MM if met.is_free(np.array([[z, run_in[1]]]), CLEAR_MM)), None)
        if near is not None and near < path.nose[0]:
            path.rapid(z=float(near))
        begin = len(path.motions)
        path.feed(feed, z=run_in[0])  # a large nose may already meet metal here
    path.feed(feed, *contour[0].start)
    _follow(path, way, feed)
    cutting = slice(begin, len(path.motions))
    z, r = path.nose
    if stretch.is_bore:
        lift, up = 0.0 if ends else PULL_OUT_MM, min(r + PULL_OUT_MM, max(stretch.safe, r))
        path.go(None, z=z + lift, r=up)
    elif not ends:
        path.feed(feed, r=met.out_of((z, r), max(work.stock.bounds[3] + nose, r)))
    path.leave()
    return path, cutting


def _follow(path: Path, way: _Way, feed: float) -> None:
    """Along the contour at feed; where a long stretch of it is in the air, and there is room, over it at a rapid."""
    for piece, cuts in way.met.parted(way.cut.way):
        over = None if cuts else _over(way, piece[0].start, piece[-1].end)
        if over is None:
            path.along(piece, feed)
            continue
        path.rapid(r=over)
        path.rapid(z=piece[-1].end[0])
        ahead = way.met.in_front(piece[0].start[0])
        path.rapid(r=ahead.down_to(piece[-1].end, over, NEAR_MM))
        path.feed(feed, *piece[-1].end)


def _over(way: _Way, behind: Point, ahead: Point) -> float | None:
    """How high the nose goes from one place of the contour to another without coming near metal or the part; None
    where there is no room for that."""
    low, high = sorted((behind[0], ahead[0]))
    between = way.reach.envelope.points
    there = between[(between[:, 0] >= low) & (between[:, 0] <= high)]
    over = max([behind[1], ahead[1], *there[:, 1]]) + NEAR_MM
    if way.stretch.is_bore and over > min(way.stretch.safe, way.stretch.ceiling):
        return None
    ways = ((behind, (behind[0], over)), ((behind[0], over), (ahead[0], over)), ((ahead[0], over), ahead))
    if not all(way.reach.envelope.clears(*one) for one in ways):
        return None
    z = np.arange(low, high + CLEAR_MM, CLEAR_MM)
    ahead_of_it = way.met.in_front(behind[0])  # what lies behind has been cut
    return over if ahead_of_it.is_free(np.column_stack([z, np.full(len(z), over)]), CLEAR_MM) else None


def _proposal(work: Work, operation: Finishing, stretch: Stretch, depth_mm: float) -> Proposal:
    """The numbers, for the depth the stock leaves and the finish that is wanted."""
    situation = finish_situation(work, stretch, operation.wanted_ra_um)
    length = max(stretch.nose_from - stretch.nose_to, 1.0)
    return proposed(work, situation, ((max(depth_mm, 0.01), length),), max(depth_mm, 0.01))


def _contour(work: Work, operation: Finishing, stretch: Stretch, reach: Reach) -> list[Segment]:
    """What the nose centre follows, as true lines and arcs."""
    outline = _undercut_outline(work, stretch, reach) if operation.allow_away else reach.envelope.points
    begun = _from_start(outline, work, stretch)
    return work.memo.of(_followed, np.ascontiguousarray(begun), stretch.ceiling)


def _followed(outline: Points, ceiling: float) -> list[Segment]:
    return recover(_below(outline, ceiling))


def _from_start(outline: Points, work: Work, stretch: Stretch) -> Points:
    """The outline from the place that belongs to the first surface to cut."""
    profile, nose, first = work.scene.profile, stretch.shape.nose_radius, stretch.first
    if first is None:
        return outline
    if not work.scene.centre.is_empty and not stretch.is_bore:
        return _behind_centre(outline, work, stretch)
    if not stretch.is_bore and first.start[1] < 1e-9:
        return from_place(outline, (first.start[0] + nose, 0.0))
    found = from_place(outline, nose_at_start(first, nose))
    if math.dist(found[0], nose_at_start(first, nose)) < REACHED_MM:
        return found
    # The tool does not get down to the start of the first surface: roll over the front edge instead.
    in_front = outline[:, 0] >= profile.front_z + nose - 1e-6
    return np.asarray(outline[int(np.flatnonzero(in_front)[-1]) :])


def _behind_centre(outline: Points, work: Work, stretch: Stretch) -> Points:
    """The outline from the place where it leaves the centre and follows the part."""
    centre = work.memo.of(upper_envelope, work.blocked_by_centre, stretch.nose_from, stretch.nose_to)
    along = np.array([centre.height(z) >= r - REACHED_MM for z, r in outline])
    last = int(np.flatnonzero(along)[-1]) if along.any() else 0
    return np.asarray(outline[min(last, len(outline) - 2) :])


def _run_in(first: Segment, lead: float, stretch: Stretch, reach: Reach) -> Point | None:
    """Where the tool comes in, back along the first element; None where only straight down is free."""
    (z, r), (dz, dr) = first.start, first.tangent()
    place = (z - lead * dz, r - lead * dr)
    if stretch.from_z is not None or place[0] < z or not reach.envelope.clears(place, first.start):
        return None
    return place


def _trimmed(contour: list[Segment], met: MetMetal, operation: Finishing) -> Trimmed:
    """What of the contour meets metal; in an undercut the tool goes as it came."""
    return Trimmed(contour, False, False) if operation.allow_away else met.trimmed(contour)


def _undercut_outline(work: Work, stretch: Stretch, reach: Reach) -> Points:
    """The outline the nose centre can follow when it may also move away from the chuck: with its undercuts."""
    blocked = blocked_of(work, stretch)
    window = box(stretch.nose_to, stretch.bottom, stretch.nose_from, 1e4)
    pieces = polygons(blocked.intersection(window))
    if not pieces:
        return reach.envelope.points
    ring = np.asarray(max(pieces, key=lambda piece: piece.area).exterior.normalize().coords)
    if _signed_area(ring) < 0:
        ring = ring[::-1]
    low = ring[:, 1] < stretch.bottom + 1e-6
    right = int(np.flatnonzero(low)[ring[low, 0].argmax()])
    rolled = np.vstack([ring[right:-1], ring[: right + 1]])
    left = int(np.flatnonzero(rolled[:, 0] <= stretch.nose_to + 1e-9)[0])
    return np.asarray(rolled[: left + 1])


def _signed_area(ring: Points) -> float:
    z, r = ring[:, 0], ring[:, 1]
    return float((z[:-1] * r[1:] - z[1:] * r[:-1]).sum() / 2)


def _deepest(work: Work, motions: tuple[Motion, ...]) -> tuple[float, Point | None]:
    """The thickest layer the finishing cut meets, and where."""
    after = work.after(motions, PLANNING_CHORD_MM)
    return work.memo.of(_thickest, work.stock, after)


def _thickest(stock: Region, left: Region) -> tuple[float, Point | None]:
    best, place = 0.0, None
    after = left.simplify(DEPTH_MM)
    for piece in polygons(stock.simplify(DEPTH_MM).difference(after)):
        depth = thickness(piece, after)
        if depth > best:
            best, place = depth, (float(piece.centroid.x), float(piece.bounds[3]))
    return best, place


def _beyond(work: Work, motions: tuple[Motion, ...], far_mm: float) -> float:
    """Area of the metal the cut takes that lies farther than ``far_mm`` from what it leaves, mm2."""
    after = work.after(motions, PLANNING_CHORD_MM)
    taken = work.stock.difference(after).simplify(DEPTH_MM)
    return float(taken.difference(after.simplify(DEPTH_MM).buffer(far_mm, quad_segs=4)).area)


def _usual(work: Work, motions: tuple[Motion, ...], deepest_mm: float) -> float:
    """How deep the cut goes but for chamfers, mm: in a place as short as they are no chip has to break, and the whole
    cut is not fed for it."""
    after = work.after(motions, PLANNING_CHORD_MM)
    return work.memo.of(_depth_but_for_chamfers, work.stock, after, deepest_mm)


def _depth_but_for_chamfers(stock: Region, after: Region, deepest_mm: float) -> float:
    left = after.simplify(DEPTH_MM)
    taken = stock.difference(after).simplify(DEPTH_MM)
    for share in USUAL_SHARES:
        beyond = taken.difference(left.buffer(share * deepest_mm, quad_segs=4))
        if all(piece.area <= LEAST_DEEP_MM2 for piece in polygons(beyond)):
            return share * deepest_mm
    return deepest_mm


def _too_deep(
    operation: Finishing, tool: TurningTool | BoringTool, deepest: tuple[float, Point | None]
) -> list[Finding]:
    limit = MOST_NOSE_RADII * tool.insert.nose_radius_mm
    if tool.insert.shape == "R" or deepest[0] <= limit or deepest[1] is None:
        return []
    z = deepest[1][0]

    def rough_first(job: Job) -> Job:
        kind = RoughBore if isinstance(operation, FinishBore) else RoughOd
        count = 1 + sum(isinstance(op, kind) for op in job.operations)
        extra = kind(
            id=job.free_operation_id(),
            name=f"Rough {count} with {tool.id}",
            tool=tool.id,
            from_z_mm=operation.from_z_mm,
            to_z_mm=operation.to_z_mm,
        )
        at = next(i for i, op in enumerate(job.operations) if op.id == operation.id)
        return job.with_setup(operations=(*job.operations[:at], extra, *job.operations[at:]))

    return [
        Finding(
            "warning",
            "finish.deep",
            said("the finishing cut takes {} on radius near Z {}", q(deepest[0]), q(z, "mm", ".1f", bare=True)),
            said("more than {} nose radii ({}): earlier tools left metal there", f"{MOST_NOSE_RADII:g}", q(limit)),
            operation=operation.id,
            at=deepest[1],
            cures=(Cure(f"Rough with {tool.id} first", rough_first),),
        )
    ]


def _below(outline: Points, ceiling: float) -> Points:
    """The outline up to where it rises past the highest place the tool may go.

    Raises `OperationFault` where something stands in the way from the start.
    """
    over = np.flatnonzero(outline[:, 1] > ceiling)
    if not len(over):
        return outline
    if over[0] < 2:
        raise OperationFault(
            "bore.shut",
            "the bar meets metal before its insert gets to the surface",
            "a flat-bottomed hole first, deeper or wider, or a bar with less in front of its insert",
        )
    last, beyond = outline[over[0] - 1], outline[over[0]]
    share = (ceiling - last[1]) / (beyond[1] - last[1])
    return np.vstack([outline[: over[0]], last + share * (beyond - last)])


def _coverage(work: Work, operation: Finishing, stretch: Stretch, reach: Reach) -> Region:
    """What the finished stretch is declared to be clean of."""
    top = stretch.ceiling if stretch.is_bore else work.scene.stock_r + work.shape.nose_radius + 1.0
    if not operation.allow_away:
        clean = reach.removable(top)
    else:
        window = box(stretch.nose_to, stretch.bottom, stretch.nose_from, top)
        free = [p for p in polygons(window.difference(blocked_of(work, stretch))) if math.isclose(p.bounds[3], top)]
        clean = covered(max(free, key=lambda piece: piece.area), stretch.shape)
    low = stretch.end_z if operation.to_z_mm is not None else -1e4
    high = work.scene.profile.front_z if stretch.from_z is None else stretch.from_z
    return stretch.frame.region(clean).intersection(box(low, 0, high, 1e4))
