"""What driven tools cut in a program that nobody planned comes back as the features that were drawn."""

import math
from typing import Any

import pytest

from tests.support.long import everyday
from toreuma.core.model import Job
from toreuma.core.post import post
from toreuma.engine.as_job import TakenAsJob, as_job
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.piece_words import piece_lines
from toreuma.engine.study import Asked, cut_of, study_of

MILL_TURN = "twin-spindle mill-turn"

BY_HAND = """%
O0042 (FLANGE)
G21 G18 G99 G40
G50 S2500
T0101 (TURN CNMG120408)
G96 S180 M3
G0 X62. Z2. M8
Z0
G1 X-1.6 F0.2
G0 X50. Z2.
G1 Z-20. F0.25
X62.
G0 X100. Z100.
M5
M161
T0505 (SPOT DRILL D10)
G98 M153 S2000
G0 X36. Z5.
{angles[0]}
G1 Z-2. F100
G0 Z5.
{angles[1]}
G1 Z-2.
G0 Z5.
{angles[2]}
G1 Z-2.
G0 Z5.
G0 X100. Z100.
M155
T0606 (DRILL D5)
G98 M153 S3000
G0 X36. Z5.
G83 Z-15. R0 Q3000 F150 {angles[0]}
{angles[1]}
{angles[2]}
G80
G0 X100. Z100.
M155
M162
G99
M30
%
"""

POLAR = """%
O0060 (HEX HEAD, MILLED POLAR, CROSS HOLE)
G21 G18 G40 G99 G97
T0101 (TURN CNMG120408)
G50 S3000
G96 S180 M3
G0 X42. Z0 M8
G1 X-1.6 F.15
G0 X40. Z2.
G1 Z-50. F.25
X44.
G0 X100. Z100.
M5
T0303 (ENDMILL 10MM)
M161
G98
M153 S2500
G0 C0
G0 X60. Z-12.
G12.1
G1 X45. C20. F300
X45. C-20.
G13.1
G0 X100. Z100.
M155
T0505 (DRILL 6MM)
M153 S1800
G0 C90.
G0 Z-35. X46.
G87 X10. R-1. Q4000 F120
G80
G0 X100. Z100.
M155
M162
G99
T0707 (PARTING 3MM)
G96 S100 M3
G0 X44. Z-48.
G1 X-.6 F.08
G0 X100. Z100.
M30
%
"""

LINES = [
    "60 x 30 c1; flats 50 x 15 at 5",
    "40 x 30 c1; slot 8 x 4 from 5 to 25",
    "60 x 30 c1; 4 x M5 x 12 on 40",
    "50 x 30 c1; 3 x 5 on 38",
    "32 x 50 c1; cross 4 x 5 x 8 at 20",
    "35 x 60 c1; slot 10 x 5 x 40 at 0",
    "25 x 70 c1; flat 22 x 15 at 30",
    "50 x 30 c1; hex 40 x 8",
    "16 x 60 c0.5; 2 flats 13 x 10 at 0; cross 1 x 3 at 52",
    "60 x 12 c1; 12 slots 4 x 3 x 12 at 0",
    "45 x 60 c1; bore 20 through; cross 3 x 4 at 30",
    "30 x 40 c1; slot 4 x 6 on front",
    "60 x 40 c1; slot 8 x 6 x 30 on front",
]


def of_tools(job: Job) -> dict[int, dict[str, Any]]:
    """What a person would say of the tools of a job."""
    found: dict[int, dict[str, Any]] = {}
    for tool in job.tools:
        row: dict[str, Any] = {"kind": tool.kind}
        if tool.kind in ("drill", "reamer", "end_mill"):
            row["d_mm"] = tool.d_mm
        if tool.kind == "drill":
            row |= {"point_deg": tool.point_deg, "kind": "centre" if tool.form == "spot" else "drill"}
        if tool.kind == "tap":
            row["thread"] = tool.thread
        if tool.kind in ("parting", "grooving"):
            row |= {"width_mm": tool.blade.width_mm, "depth_mm": tool.blade.depth_mm}
        if tool.kind == "turning":
            row["code"] = tool.name.split("-")[0]
        found[tool.station] = row
    return found


def beside(job: Job) -> list[Any]:
    return [one for one in job.part.features if one.kind in ("holes", "flats", "slot")]


