"""A stretch of a program that somebody wrote, made as it stands: nothing in it is worked out anew."""

from toreuma.core.cutting.figures import Figures
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Arc, Line, Point, Segment
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.model import AsWritten, WrittenMove
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.plan.ground.moves import Moves
from toreuma.core.plan.ground.result import Cuts, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.kept.anew import planned_anew
from toreuma.core.plan.kept.driven_as_written import (
    driven_as_written,
    driven_figures,
    driven_passes,
    not_drawn,
    opened_by_it,
)
from toreuma.core.simulate.removal import swept_each

__all__ = ["plan_as_written"]

FASTEST_RPM = 1e5
WORKED_OUT = "; plan this anew to have them worked out"
ABOVE_AXIS = (-1e5, 0.0, 1e5, 1e4)


def plan_as_written(work: Work, operation: AsWritten) -> Cuts:
    """The moves as they were read, from the point where tools are changed and back to it. Raises `OperationFault`."""
    if any(move.driven is not None for move in operation.moves):
        driven = driven_as_written(work, operation)
        return Cuts(
            motions=driven,
            passes=driven_passes(driven),
            reasons={},
            findings=(*_findings(work, operation, driven), *not_drawn(operation)),
            becomes=work.stock,
            opens=opened_by_it(work, operation),
            figures=driven_figures(driven),
        )
    motions = _motions(work, operation)
    cuts = [one for one in motions if one.feed is not None]
    return Cuts(
        motions=motions,
        passes=tuple(_passes(motions)),
        reasons={},
        findings=_findings(work, operation, motions),
        coverage=lambda: _covered(work, cuts),
        figures=_figures(cuts),
    )


def _motions(work: Work, operation: AsWritten) -> tuple[Motion, ...]:
    """Moves of a tool that stands still."""
    station, at, spindle = work.tool.station, work.scene.index, STOPPED
    motions: list[Motion] = Moves()
    for move in operation.moves:
        spindle = spindle if move.speed is None else Spindle(*move.speed)
        if move.dwell_s or move.event:
            motions.append(Motion(Line(at, at), None, spindle, station, dwell_s=move.dwell_s, event=move.event))
            continue
        segment = _segment(at, move, work.scene.index)
        if segment.length < 1e-9:
            continue
        made = Motion(segment, move.feed, spindle, station, per_minute=move.per_minute, in_step=move.how == "thread")
        motions.append(made.follows(motions[-1] if motions else None))
        at = segment.end
    home = work.scene.index
    for end in ((at[0], home[1]), home):
        if end != at:
            motions.append(Motion(Line(at, end), None, spindle, station))
            at = end
    return tuple(motions)


def _findings(work: Work, operation: AsWritten, motions: tuple[Motion, ...]) -> tuple[Finding, ...]:
    """That they stand as written, and what was assumed."""
    undrawn = bool(not_drawn(operation))
    anew = Cure("Plan it anew", lambda job: planned_anew(job, operation.id, work.scene.part, motions))
    note = Finding(
        "note",
        "written.kept",
        f"{len(operation.moves)} moves stand as they were written",
        f"their depths, feeds and speeds are nobody's proposal{'' if undrawn else WORKED_OUT}",
        operation=operation.id,
        cures=() if undrawn else (anew,),
    )
    assumed = Finding(
        "warning",
        "written.assumed",
        f"taken from a program, and assumed: {'; '.join(operation.assumed)}",
        "the proof is worth as much as that: set the tool as it is, or plan this anew",
        operation=operation.id,
    )
    return (note, assumed) if operation.assumed else (note,)


def _segment(at: Point, move: WrittenMove, index: Point) -> Segment:
    """The move; a rapid away goes no farther than to the point where tools are changed."""
    end = (move.z_mm, move.r_mm)
    if move.how == "rapid":
        end = min(end[0], max(index[0], at[0])), min(end[1], max(index[1], at[1]))
    return Line(at, end) if move.centre is None else Arc(at, end, move.centre, move.clockwise)


def _passes(motions: tuple[Motion, ...]) -> list[Pass]:
    """Cuts that follow each other without a rapid between, as one line each."""
    found: list[list[Segment]] = []
    joined = False
    for one in motions:
        if one.feed is None:
            joined = joined and bool(one.dwell_s)
            continue
        if joined:
            found[-1].append(one.segment)
        else:
            found.append([one.segment])
        joined = True
    return [Pass(tuple(segments), 0.0) for segments in found]


def _covered(work: Work, cuts: list[Motion]) -> Region:
    """What the tool passes over while it cuts."""
    swept = [one.cutting for one in swept_each(cuts, work.shape)]
    return union(swept).intersection(box(*ABOVE_AXIS))


def _figures(cuts: list[Motion]) -> Figures:
    """Speed and feed of its longest cut."""
    longest = max(cuts, key=lambda one: one.length, default=None)
    if longest is None or longest.spindle.mode == "stopped":
        return Figures()
    r = max(abs(longest.start[1]), abs(longest.end[1]), 0.25)
    rpm = spindle_rpm(longest.spindle, r, FASTEST_RPM)
    feed = longest.feed if not longest.per_minute else None
    return Figures(rpm=rpm, feed_mm_rev=feed)
