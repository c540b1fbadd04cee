"""Moves of a program kept as they were read."""

from typing import Literal

from pydantic import Field

from toreuma.core.value import Length, Value

__all__ = ["WrittenDriven", "WrittenEvent", "WrittenMove"]


class WrittenDriven(Value):
    """What a move of a tool that turns by itself has besides: the tool's speed, below zero in reverse, the angle at
    which the work stands, under its brake or not, and where the move ends square to X and Z.

    ``polar``: Y comes about by turning the work."""

    rpm: float = Field(ge=-1e6, le=1e6)
    c_deg: float = Field(default=0.0, ge=-1e5, le=1e5)
    y_mm: Length = 0.0
    polar: bool = False
    braked: bool = False


WrittenEvent = Literal["", "unclamp", "clamp", "centre_in", "centre_out"]
"""The hold opens or closes, the centre comes or goes."""


class WrittenMove(Value):
    """One move of a program, in places of its tool's programmed point. ``centre`` is that of an arc, (z, r) in mm.

    ``speed`` is set where it changes: of the surface, m/min, or of the spindle, rpm, and the clamp."""

    z_mm: Length
    r_mm: Length
    how: Literal["rapid", "feed", "thread"] = "rapid"
    feed: float | None = Field(default=None, gt=0, le=1e6, description="mm per turn or minute; the lead of a thread")
    per_minute: bool = False
    centre: tuple[float, float] | None = None
    clockwise: bool = True
    dwell_s: float = Field(default=0.0, ge=0, le=3600)
    speed: tuple[Literal["surface", "fixed", "stopped"], float, float | None] | None = None
    driven: WrittenDriven | None = Field(default=None, description="Where the tool turns and the work stands")
    event: WrittenEvent = Field(default="", description="What the machine does while no axis moves")
