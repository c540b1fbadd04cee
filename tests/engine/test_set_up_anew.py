"""More tools than stations: a part that is turned round by hand finds the machine set up for its second side alone."""

from pathlib import Path

from tests.engine.test_held_well import DONE, job_of
from tests.support.random_jobs import random_job
from toreuma.core.model import Job
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.plan.sides.set_up import with_second
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.engine.proposals import with_second_grip
from toreuma.files.jobs import load_job, save_job

CROWDED = 8003
"""A random part with six stations that needs seven tools, whichever way it is begun."""


def routed() -> Job:
    found = Engine().route(random_job(CROWDED))
    assert found.state in DONE, found.words
    assert any("set up anew" in one for one in found.taken)
    return found.job


def test_each_side_has_its_own_tools_in_the_stations_there_are(tmp_path: Path) -> None:
    job = routed()
    engine, stations = Engine(), job.machine.stations
    assert len(job.tools) > stations
    sides = engine.sides(job)
    for side in sides:
        sitting = {tool.id: tool.station for tool in side.job.tools}
        used = {sitting[name] for op in side.job.operations for name in op.tools}
        assert max(used) <= stations
    second = sides[1].job
    assert len({tool.station for tool in second.tools}) == len(second.tools)
    assert {tool.id for tool in second.tools} < {tool.id for tool in job.tools}
    text = post(sides[1], engine.language(job)).text
    assert {f"T{tool.station:02d}{tool.station:02d}" for tool in second.tools} <= set(text.split())
    save_job(job, tmp_path / "anew.toreuma")
    again = load_job(tmp_path / "anew.toreuma")
    assert prove_whole(engine.sides(again), engine.language(again)).verdict.finished


def test_a_second_spindle_finds_the_tools_where_they_are() -> None:
    """Both work at the same time: nobody sets anything up in between."""
    job = routed()
    first = Engine().sides(job)[0]
    assert second_side(job, first).tools != job.tools
    held = job.changed(hand_over={})
    assert second_side(held, first).tools == job.tools


def test_what_is_changed_on_the_second_side_leaves_the_first_its_tools() -> None:
    job = routed()
    engine = Engine()
    side = engine.sides(job)[1].job
    first = {name for operation in job.operations for name in operation.tools}
    alone = next(tool for tool in job.tools if tool.id in first and tool.id not in {one.id for one in side.tools})
    moved = side.tools[1].changed(station=side.tools[2].station)
    other = side.tools[2].changed(station=side.tools[1].station)
    fresh = side.tools[0].changed(id=alone.id, station=job.machine.stations, name="another")
    operations = tuple(
        one.changed(tool=alone.id) if one.id == side.operations[0].id else one for one in side.operations
    )
    changed = side.changed(tools=(side.tools[0], moved, other, *side.tools[3:], fresh)).with_setup(
        operations=operations
    )
    whole = with_second(job, changed)
    assert whole.tool(alone.id) == alone
    assert whole.setup == job.setup
    again = engine.sides(whole)[1].job
    assert [(one.id, one.station) for one in again.tools if one.id == moved.id] == [(moved.id, moved.station)]
    renamed = again.tool(again.operations[0].tool)
    assert renamed is not None
    assert (renamed.name, renamed.station) == ("another", job.machine.stations)
    gone = with_second(whole, again.changed(tools=tuple(one for one in again.tools if one.id != renamed.id)))
    assert whole.tool(renamed.id) is not None
    assert gone.tool(renamed.id) is None


def test_tools_of_one_set_are_changed_on_either_side_alike() -> None:
    job = job_of("40 x 30 c1 / 50 x 20; hole M6 x 12 back")
    whole = Engine().route(with_second_grip(job) or job).job
    side = Engine().sides(whole)[1].job
    fewer = with_second(whole, side.changed(tools=side.tools[1:]))
    assert fewer.tools == side.tools[1:]
