"""Grip, whip, ring and beam against closed forms."""

import math

import numpy as np
import pytest

from toreuma.core.cutting.beam import Supports, compliance_of, deflections, inertia_along
from toreuma.core.cutting.grip import grip_at_speed_n, required_grip, safe_speed_rpm
from toreuma.core.cutting.ring import ovality_um, ring_deflections
from toreuma.core.cutting.whip import first_bending_rpm, whip_limit_rpm
from toreuma.core.geometry.region import box, union
from toreuma.core.model import Chuck, Collet

CHUCK = Chuck(
    stick_out_mm=60,
    grip_length_mm=30,
    body_d_mm=200,
    max_rpm=4000,
    jaw_length_mm=40,
    jaw_height_mm=20,
    force_n=45_000,
    jaw_mass_kg=1.0,
    jaw_centre_r_mm=60,
)
STEEL = 210_000.0


def test_jaws_fly_out_with_the_square_of_the_speed() -> None:
    """F = F0 - sum m r w^2: three jaws of 1 kg at 60 mm, 3000 rpm take 3 * 0.06 * 314.16^2 = 17765 N."""
    assert grip_at_speed_n(CHUCK, 3000) == pytest.approx(45_000 - 17_765, abs=1)
    assert grip_at_speed_n(CHUCK.changed(side="inside"), 3000) == pytest.approx(45_000 + 17_765, abs=1)
    assert grip_at_speed_n(CHUCK.changed(force_n=None), 3000) is None
    assert grip_at_speed_n(CHUCK, 9000) == 0.0


def test_the_safe_speed_is_where_the_grip_is_just_enough() -> None:
    speed = safe_speed_rpm(CHUCK, 20_000)
    assert speed is not None
    assert grip_at_speed_n(CHUCK, speed) == pytest.approx(20_000)
    assert safe_speed_rpm(CHUCK, 46_000) == 0.0
    assert safe_speed_rpm(CHUCK.changed(side="inside"), 20_000) == math.inf


def test_grip_needed_grows_with_torque() -> None:
    """1000 N on 40 mm held on 50 mm, mu 0.28: 800/0.28 = 2857 N; safety 2.5. So near the jaws nothing tilts."""
    near = required_grip(CHUCK, 1000, 0, 0, 40, 50, 10)
    assert near.number == pytest.approx(2.5 * 800 / 0.28, rel=1e-6)
    soft = required_grip(CHUCK.changed(jaws="soft"), 1000, 300, 0, 40, 50, 10)
    assert soft.number == pytest.approx(2.5 * math.hypot(800, 300) / 0.18)


def balance_of_jaws(
    force: float, mu: float, grip: float, dg: float, moment: float, turning: float, feed: float
) -> bool:
    """Three jaws, one by one, in a hundred places of a turn: whether pressure that moves along each jaw by a third of
    its length, and friction along the axis, carry a moment beside torque and push."""
    each = force / 3
    for turn in np.linspace(0, 2 * math.pi / 3, 100):
        arms = [abs(math.cos(turn + 2 * math.pi * jaw / 3)) for jaw in range(3)]
        by_pressure = each * grip / 3 * sum(arms)
        left = max(moment - by_pressure, 0.0)
        along = left / (dg / 2 * sum(arms))  # the same push on every jaw, up on one side, down on the other
        if math.hypot(turning / 3, feed / 3 + along) > mu * each * (1 + 1e-9):
            return False
    return True


@pytest.mark.parametrize(
    ("cutting", "feed", "passive", "d", "dg", "grip", "overhang"),
    [
        (1000, 0, 0, 40, 50, 30, 60), (2250, 900, 600, 80, 85, 10, 70), (1500, 600, 300, 150, 160, 12, 40),
        (3000, 1200, 800, 50, 50, 35, 120), (800, 300, 200, 20, 22, 25, 45), (2000, 0, 900, 300, 310, 15, 60),
        (1200, 500, 0, 100, 60, 20, 150),
    ],
)  # fmt: skip
def test_grip_against_tilting_is_the_least_that_balances_the_jaws(
    cutting: float, feed: float, passive: float, d: float, dg: float, grip: float, overhang: float
) -> None:
    chuck = CHUCK.changed(grip_length_mm=grip)
    needed = required_grip(chuck, cutting, feed, passive, d, dg, overhang).number / chuck.safety
    load = 0.28, grip, dg, math.hypot(cutting, passive) * overhang, cutting * d / dg, feed
    assert balance_of_jaws(1.001 * needed, *load)
    assert not balance_of_jaws(0.995 * needed, *load)


def test_a_slug_of_160_takes_an_everyday_depth() -> None:
    """42CrMo4, 2.5 mm deep at 0.3 mm/rev: 2200 N, on 15 mm of hard jaws with 40 mm out; an 8-inch chuck has 57 kN.

    Pressure along three jaws alone would ask for 2.5 * 2309 * 40 / (0.577 * 5) = 80 kN.
    """
    chuck = CHUCK.changed(grip_length_mm=15, force_n=57_000)
    assert required_grip(chuck, 2200, 900, 700, 158, 160, 40).number < 57_000


