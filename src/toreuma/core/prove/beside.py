"""Tools of several channels, with what carries them, at the same time: whether they meet each other, or what the
other spindle holds."""

from collections.abc import Callable, Iterator
from itertools import combinations

import shapely

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.region import Region, mirrored_at_axis
from toreuma.core.prove.contact import Contact
from toreuma.core.prove.run import Leg, Run, Stand

__all__ = ["met_beside"]

STEP_MM = 1.0
"""Tools are looked at after no more than this much of their way."""

MOST_STEPS = 400
CLEAR_MM = 0.5
"""Closer than this counts as meeting: nobody sets two carriers to each other more finely."""

FAR_MM, SAME_MM = 1e4, 0.01
LEAST_BEHIND_MM = 1.0
"""A tool that cuts deeper than another one at the same time stays behind it by this at least."""

Box = tuple[float, float, float, float]


def met_beside(
    run: Run, apart: Callable[[str, str], tuple[Cure, ...]] = lambda one, other: ()
) -> tuple[tuple[Contact, ...], tuple[Finding, ...]]:
    """Where tools of different channels come together, and tools and the other spindle; the first place of each.

    ``apart`` gives the cures for two tools that meet.
    """
    contacts: dict[tuple[str, str], Contact] = {}
    cures: dict[tuple[str, str], tuple[Cure, ...]] = {}
    wrong = tuple(_one_spindle(run))
    for key, contact in _tools(run):
        contacts.setdefault(key, contact)
        cures[key] = apart(*key)
    for key, contact in _holds(run):
        contacts.setdefault(key, contact)
    told = tuple(
        Finding("error", "beside.meet", f"line {one.line}: {one.what}", "two things cannot be in one place", at=one.at,
                line=one.line, cures=cures.get(key, ()))
        for key, one in contacts.items()
    )  # fmt: skip
    return tuple(contacts.values()), (*told, *wrong)


def _tools(run: Run) -> Iterator[tuple[tuple[str, str], Contact]]:
    """Tools of two channels, and what carries them, against each other."""
    for one, other in combinations(run.channels, 2):
        for a, b, start, end in _together(run, one, other):
            if not (a.moves or b.moves) or not _near(run, one, a, other, b, start, end):
                continue
            for seconds in _moments(a, b, start, end):
                first, second = run.placed(one, a, seconds), run.placed(other, b, seconds)
                if first is None or second is None:
                    break
                if (found := _meeting(first, second)) is not None:
                    what, met = found
                    line = max(a.motion.line if a.moves else 0, b.motion.line if b.moves else 0)
                    yield (first.tool.id, second.tool.id), Contact(what, line, met, CLEAR_MM)
                    break


def _meeting(first: Stand, second: Stand) -> tuple[str, Point] | None:
    """What of two carriers meets, and where: their tools, a tool and what carries the other one, or both carriers."""
    for one, its_name in ((first.solid, first.tool.id), (first.carried_by, _carrier(first))):
        for other, other_name in ((second.solid, second.tool.id), (second.carried_by, _carrier(second))):
            if not one.is_empty and not other.is_empty and (met := _met(one, other)) is not None:
                return f"{its_name} and {other_name} meet", met
    return None


def _carrier(stand: Stand) -> str:
    return f"the {stand.carrier.name} behind {stand.tool.id}"


def _one_spindle(run: Run) -> Iterator[Finding]:
    """Tools of two channels that cut at one spindle at once: one commands its speed, and the deeper one is behind."""
    said: set[str] = set()
    for one, other in combinations(run.channels, 2):
        for a, b, start, end in _together(run, one, other):
            both = all(leg.moves and not leg.motion.is_rapid and leg.motion.driven is None for leg in (a, b))
            if not both or a.motion.second != b.motion.second:
                continue
            line = max(a.motion.line, b.motion.line)
            if not a.motion.shared and not b.motion.shared and "speed" not in said:
                said.add("speed")
                what = f"line {line}: both channels command the speed of one spindle while both cut"
                yield Finding("error", "beside.speed", what, "one of them gets the other's speed", line=line)
            if _overtakes(a, b, start, end) and "ahead" not in said:
                said.add("ahead")
                what = f"line {line}: the tool that cuts deeper runs ahead of the other"
                yield Finding("error", "beside.ahead", what, "it takes both depths at once", line=line)


