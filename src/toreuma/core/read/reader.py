"""Reads program text into moves, block by block, knowing only the dialect."""

import re
from collections import Counter
from dataclasses import replace

from toreuma.core.dialect import Dialect
from toreuma.core.geometry.elements import Point
from toreuma.core.memo import Memo
from toreuma.core.motion import Spindle
from toreuma.core.read.cycles import MULTIPLE
from toreuma.core.read.cycling import Cycling
from toreuma.core.read.modes import EVENTS, LIVE
from toreuma.core.read.remembered import REACHING, ReadStretch, stands_alone, stretch_key
from toreuma.core.read.state import Mark, Program, Section, normal
from toreuma.core.read.words import MAX_LINES, Block, blocks_of

__all__ = ["Program", "Section", "read"]

LETTERS = "OXYZCUWRIKFSTPQL"
"""Letters of words that are read; the second spindle's way comes with it."""

PLAIN = frozenset("NXZUW")
"""A block of nothing but these goes on with the move in force."""

MOST_MARKS = 99
MOST_BLOCKS, MOST_MOVES = 2_000_000, 2_000_000
MOST_PARTS = 100_000
MOST_CALLS = 4
"""Programs that call each other deeper than this are none."""


def read(
    text: str,
    dialect: Dialect,
    reference: Point,
    memo: Memo | None = None,
    *,
    second_reference: Point | None = None,
    first_line: int = 1,
) -> Program:
    """Read a program. ``reference`` is the turret's reference point (z, r) in mm, where the tool starts.

    Nothing raises: what cannot be understood becomes an error finding with its line. Operations whose text and
    start are the same as in a program read with the same ``memo`` before are not read again. ``second_reference`` is
    where tools start as the second spindle sees it; lines are counted from ``first_line``.
    """
    blocks = list(blocks_of(text, dialect, first_line))
    reader = _Reader(dialect, reference, blocks, memo)
    if second_reference is not None:
        reader.second_at(second_reference)
    reader.run()
    return reader.program(text)


