"""Limits and fits of ISO 286-1 for sizes up to 500 mm: ``25 H7``, ``Ø30f7``, ``20 H7/g6``."""

import re
from bisect import bisect_left
from dataclasses import dataclass

from toreuma.core.errors import StandardError
from toreuma.core.value import Value

__all__ = ["Fit", "FitTables", "Tolerance", "fit_of", "tolerance_of"]

_DESIGNATION = re.compile(
    r"^[Ø⌀ø]?\s*(?P<size>\d+(?:[.,]\d+)?)\s*(?:mm)?\s*(?P<first>[A-Za-z]{1,2}\d{1,2})"
    r"(?:\s*[/ ]\s*(?P<second>[A-Za-z]{1,2}\d{1,2}))?$"
)
_ZONE = re.compile(r"^(?P<letter>[A-Za-z]{1,2})(?P<grade>01|\d{1,2})$")

DELTA_HIGHEST = {"k": 8, "m": 8, "n": 8}
"""Up to this grade a hole of the letter is the mirrored shaft plus delta; 7 for p and beyond."""


class FitTables(Value):
    """The standard's tables, µm. Columns of ``grades_um`` go with ``grade_steps_mm``, the others with ``steps_mm``;
    every step is the largest size of its column. A None is a deviation the standard does not give."""

    source: str
    grade_steps_mm: tuple[float, ...]
    grades_um: dict[str, tuple[float, ...]]
    steps_mm: tuple[float, ...]
    shaft_upper_um: dict[str, tuple[float | None, ...]]
    shaft_lower_um: dict[str, tuple[float | None, ...]]
    special_um: dict[str, tuple[float | None, ...]]


@dataclass(frozen=True, kw_only=True)
class Tolerance:
    """The limits of one size. Deviations in µm from ``nominal_mm``."""

    nominal_mm: float
    zone: str
    lower_um: float
    upper_um: float
    source: str

    @property
    def is_hole(self) -> bool:
        return self.zone[0].isupper()

    @property
    def min_mm(self) -> float:
        return self.nominal_mm + self.lower_um / 1000

    @property
    def max_mm(self) -> float:
        return self.nominal_mm + self.upper_um / 1000

    @property
    def middle_mm(self) -> float:
        """What a program aims at."""
        return (self.min_mm + self.max_mm) / 2


@dataclass(frozen=True)
class Fit:
    """One size, or a hole with its shaft. Clearances in µm; negative is interference."""

    first: Tolerance
    second: Tolerance | None = None

    @property
    def clearance_um(self) -> tuple[float, float] | None:
        """Least and greatest clearance of the pair."""
        if self.second is None:
            return None
        hole, shaft = (self.first, self.second) if self.first.is_hole else (self.second, self.first)
        return hole.lower_um - shaft.upper_um, hole.upper_um - shaft.lower_um

    @property
    def kind(self) -> str:
        """Clearance, transition or interference fit; empty for a single size."""
        if self.clearance_um is None:
            return ""
        least, most = self.clearance_um
        return "clearance" if least >= 0 else "interference" if most <= 0 else "transition"


def fit_of(designation: str, tables: FitTables) -> Fit:
    """Limits of ``25 H7`` or of the pair ``25 H7/g6``. Raises `StandardError`."""
    match = _DESIGNATION.match(designation.strip())
    if match is None:
        raise StandardError(designation, "this is not a size with a tolerance", "write it like 25 H7, 30f7 or 20 H7/g6")
    size = float(match["size"].replace(",", "."))
    first = tolerance_of(size, match["first"], tables)
    if match["second"] is None:
        return Fit(first)
    second = tolerance_of(size, match["second"], tables)
    if first.is_hole == second.is_hole:
        raise StandardError(designation, "a fit needs a hole and a shaft", "write one letter large, the other small")
    return Fit(first, second)


