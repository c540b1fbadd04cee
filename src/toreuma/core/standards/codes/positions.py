"""What a designation says, position by position and as numbers."""

from dataclasses import dataclass
from typing import Literal

__all__ = ["BarCode", "HolderCode", "InsertCode", "Position", "System"]

System = Literal["metric", "inch"]


@dataclass(frozen=True, kw_only=True)
class Position:
    """One position: its number and name in the standard, the symbol, what it means, and its size if it has one."""

    number: int
    name: str
    symbol: str
    meaning: str
    mm: float | None = None


@dataclass(frozen=True, kw_only=True)
class InsertCode:
    """An insert by ISO 1832 or its inch twin; symbols as letters, sizes in mm.

    ``ic_mm`` is None for rectangles and parallelograms; ``nose_radius_mm`` is None for round inserts and for
    corners with a wiper facet, which ``wiper`` then names by its two letters.
    """

    system: System
    shape: str
    clearance: str
    tolerance: str
    fixing: str
    ic_mm: float | None
    edge_length_mm: float
    thickness_mm: float
    nose_radius_mm: float | None
    included_angle_deg: float
    clearance_deg: float | None
    metric_round: bool = False
    wiper: str = ""
    edge: str = ""
    hand: str = ""
    tail: str = ""
    positions: tuple[Position, ...] = ()

    kind: Literal["insert"] = "insert"


@dataclass(frozen=True, kw_only=True)
class HolderCode:
    """A holder with a rectangular shank by ISO 5608 or its inch twin; sizes in mm."""

    system: System
    clamping: str
    shape: str
    style: str
    clearance: str
    hand: str
    entering_angle_deg: float
    shank_height_mm: float
    shank_width_mm: float
    length_mm: float | None
    edge_length_mm: float
    ic_mm: float | None
    qualified: str = ""
    tail: str = ""
    positions: tuple[Position, ...] = ()

    kind: Literal["holder"] = "holder"


@dataclass(frozen=True, kw_only=True)
class BarCode:
    """A boring bar by ISO 6261 or its inch twin; sizes in mm."""

    system: System
    bar: str
    material: str
    coolant: bool
    damped: bool
    shank_diameter_mm: float
    length_mm: float | None
    clamping: str
    shape: str
    style: str
    clearance: str
    hand: str
    entering_angle_deg: float
    edge_length_mm: float
    ic_mm: float | None
    tail: str = ""
    positions: tuple[Position, ...] = ()

    kind: Literal["bar"] = "bar"
