"""Writes a plan as program text in a dialect."""

import math
import unicodedata
from dataclasses import dataclass
from itertools import groupby

from toreuma.core.cycle_words import counts_steps, letters_of, told_by
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.geometry.elements import Arc, Point, Segment
from toreuma.core.model import Tool
from toreuma.core.model.steps import FT_MM
from toreuma.core.motion import Motion, Spindle
from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import Cycle, OperationPlan, Word
from toreuma.core.post.driven import DrivenWords

__all__ = ["Posted", "Writer", "post"]


@dataclass(frozen=True)
class Posted:
    """Program text and a name for its file."""

    name: str
    text: str


TAKEN = {"caught": ("catcher_out", "catcher_in"), "picked": ("pick_off_hold", "pick_off_away")}
"""What is done before and after a part is cut off, by where it goes."""

SAME_SPEED = 1e-6
"""What may be lost of a speed where it is written."""


CENTRE = {True: "centre_in", False: "centre_out"}


def post(plan: Plan, dialect: Dialect) -> Posted:
    """Write the whole plan as one program.

    Raises `ProgramError` when there is nothing to write.
    """
    if not any(operation.motions for operation in plan.operations):
        raise ProgramError("program", "no operation cuts anything", "add an operation or mend its findings")
    writer = Writer(plan, dialect)
    text = writer.write()
    return Posted(dialect.file_of(plan.job.program.number), text)


