"""JSON text of others: every number in it finite, every text writable again, nested no deeper than anything of ours."""

import json
import math
from typing import Any

from toreuma.core.errors import JobError

__all__ = ["json_from"]

MOST_DEPTH = 80
MOST_DIGITS = 300
"""Of a whole number; what has more is beyond every number a floating point can be."""


def json_from(text: str, where: str) -> Any:
    """The data of JSON text, every number in it finite and every string writable again. Raises `JobError`."""
    try:
        data = json.loads(text)
    except json.JSONDecodeError as error:
        what = f"the text breaks off or is no JSON at line {error.lineno}, column {error.colno}"
        raise JobError(where, what, "mend that place, or take the copy saved before") from None
    except RecursionError:
        raise JobError(where, "the text is nested too deep", "this was not written by Toreuma") from None
    except ValueError:
        raise JobError(where, "there is a number of thousands of digits in it", "mend that number") from None
    _look_through(data, where)
    return data


_Place = tuple["_Place | None", str]
"""What a value lies in, and what it is called there."""


def _look_through(data: Any, where: str) -> None:
    """Refuse what would hurt later, wherever it lies, without recursion. Raises `JobError`."""
    waiting: list[tuple[Any, int, _Place | None]] = [(data, 0, None)]
    while waiting:
        value, depth, place = waiting.pop()
        if depth > MOST_DEPTH:
            raise JobError(where, "the text is nested too deep", "this was not written by Toreuma")
        if isinstance(value, dict):
            named = value.items()
            for key in value:
                if not key.isascii():
                    _plain(key, where, place)
        elif isinstance(value, list):
            named = enumerate(value)  # type: ignore[assignment]
        else:
            _plain(value, where, place)
            continue
        for key, inner in named:
            kind = type(inner)
            if kind is dict or kind is list:
                waiting.append((inner, depth + 1, (place, f".{key}" if isinstance(key, str) else f"[{key}]")))
            elif kind is float:
                if not math.isfinite(inner):
                    _plain(inner, where, (place, f".{key}"))
            elif (kind is str and not inner.isascii()) or kind is int:
                _plain(inner, where, (place, f".{key}"))


def _plain(value: Any, where: str, place: _Place | None) -> None:
    """A value by itself can be used and written again. Raises `JobError`."""
    fault: tuple[str, str] | None = None
    if isinstance(value, float) and not math.isfinite(value):
        fault = "this is no finite number", "write a number"
    elif isinstance(value, int) and abs(value) >= 10**MOST_DIGITS:
        fault = "this number has too many digits", "write a usual number"
    elif isinstance(value, str) and any("\ud800" <= letter <= "\udfff" for letter in value):
        fault = "this text holds half a character", "write it again"
    if fault is None:
        return
    steps: list[str] = []
    while place is not None:
        place, step = place
        steps.append(step[:40])
    path = "".join(reversed(steps)).lstrip(".")
    raise JobError(f"{where}: {path}" if path else where, *fault)
