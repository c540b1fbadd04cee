"""A field of something in the shop, and the range of its number."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

__all__ = ["YES_NO", "ShopField", "range_of"]

YES_NO = (("no", False), ("yes", True))


@dataclass(frozen=True, kw_only=True)
class ShopField:
    """``path`` leads to it, as ``carriers.0.stations``; ``heading`` begins a group.

    ``form`` is number, text, word (a short text), choice, curve (corners of a power curve), list (rising numbers),
    words (of programs, and what they mean), meanings (the same as a table), lines (of text), span (two numbers) or
    part (there or not: ``options`` are none and what it begins as).
    """

    path: str
    label: str
    unit: str = ""
    why: str = ""
    empty: str = ""
    form: str = "number"
    options: tuple[tuple[str, Any], ...] = ()
    heading: str = ""
    usual: tuple[float, float] | None = None
    """What is usual, in internal units; a number outside is taken and said to be unusual."""


def range_of(value: Any, path: str) -> tuple[float | None, float | None]:
    """The least and the greatest number a field takes, in its own unit; None where there is no bound."""
    head, _, rest = path.partition(".")
    held: Any = getattr(value, head)
    if isinstance(held, Mapping):
        return None, None
    if rest:
        if isinstance(held, tuple):
            index, _, rest = rest.partition(".")
            held = held[int(index)]
        return range_of(held, rest) if held is not None else (None, None)
    low = high = None
    field = type(value).model_fields[head]
    found: list[Any] = [*field.metadata]
    for argument in getattr(field.annotation, "__args__", ()):  # Positive | None
        found += list(getattr(argument, "__metadata__", ()))
    for one in _flat(found):
        low = next((b for b in (getattr(one, "ge", None), getattr(one, "gt", None)) if b is not None), low)
        high = next((b for b in (getattr(one, "le", None), getattr(one, "lt", None)) if b is not None), high)
    return low, high


def _flat(found: list[Any]) -> list[Any]:
    """Constraints out of the fields they are wrapped in."""
    every: list[Any] = []
    for one in found:
        inner: Callable[[], Any] | Any = getattr(one, "metadata", None)
        every += list(inner) if isinstance(inner, list) else [one]
    return every
