"""Which block comes next: programs that call others, jumps, loops and conditions, within limits of steps."""

from dataclasses import dataclass, field

from toreuma.core.read.cycling import Cycling
from toreuma.core.read.expressions import ExpressionError
from toreuma.core.read.statements import Assign, Branch, Loop, LoopEnd, Statement
from toreuma.core.read.words import Block, blocks_of

__all__ = ["Flow"]

MOST_PARTS = 100_000
MOST_CALLS = 10
"""Programs that call each other deeper than this are none."""

MOST_JUMPS = 50_000
MOST_REPEATS = 10_000

ARGUMENTS = {
    "A": 1, "B": 2, "C": 3, "D": 7, "E": 8, "F": 9, "H": 11, "I": 4, "J": 5, "K": 6, "M": 13, "Q": 17, "R": 18, "S": 19,
    "T": 20, "U": 21, "V": 22, "W": 23, "X": 24, "Y": 25, "Z": 26,
}  # fmt: skip
"""The variable each letter of a call with arguments sets."""


@dataclass
class _Frame:
    """A program that was called: where its caller goes on, its variables, and how often this one is still run."""

    back: int
    start: int
    left: int
    local: dict[int, float | None]
    loops: dict[int, int] = field(default_factory=dict)


@dataclass(frozen=True)
class _Again:
    """A call with arguments that stays in force, and how deep the program stands that made it."""

    start: int
    times: float | None
    name: str
    local: dict[int, float | None]
    depth: int


