"""A stretch of a program planned anew: the operations that would do with its tool what its moves do."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import shapely

from toreuma.core.geometry.region import Region, box, union
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import (
    AsWritten,
    CutGroove,
    CutThread,
    DrillHole,
    Face,
    FinishBore,
    FinishOd,
    Job,
    Operation,
    PartOff,
    ReamHole,
    RoughBore,
    RoughOd,
    TapHole,
    Tool,
)
from toreuma.core.model.feature import FaceGroove, Groove
from toreuma.core.motion import Motion
from toreuma.core.plan.kept.driven_anew import driven_anew
from toreuma.core.plan.kept.instead import free_id, instead_of
from toreuma.core.simulate.removal import swept_each

__all__ = ["planned_anew"]

TOUCHES_MM = 0.02
"""So near to the drawing a cut leaves nothing for another."""

FACE_MM = 1.5
"""Cuts that reach no deeper from the finished face only face it."""

SLACK_MM = 0.05
AXIS_MM = 0.3
FAR_MM = 1e4


@dataclass(frozen=True)
class _Stretch:
    """What the moves of one operation do. ``passes`` are cuts that follow each other without a rapid between."""

    job: Job
    tool: Tool
    part: Region
    operation: AsWritten
    passes: tuple[tuple[Motion, ...], ...]

    @cached_property
    def swept(self) -> tuple[Region, ...]:
        shape = shape_of(self.tool)
        return tuple(union([one.cutting for one in swept_each(list(run), shape)]) for run in self.passes)

    @cached_property
    def span(self) -> tuple[float, float]:
        """Front and back of its cuts, mm."""
        places = [z for run in self.passes for one in run for z in (one.start[0], one.end[0])]
        return max(places), min(places)

    @property
    def finishes(self) -> bool:
        """One of its cuts follows the drawing behind the face."""
        behind = shapely.intersection(self.part, box(-FAR_MM, 0.0, -FACE_MM, FAR_MM))
        return any(shapely.distance(one, behind) < TOUCHES_MM for one in self.swept)

    @property
    def reaches_axis(self) -> bool:
        return min(r for run in self.passes for one in run for r in (one.start[1], one.end[1])) < AXIS_MM


def planned_anew(job: Job, operation_id: str, part: Region, motions: tuple[Motion, ...]) -> Job:
    """The job with that operation's moves planned instead of kept. ``motions`` are those it has now.

    Raises `JobError` where no kind of operation would do it."""
    kept = next(one for one in job.operations if one.id == operation_id)
    tool = job.tool(kept.tool)
    assert isinstance(kept, AsWritten)
    assert tool is not None
    if any(move.driven is not None for move in kept.moves):
        return driven_anew(job, kept)
    stretch = _Stretch(job, tool, part, kept, tuple(_passes(motions)))
    fresh: list[Operation] = []
    for operation in _anew(stretch) if stretch.passes else ():
        fresh.append(operation.changed(id=free_id(job, fresh), tool=kept.tool, enabled=kept.enabled))
    return instead_of(job, kept, fresh)


def _passes(motions: tuple[Motion, ...]) -> Iterator[tuple[Motion, ...]]:
    run: list[Motion] = []
    for one in motions:
        if one.is_rapid and one.segment.length > 0:
            if run:
                yield tuple(run)
            run = []
        elif one.segment.length > 0:
            run.append(one)
    if run:
        yield tuple(run)


def _anew(stretch: _Stretch) -> Iterator[Operation]:
    """Operations for the stretch, by its tool."""
    kind = stretch.tool.kind
    told: dict[str, Any] = {"id": "op", "tool": stretch.operation.tool, "name": stretch.operation.name}
    match kind:
        case "threading":
            for index, form in stretch.operation.threads_cut:
                yield CutThread(**told, feature=index, form=form)
        case "turning":
            yield from _outside(stretch, told)
        case "boring":
            yield from _bore(stretch, told)
        case "grooving" | "parting":
            yield from _with_blade(stretch, told)
        case "drill":
            yield DrillHole(**told)
        case "reamer":
            yield ReamHole(**told)
        case "tap":
            yield TapHole(**told)


def _ends(stretch: _Stretch) -> dict[str, float]:
    """Where the stretch begins and ends on the drawing; nothing at its own ends."""
    front, back = stretch.span
    part_back = float(stretch.part.bounds[0])
    found = {"from_z_mm": round(front, 3)} if front < -SLACK_MM else {}
    return found | ({"to_z_mm": round(back, 3)} if back > part_back + SLACK_MM else {})


def _outside(stretch: _Stretch, told: dict[str, Any]) -> Iterator[Operation]:
    if stretch.reaches_axis:
        yield Face(**told)
    if stretch.span[1] > -FACE_MM:
        return
    if len(stretch.passes) > 1 or not stretch.finishes:
        yield RoughOd(**told, **_ends(stretch))
    if stretch.finishes:
        yield FinishOd(**told, **_ends(stretch))


def _bore(stretch: _Stretch, told: dict[str, Any]) -> Iterator[Operation]:
    if len(stretch.passes) > 1 or not stretch.finishes:
        yield RoughBore(**told, **_ends(stretch))
    if stretch.finishes:
        yield FinishBore(**told, **_ends(stretch))


def _with_blade(stretch: _Stretch, told: dict[str, Any]) -> Iterator[Operation]:
    cut = union(list(stretch.swept))
    for index, feature in enumerate(stretch.job.part.features):
        if isinstance(feature, Groove | FaceGroove) and cut.intersects(_floor_of(feature)):
            yield CutGroove(**told, feature=index)
    if stretch.reaches_axis:
        yield PartOff(**told)


def _floor_of(groove: Groove | FaceGroove) -> Region:
    """Where a blade is that has come down to the floor of a groove."""
    r = groove.d_mm / 2
    if isinstance(groove, FaceGroove):
        deep = -groove.depth_mm
        return box(deep - TOUCHES_MM, r - groove.width_mm, deep + TOUCHES_MM, r)
    low, high = (0.0, r + TOUCHES_MM) if groove.side == "outside" else (r - TOUCHES_MM, FAR_MM)
    return box(groove.z_mm - groove.width_mm, low, groove.z_mm, high)
