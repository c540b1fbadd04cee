"""The choice of numbers: inside every limit, as good as trying everything, each limit decisive somewhere."""

import itertools
import math
import random
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from tests.support.kept import plan
from toreuma.core.cutting.evidence import Limit
from toreuma.core.cutting.force import available_power_kw, torque_nm
from toreuma.core.cutting.limits import LIMITS, used
from toreuma.core.cutting.situation import BarHeld, Bend, Cut, Gripped, Situation
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.cutting.window import ChipWindow
from toreuma.core.geometry.region import rotated_volume
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Chuck, Face, FinishOd, Job, RoughOd
from toreuma.core.plan.asked.cost import part_cost
from toreuma.core.propose.proposal import Proposal, propose
from toreuma.core.propose.search import Costs, Fixed, MetalStep, best, minutes_of
from toreuma.core.simulate.clock import motion_time_s
from toreuma.core.simulate.removal import after_cutting
from toreuma.shipped.library import catalogue, demo_job, demo_names, machines, materials

UPPER = [kind for kind in LIMITS if kind.binds and not kind.floor]
FLOOR = [kind for kind in LIMITS if kind.binds and kind.floor]
WINDOW = ChipWindow(((0.15, 0.8), (0.4, 0.8), (0.4, 3.5), (0.2, 3.5)))
STEPS = ((6.0, 60.0), (4.0, 30.0))


def usual(material: str = "C45", machine: str = "slant-bed", **changes: Any) -> Situation:
    """A roughing cut on a bar of 60 mm with a strong insert."""
    base = Situation(
        material=materials()[material],
        machine=machines()[machine],
        tool_material="coated carbide",
        use="rough",
        d_mm=60,
        mean_d_mm=50,
        nose_mm=0.8,
        entering_deg=95,
        window=WINDOW,
        usable_depth_mm=6.0,
    )
    return replace(base, **changes)


def chuck(force_n: float) -> Chuck:
    usual_chuck = demo_job("spear").setup.hold
    assert isinstance(usual_chuck, Chuck)
    return usual_chuck.changed(force_n=force_n, jaw_mass_kg=1.2, jaw_centre_r_mm=60.0, grip_length_mm=30.0)


def broken(situation: Situation, cut: Cut, kinds: list[Any]) -> bool:
    seen = situation.see(cut)
    return any(kind.share(situation, cut, seen) > 1.000001 for kind in kinds)


def random_case(rng: random.Random) -> tuple[Situation, tuple[MetalStep, ...]]:
    """Any material, machine, insert and hold of the library, any steps."""
    inserts = [one for one in catalogue().inserts if one.chip_window]
    pairs = [
        (material, insert)
        for material in materials().values()
        for insert in inserts
        if any(row.tool_material == insert.material for row in material.speeds)
    ]
    material, insert = rng.choice(pairs)
    d = rng.uniform(8, 200)
    grip = Gripped(chuck(rng.uniform(8e3, 9e4)), d, d, rng.uniform(0.3, 3) * d) if rng.random() < 0.7 else None
    situation = Situation(
        material=material,
        machine=rng.choice(list(machines().values())),
        tool_material=insert.material,
        use="rough",
        d_mm=d,
        mean_d_mm=0.8 * d,
        nose_mm=insert.nose_radius_mm if insert.shape != "R" else insert.ic_mm / 2,
        entering_deg=rng.choice([45.0, 75.0, 95.0]),
        window=ChipWindow(insert.chip_window, reach=rng.choice([0.35, 0.5, 0.85])),
        usable_depth_mm=rng.uniform(2, 8),
        gripped=grip,
        bend=Bend(10 ** rng.uniform(-6, -3.5), 0.1, "allowed") if rng.random() < 0.5 else None,
    )
    return situation, tuple((rng.uniform(0.3, 12), rng.uniform(5, 80)) for _ in range(rng.randint(1, 3)))


