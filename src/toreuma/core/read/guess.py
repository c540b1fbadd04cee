"""What language and units a program is most likely in, and why: for text that nobody planned."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Literal

from toreuma.core.dialect import Dialect
from toreuma.core.read.words import Block, blocks_of

__all__ = ["Guess", "Reason", "guess"]

Units = Literal["mm", "inch"]

MOST_LOOKED_AT = 20_000
"""Blocks from the beginning; what they do not show the rest seldom does."""

PLACES = ("X", "Z", "U", "W")
SMALL_FEED = 0.03
"""Feeds per turn below this all through are inches."""

LARGE_STEPS = 1500.0
"""Whole numbers behind X or Z beyond this are counted in smallest steps."""


@dataclass(frozen=True, slots=True)
class Reason:
    """What speaks for it, and the line it stands in."""

    what: str
    line: int


@dataclass(frozen=True, kw_only=True)
class Guess:
    """The dialect and its reasons; units and theirs, None where the program says them; what whole numbers mean."""

    dialect: str
    because: tuple[Reason, ...]
    units: Units | None
    units_because: tuple[Reason, ...]
    whole_numbers: Literal["unsaid", "units", "steps"]
    whole_because: tuple[Reason, ...] = ()

    @property
    def reasons(self) -> tuple[Reason, ...]:
        """All of them, in order: for the dialect, units the program does not say, and whole numbers."""
        return (*self.because, *(self.units_because if self.units is not None else ()), *self.whole_because)

    def applied(self, dialect: Dialect) -> Dialect:
        """The dialect as this program speaks it."""
        changes: dict[str, object] = {}
        if self.whole_numbers != "unsaid" and dialect.whole_numbers == "unsaid":
            changes["whole_numbers"] = self.whole_numbers
        return dialect.model_copy(update=changes) if changes else dialect


class _Seen:
    """Words of a text and the lines they first stand in."""

    def __init__(self, blocks: Sequence[Block]) -> None:
        self.blocks = blocks
        self.g: dict[float, int] = {}
        for block in blocks:
            for letter, number in block.words:
                if letter == "G":
                    self.g.setdefault(number, block.line)

    def with_letters(self, number: float, letters: str, without: str = "") -> int | None:
        """The first line where a G word stands with all of some letters and none of others."""
        for block in self.blocks:
            said = block.said.last
            has = all(letter in said for letter in letters) and not any(letter in said for letter in without)
            if has and any(word == ("G", number) for word in block.words):
                return block.line
        return None

    def way(self, letter: str) -> int | None:
        """The first line where a letter is a way, and no allowance of a cycle that every system has."""
        cycles = {("G", number) for number in (71.0, 72.0, 73.0, 74.0, 10.0)}
        return next((one.line for one in self.blocks if letter in one.said.last and not cycles & set(one.words)), None)

    def letter(self, letter: str) -> int | None:
        return next((block.line for block in self.blocks if letter in block.said.last), None)


def guess(text: str, dialect: Dialect) -> Guess:
    """Look at a text as words alone; ``dialect`` is any whose comments are written as the text's are."""
    seen = _Seen(list(islice(blocks_of(text, dialect), MOST_LOOKED_AT)))
    name, because = _system(seen)
    units, units_because = _units(seen, name)
    whole, whole_because = _whole(seen, units or _said_units(seen, name))
    return Guess(
        dialect=name,
        because=tuple(because),
        units=units,
        units_because=tuple(units_because),
        whole_numbers=whole,
        whole_because=tuple(whole_because),
    )


def _system(seen: _Seen) -> tuple[str, list[Reason]]:
    for_a, for_b, for_c, for_iso = _for_a(seen), _for_b(seen), _for_c(seen), _for_iso(seen)
    if len(for_iso) >= 2 or (for_iso and not for_a):
        return "iso", [*for_iso, *for_b]
    if for_c and not for_a:
        return "system-c", [*for_c, *for_b]
    if for_b and len(for_b) > len(for_a):
        return "system-b", for_b
    return "system-a", for_a or [Reason("nothing in it speaks for another one", 1)]


def _reasons(*pairs: tuple[int | None, str]) -> list[Reason]:
    return [Reason(what, line) for line, what in pairs if line is not None]


