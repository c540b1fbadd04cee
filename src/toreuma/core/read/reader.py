"""Reads program text into moves, block by block, knowing only the dialect."""

import math
import re
from collections import Counter
from dataclasses import dataclass, field, replace

from toreuma.core.control_cycles import Made
from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.elements import Arc, Line, Point, Segment, arc_through_ends
from toreuma.core.motion import PECK_BACK_OFF_MM, STOPPED, Event, Motion, Spindle, peck_bottoms
from toreuma.core.read.cycles import BOXES, FOLLOWING, MULTIPLE, CycleError, Words
from toreuma.core.read.words import Block, blocks_of

__all__ = ["Program", "Section", "read"]

EVENTS: dict[str, Event] = {
    "unclamp": "unclamp",
    "clamp_work": "clamp",
    "centre_in": "centre_in",
    "centre_out": "centre_out",
}

MOST_CALLS = 4
"""Programs that call each other deeper than this are none."""

ARC_ENDS_MM = 0.003
"""How far start and end of an arc given by its centre may differ in radius."""


@dataclass(frozen=True)
class Section:
    """A stretch of the program opened by an operation's comment; ``number`` is what the comment says."""

    number: int
    title: str
    line: int


@dataclass(frozen=True)
class Program:
    """What the text does: moves in order, sections, and everything in it that is wrong.

    A program that is called is read once; ``parts`` is how often it is run.
    """

    text: str
    motions: tuple[Motion, ...]
    sections: tuple[Section, ...]
    findings: tuple[Finding, ...]
    parts: int = 1


def read(text: str, dialect: Dialect, reference: Point) -> Program:
    """Read a program. ``reference`` is the turret's reference point (z, r) in mm, where the tool starts.

    Nothing raises: what cannot be understood becomes an error finding with its line.
    """
    reader = _Reader(dialect, reference, list(blocks_of(text, dialect)))
    reader.run()
    return reader.program(text)


@dataclass
class _State:
    """Everything that stays in force from block to block."""

    at: Point
    scale: float = 1.0
    units_set: bool = False
    move: str = ""
    feed: float | None = None
    per_minute: bool | None = None
    surface: bool | None = None
    speed: float = 0.0
    clamp: float | None = None
    running: bool = False
    station: int = 0
    offset: int = 0
    offset_line: int = 0
    section: int = -1
    ended: bool = False
    firsts: dict[str, Block] = field(default_factory=dict)
    warned: set[str] = field(default_factory=set)


