"""Centre holes and the drills that make them: forms A, B and R (ISO 6411; drills ISO 866, ISO 2540, ISO 2541).

A is a pilot and a 60 degree cone; B has a cone of 120 degrees before that one, which keeps knocks off it; R widens in
an arc, so that a centre touches it along a ring wherever the piece leans.
"""

import math
from typing import Literal

from toreuma.core.model.feature import CentreHole

__all__ = [
    "CENTRE_FORMS",
    "CENTRE_SIZES",
    "CONE_DEG",
    "GUARD_DEG",
    "CentreForm",
    "centre_profile",
    "centre_seat",
    "cone_mouth",
]

CentreForm = Literal["A", "B", "R"]
CENTRE_FORMS: tuple[CentreForm, ...] = ("A", "B", "R")

CENTRE_SIZES = (
    (1.0, 2.12, 3.15), (1.25, 2.65, 4.0), (1.6, 3.35, 5.0), (2.0, 4.25, 6.3), (2.5, 5.3, 8.0), (3.15, 6.7, 10.0),
    (4.0, 8.5, 12.5), (5.0, 10.6, 16.0), (6.3, 13.2, 18.0), (8.0, 17.0, 22.4), (10.0, 21.2, 28.0),
)  # fmt: skip
"""Pilot, mouth of forms A and R, mouth of form B, mm (ISO 6411)."""

CONE_DEG, GUARD_DEG, POINT_DEG = 60.0, 120.0, 118.0

PILOT_LENGTHS = 1.1
"""Length of the pilot in diameters."""

ARC_PILOTS = 2.83
"""Radius of form R in pilots: the middle of what ISO 2541 allows."""

STEP_DEG = 1.5
"""The arc of form R is walked in such steps: its chords lie within 1 um up to a pilot of 10."""


def cone_mouth(pilot_mm: float, form: CentreForm = "A") -> float:
    """The usual mouth of a centre hole, mm."""
    row = next((row for row in CENTRE_SIZES if abs(row[0] - pilot_mm) < 0.01), None)
    if row is None:
        return round((2.12 if form != "B" else 3.15) * pilot_mm, 3)
    return row[2] if form == "B" else row[1]


def centre_profile(
    form: CentreForm, pilot_mm: float, mouth_mm: float, point_deg: float = POINT_DEG
) -> list[list[float]]:
    """Depth from the tip and radius, mm, from the tip out to the mouth.

    Raises nothing; a mouth that is not wider than the pilot gives no cone.
    """
    pilot, mouth = pilot_mm / 2, mouth_mm / 2
    lead = pilot / math.tan(math.radians(point_deg / 2))
    begin = lead + PILOT_LENGTHS * pilot_mm
    found = [[0.0, 0.0], [lead, pilot], [begin, pilot]]
    if mouth <= pilot:
        return found
    if form == "R":
        return found + [[begin + x, r] for x, r in _arc(pilot, mouth)]
    cone = min(cone_mouth(pilot_mm) / 2, mouth) if form == "B" else mouth
    found.append([begin + (cone - pilot) / math.tan(math.radians(CONE_DEG / 2)), cone])
    if cone < mouth:
        found.append([found[-1][0] + (mouth - cone) / math.tan(math.radians(GUARD_DEG / 2)), mouth])
    return found


def centre_seat(hole: CentreHole) -> tuple[float, float]:
    """Radius of the ring where a 60 degree centre touches farthest out, and how deep under the face it lies, mm."""
    profile = centre_profile(hole.form, hole.d_mm, hole.mouth_d_mm)
    deep = profile[-1][0]
    if hole.form == "R":
        at = math.radians(CONE_DEG / 2)
        arc, pilot = ARC_PILOTS * hole.d_mm, hole.d_mm / 2
        radius = min(pilot + arc * (1 - math.cos(at)), hole.mouth_d_mm / 2)
        touched = next((x for x, r in profile[3:] if r >= radius - 1e-9), deep)
        return radius, deep - touched
    x, r = profile[3] if len(profile) > 3 else profile[-1]
    return r, deep - x


def _arc(pilot: float, mouth: float) -> list[list[float]]:
    """From the pilot, which it touches, outward: ``r = r_p + R (1 - cos a)``."""
    arc = ARC_PILOTS * 2 * pilot
    end = math.acos(max(1 - (mouth - pilot) / arc, 0.0))
    steps = [math.radians(STEP_DEG) * n for n in range(1, int(end / math.radians(STEP_DEG) - 1e-9) + 1)]
    return [[arc * math.sin(a), pilot + arc * (1 - math.cos(a))] for a in (*steps, end)]
