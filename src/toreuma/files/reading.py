"""One way to read what lies on disk: a plain file of bounded size, text in UTF-8, JSON of bounded depth.

Whatever is opened may have been made by anybody: a pipe that never ends, a device, a number of a million digits, a
text nested a hundred thousand deep. Each gives one clear line.
"""

import os
import stat
from pathlib import Path
from typing import Any

from toreuma.core.errors import JobError
from toreuma.core.json_text import json_from

__all__ = ["bytes_of", "json_of", "text_of"]


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


def _shown(path: Path) -> str:
    """A name that can be printed, short enough for a line."""
    name = path.name or str(path)
    return (name if len(name) <= 80 else name[:77] + "…").encode("utf-8", "replace").decode().replace("\0", "?")