class _Reader(Cycling):
    """Obeys the blocks in order."""

    def __init__(self, dialect: Dialect, reference: Point, blocks: list[Block], memo: Memo | None) -> None:
        super().__init__(dialect, reference)
        self._memo = memo
        self._blocks = blocks
        self._next = 0
        named = ((i, block.value("O")) for i, block in enumerate(blocks) if "O" in block.text.upper())
        self._starts = {int(number): i for i, number in named if number is not None}
        self._calls: list[int] = []
        self._parts = 1
        pattern = re.escape(dialect.section).replace(r"\{number\}", r"(\d+)").replace(r"\{name\}", "(.*)")
        self._section = re.compile(pattern, re.I)
        self._numbers: list[tuple[int, int] | None] = []
        self._letters = LETTERS
        self._steady: tuple[float | None, Spindle] | None = None
        self._known: dict[tuple[str, float], str | None] = {}
        self._reaching = {(code[0], float(code[1:])) for code, name in self._names.items() if name in REACHING}
        self._language = dialect.model_dump_json() if memo is not None else ""

    def second_at(self, reference: Point) -> None:
        """Where tools start as the second spindle sees it."""
        self._second_reference = reference
        self._letters += self._dialect.second_axis

    def run(self) -> None:
        """Obey the blocks in order, up to where another program begins."""
        begun, obeyed = False, 0
        while self._next < len(self._blocks):
            block = self._blocks[self._next]
            obeyed += 1
            if obeyed > MOST_BLOCKS or len(self._motions) > MOST_MOVES:
                what = f"more than {MOST_MOVES if obeyed <= MOST_BLOCKS else MOST_BLOCKS} moves or blocks are run"
                self._say("error", "program.endless", block.line, what, "what comes after this line is not read")
                self._state.ended = True
                break
            if "O" in block.said.last:
                if begun and not self._calls:
                    break
                begun = True
            if self._memo is None or self._calls or not self._opens(block) or not self._through(self._memo):
                self._next += 1
                self.block(block)

    def _opens(self, block: Block) -> bool:
        """Whether an operation begins here."""
        return any(self._section.fullmatch(comment) for comment in block.comments)

    def _through(self, memo: Memo) -> bool:
        """The blocks of one operation, read or taken as they were read before; False where they reach beyond it."""
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
            for block in blocks:
                self.block(block)
            if len(self._findings) > at[2]:
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
            self._state, self._steady = stretch.state.copy(), None
        elif not made:
            return False
        self._next = begin + len(blocks)
        return True

    def program(self, text: str) -> Program:
        if len(text.splitlines()) > MAX_LINES:
            what = f"the program has more than {MAX_LINES} lines"
            self._say("error", "program.endless", MAX_LINES, what, "what comes after this line is not read")
        if not self._state.ended:
            self._say("error", "program.end", len(text.splitlines()), "the program has no end word", "it was cut short")
        self._check_numbers()
        if self._state.offset:
            self._say(
                "warning",
                "tool.offset_left",
                self._state.offset_line,
                f"the offset of station {self._state.offset} is still active at the end",
                "the next program starts out of place: take it away first",
            )
        return Program(
            text=text,
            motions=tuple(self._motions),
            sections=tuple(self._sections),
            findings=tuple(self._findings),
            parts=self._parts,
            marks=tuple(self._marks),
        )

    def block(self, block: Block) -> None:
        for comment in block.comments:
            match = self._section.fullmatch(comment)
            if match:
                self._state.section, self._steady = len(self._sections), None
                self._sections.append(Section(int(match.group(1)), match.group(2), block.line))
        if block.unread:
            self._say(
                "error",
                "program.unread",
                block.line,
                f"'{block.unread[:20]}' was not understood",
                "the rest of the block was left out",
            )
        if not block.said.words:
            return
        if len(block.said.last) < len(block.said.words):
            self._twice(block)
        if block.said.whole:
            block = self._without_point(block)
        if self._state.ended:
            self._once(
                "error",
                "program.after_end",
                block.line,
                "words stand after the end of the program",
                "the control would not run them",
            )
            return
        if PLAIN.issuperset(block.said.last):
            self._on(block)
        else:
            self._words(block)

    def _twice(self, block: Block) -> None:
        """A letter that stands twice: controls take the last, or stop."""
        letters = [letter for letter, _ in block.said.words if letter not in "GM"]
        again = next((letter for n, letter in enumerate(letters) if letter in letters[:n]), None)
        if again is not None:
            what = f"{again} stands twice in this block"
            self._say("error", "program.twice", block.line, what, "the last one was taken; the control may stop")

    def _without_point(self, block: Block) -> Block:
        """A block with places that have no point, as the dialect means them."""
        counted = self._named(("G", block.value("G") or 0.0)) == "pattern_cycle"  # its R is a number of passes
        whole = block.said.whole - {"R"} if counted else block.said.whole
        if not whole:
            return block
        means, letter = self._dialect.whole_numbers, min(whole)
        if means == "unsaid":
            self._once(
                "error",
                "program.no_point",
                block.line,
                f"{letter}{block.value(letter):g} has no point, and the dialect does not say what that means",
                "it was taken as the unit; controls that count their smallest step go elsewhere",
            )
        if means != "steps":
            return block
        step = 10.0 ** -self._dialect.decimals["inch" if self._state.scale != 1 else "mm"]
        said = block.said
        words = tuple((one, number * step if one in whole else number) for one, number in said.words)
        return block._replace(said=said._replace(words=words, last=dict(words), whole=frozenset()))

    def _on(self, block: Block) -> None:
        """A block of places only: after one of them has been looked at, the next go on as it did."""
        last = block.said.last
        if "N" in last:
            self._numbers += [(int(number), block.line) for letter, number in block.said.words if letter == "N"]
            if len(last) == 1:
                return
        if self._steady is None:
            self._travel(block)
            self._steady = self._goes_on()
        else:
            self._straight_on(block, *self._steady)

    def _words(self, block: Block) -> None:
        """Words take effect in the order a control obeys them: units and modes, tool, speed, feed, then moves."""
        self._steady = None
        names = self._names_in(block)
        for name in names:
            self._mode(name, block)
        tool, feed = block.value("T"), block.value("F")
        if tool is not None:
            self._tool(int(tool), block)
        if block.value("S") is not None:
            if any(name in names for name in LIVE):
                self._live(names, float(block.value("S") or 0))
            elif "clamp" not in names and "sync" not in names:
                self._speed(float(block.value("S") or 0), block)
        if feed is not None:
            self._set_feed(feed, block)
        self._moves(names, block)
        self._then(names, block)

    def _names_in(self, block: Block) -> list[str]:
        """What the dialect calls the words of a block that have a name; what it does not know is said."""
        names = []
        for letter, number in block.words:
            if letter in "GM":
                name = self._named((letter, number))
                if letter == "M" and name is None and self._is_wait(number):
                    self._wait(int(number), block)
                elif name is None:
                    self._say(
                        "error",
                        "program.word",
                        block.line,
                        f"{letter}{number:g} is not in the dialect",
                        f"{self._dialect.name} does not know it",
                    )
                else:
                    names.append(name)
            elif letter == "N":
                self._numbers.append((int(number), block.line))
            elif letter not in self._letters:
                self._say(
                    "error",
                    "program.word",
                    block.line,
                    f"the word {letter}{number:g} is not in the dialect",
                    "what it would do is not known",
                )
        return names

    def _moves(self, names: list[str], block: Block) -> None:
        """Where the block leads."""
        multiple = next((name for name in names if name in MULTIPLE), None)
        if multiple is not None:
            self._multiple(multiple, block)
        elif "reference" in names:
            self._to_reference(block)
        elif any(name in names for name in ("call", "return")):
            pass
        elif "dwell" in names:
            self._dwell(block)
            self._left_over(block, "PXU")
        elif self._dialect.second_axis in self._letters and block.value(self._dialect.second_axis) is not None:
            self._second_to(block)
        elif not {"clamp", "set_datum"} & set(names) and any(block.value(letter) is not None for letter in "XZUWYC"):
            self._travel(block)
        elif not names:
            self._left_over(block, "P" if any(letter == "M" for letter, _ in block.words) else "")

    def _left_over(self, block: Block, used: str) -> None:
        """Words of a block without a move that nothing takes."""
        more = [letter for letter in block.said.last if letter not in "ONGMTSF" + used]
        if more:
            self._unused(more[0], block)

    def _then(self, names: list[str], block: Block) -> None:
        """What happens after the moves of the block."""
        for name in names:
            if name in EVENTS:
                self._event(EVENTS[name], block)
        if "call" in names:
            self._call(block)
        if "return" in names:
            self._return(block)
        if "end" in names:
            self._state.ended = True
        if "spindle_stop" in names or "end" in names:
            self._state.running = False
            self._turns(block, on=False)

    def _named(self, word: tuple[str, float]) -> str | None:
        """What the dialect calls a word."""
        if word not in self._known:
            self._known[word] = self._names.get(normal(f"{word[0]}{word[1]:g}"))
        return self._known[word]

    def _is_wait(self, number: float) -> bool:
        return self._dialect.wait_from <= number < self._dialect.wait_from + MOST_MARKS

    def _wait(self, number: int, block: Block) -> None:
        """The channel stands until those named by the digits behind P have come here."""
        channels = tuple(int(one) for one in f"{block.value('P') or 0:.0f}" if one.isdigit())
        mark = number - self._dialect.wait_from + 1
        self._marks.append(Mark(what="wait", line=block.line, at=len(self._motions), number=mark, channels=channels))

    def _second_to(self, block: Block) -> None:
        """The second spindle moves along Z."""
        place = (block.value(self._dialect.second_axis) or 0.0) * self._state.scale
        feed = None if self._state.move == "rapid" else self._state.feed or 0.0
        self._marks.append(Mark(what="second_to", line=block.line, at=len(self._motions), number=place, feed=feed))

    def _call(self, block: Block) -> None:
        """Another program in the same text is run so many times; what it does is read once."""
        number, times = block.value("P"), block.value("L")
        start = self._starts.get(int(number)) if number is not None else None
        if start is None or len(self._calls) >= MOST_CALLS:
            why = "the control stops there"
            self._say("error", "program.call", block.line, f"there is no program {number or 0:.0f} in this text", why)
            return
        self._parts *= max(int(times), 1) if times is not None else 1
        if self._parts > MOST_PARTS:
            self._parts = MOST_PARTS
            self._once("error", "program.parts", block.line, f"more than {MOST_PARTS} parts in one run", "check its L")
        self._numbers.append(None)
        self._calls.append(self._next)
        self._next = start + 1

    def _return(self, block: Block) -> None:
        if not self._calls:
            self._once(
                "warning", "program.return", block.line, "the program begins again from here without an end",
                "it runs until somebody stops it",
            )  # fmt: skip
            self._state.ended = True
            return
        self._numbers.append(None)
        self._next = self._calls.pop()

    def _check_numbers(self) -> None:
        """Block numbers that rise evenly but for a gap: a block may have been taken out there."""
        pairs = zip(self._numbers, self._numbers[1:], strict=False)
        steps = [(b[0] - a[0], b[1]) for a, b in pairs if a is not None and b is not None]
        if len(steps) < 4:
            return
        usual, count = Counter(step for step, _ in steps).most_common(1)[0]
        if count < 0.8 * len(steps):
            return
        for step, line in steps:
            if step != usual:
                self._say(
                    "warning",
                    "program.gap",
                    line,
                    f"block numbers jump by {step} here instead of {usual}",
                    "a block may be missing or doubled",
                )
