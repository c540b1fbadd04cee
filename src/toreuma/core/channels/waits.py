"""Channels that wait for each other: when everything happens, and who would wait for ever."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

__all__ = ["Act", "Laid", "Stuck", "Wait", "laid_out"]


@dataclass(frozen=True)
class Act:
    """Something a channel does for so many seconds; ``code`` names it, ``words`` say it."""

    code: str
    words: str
    seconds: float = 0.0


@dataclass(frozen=True)
class Wait:
    """A channel stands here until all ``channels`` have come to the same mark."""

    mark: int
    channels: frozenset[int]


@dataclass(frozen=True)
class Stuck:
    """A channel that stands at a mark for ever, and why."""

    channel: int
    mark: int
    why: str


@dataclass(frozen=True)
class Laid:
    """Start and end in seconds of every item of each channel, as far as it comes; ``stuck`` is empty where all end."""

    times: dict[int, tuple[tuple[float, float], ...]]
    stuck: tuple[Stuck, ...]

    @property
    def total_s(self) -> float:
        return max((row[-1][1] for row in self.times.values() if row), default=0.0)

    def waited_s(self, channels: Mapping[int, Sequence[Act | Wait]]) -> dict[int, float]:
        """How long each channel stands at its marks."""
        return {
            channel: sum(
                end - start
                for (start, end), item in zip(self.times[channel], items, strict=False)
                if isinstance(item, Wait)
            )
            for channel, items in channels.items()
        }


def laid_out(channels: Mapping[int, Sequence[Act | Wait]]) -> Laid:
    """Run all channels from time 0, each waiting where it must."""
    times: dict[int, list[tuple[float, float]]] = {channel: [] for channel in channels}
    now = dict.fromkeys(channels, 0.0)
    moved = True
    while moved:
        moved = False
        for channel, items in channels.items():
            while len(times[channel]) < len(items) and isinstance(item := items[len(times[channel])], Act):
                times[channel].append((now[channel], now[channel] + item.seconds))
                now[channel] += item.seconds
                moved = True
        for channel, items in channels.items():
            here = _at(items, times[channel])
            if not isinstance(here, Wait) or not _all_there(here, channels, times):
                continue
            met = max(now[one] for one in here.channels)
            for one in here.channels:
                times[one].append((now[one], met))
                now[one] = met
            moved = True
    stuck = []
    for channel, items in channels.items():
        here = _at(items, times[channel])
        if isinstance(here, Wait):
            stuck.append(Stuck(channel, here.mark, _why(here, channel, channels, times)))
    return Laid({channel: tuple(row) for channel, row in times.items()}, tuple(stuck))


def _at(items: Sequence[Act | Wait], done: Sequence[object]) -> Act | Wait | None:
    return items[len(done)] if len(done) < len(items) else None


def _all_there(wait: Wait, channels: Mapping[int, Sequence[Act | Wait]], times: Mapping[int, Sequence[object]]) -> bool:
    return all(one in channels and _at(channels[one], times[one]) == wait for one in wait.channels)


def _why(
    wait: Wait, channel: int, channels: Mapping[int, Sequence[Act | Wait]], times: Mapping[int, Sequence[object]]
) -> str:
    for other in sorted(wait.channels - {channel}):
        if other not in channels:
            return f"there is no channel {other}"
        there = _at(channels[other], times[other])
        if there is None:
            return f"channel {other} has ended without coming to mark {wait.mark}"
        if isinstance(there, Wait) and there != wait:
            later = any(isinstance(one, Wait) and one.mark == wait.mark for one in channels[other][len(times[other]) :])
            order = "their order is swapped" if later else f"it never comes to mark {wait.mark}"
            return f"channel {other} waits at mark {there.mark}: {order}"
    return "nobody else comes"
