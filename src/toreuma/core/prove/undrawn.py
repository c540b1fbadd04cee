"""What driven tools cut as it was written where the drawing shows nothing: its own moves say what belongs to it."""

from collections.abc import Iterator
from dataclasses import dataclass

from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.solids import Solid, joined
from toreuma.core.model import AsWritten, Job, WrittenMove
from toreuma.core.motion import STOPPED, Driven, Motion
from toreuma.core.prove.driven_cuts import DrivenCuts, DrivenTool

__all__ = ["Undrawn", "undrawn_bodies", "undrawn_of"]


@dataclass(frozen=True)
class Undrawn:
    """What came of it: how much of it was not cut, um, and where it lies, (z, r) in mm."""

    operation: str
    left_um: float
    at: tuple[float, float]


def undrawn_of(job: Job) -> tuple[AsWritten, ...]:
    """Operations whose driven tools cut what is no hole, flat or slot of the part."""
    return tuple(
        one
        for one in job.operations
        if isinstance(one, AsWritten) and one.enabled and not one.milled and one.moves[-1].driven is not None
    )


def undrawn_bodies(job: Job) -> Iterator[tuple[str, Solid]]:
    """(operation, body) of what the moves that were kept cut; the programs are not asked."""
    for operation in undrawn_of(job):
        tool = job.tool(operation.tool)
        if tool is None:
            continue
        cuts, driven = DrivenCuts(), DrivenTool.of(tool)
        for motion in _motions(operation.moves, tool.station):
            cuts.add(motion, driven)
        yield operation.id, joined(body for _, body in cuts.bodies())


def _motions(moves: tuple[WrittenMove, ...], station: int) -> Iterator[Motion]:
    """Those that cut."""
    before = moves[0]
    for move in moves:
        if move.feed is not None and move.driven is not None:
            y = move.driven.y_mm if before.driven is None else before.driven.y_mm
            driven = Driven(rpm=move.driven.rpm, c_deg=move.driven.c_deg, y=(y, move.driven.y_mm))
            way = Line((before.z_mm, before.r_mm), (move.z_mm, move.r_mm))
            yield Motion(way, move.feed, STOPPED, station, per_minute=move.per_minute, driven=driven)
        before = move
