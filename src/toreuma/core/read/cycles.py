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
from toreuma.core.read.told import Told

__all__ = ["BOXES", "FOLLOWING", "MOST_PASSES", "MULTIPLE", "CycleError", "Words", "falls"]

SAME_MM = 2e-3
MOST_PASSES, MOST_PECKS = 1000, 20_000
"""A cycle that would make more is a slip of the keys."""


class CycleError(ValueError):
    """What is wrong with a cycle, in words."""


@dataclass(frozen=True, kw_only=True)
class Words:
    """A cycle: what its blocks tell, where it begins and ends, and the contour between two block numbers.

    ``lift_mm``: so far the control draws back where the cycle does not say. ``pockets``: the contour's first block says
    that it may fall and rise.
    """

    told: Told
    at: Point
    target: Point
    feed: float
    lift_mm: float
    contour: tuple[Segment, ...] = ()
    pockets: bool = False

    def given(self, what: str) -> bool:
        return self.told.given(what)

    def of(self, what: str) -> float:
        return self.told.of(what)

    def positive(self, what: str) -> float:
        value = self.of(what)
        if value <= 0:
            raise CycleError(f"the cycle needs a positive {self.told.letter(what)}")
        return value

    def told_or(self, what: str, otherwise: float) -> float:
        """A number, or another one where the form of the cycle has no room for it."""
        return self.of(what) if self.given(what) or self.told.has_two else otherwise


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
    if not words.given("depth"):
        raise CycleError("its depth of cut is not said: it stands in a block of its own before, or behind D")
    depth = abs(words.of("depth")) if not words.told.has_two else words.positive("depth")
    retract = words.told_or("retract", words.lift_mm)
    axis = 0 if facing else 1
    if depth <= 0 or max(abs(words.at[axis] - segment.end[axis]) for segment in words.contour) / depth > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("leave_across"), words.of("leave_along")
    made = rough_pockets if words.pockets and falls(words.contour, facing) else rough_passes
    return made(words.at, words.contour, depth, retract, leave_z, leave_r, facing)


def _pattern(words: Words) -> list[Made]:
    out_r, out_z = words.of("out_across"), words.of("out_along")
    count = math.floor(words.positive("count") + 0.5)
    if count > MOST_PASSES:
        raise CycleError(f"it would make more than {MOST_PASSES} passes")
    leave_r, leave_z = words.of("leave_across"), words.of("leave_along")
    return pattern_passes(words.at, words.contour, out_z, out_r, count, leave_z, leave_r)


def _finish(words: Words) -> list[Made]:
    return follow(words.at, words.contour)


def _pecks(words: Words, facing: bool) -> list[Made]:
    peck, step, aside = abs(words.of("peck")), abs(words.of("step")), abs(words.of("aside"))
    lift = words.told_or("lift", words.lift_mm)
    axis = 1 if facing else 0
    if step <= 0 and abs(words.target[axis] - words.at[axis]) > SAME_MM:
        raise CycleError(f"the cycle needs a positive {words.told.letter('step')}")
    plunges = abs(words.target[axis] - words.at[axis]) / step if step > 0 else 1.0
    if 0 < peck < SAME_MM:
        raise CycleError(f"the cycle needs a larger {words.told.letter('peck')}")
    pecks = abs(words.target[1 - axis] - words.at[1 - axis]) / peck if peck > 0 else 1.0
    if max(plunges, 1.0) * max(pecks, 1.0) > MOST_PECKS:
        raise CycleError(f"it would plunge more than {MOST_PECKS} times")
    return groove_pecks(words.at, words.target, peck, step, lift, facing, aside)


def _thread(words: Words) -> list[Made]:
    springs, tenths, flank = 1, 0, words.of("flank")
    if any(what == "code" for letters in words.told.letters for what in letters.values()):
        code = round(words.of("code"))
        if not words.told.has_two or not 0 <= code <= 999_999:
            raise CycleError("its first block with the P of six digits is missing")
        springs, tenths, flank = code // 10000, code // 100 % 100, float(code % 100)
    words.of("infeed")
    height, depth, taper = words.of("height"), abs(words.of("first_depth")), words.of("taper")
    least, allowance = words.of("least"), words.of("allowance")
    for what, number in (("height", height), ("first_depth", depth)):
        if number <= 0:
            raise CycleError(f"the cycle needs a positive {words.told.letter(what)}")
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