def brute_force(situation: Situation, steps: tuple[MetalStep, ...]) -> float | None:
    """Least minutes of every depth, feed and speed on a fine grid that keeps all limits; None where there is none."""
    highest = max(height for height, _ in steps)
    top = 1.25 * (situation.table_vc or 1.0)
    depths = {*np.geomspace(0.05, highest, 16)}
    depths |= {height / count for height, _ in steps for count in range(1, 24) if height / count > 0.05}
    least = math.inf
    free = replace(situation, gripped=None)
    still = [kind for kind in UPPER if "vc" not in kind.on] + [kind for kind in FLOOR if "vc" not in kind.on]
    moving = [kind for kind in (*UPPER, *FLOOR) if "vc" in kind.on]
    for ap in sorted(depths, reverse=True):
        for feed in situation.machine.feeds_mm_rev[::-1] or np.geomspace(
            min(2 * situation.nose_mm * 0.99, 2), 0.01, 48
        ):
            if minutes_of(free, Cut(ap, feed, top), steps) >= least:
                break
            if broken(situation, Cut(ap, feed, top), still):
                continue
            for vc in np.geomspace(top, 0.4 * top, 36):
                cut = Cut(ap, float(feed), float(vc))
                minutes = minutes_of(situation, cut, steps)
                if minutes >= least:
                    break
                if not broken(situation, cut, moving):
                    least = minutes
                    break
    return least if least < math.inf else None


@pytest.mark.long
def test_as_good_as_trying_everything_in_fifty_random_cases() -> None:
    rng, compared = random.Random(2026), 0
    while compared < 50:
        situation, steps = random_case(rng)
        least = brute_force(situation, steps)
        if least is None:
            continue
        compared += 1
        found = best(situation, steps)
        assert not found.broken, (compared, situation.material.name, found)
        assert found.minutes <= 1.02 * least, (compared, situation.material.name, found.cut)


CASES: dict[str, tuple[Situation, dict[str, Any]]] = {
    "chip window, depth": (usual(usable_depth_mm=20.0), {"steps": ((4.3, 60.0),)}),
    "chip window, feed": (usual(), {}),
    "corner strength": (usual(nose_mm=0.3), {}),
    "edge": (usual(usable_depth_mm=1.0), {"steps": ((8.0, 60.0),)}),
    "power": (usual(machine="gang lathe"), {}),
    "grip": (usual(gripped=Gripped(chuck(12_000).changed(jaw_mass_kg=None), 60, 60, 80)), {}),
    "spindle speed": (usual("CuZn39Pb3", speed_limits=(Limit("machine", 900, "rpm"),)), {}),
    "bend of the piece": (usual(bend=Bend(3e-4, 0.1, "half of what is left")), {}),
    "bend of the bar": (usual(bar=BarHeld(3.0, 4.0, 1e-4, 0.05)), {}),
    "overhang of the bar": (usual(bar=BarHeld(6.2, 4.0, 1e-7, 0.05)), {}),
    "heat": (usual(tool_material="PCD"), {"fixed": Fixed(vc_m_min=200.0)}),
    "edge life": (usual(), {}),
    "usual range of speed": (usual(window=replace(WINDOW, reach=0.05), usable_depth_mm=0.5), {}),
    "finish": (usual(use="finish", wanted_ra_um=0.8, window=None), {"fixed": Fixed(ap_mm=0.5)}),
    "least depth for chips": (usual(), {"steps": ((0.3, 50.0),)}),
    "least feed for chips": (usual(machine="gang lathe"), {"fixed": Fixed(ap_mm=3.4)}),
    "thin chip": (usual(window=None), {"steps": ((0.02, 50.0),), "fixed": Fixed(feed_mm_rev=0.02)}),
    "hardened skin, chip": (usual("1.4404", window=None), {"fixed": Fixed(feed_mm_rev=0.03)}),
    "hardened skin, depth": (usual("1.4404", window=None), {"steps": ((0.15, 50.0),)}),
    "least surface speed": (usual(), {"fixed": Fixed(vc_m_min=40.0)}),
}


@pytest.mark.parametrize("name", [kind.name for kind in LIMITS])
def test_every_kind_of_limit_bites_somewhere(name: str) -> None:
    """Where it bites it is used up or broken, and without it the cut would be another or go unremarked."""
    situation, more = CASES[name]
    proposal = propose(situation, more.get("steps", STEPS), more.get("fixed", Fixed()))
    use = next(one for one in proposal.uses if one.kind.name == name)
    assert use.share > 0.95, [(one.kind.name, round(one.share, 2)) for one in proposal.uses[:4]]
    assert use.kind.why.endswith(".")
    assert use.kind.beyond


