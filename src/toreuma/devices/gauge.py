"""A gauge on a serial line: it speaks when its button is pressed."""

import os

from toreuma.devices.device import Device
from toreuma.devices.lines import Lines, heard, open_serial
from toreuma.devices.reading import reading_of

__all__ = ["Gauge"]


class Gauge(Device):
    """Events are `Reading`."""

    kind = "gauge"

    def _open(self) -> None:
        self._handle = open_serial(self.where)
        self._lines = Lines()

    def _step(self) -> None:
        data = heard(self._handle, self.STEP_S)
        if not data and (cut := self._lines.left()):
            self.garbled(f"'{cut[:40]}' is cut")
        for line in self._lines.feed(data):
            found = reading_of(line)
            if found is None:
                self.garbled(f"'{line[:40]}' is no reading")
            else:
                self.told(found)

    def _close(self) -> None:
        os.close(self._handle)
