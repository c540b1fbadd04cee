"""Threads as operations: measured on the piece, divided into passes, kept off shoulders; taps and their depth."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from tests.support.kept import plan
from tests.support.long import everyday
from tests.support.routes import proof_of, tool_of, turned_job
from toreuma.core.cutting.infeed import Tip, first_depth_mm, infeed, pass_count
from toreuma.core.dialect import Dialect
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import CutThread, DrillHole, Job, TapHole
from toreuma.core.model.feature import AxialHole, Relief, ThreadFeature
from toreuma.core.model.part import Element
from toreuma.core.model.tool import ThreadingTool
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.post import post
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.form import form_of
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import materials
from toreuma.shipped.standards import thread_tables

STEEL = materials()["C45"]


def threaded(
    name: str, tool: str, side: str = "outside", length: float = 20.0, relieved: bool = True, **changes: object
) -> Job:
    """A bush turned to the middle of the crest's limits, with a thread from its front, and a relief outside."""
    thread = thread_of(name, thread_tables())
    form = form_of(thread, side)  # type: ignore[arg-type]
    crest = sum(form.crest_d_mm) / 2
    threader = tool_of(tool, 1)
    feature = ThreadFeature(side=side, designation=name, from_z_mm=0.0, length_mm=length)  # type: ignore[arg-type]
    relief = (
        ()
        if not relieved
        else (Relief(form="thread", z_mm=-40.0, length_mm=40.0 - length, depth_mm=3.0, radius_mm=1.0),)
    )
    features = (feature, *relief) if side == "outside" else (feature,)
    bore, outer = (40.0, crest) if side == "outside" else (crest, 90.0)
    job = turned_job(features, (threader,), bore_d=bore, neck_d=outer, cut=features[1:])
    operation = CutThread(id="t", tool=threader.id, feature=0, form=form, **changes)
    return job.with_setup(operations=(operation,))


def cut_of(job: Job) -> OperationPlan:
    return plan(job).operations[0]


@pytest.mark.parametrize("infeed_kind", ["modified", "radial", "flank", "alternating"])
@pytest.mark.parametrize(
    ("name", "tool", "side"),
    [
        ("M60x2-6g", "TE 2 60F", "outside"),
        ("M48x1.5-6H", "TI 1.5 60F", "inside"),
        ("M64x3-6g", "TE 1.75-3 60P", "outside"),
    ],
)
def test_the_pitch_diameter_on_the_piece_is_the_middle_of_its_limits(
    name: str, tool: str, side: str, infeed_kind: str
) -> None:
    proof = proof_of(threaded(name, tool, side, infeed=infeed_kind))
    made = proof.threads[0]
    assert made.ok
    assert made.pitch_d_mm == pytest.approx(sum(made.limits_mm) / 2, abs=0.003)
    assert (proof.gouge_um <= 2, proof.contacts) == (True, ())