def _overtakes(a: Leg, b: Leg, start: float, end: float) -> bool:
    """Both go along Z, and the deeper one is nearer to where they go."""
    along = [leg.motion.end[0] - leg.motion.start[0] for leg in (a, b)]
    if abs(along[0]) < STEP_MM or abs(along[1]) < STEP_MM or along[0] * along[1] < 0:
        return False
    for seconds in (start, (start + end) / 2, end):
        (z1, r1), (z2, r2) = a.at(seconds), b.at(seconds)
        behind = (z2 - z1 if r1 < r2 else z1 - z2) * (1.0 if along[0] > 0 else -1.0)
        if abs(r1 - r2) > SAME_MM and behind < LEAST_BEHIND_MM:
            return True
    return False


def _together(run: Run, one: int, other: int) -> Iterator[tuple[Leg, Leg, float, float]]:
    """What both channels do at the same time, and from when to when."""
    rows = run.legs(one), run.legs(other)
    i = j = 0
    while i < len(rows[0]) and j < len(rows[1]):
        a, b = rows[0][i], rows[1][j]
        start, end = max(a.start_s, b.start_s), min(a.end_s, b.end_s)
        if end > start:
            yield a, b, start, end
        i, j = (i + 1, j) if a.end_s <= b.end_s else (i, j + 1)


def _near(run: Run, one: int, a: Leg, other: int, b: Leg, start: float, end: float) -> bool:
    """Whether the boxes round both ways come together at all."""
    first, second = run.box(one, a, start, end), run.box(other, b, start, end)
    return first is not None and second is not None and _close(first, second)


def _close(one: Box, other: Box) -> bool:
    """Two boxes (z, r, z, r) are nearer than `CLEAR_MM`."""
    along = one[0] < other[2] + CLEAR_MM and other[0] < one[2] + CLEAR_MM
    return along and one[1] < other[3] + CLEAR_MM and other[1] < one[3] + CLEAR_MM


def _moments(a: Leg, b: Leg, start: float, end: float) -> Iterator[float]:
    """Moments between start and end so close that neither tool goes farther than `STEP_MM` in between."""
    way = 0.0
    for leg in (a, b):
        long = leg.end_s - leg.start_s
        way += leg.motion.length * (end - start) / long if leg.moves and long > 0 else 0.0
    steps = min(max(int(way / STEP_MM) + 1, 1), MOST_STEPS)
    return (start + (end - start) * n / steps for n in range(steps + 1))


def _met(one: Region, other: Region) -> tuple[float, float] | None:
    if shapely.distance(one, other) > CLEAR_MM:
        return None
    at = shapely.shortest_line(one, other).coords[0]
    return float(at[0]), float(at[1])


def _holds(run: Run) -> Iterator[tuple[tuple[str, str], Contact]]:
    """Tools against the hold of the spindle they do not work at, while the second one stands still."""
    main = _both_halves(run.scenes[0].fixed)
    second = _both_halves(run.scenes[1].fixed)
    for channel in run.channels:
        for leg in run.legs(channel):
            if not leg.moves:
                continue
            name = "main" if leg.motion.second else "second"
            around = run.box(channel, leg, leg.start_s, leg.end_s)
            if around is None or not _close(around, _hold_box(run, leg, main, second)):
                continue
            for seconds in _moments(leg, leg, leg.start_s, leg.end_s):
                now = run.box(channel, leg, seconds, seconds)
                if now is not None and not _close(now, _hold_box(run, leg, main, second, seconds)):
                    continue
                stand = run.placed(channel, leg, seconds)
                if stand is None:
                    break
                solid = main if leg.motion.second else run.from_second(second, seconds)
                met, what = _met(stand.solid, solid), f"{stand.tool.id} meets the {name} spindle's hold"
                if met is None and not stand.carried_by.is_empty:
                    met, what = _met(stand.carried_by, solid), f"{_carrier(stand)} meets the {name} spindle's hold"
                if met is not None:
                    yield (stand.tool.id, name), Contact(what, leg.motion.line, met, CLEAR_MM)
                    break


def _hold_box(run: Run, leg: Leg, main: Region, second: Region, seconds: float | None = None) -> Box:
    """A box round the hold a tool does not work at, while it makes a move, or at one moment of it."""
    if leg.motion.second:
        low_z, low_r, high_z, high_r = main.bounds
        return float(low_z), float(low_r), float(high_z), float(high_r)
    moments = (leg.start_s, leg.end_s) if seconds is None else (seconds,)
    zeros = [run.zero_of_second(one) for one in moments]
    low_z, low_r, high_z, high_r = second.bounds
    return float(min(zeros) - high_z), float(low_r), float(max(zeros) - low_z), float(high_r)


def _both_halves(region: Region) -> Region:
    return mirrored_at_axis(region, FAR_MM)
