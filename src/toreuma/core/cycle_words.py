"""What cycles are told: the numbers behind their letters, by what they mean, and the forms in which they are written.

A form is the words of a cycle block by block, ``("U{depth} R{retract}", "P{first} Q{last} F{feed}")``.
"""

import re
from functools import lru_cache

__all__ = ["CYCLE_WORDS", "PLACES", "counts_steps", "letters_of", "told_by"]

CYCLE_WORDS = {
    "x": "diameter",
    "z": "along the axis",
    "bottom": "bottom",
    "above": "where it begins",
    "feed": "feed",
    "lead": "lead",
    "peck": "peck",
    "step": "step to the next",
    "lift": "lift after a peck",
    "aside": "aside at the bottom",
    "code": "springs, run-out and angle",
    "least": "least depth",
    "allowance": "finishing allowance",
    "height": "height of the thread",
    "first_depth": "first depth",
    "flank": "angle between the flanks",
    "infeed": "way of coming in",
    "phase": "angle at which it begins",
    "taper": "taper",
    "depth": "depth of a cut",
    "retract": "retract",
    "first": "first block of the contour",
    "last": "last block of the contour",
    "leave_across": "allowance on diameter",
    "leave_along": "allowance along Z",
    "out_across": "farthest out, on radius",
    "out_along": "farthest out along Z",
    "count": "how many times",
    "dwell": "dwell",
    "repeats": "how often",
}
"""Each meaning, and what a person calls it."""

PLACES = {"x": "X", "z": "Z", "bottom": "ZX", "feed": "F"}
"""Meanings whose letters are those of places and feeds everywhere in a program, and which these are."""

NUMBERS = ("allowance", "code", "count", "dwell", "flank", "infeed", "phase", "repeats")
"""Meanings whose whole numbers are no places without a point."""

_STEPS = ("peck", "step", "aside", "least", "height", "first_depth", "depth")
_WORD = re.compile(r"([A-Z])\{([a-z_]+)\}")


def told_by(word: str) -> str:
    """What a word of a form tells: ``U{depth}`` tells the depth. Empty for none."""
    match = _WORD.fullmatch(word)
    return match[2] if match is not None else ""


@lru_cache(maxsize=500)
def letters_of(form: tuple[str, ...]) -> tuple[dict[str, str], ...]:
    """Letters of each block of a form, and what each tells."""
    return tuple(dict(_WORD.findall(block)) for block in form)


def counts_steps(letter: str, what: str) -> bool:
    """Whether a number of a cycle counts smallest steps where it has no point."""
    return what == "allowance" or (letter in "PQD" and what in _STEPS)
