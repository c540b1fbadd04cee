"""A gauge that is none: a pseudo terminal on which readings come when its button is pressed.

A line of standard input presses it: a number in mm, or one of ``cut`` (a broken line), ``garbage``, ``inches``,
``hang`` and ``quit``. The first line of standard output is the path of the terminal.
"""

import os
import pty
import random
import sys
import termios
import time

__all__ = ["raw_terminal", "run"]


def raw_terminal() -> tuple[int, int]:
    """Both ends of a pseudo terminal that changes nothing of what goes through it."""
    ours, theirs = pty.openpty()
    mode = termios.tcgetattr(theirs)
    mode[0], mode[1], mode[3] = 0, 0, 0
    termios.tcsetattr(theirs, termios.TCSANOW, mode)
    return ours, theirs


def run(noise_mm: float = 0.0005, seed: int = 1) -> None:
    """Until standard input ends."""
    source = random.Random(seed)
    ours, theirs = raw_terminal()
    print(os.ttyname(theirs), flush=True)
    inches = False
    for line in sys.stdin:
        word = line.strip()
        if word == "quit":
            break
        if word == "inches":
            inches = not inches
        elif word == "garbage":
            os.write(ours, bytes(source.randrange(256) for _ in range(40)) + b"\r\n")
        elif word == "cut":
            os.write(ours, b"D1 +21.\r\nD1 +\r\n D1 21.97 m")
        elif word == "hang":
            time.sleep(5)
        elif word:
            try:
                value = float(word) + source.gauss(0.0, noise_mm)
            except ValueError:
                continue
            text = f"D1 {value / 25.4:+.5f} in" if inches else f"D1 {value:+.4f} mm"
            os.write(ours, f"{text}\r\n".encode("ascii"))
    os.close(ours)
