"""Taps as they went: how deep, at which lead, and on which axis. What a tap leaves is seen by these alone."""

import math
from dataclasses import dataclass

from toreuma.core.model.tool import Tap
from toreuma.core.motion import Motion

__all__ = ["Stroke", "stroke_of"]

AXIS_MM = 1e-3


@dataclass(frozen=True, kw_only=True)
class Stroke:
    """A tap goes in at a place: (x, y) across the axis of the work, or (z, y) where it comes from the side, seen from
    where the work has turned by ``c_deg``. ``end`` is where its point stops along its own axis, mm; ``lead_mm`` how
    far it goes in a turn, below zero where it turns the other way.
    """

    line: int
    station: int
    from_side: bool
    c_deg: float
    place: tuple[float, float]
    end: float
    lead_mm: float


def stroke_of(motion: Motion, tool: Tap) -> Stroke | None:
    """The stroke a move makes; None for moves that lead nowhere deeper, and rapids."""
    if motion.feed is None or motion.event:
        return None
    (z0, x0), (z1, x1) = motion.start, motion.end
    driven = motion.driven
    if driven is None:
        if z1 >= z0 - AXIS_MM or abs(x1) > AXIS_MM:
            return None
        return Stroke(line=motion.line, station=tool.station, from_side=False, c_deg=0.0, place=(0.0, 0.0), end=z1,
                      lead_mm=_lead(motion, motion.spindle.value))  # fmt: skip
    from_side = tool.mount == "radial"
    if (x1 >= x0 - AXIS_MM) if from_side else (z1 >= z0 - AXIS_MM):
        return None
    y = driven.y[1]
    turned = math.radians(driven.c_deg)
    across = (x1 * math.cos(turned) - y * math.sin(turned), x1 * math.sin(turned) + y * math.cos(turned))
    return Stroke(
        line=motion.line,
        station=tool.station,
        from_side=from_side,
        c_deg=driven.c_deg,
        place=(z1, y) if from_side else across,
        end=x1 if from_side else z1,
        lead_mm=_lead(motion, driven.rpm),
    )


def _lead(motion: Motion, rpm: float) -> float:
    """Feed per turn of the tap against the work."""
    feed = motion.feed or 0.0
    if not motion.per_minute:
        return feed
    return feed / rpm if rpm else math.inf
