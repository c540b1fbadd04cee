"""Days at a machine, simulated: the warning comes before the limit, and not where nothing goes on."""

import math

import numpy as np
import pytest
from scipy.stats import norm

from tests.support.long import everyday
from toreuma.core.measure.capability import capability
from toreuma.core.measure.drift import RunPoint, fit_run


def day(seed: int, drifts: bool) -> tuple[int | None, int | None, bool]:
    """The part first out of limits, the one at which it was warned, and whether the level came near a limit."""
    rng = np.random.default_rng(seed)
    limit, noise, gauge = rng.uniform(0.008, 0.03), rng.uniform(0.0008, 0.002), 0.001
    every, pace, parts, tau = int(rng.choice([2, 3, 5])), rng.uniform(60, 240), 160, rng.uniform(600, 5400)
    warm = rng.normal(0, 0.004) if drifts else rng.uniform(-0.2, 0.2) * limit
    share = rng.uniform(0.64, 2.56) * rng.choice([-1, 1]) if drifts else rng.uniform(-0.2, 0.2)
    start, wear = rng.uniform(-0.2, 0.2) * limit, share * limit / parts

    def level(part: int) -> float:
        return float(start + warm * (1 - np.exp(-part * pace / tau)) + wear * part)

    points: list[RunPoint] = []
    warned = None
    for part in range(1, parts + 1):
        size = level(part) + rng.normal(0, noise)
        if abs(size) > limit:
            return part, warned, True
        if part % every == 0 or part == 1:
            value = size + rng.normal(0, gauge)
            points.append(RunPoint(part=part, t_s=part * pace, value=value, sigma=gauge, since_edge=part))
            found = fit_run(points, 0.0, -limit, limit, pace)
            if found is not None and found.crosses is not None and warned is None:
                warned = part
    return None, warned, max(abs(level(part)) for part in range(parts)) > limit - 3 * noise


@pytest.mark.parametrize("days", everyday([10, 200], 10))
def test_it_warns_before_a_limit_is_crossed_and_seldom_for_nothing(days: int) -> None:
    crossed = [(part, warned) for part, warned, _ in (day(seed, True) for seed in range(days)) if part is not None]
    before = sum(warned is not None and warned < part for part, warned in crossed)
    assert len(crossed) > 0.6 * days
    assert before / len(crossed) >= 0.95
    quiet = [warned for _, warned, near in (day(1000 + seed, False) for seed in range(days)) if not near]
    assert sum(warned is not None for warned in quiet) / len(quiet) < 0.05


def series(parts: int, level: object, noise: float = 0.0005, seed: int = 5, change: int = 10**9) -> list[RunPoint]:
    rng = np.random.default_rng(seed)
    return [
        RunPoint(
            part=n, t_s=120.0 * n, value=level(n) + rng.normal(0, noise), sigma=0.0005,  # type: ignore[operator]
            since_edge=n % change,
        )
        for n in range(1, parts + 1)
    ]  # fmt: skip


def test_wear_falls_with_a_new_edge_and_warming_up_does_not() -> None:
    worn = fit_run(series(60, lambda n: 10 + 0.0003 * (n % 20), change=20), 10.0, 9.98, 10.02, 120)
    assert worn is not None
    assert worn.wear.rate == pytest.approx(0.0003, abs=0.00003)
    assert abs(worn.warm.mm) < worn.warm.uncertainty
    warm = fit_run(
        series(60, lambda n: 10 + 0.012 * (1 - math.exp(-n * 120 / 1800)), change=20), 10.0, 9.98, 10.02, 120
    )
    assert warm is not None
    assert warm.warm.mm == pytest.approx(0.012, abs=max(warm.warm.uncertainty, 0.002))
    assert 900 < warm.tau_s < 3600
    assert abs(warm.wear.rate) < 0.00005


def test_what_was_set_counts_as_set() -> None:
    points = [
        RunPoint(part=n, t_s=120.0 * n, value=10.0 + (0.01 if n > 20 else 0.0), sigma=0.0005, offset=0.01 * (n > 20))
        for n in range(1, 41)
    ]
    found = fit_run(points, 10.0, 9.98, 10.02, 120)
    assert found is not None
    assert found.level == pytest.approx(10.01, abs=0.001)
    assert found.correction == pytest.approx(-0.01, abs=0.001)
    assert found.crosses is None


