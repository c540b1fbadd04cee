"""Numbers of the shop as text, and back."""

import re
from collections.abc import Mapping
from typing import Any

from toreuma.core.errors import UnitError
from toreuma.core.kinds.shop import ShopField
from toreuma.core.units import System, parse, show

__all__ = ["fits_usual", "range_text", "read_value", "value_at", "value_text"]


def value_at(value: Any, path: str) -> Any:
    """What stands at a path; None behind something that is not there."""
    for step in path.split("."):
        if value is None:
            return None
        if isinstance(value, Mapping):
            value = value.get(step)
        else:
            value = value[int(step)] if step.isdigit() else getattr(value, step)
    return value


def value_text(field: ShopField, held: Any, system: System) -> str:
    """A value as it is typed."""
    if held is None or held == () or field.options:
        return ""
    if field.form == "curve":
        return "  ".join(f"{point.rpm:g}:{_number(point.power_kw, field.unit, system)}" for point in held)
    if field.form in ("list", "span"):
        return "  ".join(_number(one, field.unit, system) for one in held)
    if field.form == "words":
        return ", ".join(f"{one.word} {one.means}" for one in held)
    if field.form == "meanings":
        return ", ".join(f"{word} {means}" for word, means in held.items())
    if field.form == "lines":
        return " | ".join(held)
    if field.form in ("text", "word"):
        return str(held)
    return _number(float(held), field.unit, system)


def _number(value: float, unit: str, system: System) -> str:
    if unit in ("", "ratio"):
        return f"{value:g}"
    text = show(value, unit, system, decimals=None if system == "inch" else 4, trim=True).number
    return text.replace("\u2009", "").replace("\u2212", "-")


def read_value(field: ShopField, text: str, system: System) -> Any:
    """The value of typed text; None for nothing. Raises `UnitError`."""
    text = text.strip()
    if field.form == "meanings":
        return dict(_meaning(field, one) for one in re.split(r"\s*[,;\n]\s*", text) if one)
    if field.form == "lines":
        return tuple(one for one in re.split(r"\s*\|\s*", text) if one)
    if not text:
        return () if field.form in ("list", "words") else () if field.form == "curve" and field.empty else None
    if field.form in ("text", "word"):
        return text
    if field.form == "words":
        return [one for one in re.split(r"\s*[,;\n]\s*", text) if one]
    unit = field.unit or "ratio"
    if field.form == "curve":
        return [_corner(one, unit, system) for one in re.split(r"[\s,;]+(?=\d+\s*:)", text)]
    if field.form == "list":
        return [parse(one, unit, system) for one in re.split(r"[\s;]+", text)]
    if field.form == "span":
        ends = [one for one in re.split(r"\s+(?:to\s+)?|\s*(?:to|-|–|…)\s*", text) if one]
        if len(ends) != 2:
            raise UnitError(field.label, f"'{text}' is no range", "type both ends, such as 8 120")
        return [parse(one, unit, system) for one in ends]
    return parse(text, unit, system)


def _meaning(field: ShopField, text: str) -> tuple[str, str]:
    word, *means = text.split()
    if len(means) != 1:
        raise UnitError(field.label, f"'{text}' is no word with what it means", "type for example M7 mist_on")
    return word, means[0]


def _corner(text: str, unit: str, system: System) -> dict[str, float]:
    rpm, colon, power = text.partition(":")
    if not colon:
        raise UnitError("curve", f"'{text}' is no corner of the curve", "type speed:power, such as 0:0 1500:15 4500:15")
    return {"rpm": parse(rpm, "rpm", system), "power_kw": parse(power, unit, system)}


def range_text(field: ShopField, bounds: tuple[float | None, float | None], system: System) -> str:
    """What is usual, else what is allowed, in words; empty where there is nothing to say."""
    if field.usual is not None:
        low, high = (_number(one, field.unit, system) for one in field.usual)
        return f"usual {low} to {high}"
    least, most = bounds
    if least is None or most is None or most >= 1e4:
        return "above 0" if least == 0 else ""
    return f"{_number(least, field.unit, system)} to {_number(most, field.unit, system)}"


def fits_usual(field: ShopField, held: Any) -> bool:
    """Whether a number is a usual one."""
    if field.usual is None or not isinstance(held, int | float) or isinstance(held, bool):
        return True
    return field.usual[0] <= held <= field.usual[1]
