"""Reads program text into moves, block by block, knowing only the dialect."""

import re
from collections import Counter
from collections.abc import Mapping
from dataclasses import replace

from toreuma.core.dialect import Dialect
from toreuma.core.geometry.elements import Point
from toreuma.core.memo import Memo
from toreuma.core.motion import Spindle
from toreuma.core.read.cycles import MULTIPLE
from toreuma.core.read.expressions import ExpressionError
from toreuma.core.read.flow import Flow
from toreuma.core.read.language import other_language
from toreuma.core.read.modes import EVENTS, LIVE
from toreuma.core.read.remembered import REACHING, ReadStretch, stands_alone, stretch_key
from toreuma.core.read.sense import suspicious
from toreuma.core.read.state import Given, Mark, Program, Section
from toreuma.core.read.words import MAX_LINES, Block, blocks_of

__all__ = ["Program", "Section", "read"]

MOST_MARKS = 99
MOST_BLOCKS, MOST_MOVES, MOST_AGAIN = 2_000_000, 2_000_000, 60_000
"""So many blocks are run in all, and so many of them again."""


POINTED = re.compile(r"[XZ]\s*[+-]?\d*\.", re.I)

EVEN, EVEN_BY_HAND = 0.8, 0.95
"""Share of block numbers that rise evenly where a gap means something."""

BEFORE_MOVES = (
    "clamp",
    "set_datum",
    "local_shift",
    "machine_place",
    "reference",
    "reference_straight",
    "second_reference",
    "dwell",
    "call",
    "return",
    "macro",
)
"""Words that say what the block's other words are for."""


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


def names_beyond_moves(names: list[str]) -> bool:
    """Whether a block says more than how to go."""
    return any(name not in ("rapid", "line") for name in names)


