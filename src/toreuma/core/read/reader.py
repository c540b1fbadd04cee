"""Reads program text into moves, block by block, knowing only the dialect."""

from collections import Counter
from collections.abc import Mapping
from dataclasses import replace

from toreuma.core.dialect import Dialect
from toreuma.core.geometry.elements import Point
from toreuma.core.memo import Memo
from toreuma.core.read.language import other_language
from toreuma.core.read.obeying import Obeying
from toreuma.core.read.remembered import ReadStretch, stands_alone, stretch_key
from toreuma.core.read.sense import suspicious
from toreuma.core.read.state import Given, Program, Section
from toreuma.core.read.words import MAX_LINES, Block, blocks_of

__all__ = ["Program", "Section", "read"]

MOST_BLOCKS, MOST_MOVES, MOST_AGAIN = 2_000_000, 2_000_000, 60_000
"""So many blocks are run in all, and so many of them again."""


EVEN, EVEN_BY_HAND = 0.8, 0.95
"""Share of block numbers that rise evenly where a gap means something."""


def read(
    text: str,
    dialect: Dialect,
    reference: Point | None,
    memo: Memo | None = None,
    *,
    machine: Mapping[str, str] | None = None,
    given: Given | None = None,
    second_reference: Point | None = None,
    first_line: int = 1,
    watched: bool = False,
) -> Program:
    """Read a program. ``reference`` is the turret's reference point (z, r) in mm, where the tool starts; None where no
    machine is known. ``machine`` has the words that only the machine's builder gives a meaning; None: no machine is
    known, and such words are asked about. ``given`` is what somebody knows besides.

    Nothing raises: what cannot be understood becomes an error finding with its line. Operations whose text and
    start are the same as in a program read with the same ``memo`` before are not read again. ``second_reference`` is
    where tools start as the second spindle sees it; lines are counted from ``first_line``; with ``watched`` every
    change of what is in force is kept.
    """
    blocks = list(blocks_of(text, dialect, first_line))
    foreign = other_language(blocks)
    reader = _Reader(dialect, reference, [] if foreign else blocks, memo, machine, given or Given(), watched)
    if foreign:
        reader.refuse(foreign, first_line)
    if second_reference is not None:
        reader.second_at(second_reference)
    reader.run()
    return reader.program(text)


