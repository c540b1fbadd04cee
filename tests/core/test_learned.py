"""Constants of simulated shops lie inside the stated spread as often as it says."""

import numpy as np
import pytest

from toreuma.core.measure.learned import EdgeSeen, Prior, factor_learned, taylor_learned


def shop(seed: int, edges: int = 30) -> tuple[float, float, list[EdgeSeen]]:
    rng = np.random.default_rng(seed)
    m, c = 0.25 * np.exp(rng.normal(0, 0.2)), 300 * np.exp(rng.normal(0, 0.2))
    seen = []
    for _ in range(edges):
        vc = c / 15**m * np.exp(rng.uniform(-0.25, 0.25))
        factor = float(np.exp(rng.normal(0, 0.05)))
        life = (c * factor / vc) ** (1 / m) * np.exp(rng.normal(0, 0.2))
        seen.append(EdgeSeen(vc_m_min=vc, minutes=float(life), factor=factor))
    return float(m), float(c), seen


def test_from_thirty_edges_the_exponent_lies_inside_its_spread_in_ninety_of_a_hundred_shops() -> None:
    inside = [0, 0]
    for seed in range(100):
        m, c, seen = shop(seed)
        exponent, constant = taylor_learned(seen, 0.25, 300.0)
        assert exponent.count == 30
        inside[0] += exponent.low <= m <= exponent.high
        inside[1] += constant.low <= c <= constant.high
    assert inside[0] >= 90
    assert inside[1] >= 88


def test_more_edges_narrow_it_and_none_leave_the_tables() -> None:
    m, _, seen = shop(7, 200)
    few, _ = taylor_learned(seen[:10], 0.25, 300.0)
    many, _ = taylor_learned(seen, 0.25, 300.0)
    none, constant = taylor_learned([], 0.25, 300.0)
    assert many.spread < few.spread < none.spread
    assert many.value == pytest.approx(m, abs=2 * many.spread)
    assert (none.value, none.count, constant.value) == (0.25, 0, 300.0)


def test_an_edge_taken_out_early_says_nothing_of_its_life() -> None:
    _, _, seen = shop(3)
    early = [EdgeSeen(vc_m_min=one.vc_m_min, minutes=one.minutes / 10, worn=False) for one in seen]
    assert taylor_learned([*seen, *early], 0.25, 300.0) == taylor_learned(seen, 0.25, 300.0)


def test_one_speed_only_tells_the_constant_and_leaves_the_exponent_to_the_tables() -> None:
    same = [EdgeSeen(vc_m_min=180.0, minutes=12.0) for _ in range(20)]
    exponent, _ = taylor_learned(same, 0.25, 300.0)
    assert exponent.value == pytest.approx(0.25, rel=0.05)
    assert exponent.spread > 0.1


def test_a_factor_from_ratios() -> None:
    rng = np.random.default_rng(2)
    inside = 0
    for _ in range(200):
        truth = float(np.exp(rng.normal(0, 0.15)))
        found = factor_learned(list(truth * np.exp(rng.normal(0, 0.1, 12))), Prior(1.0, 0.2), 0.1)
        inside += found.low <= truth <= found.high
    assert inside >= 175
    assert factor_learned([], Prior(1.0, 0.2), 0.1).value == 1.0
    assert factor_learned([float("nan"), -1.0, 0.0], Prior(1.0, 0.2), 0.1).count == 0
