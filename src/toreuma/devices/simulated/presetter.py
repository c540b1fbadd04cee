"""A presetter that is none: it drops a file with the measured lengths of tools into a folder, or says them on a line.

A line of standard input is a tool, ``T3 62.4 118.2 0.4``, or ``drop``, ``garbage``, ``quit``. The first line of
standard output is the folder, or with ``serial`` the path of a pseudo terminal.
"""

import os
import random
import sys
import tempfile
from pathlib import Path

from toreuma.devices.simulated.gauge import raw_terminal

__all__ = ["run"]


def run(folder: str = "", noise_mm: float = 0.002, seed: int = 1, serial: bool = False) -> None:
    """Until standard input ends."""
    source = random.Random(seed)
    if serial:
        ours, theirs = raw_terminal()
        print(os.ttyname(theirs), flush=True)
    else:
        place = Path(folder or tempfile.mkdtemp(prefix="toreuma-preset-"))
        place.mkdir(parents=True, exist_ok=True)
        print(place, flush=True)
    waiting: list[str] = []
    number = 0
    for line in sys.stdin:
        words = line.split()
        if words == ["quit"]:
            break
        if words == ["garbage"]:
            waiting.append("\x00\x07 not a tool at all")
        elif words == ["drop"] and serial:
            os.write(ours, "".join(f"{one}\r\n" for one in waiting).encode("ascii", "replace"))
            waiting = []
        elif words == ["drop"]:
            number += 1
            part = place / f"{number:04}.part"
            part.write_text("\n".join(waiting) + "\n", "ascii", "replace")
            os.replace(part, place / f"{number:04}.preset")
            waiting = []
        elif len(words) >= 3 and words[0].startswith("T"):
            x, z = (float(word) + source.gauss(0.0, noise_mm) for word in words[1:3])
            nose = f" R {words[3]}" if len(words) > 3 else ""
            waiting.append(f"{words[0]} X {x:.3f} Z {z:.3f}{nose}")
