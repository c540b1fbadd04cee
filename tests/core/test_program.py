"""Program text out and in: what is written is what is read, and nonsense is named with its line."""

import math
import time
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.support.kept import plan
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.geometry.elements import Arc, Line
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.read import Program, read

HEAD = "G18 G21 G40 G99\nG54\nT0101\nG50 S3000\nG96 S100 M3\n"
END = "M30\n"


def run(body: str, language: Dialect, head: str = HEAD, end: str = END) -> Program:
    return read(head + body + end, language, (200.0, 100.0))


def codes(program: Program) -> list[str]:
    return [finding.code for finding in program.findings]


@pytest.mark.parametrize("units", ["mm", "inch"])
@pytest.mark.parametrize("arcs", ["R", "IK"])
def test_reading_back_gives_the_planned_moves(spear: Job, language: Dialect, units: str, arcs: str) -> None:
    job = spear.changed(units=units, program=spear.program.changed(arcs=arcs))
    planned = plan(job)
    program = read(post(planned, language).text, language, planned.scene.reference)
    assert codes(program) == []
    wanted = [m for o in planned.operations for m in o.motions if math.dist(m.start, m.end) > 0.003]
    found = [m for m in program.motions if m.section >= 0]
    ends = {(round(m.end[0], 2), round(m.end[1], 2)) for m in found}
    assert all(any(math.dist(m.end, e) < 0.02 for e in ends) for m in wanted)
    cutting = [m for m in found if not m.is_rapid]
    speeds = {round(o.reasons["vc"].number) for o in planned.operations}
    assert {round(m.spindle.value) for m in cutting} == speeds or units == "inch"
    assert sum(m.segment.length for m in cutting) == pytest.approx(
        sum(m.segment.length for o in planned.operations for m in o.motions if not m.is_rapid), rel=1e-3
    )
    assert any(isinstance(m.segment, Arc) for m in cutting)


def test_the_text_says_what_it_is(spear_plan: Plan, language: Dialect) -> None:
    lines = post(spear_plan, language).text.splitlines()
    assert lines[0] == lines[-1] == "%"
    assert "(X IS DIAMETER, MM)" in lines
    for number, operation in enumerate(spear_plan.job.operations, 1):
        assert f"(OP {number}: {operation.name.upper()})" in lines
    assert any("TRAINED PERSON" in line for line in lines)
    numbers = [int(line.split()[0][1:]) for line in lines if line.startswith("N")]
    assert numbers == list(range(10, 10 * len(numbers) + 1, 10))
    assert all(line.isascii() for line in lines)


def test_names_cannot_break_out_of_their_comment(spear: Job, language: Dialect) -> None:
    evil = spear.changed(name="Ärger (M3) %\nG0 X-50").with_operation("op1", lambda o: o.changed(name="a) G1 X0 (b"))
    planned = plan(evil)
    text = post(planned, language).text
    program = read(text, language, planned.scene.reference)
    assert [f for f in program.findings if f.severity == "error"] == []
    assert "(OP 1: A G1 X0 B)" in text
    assert "\nG0 X-50" not in text


def test_nothing_to_write_is_said(spear: Job, language: Dialect) -> None:
    with pytest.raises(ProgramError, match=r"nothing|no operation"):
        post(plan(spear.with_setup(operations=())), language)


# Reading


def test_a_move_that_leads_nowhere_is_never_written(spear_plan: Plan, language: Dialect) -> None:
    first = spear_plan.operations[0]
    astray = replace(first.cuts.motions[-1], segment=Line(first.cuts.motions[-1].start, (math.nan, 1.0)))
    cuts = replace(first.cuts, motions=(*first.cuts.motions[:-1], astray))
    spoiled = replace(spear_plan, operations=(replace(first, cuts=cuts), *spear_plan.operations[1:]))
    assert not astray.is_finite
    with pytest.raises(ProgramError, match="leads nowhere"):
        post(spoiled, language)


def test_modes_stay_in_force_and_words_come_in_any_order(language: Dialect) -> None:
    program = run("G0 X50. Z2.\nG01 F0.2 Z-10.\nX40. Z-15.\nG0 X60.\nT0100\n", language)
    assert codes(program) == []
    assert [m.is_rapid for m in program.motions] == [True, False, False, True]
    assert program.motions[1].end == (-10.0, 25.0)
    assert program.motions[2].end == (-15.0, 20.0)
    assert program.motions[2].feed == 0.2
    assert program.motions[2].spindle.clamp_rpm == 3000


