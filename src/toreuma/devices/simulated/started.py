"""Simulated devices as processes of their own, started and told what to do."""

import contextlib
import json
import subprocess
import sys
from types import TracebackType
from typing import Any, Self

from toreuma.core.errors import ToreumaError

__all__ = ["NAMES", "Simulated"]

NAMES = ("gauge", "presetter", "machine", "feeder")

_CODE = (
    "import json, sys; from importlib import import_module; "
    "import_module(f'toreuma.devices.simulated.{sys.argv[1]}').run(**json.loads(sys.argv[2]))"
)


class Simulated:
    """One process; ``where`` is its address. Raises `ToreumaError` where it does not come up."""

    def __init__(self, name: str, **settings: Any) -> None:
        if name not in NAMES:
            raise ToreumaError("simulate", f"there is no device '{name}'", f"choose from {', '.join(NAMES)}")
        self.name = name
        self._child = subprocess.Popen(
            [sys.executable, "-c", _CODE, name, json.dumps(settings)], stdin=subprocess.PIPE, stdout=subprocess.PIPE,
            text=True, start_new_session=True,
        )  # fmt: skip
        assert self._child.stdout is not None
        self.where = self._child.stdout.readline().strip()
        if not self.where:
            self.end()
            raise ToreumaError(f"simulated {name}", "it did not come up", "try again")

    def tell(self, words: str) -> None:
        """A line of what it is to do; one that is gone hears nothing."""
        assert self._child.stdin is not None
        try:
            self._child.stdin.write(f"{words}\n")
            self._child.stdin.flush()
        except (OSError, ValueError):
            return

    @property
    def lives(self) -> bool:
        return self._child.poll() is None

    def kill(self) -> None:
        """As a cable that is pulled."""
        self._child.kill()
        self._child.wait()

    def end(self) -> None:
        """It goes, and is waited for."""
        self.tell("quit")
        try:
            self._child.wait(2.0)
        except subprocess.TimeoutExpired:
            self.kill()
        for stream in (self._child.stdin, self._child.stdout):
            if stream is not None:
                with contextlib.suppress(OSError):
                    stream.close()

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: type[BaseException] | BaseException | TracebackType | None) -> None:
        self.end()
