"""A program nobody planned taken as a job: the part it makes, its moves kept, its stretches planned anew one by one."""

from pathlib import Path

import pytest

from toreuma.core.errors import ProgramError
from toreuma.core.model import Job
from toreuma.core.post import post
from toreuma.engine.as_job import TakenAsJob, as_job
from toreuma.engine.engine import Engine
from toreuma.engine.judging import Whole
from toreuma.engine.study import Asked, study_of
from toreuma.files.jobs import load_job, save_job

TURNED = (
    "O7\nG21 G40 G99\nT0101 (CNMG 120408)\nG50 S2500\nG96 S180 M3\nG0 X52. Z0.\nG1 X-1.6 F.2\nG0 X50. Z2.\n"
    "G71 U2. R.5\nG71 P10 Q20 U.4 W.1 F.25\nN10 G0 G42 X20.\nG1 Z0. F.12\nX24. Z-2.\nZ-20.\nG2 X30. Z-23. R3.\n"
    "G1 X40.\nZ-40.\nN20 G40 X52.\nG70 P10 Q20\nG0 X150. Z100.\n"
)
GROOVED = "T0303 (GROOVE 3 WIDE)\nG97 S800 M3\nG0 X42. Z-30.\nG1 X34. F.08\nG4 X.2\nG0 X42.\nG0 X150. Z100.\n"
THREADED = (
    "T0404 (THREAD 60 DEG)\nG97 S600 M3\nG0 X26. Z5.\nG92 X23.4 Z-17. F1.5\nX22.9\nX22.6\nX22.35\nX22.2\nX22.1\n"
    "G0 X150. Z100.\n"
)
BORED = (
    "O8\nG21 G40 G99\nT0202 (BORE R.4)\nG97 S900 M3\nG0 X24. Z2.\nG1 Z-30. F.15\nG0 X22.\nZ2.\nG0 X32.\n"
    "G1 Z0.\nG3 X26. Z-3. R3.\nG1 Z-30.\nX23.\nG0 Z2.\nG0 X150. Z100.\nM30\n"
)
END = "M30\n"


def taken(text: str, blank: str) -> TakenAsJob:
    return as_job(study_of(text, Asked(blank=blank)), "taken")


def proved(job: Job) -> Whole:
    engine = Engine()
    return engine.prove_whole(engine.sides(job), {})


def anew(job: Job, index: int) -> Job:
    """With the cure that its own finding offers."""
    (side,) = Engine().sides(job)
    wanted = job.operations[index].id
    finding = next(one for one in side.all_findings if one.code == "written.kept" and one.operation == wanted)
    return finding.cures[0].apply(job)


def test_the_part_is_what_the_program_cuts() -> None:
    found = taken(TURNED + GROOVED + THREADED + END, "D50 L80")
    job = found.job
    assert [one.kind for one in job.operations] == ["as_written"] * 3
    corners = [(one.kind, round(one.z_mm, 2), round(one.d_mm, 2)) for one in job.part.outside]
    assert ("line", -20.0, 24.0) in corners
    assert ("line", -23.0, 40.0) in corners
    arc = next(one for one in job.part.outside if one.kind == "arc" and one.z_mm < -10)
    assert (arc.bulge, arc.radius_mm) == ("concave", pytest.approx(3.0, abs=0.002))
    groove, thread = job.part.features
    assert (groove.kind, groove.z_mm, groove.width_mm, groove.d_mm) == ("groove", -27.0, 3.0, 34.0)  # type: ignore[union-attr]
    assert (thread.kind, thread.designation) == ("thread", "M24x1.5")  # type: ignore[union-attr]
    assert thread.from_z_mm == pytest.approx(-2.0)  # type: ignore[union-attr]


FACED = (
    "T0505 (FACE GROOVER 3 WIDE)\nG97 S500 M3\nG0 X22. Z2.\nG1 Z-4. F.05\nG0 Z2.\nX24.\nG1 Z-4.\nG0 Z2.\n"
    "G0 X150. Z100.\n"
)
V_CUT = (
    "T0606 (GROOVE 2 WIDE)\nG97 S800 M3\nG0 X42. Z-32.\nG1 X34. F.06\nG0 X42.\nZ-29.691\nG1 X40.\nX34. Z-32.\n"
    "G0 X42.\nZ-34.309\nG1 X40.\nX34. Z-32.\nG0 X42.\nG0 X150. Z100.\n"
)
IN_BORE = (
    "T0202 (BORE R.4)\nG97 S900 M3\nG0 X24. Z2.\nG1 Z-30. F.15\nG0 X22.\nZ2.\nG0 X150. Z100.\n"
    "T0707 (INTERNAL GROOVE 3 WIDE)\nG97 S500 M3\nG0 X20. Z2.\nZ-13.\nG1 X28. F.05\nG0 X20.\nZ2.\nG0 X150. Z100.\n"
)


