"""A whole route for a part: tools, order, both sides, reasons; and random parts through to their proof."""

import json
from pathlib import Path

import pytest
from typer.testing import CliRunner

from tests.support.engine import routed
from tests.support.kept import plan, plan_sides, prove_plan
from tests.support.long import everyday
from tests.support.random_jobs import random_job
from toreuma.cli import app
from toreuma.core.auto.order import RANKS
from toreuma.core.errors import Cancelled
from toreuma.core.model import Part
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import fresh_job
from toreuma.engine.proposals import FOLLOWED, proposed
from toreuma.files.jobs import load_job
from toreuma.shipped.library import demo_job, demo_names, dialect


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "vane-stud"))
def test_the_proposed_route_of_a_demo_job_is_proved_and_every_choice_has_its_reason(name: str) -> None:
    found = routed(demo_job(name))
    for planned in plan_sides(found.job):
        proof = prove_plan(planned, dialect("system-a"))
        assert (proof.gouge_um <= 2, proof.leftover_um, proof.contacts) == (True, 0, ())
    operations = {(side, op.id) for side, setup in enumerate(found.job.setups) for op in setup.operations}
    told = {(one.side, one.operation) for one in found.chosen}
    assert told <= operations
    assert all(one.reasons and one.tool for one in found.chosen)
    assert any(one.rivals for one in found.chosen)
    cured = operations - told
    assert len(cured) <= len(found.taken)


@pytest.mark.parametrize("seed", everyday([2, 7, 23, 31, 146, 311], 31))
def test_random_parts_come_out_right(seed: int) -> None:
    found = routed(random_job(seed))
    planned = plan(found.job)
    proof = prove_plan(planned, dialect("system-a"))
    assert proof.gouge_um <= 2
    assert proof.contacts == ()
    assert proof.leftover_um <= 2
    assert found.job.operations


@pytest.mark.parametrize(
    ("name", "order"),
    everyday(
        [
            ("spear", ["rough_od", "finish_od", "groove", "thread", "part_off"]),
            ("seat-ring", ["face", "rough_od", "finish_od"]),
            ("seat-ring", ["rough_bore", "groove", "finish_bore"]),
        ],
        ("spear", ["rough_od", "finish_od", "groove", "thread", "part_off"]),
    ),
)
def test_the_order_is_a_turners(name: str, order: list[str]) -> None:
    kinds = [op.kind for op in routed(demo_job(name)).job.operations]
    places = [kinds.index(kind) for kind in order]
    assert places == sorted(places), kinds
    assert RANKS["thread"] < RANKS["part off"]


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "vane-stud"))
def test_tools_sit_in_stations_the_machine_has(name: str) -> None:
    job = routed(demo_job(name)).job
    stations = [tool.station for tool in job.tools]
    assert len(set(stations)) == len(stations)
    assert max(stations) <= job.machine.stations


def test_it_stops_when_it_is_told_to() -> None:
    calls = 0

    def check() -> None:
        nonlocal calls
        calls += 1
        if calls > 40:
            raise Cancelled

    with pytest.raises(Cancelled):
        Engine().route(demo_job("spear"), check)


@pytest.mark.long
def test_on_the_command_line(tmp_path: Path) -> None:
    target = tmp_path / "hub.toreuma"
    run = CliRunner().invoke
    told = run(app, ["auto", "demo:runner-hub", "-o", str(target)])
    assert told.exit_code == 0
    assert "Setup 2" in told.output
    assert "not " in told.output
    assert len(load_job(target).setups) == 2
    assert run(app, ["prove", str(target)]).exit_code == 0
    data = json.loads(run(app, ["auto", "demo:runner-hub", "--json"]).output)
    assert {
        "setups",
        "tools",
        "chosen",
        "taken",
        "open",
        "state",
        "words",
        "way",
        "seconds",
        "decided",
        "others",
    } == set(data)
    assert data["state"] == "finished but for"
    folder = run(app, ["post", str(target), "-o", str(tmp_path)])
    assert len(folder.output.split()) == 2


@pytest.mark.parametrize("name", ["M10", "M10-6g", "M10x1.5"])
def test_a_thread_is_cut_however_the_drawing_calls_it(name: str) -> None:
    ends = [(0, 10.0), (-25, 10.0), (-25, 20.0), (-40, 20.0)]
    thread = {"kind": "thread", "designation": name, "from_z_mm": 0, "length_mm": 15}
    part = Part.model_validate({"outside": [{"z_mm": z, "d_mm": d} for z, d in ends], "features": [thread]})
    found = routed(fresh_job(part, name))
    assert "thread" in {one.kind for one in found.job.operations}, [one.why for one in found.without]


@pytest.mark.parametrize("seed", everyday([106, 103, 109, 110, 112], 106))
def test_a_proposed_route_of_two_sides_can_be_written(seed: int) -> None:
    """Tools that both sides use stay where they sit, no two have one name, and nothing keeps the program back."""
    job = proposed(random_job(seed).changed(follows=FOLLOWED))
    found = routed(job)
    assert len(found.job.setups) == 2
    names = [tool.id for tool in found.job.tools]
    stations = [tool.station for tool in found.job.tools]
    assert len(set(names)) == len(names)
    assert len(set(stations)) == len(stations)
    for side in plan_sides(found.job):
        assert [one.what for one in side.all_findings if one.severity == "error"] == []
        assert post(side, dialect("system-a")).text
