"""One move of a tool: the value that planning writes down as text and reading makes from text again."""

import math
from dataclasses import KW_ONLY, dataclass, replace
from typing import Literal

from toreuma.core.geometry.elements import Line, Segment

__all__ = ["PECK_BACK_OFF_MM", "STOPPED", "Driven", "Event", "Motion", "Spindle", "peck_bottoms"]

PECK_BACK_OFF_MM = 0.5
"""How far above the bottom a rapid back into a hole ends."""


def peck_bottoms(start: float, end: float, peck: float) -> list[float]:
    """Bottoms of equal pecks from ``start`` down to ``end``, mm; one where ``peck`` is not positive."""
    if peck <= 0:
        return [end]
    count = max(1, math.ceil((start - end) / peck - 1e-9))
    return [*(start - peck * (i + 1) for i in range(count - 1)), end]


Event = Literal[
    "", "unclamp", "clamp", "centre_in", "centre_out", "c_axis_on", "c_axis_off", "index", "brake_on", "brake_off"
]
"""What a machine does while no axis moves."""


@dataclass(frozen=True, slots=True)
class Spindle:
    """Spindle state. ``surface``: value is m/min, held between 0 and ``clamp_rpm``; ``fixed``: value is rpm."""

    mode: Literal["surface", "fixed", "stopped"]
    value: float = 0.0
    clamp_rpm: float | None = None


STOPPED = Spindle("stopped")


@dataclass(frozen=True, slots=True, kw_only=True)
class Driven:
    """What a move of a tool that turns by itself has besides: the work stands, or follows in step.

    ``rpm`` is the tool's, below zero in reverse. The move is seen by somebody who turned with the work by ``c_deg``:
    its second coordinate is X there and may lie below the axis, ``y`` are start and end square to X and Z. ``polar``:
    X and Y come about by turning the work. ``turned_deg`` is how far an ``index`` turns it.
    """

    rpm: float
    c_deg: float = 0.0
    y: tuple[float, float] = (0.0, 0.0)
    polar: bool = False
    turned_deg: float = 0.0


@dataclass(frozen=True, slots=True)
class Motion:
    """A move of the programmed point, mm in (z, r).

    ``feed`` is None for a rapid; otherwise mm per revolution, or mm per minute when ``per_minute``.
    ``in_step`` moves follow the angle of the spindle: ``feed`` is the lead of a thread, ``turned`` the share of a turn
    that the spindle has made when they begin. An ``event`` is no move: hold or centre move, ``dwell_s`` passes.
    ``line`` counts lines of program text from 1; 0 before there is text. ``station`` is the tool's. ``driven`` is set
    where the tool turns and the work does not. ``second``: it is made at the second spindle, in its own places.
    ``shared``: the speed of the spindle is another channel's to command. ``datum``: counted from another than the
    first one.
    """

    segment: Segment
    feed: float | None
    spindle: Spindle
    station: int
    _: KW_ONLY
    per_minute: bool = False
    line: int = 0
    section: int = -1
    dwell_s: float = 0.0
    in_step: bool = False
    turned: float = 0.0
    event: Event = ""
    driven: Driven | None = None
    second: bool = False
    shared: bool = False
    datum: str = ""

    @property
    def turns(self) -> float:
        """Turns of the spindle during a move in step with it: the lead counts on the axis that goes farther."""
        if not self.in_step or self.feed is None:
            return 0.0
        return max(abs(b - a) for a, b in zip(self.start, self.end, strict=True)) / self.feed

    def follows(self, before: "Motion | None") -> "Motion":
        """The move right after another one: in step with the spindle it goes on where that one was; straight back, as
        out of a tapped hole, the spindle turns back as well."""
        if before is None or not (self.in_step and before.in_step) or before.end != self.start:
            return self
        turned = before.turned + before.turns
        back = all((b - a) * (d - c) <= 0 for a, b, c, d in zip(before.start, before.end, self.start, self.end,
                                                               strict=True))  # fmt: skip
        return replace(self, turned=(-turned if back else turned) % 1.0)

    @property
    def length(self) -> float:
        """Length of the way, mm."""
        if self.driven is None:
            return self.segment.length
        return math.hypot(self.segment.length, self.driven.y[1] - self.driven.y[0])

    @property
    def is_finite(self) -> bool:
        """Where it leads, and how fast, are numbers."""
        across = self.driven.y[1] + self.driven.rpm + self.driven.c_deg if self.driven else 0.0
        return math.isfinite(sum(self.end) + (self.feed or 0.0) + self.spindle.value + self.dwell_s + across)

    @property
    def is_rapid(self) -> bool:
        return self.feed is None

    @property
    def start(self) -> tuple[float, float]:
        return self.segment.start

    @property
    def end(self) -> tuple[float, float]:
        return self.segment.end

    def until(self, share: float) -> "Motion":
        """The first ``share`` (0 to 1) of the move."""
        return replace(self, segment=self.segment.part(share))

    @staticmethod
    def rapid(start: tuple[float, float], end: tuple[float, float], spindle: Spindle, station: int) -> "Motion":
        return Motion(Line(start, end), None, spindle, station)
