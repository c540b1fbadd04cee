"""Moves of driven tools stay in a job as they were written: what is posted from it cuts the same, move by move."""

import re
from typing import Any

import pytest

from toreuma.core.model import Job
from toreuma.core.post import post
from toreuma.core.read import read
from toreuma.engine.as_job import TakenAsJob, as_job
from toreuma.engine.engine import Engine
from toreuma.engine.foreign_job import from_tools
from toreuma.engine.judging import Whole
from toreuma.engine.study import Asked, Study, study_of

HEAD = """%
O0100
G21 G18 G40 G99
T0101 (ROUGH CNMG120408)
G50 S2500
G96 S180 M3
G0 X{over}. Z0 M8
G1 X-1.6 F.2
G0 X{d}. Z2.
G1 Z-{long}. F.25
X{over}.
G0 X150. Z100.
M5
M161
"""
END = "M155\nM162\nG99\nM30\n%\n"
AWAY = "G0 X150. Z100.\n"

TWO_MILLS = f"""T0303 (ENDMILL 12MM)
G98 M153 S2000
C0
G0 X60. Y-40. Z-6.
X46.4
G1 Y40. F300
G0 X60.
C180.
Y-40.
G1 X46.4 F300
Y40.
G0 X60. Y0
{AWAY}T0404 (ENDMILL 10MM)
M153 S3000
C0
G0 X60. Y-40. Z-7.
X46.
G1 Y40. F200
Z-5.
Y-40.
G0 X60.
C180.
Z-7.
G1 X46. F200
Y40.
Z-5.
Y-40.
G0 X60. Y0
{AWAY}"""
ENGRAVED = f"""T0303 (ENDMILL 2MM)
G98 M153 S4000
C30.
G0 X20. Z2. Y-4.
G1 Z-.3 F100
X26. Y0
X20. Y4.
G0 Z2.
C45.
X20. Y-4.
G1 Z-.3 F100
X26. Y0
X20. Y4.
G0 Z50.
Y0
{AWAY}"""
POCKET = f"""T0303 (ENDMILL 8MM)
G98 M153 S3000
C0
G0 X0 Y0 Z2.
G1 Z-3. F80
X8. Y4. F250
Y-4.
X-8.
Y4.
X8.
X16. Y8.
Y-8.
X-16.
Y8.
X16.
G0 Z50.
Y0
{AWAY}"""
BROKEN_EDGES = f"""T0303 (ENDMILL 8MM)
G98 M153 S3000
C0
G0 X44. Z-10. Y0
G1 X36. F100
Z-30. F300
G1 X32. F100
Z-10. F300
G0 X60.
{AWAY}T0404 (SPOT DRILL 10MM)
M153 S3000
C0
G0 X44. Z-10. Y3.5
G1 X38.4 F200
Z-30.
G0 X44.
Y-3.5
G1 X38.4
Z-10.
G0 X60. Y0
{AWAY}"""
A_TURN = "".join(f"C{60 * n}.\nG1 Z-12. F.1\nG4 P200\nG0 Z5.\n" for n in range(6))
A_TURN_IN_FEED = f"T0505 (DRILL 6MM)\nG99 M153 S2000\nG0 X50. Z5.\n{A_TURN}G0 Z50.\n{AWAY}"
POLAR_HEX = (
    "T0303 (ENDMILL 16MM)\nG98 M153 S1500\n"
    + "".join(f"C{60 * n}.\nG0 X80. Z-8.\nG12.1\nG1 X59. C20. F300\nC-20.\nX80. C-30.\nG13.1\n" for n in range(6))
    + AWAY
)
BEYOND_THE_AXIS = f"""T0303 (ENDMILL 8MM)
G98 M153 S3000
C45.
G0 X-40. Y0 Z2.
G1 Z-3. F80
X-20. F200
G0 Z50.
{AWAY}"""
TURNS = "C90.\nC180.\nC270.\nG80\n"
TAPPED = f"""T0404 (SPOT 10MM)
M153 S2000
G98
G0 X60. Z3.
C0
G83 Z-{{sunk}} R-2. F120
{TURNS}{AWAY}T0505 (DRILL 5MM)
M153 S2500
G0 X60. Z3.
C0
G83 Z-18. R-2. Q4000 F150
{TURNS}{AWAY}T0606 (TAP M6)
M153 S500
G0 X60. Z5.
C0
G84 Z-12. R-2. F500
{TURNS}{AWAY}"""

CASES: dict[str, tuple[int, int, str, list[tuple[int, ...]]]] = {
    "rough and finish with two mills": (50, 45, TWO_MILLS, [(0,), (0,)]),
    "engraved": (50, 45, ENGRAVED, [()]),
    "a pocket with round corners": (60, 35, POCKET, [(0,)]),
    "edges broken with a point": (40, 55, BROKEN_EDGES, [(0,), ()]),
    "in feed a turn, with dwells": (70, 30, A_TURN_IN_FEED, [(0,)]),
    "six flats by turning the work": (50, 45, POLAR_HEX, [(0,)]),
    "beyond the axis": (60, 35, BEYOND_THE_AXIS, [(0,)]),
    "tapped": (80, 30, TAPPED.format(sunk="3."), [(0,), (0,), (0,)]),
    "sunk wider than the thread": (80, 30, TAPPED.format(sunk="4.5"), [(), (0,), (0,)]),
}