class Writer(DrivenWords):
    """Writes blocks one after the other; what stays in force is not said twice."""

    def __init__(self, plan: Plan, dialect: Dialect) -> None:
        self._plan = plan
        self._dialect = dialect
        self._units = plan.job.units
        self._places = dialect.decimals[self._units]
        self._scale = 1 / 25.4 if self._units == "inch" else 1.0
        self._line_step = 0 if plan.job.program.numbering == "none" else dialect.line_step
        self._lines: list[str] = []
        self._number = 0
        self._move = ""
        self._feed = ""
        self._x = ""
        self._z = ""
        self._contours: dict[str, tuple[int, int]] = {}
        self._shift_z = 0.0
        self._minute = False
        self._square_in = ""
        """The operation whose threads are told to end square, where the control would run them out."""

    def write(self) -> str:
        job = self._plan.job
        self._lines += ["%", f"O{job.program.number:04d} {self._comment(job.name)}"]
        self._lines += [self._comment(line) for line in self._dialect.caution]
        words = "X IS DIAMETER, " if self._dialect.x_is_diameter else "X IS RADIUS, "
        self._lines.append(self._comment(f"{words}{'INCH' if self._units == 'inch' else 'MM'}"))
        self._blocks(self._dialect.start)
        if job.program.parts == 1:
            self._operations()
            self._blocks(self._dialect.end)
        else:
            number = job.program.number + 1
            self._block(self._dialect.loop.format(**self._dialect.codes, number=number, parts=job.program.parts))
            self._blocks(self._dialect.end)
            self._lines.append(f"O{number:04d} {self._comment('one part')}")
            self._operations()
            self._block(self._dialect.codes["return"])
        self._lines.append("%")
        return "\n".join(self._lines) + "\n"

    def _operations(self) -> None:
        numbers = {operation.id: count for count, operation in enumerate(self._plan.job.operations, 1)}
        centre = self._plan.job.setup.centre is not None
        is_in = False
        for planned in self._plan.operations:
            if not planned.motions:
                continue
            wanted = centre and not planned.operation.centre_back
            self._operation(planned, numbers[planned.operation.id], "" if wanted == is_in else CENTRE[wanted])
            is_in = wanted
        if is_in:
            self._block(self._dialect.codes["centre_out"])

    def _operation(self, planned: OperationPlan, number: int, first: str) -> None:
        title = self._dialect.section.format(number=number, name=planned.operation.name or planned.operation.kind)
        self._lines.append(self._comment(title))
        if first:
            self._block(self._dialect.codes[first])
        tools = [tool for tool in map(self._plan.job.tool, planned.operation.tools) if tool is not None]
        start = 0
        for station, run in groupby(planned.motions, key=lambda motion: motion.station):
            count = len(list(run))
            tool = next((one for one in tools if one.station == station), None)
            self._run(planned, start, start + count, tool)
            start += count

    def _run(self, planned: OperationPlan, start: int, end: int, tool: Tool | None) -> None:
        """The moves of one tool, from its call to the stop after it."""
        if tool is not None:
            self._lines.append(self._comment(f"{tool.id} {tool.name}"))
        first = planned.motions[start]
        begins = {"fixed": self._dialect.tool_fixed, "stopped": self._dialect.tool_stopped}
        after = self._dialect.after_tool if first.driven is None else self._dialect.after_driven
        plain = begins.get(first.spindle.mode, self._dialect.tool)
        self._call(first, self._dialect.tool_driven if first.driven else plain)
        out, back = self._taken_words(planned)
        if out:
            self._block(self._dialect.codes[out])
        cycles = {cycle.first: cycle for cycle in planned.cuts.cycles if self._has(cycle)}
        covered = start
        for index, motion in enumerate(planned.motions[start:end], start):
            if index in cycles:
                self._cycle(cycles[index], planned.motions, planned.operation.id)
                covered = index + cycles[index].count
            elif index >= covered:
                self._motion(motion)
        if back:
            self._block(self._dialect.codes[back])
        if self._minute:
            self._minute = False
            self._block(self._dialect.codes["feed_per_rev"])
        self._blocks(after, tool_off_word=self._dialect.tool_off_word.format(station=first.station))

    def _call(self, first: Motion, template: tuple[str, ...]) -> None:
        """A tool is called, with its speed, and goes to where its first move begins."""
        self._move = self._feed = self._x = self._z = ""
        self._blocks(
            template,
            **self._begin_driven(first),
            tool_word=self._dialect.tool_word.format(station=first.station),
            **self._speed_words(first.spindle),
            x=self._x_word(first.start[1]),
            z=self._z_word(first.start[0]),
        )
        self._x, self._z = self._x_word(first.start[1]), self._z_word(first.start[0])
        self._move = self._dialect.codes["rapid"]

    def _speed_words(self, spindle: Spindle) -> dict[str, str]:
        """Speeds as words for the template. Raises `ProgramError` for one that the control's steps would change."""
        value, clamp = spindle.value, spindle.clamp_rpm or 0.0
        surface = value / (FT_MM / 1000) if self._units == "inch" else value
        return {
            "clamp_rpm": self._speed_text(clamp),
            "surface": self._speed_text(surface) if spindle.mode == "surface" else "",
            "fixed_rpm": self._speed_text(value) if spindle.mode == "fixed" else "",
        }

    def _speed_text(self, number: float) -> str:
        text = f"{number:.{self._dialect.speed_decimals}f}"
        if abs(float(text) - number) > SAME_SPEED * max(number, 1.0):
            what = f"the control takes no S{number:g}: it would turn at S{text}"
            raise ProgramError("program", what, "plan the job again for this control")
        return text

    def _feed_text(self, feed: float, decimals: int) -> str:
        """A feed of the program's units. Raises `ProgramError` for one too small to be written."""
        if round(feed, decimals) <= 0:
            raise ProgramError("program", f"the control takes no F{feed:g}", "choose a larger feed")
        return f"F{self._number_text(feed, decimals)}"

    def _taken_words(self, planned: OperationPlan) -> tuple[str, str]:
        """What is said before and after a cut for the part not to fall."""
        return TAKEN.get(planned.operation.taken, ("", "")) if planned.operation.kind == "part_off" else ("", "")

    def _event(self, motion: Motion) -> None:
        """Something the machine does while no axis moves, and the time it takes."""
        codes = self._dialect.codes
        if motion.event:
            self._block(codes["clamp_work" if motion.event == "clamp" else motion.event])
        if motion.dwell_s > 0:
            self._pause(motion.dwell_s)

    def _pause(self, seconds: float) -> None:
        thousandths = round(1000 * seconds)
        words = {"milliseconds": str(thousandths), "seconds": self._number_text(thousandths / 1000, 3)}
        self._block(self._dialect.pause.format(**self._dialect.codes, **words))

    def _home(self) -> None:
        """To the reference point, one axis after the other."""
        self._blocks(self._dialect.home)

    def _motion(self, motion: Motion) -> None:
        if motion.driven is not None:
            self._driven(motion, motion.driven)
            return
        if motion.event or motion.dwell_s:
            self._event(motion)
            return
        x, z = self._x_word(motion.end[1]), self._z_word(motion.end[0])
        if (x, z) == (self._x, self._z):
            return
        codes = self._dialect.codes
        words: list[str] = []
        arc = motion.segment if isinstance(motion.segment, Arc) else None
        centre = self._centre_words(arc) if arc else None
        if motion.is_rapid:
            move = codes["rapid"]
        elif motion.in_step:
            move = codes["thread"]
        elif arc is None or centre is None:
            move = codes["line"]
        else:
            move = codes["arc_clockwise"] if arc.clockwise else codes["arc_counter_clockwise"]
        if move != self._move:
            words.append(move)
        words += [x] if centre or x != self._x else []
        words += [z] if centre or z != self._z else []
        words += [centre] if centre else []
        if motion.feed is not None and motion.per_minute != self._minute:
            self._minute = motion.per_minute
            words.insert(0, codes["feed_per_minute" if self._minute else "feed_per_rev"])
        if motion.in_step and motion.feed is not None and self._dialect.thread_lead == "along":
            lead = self._feed_text(motion.feed * self._scale, self._dialect.feed_decimals[self._units])[1:]
            along = abs(motion.end[0] - motion.start[0]) >= abs(motion.end[1] - motion.start[1])
            words.append(f"{'K' if along else 'I'}{lead}")
        elif motion.feed is not None:
            decimals = self._dialect.minute_decimals if motion.per_minute else self._dialect.feed_decimals
            feed = self._feed_text(motion.feed * self._scale, decimals[self._units])
            if feed != self._feed:
                words.append(feed)
                self._feed = feed
        self._block(" ".join(words))
        self._move, self._x, self._z = move, x, z

    def _cycle(self, cycle: Cycle, motions: tuple[Motion, ...], operation: str) -> None:
        """A run of moves as one or two blocks, with the contour they follow, and the word that ends them."""
        codes = self._dialect.codes
        if cycle.name == "thread_cycle" and self._dialect.thread_run_out and self._square_in != operation:
            self._square_in = operation
            self._block(codes["chamfer_off"])
        contour = self._contour_blocks(cycle.contour)
        first = self._number + (len(self._dialect.cycles[cycle.name]) + 1) * self._step
        if contour:
            self._contours[operation] = (first, first + (len(contour) - 1) * self._step)
        numbers = self._contours.get(cycle.contour_of or operation, (0, 0))
        start_z = motions[cycle.first].start[0]
        told = {word.what: word for word in cycle.words}
        for template in self._dialect.cycles[cycle.name]:
            written = [(one[0], told[told_by(one)]) for one in template.split() if told_by(one) in told]
            words = [letter + self._cycle_number(letter, word, numbers, start_z) for letter, word in written]
            self._block(" ".join([codes[cycle.name], *words]))
        for number, text in enumerate(contour):
            marked = not self._line_step and number in (0, len(contour) - 1)
            self._block(text, number=first + number if marked else None)
        if cycle.ends and self._dialect.has("cycle_off"):
            self._block(codes["cycle_off"])
        self._feed = self._move = ""
        after = motions[cycle.first + cycle.count - 1].end
        self._x, self._z = self._x_word(after[1]), self._z_word(after[0])

    @property
    def _step(self) -> int:
        return self._line_step or 1

    def _cycle_number(self, letter: str, word: Word, contour: tuple[int, int], start_z: float) -> str:
        """What a cycle is told, as a number without its letter."""
        number, scale = word.number, self._scale
        double = 2 if self._dialect.x_is_diameter else 1
        return {
            "x": lambda: self._x_word(number)[1:],
            "z": lambda: self._z_word(number)[1:],
            "across": lambda: self._number_text(number * double * scale, self._places),
            "length": lambda: self._number_text(number * scale, self._places),
            "above": lambda: self._above(number, start_z),
            "fine": lambda: self._fine_text(number * scale, counts_steps(letter, word.what)),
            "count": lambda: f"{number:.0f}",
            "padded": lambda: f"{number:06.0f}",
            "feed": lambda: self._number_text(number * scale, self._dialect.feed_decimals[self._units]),
            "first": lambda: str(contour[0]),
            "last": lambda: str(contour[1]),
        }[word.how]()

    def _fine_text(self, number: float, in_steps: bool) -> str:
        """A number that is written in smallest steps where its letter counts them."""
        if not in_steps or not self._dialect.cycles_count_steps:
            return self._number_text(number, self._places)
        return str(round(number * 10 ** self._dialect.smallest[self._units]))

    def _has(self, cycle: Cycle) -> bool:
        """Whether a run of moves is written as the control's cycle: it has to be told all that makes its moves."""
        form = self._dialect.cycles.get(cycle.name)
        if form is None or not self._dialect.has(cycle.name) or self._plan.job.program.long_hand:
            return False
        if cycle.name == "thread_cycle" and self._dialect.thread_run_out and not self._dialect.has("chamfer_off"):
            return False
        told = {what for block in letters_of(form) for what in block.values()}
        needed = {word.what for word in cycle.words if word.number or word.how in ("x", "z", "first", "last")}
        return needed <= told | {"lift", "retract", "x", "z", "bottom"}

    def _above(self, z: float, start_z: float) -> str:
        """Where a drilling cycle begins to feed: its place, or how far that is from where the cycle begins."""
        if self._dialect.drill_above == "place":
            return self._z_word(z)[1:]
        return self._number_text((z - start_z) * self._scale, self._places)

    def _contour_blocks(self, contour: tuple[Segment, ...]) -> list[str]:
        """The first goes to the contour's start along one axis; the others follow it."""
        if not contour:
            return []
        codes, start = self._dialect.codes, contour[0].start
        words = (self._x_word(start[1]), self._z_word(start[0]))
        blocks = [f"{codes['rapid']} {' '.join(word for word in words if word not in (self._x, self._z))}"]
        self._x, self._z, self._move = *words, codes["rapid"]
        for segment in contour:
            text = self._words_along(segment)
            if text:
                blocks.append(text)
        return blocks

    def _words_along(self, segment: Segment) -> str:
        """Where a segment goes, without a feed."""
        codes = self._dialect.codes
        x, z = self._x_word(segment.end[1]), self._z_word(segment.end[0])
        if (x, z) == (self._x, self._z):
            return ""
        arc = segment if isinstance(segment, Arc) else None
        centre = self._centre_words(arc) if arc else None
        move = codes["line"]
        if arc is not None and centre is not None:
            move = codes["arc_clockwise"] if arc.clockwise else codes["arc_counter_clockwise"]
        words = [move] if move != self._move else []
        words += [x] if centre or x != self._x else []
        words += [z] if centre or z != self._z else []
        words += [centre] if centre else []
        self._move, self._x, self._z = move, x, z
        return " ".join(words)

    def _centre_words(self, arc: Arc) -> str | None:
        """R, or I and K from the start; None for an arc that is a straight line at this resolution."""
        start, end = self._rounded(arc.start), self._rounded(arc.end)
        chord = math.dist(start, end)
        if chord < 1e-9 or chord**2 / (8 * arc.radius) < 0.1 * 10**-self._places / self._scale:
            return None
        if self._plan.job.program.arcs == "R":
            radius = arc.radius * self._scale
            least = chord / 2 * self._scale
            large = -1.0 if abs(arc.sweep_rad) > math.pi else 1.0  # R alone is the arc of at most half a turn
            return f"R{self._number_text(large * max(radius, least), self._places)}"
        across = (arc.centre[1] - start[1]) * self._scale
        along = (arc.centre[0] - start[0]) * self._scale
        return f"I{self._number_text(across, self._places)} K{self._number_text(along, self._places)}"

    def _rounded(self, point: Point) -> Point:
        unit = self._scale * 10**self._places
        double = 2.0 if self._dialect.x_is_diameter else 1.0
        return round(point[0] * unit) / unit, round(point[1] * double * unit) / unit / double

    def _x_word(self, r: float) -> str:
        value = r * self._scale * (2 if self._dialect.x_is_diameter else 1)
        return f"X{self._number_text(value, self._places)}"

    def _z_word(self, z: float) -> str:
        return f"Z{self._number_text((z + self._shift_z) * self._scale, self._places)}"

    @staticmethod
    def _number_text(value: float, places: int) -> str:
        """A number with its decimal point and no needless zeros: 12. 0.5 -3.25. Raises `ProgramError`."""
        if not math.isfinite(value):
            raise ProgramError("program", "a move leads nowhere", "look at the operation's findings, or leave it out")
        text = f"{value:.{places}f}".rstrip("0")
        return "0." if text in ("-0.", "0.", "-0", "0") else text

    def _comment(self, text: str) -> str:
        """Plain capitals without anything a control could take for the end of the comment."""
        opening, closing = self._dialect.comment
        plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().upper()
        kept = "".join(c if c.isalnum() or c in " .,:-/+=" else " " for c in plain)
        return f"{opening}{' '.join(kept.split())}{closing}"

    def _blocks(self, templates: tuple[str, ...], **values: str) -> None:
        known = {**self._dialect.codes, "units": self._dialect.codes[self._units], **values}
        for template in templates:
            self._block(template.format(**known))

    def _block(self, words: str, number: int | None = None) -> None:
        self._number += self._line_step
        if self._line_step:
            number = self._number
        self._lines.append(words if number is None else f"N{number} {words}")
