"""When each move of a program happens, and how fast the spindle turns at any moment."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.geometry.elements import Line
from toreuma.core.model import Machine
from toreuma.core.motion import Motion
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


SLOTS = 1500
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
        points: list[tuple[float, float]] = []
        shares = np.linspace(0.0, 1.0, samples + 1)
        short = SHORT_SHARE * self.total_s
        for span in self.spans:
            motion = span.motion
            level = motion.start[1] == motion.end[1] and isinstance(motion.segment, Line)
            if motion.spindle.mode != "surface" and points and points[-1][1] == motion.spindle.value:
                points.append((span.end_s, points[-1][1]))
                continue
            if level or motion.spindle.mode != "surface" or span.end_s - span.start_s < short:
                for second, radius in ((span.start_s, motion.start[1]), (span.end_s, motion.end[1])):
                    points.append((second, spindle_rpm(motion.spindle, radius, machine.max_rpm)))
                continue
            seconds = span.start_s + shares * (span.end_s - span.start_s)
            for second, radius in zip(seconds.tolist(), motion.segment.radii(shares).tolist(), strict=True):
                points.append((second, spindle_rpm(motion.spindle, radius, machine.max_rpm)))
        return _thinned(points)


def _thinned(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """First, lowest, highest and last of all points that fall into the same slot of time."""
    if len(points) < 4 * SLOTS:
        return points
    seconds, rpm = np.array(points).T
    slot = np.floor(seconds / max(float(seconds[-1]), 1e-9) * SLOTS).astype(int)
    begins = np.flatnonzero(np.r_[True, np.diff(slot) != 0])
    ends = np.r_[begins[1:], len(points)]
    kept = {0, len(points) - 1}
    for begin, end in zip(begins.tolist(), ends.tolist(), strict=True):
        inside = rpm[begin:end]
        kept |= {begin, end - 1, begin + int(inside.argmin()), begin + int(inside.argmax())}
    return [points[index] for index in sorted(kept)]


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