@pytest.mark.parametrize(
    ("cut", "blank", "wanted"),
    [
        (FACED, "D50 L80", {"kind": "face_groove", "depth_mm": 4.0}),
        (V_CUT, "D40 L80", {"kind": "groove", "side": "outside", "wall_deg": 37.6, "d_mm": 34.0}),
        (IN_BORE, "D50 L80 bore 20", {"kind": "groove", "side": "inside", "width_mm": 3.0, "d_mm": 28.0}),
    ],
)
def test_grooves_of_every_surface_are_features_that_are_planned_anew(
    cut: str, blank: str, wanted: dict[str, object]
) -> None:
    job = taken("O9\nG21 G40 G99 G18\n" + cut + END, blank).job
    (groove,) = job.part.features
    said = groove.model_dump()
    for key, value in wanted.items():
        assert said[key] == (pytest.approx(value, abs=0.1) if isinstance(value, float) else value), said
    index = len(job.operations) - 1
    planned = anew(job, index)
    assert planned.operations[index].kind == "groove"
    assert all(
        row.state in ("made", "allowed") for row in proved(planned).verdict.rows if row.key.startswith("feature")
    )


def test_moves_are_kept_and_proved_against_that_part() -> None:
    whole = proved(taken(TURNED + GROOVED + THREADED + END, "D50 L80").job)
    (proof,) = whole.proofs
    assert proof.gouge_um < 1.0
    assert not [one for one in proof.findings if one.code in ("gouge", "thread.size", "program.differs")]


def test_a_bore_with_an_arc_bulges_the_right_way() -> None:
    job = taken(BORED, "D50 d20 L60").job
    arc = next(one for one in job.part.inside if one.kind == "arc" and one.z_mm > -10)
    assert arc.radius_mm == pytest.approx(3.0, abs=0.45)
    (proof,) = proved(job).proofs
    assert proof.gouge_um < 1.0


def test_a_front_that_stands_out_is_moved_to_zero() -> None:
    text = TURNED.replace("G0 X52. Z0.\nG1 X-1.6 F.2\n", "G0 X52. Z1.\nG1 X-1.6 F.2\n") + END
    job = taken(text, "D50 L80 Z3").job
    assert job.stock.face_allowance_mm == pytest.approx(2.0)
    assert min(one.z_mm for one in job.part.outside) == pytest.approx(-78.0)


def test_what_was_assumed_stands_with_the_operation() -> None:
    found = taken(TURNED + THREADED + END, "D50 L80")
    (side,) = Engine().sides(found.job)
    assumed = {one.operation: one.what for one in side.all_findings if one.code == "written.assumed"}
    assert "chips break as those of" in assumed["op1"]
    assert any("no machine is named" in one for one in found.left_out)
    assert "no drawing was asked" in assumed["op1"]


def test_stretches_are_planned_anew_one_at_a_time() -> None:
    job = taken(TURNED + GROOVED + THREADED + END, "D50 L80").job
    job = anew(job, 2)
    assert [one.kind for one in job.operations] == ["as_written", "as_written", "thread"]
    job = anew(job, 1)
    assert [one.kind for one in job.operations] == ["as_written", "groove", "thread"]
    (proof,) = proved(job).proofs
    assert proof.gouge_um < 1.0
    job = anew(job, 0)
    assert [one.kind for one in job.operations][:2] == ["face", "rough_od"]
    assert len({one.id for one in job.operations}) == len(job.operations)
    assert {one.tool for one in job.operations} == {"T1", "T3", "T4"}


def test_a_stretch_nothing_does_is_one_clear_line_and_stays() -> None:
    text = "O9\nG21 G99\nT0505 (GROOVE 3 WIDE)\nG97 S800 M3\nG0 X60. Z-30.\nG1 X46. F.08\nZ-45.\nX60.\n" + END
    job = taken(text.replace("Z-45.", "X44. Z-45."), "D50 L80").job
    with pytest.raises(Exception, match="keep them as written"):
        anew(job, 0)


def test_a_tapped_hole_is_as_wide_as_its_tap_and_says_so() -> None:
    text = (
        "O4\nG21 G99\nT0505 (DRILL 6.8)\nG97 S800 M3\nG0 X0. Z5.\nG1 Z-25. F.12\nG0 Z5.\nG0 X100. Z50.\n"
        "T0707 (TAP M8X1.25)\nG97 S300 M3\nG0 X0. Z5.\nG84 Z-18. F1.25\nG80\nG0 X100. Z50.\nM30\n"
    )
    job = taken(text, "D20 L40").job
    assert max(one.d_mm for one in job.part.inside) == pytest.approx(8.0, abs=0.1)
    assert "as wide as the tap" in " ".join(job.operations[1].assumed)  # type: ignore[union-attr]
    (proof,) = proved(job).proofs
    assert proof.gouge_um < 1.0


