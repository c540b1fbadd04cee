"""Everyday parts of many kinds from their line to the finished piece, by the judge's word and the proof's."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from benchmarks.everyday.bench import came_of
from benchmarks.everyday.kinds import KINDS, everyday

from tests.support.long import everyday as among
from toreuma.core.model.catalogue import RackItem
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.library import library, renew

SAMPLE = (0, 3, 5, 7, 8, 12, 15, 17, 18, 26, 29, 32, 34, 35, 38, 40, 41, 42, 43, 44, 45, 49)
"""A shaft, a stud, a bush, a spacer, a washer, a nut, a nozzle, a gear blank, a housing, a cap, a ball stud, an inch
bush, a standoff, a tapped nut, a set screw, an adapter, a check valve, a pipe nipple, a spool, a dumbbell, a knob held
by its back, a bearing house: what was once left open by a route."""


@pytest.fixture(autouse=True)
def empty_home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """Nothing of a shop's own, whatever another test left there."""
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    yield
    renew()


@pytest.mark.parametrize("seed", among(SAMPLE, 5, 26, 35))
def test_a_route_makes_it_and_the_judge_agrees(seed: int) -> None:
    came = came_of(everyday(seed))
    assert came.fault == ""
    assert came.finished, (came.words, came.open, came.dangers, came.route, came.tools)
    assert not came.dishonest
    assert came.court is None or not came.court.hits
    assert came.cycle_s < 3 * came.plain_s


def test_there_are_five_and_twenty_kinds_and_each_is_drawn_anew() -> None:
    assert len(KINDS) >= 25
    lines = {everyday(seed).line for seed in range(4 * len(KINDS))}
    assert len(lines) > 2.5 * len(KINDS)


def test_a_small_drill_that_lies_in_the_rack_is_no_reason_to_bore_the_rest(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(type(library()), "rack", lambda self: (RackItem(code="TD 5 HSS 118"),))
    job, _ = new_job("bush", "mm", "C45", "slant-bed", "30 x 20; bore 16 H7 through")
    drills = [tool.d_mm for tool in Engine().route(job).job.tools if tool.kind == "drill" and tool.form != "spot"]
    assert min(drills) > 13
