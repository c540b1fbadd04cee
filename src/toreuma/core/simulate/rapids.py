"""The way of a rapid in two axes: straight where the control interpolates it, else each axis as fast as it can."""

import math
from dataclasses import replace
from itertools import pairwise

from toreuma.core.geometry.elements import Line, Point
from toreuma.core.model import Machine
from toreuma.core.motion import Motion

__all__ = ["bent_ways", "goes_bent", "rapid_axis_s", "timed_legs"]

SAME_MM = 1e-6
SHARES = (0.02, 0.05, 0.1, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9, 0.95)
"""Where a bent way is looked at besides its ends and the place where the first axis arrives."""


def goes_bent(motion: Motion, machine: Machine) -> bool:
    """It moves in X and Z at once, and the machine is not known to take the straight way."""
    if not motion.is_rapid or motion.driven is not None or machine.rapids == "straight":
        return False
    return all(abs(b - a) > SAME_MM for a, b in zip(motion.start, motion.end, strict=True))


def timed_legs(motion: Motion, machine: Machine) -> list[tuple[float, Motion]]:
    """A rapid in short straight pieces along the way the axes take on their own, each with the share of the time that
    is over when it ends; other moves as they are."""
    if not goes_bent(motion, machine):
        return [(1.0, motion)]
    places = _places(motion.start, motion.end, machine)
    pairs = pairwise(places)
    return [(share, replace(motion, segment=Line(a, b))) for (_, a), (share, b) in pairs]


def bent_ways(motion: Motion, machine: Machine) -> list[Motion]:
    """Every way a rapid may take: where the machine does not say, the straight one and the bent one."""
    if not goes_bent(motion, machine):
        return [motion]
    return [*(leg for _, leg in timed_legs(motion, machine)), *([motion] if machine.rapids == "unsaid" else [])]


def _places(start: Point, end: Point, machine: Machine) -> list[tuple[float, Point]]:
    speeds, rise = (machine.rapid_z_mm_min, machine.rapid_x_mm_min), machine.acceleration_mm_s2
    ways = [abs(b - a) for a, b in zip(start, end, strict=True)]
    times = [rapid_axis_s(way, speed, rise) for way, speed in zip(ways, speeds, strict=True)]
    longest = max(times)
    found = []
    for moment in sorted({0.0, *times, *(share * longest for share in SHARES)}):
        done = [_done_mm(moment, way, speed, rise) for way, speed in zip(ways, speeds, strict=True)]
        z, r = (a + math.copysign(one, b - a) for a, b, one in zip(start, end, done, strict=True))
        found.append((moment / longest, (z, r)))
    return [*found[:-1], (1.0, end)]


def rapid_axis_s(distance_mm: float, speed_mm_min: float, acceleration_mm_s2: float) -> float:
    """Time of one axis, s, that speeds up and slows down evenly."""
    speed = speed_mm_min / 60
    if distance_mm <= speed**2 / acceleration_mm_s2:
        return 2 * math.sqrt(distance_mm / acceleration_mm_s2)
    return distance_mm / speed + speed / acceleration_mm_s2


def _done_mm(seconds: float, distance_mm: float, speed_mm_min: float, rise: float) -> float:
    """How far an axis has come, mm."""
    whole = rapid_axis_s(distance_mm, speed_mm_min, rise)
    if seconds >= whole:
        return distance_mm
    if seconds > whole / 2:
        return distance_mm - _done_mm(whole - seconds, distance_mm, speed_mm_min, rise)
    top = min(speed_mm_min / 60, math.sqrt(distance_mm * rise))
    until = top / rise
    return rise * seconds**2 / 2 if seconds <= until else top * (seconds - until / 2)
