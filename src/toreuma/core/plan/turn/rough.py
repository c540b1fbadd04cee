"""Roughing toward the chuck, outside and in a bore.

Passes are straight lines clipped by reach and by the stock. The depth from the top down to the next shoulder is
divided evenly, then each stretch below that shoulder on its own, so every step ends exactly at its allowance.
At a wall the tool follows it up to the level before, which leaves no steps; into a pocket it goes down along the
wall behind it, which is as steep as its trailing edge allows.
"""

import math
from dataclasses import replace

import numpy as np

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import CHORD_MM, Points
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.minkowski import sum_with
from toreuma.core.geometry.reach import Reach
from toreuma.core.geometry.recover import FIT_MM
from toreuma.core.geometry.region import Region, box
from toreuma.core.geometry.shape import grow
from toreuma.core.model import Job, Operation, RoughBore, RoughOd
from toreuma.core.plan.ground.given import Neighbours
from toreuma.core.plan.ground.met import MetMetal
from toreuma.core.plan.ground.path import PULL_OUT_MM, Path
from toreuma.core.plan.ground.result import PLANNING_CHORD_MM, Cuts, Cycle, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.passes import passes
from toreuma.core.plan.numbers.situations import interruption, proposed, spindle_of
from toreuma.core.plan.turn.as_cycle import passes_as_cycles, rough_as_cycle
from toreuma.core.plan.turn.chip_breaks import Breaks, breaks_of, chip_breaks, feed_in_pieces, stops_in_hard_skin
from toreuma.core.plan.turn.levels import SAME_MM, SLIVER_MM, LevelCut, Metal, level_cuts, shoulder_steps
from toreuma.core.plan.turn.pinch import pinch_findings, pinch_numbers
from toreuma.core.plan.turn.rough_contour import rough_along_contour
from toreuma.core.plan.turn.rough_plunge import rough_by_plunging
from toreuma.core.plan.turn.rough_pull import EXIT_MM, SLOW_EXIT, pulled_numbers, rolled_in
from toreuma.core.plan.turn.situations import rough_situation
from toreuma.core.plan.turn.stretch import Stretch, reach_of, stretch_of
from toreuma.core.plan.turn.that_cut import that_cut
from toreuma.core.propose.proposal import Proposal

__all__ = ["front_later", "plan_rough"]

Roughing = RoughOd | RoughBore

FAR_MM = 1e4
PAST_FINISH_MM = 0.3
"""Roughing runs this much farther past the end than finishing."""

CLEANED_LATER_MM = 0.05
"""Where so much is left on walls, a finishing cut cleans what a leaning edge leaves besides."""

COARSE_MM = 0.002
"""Chords and arcs of roughing hold this where it leaves an allowance much larger than it."""


