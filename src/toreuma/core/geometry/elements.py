"""Lines and arcs in the half plane, as values."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

__all__ = ["CHORD_MM", "Arc", "Line", "Points", "Segment", "arc_through_ends", "chords"]

Point = tuple[float, float]
Points = NDArray[np.float64]

CHORD_MM = 0.0001
"""How far a chord may lie from its arc inside the kernel, mm. A tenth of a micrometre is a twentieth of what a
finished path may deviate."""


@dataclass(frozen=True, slots=True)
class Line:
    """A straight move from ``start`` to ``end``, mm."""

    start: Point
    end: Point

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end)

    def at(self, share: float) -> Point:
        """The point after ``share`` (0 to 1) of the length."""
        (z0, r0), (z1, r1) = self.start, self.end
        return z0 + share * (z1 - z0), r0 + share * (r1 - r0)

    def part(self, share: float) -> "Line":
        return Line(self.start, self.at(share))

    def reversed(self) -> "Line":
        return Line(self.end, self.start)

    def moved(self, dz: float, dr: float) -> "Line":
        return Line(_shift(self.start, dz, dr), _shift(self.end, dz, dr))

    def mirrored(self) -> "Line":
        """The same line with z turned round."""
        return Line((-self.start[0], self.start[1]), (-self.end[0], self.end[1]))

    def tangent(self, share: float = 0.0) -> Point:
        length = self.length
        return (self.end[0] - self.start[0]) / length, (self.end[1] - self.start[1]) / length

    def radii(self, shares: Points) -> Points:
        """The radius at each share of the length, mm."""
        return np.asarray(self.start[1] + shares * (self.end[1] - self.start[1]))

    def points(self, tolerance_mm: float = CHORD_MM) -> Points:
        return np.array([self.start, self.end])


@dataclass(frozen=True, slots=True)
class Arc:
    """A circular move about ``centre``, mm; clockwise seen with z to the right and r upward (ISO 6983 G02)."""

    start: Point
    end: Point
    centre: Point
    clockwise: bool

    @property
    def radius(self) -> float:
        return math.dist(self.start, self.centre)

    @property
    def sweep_rad(self) -> float:
        """Signed angle turned, positive counter-clockwise, more than 0 and up to a full turn in size."""
        turn = self._angle(self.end) - self._angle(self.start)
        if self.clockwise:
            return turn - 2 * math.pi if turn > 1e-12 else (turn if turn < -1e-12 else -2 * math.pi)
        return turn + 2 * math.pi if turn < -1e-12 else (turn if turn > 1e-12 else 2 * math.pi)

    @property
    def length(self) -> float:
        return self.radius * abs(self.sweep_rad)

    def _angle(self, point: Point) -> float:
        return math.atan2(point[1] - self.centre[1], point[0] - self.centre[0])

    def at(self, share: float) -> Point:
        if share >= 1:
            return self.end
        angle = self._angle(self.start) + share * self.sweep_rad
        radius = self.radius + share * (math.dist(self.end, self.centre) - self.radius)
        return self.centre[0] + radius * math.cos(angle), self.centre[1] + radius * math.sin(angle)

    def part(self, share: float) -> "Arc":
        return Arc(self.start, self.at(share), self.centre, self.clockwise)

    def reversed(self) -> "Arc":
        return Arc(self.end, self.start, self.centre, not self.clockwise)

    def moved(self, dz: float, dr: float) -> "Arc":
        return Arc(_shift(self.start, dz, dr), _shift(self.end, dz, dr), _shift(self.centre, dz, dr), self.clockwise)

    def mirrored(self) -> "Arc":
        start, end, centre = ((-z, r) for z, r in (self.start, self.end, self.centre))
        return Arc(start, end, centre, not self.clockwise)

    def tangent(self, share: float = 0.0) -> Point:
        z, r = self.at(share)
        dz, dr = (z - self.centre[0]) / self.radius, (r - self.centre[1]) / self.radius
        return (dr, -dz) if self.clockwise else (-dr, dz)

    def radii(self, shares: Points) -> Points:
        """The radius at each share of the length, mm."""
        return np.asarray(self.centre[1] + self.radius * np.sin(self._angle(self.start) + shares * self.sweep_rad))

    def points(self, tolerance_mm: float = CHORD_MM) -> Points:
        """Points on the arc whose chords stay within ``tolerance_mm`` of it, ends exact. Shape (n, 2)."""
        radius = max(self.radius, tolerance_mm)
        step = 2 * math.acos(max(1 - tolerance_mm / radius, 0.0))
        count = max(2, math.ceil(abs(self.sweep_rad) / step) + 1)
        share = np.linspace(0.0, 1.0, count)
        angle = self._angle(self.start) + share * self.sweep_rad
        grown = self.radius + share * (math.dist(self.end, self.centre) - self.radius)
        points = np.column_stack([self.centre[0] + grown * np.cos(angle), self.centre[1] + grown * np.sin(angle)])
        points[0], points[-1] = self.start, self.end
        return points


Segment = Line | Arc


def _shift(point: Point, dz: float, dr: float) -> Point:
    return point[0] + dz, point[1] + dr


def arc_through_ends(start: Point, end: Point, radius: float, clockwise: bool, large: bool = False) -> Arc:
    """The arc of at most half a turn with this radius between two points, or the ``large`` one of at least that.

    Raises `ValueError` when the points lie farther apart than the diameter.
    """
    chord = math.dist(start, end)
    if chord < 1e-9 or chord / 2 > radius * (1 + 1e-9):
        raise ValueError("radius smaller than half the distance between the ends")
    height = math.sqrt(max(radius**2 - (chord / 2) ** 2, 0.0))
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    across = (-(end[1] - start[1]) / chord, (end[0] - start[0]) / chord)
    side = -height if clockwise is not large else height
    return Arc(start, end, (middle[0] + side * across[0], middle[1] + side * across[1]), clockwise)


def chords(segments: Iterable[Segment], tolerance_mm: float = CHORD_MM) -> Points:
    """One polyline through joined segments, shape (n, 2), without repeated points."""
    pieces = [segment.points(tolerance_mm) for segment in segments]
    joined = np.vstack([pieces[0], *(piece[1:] for piece in pieces[1:])])
    keep = np.concatenate([[True], np.any(np.abs(np.diff(joined, axis=0)) > 1e-9, axis=1)])
    return np.asarray(joined[keep])
