"""What one block says, and in which order its words are obeyed."""

import re

from toreuma.core.motion import Spindle
from toreuma.core.read.cycles import MULTIPLE
from toreuma.core.read.expressions import Expression, ExpressionError
from toreuma.core.read.flow import Flow
from toreuma.core.read.modes import EVENTS, LIVE
from toreuma.core.read.remembered import REACHING
from toreuma.core.read.state import MOVES_NOTHING, Mark, Section
from toreuma.core.read.told import counted_in
from toreuma.core.read.words import Block

__all__ = ["Obeying"]

MOST_MARKS, LOOKED_AHEAD = 99, 60

POINTED = re.compile(r"[XZ]\s*[+-]?\d*\.", re.I)

TURNING = ("spindle_forward", "spindle_reverse", "forward_coolant", "reverse_coolant", "clamp")
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


def names_beyond_moves(names: list[str]) -> bool:
    """Whether a block says more than how to go."""
    return any(name not in ("rapid", "line") for name in names)


class Obeying(Flow):
    """Obeys one block after the other."""

    def _prepare(self) -> None:
        """What is asked of every block, made ready once."""
        self._pointed = any(POINTED.search(block.text) for block in self._blocks)
        pattern = re.escape(self._dialect.section).replace(r"\{number\}", r"(\d+)").replace(r"\{name\}", "(.*)")
        self._section = re.compile(pattern, re.I)
        self._numbers: list[tuple[int, int] | None] = []
        self._plain = frozenset("NXZ") | {one for one in self._dialect.relative if one}
        """A block of nothing but these goes on with the move in force."""
        self._places = self._plain - {"N"}
        self._quick = self._plain | {"G", "F"}
        self._steady: tuple[float | None, Spindle] | None = None
        self._known: dict[tuple[str, float], str | None] = {}
        self._reaching = {(code[0], float(code[1:])) for code, name in self._names.items() if name in REACHING}

    def block(self, block: Block) -> None:
        said = block.said
        if said.skip and said.skip in self._given.skipped:
            return
        for comment in said.comments:
            match = self._section.fullmatch(comment)
            if match:
                self._state.section, self._steady = len(self._sections), None
                self._sections.append(Section(int(match.group(1)), match.group(2), block.line))
        if said.behind:
            what = f"'{said.behind[:30]}' behind a comment mark reads like a block of its own"
            self._say("warning", "program.behind", block.line, what, "it was left out: put it on a line of its own")
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
        expressions = dict(block.said.computed)
        words: list[tuple[str, float]] = []
        computed: list[tuple[int, Expression]] = []
        for n, (letter, number) in enumerate(block.words):
            each = found.get(n, number)
            if each is None:
                continue
            if n in expressions:
                computed.append((len(words), expressions[n]))
            words.append((letter, each))
        return block._replace(said=block.said._replace(words=tuple(words), last=dict(words), computed=tuple(computed)))

    def _twice(self, block: Block) -> None:
        """A letter that stands twice: controls take the last, or stop."""
        letters = [letter for letter, _ in block.said.words if letter not in "GM"]
        if all(number is not None for number in self._clamp_and_speed(block)):
            letters.remove("S")
        again = next((letter for n, letter in enumerate(letters) if letter in letters[:n]), None)
        named = {self._named(*word) for word in block.words if word[0] == "G"}
        if again is not None and not named & {"macro", "macro_modal"}:
            what = f"{again} stands twice in this block"
            self._say("error", "program.twice", block.line, what, "the last one was taken; the control may stop")

    def _without_point(self, block: Block) -> Block:
        """A block with places that have no point, as the dialect means them."""
        names = {self._named_word(word) for word in block.words if word[0] == "G"}
        counted = {"X", "U"} if "dwell" in names else set()
        if cycle := next((name for name in (*names, self._state.move) if name and name.endswith("_cycle")), ""):
            counted |= counted_in(self._dialect.forms_of(cycle), block)
        counted |= {"B", "A", ",A", self._dialect.relative_angle} | (set() if names & {"line"} else {"C"})
        whole = block.said.whole - counted
        if names & {"macro", "macro_modal"} or not whole:
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
        if self._again is not None:
            self._travel(block)
            self._call_again(block)
        elif self._steady is None:
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
            or self._again is not None
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
        self._stays = "macro_modal" in names
        names = ["macro" if name == "macro_modal" else name for name in names]
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
        if self._gone_straight and not names_beyond_moves(names) and self._again is None:
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
                    taken = self._turns_perhaps(block) or MOVES_NOTHING
                    self._once(
                        "warning",
                        "program.m_word",
                        block.line,
                        f"what M{number:g} does on this machine is not known",
                        f"it was taken as {taken}",
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

    def _turns_perhaps(self, block: Block) -> str:
        """What a word nobody knows turns, with a speed beside it while the spindle stands: a driven tool, where the
        work is turned to angles before the next one, else the spindle. Empty for nothing."""
        state, speed = self._state, block.value("S")
        named = {self._named_word(one) for one in block.words if one[0] in "GM"}
        if state.running or not speed or named & set(TURNING):
            return ""
        if state.held_at_angle or self._turned_ahead():
            state.live_rpm, state.held_at_angle = speed, True
            return "turning a driven tool"
        state.running = True
        self._turns(block, on=True)
        return "turning the spindle"

    def _turned_ahead(self) -> bool:
        """An angle of the work, a way across or polar moves stand before the next tool."""
        for one in self._blocks[self._next : self._next + LOOKED_AHEAD]:
            if "T" in one.said.last:
                return False
            polar = any(self._named_word(word) == "polar_on" for word in one.words if word[0] == "G")
            if polar or {"C", "Y", self._dialect.relative_angle} & one.said.last.keys():
                return True
        return False

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
        dialect = self._dialect
        more = (*dialect.relative, dialect.relative_angle, dialect.relative_across)
        if any(one in said for one in ("X", "Z", "Y", "C", *more) if one):
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
        elif "macro_off" in names:
            self._again = None
        elif self._again is not None and self._leads_somewhere(block):
            self._call_again(block)
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
        return (
            self._dialect.waits_by_words or not self._anyone
        ) and self._dialect.wait_from <= number < self._dialect.wait_from + MOST_MARKS

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
