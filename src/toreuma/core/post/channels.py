"""One program a channel: its operations on both spindles, its part of the hand-over, and marks at which it waits."""

from collections.abc import Sequence

from toreuma.core.channels.hand_over import drawn_mm
from toreuma.core.channels.schedule import Item, Pinched, Schedule, Turn, cut_between, schedule
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act, Wait
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.model import Job
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan
from toreuma.core.post.writer import Posted, Writer

__all__ = ["post_channels"]

PLAIN = {
    "open_second": "second_open", "blow": "air_blast", "phase": "phase", "close_second": "second_close",
    "confirm": "closed_asked", "open_main": "unclamp", "close_main": "clamp_work", "unsync": "sync_off",
    "ask": "part_asked",
}  # fmt: skip
"""Acts that are one word, by the dialect's name for it."""

MOST_MARKS = 99


def post_channels(job: Job, sides: Sequence[Plan], taken: Transfer, dialect: Dialect) -> tuple[Posted, ...]:
    """The programs of all channels, by channel. Raises `ProgramError` where it cannot be written."""
    found, planned = [], schedule(job, sides, taken)
    marks = {one.mark for rows in (planned.begin, planned.again, planned.end) for row in rows.values()
             for one in row if isinstance(one, Wait)}  # fmt: skip
    if len(marks) > MOST_MARKS:
        what = f"the channels would meet at {len(marks)} marks, the control has {MOST_MARKS}"
        raise ProgramError("hand-over", what, "keep the tools of one side on one carrier")
    for channel in planned.begin:
        writer = _ChannelWriter(job, sides, taken, dialect, channel)
        name = dialect.file_of(job.program.number, channel)
        found.append(Posted(name, writer.write_schedule(planned)))
    return tuple(found)


