"""A program cut out of a blank without a drawing: what comes of it, by sizes worked out by hand."""

import json
import math
from pathlib import Path
from typing import Any

import pytest

from tests.support.command import toreuma
from toreuma.core.errors import ProgramError
from toreuma.engine.check import Checked, check_program
from toreuma.engine.check_report import check_report
from toreuma.engine.foreign_blank import blank_of

HEAD = "%\nO12\nG21 G40 G99\n"
TURNED = HEAD + (
    "T0101 (CNMG120404)\nG50 S2500\nG96 S180 M3\nG0 X52. Z0. M8\nG1 X-1. F.1\n"
    "G0 X46. Z2.\nG1 Z-40. F.25\nG0 X48. Z2.\nX40.\nG1 Z-20.\nX50.\nG0 X100. Z100.\nM30\n%\n"
)
DRILLED = HEAD + (
    "T0202 (DRILL 12MM)\nG97 S800 M3\nG0 X0 Z3.\nG74 R1.\nG74 Z-30. Q8000 F.12\nG0 Z100.\n"
    "T0303 (BORING BAR)\nG97 S900\nG0 X16. Z2.\nG1 Z-15. F.1\nG0 X14.\nZ100.\nM30\n%\n"
)
GROOVED = HEAD + (
    "T0404 (GROOVE 3 WIDE)\nG97 S600 M3\nG0 X52. Z-23.\nG1 X40. F.06\nG4 X.2\nG0 X52.\nX100. Z100.\n"
    "T0505 (CUT OFF 2.5)\nG0 X52. Z-50.\nG1 X-1. F.05\nG0 X100. Z100.\nM30\n%\n"
)


def checked(text: str, blank: str = "D50 L80 Z1", tools: Any = None) -> Checked:
    return check_program(text, blank, tools)


def diameters(made: Checked, name: str = "outside") -> list[tuple[float, float, float]]:
    rows = check_report(made)["piece"][name]
    return [(r["front_z"], r["back_z"], r["front_d"]) for r in rows if r["front_d"] == r["back_d"]]


def test_turned_steps_come_out_as_programmed() -> None:
    made = checked(TURNED)
    found = diameters(made)
    assert (0.0, pytest.approx(-19.6, abs=0.41), 40.0) == found[0]
    assert found[1][2] == 46.0
    assert found[1][1] == pytest.approx(-39.6, abs=0.41)
    assert found[-1][1:] == (-79.0, 50.0)
    assert made.safe
    removed = check_report(made)["piece"]["removed_mm3"]
    meant = math.pi / 4 * (50**2 + 20 * (50**2 - 40**2) + 20 * (50**2 - 46**2))
    assert removed == pytest.approx(meant, rel=0.01)


def test_a_bore_by_drill_and_bar() -> None:
    made = checked(DRILLED)
    bore = diameters(made, "bore")
    assert [(round(d), round(back)) for _, back, d in bore][:1] == [(16, -15)]
    assert any(
        d == 12.0 and back == pytest.approx(-30 + 6 * math.tan(math.radians(31)), abs=0.01) for _, back, d in bore
    )
    kinds = [one.tool.kind for one in made.study.tools]
    assert kinds == ["drill", "boring"]
    assert made.study.tools[0].assumed == ()


def test_a_groove_and_parting_off() -> None:
    made = checked(GROOVED)
    assert [one.tool.kind for one in made.study.tools] == ["grooving", "parting"]
    assert [one.tool.blade.width_mm for one in made.study.tools] == [3.0, 2.5]  # type: ignore[union-attr]
    groove = next(row for row in diameters(made) if row[2] == 40.0)
    assert groove[:2] == pytest.approx((-20.2, -22.8), abs=0.01)
    assert made.cut.proof.parted
    assert diameters(made)[-1][1] == pytest.approx(-47.5, abs=0.01)
    assert any("corner toward the chuck" in line for line in made.cut.assumed)


def test_the_other_corner_of_a_blade_can_be_said() -> None:
    made = checked(GROOVED, tools={"tools": [{"station": 4, "width_mm": 3, "tip": 4}]})
    groove = next(row for row in diameters(made) if row[2] == 40.0)
    assert groove[:2] == pytest.approx((-23.2, -25.8), abs=0.01)


def test_a_crash_has_its_line() -> None:
    made = checked(TURNED.replace("G0 X48. Z2.", "G0 X30. Z-60."))
    lines = {one.line for one in made.findings if one.code == "contact"}
    assert 11 in lines
    assert not made.safe


def test_jaws_that_are_said_are_held_against() -> None:
    assert not any("jaws" in one.what for one in checked(TURNED, "D50 L80 Z1 J-60").findings)
    near = checked(TURNED, "D50 L80 Z1 J-30").findings
    assert any("jaws" in one.what for one in near)


