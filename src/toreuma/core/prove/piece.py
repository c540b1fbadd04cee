"""What stands at the end of a program, measured: steps outside and in the bore, without any drawing."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region, polygons, rings

__all__ = ["Step", "bore_steps", "merged", "outline_of", "outside_steps"]

LEAST_MM = 0.02
"""Shorter stretches are roundings and chords, not steps."""

SQUARE_MM = 0.002
CHORD_MM = 0.3
"""Shorter straight stretches that join are the chords of a curve."""


@dataclass(frozen=True, slots=True)
class Step:
    """A stretch between two places along Z, and the diameters at its ends, mm; ``curved`` between them."""

    front_z: float
    back_z: float
    front_d: float
    back_d: float
    curved: bool = False

    @property
    def is_cylinder(self) -> bool:
        return abs(self.front_d - self.back_d) < SQUARE_MM


def outline_of(region: Region) -> Points:
    """The largest piece of a half section as corners (z, r), the front first. Shape (n, 2), perhaps empty."""
    pieces = sorted(polygons(region), key=lambda one: -one.area)
    if not pieces:
        return np.zeros((0, 2))
    ring = np.asarray(pieces[0].exterior.simplify(0.0005).coords)[:-1]
    start = int(np.lexsort((ring[:, 1], -ring[:, 0]))[0])
    return np.roll(ring, -start, axis=0)


def outside_steps(region: Region) -> tuple[Step, ...]:
    """The outside from front to back: the highest metal at every Z."""
    return tuple(_steps(region, upper=True))


def bore_steps(region: Region) -> tuple[Step, ...]:
    """The bore from front to back: where the metal nearest to the axis begins, as far as the axis is open."""
    return tuple(one for one in _steps(region, upper=False) if max(one.front_d, one.back_d) > 2 * LEAST_MM)


def _steps(region: Region, upper: bool) -> Iterator[Step]:
    if region.is_empty:
        return
    edges = np.vstack([np.column_stack([ring[:-1], ring[1:]]) for one in polygons(region) for ring in rings(one)])
    places = np.unique(np.round(edges[:, [0, 2]].ravel(), 6))[::-1]
    for front, back in zip(places[:-1].tolist(), places[1:].tolist(), strict=True):
        if front - back < 1e-6:
            continue
        ends = [_level(edges, place, upper) for place in (front - 1e-7 * (1 + (front - back)), back + 1e-7)]
        middle = (front + back) / 2
        if ends[0] is None or ends[1] is None or _level(edges, middle, upper) is None:
            continue
        yield Step(front, back, 2 * ends[0], 2 * ends[1])


def _level(edges: Points, z: float, upper: bool) -> float | None:
    """The outermost, or innermost, radius at a Z; None where there is no metal."""
    z0, r0, z1, r1 = edges.T
    across = (z0 <= z) != (z1 <= z)
    if not across.any():
        return None
    share = (z - z0[across]) / (z1[across] - z0[across])
    radii = r0[across] + share * (r1[across] - r0[across])
    return float(radii.max() if upper else radii.min())


def merged(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Steps that go on as one straight line, joined; a run of chords becomes one curve."""
    found: list[Step] = []
    for one in steps:
        if found and abs(found[-1].back_d - one.front_d) < SQUARE_MM and _same_slope(found[-1], one):
            found[-1] = Step(found[-1].front_z, one.back_z, found[-1].front_d, one.back_d)
        else:
            found.append(one)
    curves: list[Step] = []
    for one in found:
        last = curves[-1] if curves else None
        if last is not None and abs(last.back_d - one.front_d) < SQUARE_MM and _is_chord(last) and _is_chord(one):
            curves[-1] = Step(last.front_z, one.back_z, last.front_d, one.back_d, curved=True)
        else:
            curves.append(one)
    return tuple(one for one in curves if one.front_z - one.back_z > SQUARE_MM or not _is_chord(one))


def _is_chord(one: Step) -> bool:
    return one.curved or math.hypot(one.front_z - one.back_z, (one.front_d - one.back_d) / 2) < CHORD_MM


def _same_slope(one: Step, other: Step) -> bool:
    slopes = [(step.back_d - step.front_d) / (step.back_z - step.front_z) for step in (one, other)]
    return abs(slopes[0] - slopes[1]) < 1e-3
