"""The finished piece held against the section: what stands on each drawn thing, what of it is missing, and which of
that is a corner a nose rounds."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region, polygons, rings, thickness, without_film
from toreuma.core.verdict.drawn import Drawn

__all__ = ["Corner", "Found", "Piece", "compared", "inner_corners"]

FILM_MM = 0.002
SAME_MM = 1e-4
"""Corners nearer than this are one."""
NEAR_MM = 0.006
TURN = math.radians(8.0)
"""An outline that turns less than this goes on: chords of a round do."""

MORE, CLOSE_SHARE = 1.15, 0.25
"""A rounded corner may hold so much more metal than a true round: edges lean, and meet at more than one place."""

WINDOW, ROLLED, ROLLED_OFF = 4.0, 32, 0.05
"""How far about a corner air is looked at, in noses; chords of a quarter; and the share of the nose by which a disc may
come into a piece: edges lean."""

LEAST_MM2 = 1e-4
MOST_PERCENT = 75


@dataclass(frozen=True)
class Corner:
    """An inner corner of the drawing, mm, and the angle of the air in it, rad."""

    at: tuple[float, float]
    angle: float

    def rest_mm2(self, nose_mm: float) -> float:
        """What a round nose cannot take out of it (plane geometry: kite less sector)."""
        half = self.angle / 2
        return float(nose_mm**2 * (1 / math.tan(half) - (math.pi / 2 - half)))

    def reach_mm(self, nose_mm: float) -> float:
        """How far from the corner a round nose first touches its walls."""
        return float(nose_mm / math.tan(self.angle / 2))


@dataclass(frozen=True)
class Piece:
    """A piece of metal that stands where none is drawn, and how thick it is; ``nose_mm`` is the smallest round that
    explains it as a rounded corner, None where none does."""

    region: Region
    thick_mm: float
    nose_mm: float | None


@dataclass(frozen=True, kw_only=True)
class Found:
    """What was found on one drawn thing: the most that stands square to it, what is not exceeded on most of it
    (``usual_um``), what stands on most of it (``layer_um``), the most that is missing, um, and the pieces that touch
    it."""

    drawn: Drawn
    over_um: float
    usual_um: float
    layer_um: float
    under_um: float
    pieces: tuple[Piece, ...]

    @property
    def stands(self) -> tuple[Piece, ...]:
        """Pieces that are no rounded corners."""
        return tuple(one for one in self.pieces if one.nose_mm is None)

    @property
    def rounded(self) -> tuple[Piece, ...]:
        return tuple(one for one in self.pieces if one.nose_mm is not None)


def inner_corners(part: Region) -> tuple[Corner, ...]:
    """Every sharp inner corner of a half section, away from the axis."""
    found = []
    for ring in rings(part):
        points = _apart(ring[:-1])
        if _area(points) < 0:
            points = points[::-1]
        before, after = points - np.roll(points, 1, axis=0), np.roll(points, -1, axis=0) - points
        turn = np.arctan2(before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0], (before * after).sum(axis=1))
        for n in np.flatnonzero(turn < -TURN):
            z, r = points[n]
            if r > FILM_MM:
                found.append(Corner((float(z), float(r)), math.pi + float(turn[n])))
    return tuple(found)


def _apart(points: Points) -> Points:
    """Corners of a ring without those that only numbers tell from the one before."""
    return np.asarray(points[np.hypot(*(points - np.roll(points, 1, axis=0)).T) > SAME_MM])


def _area(points: Points) -> float:
    z, r = points[:, 0], points[:, 1]
    return float((z * np.roll(r, -1) - np.roll(z, -1) * r).sum() / 2)


def compared(
    drawn: Sequence[Drawn], part: Region, final: Region, spared: Region, raised: Region, noses_mm: Iterable[float]
) -> tuple[tuple[Found, ...], tuple[Piece, ...]]:
    """What was found on every drawn thing, and pieces that touch none of them.

    ``spared`` is where threads are cut below the drawn surface, ``raised`` where knurls stand above it; ``noses_mm``
    are the rounds of the tools there are.
    """
    extra = without_film(final.difference(shapely.union(part, raised)), FILM_MM)
    corners, noses = inner_corners(part), sorted({round(nose, 4) for nose in noses_mm if nose > 0})
    pieces = [_piece(one, part, corners, noses) for one in polygons(extra) if one.area > LEAST_MM2]
    boundary = shapely.boundary(final)
    whole = final.union(spared) if not spared.is_empty else final
    shapely.prepare(whole)
    found = []
    loose = set(range(len(pieces)))
    for one in drawn:
        touching = [n for n, piece in enumerate(pieces) if _touches(piece.region, one.line)]
        loose -= set(touching)
        over, usual, layer, under = _off(one, final, whole, boundary)
        own = tuple(pieces[n] for n in touching)
        found.append(Found(drawn=one, over_um=over, usual_um=usual, layer_um=layer, under_um=under, pieces=own))
    return tuple(found), tuple(pieces[n] for n in sorted(loose))


def _piece(region: Region, part: Region, corners: Sequence[Corner], noses: Sequence[float]) -> Piece:
    wide = noses[-1] if noses else 0.0  # a drill may have taken the point of a corner: what stands begins beside it
    near = [one for one in corners if region.distance(shapely.Point(one.at)) < max(one.reach_mm(wide), NEAR_MM)]
    for nose in noses if near else ():
        sharp = _as_one(near, CLOSE_SHARE * nose)
        reach = shapely.union_all([shapely.Point(one.at).buffer(MORE * one.reach_mm(nose)) for one in sharp])
        fits = region.area <= MORE * sum(one.rest_mm2(nose) for one in sharp) + LEAST_MM2
        if fits and region.difference(reach).area < LEAST_MM2 and _is_beyond(region, part, near, nose):
            return Piece(region, thickness(region, part), nose)
    # What a nose rounds in a corner it joins says nothing of a layer: that is as thick as it is beside the corner.
    beside = region
    if near and noses:
        corner = [shapely.Point(one.at).buffer(MORE * one.reach_mm(noses[-1])) for one in near]
        beside = region.difference(shapely.union_all(corner))
    beside = region if beside.area < LEAST_MM2 else beside
    return Piece(region, thickness(beside, part), None)


def _as_one(corners: Sequence[Corner], close_mm: float) -> list[Corner]:
    """Corners so close to the one before are one with it, as sharp as they are together: the point of a V."""
    found: list[Corner] = []
    for one in corners:
        last = found[-1] if found else None
        if last is not None and math.dist(last.at, one.at) < close_mm and last.angle + one.angle > math.pi:
            middle = (last.at[0] + one.at[0]) / 2, (last.at[1] + one.at[1]) / 2
            found[-1] = Corner(middle, last.angle + one.angle - math.pi)
        else:
            found.append(one)
    return found


def _is_beyond(region: Region, part: Region, near: Sequence[Corner], nose: float) -> bool:
    """Whether a disc as large as the nose, rolled through the air about the corners, does not come to a piece."""
    window = shapely.union_all([shapely.box(*_about(one.at, WINDOW * (nose + one.reach_mm(nose)))) for one in near])
    air = window.difference(part)
    rolled = air.buffer(-nose, quad_segs=ROLLED).buffer(nose - ROLLED_OFF * nose - NEAR_MM, quad_segs=ROLLED)
    return bool(region.intersection(rolled).area < LEAST_MM2)


def _about(at: tuple[float, float], away: float) -> tuple[float, float, float, float]:
    return at[0] - away, at[1] - away, at[0] + away, at[1] + away


def _touches(region: Region, line: Region) -> bool:
    """A piece lies on a line with a length, not with a corner."""
    if region.distance(line) > FILM_MM:
        return False
    return bool(shapely.intersection(line, region.buffer(FILM_MM)).length > 4 * FILM_MM)


def _off(one: Drawn, final: Region, whole: Region, boundary: Region) -> tuple[float, float, float, float]:
    """The most that stands above a drawn thing, what is not exceeded and what stands on most of it, and the most that
    is missing of it, um."""
    places = shapely.points(one.points)
    above = one.points + FILM_MM * one.normals
    below = one.points - FILM_MM * one.normals
    stands = shapely.contains_xy(final, above[:, 0], above[:, 1])
    lacks = ~shapely.contains_xy(whole, below[:, 0], below[:, 1])
    if not stands.any() and not lacks.any():
        return 0.0, 0.0, 0.0, 0.0
    away = 1000 * shapely.distance(places, boundary)
    over = np.where(stands, away, 0.0)
    layer, usual = np.percentile(over, (100 - MOST_PERCENT, MOST_PERCENT))
    return float(over.max()), float(usual), float(layer), float(away[lacks].max(initial=0.0))
