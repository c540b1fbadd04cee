"""Two sides at the same time: the shortest order of both routes on the channels their tools belong to."""

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Placed", "overlap"]

MOST_LABELS = 6
"""So many ways to have come to a place are kept: more would differ by fractions of a wait."""


@dataclass(frozen=True)
class Placed:
    """Work number ``index`` of a side (0 or 1), s after both may begin."""

    side: int
    index: int
    start_s: float
    end_s: float


@dataclass(frozen=True)
class _Label:
    """One way to have done so many works of both sides: when each side and each channel is free."""

    sides: tuple[float, float]
    channels: tuple[float, ...]
    last: Placed | None
    before: "_Label | None"

    def no_worse(self, other: "_Label") -> bool:
        mine, theirs = (*self.sides, *self.channels), (*other.sides, *other.channels)
        return all(a <= b + 1e-9 for a, b in zip(mine, theirs, strict=True))


Work = tuple[tuple[int, ...], float]
"""The channels that do it together and whatever else only one work can have at a time, and how long it takes, s."""


def overlap(first: Sequence[Work], second: Sequence[Work]) -> tuple[Placed, ...]:
    """Everything in the order it begins so that all is done soonest; each side keeps the order of its route.

    Two routes on fixed channels are a job shop with two jobs: every order of both is a way through a grid, and of the
    ways to a place only those are kept that no other is better than in all respects (Akers 1956 draws the same grid).
    """
    routes = (first, second)
    numbers = sorted({channel for route in routes for channels, _ in route for channel in channels})
    grid: dict[tuple[int, int], list[_Label]] = {(0, 0): [_Label((0.0, 0.0), (0.0,) * len(numbers), None, None)]}
    for done in ((i, k - i) for k in range(len(first) + len(second) + 1) for i in range(k + 1)):
        if done[0] > len(first) or done[1] > len(second):
            continue
        for label in grid.pop(done, []) if done != (len(first), len(second)) else []:
            for side in (0, 1):
                if done[side] < len(routes[side]):
                    channels, seconds = routes[side][done[side]]
                    busy = frozenset(numbers.index(channel) for channel in channels)
                    after = (done[0] + (side == 0), done[1] + (side == 1))
                    _keep(grid.setdefault(after, []), _then(label, side, done[side], busy, seconds))
    best = min(grid[len(first), len(second)], key=lambda one: (max(one.sides), sum(one.sides)))
    found: list[Placed] = []
    while best.last is not None and best.before is not None:
        found.append(best.last)
        best = best.before
    found.reverse()
    found.sort(key=lambda one: one.start_s)
    return tuple(found)


def _then(label: _Label, side: int, index: int, busy: frozenset[int], seconds: float) -> _Label:
    start = max(label.sides[side], *(label.channels[channel] for channel in busy))
    end = start + seconds
    sides = (end, label.sides[1]) if side == 0 else (label.sides[0], end)
    channels = tuple(end if n in busy else free for n, free in enumerate(label.channels))
    return _Label(sides, channels, Placed(side, index, start, end), label)


def _keep(labels: list[_Label], new: _Label) -> None:
    if any(one.no_worse(new) for one in labels):
        return
    labels[:] = [one for one in labels if not new.no_worse(one)]
    labels.append(new)
    if len(labels) > MOST_LABELS:
        labels.remove(max(labels, key=lambda one: (max(one.sides), sum(one.sides))))