@pytest.mark.parametrize("line", everyday(LINES, LINES[0], LINES[2], LINES[11]))
def test_features_come_back_from_the_program_that_cuts_them(line: str) -> None:
    engine = Engine()
    drawn, _ = new_job("Fitting", "mm", "C45", MILL_TURN, line)
    job = engine.route(drawn).job
    text = post(engine.sides(job)[0], engine.language(job)).text
    blank = f"D{job.stock.largest_d_mm:g} L100"  # type: ignore[union-attr]
    taken = as_job(study_of(text, Asked(blank=blank, machine=MILL_TURN, tools=of_tools(job))), "taken").job
    for one, other in zip(beside(job), beside(taken), strict=True):
        for name in type(one).model_fields:
            if name == "thread_length_mm":  # by the lead of the tap, which no program says
                continue
            here, there = getattr(one, name), getattr(other, name)
            assert there == (pytest.approx(here, abs=0.001) if isinstance(here, float) else here), name
    assert {one.kind for one in taken.operations} == {"as_written"}
    assert {n for one in taken.operations for n in one.features_cut} == set(range(len(taken.part.features)))
    kept = engine.prove_whole(engine.sides(taken), {})
    assert kept.verdict.state in ("finished", "finished but for"), kept.verdict.words
    anew = planned_anew(engine, taken)
    assert {n for one in anew.operations if one.kind != "as_written" for n in one.features_cut} >= set(
        range(len(beside(job)))
    )
    whole = engine.prove_whole(engine.sides(anew), {})
    assert whole.verdict.state in ("finished", "finished but for"), whole.verdict.words


def planned_anew(engine: Engine, job: Job) -> Job:
    """The job with every stretch of a driven tool planned, one after the other as a person would."""
    for name in [one.id for one in job.operations if one.milling]:
        (side,) = engine.sides(job)
        told = [one for one in side.all_findings if one.operation == name and one.code == "written.kept"]
        job = told[0].cures[0].apply(job)
    return job


def by_hand(*angles: str) -> TakenAsJob:
    text = BY_HAND.format(angles=angles)
    return as_job(study_of(text, Asked(blank="D62 L60")), "by hand")


def test_words_nobody_knows_drive_a_tool_where_the_spindle_stands() -> None:
    study = study_of(BY_HAND.format(angles=("C0", "C120.", "C240.")), Asked(blank="D62 L60"))
    asked = [one for one in study.program.findings if "M153" in one.what]
    assert "turning a driven tool" in asked[0].why
    assert not [one for one in study.program.findings if one.code == "spindle.stopped"]
    taken = by_hand("C0", "C120.", "C240.")
    (holes,) = beside(taken.job)
    assert (holes.count, holes.d_mm, holes.circle_d_mm, holes.step_deg) == (3, 5.0, 36.0, None)
    assert holes.depth_mm == pytest.approx(13.498, abs=0.001)
    assert [one.features_cut for one in taken.job.operations] == [(), (0,), (0,)]
    assert taken.job.machine.c_axis is not None
    engine = Engine()
    assert engine.prove_whole(engine.sides(taken.job), {}).verdict.state == "finished"


def test_holes_that_are_not_spread_evenly_keep_their_angles() -> None:
    (step,) = beside(by_hand("C10.", "C40.", "C70.").job)
    assert (step.count, step.start_deg, step.step_deg) == (3, 10.0, 30.0)
    each = beside(by_hand("C0", "C40.", "C250.").job)
    assert [(one.count, one.start_deg) for one in each] == [(1, 0.0), (1, 40.0), (1, 250.0)]


def test_what_is_no_feature_is_named_with_its_line() -> None:
    text = BY_HAND.format(angles=("C0", "C120.", "C240.")).replace("(DRILL D5)", "(ENDMILL D5)")
    taken = as_job(study_of(text, Asked(blank="D62 L60")), "by hand")
    assert any("is no hole, flat or slot" in one and "line 33" in one for one in taken.left_out)


def test_a_flat_by_turning_the_work_and_a_hole_across_behind_it() -> None:
    study = study_of(POLAR, Asked(blank="D42 L100"))
    assert [one.tool.mount for one in study.tools if hasattr(one.tool, "mount")][1:3] == ["axial", "radial"]
    pecks = [one for one in study.program.motions if one.line == 30]
    assert all(one.driven is not None and one.driven.y == (0.0, 0.0) for one in pecks)
    assert pecks[0].end == (-35.0, 22.0)  # R is on radius
    assert not cut_of(study).proof.contacts
    flat, hole = beside(as_job(study, "hex").job)
    assert (flat.kind, flat.distance_mm, flat.to_z_mm) == ("flats", 17.5, -12.0)
    assert (hole.on, hole.z_mm, hole.start_deg, hole.d_mm) == ("outside", -35.0, 90.0, 6.0)


