"""Travel, and the cycles that make many moves of one or two blocks."""

from toreuma.core.control_cycles import Made
from toreuma.core.geometry.elements import Line, Point, Segment
from toreuma.core.motion import PECK_BACK_OFF_MM, peck_bottoms
from toreuma.core.read.cycles import BOXES, FOLLOWING, MOST_PASSES, MULTIPLE, CycleError, Words
from toreuma.core.read.moves import Moves
from toreuma.core.read.state import normal
from toreuma.core.read.words import Block

__all__ = ["Cycling"]

ANYWHERE = frozenset("ONGMTSFXZUW")
"""Letters that mean something in every block that leads somewhere."""

SHAPES = {"arc_clockwise": "IKR", "arc_counter_clockwise": "IKR", "tap_cycle": "R", "peck_cycle": "RQ"}
"""Letters that shape a move, by the move; cycles of four corners have a taper."""


class Cycling(Moves):
    """Follows what a block with a place asks for."""

    _blocks: list[Block]
    _next: int
    _numbers: list[tuple[int, int] | None]

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
        if state.datum and (state.datum == "second_offset") is not state.second:
            self._once(
                "error",
                "datum.other",
                block.line,
                "the datum of the other spindle is in force",
                "every place is counted from somewhere else",
                key=f"datum{state.section}",
            )
        target, last = self._target(block), block.said.last
        self._all_used(block)
        if "C" in last and not state.polar:
            self._index(last["C"], block)
        if state.held_at_angle and (state.live_rpm or "Y" in last):
            self._driven(target, block)
            return
        if state.move == "":
            self._say("error", "program.move", block.line, "a place without a move word", "it was left out")
            return
        if state.move == "rapid":
            self._add(Line(state.at, target), None, block)
            return
        feed = self._feed_in_force(block)
        if state.move.endswith("_cycle"):
            self._cycle(target, feed, block)
            return
        if state.move == "thread":
            self._thread(target, feed, block)
            return
        segment: Segment = Line(state.at, target)
        if state.move.startswith("arc"):
            segment = self._arc(target, block) or segment
        self._add(segment, feed, block)

    def _all_used(self, block: Block) -> None:
        """Words that do nothing with this move were meant for another one."""
        state, last = self._state, block.said.last
        if ANYWHERE.issuperset(last):
            return
        shapes = "R" if state.move in BOXES else SHAPES.get(state.move, "")
        beside = "CY" if state.held_at_angle or state.polar else "C"
        more = [letter for letter in last if letter not in ANYWHERE and letter not in shapes + beside]
        if more:
            self._unused(more[0], block)

    def _unused(self, letter: str, block: Block) -> None:
        what = f"{letter}{block.value(letter):g} does nothing in this block"
        why = "it was meant for another move, or another control takes it as a corner or a cycle"
        self._say("error", "program.unused", block.line, what, why)

    def _cycle(self, target: Point, feed: float, block: Block) -> None:
        """The moves a control makes from one block: tapping, pecking, one pass of a thread."""
        state, start = self._state, self._state.at
        back = block.value("R")
        back_z = start[0] if back is None else back * state.scale
        if state.move in BOXES:
            if back is not None or "G" in block.said.last:
                state.taper = (back or 0.0) * state.scale
            self._made(BOXES[state.move](start, *target, state.taper), feed, block)
            return
        self._add(Line(start, (back_z, start[1])), None, block)
        if state.move == "tap_cycle":
            self._thread((target[0], start[1]), feed, block)
            self._thread((back_z, start[1]), feed, block)
            return
        peck = (
            (block.value("Q") or 0.0) * state.scale / 10 ** self._dialect.decimals["inch" if state.scale != 1 else "mm"]
        )
        if peck > 0 and (back_z - target[0]) / peck > MOST_PASSES:
            what = f"it would peck more than {MOST_PASSES} times"
            self._say("error", "cycle.words", block.line, what, "the control would stand there for hours")
            return
        for bottom in peck_bottoms(back_z, target[0], peck):
            if state.at[0] < back_z:
                above = state.at[0] + PECK_BACK_OFF_MM
                self._add(Line(state.at, (back_z, start[1])), None, block)
                self._add(Line(state.at, (above, start[1])), None, block)
            self._add(Line(state.at, (bottom, start[1])), feed, block)
        self._add(Line(state.at, (back_z, start[1])), None, block)

    def _multiple(self, name: str, block: Block) -> None:
        """A cycle of its own blocks: the first of two is kept, the last one makes the moves."""
        follows = name in FOLLOWING
        last = any(block.value(letter) is not None for letter in ("PQ" if follows else "XZUW"))
        if not last:
            self._state.firsts[name] = block
            return
        state, feed = self._state, self._feed_in_force(block)
        across = state.scale / 2 if self._dialect.x_is_diameter else state.scale
        fine = state.scale / 10 ** self._dialect.decimals["inch" if state.scale != 1 else "mm"]
        try:
            contour = self._contour(block, skip=name != "finish_cycle") if follows else ()
            target = state.at if follows else self._target(block)
            words = Words(
                first=state.firsts.get(name),
                block=block,
                at=state.at,
                target=target,
                scale=state.scale,
                across=across,
                fine=fine,
                feed=feed,
                contour=contour,
            )
            self._made(MULTIPLE[name](words), feed, block)
        except CycleError as error:
            self._say("error", "cycle.words", block.line, str(error), "the control stops, or cuts what nobody meant")

    def _contour(self, block: Block, skip: bool) -> tuple[Segment, ...]:
        """What stands between two block numbers, from where the tool is. ``skip``: the program goes on behind it."""
        first, last = block.value("P"), block.value("Q")
        at = {one.value("N"): index for index, one in enumerate(self._blocks) if one.value("N") is not None}
        begin, end = at.get(first), at.get(last)
        if begin is None or end is None or end < begin:
            raise CycleError(f"the blocks N{first or 0:.0f} to N{last or 0:.0f} of its contour are not there")
        state = self._state
        kept = state.at, state.move
        segments: list[Segment] = []
        for index in range(begin, end + 1):
            one = self._blocks[index]
            said = {self._names.get(normal(f"G{number:g}"), "") for letter, number in one.words if letter == "G"}
            if index == begin and not said & {"rapid", "line"}:
                raise CycleError(f"the block N{first or 0:.0f}, where its contour begins, says no move of its own")
            for letter, number in one.words:
                name = self._names.get(normal(f"{letter}{number:g}"), "") if letter == "G" else ""
                state.move = name if name in ("rapid", "line", "arc_clockwise", "arc_counter_clockwise") else state.move
            target = self._target(one)
            if index > begin and target != state.at:
                arc = self._arc(target, one) if state.move.startswith("arc") else None
                segments.append(arc or Line(state.at, target))
            state.at = target
        state.at, state.move = kept
        if not segments:
            raise CycleError("its contour is empty")
        if skip and begin >= self._next:
            skipped = (one.value("N") for one in self._blocks[self._next : end + 1])
            lines = (one.line for one in self._blocks[self._next : end + 1])
            self._numbers += [(int(n), line) for n, line in zip(skipped, lines, strict=True) if n is not None]
            self._next = end + 1
        return tuple(segments)

    def _made(self, moves: list[Made], feed: float, block: Block) -> None:
        for one in moves:
            if one.how == "thread":
                self._thread(one.segment.end, feed, block)
            else:
                self._add(one.segment, None if one.how == "rapid" else feed, block)