def test_a_correction_is_damped_by_what_is_not_known() -> None:
    few = fit_run(series(4, lambda n: 10.004, noise=0.002), 10.0, 9.98, 10.02, 120)
    many = fit_run(series(40, lambda n: 10.004, noise=0.002), 10.0, 9.98, 10.02, 120)
    assert few is not None
    assert many is not None
    shares = [-found.correction / (found.level - 10.0) for found in (few, many)]
    assert 0 < shares[0] < shares[1] < 1
    assert fit_run(series(3, lambda n: 10.0), 10.0, 9.98, 10.02, 120) is None


def test_chasing_noise_is_seen_and_patience_is_not_blamed() -> None:
    rng = np.random.default_rng(3)
    chased, calm, offset = [], [], 0.0
    for n in range(1, 41):
        noise = rng.normal(0, 0.002)
        chased.append(RunPoint(part=n, t_s=120.0 * n, value=10 + offset + noise, sigma=0.0005, offset=offset))
        calm.append(RunPoint(part=n, t_s=120.0 * n, value=10 + noise, sigma=0.0005))
        offset -= offset + noise  # the whole error of one part is taken back each time
    for points, blamed in ((chased, True), (calm, False)):
        found = fit_run(points, 10.0, 9.98, 10.02, 120)
        assert found is not None
        assert found.over_corrected is blamed


class TestCapability:
    """Against closed forms."""

    def test_a_centred_spread_of_a_sixth_of_the_limits_is_one(self) -> None:
        sizes = norm.ppf((np.arange(1, 2001) - 0.5) / 2000) * 0.01
        found = capability(list(sizes), -0.03, 0.03)
        assert found is not None
        assert found.cp == pytest.approx(1.0, abs=0.01)
        assert found.cpk == pytest.approx(1.0, abs=0.01)

    def test_the_interval_holds_the_truth_in_95_of_100(self) -> None:
        rng = np.random.default_rng(11)
        hits = [0, 0]
        for _ in range(600):
            found = capability(list(rng.normal(0.005, 0.01, 25)), -0.03, 0.03)
            assert found is not None
            assert found.cp_range is not None
            hits[0] += found.cp_range[0] <= 1.0 <= found.cp_range[1]
            hits[1] += found.cpk_range[0] <= 25 / 30 <= found.cpk_range[1]
        assert min(hits) / 600 > 0.925

    def test_few_sizes_no_limits_or_no_spread_say_nothing(self) -> None:
        assert capability([1.0] * 7, 0.0, 2.0) is None
        assert capability([1.0] * 20, 0.0, 2.0) is None
        assert capability([1.0, 2.0] * 10, None, None) is None
        one_sided = capability([1.0, 1.1] * 10, None, 2.0)
        assert one_sided is not None
        assert one_sided.cp is None


def test_a_known_time_constant_makes_the_forecast_of_a_cold_morning_closer() -> None:
    tau, pace, ahead = 600.0, 120.0, 12
    errors: dict[float | None, list[float]] = {None: [], tau: []}
    for seed in range(60):
        rng = np.random.default_rng(seed)
        warm = rng.normal(0, 0.015)
        level = [warm * (1 - math.exp(-n * pace / tau)) for n in range(40)]
        points = [
            RunPoint(part=n, t_s=n * pace, value=level[n] + rng.normal(0, 0.001), sigma=0.001, since_edge=n)
            for n in range(1, 10)
        ]
        for usual, found in errors.items():
            fit = fit_run(points, 0.0, -0.05, 0.05, pace, ahead=ahead, usual_tau_s=usual)
            assert fit is not None
            found.append(fit.ahead[-1].mm - level[9 + ahead])
    off = {usual: float(np.sqrt(np.mean(np.square(found)))) for usual, found in errors.items()}
    assert off[tau] < 0.7 * off[None]
