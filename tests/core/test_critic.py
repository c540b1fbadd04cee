"""The order looked at again: each rule finds what it is for, its cure mends it, and a good order is left alone."""

import pytest

from toreuma.core.memo import Memo
from toreuma.core.model import CutGroove, FinishOd, Job
from toreuma.core.model.feature import Groove
from toreuma.core.plan import plan
from toreuma.core.plan.critic import critique
from toreuma.io.library import catalogue, demo_job
from toreuma.io.pipeline import follow


def told(job: Job) -> dict[str, list]:  # type: ignore[type-arg]
    found: dict[str, list] = {}  # type: ignore[type-arg]
    for finding in critique(plan(job)):
        found.setdefault(finding.code, []).append(finding)
    return found


def reordered(job: Job, *ids: str) -> Job:
    return job.with_setup(operations=tuple(op for name in ids for op in job.operations if op.id == name))


def test_a_good_order_is_left_alone(spear: Job) -> None:
    assert told(spear) == {}


def test_a_tool_that_comes_back_for_nothing() -> None:
    hub = demo_job("runner-hub")
    found = told(hub)["order.change"][0]
    assert hub.machine.tool_change_s == pytest.approx(float(found.what.split(": ")[1].split(" s")[0]), abs=0.06)
    mended = found.cures[0].apply(hub)
    assert "order.change" not in told(mended)
    before, after = (follow(job, Memo()).timeline.total_s for job in (hub, mended))
    assert after < before
    assert {op.id for op in mended.operations} == {op.id for op in hub.operations}


def test_drilling_before_facing() -> None:
    hub = demo_job("runner-hub")
    face, drill = hub.operations[0], hub.operations[1]
    assert (face.kind, drill.kind) == ("face", "drill")
    wrong = hub.with_setup(operations=(drill, face, *hub.operations[2:]))
    found = told(wrong)["order.unfaced"][0]
    assert "2.00 mm" in found.what
    assert "order.unfaced" not in told(found.cures[0].apply(wrong))


def test_a_groove_beside_a_finished_thread_throws_its_burr_into_it() -> None:
    stud = demo_job("vane-stud")
    groove = next(op for op in stud.operations if isinstance(op, CutGroove))
    thread = next(op for op in stud.operations if op.kind == "thread")
    rest = [op.id for op in stud.operations if op.id not in (groove.id, thread.id, "op10")]
    part_off = next(op.id for op in stud.operations if op.kind == "part_off")
    rest.remove(part_off)
    wrong = reordered(stud, *rest, thread.id, groove.id, part_off)
    found = told(wrong)["order.burr"][0]
    mended = found.cures[0].apply(wrong)
    ids = [op.id for op in mended.operations]
    assert ids.index(groove.id) < ids.index(thread.id)
    assert "order.burr" not in told(mended)


def test_a_neck_cut_early_bends_what_is_finished_after_it(spear: Job) -> None:
    blade = next(t for t in catalogue().tools if t.name == "GO 4 18").changed(id="T9", station=6)
    neck = Groove(z_mm=-70.0, width_mm=5.0, d_mm=7.0)
    part = spear.part.changed(features=(neck,))
    cut = CutGroove(id="neck", tool="T9", feature=0)
    late = spear.changed(part=part, tools=(*spear.tools, blade)).with_setup(
        operations=(*spear.operations[:-1], cut, spear.operations[-1])
    )
    assert "order.bend" not in told(late)
    finish = next(op for op in late.operations if isinstance(op, FinishOd))
    rest = [op for op in late.operations if op.id not in ("neck", finish.id)]
    early = late.with_setup(operations=(*rest[:-1], cut, finish, rest[-1]))
    found = told(early)["order.bend"][0]
    assert float(found.what.split("piece ")[1].split(" µm")[0]) > 5
    assert "order.bend" not in told(found.cures[0].apply(early))


def test_two_tools_that_meet_on_a_surface(spear: Job) -> None:
    finish = next(op for op in spear.operations if isinstance(op, FinishOd))
    first = finish.changed(to_z_mm=-30.0, tool="T1")
    second = finish.changed(id="more", from_z_mm=-30.0)
    rest = [op for op in spear.operations if op.id != finish.id]
    job = spear.with_setup(operations=(*rest[:-1], first, second, rest[-1]))
    found = told(job)["order.joint"][0]
    assert "Ø 22.00 mm" in found.what
    one_tool, at_edge = (cure.apply(job) for cure in found.cures)
    assert "order.joint" not in told(one_tool)
    assert "order.joint" not in told(at_edge)
    assert isinstance(at_edge.operation("more"), FinishOd)


def test_drills_are_not_moved_in_front_of_what_they_need() -> None:
    """Nothing that has to come first is ever passed by a cure."""
    for name in ("runner-hub", "seat-ring", "sheave", "vane-stud"):
        job = demo_job(name)
        for finding in critique(plan(job)):
            for cure in finding.cures:
                kinds = [op.kind for op in cure.apply(job).operations]
                if "rough_bore" in kinds and "drill" in kinds:
                    assert kinds.index("drill") < kinds.index("rough_bore")
                if "rough_od" in kinds and "finish_od" in kinds:
                    assert kinds.index("rough_od") < kinds.index("finish_od")
