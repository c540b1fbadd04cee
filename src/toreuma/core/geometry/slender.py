"""Where an outline rises slowly: a cone behind a thread into which it may run out, and no shoulder."""

import numpy as np
import shapely
from numpy.typing import NDArray

from toreuma.core.geometry.region import Region

__all__ = ["rises_slowly", "stands_for"]

RISE = 0.35
"""Growth of the radius along Z up to which a cone is slender."""
STEP_MM, FALLEN_MM, FAR_MM = 0.25, 0.1, 1e4


def stands_for(region: Region, z: float, r: float, side: float, length_mm: float) -> float:
    """For how much of a length, mm, the top of a region beside a place (z, r) stands about as high, up to where it has
    fallen into a groove."""
    steps = np.diff(np.concatenate([[r], _tops(region, z, side, length_mm)]))
    fallen = np.flatnonzero(steps < -RISE * STEP_MM - FALLEN_MM)
    return float((fallen[0] + 1) * STEP_MM) if len(fallen) else length_mm


def rises_slowly(region: Region, z: float, r: float, side: float, length_mm: float) -> bool:
    """Whether the top of a region beside a place (z, r), mm, on the side of +Z (1) or -Z (-1), nowhere rises faster
    than a slender cone over a length, mm; where it ends before that it does not."""
    rises = np.diff(np.concatenate([[r], _tops(region, z, side, length_mm)]))
    return bool((rises <= RISE * STEP_MM + 1e-6).all())


def _tops(region: Region, z: float, side: float, length_mm: float) -> NDArray[np.float64]:
    """How high a region is at every step from a place on."""
    at = z + side * STEP_MM * np.arange(1, max(int(length_mm / STEP_MM), 1) + 1)
    lines = [shapely.LineString([(place, -FAR_MM), (place, FAR_MM)]) for place in at]
    return np.asarray(shapely.bounds(shapely.intersection(region, lines))[:, 3])
