"""Cycles of the control: what each makes, written from a plan, read back, and proved the same."""

import math
from itertools import pairwise

import pytest

from tests.core.test_drill import drilled
from tests.core.test_grooves_cut import grooved
from tests.core.test_threads_cut import tapered, threaded
from tests.support.kept import plan
from tests.support.long import everyday
from tests.support.routes import bored_job, proof_of
from toreuma.core.control_cycles import (
    faced_pass,
    groove_pecks,
    pattern_passes,
    rough_passes,
    thread_depths,
    thread_passes,
    turned_pass,
)
from toreuma.core.dialect import Dialect
from toreuma.core.geometry.elements import Arc, Line
from toreuma.core.model import Job
from toreuma.core.model.feature import FaceGroove, Groove
from toreuma.core.model.part import Element
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.read import Program, read
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import demo_job

CONTOUR = [Line((2.0, 5.0), (-10.0, 5.0)), Arc((-10.0, 5.0), (-13.0, 8.0), (-13.0, 5.0), True),
           Line((-13.0, 8.0), (-20.0, 11.0))]  # fmt: skip


def test_a_turning_pass_is_a_box() -> None:
    ends = [move.segment.end for move in turned_pass((2.0, 20.0), -30.0, 15.0)]
    assert ends == [(2.0, 15.0), (-30.0, 15.0), (-30.0, 20.0), (2.0, 20.0)]
    assert [move.how for move in faced_pass((2.0, 20.0), 1.0, 0.0)] == ["rapid", "feed", "feed", "rapid"]
    assert [move.segment.end for move in faced_pass((2.0, 20.0), 1.0, 0.0)][1] == (1.0, 0.0)


def test_roughing_goes_down_evenly_and_then_along_the_contour() -> None:
    made = rough_passes((2.0, 11.0), CONTOUR, 2.0, 0.5, 0.1, 0.4)
    levels = [m.segment.start[1] for m in made if m.how == "feed" and m.segment.end[1] == m.segment.start[1]]
    assert levels[:3] == pytest.approx([9.0, 7.0, 5.4])
    along = [move.segment for move in made if move.how == "feed"][-3:]
    assert [segment.end for segment in along] == [pytest.approx((z + 0.1, r + 0.4)) for z, r in
                                                  [(-10, 5), (-13, 8), (-20, 11)]]  # fmt: skip
    assert made[-1].segment.end == (2.0, 11.0)
    for a, b in pairwise(made):
        assert math.dist(a.segment.end, b.segment.start) < 1e-9


def test_passes_end_on_the_contour_that_is_left() -> None:
    """At 7 mm the quarter circle moved by (0.1, 0.4) is met at z = -12.9 + sqrt(9 - 1.6**2)."""
    made = rough_passes((2.0, 11.0), CONTOUR, 2.0, 0.5, 0.1, 0.4)
    end = next(m.segment.end for m in made if m.how == "feed" and abs(m.segment.end[1] - 7.0) < 1e-9)
    assert end[0] == pytest.approx(-12.9 + math.sqrt(9 - 1.6**2), abs=1e-6)


def test_a_bore_is_the_outside_upside_down() -> None:
    inside = [Line((2.0, 15.0), (-10.0, 15.0)), Line((-10.0, 15.0), (-20.0, 10.0))]
    outside = [Line((2.0, -15.0), (-10.0, -15.0)), Line((-10.0, -15.0), (-20.0, -10.0))]
    one = rough_passes((2.0, 10.0), inside, 2.0, 0.5, 0.1, -0.3)
    other = rough_passes((2.0, -10.0), outside, 2.0, 0.5, 0.1, 0.3)
    assert [m.segment.end for m in one] == [pytest.approx((z, -r)) for z, r in (m.segment.end for m in other)]


def test_facing_is_turning_with_the_axes_exchanged() -> None:
    contour = [Line((-20.0, 11.0), (-20.0, 6.0)), Line((-20.0, 6.0), (-8.0, 3.0)), Line((-8.0, 3.0), (2.0, 3.0))]
    one = rough_passes((2.0, 11.0), contour, 3.0, 0.5, 0.1, 0.4, facing=True)
    turned = [Line(s.start[::-1], s.end[::-1]) for s in contour]
    other = rough_passes((11.0, 2.0), turned, 3.0, 0.5, 0.4, 0.1)
    assert [m.segment.end for m in one] == [m.segment.end[::-1] for m in other]