def tolerance_of(size_mm: float, zone: str, tables: FitTables) -> Tolerance:
    """Limits of one size, mm, in a tolerance zone such as ``H7``. Raises `StandardError`.

    Shafts a to h have their upper deviation in the table, k to zc the lower one. Holes A to H mirror the shaft.
    Holes K to ZC mirror it with delta, the difference of the grade to the next finer one, added up to grade 8
    (K, M, N) or 7 (P to ZC) (ISO 286-1, 4.3.2).
    """
    match = _ZONE.match(zone)
    if match is None or match["grade"] not in tables.grades_um:
        raise StandardError(zone, "there is no such tolerance grade", "use a letter and a grade from 01 to 18, like H7")
    if not 0 < size_mm <= tables.steps_mm[-1]:
        raise StandardError(
            f"{size_mm:g} {zone}", "the standard's table ends at 500 mm", "use a size above 0 up to 500, or type limits"
        )
    letter, grade = match["letter"], match["grade"]
    width = _grade_um(size_mm, grade, tables)
    low = letter.lower()
    if low == "js":
        half = width / 2
        return Tolerance(nominal_mm=size_mm, zone=zone, lower_um=-half, upper_um=half, source=tables.source)
    if low == "j":
        known = _column(size_mm, tables.special_um.get(letter + grade, ()), tables)
        if known is None:
            raise _not_given(size_mm, zone)
        lower, upper = (known - width, known) if letter == "J" else (known, known + width)
        return Tolerance(nominal_mm=size_mm, zone=zone, lower_um=lower, upper_um=upper, source=tables.source)
    if not (letter.isupper() or letter.islower()):
        raise StandardError(zone, "letters are mixed", "write holes large (H7), shafts small (g6)")
    if low in tables.shaft_upper_um:
        upper_shaft = _column(size_mm, tables.shaft_upper_um[low], tables)
        if upper_shaft is None:
            raise _not_given(size_mm, zone)
        if letter.isupper():
            return Tolerance(
                nominal_mm=size_mm,
                zone=zone,
                lower_um=0.0 - upper_shaft,
                upper_um=width - upper_shaft,
                source=tables.source,
            )
        return Tolerance(
            nominal_mm=size_mm, zone=zone, lower_um=upper_shaft - width, upper_um=upper_shaft, source=tables.source
        )
    if low not in tables.shaft_lower_um:
        raise StandardError(zone, f"'{letter}' is no deviation of the standard", "use letters a to zc or A to ZC")
    lower_shaft = _column(size_mm, tables.shaft_lower_um[low], tables)
    if lower_shaft is None:
        raise _not_given(size_mm, zone)
    if letter.isupper():
        upper = _hole_upper(size_mm, low, grade, lower_shaft, tables)
        return Tolerance(nominal_mm=size_mm, zone=zone, lower_um=upper - width, upper_um=upper, source=tables.source)
    if low == "k" and not 4 <= _order(grade) <= 7:
        lower_shaft = 0.0
    return Tolerance(
        nominal_mm=size_mm, zone=zone, lower_um=lower_shaft, upper_um=lower_shaft + width, source=tables.source
    )


def _hole_upper(size_mm: float, low: str, grade: str, shaft_lower: float, tables: FitTables) -> float:
    """Upper deviation of a hole K to ZC, µm."""
    order = _order(grade)
    if low == "n" and order > 8:
        return -4.0 if size_mm <= 3 else 0.0
    if low == "k" and order > 8:
        return 0.0
    if low == "m" and order == 6 and 250 < size_mm <= 315:
        return -9.0  # the standard's own exception
    if size_mm <= 3 or order > DELTA_HIGHEST.get(low, 7) or order < 3:
        return -shaft_lower
    delta = _grade_um(size_mm, grade, tables) - _grade_um(size_mm, str(order - 1), tables)
    return -shaft_lower + delta


def _order(grade: str) -> int:
    return {"01": -1}.get(grade, int(grade))


def _grade_um(size_mm: float, grade: str, tables: FitTables) -> float:
    return tables.grades_um[grade][bisect_left(tables.grade_steps_mm, size_mm)]


def _column(size_mm: float, row: tuple[float | None, ...], tables: FitTables) -> float | None:
    index = bisect_left(tables.steps_mm, size_mm)
    return row[index] if index < len(row) else None


def _not_given(size_mm: float, zone: str) -> StandardError:
    return StandardError(
        f"{size_mm:g} {zone}", "the standard gives no such deviation at this size", "choose a letter beside it"
    )
