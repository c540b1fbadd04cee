"""What happens to each part of a run that is handed over: its first side, the hand-over, its second side."""

from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.core.motion import Motion
from toreuma.core.prove.together import Happening

__all__ = ["Piece", "pieces_of"]

AWAY_MM = 1.0
"""The second spindle goes back when it moves farther from the first than this."""


@dataclass(frozen=True)
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
                tuple(one.motion for one in first if one.motion is not None and not one.motion.second),
                tuple(one.motion for one in second if one.motion is not None and one.motion.second),
                mine,
                come,
                back,
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
        away = at is not None and not away and place > at + AWAY_MM
        at = place
    return [(trip[0], trip[-1]) for trip in found]