def test_a_threaded_stretch_is_one_row() -> None:
    text = (
        HEAD
        + "T0606 (THREAD)\nG97 S500 M3\nG0 X24. Z5.\nG92 X19.5 Z-20. F1.5\nX19.\nX18.4\nX18.16\nG0 X60. Z60.\nM30\n"
    )
    made = checked(text, "D20 L60")
    (row,) = check_report(made)["piece"]["threads"]
    assert (row["lead_mm"], row["back_z"], row["smallest_d"], row["passes"]) == (1.5, -20.0, 18.16, 4)
    assert len(check_report(made)["piece"]["outside"]) < 6


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("", "size across"),
        ("D50", "length"),
        ("50 by 80", "not understood"),
        ("D50 L80 Q3", "not understood"),
        ("D20 d30 L10", "bore"),
        ("D-5 L10", "between"),
        ("0 50, -10 x", "pairs"),
        ("-10 50, 0 50", "front to the back"),
    ],
)
def test_a_blank_that_cannot_be_is_one_clear_line(line: str, words: str) -> None:
    with pytest.raises(ProgramError) as caught:
        blank_of(line)
    assert words in str(caught.value)


@pytest.mark.parametrize(
    ("line", "d", "length"),
    [
        ("D50 L80", 50, 80),
        ("Ø50 L80 Z2", 50, 80),
        ("D2in L3in", 50.8, 76.2),
        ("HEX 24 L60", 24, 60),
        ("D60 d30 L40", 60, 40),
    ],
)
def test_a_blank_in_one_line(line: str, d: float, length: float) -> None:
    found = blank_of(line)
    assert (found.d_mm, found.length_mm) == (pytest.approx(d), pytest.approx(length))


def test_corners_make_a_blank() -> None:
    text = HEAD + "T0101\nG97 S300 M3\nG0 X44. Z2.\nG1 Z-25. F.2\nG0 X80. Z50.\nM30\n"
    made = check_program(text, "0 50, -30 50, -30 60, -80 60")
    assert diameters(made)[0][2] == 44.0
    assert diameters(made)[-1] == (-30.0, -80.0, 60.0)


def test_read_and_check_on_the_command_line(tmp_path: Path) -> None:
    program, tools = tmp_path / "O12.nc", tmp_path / "tools.json"
    program.write_bytes(TURNED.replace("(CNMG120404)", "(MÜLLER)").encode("latin-1"))
    tools.write_text(json.dumps({"T1": {"code": "CNMG120404", "holder": "PCLNR2525M12"}}), "utf-8")
    done = toreuma("read", str(program), "--json")
    data = json.loads(done.stdout)
    assert done.returncode == 0
    assert {"line", "z", "d", "feed", "how", "station"} <= data["motions"][0].keys()
    assert data["dialect"] == "system-a"
    done = toreuma("check", str(program), "--blank", "D50 L80 Z1", "--tools", str(tools), "--json")
    data = json.loads(done.stdout)
    assert done.returncode == 0, data["findings"]
    assert data["piece"]["outside"][0]["front_d"] == 40.0
    done = toreuma("read", str(program), "--at", "10")
    assert "since line" in done.stdout or "(line 6)" in done.stdout
    job = tmp_path / "taken.toreuma"
    done = toreuma("check", str(program), "--blank", "D50 L80 Z1", "--tools", str(tools), "--job", str(job))
    assert "taken as a job" in done.stdout
    assert toreuma("prove", str(job)).stdout.startswith(f"{program.stem}: ")
    done = toreuma("check", str(program), "--blank", "nonsense")
    assert done.returncode == 2
    assert done.stderr.startswith("toreuma: blank: ")


def test_programs_in_neighbouring_files_are_called(tmp_path: Path) -> None:
    (tmp_path / "O1.nc").write_text("O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X50. Z2.\nM98 P2000\nM30\n", "utf-8")
    (tmp_path / "O2000.NC").write_text("%\nO2000\nG1 Z-5. F.2\nM99\n%\n", "utf-8")
    data = json.loads(toreuma("read", str(tmp_path / "O1.nc"), "--json").stdout)
    assert [(one["line"], one["z"]) for one in data["motions"]] == [(5, 2.0), (6, -5.0)]
    assert data["missing_programs"] == []


@pytest.mark.long
def test_of_a_program_that_does_not_end_the_beginning_is_cut() -> None:
    made = checked(HEAD + "T0101 (CNMG 120408)\nG97 S800 M3\nN5 G0 X60. Z2.\nX40.\nZ-9.\nGOTO5\nM30\n", "D50 L80")
    assert any("does not end" in one for one in made.cut.assumed)
    assert any(one.code == "program.endless" for one in made.findings)
    assert any(one.code == "contact" for one in made.findings)


