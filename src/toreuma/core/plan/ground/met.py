"""Where on its way an edge meets metal: a cut begins a little before that, and ends a little behind it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from toreuma.core.geometry.elements import Point, Points, Segment
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.shape import ToolShape

__all__ = ["MetMetal", "Trimmed", "between"]

STEP_MM = 0.2
"""A way is looked at after every so much of it."""

FILM_MM = 0.0025
"""An edge that goes this deep or less runs along what is finished."""

FINER = 4
"""The first metal between two of those places is found by halving so often."""

BEFORE_MM, BEHIND_MM = 0.4, 0.3
"""So much of the way before the first metal and behind the last one is gone at feed."""

LEAST_MM, LEAST_GAP_MM = 0.3, 4.0
"""Less than this is not worth being left out: at an end, and between two places that cut."""

AT_ONCE, FAR_MM = 64, 1e4


@dataclass(frozen=True)
class Trimmed:
    """The part of a way that cuts; ``begins`` and ``ends``: something in the air was left out there."""

    way: list[Segment]
    begins: bool
    ends: bool


@dataclass(frozen=True)
class MetMetal:
    """An edge and the metal there is, both in the frame of the tool; places are those of the nose centre."""

    stock: Region
    shape: ToolShape

    def cuts(self, places: Points) -> NDArray[np.bool_]:
        """Whether the edge is in metal at each of (n, 2) places."""
        return self._away(places) < self.shape.nose_radius - FILM_MM

    def is_free(self, places: Points, gap_mm: float) -> bool:
        """Whether the edge keeps so far off metal at all of (n, 2) places."""
        return bool((self._away(places) > self.shape.nose_radius + gap_mm).all())

    def in_front(self, z: float) -> "MetMetal":
        """With the metal alone that a tool on its way toward smaller z has yet to come to."""
        return replace(self, stock=shapely.clip_by_rect(self.stock, -FAR_MM, -FAR_MM, z, FAR_MM))

    def down_to(self, place: Point, top: float, gap_mm: float) -> float:
        """How far a tool comes down over a place from ``top`` before it is as near to metal, or to the place (mm)."""
        count = max(math.ceil((top - place[1]) / STEP_MM), 1)
        heights = np.linspace(top, place[1], count + 1)
        near = np.flatnonzero(
            self._away(np.column_stack([np.full(count + 1, place[0]), heights])) <= self.shape.nose_radius
        )
        met = heights[near[0]] if len(near) else place[1]
        return float(min(met + gap_mm, top))

    def out_of(self, place: Point, top: float) -> float:
        """How high over a place, up to ``top``, the tool is out of all metal; all mm."""
        count = max(math.ceil((top - place[1]) / STEP_MM), 1)
        heights = np.linspace(place[1], top, count + 1)
        met = np.flatnonzero(self.cuts(np.column_stack([np.full(count + 1, place[0]), heights])))
        return float(min(heights[met[-1]] + STEP_MM, top)) if len(met) else place[1]

    def trimmed(self, way: Sequence[Segment]) -> Trimmed:
        """Without what lies in the air at both ends; the whole way where it meets no metal at all."""
        first = self._first(way)
        if first is None:
            return Trimmed(list(way), False, False)
        leading = replace(self, shape=replace(self.shape, core=self.shape.leading_core))
        last = leading._first([one.reversed() for one in reversed(way)])
        whole = sum(one.length for one in way)
        begin, end = first - BEFORE_MM, whole - (last or 0.0) + BEHIND_MM
        begins, ends = begin > LEAST_MM, end < whole - LEAST_MM
        return Trimmed(between(way, begin if begins else 0.0, end if ends else whole), begins, ends)

    def begun(self, way: Sequence[Segment]) -> list[Segment]:
        """Without what lies in the air at its beginning, if that is worth being left out."""
        first = self._first(way)
        begin = 0.0 if first is None else first - BEFORE_MM
        return between(way, begin, sum(one.length for one in way)) if begin > LEAST_MM else list(way)

    def parted(self, way: Sequence[Segment]) -> list[tuple[list[Segment], bool]]:
        """A way in pieces, the first and the last and every other one of which cut; between them lie long stretches in
        the air."""
        leading = replace(self, shape=replace(self.shape, core=self.shape.leading_core))
        gone, found, met = 0.0, [], []  # lengths along the way, and whether it cuts there
        for one in way:
            count = max(math.ceil(one.length / STEP_MM), 1)
            shares = np.linspace(0.0, 1.0, count + 1)
            for begin in range(0, len(shares), AT_ONCE):
                chunk = shares[begin : begin + AT_ONCE]
                met.append(leading.cuts(np.array([one.at(float(share)) for share in chunk])))
                found.append(gone + chunk * one.length)
            gone += one.length
        places = np.concatenate(found)[np.concatenate(met)]
        wide = np.flatnonzero(np.diff(places) > LEAST_GAP_MM + BEFORE_MM + BEHIND_MM + 2 * STEP_MM)
        bounds = [0.0]
        for n in wide:
            bounds += [float(places[n]) + STEP_MM + BEHIND_MM, float(places[n + 1]) - STEP_MM - BEFORE_MM]
        bounds.append(gone)
        return [(between(way, low, high), n % 2 == 0) for n, (low, high) in enumerate(pairwise(bounds))]

    def _first(self, way: Sequence[Segment]) -> float | None:
        """How far along its way the edge first meets metal, at the last place before it; None: nowhere."""
        gone = 0.0
        for one in way:
            count = max(math.ceil(one.length / STEP_MM), 1)
            shares = np.linspace(0.0, 1.0, count + 1)
            for begin in range(0, len(shares), AT_ONCE):
                chunk = shares[begin : begin + AT_ONCE]
                met = np.flatnonzero(self.cuts(np.array([one.at(float(share)) for share in chunk])))
                if len(met):
                    place = begin + int(met[0])
                    low = float(shares[max(place - 1, 0)])
                    return gone + self._nearer(one, low, float(shares[place])) * one.length
            gone += one.length
        return None

    def _nearer(self, one: Segment, low: float, high: float) -> float:
        """The last share of a segment at which the edge is not in metal, between one that is not and one that is."""
        for _ in range(FINER):
            middle = (low + high) / 2
            low, high = (low, middle) if self.cuts(np.array([one.at(middle)]))[0] else (middle, high)
        return low

    def _away(self, places: Points) -> NDArray[np.float64]:
        """How far the core of the tool is from metal at each place, mm."""
        cores = shapely.convex_hull(shapely.multipoints(self.shape.core[None, :, :] + places[:, None, :]))
        return np.asarray(shapely.distance(cores, self.stock))


def between(way: Sequence[Segment], begin: float, end: float) -> list[Segment]:
    """The stretch of a way between two lengths along it, mm."""
    found: list[Segment] = []
    gone = 0.0
    for one in way:
        low, high = max(begin - gone, 0.0), min(end - gone, one.length)
        gone += one.length
        if high - low < 1e-6:
            continue
        found.append(_cut(one, low / one.length, high / one.length))
    return found


def _cut(one: Segment, begin: float, end: float) -> Segment:
    """A segment between two shares of its length."""
    return replace(one.part(end) if end < 1 else one, start=one.at(begin) if begin > 0 else one.start)
