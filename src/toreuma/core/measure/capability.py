"""Cp and Cpk of a run of sizes with what they are uncertain by.

Cp by the chi-squared distribution of the variance, Cpk by Bissell (1990), Applied Statistics 39, 331: both at 95 %.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import chi2, norm

__all__ = ["FEWEST", "Capability", "capability"]

FEWEST = 8
"""Fewer sizes say nothing of a spread."""
CONFIDENCE = 0.95


@dataclass(frozen=True)
class Capability:
    """``cp`` is None where there are not two limits; ranges are 95 %."""

    count: int
    mean: float
    sigma: float
    cp: float | None
    cp_range: tuple[float, float] | None
    cpk: float
    cpk_range: tuple[float, float]


def capability(sizes: Sequence[float], lower: float | None, upper: float | None) -> Capability | None:
    """Capability of sizes, mm, against their limits; None for fewer than eight, without limits or without spread."""
    found = np.asarray([one for one in sizes if math.isfinite(one)], dtype=float)
    if len(found) < FEWEST or (lower is None and upper is None):
        return None
    mean, sigma, n = float(found.mean()), float(found.std(ddof=1)), len(found)
    if sigma <= 0:
        return None
    sides = [(mean - lower) / (3 * sigma)] if lower is not None else []
    sides += [(upper - mean) / (3 * sigma)] if upper is not None else []
    cpk, z = min(sides), float(norm.ppf((1 + CONFIDENCE) / 2))
    wide = z * math.sqrt(1 / (9 * n) + cpk**2 / (2 * (n - 1)))
    cp, cp_range = None, None
    if lower is not None and upper is not None:
        cp = (upper - lower) / (6 * sigma)
        low, high = (math.sqrt(chi2.ppf(p, n - 1) / (n - 1)) for p in ((1 - CONFIDENCE) / 2, (1 + CONFIDENCE) / 2))
        cp_range = (cp * low, cp * high)
    return Capability(n, mean, sigma, cp, cp_range, cpk, (cpk - wide, cpk + wide))
