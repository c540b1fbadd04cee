"""Everything there is in the machine at one moment of a run: metal, holds and tools, as sections in their places."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from shapely.affinity import translate

from toreuma.core.geometry.region import EMPTY, Region, box, union
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.prove.pieces import Piece
from toreuma.core.prove.proof import Proof
from toreuma.core.prove.run import Run, Stand
from toreuma.core.prove.together import Happening
from toreuma.core.simulate.replay import Replay
from toreuma.core.simulate.timeline import Span, Timeline

__all__ = ["Held", "Scenery", "Sight"]

OPEN_MM = 2.0
"""How far jaws are drawn apart when they are open, on radius."""

Where = Literal["main", "second"]


@dataclass(frozen=True, kw_only=True)
class Held:
    """One spindle: what stands still of its hold, what grips, and the metal, upper halves in the machine's places.

    ``part`` is the number of the part whose metal it is, ``zero`` where its Z 0 lies.
    """

    where: Where
    body: Region
    jaws: Region
    is_open: bool
    metal: Region
    part: int
    zero: float


@dataclass(frozen=True)
class Sight:
    """The machine at one time."""

    seconds: float
    holds: tuple[Held, Held]
    stands: tuple[Stand, ...]


@dataclass(frozen=True)
class _Stay:
    """A part at one spindle from ``start_s`` to ``end_s``."""

    number: int
    start_s: float
    end_s: float
    replay: Replay


class Scenery:
    """The machine over the time of a run. ``blanks`` are what each part begins with on its sides."""

    def __init__(
        self,
        run: Run,
        pieces: Sequence[Piece],
        made: Sequence[tuple[Proof, Proof]],
        jobs: tuple[Job, Job],
        blanks: tuple[Region, Region],
    ) -> None:
        self.run, self.pieces = run, pieces
        self._main, self._second = [], []
        self._jaws: dict[tuple[Where, bool], Region] = {}
        for number, (piece, (first, second)) in enumerate(zip(pieces, made, strict=True)):
            since = pieces[number - 1].back.end_s if number else 0.0
            until = pieces[number + 1].come.start_s if number + 1 < len(pieces) else run.seconds
            out = [one.end_s for one in piece.happened if one.mark is not None and one.mark.what == "part_out"
                   and one.start_s > piece.back.start_s]  # fmt: skip
            at_main = _replay(jobs[0], blanks[0], (piece.first, piece.first_in_place), first, run.happened)
            at_second = _replay(jobs[1], blanks[1], (piece.second, piece.second), second, run.happened)
            self._main.append(_Stay(number, since, piece.back.start_s, at_main))
            self._second.append(_Stay(number, piece.back.start_s, out[0] if out else until, at_second))
        last = made[-1][0] if made else None
        rest = last.states[-1][1] if last is not None and last.parted and last.states else EMPTY
        self._rest = translate(rest, pieces[-1].drawn_mm if pieces else 0.0, 0.0)
        self._told = _told(run.happened)

    @property
    def seconds(self) -> float:
        return self.run.seconds

    def at(self, seconds: float) -> Sight:
        """The machine at a time."""
        stands = (self.run.stand(channel, seconds) for channel in self.run.channels)
        return Sight(seconds, (self._held_main(seconds), self._held_second(seconds)), tuple(s for s in stands if s))

    def focus(self, seconds: float) -> tuple[float, float]:
        """Where along Z something is cut, and how far round it the hold and its piece reach, mm."""
        moment = self.at(seconds)
        busy = [
            stand
            for stand in moment.stands
            if (leg := self.run.leg_at(stand.channel, seconds)) is not None and leg.moves and not leg.motion.is_rapid
        ]
        second = busy[0].motion.second if busy else self.part_at("main", seconds) is None
        held = moment.holds[1 if second else 0]
        front = held.jaws if not held.jaws.is_empty else held.body
        face = float(front.bounds[0] if second else front.bounds[2])
        return face, 1.25 * float(held.body.bounds[3])

    def part_at(self, where: Where, seconds: float) -> int | None:
        """The number of the part a spindle holds, counted from 0; None where it is empty."""
        stay = _under_way(self._main if where == "main" else self._second, seconds)
        return stay.number if stay is not None else None

    def stays(self, where: Where) -> tuple[tuple[int, float, float], ...]:
        """(number of the part, from, to) in seconds for everything a spindle holds."""
        return tuple((one.number, one.start_s, one.end_s) for one in (self._main if where == "main" else self._second))

    def _held_main(self, seconds: float) -> Held:
        scene, stay = self.run.scenes[0], _under_way(self._main, seconds)
        metal = self._rest
        if stay is not None:
            metal = translate(stay.replay.stock_at(seconds), self.pieces[stay.number].shift_at(seconds), 0.0)
        is_open = self._is("main_open", seconds)
        jaws = self._apart("main", scene.jaws, is_open)
        return Held(
            where="main",
            body=scene.chuck,
            jaws=jaws,
            is_open=is_open,
            metal=metal,
            part=stay.number if stay is not None else -1,
            zero=0.0,
        )

    def _held_second(self, seconds: float) -> Held:
        scene, stay = self.run.scenes[1], _under_way(self._second, seconds)
        is_open = self._is("second_open", seconds)
        jaws = self._apart("second", scene.jaws, is_open)
        metal = stay.replay.stock_at(seconds) if stay is not None else EMPTY
        body, gripping, held = (self.run.from_second(one, seconds) for one in (scene.chuck, jaws, metal))
        number = stay.number if stay is not None else -1
        return Held(
            where="second",
            body=body,
            jaws=gripping,
            is_open=is_open,
            metal=held,
            part=number,
            zero=self.run.zero_of_second(seconds),
        )

    def _apart(self, where: Where, jaws: Region, is_open: bool) -> Region:
        if (where, is_open) not in self._jaws:
            moved = translate(jaws, 0.0, OPEN_MM) if is_open else jaws
            self._jaws[where, is_open] = moved.intersection(box(-1e5, 0, 1e5, 1e5))
        return self._jaws[where, is_open]

    def _is(self, what: str, seconds: float) -> bool:
        """Whether a hold is open; what is said first of it tells how it stood before."""
        rows = [(at, open_) for at, name, open_ in self._told if name == what]
        before = [open_ for at, open_ in rows if at <= seconds + 1e-9]
        if before:
            return before[-1]
        return bool(rows) and what == "second_open"

    def driven_before(self, where: Where, number: int, seconds: float) -> tuple[tuple[Motion, float], ...]:
        """Moves of driven tools that cut at a spindle into one part until a time, and when each ended."""
        if not 0 <= number < len(self.pieces):
            return ()
        piece = self.pieces[number]
        wanted = {id(motion) for motion in (piece.first if where == "main" else piece.second)}
        return tuple(
            (one.motion, one.end_s)
            for one in piece.happened
            if one.motion is not None and one.motion.driven is not None and not one.motion.event
            and not one.motion.is_rapid and id(one.motion) in wanted and one.end_s <= seconds
        )  # fmt: skip


def _told(happened: Sequence[Happening]) -> list[tuple[float, str, bool]]:
    """When each hold opens and closes: (s, which, open)."""
    found = []
    for one in happened:
        if one.motion is not None and one.motion.event in ("unclamp", "clamp"):
            found.append((one.start_s, "main_open", one.motion.event == "unclamp"))
        if one.mark is not None and one.mark.what in ("second_open", "second_close"):
            found.append((one.end_s, "second_open", one.mark.what == "second_open"))
    return sorted(found)


def _under_way(stays: Sequence[_Stay], seconds: float) -> _Stay | None:
    return next((one for one in stays if one.start_s - 1e-9 <= seconds < one.end_s), None)


def _replay(
    job: Job,
    blank: Region,
    motions: tuple[Sequence[Motion], Sequence[Motion]],
    proof: Proof,
    happened: Sequence[Happening],
) -> Replay:
    """The metal of one part on one side over the time of the run; ``motions`` as made, and in places of the part."""
    times = {id(one.motion): (one.start_s, one.end_s) for one in happened if one.motion is not None}
    pairs = zip(*motions, strict=True)
    known = [(placed, *times[id(motion)]) for motion, placed in pairs if id(motion) in times]
    spans = tuple(Span(motion, start, start, end) for motion, start, end in sorted(known, key=lambda one: one[1]))
    states = {section: region for section, region in proof.states if section >= 0}
    if states and proof.parted:
        parted = list(states)[-1]
        states[parted] = union([states[parted], proof.final])
    last: dict[int, int] = {}
    for index, span in enumerate(spans):
        if span.motion.section >= 0:
            last[span.motion.section] = index
    ends = sorted((index, states[section]) for section, index in last.items() if section in states)
    return Replay(job, blank, Timeline(spans), ends)
