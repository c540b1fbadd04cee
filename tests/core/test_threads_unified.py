"""Unified threads against printed limits, in inches."""

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.standards import thread_tables

TABLES = thread_tables()

NUTS = {
    "1/4-20 UNC-2B": (0.196, 0.207, 0.2175, 0.2224),
    "5/16-18 UNC-2B": (0.252, 0.265, 0.2764, 0.2817),
    "3/8-16 UNC-2B": (0.307, 0.321, 0.3344, 0.3401),
    "7/16-14 UNC-2B": (0.360, 0.376, 0.3911, 0.3972),
    "1/2-13 UNC-2B": (0.417, 0.434, 0.4500, 0.4565),
    "5/8-11 UNC-2B": (0.527, 0.546, 0.5660, 0.5732),
    "3/4-10 UNC-2B": (0.642, 0.663, 0.6850, 0.6927),
    "7/8-9 UNC-2B": (0.755, 0.778, 0.8028, 0.8110),
    "1-8 UNC-2B": (0.865, 0.890, 0.9188, 0.9276),
    "#10-24 UNC-2B": (0.145, 0.156, 0.1629, 0.1672),
    "#10-32 UNF-2B": (0.156, 0.164, 0.1697, 0.1736),
    "#8-32 UNC-2B": (0.130, 0.139, 0.1437, 0.1475),
    "1/4-28 UNF-2B": (0.211, 0.220, 0.2268, 0.2311),
    "1/2-20 UNF-2B": (0.446, 0.457, 0.4675, 0.4731),
}
"""Minor and pitch diameter, least and most."""

BOLTS = {
    "1/4-20 UNC-2A": (0.2408, 0.2489, 0.2127, 0.2164),
    "5/16-18 UNC-2A": (0.3026, 0.3113, 0.2712, 0.2752),
    "3/8-16 UNC-2A": (0.3643, 0.3737, 0.3287, 0.3331),
    "1/2-13 UNC-2A": (0.4876, 0.4985, 0.4435, 0.4485),
    "5/8-11 UNC-2A": (0.6113, 0.6234, 0.5589, 0.5644),
    "3/4-10 UNC-2A": (0.7353, 0.7482, 0.6773, 0.6832),
    "1-8 UNC-2A": (0.9830, 0.9980, 0.9100, 0.9168),
    "1/4-28 UNF-2A": (0.2425, 0.2490, 0.2225, 0.2258),
    "1/2-20 UNF-2A": (0.4906, 0.4987, 0.4619, 0.4662),
    "#10-32 UNF-2A": (0.1831, 0.1891, 0.1658, 0.1688),
    "2-8 UN-2A": (1.9827, 1.9977, 1.9087, 1.9165),
    "3-8 UN-2A": (2.9824, 2.9974, 2.9077, 2.9162),
}
"""Major and pitch diameter, least and most."""


def inches(*limits: object) -> tuple[float, ...]:
    return tuple(round(end / 25.4, 4) for one in limits for end in (one.min, one.max))  # type: ignore[attr-defined]


@pytest.mark.parametrize(("name", "limits"), NUTS.items())
def test_limits_inside(name: str, limits: tuple[float, ...]) -> None:
    side = thread_of(name, TABLES).internal
    assert inches(side.minor, side.pitch) == limits


@pytest.mark.parametrize(("name", "limits"), BOLTS.items())
def test_limits_outside(name: str, limits: tuple[float, ...]) -> None:
    side = thread_of(name, TABLES).external
    assert inches(side.major, side.pitch) == limits


@pytest.mark.parametrize(
    ("typed", "name"),
    [
        (".250-20", "1/4-20 UNC"),
        ("0.3125-18", "5/16-18 UNC"),
        (".164-32", "#8-32 UNC"),
        (".190-32", "#10-32 UNF"),
        ("1.125-7", "1-1/8-7 UNC"),
        ("1.5-12", "1-1/2-12 UNF"),
        ("1/4-20", "1/4-20 UNC"),
        ("2-4.5", "2-4.5 UNC"),
    ],
)
def test_sizes_in_decimals_are_those_of_the_tables(typed: str, name: str) -> None:
    assert thread_of(typed, TABLES).designation == name


def test_unj_never_gets_the_limits_of_un() -> None:
    with pytest.raises(StandardError, match="UNJ has a minor diameter"):
        thread_of("1/4-28 UNJF-3A", TABLES)
