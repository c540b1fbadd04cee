"""Cycles of system A that a control makes of one or two blocks, from their words to moves."""

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
    thread_depths,
    thread_passes,
    threaded_pass,
    turned_pass,
)
from toreuma.core.geometry.elements import Point, Segment
from toreuma.core.read.words import Block

__all__ = ["BOXES", "FOLLOWING", "MOST_PASSES", "MULTIPLE", "CycleError", "Words", "falls"]

SAME_MM = 2e-3
MOST_PASSES, MOST_PECKS = 1000, 20_000
"""A cycle that would make more is a slip of the keys."""


class CycleError(ValueError):
    """What is wrong with a cycle, in words."""


@dataclass(frozen=True, kw_only=True)
class Words:
    """The words of a cycle: its first block where it has two, its last, and the contour between P and Q.

    ``scale`` is mm for the program's unit, ``across`` mm on radius for a number of X, ``fine`` mm for a whole number.
    """

    first: Block | None
    block: Block
    at: Point
    target: Point
    scale: float
    across: float
    fine: float
    feed: float
    contour: tuple[Segment, ...] = ()

    def of(self, letter: str, unit: float, first: bool = False) -> float:
        """A number in mm; 0 where it is not given."""
        block = self.first if first else self.block
        value = block.value(letter) if block is not None else None
        return (value or 0.0) * unit

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


def _rough(words: Words, facing: bool) -> list[Made]:
    if falls(words.contour, facing):
        raise CycleError("the contour goes back on its way: the cycle stops there")
    depth = words.positive("W" if facing else "U", words.scale, first=True)
    retract = words.of("R", words.scale, first=True)
    axis = 0 if facing else 1
    if max(abs(words.at[axis] - segment.end[axis]) for segment in words.contour) / depth > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("U", words.across), words.of("W", words.scale)
    return rough_passes(words.at, words.contour, depth, retract, leave_z, leave_r, facing)


def _pattern(words: Words) -> list[Made]:
    out_r, out_z = words.of("U", words.scale, first=True), words.of("W", words.scale, first=True)
    count = math.floor(words.positive("R", 1.0, first=True) + 0.5)
    if count > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("U", words.across), words.of("W", words.scale)
    return pattern_passes(words.at, words.contour, out_z, out_r, count, leave_z, leave_r)


def _finish(words: Words) -> list[Made]:
    return follow(words.at, words.contour)


def _pecks(words: Words, facing: bool) -> list[Made]:
    deep, wide = ("Q", "P") if facing else ("P", "Q")
    lift = words.of("R", words.scale, first=True)
    peck, step = words.of(deep, words.fine), words.of(wide, words.fine)
    axis = 1 if facing else 0
    if step <= 0 and abs(words.target[axis] - words.at[axis]) > SAME_MM:
        raise CycleError(f"the cycle needs a positive {wide}")
    plunges = abs(words.target[axis] - words.at[axis]) / step if step > 0 else 1.0
    if 0 < peck < SAME_MM:
        raise CycleError(f"the cycle needs a larger {deep}")
    pecks = abs(words.target[1 - axis] - words.at[1 - axis]) / peck if peck > 0 else 1.0
    if max(plunges, 1.0) * max(pecks, 1.0) > MOST_PECKS:
        raise CycleError(f"it would plunge more than {MOST_PECKS} times")
    return groove_pecks(words.at, words.target, peck, step, lift, facing)


def _thread(words: Words) -> list[Made]:
    code = round(words.of("P", 1.0, first=True))
    if not 0 <= code <= 999_999:
        raise CycleError("its P is no six digits")
    springs, tenths, flank = code // 10000, code // 100 % 100, float(code % 100)
    least, allowance = words.of("Q", words.fine, first=True), words.of("R", words.scale, first=True)
    height, depth = words.positive("P", words.fine), words.positive("Q", words.fine)
    if abs(words.of("R", words.scale)) > SAME_MM:
        raise CycleError("a taper thread in this cycle is not read")
    depths = thread_depths(height, depth, least, allowance, springs)
    if len(depths) >= MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    return thread_passes(words.at, words.target, height, depths, flank, tenths / 10 * words.feed)


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

BOXES: dict[str, Callable[[Point, float, float, float], list[Made]]] = {
    "turn_cycle": turned_pass,
    "face_cycle": faced_pass,
    "thread_cycle": threaded_pass,
}
"""Cycles of one pass that stay in force from block to block."""
