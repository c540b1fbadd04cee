"""Where driven tools go in a program: which way they stand, the places they go into, and patterns of them."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby, pairwise
from typing import Any

import numpy as np

from toreuma.core.motion import Motion

__all__ = [
    "AXIAL",
    "RADIAL",
    "SAME_MM",
    "Place",
    "alike",
    "by_angle",
    "leaves_along",
    "patterns",
    "places_of",
    "plain_deg",
    "spread",
]

SAME_MM, SAME_DEG = 0.01, 0.01
DIGITS = 4
AXIAL, RADIAL = "axial", "radial"

Row = dict[str, Any]


@dataclass(frozen=True)
class Place:
    """Where a tool went in: its way, how far from the axis or along it (mm), its angle, and how deep (Z, or radius)."""

    mount: str
    at_mm: float
    deg: float
    bottom: float

    @property
    def row(self) -> tuple[str, float]:
        return self.mount, round(self.at_mm, 2)


def leaves_along(moves: list[Motion]) -> tuple[str, ...]:
    """Which way a mill stands, the likelier first: it leaves the metal along its own axis."""
    if any(one.driven is not None and one.driven.polar for one in moves):
        return (AXIAL,)  # turning the work takes nothing that stands along X across
    votes = {AXIAL: 0, RADIAL: 0}
    for before, after in pairwise(moves):
        if not before.is_rapid and after.is_rapid:
            (z0, r0), (z1, r1) = after.start, after.end
            votes[AXIAL] += abs(r1 - r0) < SAME_MM and z0 < z1 > 0
            votes[RADIAL] += abs(z1 - z0) < SAME_MM and r1 > r0
    if votes[AXIAL] == votes[RADIAL]:
        return RADIAL, AXIAL
    return (max(votes, key=lambda mount: votes[mount]),)


def places_of(cuts: list[Motion]) -> list[Place]:
    """Where a drill, reamer or tap went in; nothing where it went another way as well."""
    deepest: dict[tuple[str, float, float], Place] = {}
    for one in cuts:
        assert one.driven is not None
        (z0, x0), (z1, x1), (y0, y1) = one.start, one.end, one.driven.y
        if abs(y1 - y0) > SAME_MM:
            return []
        if abs(x1 - x0) < SAME_MM < abs(z1 - z0):
            deg = one.driven.c_deg + math.degrees(math.atan2(y1, x1))
            place = Place(AXIAL, math.hypot(x1, y1), plain_deg(deg), min(z0, z1))
        elif abs(z1 - z0) < SAME_MM < abs(x1 - x0) and abs(y1) < SAME_MM:
            place = Place(RADIAL, z1, plain_deg(one.driven.c_deg), min(x0, x1))
        else:
            return []
        key = (*place.row, place.deg)
        before = deepest.get(key)
        deepest[key] = place if before is None or place.bottom < before.bottom else before
    return list(deepest.values())


def patterns(places: list[Place]) -> Iterator[list[Place]]:
    """Places alike but for their angle."""

    def row_of(one: Place) -> tuple[str, float, float]:
        return *one.row, round(one.bottom, 2)

    for _, run in groupby(sorted(places, key=lambda one: (row_of(one), one.deg)), row_of):
        every = list(run)
        if spread(tuple(one.deg for one in every)).get("step_deg", 0.0) is None:
            yield from ([one] for one in every)
        else:
            yield every


def spread(degs: tuple[float, ...]) -> Row:
    """Where a pattern begins, and the step between its angles; no step where it is even all round, None where there is
    no even one."""
    row: Row = {"start_deg": degs[0]}
    steps = np.diff(degs)
    if len(degs) < 2 or (np.ptp(steps) < SAME_DEG and abs(float(steps[0]) - 360 / len(degs)) < SAME_DEG):
        return row
    return row | {"step_deg": plain_deg(float(steps[0])) if np.ptp(steps) < SAME_DEG else None}


def by_angle(cuts: list[Motion]) -> dict[float, list[Motion]]:
    """Cuts by the angle at which the work stands."""
    found: dict[float, list[Motion]] = {}
    for one in cuts:
        assert one.driven is not None
        found.setdefault(plain_deg(one.driven.c_deg), []).append(one)
    return found


def alike(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    """The same angles."""
    return len(one) == len(other) and all(abs(a - b) < SAME_DEG for a, b in zip(one, other, strict=True))


def plain_deg(deg: float) -> float:
    """An angle from 0 up to 360, without the dust of its computing."""
    found = round(deg % 360, DIGITS)
    return 0.0 if found == 360 else found