def test_a_pattern_comes_nearer_by_even_steps() -> None:
    made = pattern_passes((2.0, 11.0), CONTOUR, 3.0, 3.0, 4, 0.1, 0.4)
    starts = [m.segment.start for m in made if m.how == "feed" and isinstance(m.segment, Line)][::2]
    assert [r for _, r in starts] == pytest.approx([8.4, 7.4, 6.4, 5.4])


def test_pecks_of_a_groove() -> None:
    made = groove_pecks((-10.0, 30.0), (-14.0, 25.0), 2.0, 2.5, 0.2)
    feeds = [m.segment.end for m in made if m.how == "feed"]
    assert feeds[:3] == [(-10.0, 28.0), (-10.0, 26.0), (-10.0, 25.0)]
    assert [z for z, r in feeds if r == 25.0] == [-10.0, -12.5, -14.0]


@pytest.mark.parametrize(("peck", "lift"), [(0.0, 0.2), (0.1, 0.2), (1e-9, 0.1)])
def test_pecks_that_would_never_end_do(peck: float, lift: float) -> None:
    assert groove_pecks((0.0, 10.0), (0.0, 5.0), peck, 0.0, lift)[-1].segment.end == (0.0, 10.0)


def test_depths_of_a_threading_cycle() -> None:
    """first * sqrt(n), never less than so much more; then the height again as often as wished."""
    depths = thread_depths(1.2, 0.4, 0.05, 0.0, 2)
    assert depths == pytest.approx([*(0.4 * math.sqrt(n) for n in range(1, 10)), 1.2, 1.2])
    assert thread_depths(1.0, 0.5, 0.2, 0.1, 1) == pytest.approx([0.5, 0.5 * math.sqrt(2), 0.9, 1.0])


def test_the_flank_is_followed_forward_to_smaller_depths() -> None:
    made = thread_passes((5.0, 12.0), (-20.0, 9.0), 1.0, [0.5, 1.0], 60.0, 0.0)
    starts = [m.segment.start for m in made if m.how == "thread"]
    assert starts[0] == pytest.approx((5.0, 9.5))
    assert starts[1] == pytest.approx((5.0 - 0.5 * math.tan(math.radians(30)), 9.0))


SPEAR = {
    "G90": {"op2": {"written": "passes"}},
    "G94 P": {"op2": {"written": "passes", "pattern": "along_x"}},
    "G94": {"op1": {"written": "passes"}},
    "G71": {"op2": {"written": "whole"}},
    "G72": {"op2": {"written": "whole", "pattern": "along_x"}},
    "G73": {"op2": {"written": "whole", "pattern": "contour"}},
    "G76": {"op7": {"written": "whole"}},
    "G75": {"op6": {"written": "whole"}},
}


def written(changes: dict[str, dict[str, object]]) -> Job:
    job = demo_job("spear")
    for name, values in changes.items():
        job = job.with_operation(name, lambda op, v=values: op.changed(**v))  # type: ignore[misc]
    return job


@pytest.mark.parametrize("code", everyday(SPEAR, "G71"))
def test_the_spear_is_proved_whichever_way_it_is_written(code: str, language: Dialect) -> None:
    job = written(SPEAR[code])
    planned = plan(job)
    assert code.split(" ")[0] + " " in post(planned, language).text
    proof = proof_of(job)
    assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2) == ((), 0, True)
    assert proof.threads[0].ok
    assert not [finding for finding in proof.findings if finding.severity == "error"]
    same_moves(planned, proof)


def same_moves(planned: Plan, proof: Proof) -> None:
    """What is read back is what was planned, within the program's resolution."""
    wanted = [m.end for op in planned.operations for m in op.motions]
    ends = {(round(z, 2), round(r, 2)) for z, r in (m.end for m in proof.program.motions)}
    near = [any((round(z, 2) + dz, round(r, 2) + dr) in ends for dz in (-0.01, 0.0, 0.01) for dr in (-0.01, 0.0, 0.01))
            or any(math.dist((z, r), one) < 0.02 for one in ends) for z, r in wanted]  # fmt: skip
    assert all(near)


