"""What is remembered is true: with memory everything comes out as it does afresh, whatever was asked before."""

import random
from dataclasses import dataclass, replace

import numpy as np
import pytest

from tests.support.assertions import assert_same_plan, assert_same_program, assert_same_proof
from tests.support.edits import edited
from tests.support.long import everyday
from toreuma.core.geometry.region import box
from toreuma.core.memo import Memo
from toreuma.core.model import Centre, Job
from toreuma.core.motion import Motion
from toreuma.core.plan import Plan, plan
from toreuma.core.post import post
from toreuma.core.read import read
from toreuma.engine.proving import prove_read
from toreuma.shipped.library import demo_job, demo_names, dialect

PAIRS = 2


def closes_with_memory(job: Job, memo: Memo) -> Plan:
    """The job planned, read and proved with memory and without, and found the same."""
    kept, fresh = plan(job, memo), plan(job, Memo())
    assert_same_plan(kept, fresh)
    language = dialect(job.program.dialect)
    if any(operation.motions for operation in fresh.operations):
        text = post(fresh, language).text
        reference = fresh.scene.reference
        program = read(text, language, reference, memo)
        assert_same_program(program, read(text, language, reference))
        assert_same_proof(prove_read(kept, program, memo=memo), prove_read(fresh, program))
    return fresh


@pytest.mark.parametrize("name", everyday(demo_names(), "spear"))
def test_planned_with_memory_is_planned_afresh(name: str) -> None:
    source, memo = random.Random(f"edits of {name}"), Memo()
    start = demo_job(name)
    plan(start, memo)
    for _ in range(PAIRS):
        once = edited(start, source)
        closes_with_memory(once, memo)
        closes_with_memory(edited(once, source), memo)


def test_a_centre_put_in_closes_the_way_to_a_groove_in_the_face() -> None:
    memo = Memo()
    job = face_grooved()
    open_way = plan(job, memo)
    assert open_way.operations[-1].motions
    supported = job.with_setup(centre=Centre(d_mm=60.0))
    kept, fresh = plan(supported, memo), plan(supported, Memo())
    assert_same_plan(kept, fresh)
    assert not kept.operations[-1].motions


def test_the_clearance_kept_from_the_hold_counts_in_what_is_reached() -> None:
    memo, job = Memo(), demo_job("gate-spindle")
    plan(job, memo)
    wide = job.with_setup(hold=job.setup.hold.changed(tool_clearance_mm=job.setup.hold.tool_clearance_mm + 3.0))
    assert_same_plan(plan(wide, memo), plan(wide, Memo()))


class TestDigest:
    """Keys are made from the very arguments."""

    def test_equal_content_is_computed_once(self) -> None:
        memo = Memo()
        assert memo.of(pair, 1, 2) is memo.of(pair, 1, 2)
        assert (memo.hits, memo.misses) == (1, 1)

    @pytest.mark.parametrize("change", ["region", "array", "number", "field"])
    def test_whatever_differs_is_computed_again(self, change: str) -> None:
        memo, given = Memo(), Things(box(0, 0, 1, 1), np.zeros(3), 1.0)
        other = {
            "region": replace(given, region=box(0, 0, 1, 1.0000001)),
            "array": replace(given, array=np.array([0.0, 0.0, 1e-12])),
            "number": given,
            "field": replace(given, number=2.0),
        }[change]
        memo.of(seen, given, 1)
        assert memo.of(seen, other, 2 if change == "number" else 1) is other

    def test_what_sees_more_than_its_arguments_is_refused(self) -> None:
        with pytest.raises(TypeError, match="more than its arguments"):
            Memo().of(lambda: 1)
        with pytest.raises(TypeError, match="more than its arguments"):
            Memo().of(Memo().digest, 1)

    def test_what_has_no_content_is_refused(self) -> None:
        with pytest.raises(TypeError, match="no content"):
            Memo().digest(object())

    def test_a_thread_is_told_from_a_straight_cut_on_the_same_way(self) -> None:
        job = demo_job("spear")
        memo = Memo()
        planned = plan(job, memo)
        thread = next(one for one in planned.operations if one.operation.kind == "thread")
        coarser = tuple(replace(one, feed=one.feed * 2) if one.in_step and one.feed else one for one in thread.motions)
        assert motions_left(memo, job, planned, coarser) != motions_left(memo, job, planned, thread.motions)


@dataclass(frozen=True)
class Things:
    region: object
    array: np.ndarray
    number: float


def pair(one: int, other: int) -> tuple[int, int]:
    return one, other


def seen(things: Things, times: int) -> Things:
    return things


def motions_left(memo: Memo, job: Job, planned: Plan, motions: tuple[Motion, ...]) -> float:
    from toreuma.core.geometry.tool_shapes import shape_of
    from toreuma.core.simulate.removal import after_cutting, cuts_only

    tool = job.tool(next(one for one in planned.operations if one.operation.kind == "thread").operation.tool)
    assert tool is not None
    return float(memo.of(after_cutting, planned.scene.stock, cuts_only(motions), shape_of(tool), 0.001).area)


def face_grooved() -> Job:
    from tests.support.routes import tool_of, turned_job
    from toreuma.core.model import CutGroove
    from toreuma.core.model.feature import FaceGroove
    from toreuma.shipped.library import catalogue

    name = next(one.name for one in catalogue().tools if getattr(one, "where", "") == "face")
    blade = tool_of(name, 1)
    low, high = blade.face_range_mm if hasattr(blade, "face_range_mm") else (30.0, 60.0)
    feature = FaceGroove(d_mm=(low + high) / 2, width_mm=2 * blade.blade.width_mm, depth_mm=3.0)
    job = turned_job((feature,), (blade,), bore_d=0.0)
    return job.with_setup(operations=(CutGroove(id="groove", tool="T1", feature=0),))
