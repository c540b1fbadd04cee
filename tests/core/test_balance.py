"""Both spindles at work: the shortest steady cycle, its bound, and what limits it."""

import itertools
from functools import cache

import pytest

from tests.support.handed import Planned, planned_demo
from toreuma.core.channels.balance import Balanced, as_found, balance
from toreuma.core.channels.schedule import unloading
from toreuma.core.errors import Cancelled


def planned() -> Planned:
    return planned_demo("runner-hub")


@cache
def found() -> Balanced:
    return balance(*planned())


def test_the_cycle_is_as_long_as_the_longer_side_and_the_hand_over() -> None:
    """Nothing is shorter than one spindle's own work; here that is reached, and the bound says so."""
    job, sides, taken = planned()
    longer = max(side.times.total_s for side in sides)
    made = found()
    assert made.cycle_s == pytest.approx(longer + taken.seconds, abs=0.2)
    assert made.bound_s <= made.cycle_s + 1e-9
    assert made.gap < 0.01
    out = sum(one.seconds for one in unloading(job))
    assert made.in_turn_s == pytest.approx(sum(side.times.total_s for side in sides) + taken.seconds + out)
    assert made.ratio < 0.9


def test_spindles_and_carriers_do_one_thing_at_a_time() -> None:
    for key in ("side", "carrier"):
        for value in (0, 1):
            mine = sorted((s for s in found().slots if getattr(s, key) == value), key=lambda s: s.start_s)
            for a, b in itertools.pairwise(mine):
                assert a.end_s <= b.start_s + 0.011
    for side in (0, 1):
        order = [s.operation for s in sorted(found().slots, key=lambda s: s.start_s) if s.side == side]
        assert order == [one.operation.id for one in planned()[1][side].operations if one.motions]


def test_a_carrier_that_does_not_reach_gives_its_tools_away() -> None:
    job, sides, taken = planned()
    turret = job.machine.carriers[0].changed(reaches=("main",))
    short = job.changed(machine=job.machine.changed(carriers=(turret, job.machine.carriers[1])))
    made = balance(short, sides, taken)
    turned = {
        op.tool for op in job.setups[1].operations if op.tool in {tool.id for tool in job.tools if tool.station <= 12}
    }
    assert turned
    assert {(tool, 1) for tool in turned} <= set(made.moved)
    seated = as_found(short, made)
    for tool, number in made.moved:
        assert seated.machine.carrier_of(seated.tool(tool).station) is seated.machine.carriers[number]
    assert balance(seated, sides, taken).moved == ()
    assert all(slot.carrier == 1 for slot in made.slots if slot.side == 1)


def test_without_a_carrier_for_the_second_side_there_is_no_cycle() -> None:
    job, sides, taken = planned()
    none = tuple(carrier.changed(reaches=("main",)) for carrier in job.machine.carriers)
    made = balance(job.changed(machine=job.machine.changed(carriers=none)), sides, taken)
    assert made.slots == ()
    assert made.ratio == 1


def test_the_search_can_be_stopped_and_tells_how_far_it_is() -> None:
    told: list[tuple[float, float]] = []
    balance(*planned(), better=lambda cycle_s, bound_s: told.append((cycle_s, bound_s)))
    assert told
    assert told[-1][0] == pytest.approx(found().cycle_s, abs=0.5)

    def stop() -> None:
        raise Cancelled

    with pytest.raises(Cancelled):
        balance(*planned(), check=stop)