@pytest.mark.parametrize(
    "text", [BORED, "O4\nG21 G99\nT0505 (DRILL 10)\nG97 S800 M3\nG0 X0. Z5.\nG1 Z-20. F.1\nG0 Z5.\nM30\n"]
)
def test_where_nobody_names_a_blank_the_hole_has_walls(text: str) -> None:
    found = taken(text, "")
    assert any("by what is cut" in one for one in found.left_out)
    assert max(one.d_mm for one in found.job.part.inside) < max(one.d_mm for one in found.job.part.outside)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("O1\nG21\nM30\n", "nothing in it cuts"),
        ("O1\nG21 G99\nT0101\nG97 S500 M3\nN5 G0 X60.\nG1 X40. Z-9. F.2\nGOTO5\nM30\n", "does not end"),
        ("O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X100. Z2.\nG1 X90. F.2\nM30\n", ""),
    ],
)
def test_programs_that_cut_nothing(text: str, words: str) -> None:
    if words:
        with pytest.raises(ProgramError, match=words):
            taken(text, "D50 L80")
    else:
        assert [(one.z_mm, one.d_mm) for one in taken(text, "D50 L80").job.part.outside] == [(0.0, 50.0), (-80.0, 50.0)]


def test_lines_not_understood_are_told() -> None:
    found = taken(TURNED.replace("G70 P10 Q20", "G70 P10 Q20\nG789 X1.") + END, "D50 L80")
    assert any("G789" in one for one in found.left_out)
    assert any("G789" in one for one in found.job.operations[0].assumed)  # type: ignore[union-attr]


def test_it_is_kept_in_a_file(tmp_path: Path) -> None:
    job = taken(TURNED + THREADED + END, "D50 L80").job
    save_job(job, tmp_path / "taken.toreuma")
    assert load_job(tmp_path / "taken.toreuma") == job


def test_an_inch_program_makes_an_inch_job() -> None:
    text = (
        "O5\nG20 G40 G99\nT0101 (CNMG 431)\nG97 S900 M3\nG0 X2.1 Z.1\nX.75\nG1 Z-1.5 F.008\nX2.1\nG0 X6. Z4.\n"
        "T0303 (THREAD)\nG97 S500 M3\nG0 X.9 Z.2\nG92 X.73 Z-1. F.0625\nX.71\nX.69\nX.68\nX.6733\nG0 X6. Z4.\nM30\n"
    )
    job = taken(text, "D2in L3in").job
    assert job.units == "inch"
    (thread,) = job.part.features
    assert thread.designation == "3/4-16 UNF"  # type: ignore[union-attr]


STOPPED = (
    "O9\nG21 G18 G40 G99\nT1010 (BAR STOP)\nG0 X0 Z5.\nG98 G1 Z0 F2000.\nM11\nG4 X1.\nM10\nG99\nG0 Z50.\n"
    "G0 X150. Z100.\nT0101 (ROUGH CNMG120408)\nG50 S2500\nG96 S180 M3\nG0 X16. Z2.\nG1 Z-20. F.25\nX22.\n"
    "G0 X150. Z100.\nT0707 (PARTING 3MM)\nG96 S100 M3\nG0 X24. Z-33.\nG1 X-.6 F.08\nG0 X24.\nG0 X150. Z100.\n"
)


def test_a_bar_that_comes_out_to_a_stop_is_kept_with_the_hold_that_opens() -> None:
    job = as_job(study_of(STOPPED + END, Asked(blank="D20 L100", machine="slant-bed")), "taken").job
    stop = job.operations[0]
    assert stop.kind == "as_written"
    assert [one.event for one in stop.moves if one.event] == ["unclamp", "clamp"]
    engine = Engine()
    (side,) = engine.sides(job)
    text = post(side, engine.language(job)).text
    assert text.index("M11") < text.index("G4 P1000") < text.index("M10")
    assert proved(job).verdict.state == "finished"
    farther = text.replace("G1 Z0. F2000.", "G1 Z1.5 F2000.")
    assert farther != text
    assert "1.50 mm farther" in engine.prove_whole([side], {0: farther}).verdict.words


def test_words_nobody_knows_are_named_where_a_job_has_none_of_them() -> None:
    found = taken(STOPPED + END, "D20 L100")
    assert "M11, M10: what is done there is not known, and the job does not do it" in found.left_out
