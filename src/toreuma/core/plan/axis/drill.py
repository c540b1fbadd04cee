"""Drilling on the axis: spot, centre and drill, as deep as the part allows, in pecks that shrink with depth."""

import math

from toreuma.core.control_cycles import groove_pecks
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import DrillHole, FinishBore, Job, Operation
from toreuma.core.model.tool import Drill
from toreuma.core.motion import PECK_BACK_OFF_MM, Spindle, peck_bottoms
from toreuma.core.plan.axis.axial import before_metal, deepest_z, metal_front, swept, touch_z
from toreuma.core.plan.axis.drill_checks import drill_findings, too_weak
from toreuma.core.plan.axis.next_needs import needs_after
from toreuma.core.plan.ground.given import Neighbours
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, Cycle, OperationFault, Pass, Word
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.drilling import Hole, drill_numbers, point_length_mm
from toreuma.core.spoken import q, said

__all__ = ["in_the_hole", "pecks_of", "plan_drill"]

FREE_DIAMETERS = 3.0
"""Down to this depth over diameter chips come out by themselves."""

FIRST_PECK, PECK_SHRINKS, LEAST_PECK = 2.5, 0.75, 0.75
"""First peck in diameters, each further one this share of the one before, none below so many diameters."""

CYCLE_PECK = 1.0
"""Equal pecks of a cycle, in diameters."""

LIFT_MM = 0.3
"""Where the chips are only broken the drill lifts so far."""

OPEN_MM = 0.3
"""So near a drill comes at a rapid to metal in a hole: to what it meets first, and back to where it was."""

CONE_SHARE = 0.95
"""A spot or centre goes in up to this share of its cone."""

LEAST_MM = 0.05
"""What is no hole yet."""


FLOOR_STOCK_MM, PAST_STEP_MM = 0.1, 0.5
"""A flat drill leaves so much on a step for the bar that finishes it, where the bore goes on deeper by more."""

IN_THE_HOLE = ("drill", "tap", "ream", "rough_bore", "finish_bore")


def in_the_hole(job: Job, operation: Operation) -> Neighbours:
    """What began the hole on the axis before a drill comes, and what goes on in it."""
    at = next(index for index, one in enumerate(job.operations) if one.id == operation.id)
    each = [(one, job.tool(one.tool)) for one in job.operations]
    begun = (tool for one, tool in each[:at] if isinstance(one, DrillHole) and one.enabled and isinstance(tool, Drill))
    later = ((one, tool) for one, tool in each[at + 1 :] if one.enabled and one.kind in IN_THE_HOLE)
    goes_on = tuple((one, tool) for one, tool in later if tool is not None)
    return Neighbours(begun_by=next(begun, None), goes_on=goes_on)


def plan_drill(work: Work, operation: DrillHole) -> Cuts:
    """Drill from the front along the axis."""
    tool = work.tool
    if not isinstance(tool, Drill):
        raise OperationFault("tool.kind", f"{tool.id} is not a drill", "choose a drill, a centre or a spot drill")
    if work.given.centre is not None:
        raise OperationFault(
            "drill.centre",
            "the centre stands where the drill goes in",
            "drill while it is drawn back",
            Cure("Draw the centre back for it", lambda j: j.with_operation(operation.id, _drawn_back)),
        )
    hole = _hole(work, tool, operation)
    if hole is None:
        note = Finding("note", "drill.nothing", "there is no metal left on the axis here", operation=operation.id)
        return Cuts(motions=(), passes=(), reasons={}, findings=(note,))
    figures, reasons = drill_numbers(work, operation, tool, hole)
    feed, rpm = figures.feed_mm_rev or 0.0, figures.rpm or 0.0
    path = Path(work, Spindle("fixed", rpm))
    clear = before_metal(hole.start_z)
    equal = round(operation.peck_mm or CYCLE_PECK * tool.d_mm, 3) if operation.written != "moves" else 0.0
    touch = touch_z(work)
    touch = hole.start_z if touch is None else min(touch, hole.start_z)
    near = clear if equal or touch > hole.start_z - OPEN_MM else touch + OPEN_MM
    front = max(clear, float(work.stock.bounds[2]) + APPROACH_MM)
    path.come(front, 0.0)  # a hole goes on inside the work: in front of it first, then in
    if near < front:
        path.rapid(z=near)
    begin, reached = len(path.motions), hole.start_z
    if operation.written == "passes":
        path.made(groove_pecks((clear, 0.0), (hole.end_z, 0.0), equal, 0.0, LIFT_MM, facing=True), feed)
    else:
        bottoms = (
            peck_bottoms(clear, hole.end_z, equal)
            if equal
            else pecks_of(tool, operation.peck, operation.peck_mm, hole.start_z, hole.end_z)
        )
        for bottom in bottoms:
            if bottom > touch and bottom != bottoms[-1]:
                continue  # nothing is met so far up
            if reached < (clear if equal else touch):
                path.rapid(z=clear)
                path.rapid(z=reached + (PECK_BACK_OFF_MM if equal else OPEN_MM))
            path.feed(feed, z=bottom)
            reached = bottom
    drawn = tuple(motion.segment for motion in path.motions[begin:] if not motion.is_rapid)
    path.rapid(z=clear)
    cycles = _cycles(operation, begin, len(path.motions) - begin, (hole.end_z, clear, equal, feed))
    if clear < front:
        path.rapid(z=front)
    path.leave()
    shrinking = "first 2.5 D, each 0.75 of the one before"
    reasons[Figure.PECKS] = Evidence("pecks", "i", float(len(drawn)), "", formula=shrinking)
    asked, unmet = needs_after(work, operation, tool, hole)
    reasons |= asked
    findings = (*drill_findings(work, operation, tool, hole), *too_weak(operation, figures), *unmet)
    done = swept(work, hole.start_z + APPROACH_MM, hole.end_z)
    return Cuts(
        motions=tuple(path.motions),
        passes=(Pass(drawn, tool.d_mm / 2),),
        reasons=reasons,
        findings=findings,
        coverage=lambda: done,
        cycles=cycles,
        figures=figures,
    )


