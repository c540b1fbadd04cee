"""Angles of the work and ways across, counted from where they are: H and V, or C and Y among ways."""

import pytest

from toreuma.core.motion import Motion
from toreuma.engine.study import Asked, study_of

BEGIN = "O1\nG21 G18 G40 G99\nT0101 (TURN CNMG120408)\nG50 S2000\nG96 S150 M3\nG0 X60. Z2.\nG1 Z-30. F.2\nX64.\n"
DRIVEN = "G0 X150. Z100.\nM5\nT0505 (DRILL 6)\nM151\nG98 M153 S2000\n"
SYSTEM_B = (("G50 S", "G92 S"), ("G99", "G95"), ("G98", "G94"))
END = "G80\nG0 X150. Z100.\nM155\nM162\nM30\n"


def holes(text: str, system: str = "") -> list[float]:
    """Angles at which the drill goes down to its depth, in order."""
    whole = BEGIN + DRIVEN + text + END
    for here, there in SYSTEM_B if system else ():
        whole = whole.replace(here, there)
    study = study_of(whole, Asked(dialect=system) if system else Asked())
    assert not [one.what for one in study.program.findings if one.severity == "error"]
    deep = [one for one in study.program.motions if one.driven is not None and one.feed and one.end[0] < -9.9]
    return [round(one.driven.c_deg % 360, 3) for one in deep if one.driven is not None]


def test_h_turns_the_work_from_where_it_stands() -> None:
    text = "G28 H0.\nG0 X40. Z5.\nG83 Z-10. R-3. F120 C30.\nH60.\nH-20.\n"
    assert holes(text) == [30, 90, 70]


def test_a_repeated_hole_is_turned_to_every_time() -> None:
    assert holes("G0 X40. Z5.\nG83 Z-10. R-3. F120 C0.\nH72. K4\n") == [0, 72, 144, 216, 288]


def test_the_reference_point_is_the_angle_zero() -> None:
    text = "G0 C90.\nG28 H0.\nG0 X40. Z5.\nG1 Z-10. F120\nG0 Z5.\nH45.\nG1 Z-10.\nG0 Z5.\n"
    assert holes(text) == [0, 45]


def test_c_among_ways_is_a_way() -> None:
    cuts = "G1 Z-10. F120\nG0 Z5.\n"
    text = f"G0 C10.\nX40. Z5.\n{cuts}G91 C100.\nG90\n{cuts}G91 G0 C100.\nG90\n{cuts}"
    assert holes(text, "system-b") == [10, 110, 210]


def across(text: str) -> list[tuple[float, float]]:
    study = study_of(BEGIN + DRIVEN.replace("DRILL", "ENDMILL") + text + END, Asked())
    assert not [one.what for one in study.program.findings if one.severity == "error"]
    cuts: list[Motion] = [one for one in study.program.motions if one.driven is not None and one.feed]
    return [one.driven.y for one in cuts if one.driven is not None]


def test_v_is_a_way_across() -> None:
    text = "G0 C0.\nG0 X70. Z-10. Y-20.\nX50.\nG1 V30. F200\nV-5.\nY0.\nG0 X70.\n"
    assert across(text) == [(-20, 10), (10, 5), (5, 0)]


@pytest.mark.parametrize(
    ("words", "d_mm"),
    [("DRILL #7 .201", 5.105), ("DRILL #21", 4.039), ("NO. 36 DRILL", 2.705), ("LETTER F DRILL", 6.528),
     ("DRILL .201", 5.105), ("SPOT 10MM", 10.0), ("CENTER .25", 6.35)],
)  # fmt: skip
def test_drills_are_known_by_number_and_letter(words: str, d_mm: float) -> None:
    text = (BEGIN + DRIVEN).replace("DRILL 6", words).replace("G21", "G20")
    study = study_of(text + "G0 C0.\nX1.5 Z.2\nG83 Z-.5 R-.1 F5.\n" + END, Asked())
    tool = next(one.tool for one in study.tools if one.tool.station == 5)
    assert getattr(tool, "d_mm", 0.0) == pytest.approx(d_mm, abs=0.002)