def test_what_comes_of_driven_tools_is_listed() -> None:
    study = study_of(POLAR, Asked(blank="D42 L100"))
    lines = piece_lines(cut_of(study), "mm")
    assert "1 × flat 17.5 from the axis   Z 0 … −12, at 0°" in lines
    assert "1 × Ø 6 across   Z −35, 13.197 deep, at 90°" in lines
    milling = study.overview.tools[1]
    assert (milling.feeds, milling.per_minute) == ((300.0,), True)


def test_driven_taps_go_at_their_lead_a_minute() -> None:
    text = BY_HAND.format(angles=("C0", "C120.", "C240."))
    text = text.replace("(DRILL D5)", "(TAP M6)").replace("G83 Z-15. R0 Q3000 F150", "G84 Z-12. R0 F3000")
    taps = [one for one in study_of(text, Asked(blank="D62 L60")).program.motions if one.station == 6 and one.feed]
    assert {round(one.feed or 0.0, 6) for one in taps} == {3000.0}
    assert all(one.per_minute for one in taps)


def test_tapped_holes_are_sunk_to_their_thread_and_cut_as_deep_as_drawn() -> None:
    engine = Engine()
    drawn, _ = new_job("Fitting", "mm", "C45", MILL_TURN, "60 x 30 c1; 4 x M6 x 12 x 16 on 40")
    job = engine.route(drawn).job
    (side,) = engine.sides(job)
    lowest: dict[str, float] = {}
    for one in (motion for operation in side.operations for motion in operation.motions):
        if one.driven is not None and one.feed is not None:
            tool = next(tool for tool in job.tools if tool.station == one.station)
            lowest[tool.kind] = min(lowest.get(tool.kind, 0.0), one.end[0])
            if tool.kind == "drill" and tool.form == "spot":
                lowest["spot"] = min(lowest.get("spot", 0.0), one.end[0])
    spot = next(tool for tool in job.tools if tool.kind == "drill" and tool.form == "spot")
    assert -2 * lowest["spot"] * math.tan(math.radians(spot.point_deg / 2)) == pytest.approx(6.3, abs=0.01)
    tap = next(tool for tool in job.tools if tool.kind == "tap")
    assert lowest["tap"] == pytest.approx(-12 - tap.lead_pitches * tap.pitch_mm, abs=0.001)
    text = post(side, engine.language(job)).text
    short = text.replace(f"Z{lowest['tap']:g}", f"Z{lowest['tap'] + 0.2:g}")
    assert short != text
    verdict = engine.prove_whole([side], {0: short}).verdict
    assert verdict.state == "not finished"
    assert "12.00 mm of full thread are wanted" in verdict.words


def test_a_thread_that_a_mill_goes_round_in_its_holes_is_one_of_the_standard() -> None:
    engine = Engine()
    drawn, _ = new_job("Flange", "mm", "C45", MILL_TURN, "120 x 40 c1; 3 x M27x1.5 x 20 on 70")
    job = engine.route(drawn).job
    rows = of_tools(job)
    (mill,) = [one for one in job.tools if one.kind == "thread_mill"]
    rows[mill.station] |= {"d_mm": mill.d_mm, "name": f"THREAD MILL M99x{mill.pitch_mm[0]:g}"}
    text = post(engine.sides(job)[0], engine.language(job)).text
    blank = f"D{job.stock.largest_d_mm:g} L100"  # type: ignore[union-attr]
    taken = as_job(study_of(text, Asked(blank=blank, machine=MILL_TURN, tools=rows)), "taken").job
    (holes,) = beside(taken)
    assert (holes.count, holes.thread, holes.circle_d_mm) == (3, "M27x1.5", 70.0)
    assert 20.0 <= holes.thread_length_mm <= 20.5
    assert engine.prove_whole(engine.sides(taken), {}).verdict.state == "finished"
    anew = planned_anew(engine, taken)
    assert [one.kind for one in anew.operations][-2:] == ["holes", "holes"]
    assert engine.prove_whole(engine.sides(anew), {}).verdict.state == "finished"
