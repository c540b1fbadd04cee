"""Constants of a shop from its own log: the tables' value as the prior, what was seen as the evidence.

Normal linear regression with normal priors of the coefficients and an inverse gamma one of the spread (Gelman et al.,
Bayesian Data Analysis, 3rd ed., ch. 14.8), each given the other in turn until they agree. A spread is told as the
half-width of the 90 % interval of a t distribution.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.stats import t as student

__all__ = ["INTERVAL", "EdgeSeen", "Learned", "Prior", "factor_learned", "regressed", "taylor_learned"]

Array = npt.NDArray[np.float64]

INTERVAL = 0.90

EXPONENT_SPREAD, CONSTANT_SPREAD = 0.35, 0.30
"""How far a shop's exponent and constant may lie from the tables', as shares, one standard deviation: typical."""

LIFE_SPREAD = 0.25
"""Lives of alike edges differ so much, one standard deviation of their logarithm (typical)."""

PRIOR_WEIGHT = 6.0
"""As many observations the expected spread counts for."""


@dataclass(frozen=True)
class Prior:
    """What is expected before anything is seen, with one standard deviation."""

    value: float
    spread: float


@dataclass(frozen=True)
class Learned:
    """A constant with the half-width of its 90 % interval, from ``count`` observations; ``table`` is the tables'."""

    value: float
    spread: float
    count: int
    table: float

    @property
    def low(self) -> float:
        return self.value - self.spread

    @property
    def high(self) -> float:
        return self.value + self.spread


@dataclass(frozen=True, kw_only=True)
class EdgeSeen:
    """An edge used up: the speed it cut at, how long it lasted, and how much the mean feed and depth ask for: the
    factor by which they alone change the speed a life allows. ``worn`` is false where it was taken out before that."""

    vc_m_min: float
    minutes: float
    worn: bool = True
    factor: float = 1.0


def regressed(
    rows: Array, y: Array, mean: Array, deviations: Array, spread: float, weight: float = PRIOR_WEIGHT
) -> tuple[Array, Array]:
    """Posterior mean and half-width of the 90 % interval of each coefficient.

    ``rows`` (n, p), ``y`` (n,); ``mean`` and ``deviations`` (p,) are the prior's; ``spread`` is the expected standard
    deviation of an observation, worth ``weight`` of them.
    """
    variance = spread**2
    for _ in range(4):
        precision = np.diag(1 / deviations**2) + rows.T @ rows / variance
        cov = np.linalg.inv(precision)
        found = cov @ (mean / deviations**2 + rows.T @ y / variance)
        rest = y - rows @ found
        variance = (weight * spread**2 + float(rest @ rest)) / (weight + len(y))
    half = np.sqrt(np.diag(cov)) * float(student.ppf((1 + INTERVAL) / 2, weight + len(y)))
    return found, half


def taylor_learned(seen: Sequence[EdgeSeen], exponent: float, constant: float) -> tuple[Learned, Learned]:
    """Exponent m and constant C (m/min at a life of 1 min) of vc T^m = C, from edges that were used up.

    log T = (log C + log factor - log vc) / m is regressed as log T = b0 + b1 (log vc - log factor) about the middle of
    the speeds, where the two coefficients do not depend on each other; m = -1/b1. Edges taken out before they were worn
    say only that they lasted longer, and are left out.
    """
    worn = [one for one in seen if one.worn and one.minutes > 0 and one.vc_m_min > 0 and one.factor > 0]
    m0, c0 = exponent, constant
    if not worn:
        return Learned(m0, 1.645 * EXPONENT_SPREAD * m0, 0, m0), Learned(c0, 1.645 * CONSTANT_SPREAD * c0, 0, c0)
    x = np.log([one.vc_m_min / one.factor for one in worn])
    middle = float(x.mean())
    y = np.log([one.minutes for one in worn])
    rows = np.column_stack([np.ones(len(x)), x - middle])
    slope0, level0 = -1 / m0, (math.log(c0) - middle) / m0
    deviations = np.array([CONSTANT_SPREAD / m0, EXPONENT_SPREAD / m0])
    found, half = regressed(rows, y, np.array([level0, slope0]), deviations, LIFE_SPREAD)
    level, slope = float(found[0]), min(float(found[1]), -0.2)
    m = -1 / slope
    spread_m = float(half[1]) * m**2
    log_c = m * level + middle
    # log C = middle + m level: both move it.
    spread_c = math.hypot(m * float(half[0]), level * spread_m)
    c = math.exp(log_c)
    return Learned(m, spread_m, len(worn), m0), Learned(c, c * spread_c, len(worn), c0)


def factor_learned(ratios: Sequence[float], prior: Prior, spread: float) -> Learned:
    """A factor on what is computed (specific force, finish, deflection, time) from ratios of found over computed.

    Logarithms are averaged: a factor of two up and one of two down cancel. ``spread`` is what one ratio usually differs
    by, one standard deviation of its logarithm.
    """
    known = [one for one in ratios if one > 0 and math.isfinite(one)]
    if not known:
        return Learned(prior.value, 1.645 * prior.spread, 0, prior.value)
    y = np.log(known)
    mean = np.array([math.log(prior.value)])
    found, half = regressed(np.ones((len(y), 1)), y, mean, np.array([prior.spread / prior.value]), spread)
    value = math.exp(float(found[0]))
    return Learned(value, value * float(half[0]), len(known), prior.value)
