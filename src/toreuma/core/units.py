"""Quantities as people type and read them: ``1/2in``, ``Ø30``, ``180 m/min``, ``30-0.2``.

Everything inside Toreuma is in the units of the left column of `UNITS`; this module is the only place
that turns them into what a person reads, in millimetres or in inches.
"""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from toreuma.core.errors import UnitError

__all__ = ["UNITS", "Shown", "System", "Unit", "format_number", "from_shown", "parse", "show", "to_shown"]

System = Literal["mm", "inch"]

THIN_SPACE = "\u2009"
MOST_LETTERS = 120
"""Longer than any sum a person types for a size."""


@dataclass(frozen=True)
class Unit:
    """How one internal unit is shown in one system: label, shown = internal * factor, decimals."""

    label: str
    factor: float
    decimals: int


_INCH = 1 / 25.4
_FOOT_MIN = 1 / 0.3048
_HP = 1 / 0.745699872
_LBF = 1 / 4.4482216152605

UNITS: dict[str, dict[System, Unit]] = {
    "mm": {"mm": Unit("mm", 1, 3), "inch": Unit("in", _INCH, 4)},
    "um": {"mm": Unit("µm", 1, 1), "inch": Unit("µin", 1000 * _INCH, 0)},
    "size_um": {"mm": Unit("µm", 1, 1), "inch": Unit("thou", _INCH, 2)},
    "um/N": {"mm": Unit("µm/N", 1, 4), "inch": Unit("thou/lbf", _INCH / _LBF, 5)},
    "mm2": {"mm": Unit("mm²", 1, 2), "inch": Unit("in²", _INCH**2, 5)},
    "mm/rev": {"mm": Unit("mm/rev", 1, 3), "inch": Unit("in/rev", _INCH, 5)},
    "mm/min": {"mm": Unit("mm/min", 1, 0), "inch": Unit("in/min", _INCH, 2)},
    "m/min": {"mm": Unit("m/min", 1, 0), "inch": Unit("ft/min", _FOOT_MIN, 0)},
    "cm3/min": {"mm": Unit("cm³/min", 1, 1), "inch": Unit("in³/min", _INCH**3 * 1000, 2)},
    "kW": {"mm": Unit("kW", 1, 2), "inch": Unit("hp", _HP, 2)},
    "N": {"mm": Unit("N", 1, 0), "inch": Unit("lbf", _LBF, 0)},
    "N m": {"mm": Unit("N m", 1, 1), "inch": Unit("lbf ft", 0.7375621493, 1)},
    "money": {"mm": Unit("", 1, 2), "inch": Unit("", 1, 2)},
    "N/mm2": {"mm": Unit("N/mm²", 1, 0), "inch": Unit("N/mm²", 1, 0)},
    "rpm": {"mm": Unit("rpm", 1, 0), "inch": Unit("rpm", 1, 0)},
    "min": {"mm": Unit("min", 1, 1), "inch": Unit("min", 1, 1)},
    "s": {"mm": Unit("s", 1, 1), "inch": Unit("s", 1, 1)},
    "deg": {"mm": Unit("°", 1, 2), "inch": Unit("°", 1, 2)},
    "°C": {"mm": Unit("°C", 1, 0), "inch": Unit("°C", 1, 0)},
    "%": {"mm": Unit("%", 1, 0), "inch": Unit("%", 1, 0)},
    "share": {"mm": Unit("%", 100, 0), "inch": Unit("%", 100, 0)},
    "ratio": {"mm": Unit("", 1, 2), "inch": Unit("", 1, 2)},
    "kg": {"mm": Unit("kg", 1, 3), "inch": Unit("lb", 1 / 0.45359237, 3)},
    "": {"mm": Unit("", 1, 0), "inch": Unit("", 1, 0)},
}

# Suffixes a person may type, as a factor to the internal unit of that family.
_SUFFIXES: dict[str, dict[str, float]] = {
    "mm": {
        "mm": 1,
        "cm": 10,
        "m": 1000,
        "um": 0.001,
        "µm": 0.001,
        "in": 25.4,
        "inch": 25.4,
        '"': 25.4,
        "thou": 0.0254,
        "mil": 0.0254,
    },
    "mm/rev": {"mm/rev": 1, "mm": 1, "in/rev": 25.4, "in": 25.4, "ipr": 25.4, "thou": 0.0254, "thou/rev": 0.0254},
    "m/min": {"m/min": 1, "ft/min": 0.3048, "sfm": 0.3048, "m/s": 60},
    "rpm": {"rpm": 1, "1/min": 1, "/min": 1},
    "deg": {"deg": 1, "°": 1},
    "s": {"s": 1, "min": 60},
    "kW": {"kw": 1, "w": 0.001, "hp": 0.745699872},
    "N": {"n": 1, "kn": 1000, "lbf": 4.4482216152605},
    "kg": {"kg": 1, "g": 0.001, "lb": 0.45359237},
}

_TOKEN = re.compile(
    r"\s*(?:(?P<number>\d+(?:[.,]\d*)?|[.,]\d+)|(?P<op>[-+*/()])|(?P<word>1/min|[a-zµ°\"]+(?:/[a-z]+)?))", re.I
)


@dataclass(frozen=True)
class Shown:
    """A quantity ready to print: the number as text and the unit's label."""

    number: str
    unit: str

    def __str__(self) -> str:
        return f"{self.number} {self.unit}".strip()