class Flow(Cycling):
    """Calls, returns and jumps."""

    _parts = 1
    _stays = False
    """The call with arguments in this block stays in force."""
    _again: "_Again | None" = None

    def _lay_out(self) -> None:
        """Where programs and block numbers stand."""
        self._variables.place = self._place_number
        self._starts: dict[int, int] = {}
        self._frames: list[_Frame] = []
        self._loops: dict[int, int] = {}
        self._jumps = 0
        self._contours = {}
        self._ranges: list[tuple[int, int]] = []
        self._at_number: dict[int, dict[int, list[int]]] = {}
        self._lay_out_from(0)

    def _lay_out_from(self, begin: int) -> None:
        opened = begin
        for n in range(begin, len(self._blocks)):
            number = self._blocks[n].value("O") if "O" in self._blocks[n].said.last else None
            if number is not None:
                if n > opened:
                    self._ranges.append((opened, n))
                opened = n
                self._starts.setdefault(int(number), n)
        self._ranges.append((opened, len(self._blocks)))

    def _range_of(self, index: int) -> tuple[int, int]:
        return next((one for one in self._ranges if one[0] <= index < one[1]), (0, len(self._blocks)))

    def _numbered(self, number: float | None) -> int | None:
        """Where in the program that runs a block number stands: behind here, else from its beginning."""
        begin, end = self._range_of(self._next - 1)
        if begin not in self._at_number:
            found: dict[int, list[int]] = {}
            for n in range(begin, end):
                own = self._blocks[n].said.last.get("N")
                if own is not None:
                    found.setdefault(int(own), []).append(n)
            self._at_number[begin] = found
        places = [] if number is None else self._at_number[begin].get(int(number), [])
        return next((n for n in places if n >= self._next), places[0] if places else None)

    def _tell_twice(self) -> None:
        """Block numbers that stand twice in one program."""
        for begin, end in self._ranges:
            first: dict[int, int] = {}
            for block in self._blocks[begin:end]:
                own = block.said.last.get("N")
                if own is None or first.setdefault(int(own), block.line) == block.line:
                    continue
                what, why = f"N{own:g} stands in line {first[int(own)]} already", "a jump may go to either of them"
                self._once("warning", "program.number_twice", block.line, what, why, key=f"N{own:g}/{begin}")

    # calls -------------------------------------------------------------------------------------------------------

    def _call(self, block: Block) -> None:
        """Another program is run so many times; one that makes a whole part each time is read once."""
        number, times = self._take(block, "P"), self._take(block, "L")
        within = self._take(block, "H")
        if within is not None and number is None:
            start = self._numbered(within)
            self._enter(start, times, block, f"N{within:g}", {**self._variables.local})
            return
        if number is None or number < 0:
            self._say("error", "program.call", block.line, "a call without the number of a program", "P says which")
            return
        wanted = int(number)
        if wanted > 9999 and self._start_of(wanted, block) is None:
            repeats, wanted = divmod(wanted, 10_000)
            times = float(repeats) if times is None else times
        start = self._start_of(wanted, block)
        if start is None:
            self._missing.append(wanted)
            self._say(
                "error",
                "program.call",
                block.line,
                f"there is no program {wanted} in this text",
                "the control stops there, or runs what it has under that number",
            )
            return
        self._enter(start, times, block, f"O{wanted}", {**self._variables.local})

    def _start_of(self, number: int, block: Block) -> int | None:
        """Where a program begins, in this text or a neighbouring file."""
        if number not in self._starts and number in self._given.neighbours:
            begin = len(self._blocks)
            more = list(blocks_of(self._given.neighbours[number], self._dialect))
            self._blocks += [one._replace(line=block.line) for one in more]
            named = next((n for n, one in enumerate(more) if "O" in one.said.last), 0)
            self._starts[number] = begin + named
            self._ranges.append((begin, len(self._blocks)))
        return self._starts.get(number)

    def _enter(self, start: int | None, times: float | None, block: Block, name: str,
               local: dict[int, float | None]) -> None:  # fmt: skip
        if start is None:
            self._say("error", "program.call", block.line, f"{name} is not in this text", "the control stops there")
            return
        if len(self._frames) >= MOST_CALLS:
            self._once(
                "error",
                "program.call",
                block.line,
                f"programs call each other more than {MOST_CALLS} deep",
                "the control stops there",
                key="deep",
            )
            return
        count = 1 if times is None else int(times)
        if count < 1:
            return
        if count > 1 and not self._frames and self._makes_parts(start):
            self._parts *= count
            count = 1
            if self._parts > MOST_PARTS:
                self._parts = MOST_PARTS
                self._once(
                    "error", "program.parts", block.line, f"more than {MOST_PARTS} parts in one run", "check its L"
                )
        if count > MOST_REPEATS:
            self._say("error", "program.parts", block.line, f"it would be run {count} times", "check its L")
            count = 1
        self._numbers.append(None)
        self._frames.append(_Frame(self._next, start, count, self._variables.local, self._loops))
        self._variables.local, self._loops = local, {}
        self._next = start + 1 if "O" in self._blocks[start].said.last else start

    def _makes_parts(self, start: int) -> bool:
        """Whether a program that is run again and again makes a part each time: it calls tools, and its places are
        the same ones every time."""
        begin, end = self._range_of(start)
        tools = False
        for one in self._blocks[begin:end]:
            letters, names = one.said.last, {self._named(*word) for word in one.words if word[0] == "G"}
            if one.said.computed or one.said.steers is not None:
                return False
            if "incremental" in names and "reference" not in names:
                return False
            ways = any(one.value(letter) for letter in self._dialect.relative if letter in letters)
            if ways and not names & {"rough_cycle", "rough_face_cycle", "pattern_cycle", "finish_cycle"}:
                return False
            tools = tools or "T" in letters
        return tools

    def _return(self, block: Block) -> None:
        to = self._take(block, "P")
        if not self._frames:
            if to is not None:
                self._jump(to, block)
                return
            self._once(
                "warning",
                "program.return",
                block.line,
                "the program begins again from here without an end",
                "it runs until somebody stops it",
            )
            self._state.ended = True
            return
        self._numbers.append(None)
        frame = self._frames[-1]
        if frame.left > 1:
            frame.left -= 1
            self._count_jump(block)
            first = frame.start
            self._next = first + 1 if "O" in self._blocks[first].said.last else first
            return
        self._frames.pop()
        self._next, self._variables.local, self._loops = frame.back, frame.local, frame.loops
        if to is not None:
            self._jump(to, block)

    def _macro(self, block: Block) -> None:
        """A call with arguments: each letter sets a variable of the program that is called; one that stays in force is
        made behind every move until it is called off."""
        number, times = self._take(block, "P"), self._take(block, "L")
        local: dict[int, float | None] = {}
        sets, seen = 0, False
        for letter, value in block.said.words:
            if letter in "GNPLO":
                continue
            self._used.add(letter)
            if letter in "IJK" and (seen or 3 + "IJK".index(letter) + 1 in local):
                seen = True
            if letter == "I" and 4 in local:
                sets += 1
            base = ARGUMENTS.get(letter)
            if base is not None:
                local[base + 3 * sets if letter in "IJK" else base] = value
        start = None if number is None else self._start_of(int(number), block)
        if start is None:
            self._missing += [] if number is None else [int(number)]
            self._say(
                "error",
                "program.call",
                block.line,
                f"there is no program {number or 0:.0f} in this text",
                "the control stops there, or runs what it has under that number",
            )
            return
        if self._stays:
            self._again = _Again(start, times, f"O{number:.0f}", local, len(self._frames))
            return
        self._enter(start, times, block, f"O{number:.0f}", local)

    def _call_again(self, block: Block) -> None:
        """The call that stays in force, behind a move of the program it was made in."""
        again = self._again
        if again is not None and len(self._frames) == again.depth:
            self._count_jump(block)
            self._enter(again.start, again.times, block, again.name, dict(again.local))

    # statements --------------------------------------------------------------------------------------------------

    def _steer(self, statement: Statement, block: Block) -> None:
        """A variable is set, or another block comes next."""
        try:
            if isinstance(statement, tuple):
                self._assign(statement, block)
            elif isinstance(statement, Branch):
                self._branch(statement, block)
            elif isinstance(statement, Loop):
                self._loop(statement, block)
            elif isinstance(statement, LoopEnd):
                self._loop_end(statement, block)
        except ExpressionError as error:
            self._say("error", "program.number", block.line, str(error), "the line was left out")
        self._ask_unset(block)

    def _ask_unset(self, block: Block) -> None:
        for number in self._variables.unset:
            self._once(
                "error",
                "program.variable",
                block.line,
                f"#{number} is used and nothing set it",
                "it was taken as vacant: give its value",
                key=f"#{number}",
            )
        self._variables.unset.clear()

    def _assign(self, many: tuple[Assign, ...], block: Block) -> None:
        for one in many:
            number, value = self._variables.number(one.target), self._variables.value(one.value)
            if round(number) == 3000:
                self._say(
                    "warning",
                    "program.alarm",
                    block.line,
                    f"the program stops itself, alarm {value or 0:g}",
                    "what comes after is not run",
                )
                self._state.ended = True
                return
            if number >= 1000 and round(number) != 3006:
                self._once(
                    "error",
                    "program.machine_variable",
                    block.line,
                    f"#{number:g} is the machine's own",
                    "what it changes there is not known",
                    key=f"#{number:g}",
                )
            self._variables.set(number, value)

    def _branch(self, one: Branch, block: Block) -> None:
        if one.condition is not None and not self._variables.number(one.condition):
            return
        if one.then:
            self._assign(one.then, block)
        elif one.to is not None:
            self._jump(self._variables.number(one.to), block)

    def _jump(self, number: float, block: Block) -> None:
        to = self._numbered(number)
        if to is None:
            self._say(
                "error",
                "program.jump",
                block.line,
                f"there is no block N{number:g} to go to",
                "the control stops there",
            )
            self._state.ended = True
            return
        self._numbers.append(None)
        self._count_jump(block)
        self._next = to

    def _count_jump(self, block: Block) -> None:
        self._jumps += 1
        if self._jumps > MOST_JUMPS and not self._state.ended:
            self._say(
                "error",
                "program.endless",
                block.line,
                f"the program goes back more than {MOST_JUMPS} times",
                "what comes after is not read",
            )
            self._state.ended = True

    def _loop(self, one: Loop, block: Block) -> None:
        here = self._next - 1
        if one.condition is None or self._variables.number(one.condition):
            self._loops[one.number] = here
            return
        end = self._range_of(here)[1]
        for n in range(self._next, end):
            statement = self._blocks[n].said.steers
            if isinstance(statement, LoopEnd) and statement.number == one.number:
                self._next = n + 1
                self._numbers.append(None)
                return
        self._say(
            "error", "program.loop", block.line, f"DO{one.number} has no END{one.number}", "the control stops there"
        )
        self._state.ended = True

    def _loop_end(self, one: LoopEnd, block: Block) -> None:
        start = self._loops.pop(one.number, None)
        if start is None:
            self._say(
                "error", "program.loop", block.line, f"END{one.number} has no DO{one.number}", "the control stops there"
            )
            return
        self._numbers.append(None)
        self._count_jump(block)
        self._next = start
