"""Compensation held against what it is for: the nose, swept along, leaves the contour and nothing more or less."""

import numpy as np
import pytest
import shapely

from toreuma.core.read import Given, Nose, Program, read
from toreuma.core.read.nose import tip_from_centre
from toreuma.shipped.library import dialect

HEAD = "O1\nG21 G40 G99\nT0101\nG50 S2000\nG96 S150 M3\n"
OUTSIDE = (
    "G0 X24. Z3.\nG42 G0 X16. Z1.\nG1 X20. Z-1. F.1\nZ-15.\nG2 X30. Z-20. R5.\nG1 X36.\nX40. Z-22.\nZ-30.\nX54.\n"
    "G40 G0 X70. Z5.\nM30"
)
BORE = "G0 X24. Z3.\nG41 G0 X32. Z1.\nG1 X28. Z-1. F.1\nZ-12.\nG3 X20. Z-16. R4.\nG1 Z-25.\nX12.\nG40 G0 X8. Z5.\nM30"
CONE = "G0 X60. Z3.\nG42 G0 X10. Z1.\nG1 X30. Z-20. F.1\nX34.\nX44. Z-60.\nG40 G0 X70. Z5.\nM30"


def swept(body: str, nose: Nose) -> tuple[Program, shapely.Geometry, list[shapely.Geometry]]:
    """What the nose covers, and the contour as it is programmed, without the ways on and off it."""
    compensated = read(HEAD + body, dialect("system-a"), None, given=Given(noses={1: nose}))
    plain = read(HEAD + body.replace("G42", "").replace("G41", ""), dialect("system-a"), None)
    tip = np.array(tip_from_centre(nose))
    ways = [shapely.LineString(m.segment.points(1e-4) - tip) for m in compensated.motions if not m.is_rapid]
    contour = [shapely.LineString(m.segment.points(1e-4)) for m in plain.motions if not m.is_rapid]
    return compensated, shapely.union_all([way.buffer(nose.radius_mm, 256) for way in ways]), contour


@pytest.mark.parametrize("radius", [0.2, 0.8, 1.6])
@pytest.mark.parametrize(
    ("body", "tip", "axis"),
    [(OUTSIDE, 3, "below"), (OUTSIDE, 0, "below"), (OUTSIDE, 8, "below"), (BORE, 2, "above"), (CONE, 3, "below")],
)
def test_the_nose_leaves_the_contour_and_touches_all_of_it(body: str, tip: int, axis: str, radius: float) -> None:
    program, covered, contour = swept(body, Nose(radius, tip))
    assert [one.what for one in program.findings if one.code.startswith("side")] == []
    line = shapely.line_merge(shapely.union_all(contour))
    metal = line.buffer(5.0, single_sided=True) if axis == "below" else line.buffer(-5.0, single_sided=True)
    assert shapely.area(covered.intersection(metal.buffer(-0.002))) < 1e-4
    for piece in contour:
        middle = piece.interpolate(0.5, normalized=True)
        assert middle.distance(covered) < 0.002


def test_a_step_smaller_than_the_nose_is_an_alarm_at_its_line() -> None:
    body = "G0 X30. Z3.\nG42 G0 X20. Z1.\nG1 Z-10. F.1\nX20.4\nZ-10.2\nX19.8\nZ-20.\nG40 G0 X60.\nM30"
    program, _, _ = swept(body, Nose(0.8, 3))
    assert [one.code for one in program.findings] == ["side.narrow"]
    assert program.findings[0].line in (9, 10, 11, 12)


def test_a_nose_written_by_the_program_counts() -> None:
    given = read(HEAD + CONE, dialect("system-a"), None, given=Given(noses={1: Nose(0.8, 3)}))
    own = read(HEAD.replace("T0101", "G10 P1 R.8 Q3\nT0101") + CONE, dialect("system-a"), None)
    assert [one.end for one in own.motions] == [one.end for one in given.motions]


def test_the_finishing_cycle_goes_beside_its_contour() -> None:
    body = (
        "G0 X44. Z2.\nG71 U2. R.5\nG71 P10 Q20 U.4 W.1 F.3\nN10 G42 G0 X20.\nG1 Z0. F.1\nX24. Z-2.\nZ-15.\nX40.\n"
        "N20 G40 X44.\nG70 P10 Q20\nM30"
    )
    program, _, _ = swept(body, Nose(0.8, 3))
    assert [one.code for one in program.findings] == []
    cone = [one for one in program.motions if one.line == 15 and one.feed == 0.1]
    # A nose of 0.8 beside a chamfer of 45 degrees: the programmed point lies (1 - tan 22.5) r beside it on radius.
    chamfer = next(one for one in cone if one.end[0] < one.start[0] - 1 and one.end[1] > one.start[1] + 1)
    assert chamfer.start[1] - (10 - (chamfer.start[0])) == pytest.approx(-0.8 * (2 - 2**0.5), abs=1e-3)