def plan_rough(work: Work, operation: Roughing) -> Cuts:
    """Remove everything the tool reaches above the contour and its allowances."""
    if operation.kind == "rough_od" and operation.pattern == "plunge":
        return rough_by_plunging(work, operation)
    pulled = operation.kind == "rough_od" and operation.pattern == "pull"
    stretch, reach = _reach(work, operation)
    fit = COARSE_MM if _is_coarse(operation) else FIT_MM
    touched = _engagement(work, stretch)
    top = stretch.top
    proposal = _proposal(work, operation, stretch, reach)
    reasons = {**proposal.reasons, **_left(operation), **interruption(work, proposal)}
    limit, feed, _ = proposal.cut
    if operation.kind == "rough_od" and operation.pattern == "contour":
        return rough_along_contour(work, operation, stretch, touched, proposal, reasons)
    finished_later = operation.leave_axial_mm >= CLEANED_LATER_MM
    leans = stretch.shape.leading_lean if finished_later else math.inf
    metal = Metal(stretch.stock, touched, stretch.shape.nose_radius, leans)
    cuts = work.memo.of(level_cuts, reach.envelope, metal, top, stretch.floor, limit, operation.varied)
    if operation.written == "moves" and finished_later and not pulled:
        cuts = work.memo.of(that_cut, cuts, stretch.stock, stretch.shape.core, stretch.shape.nose_radius)
    findings = [*stretch.findings, *stops_in_hard_skin(work.given.stock.material, operation)]
    if not cuts:
        findings.append(
            Finding(
                "note",
                "rough.nothing",
                "the tool finds nothing to rough here",
                "earlier operations left no stock it can reach",
                operation=operation.id,
            )
        )
    spindle = spindle_of(work, proposal)
    path = Path(work, spindle, stretch.frame, stretch.safe)
    breaks = breaks_of(operation, spindle, work.given.machine, proposal.situation.d_mm)
    if pulled:
        cuts = [rolled_in(cut) for cut in cuts]
        reasons |= pulled_numbers(cuts, proposal)
    slow = SLOW_EXIT if pulled else 1.0
    cycles: list[Cycle] = []
    strokes: list[tuple[int, int]] = []
    written = _as_cycles(work, operation, path, cuts, stretch, (limit, feed)) if cuts else None
    if written is not None:
        drawn, cycles, more = written
        findings += more
    else:
        drawn = []
        for cut in cuts:
            begin = len(path.motions)
            drawn.append(_write(path, cut, stretch, feed, reach.envelope, fit, breaks, slow))
            strokes.append((begin, len(path.motions)))
        findings += _not_as_wished(operation) if cuts else []
    if breaks is not None:
        reasons[Figure.BREAKS] = chip_breaks(path.motions, work.given.machine, breaks)
    if cuts:
        path.leave()
    depths = [cut.above - cut.level for cut in cuts]
    reasons |= passes(depths, limit, "on radius")
    if stretch.frame.swap:
        along = (Figure.DEPTH, Figure.LARGEST_DEPTH)
        reasons |= {key: replace(reasons[key], measured_on="along Z") for key in along if key in reasons}
    chord = COARSE_MM if _is_coarse(operation) else PLANNING_CHORD_MM
    made = Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=tuple(findings),
        proposal=proposal,
        chord_mm=chord,
        cycles=tuple(cycles),
        strokes=tuple(strokes),
        figures=replace(proposal.figures, ap_mm=max(depths, default=0.0)),
    )
    if operation.kind == "rough_od" and operation.pinch_tool is not None and cuts:
        told = (*findings, *pinch_findings(work, operation, made))
        made = replace(made, reasons={**reasons, **pinch_numbers(work, operation, made)}, findings=told)
    return made


def front_later(job: Job, operation: Operation) -> Neighbours:
    """Whether the front is faced after the outside is roughed."""
    at = next(index for index, one in enumerate(job.operations) if one.id == operation.id)
    return Neighbours(faced_later=any(one.kind == "face" and one.enabled for one in job.operations[at + 1 :]))


def _as_cycles(
    work: Work, operation: Roughing, path: Path, cuts: list[LevelCut], stretch: Stretch, numbers: tuple[float, float]
) -> tuple[list[Pass], list[Cycle], list[Finding]] | None:
    """The cuts as cycles of the control, where they are wished and can be; ``numbers`` are depth and feed."""
    straight = operation.kind == "rough_bore" or operation.pattern in ("along_z", "along_x")
    if operation.written == "moves" or not straight or stretch.frame.flip_z:
        return None
    if operation.written == "passes":
        return passes_as_cycles(path, cuts, stretch, numbers[1])
    leave = (operation.leave_axial_mm, operation.leave_radial_mm)
    return rough_as_cycle(work, operation, path, numbers[0], leave, numbers[1])


def _not_as_wished(operation: Roughing) -> list[Finding]:
    if operation.written == "moves":
        return []
    what = "the control's cycles cannot make these cuts: they are written move by move"
    return [
        Finding("note", "cycle.none", what, "they go into pockets or lead away from the chuck", operation=operation.id)
    ]


def _is_coarse(operation: Roughing) -> bool:
    return min(operation.leave_axial_mm, operation.leave_radial_mm) > 10 * COARSE_MM


def _reach(work: Work, operation: Roughing) -> tuple[Stretch, Reach]:
    chord = COARSE_MM if _is_coarse(operation) else CHORD_MM
    stretch = stretch_of(work, operation, PAST_FINISH_MM, chord)
    return stretch, reach_of(work, stretch, operation.leave_axial_mm, operation.leave_radial_mm, chord)


