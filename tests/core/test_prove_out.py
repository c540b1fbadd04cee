"""Proving out on a softer piece: the overrides belong to the program that is there."""

import pytest

from tests.support.kept import plan
from toreuma.core.model import Job
from toreuma.core.plan.asked.prove_out import prove_out
from toreuma.shipped.library import machines, materials


def test_a_softer_piece_is_cut_faster_within_the_switches(spear: Job) -> None:
    planned = plan(spear)
    soft = prove_out(planned, materials()["AlMgSi1"])
    assert [one.operation for one in soft.overrides] == [op.operation.id for op in planned.operations if op.motions]
    low, high = spear.machine.speed_override_pct
    for one in soft.overrides:
        assert low <= one.speed_pct <= high
        assert one.speed_pct % 10 == 0
        assert one.feed_pct % 10 == 0
        assert one.force_share < 0.5  # kc1.1 of the alloy is a third
    assert any("bends" in words for words in soft.not_shown)
    assert any("hardened skin" in words for words in soft.not_shown)


def test_the_real_material_needs_no_override(spear: Job) -> None:
    same = prove_out(plan(spear), spear.stock.material)
    assert all(90 <= one.speed_pct <= 110 for one in same.overrides)  # the steps of the switch
    assert all(one.force_share == pytest.approx(1) for one in same.overrides)


def test_a_harder_piece_is_cut_slower_and_an_unknown_pair_is_left_alone(spear: Job) -> None:
    hard = prove_out(plan(spear), materials()["nickel 718"])
    assert all(one.speed_pct == spear.machine.speed_override_pct[0] for one in hard.overrides)
    none = materials()["AlMgSi1"].changed(speeds=())
    assert all((one.speed_pct, one.feed_pct) == (100, 100) for one in prove_out(plan(spear), none).overrides)


def test_without_surface_speed_the_hold_limits_the_switch(spear: Job) -> None:
    geared = spear.changed(machine=machines()["geared lathe"])
    fast = geared.with_setup(hold=geared.setup.hold.changed(max_rpm=1500))
    for one in prove_out(plan(fast), materials()["AlMgSi1"]).overrides:
        assert one.speed_pct <= 120
    assert min(one.speed_pct for one in prove_out(plan(fast), materials()["AlMgSi1"]).overrides) <= 110
