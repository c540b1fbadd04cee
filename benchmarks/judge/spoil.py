"""Programs spoiled in one place, as fingers and files do it."""

import random
import re
from collections.abc import Iterator
from dataclasses import dataclass

__all__ = ["Spoiled", "spoiled"]


@dataclass(frozen=True)
class Spoiled:
    """``is_harmful`` where the kind itself says so; None: the judge has to see."""

    kind: str
    line: int
    was: str
    now: str
    text: str
    is_harmful: bool | None = None


def spoiled(text: str, chance: random.Random, count: int) -> Iterator[Spoiled]:
    """So many changes, of every kind alike."""
    made, tries = 0, 0
    while made < count and tries < 40 * count:
        tries += 1
        kind = chance.choice(list(KINDS))
        lines = text.splitlines()
        places = [n for n, line in enumerate(lines) if re.search(KINDS[kind][0], line) and "(" not in line]
        if not places:
            continue
        at = chance.choice(places)
        now = KINDS[kind][1](lines[at], chance)
        if now is None or now == lines[at]:
            continue
        changed = [*lines]
        if kind == "swapped":
            if at + 1 >= len(lines) or "(" in lines[at + 1]:
                continue
            changed[at], changed[at + 1] = lines[at + 1], lines[at]
        elif kind == "deleted":
            del changed[at]
        else:
            changed[at] = now
        made += 1
        harmful = KINDS[kind][2]
        if kind == "clamp lost":
            harmful = _clamp(lines[:at]) > _clamp([lines[at]])
        if kind == "spindle off":
            harmful = not any(re.search(r"M3\b", line) for line in lines[:at])
        yield Spoiled(kind, at + 1, lines[at], now, "\n".join(changed) + "\n", harmful)


def _clamp(lines: list[str]) -> float:
    """The last speed clamp; without one the spindle has none."""
    found = [float(match.group(1)) for line in lines if (match := re.search(r"G50 S(\d+)", line))]
    return found[-1] if found else float("inf")


def _digit(line: str, chance: random.Random) -> str:
    """A digit in front of the point, or the first behind it, of X or Z."""
    words = list(re.finditer(r"[XZ]-?(\d*)\.(\d)?", line))
    if not words:
        return line
    word = chance.choice(words)
    places = [n for n in range(word.start() + 1, word.end()) if line[n].isdigit()]
    if not places:
        return line
    at = chance.choice(places)
    return line[:at] + str((int(line[at]) + chance.randint(1, 9)) % 10) + line[at + 1 :]


def _sub(pattern: str, now: str, line: str) -> str | None:
    changed = re.sub(pattern, now, line, count=1)
    return changed if changed != line else None


def _times(letter: str, share: float, line: str) -> str | None:
    match = re.search(rf"{letter}(\d*\.?\d+)", line)
    if match is None:
        return None
    return line[: match.start()] + f"{letter}{float(match.group(1)) * share:.4f}".rstrip("0") + line[match.end() :]


KINDS = {
    "digit": (r"[XZ]-?\d*\.", _digit, None),
    "sign": (r"Z-\d", lambda line, chance: _sub(r"Z-", "Z", line), None),
    "deleted": (r"[XZ]-?\d", lambda line, chance: "", None),
    "swapped": (r"[XZ]-?\d", lambda line, chance: line + " ", None),
    "G1 to G0": (r"G1 ", lambda line, chance: _sub("G1 ", "G0 ", line), None),
    "G0 to G1": (r"G0 ", lambda line, chance: _sub("G0 ", "G1 ", line), None),
    "G2 and G3": (r"G[23] ", lambda line, chance: _sub("G2 ", "G3 ", line) or _sub("G3 ", "G2 ", line), None),
    "X lost": (r"X\S+ Z", lambda line, chance: _sub(r"X\S+ ", "", line), None),
    "Z lost": (r"X\S+ Z", lambda line, chance: _sub(r" Z\S+", "", line), None),
    "R changed": (r" R\d", lambda line, chance: _times("R", chance.choice((0.5, 1.5, 3.0)), line), None),
    "offset of another": (r"T\d\d\d\d", lambda line, chance: _other(line) if not line.endswith("00") else None, True),
    "tool of another": (r"T\d\d(?!00)\d\d", lambda line, chance: _next(line), True),
    "speed times ten": (r"G9[67] S", lambda line, chance: _times("S", 10.0, line), True),
    "clamp times ten": (r"G50 S", lambda line, chance: _times("S", 10.0, line), True),
    "clamp lost": (r"G50 S", lambda line, chance: "", True),
    "feed times ten": (r"F\d*\.\d", lambda line, chance: _times("F", 10.0, line), True),
    "per minute": (r"G99", lambda line, chance: _sub("G99", "G98", line), True),
    "reverse": (r"M3\b", lambda line, chance: _sub(r"M3\b", "M4", line), True),
    "spindle off": (r" M3\b", lambda line, chance: _sub(r" M3\b", "", line), True),
    "metres for turns": (r"G97", lambda line, chance: _sub("G97", "G96", line), True),
    "other datum": (r"G54", lambda line, chance: _sub("G54", "G55", line), True),
}
"""What is looked for, what is made of it, and whether it is harmful whatever the cut shows."""


def _other(line: str) -> str | None:
    """The offset of the next station."""
    match = re.search(r"T(\d\d)(\d\d)", line)
    return None if match is None else line[: match.start()] + f"T{match.group(1)}{int(match.group(2)) % 12 + 1:02d}"


def _next(line: str) -> str | None:
    match = re.search(r"T(\d\d)(\d\d)", line)
    if match is None:
        return None
    number = int(match.group(1)) % 12 + 1
    return line[: match.start()] + f"T{number:02d}{number:02d}"
