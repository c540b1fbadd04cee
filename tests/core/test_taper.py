"""Tapers by angle and ratio, and general tolerances."""

import pytest

from toreuma.core.errors import UnitError
from toreuma.core.geometry.taper import end_diameter, half_angle_deg
from toreuma.core.standards.general import general_tolerance_mm
from toreuma.shipped.standards import general_tables


@pytest.mark.parametrize(
    ("text", "end"),
    [("45°", 40.0), ("-45 deg", 0.0), ("90° included", 40.0), ("1:10", 21.0), ("-1:5", 18.0), ("30°", 31.547005)],
)
def test_tapers_by_angle_and_ratio(text: str, end: float) -> None:
    """Ø20 over 10 mm: 45 degrees to the axis change the diameter by 20, a ratio of 1:10 by 1 (ISO 1119)."""
    assert end_diameter(text, 20.0, 10.0) == pytest.approx(end, abs=1e-5)


def test_the_angle_is_read_back() -> None:
    assert half_angle_deg(20, end_diameter("17.5°", 20, 12), 12) == pytest.approx(17.5)


@pytest.mark.parametrize("text", ["", "20", "1:0", "-60°", "90°", "steep"])
def test_what_is_no_taper_is_said(text: str) -> None:
    with pytest.raises(UnitError):
        end_diameter(text, 20.0, 10.0)


def test_general_tolerances_are_the_standards() -> None:
    """ISO 2768-1: m at 25 is 0.2, f at 100 is 0.15, c at 200 is 1.2; v gives none up to 3."""
    tables = general_tables()
    assert [general_tolerance_mm(*x, tables) for x in ((25, "m"), (100, "f"), (200, "c"), (30, "m"))] == [
        0.2,
        0.15,
        1.2,
        0.2,
    ]
    assert general_tolerance_mm(2, "v", tables) is None
    assert general_tolerance_mm(10, "", tables) is None
