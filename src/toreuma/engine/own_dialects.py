"""Ways of writing of the shop's own: shown whole, kept as what they say otherwise than the one they go out from."""

import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from toreuma.core.dialect import Dialect, OwnDialect
from toreuma.core.errors import JobError
from toreuma.core.read.sentence import words_of
from toreuma.engine.library import library
from toreuma.files.jobs import validation_line

__all__ = ["in_lines", "otherwise", "said_otherwise", "whole"]


def whole(own: OwnDialect) -> Dialect:
    """The dialect with all that it takes over. Raises `JobError`."""
    base = library().dialect(own.based_on)
    try:
        return own.on(base)
    except ValidationError as error:
        place, what = validation_line(error)
        raise JobError(place or own.name, what, "type another value") from None
    except ValueError as error:
        raise JobError(own.name, str(error), "type another value") from None


def said_otherwise(own: OwnDialect, made: Dialect) -> OwnDialect:
    """The own dialect that is ``made``, in as few words as can be. Raises `JobError`."""
    base, now = (one.model_dump(mode="json") for one in (library().dialect(own.based_on), made))
    changes: dict[str, Any] = {}
    for name in Dialect.model_fields:
        if name in ("id", "name", "of_its_machine") or now[name] == base[name]:
            continue
        changes[name] = _difference(base[name], now[name])
    found = own.changed(changes=changes)
    whole(found)
    return found


def in_lines(path: str, value: Any) -> Any:
    """Text with | between its lines, where a field has lines."""
    head, _, _ = path.partition(".")
    lined = head in ("cycles", "home", "caution", "start", "end") or head.startswith(("tool", "after_"))
    if not isinstance(value, str) or not lined or head in ("tool_word", "tool_off_word", "tool_number"):
        return value
    return tuple(one for one in re.split(r"\s*\|\s*", value.strip()) if one)


def _difference(base: Any, now: Any) -> Any:
    """Of tables only what differs, with None for what is gone."""
    if not isinstance(base, Mapping) or not isinstance(now, Mapping):
        return now
    gone = dict.fromkeys(base.keys() - now.keys())
    return {key: value for key, value in now.items() if base.get(key) != value} | gone


def otherwise(own: OwnDialect) -> str:
    """What it says otherwise than the one it goes out from, in a line."""
    base = library().dialect(own.based_on).name
    said = [
        words_of(name)
        for field, value in own.changes.items()
        for name in (value if field in ("codes", "cycles") and isinstance(value, Mapping) else [field])
    ]
    return f"Otherwise than {base}: {', '.join(said)}." if said else f"As {base} so far."
