"""One way to read what lies on disk: a plain file of bounded size, text in UTF-8, JSON of bounded depth.

Whatever is opened may have been made by anybody: a pipe that never ends, a device, a number of a million digits, a
text nested a hundred thousand deep. Each gives one clear line.
"""

import json
import math
import os
import stat
from pathlib import Path
from typing import Any

from toreuma.core.errors import JobError

__all__ = ["bytes_of", "json_from", "json_of", "text_of"]

MOST_DEPTH = 80
MOST_DIGITS = 300
"""Of a whole number; what has more is beyond every number a floating point can be."""


def bytes_of(path: Path, most: int) -> bytes:
    """The content of a plain file of at most ``most`` bytes. Raises `JobError`; `FileNotFoundError` where there is
    none."""
    try:
        handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
    except FileNotFoundError:
        raise
    except OSError as error:
        raise JobError(_shown(path), f"it cannot be read ({error.strerror})", "check its name and its rights") from None
    except ValueError:
        raise JobError(_shown(path), "this is no name of a file", "choose another file") from None
    try:
        with os.fdopen(handle, "rb") as stream:
            found = os.fstat(stream.fileno())
            if not stat.S_ISREG(found.st_mode):
                raise JobError(_shown(path), "this is a folder, a device or a pipe, no file", "choose a file")
            data = stream.read(most + 1) if found.st_size <= most else b""
    except OSError as error:
        raise JobError(_shown(path), f"it cannot be read ({error.strerror})", "check the disk it lies on") from None
    if found.st_size > most or len(data) > most:
        raise JobError(_shown(path), f"the file is larger than {most // 1_000_000} MB", "choose another file")
    return data


def text_of(path: Path, most: int) -> str:
    """The text of a file in UTF-8. Raises as `bytes_of` does."""
    try:
        return bytes_of(path, most).decode("utf-8-sig")
    except UnicodeDecodeError as error:
        what = f"it is not UTF-8 text (byte {error.start + 1})"
        raise JobError(_shown(path), what, "save it as UTF-8, or choose another file") from None


def json_of(path: Path, most: int) -> Any:
    """The data of a JSON file. Raises as `bytes_of` does."""
    return json_from(text_of(path, most), path.name)


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


def _shown(path: Path) -> str:
    """A name that can be printed, short enough for a line."""
    name = path.name or str(path)
    return (name if len(name) <= 80 else name[:77] + "…").encode("utf-8", "replace").decode().replace("\0", "?")
