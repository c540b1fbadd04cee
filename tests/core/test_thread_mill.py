"""Threads milled in holes beside the axis: planned, written, read back, cut and measured; what is spoiled is told."""

import math
import re
from collections.abc import Callable

import pytest
from benchmarks.judge.bench import driven_case_of, mills_of

from tests.support.kept import plan
from tests.support.long import everyday
from tests.support.milled import driven, milled_job
from toreuma.core.model import HolePattern, HolesBeside, Job
from toreuma.core.post import post
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.form import form_of
from toreuma.core.verdict import Row
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.shipped.standards import thread_tables

IN_FACE = HolePattern(count=3, d_mm=10.5, circle_d_mm=30, depth_mm=16, thread="M12x1.5")
ROUND = HolePattern(on="outside", count=2, d_mm=10.5, depth_mm=14, z_mm=-12, thread="M12x1.5")
ROWS, ONE_ROW = "TM 10 1.5", "TM 8 1-2 60"


def threaded(feature: HolePattern, mill: str, mount: str = "axial", drill: str = "TD 10.5 HM5D 140") -> Job:
    """Holes that are drilled and then milled."""
    form = form_of(thread_of(feature.thread, thread_tables()), "inside", feature.thread)
    tools = (driven(drill, "T13", 13, mount), driven(mill, "T14", 14, mount))
    cuts = [HolesBeside(id="d", tool="T13", feature=0), HolesBeside(id="t", tool="T14", feature=0, form=form)]
    return milled_job([feature], tools, cuts)


def without_y(job: Job) -> Job:
    carriers = job.machine.carriers
    return job.changed(machine=job.machine.changed(carriers=(carriers[0], carriers[1].changed(y_mm=0.0))))


CUT = {
    "rows, in a face": threaded(
        HolePattern(count=3, d_mm=6.8, circle_d_mm=30, depth_mm=15, thread="M8"), "TM M8 1.25", drill="TD 6.8 HM5D 140"
    ),
    "one row, in a face": threaded(IN_FACE, ONE_ROW),
    "one row, by turning the work": without_y(threaded(IN_FACE, ONE_ROW)),
    "one row, from the side": threaded(ROUND, ONE_ROW, "radial"),
    "left hand": threaded(IN_FACE.changed(thread="M12x1.5-LH"), ONE_ROW),
    "two starts": threaded(IN_FACE.changed(thread="M12xPh3P1.5"), ONE_ROW),
    "of a pipe": threaded(
        HolePattern(count=2, d_mm=18.9, circle_d_mm=26, depth_mm=14, thread="G1/2"), "TM 10 1.3-2.4 55",
        drill="TD 18.9 HM5D 140",
    ),
}  # fmt: skip


def judged(job: Job, change: Callable[[str], str] = lambda text: text) -> tuple[str, Row, str]:
    """State of the job, the row of its threads, and all that is told of danger."""
    engine = Engine()
    sides, language = engine.sides(job), engine.language(job)
    text = post(sides[0], language).text
    changed = change(text)
    whole = prove_whole(sides, language, {0: changed} if changed != text else {})
    row = next(one for one in whole.verdict.rows if one.key == "feature 0")
    return whole.verdict.state, row, " ".join(one.what for one in whole.verdict.dangers)


@pytest.mark.parametrize("name", CUT)
def test_a_milled_thread_is_made_as_drawn(name: str) -> None:
    state, row, dangers = judged(CUT[name])
    assert (row.state, dangers) == ("made", ""), row
    assert state.startswith("finished")


def test_the_mill_aims_at_the_middle_of_the_pitch_diameter() -> None:
    """M12x1.5-6H: 11.026 to 11.216 mm (ISO 965-1); the mill's own is d - 0.6495 times its teeth's width."""
    made = plan(CUT["one row, in a face"]).of("t")
    assert made is not None
    orbit = made.reasons["ae"].number
    mill = 8.0 - (1.5 / 2 - 1.0 / 8) / math.tan(math.radians(30))
    assert 2 * orbit + mill == pytest.approx((11.026 + 11.216) / 2, abs=1e-3)