def _proposal(work: Work, operation: Roughing, stretch: Stretch, reach: Reach) -> Proposal:
    """The numbers, from the steps between shoulders and the piece as it will be."""
    top, nose = stretch.top, stretch.shape.nose_radius
    steps = work.memo.of(shoulder_steps, reach.envelope, top, stretch.floor)
    lowest = top - max((height for height, _ in steps), default=0.0) - nose
    return proposed(work, rough_situation(work, stretch, operation.leave_radial_mm, (top - nose, lowest)), steps)


def _left(operation: Roughing) -> Reasons:
    """What roughing leaves."""
    formula = "about two thirds of the finishing nose radius"
    radial = Evidence(
        "left for finishing", "aX", operation.leave_radial_mm, "mm", measured_on="on radius", formula=formula
    )
    axial = Evidence("left on faces", "aZ", operation.leave_axial_mm, "mm", measured_on="along Z", formula="typed")
    return {Figure.LEFT_RADIAL: radial, Figure.LEFT_AXIAL: axial}


def _engagement(work: Work, stretch: Stretch) -> Region:
    """Nose centres at which the insert touches stock worth cutting; behind its nose it has cut already."""
    stock, profile = stretch.stock, work.scene.profile
    if work.given.neighbours.faced_later:
        front = profile.segments[0].end[1]  # what stands in front of the front face is not turned down to the axis
        stock = stock.difference(stretch.frame.region(box(profile.front_z, 0.0, FAR_MM, front)))
    return work.memo.of(_touching, stock, stretch.shape.leading_core, stretch.shape.nose_radius)


def _touching(stock: Region, core: Points, nose: float) -> Region:
    worth = stock.buffer(-SLIVER_MM, join_style="mitre")
    return grow(sum_with(worth, -core), nose, 0.005)


def _write(
    path: Path,
    cut: LevelCut,
    stretch: Stretch,
    feed: float,
    contour: Envelope,
    fit: float,
    breaks: Breaks | None = None,
    slow_ends: float = 1.0,
) -> Pass:
    """Write one pass down and return what to draw."""
    safe = stretch.safe
    head = cut.entry[0] if len(cut.entry) else np.array([cut.start_z, cut.level])
    _travel(path, (float(head[0]), float(head[1])), safe, contour)
    if cut.begins_free and not _films(stretch, float(head[0]), cut.level):
        path.rapid(r=cut.level)
    begin = len(path.motions)
    if len(cut.entry) > 1:
        path.along(path.recovered(cut.entry, fit), feed * slow_ends)
    path.feed(feed, z=cut.start_z, r=cut.level)
    slow_z = cut.leaves_z + EXIT_MM
    if slow_ends < 1 and cut.end_z < slow_z < cut.start_z:
        feed_in_pieces(path, feed, slow_z, breaks)
        path.feed(feed * slow_ends, z=cut.end_z)
    else:
        feed_in_pieces(path, feed, cut.end_z, breaks)
    if len(cut.climb) > 1:
        path.along(path.recovered(cut.climb, fit), feed)
    segments = tuple(motion.segment for motion in path.motions[begin:])
    z, r = path.nose
    out = feed if not cut.begins_free else None
    path.go(out, z=z + PULL_OUT_MM, r=min(r + PULL_OUT_MM, safe))
    return Pass(segments, cut.above - cut.level)


def _films(stretch: Stretch, z: float, level: float) -> bool:
    """Whether a film stands where a pass comes down that is no cut, and no way for a rapid."""
    return bool(MetMetal(stretch.stock, stretch.shape).cuts(np.array([[z, level]]))[0])


def _travel(path: Path, head: tuple[float, float], safe: float, contour: Envelope) -> None:
    """From where the tool is to just above the start of a pass: straight back if nothing stands between."""
    z, r = path.nose
    clear = min(head[1] + PULL_OUT_MM, safe)
    if not path.motions:
        path.come(head[0], max(clear, min(safe, r)))
    elif head[0] > z and r >= max(clear - SAME_MM, contour.highest(z, head[0]) + PULL_OUT_MM / 2):
        path.rapid(z=head[0])
    else:
        path.rapid(r=safe)
        path.rapid(z=head[0])
    path.rapid(r=clear)
