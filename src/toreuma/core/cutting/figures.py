"""The numbers an operation is cut with: typed for code, and which of them a person sees, where and in what unit."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from toreuma.core.cutting.evidence import Evidence

__all__ = ["Figure", "Figures", "Reasons", "in_order"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Figures:
    """What an operation is cut with and what that comes to; None where it has no such number.

    These are for code. What a person reads about them, and why they are what they are, is `Reasons`.
    ``power_there_kw`` is what spindle or drive has at this speed.
    """

    vc_m_min: float | None = None
    clamp_rpm: float | None = None
    rpm: float | None = None
    feed_mm_rev: float | None = None
    ap_mm: float | None = None
    largest_ap_mm: float | None = None
    force_n: float | None = None
    feed_force_n: float | None = None
    passive_force_n: float | None = None
    power_kw: float | None = None
    power_there_kw: float | None = None
    life_min: float | None = None


class Figure(StrEnum):
    """Every number a plan gives, in the order people ask, with its unit, its heading and what fixes it.

    ``unit`` is an internal unit of `toreuma.core.units`; ``pin`` the field of an operation's pins that fixes the
    number where it may be fixed at all; ``field`` that of `Figures` with the same number, where code needs it.
    """

    def __new__(cls, key: str, unit: str, heading: str, field: str = "", pin: str = "") -> "Figure":
        made = str.__new__(cls, key)
        made._value_ = key
        made.unit, made.heading, made.field, made.pin = unit, heading, field, pin
        return made

    unit: str
    heading: str
    field: str
    pin: str

    SPEED = "vc", "m/min", "Speed and feed", "vc_m_min", "vc_m_min"
    CLAMP = "clamp", "rpm", "Speed and feed", "clamp_rpm", "clamp_rpm"
    TURNS = "n", "rpm", "Speed and feed", "rpm", "clamp_rpm"
    FEED = "f", "mm/rev", "Speed and feed", "feed_mm_rev", "feed_mm_rev"
    FEED_NEAR_CENTRE = "f_centre", "mm/rev", "Speed and feed"
    FEED_OF_TOOTH = "fz", "mm", "Speed and feed"
    FEED_A_MINUTE = "vf", "mm/min", "Speed and feed"
    LARGEST_DEPTH = "ap_max", "mm", "Depth", "largest_ap_mm", "ap_mm"
    DEPTH = "ap", "mm", "Depth", "ap_mm", "ap_mm"
    ACROSS = "ae", "mm", "Depth"
    PASSES = "passes", "", "Depth"
    LEFT_RADIAL = "leave_radial", "mm", "Depth"
    LEFT_AXIAL = "leave_axial", "mm", "Depth"
    LENGTH = "length", "mm", "Depth"
    HOLE_DEPTH = "depth", "mm", "Depth"
    PECKS = "pecks", "", "Depth"
    PLUNGES = "plunges", "", "Depth"
    BLANK = "blank", "mm", "Depth"
    PRESSED = "pressed", "mm", "Depth"
    RIDGES = "ridges", "", "Depth"
    START = "start", "mm", "Depth"
    END = "end", "mm", "Depth"
    AGAIN = "again", "mm", "Depth"
    NEXT = "next", "mm", "Depth"
    CHIP = "h", "mm", "Chip"
    SHOULDER = "shoulder", "mm", "Chip"
    BREAKS = "breaks", "", "Chip"
    FORCE = "force", "N", "Force and power", "force_n"
    POWER = "power", "kW", "Force and power", "power_kw"
    TORQUE = "torque", "N m", "Force and power"
    THRUST = "thrust", "N", "Force and power"
    BEND = "bend", "size_um", "Force and power"
    MILL_BEND = "mill_bend", "um", "Force and power"
    ROUGHNESS = "ra", "um", "Result"
    LIFE = "life", "min", "Result", "life_min"
    REMOVED = "q", "cm3/min", "Result"
    COST = "cost", "money", "Result"
    PRICE = "price", "%", "Result"
    NUB = "nub", "mm", "Result"
    HITS = "hits", "ratio", "Interruption"
    INTERRUPTED = "interrupted", "s", "Interruption"
    EDGE = "edge", "mm", "Edges"
    EDGE_DEEP = "edge_deep", "mm", "Edges"
    EDGE_SPEED = "edge_vc", "m/min", "Edges"
    EDGE_FEED = "edge_vf", "mm/min", "Edges"
    START_SPEED = "start_vc", "m/min", "Start hole"
    START_FEED = "start_f", "mm/rev", "Start hole"
    START_DEPTH = "start_depth", "mm", "Start hole"
    PINCH_SPEED = "pinch_vc", "m/min", "Both tools"
    PINCH_POWER = "pinch_power", "kW", "Both tools"
    PINCH_LAG = "pinch_lag", "mm", "Both tools"


Reasons = dict[Figure, Evidence]
"""Numbers with why they are what they are, for people."""


def in_order(figures: Iterable[Figure]) -> list[Figure]:
    """Figures as they are shown."""
    order = {one: place for place, one in enumerate(Figure)}
    return sorted(figures, key=order.__getitem__)
