"""A bar feeder on a line of text (TCP): ``BAR 2841.5 REST 102.0 STATE FEEDING``: length of bar left, rest that will be
dropped, mm, and its state (FEEDING, LAST, END, LOADING)."""

import re
import select
import socket
from dataclasses import dataclass

from toreuma.devices.device import Device
from toreuma.devices.lines import Lines

__all__ = ["BarFeeder", "BarState", "bar_of"]

_LINE = re.compile(
    r"^\s*BAR\s+(?P<left>\d+(?:\.\d+)?)\s+REST\s+(?P<rest>\d+(?:\.\d+)?)\s+STATE\s+(?P<state>FEEDING|LAST|END|LOADING)\s*$",
    re.I,
)


@dataclass(frozen=True)
class BarState:
    """What is left of the bar and how long its remnant will be, mm; ``state`` in the feeder's own word."""

    left_mm: float
    rest_mm: float
    state: str


def bar_of(line: str) -> BarState | None:
    """A line as the state of a bar; None for one that is none."""
    match = _LINE.match(line)
    return None if match is None else BarState(float(match["left"]), float(match["rest"]), match["state"].upper())


class BarFeeder(Device):
    """Events are `BarState`. Its address is ``HOST:PORT``."""

    kind = "bar feeder"

    def _open(self) -> None:
        host, _, port = self.where.rpartition(":")
        if not port.isdigit() or int(port) > 65535:
            raise OSError(0, f"'{self.where}' is no HOST:PORT")
        self._socket = socket.create_connection((host or "127.0.0.1", int(port)), timeout=1.0)
        self._socket.setblocking(False)
        self._lines = Lines()

    def _step(self) -> None:
        ready, _, _ = select.select([self._socket], [], [], self.STEP_S)
        if not ready:
            return
        data = self._socket.recv(4096)
        if not data:
            raise OSError(0, "the line is cut")
        for line in self._lines.feed(data):
            found = bar_of(line)
            if found is None:
                self.garbled(f"'{line[:40]}' says nothing of a bar")
            else:
                self.told(found)

    def _close(self) -> None:
        self._socket.close()
