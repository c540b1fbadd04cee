"""Who does what after whom: operations of both sides and the hand-over, in each channel, with computed waits."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from toreuma.core.channels.crossing import crossings
from toreuma.core.channels.keep_apart import held_back
from toreuma.core.channels.overlap import overlap
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act, Laid, Wait, laid_out
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan
from toreuma.core.plan.turn.pinch import couples, is_pinched, pinched_s
from toreuma.core.simulate.clock import times_of

__all__ = ["Item", "Pinched", "Schedule", "Turn", "cut_between", "is_steady", "schedule", "unloading", "works"]

EJECT_S = 0.6
"""The finished part is pushed out of the second hold."""


@dataclass(frozen=True)
class Turn:
    """An operation of a side (0 or 1), cut in its turn."""

    side: int
    planned: OperationPlan


@dataclass(frozen=True, kw_only=True)
class Pinched:
    """What one of two tools does that rough at the same time: its moves between two marks.

    ``leads``: it commands the speed. ``begins`` and ``ends``: the first and the last of its moves in the operation.
    """

    side: int
    planned: OperationPlan
    motions: tuple[Motion, ...]
    seconds: float
    leads: bool
    begins: bool
    ends: bool


Item = Turn | Pinched | Act | Wait
Rows = dict[int, tuple[Item, ...]]


@dataclass(frozen=True)
class Schedule:
    """The items of every channel: ``begin`` once, ``again`` for every further part, then ``end``.

    Where parts are made one by one, everything is in ``begin``.
    """

    begin: Rows
    again: Rows = field(default_factory=dict)
    end: Rows = field(default_factory=dict)

    def laid(self, rows: Rows) -> Laid:
        """When the items of some rows happen."""
        return laid_out({channel: tuple(_timed(one) for one in row) for channel, row in rows.items()})

    @property
    def cycle_s(self) -> float:
        """How long one further part takes; 0 where parts are made one by one."""
        return self.laid(self.again).total_s if self.again else 0.0


def _timed(item: Item) -> Act | Wait:
    if isinstance(item, Pinched):
        return Act("turn", "", item.seconds)
    return Act("turn", "", item.planned.times.total_s) if isinstance(item, Turn) else item


def is_steady(job: Job) -> bool:
    """Several parts in one run: while one is finished at the second spindle the next is begun at the first."""
    return job.hand_over is not None and job.machine.second is not None and job.program.parts > 1


def cut_between(first: Plan, taken: Transfer) -> OperationPlan | None:
    """The operation that parts off while both spindles hold the part, if any does."""
    if taken.settings.how == "released":
        return None
    return next((one for one in reversed(first.operations) if one.operation.kind == "part_off" and one.motions), None)


def works(sides: Sequence[Plan], taken: Transfer) -> tuple[tuple[OperationPlan, ...], ...]:
    """What each spindle cuts by itself: all but the cut while both hold the part."""
    apart = cut_between(sides[0], taken)
    return tuple(tuple(one for one in side.operations if one.motions and one is not apart) for side in sides[:2])


def unloading(job: Job) -> tuple[Act, ...]:
    """The finished part leaves the second hold."""
    second = job.machine.second
    return (Act("unload", "finished part out", (second.clamp_s if second is not None else 0.0) + EJECT_S),)


def schedule(job: Job, sides: Sequence[Plan], taken: Transfer) -> Schedule:
    """Everything in its order; marks are numbered on so that none is there twice in a program."""
    rows = _Rows(job, sides, taken)
    rows.cut(0)
    if not is_steady(job) or len(sides) < 2:
        rows.hand_over()
        if len(sides) > 1:
            rows.cut(1)
            rows.meet()
        return Schedule(rows.taken())
    begin = rows.taken()
    rows.hand_over()
    rows.both()
    again = rows.taken()
    rows.hand_over()
    rows.cut(1)
    rows.meet()
    rows.add(max(taken.channels), *unloading(job))
    rows.meet()
    return Schedule(begin, again, rows.taken())


class _Rows:
    """The items of all channels as they grow."""

    def __init__(self, job: Job, sides: Sequence[Plan], taken: Transfer) -> None:
        self._job, self._sides, self._taken = job, sides, taken
        self._works = works(sides, taken)
        self._apart = cut_between(sides[0], taken)
        self._channels = tuple(taken.channels)
        self._rows: dict[int, list[Item]] = {channel: [] for channel in self._channels}
        self._mark = 0

    def taken(self) -> Rows:
        """What was added since the last time."""
        made = {channel: tuple(row) for channel, row in self._rows.items()}
        self._rows = {channel: [] for channel in self._channels}
        return made

    def add(self, channel: int, *items: Item) -> None:
        self._rows[channel] += items

    def meet(self) -> None:
        """All channels wait for each other."""
        if len(self._rows) > 1:
            self._mark += 1
            for row in self._rows.values():
                row.append(Wait(self._mark, frozenset(self._rows)))

    def _channel_of(self, planned: OperationPlan) -> int:
        channel = self._job.machine.carrier_of(planned.motions[0].station).channel
        return channel if channel in self._rows else max(self._rows)

    def _channels_of(self, planned: OperationPlan) -> tuple[int, ...]:
        """The channels that work on it together, the first one ahead."""
        channel = self._channel_of(planned)
        if not is_pinched(self._job, planned) or len(self._rows) < 2:
            return (channel,)
        second = self._job.tool(planned.operation.tools[1])
        other = self._job.machine.carrier_of(second.station).channel if second is not None else channel
        return (channel, other) if other in self._rows and other != channel else (channel,)

    def _work(self, side: int, planned: OperationPlan) -> tuple[tuple[int, ...], float]:
        """What is busy with an operation of a side, and how long."""
        machine = self._job.machine
        carrier = machine.carriers.index(machine.carrier_of(planned.motions[0].station))
        passing = crossings(self._job, carrier, "sub" if side else "main")
        held = held_back(self._job, planned.operation.tools)
        return (*self._channels_of(planned), *passing, *held), pinched_s(self._job, planned)

    def _pinch(self, side: int, planned: OperationPlan, channels: tuple[int, ...]) -> None:
        """Both tools meet before every couple of passes, and when all is done."""
        found = couples(self._job, planned)
        follows = [n for n, one in enumerate(found) if one.follow]
        for n, one in enumerate(found):
            self.meet()
            seconds = times_of(one.lead, self._job.machine, found[n - 1].lead[-1] if n else None).total_s
            self.add(
                channels[0],
                Pinched(
                    side=side,
                    planned=planned,
                    motions=one.lead,
                    seconds=seconds,
                    leads=True,
                    begins=n == 0,
                    ends=n == len(found) - 1,
                ),
            )
            if one.follow:
                late = seconds + max(move.dwell_s for move in one.follow)
                begins, ends = n == follows[0], n == follows[-1]
                self.add(
                    channels[1],
                    Pinched(
                        side=side,
                        planned=planned,
                        motions=one.follow,
                        seconds=late,
                        leads=False,
                        begins=begins,
                        ends=ends,
                    ),
                )
        self.meet()

    def cut(self, side: int) -> None:
        """One side, everything one after the other; a channel waits wherever the one before it is another's."""
        before: int | None = None
        for planned in self._works[side]:
            channels = self._channels_of(planned)
            if len(channels) > 1:
                self._pinch(side, planned, channels)
                before = None
                continue
            channel = channels[0]
            if before is not None and before != channel:
                self.meet()
            self.add(channel, Turn(side, planned))
            before = channel

    def hand_over(self) -> None:
        """The stages of the hand-over, and the cut while both hold the part in its place."""
        self.meet()
        shift = self._mark
        stages = {channel: _stages(items) for channel, items in self._taken.channels.items()}
        for number in range(max(len(one) for one in stages.values())):
            for channel, parts in stages.items():
                for one in parts[number] if number < len(parts) else ():
                    if isinstance(one, Wait):
                        self.add(channel, Wait(one.mark + shift, one.channels))
                    elif one.code == "part_off" and self._apart is not None:
                        self.add(self._channel_of(self._apart), Turn(0, self._apart))
                    else:
                        self.add(channel, one)
        waits = (one.mark for row in self._taken.channels.values() for one in row if isinstance(one, Wait))
        self._mark += max(waits, default=0)

    def both(self) -> None:
        """Side one of the next part and side two of this one in the shortest order, and the finished part out.

        A mark comes where an operation follows one of its side in another channel, or one whose carrier it could not
        pass. That channel meets it as late as it has nothing else to do in between.
        """
        last = max(self._rows)
        out = unloading(self._job)
        first, second = ([self._work(side, one) for one in self._works[side]] for side in (0, 1))
        ends = {channel: [0.0] * len(row) for channel, row in self._rows.items()}
        before: dict[tuple[str, int], tuple[int, Item]] = {}
        for one in overlap(first, [*second, ((last,), out[0].seconds)]):
            works_here = self._works[one.side]
            finished = one.index >= len(works_here)
            channels = (last,) if finished else self._channels_of(works_here[one.index])
            if len(channels) > 1:
                self._pinch(one.side, works_here[one.index], channels)
                before.clear()
                ends = {number: [one.end_s] * len(row) for number, row in self._rows.items()}
                continue
            channel = channels[0]
            work = ((last,), 0.0) if finished else (first, second)[one.side][one.index]
            waits_for = [("side", one.side), *(("passing", number) for number in work[0] if number < 0)]
            for key in waits_for:
                if key in before and before[key][0] != channel:
                    self._link(*before[key], channel, one.start_s, ends)
            item: Item = out[0] if finished else Turn(one.side, works_here[one.index])
            before |= dict.fromkeys(waits_for, (channel, item))
            self.add(channel, item)
            ends[channel].append(one.end_s)

    def _link(self, giving: int, done: Item, waiting: int, start_s: float, ends: dict[int, list[float]]) -> None:
        """``waiting`` stands until ``giving`` has done an item."""
        row, here = self._rows[giving], self._rows[waiting]
        after = next(n for n, one in enumerate(row) if one is done)
        met = {one.mark for one in row[after + 1 :] if isinstance(one, Wait)}
        if met & {one.mark for one in here if isinstance(one, Wait)}:
            return
        # As late as this channel is free anyway, behind the marks it has already.
        at = max([n for n, one in enumerate(row) if isinstance(one, Wait)] + [after]) + 1
        while at < len(row) and ends[giving][at] <= start_s + 1e-9:
            at += 1
        self._mark += 1
        mark = Wait(self._mark, frozenset((giving, waiting)))
        row.insert(at, mark)
        ends[giving].insert(at, start_s)
        here.append(mark)
        ends[waiting].append(start_s)


def _stages(items: Sequence[Act | Wait]) -> list[list[Act | Wait]]:
    """The items of a channel up to each wait, the wait with them."""
    found: list[list[Act | Wait]] = [[]]
    for one in items:
        found[-1].append(one)
        if isinstance(one, Wait):
            found.append([])
    return found if found[-1] else found[:-1]
