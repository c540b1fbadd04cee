"""Cycles that a control makes of one or two blocks, from their words to moves.

Word meanings of lathe controls with G-code systems A to C, in their form of two blocks and in that of one.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from toreuma.core.control_cycles import (
    Made,
    faced_pass,
    follow,
    groove_pecks,
    pattern_passes,
    rough_passes,
    rough_pockets,
    thread_depths,
    thread_passes,
    threaded_pass,
    turned_pass,
)
from toreuma.core.geometry.elements import Point, Segment
from toreuma.core.read.words import Block

__all__ = ["BOXES", "FOLLOWING", "MOST_PASSES", "MULTIPLE", "CycleError", "Words", "falls", "has_point"]

SAME_MM = 2e-3
MOST_PASSES, MOST_PECKS = 1000, 20_000
"""A cycle that would make more is a slip of the keys."""


class CycleError(ValueError):
    """What is wrong with a cycle, in words."""


def has_point(block: Block, letter: str) -> bool:
    """Whether the number behind a letter is written with a point; one that is computed counts as if it were."""
    if any(block.words[n][0] == letter for n, _ in block.said.computed):
        return True
    text = block.text.upper()
    rest = text[text.rfind(letter) + 1 :].lstrip()
    number = rest[: next((n for n, c in enumerate(rest) if c not in "+-.0123456789 "), len(rest))]
    return "." in number or rest[:1] in ("#", "[")


@dataclass(frozen=True, kw_only=True)
class Words:
    """The words of a cycle: its first block where it has two, its last, and the contour between P and Q.

    ``scale`` is mm for the program's unit, ``across`` mm on radius for a number of X, ``fine`` mm for a whole number.
    ``lift_mm``: so far the control draws back where the cycle does not say. ``pockets``: the contour's first block says
    that it may fall and rise. What is obeyed is put into ``used``.
    """

    first: Block | None
    block: Block
    at: Point
    target: Point
    scale: float
    across: float
    fine: float
    feed: float
    lift_mm: float
    contour: tuple[Segment, ...] = ()
    pockets: bool = False
    used: set[str]

    def given(self, letter: str, first: bool = False) -> bool:
        block = self.first if first else self.block
        return block is not None and block.value(letter) is not None

    def of(self, letter: str, unit: float, first: bool = False) -> float:
        """A number in mm; 0 where it is not given."""
        block = self.first if first else self.block
        value = block.value(letter) if block is not None else None
        if not first:
            self.used.add(letter)
        return (value or 0.0) * unit

    def measure(self, letter: str, first: bool = False) -> float:
        """The same of a letter that counts smallest steps where its number has no point."""
        block = self.first if first else self.block
        pointed = block is not None and self.given(letter, first) and has_point(block, letter)
        return self.of(letter, self.scale if pointed else self.fine, first)

    def positive(self, letter: str, unit: float, first: bool = False) -> float:
        value = self.of(letter, unit, first)
        if value <= 0:
            raise CycleError(f"the cycle needs a positive {letter}")
        return value


def falls(contour: Sequence[Segment], facing: bool) -> bool:
    """The contour goes back on its way, which a roughing cycle cannot follow."""
    axis = 0 if facing else 1
    levels = [contour[0].start[axis], *(segment.end[axis] for segment in contour)]
    out = 1.0 if levels[-1] >= levels[0] else -1.0
    return any((b - a) * out < -SAME_MM for a, b in pairwise(levels))


def _turns_back(contour: Sequence[Segment], facing: bool) -> bool:
    along = 1 if facing else 0
    places = [contour[0].start[along], *(segment.end[along] for segment in contour)]
    way = 1.0 if places[-1] >= places[0] else -1.0
    return any((b - a) * way < -SAME_MM for a, b in pairwise(places))


def _rough(words: Words, facing: bool) -> list[Made]:
    if falls(words.contour, facing) and not words.pockets:
        raise CycleError("the contour goes back on its way: the cycle stops there")
    if _turns_back(words.contour, facing):
        raise CycleError("the contour turns back along its length: the cycle stops there")
    if words.given("D"):  # of one block
        depth, retract = abs(words.measure("D")), words.lift_mm
    elif words.first is not None and words.given("W" if facing else "U", first=True):
        depth = words.positive("W" if facing else "U", words.scale, first=True)
        retract = words.of("R", words.scale, first=True)
    else:
        raise CycleError("its depth of cut is not said: it stands in a block of its own before, or behind D")
    axis = 0 if facing else 1
    if depth <= 0 or max(abs(words.at[axis] - segment.end[axis]) for segment in words.contour) / depth > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("U", words.across), words.of("W", words.scale)
    made = rough_pockets if words.pockets and falls(words.contour, facing) else rough_passes
    return made(words.at, words.contour, depth, retract, leave_z, leave_r, facing)


def _pattern(words: Words) -> list[Made]:
    if words.given("D"):  # of one block
        out_r, out_z = words.of("I", words.scale), words.of("K", words.scale)
        count = math.floor(words.positive("D", 1.0) + 0.5)
    else:
        out_r, out_z = words.of("U", words.scale, first=True), words.of("W", words.scale, first=True)
        count = math.floor(words.positive("R", 1.0, first=True) + 0.5)
    if count > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("U", words.across), words.of("W", words.scale)
    return pattern_passes(words.at, words.contour, out_z, out_r, count, leave_z, leave_r)


def _finish(words: Words) -> list[Made]:
    return follow(words.at, words.contour)


def _pecks(words: Words, facing: bool) -> list[Made]:
    if words.given("I") or words.given("K") or words.given("D"):  # of one block
        deep, wide = ("K", "I") if facing else ("I", "K")
        peck, step = abs(words.of(deep, words.scale)), abs(words.of(wide, words.scale))
        lift, aside = words.lift_mm, abs(words.measure("D"))
    else:
        deep, wide = ("Q", "P") if facing else ("P", "Q")
        peck, step = abs(words.measure(deep)), abs(words.measure(wide))
        lift, aside = words.of("R", words.scale, first=True), abs(words.of("R", words.scale))
        if words.first is None:
            lift = words.lift_mm
    axis = 1 if facing else 0
    if step <= 0 and abs(words.target[axis] - words.at[axis]) > SAME_MM:
        raise CycleError(f"the cycle needs a positive {wide}")
    plunges = abs(words.target[axis] - words.at[axis]) / step if step > 0 else 1.0
    if 0 < peck < SAME_MM:
        raise CycleError(f"the cycle needs a larger {deep}")
    pecks = abs(words.target[1 - axis] - words.at[1 - axis]) / peck if peck > 0 else 1.0
    if max(plunges, 1.0) * max(pecks, 1.0) > MOST_PECKS:
        raise CycleError(f"it would plunge more than {MOST_PECKS} times")
    return groove_pecks(words.at, words.target, peck, step, lift, facing, aside)


def _thread(words: Words) -> list[Made]:
    if words.given("K") or words.given("D"):  # of one block
        height, depth = words.positive("K", words.scale), abs(words.measure("D"))
        flank, taper = words.of("A", 1.0), words.of("I", words.scale)
        springs, tenths, least, allowance = 1, 0, 0.0, 0.0
        words.of("P", 1.0)
    else:
        code = round(words.of("P", 1.0, first=True))
        if words.first is None or not 0 <= code <= 999_999:
            raise CycleError("its first block with the P of six digits is missing")
        springs, tenths, flank = code // 10000, code // 100 % 100, float(code % 100)
        least, allowance = words.measure("Q", first=True), words.measure("R", first=True)
        height, depth, taper = words.measure("P"), words.measure("Q"), words.of("R", words.scale)
    for letter, number in (("P", height), ("Q", depth)):
        if number <= 0:
            raise CycleError(f"the cycle needs a positive {letter}")
    if tenths / 10 * words.feed > abs(words.at[0] - words.target[0]):
        raise CycleError("it would run out over more than its length")
    depths = thread_depths(height, depth, least, allowance, springs)
    if len(depths) >= MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    return thread_passes(words.at, words.target, height, depths, flank, tenths / 10 * words.feed, taper)


MULTIPLE: dict[str, Callable[[Words], list[Made]]] = {
    "rough_cycle": lambda words: _rough(words, facing=False),
    "rough_face_cycle": lambda words: _rough(words, facing=True),
    "pattern_cycle": _pattern,
    "finish_cycle": _finish,
    "face_peck_cycle": lambda words: _pecks(words, facing=True),
    "groove_cycle": lambda words: _pecks(words, facing=False),
    "whole_thread_cycle": _thread,
}
"""Cycles of one or two blocks of their own."""

FOLLOWING = ("rough_cycle", "rough_face_cycle", "pattern_cycle", "finish_cycle")
"""Those that follow a contour between two block numbers."""

BOXES: dict[str, Callable[..., list[Made]]] = {
    "turn_cycle": turned_pass,
    "face_cycle": faced_pass,
    "thread_cycle": threaded_pass,
}
"""Cycles of one pass that stay in force from block to block."""
