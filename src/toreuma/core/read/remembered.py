"""A stretch of blocks read before: what came of it is taken again where nothing it depends on has changed."""

from collections.abc import Hashable, Sequence, Set
from dataclasses import dataclass, replace

from toreuma.core.motion import Motion
from toreuma.core.read.cycles import MULTIPLE
from toreuma.core.read.state import Mark, Section, State
from toreuma.core.read.words import Block

__all__ = ["REACHING", "ReadStretch", "stands_alone", "stretch_key"]

REACHING = frozenset(("call", "return", "end", *MULTIPLE))
"""What makes a stretch depend on more than its own blocks: other programs, and contours between block numbers."""


@dataclass(frozen=True, kw_only=True)
class ReadStretch:
    """What reading a stretch gave: moves and sections, block numbers, what is in force behind it, and marks, counted
    from its own first move.

    ``line`` and ``section`` are those it began at; taking it elsewhere shifts them.
    """

    line: int
    section: int
    motions: tuple[Motion, ...]
    sections: tuple[Section, ...]
    numbers: tuple[tuple[int, int] | None, ...]
    state: State
    marks: tuple[Mark, ...] = ()

    def at(self, line: int, section: int) -> "ReadStretch":
        """The same where the stretch begins at another line or section of the program."""
        down, on = line - self.line, section - self.section
        if not down and not on:
            return self
        motions = [replace(one, line=one.line + down, section=one.section + on) for one in self.motions]
        sections = [replace(one, line=one.line + down) for one in self.sections]
        numbers = [one and (one[0], one[1] + down) for one in self.numbers]
        after = self.state.copy()
        after.section += on
        after.offset_line += down
        marks = tuple(replace(one, line=one.line + down) for one in self.marks)
        return ReadStretch(
            line=line,
            section=section,
            motions=tuple(motions),
            sections=tuple(sections),
            numbers=tuple(numbers),
            state=after,
            marks=marks,
        )


def stretch_key(blocks: Sequence[Block], state: State) -> Hashable:
    """All that reading a stretch depends on, but for where in the program it stands."""
    return tuple(block.text for block in blocks), state.key()


def stands_alone(blocks: Sequence[Block], reaching: Set[tuple[str, float]]) -> bool:
    """Whether what the blocks do follows from them alone. ``reaching``: the words whose meaning is in `REACHING`."""
    return not any(word in reaching or word[0] == "O" for block in blocks for word in block.words)
