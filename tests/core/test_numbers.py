"""Time, force, power and finish against closed forms and published values."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from toreuma.core.cutting.finish import feed_for_ra, theoretical_ra_um, theoretical_rt_um
from toreuma.core.cutting.force import available_power_kw, cutting_force_n, cutting_power_kw, specific_force_n_mm2
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.geometry.elements import Arc, Line
from toreuma.core.geometry.region import rotated_volume
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.plan import Plan
from toreuma.core.simulate.clock import motion_time_s, rapid_time_s
from toreuma.core.simulate.removal import after_cutting


def feed(start: tuple[float, float], end: tuple[float, float], f: float, spindle: Spindle) -> Motion:
    return Motion(Line(start, end), f, spindle, 1)


@given(st.floats(20, 300), st.floats(0.05, 0.6), st.floats(40, 400), st.floats(500, 6000))
def test_facing_time_is_the_closed_form(d1: float, f: float, vc: float, clamp: float) -> None:
    """t = pi (D1^2 - D2^2) / (4000 f vc) above the clamp diameter and dr / (f n) below, in minutes."""
    machine = _machine(10_000)
    knee = min(1000 * vc / (math.pi * clamp), d1)
    minutes = math.pi * (d1**2 - knee**2) / (4000 * f * vc) + knee / 2 / (f * clamp)
    motion = feed((0, d1 / 2), (0, 0), f, Spindle("surface", vc, clamp))
    assert motion_time_s(motion, machine) == pytest.approx(60 * minutes, rel=1e-9)


def test_a_cut_past_the_centre_counts_both_sides() -> None:
    spindle, machine = Spindle("surface", 100, 3000), _machine(4000)
    there = motion_time_s(feed((0, 5), (0, 0), 0.1, spindle), machine)
    beyond = motion_time_s(feed((0, 0), (0, -1), 0.1, spindle), machine)
    assert motion_time_s(feed((0, 5), (0, -1), 0.1, spindle), machine) == pytest.approx(there + beyond, rel=1e-9)


def test_taper_and_arc_times_agree_with_fine_chords() -> None:
    spindle, machine = Spindle("surface", 150, 2500), _machine(4000)
    arc = Arc((0, 0), (-10, 10), (-10, 0), clockwise=False)
    for segment in (arc, Line((0, 3), (-30, 25))):
        at = [segment.at(i / 4000) for i in range(4001)]
        pieces = sum(motion_time_s(feed(a, b, 0.2, spindle), machine) for a, b in itertools.pairwise(at))
        assert motion_time_s(Motion(segment, 0.2, spindle, 1), machine) == pytest.approx(pieces, rel=1e-3)


def test_turning_at_a_fixed_speed_and_per_minute() -> None:
    machine = _machine(4000)
    assert motion_time_s(feed((0, 5), (-60, 5), 0.2, Spindle("fixed", 600)), machine) == pytest.approx(30.0)
    per_minute = Motion(Line((0, 5), (-60, 5)), 120, STOPPED, 1, per_minute=True)
    assert motion_time_s(per_minute, machine) == pytest.approx(30.0)
    assert motion_time_s(feed((0, 5), (-60, 5), 0.2, STOPPED), machine) == math.inf


def test_rapids_speed_up_and_slow_down(spear: Job) -> None:
    machine = spear.machine
    v, a = machine.rapid_z_mm_min / 60, machine.acceleration_mm_s2
    assert rapid_time_s((0, 0), (200, 0), machine) == pytest.approx(200 / v + v / a)
    assert rapid_time_s((0, 0), (1, 0), machine) == pytest.approx(2 * math.sqrt(1 / a))


def test_kienzle_on_carbon_steel(spear: Job) -> None:
    """C45, kc1.1 2220, mc 0.14; ap 3, f 0.25, kappa 90: kc 2695 N/mm2, Fc 2021 N, 6.7 kW at 200 m/min."""
    steel = spear.stock.material.changed(kc11_n_mm2=2220, mc=0.14)
    assert specific_force_n_mm2(steel, 0.25) == pytest.approx(2695, rel=1e-3)
    force = cutting_force_n(steel, 3, 0.25, 90)
    assert force == pytest.approx(2021, rel=1e-3)
    assert cutting_power_kw(force, 200) == pytest.approx(6.74, rel=1e-3)
    thinner = cutting_force_n(steel, 3, 0.25, 45)
    assert thinner == pytest.approx(force * math.sin(math.pi / 4) ** -0.14, rel=1e-9)


def test_power_follows_the_curve_of_the_motor(spear: Job) -> None:
    assert available_power_kw(spear.machine, 500) == pytest.approx(0.5 * 5.5 * 0.8)
    assert available_power_kw(spear.machine, 3000) == pytest.approx(5.5 * 0.8)


def test_torque_caps_the_power_of_a_slow_spindle(spear: Job) -> None:
    """M = 60 P / (2 pi n): 20 N m at 500 rpm are 1.047 kW, less than the motor's 2.2; at 3000 rpm the motor decides."""
    geared = spear.machine.changed(torque_nm=20)
    assert available_power_kw(geared, 500) == pytest.approx(20 * 500 * 2 * math.pi / 60_000, rel=1e-5)
    assert available_power_kw(geared, 3000) == available_power_kw(spear.machine, 3000)
    assert available_power_kw(geared, 0) == 0


@pytest.mark.parametrize(
    ("f", "nose", "rt"), [(0.2, 0.8, 6.25), (0.1, 0.4, 3.125), (0.4, 1.2, 16.667), (0.3, 0.8, 14.06)]
)
def test_feed_marks_as_tabulated(f: float, nose: float, rt: float) -> None:
    """Values of the usual f^2/8r table of machining textbooks."""
    assert theoretical_rt_um(f, nose) == pytest.approx(rt, rel=1e-3)
    assert feed_for_ra(theoretical_ra_um(f, nose), nose) == pytest.approx(f)


def test_spindle_speed() -> None:
    assert surface_speed_rpm(100, 31.831) == pytest.approx(1000, rel=1e-4)
    assert surface_speed_rpm(100, 0) == math.inf


def test_chip_volume_agrees_with_what_the_simulation_removes(spear: Job, spear_plan: Plan) -> None:
    """Q = vc ap f on the mean diameter over a whole cylinder pass, within 2 %."""
    tool, shape = spear.tools[0], shape_of(spear.tools[0])
    r1, ap, f, length, vc = 16.0, 1.5, 0.25, 40.0, 150.0
    spindle = Spindle("surface", vc, 4000)
    motion = Motion(Line((10.0, r1 - ap), (1.5 - length, r1 - ap)), f, spindle, tool.station)
    stock = spear_plan.scene.stock
    removed = rotated_volume(stock) - rotated_volume(after_cutting(stock, [motion], shape))
    in_metal = Motion(Line((1.5, r1 - ap), (1.5 - length, r1 - ap)), f, spindle, 1)
    minutes = motion_time_s(in_metal, spear.machine) / 60
    mean_speed = vc * (r1 - ap / 2) / (r1 - ap)
    assert removed == pytest.approx(1000 * mean_speed * ap * f * minutes, rel=0.02)


def _machine(rpm: float):  # type: ignore[no-untyped-def]
    from toreuma.shipped.library import demo_job

    return demo_job("spear").machine.changed(max_rpm=rpm)
