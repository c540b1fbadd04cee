"""Limits and fits against the tables of ISO 286-2."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.fits import fit_of
from toreuma.shipped.standards import fit_tables

PUBLISHED = {
    "25 H7": (0, 21),
    "30 f7": (-41, -20),
    "20 g6": (-20, -7),
    "25 K7": (-15, 6),
    "25 N7": (-28, -7),
    "25 P7": (-35, -14),
    "60 M8": (-41, 5),
    "50 js6": (-8, 8),
    "16 p6": (18, 29),
    "100 s6": (71, 93),
    "10 N9": (-36, 0),
    "300 M6": (-41, -9),
    "80 R7": (-62, -32),
    "120 F8": (36, 90),
    "2 H7": (0, 10),
    "450 e9": (-290, -135),
    "70 K6": (-15, 4),
    "35 u6": (60, 76),
    "6 J7": (-6, 6),
    "12 h9": (-43, 0),
    "40 k6": (2, 18),
    "8 m6": (6, 15),
    "55 n6": (20, 39),
    "3 D10": (20, 60),
    "200 c11": (-530, -240),
    "18 H11": (0, 110),
    "90 r6": (51, 73),
    "15 E9": (32, 75),
    "28 x6": (64, 77),
    "5 j6": (-2, 6),
}


@pytest.mark.parametrize(("name", "limits"), PUBLISHED.items())
def test_limits_are_the_published_ones(name: str, limits: tuple[float, float]) -> None:
    one = fit_of(name, fit_tables()).first
    assert (one.lower_um, one.upper_um) == pytest.approx(limits)


def test_a_pair_says_what_fit_it_is() -> None:
    assert fit_of("40 H7/p6", fit_tables()).clearance_um == pytest.approx((-42, -1))
    assert fit_of("40 H7/p6", fit_tables()).kind == "interference"
    assert fit_of("20 H7/g6", fit_tables()).kind == "clearance"
    assert fit_of("20 k6 H7", fit_tables()).kind == "transition"


def test_a_program_aims_at_the_middle() -> None:
    assert fit_of("Ø30h6", fit_tables()).first.middle_mm == pytest.approx(29.9935)


@pytest.mark.parametrize("name", ["", "25", "H7", "25 H19", "600 H7", "0 H7", "25 Q7", "25 hH7", "25 H7/K6", "10 t6"])
def test_what_is_no_fit_is_one_line(name: str) -> None:
    with pytest.raises(StandardError) as caught:
        fit_of(name, fit_tables())
    assert "\n" not in str(caught.value)
