"""Metric threads against printed tables: limits in whole micrometres, classes, spellings."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.metric import pitch_tolerance_um
from toreuma.shipped.standards import thread_tables

TABLES = thread_tables()
Pair = tuple[float, float]

OUTSIDE = {
    "M3-6g": (2.874, 2.980, 2.580, 2.655),
    "M4-6g": (3.838, 3.978, 3.433, 3.523),
    "M5-6g": (4.826, 4.976, 4.361, 4.456),
    "M6-6g": (5.794, 5.974, 5.212, 5.324),
    "M8-6g": (7.760, 7.972, 7.042, 7.160),
    "M10-6g": (9.732, 9.968, 8.862, 8.994),
    "M12-6g": (11.701, 11.966, 10.679, 10.829),
    "M16-6g": (15.682, 15.962, 14.503, 14.663),
    "M20-6g": (19.623, 19.958, 18.164, 18.334),
    "M24-6g": (23.577, 23.952, 21.803, 22.003),
    "M30-6g": (29.522, 29.947, 27.462, 27.674),
    "M36-6g": (35.465, 35.940, 33.118, 33.342),
    "M10x1-6g": (9.794, 9.974, 9.212, 9.324),
    "M12x1.25-4h": (11.868, 12.0, 11.103, 11.188),
    "M3-5g6g": (2.874, 2.980, 2.595, 2.655),
    "M10-4h": (9.850, 10.0, 8.941, 9.026),
    "M20-5g6g": (19.623, 19.958, 18.202, 18.334),
}
"""Major diameter and pitch diameter, least and most."""

INSIDE = {
    "M3-6H": (2.459, 2.599, 2.675, 2.775),
    "M4-6H": (3.242, 3.422, 3.545, 3.663),
    "M5-6H": (4.134, 4.334, 4.480, 4.605),
    "M6-6H": (4.917, 5.153, 5.350, 5.500),
    "M8-6H": (6.647, 6.912, 7.188, 7.348),
    "M10-6H": (8.376, 8.676, 9.026, 9.206),
    "M12-6H": (10.106, 10.441, 10.863, 11.063),
    "M16-6H": (13.835, 14.210, 14.701, 14.913),
    "M20-6H": (17.294, 17.744, 18.376, 18.600),
    "M24-6H": (20.752, 21.252, 22.051, 22.316),
    "M30-6H": (26.211, 26.771, 27.727, 28.007),
    "M36-6H": (31.670, 32.270, 33.402, 33.702),
    "M10x1-6H": (8.917, 9.153, 9.350, 9.500),
    "M10x1-5H": (8.917, 9.107, 9.350, 9.468),
    "M2.5-6H": (2.013, 2.138, 2.208, 2.303),
}
"""Minor diameter and pitch diameter, least and most."""


@pytest.mark.parametrize(("name", "limits"), OUTSIDE.items())
def test_limits_outside(name: str, limits: tuple[float, ...]) -> None:
    side = thread_of(name, TABLES).external
    assert (side.major.min, side.major.max, side.pitch.min, side.pitch.max) == limits


@pytest.mark.parametrize(("name", "limits"), INSIDE.items())
def test_limits_inside(name: str, limits: tuple[float, ...]) -> None:
    side = thread_of(name, TABLES).internal
    assert (side.minor.min, side.minor.max, side.pitch.min, side.pitch.max) == limits


@pytest.mark.parametrize(
    ("which", "d", "pitch", "grade", "um"),
    [
        ("pitch_external", 12, 1.25, "4", 85),
        ("pitch_external", 3, 0.5, "5", 60),
        ("pitch_external", 10, 1.5, "4", 85),
        ("pitch_external", 12, 1.5, "7", 180),
        ("pitch_external", 20, 2.5, "5", 132),
        ("pitch_external", 48, 5, "5", 200),
        ("pitch_external", 52, 5, "6", 250),
        ("pitch_external", 200, 3, "6", 250),
        ("pitch_external", 3, 0.5, "6", 75),
        ("pitch_internal", 2.5, 0.45, "6", 95),
        ("pitch_internal", 3, 0.5, "6", 100),
        ("pitch_internal", 10, 1.5, "6", 180),
        ("pitch_internal", 12, 1.25, "6", 180),
        ("pitch_internal", 20, 2.5, "7", 280),
        ("pitch_internal", 42, 4.5, "6", 315),
    ],
)
def test_tolerances_of_the_pitch_diameter(which: str, d: float, pitch: float, grade: str, um: float) -> None:
    """Where rounding to preferred numbers would lead elsewhere, the printed table governs, for every grade."""
    assert pitch_tolerance_um("M", which, grade, d, pitch, TABLES.metric) == um


@pytest.mark.parametrize(
    ("side", "pitch", "grade", "um"),
    [
        ("minor_internal", "1", "4", 150),
        ("minor_internal", "1", "5", 190),
        ("minor_internal", "1", "7", 300),
        ("minor_internal", "1.5", "5", 236),
        ("minor_internal", "0.5", "5", 112),
        ("major_external", "4", "4", 300),
        ("major_external", "4", "6", 475),
        ("minor_internal", "2.5", "6", 450),
        ("major_external", "0.75", "6", 140),
    ],
)
def test_tolerances_of_the_crest(side: str, pitch: str, grade: str, um: float) -> None:
    assert TABLES.metric.crest_um[side][pitch][grade] == um


@pytest.mark.parametrize(
    ("typed", "name", "outside", "inside"),
    [
        ("m12x1.5", "M12x1.5", "6g", "6H"),
        ("M12x1,5", "M12x1.5", "6g", "6H"),
        ("M12-6H/6g", "M12x1.75", "6g", "6H"),
        ("M8 6H", "M8x1.25", "6g", "6H"),
        ("M16x3(P1.5)", "M16xPh3P1.5", "6g", "6H"),
        ("M20x1.5-LH-6g", "M20x1.5 LH", "6g", "6H"),
        ("M20x1.5-6H LH", "M20x1.5 LH", "6g", "6H"),
        ("M1", "M1x0.25", "6h", "5H"),
        ("M1.4", "M1.4x0.3", "6h", "5H"),
        ("M1.6", "M1.6x0.35", "6g", "6H"),
        ("M10-4H5H/5g6g", "M10x1.5", "5g6g", "4H5H"),
        ("m 10 x 1", "M10x1", "6g", "6H"),
    ],
)
def test_spellings(typed: str, name: str, outside: str, inside: str) -> None:
    thread = thread_of(typed, TABLES)
    assert (thread.designation, thread.external.tolerance, thread.internal.tolerance) == (name, outside, inside)


@pytest.mark.parametrize(
    ("letter", "um"), [("a", 290), ("b", 200), ("c", 130), ("d", 85), ("e", 60), ("f", 40), ("g", 26), ("h", 0)]
)
def test_positions_of_the_bolt(letter: str, um: float) -> None:
    assert round(1000 * (12 - thread_of(f"M12x1-6{letter}", TABLES).external.major.max)) == um


def test_what_the_standard_does_not_have_is_refused() -> None:
    for name in ("M1-6H", "M10-3g", "M10-6g/6h", "MJ10x9"):
        with pytest.raises(StandardError):
            thread_of(name, TABLES)


@pytest.mark.parametrize(
    ("name", "drill"),
    [
        ("M3", 2.5),
        ("M4", 3.3),
        ("M5", 4.2),
        ("M6", 5.0),
        ("M8", 6.8),
        ("M10", 8.5),
        ("M12", 10.2),
        ("M16", 14.0),
        ("M20", 17.5),
        ("M24", 21.0),
        ("M10x1.25", 8.8),
        ("M8x1", 7.0),
        ("M12x1.25", 10.8),
        ("M2.5", 2.05),
        ("1/4-20 UNC", 5.1),
        ("5/16-18 UNC", 6.6),
        ("3/8-16 UNC", 8.0),
        ("1/2-13 UNC", 10.8),
        ("#10-32 UNF", 4.1),
        ("#8-32 UNC", 3.5),
        ("1/4-28 UNF", 5.5),
        ("1/2-20 UNF", 11.5),
    ],
)
def test_drills_for_taps(name: str, drill: float) -> None:
    """ISO 2306; each leaves a core within the limits of the nut."""
    thread = thread_of(name, TABLES)
    assert thread.tap_drill_mm == drill
    assert thread.internal.minor.min - 0.02 <= drill <= thread.internal.minor.max


def test_every_listed_drill_lies_in_the_limits_of_its_nut() -> None:
    for name, drill in TABLES.tap_drills_mm.items():
        minor = thread_of(name, TABLES).internal.minor
        assert minor.min - 0.05 <= drill <= minor.max + 0.005, name


def test_a_forming_tap_takes_a_larger_drill() -> None:
    assert thread_of("M8", TABLES).form_tap_drill_mm == pytest.approx(8 - 0.45 * 1.25, abs=0.05)


@pytest.mark.parametrize(
    ("typed", "meant"), [("N10", "M10"), ("1/2-13UNZ", "1/2-13 UNC"), ("TR20x", "Tr20x4"), ("NPD 1/2", "NPT 1/2")]
)
def test_an_unknown_name_is_told_the_nearest(typed: str, meant: str) -> None:
    with pytest.raises(StandardError) as told:
        thread_of(typed, TABLES)
    assert meant in told.value.cure
    assert 1 <= len(told.value.cure.removeprefix("the nearest are ").split(", ")) <= 3


@pytest.mark.parametrize(
    ("name", "bolt_major", "bolt_pitch", "root", "nut_pitch", "nut_minor"),
    [
        # ISO 5855-2, mm
        ("MJ6x1", (5.820, 6.000), (5.279, 5.350), (4.713, 4.845), (5.350, 5.445), (5.026, 5.216)),
        ("MJ10x1.25", (9.788, 10.000), (9.113, 9.188), (8.406, 8.557), (9.188, 9.288), (8.782, 8.994)),
        ("MJ5x0.8", (4.850, 5.000), (4.420, 4.480), (3.967, 4.076), (4.480, 4.560), (4.221, 4.421)),
        ("MJ8x1-4h6h", (7.820, 8.000), (7.279, 7.350), (6.713, 6.845), (7.350, 7.445), (7.026, 7.216)),
    ],
)
def test_mj_threads(
    name: str, bolt_major: Pair, bolt_pitch: Pair, root: Pair, nut_pitch: Pair, nut_minor: Pair
) -> None:
    thread = thread_of(name, TABLES)
    made = (thread.external.major, thread.external.pitch, thread.external.minor, thread.internal.pitch,
            thread.internal.minor)  # fmt: skip
    for limits, wanted in zip(made, (bolt_major, bolt_pitch, root, nut_pitch, nut_minor), strict=True):
        assert (limits.min, limits.max) == pytest.approx(wanted, abs=1.1e-3)
    assert thread.designation.startswith("MJ")


def test_an_mj_thread_is_no_m_thread() -> None:
    mj, m = (thread_of(name, TABLES) for name in ("MJ10x1.25", "M10x1.25"))
    assert mj.internal.minor.min > m.internal.minor.min
    assert mj.external.minor.max > m.external.minor.max - 0.2
    assert mj.external.tolerance == "4h6h"
    assert thread_of("MJ10x1.25 LH", TABLES).left_hand