class _Reader:
    def __init__(self, dialect: Dialect, reference: Point, blocks: list[Block]) -> None:
        self._blocks = blocks
        self._next = 0
        self._starts = {int(n): i for i, n in enumerate(block.value("O") for block in blocks) if n is not None}
        self._calls: list[int] = []
        self._parts = 1
        self._dialect = dialect
        self._reference = reference
        self._state = _State(at=reference)
        self._names = {_normal(code): name for name, code in dialect.codes.items()}
        pattern = re.escape(dialect.section).replace(r"\{number\}", r"(\d+)").replace(r"\{name\}", "(.*)")
        self._section = re.compile(pattern, re.I)
        self._motions: list[Motion] = []
        self._sections: list[Section] = []
        self._findings: list[Finding] = []
        self._numbers: list[tuple[int, int] | None] = []

    def run(self) -> None:
        """Obey the blocks in order, up to where another program begins."""
        begun = False
        while self._next < len(self._blocks):
            block = self._blocks[self._next]
            if block.value("O") is not None and begun and not self._calls:
                break
            begun = begun or block.value("O") is not None
            self._next += 1
            self.block(block)

    def program(self, text: str) -> Program:
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
        return Program(text, tuple(self._motions), tuple(self._sections), tuple(self._findings), self._parts)

    def block(self, block: Block) -> None:
        for comment in block.comments:
            match = self._section.fullmatch(comment)
            if match:
                self._state.section = len(self._sections)
                self._sections.append(Section(int(match.group(1)), match.group(2), block.line))
        if block.unread:
            self._say(
                "error",
                "program.unread",
                block.line,
                f"'{block.unread[:20]}' was not understood",
                "the rest of the block was left out",
            )
        if not block.words:
            return
        if self._state.ended:
            self._once(
                "error",
                "program.after_end",
                block.line,
                "words stand after the end of the program",
                "the control would not run them",
            )
            return
        self._words(block)

    def _words(self, block: Block) -> None:
        state = self._state
        names = []
        for letter, number in block.words:
            if letter in "GM":
                name = self._names.get(_normal(f"{letter}{number:g}"))
                if name is None:
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
            elif letter not in "OXZUWRIKFSTPQL":
                self._say(
                    "error",
                    "program.word",
                    block.line,
                    f"the word {letter}{number:g} is not in the dialect",
                    "what it would do is not known",
                )
        # Words take effect in the order a control obeys them: units and modes, tool, speed, feed, then moves.
        for name in names:
            self._mode(name, block)
        multiple = next((name for name in names if name in MULTIPLE), None)
        tool = block.value("T")
        if tool is not None:
            self._tool(int(tool), block)
        if "clamp" not in names and block.value("S") is not None:
            self._speed(float(block.value("S") or 0), block)
        if block.value("F") is not None:
            self._set_feed(float(block.value("F") or 0), block)
        if multiple is not None:
            self._multiple(multiple, block)
        elif "reference" in names:
            self._to_reference(block)
        elif any(name in names for name in ("call", "return")):
            pass
        elif "dwell" in names:
            self._dwell(block)
        elif "clamp" not in names and any(block.value(letter) is not None for letter in "XZUW"):
            self._travel(block)
        for name in names:
            if name in EVENTS:
                self._event(EVENTS[name], block)
        if "call" in names:
            self._call(block)
        if "return" in names:
            self._return(block)
        if "end" in names:
            state.ended = True
        if "spindle_stop" in names or "end" in names:
            state.running = False

    def _mode(self, name: str, block: Block) -> None:
        state = self._state
        if name in (
            "rapid",
            "line",
            "thread",
            "tap_cycle",
            "peck_cycle",
            "thread_cycle",
            "turn_cycle",
            "face_cycle",
            "arc_clockwise",
            "arc_counter_clockwise",
        ):
            state.move = name
        elif name in ("mm", "inch"):
            state.scale, state.units_set = (25.4 if name == "inch" else 1.0), True
        elif name in ("feed_per_minute", "feed_per_rev"):
            state.per_minute = name == "feed_per_minute"
        elif name in ("surface_speed", "fixed_speed"):
            state.surface = name == "surface_speed"
            if state.surface and state.clamp is None:
                self._say(
                    "error",
                    "speed.no_clamp",
                    block.line,
                    "constant surface speed without a speed clamp",
                    "near the centre the spindle runs away and the jaws open",
                )
        elif name in ("spindle_forward", "spindle_reverse"):
            state.running = True
            if name == "spindle_reverse":
                self._once(
                    "warning",
                    "spindle.reverse",
                    block.line,
                    "the spindle runs in reverse",
                    "right-hand tools above the axis cut with the spindle forward",
                )
        elif name == "clamp":
            self._clamp(block)
        elif name == "cycle_off":
            state.move = ""

    def _clamp(self, block: Block) -> None:
        speed = block.value("S")
        if speed is None or any(block.value(letter) is not None for letter in "XZUW"):
            self._say(
                "error",
                "program.shift",
                block.line,
                "a coordinate shift is not read",
                "every place after it would be uncertain",
            )
            return
        self._state.clamp = speed

    def _event(self, event: Event, block: Block) -> None:
        """The hold opens or closes, the centre comes or goes."""
        if self._state.running and event in ("unclamp", "clamp"):
            self._say(
                "error",
                "hold.turning",
                block.line,
                "the hold is moved while the spindle turns",
                "the bar is thrown out",
            )
        place = Line(self._state.at, self._state.at)
        self._motions.append(replace(self._motion(place, None, block), event=event))

    def _call(self, block: Block) -> None:
        """Another program in the same text is run so many times; what it does is read once."""
        number, times = block.value("P"), block.value("L")
        start = self._starts.get(int(number)) if number is not None else None
        if start is None or len(self._calls) >= MOST_CALLS:
            why = "the control stops there"
            self._say("error", "program.call", block.line, f"there is no program {number or 0:.0f} in this text", why)
            return
        self._parts *= max(int(times), 1) if times is not None else 1
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

    def _tool(self, number: int, block: Block) -> None:
        station, offset = (number // 100, number % 100) if number >= 100 else (number, number)
        self._state.offset, self._state.offset_line = offset, block.line
        self._state.station = station
        if offset != station and offset != 0:
            self._say(
                "warning",
                "tool.offset",
                block.line,
                f"station {station} is used with offset {offset}",
                "the size of another tool would count",
            )
        self._state.feed = None
        self._state.surface = None

    def _speed(self, number: float, block: Block) -> None:
        if self._state.surface is None:
            self._say(
                "error",
                "speed.mode",
                block.line,
                "a speed without saying surface or spindle speed",
                "it would be taken as whatever was in force",
            )
        self._state.speed = number

    def _set_feed(self, number: float, block: Block) -> None:
        if number <= 0:
            self._say("error", "feed.zero", block.line, f"the feed is {number:g}", "the tool would stand and rub")
            return
        self._state.feed = number * self._state.scale

    def _dwell(self, block: Block) -> None:
        seconds = block.value("P") or block.value("X") or block.value("U") or 0.0
        if block.value("P") is not None:
            seconds /= 1000
        self._motions.append(replace(self._motion(Line(self._state.at, self._state.at), None, block), dwell_s=seconds))

    def _to_reference(self, block: Block) -> None:
        z, r = self._target(block)
        if (z, r) != self._state.at:
            self._add(Line(self._state.at, (z, r)), None, block)
        z = self._reference[0] if block.value("Z") is not None or block.value("W") is not None else z
        r = self._reference[1] if block.value("X") is not None or block.value("U") is not None else r
        self._add(Line(self._state.at, (z, r)), None, block)

    def _target(self, block: Block) -> Point:
        scale, (z, r) = self._state.scale, self._state.at
        across = scale / 2 if self._dialect.x_is_diameter else scale
        for letter, number in block.words:
            if letter == "X":
                r = number * across
            elif letter == "U":
                r += number * across
            elif letter == "Z":
                z = number * scale
            elif letter == "W":
                z += number * scale
        return z, r

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
        target = self._target(block)
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

    def _cycle(self, target: Point, feed: float, block: Block) -> None:
        """The moves a control makes from one block: tapping, pecking, one pass of a thread."""
        state, start = self._state, self._state.at
        back = block.value("R")
        back_z = start[0] if back is None else back * state.scale
        if state.move in BOXES:
            self._made(BOXES[state.move](start, *target), feed, block)
            return
        self._add(Line(start, (back_z, start[1])), None, block)
        if state.move == "tap_cycle":
            self._thread((target[0], start[1]), feed, block)
            self._thread((back_z, start[1]), feed, block)
            return
        peck = (
            (block.value("Q") or 0.0) * state.scale / 10 ** self._dialect.decimals["inch" if state.scale != 1 else "mm"]
        )
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
            words = Words(state.firsts.get(name), block, state.at, target, state.scale, across, fine, feed, contour)
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
            for letter, number in one.words:
                name = self._names.get(_normal(f"{letter}{number:g}"), "") if letter == "G" else ""
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

    def _thread(self, target: Point, lead: float, block: Block) -> None:
        """A move in step with the spindle: the feed is the lead."""
        if self._state.surface:
            self._once(
                "error",
                "thread.surface",
                block.line,
                "a thread with constant surface speed",
                "the spindle changes its speed between passes and the thread is crossed",
                key=f"thread{self._state.section}",
            )
        if target != self._state.at:
            made = self._motion(Line(self._state.at, target), lead, block)
            made = replace(made, in_step=True, per_minute=False)
            self._motions.append(made.follows(self._motions[-1] if self._motions else None))
        self._state.at = target

    def _feed_in_force(self, block: Block) -> float:
        state = self._state
        if state.feed is None:
            self._once(
                "error",
                "feed.missing",
                block.line,
                "a cutting move without a feed",
                "a feed of 0.1 was assumed",
                key=f"feed{state.section}",
            )
        if state.per_minute is None:
            self._once(
                "error",
                "feed.mode",
                block.line,
                "the feed is neither per revolution nor per minute",
                "per revolution was assumed",
            )
        if not state.running or state.speed <= 0 or state.surface is None:
            self._once(
                "error",
                "spindle.stopped",
                block.line,
                "a cutting move with the spindle standing or no speed set",
                "the edge breaks",
                key=f"spindle{state.section}{state.station}",
            )
        if state.station and not state.offset:
            self._once(
                "error",
                "tool.no_offset",
                block.line,
                f"station {state.station} cuts without its offset",
                "the machine does not know where its edge is",
                key=f"offset{state.section}{state.station}",
            )
        if state.station == 0:
            self._once(
                "error", "tool.none", block.line, "a cutting move before any tool is called", "what cuts is not known"
            )
        return state.feed or 0.1

    def _arc(self, target: Point, block: Block) -> Arc | None:
        state = self._state
        clockwise = state.move == "arc_clockwise"
        radius = block.value("R")
        i, k = block.value("I"), block.value("K")
        if radius is None and i is None and k is None:
            self._say("error", "arc.open", block.line, "an arc without a radius or centre", "it was read as a line")
            return None
        if radius is not None:
            try:
                chord = math.dist(state.at, target) / 2
                wanted = abs(radius) * state.scale
                # A radius rounded down to the program's resolution may miss half the chord by that much.
                wanted = max(wanted, chord) if chord - wanted < 0.002 else wanted
                return arc_through_ends(state.at, target, wanted, clockwise)
            except ValueError:
                self._say(
                    "error",
                    "arc.radius",
                    block.line,
                    f"radius {radius:g} cannot join the ends of the arc",
                    "it was read as a line",
                )
                return None
        centre = (state.at[0] + (k or 0.0) * state.scale, state.at[1] + (i or 0.0) * state.scale)
        gap = abs(math.dist(centre, state.at) - math.dist(centre, target))
        if gap > ARC_ENDS_MM:
            self._say(
                "error",
                "arc.centre",
                block.line,
                f"the ends of the arc differ by {gap:.3f} mm in radius",
                "the control stops or cuts another shape",
            )
        if math.dist(centre, state.at) < 1e-9:
            return None
        return Arc(state.at, target, centre, clockwise)

    def _motion(self, segment: Segment, feed: float | None, block: Block) -> Motion:
        state = self._state
        spindle = STOPPED
        if state.running and state.speed > 0 and state.surface is not None:
            metres = 0.3048 if state.scale != 1.0 else 1.0
            if state.surface:
                spindle = Spindle("surface", state.speed * metres, state.clamp)
            else:
                spindle = Spindle("fixed", state.speed, state.clamp)
        return Motion(segment, feed, spindle, state.station, bool(state.per_minute), block.line, state.section)

    def _add(self, segment: Segment, feed: float | None, block: Block) -> None:
        if segment.length > 1e-9:
            self._motions.append(self._motion(segment, feed, block))
        self._state.at = segment.end

    def _say(self, severity: Severity, code: str, line: int, what: str, why: str) -> None:
        self._findings.append(Finding(severity, code, f"line {line}: {what}", why, line=line))

    def _once(self, severity: Severity, code: str, line: int, what: str, why: str, key: str = "") -> None:
        mark = key or code
        if mark not in self._state.warned:
            self._state.warned.add(mark)
            self._say(severity, code, line, what, why)

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


def _normal(code: str) -> str:
    """G01, G1 and g1 are the same word."""
    return code[0].upper() + f"{float(code[1:]):g}"