class _Reader(Obeying):
    """Goes through the blocks in order, and gives what came of them."""

    def __init__(
        self,
        dialect: Dialect,
        reference: Point | None,
        blocks: list[Block],
        memo: Memo | None,
        machine: Mapping[str, str] | None,
        given: Given,
        watched: bool,
    ) -> None:
        super().__init__(dialect, reference, machine, given)
        self._memo, self._watched = (None if watched else memo), watched
        self._blocks = blocks
        self._next = 0
        self._lay_out()
        self._prepare()
        self._language = (dialect.model_dump_json(), str(machine), str(given)) if memo is not None else ""

    _refused = False

    def second_at(self, reference: Point) -> None:
        """Where tools start as the second spindle sees it."""
        self._second_reference = reference

    def refuse(self, what: str, line: int) -> None:
        """The text is not read at all."""
        self._refused = True
        self._say("error", "program.language", line, what, "nothing of it was read")

    def run(self) -> None:
        """Obey the blocks in order, up to where another program begins."""
        begun, obeyed = False, 0
        begin, end = self._between_marks()
        self._next = self._main_from(begin, end)
        while self._next < (len(self._blocks) if self._frames else end):
            block = self._blocks[self._next]
            obeyed += 1
            if obeyed > MOST_BLOCKS or len(self._motions) > MOST_MOVES or obeyed > len(self._blocks) + MOST_AGAIN:
                what = f"more than {MOST_MOVES if obeyed <= MOST_BLOCKS else MOST_BLOCKS} moves or blocks are run"
                self._say("error", "program.endless", block.line, what, "what comes after this line is not read")
                self._state.ended = True
                break
            if "O" in block.said.last:
                if self._frames:
                    self._say(
                        "error",
                        "program.call",
                        block.line,
                        "a program that was called ends without a return",
                        "the control runs on, or stops",
                    )
                    break
                if begun:
                    break
                begun = True
            if self._memo is None or self._frames or not self._opens(block) or not self._through(self._memo):
                self._next += 1
                self.block(block)
                if self._watched:
                    self._watch(obeyed, block.line)
        self._end()

    def _main_from(self, begin: int, end: int) -> int:
        """Where the program begins that is run: the first one, unless it returns and a later one ends."""
        inside = [one for one in self._ranges if begin <= one[0] and one[1] <= end] or [(begin, end)]
        if len(inside) < 2 or not self._somewhere:
            return begin

        def has(one: tuple[int, int], names: tuple[str, ...]) -> bool:
            words = (word for block in self._blocks[one[0] : one[1]] for word in block.words if word[0] == "M")
            return any(self._named_word(word) in names for word in words)

        titled = [one for one in inside if "O" in self._blocks[one[0]].said.last]
        first = titled[0] if titled else inside[0]
        if has(first, ("end", "end_again")) or not has(first, ("return",)):
            return begin
        return next((one[0] for one in titled[1:] if has(one, ("end", "end_again"))), begin)

    def _between_marks(self) -> tuple[int, int]:
        """What stands before the first tape mark and behind the last one is no program."""
        marks = [n for n, block in enumerate(self._blocks) if block.text.startswith("%")]
        if not marks or self._dialect.tape_marks is False:
            return 0, len(self._blocks)
        solid = [n for n, block in enumerate(self._blocks) if block.text]
        if len(marks) == 1:
            ahead = sum(n < marks[0] for n in solid)
            if ahead > sum(n > marks[0] for n in solid):
                return 0, marks[0]
            return marks[0], len(self._blocks)
        return marks[0], marks[-1]

    def _end(self) -> None:
        """What is left open where the text ends."""
        state = self._state
        line = self._blocks[min(self._next, len(self._blocks)) - 1].line if self._blocks else 1
        self._corner_left(line)
        if state.side or self._leaving:
            self._say(
                "warning",
                "side.left_on",
                line,
                "compensation is still on where the program ends",
                "switch it off with a move away from the part",
            )
            self._off_contour()

    def _opens(self, block: Block) -> bool:
        """Whether an operation begins here."""
        return any(self._section.fullmatch(comment) for comment in block.comments)

    def _through(self, memo: Memo) -> bool:
        """The blocks of one operation, read or taken as they were read before; False where they reach beyond it."""
        if self._corner is not None or self._angle_open is not None or self._side_from is not None or self._leaving:
            return False
        begin, section = self._next, len(self._sections)
        after = range(begin + 1, len(self._blocks))
        blocks = self._blocks[begin : next((n for n in after if self._opens(self._blocks[n])), len(self._blocks))]
        made = False

        def read_it() -> ReadStretch | None:
            nonlocal made
            if not stands_alone(blocks, self._reaching):
                return None
            made = True
            at = len(self._motions), len(self._numbers), len(self._findings)
            marks = len(self._marks)
            for self._next, block in enumerate(blocks, begin + 1):
                self.block(block)
            if len(self._findings) > at[2] or self._corner is not None or self._side_from is not None:
                return None
            sections = tuple(self._sections[section:])
            motions, numbers = tuple(self._motions[at[0] :]), tuple(self._numbers[at[1] :])
            left = tuple(replace(one, at=one.at - at[0]) for one in self._marks[marks:])
            return ReadStretch(
                line=blocks[0].line,
                section=section,
                motions=motions,
                sections=sections,
                numbers=numbers,
                state=self._state.copy(),
                marks=left,
            )

        key = "read", self._language, self._reference, stretch_key(blocks, self._state)
        stretch = memo.get(key, read_it)
        if stretch is not None and not made:
            stretch = stretch.at(blocks[0].line, section)
            self._marks += [replace(one, at=one.at + len(self._motions)) for one in stretch.marks]
            self._motions += stretch.motions
            self._sections += stretch.sections
            self._numbers += stretch.numbers
            tools = self._state.tools
            self._state, self._steady = stretch.state.copy(), None
            self._state.tools += max(tools - self._state.tools, 0)
        elif not made:
            return False
        self._next = begin + len(blocks)
        return True

    def program(self, text: str) -> Program:
        if len(text.splitlines()) > MAX_LINES:
            what = f"the program has more than {MAX_LINES} lines"
            self._say("error", "program.endless", MAX_LINES, what, "what comes after this line is not read")
        if not self._state.ended and not self._refused:
            self._say("error", "program.end", len(text.splitlines()), "the program has no end word", "it was cut short")
        self._check_numbers()
        self._tell_twice()
        if self._state.offset and (self._cancels or not self._somewhere):
            what = f"the offset of station {self._state.offset} is still active at the end"
            why = "the next program starts out of place: take it away first"
            self._say("warning", "tool.offset_left", self._state.offset_line, what, why)
        self._findings += suspicious(self._motions, self._blocks)
        return Program(
            text=text,
            motions=tuple(self._motions),
            sections=tuple(self._sections),
            findings=tuple(self._findings),
            parts=self._parts,
            marks=tuple(self._marks),
            in_force=tuple(self._in_force),
            obeyed=self._obeyed,
            missing=tuple(self._missing),
        )

    def _check_numbers(self) -> None:
        """Block numbers that rise evenly but for a gap: a block may have been taken out there."""
        pairs = zip(self._numbers, self._numbers[1:], strict=False)
        steps = [(b[0] - a[0], b[1]) for a, b in pairs if a is not None and b is not None]
        if len(steps) < 4:
            return
        usual, count = Counter(step for step, _ in steps).most_common(1)[0]
        if count < (EVEN_BY_HAND if self._somewhere else EVEN) * len(steps):
            return
        for step, line in steps:
            if step != usual and (step == 2 * usual or not self._somewhere):
                self._say(
                    "warning",
                    "program.gap",
                    line,
                    f"block numbers jump by {step} here instead of {usual}",
                    "a block may be missing or doubled",
                )