def feeds(text: str) -> list[int]:
    """Lines of the helix: those that move all three axes."""
    lines = text.splitlines()
    return [n for n, line in enumerate(lines) if re.search(r"X-?[\d.]+ Z-?[\d.]+ Y-?[\d.]+|X\S+ Y\S+ Z\S+", line)]


def each(text: str, change: Callable[[str], str]) -> str:
    lines = text.splitlines()
    for n in feeds(text):
        lines[n] = change(lines[n])
    return "\n".join(lines) + "\n"


def mirrored(line: str) -> str:
    return re.sub(r"Y(-?)([\d.]+)", lambda m: f"Y{'' if m[1] else '-'}{m[2]}", line)


def grown(line: str, by: float) -> str:
    """Farther from the axis across Y alone."""
    return re.sub(r"Y(-?[\d.]+)", lambda m: f"Y{round(float(m[1]) * by, 3):g}", line)


SPOILED = [
    (mirrored, "other hand"),
    (lambda line: grown(line, 1.2), "metal that belongs to the part"),
    (lambda line: grown(line, 0.9), "pitch diameter|whole turn|lead"),
    (lambda line: re.sub(r" ?Y-?[\d.]+", " Y0.", line), "whole turn"),
    (lambda line: re.sub(r"Z(-?[\d.]+)", lambda m: f"Z{round(float(m[1]) * 0.9, 3):g}", line), "lead|climbs"),
]


@pytest.mark.parametrize(("change", "words"), SPOILED)
def test_spoiled_helices_are_told(change: Callable[[str], str], words: str) -> None:
    state, row, dangers = judged(CUT["one row, in a face"], lambda text: each(text, change))
    assert not state.startswith("finished")
    assert re.search(words, f"{row.left} {dangers}"), (row, dangers)


@pytest.mark.parametrize("change", everyday([change for change, _ in SPOILED], SPOILED[0][0]))
def test_another_reading_finds_them_spoiled_as_well(change: Callable[[str], str]) -> None:
    """By its own count of the way about each hole: the diameter cut, the climb of a turn and its hand, how deep."""
    job = CUT["one row, in a face"]
    side = Engine().sides(job)[0]
    case, text = driven_case_of(job), post(side, Engine().language(job)).text
    assert case is not None
    clean, home = case.judge(text, side.scene.reference, mills_of(job)), side.scene.reference
    wide, climb, *_ = clean.helices[0, 0]
    assert len(clean.helices) == 3
    assert climb == pytest.approx(1.5, abs=0.01)
    assert 11.9 < wide < 12.3
    assert not case.judge(text, home, mills_of(job)).worse_than(clean)
    assert case.judge(each(text, change), home, mills_of(job)).worse_than(clean)


def test_the_mill_left_out_is_told() -> None:
    job = CUT["one row, in a face"]
    only = job.with_setup(operations=job.operations[:1])
    state, row, _ = judged(only)
    assert state == "not finished"
    assert "no tap goes into every hole" in row.left


@pytest.mark.parametrize(
    ("job", "code"),
    [
        (threaded(IN_FACE, "TM 10 1.3-2.4 55"), "thread.flanks"),
        (threaded(IN_FACE, "TM M8 1.25"), "thread.pitch"),
        (threaded(IN_FACE, "TM 12 1.5-3 60"), "mill.wide"),
        (threaded(IN_FACE.changed(thread="M12xPh3P1.5"), "TM 10 1.5"), "thread.starts"),
        (threaded(IN_FACE.changed(depth_mm=28.0), ONE_ROW), "mill.reach"),
    ],
)
def test_what_cannot_be_is_said(job: Job, code: str) -> None:
    assert code in {one.code for one in plan(job).all_findings}


def test_a_mill_without_a_known_thread_says_so() -> None:
    job = CUT["one row, in a face"]
    bare = job.with_setup(operations=(job.operations[0], job.operations[1].changed(form=None)))
    assert "thread.none" in {one.code for one in plan(bare).all_findings}