def with_outside(name: str, power_share: float = 1.0) -> Job:
    """A demo job, its outside faced, roughed and finished, on its machine with a share of the power."""
    job, spear = demo_job(name), demo_job("spear")
    points = tuple(point.changed(power_kw=point.power_kw * power_share) for point in job.machine.power)
    job = job.changed(machine=job.machine.changed(power=points))
    if name == "spear":
        return job
    operations = Face(id="a", tool="T1"), RoughOd(id="b", tool="T1"), FinishOd(id="c", tool="T2")
    return job.changed(tools=spear.tools).with_setup(operations=operations)


@pytest.mark.parametrize("share", [1.0, 0.3])
@pytest.mark.parametrize("name", demo_names())
def test_nothing_chosen_is_beyond_a_limit_on_the_demo_jobs(name: str, share: float) -> None:
    """With three tenths of the power as well: everything is planned again to fit."""
    planned = plan(with_outside(name, share))
    hurts = {"power", "grip", "bend of the piece", "corner strength", "edge", "heat", "edge life", "thin chip"}
    for operation in planned.operations:
        proposal = operation.cuts.proposal
        if proposal is None:
            assert operation.operation.kind in ("drill", "tap", "thread")
            continue
        told = {"bend of the piece"} if operation.operation.kind == "finish_od" else set()  # no edge is thinned for it
        assert not {use.kind.name for use in proposal.broken} & hurts - told
        power = operation.reasons["power"]
        assert power.number <= power.limits[0].number * 1.0005
    if share < 1:
        assert planned.times.cutting_s > plan(with_outside(name)).times.cutting_s * 0.999


def test_removal_and_time_agree_with_the_metal_taken_away(spear: Job) -> None:
    """Q = vc ap f, with vc on the middle of the ring, times the time in metal is the simulated volume, to 2 %."""
    planned = plan(spear).operations[1]
    shape, machine = shape_of(spear.tools[0]), spear.machine
    stock, compared = planned.before, 0
    for motion in planned.motions:
        if motion.is_rapid:
            continue
        after = after_cutting(stock, [motion], shape)
        taken = stock.difference(after)
        level = abs(motion.start[1] - motion.end[1]) < 1e-9
        if level and motion.feed and taken.area > 10 and not compared:
            depth = stock.bounds[3] - motion.start[1]
            length = min(stock.bounds[2], motion.start[0]) - motion.end[0]
            rpm = spindle_rpm(motion.spindle, motion.start[1], machine.max_rpm)
            q = math.pi * (2 * motion.start[1] + depth) * rpm / 1000 * depth * motion.feed
            minutes = motion_time_s(motion, machine) / 60 * length / motion.segment.length
            assert q * minutes == pytest.approx(rotated_volume(taken) / 1000, rel=0.02)
            compared += 1
        stock = after
    assert compared


def test_pinned_numbers_stay_and_the_rest_follows() -> None:
    free = propose(usual(), STEPS)
    slow = propose(usual(), STEPS, Fixed(vc_m_min=120.0), free=free.cut)
    assert slow.cut.vc_m_min == 120.0
    assert slow.reasons["vc"].pinned
    assert slow.reasons["vc"].proposed == free.cut.vc_m_min
    thin = propose(usual(), STEPS, Fixed(feed_mm_rev=0.2))
    assert thin.cut.feed_mm_rev == 0.2
    assert thin.cut.vc_m_min > free.cut.vc_m_min  # less feed lets the speed rise for the same life
    far = propose(usual(), STEPS, Fixed(feed_mm_rev=0.6))
    assert {use.kind.name for use in far.broken} >= {"chip window, feed", "corner strength"}


def test_least_cost_goes_slower_where_edges_are_dear() -> None:
    situation = usual(least_life_min=2.0)
    cheap, dear = (propose(situation, STEPS, aim="cost", costs=Costs(60.0, edge, 2.0)).reasons for edge in (0.5, 40.0))
    assert dear["vc"].number < cheap["vc"].number
    assert dear["life"].number > cheap["life"].number
    # Taylor: T = (1/m - 1) (change + edge / rate), 3 (2 + 40) = 126 min with m = 0.25
    assert dear["life"].number == pytest.approx(126, rel=0.05)