class _Reader(Flow):
    """Obeys the blocks in order."""

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
        self._pointed = any(POINTED.search(block.text) for block in blocks)
        self._lay_out()
        pattern = re.escape(dialect.section).replace(r"\{number\}", r"(\d+)").replace(r"\{name\}", "(.*)")
        self._section = re.compile(pattern, re.I)
        self._numbers: list[tuple[int, int] | None] = []
        self._plain = frozenset("NXZ") | {one for one in dialect.relative if one}
        """A block of nothing but these goes on with the move in force."""
        self._places = self._plain - {"N"}
        self._quick = self._plain | {"G", "F"}
        self._steady: tuple[float | None, Spindle] | None = None
        self._known: dict[tuple[str, float], str | None] = {}
        self._reaching = {(code[0], float(code[1:])) for code, name in self._names.items() if name in REACHING}
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

    def block(self, block: Block) -> None:
        said = block.said
        if said.skip and said.skip in self._given.skipped:
            return
        for comment in said.comments:
            match = self._section.fullmatch(comment)
            if match:
                self._state.section, self._steady = len(self._sections), None
                self._sections.append(Section(int(match.group(1)), match.group(2), block.line))
        if said.wrong or said.unread:
            what = said.wrong if said.wrong else f"'{said.unread[:20]}' was not understood"
            code = "program.comment" if said.wrong.startswith("the comment") else "program.unread"
            why = "the block was left out" if said.unread else "what stands in it is not obeyed"
            self._say("error", code, block.line, what, why)
            if said.unread:
                return
        if said.steers is not None:
            if not self._state.ended:
                self._steady = None
                if "N" in said.last:
                    self._numbers.append((int(said.last["N"]), block.line))
                self._steer(said.steers, block)
            return
        if not said.words:
            return
        if said.computed:
            block = self._worked_out(block)
            said = block.said
        if len(said.last) < len(said.words):
            self._twice(block)
        if said.whole:
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
        if self._plain.issuperset(said.last) and not said.computed:
            self._on(block)
        elif not (self._steady is not None and self._quick.issuperset(said.last) and self._quickly(block)):
            self._words(block)

    def _worked_out(self, block: Block) -> Block:
        """The block with its expressions worked out; words that are vacant are left out."""
        found: dict[int, float | None] = {}
        for place, expression in block.said.computed:
            try:
                found[place] = self._variables.value(expression)
            except ExpressionError as error:
                self._say("error", "program.number", block.line, str(error), "the word was left out")
                found[place] = None
        self._ask_unset(block)
        words = []
        for n, (letter, number) in enumerate(block.words):
            each = found.get(n, number)
            if each is not None:
                words.append((letter, each))
        return block._replace(said=block.said._replace(words=tuple(words), last=dict(words)))

    def _twice(self, block: Block) -> None:
        """A letter that stands twice: controls take the last, or stop."""
        letters = [letter for letter, _ in block.said.words if letter not in "GM"]
        if all(number is not None for number in self._clamp_and_speed(block)):
            letters.remove("S")
        again = next((letter for n, letter in enumerate(letters) if letter in letters[:n]), None)
        if again is not None and not any(self._named(*word) == "macro" for word in block.words if word[0] == "G"):
            what = f"{again} stands twice in this block"
            self._say("error", "program.twice", block.line, what, "the last one was taken; the control may stop")

    def _without_point(self, block: Block) -> Block:
        """A block with places that have no point, as the dialect means them."""
        names = {self._named_word(word) for word in block.words if word[0] == "G"}
        counted = {"R"} if "pattern_cycle" in names else set()  # its R is a number of passes
        counted |= {"X", "U"} if "dwell" in names else set()
        counted |= {"R"} if "whole_thread_cycle" in names and "X" not in block.said.last else set()
        counted |= {"B", "C", "A", ",A"} if not names & {"line"} else {"B", "A", ",A"}
        whole = block.said.whole - counted
        if "macro" in names or not whole:
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
        elif self._pointed:
            self._once(
                "warning",
                "program.point",
                block.line,
                f"{letter}{block.value(letter):g} has no point where others do",
                "it was taken as the dialect says",
            )
        if means != "steps":
            return block
        step = self._smallest
        return block.with_words(tuple((one, number * step if one in whole else number) for one, number in block.words))

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

    def _quickly(self, block: Block) -> bool:
        """A straight move with its words, after one of its kind has been looked at; False where more is to be seen."""
        state, said, steady = self._state, block.said.last, self._steady
        move = state.move
        for word in block.said.words:
            if word[0] == "G":
                move = self._named_word(word) or ""
                if move not in ("rapid", "line"):
                    return False
        feed: float | None = said.get("F")
        if (
            steady is None
            or not self._places.intersection(said)
            or (feed is not None and (move == "rapid" or feed <= 0))
        ):
            return False
        if move == "line":
            if self._cut_checked != (state.tools, state.section):
                return False
            if feed is not None:
                state.feed, state.feed_since = feed * state.scale, state.tools
        if "N" in said:
            self._numbers.append((int(said["N"]), block.line))
        state.move = move
        self._steady = (None if move == "rapid" else state.feed or 0.1), steady[1]
        self._straight_on(block, *self._steady)
        return True

    def _words(self, block: Block) -> None:
        """Words take effect in the order a control obeys them: units and modes, tool, speed, feed, then moves."""
        self._steady = None
        self._used = {"G", "M", "N", "O"}
        names = self._names_in(block)
        for name in names:
            self._mode(name, block)
        self._tool_words(names, block)
        self._speed_words(names, block)
        feed = self._take(block, "F")
        if feed is not None and "dwell" not in names and "macro" not in names:
            self._set_feed(feed, names, block)
        self._moves(names, block)
        self._then(names, block)
        self._all_used(names, block)
        if self._gone_straight and not names_beyond_moves(names):
            self._steady = self._goes_on()
        self._gone_straight = False

    def _speed_words(self, names: list[str], block: Block) -> None:
        if {"sync", "macro"} & set(names):
            return
        number = self._clamp_and_speed(block)[1] if "clamp" in names else block.value("S")
        if number is None:
            return
        self._used.add("S")
        if any(name in names for name in LIVE):
            self._live(names, number)
        else:
            self._speed(number, block)

    def _names_in(self, block: Block) -> list[str]:
        """What the dialect calls the words of a block that have a name; what it does not know is said."""
        names = []
        for letter, number in block.words:
            if letter in "GM":
                name = self._named_word((letter, number))
                if name is not None:
                    names.append(name)
                elif letter == "M" and self._is_wait(number):
                    self._wait(int(number), block)
                elif letter == "M" and self._anyone:
                    self._once(
                        "warning",
                        "program.m_word",
                        block.line,
                        f"what M{number:g} does on this machine is not known",
                        "it was taken as moving neither tool nor work",
                        key=f"M{number:g}",
                    )
                    self._used.add("P")
                else:
                    self._say(
                        "error",
                        "program.word",
                        block.line,
                        f"{letter}{number:g} is not in the dialect",
                        f"{self._dialect.name} does not know it",
                    )
            elif letter == "N":
                self._numbers.append((int(number), block.line))
        return names

    def _moves(self, names: list[str], block: Block) -> None:
        """Where the block leads."""
        multiple = next((name for name in names if name in MULTIPLE), None)
        owner = next((name for name in BEFORE_MOVES if name in names), None)
        if multiple is not None:
            self._multiple(multiple, block)
        elif owner is not None:
            self._owned(owner, block)
        elif self._is_second_way(block):
            self._second_to(block)
        elif self._leads_somewhere(block):
            self._travel(block)

    def _owned(self, owner: str, block: Block) -> None:
        """A block whose words belong to one of them."""
        if owner != "dwell":
            self._corner_left(block.line)
        if owner == "clamp":
            self._clamp(block)
        elif owner == "set_datum":
            if self._has_second and block.value("P") == 2:
                self._used |= {"L", "P", "Z"}
            else:
                self._set_data(block)
        elif owner == "local_shift":
            self._local(block)
        elif owner == "machine_place":
            self._machine_place(block)
        elif owner in ("reference", "reference_straight", "second_reference"):
            self._to_reference(block, owner)
        elif owner == "dwell":
            self._dwell(block)

    def _leads_somewhere(self, block: Block) -> bool:
        said = block.said.last
        if any(one in said for one in ("X", "Z", "Y", "C", *self._dialect.relative) if one):
            return True
        angled = ",A" in said or ("A" in said and self._dialect.corners != "comma" and self._dialect.second_axis != "A")
        return angled and self._state.move == "line"

    def _is_second_way(self, block: Block) -> bool:
        return self._has_second and block.value(self._dialect.second_axis) is not None

    def _all_used(self, names: list[str], block: Block) -> None:
        """Words of a block that nothing took were meant for another one."""
        if "P" in block.said.last and any(letter == "M" for letter, _ in block.words):
            self._used.add("P")
        for letter in block.said.last:
            if letter not in self._used:
                self._unused(letter, block)
                return

    def _then(self, names: list[str], block: Block) -> None:
        """What happens after the moves of the block."""
        for name in names:
            if name in EVENTS:
                self._event(EVENTS[name], block)
        if "call" in names:
            self._call(block)
        elif "macro" in names:
            self._macro(block)
        if "return" in names:
            self._return(block)
        ends = "end" in names or "end_again" in names
        if ends:
            self._state.ended = True
        if "spindle_stop" in names or ends:
            self._state.running = False
            self._turns(block, on=False)

    def _named_word(self, word: tuple[str, float]) -> str | None:
        """What the dialect calls a word."""
        if word not in self._known:
            self._known[word] = self._named(*word)
        return self._known[word]

    def _is_wait(self, number: float) -> bool:
        return not self._anyone and self._dialect.wait_from <= number < self._dialect.wait_from + MOST_MARKS

    def _wait(self, number: int, block: Block) -> None:
        """The channel stands until those named by the digits behind P have come here."""
        channels = tuple(int(one) for one in f"{block.value('P') or 0:.0f}" if one.isdigit())
        mark = number - self._dialect.wait_from + 1
        self._marks.append(Mark(what="wait", line=block.line, at=len(self._motions), number=mark, channels=channels))

    def _second_to(self, block: Block) -> None:
        """The second spindle moves along Z."""
        place = (self._take(block, self._dialect.second_axis) or 0.0) * self._state.scale
        feed = None if self._state.move == "rapid" else self._state.feed or 0.0
        self._marks.append(Mark(what="second_to", line=block.line, at=len(self._motions), number=place, feed=feed))

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
