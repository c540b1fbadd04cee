"""Outlines from corner points: straight lines with rounds where asked for."""

import math

import numpy as np

from toreuma.core.geometry.elements import Point, Points, arc_through_ends

__all__ = ["RoundedPoint", "rounded_points"]

RoundedPoint = tuple[float, float, float]
"""Z, radius, and the radius of the round at that corner, mm."""


def rounded_points(corners: list[RoundedPoint]) -> Points:
    """Chords of an open outline, shape (n, 2). A round that does not fit its edges is made as large as fits."""
    found: list[Point] = [corners[0][:2]]
    for index in range(1, len(corners) - 1):
        before, here, after = corners[index - 1], corners[index], corners[index + 1]
        room = min(math.dist(here[:2], other[:2]) * (0.5 if other[2] else 1.0) for other in (before, after))
        found.extend(_round(before[:2], here[:2], after[:2], here[2], room))
    found.append(corners[-1][:2])
    return np.array(found)


def _round(before: Point, here: Point, after: Point, radius: float, room: float) -> list[Point]:
    """Chords of the round at a corner; ``room`` is what the shorter edge can give."""
    a, b = math.dist(before, here), math.dist(here, after)
    if radius <= 0 or min(a, b) < 1e-9:
        return [here]
    t0 = ((here[0] - before[0]) / a, (here[1] - before[1]) / a)
    t1 = ((after[0] - here[0]) / b, (after[1] - here[1]) / b)
    turn = math.atan2(t0[0] * t1[1] - t0[1] * t1[0], t0[0] * t1[0] + t0[1] * t1[1])
    if abs(turn) < 1e-6 or abs(abs(turn) - math.pi) < 1e-6:
        return [here]
    tangent = math.tan(abs(turn) / 2)
    trim = min(radius * tangent, room - 1e-6)
    start = (here[0] - trim * t0[0], here[1] - trim * t0[1])
    end = (here[0] + trim * t1[0], here[1] + trim * t1[1])
    arc = arc_through_ends(start, end, trim / tangent, clockwise=turn < 0)
    return [(float(z), float(r)) for z, r in arc.points()]
