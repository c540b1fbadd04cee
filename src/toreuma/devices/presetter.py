"""A tool presetter: lengths of tools as files that are dropped into a folder, or as they come on a serial line, a line
a tool: ``T3 X 62.418 Z 118.207 R 0.4``. Lengths in mm, X on diameter."""

import os
import re
from dataclasses import dataclass
from pathlib import Path

from toreuma.devices.device import Device
from toreuma.devices.lines import Lines, heard, open_serial

__all__ = ["PresetTool", "Presetter", "preset_of"]

_LINE = re.compile(
    r"^\s*T(?P<station>\d{1,3})\s+X\s*(?P<x>[+-]?\d+(?:\.\d+)?)\s+Z\s*(?P<z>[+-]?\d+(?:\.\d+)?)"
    r"(?:\s+R\s*(?P<r>\d+(?:\.\d+)?))?\s*$", re.I
)  # fmt: skip
MOST_BYTES = 200_000
ENDING = ".preset"


@dataclass(frozen=True)
class PresetTool:
    """The tool of a station as it was measured: mm, X on diameter; ``nose_mm`` where it was measured."""

    station: int
    x_mm: float
    z_mm: float
    nose_mm: float | None = None


def preset_of(line: str) -> PresetTool | None:
    """A line as a tool; None for one that is none."""
    match = _LINE.match(line)
    if match is None:
        return None
    nose = float(match["r"]) if match["r"] else None
    return PresetTool(int(match["station"]), float(match["x"]), float(match["z"]), nose)


class Presetter(Device):
    """Events are `PresetTool`. Its address is a folder or a serial line. A file is read once, when it has been whole
    for a step; it stays where it is."""

    kind = "presetter"

    def _open(self) -> None:
        self._line: int | None = None
        if not Path(self.where).is_dir():
            self._line, self._lines = open_serial(self.where), Lines()
        self._seen: dict[str, tuple[float, int]] = {}
        self._done: set[str] = set()

    def _step(self) -> None:
        if self._line is not None:
            self._hear(self._line)
            return
        self._stop.wait(self.STEP_S)
        for entry in sorted(os.scandir(self.where), key=lambda one: one.name):
            if not entry.name.endswith(ENDING) or entry.name in self._done or not entry.is_file():
                continue
            state = entry.stat()
            now = (state.st_mtime, state.st_size)
            if self._seen.get(entry.name) != now:
                self._seen[entry.name] = now  # still being written, perhaps
                continue
            self._done.add(entry.name)
            self._read(Path(entry.path))

    def _hear(self, line: int) -> None:
        data = heard(line, self.STEP_S)
        if not data and (cut := self._lines.left()):
            self.garbled(f"'{cut[:40]}' is cut")
        for words in self._lines.feed(data):
            self._take_line(words, "")

    def _take_line(self, words: str, where: str) -> None:
        tool = preset_of(words)
        if tool is None:
            self.garbled(f"{where}'{words[:40]}' is no tool")
        else:
            self.told(tool)

    def _read(self, path: Path) -> None:
        if path.stat().st_size > MOST_BYTES:
            self.garbled(f"{path.name} is far too large")
            return
        for line in path.read_text("ascii", "replace").splitlines():
            if not line.strip():
                continue
            self._take_line(line, f"{path.name}: ")

    def _close(self) -> None:
        if self._line is not None:
            os.close(self._line)