@pytest.mark.parametrize(("starts", "name"), [(2, "M60x2-6g"), (3, "M60x2-6g"), (1, "M60x2 LH")])
def test_multi_start_and_left_hand(starts: int, name: str) -> None:
    form = form_of(thread_of(name, thread_tables()), "outside").changed(starts=starts)
    job = threaded("M60x2-6g", "TE 2 60F", length=20.0)
    feature = job.part.features[0].changed(designation=name)
    part = job.part.changed(features=(feature, *job.part.features[1:]))
    job = job.changed(part=part).with_operation("t", lambda op: op.changed(form=form))
    moves = [m for m in cut_of(job).motions if m.in_step]
    assert all(m.feed == pytest.approx(form.lead_mm) for m in moves)
    away = [m.end[0] > m.start[0] for m in moves]
    assert all(away) if form.left_hand else not any(away)
    begins = {
        round(m.start[0] % form.lead_mm, 3) for m in (moves[len(moves) * i // starts - 1] for i in range(1, starts + 1))
    }
    assert len(begins) == starts
    proof = proof_of(job)
    assert (proof.contacts, proof.gouge_um <= 2) == ((), True)
    assert proof.threads[0].ok


def test_a_pointed_tooth_does_not_cut_a_trapezoidal_thread() -> None:
    form = form_of(thread_of("Tr60x14P7", thread_tables()), "outside")
    job = threaded("M60x2-6g", "TE 2 60F", length=20.0).with_operation("t", lambda op: op.changed(form=form))
    tool = job.tools[0]
    assert isinstance(tool, ThreadingTool)
    fitting = tool.insert.changed(profile_deg=30.0, pitch_mm=(7.0, 7.0))
    planned = cut_of(job.changed(tools=(tool.changed(insert=fitting),)))
    assert [finding.code for finding in planned.findings] == ["thread.tooth"]


def test_a_left_hand_thread_needs_a_relief_to_begin_in() -> None:
    form = form_of(thread_of("M60x2 LH", thread_tables()), "outside")
    job = threaded("M60x2-6g", "TE 2 60F", relieved=False).with_operation("t", lambda op: op.changed(form=form))
    planned = cut_of(job)
    assert [finding.code for finding in planned.findings] == ["thread.relief"]
    assert planned.motions == ()


def test_a_second_start_stays_off_the_shoulder_too() -> None:
    """Without a relief every start is drawn out before the shoulder."""
    job = threaded("M60x2-6g", "TE 2 60F", length=34.0, relieved=False)
    two = job.with_operation("t", lambda op: op.changed(form=op.form.changed(starts=2)))  # type: ignore[union-attr]
    reach = min(m.end[0] for m in cut_of(job).motions if m.in_step)
    assert min(m.end[0] for m in cut_of(two).motions if m.in_step) >= min(reach, -40.0 + 1.9) - 1e-6
    assert proof_of(two).contacts == ()


def test_a_pass_too_deep_comes_out_of_limits() -> None:
    """The proof measures: cut a tenth deeper, the thread is refused."""
    job = threaded("M60x2-6g", "TE 2 60F")
    form = job.operations[0].form  # type: ignore[union-attr]
    low, high = form.pitch_d_mm
    wrong = form.changed(pitch_d_mm=(low - 0.4, high - 0.4))
    deep = job.with_operation("t", lambda op: op.changed(form=wrong))
    from tests.support.kept import prove
    from toreuma.core.read import read
    from toreuma.shipped.library import dialect

    language = dialect("system-a")
    planned = plan(deep)
    program = read(post(planned, language).text, language, planned.scene.reference)
    proof = prove(job, planned.scene, program, planned.declared)
    assert not proof.threads[0].ok
    assert "thread.size" in {finding.code for finding in proof.findings}


def test_the_program_says_each_pass_and_reads_back_the_same_as_its_cycles(language: Dialect) -> None:
    plain, cycled = threaded("M60x2-6g", "TE 2 60F"), threaded("M60x2-6g", "TE 2 60F", written="passes")
    text = post(plan(cycled), language).text
    assert text.count("G92") == len(cut_of(cycled).cuts.passes)
    assert "G32" in post(plan(plain), language).text
    one, other = proof_of(plain), proof_of(cycled)
    assert one.final.symmetric_difference(other.final).area < 1e-4
    assert other.threads[0].ok


@given(
    depth=st.floats(0.2, 3.0),
    count=st.integers(2, 20),
    kind=st.sampled_from(["modified", "radial", "flank", "alternating"]),
)
def test_equal_chip_area_is_equal(depth: float, count: int, kind: str) -> None:
    tipped = [one.area_mm2 for one in infeed(depth, 60.0, count, kind, "area", STEEL, Tip(0.2 * depth))]  # type: ignore[arg-type]
    assert max(tipped) == pytest.approx(min(tipped), rel=1e-6)
    passes = infeed(depth, 60.0, count, kind, "area", STEEL)  # type: ignore[arg-type]
    areas = [one.area_mm2 for one in passes]
    assert max(areas) == pytest.approx(min(areas), rel=1e-6)
    assert passes[-1].depth_mm == pytest.approx(depth)
    assert passes[-1].shift_mm == pytest.approx(0.0, abs=1e-12)
    assert sum(areas) == pytest.approx(depth**2 * math.tan(math.radians(30)), rel=1e-6)


def test_the_first_pass_is_capped_and_tough_metals_get_more() -> None:
    for pitch in (0.8, 1.5, 2.0, 4.0):
        depth = 0.6134 * pitch
        count = pass_count(depth, pitch, STEEL)
        assert infeed(depth, 60, count, "radial", "area", STEEL)[0].depth_mm <= first_depth_mm(pitch, STEEL) + 1e-9
        assert pass_count(depth, pitch, materials()["1.4404"]) >= count


def test_typed_depths_and_spring_passes() -> None:
    job = threaded("M60x2-6g", "TE 2 60F", division="typed", typed_mm=(0.9, 0.3, 0.6, 9.0), spring_passes=2)
    depths = [round(one.depth_mm, 3) for one in cut_of(job).cuts.infeed if not one.spring]
    full = cut_of(job).reasons["ap"].number
    assert depths == [0.3, 0.6, 0.9, round(full, 3)]
    assert sum(one.spring for one in cut_of(job).cuts.infeed) == 2


def test_cutting_again_from_a_size_over_wires() -> None:
    job = threaded("M60x2-6g", "TE 2 60F")
    wanted = sum(thread_of("M60x2-6g", thread_tables()).wires.over.__dict__.values()) / 2
    again = job.with_operation("t", lambda op: op.changed(measured_over_wires_mm=wanted + 0.06, spring_passes=0))
    planned = cut_of(again)
    assert planned.reasons["again"].number == pytest.approx(0.03, abs=1e-6)
    assert len(planned.cuts.passes) == 1


def test_what_is_wrong_with_a_thread_is_told() -> None:
    codes = lambda job: {finding.code for finding in cut_of(job).findings}  # noqa: E731
    assert "thread.pitch" in codes(threaded("M60x1.5-6g", "TE 2 60F"))
    assert "thread.flank" in codes(threaded("M60x2-6g", "TE 2 60F").with_operation(
        "t", lambda op: op.changed(form=op.form.changed(flank_deg=55.0))))  # type: ignore[union-attr]  # fmt: skip
    thick = threaded("M60x2-6g", "TE 2 60F")
    element = thick.part.outside[1].changed(d_mm=60.4)
    part = thick.part.changed(outside=(thick.part.outside[0].changed(d_mm=60.4), element, *thick.part.outside[2:]))
    found = [f for f in cut_of(thick.changed(part=part)).findings if f.code == "thread.crest"]
    mended = found[0].cures[0].apply(thick.changed(part=part))
    assert "thread.crest" not in codes(mended)
    shoulder = threaded("M60x2-6g", "TE 2 60F", length=39.5, relieved=False)
    assert "thread.end" in codes(shoulder)
    wrong = thick.with_operation("t", lambda op: op.changed(feature=1))
    assert codes(wrong) == {"thread.none"}


def test_the_axis_limits_the_speed_of_a_coarse_thread() -> None:
    slow = threaded("M64x3-6g", "TE 1.75-3 60P")
    machine = slow.machine.changed(rapid_z_mm_min=1500.0)
    n = cut_of(slow.changed(machine=machine)).reasons["n"]
    assert n.number == pytest.approx(250.0)
    assert n.bit is not None
    assert "axis" in n.bit.label


def tapped(depth: float | None, thread_length: float | None, tap: str = "TP M8 C", **changes: object) -> Job:
    hole = AxialHole(d_mm=6.8, depth_mm=depth, thread="M8", thread_length_mm=thread_length)
    drill, one = tool_of("TD 6.8 HSS 118", 1), tool_of(tap, 3)
    job = turned_job((hole,), (drill, one), bore_d=0.0)
    return job.with_setup(operations=(DrillHole(id="d", tool=drill.id), TapHole(id="t", tool=one.id, **changes)))


def test_a_tap_counts_its_lead_in_and_comes_out_the_way_it_went(language: Dialect) -> None:
    job = tapped(24.0, 16.0)
    planned = plan(job).operations[1]
    assert {f.severity for f in planned.findings} <= {"note"}
    deepest = min(m.end[0] for m in planned.motions)
    assert deepest == pytest.approx(-(16.0 + 2.5 * 1.25))
    assert "G84" in post(plan(job), language).text
    proof = proof_of(job)
    assert (proof.gouge_um <= 2, proof.contacts) == (True, ())
    wall = proof.final.intersection(box(-15.0, 3.0, -2.0, 4.2))
    assert wall.area < 13.0 * 1.2 - 1.0  # teeth are cut out of the wall


def test_a_tap_that_would_bottom_is_refused() -> None:
    short = plan(tapped(17.0, 16.0)).operations[1]
    assert "tap.bottom" in {finding.code for finding in short.findings}
    through = plan(tapped(24.0, 16.0, "TP M8 B")).operations[1]
    assert "tap.chips" in {finding.code for finding in through.findings}
    other = plan(tapped(24.0, 16.0, "TP M6 C")).operations[1]
    assert "tap.other" in {finding.code for finding in other.findings}
    floating = plan(tapped(24.0, None, rigid=False)).operations[1]
    rigid = plan(tapped(24.0, None)).operations[1]
    assert min(m.end[0] for m in floating.motions) > min(m.end[0] for m in rigid.motions)


def box(*bounds: float):  # type: ignore[no-untyped-def]
    from toreuma.core.geometry.region import box as region

    return region(*bounds)


@pytest.mark.parametrize(
    ("name", "tool", "side"),
    [
        ("Tr60x4", "TE 4 30F", "outside"),
        ("Tr60x6", "TE 6 30F", "outside"),
        ("Tr60x8(P4)", "TE 4 30F", "outside"),
        ("Tr64x4", "TI 4 30F", "inside"),
        ("2 1/2-5 ACME", "TE 5TPI 29F", "outside"),
    ],
)
def test_a_thread_with_a_flat_root_is_cut_by_a_tooth_with_a_flat(name: str, tool: str, side: str) -> None:
    proof = proof_of(threaded(name, tool, side, length=24.0))
    (made,) = proof.threads
    assert made.ok
    assert made.pitch_d_mm == pytest.approx(sum(made.limits_mm) / 2, abs=0.02)
    assert (proof.contacts, proof.gouge_um <= 2) == ((), True)


def test_the_flat_goes_to_the_root_of_the_standard() -> None:
    """Tr60x4: d3 = d - P - 2 ac = 55.5 mm, a little less for the allowance of the pitch diameter."""
    planned = cut_of(threaded("Tr60x4", "TE 4 30F", length=24.0))
    deepest = min(motion.end[1] for motion in planned.motions)
    assert 55.5 - 0.4 < 2 * deepest < 55.5 + 0.01


def test_a_flat_takes_no_larger_chip_than_a_point_would() -> None:
    flat, cap = Tip(0.1, 1.33), first_depth_mm(4.0, STEEL)
    count = pass_count(2.25, 4.0, STEEL, 30.0, flat)
    largest = max(one.area_mm2 for one in infeed(2.25, 30.0, count, "radial", "area", STEEL, flat))
    assert largest <= cap**2 * math.tan(math.radians(30)) + 1e-9
    assert count > pass_count(2.25, 4.0, STEEL)


@pytest.mark.parametrize(
    ("name", "tool", "side"),
    [
        ("NPT 2", "TE 1.75-3 60P", "outside"),
        ("R 1 1/2", "TE 1.25-2.5 55P", "outside"),
        ("Rc 1 1/2", "TI 1.25-2.5 55P", "inside"),
    ],
)
def test_a_taper_thread_has_its_size_in_the_gauge_plane(name: str, tool: str, side: str) -> None:
    job = tapered(name, tool, side)
    (operation,) = job.operations
    assert isinstance(operation, CutThread)
    planned = cut_of(job)
    long = [m for m in planned.motions if m.in_step and abs(m.end[0] - m.start[0]) > 8]
    assert long
    for motion in long:
        assert motion.end[0] < motion.start[0]
        grown = 2 * (motion.end[1] - motion.start[1]) / (motion.start[0] - motion.end[0])
        assert grown == pytest.approx(1 / 16 if side == "outside" else -1 / 16, rel=1e-6)
    proof = proof_of(job)
    (made,) = proof.threads
    assert made.pitch_d_mm == pytest.approx(sum(operation.form.pitch_d_mm) / 2, abs=0.02)
    assert (made.ok, proof.contacts) == (True, ())


def tapered(name: str, tool: str, side: str) -> Job:
    """A bush whose end is turned or bored to the cone of the crest."""
    thread = thread_of(name, thread_tables())
    form = form_of(thread, side)  # type: ignore[arg-type]
    crest, length = sum(form.crest_d_mm) / 2, 16.0
    small = crest - form.gauge_mm / 16 if side == "outside" else crest
    threader = tool_of(tool, 1)
    job = threaded("M60x2-6g" if side == "outside" else "M64x2-6H", tool, side, length=length, relieved=False)
    far = small + (40.0 if side == "outside" else -70.0) / 16
    cone = (Element(z_mm=0, d_mm=small), Element(z_mm=-(40.0 if side == "outside" else 70.0), d_mm=far))
    part = job.part
    part = part.changed(outside=(*cone, *part.outside[2:])) if side == "outside" else part.changed(inside=cone)
    feature = ThreadFeature(side=side, designation=name, from_z_mm=0.0, length_mm=length)  # type: ignore[arg-type]
    ring = tuple(
        (float(z), float(r))
        for z, r in shapely.get_coordinates(build_part(part.changed(features=())).region.exterior)[:-1]
    )
    job = job.changed(part=part.changed(features=(feature,)), stock=job.stock.changed(outline=ring))
    return job.with_setup(operations=(CutThread(id="t", tool=threader.id, feature=0, form=form),))


def test_a_sharp_end_is_told_and_mended() -> None:
    job = threaded("M60x2-6g", "TE 2 60F", length=20.0)
    (sharp,) = [finding for finding in cut_of(job).findings if finding.code == "thread.edge"]
    assert sharp.at == (0.0, pytest.approx(30.0, abs=0.2))
    mended = sharp.cures[0].apply(job)
    assert mended.part.outside[0].corner is not None
    assert mended.part.outside[0].corner.size_mm == pytest.approx(1.3, abs=0.1)
    assert "thread.edge" not in {finding.code for finding in cut_of(mended).findings}


def test_both_ends_of_a_thread_that_runs_through() -> None:
    job = threaded("M48x1.5-6H", "TI 1.5 60F", "inside", length=70.0, relieved=False)
    places = {finding.at[0] for finding in cut_of(job).findings if finding.code == "thread.edge" and finding.at}
    assert places == {0.0, -70.0}


def test_a_thread_that_would_begin_in_metal_is_not_cut() -> None:
    """Behind a collar that stands where the insert would come down: an error, and nothing of it in the program."""
    job = threaded("M60x2-6g", "TE 2 60F")
    thread = job.part.features[0].changed(from_z_mm=-12.0, length_mm=10.0)
    outline = [(0.0, 20.0), (0.0, 45.0), (-12.0, 45.0), (-12.0, 30.0), (-60.0, 30.0), (-60.0, 20.0)]
    stock = {"kind": "free", "material": job.stock.material, "face_allowance_mm": 0.0, "outline": tuple(outline)}
    behind = job.changed(part=job.part.changed(features=(thread, *job.part.features[1:])), stock=stock)
    made = cut_of(behind)
    assert [one.code for one in made.findings if one.severity == "error"] == ["thread.room"]
    assert not made.motions
    clear = behind.changed(stock={**stock, "outline": ((0.0, 20.0), (0.0, 29.9), (-60.0, 29.9), (-60.0, 20.0))})
    assert cut_of(clear).motions


@pytest.mark.parametrize("deep", everyday([13.0, 13.2, 13.5, 13.77], 13.0, 13.77))
def test_a_tap_comes_out_in_the_thread_it_has_cut(deep: float) -> None:
    """However many turns it made on its way in, the spindle turns them back: the crests of the core stay."""
    job, _ = new_job("head", "mm", "C45", "slant-bed", f"30 x 40; hole M6 x {deep} x 17")
    assert Engine().route(job).state == "finished"


def test_a_deep_thread_gets_a_tap_whose_shank_follows() -> None:
    """A strong shank of the thread's own size does not go into its hole."""
    job, _ = new_job("head", "mm", "C45", "slant-bed", "50 x 50; hole M10 x 27 x 32")
    found = Engine().route(job)
    (tap,) = [one for one in found.job.tools if one.kind == "tap"]
    assert tap.shank_d_mm < 8.5
    assert found.state == "finished"
