"""Where an outline rises slowly: a cone behind a thread into which it may run out, and no shoulder."""

import numpy as np
import shapely

from toreuma.core.geometry.region import Region

__all__ = ["rises_slowly"]

RISE = 0.35
"""Growth of the radius along Z up to which a cone is slender."""
STEP_MM, FAR_MM = 0.25, 1e4


def rises_slowly(region: Region, z: float, r: float, side: float, length_mm: float) -> bool:
    """Whether the top of a region beside a place (z, r), mm, on the side of +Z (1) or -Z (-1), nowhere rises faster
    than a slender cone over a length, mm; where it ends before that it does not."""
    at = z + side * STEP_MM * np.arange(1, max(int(length_mm / STEP_MM), 1) + 1)
    lines = [shapely.LineString([(place, -FAR_MM), (place, FAR_MM)]) for place in at]
    tops = shapely.bounds(shapely.intersection(region, lines))[:, 3]
    rises = np.diff(np.concatenate([[r], tops]))
    return bool((rises <= RISE * STEP_MM + 1e-6).all())