def _for_a(seen: _Seen) -> list[Reason]:
    return _reasons(
        (seen.g.get(99) if 95 not in seen.g and 94 not in seen.g else None, "G99, a feed per turn"),
        (seen.g.get(98) if 95 not in seen.g and 94 not in seen.g else None, "G98, a feed per minute"),
        (seen.with_letters(50, "S"), "G50 with S, a clamp"),
        (seen.with_letters(92, "XF") or seen.with_letters(92, "ZF"), "G92 with a lead, a thread"),
        (
            seen.with_letters(90, "XZ", "ABCY") if 91 not in seen.g and 95 not in seen.g else None,
            "G90 with X and Z, a pass",
        ),
        (seen.way("U") if 91 not in seen.g else None, "U, a way along X"),
        (seen.way("W") if 91 not in seen.g else None, "W, a way along Z"),
    )


def _for_b(seen: _Seen) -> list[Reason]:
    return _reasons(
        (seen.g.get(95), "G95, a feed per turn"),
        (seen.g.get(94) if 95 in seen.g or seen.with_letters(94, "XZ") is None else None, "G94, a feed per minute"),
        (seen.with_letters(92, "S"), "G92 with S, a clamp"),
        (seen.g.get(91), "G91, distances"),
        (seen.with_letters(78, "XF"), "G78 with a lead, a thread"),
        (seen.with_letters(77, "XZ", "PQR"), "G77 with X and Z, a pass"),
    )


def _for_c(seen: _Seen) -> list[Reason]:
    return _reasons(
        (seen.with_letters(71, "", "PQUXZD"), "G71 alone, millimetres"),
        (seen.with_letters(70, "", "PQXZ"), "G70 alone, inches"),
        (seen.with_letters(21, "XZF") or seen.with_letters(21, "XF"), "G21 with a lead, a thread"),
        (seen.with_letters(20, "XZF"), "G20 with X and Z, a pass"),
    )


_CHANGE = re.compile(r"T\s*0*\d{1,2}\s*(D\s*\d+|M\s*0*6(?!\d))", re.I)


def _for_iso(seen: _Seen) -> list[Reason]:
    change = next((block.line for block in seen.blocks if _CHANGE.search(block.text.split("(")[0])), None)
    return _reasons(
        (change, "T with D or M6, a tool and its offset"),
        (seen.letter("D") if change is not None else None, "D, an offset"),
        (seen.g.get(74) if seen.with_letters(74, "", "FRQPK") else None, "G74 without a feed, the reference point"),
    )


def _said_units(seen: _Seen, system: str) -> Units:
    inch = 70.0 if system in ("iso", "system-c") else 20.0
    return "inch" if inch in seen.g else "mm"


def _units(seen: _Seen, system: str) -> tuple[Units | None, list[Reason]]:
    """Units that the program does not say, by how large its numbers are."""
    inch, mm = (70.0, 71.0) if system in ("iso", "system-c") else (20.0, 21.0)
    if inch in seen.g or (mm in seen.g and (system != "system-c" or seen.with_letters(71, "", "PQUXZ") is not None)):
        return None, []
    feeds = [(block.value("F") or 0.0, block.line) for block in seen.blocks
             if "F" in block.said.last and not any(word == ("G", 4.0) for word in block.words)]  # fmt: skip
    cuts = [one for one in feeds if 0 < one[0] < 1.0]
    if cuts and max(one[0] for one in cuts) <= SMALL_FEED:
        largest = max(cuts)
        return "inch", [Reason(f"no feed is larger than F{largest[0]:g}", largest[1])]
    if cuts:
        largest = max(cuts)
        return "mm", [Reason(f"feeds go up to F{largest[0]:g}", largest[1])]
    return "mm", [Reason("nothing in it speaks for inches", 1)]


def _whole(seen: _Seen, units: Units) -> tuple[Literal["unsaid", "units", "steps"], list[Reason]]:
    """What places without a point mean: by their size, where they are the rule."""
    whole, pointed = [], 0
    for block in seen.blocks:
        for letter in PLACES:
            if letter in block.said.whole:
                whole.append((abs(block.value(letter) or 0.0), letter, block.line))
            elif block.value(letter):
                pointed += 1
    if not whole:
        return "unsaid", []
    largest, letter, line = max(whole)
    if largest >= LARGE_STEPS * (1 if units == "mm" else 4):
        return "steps", [Reason(f"{letter}{largest:g} would be out of every lathe's reach: smallest steps", line)]
    if len(whole) > pointed and largest >= 2:
        return "units", [Reason(f"places without a point are the rule, up to {letter}{largest:g}: whole {units}", line)]
    return "unsaid", []