def test_finishing_follows_the_contour_of_the_roughing_cycle(language: Dialect) -> None:
    job = written({"op2": {"written": "whole", "tool": "T2"}, "op4": {"written": "whole"}})
    text = post(plan(job), language).text
    (rough,) = [line for line in text.splitlines() if "G71 P" in line]
    (finish,) = [line for line in text.splitlines() if "G70" in line]
    assert rough.split()[2:4] == finish.split()[2:4]
    proof = proof_of(job)
    assert proof.gouge_um < 2
    assert proof.contacts == ()
    assert proof.leftover_um == 0  # the dip is declared


def test_finishing_with_another_nose_cannot_follow_it() -> None:
    job = written({"op2": {"written": "whole"}, "op4": {"written": "whole"}})
    (fault,) = [f for f in plan(job).all_findings if f.code == "cycle.contour"]
    assert plan(fault.cures[0].apply(job)).of("op4").motions  # type: ignore[union-attr]


def test_a_dip_is_told() -> None:
    assert "cycle.dip" in {f.code for f in plan(written(SPEAR["G71"])).all_findings}
    assert "cycle.dip" not in {f.code for f in plan(written(SPEAR["G73"])).all_findings}


@pytest.mark.parametrize("way", ["passes", "whole"])
def test_a_bore_as_cycles(way: str, language: Dialect) -> None:
    job = bored_job((Element(z_mm=0, d_mm=44), Element(z_mm=-20, d_mm=40), Element(z_mm=-20, d_mm=32),
                     Element(z_mm=-50, d_mm=32)))  # fmt: skip
    job = job.with_operation("rough", lambda op: op.changed(written=way))
    assert ("G71" if way == "whole" else "G90") in post(plan(job), language).text
    proof = proof_of(job)
    assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2) == ((), 0, True)


def test_a_face_groove_and_a_deep_hole_by_the_same_cycle(language: Dialect) -> None:
    for job in (
        grooved(FaceGroove(d_mm=62, width_mm=6, depth_mm=5, floor_round_mm=0.3), "GF 4 40-90", written="whole"),
        drilled(written="passes"),
    ):
        text = post(plan(job), language).text
        assert text.count("G74") == 2
        proof = proof_of(job)
        assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2) == ((), 0, True)


def test_a_groove_in_an_inch_program(language: Dialect) -> None:
    job = grooved(Groove(z_mm=-12, width_mm=6.4, d_mm=62), "GO 2 8", written="whole").changed(units="inch")
    proof = proof_of(job)
    assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2) == ((), 0, True)


def test_a_bore_thread_that_runs_out_in_one_cycle(language: Dialect) -> None:
    job = threaded("M48x1.5-6H", "TI 1.5 60F", "inside", length=20.0, written="whole")
    assert "G76 P010860" in post(plan(job), language).text  # one spring pass, 0.8 turns of run-out, flanks of 60°
    proof = proof_of(job)
    assert proof.threads[0].ok
    assert proof.contacts == ()


@pytest.mark.parametrize("name", ["M60xPh4P2-6g", "NPT 2"])
def test_what_the_cycle_cannot_make_is_written_out(name: str, language: Dialect) -> None:
    job = tapered(name, "TE 1.75-3 60P", "outside") if "NPT" in name else threaded(name, "TE 2 60F")
    job = job.with_operation("t", lambda op: op.changed(written="whole"))
    assert "cycle.none" in {f.code for f in plan(job).all_findings}
    assert "G76" not in post(plan(job), language).text


HEAD = "G18 G21 G40 G99\nT0101\nG50 S2000\nG96 S100 M3\nG0 X60. Z2.\n"


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ("G71 U2. R.5\nG71 P10 Q99 U.5 W.1 F.2", "are not there"),
        ("G71 U0. R.5\nG71 P10 Q20 U.5 W.1 F.2\nN10 G0 X20.\nN20 G1 Z-20.", "positive U"),
        ("G71 P10 Q20 U.5 W.1 F.2\nN10 G0 X20.\nN20 G1 Z-20.", "depth of cut is not said"),
        ("G71 U2. R.5\nG71 P10 Q20 F.2\nN10 G0 X30.\nG1 Z-10.\nX24.\nZ-20.\nN20 X60.", "goes back"),
        ("G71 U2. R.5\nG71 P15 Q20 U.5 W.1 F.2\nN10 G0 X20.\nN15 Z-10.\nN20 G1 X40.", "says no move of its own"),
        ("G75 R.1\nG75 X50. Z-10. P1000 F.1", "positive Q"),
        ("G75 R.1\nG75 X50. Z-10. P1000 Q1 F.1", "plunge more than"),
        ("G76 P010060 Q20 R0.\nG76 X50. Z-10. Q300 F2.", "positive P"),
        ("G76 P019960 Q20 R0.\nG76 X50. Z-10. P1200 Q300 F2.", "run out over more than its length"),
        ("G73 U3. W3. R99999\nG73 P10 Q20 F.2\nN10 G0 X30.\nN20 G1 Z-10.", "more than 1000 passes"),
    ],
)
def test_a_cycle_with_wrong_words_is_one_clear_line(body: str, words: str, language: Dialect) -> None:
    program = read(HEAD + body + "\nM30\n", language, (100.0, 100.0))
    (finding,) = [f for f in program.findings if f.code == "cycle.words"]
    assert words in finding.what
    assert finding.line is not None


