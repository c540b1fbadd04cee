"""Turning written as cycles of the control: the contour they follow, and the moves that come of it.

The cycles of roughing cut down to a contour that never falls on its way, so dips in it are left to another operation.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from toreuma.core.control_cycles import faced_pass, follow, pattern_passes, rough_passes, turned_pass
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line, Points, Segment
from toreuma.core.geometry.recover import FIT_MM
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FinishOd, Job, Operation, RoughBore, RoughOd, Tool
from toreuma.core.plan.ground.contour import nose_at_start
from toreuma.core.plan.ground.given import ALONE, Neighbours
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cycle, OperationFault, Pass, Word
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.turn.levels import LevelCut
from toreuma.core.plan.turn.stretch import Stretch, reach_of, stretch_of

__all__ = [
    "contour_of_cycle",
    "cycles_before",
    "follow_cycle",
    "passes_as_cycles",
    "pattern_as_cycle",
    "rough_as_cycle",
    "rough_before",
]

RETRACT_MM = 0.5
START_ABOVE_MM = 0.3
"""The cycle begins this far above the metal, so that its first pass is nearly a whole one."""

DIP_MM = 0.01
PAST_FINISH_MM = 0.3

Roughing = RoughOd | RoughBore
Made = tuple[list[Pass], list[Cycle], list[Finding]]


def contour_of_cycle(work: Work, operation: Roughing) -> tuple[Stretch, Points, bool]:
    """Nose centres of the finished contour in the frame of the cut, front first; and whether it has dips.

    It is that of the part alone, whatever metal stands on it now, so that finishing finds the same one.
    """
    stretch = stretch_of(work, operation, PAST_FINISH_MM)
    if operation.from_z_mm is not None:
        raise OperationFault(
            "cycle.start",
            "a roughing cycle begins in front of the work, this stretch at a typed place",
            "let it start at the front, or write it move by move",
        )
    points = reach_of(work, stretch, 0.0, 0.0).envelope.points.copy()
    nose, first = stretch.shape.nose_radius, stretch.first
    lowest = stretch.floor
    if first is not None:
        to_axis = not stretch.is_bore and first.start[1] < 1e-9  # the nose goes round a tip on the axis
        lowest = 0.0 if to_axis else max(nose_at_start(first, nose)[1], lowest)
    if not stretch.frame.swap:
        points[:, 1] = np.maximum(points[:, 1], lowest)
    rising = np.maximum.accumulate(points[:, 1])
    dips = bool((rising - points[:, 1]).max() > DIP_MM)
    return stretch, points, dips


def rough_as_cycle(
    work: Work, operation: Roughing, path: Path, limit: float, leave: tuple[float, float], feed: float
) -> Made:
    """The whole roughing in one cycle, along Z or toward the axis. ``leave`` along Z and on radius, mm."""
    stretch, points, dips = contour_of_cycle(work, operation)
    points[:, 1] = np.maximum.accumulate(points[:, 1])
    facing = stretch.frame.swap
    leave_here = leave if not facing else leave[::-1]
    start_r = max(stretch.top + START_ABOVE_MM, float(points[:, 1].max()))
    if stretch.is_bore:
        start_r = min(start_r, stretch.ceiling)
        points = _up_to(points, start_r)
    if not path.motions:
        path.come(float(points[0, 0]), max(stretch.safe, start_r))
    path.rapid(r=start_r)
    start, contour = path.at, _programmed(path, stretch, points, start_r)
    total = start_r - float(points[0, 1]) - leave_here[1]
    depth = math.ceil(1000 * total / max(1, math.ceil(total / limit - 1e-6))) / 1000
    signed = (leave[0], -leave[1]) if stretch.is_bore else leave
    begin = len(path.motions)
    path.made(rough_passes(start, contour, depth, RETRACT_MM, *signed, facing), feed)
    cuts = (Word("depth", "length", depth), Word("retract", "length", RETRACT_MM))
    words = (*cuts, *_followed(signed[1], leave[0]), Word("feed", "feed", feed))
    name = "rough_face_cycle" if facing else "rough_cycle"
    cycle = Cycle(name=name, first=begin, count=len(path.motions) - begin, words=words, contour=tuple(contour))
    return _drawn(path, begin, depth), [cycle], _dipped(operation, dips)


def _followed(leave_r: float, leave_z: float) -> tuple[Word, ...]:
    """The contour a cycle follows, and what it leaves on it."""
    allowances = (Word("leave_across", "across", leave_r), Word("leave_along", "length", leave_z))
    return Word("first", "first"), Word("last", "last"), *allowances


def pattern_as_cycle(
    work: Work, operation: RoughOd, path: Path, thick: float, count: int, leave: tuple[float, float], feed: float
) -> Made:
    """The contour several times, each nearer to it."""
    stretch, points, _ = contour_of_cycle(work, operation)
    start_r = max(stretch.top + START_ABOVE_MM, float(points[:, 1].max()))
    path.come(float(points[0, 0]), max(stretch.safe, start_r))
    path.rapid(r=start_r)
    start, contour = path.at, _programmed(path, stretch, points, start_r)
    out = round(thick * (1 - 1 / count), 3)
    begin = len(path.motions)
    path.made(pattern_passes(start, contour, out, out, count, *leave), feed)
    cuts = (Word("out_across", "length", out), Word("out_along", "length", out), Word("count", "count", count))
    words = (*cuts, *_followed(leave[1], leave[0]), Word("feed", "feed", feed))
    cycle = Cycle(
        name="pattern_cycle", first=begin, count=len(path.motions) - begin, words=words, contour=tuple(contour)
    )
    return _drawn(path, begin, thick / count), [cycle], []


def passes_as_cycles(path: Path, cuts: Sequence[LevelCut], stretch: Stretch, feed: float) -> Made | None:
    """Each pass as a cycle; None where one begins in a pocket, into which a cycle cannot go down."""
    if any(len(cut.entry) for cut in cuts):
        return None
    drawn, cycles = [], []
    facing = stretch.frame.swap
    made_of, name = (faced_pass, "face_cycle") if facing else (turned_pass, "turn_cycle")
    for cut in cuts:
        if path.motions:
            path.rapid(r=stretch.safe)
            path.rapid(z=cut.start_z)
        else:
            path.come(cut.start_z, stretch.safe)
        begin, start = len(path.motions), path.at
        z, r = stretch.frame.point((cut.end_z + path.tip[0], cut.level + path.tip[1]))
        path.made(made_of(start, z, r), feed)
        cycles.append(Cycle(name=name, first=begin, count=len(path.motions) - begin,
                            words=(Word("x", "x", r), Word("z", "z", z), Word("feed", "feed", feed))))  # fmt: skip
        drawn.append(Pass(tuple(m.segment for m in path.motions[begin + 1 : begin + 3]), cut.above - cut.level))
    return drawn, cycles, []


def cycles_before(job: Job, operation: Operation) -> Neighbours:
    """Roughing cycles before a finishing cut, whose contour a cycle could follow."""
    if getattr(operation, "written", "moves") != "whole":
        return ALONE
    at = next(index for index, one in enumerate(job.operations) if one.id == operation.id)
    before = ((one, job.tool(one.tool)) for one in job.operations[:at] if isinstance(one, RoughOd) and one.enabled)
    return Neighbours(cycles=tuple((one, tool) for one, tool in before if one.written == "whole" and tool is not None))


def rough_before(work: Work) -> tuple[RoughOd, Tool] | None:
    """The roughing cycle whose contour a finishing cycle can follow: written before it, with the same nose."""
    own = shape_of(work.tool)
    for earlier, tool in work.given.neighbours.cycles:
        shape = shape_of(tool)
        if shape.tip == own.tip and shape.nose_radius == own.nose_radius:
            return earlier, tool
    return None


def follow_cycle(work: Work, operation: FinishOd, path: Path, feed: float) -> tuple[Made, Points]:
    """Once along the contour of the roughing cycle before it, and the nose centres of that contour."""
    found = rough_before(work)
    if found is None:
        raise OperationFault(
            "cycle.contour",
            "the finishing cycle follows the contour of a roughing cycle, and none before it has this nose",
            "write the roughing as one cycle with a tool of the same nose, or this cut move by move",
            Cure("Write it move by move", _by_moves(operation.id)),
        )
    rough, tool = found
    seen = replace(work, operation=rough, tool=tool, shape=shape_of(tool))
    stretch, points, dips = contour_of_cycle(seen, rough)
    points[:, 1] = np.maximum.accumulate(points[:, 1])
    start_r = max(work.scene.stock_r + START_ABOVE_MM + stretch.shape.nose_radius, float(points[:, 1].max()))
    path.come(float(points[0, 0]), start_r)
    path.rapid(r=start_r)
    roughed_from = max(stretch.top + START_ABOVE_MM, float(points[:, 1].max()))
    start, contour = path.at, _programmed(path, stretch, points, roughed_from)
    begin = len(path.motions)
    path.made(follow(start, contour), feed)
    words = (Word("first", "first"), Word("last", "last"), Word("feed", "feed", feed))
    cycle = Cycle(name="finish_cycle", first=begin, count=len(path.motions) - begin, words=words, contour_of=rough.id)
    return (_drawn(path, begin, 0.0), [cycle], _dipped(operation, dips)), points


def _programmed(path: Path, stretch: Stretch, points: Points, start_r: float) -> list[Segment]:
    """The contour as the programmed point really runs it, up to the height the cycle starts from."""
    segments: list[Segment] = [
        stretch.frame.segment(one.moved(*path.tip)) for one in path.recovered(np.ascontiguousarray(points), FIT_MM)
    ]
    end = segments[-1].end
    top = stretch.frame.point((0.0, start_r + path.tip[1]))
    over = (top[0], end[1]) if stretch.frame.swap else (end[0], top[1])
    rest = Line(end, over)
    return [*segments, rest] if rest.length > 1e-4 else segments


def _up_to(points: Points, height: float) -> Points:
    """A rising contour as far as a height: what stands in the way of the bar behind a bore is no contour."""
    above = np.flatnonzero(points[:, 1] > height + 1e-9)
    if len(above) == 0 or above[0] == 0:
        return points
    first = int(above[0])
    (z0, r0), (z1, r1) = points[first - 1], points[first]
    crossing = [z0 + (z1 - z0) * (height - r0) / (r1 - r0), height]
    return np.vstack([points[:first], crossing])


def _drawn(path: Path, begin: int, depth: float) -> list[Pass]:
    """Every run of feeds is a pass."""
    found: list[Pass] = []
    run: list[Segment] = []
    for motion in [*path.motions[begin:], None]:
        if motion is not None and not motion.is_rapid:
            run.append(motion.segment)
        elif run:
            found.append(Pass(tuple(run), depth, finishing=depth == 0))
            run = []
    return found


def _dipped(operation: Operation, dips: bool) -> list[Finding]:
    if not dips:
        return []
    what = "the contour falls again on its way: the cycle passes over the dip"
    cure = Cure("Write it move by move", _by_moves(operation.id))
    return [
        Finding("note", "cycle.dip", what, "another operation has to cut it", operation=operation.id, cures=(cure,))
    ]


def _by_moves(identifier: str) -> Callable[[Job], Job]:
    def apply(job: Job) -> Job:
        return job.with_operation(identifier, lambda op: op.changed(written="moves"))

    return apply
