"""The letter and size tables of the designation standards, as they stand in the data file."""

from toreuma.core.value import Value

__all__ = ["BarTables", "CodeTables", "Fixing", "HolderTables", "InsertTables", "Shape", "Tolerances"]


class Shape(Value):
    name: str
    angle_deg: float


class Tolerances(Value):
    """Deviations in um of inscribed circle, corner height and thickness; a letter names a list by inscribed circle."""

    ic_um: float | str
    corner_um: float | str
    thickness_um: float | str


class Fixing(Value):
    hole: str
    chip_former: str


class InsertTables(Value):
    source: str
    shapes: dict[str, Shape]
    clearance_deg: dict[str, float]
    clearances_note: str
    tolerances: dict[str, Tolerances]
    tolerances_by_ic_um: dict[str, tuple[tuple[float, float], ...]]
    slim_corners_um: dict[str, tuple[tuple[float, float], ...]]
    fixings: dict[str, Fixing]
    ic_mm: tuple[float, ...]
    edge_per_ic: dict[str, float]
    edge_codes: dict[str, dict[str, tuple[float, ...]]]
    round_metric_mm: dict[str, float]
    thickness_mm: dict[str, float]
    corner_mm: dict[str, float]
    wiper_entering_deg: dict[str, float]
    wiper_clearance_deg: dict[str, float]
    edges: dict[str, str]
    hands: dict[str, str]
    inch_size_mm: dict[str, float]
    inch_thickness_mm: dict[str, float]
    inch_corner_mm: dict[str, float]

    def tolerance_um(self, letter: str, of: str, ic_mm: float, shape: str = "") -> float:
        """Deviation of ``ic``, ``corner`` or ``thickness`` in um for a class letter and an inscribed circle; corners of
        slim shapes may be off by more in the classes that are not ground."""
        value = getattr(self.tolerances[letter], f"{of}_um")
        if not isinstance(value, str):
            return float(value)
        steps = self.tolerances_by_ic_um[value]
        if of == "corner" and value == "m":
            steps = self.slim_corners_um.get(shape, steps)
        return next((um for up_to, um in steps if ic_mm <= up_to + 1e-6), steps[-1][1])


class HolderTables(Value):
    source: str
    clamping: dict[str, str]
    styles: dict[str, tuple[float, str]]
    hands: dict[str, str]
    shank_mm: tuple[float, ...]
    length_mm: dict[str, float]
    special_length: str
    qualified: dict[str, str]
    inch_square_sixteenths: tuple[int, ...]
    inch_rectangular_in: dict[str, tuple[float, float]]
    inch_rectangular: str
    inch_length_in: dict[str, tuple[float, str]]


class BarTables(Value):
    source: str
    kinds: dict[str, tuple[str, str, bool, bool]]
    diameter_mm: tuple[float, ...]
    inch_diameter_sixteenths: tuple[int, ...]
    inch_length_in: dict[str, float]


class CodeTables(Value):
    insert: InsertTables
    holder: HolderTables
    bar: BarTables
