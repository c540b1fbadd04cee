"""Stations: offsets, shanks, and neighbours that come down with the tool."""

import itertools
import random

import pytest

from tests.core.test_tool_shapes import boring, turning
from tests.support.kept import plan
from tests.support.machines import with_carrier
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.plan.turret.seating import arranged
from toreuma.core.plan.turret.stations import free_station, nose_number, offsets, placed, shank_fault, with_tool


def test_offsets_are_the_tool_s_own_or_against_a_master(spear: Job) -> None:
    own = {row.tool.id: row for row in offsets(spear)}
    tool = spear.tools[0]
    assert own["T1"].x_mm == 2 * tool.holder.functional_length_mm  # type: ignore[union-attr]
    assert own["T1"].z_mm == tool.holder.functional_width_mm  # type: ignore[union-attr]
    against = {row.tool.id: row for row in offsets(spear, "T1")}
    assert (against["T1"].x_mm, against["T1"].z_mm) == (0, 0)
    assert against["T3"].x_mm == pytest.approx(own["T3"].x_mm - own["T1"].x_mm)


def test_tips_have_the_number_of_their_direction() -> None:
    assert nose_number(shape_of(turning("C"))) == 3
    assert nose_number(shape_of(turning("C").changed(hand="left"))) == 4
    assert nose_number(shape_of(boring())) == 2
    assert nose_number(shape_of(boring().changed(hand="left"))) == 1


def test_tools_go_into_free_stations_and_change_places(spear: Job) -> None:
    assert free_station(spear) == 4
    added, name = with_tool(spear, turning("V", 72.5), 4)
    assert (name, added.tool("T4").station) == ("T4", 4)  # type: ignore[union-attr]
    swapped = placed(added, "T4", 1)
    assert {t.id: t.station for t in swapped.tools} == {"T1": 4, "T2": 2, "T3": 3, "T4": 1}
    full = spear.changed(machine=with_carrier(spear.machine, stations=3))
    assert free_station(full) is None


def test_shanks_that_do_not_go_in_are_named(spear: Job) -> None:
    assert "25 mm" in shank_fault(turning("C"), spear.machine)
    assert shank_fault(spear.tools[0], spear.machine) == ""
    assert "Ø 32" in shank_fault(boring(diameter=32), spear.machine)


def test_a_neighbour_on_a_narrow_gang_plate_comes_down_into_the_work(spear: Job) -> None:
    assert not [f for f in plan(spear).findings if f.code == "station.neighbour"]
    narrow = with_carrier(spear.machine, kind="gang plate", station_pitch_mm=15.0, stations=12)
    crowded = spear.changed(machine=narrow)
    found = [f for f in plan(crowded).findings if f.code == "station.neighbour"]
    assert found
    assert "T2" in found[0].what
    cured = found[0].cures[0].apply(crowded)
    assert {t.id: t.station for t in cured.tools} != {t.id: t.station for t in crowded.tools}
    assert not [f for f in plan(cured).findings if f.code == "station.neighbour"]
    wide = crowded.changed(machine=with_carrier(narrow, station_pitch_mm=120.0))
    assert not [f for f in plan(wide).findings if f.code == "station.neighbour"]


@pytest.mark.parametrize("seed", range(60))
def test_tools_are_seated_apart_wherever_any_order_does_it(seed: int) -> None:
    """Against every order there is, tried one by one."""
    chance = random.Random(seed)
    kind = chance.choice(("turret", "gang plate"))
    stations, count = chance.randint(3, 6), chance.randint(2, 5)
    names = [f"T{n}" for n in range(1, min(count, stations) + 1)]
    sitting = dict(zip(names, chance.sample(range(1, stations + 1), len(names)), strict=True))
    pairs = [pair for pair in itertools.combinations(names, 2) if chance.random() < 0.5]
    bad = {one for a, b in pairs for one in ((a, b), (b, a))}
    used = {name for name in names if chance.random() < 0.8}

    def apart(seats: dict[str, int]) -> bool:
        near = {1, stations - 1} if kind == "turret" else {1}
        return not any(abs(seats[a] - seats[b]) in near for a, b in pairs)

    every = (
        dict(zip(names, order, strict=True)) for order in itertools.permutations(range(1, stations + 1), len(names))
    )
    there = any(apart(one) and all(one[name] == sitting[name] for name in names if name not in used) for one in every)
    found = arranged(range(1, stations + 1), kind != "gang plate", sitting, used, bad)
    assert (found is not None) is there
    if found is not None:
        assert apart(found)
        assert len(set(found.values())) == len(names)
        assert all(found[name] == sitting[name] for name in names if name not in used)
