"""A size through a run: warming up, edge wear and what else drifts, with a warning before a limit is crossed.

Model: size = level + offsets set + a (1 - exp(-t/tau)) + w · (parts since the edge was new) + d · t. Bayesian linear
regression with normal priors for each tau of a ladder, averaged by their evidence (MacKay 1992, Neural Computation 4,
415). Warming up toward a level is the usual first-order answer of a machine to heat (ISO 230-3 tests for it).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.stats import norm

__all__ = ["FEWEST", "Forecast", "RunFit", "RunPoint", "Share", "fit_run"]

Array = npt.NDArray[np.float64]

FEWEST = 4
"""Fewer sizes say nothing of a drift."""
MOST_POINTS = 400
"""Of a long run the last so many are looked at."""

TAUS_S = tuple(60.0 * minutes for minutes in (8, 15, 30, 60, 120))
TAU_SPREAD = 0.4
"""A machine whose time constant is known warms up with that, give or take so much of its logarithm (typical)."""
WARM_MM, WEAR_MM, REST_MM_H, LEVEL_MM = 0.015, 0.0004, 0.002, 1.0
"""Standard deviations before anything is measured (typical): warming up in all, wear a part, other drift an hour."""

SPREAD_MM, SPREAD_WEIGHT = 0.002, 6.0
"""Spread from part to part that is expected, and as how many sizes that expectation counts."""

AHEAD, SURE, ROOM = 12, 0.7, 2.5
"""A warning looks so many parts ahead, wants to be so sure, and keeps so many spreads from the limit."""

OVER, OVER_LEAST = 1.5, 4
"""Offsets that make the sizes spread so much more than without them, at least so many of them, are too many."""


@dataclass(frozen=True, kw_only=True)
class RunPoint:
    """A size of one part, mm. ``t_s`` from the start of the run, ``since_edge`` parts since its edge was new,
    ``offset`` the sum of what was set so far and moves this size, ``sigma`` of measuring it."""

    part: int
    t_s: float
    value: float
    sigma: float = 0.002
    since_edge: float = 0.0
    offset: float = 0.0


@dataclass(frozen=True)
class Share:
    """What one cause has come to by now, mm, with k = 2; ``rate`` mm a part for wear, an hour for other drift."""

    mm: float
    uncertainty: float
    rate: float = 0.0


@dataclass(frozen=True)
class Forecast:
    """The level to be expected of a part, with k = 2."""

    part: int
    mm: float
    uncertainty: float


@dataclass(frozen=True, kw_only=True)
class RunFit:
    """``level`` is where the size stands now, k = 2; ``noise`` the spread from part to part, one standard deviation.

    ``tau_s`` is the time constant of warming up. ``crosses`` is the first part expected beyond a limit, None where none
    of those ahead is; ``correction`` what to add to the offset, damped by what it is uncertain by, 0 for nothing.
    ``over_corrected`` where the offsets that were set made sizes spread more than they would have.
    """

    level: float
    level_uncertainty: float
    noise: float
    warm: Share
    wear: Share
    rest: Share
    tau_s: float
    ahead: tuple[Forecast, ...]
    crosses: int | None
    seconds_to: float
    correction: float
    over_corrected: bool
    line: tuple[float, ...]


@dataclass(frozen=True)
class _Posterior:
    mean: Array
    cov: Array
    evidence: float
    tau: float


def fit_run(
    points: Sequence[RunPoint],
    aim: float,
    lower: float | None,
    upper: float | None,
    s_per_part: float,
    ahead: int = AHEAD,
    now: RunPoint | None = None,
    usual_tau_s: float | None = None,
) -> RunFit | None:
    """What a run of one size says; None for too few. ``points`` in the order they were made.

    ``usual_tau_s`` is what the machine warms up with as far as that is known already: it weighs the time constants that
    are tried. ``now`` is how things stand behind the last of the points, where an offset was set or an edge changed
    since: what is said is said of that.
    """
    known = [one for one in points if math.isfinite(one.value)][-MOST_POINTS:]
    if len(known) < FEWEST:
        return None
    y = np.array([one.value - one.offset for one in known])
    base = float(y.mean())
    gauge = np.array([one.sigma for one in known])
    noise, taus = SPREAD_MM, sorted({*TAUS_S, *((usual_tau_s,) if usual_tau_s else ())})
    for _ in range(3):
        fits = [_fit(known, y - base, np.hypot(gauge, noise), tau, usual_tau_s) for tau in taus]
        best = max(fits, key=lambda one: one.evidence)
        rest = y - base - _design(known, best.tau) @ best.mean
        noise = _noise(rest, gauge)
    weights = np.exp(np.array([one.evidence for one in fits]) - best.evidence)
    weights /= weights.sum()
    last = now or known[-1]
    here, here_sd = _level(fits, weights, [last])
    later = [_later(last, k, s_per_part) for k in range(1, ahead + 1)]
    means, deviations = _level(fits, weights, later)
    levels = means + base + last.offset
    forecast = tuple(
        Forecast(one.part, float(m), 2 * float(d)) for one, m, d in zip(later, levels, deviations, strict=True)
    )
    level = float(here[0]) + base + last.offset
    crosses = _crosses(later, levels, deviations, noise, lower, upper)
    return RunFit(
        level=level,
        level_uncertainty=2 * float(here_sd[0]),
        noise=noise,
        warm=_share(fits, weights, last, 1),
        wear=_share(fits, weights, last, 2),
        rest=_share(fits, weights, last, 3),
        tau_s=float(weights @ np.array([one.tau for one in fits])),
        ahead=forecast,
        crosses=crosses,
        seconds_to=(crosses - last.part) * s_per_part if crosses is not None else math.inf,
        correction=_correction(level - aim, float(here_sd[0])),
        over_corrected=_over_corrected(known, _level(fits, weights, known)[0], noise),
        line=tuple(float(v) for v in _level(fits, weights, known)[0] + base + np.array([p.offset for p in known])),
    )


def _later(last: RunPoint, k: int, s_per_part: float) -> RunPoint:
    return RunPoint(
        part=last.part + k, t_s=last.t_s + k * s_per_part, value=math.nan, since_edge=last.since_edge + k,
        offset=last.offset,
    )  # fmt: skip


def _design(points: Sequence[RunPoint], tau: float) -> Array:
    """Columns: level, warming up, wear, other drift."""
    t = np.array([one.t_s for one in points])
    edge = np.array([one.since_edge for one in points])
    return np.column_stack([np.ones(len(points)), 1 - np.exp(-t / tau), edge, t / 3600])


PRIOR = np.array([LEVEL_MM, WARM_MM, WEAR_MM, REST_MM_H])


def _fit(points: Sequence[RunPoint], y: Array, sigma: Array, tau: float, usual: float | None) -> _Posterior:
    rows = _design(points, tau) / sigma[:, None]
    precision = rows.T @ rows + np.diag(1 / PRIOR**2)
    cov = np.linalg.inv(precision)
    mean = cov @ (rows.T @ (y / sigma))
    rest = y / sigma - rows @ mean
    sign, logdet = np.linalg.slogdet(precision)
    evidence = -0.5 * (float(rest @ rest) + float(np.sum((mean / PRIOR) ** 2)) + logdet)
    if usual:
        evidence -= 0.5 * (math.log(tau / usual) / TAU_SPREAD) ** 2
    return _Posterior(np.asarray(mean), np.asarray(cov), evidence if sign > 0 else -math.inf, tau)


def _level(fits: Sequence[_Posterior], weights: Array, points: Sequence[RunPoint]) -> tuple[Array, Array]:
    """Level of each point without offsets, over all time constants, with its standard deviation."""
    means, squares = np.zeros(len(points)), np.zeros(len(points))
    for fit, weight in zip(fits, weights, strict=True):
        rows = _design(points, fit.tau)
        mean = rows @ fit.mean
        means += weight * mean
        squares += weight * (np.einsum("ij,jk,ik->i", rows, fit.cov, rows) + mean**2)
    return means, np.sqrt(np.maximum(squares - means**2, 0.0))


def _share(fits: Sequence[_Posterior], weights: Array, at: RunPoint, column: int) -> Share:
    mean = second = rate = 0.0
    for fit, weight in zip(fits, weights, strict=True):
        row = float(_design([at], fit.tau)[0, column])
        mean += weight * row * float(fit.mean[column])
        second += weight * (row**2 * float(fit.cov[column, column]) + (row * float(fit.mean[column])) ** 2)
        rate += weight * float(fit.mean[column])
    return Share(mean, 2 * math.sqrt(max(second - mean**2, 0.0)), rate)


def _noise(rest: Array, gauge: Array) -> float:
    """Spread from part to part: what is left over less what the gauge adds, drawn toward the usual one."""
    left = float(np.sum(rest**2)) - float(np.sum(gauge**2))
    freedom = max(len(rest) - 3.0, 0.0)
    mean = (max(left, 0.0) + SPREAD_WEIGHT * SPREAD_MM**2) / (freedom + SPREAD_WEIGHT)
    return math.sqrt(max(mean, (0.2 * SPREAD_MM) ** 2))


def _crosses(
    later: Sequence[RunPoint], levels: Array, deviations: Array, noise: float, lower: float | None, upper: float | None
) -> int | None:
    """The first part ahead of which it is likely enough that it comes within some spreads of a limit."""
    for one, level, deviation in zip(later, levels, deviations, strict=True):
        wide = max(float(deviation), 1e-9)
        over = norm.sf((upper - ROOM * noise - level) / wide) if upper is not None else 0.0
        under = norm.cdf((lower + ROOM * noise - level) / wide) if lower is not None else 0.0
        if max(over, under) > SURE:
            return one.part
    return None


def _correction(error: float, deviation: float) -> float:
    """What to add: nothing within two standard deviations, beyond that the less the surer it is not."""
    if abs(error) <= 2 * deviation:
        return 0.0
    return -error * error**2 / (error**2 + (2 * deviation) ** 2)


def _over_corrected(points: Sequence[RunPoint], drift: Array, noise: float) -> bool:
    """Sizes jump about because of the offsets set, not in spite of them: from one size to the next they differ more
    than they would have without, while nothing drifted that asked for them."""
    if float(np.var(drift)) > noise**2:
        return False
    offsets = np.array([one.offset for one in points])
    if np.count_nonzero(np.abs(np.diff(offsets)) > 1e-9) < OVER_LEAST:
        return False
    values = np.array([one.value for one in points])
    with_them, without = np.diff(values), np.diff(values - offsets)
    turns = np.diff(offsets)
    turns = np.sign(turns[np.abs(turns) > 1e-9])
    back_and_forth = np.count_nonzero(turns[1:] != turns[:-1]) >= 0.6 * (len(turns) - 1)
    return bool(back_and_forth and np.mean(with_them**2) > OVER * np.mean(without**2))
