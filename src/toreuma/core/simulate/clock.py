"""How long a move takes, exactly, and how fast the spindle turns meanwhile."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from toreuma.core.cutting.speed import clamp_diameter, spindle_rpm
from toreuma.core.geometry.elements import Arc, Line, Segment
from toreuma.core.model import Machine
from toreuma.core.motion import Motion, Spindle
from toreuma.core.simulate.rapids import rapid_axis_s

__all__ = ["Times", "dwell_and_change_s", "motion_time_s", "rapid_time_s", "spindle_change_s", "times_of"]

_ARC_RULE = np.polynomial.legendre.leggauss(12)


@dataclass(frozen=True)
class Times:
    """Seconds spent cutting, in rapids, and in changes and waits."""

    cutting_s: float = 0.0
    rapid_s: float = 0.0
    idle_s: float = 0.0

    @property
    def total_s(self) -> float:
        return self.cutting_s + self.rapid_s + self.idle_s

    def __add__(self, other: "Times") -> "Times":
        return Times(self.cutting_s + other.cutting_s, self.rapid_s + other.rapid_s, self.idle_s + other.idle_s)


def motion_time_s(motion: Motion, machine: Machine) -> float:
    """Seconds for one move; infinite for a feed per revolution with the spindle stopped."""
    if motion.dwell_s:
        return motion.dwell_s
    if motion.event:
        return _event_s(motion, machine)
    if motion.length < 1e-12:
        return 0.0
    if motion.feed is None:
        across = abs(motion.driven.y[1] - motion.driven.y[0]) if motion.driven is not None else 0.0
        by_y = rapid_axis_s(across, machine.rapid_x_mm_min, machine.acceleration_mm_s2) if across else 0.0
        return max(rapid_time_s(motion.start, motion.end, machine), by_y)
    if motion.per_minute:
        return 60 * motion.length / motion.feed
    return _feed_per_rev_s(motion.segment, motion.feed, motion.spindle, machine)


def _event_s(motion: Motion, machine: Machine) -> float:
    """Seconds of what the axis of rotation does: it engages, turns the work, is braked and freed."""
    axis = machine.c_axis
    if axis is None:
        return 0.0
    if motion.event == "index" and motion.driven is not None:
        return abs(motion.driven.turned_deg) / axis.rapid_deg_s
    return {"c_axis_on": axis.engage_s, "c_axis_off": axis.engage_s}.get(
        motion.event, axis.brake_s if motion.event.startswith("brake") and axis.brake_nm > 0 else 0.0
    )


def _feed_per_rev_s(segment: Segment, feed: float, spindle: Spindle, machine: Machine) -> float:
    """Integral of ds / (f n(r)).

    With constant surface speed 1/n is proportional to r above the clamp diameter and constant below, so each
    piece between the crossings is integrated on its own: exact for lines, to rounding for arcs.
    """
    if spindle.mode == "stopped":
        return math.inf
    if spindle.mode == "fixed" or (isinstance(segment, Line) and segment.start[1] == segment.end[1]):
        return 60 * segment.length / (feed * spindle_rpm(spindle, abs(segment.start[1]), machine.max_rpm))
    ceiling = spindle_rpm(spindle, 0.0, machine.max_rpm)
    knee = clamp_diameter(spindle.value, ceiling) / 2
    shares = sorted({0.0, 1.0, *_crossings(segment, knee), *_crossings(segment, -knee)})
    if isinstance(segment, Line):
        return 60 * segment.length / feed * _minutes_a_turn(segment, shares, spindle.value, ceiling)
    nodes, weights = _ARC_RULE
    minutes = 0.0
    for a, b in pairwise(shares):
        at = (a + b) / 2 + (b - a) / 2 * nodes
        radius = np.abs(segment.radii(at))
        revs_per_min = np.minimum(1000 * spindle.value / (2 * math.pi * np.maximum(radius, 1e-12)), ceiling)
        minutes += float((weights / revs_per_min).sum()) * (b - a) / 2 * segment.length / feed
    return 60 * minutes


def _minutes_a_turn(line: Line, shares: list[float], surface_m_min: float, ceiling_rpm: float) -> float:
    """Mean of 1/n along a line, min: linear between the crossings, so the mean of the ends of each piece is exact."""
    if surface_m_min <= 0:
        return math.inf
    start, rise = line.start[1], line.end[1] - line.start[1]
    turn = 2 * math.pi / (1000 * surface_m_min)
    at = [max(abs(start + share * rise) * turn, 1 / ceiling_rpm) for share in shares]
    return sum((a + b) / 2 * (v - u) for (a, b), (u, v) in zip(pairwise(at), pairwise(shares), strict=True))


def _crossings(segment: Segment, r: float) -> list[float]:
    """Shares of the length at which a segment crosses a radius."""
    if isinstance(segment, Arc):
        level = (r - segment.centre[1]) / segment.radius
        if abs(level) >= 1:
            return []
        start = math.atan2(segment.start[1] - segment.centre[1], segment.start[0] - segment.centre[0])
        up = math.asin(level)
        found = [((angle - start) % (2 * math.pi)) for angle in (up, math.pi - up)]
        turned = [angle - 2 * math.pi if segment.sweep_rad < 0 else angle for angle in found]
        shares = [angle / segment.sweep_rad for angle in turned]
    else:
        rise = segment.end[1] - segment.start[1]
        shares = [(r - segment.start[1]) / rise] if abs(rise) > 1e-12 else []
    return [share for share in shares if 0 < share < 1]


def rapid_time_s(start: tuple[float, float], end: tuple[float, float], machine: Machine) -> float:
    """Both axes at their own rapid, each speeding up and slowing down evenly; the later one counts."""
    return max(
        rapid_axis_s(abs(end[0] - start[0]), machine.rapid_z_mm_min, machine.acceleration_mm_s2),
        rapid_axis_s(abs(end[1] - start[1]), machine.rapid_x_mm_min, machine.acceleration_mm_s2),
    )


def spindle_change_s(before_rpm: float, after_rpm: float, machine: Machine) -> float:
    """Time to change the spindle speed."""
    return abs(after_rpm - before_rpm) / machine.spindle_ramp_rpm_s


def dwell_and_change_s(before: Motion | None, motion: Motion, machine: Machine) -> float:
    """Waiting before a move: tool change, and the spindle coming to the speed of a new command."""
    wait = 0.0
    if before is None or before.station != motion.station:
        wait += machine.carrier_of(motion.station).tool_change_s
    if before is None or before.spindle != motion.spindle:
        radius = motion.end[1]
        old = spindle_rpm(before.spindle, before.end[1], machine.max_rpm) if before else 0.0
        wait += spindle_change_s(old, spindle_rpm(motion.spindle, radius, machine.max_rpm), machine)
    now = motion.driven.rpm if motion.driven is not None else 0.0
    if now and (before is None or before.driven is None or before.driven.rpm != now):
        live = machine.carrier_of(motion.station).live
        wait += live.run_up_s if live is not None else 0.0
    return wait


def times_of(motions: Iterable[Motion], machine: Machine, before: Motion | None = None) -> Times:
    """Time of a run of moves, with changes in front of and between them."""
    cutting = rapid = idle = 0.0
    for motion in motions:
        idle += dwell_and_change_s(before, motion, machine)
        seconds = motion_time_s(motion, machine)
        if motion.dwell_s or motion.event:
            idle += seconds
        elif motion.is_rapid:
            rapid += seconds
        else:
            cutting += seconds
        before = motion
    return Times(cutting, rapid, idle)
