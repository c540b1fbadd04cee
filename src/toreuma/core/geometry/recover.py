"""From chords back to true lines and arcs, so that programs hold arcs and not splinters."""

import math
from collections.abc import Callable

import numpy as np

from toreuma.core.geometry.elements import Arc, Line, Points, Segment

__all__ = ["FIT_MM", "recover"]

FIT_MM = 0.0004
"""How far a chord's end may lie from the recovered element."""

SAG_SHARE = 1.5
"""How far the middle of a chord may lie from the recovered arc, as a share of the fit: the chords' own height
comes on top of it."""

MAX_SWEEP_RAD = math.radians(150)
"""Longer arcs are split: near half a turn a radius in a program no longer fixes the centre well."""

MAX_RADIUS_MM = 5000.0

SAME_BEND = 0.2
"""Curvatures that differ by a smaller share probably belong to one circle."""

Fit = Callable[[Points, float], bool]


def recover(points: Points, fit_mm: float = FIT_MM) -> list[Segment]:
    """Lines and arcs through a polyline of shape (n, 2), joined end to end.

    Every vertex lies within ``fit_mm`` of its element. Ends of the polyline are kept exactly. A straight run is
    one line; three or more chords on one circle, bending one way, are one arc.
    """
    if len(points) < 2:
        return []
    points = _without_doubles(points)
    bends = _bends(points)
    segments: list[Segment] = []
    first, last = 0, len(points) - 1
    while first < last:
        likely = _likely_end(bends, first)
        line_end = _reach_far(points, first, _is_line, fit_mm)
        arc_end = _reach_far(points, first, _is_arc, fit_mm, least=3, likely=likely)
        if arc_end - first >= 3 and arc_end > line_end:
            segments.append(_arc(points[first : arc_end + 1]))
            first = arc_end
        else:
            segments.append(Line(_point(points[first]), _point(points[line_end])))
            first = line_end
    return segments


def _without_doubles(points: Points) -> Points:
    keep = np.concatenate([[True], np.hypot(*np.diff(points, axis=0).T) > 1e-7])
    if not keep[-1]:
        keep[np.flatnonzero(keep)[-1]] = len(np.flatnonzero(keep)) == 1
        keep[-1] = True
    return np.asarray(points[keep])


def _bends(points: Points) -> Points:
    """Curvature at each inner point: the sine of the turn over the mean length of the chords beside it, 1/mm."""
    steps = np.diff(points, axis=0)
    length = np.hypot(steps[:, 0], steps[:, 1])
    turn = steps[:-1, 0] * steps[1:, 1] - steps[:-1, 1] * steps[1:, 0]
    return np.asarray(2 * turn / (length[:-1] * length[1:] * (length[:-1] + length[1:])))


def _likely_end(bends: Points, first: int) -> int:
    """Where a circle that begins at ``first`` probably ends: before the curvature changes."""
    ahead = bends[first:]
    if len(ahead) < 2:
        return first
    other = np.abs(ahead[1:] - ahead[1]) > SAME_BEND * abs(ahead[1])
    return first + 2 + int(other.argmax()) if other.any() else first + len(ahead) + 1


def _reach_far(points: Points, first: int, fits: Fit, fit_mm: float, least: int = 1, likely: int = 0) -> int:
    """The last index up to which ``fits`` holds, found by trying a likely one, then by doubling and halving."""
    last = len(points) - 1
    good, step = first + least, least
    if good > last or (least > 1 and not fits(points[first : good + 1], fit_mm)):
        return first
    if good < likely <= last and fits(points[first : likely + 1], fit_mm):
        good = likely
        if likely < last and not fits(points[first : likely + 2], fit_mm):
            return likely
    while good < last:
        trial = min(good + step, last)
        if fits(points[first : trial + 1], fit_mm):
            good, step = trial, step * 2
        elif step == 1 or trial == good + 1:
            break
        else:
            step = max((trial - good) // 2, 1)
    return good


def _is_line(run: Points, fit_mm: float) -> bool:
    along = run[-1] - run[0]
    length = math.hypot(along[0], along[1])
    if length < 1e-9:
        return False
    offset = run - run[0]
    across = np.abs(along[0] * offset[:, 1] - along[1] * offset[:, 0]) / length
    forward = offset @ along
    return bool(across.max() <= fit_mm / 2 and np.all(np.diff(forward) > -1e-9))


def _is_arc(run: Points, fit_mm: float) -> bool:
    circle = _circle(run)
    if circle is None:
        return False
    (cz, cr), radius = circle
    if radius > MAX_RADIUS_MM:
        return False
    steps = np.diff(run, axis=0)
    turn = steps[:-1, 0] * steps[1:, 1] - steps[:-1, 1] * steps[1:, 0]
    if not (np.all(turn >= -1e-12) or np.all(turn <= 1e-12)):
        return False
    if np.abs(np.hypot(run[:, 0] - cz, run[:, 1] - cr) - radius).max() > fit_mm:
        return False
    middle = (run[:-1] + run[1:]) / 2
    if np.abs(np.hypot(middle[:, 0] - cz, middle[:, 1] - cr) - radius).max() > SAG_SHARE * fit_mm:
        return False
    angles = np.unwrap(np.arctan2(run[:, 1] - cr, run[:, 0] - cz))
    return bool(abs(angles[-1] - angles[0]) <= MAX_SWEEP_RAD)


def _circle(run: Points) -> tuple[tuple[float, float], float] | None:
    """The circle through both ends that fits the points between best; None for straight runs.

    Circles through two points have one freedom, the place of the centre on the perpendicular through the
    middle; with points measured from that middle the condition is linear in it.
    """
    middle, half = (run[0] + run[-1]) / 2, (run[-1] - run[0]) / 2
    chord = math.hypot(half[0], half[1])
    if chord < 1e-9:
        return None
    along, across = half / chord, np.array([-half[1], half[0]]) / chord
    inner = run[1:-1] - middle
    u, v = inner @ along, inner @ across
    weight = float(v @ v)
    if weight < 1e-18:
        return None
    height = float((v * (u * u + v * v - chord * chord)).sum() / (2 * weight))
    centre = middle + height * across
    return (float(centre[0]), float(centre[1])), math.hypot(chord, height)


def _arc(run: Points) -> Arc:
    circle = _circle(run)
    assert circle is not None
    steps = np.diff(run, axis=0)
    turn = float((steps[:-1, 0] * steps[1:, 1] - steps[:-1, 1] * steps[1:, 0]).sum())
    return Arc(_point(run[0]), _point(run[-1]), circle[0], clockwise=turn < 0)


def _point(row: Points) -> tuple[float, float]:
    return float(row[0]), float(row[1])
