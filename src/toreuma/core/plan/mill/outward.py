"""Ways of a mill outward from the middle line of a slot or pocket, each a step of one width of cut farther.

Rings grow round about the middle line, so that the engagement stays the same all along; walls cut them off, and in
the corners of a pocket they go on growing until the corner is reached.
"""

import math
from dataclasses import dataclass

import shapely

from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.region import Region, box
from toreuma.core.geometry.shape import quarter_chords

__all__ = ["Outward"]

SAME_MM = 0.02


@dataclass(frozen=True, kw_only=True)
class Outward:
    """The middle line from ``start`` to ``end``, and where the mill's middle may go: ``aside`` to both sides and past
    both ends, round about the ends or with ``corner`` at the corners."""

    start: float
    end: float
    aside: float
    corner: float
    round_ends: bool

    def rings(self, leave: float, widest: float, chord_mm: float) -> list[list[Point]]:
        """Ways round, no farther apart than ``widest``, up to ``leave`` from the walls."""
        aside = max(self.aside - leave, 0.0)
        if aside <= SAME_MM:
            return []
        corner = max(self.corner - leave, 0.0)
        reach = aside if self.round_ends else math.sqrt(2) * (aside - corner) + corner
        count = max(math.ceil(reach / widest - 1e-9), 1)
        within = None if self.round_ends else self._within(aside, corner, chord_mm)
        return [self._ring(reach * (n + 1) / count, within, chord_mm) for n in range(count)]

    def last(self, chord_mm: float) -> list[Point]:
        """The way along the walls."""
        if self.round_ends:
            return self._ring(self.aside, None, chord_mm)
        return _points(self._within(self.aside, self.corner, chord_mm))

    def _within(self, aside: float, corner: float, chord_mm: float) -> Region:
        inner = aside - corner
        sharp = box(self.start - inner, -inner, self.end + inner, inner)
        if inner <= 1e-9:
            sharp = shapely.LineString([(self.start, 0.0), (self.end, 0.0)])
        if corner <= 1e-9:
            return sharp
        return sharp.buffer(corner, quad_segs=quarter_chords(corner, chord_mm))

    def _ring(self, away: float, within: Region | None, chord_mm: float) -> list[Point]:
        if self.end - self.start < SAME_MM:  # as long as it is wide
            line = shapely.Point((self.start + self.end) / 2, 0.0)
        else:
            line = shapely.LineString([(self.start, 0.0), (self.end, 0.0)])
        grown = line.buffer(away, quad_segs=quarter_chords(away, chord_mm))
        return _points(grown if within is None else grown.intersection(within))


def _points(region: Region) -> list[Point]:
    return [(float(u), float(v)) for u, v in shapely.get_coordinates(region.exterior)[:-1]]
