"""Typed text to quantities and back."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from toreuma.core.errors import UnitError
from toreuma.core.units import UNITS, from_shown, parse, show, to_shown


@pytest.mark.parametrize(
    ("text", "unit", "system", "value"),
    [
        ("12.7", "mm", "mm", 12.7),
        ("12,7", "mm", "mm", 12.7),
        ("1/2", "mm", "inch", 12.7),
        ("1/2in", "mm", "mm", 12.7),
        ("1 1/2in", "mm", "mm", 38.1),
        ("Ø30", "mm", "mm", 30.0),
        ("30-0.2", "mm", "mm", 29.8),
        ("1in + 2mm", "mm", "mm", 27.4),
        ("2*(3+0.5)", "mm", "mm", 7.0),
        ("-(1+1)", "mm", "mm", -2.0),
        ("\u22124", "mm", "mm", -4.0),
        ("12 thou", "mm", "mm", 0.3048),
        ("0.012in", "mm/rev", "mm", 0.3048),
        ("180 m/min", "m/min", "inch", 180.0),
        ("600", "m/min", "inch", 182.88),
        ("600 ft/min", "m/min", "mm", 182.88),
        ("1\u2009500", "rpm", "mm", 1500.0),
    ],
)
def test_what_people_type(text: str, unit: str, system: str, value: float) -> None:
    assert parse(text, unit, system) == pytest.approx(value, rel=1e-12)  # type: ignore[arg-type]


@pytest.mark.parametrize("text", ["", "abc", "1/0", "2(", "3 kg", "1..2", "--", "1e999999", "(1", "Ø", "180 m/min"])
def test_nonsense_is_refused_in_one_clear_line(text: str) -> None:
    with pytest.raises(UnitError) as caught:
        parse(text, "mm", "mm")
    assert "\n" not in str(caught.value)
    assert caught.value.cure


@given(st.floats(-1e5, 1e5), st.sampled_from(sorted(UNITS)), st.sampled_from(["mm", "inch"]))
def test_showing_and_reading_back_loses_only_the_decimals(value: float, unit: str, system: str) -> None:
    shown = show(value, unit, system)  # type: ignore[arg-type]
    read = parse(shown.number, unit, system)  # type: ignore[arg-type]
    style = UNITS[unit][system]  # type: ignore[index]
    assert abs(read - value) * style.factor <= 0.5 * 10**-style.decimals * (1 + 1e-9)


@given(st.floats(-1e5, 1e5), st.sampled_from(sorted(UNITS)))
def test_systems_are_the_same_quantity(value: float, unit: str) -> None:
    assert math.isclose(from_shown(to_shown(value, unit, "inch"), unit, "inch"), value, abs_tol=1e-9)


def test_numbers_are_grouped_and_minus_is_a_minus() -> None:
    assert show(-12345.6789, "mm", "mm").number == "\u221212\u2009345.679"
    assert show(-0.0001, "mm", "mm").number == "0.000"
    assert str(show(25.4, "mm", "inch")) == "1.0000 in"
