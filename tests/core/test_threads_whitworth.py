"""Whitworth threads against printed basic sizes, and the limits of their classes."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.same import cuts_thread
from toreuma.core.standards.threads.thread import Thread
from toreuma.shipped.standards import thread_tables

IN = 25.4


def thread(said: str) -> Thread:
    return thread_of(said, thread_tables())


@pytest.mark.parametrize(
    ("said", "per_inch", "pitch_d", "minor_d"),
    [
        ("1/4 BSW", 20, 0.2180, 0.1860), ("3/8 BSW", 16, 0.3350, 0.2950), ("1/2-12 BSW", 12, 0.4466, 0.3933),
        ("BSW 5/8", 11, 0.5668, 0.5086), ("BSW 3/4", 10, 0.6860, 0.6219), ("1 BSW", 8, 0.9200, 0.8399),
        ("1/4 BSF", 26, 0.2254, 0.2007), ("3/8-20 BSF", 20, 0.3430, 0.3110), ("1/2 BSF", 16, 0.4600, 0.4200),
        ("BSF 3/4", 12, 0.6966, 0.6433), ("1\" BSF", 10, 0.9360, 0.8719),
    ],
)  # fmt: skip
def test_printed_basic_sizes(said: str, per_inch: float, pitch_d: float, minor_d: float) -> None:
    """What a nut begins with."""
    found = thread(said)
    assert (found.pitch_mm, found.flank_deg) == (pytest.approx(IN / per_inch), 55.0)
    assert found.internal.pitch.min == pytest.approx(pitch_d * IN, abs=2e-3)
    assert found.internal.minor.min == pytest.approx(minor_d * IN, abs=3e-3)


@pytest.mark.parametrize(("said", "drill"), [("1/4 BSW", 5.1), ("3/8 BSW", 7.9), ("1/2 BSW", 10.5)])
def test_usual_drills(said: str, drill: float) -> None:
    assert thread(said).tap_drill_mm == pytest.approx(drill, abs=0.05)


def test_classes() -> None:
    """A free bolt has half as much again as a medium one, both begin below the basic size; a close one begins at it."""
    close, medium, free = (thread(f"1/2 BSW {cls}").external for cls in ("close", "medium", "free"))
    widths = [one.pitch.max - one.pitch.min for one in (close, medium, free)]
    assert widths == pytest.approx([widths[1] * 2 / 3, 0.005152 * IN, widths[1] * 1.5], abs=1e-4)
    assert close.major.max == 0.5 * IN
    assert medium.major.max == free.major.max == pytest.approx((0.5 - 0.3 * 0.005152) * IN, abs=5e-4)
    assert thread("1 BSW").external.major.max == IN  # nothing is taken off above three quarters of an inch
    assert thread("1/2 BSW normal").internal.tolerance == "normal nut"


@pytest.mark.parametrize("said", ["1/2-13 BSW", "5/32 BSW", "1/3 BSF"])
def test_what_is_not_listed_is_said(said: str) -> None:
    with pytest.raises(StandardError):
        thread(said)


def test_a_tap_of_other_flanks_does_not_cut_it() -> None:
    assert not cuts_thread("1/4-20 UNC", 1.27, "1/4-20 BSW")
    assert cuts_thread("1/4-20 BSW", 1.27, "1/4-20 BSW")