def test_a_collet_does_not_tilt() -> None:
    collet = Collet(
        stick_out_mm=60, grip_length_mm=30, body_d_mm=80, max_rpm=6000, range_mm=(10, 30), cap_length_mm=20, cap_d_mm=60
    )
    assert required_grip(collet, 1000, 0, 0, 20, 20, 60).number == pytest.approx(2.5 * 1000 / 0.15)


def test_a_cantilever_gives_way_by_l3_over_3ei() -> None:
    ei = STEEL * math.pi / 64 * 20**4
    found = deflections(np.full(8, 12.5), np.full(8, ei))
    assert found[-1] == pytest.approx(100**3 / (3 * ei), rel=1e-9)
    assert found[4] == pytest.approx(50**3 / (3 * ei), rel=1e-9)


def test_a_stepped_cantilever_sums_its_steps() -> None:
    """Unit load: integral of x^2/(E I) over both steps, Timoshenko, Strength of Materials I."""
    thick, thin = STEEL * math.pi / 4 * 15**4, STEEL * math.pi / 4 * 8**4
    stock = union([box(-100, 0, -40, 15), box(-40, 0, 0, 8)])
    exact = 40**3 / (3 * thin) + (100**3 - 40**3) / (3 * thick)
    assert compliance_of(stock, Supports(-100), STEEL, pieces=50).mm_per_n[0] == pytest.approx(exact, rel=1e-6)


def test_a_centre_stiffens_as_a_propped_cantilever() -> None:
    """Load in the middle of a beam clamped at one end and propped at the other: 7 L^3 / (768 E I)."""
    ei = STEEL * math.pi / 64 * 30**4
    found = deflections(np.full(10, 30.0), np.full(10, ei), supported=[10])
    assert found[5] == pytest.approx(7 * 300**3 / (768 * ei), rel=1e-9)
    assert found[-1] == 0.0


def test_between_two_points_it_gives_way_as_a_simple_beam() -> None:
    """Load in the middle of a beam on two supports: L^3 / (48 E I)."""
    ei = STEEL * math.pi / 64 * 30**4
    found = deflections(np.full(10, 30.0), np.full(10, ei), supported=[10], hinged=True)
    assert found[5] == pytest.approx(300**3 / (48 * ei), rel=1e-9)
    assert found[0] == found[-1] == 0.0


def test_a_rest_carries_the_piece_where_it_stands() -> None:
    """Clamped, and propped at half its length L: the free end gives way by 7 L^3 / (96 E I) where L is the whole."""
    stock, ei = box(-200, 0, 0, 10), STEEL * math.pi / 4 * 10**4
    free = compliance_of(stock, Supports(-200), STEEL, pieces=40)
    rested = compliance_of(stock, Supports(-200, rests=(-100.0,)), STEEL, pieces=40)
    assert rested.at(-100.0) == 0.0
    assert rested.mm_per_n[0] == pytest.approx(7 * 200**3 / (96 * ei), rel=1e-6)
    assert rested.mm_per_n[0] < free.mm_per_n[0] / 4
    beyond = compliance_of(stock, Supports(-200, rests=(50.0, -300.0)), STEEL, pieces=40)
    assert beyond.mm_per_n == pytest.approx(free.mm_per_n)


def test_the_section_of_a_tube_is_a_ring() -> None:
    tube = box(-50, 10, 0, 20)
    assert inertia_along(tube, np.array([-25.0]))[0] == pytest.approx(math.pi / 4 * (20**4 - 10**4))


def test_a_bar_whips_at_its_first_bending_frequency() -> None:
    """A 1 m steel bar of 20 mm, clamped at one end: f = 3.516/(2 pi) sqrt(EI/(rho A L^4)) = 14.47 Hz."""
    d, length = 20.0, 1000.0
    i, area = math.pi / 64 * d**4, math.pi / 4 * d**2
    rpm = first_bending_rpm(length, STEEL, i, area, 7850)
    assert rpm / 60 == pytest.approx(14.47, abs=0.01)
    assert whip_limit_rpm(length, STEEL, i, area, 7850) == pytest.approx(rpm / 2)
    assert whip_limit_rpm(0, STEEL, i, area, 7850) == math.inf


def test_a_ring_between_two_loads_is_the_textbook_ring() -> None:
    """Two opposed loads: diameter shrinks 0.149 W R^3/EI along them and grows 0.137 across (Timoshenko)."""
    at_load, midway = ring_deflections(1000, 2, 50, STEEL, 200)
    unit = 1000 * 50**3 / (STEEL * 200)
    assert 2 * at_load == pytest.approx(0.1488 * unit, rel=2e-3)
    assert 2 * midway == pytest.approx(0.1366 * unit, rel=2e-3)


def test_thin_rings_go_out_of_round_with_the_cube_of_the_wall() -> None:
    thick, thin = (ovality_um(10_000, 3, 60, 60 - wall, 30, STEEL) for wall in (8, 4))
    assert thin / thick == pytest.approx(8 * (58 / 56) ** 3, rel=1e-6)
    assert ovality_um(10_000, 6, 60, 56, 30, STEEL) < thin / 5
    assert ovality_um(10_000, 3, 60, 60, 30, STEEL) == math.inf
