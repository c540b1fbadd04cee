"""Travel, and the cycles that make many moves of one or two blocks."""

from toreuma.core.control_cycles import Made
from toreuma.core.cycle_words import letters_of
from toreuma.core.geometry.elements import Line, Point
from toreuma.core.read.cycles import BOXES, FOLLOWING, MULTIPLE, CycleError, Words
from toreuma.core.read.drilling import Drilling
from toreuma.core.read.moves import Collected
from toreuma.core.read.told import Told, is_first
from toreuma.core.read.words import Block

__all__ = ["Cycling"]

CONTOUR = ("first", "last")
STEERING = ("call", "return", "end", "macro", *MULTIPLE, *BOXES)


class Cycling(Drilling):
    """Follows what a block with a place asks for."""

    _blocks: list[Block]
    _next: int
    _numbers: list[tuple[int, int] | None]

    def block(self, block: Block) -> None:
        raise NotImplementedError

    def _numbered(self, number: float | None) -> int | None:
        """Where in the program that runs a block number stands."""
        raise NotImplementedError

    def _travel(self, block: Block) -> None:
        state = self._state
        if not state.units_set:
            self._once(
                "error",
                "program.units",
                block.line,
                "the program moves before it says inch or millimetre",
                "millimetres were assumed",
            )
        if not self._somewhere and state.datum and (state.datum != "work_offset") is not state.second:
            self._once(
                "error",
                "datum.other",
                block.line,
                "the datum of the other spindle is in force",
                "every place is counted from somewhere else",
                key=f"datum{state.section}",
            )
        last = block.said.last
        deg = self._turned_to(block)
        if deg is not None:
            self._index(deg, block)
            further = ("X", "Z", "Y", "A", *self._dialect.relative, self._dialect.relative_across)
            if not any(letter in last for letter in further) and not state.move.endswith("_cycle"):
                return
        if state.move == "":
            self._say("error", "program.move", block.line, "a place without a move word", "it was left out")
            return
        if state.move in BOXES:
            self._box(block)
            return
        if state.move.endswith("_cycle"):
            self._drill(block)
            return
        target = self._target(block)
        self._used |= {"X", "Z", *self._dialect.relative} & last.keys()
        across = "Y" in last or self._dialect.relative_across in last
        if state.held_at_angle and (state.live_rpm or state.polar or across):
            self._driven(target, block)
            return
        self._plainly(target, block)

    def _turned_to(self, block: Block) -> float | None:
        """The angle a block turns the work to, degrees; None where it does not."""
        state, way = self._state, self._turn_of(block)
        if way is not None:
            return state.c_deg + way
        if "C" not in block.said.last or state.polar or not (state.held_at_angle or not self._corner_letter(block)):
            return None
        self._used.add("C")
        return block.said.last["C"]

    def _turn_of(self, block: Block) -> float | None:
        """How far a block turns the work from where it stands, degrees; None where it says no such thing."""
        state, last = self._state, block.said.last
        letter = self._dialect.relative_angle
        if letter and letter in last and not state.polar:
            self._used.add(letter)
            return last[letter]
        if state.incremental and "C" in last and not state.polar and state.held_at_angle:
            self._used.add("C")
            return last["C"]
        return None

    def _corner_letter(self, block: Block) -> bool:
        """Whether a C without a comma is a chamfer."""
        return self._state.move == "line" and self._dialect.corners != "comma"

    def _lead_asked(self, block: Block) -> float | None:
        """The lead of a thread where the dialect has a letter of its own for it, mm; it stays until the next."""
        state = self._state
        if state.move != "thread" or self._dialect.thread_lead == "feed":
            return None
        found = [abs(one) for one in (self._take(block, "K"), self._take(block, "I")) if one]
        if found:
            state.lead = found[0] * state.scale
        return None if not found and "F" in block.said.last else state.lead

    def _plainly(self, target: Point, block: Block) -> None:
        """A rapid, a line, an arc or a thread to a place."""
        state = self._state
        self._gone_straight = state.move in ("rapid", "line")
        if state.move == "rapid":
            self._corner_left(block.line)
            self._add(Line(state.at, target), None, block)
            return
        lead = self._lead_asked(block)
        feed = self._feed_in_force(block) if lead is None else lead
        self._cut_checked = state.tools, state.section
        if state.move in ("thread", "changing_lead"):
            self._corner_left(block.line)
            self._thread_word(target, feed, block)
            return
        if state.move.startswith("arc"):
            self._add(self._arc(target, block) or Line(state.at, target), feed, block)
            self._corner = self._break_asked(block) if ",R" in block.said.last or ",C" in block.said.last else None
            return
        end = self._by_angle(target, self._angle_asked(block), block)
        if end is None:
            if self._angle_open is not None and self._angle_open[1] is block:
                self._used |= {",R", ",C", "R", "C"} & block.said.last.keys()
            return
        self._add(Line(state.at, end), feed, block)
        self._corner = self._break_asked(block)

    def _unused(self, letter: str, block: Block) -> None:
        what = f"{letter}{block.value(letter):g} does nothing in this block"
        why = "it was meant for another move, or another control takes it as a corner or a cycle"
        self._say("error", "program.unused", block.line, what, why)

    def _box(self, block: Block) -> None:
        """A pass of four corners; what a block leaves out stays as it was in the pass before."""
        state, kept, said = self._state, self._state.cycle, block.said.last
        (along_x, along_z) = self._dialect.relative
        z, r = self._target(block)
        if "Z" in said or (along_z and along_z in said):
            kept["z"] = z
        if "X" in said or (along_x and along_x in said):
            kept["r"] = r
        self._used |= {"X", "Z", along_x, along_z} & said.keys()
        if "z" not in kept or "r" not in kept:
            self._say(
                "error",
                "cycle.words",
                block.line,
                "a pass of a cycle needs both X and Z the first time",
                "where it ends is not said",
            )
            return
        told = self._told(state.move, block)
        if told.given("taper") or any(self._named(*word) == state.move for word in block.words if word[0] == "G"):
            state.taper = told.of("taper")
        if told.given("phase"):
            state.turn = told.of("phase") / 1000 / 360 % 1.0
        if state.side:
            self._once(
                "error",
                "side.cycle",
                block.line,
                "compensation within a cycle of one pass is not read",
                "the pass was taken as it is written",
                key="side box",
            )
        feed = self._feed_told(told, block)
        more = {"pull_out_mm": self._run_out_mm(feed, block)} if state.move == "thread_cycle" else {}
        self._made(BOXES[state.move](state.at, kept["z"], kept["r"], state.taper, **more), feed, block)

    def _run_out_mm(self, lead_mm: float, block: Block) -> float:
        """How far before its end a pass of a thread begins to come out."""
        asked, leads = self._state.runs_out, self._dialect.thread_run_out
        if asked and leads <= 0:
            self._once(
                "warning",
                "thread.run_out",
                block.line,
                "over how many leads a thread runs out is a number of the machine, and not known",
                "it was taken to end square; type it with the machine: threads run out, leads",
                key="run out",
            )
        return 0.0 if asked is False else leads * lead_mm

    def _told(self, name: str, block: Block) -> Told:
        """What a cycle's block tells, in the forms of the dialect."""
        state = self._state
        return Told(
            forms=self._dialect.forms_of(name),
            first=state.firsts.get(name),
            block=block,
            scale=state.scale,
            across=state.scale / 2 if self._dialect.x_is_diameter else state.scale,
            fine=state.scale * self._fine,
            used=self._used,
        )

    def _feed_told(self, told: Told, block: Block) -> float:
        """The feed in force, or the lead that a cycle tells behind a letter of its own, mm."""
        letter = told.letter("lead")
        if letter in ("", "F") or not told.given("lead"):
            return self._feed_in_force(block)
        self._state.feed, self._state.feed_since = abs(told.of("lead")), self._state.tools
        return self._feed_in_force(block)

    def _multiple(self, name: str, block: Block) -> None:
        """A cycle of its own blocks: the first of two is kept, the last one makes the moves."""
        follows = name in FOLLOWING
        forms, ways = self._dialect.forms_of(name), tuple(one for one in self._dialect.relative if one)
        self._corner_left(block.line)
        if is_first(forms, block, ways):
            self._state.firsts[name] = block
            self._used |= {letter for form in forms if len(form) > 1 for letter in letters_of(form)[0]}
            return
        told, state = self._told(name, block), self._state
        feed = self._feed_told(told, block)
        self._used |= {"X", "Z", *ways, *(told.letter(what) for what in CONTOUR)} & block.said.last.keys()
        try:
            pieces, pockets = self._contour(told, block, name != "finish_cycle") if follows else ([], False)
            target = state.at if follows else self._target(block)
            words = Words(
                told=told,
                at=state.at,
                target=target,
                feed=feed,
                lift_mm=self._dialect.lift_mm,
                contour=tuple(one.segment for one in pieces),
                pockets=pockets,
            )
            made = MULTIPLE[name](words)
        except CycleError as error:
            self._say("error", "cycle.words", block.line, str(error), "the control stops, or cuts what nobody meant")
            return
        if name == "finish_cycle":
            self._finished(made, pieces, feed, block)
        else:
            self._roughed(made, feed, block)

    def _roughed(self, made: list[Made], feed: float, block: Block) -> None:
        """Roughing goes along its passes as they are, whatever compensation says."""
        side, begin = self._state.side, self._side_from
        if side:
            self._once(
                "warning",
                "side.rough",
                block.line,
                "compensation does nothing while a cycle roughs",
                "the allowance has to cover it",
                key="side rough",
            )
            self._off_contour()
        self._made(made, feed, block)
        if side:
            self._side_from = len(self._motions) if begin is not None else None

    def _finished(self, made: list[Made], pieces: list[Collected], feed: float, block: Block) -> None:
        """Once along the contour, each piece at the feed and speed said within it, beside it where it says so."""
        state = self._state
        own = {one.segment: one for one in pieces}
        side = next((one.side for one in pieces if one.side), "")
        begins = bool(side) and not state.side
        if begins:
            self._side_word(side, block)
        speed, before = state.speed, state.side
        back = max((n for n, one in enumerate(made) if one.how != "rapid"), default=-1) + 1
        for n, one in enumerate(made):
            if n == back and before:
                self._side_word("off", block)
            piece = own.get(one.segment)
            state.speed = piece.speed if piece is not None and piece.speed else state.speed
            each = piece.feed if piece is not None and piece.feed is not None else feed
            self._add(one.segment, None if one.how == "rapid" else each, block)
        state.speed = speed
        if before and not begins:
            self._leaving = False
            self._side_word(before, block)

    def _contour(self, told: Told, block: Block, skip: bool) -> tuple[list[Collected], bool]:
        """What stands between two block numbers, from where the tool is, and whether it may fall and rise.

        ``skip``: the program goes on behind it.
        """
        first, last = (block.value(told.letter(what)) for what in CONTOUR)
        begin, end = self._numbered(first), self._numbered(last)
        if not skip and (first, last) in self._contours:
            begin, end = self._contours[first, last]
        if begin is None or end is None or end < begin:
            raise CycleError(f"the blocks N{first or 0:.0f} to N{last or 0:.0f} of its contour are not there")
        kept, used, goes_on, counted = self._state, self._used, self._next, len(self._numbers)
        self._state, self._collected = self._state.copy(), []
        self._state.warned = kept.warned
        self._state.side = ""
        gathered = self._collected
        try:
            for index in range(begin, end + 1):
                one = self._blocks[index]
                names = {self._named(*word) for word in one.words if word[0] in "GM"}
                if index == begin and not names & {"rapid", "line"}:
                    raise CycleError(f"the block N{first or 0:.0f}, where its contour begins, says no move of its own")
                if one.said.steers is not None or names & set(STEERING):
                    raise CycleError(f"line {one.line}, within its contour, steers the program")
                self.block(one)
                if index == begin:
                    ahead, letters = len(gathered), one.said.last
            self._corner_left(block.line)
        finally:
            self._state, self._used, self._next, self._collected, self._steady = kept, used, goes_on, None, None
            self._corner = self._angle_open = None
        self._contours[first, last] = begin, end
        pieces = gathered[ahead:]
        if not pieces:
            raise CycleError("its contour is empty")
        (along_x, along_z) = self._dialect.relative
        both = ("X" in letters or along_x in letters) and ("Z" in letters or along_z in letters)
        if skip and begin >= self._next:
            self._next = end + 1
        else:
            del self._numbers[counted:]
        return pieces, both

    _steady: object = None
    _contours: dict[tuple[float | None, float | None], tuple[int, int]]
    """Where contours stood that a cycle has roughed, by their first and last block."""

    _gone_straight = False
    """The block that is obeyed makes a rapid or a straight cut."""
    _cut_checked: tuple[int, int] | None = None
    """The tool and the section whose cuts have been looked at."""

    def _made(self, moves: list[Made], feed: float, block: Block) -> None:
        for one in moves:
            if one.how == "thread":
                self._thread(one.segment.end, feed, block)
            else:
                self._add(one.segment, None if one.how == "rapid" else feed, block)
