"""Tools chosen together: one blade and one spot drill for alike work, and no more tools than there are stations."""

import pytest

from tests.support.kept import plan_sides
from tests.support.long import everyday
from toreuma.core.auto.propose import Proposed, propose_route
from toreuma.core.auto.steps import FLOOR
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import Job, Relief
from toreuma.core.model.tool import Drill, GroovingTool, PartingTool, ThreadingTool, TurningTool
from toreuma.core.reach.relieved import slides_in
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import catalogue, known_threads

MANY = (
    "20 h6 x 22 c1 relief / M24x1.5-6g x 20 relief / 34 x 8 c0.5 both / 30 x 12; g 2 x 17 at 10; bore 8 through; "
    "hole 8.5 x 15; break 0.3"
)
"""It wants ten tools where there is room for them."""


def with_stations(line: str, count: int) -> Job:
    job, _ = new_job("part", "mm", "C45", "slant-bed", line)
    first, *others = job.machine.carriers
    return job.changed(machine=job.machine.changed(carriers=(first.changed(stations=count), *others)))


def routed(line: str, count: int = 12) -> Proposed:
    job = with_stations(line, count)
    return propose_route(job, catalogue(), threads=known_threads(job.part))


def names_of(found: Proposed, kind: str) -> list[str]:
    job = found.job
    return [job.tool(one.tool).name for setup in job.setups for one in setup.operations if one.kind == kind]  # type: ignore[union-attr]


def test_grooves_are_cut_by_one_blade_where_one_does_as_well() -> None:
    found = routed("M24x1.5 x 20 relief / 34 x 30; g 2 x 30 at 40")
    blades = names_of(found, "groove")
    assert len(blades) == 2
    assert len(set(blades)) == 1
    assert any("one tool less" in reason for one in found.chosen for reason in one.reasons)


def test_a_groove_keeps_its_own_blade_where_the_other_is_much_narrower() -> None:
    found = routed("40 x 60; g 1.1 x 38 at 10; g 6 x 30 at 30")
    blades = {one.blade.width_mm for one in found.job.tools if isinstance(one, GroovingTool)}
    assert len(blades) == 2


def test_holes_are_spotted_by_one_drill() -> None:
    found = routed("40 x 30; hole M8 x 15; bore 6 through")
    spots = [one.tool for setup in found.job.setups for one in setup.operations if one.name == "Spot"]
    assert len(spots) >= 2
    assert len(set(spots)) == 1


@pytest.mark.parametrize("count", everyday([8, 7, 6, 5, 4, 3], 6))
def test_with_few_stations_the_most_needed_tools_stay(count: int) -> None:
    found = routed(MANY, count)
    job = found.job
    assert len(job.tools) <= count
    assert sorted(tool.station for tool in job.tools) == sorted({tool.station for tool in job.tools})
    assert all(tool.station <= count for tool in job.tools)
    assert any(isinstance(tool, PartingTool) for tool in job.tools)  # a part that hangs on the bar is no part
    assert any(isinstance(tool, TurningTool) for tool in job.tools)
    assert any(isinstance(tool, ThreadingTool) for tool in job.tools)
    for planned in plan_sides(job):
        assert not [one for one in planned.all_findings if one.severity == "error"]
    missing = [one for one in found.without if "no station is free" in one.what]
    assert bool(missing) is (count < 7)
    assert all(str(count) in one.why for one in missing)


def test_with_few_stations_one_slim_tool_turns_the_outside_and_its_undercut() -> None:
    found = routed(MANY, 6)
    turning = [tool for tool in found.job.tools if isinstance(tool, TurningTool)]
    assert len(turning) == 1
    undercut = next(one for one in found.job.part.features if isinstance(one, Relief) and one.form == "E")
    assert slides_in(shape_of(turning[0]), undercut)


def test_with_few_stations_what_breaks_an_edge_spots_as_well() -> None:
    found = routed(MANY, 7)
    pointed = [tool for tool in found.job.tools if isinstance(tool, Drill) and tool.form == "spot"]
    assert len(pointed) <= 1


def test_features_left_out_for_want_of_stations_are_told() -> None:
    found = routed(MANY, 4)
    told = " ".join(one.what for one in found.without)
    assert found.job.part.features
    for index, feature in enumerate(found.job.part.features):
        if feature.kind in ("groove", "axial_hole"):
            cut = any(getattr(one, "feature", None) == index for setup in found.job.setups for one in setup.operations)
            assert cut or FEATURES[feature.kind].label.split()[-1].lower() in told.lower(), (feature.kind, told)


@pytest.mark.parametrize("count", everyday([1, 2], 1))
def test_one_or_two_stations_hold_one_or_two_tools(count: int) -> None:
    found = routed(MANY, count)
    used = {one.tool for setup in found.job.setups for one in setup.operations}
    assert 0 < len(used) <= count
    assert all(found.job.tool(one).station <= count for one in used)  # type: ignore[union-attr]
    assert len([one for one in found.without if "no station is free" in one.what]) >= 5


def test_with_few_stations_one_blade_grooves_and_parts_off() -> None:
    line = "M20x1.5 x 20 relief / 26 x 30; g 3.5 x 22 at 35; hole 8 x 30"
    roomy, tight = routed(line), routed(line, 5)
    assert not set(names_of(roomy, "groove")) & set(names_of(roomy, "part_off"))
    assert set(names_of(tight, "groove")) == set(names_of(tight, "part_off"))
    assert names_of(tight, "thread")
    assert any("parts off" in reason for one in tight.chosen for reason in one.reasons)


def test_with_few_stations_the_bar_faces_the_floor() -> None:
    line = "M48x2 x 27.7 relief / 53.7 x 24.5 / 62.5 x 9.6; bore 23 x 19.4 / 18 H7 x 10.2; g 4.5 x 46.6 at 37"
    steps = [one.name for one in routed(line).job.setups[0].operations]
    assert FLOOR in steps
    tight = routed(line, 6)
    assert FLOOR not in [one.name for one in tight.job.setups[0].operations]
    assert names_of(tight, "finish_bore")
    assert len(names_of(tight, "groove")) == 2
