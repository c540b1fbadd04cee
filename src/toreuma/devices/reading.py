"""A gauge's line: plain ASCII, ``[NAME] NUMBER [UNIT]``, such as ``D1 +21.9735 mm``. A line that is cut or holds more
is no reading."""

import math
import re
from dataclasses import dataclass

__all__ = ["UNITS_MM", "Reading", "looks_like_inches", "reading_of"]

UNITS_MM = {"mm": 1.0, "in": 25.4, "inch": 25.4, '"': 25.4, "um": 0.001}

_LINE = re.compile(
    r"^\s*(?:(?P<name>[A-Za-z]\w{0,11})\s+)?(?P<number>[+-]?\d{1,5}(?:[.,]\d{1,6})?)\s*(?P<unit>mm|inch|in|\"|um)?\s*$",
    re.I,
)


@dataclass(frozen=True)
class Reading:
    """``mm`` is what was read; ``unit`` what it was sent in, empty where nothing was said (mm is taken then)."""

    mm: float
    unit: str
    name: str
    raw: str


def reading_of(line: str) -> Reading | None:
    """A line as a reading; None for one that is none."""
    match = _LINE.match(line)
    if match is None:
        return None
    unit = (match["unit"] or "").lower()
    value = float(match["number"].replace(",", ".")) * UNITS_MM.get(unit, 1.0)
    return Reading(value, unit, match["name"] or "", line.strip()) if math.isfinite(value) else None


def looks_like_inches(mm: float, nominal_mm: float, tolerance_mm: float) -> bool:
    """A number without a unit that is a size only when it is taken in inches."""
    near = max(5 * tolerance_mm, 0.02 * nominal_mm)
    return abs(mm - nominal_mm) > near and abs(25.4 * mm - nominal_mm) < near
