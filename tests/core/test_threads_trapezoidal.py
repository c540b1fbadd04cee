"""Trapezoidal threads against the printed tolerances of ISO 2903."""

import pytest

from toreuma.core.standards.threads import thread_of
from toreuma.shipped.standards import thread_tables

TABLES = thread_tables()


def um(name: str, side: str) -> int:
    limits = getattr(thread_of(name, TABLES), side).pitch
    return round(1000 * (limits.max - limits.min))


@pytest.mark.parametrize(
    ("name", "tolerance"),
    [
        ("Tr8x1.5-7e", 170),
        ("Tr10x2-7e", 190),
        ("Tr12x3-7e", 224),
        ("Tr14x3-7e", 224),
        ("Tr16x4-7e", 265),
        ("Tr20x4-7e", 265),
        ("Tr24x5-7e", 300),
        ("Tr30x6-7e", 335),
        ("Tr40x7-7e", 355),
        ("Tr50x8-7e", 400),
        ("Tr60x9-7e", 425),
        ("Tr70x10-7e", 425),
        ("Tr85x12-7e", 475),
        ("Tr90x18-7e", 560),
        ("Tr100x12-7e", 500),
        ("Tr20x4-8e", 335),
    ],
)
def test_outside(name: str, tolerance: int) -> None:
    assert um(name, "external") == tolerance


@pytest.mark.parametrize(
    ("name", "tolerance"),
    [
        ("Tr11x3-7H", 280),
        ("Tr12x3-7H", 300),
        ("Tr16x4-7H", 355),
        ("Tr20x4-7H", 355),
        ("Tr24x5-7H", 400),
        ("Tr30x6-7H", 450),
        ("Tr40x7-7H", 475),
        ("Tr44x12-7H", 560),
        ("Tr50x8-7H", 530),
        ("Tr80x10-7H", 560),
        ("Tr100x12-7H", 670),
    ],
)
def test_inside(name: str, tolerance: int) -> None:
    assert um(name, "internal") == tolerance


@pytest.mark.parametrize(("starts", "factor"), [(1, 1.0), (2, 1.12), (3, 1.25), (4, 1.4), (5, 1.6)])
def test_several_starts_have_more(starts: int, factor: float) -> None:
    assert um(f"Tr40x{7 * starts}(P7)-7e", "external") == round(355 * factor)


@pytest.mark.parametrize("name", ["Tr120x22", "Tr140x24", "Tr170x28", "Tr300x44"])
def test_coarse_pitches(name: str) -> None:
    thread = thread_of(name, TABLES)
    assert thread.external.pitch.max < thread.d_mm - thread.pitch_mm / 2
    assert thread.depth_external == thread.pitch_mm / 2 + 1