@pytest.mark.parametrize(("drill", "parts_at", "bore"), [("", -0.5, False), ("20", 18.0, True)])
def test_what_is_parted_off_from_a_long_bar_is_what_comes_of_it(drill: str, parts_at: float, bore: bool) -> None:
    hole = f"T0202 (DRILL D{drill})\nG97 S800 M3\nG0 X0 Z5.\nG1 Z-45. F.15\nG0 Z100.\nX100.\n" if drill else ""
    text = (
        f"O1\nG21 G18 G99\nG50 S2500\n{hole}T0101 (TURN CNMG120408)\nG96 S180 M3\nG0 X47. Z2.\nX40.\nG1 Z-35. F.2\n"
        f"X46.\nG0 X100. Z100.\nT0303 (PART 3 WIDE)\nG96 S100 M3\nG0 X48. Z-30.\nG1 X{parts_at} F.1\nG0 X100.\nM30\n"
    )
    made = checked(text, "D45 L100")
    low, _, high, outer = made.cut.proof.final.bounds
    assert made.cut.proof.parted
    assert (low, high, outer) == pytest.approx((-27.0, 0.0, 20.0), abs=0.01)
    assert (made.cut.proof.final.bounds[1] > 9.9) is bore
    assert not [one for one in made.cut.findings if one.code == "loose"]


def test_sizes_in_comments_of_an_inch_program_are_inches() -> None:
    text = (
        "O1\nG20 G18 G99\nT0101 (TURN 80 DEG R.031)\nG97 S900 M3\nG0 X2. Z.1\nX1.\nG1 Z-.9 F.008\nX2.1\nG0 X4. Z4.\n"
        "T0202 (DRILL 12MM)\nG0 X0 Z.1\nG1 Z-1. F.004\nG0 Z4.\n"
        "T0303 (CUTOFF .125 WIDE)\nG0 X2. Z-.75\nG1 X.4 F.003\nG0 X4.\nM30\n"
    )
    made = checked(text, "D2in L4in")
    turning, drill, blade = (one.tool for one in made.study.tools)
    assert turning.insert.nose_radius_mm == pytest.approx(0.7874)  # type: ignore[union-attr]
    assert drill.d_mm == 12.0  # type: ignore[union-attr]
    assert blade.blade.width_mm == pytest.approx(3.175)  # type: ignore[union-attr]
    assert made.cut.proof.final.bounds[0] == pytest.approx(-(0.75 - 0.125) * 25.4, abs=0.01)
    said = checked(text, "D2in L4in", {"tools": {"3": {"width": 0.1}}})
    assert said.study.tools[2].tool.blade.width_mm == pytest.approx(2.54)  # type: ignore[union-attr]


def test_the_ridges_of_a_thread_in_a_bore_are_one_step() -> None:
    text = (
        "O1\nG21 G18 G99\nT0101 (DRILL 24)\nG97 S800 M3\nG0 X0 Z3.\nG1 Z-40. F.1\nG0 Z50.\n"
        "T0202 (ID THREAD)\nG0 X22. Z5.\nG92 X24.6 Z-20. F1.5\nX25.\nX25.3\nG0 Z50.\nM30\n"
    )
    made = checked(text, "D60 L60")
    assert len(diameters(made, "bore")) < 8


def test_a_word_nobody_knows_turns_the_spindle_where_a_speed_stands_beside_it() -> None:
    head = "O1\nG21 G18 G99\nT0101 (TURN CNMG120408)\nG97 S1200 M213\n"
    text = f"{head}G0 X42. Z2.\nX38.\nG1 Z-20. F.2\nX42.\nG0 X99.\nM30\n"
    made = checked(text, "D40 L60")
    asked = [one for one in made.findings if "M213" in one.what]
    assert "turning the spindle" in asked[0].why
    assert made.safe
    assert not [one for one in made.findings if one.code == "spindle.stopped"]


def test_a_groove_in_the_face_is_listed_and_a_gripper_is_no_drill() -> None:
    text = (
        "O1\nG21 G18 G99\nT0202 (FACE GROOVE 4 WIDE)\nG97 S700 M3\nG0 X50. Z2.\nG1 Z-5. F.05\nG0 Z50.\n"
        "T0303 (BAR PULLER)\nM5\nG98\nG0 X0 Z10.\nG1 Z2. F2000\nG0 Z50.\nM30\n"
    )
    made = checked(text, "D60 L40")
    rows = check_report(made)["piece"]["face_grooves"]
    assert rows == [{"front_z": 0.0, "outer_d": 50.0, "inner_d": 42.0, "depth": 5.0}]
    assert made.study.tools[1].tool.kind == "bar_puller"
