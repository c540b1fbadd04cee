"""Sentences that carry their quantities: written once, read in the person's units when they are shown."""

from dataclasses import dataclass
from typing import Any, Self

from toreuma.core.units import System, show

__all__ = ["Quantity", "Said", "q", "said", "spoken"]

WORDS = {"um": "µm", "size_um": "µm", "mm2": "mm²"}
"""How a unit is written where it is not its own name."""


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number with its unit as `toreuma.core.units` names it.

    ``form`` is how it is written in mm, empty as such numbers usually are; a minus in front asks for a true minus sign.
    ``bare`` leaves the unit out: a quantity behind it, or its place in the sentence, tells it.
    """

    number: float
    unit: str
    form: str = ".2f"
    bare: bool = False

    def text(self, system: System) -> str:
        if system == "mm" and not self.form:
            return str(show(self.number, self.unit, system))
        if system == "mm":
            number = format(self.number, self.form.lstrip("-"))
            number = number.replace("-", "\u2212") if self.form.startswith("-") else number
            return number if self.bare else f"{number} {WORDS.get(self.unit, self.unit)}"
        shown = show(self.number, self.unit, system, trim=True)
        return shown.number if self.bare else str(shown)


class Said(str):
    """A sentence in mm that can be read in inches as well; everywhere else it is a plain text."""

    template: str
    parts: tuple[Any, ...]

    def __new__(cls, template: str, parts: tuple[Any, ...]) -> Self:
        made = super().__new__(cls, _filled(template, parts, "mm"))
        made.template, made.parts = template, parts
        return made

    def __reduce__(self) -> tuple[type, tuple[Any, ...]]:
        return Said, (self.template, self.parts)

    def __add__(self, other: str) -> "Said":
        return Said("{}{}", (self, other))

    def __radd__(self, other: str) -> "Said":
        return Said("{}{}", (other, self))

    def read_in(self, system: System) -> str:
        """The sentence in a person's units."""
        return _filled(self.template, self.parts, system)


def q(number: float, unit: str = "mm", form: str = ".2f", bare: bool = False) -> Quantity:
    """A quantity of a sentence."""
    return Quantity(float(number), unit, form, bare)


def said(template: str, *parts: object) -> str:
    """A sentence: each ``{}`` of the template takes a quantity, another sentence, or whatever has a text."""
    return Said(template, parts)


def spoken(text: str, system: System) -> str:
    """A text as the person reads it."""
    return text.read_in(system) if isinstance(text, Said) else text


def _filled(template: str, parts: tuple[Any, ...], system: System) -> str:
    return template.format(*(_text(part, system) for part in parts))


def _text(part: object, system: System) -> str:
    if isinstance(part, Quantity):
        return part.text(system)
    return spoken(part, system) if isinstance(part, str) else str(part)