def _drawn_back(operation: Operation) -> Operation:
    return operation.changed(centre_back=True)


def _cycles(
    operation: DrillHole, begin: int, count: int, numbers: tuple[float, float, float, float]
) -> tuple[Cycle, ...]:
    """``numbers``: where it ends, the plane it comes back to, each peck, and the feed."""
    end, clear, peck, feed = numbers
    depth = (Word("bottom", "z", end), Word("peck", "fine", peck), Word("feed", "feed", feed))
    if operation.written == "passes":
        return (
            Cycle(name="face_peck_cycle", first=begin, count=count, words=(Word("lift", "length", LIFT_MM), *depth)),
        )
    if operation.written == "whole":
        return (
            Cycle(
                name="peck_cycle", first=begin, count=count, words=(*depth, Word("above", "above", clear)), ends=True
            ),
        )
    return ()


def _hole(work: Work, tool: Drill, operation: DrillHole) -> Hole | None:
    """From the metal on the axis down to the typed depth, or as deep as the finished part allows."""
    radius = min(tool.d_mm, tool.pilot_d_mm or tool.d_mm) / 2
    start = metal_front(work, radius)
    if start is None:
        return None
    point = point_length_mm(tool) if tool.form not in ("centre", "spot") else 0.0
    back = work.scene.profile.back_z
    lowest_z = back - point - operation.breakthrough_mm
    if tool.form in ("centre", "spot"):  # never in farther than its cone
        cone = float(work.shape.core[:, 0].max()) if tool.form == "centre" else point_length_mm(tool)
        lowest_z = max(lowest_z, -CONE_SHARE * cone)
    if operation.depth_mm is not None:
        end = -(operation.depth_mm + point)
        return Hole(start, end, end <= back) if end < start else None
    high = deepest_z(work, start, lowest_z)
    if high <= lowest_z:
        return Hole(start, lowest_z, lowest_z < back)
    if high > min(start, 0.0) - point - LEAST_MM:  # not even its corners go in
        raise OperationFault(
            "drill.wide",
            said("the part has no room for {}, Ø {}, on the axis at its front", tool.id, q(tool.d_mm, "mm", "g")),
            "choose a smaller drill, turn the part round, or type the depth",
        )
    end = math.ceil(high * 1000) / 1000
    return Hole(start, end + FLOOR_STOCK_MM if point < LEAST_MM and _is_faced(work, end) else end, False)


def _is_faced(work: Work, end: float) -> bool:
    """A bar that finishes the bore goes on deeper and faces the step the drill ends on."""
    void = work.scene.shape.void
    deeper = void is not None and float(void.bounds[0]) < end - PAST_STEP_MM
    ends = (one.to_z_mm for one, _ in work.given.neighbours.goes_on if isinstance(one, FinishBore))
    return deeper and any(to_z is None or to_z < end + LEAST_MM for to_z in ends)


def pecks_of(tool: Drill, wanted: bool, peck_mm: float | None, start: float, end: float) -> list[float]:
    """Bottoms of all pecks from where metal begins, the last at the end of the hole, mm."""
    depth = start - end
    if not wanted or (peck_mm is None and depth <= FREE_DIAMETERS * tool.d_mm):
        return [end]
    least = peck_mm or LEAST_PECK * tool.d_mm
    step = peck_mm or FIRST_PECK * tool.d_mm
    found, at = [], start
    while at - step > end + 1e-6:
        at -= step
        found.append(round(at, 3))
        step = max(least, step * PECK_SHRINKS)
    return [*found, end]