class _ChannelWriter(Writer):
    """Writes one channel's items in their order."""

    def __init__(self, job: Job, sides: Sequence[Plan], taken: Transfer, dialect: Dialect, channel: int) -> None:
        super().__init__(sides[0], dialect)
        self._job, self._sides, self._taken, self._channel = job, sides, taken, channel
        self._spindle: int | None = 0
        self._drawn = (taken.settings.pull_mm or drawn_mm(sides[0])) if taken.settings.how == "pulled" else 0.0
        self._count = 0

    def write_schedule(self, planned: Schedule) -> str:
        """Once through, or a beginning, the program of a further part that is called so many times, and an end."""
        job = self._job
        names = " AND ".join(one.name for one in job.machine.carriers if one.channel == self._channel)
        title = f"{job.name}, channel {self._channel}, {names}"
        self._lines += ["%", f"O{job.program.number:04d} {self._comment(title)}"]
        self._lines += [self._comment(line) for line in self._dialect.caution]
        words = "X IS DIAMETER, " if self._dialect.x_is_diameter else "X IS RADIUS, "
        self._lines.append(self._comment(f"{words}{'INCH' if self._units == 'inch' else 'MM'}"))
        self._blocks(self._dialect.start)
        self._items(planned.begin[self._channel])
        if planned.again:
            number, parts = job.program.number + 1, job.program.parts - 1
            self._block(self._dialect.loop.format(**self._dialect.codes, number=number, parts=parts))
            self._spindle = None
            self._items(planned.end[self._channel])
        self._blocks(self._dialect.end)
        if planned.again:
            self._lines.append(f"O{job.program.number + 1:04d} {self._comment('one more part')}")
            self._spindle = None
            self._items(planned.again[self._channel])
            self._block(self._dialect.codes["return"])
        self._lines.append("%")
        return "\n".join(self._lines) + "\n"

    def _items(self, items: Sequence[Item]) -> None:
        for item in items:
            if isinstance(item, Wait):
                digits = "".join(str(one) for one in sorted(item.channels))
                self._block(self._dialect.wait.format(mark=self._dialect.wait_from + item.mark - 1, channels=digits))
            elif isinstance(item, Turn):
                self._turn(item)
            elif isinstance(item, Pinched):
                self._pinched(item)
            else:
                self._act(item)

    def _at(self, side: int) -> None:
        """Take a spindle in hand; the tool goes there by way of the reference point."""
        codes = self._dialect.codes
        if side != self._spindle:
            self._spindle = side
            self._home()
            self._block(codes["second_spindle" if side else "main_spindle"])
            self._block(codes["second_offset" if side else "work_offset"])

    def _turn(self, turn: Turn) -> None:
        self._at(turn.side)
        self._plan = self._sides[turn.side]
        self._count += 1
        apart = turn.planned is cut_between(self._sides[0], self._taken)
        self._shift_z = self._drawn if apart else 0.0  # the part stands farther out by what was drawn
        self._operation(turn.planned, self._count, "")
        self._shift_z = 0.0

    def _pinched(self, item: Pinched) -> None:
        """One of two tools that rough at the same time; the one behind takes the speed from the other channel."""
        self._at(item.side)
        self._plan = self._sides[item.side]
        first = item.motions[0]
        if item.begins:
            self._count += 1
            operation = item.planned.operation
            title = f"{operation.name or operation.kind}, {'ahead' if item.leads else 'behind'}"
            self._lines.append(self._comment(self._dialect.section.format(number=self._count, name=title)))
            tool = next((one for one in self._job.tools if one.station == first.station), None)
            if tool is not None:
                self._lines.append(self._comment(f"{tool.id} {tool.name}"))
            self._call(first, self._dialect.tool if item.leads else self._dialect.tool_shared)
        for motion in item.motions:
            self._motion(motion)
        if item.ends:
            word = self._dialect.tool_off_word.format(station=first.station)
            self._blocks(self._dialect.after_tool, tool_off_word=word)

    def _taken_words(self, planned: OperationPlan) -> tuple[str, str]:
        """The second spindle holds what is cut off."""
        return ("", "") if self._taken.settings.how != "released" else super()._taken_words(planned)

    def _act(self, act: Act) -> None:
        """The blocks of one act of the hand-over."""
        codes, settings = self._dialect.codes, self._taken.settings
        axis = self._dialect.second_axis
        self._lines.append(self._comment(act.words))
        if act.code in PLAIN:
            self._block(codes[PLAIN[act.code]])
        elif act.code == "park":
            self._home()
            self._block(codes["spindle_stop"])
        elif act.code == "unload":
            self._at(1)
            self._block(codes["spindle_stop"])
            self._block(codes["second_open"])
            self._block(codes["part_out"])
        elif act.code == "turn":
            self._at(0)
            self._block(f"{codes['fixed_speed']} S{self._turns(settings.rpm)} {codes['spindle_forward']}")
        elif act.code == "sync":
            self._block(f"{codes['sync']} S{self._turns(settings.rpm)}")
        elif act.code == "come":
            self._block(f"{codes['rapid']} {axis}{self._length(self._near)}")
        elif act.code == "feed":
            self._block(f"{codes['push_limit']} P{settings.push_n:.0f}")
            feed = self._feed_text(settings.feed_mm_min * self._scale, self._dialect.minute_decimals[self._units])
            self._block(f"{codes['line']} {axis}{self._length(self._taken.jaw_face_z)} {feed}")
        elif act.code == "pull":
            feed = self._feed_text(settings.feed_mm_min * self._scale, self._dialect.minute_decimals[self._units])
            place = self._length(self._taken.jaw_face_z + self._drawn)
            self._block(f"{codes['line']} {axis}{place} {feed}")
        elif act.code == "settle":
            self._pause(settings.dwell_s)
        elif act.code == "retreat":
            self._block(f"{codes['rapid']} {axis}{self._length(self._taken.jaw_face_z + self._taken.back_mm)}")
            datum = self._length(self._taken.datum_mm)
            self._block(self._dialect.set_second_datum.format(**codes, place=datum))
        self._move = ""

    @property
    def _near(self) -> float:
        """Where the rapid to the grip ends."""
        second = self._job.setups[1].hold
        return self._taken.jaw_face_z + second.grip_length_mm + self._taken.settings.approach_mm

    def _turns(self, rpm: float) -> str:
        return self._speed_text(self._dialect.steps(self._units).turns(rpm, typed=True))

    def _length(self, mm: float) -> str:
        return self._number_text(mm * self._scale, self._places)
