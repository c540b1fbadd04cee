"""Grooves as a route cuts them: one plunge where the blade is nearly as wide, and walls only where metal is left."""

import pytest

from tests.engine.test_held_well import job_of
from toreuma.core.auto.propose import propose_route
from toreuma.core.model import CutGroove
from toreuma.core.plan import plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.engine.engine import Engine
from toreuma.shipped.library import catalogue, known_threads


def grooves_of(line: str) -> list[OperationPlan]:
    job = job_of(line)
    found = propose_route(job, catalogue(), threads=known_threads(job.part))
    return [one for one in plan(found.job).operations if one.operation.kind == "groove"]


def fed_down_mm(groove: OperationPlan) -> float:
    """How far the blade goes toward the axis at feed, mm on radius."""
    ends = [(motion.start[1], motion.end[1]) for motion in groove.motions if not motion.is_rapid]
    return sum(max(begin - end, 0.0) for begin, end in ends)


def test_a_blade_nearly_as_wide_as_its_groove_goes_down_once_and_then_along_each_wall() -> None:
    (groove,) = grooves_of("40 x 60; g 3.2 x 34 at 10")
    assert fed_down_mm(groove) == pytest.approx(3 * 3.0, abs=2.5)  # one plunge and two walls, each three deep
    assert not [one for one in groove.findings if one.severity != "note"]


def test_the_walls_of_a_v_are_cut_no_farther_than_its_blade_has_left_metal() -> None:
    (groove,) = grooves_of("60 x 60; v 52.4 at 10 angle 40")
    deep = (60 - 52.4) / 2
    assert deep - 0.2 < fed_down_mm(groove) < 2.2 * deep


def test_walls_that_stand_are_cut_down_to_the_floor() -> None:
    (groove,) = grooves_of("40 x 60; g 9.4 x 30 at 10")
    lows = [round(motion.end[1], 2) for motion in groove.motions if not motion.is_rapid]
    assert lows.count(min(lows)) >= 3  # the plunges stop above, both walls come down to the floor


def test_a_floor_with_rounded_corners_gets_a_blade_that_comes_down_between_them() -> None:
    """One of 3.15 mm with corners of 0.1 mm goes into 3.22 mm, and lies on its rounds of 0.2 mm before the floor."""
    found = Engine().route(job_of("73.43 x 40; g 4.43 x 66 at 8 r0.2; g 3.22 x 66.79 at 20 r0.2"))
    assert found.state in ("finished", "finished but for"), found.words
    grooves = [one for one in found.job.operations if isinstance(one, CutGroove)]
    assert len(grooves) == 2
    (tool,) = {one.tool for one in grooves}
    blade = found.job.tool(tool).blade  # type: ignore[union-attr]
    assert blade.width_mm - 2 * blade.corner_radius_mm < 3.22 - 2 * 0.2
