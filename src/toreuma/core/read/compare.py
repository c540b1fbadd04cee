"""Two programs held against each other by what their moves do, not by how they are written."""

from collections.abc import Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Literal

from toreuma.core.motion import Motion
from toreuma.core.read.state import Program

__all__ = ["Difference", "Way", "differences", "same_moves"]

PLACES = 3
FEW = 4000
"""So many moves are matched one by one; longer programs tool by tool."""


@dataclass(frozen=True, slots=True)
class Way:
    """One move as it counts: how it goes, where it ends, how fast, with what."""

    how: str
    z: float
    d: float
    feed: float | None
    speed: tuple[str, float, float | None]
    station: int
    line: int

    @property
    def key(self) -> tuple[object, ...]:
        return self.how, self.z, self.d, self.feed, self.speed, self.station

    @property
    def place(self) -> tuple[object, ...]:
        return self.how == "rapid", self.z, self.d


@dataclass(frozen=True, slots=True)
class Difference:
    """A stretch of moves that differ: those of one program, and those of the other in their place.

    ``what`` says in a word how: other numbers at the same places, other places, only in one of them.
    """

    what: Literal["speeds", "feeds", "places", "only here", "only there"]
    here: tuple[Way, ...]
    there: tuple[Way, ...]


def _ways(program: Program) -> list[Way]:
    return [_way(one) for one in program.motions if one.segment.length > 1e-9]


def _way(motion: Motion) -> Way:
    z, r = motion.end
    how = "rapid" if motion.is_rapid else "thread" if motion.in_step else type(motion.segment).__name__
    spindle = motion.spindle
    speed = (spindle.mode, round(spindle.value, 2), spindle.clamp_rpm) if not motion.is_rapid else ("", 0.0, None)
    feed = None if motion.feed is None else round(motion.feed, 5)
    return Way(how, _rounded(z), _rounded(2 * r), feed, speed, motion.station, motion.line)


def _rounded(number: float) -> float:
    found = round(number, PLACES)
    return 0.0 if found == 0 else found


def same_moves(one: Program, other: Program) -> bool:
    """Whether both do the same."""
    return [way.key for way in _ways(one)] == [way.key for way in _ways(other)]


def differences(here: Program, there: Program) -> tuple[Difference, ...]:
    """Where two programs differ, in the order of the first."""
    one, other = _ways(here), _ways(there)
    if max(len(one), len(other)) <= FEW:
        return tuple(_matched(one, other))
    found: list[Difference] = []
    for a, b in _by_tool(one, other):
        found += _matched(a, b) if max(len(a), len(b)) <= FEW else _ends_matched(a, b)
    return tuple(found)


def _by_tool(one: Sequence[Way], other: Sequence[Way]) -> list[tuple[list[Way], list[Way]]]:
    """Runs of tools in both, side by side; a tool that only one has stands alone."""
    a, b = _runs(one), _runs(other)
    matcher = SequenceMatcher(None, [run[0].station for run in a], [run[0].station for run in b], autojunk=False)
    found: list[tuple[list[Way], list[Way]]] = []
    for _, a0, a1, b0, b1 in matcher.get_opcodes():
        for n in range(max(a1 - a0, b1 - b0)):
            found.append((a[a0 + n] if a0 + n < a1 else [], b[b0 + n] if b0 + n < b1 else []))
    return found


def _runs(ways: Sequence[Way]) -> list[list[Way]]:
    found: list[list[Way]] = []
    for way in ways:
        if found and found[-1][-1].station == way.station:
            found[-1].append(way)
        else:
            found.append([way])
    return found


def _ends_matched(a: list[Way], b: list[Way]) -> list[Difference]:
    """Long runs: what is the same at both ends is left out, the rest is one difference."""
    head = 0
    while head < min(len(a), len(b)) and a[head].key == b[head].key:
        head += 1
    tail = 0
    while tail < min(len(a), len(b)) - head and a[-1 - tail].key == b[-1 - tail].key:
        tail += 1
    one, other = a[head : len(a) - tail], b[head : len(b) - tail]
    return [_difference(one, other)] if one or other else []


def _matched(a: Sequence[Way], b: Sequence[Way]) -> list[Difference]:
    matcher = SequenceMatcher(None, [way.key for way in a], [way.key for way in b], autojunk=False)
    return [
        _difference(list(a[a0:a1]), list(b[b0:b1])) for what, a0, a1, b0, b1 in matcher.get_opcodes() if what != "equal"
    ]


def _difference(one: Sequence[Way], other: Sequence[Way]) -> Difference:
    here, there = tuple(one), tuple(other)
    if not there:
        return Difference("only here", here, there)
    if not here:
        return Difference("only there", here, there)
    if [way.place for way in here] == [way.place for way in there]:
        same_feeds = [way.feed for way in here] == [way.feed for way in there]
        return Difference("speeds" if same_feeds else "feeds", here, there)
    return Difference("places", here, there)