def test_the_program_goes_on_behind_the_contour(language: Dialect) -> None:
    text = HEAD + "G71 U2. R.5\nG71 P10 Q20 U.5 W.1 F.2\nN10 G0 X40.\nN20 G1 Z-20.\nG0 X80.\nM30\n"
    program: Program = read(text, language, (100.0, 100.0))
    assert program.motions[-1].end == (2.0, 40.0)
    assert not [f for f in program.findings if f.severity == "error"]


def test_older_files_said_only_that_a_cycle_is_written() -> None:
    text = job_text(drilled(written="whole")).replace('"written": "whole"', '"cycle": true')
    assert parse_job(text).operation("d").written == "whole"
    thread = job_text(threaded("M60x2-6g", "TE 2 60F", written="passes")).replace(
        '"written": "passes"', '"cycle": true'
    )
    assert parse_job(thread).operation("t").written == "passes"
    assert "cycle" not in job_text(parse_job(thread))


@pytest.mark.parametrize(
    ("block", "ends"),
    [
        # Written down from the control's manual page of each cycle: places as (z, diameter).
        ("G90 X30. Z-40. R-5. F.2", [(2, 20), (-40, 30), (-40, 60), (2, 60)]),
        ("G90 X40. Z-10. R3. F.2", [(2, 46), (-10, 40), (-10, 60), (2, 60)]),
        ("G94 X20. Z-8. R-4. F.2", [(-12, 60), (-8, 20), (2, 20), (2, 60)]),
        ("G92 X28. Z-30. R-1. F2.", [(2, 26), (-30, 28), (-30, 60), (2, 60)]),
        ("G90 X30. Z-40. F.2", [(2, 30), (-40, 30), (-40, 60), (2, 60)]),
    ],
)
def test_tapers_of_the_cycles_of_one_pass(block: str, ends: list[tuple[float, float]], language: Dialect) -> None:
    program = read(f"G21 G40 G99\nT0101\nG97 S500 M3\nG0 X60. Z2.\n{block}\nM30\n", language, (200.0, 100.0))
    made = [(round(m.end[0], 4), round(2 * m.end[1], 4)) for m in program.motions if m.line == 5]
    assert made == [(float(z), float(d)) for z, d in ends]


def test_a_negative_radius_is_the_large_arc(language: Dialect) -> None:
    head = "G21 G40 G99\nT0101\nG97 S500 M3\nG0 X20. Z0.\nG1 Z-10. F.1\n"
    for word, sweep in (("R8.", None), ("R-8.", "large")):
        for way in ("G2", "G3"):
            program = read(f"{head}{way} X24. Z-14. {word}\nM30\n", language, (200.0, 100.0))
            (arc,) = [m.segment for m in program.motions if isinstance(m.segment, Arc)]
            assert math.dist(arc.centre, (-10.0, 10.0)) == pytest.approx(8.0)
            assert math.dist(arc.centre, (-14.0, 12.0)) == pytest.approx(8.0)
            assert (abs(arc.sweep_rad) > math.pi) == (sweep == "large")


def test_a_taper_stays_until_the_cycle_is_named_again(language: Dialect) -> None:
    text = "G21 G40 G99\nT0101\nG97 S500 M3\nG0 X60. Z2.\nG90 X30. Z-40. R-5. F.2\nX28.\nG90 X26.\nM30\n"
    program = read(text, language, (200.0, 100.0))
    firsts = {line: next(m for m in program.motions if m.line == line) for line in (5, 6, 7)}
    assert [round(2 * firsts[line].end[1], 4) for line in (5, 6, 7)] == [20.0, 18.0, 26.0]
