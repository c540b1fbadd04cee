"""The numbers of a tool by their names and ISO 13399 symbols, whatever kind of tool it is."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from toreuma.core.value import Value

__all__ = ["Property", "properties_of", "with_property"]

UNITS = {"mm": "mm", "deg": "deg"}
LEFT_OUT = ("station",)


@dataclass(frozen=True, kw_only=True)
class Property:
    """``path`` leads from the tool to the field; ``value`` is None where a usual one stands in."""

    path: tuple[str, ...]
    label: str
    symbol: str
    unit: str
    value: float | None


def properties_of(tool: Value) -> tuple[Property, ...]:
    """Every number of a tool that a person may type."""
    return tuple(_walk(tool, ()))


def _walk(value: Value, path: tuple[str, ...]) -> Iterator[Property]:
    for name, field in type(value).model_fields.items():
        held = getattr(value, name)
        if isinstance(held, Value):
            yield from _walk(held, (*path, name))
            continue
        bare, _, unit = name.rpartition("_")
        if unit not in UNITS or name in LEFT_OUT or isinstance(held, tuple | bool | str):
            continue
        words = field.description or ""
        symbol = re.search(r"\(([A-Z]{1,5})\)", words)
        group = f"{path[-1]}, " if path else ""
        yield Property(
            path=(*path, name),
            label=group + bare.replace("_", " "),
            symbol=symbol.group(1) if symbol else "",
            unit=unit,
            value=held,
        )


def with_property(tool: Any, path: tuple[str, ...], number: float | None) -> Any:
    """The tool with one number changed. Raises pydantic's `ValidationError` where it cannot be."""
    name, *rest = path
    if not rest:
        return tool.changed(**{name: number})
    return tool.changed(**{name: with_property(getattr(tool, name), tuple(rest), number)})
