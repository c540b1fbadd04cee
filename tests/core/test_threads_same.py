"""A tap is found by its thread, however it is written."""

import pytest

from toreuma.core.standards.threads.same import cuts_thread


@pytest.mark.parametrize(
    ("tap", "pitch", "wanted", "core"),
    [
        ("M8", 1.25, "M8x1.25-6H", 6.8),
        ("M8x1.25", 1.25, "M8", 6.8),
        ("M8", 1.25, "m8 6h", 6.8),
        ("M10x1", 1.0, "M10x1,0", 9.0),
        ("M12", 1.75, "M12-6H/6g", 10.2),
        ("1/4-20 UNC", 1.27, "1/4-20", 5.1),
        ("1/4-20", 1.27, "1/4-20 UNC-2B", 5.1),
        ("#10-32 UNF", 0.79375, "10-32", 4.1),
        ("#10-32 UNF", 0.79375, ".190-32 UNF-2B", 4.1),
        ("6-32 UNC", 0.79375, "#6-32", 2.85),
        ("1/4-20 UNC", 1.27, ".250-20", 5.1),
        ("5/16-18 UNC", 25.4 / 18, "5/16 UNC", 6.6),
        ("G 1/4", 1.337, "G1/4", None),
    ],
)
def test_the_same_thread(tap: str, pitch: float, wanted: str, core: float | None) -> None:
    assert cuts_thread(tap, pitch, wanted, core)


@pytest.mark.parametrize(
    ("tap", "pitch", "wanted", "core"),
    [
        ("M8", 1.25, "M8x1", 7.0),
        ("M8x1", 1.0, "M8", 6.8),
        ("M8", 1.25, "M10x1.25", 8.8),
        ("1/4-20 UNC", 1.27, "1/4-28", 5.5),
        ("1/4-28 UNF", 25.4 / 28, "1/4 UNC", 5.1),
        ("#10-32 UNF", 0.79375, "#10-24", 3.9),
        ("M6", 1.0, "1/4-20", 5.1),
        ("G 1/4", 1.337, "G 1/8", None),
        ("M8", 1.25, "", None),
    ],
)
def test_another_thread(tap: str, pitch: float, wanted: str, core: float | None) -> None:
    assert not cuts_thread(tap, pitch, wanted, core)


@pytest.mark.parametrize(
    ("d", "core", "pitches", "right"),
    [(8, 6.8, (1.25, 1.0, 0.75), 1.25), (10, 8.5, (1.5, 1.25, 1.0), 1.5), (12, 10.2, (1.75, 1.5, 1.25), 1.75),
     (20, 17.5, (2.5, 2.0, 1.5), 2.5)],
)  # fmt: skip
def test_a_thread_without_its_pitch_is_cut_by_the_coarse_tap_alone(
    d: int, core: float, pitches: tuple[float, ...], right: float
) -> None:
    """The core of the hole tells which: a fine tap would go in, and be wrong."""
    assert [one for one in pitches if cuts_thread(f"M{d}x{one:g}", one, f"M{d}", core)] == [right]
