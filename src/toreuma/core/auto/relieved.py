"""Undercuts in a route: those the finishing cut takes along need no blade, and where no blade gets in a slim finishing
tool goes there."""

from collections.abc import Iterable

from toreuma.core.advise.advice import Advice
from toreuma.core.advise.wishes import Wish
from toreuma.core.auto.steps import ID, RouteStep
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FinishBore, FinishOd, Job, Relief
from toreuma.core.reach.relieved import slides_in

__all__ = ["by_finishing", "is_undercut", "taken_along"]

BEGINS_MM, ENDS_MM = 1.0, 0.05
"""A cut for an undercut alone begins so far before its slope, and ends so far behind its shoulder."""


def is_undercut(job: Job, wish: Wish) -> bool:
    """The wish is for an undercut (DIN 509)."""
    feature = job.part.features[wish.feature] if wish.feature >= 0 else None
    return isinstance(feature, Relief) and feature.form != "thread"


def taken_along(job: Job, wish: Wish, steps: Iterable[RouteStep]) -> bool:
    """A finishing cut of the route goes into the undercut."""
    return any(_goes_into(one, _relief(job, wish)) for one in steps)


def by_finishing(job: Job, wish: Wish, finishing: Advice | None) -> RouteStep | None:
    """A cut of its own with the best finishing tool that goes into the undercut; None where none does."""
    relief = _relief(job, wish)
    able = (one for one in (finishing.candidates if finishing else ()) if slides_in(shape_of(one.tool), relief))
    best = next(able, None)
    if best is None:
        return None
    along = 1.0 if relief.toward == "front" else -1.0
    ends = relief.z_mm + along * (relief.length_mm + BEGINS_MM), relief.z_mm - along * ENDS_MM
    kind, group = (FinishOd, "finish outside") if relief.side == "outside" else (FinishBore, "finish bore")
    operation = kind(
        id=ID,
        name=wish.words,
        tool=ID,
        from_z_mm=max(ends),
        to_z_mm=min(ends),
        allow_away=relief.face_depth_mm > 0,
        wanted_ra_um=job.part.ra_um or 3.2,
    )
    return RouteStep(group=group, operation=operation, tool=best.tool, reasons=best.reasons)


def _relief(job: Job, wish: Wish) -> Relief:
    feature = job.part.features[wish.feature]
    assert isinstance(feature, Relief)
    return feature


def _goes_into(step: RouteStep, relief: Relief) -> bool:
    one = step.operation
    if not isinstance(one, FinishOd if relief.side == "outside" else FinishBore) or (
        relief.face_depth_mm > 0 and not one.allow_away
    ):
        return False
    end = relief.z_mm + (relief.length_mm if relief.toward == "front" else -relief.length_mm)
    high, low = max(relief.z_mm, end), min(relief.z_mm, end)
    begins = one.from_z_mm is None or one.from_z_mm >= high
    ends = one.to_z_mm is None or one.to_z_mm <= low
    return begins and ends and slides_in(shape_of(step.tool), relief)
