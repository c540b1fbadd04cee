"""More tools than stations: a part that is turned round by hand finds the machine set up for its second side alone."""

from pathlib import Path

from tests.engine.test_held_well import DONE
from tests.support.random_jobs import random_job
from toreuma.core.model import Job
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
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