def test_incremental_words_dwell_reference_and_lower_case(language: Dialect) -> None:
    program = run("g0 x50. z2.\nu-10. w-3.\ng4 p1500\ng28 u0\ng28 w0\nt0100\n", language)
    assert codes(program) == []
    assert program.motions[1].end == (-1.0, 20.0)
    assert program.motions[2].dwell_s == 1.5
    assert program.motions[3].end == (-1.0, 100.0)
    assert program.motions[4].end == (200.0, 100.0)


def test_inch_programs_are_read_in_inches(language: Dialect) -> None:
    program = run("G0 X2. Z.1\nG1 Z-1. F.01\n", language, HEAD.replace("G21", "G20"))
    assert program.motions[1].end == pytest.approx((-25.4, 25.4))
    assert program.motions[1].feed == pytest.approx(0.254)
    assert program.motions[1].spindle.value == pytest.approx(30.48)


@pytest.mark.parametrize("clockwise", [True, False])
def test_both_ways_to_write_an_arc_are_the_same_arc(language: Dialect, clockwise: bool) -> None:
    word, i, k = ("G2", "5.", "0.") if clockwise else ("G3", "0.", "-5.")
    by_radius = run(f"G0 X40. Z0.\nG1 F0.1 X40.\n{word} X50. Z-5. R5.\n", language).motions[-1].segment
    by_centre = run(f"G0 X40. Z0.\nG1 F0.1 X40.\n{word} X50. Z-5. I{i} K{k}\n", language).motions[-1].segment
    assert isinstance(by_radius, Arc)
    assert isinstance(by_centre, Arc)
    assert by_radius.centre == pytest.approx(by_centre.centre)
    assert by_radius.clockwise == by_centre.clockwise == clockwise
    assert by_radius.centre == pytest.approx((0, 25) if clockwise else (-5, 20))


@pytest.mark.parametrize(
    ("body", "head", "code"),
    [
        ("G0 X50. Z2.\nG1 Z-5.\n", HEAD, "feed.missing"),
        ("G0 X50. Z2.\nG1 Z-5. F0.\n", HEAD, "feed.zero"),
        ("G0 X50. Z2.\nG1 Z-5. F0.1\n", HEAD.replace(" M3", ""), "spindle.stopped"),
        ("G0 X50. Z2.\nG1 Z-5. F0.1\n", HEAD.replace("G50 S3000\n", ""), "speed.no_clamp"),
        ("G0 X50. Z2.\nG1 Z-5. F0.1\n", HEAD.replace("T0101\n", ""), "tool.none"),
        ("G0 X50. Z2.\nG1 Z-5. F0.1\n", HEAD.replace(" G21", ""), "program.units"),
        ("G0 X50. Z2.\nG1 Z-5. F0.1\n", HEAD.replace(" G99", ""), "feed.mode"),
        ("G0 X50. Z2.\nG2 X60. Z-5. F0.1\n", HEAD, "arc.open"),
        ("G0 X50. Z2.\nG2 X60. Z-5. R2. F0.1\n", HEAD, "arc.radius"),
        ("G0 X50. Z2.\nG2 X60. Z-5. I0. K-3. F0.1\n", HEAD, "arc.centre"),
        ("G77 U2. R1.\n", HEAD, "program.word"),
        ("G0 X50. Z2. B90.\n", HEAD, "program.unused"),
        ("X50. Z2.\n", HEAD, "program.move"),
        ("G0 X5#. Z2.\n", HEAD, "program.unread"),
        ("G50\n", HEAD, "program.shift"),
        ("G0 X50.\n", HEAD.replace("M3", "M4"), "spindle.reverse"),
        ("G0 X50.\n", HEAD.replace("T0101", "T0102"), "tool.offset"),
        ("G55\nG0 X50.\n", HEAD, "datum.other"),
        ("M30\nG0 X50.\n", HEAD, "program.after_end"),
    ],
)
def test_what_is_wrong_is_named_with_its_line(language: Dialect, body: str, head: str, code: str) -> None:
    program = run(body, language, head)
    found = [finding for finding in program.findings if finding.code == code]
    assert found, codes(program)
    assert found[0].line is not None
    assert found[0].severity == "error"
    assert f"line {found[0].line}:" in found[0].what


