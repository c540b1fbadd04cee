"""Thread limits against the published tables of each standard."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import Limits, Thread, thread_of
from toreuma.shipped.standards import thread_tables

MM_TABLE = [
    # designation, external major, pitch; internal pitch, minor: ISO 965-2 (6g, 6H) and ISO 965-1
    ("M3", (2.874, 2.980), (2.580, 2.655), (2.675, 2.775), (2.459, 2.599)),
    ("M5", (4.826, 4.976), (4.361, 4.456), (4.480, 4.605), (4.134, 4.334)),
    ("M8", (7.760, 7.972), (7.042, 7.160), (7.188, 7.348), (6.647, 6.912)),
    ("M8x1", (7.794, 7.974), (7.212, 7.324), (7.350, 7.500), (6.917, 7.153)),
    ("M10x1.5-6g", (9.732, 9.968), (8.862, 8.994), (9.026, 9.206), (8.376, 8.676)),
    ("M12x1.25", (11.760, 11.972), (11.028, 11.160), (11.188, 11.368), (10.647, 10.912)),
    ("M16x1.5-6H", (15.732, 15.968), (14.854, 14.994), (15.026, 15.216), (14.376, 14.676)),
    ("M20", (19.623, 19.958), (18.164, 18.334), (18.376, 18.600), (17.294, 17.744)),
    ("M36", (35.465, 35.940), (33.118, 33.342), (33.402, 33.702), (31.670, 32.270)),
    # trapezoidal, ISO 2903, 7e / 7H
    ("Tr20x4", (19.700, 20.000), (17.640, 17.905), (18.000, 18.355), (16.000, 16.375)),
    # parallel pipe, ISO 228-1 class A
    ("G1/2", (20.671, 20.955), (19.651, 19.793), (19.793, 19.935), (18.631, 19.172)),
    ("G 1/4 A", (12.907, 13.157), (12.176, 12.301), (12.301, 12.426), (11.445, 11.890)),
]
INCH_TABLE = [
    # ASME B1.1 classes 2A / 2B and 3A / 3B, inches; ACME: B1.5 class 2G
    ("1/2-13 UNC-2A", (0.4876, 0.4985), (0.4435, 0.4485), (0.4500, 0.4565), (0.417, 0.434)),
    ("10-24 UNC", (0.1818, 0.1890), (0.1586, 0.1619), (0.1629, 0.1672), (0.145, 0.156)),
    ("8-32", (0.1571, 0.1631), (0.1399, 0.1428), (0.1437, 0.1475), (0.130, 0.139)),
    ("5/16-24 UNF", (0.3042, 0.3114), (0.2806, 0.2843), (0.2854, 0.2902), (0.267, 0.277)),
    ("1/4-28 UNF-3A", (0.2435, 0.2500), (0.2243, 0.2268), (0.2268, 0.2300), (0.211, 0.219)),
    ("1-12 UNF-2B", (0.9868, 0.9982), (0.9382, 0.9441), (0.9459, 0.9535), (0.910, 0.928)),
    ("1-1/8-7 UNC", (1.1064, 1.1228), (1.0228, 1.0300), (1.0322, 1.0416), (0.970, 0.998)),
    ("1-5 ACME-2G", (0.9900, 1.0000), (0.8726, 0.8920), (0.9000, 0.9194), (0.800, 0.810)),
]


def of(designation: str) -> Thread:
    return thread_of(designation, thread_tables())


def agree(limits: Limits, published: tuple[float, float], scale: float, within: float) -> bool:
    return abs(limits.min / scale - published[0]) <= within and abs(limits.max / scale - published[1]) <= within


@pytest.mark.parametrize(("name", "major", "pitch", "nut_pitch", "nut_minor"), MM_TABLE)
def test_metric_and_pipe_limits_are_the_published_ones(name, major, pitch, nut_pitch, nut_minor) -> None:  # type: ignore[no-untyped-def]
    thread = of(name)
    assert agree(thread.external.major, major, 1, 0.0011)
    assert agree(thread.external.pitch, pitch, 1, 0.0011)
    assert agree(thread.internal.pitch, nut_pitch, 1, 0.0011)
    assert agree(thread.internal.minor, nut_minor, 1, 0.0011)


@pytest.mark.parametrize(("name", "major", "pitch", "nut_pitch", "nut_minor"), INCH_TABLE)
def test_inch_limits_are_the_published_ones(name, major, pitch, nut_pitch, nut_minor) -> None:  # type: ignore[no-untyped-def]
    thread = of(name)
    assert agree(thread.external.major, major, 25.4, 0.00011)
    assert agree(thread.external.pitch, pitch, 25.4, 0.00011)
    assert agree(thread.internal.pitch, nut_pitch, 25.4, 0.00011)
    assert agree(thread.internal.minor, nut_minor, 25.4, 0.0006)  # published to three decimals


def test_taper_pipe_threads_hold_their_gauge_plane() -> None:
    npt = of("1/2-14 NPT")
    assert npt.external.pitch.middle / 25.4 == pytest.approx(0.77843, abs=2e-5)  # ASME B1.20.1 table 2, E1
    assert npt.taper == pytest.approx(1 / 16)
    taper = of("R 1/2")
    assert taper.gauge_length_mm == 8.2
    assert taper.external.pitch.middle == pytest.approx(19.793, abs=5e-4)  # ISO 7-1


def test_a_hole_class_and_a_shaft_class_go_to_their_own_side() -> None:
    assert of("M8-5g6g").external.tolerance == "5g6g"
    assert of("M8-5g6g").internal.tolerance == "6H"
    assert of("M8-6G").internal.pitch.min == pytest.approx(7.188 + 0.028, abs=5e-4)
    assert of("M8-6h").external.major.max == pytest.approx(8.0)


def test_a_metric_thread_of_two_starts() -> None:
    two, one = of("M16xPh3P1.5-6g"), of("M16x1.5-6g")
    assert (two.starts, two.lead_mm, two.designation) == (2, 3.0, "M16xPh3P1.5")
    assert two.external == one.external
    with pytest.raises(StandardError, match="multiple"):
        of("M16xPh4P1.5")


def test_starts_hands_and_leads() -> None:
    thread = of("Tr40x14(P7) LH-7e")
    assert (thread.starts, thread.lead_mm, thread.pitch_mm, thread.left_hand) == (2, 14.0, 7.0, True)
    assert of("M20x1.5 LH").left_hand


def test_wires_touch_the_flanks_at_the_pitch_line() -> None:
    """Best wire and size over it for M10 x 1.5: 0.866 mm; d2 + 3w - 0.866025 P."""
    wires = of("M10").wires
    assert wires.best == pytest.approx(0.8660, abs=1e-4)
    assert wires.over.max == pytest.approx(8.9937 + 3 * wires.best - 0.866025 * 1.5, abs=1e-3)
    whitworth = of("G1/2").wires  # 55 degrees: d2 + 3.1657 w - 0.9605 P
    assert whitworth.over.max == pytest.approx(19.793 + 3.1657 * whitworth.best - 0.9605 * 25.4 / 14, abs=2e-3)


@pytest.mark.parametrize(
    "name",
    ["", "M", "M10x9", "M0", "M7.3", "1/0-20 UNC", "1/2-12 UNC", "G 1/5", "NPT 9", "Tr20x3.7", "M10-6z", "x" * 500],
)
def test_what_is_no_thread_is_one_line(name: str) -> None:
    with pytest.raises(StandardError) as caught:
        of(name)
    assert "\n" not in str(caught.value)
    assert caught.value.cure


ODD_SIZES = ("Tr20x0", "Tr20x4(P0)", "1/2-0 ACME", "M10x0", "0/2-13 UNC", "G1/0", "NPT 1/0")


@pytest.mark.parametrize("designation", ODD_SIZES)
def test_a_pitch_or_size_of_nothing_is_no_thread(designation: str) -> None:
    with pytest.raises(StandardError):
        thread_of(designation, thread_tables())
