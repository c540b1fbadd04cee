"""Moves of a driven tool that somebody wrote, made as they stand: the work turned where the program turns it."""

from toreuma.core.cutting.figures import Figures
from toreuma.core.findings import Finding
from toreuma.core.model import AsWritten, WrittenDriven, WrittenMove
from toreuma.core.model.tool import Drill
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.result import OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven import carrier_and_drive
from toreuma.core.plan.mill.driven_path import DrivenPath

__all__ = ["driven_as_written", "driven_figures", "driven_passes", "not_drawn", "opened_by_it"]


def driven_as_written(work: Work, operation: AsWritten) -> tuple[Motion, ...]:
    """The moves, from the point where tools are changed and back to it. Raises `OperationFault`."""
    carrier_and_drive(work)
    steps = [(move, move.driven) for move in operation.moves if move.driven is not None]
    if len(steps) < len(operation.moves):
        what = "some of its moves are of a tool that turns, some of one that stands still"
        raise OperationFault("written.mixed", what, "keep them as two operations")
    path = DrivenPath(work, steps[0][1].rpm)
    angle = None
    for move, driven in steps:
        path.turn(driven.rpm)
        if not driven.polar:
            path.polar(on=False)
        if driven.c_deg != angle:
            path.index(driven.c_deg, braked=driven.braked)
            angle = driven.c_deg
        path.brake(driven.braked)
        path.polar(driven.polar)
        _step(path, work, move, driven)
    path.leave(along_x=work.tool.mount == "radial")
    return tuple(path.motions)


def _step(path: DrivenPath, work: Work, move: WrittenMove, driven: WrittenDriven) -> None:
    """One move; a rapid away goes no farther than to the point where tools are changed."""
    if move.dwell_s:
        path.dwell(move.dwell_s)
    elif move.feed is None:
        z, r = work.scene.index
        path.rapid(z=min(move.z_mm, z), x=min(move.r_mm, r), y=driven.y_mm)
    else:
        mm_min = move.feed if move.per_minute else move.feed * abs(driven.rpm)
        path.feed(mm_min, z=move.z_mm, x=move.r_mm, y=driven.y_mm)


def opened_by_it(work: Work, operation: AsWritten) -> tuple[int, ...]:
    """Features that are open behind it; a spot only marks the place."""
    if isinstance(work.tool, Drill) and work.tool.form in ("spot", "centre"):
        return ()
    return tuple(dict.fromkeys(one.feature for one in operation.milled if not one.edges_only))


def not_drawn(operation: AsWritten) -> tuple[Finding, ...]:
    """That a driven tool cuts where the part shows nothing."""
    if operation.milled or operation.moves[-1].driven is None:
        return ()
    return (
        Finding(
            "warning",
            "written.beside",
            "what this driven tool cuts is no hole, flat or slot, and the drawing does not show it",
            "the proof holds it against the moves it was written with, and against nothing else",
            operation=operation.id,
        ),
    )


def driven_passes(motions: tuple[Motion, ...]) -> tuple[Pass, ...]:
    """Its cuts in the plane of the section, at the first angle it cuts at."""
    cuts = [one for one in motions if one.feed is not None and one.driven is not None]
    first = next((one.driven.c_deg for one in cuts if one.driven is not None), 0.0)
    return tuple(
        Pass((one.segment,), 0.0)
        for one in cuts
        if one.driven is not None and one.driven.c_deg == first and one.segment.length > 0
    )


def driven_figures(motions: tuple[Motion, ...]) -> Figures:
    """Speed of the tool and feed of its longest cut."""
    cuts = [one for one in motions if one.feed is not None and one.driven is not None and not one.driven.polar]
    longest = max(cuts, key=lambda one: one.length, default=None)
    if longest is None or longest.driven is None or not longest.driven.rpm or longest.feed is None:
        return Figures()
    rpm = abs(longest.driven.rpm)
    return Figures(rpm=rpm, feed_mm_rev=longest.feed / rpm if longest.per_minute else longest.feed)
