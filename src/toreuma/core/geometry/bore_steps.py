"""Where a bore narrows by a flat step: a stretch that ends there ends on a floor with a hole in it."""

from collections.abc import Iterable

from toreuma.core.geometry.elements import Line, Segment

__all__ = ["step_at"]

SAME_MM = 1e-6
MOST_EDGE_MM = 0.6
"""The broken edge of the narrower place behind the step belongs to the step up to this size."""


def step_at(segments: Iterable[Segment], z: float) -> float | None:
    """The flat step of a bore's contour at a place along Z, or so little in front of it as an edge is broken; None
    where there is none. The contour runs from the front to the back."""
    flat = (
        one.start[0]
        for one in segments
        if isinstance(one, Line) and abs(one.start[0] - one.end[0]) < SAME_MM and one.end[1] < one.start[1] - SAME_MM
    )
    near = [at for at in flat if z - SAME_MM < at < z + MOST_EDGE_MM + SAME_MM]
    return min(near, default=None)
