"""Which numbers of an operation a person sees, in which order, and under which heading."""

from collections.abc import Iterable
from enum import StrEnum

__all__ = ["Shown", "in_order", "shown_of"]


class Shown(StrEnum):
    """Every number a plan gives, in the order people ask. A number of a further tool has its own ``_2``, ``_3``."""

    def __new__(cls, key: str, heading: str = "") -> "Shown":
        made = str.__new__(cls, key)
        made._value_ = key
        made.heading = heading
        return made

    heading: str

    SPEED = "vc", "Speed and feed"
    CLAMP = "clamp", "Speed and feed"
    TURNS = "n", "Speed and feed"
    FEED = "f", "Speed and feed"
    FEED_NEAR_CENTRE = "f_centre", "Speed and feed"
    FEED_OF_TOOTH = "fz", "Speed and feed"
    FEED_A_MINUTE = "vf", "Speed and feed"
    LARGEST_DEPTH = "ap_max", "Depth"
    DEPTH = "ap", "Depth"
    ACROSS = "ae", "Depth"
    PASSES = "passes", "Depth"
    LEFT_RADIAL = "leave_radial", "Depth"
    LEFT_AXIAL = "leave_axial", "Depth"
    LENGTH = "length", "Depth"
    HOLE_DEPTH = "depth", "Depth"
    PECKS = "pecks", "Depth"
    PLUNGES = "plunges", "Depth"
    BLANK = "blank", "Depth"
    PRESSED = "pressed", "Depth"
    RIDGES = "ridges", "Depth"
    START = "start", "Depth"
    END = "end", "Depth"
    AGAIN = "again", "Depth"
    NEXT = "next", "Depth"
    CHIP = "h", "Chip"
    SHOULDER = "shoulder", "Chip"
    BREAKS = "breaks", "Chip"
    FORCE = "force", "Force and power"
    POWER = "power", "Force and power"
    TORQUE = "torque", "Force and power"
    THRUST = "thrust", "Force and power"
    BEND = "bend", "Force and power"
    ROUGHNESS = "ra", "Result"
    LIFE = "life", "Result"
    REMOVED = "q", "Result"
    COST = "cost", "Result"
    PRICE = "price", "Result"
    NUB = "nub", "Result"
    HITS = "hits", "Interruption"
    INTERRUPTED = "interrupted", "Interruption"
    EDGE = "edge", "Edges"
    EDGE_DEEP = "edge_deep", "Edges"
    EDGE_SPEED = "edge_vc", "Edges"
    EDGE_FEED = "edge_vf", "Edges"
    START_SPEED = "start_vc", "Start hole"
    START_FEED = "start_f", "Start hole"
    START_DEPTH = "start_depth", "Start hole"
    PINCH_SPEED = "pinch_vc", "Both tools"
    PINCH_POWER = "pinch_power", "Both tools"
    PINCH_LAG = "pinch_lag", "Both tools"


def shown_of(key: str) -> Shown:
    """What a key of a plan's numbers stands for. Raises `ValueError` for one that nobody declared."""
    name, _, count = key.rpartition("_")
    return Shown(name if count.isdigit() else key)


def in_order(keys: Iterable[str]) -> list[str]:
    """Keys as they are shown: those of the first tool, then each further one."""
    order = {one.value: place for place, one in enumerate(Shown)}

    def place(key: str) -> tuple[int, int]:
        count = key.rpartition("_")[2]
        return (int(count) if count.isdigit() else 0), order[shown_of(key).value]

    return sorted(keys, key=place)
