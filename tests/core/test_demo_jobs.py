"""The demo jobs as they ship: each goes from blank to finished part, and together they show every way of cutting."""

from functools import cache

import pytest

from tests.support.kept import plan_sides, prove_plan
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import CutGroove, CutThread, DrillHole, Job, RoughBore, RoughOd
from toreuma.core.model.tool import BoringTool, Drill, FormTool, GroovingTool, Tap
from toreuma.core.plan import Plan
from toreuma.core.prove import Proof
from toreuma.core.units import UNITS
from toreuma.shipped.library import demo_job, demo_names, dialect

ALL = [(name, side) for name in demo_names() for side in range(len(demo_job(name).setups))]


@cache
def proved(name: str) -> tuple[tuple[Plan, Proof], ...]:
    return tuple((planned, prove_plan(planned, dialect("system-a"))) for planned in plan_sides(demo_job(name)))


def jobs() -> list[Job]:
    return [demo_job(name) for name in demo_names()]


def operations() -> list[tuple[Job, object]]:
    return [(job, op) for job in jobs() for setup in job.setups for op in setup.operations]


@pytest.mark.parametrize(("name", "side"), ALL)
def test_it_is_proved(name: str, side: int) -> None:
    planned, proof = proved(name)[side]
    assert planned.operations
    assert all(one.motions for one in planned.operations)
    assert proof.gouge_um <= 2
    assert (proof.leftover_um, proof.contacts) == (0, ())
    errors = [f.what for f in (*planned.all_findings, *proof.findings) if f.severity == "error"]
    assert errors == []
    assert all(thread.ok for thread in proof.threads)
    assert all(size.ok for size in proof.sizes if size.cut)


def test_what_one_side_leaves_the_other_cuts() -> None:
    """On the second side nothing of a turned surface is left that has limits."""
    for name in demo_names():
        *_, (_, last) = proved(name)
        assert all(size.cut for size in last.sizes if size.limits_mm is not None), name


def test_every_kind_of_operation_is_there() -> None:
    assert {op.kind for _, op in operations()} == {  # type: ignore[attr-defined]
        name for name, kind in OPERATIONS.items() if not kind.only_read
    }


def test_every_way_of_roughing_is_there() -> None:
    ways = [op for _, op in operations() if isinstance(op, RoughOd)]
    assert {op.pattern for op in ways} == {"along_z", "along_x", "contour", "pull", "plunge"}
    assert any(op.varied for op in ways)
    assert any(op.chip_break_mm for op in ways)
    assert any(op.from_z_mm is not None for op in ways)


def test_every_cycle_of_the_control_is_there() -> None:
    written = {(op.kind, getattr(op, "pattern", ""), op.written) for _, op in operations() if hasattr(op, "written")}  # type: ignore[attr-defined]
    wanted = {
        ("face", "", "passes"), ("rough_od", "along_z", "whole"), ("rough_od", "along_x", "whole"),
        ("finish_od", "", "whole"), ("rough_bore", "", "whole"), ("drill", "", "whole"), ("groove", "", "whole"),
        ("thread", "", "whole"), ("thread", "", "passes"),
    }  # fmt: skip
    assert wanted <= written


def test_every_kind_of_hole_is_there() -> None:
    drills = [job.tool(op.tool) for job, op in operations() if isinstance(op, DrillHole)]
    assert {"spot", "centre", "step", "flat", "twist", "spade"} <= {
        one.form for one in drills if isinstance(one, Drill)
    }
    assert any(isinstance(job.tool(op.tool), Tap) for job, op in operations())  # type: ignore[attr-defined]


def test_every_kind_of_groove_is_there() -> None:
    cut = [(job, op) for job, op in operations() if isinstance(op, CutGroove)]
    features = {
        (job.part.features[op.feature].kind, getattr(job.part.features[op.feature], "side", "")) for job, op in cut
    }
    assert {("groove", "outside"), ("groove", "inside"), ("relief", "outside"), ("face_groove", "")} <= features
    assert any(len(op.tools) > 1 for _, op in cut)
    assert any(isinstance(job.tool(op.tool), FormTool) for job, op in cut)
    assert any(getattr(job.part.features[op.feature], "wall_deg", 0) > 10 for job, op in cut)


def test_every_kind_of_thread_is_there() -> None:
    threads = [op for _, op in operations() if isinstance(op, CutThread)]
    assert any(op.form.starts > 1 for op in threads)
    assert any(op.form.left_hand for op in threads)
    assert any(op.form.taper for op in threads)
    assert {op.form.flank_deg for op in threads} >= {30.0, 55.0, 60.0}


def test_every_way_the_part_comes_off_is_there() -> None:
    assert {op.taken for _, op in operations() if op.kind == "part_off"} == {"falls", "caught", "picked"}  # type: ignore[attr-defined]
    assert any(op.centre_back for _, op in operations())  # type: ignore[attr-defined]
    backs = {tool.id for job in jobs() for tool in job.tools if isinstance(tool, BoringTool) and tool.bar.back}
    assert any(op.tool in backs for _, op in operations() if isinstance(op, RoughBore))
    assert any(isinstance(op, RoughBore) for _, op in operations())
    assert any(isinstance(tool, GroovingTool) and tool.where == "face" for job in jobs() for tool in job.tools)


@pytest.mark.parametrize("name", demo_names())
def test_a_number_that_is_read_is_the_one_that_cuts(name: str) -> None:
    """What a person reads is what code computes with, in the unit that is declared for it."""
    for planned, _ in proved(name):
        for one in planned.operations:
            fed = [motion.feed for motion in one.motions if motion.feed is not None and not motion.per_minute]
            if fed:
                nearest = min(fed, key=lambda feed: abs(feed - (one.figures.feed_mm_rev or 0.0)))
                assert one.figures.feed_mm_rev == pytest.approx(nearest, abs=0.003), one.operation.kind
            for figure, evidence in one.reasons.items():
                assert evidence.unit == figure.unit, (one.operation.kind, figure)
                if figure.field and one.motions:
                    there = getattr(one.figures, figure.field)
                    assert there == pytest.approx(evidence.number), (one.operation.kind, figure)


@pytest.mark.parametrize("name", demo_names())
def test_every_number_has_a_unit_that_can_be_read(name: str) -> None:
    for planned, _ in proved(name):
        for one in planned.operations:
            for key, evidence in one.reasons.items():
                units = {evidence.unit, *(i.unit for i in evidence.inputs), *(limit.unit for limit in evidence.limits)}
                assert units <= set(UNITS), (one.operation.kind, key, units - set(UNITS))