def test_a_ladder_takes_rungs_and_shows_their_price() -> None:
    old = machines()["slant-bed"].changed(
        speeds_rpm=(63.0, 125.0, 250.0, 500.0, 1000.0, 2000.0), feeds_mm_rev=(0.05, 0.1, 0.2, 0.4), surface_speed=False
    )
    proposal = propose(replace(usual(), machine=old), STEPS)
    assert proposal.reasons["f"].number in old.feeds_mm_rev
    assert proposal.reasons["n"].number in old.speeds_rpm
    price = proposal.reasons["price"]
    assert price.number > 5
    speeds = [one.number for one in price.inputs[:2]]
    assert speeds[0] > speeds[1] > 0  # at a fixed speed the surface speed falls with the diameter
    assert "price" not in propose(usual(), STEPS).reasons


def test_every_limit_is_shown_with_its_value_and_margin() -> None:
    proposal: Proposal = propose(usual(), STEPS)
    for key in ("vc", "f", "ap_max"):
        evidence = proposal.reasons[key]
        assert evidence.limits
        assert sum(limit.bit for limit in evidence.limits) <= 1
    assert all(use.share <= 1.0005 for use in proposal.uses)
    power = next(limit for limit in proposal.reasons["f"].limits if limit.label.startswith("power"))
    at_limit = used(proposal.situation, proposal.cut._replace(feed_mm_rev=power.number))
    assert next(use.share for use in at_limit if use.kind.name == "power") == pytest.approx(1, abs=0.01)


def test_attacked() -> None:
    """Tiny, huge, slow, thin: always finite numbers, never a traceback."""
    for d, height, force_n in itertools.product((0.5, 30.0, 2000.0), (1e-4, 0.5, 300.0), (1.0, 5e5)):
        situation = usual(d_mm=d, mean_d_mm=d / 2, gripped=Gripped(chuck(force_n), d, d, 10 * d))
        proposal = propose(situation, ((height, 10.0),))
        assert all(math.isfinite(evidence.number) for evidence in proposal.reasons.values())
        assert proposal.cut.feed_mm_rev > 0


def test_cost_of_a_part_is_machine_and_edges(spear: Job) -> None:
    planned = plan(spear)
    cost = part_cost(planned)
    minutes = planned.times.total_s / 60
    edges = sum(op.times.cutting_s / 60 / op.reasons["life"].number for op in planned.operations)
    assert cost.number == pytest.approx(minutes * 1.0 + edges * (2.5 + 2.0 * 1.0))
    dearer = plan(spear.changed(conditions=spear.conditions.changed(edge_cost=50.0)))
    assert part_cost(dearer).number > cost.number


def test_intermittent_rating_counts_for_as_long_as_it_may_be_drawn() -> None:
    slant = machines()["slant-bed"]
    assert available_power_kw(slant, 2000) == pytest.approx(15 * slant.efficiency)
    assert available_power_kw(slant, 2000, minutes=10) == pytest.approx(18.5 * slant.efficiency)
    assert available_power_kw(slant, 2000, minutes=30) == pytest.approx(15 * slant.efficiency)
    assert torque_nm(15, 1500) == pytest.approx(95.5, abs=0.05)  # 9549 P / n


@pytest.mark.parametrize("operation", ["op1", "op2", "op4", "op5"])
def test_pins_of_any_size_are_planned_and_said(spear: Job, operation: str) -> None:
    """From a thousandth to fifty thousand metres a minute, alone and together: findings, never a failure."""
    for pins in (
        {"vc_m_min": 1e-3},
        {"vc_m_min": 5e4, "feed_mm_rev": 5.0, "ap_mm": 50.0},
        {"feed_mm_rev": 1e-4, "clamp_rpm": 1.0},
        {"clamp_rpm": 9e5},
    ):
        planned = plan(spear.with_operation(operation, lambda op, p=pins: op.changed(pins=p)))  # type: ignore[misc]
        found = planned.of(operation)
        assert found is not None
        assert found.motions
        assert all(math.isfinite(evidence.number) for evidence in found.reasons.values())
        assert found.findings


def test_a_pinned_speed_without_a_table_still_has_numbers(spear: Job) -> None:
    """No starting speed is known and the person types one: no life can be told, everything else can."""
    bare = spear.changed(
        stock=spear.stock.changed(material=spear.stock.material.changed(speeds=())),
        conditions=spear.conditions.changed(aim="cost"),
    )
    for name in ("op1", "op2", "op3", "op4", "op5"):
        bare = bare.with_operation(name, lambda op: op.changed(pins=op.pins.changed(vc_m_min=120.0)))
    planned = plan(bare)
    assert all(op.motions and "life" not in op.reasons and "power" in op.reasons for op in planned.operations)
