"""A run as lanes of time: what carriers cut and spindles hold, who waits for whom, and what goes wrong when."""

from bisect import bisect_right
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.findings import Finding
from toreuma.core.prove.scenery import Scenery, Where
from toreuma.core.prove.together import Happening, Together

__all__ = ["LaneBar", "Lanes", "Notch", "Stood", "lanes_of"]

GAP_S = 0.01


@dataclass(frozen=True, kw_only=True)
class LaneBar:
    """An operation on a carrier (counted from 0) at a spindle, s; ``station`` is its tool's."""

    carrier: int
    station: int
    where: Where
    name: str
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Stood:
    """A channel stood at a mark from ``start_s`` to ``end_s``."""

    channel: int
    mark: int
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Notch:
    """Something wrong at a time."""

    channel: int
    at_s: float
    severity: str
    what: str


@dataclass(frozen=True, kw_only=True)
class Lanes:
    """``stays`` are (number of the part, from, to) for each spindle, ``speeds`` (s, rpm) of each, ``taken`` start and
    end of every hand-over, ``ends`` the ends of all moves."""

    seconds: float
    blocks: tuple[LaneBar, ...]
    stays: dict[Where, tuple[tuple[int, float, float], ...]]
    speeds: dict[Where, tuple[tuple[float, float], ...]]
    waits: tuple[Stood, ...]
    taken: tuple[tuple[float, float], ...]
    notches: tuple[Notch, ...]
    ends: tuple[float, ...]

    def block_at(self, carrier: int, seconds: float) -> LaneBar | None:
        """What a carrier is cutting at a time."""
        return next((one for one in self.blocks if one.carrier == carrier and one.start_s <= seconds < one.end_s), None)


def lanes_of(scenery: Scenery, ran: Together, findings: Iterable[Finding]) -> Lanes:
    """Everything a ribbon of the run shows."""
    waits = tuple(
        Stood(one.channel, int(one.mark.number), one.start_s, one.end_s)
        for one in ran.happened
        if one.mark is not None and one.mark.what == "wait"
    )
    taken = tuple((piece.come.start_s, piece.back.end_s) for piece in scenery.pieces)
    places: tuple[Where, Where] = ("main", "second")
    return Lanes(
        seconds=ran.seconds,
        blocks=tuple(_blocks(scenery, ran)),
        stays={where: scenery.stays(where) for where in places},
        speeds={where: _speeds(scenery, ran, where) for where in places},
        waits=waits,
        taken=taken,
        notches=tuple(_notches(ran, findings)),
        ends=tuple(sorted({one.end_s for one in ran.happened if one.end_s > one.start_s})),
    )


def _blocks(scenery: Scenery, ran: Together) -> list[LaneBar]:
    """Moves of one operation in one go are one block; going to wait somewhere is none."""
    machine = scenery.run.job.machine
    found: list[LaneBar] = []
    for channel in ran.laid.times:
        moves = [one for one in ran.happened if one.channel == channel and one.motion is not None]
        for run in _runs(moves):
            motion = run[0].motion
            cuts = any(one.motion is not None and (not one.motion.is_rapid or one.motion.event) for one in run)
            if motion is None or motion.section < 0 or motion.station == 0 or not cuts:
                continue
            title = ran.main.sections[motion.section].title if motion.section < len(ran.main.sections) else ""
            where: Where = "second" if motion.second else "main"
            number = machine.carriers.index(machine.carrier_of(motion.station))
            block = LaneBar(
                carrier=number,
                station=motion.station,
                where=where,
                name=title.capitalize(),
                start_s=run[0].start_s,
                end_s=run[-1].end_s,
            )
            found.append(block)
    return found


def _runs(moves: Sequence[Happening]) -> Iterator[list[Happening]]:
    """Moves of the same operation that follow each other without a wait."""
    run: list[Happening] = []
    for one in moves:
        same = run and run[-1].motion is not None and one.motion is not None
        if same and run[-1].motion.section == one.motion.section and one.start_s <= run[-1].end_s + GAP_S:  # type: ignore[union-attr]
            run.append(one)
            continue
        if run:
            yield run
        run = [one]
    if run:
        yield run


def _speeds(scenery: Scenery, ran: Together, where: Where) -> tuple[tuple[float, float], ...]:
    """Speed of a spindle over time: it keeps its speed until it is told another, or to stand."""
    machine = scenery.run.job.machine
    most = machine.max_rpm if where == "main" or machine.second is None else machine.second.max_rpm
    points: list[tuple[float, float]] = [(0.0, 0.0)]
    for one in ran.happened:
        if one.mark is not None and one.mark.what == f"{where}_stands":
            points += [(one.start_s, points[-1][1]), (one.start_s, 0.0)]
        motion = one.motion
        if motion is None or motion.second != (where == "second") or motion.driven is not None or motion.event:
            continue
        ends = [(at, spindle_rpm(motion.spindle, r, most)) for at, r in ((one.start_s, motion.start[1]),
                                                                         (one.end_s, motion.end[1]))]  # fmt: skip
        points += [(one.start_s, points[-1][1]), *ends]
    points.append((ran.seconds, points[-1][1]))
    return tuple(points)


def _notches(ran: Together, findings: Iterable[Finding]) -> Iterable[Notch]:
    """Findings with a line of a program, at the time that line is obeyed."""
    lines = sorted((one.line, one.channel, one.start_s) for one in ran.happened if one.line)
    numbers = [line for line, _, _ in lines]
    for finding in findings:
        if finding.line is None or not lines:
            continue
        at = min(max(bisect_right(numbers, finding.line) - 1, 0), len(lines) - 1)
        _, channel, seconds = lines[at]
        yield Notch(channel, seconds, finding.severity, finding.what)
