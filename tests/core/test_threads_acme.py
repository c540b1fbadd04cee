"""Lead screws of 29 degrees and dryseal pipe threads against values as their standards print them, inches."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.standards import thread_tables

Row = tuple[str, tuple[float, float], tuple[float, float], tuple[float, float]]

OUTSIDE: list[Row] = [
    ("1/2-10 ACME-2C", (0.4975, 0.5000), (0.4306, 0.4443), (0.3594, 0.3800)),
    ("1/2-10 ACME-3C", (0.4989, 0.5000), (0.4394, 0.4458), (0.3704, 0.3800)),
    ("1/2-10 ACME-4C", (0.4993, 0.5000), (0.4426, 0.4472), (0.3731, 0.3800)),
    ("1-5 ACME-2C", (0.9965, 1.0000), (0.8726, 0.8920), (0.7509, 0.7800)),
    ("1-5 ACME-3C", (0.9985, 1.0000), (0.8849, 0.8940), (0.7664, 0.7800)),
    ("1/2-10 STUB ACME", (0.4950, 0.5000), (0.4506, 0.4643), (0.4063, 0.4200)),
    ("1-5 STUB ACME", (0.9900, 1.0000), (0.9126, 0.9320), (0.8406, 0.8600)),
]

INSIDE: list[Row] = [
    ("1/2-10 ACME-2C", (0.5007, 0.5032), (0.4500, 0.4637), (0.4100, 0.4150)),
    ("1/2-10 ACME-3C", (0.5007, 0.5032), (0.4500, 0.4564), (0.4100, 0.4150)),
    ("1/2-10 ACME-4C", (0.5007, 0.5021), (0.4500, 0.4546), (0.4100, 0.4150)),
    ("1-5 ACME-2C", (1.0010, 1.0045), (0.9000, 0.9194), (0.8200, 0.8300)),
    ("1/2-10 STUB ACME", (0.5200, 0.5400), (0.4700, 0.4837), (0.4400, 0.4450)),
    ("1-5 STUB ACME", (1.0200, 1.0400), (0.9400, 0.9594), (0.8800, 0.8900)),
]


def checked(rows: list[Row], side: str) -> None:
    for name, *wanted in rows:
        made = getattr(thread_of(name, thread_tables()), side)
        for limits, (low, high) in zip((made.major, made.pitch, made.minor), wanted, strict=True):
            assert (limits.min / 25.4, limits.max / 25.4) == pytest.approx((low, high), abs=6e-5), name


def test_limits_outside() -> None:
    checked(OUTSIDE, "external")


def test_limits_inside() -> None:
    checked(INSIDE, "internal")


@pytest.mark.parametrize(
    ("typed", "meant"),
    [
        ("STUB ACME 1/2-10", "1/2-10 STUB ACME"),
        ("1/2-10 stub acme LH", "1/2-10 STUB ACME LH"),
        ("1/2-10-ACME-2C-LH", "1/2-10 ACME-2C LH"),
        ("NPTF 1/8", "1/8-27 NPTF"),
        ("1/8-27NPTF", "1/8-27 NPTF"),
    ],
)
def test_spellings(typed: str, meant: str) -> None:
    assert thread_of(typed, thread_tables()).designation == meant


def test_dryseal_threads_share_pitch_diameters_with_npt_and_meet_at_crest_and_root() -> None:
    """B1.20.3, 27 threads an inch: crests 0.0017 to 0.0035 in, roots 0.0035 to 0.0052 in cut off."""
    plain, dry = (thread_of(name, thread_tables()) for name in ("1/8-27 NPT", "1/8-27 NPTF"))
    assert dry.external.pitch == plain.external.pitch
    sharp = plain.external.pitch.middle + 0.866025 * dry.pitch_mm
    assert (sharp - dry.external.major.max) / 2 / 25.4 == pytest.approx(0.0017, abs=6e-5)
    assert (sharp - dry.external.major.min) / 2 / 25.4 == pytest.approx(0.0035, abs=6e-5)
    assert dry.external.major.min >= dry.internal.major.max - 1e-9  # nothing is left open


@pytest.mark.parametrize(
    ("name", "words"),
    [
        ("1/2-14 NPSC", "NPTF and NPSM"),
        ("S40x7", "buttress thread, pitch 7.000 mm, .* basic sizes only"),
        ("2-4 BUTT-2A", "buttress"),
        ("Rd 40x1/6", "knuckle"),
        ("Rd 40x1/8", "6 threads per inch"),
        ("PG 11", "conduit"),
        ("W 1/2", "several threads"),
        ("1/2-10 STUB ACME-3C", "no class 3C"),
    ],
)
def test_threads_without_limits_here_say_so(name: str, words: str) -> None:
    with pytest.raises(StandardError, match=words):
        thread_of(name, thread_tables())
