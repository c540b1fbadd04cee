"""When each move of a program happens, and how fast the spindle turns at any moment."""

import math
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from toreuma.core.geometry.elements import Line
from toreuma.core.model import Machine
from toreuma.core.motion import Motion, Spindle
from toreuma.core.simulate.clock import dwell_and_change_s, motion_time_s

__all__ = ["Moment", "Span", "Timeline", "timeline_of"]

ENDLESS_S = 3600.0
"""What an endless move is drawn as."""


@dataclass(frozen=True, slots=True)
class Span:
    """One move in time: it waits from ``wait_s``, moves from ``start_s`` to ``end_s``."""

    motion: Motion
    wait_s: float
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Moment:
    """Where a point in time falls: span ``index`` and the share of its move that is done."""

    index: int
    share: float


SLOTS = 800
"""A picture of speeds is no finer than this over the whole time."""

SHORT_SHARE = 1 / 1000
"""A move shorter than this share of the whole is hardly more than a point in a picture of it."""


@dataclass(frozen=True)
class Timeline:
    """All moves of a program in time."""

    spans: tuple[Span, ...]

    @property
    def total_s(self) -> float:
        return self.spans[-1].end_s if self.spans else 0.0

    def at(self, seconds: float) -> Moment:
        """The move under way at a time; the last move's end beyond the end."""
        if not self.spans:
            return Moment(-1, 0.0)
        index = bisect_left(self.spans, seconds, key=lambda span: span.end_s)
        if index >= len(self.spans):
            return Moment(len(self.spans) - 1, 1.0)
        span = self.spans[index]
        length = span.end_s - span.start_s
        share = (seconds - span.start_s) / length if length > 0 else 1.0
        return Moment(index, min(max(share, 0.0), 1.0))

    def sections(self) -> list[tuple[int, float, float]]:
        """(section, start, end) in seconds for every run of moves of one section."""
        found: list[tuple[int, float, float]] = []
        for span in self.spans:
            if found and found[-1][0] == span.motion.section:
                found[-1] = (found[-1][0], found[-1][1], span.end_s)
            else:
                found.append((span.motion.section, span.wait_s, span.end_s))
        return found

    def speeds(self, machine: Machine, samples: int = 6) -> list[tuple[float, float]]:
        """Spindle speed over time as (seconds, rpm) points, up to ``samples`` steps per move."""
        seconds: list[float] = []
        radii: list[float] = []
        spindles: list[Spindle] = []
        shares = np.linspace(0.0, 1.0, samples + 1)
        short = SHORT_SHARE * self.total_s
        for span in self.spans:
            motion, spindle = span.motion, span.motion.spindle
            if spindle.mode != "surface" and spindles and spindles[-1] == spindle:
                seconds[-1] = span.end_s
                continue
            level = motion.start[1] == motion.end[1] and isinstance(motion.segment, Line)
            if level or spindle.mode != "surface" or span.end_s - span.start_s < short:
                seconds += (span.start_s, span.end_s)
                radii += (motion.start[1], motion.end[1])
            else:
                seconds += (span.start_s + shares * (span.end_s - span.start_s)).tolist()
                radii += motion.segment.radii(shares).tolist()
            spindles += [spindle] * (len(seconds) - len(spindles))
        return _thinned(np.array(seconds), _rpm(np.array(radii), spindles, machine.max_rpm))


def _rpm(radii: npt.NDArray[np.float64], spindles: list[Spindle], most: float) -> npt.NDArray[np.float64]:
    """`spindle_rpm` of many points at once."""
    value = np.array([spindle.value if spindle.mode != "stopped" else 0.0 for spindle in spindles])
    ceiling = np.array([min(spindle.clamp_rpm or most, most) for spindle in spindles])
    surface = np.array([spindle.mode == "surface" for spindle in spindles], dtype=bool)
    turned = 1000 * value / (2 * math.pi * np.maximum(np.abs(radii), 1e-9))
    rpm: npt.NDArray[np.float64] = np.where(surface, np.minimum(turned, ceiling), np.minimum(value, most))
    return rpm


def _thinned(seconds: npt.NDArray[np.float64], rpm: npt.NDArray[np.float64]) -> list[tuple[float, float]]:
    """First, lowest, highest and last of all points that fall into the same slot of time."""
    if len(seconds) > 4 * SLOTS:
        slot = np.floor(seconds / max(float(seconds[-1]), 1e-9) * SLOTS).astype(int)
        begins = np.flatnonzero(np.r_[True, np.diff(slot) != 0])
        ends = np.r_[begins[1:], len(seconds)]
        kept = {0, len(seconds) - 1}
        for begin, end in zip(begins.tolist(), ends.tolist(), strict=True):
            inside = rpm[begin:end]
            kept |= {begin, end - 1, begin + int(inside.argmin()), begin + int(inside.argmax())}
        chosen = sorted(kept)
        seconds, rpm = seconds[chosen], rpm[chosen]
    return list(zip(seconds.tolist(), rpm.tolist(), strict=True))


def timeline_of(motions: Sequence[Motion], machine: Machine) -> Timeline:
    """Lay moves out in time, with tool changes and spindle run-up between them."""
    spans, now = [], 0.0
    before: Motion | None = None
    for motion in motions:
        wait = dwell_and_change_s(before, motion, machine)
        length = min(motion_time_s(motion, machine), ENDLESS_S)
        spans.append(Span(motion, now, now + wait, now + wait + length))
        now += wait + length
        before = motion
    return Timeline(tuple(spans))
