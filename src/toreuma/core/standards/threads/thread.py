"""What a thread is once its standard has been asked."""

import math
from dataclasses import dataclass

__all__ = ["Limits", "Side", "Thread", "Wires"]


@dataclass(frozen=True)
class Limits:
    """Least and greatest diameter, mm."""

    min: float
    max: float

    @property
    def middle(self) -> float:
        return (self.min + self.max) / 2


@dataclass(frozen=True)
class Side:
    """One of the two threads of a pair; diameters, mm."""

    major: Limits
    pitch: Limits
    minor: Limits
    tolerance: str


@dataclass(frozen=True)
class Wires:
    """Measuring the pitch diameter of the external thread over three wires, mm.

    ``best`` touches the flanks at the pitch line: ``P / (2 cos(α/2))``. ``over`` are the limits of the size over
    the wires, ``M = d2 + w (1 + 1/sin(α/2)) - P/2 cot(α/2)``, without the small helix correction.
    """

    best: float
    over: Limits


@dataclass(frozen=True, kw_only=True)
class Thread:
    """Limits of both threads of a pair. ``depth_external`` and ``depth_internal`` are radial, mm.

    ``d_mm`` is the nominal major diameter; for taper threads that at the gauge plane. ``taper`` is the growth of
    the diameter along the length, 0 for parallel threads.
    """

    designation: str
    family: str
    d_mm: float
    pitch_mm: float
    flank_deg: float
    external: Side
    internal: Side
    depth_external: float
    depth_internal: float
    tap_drill_mm: float
    source: str
    starts: int = 1
    left_hand: bool = False
    taper: float = 0.0
    gauge_length_mm: float | None = None
    notes: tuple[str, ...] = ()

    @property
    def lead_mm(self) -> float:
        """How far the nut moves in one turn, mm."""
        return self.pitch_mm * self.starts

    @property
    def wires(self) -> Wires:
        half = math.radians(self.flank_deg / 2)
        best = self.pitch_mm / (2 * math.cos(half))
        add = best * (1 + 1 / math.sin(half)) - self.pitch_mm / 2 / math.tan(half)
        pitch = self.external.pitch
        return Wires(best, Limits(pitch.min + add, pitch.max + add))

    @property
    def form_tap_drill_mm(self) -> float | None:
        """Hole for a forming tap, ``d - 0.45 P``: typical, for 65 % of the depth; only 60 degree threads are formed."""
        return self.d_mm - 0.45 * self.pitch_mm if self.flank_deg == 60 and not self.taper else None
