"""Metal in inner corners: what a tool's own round leaves is a corner, more of it is metal."""

import pytest
from benchmarks.judge.mutate import Bench

from tests.support.long import everyday
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import demo_job

SNAP_RINGS = [
    "6 x 30 c0.3; g 0.8 x 5.7 at 3",
    "4 x 20 c0.2; g 0.5 x 3.8 at 2",
    "8 x 30 c0.3; g 0.9 x 7.6 at 3",
    "10 x 40 c0.5; g 1.1 x 9.6 at 4",
]


@pytest.mark.long
def test_a_wall_of_a_groove_that_is_left_is_no_corner() -> None:
    """A snap ring groove whose front wall is not cut to its floor: 0.1 mm stand where the blade has a round of 0.2."""
    job = Bench(demo_job("seat-ring"))
    text = job.texts[1].replace("N780 G1 X113.", "N780 G1 X114.")
    assert text != job.texts[1]
    verdict, _ = job.proved({1: text})
    (open_,) = verdict.open
    assert open_.what == "Snap ring groove"
    assert "0.101 mm stands" in open_.left


@pytest.mark.parametrize("line", everyday(SNAP_RINGS, SNAP_RINGS[2]))
def test_a_small_snap_ring_groove_is_cut_by_a_blade_and_no_form_tool(line: str) -> None:
    job, _ = new_job("pin", "mm", "C45", "gang lathe", line)
    found = Engine().route(job)
    assert found.state == "finished but for", found.words
    (groove,) = (one for one in found.job.operations if one.kind == "groove")
    tool = found.job.tool(groove.tool)
    assert tool is not None
    assert tool.kind == "grooving"


@pytest.mark.long
def test_the_point_of_a_v_is_rounded_by_its_own_blade() -> None:
    line = "105 x 30 c1; bore 24 H7 through; 3 x v 97.4 at 8 angle 40 pitch 3.56"
    job, _ = new_job("pulley", "mm", "GJL-250", "slant-bed", line)
    found = Engine().route(job)
    assert found.state in ("finished", "finished but for"), found.words
