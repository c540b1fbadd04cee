"""Pipe threads against ISO 228-1, ISO 7-1 and ASME B1.20.1."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.standards import thread_tables

TABLES = thread_tables()


@pytest.mark.parametrize(
    ("size", "off"),
    [("1/8", 0.071), ("1/4", 0.104), ("3/8", 0.104), ("1/2", 0.142), ("3/4", 0.142), ("1", 0.180), ("2", 0.180)],
)
@pytest.mark.parametrize("kind", ["Rp", "Rc"])
def test_inside_threads_have_a_tolerance_of_their_own(kind: str, size: str, off: float) -> None:
    pitch = thread_of(f"{kind} {size}", TABLES).internal.pitch
    assert (pitch.max - pitch.min) / 2 == pytest.approx(off, abs=0.001)


@pytest.mark.parametrize(("size", "drill"), [("1/8", 8.4), ("3/4", 23.75)])
def test_drills_of_taper_holes(size: str, drill: float) -> None:
    assert thread_of(f"Rc {size}", TABLES).tap_drill_mm == drill


@pytest.mark.parametrize(
    ("typed", "name"),
    [
        ("BSPP 1/2", "G1/2"),
        ("1/2 BSPP", "G1/2"),
        ("1/2-14 BSP", "G1/2"),
        ("3/4 bspt", "R3/4"),
        ("BSPT 1/4 LH", "R1/4 LH"),
        ("G1/2 A", "G1/2"),
        ("Rc1/4", "Rc1/4"),
        ("NPT 1/2", "1/2-14 NPT"),
        ("1/2-14 NPT", "1/2-14 NPT"),
    ],
)
def test_what_people_call_them(typed: str, name: str) -> None:
    assert thread_of(typed, TABLES).designation == name


@pytest.mark.parametrize(
    ("name", "pitch", "minor"),
    [
        ("G1/8", (9.147, 9.254), (8.566, 8.848)),
        ("G1/4", (12.301, 12.426), (11.445, 11.890)),
        ("G1/2", (19.793, 19.935), (18.631, 19.172)),
        ("G1", (31.770, 31.950), (30.291, 30.931)),
    ],
)
def test_limits_of_parallel_threads(name: str, pitch: tuple[float, float], minor: tuple[float, float]) -> None:
    side = thread_of(name, TABLES).internal
    assert (round(side.pitch.min, 3), round(side.pitch.max, 3)) == pytest.approx(pitch, abs=0.001)
    assert (round(side.minor.min, 3), round(side.minor.max, 3)) == pytest.approx(minor, abs=0.001)


@pytest.mark.parametrize("name", ["1/2-0 NPT", "1/2-20 NPT", "1/2-20 BSPP"])
def test_another_number_of_threads_is_another_thread(name: str) -> None:
    with pytest.raises(StandardError):
        thread_of(name, TABLES)
