"""The order looked at again: each rule finds what it is for, its cure mends it, and a good order is left alone."""

import math
import re

import pytest

from tests.support.engine import followed
from tests.support.kept import plan, plan_sides
from tests.support.routes import bored_job, boring_tool
from toreuma.core.critic import critique
from toreuma.core.critic.opened_early import interrupted_cut
from toreuma.core.model import CutGroove, FinishOd, Job, PolygonBar, SecondHold
from toreuma.core.model.feature import Groove
from toreuma.core.model.part import Element
from toreuma.shipped.library import catalogue, demo_job


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
    """What is told is what the other order takes less, changes and cuts together."""
    ring = demo_job("seat-ring")
    found = told(ring)["order.change"][0]
    saves = float(found.what.split("saves ")[1].removesuffix(" s"))
    mended = found.cures[0].apply(ring)
    before, after = (followed(job).timeline.total_s for job in (ring, mended))
    assert before - after == pytest.approx(saves, abs=0.6)
    assert {op.id for op in mended.operations} == {op.id for op in ring.operations}


def test_an_order_that_cuts_longer_than_it_saves_is_not_told() -> None:
    """The roughing cycle of the hub goes on to the axis where no hole is drilled yet: of the tool change it leaves half
    a second."""
    hub = demo_job("runner-hub")
    assert [op.kind for op in hub.operations[:3]] == ["face", "drill", "rough_od"]
    assert hub.operations[0].tool == hub.operations[2].tool
    assert "order.change" not in told(hub)


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
    assert "step of 20 µm" in found.what
    one_tool, at_edge, as_one = (cure.apply(job) for cure in found.cures)
    for mended in (one_tool, at_edge, as_one):
        assert "order.joint" not in told(mended)
    assert isinstance(at_edge.operation("more"), FinishOd)
    assert as_one.operation("more") is None
    doubtful = job.changed(conditions=job.conditions.changed(offset_error_um=25.0))
    assert "step of 50 µm" in told(doubtful)["order.joint"][0].what


def test_two_bars_that_meet_in_a_bore() -> None:
    job = bored_job((Element(z_mm=0, d_mm=40.0), Element(z_mm=-50, d_mm=40.0)))
    first = next(op for op in job.operations if op.kind == "finish_bore").changed(to_z_mm=-20.0)
    other = boring_tool("A16R-SCLCR09", "CCMT09T304-fine", 3)
    second = first.changed(id="more", tool="T3", from_z_mm=-20.0, to_z_mm=None)
    job = job.changed(tools=(*job.tools, other)).with_setup(operations=(*job.operations[:-1], first, second))
    found = told(job)["order.joint"][0]
    assert "Ø 40.00 mm" in found.what
    assert all("order.joint" not in told(cure.apply(job)) for cure in found.cures)


def test_corners_of_a_bar_are_taken_off_before_it_is_faced() -> None:
    union = demo_job("strainer-union")
    assert "order.hits" not in told(union)
    rough, face = union.operations[:2]
    assert (rough.kind, face.kind) == ("rough_od", "face")
    wrong = union.with_setup(operations=(face, rough, *union.operations[2:]))
    found = told(wrong)["order.hits"][0]
    stock, feed = wrong.stock, plan(wrong).operations[0].reasons["f"].number
    assert isinstance(stock, PolygonBar)
    corner = (stock.largest_d_mm - stock.across_mm) / 2
    assert int(found.what.split("hit ")[1].split(" times")[0]) == pytest.approx(6 * corner / feed, abs=1)
    mended = found.cures[0].apply(wrong)
    assert mended.operations == union.operations
    told_s = float(found.what.split(", ")[1].removesuffix(" s"))
    assert plan(wrong).times.total_s - plan(mended).times.total_s == pytest.approx(told_s, abs=0.051)


def test_a_face_that_is_round_already_is_no_interrupted_cut() -> None:
    union = demo_job("strainer-union")
    rough, face = union.operations[:2]
    wrong = union.with_setup(operations=(face, rough, *union.operations[2:]))
    after, before = (plan(job).of(face.id) for job in (union, wrong))
    assert after is not None
    assert before is not None
    assert after.reasons["vc"].number > 1.1 * before.reasons["vc"].number


def test_a_groove_cut_in_a_finished_bore_throws_its_burr_into_it() -> None:
    ring = demo_job("seat-ring")
    assert "order.burr" not in told(ring)
    ids = [op.id for op in ring.operations]
    groove, finish = ids.index("op6"), ids.index("op7")
    assert [ring.operations[i].kind for i in (groove, finish)] == ["groove", "finish_bore"]
    ids[groove], ids[finish] = ids[finish], ids[groove]
    wrong = reordered(ring, *ids)
    found = told(wrong)["order.burr"][0]
    bored = plan(wrong).of("op7")
    assert bored is not None
    assert f"{bored.times.cutting_s:.1f} s" in found.what
    assert [op.id for op in found.cures[0].apply(wrong).operations] == [op.id for op in ring.operations]


def test_the_second_hold_does_not_grip_what_is_finished_after_the_part_is_off(spear: Job) -> None:
    neck = next(index for index, element in enumerate(spear.part.outside) if element.name == "Guide")
    held = spear.changed(second_hold=SecondHold(element=neck, grip_length_mm=8.0, clearance_mm=1.0))
    assert "order.grip" not in told(held)
    finish = next(op for op in held.operations if isinstance(op, FinishOd))
    wrong = reordered(held, *[op.id for op in held.operations if op.id != finish.id], finish.id)
    found = told(wrong)["order.grip"][0]
    assert found.severity == "error"
    assert float(found.what.split("with ")[1].split(" µm")[0]) > 100
    assert "order.grip" not in told(found.cures[0].apply(wrong))


def test_a_centre_made_before_facing_comes_out_smaller() -> None:
    spindle = demo_job("gate-spindle")
    face, centre = spindle.operations[:2]
    wrong = spindle.with_setup(operations=(centre, face, *spindle.operations[2:]))
    found = told(wrong)["order.unfaced"][0]
    wanted = 2000 * spindle.stock.face_allowance_mm * math.tan(math.radians(30))
    assert float(found.what.split("comes out ")[1].split(" µm")[0]) == pytest.approx(wanted, abs=1)


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


@pytest.mark.long
def test_what_is_open_when_the_part_is_turned_round_is_seen_and_cut_behind_that_turning() -> None:
    hub = demo_job("runner-hub")
    found = told(hub)["order.other_side"][0]
    hits = re.search(r"(\d+) hits there", found.what)
    assert hits
    assert int(hits[1]) == pytest.approx(150, abs=15)
    sides = plan_sides(found.cures[0].apply(hub))
    assert interrupted_cut(sides[1].operations) == (0.0, 0)
    assert not [one for side in sides for one in side.all_findings if one.severity == "error"]
    assert [op.kind for op in sides[1].job.operations][-2:] == ["holes", "holes"]
    assert "order.other_side" not in {one.code for one in critique(sides[0])}
    # Flats alone cannot be cut from the other side: they are told, without a cure.
    blind = hub.part.features[0].changed(depth_mm=19.5)
    shallow = hub.changed(part=hub.part.changed(features=(blind, *hub.part.features[1:])))
    for finding in told(shallow).get("order.other_side", []):
        assert finding.severity == "note"
        assert finding.cures == ()