def to_shown(value: float, unit: str, system: System) -> float:
    """The number a person reads for an internal ``value``."""
    return value * UNITS[unit][system].factor


def from_shown(value: float, unit: str, system: System) -> float:
    """The internal number for what a person reads; the inverse of `to_shown`."""
    return value / UNITS[unit][system].factor


def format_number(value: float, decimals: int, trim: bool = False) -> str:
    """``value`` rounded, with thin spaces between groups of three and a true minus sign.

    ``trim`` drops trailing zeros after the decimal point.
    """
    if not math.isfinite(value):
        return "—"
    text = f"{abs(value):,.{decimals}f}".replace(",", THIN_SPACE)
    if trim and "." in text:
        text = text.rstrip("0").rstrip(".")
    negative = value < 0 and any(c in "123456789" for c in text)
    return ("\u2212" if negative else "") + text


def show(value: float, unit: str, system: System, decimals: int | None = None, trim: bool = False) -> Shown:
    """An internal quantity as a person reads it in ``system``.

    ``decimals`` overrides the usual count for millimetre display; inch display keeps its own.
    """
    style = UNITS[unit][system]
    places = style.decimals if decimals is None or (system == "inch" and style.factor != 1) else decimals
    return Shown(format_number(value * style.factor, places, trim), style.label)


def parse(text: str, unit: str, system: System) -> float:
    """Read typed text as a quantity in the internal ``unit``.

    Numbers without a unit are taken in the unit shown to the person in ``system``. Sums, products, brackets,
    fractions and mixed numbers work: ``1 1/2in``, ``30-0.2``, ``2*(3+0.5)``. A leading diameter sign is
    ignored. Raises `UnitError`.
    """
    if len(text) > MOST_LETTERS:
        what = f"{len(text)} letters are no size ('{text.strip()[:12]}…')"
        raise UnitError("entry", what, f"type a number in {_label(unit, system)}")
    cleaned = text.strip().replace("\u2212", "-").replace(THIN_SPACE, "").lstrip("Ø⌀ø").strip()
    cleaned = re.sub(r"(\d+)\s+(\d+)\s*/\s*(\d+)", r"(\1+\2/\3)", cleaned)
    if not cleaned:
        raise UnitError("entry", "nothing was typed", f"type a number in {_label(unit, system)}")
    value = _Expression(cleaned, unit, system).value()
    if not math.isfinite(value):
        raise UnitError("entry", f"'{text.strip()}' has no finite value", "type a plain number")
    return value


def _label(unit: str, system: System) -> str:
    return UNITS[unit][system].label or "plain numbers"


class _Expression:
    """Sums of terms; a unit after a term holds for the whole term, so ``1/2in`` is half an inch."""

    def __init__(self, text: str, unit: str, system: System) -> None:
        self._text = text
        self._unit = unit
        self._system = system
        self._tokens = list(self._split(text))
        self._at = 0

    def value(self) -> float:
        number = self._sum()
        if self._at < len(self._tokens):
            raise self._error(f"'{self._tokens[self._at][1]}' does not belong there")
        return number

    def _split(self, text: str) -> Iterator[tuple[str, str]]:
        at = 0
        while at < len(text):
            match = _TOKEN.match(text, at)
            if match is None:
                if not text[at:].strip():
                    return
                raise self._error(f"'{text[at:].strip()[:8]}' was not understood")
            kind = str(match.lastgroup)
            yield kind, match.group(kind)
            at = match.end()

    def _error(self, what: str) -> UnitError:
        return UnitError("entry", f"{what} in '{self._text}'", f"type a number in {_label(self._unit, self._system)}")

    def _peek(self, *ops: str) -> bool:
        return self._at < len(self._tokens) and self._tokens[self._at] in [("op", op) for op in ops]

    def _next(self) -> tuple[str, str]:
        if self._at >= len(self._tokens):
            raise self._error("something is missing at the end")
        self._at += 1
        return self._tokens[self._at - 1]

    def _sum(self) -> float:
        total = self._term()
        while self._peek("+", "-"):
            sign = 1 if self._next()[1] == "+" else -1
            total += sign * self._term()
        return total

    def _term(self) -> float:
        number, scaled = self._factor()
        while self._peek("*", "/"):
            divide = self._next()[1] == "/"
            other, other_scaled = self._factor()
            if scaled and other_scaled:
                raise self._error("a unit stands twice")
            if divide and other == 0:
                raise self._error("a division by zero stands")
            number = number / other if divide else number * other
            scaled = scaled or other_scaled
        if self._at < len(self._tokens) and self._tokens[self._at][0] == "word":
            word = self._next()[1]
            factor = _SUFFIXES.get(self._unit, {}).get(word.lower())
            if factor is None:
                raise self._error(f"'{word}' is not a unit for this")
            return number * factor
        return number if scaled else from_shown(number, self._unit, self._system)

    def _factor(self) -> tuple[float, bool]:
        kind, text = self._next()
        if kind == "number":
            return float(text.replace(",", ".")), False
        if (kind, text) == ("op", "-"):
            number, scaled = self._factor()
            return -number, scaled
        if (kind, text) == ("op", "("):
            plain = self._bracket()
            return plain, False
        raise self._error(f"'{text}' does not belong there")

    def _bracket(self) -> float:
        """A bracket of plain numbers; the unit stands outside it."""
        unit, self._unit = self._unit, ""
        number = self._sum()
        self._unit = unit
        if self._next() != ("op", ")"):
            raise self._error("a bracket is left open")
        return number
