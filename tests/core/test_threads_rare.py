"""Straight American pipe, knuckle and buttress threads and class 3B against values as their standards print them;
spellings that turn the standard's order round."""

import json

import pytest

from tests.support.command import toreuma
from toreuma.core.standards.threads import basic_thread, thread_of
from toreuma.shipped.standards import thread_tables

NPSM = [
    # ASME B1.20.1, inches: outside major and pitch, inside minor and pitch, greatest and least as printed
    ("1/8-27 NPSM", (0.397, 0.390), (0.3725, 0.3689), (0.364, 0.358), (0.3783, 0.3736)),
    ("NPSM 1/2", (0.823, 0.813), (0.7769, 0.7718), (0.759, 0.747), (0.7851, 0.7784)),
    ("1-11.5 NPSM", (1.293, 1.281), (1.2369, 1.2311), (1.211, 1.201), (1.2462, 1.2386)),
    ("2 NPSM", (2.351, 2.339), (2.2944, 2.2882), (2.268, 2.259), (2.3044, 2.2963)),
]

THREE_B = [
    # ASME B1.1 class 3B, inches: least and greatest minor diameter
    ("1/4-20 UNC-3B", 0.1960, 0.2067),
    ("10-32 UNF-3B", 0.1560, 0.1641),
    ("3/8-16 UNC-3B", 0.3070, 0.3182),
    ("1/2-13 UNC-3B", 0.4170, 0.4284),
    ("3/4-10 UNC-3B", 0.6420, 0.6545),
    ("3/4-16 UNF-3B", 0.6820, 0.6908),
    ("1-8 UNC-3B", 0.8650, 0.8797),
    ("1-12 UNF-3B", 0.9100, 0.9198),
]

BASIC = [
    # DIN 405-1, DIN 513-1, mm: pitch, core outside, core inside, outer inside
    ("Rd 40x1/6", 37.883, 35.767, 36.190, 40.423),
    ("Rd 20x1/8", 18.412, 16.825, 17.142, 20.318),
    ("Rd10", 8.730, 7.460, 7.714, 10.254),
    ("Rd 120", 116.825, 113.650, 114.285, 120.635),
    ("S 40x7", 34.750, 27.851, 29.500, 40.000),
    ("S20x4", 17.000, 13.058, 14.000, 20.000),
    ("S 100x12", 91.000, 79.174, 82.000, 100.000),
    ("S 40x14(P7) LH", 34.750, 27.851, 29.500, 40.000),
]


@pytest.mark.parametrize(("name", "major", "pitch", "minor", "nut_pitch"), NPSM)
def test_straight_pipe_threads(name: str, major, pitch, minor, nut_pitch) -> None:  # type: ignore[no-untyped-def]
    thread = thread_of(name, thread_tables())
    made = (thread.external.major, thread.external.pitch, thread.internal.minor, thread.internal.pitch)
    for limits, (high, low) in zip(made, (major, pitch, minor, nut_pitch), strict=True):
        assert (limits.max / 25.4, limits.min / 25.4) == pytest.approx((high, low), abs=5e-5)
    assert thread.taper == 0.0


@pytest.mark.parametrize(("name", "least", "greatest"), THREE_B)
def test_minor_diameters_of_class_3b(name: str, least: float, greatest: float) -> None:
    minor = thread_of(name, thread_tables()).internal.minor
    assert (minor.min / 25.4, minor.max / 25.4) == pytest.approx((least, greatest), abs=1e-6)


@pytest.mark.parametrize(("name", "pitch", "core", "nut_core", "nut_outer"), BASIC)
def test_basic_sizes(name: str, pitch: float, core: float, nut_core: float, nut_outer: float) -> None:
    thread = basic_thread(name)
    assert thread is not None
    made = (thread.pitch_d_mm, *thread.minor_d_mm, thread.major_d_mm[1])
    assert made == pytest.approx((pitch, core, nut_core, nut_outer), abs=6e-4)


def test_inch_buttress_stands_six_tenths_of_its_pitch_high() -> None:
    """ASME B1.9: h = 0.6 p, depth 0.66271 p."""
    thread = basic_thread("2-4 BUTT-2A")
    assert thread is not None
    assert thread.flanks_deg == (7.0, 45.0)
    assert thread.major_d_mm[0] - thread.pitch_d_mm == pytest.approx(0.6 * 25.4 / 4)
    assert thread.depth_mm[0] == pytest.approx(0.66271 * 25.4 / 4)


def test_other_threads_are_not_taken_for_these() -> None:
    for name in ("M40x1.5", "Tr40x7", "1/2-13 UNC", "R1/2", "Rp1/2", "2-4.5 UNC"):
        assert basic_thread(name) is None


@pytest.mark.parametrize(
    ("typed", "meant"),
    [
        ("UNC 1/4-20", "1/4-20 UNC"),
        ("UNC 1/4", "1/4-20 UNC"),
        ("UNF #10-2A", "#10-32 UNF"),
        ("UNC-1/2-13-2B", "1/2-13 UNC"),
        ("No. 10-24", "#10-24 UNC"),
        ("NPTF 1/4-18", "1/4-18 NPTF"),
        ('NPT 1/4"', "1/4-18 NPT"),
        ("UN 2-8", "2-8 UN"),
    ],
)
def test_spellings(typed: str, meant: str) -> None:
    assert thread_of(typed, thread_tables()).designation == meant


def test_the_command_tells_basic_sizes_and_that_there_are_no_limits() -> None:
    said = toreuma("thread", "Rd 40x1/6").stdout
    assert "Ø 35.767 mm" in said
    assert "basic sizes only" in said
    told = json.loads(toreuma("thread", "S 40x7", "--json").stdout)
    assert told["limits"] is None
    assert told["minor_d_mm"] == pytest.approx([27.851, 29.5], abs=6e-4)