@pytest.mark.parametrize(("means", "x", "told"), [("unsaid", 50, True), ("units", 50, False), ("steps", 0.05, False)])
def test_a_place_without_a_point_is_what_the_dialect_says_or_asked_about(
    language: Dialect, means: str, x: float, told: bool
) -> None:
    program = run("G0 X50 Z2.\nG73 U2. W0. R3\nT0100\n", language.model_copy(update={"whole_numbers": means}))
    assert program.motions[0].end == pytest.approx((2, x / 2))
    found = [finding for finding in program.findings if finding.code == "program.no_point"]
    assert bool(found) is told
    assert all(finding.severity == "error" and finding.what.startswith("line 6: X50 has no point") for finding in found)


def test_a_program_cut_short_and_a_gap_in_the_numbers_are_seen(language: Dialect) -> None:
    assert "program.end" in codes(run("G0 X50. Z2.\n", language, end=""))
    numbered = "".join(f"N{n} G0 X{50 + n}.\n" for n in range(10, 120, 10) if n != 60)
    gap = [f for f in run(numbered, language).findings if f.code == "program.gap"]
    assert [f.line for f in gap] == [11]


@given(st.text(max_size=300))
def test_any_text_is_read_without_an_exception(text: str) -> None:
    from toreuma.shipped.library import dialect

    program = read(text, dialect("system-a"), (100.0, 50.0))
    assert all(finding.line is None or finding.line >= 0 for finding in program.findings)


@given(st.text(alphabet="NGXZRIKFSTM0123456789.-() \n%", max_size=400))
def test_any_words_are_read_without_an_exception(text: str) -> None:
    from toreuma.shipped.library import dialect

    program = read(text, dialect("system-a"), (100.0, 50.0))
    assert isinstance(program.motions, tuple)


@pytest.mark.parametrize(
    "block",
    [
        "G83 Z-1000000 R2 Q0.0001 F0.1",
        "G71 U0.0001 R1\nG71 P10 Q20 U0 W0 F.2\nN10 G0 X0\nN20 G1 X99999 Z-5",
        "G74 R1\nG74 Z-99999 Q3 F.1",
        "G76 P999999999999010 Q1 R0\nG76 X20 Z-20 P1000 Q1 F1",
        "G76 P010060 Q0 R0\nG76 X20 Z-20 P30000000 Q1 F1",
        "M98 P10 L999999999",
        "M98 P-1 L-5",
        "O" + "9" * 400,
        "N" + "9" * 400,
        "G1 X10 P" + "9" * 400,
        "T" + "9" * 400,
        "X" * 3000,
        "G1 X" + "1" * 16,
    ],
)
def test_slips_of_the_keys_end_at_once_with_a_line(block: str, language: Dialect) -> None:
    text = f"O1\nG21 G99\nG28 U0 W0\nT0101\nG97 S500 M3\nG0 X60 Z5\n{block}\nG28 U0 W0\nM30\nO10\nG1 X1 F.1\nM99\n"
    began = time.monotonic()
    program = read(text, language, (200.0, 150.0))
    assert time.monotonic() - began < 5
    assert [finding for finding in program.findings if finding.severity == "error"]
    assert all("\n" not in finding.what and len(finding.what) < 300 for finding in program.findings)


def test_programs_that_call_each_other_without_end_are_stopped(
    monkeypatch: pytest.MonkeyPatch, language: Dialect
) -> None:
    monkeypatch.setattr("toreuma.core.read.reader.MOST_BLOCKS", 20_000)
    calls = "\n".join(["M98 P{}"] * 60)
    texts = [f"O{n}\n{calls.replace('{}', str(n + 1))}\nM99" for n in range(2, 5)]
    text = f"O1\nG21\n{calls.replace('{}', '2')}\nM30\n" + "\n".join(texts) + "\nO5\nG4 U1\nM99\n"
    program = read(text, language, (200.0, 150.0))
    assert "program.endless" in {finding.code for finding in program.findings}


@pytest.mark.parametrize(
    ("field", "template"),
    [
        ("tool_word", "T{station.__class__}"),
        ("tool_word", "T{nothing}"),
        ("tool_word", "T{station:999999999d}"),
        ("tool_word", "T{station!r}"),
        ("section", "OP {number"),
        ("start", ("{rapid}", "{x[0]}")),
        ("loop", "{0}"),
        ("end", ("{}",)),
    ],
)
def test_a_template_that_cannot_be_filled_is_refused_before_anything_is_written(
    language: Dialect, field: str, template: object
) -> None:
    with pytest.raises(ValidationError):
        language.changed(**{field: template})
