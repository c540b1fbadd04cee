"""Cycles of several blocks as the judge takes them apart: corners and ways, from the words alone."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

__all__ = ["Leg", "faced", "grooved", "roughed", "threaded"]

Place = tuple[float, float]
Numbers = dict[str, float]
FINE = 0.001
"""Whole numbers of P and Q count thousandths of a millimetre, or ten-thousandths of an inch."""
GRAIN = 0.002
"""Nearer than that two places are one."""

MOST = 2000


@dataclass(frozen=True)
class Leg:
    """Rapid, feed or thread to a place; ``centre`` of a round one."""

    how: str
    end: Place
    centre: Place | None = None
    clockwise: bool = False


def roughed(at: Place, contour: list[tuple[Place, Leg]], first: Numbers, last: Numbers, unit: float) -> Iterator[Leg]:
    """Passes along Z down to the contour with its allowances, then along it. Contours that go back are not taken."""
    depth, lift = first.get("U", 0.0) * unit, first.get("R", 0.0) * unit
    du, dw = last.get("U", 0.0) * unit / 2, last.get("W", 0.0) * unit
    if depth <= 0:
        raise ValueError("no depth")
    ends = [contour[0][0], *(leg.end for _, leg in contour)]
    inside = contour[-1][1].end[1] < contour[0][1].end[1] - 1e-9
    rising = [b[1] - a[1] for a, b in pairwise(ends[1:])]
    if any((one > 1e-6) if inside else (one < -1e-6) for one in rising):
        raise ValueError("its contour goes back")
    shifted = [((a[0] + dw, a[1] + du), _moved(leg, dw, du)) for a, leg in contour]
    bottom = shifted[0][1].end[1]
    step = depth if inside else -depth
    r, count = at[1] + step, 0
    lines = [(a, leg.end) for a, leg in shifted[1:]]
    while (r < bottom) if inside else (r > bottom):
        z = _first_met(lines, r, at[0])
        yield Leg("rapid", (at[0], r))
        yield Leg("feed", (z, r))
        yield Leg("feed", (z + lift, r - lift if inside else r + lift))
        yield Leg("rapid", (at[0], r - lift if inside else r + lift))
        r, count = r + step, count + 1
        if count > MOST:
            raise ValueError("too many passes")
    for n, (_, leg) in enumerate(shifted):
        yield Leg("rapid", leg.end) if n == 0 else leg
    yield Leg("rapid", (shifted[-1][1].end[0], at[1]))
    yield Leg("rapid", at)


def faced(at: Place, contour: list[tuple[Place, Leg]], first: Numbers, last: Numbers, unit: float) -> Iterator[Leg]:
    """The same with passes along X: everything with Z and X exchanged."""
    crossed = [(start[::-1], _crossed(leg)) for start, leg in contour]
    depth = {"U": first.get("W", 0.0), "R": first.get("R", 0.0)}
    left = {"U": 2 * last.get("W", 0.0), "W": last.get("U", 0.0) / 2}
    yield from (_crossed(leg) for leg in roughed(at[::-1], crossed, depth, left, unit))


def _crossed(leg: Leg) -> Leg:
    centre = None if leg.centre is None else leg.centre[::-1]
    return Leg(leg.how, leg.end[::-1], centre, not leg.clockwise)


def _moved(leg: Leg, dz: float, dr: float) -> Leg:
    centre = None if leg.centre is None else (leg.centre[0] + dz, leg.centre[1] + dr)
    return Leg(leg.how, (leg.end[0] + dz, leg.end[1] + dr), centre, leg.clockwise)


def _first_met(lines: list[tuple[Place, Place]], r: float, from_z: float) -> float:
    """Where a pass at a radius first comes to the contour."""
    met = from_z
    for (z0, r0), (z1, r1) in lines:
        if min(r0, r1) - 1e-9 <= r <= max(r0, r1) + 1e-9:
            return z0 if abs(r1 - r0) < 1e-9 else z0 + (z1 - z0) * (r - r0) / (r1 - r0)
        met = min(met, z1)
    return met


def grooved(at: Place, target: Place, last: Numbers, unit: float) -> Iterator[Leg]:
    """Plunges side by side, from where the tool stands to the place."""
    step = last.get("Q", 0.0) * FINE * unit
    if abs(target[0] - at[0]) > GRAIN and step <= 0:
        raise ValueError("no step")
    count = math.ceil(abs(target[0] - at[0]) / step - 1e-9) if step else 0
    if count > MOST:
        raise ValueError("too many plunges")
    for n in range(count + 1):
        z = at[0] + math.copysign(min(n * step, abs(target[0] - at[0])), target[0] - at[0])
        yield Leg("rapid", (z, at[1]))
        yield Leg("feed", (z, target[1]))
        yield Leg("rapid", (z, at[1]))
    yield Leg("rapid", at)


def threaded(at: Place, target: Place, first: Numbers, last: Numbers, unit: float, lead: float) -> Iterator[Leg]:
    """Passes of even chips, each a little deeper, down to the place, running out over so many tenths of the lead."""
    height, begin = last.get("P", 0.0) * FINE * unit, last.get("Q", 0.0) * FINE * unit
    if last.get("R"):
        raise ValueError("a taper")
    if begin <= 0 or height <= 0:
        raise ValueError("no depth")
    into = 1.0 if target[1] > at[1] else -1.0
    crest = target[1] - into * height
    count = min(math.ceil((height / begin) ** 2), MOST)
    out = min(int(first.get("P", 0.0)) // 100 % 100 / 10 * lead, abs(target[0] - at[0]))
    for n in range(1, count + 1):
        r = crest + into * min(begin * math.sqrt(n), height)
        yield Leg("rapid", (at[0], r))
        yield Leg("thread", (target[0] + math.copysign(out, at[0] - target[0]), r))
        if out:
            yield Leg("thread", (target[0], r - into * out))
        yield Leg("rapid", (target[0], at[1]))
        yield Leg("rapid", at)
