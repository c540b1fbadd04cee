"""What the blocks of a cycle tell, by what it means: their letters are the dialect's."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from toreuma.core.cycle_words import NUMBERS, counts_steps, letters_of
from toreuma.core.read.words import Block

__all__ = ["Told", "counted_in", "has_point", "is_first"]

Form = tuple[str, ...]


def has_point(block: Block, letter: str) -> bool:
    """Whether the number behind a letter is written with a point; one that is computed counts as if it were."""
    if any(block.words[n][0] == letter for n, _ in block.said.computed):
        return True
    text = block.text.upper()
    rest = text[text.rfind(letter) + 1 :].lstrip()
    number = rest[: next((n for n, c in enumerate(rest) if c not in "+-.0123456789 "), len(rest))]
    return "." in number or rest[:1] in ("#", "[")


def is_first(forms: Sequence[Form], block: Block, ways: Sequence[str]) -> bool:
    """Whether a block is the first of two: it names neither a place nor a contour. ``ways`` are letters of ways."""
    said = block.said.last
    ends = {letter for form in forms for letter, what in letters_of(form)[-1].items() if what in ENDS}
    follows = any(what in ("first", "last") for form in forms for what in letters_of(form)[-1].values())
    return ends.isdisjoint(said) and (follows or set(ways).isdisjoint(said))


ENDS = ("x", "z", "bottom", "first", "last")
"""What only the last block of a cycle tells."""


def counted_in(forms: Sequence[Form], block: Block) -> set[str]:
    """Letters of a cycle's block whose whole numbers are no places."""
    first = any(len(form) > 1 for form in forms) and is_first(forms, block, ())
    blocks = [letters_of(form)[0 if first else -1] for form in forms if len(form) > 1 or not first]
    return {letter for one in blocks for letter, what in one.items() if what in NUMBERS}


@dataclass(frozen=True, kw_only=True)
class Told:
    """The last block of a cycle and the first where it has two, in that form of the dialect which knows most of them.

    ``scale`` is mm for the program's unit, ``across`` mm on radius for a number of X, ``fine`` mm for a whole number.
    What is obeyed is put into ``used``.
    """

    forms: Sequence[Form]
    first: Block | None
    block: Block
    scale: float
    across: float
    fine: float
    used: set[str]
    letters: tuple[dict[str, str], ...] = field(init=False)

    def __post_init__(self) -> None:
        said = self.block.said.last
        known = [letters_of(form) for form in self.forms]
        object.__setattr__(self, "letters", max(known, key=lambda one: len(one[-1].keys() & said), default=({},)))

    @property
    def has_two(self) -> bool:
        """The form has two blocks, and the first was there."""
        return len(self.letters) > 1 and self.first is not None

    def letter(self, what: str) -> str:
        """The letter that tells something in this form."""
        return next((letter for one in self.letters for letter, each in one.items() if each == what), "")

    def given(self, what: str) -> bool:
        return self._number(what) is not None

    def of(self, what: str) -> float:
        """A number, lengths in mm and on radius; 0 where it is not told."""
        found = self._number(what)
        if found is None:
            return 0.0
        number, block, letter = found
        if block is self.block:
            self.used.add(letter)
        if what in ("code", "count", "flank", "infeed", "phase", "dwell", "repeats"):
            return number
        if what == "leave_across":
            return number * self.across
        if counts_steps(letter, what) and not has_point(block, letter):
            return number * self.fine
        return number * self.scale

    def _number(self, what: str) -> tuple[float, Block, str] | None:
        """The number, the block and the letter that tell something; the last word of a letter counts."""
        blocks = (self.first, self.block) if len(self.letters) > 1 else (self.block,)
        for block, letters in zip(blocks, self.letters, strict=True):
            for letter, each in letters.items():
                if each == what and block is not None and (number := block.value(letter)) is not None:
                    return number, block, letter
        return None
