"""What happens to each part of a run that is handed over: its first side, the hand-over, its second side."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from toreuma.core.motion import Motion
from toreuma.core.prove.together import Happening

__all__ = ["Piece", "pieces_of"]

AWAY_MM = 1.0
"""The second spindle goes back when it moves farther from the first than this."""


@dataclass(frozen=True, kw_only=True)
class Piece:
    """One part: its moves at the main spindle until it is taken, and at the second one until the next one comes.

    ``happened`` is everything that bears on its hand-over, ``come`` and ``back`` the moves of the second spindle to
    the part and away with it.
    """

    first: tuple[Motion, ...]
    second: tuple[Motion, ...]
    happened: tuple[Happening, ...]
    come: Happening
    back: Happening

    @property
    def pull(self) -> Happening | None:
        """The move that draws bar out, between gripping and going back."""
        closed = [one.end_s for one in self.happened if one.mark is not None and one.mark.what == "second_close"
                  and one.start_s >= self.come.start_s]  # fmt: skip
        moves = (one for one in self.happened if one.mark is not None and one.mark.what == "second_to"
                 and one is not self.back)  # fmt: skip
        return next((one for one in moves if closed and one.start_s >= closed[0] - 1e-6), None)

    @property
    def drawn_mm(self) -> float:
        """Length of bar drawn out with the part."""
        pull = self.pull
        before = [one for one in self.happened if one.mark is not None and one.mark.what == "second_to"
                  and pull is not None and one.end_s <= pull.start_s + 1e-6]  # fmt: skip
        if pull is None or pull.mark is None or not before or before[-1].mark is None:
            return 0.0
        return pull.mark.number - before[-1].mark.number

    def shift_at(self, seconds: float) -> float:
        """How far the bar has been drawn out at a time, mm."""
        pull = self.pull
        if pull is None or seconds <= pull.start_s:
            return 0.0
        long = pull.end_s - pull.start_s
        return self.drawn_mm * (min((seconds - pull.start_s) / long, 1.0) if long > 0 else 1.0)

    @property
    def first_in_place(self) -> tuple[Motion, ...]:
        """The moves at the main spindle in places of the part, wherever it stood when they were made."""
        pull, by = self.pull, self.drawn_mm
        if pull is None:
            return self.first
        drawn = {id(one.motion) for one in self.happened if one.motion is not None and one.start_s >= pull.end_s - 1e-6}
        return tuple(
            replace(one, segment=one.segment.moved(-by, 0.0)) if id(one) in drawn else one for one in self.first
        )


def pieces_of(happened: Sequence[Happening]) -> tuple[Piece, ...]:
    """The parts of a run in their order; none where the second spindle never moves."""
    trips = _trips([one for one in happened if one.mark is not None and one.mark.what == "second_to"])
    found = []
    for number, (come, back) in enumerate(trips):
        since = trips[number - 1][1].end_s if number else float("-inf")
        until = trips[number + 1][0].start_s if number + 1 < len(trips) else float("inf")
        mine = tuple(one for one in happened if since - 1e-6 <= one.start_s < until - 1e-6)
        first = (one for one in mine if one.motion is not None and one.start_s < back.end_s - 1e-6)
        second = (one for one in mine if one.motion is not None and one.start_s >= back.start_s - 1e-6)
        found.append(
            Piece(
                first=tuple(one.motion for one in first if one.motion is not None and not one.motion.second),
                second=tuple(one.motion for one in second if one.motion is not None and one.motion.second),
                happened=mine,
                come=come,
                back=back,
            )
        )
    return tuple(found)


def _trips(moves: Sequence[Happening]) -> list[tuple[Happening, Happening]]:
    """First and last move of every coming up and going back."""
    found: list[list[Happening]] = []
    away = True
    at: float | None = None
    for one in moves:
        place = one.mark.number if one.mark is not None else 0.0
        if away:
            found.append([])
        found[-1].append(one)
        drawn = one.mark is not None and one.mark.feed is not None
        away = at is not None and not away and not drawn and place > at + AWAY_MM
        at = place
    return [(trip[0], trip[-1]) for trip in found]