def studied(name: str) -> Study:
    d, long, text, _ = CASES[name]
    return study_of(HEAD.format(d=d, over=d + 2, long=long) + text + END, Asked(blank=f"D{d + 2} L90"))


def taken(name: str) -> TakenAsJob:
    return as_job(studied(name), "taken")


def proved(job: Job, texts: dict[int, str] | None = None) -> Whole:
    engine = Engine()
    return engine.prove_whole(engine.sides(job), texts or {})


def cuts(motions: tuple[Any, ...]) -> list[tuple[Any, ...]]:
    """What a person would count: from where to where, how fast, at which angle, and how long it stands."""
    found = []
    for one in motions:
        if one.event or (one.feed is None and not one.dwell_s) or (one.length < 1e-6 and not one.dwell_s):
            continue
        driven, feed = one.driven, one.feed
        if driven is not None and feed is not None and not one.per_minute:
            feed *= abs(driven.rpm)
        state = (driven.c_deg % 360, *driven.y, driven.rpm, driven.polar) if driven is not None else ()
        numbers = (*one.start, *one.end, feed or 0.0, one.dwell_s, *state)
        found.append((one.station, *(round(float(each), 2) for each in numbers)))
    return found


@pytest.mark.parametrize("name", CASES)
def test_what_is_posted_cuts_as_the_program_that_was_read(name: str) -> None:
    study, engine = studied(name), Engine()
    job = as_job(study, name).job
    (side,) = engine.sides(job)
    assert not [one.what for one in side.all_findings if one.severity == "error"]
    again = read(post(side, engine.language(job)).text, engine.language(job), side.scene.reference)
    assert cuts(again.motions) == cuts(from_tools(study.program, study.tools).motions)
    driven = [one for one in job.operations if one.kind == "as_written" and one.moves[-1].driven is not None]
    assert [one.features_cut for one in driven] == CASES[name][3]
    verdict = proved(job).verdict
    assert verdict.state == ("finished" if all(CASES[name][3]) or "edges" in name else "finished but for"), (
        verdict.words
    )


def test_the_pocket_has_the_corners_of_its_mill() -> None:
    (slot,) = taken("a pocket with round corners").job.part.features
    assert slot.kind == "slot"
    assert (slot.width_mm, slot.length_mm, slot.depth_mm) == (24.0, 24.0, 3.0)
    assert (slot.round_ends, slot.corner_radius_mm) == (False, 4.0)


def test_a_slot_beyond_the_axis_lies_on_the_other_side() -> None:
    (slot,) = taken("beyond the axis").job.part.features
    assert slot.kind == "slot"
    assert (slot.start_deg, slot.off_mm, slot.length_mm) == (225.0, 15.0, 18.0)


def test_full_thread_ends_where_the_tap_cuts_its_last_whole_turn() -> None:
    (holes,) = taken("tapped").job.part.features
    assert holes.kind == "holes"
    assert holes.thread_length_mm is not None
    tap = next(one for one in taken("tapped").job.tools if one.kind == "tap")
    assert holes.thread_length_mm == pytest.approx(12.0 - tap.lead_pitches * tap.pitch_mm, abs=0.001)
    assert holes.depth_mm == pytest.approx(18.0 - 2.5 / 1.66428, abs=0.01)


def test_what_the_drawing_does_not_show_is_held_to_its_own_moves() -> None:
    job, engine = taken("engraved").job, Engine()
    (side,) = engine.sides(job)
    text = post(side, engine.language(job)).text
    deeper = re.sub(r"Z-0\.3\b", "Z-0.5", text)
    assert deeper != text
    gouged = proved(job, {0: deeper}).verdict
    assert gouged.state == "unsafe"
    assert 150 < float(re.search(r"cuts ([\d.]+) µm", gouged.words)[1]) < 201  # type: ignore[index]
    shallower = re.sub(r"Z-0\.3\b", "Z-0.1", text)
    left = proved(job, {0: shallower}).verdict
    assert left.state == "not finished"
    assert re.search(r"0\.(1[5-9]|20) mm of it are left", left.words), left.words
    moved = proved(job, {0: text.replace("C45.", "C50.")}).verdict
    assert moved.state == "unsafe"


def test_no_way_is_offered_that_nothing_would_cut() -> None:
    job = taken("engraved").job
    (side,) = Engine().sides(job)
    told = {one.code: one for one in side.all_findings if one.operation == job.operations[-1].id}
    assert told["written.beside"].severity == "warning"
    assert not told["written.kept"].cures


def test_edges_are_planned_with_what_they_belong_to() -> None:
    engine, job = Engine(), taken("edges broken with a point").job
    for name in [one.id for one in job.operations if one.milling]:
        (side,) = engine.sides(job)
        told = next(one for one in side.all_findings if one.operation == name and one.code == "written.kept")
        job = told.cures[0].apply(job)
    slot = job.operations[-1]
    assert slot.kind == "slot"
    assert slot.edge_tool == "T4"
    verdict = proved(job).verdict
    assert verdict.state == "finished", verdict.words


def test_a_word_that_was_taken_as_driving_the_tool_is_not_said_to_be_left_out() -> None:
    left = next(one for one in taken("engraved").left_out if "is not known" in one)
    assert left.startswith("M161, M155, M162: ")
