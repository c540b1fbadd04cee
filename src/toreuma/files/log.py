"""What happened in a window, kept on this computer so that a fault can be told to somebody; nothing is ever sent.

``log/faults.txt`` in the person's folder holds faults with what was done before each; ``log/fatal.txt`` where the
process was when it ended without being able to say anything.
"""

import contextlib
import traceback
from collections import Counter, deque
from collections.abc import Iterable
from datetime import datetime
from pathlib import Path
from typing import TextIO

from toreuma.files.home import home

__all__ = ["MOST_ACTIONS", "Log", "fatal_file", "write_fault"]

MOST_ACTIONS = 200
MOST_BYTES = 1_000_000
MOST_OF_ONE = 5
"""The same fault is written so often."""


def _folder() -> Path:
    return home() / "log"


def fatal_file() -> TextIO | None:
    """An open file for where the process is when it ends; None where none can be written. It stays open."""
    try:
        _folder().mkdir(parents=True, exist_ok=True)
        path = _folder() / "fatal.txt"
        fresh = path.exists() and path.stat().st_size > MOST_BYTES
        return path.open("w" if fresh else "a", encoding="utf-8")
    except OSError:
        return None


class Log:
    """The last actions of a window, on the disk as they happen, and the faults that followed them."""

    def __init__(self, name: str) -> None:
        self.actions: deque[str] = deque(maxlen=MOST_ACTIONS)
        self._name = name
        self._trail: TextIO | None = None
        self._written = 0

    def did(self, what: str) -> None:
        """One thing the person did, in a few words."""
        line = f"{datetime.now():%H:%M:%S} {what}"[:160].replace("\n", " ")
        self.actions.append(line)
        with contextlib.suppress(OSError, ValueError):
            if self._trail is None or self._written >= 2 * MOST_ACTIONS:
                self._begin()
            elif self._trail is not None:
                self._trail.write(line + "\n")
                self._written += 1

    def _begin(self) -> None:
        _folder().mkdir(parents=True, exist_ok=True)
        if self._trail is not None:
            self._trail.close()
        self._trail = (_folder() / f"actions-{self._name}.txt").open(
            "w", encoding="utf-8", errors="replace", buffering=1
        )
        self._trail.write("\n".join(self.actions) + "\n")
        self._written = len(self.actions)

    def fault(self, error: BaseException) -> bool:
        """Write a fault down with what was done before it; False where the same one was written often enough."""
        return write_fault(error, self.actions)

    def close(self) -> None:
        """The window is closed as it should be: its actions need not be kept."""
        if self._trail is not None:
            self._trail.close()
            self._trail = None
            with contextlib.suppress(OSError):
                (_folder() / f"actions-{self._name}.txt").unlink(missing_ok=True)


_SEEN: Counter[str] = Counter()


def write_fault(error: BaseException, actions: Iterable[str] = ()) -> bool:
    """Write a fault of ours down; False where the same one was written often enough in this process."""
    text = "".join(traceback.format_exception(error))
    places = traceback.extract_tb(error.__traceback__)
    place = f"{type(error).__name__} {places[-1].filename}:{places[-1].lineno}" if places else text
    _SEEN[place] += 1
    if _SEEN[place] > MOST_OF_ONE:
        return False
    with contextlib.suppress(OSError):
        _folder().mkdir(parents=True, exist_ok=True)
        path = _folder() / "faults.txt"
        if path.exists() and path.stat().st_size > MOST_BYTES:
            path.replace(path.with_name("faults-before.txt"))
        with path.open("a", encoding="utf-8", errors="replace") as stream:
            before = "\n".join(f"  {line}" for line in actions)
            stream.write(f"{datetime.now():%Y-%m-%d %H:%M:%S}\n{text}last actions:\n{before}\n\n")
    return True
