"""Depth, feed and speed of a cut that takes least time, or costs least, inside every limit.

Depth comes first, because it costs least of the edge's life, then feed, then speed. For every depth that divides the
metal evenly the largest feed that keeps all limits is sought, then the largest speed (for least cost the speed that
costs least); of all depths the deepest counts whose time is within half a hundredth of the best.
"""

import math
from bisect import bisect_left, insort
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal, NamedTuple

from toreuma.core.cutting.corner import NOSE_SHARE
from toreuma.core.cutting.life import life_min
from toreuma.core.cutting.limits import LIMITS, LOWEST_SHARE, VARIABLES, LimitKind, Variable
from toreuma.core.cutting.situation import Cut, Situation
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.propose.roots import CLOSE, TIGHT, golden, largest

__all__ = ["FREE", "USUAL_COSTS", "Aim", "Costs", "Fixed", "Found", "MetalStep", "best", "minutes_of"]

MetalStep = tuple[float, float]
"""Height of metal to be divided into passes, mm, and length of each pass, mm."""

Aim = Literal["output", "cost"]

LEAST_FEED, THIN_FEED, MOST_FEED = 0.005, 0.03, 5.0
LEAST_DEPTH, LEAST_SPEED = 0.02, 1.0
SPEED_ROOM = 4.0
SPEED_STEPS, FEED_STEPS = 16, 7
SAMPLES, CLOSER = 7, 14
SHALLOWEST_SHARE = 6.0
"""Depths down to this part of the deepest possible are tried."""

AS_GOOD = 1.005

BENDS = ("bend of the piece", "bend of the bar")
"""Limits that less feed keeps only down to where the edge rubs."""

UNKEPT = 3
"""The group of cuts that break a limit of strength, power or hold."""

_Judged = tuple[int, float, Cut]
"""Group (0 keeps every limit, 1 is too shallow, 2 has too thin a chip), time or cost, and the cut."""


@dataclass(frozen=True)
class Fixed:
    """Numbers that are given: depth on radius, mm; feed, mm/rev; surface speed, m/min."""

    ap_mm: float | None = None
    feed_mm_rev: float | None = None
    vc_m_min: float | None = None


@dataclass(frozen=True)
class Costs:
    """What least cost is reckoned with: the machine's hour, an edge, and the minutes to change it."""

    machine_per_h: float = 60.0
    edge: float = 2.5
    change_min: float = 2.0

    def of(self, minutes: float, life: float) -> float:
        """Cost of some minutes of cutting."""
        per_min = self.machine_per_h / 60
        return minutes * per_min + minutes / max(life, 1e-6) * (self.edge + self.change_min * per_min)


FREE, USUAL_COSTS = Fixed(), Costs()


@dataclass(frozen=True)
class Found:
    """``broken`` are the binding limits no choice could keep, worst first; empty mostly."""

    cut: Cut
    minutes: float
    broken: tuple[LimitKind, ...] = ()


_UPPER = tuple(kind for kind in LIMITS if kind.binds and not kind.floor)
_UPPER_ON: dict[Variable, tuple[LimitKind, ...]] = {
    variable: tuple(kind for kind in _UPPER if variable in kind.on) for variable in VARIABLES
}
_UPPER_ON["ap"] = tuple(kind for kind in _UPPER_ON["ap"] if "vc" in kind.on or "f" not in kind.on or kind.symbol != "f")
"""The depth is sought at the least feed of the window, so the window's feed does not limit it."""

_FLOOR = tuple(kind for kind in LIMITS if kind.binds and kind.floor)
_FLOOR_OF_FEED = tuple(kind for kind in _FLOOR if "f" in kind.on)


def best(
    situation: Situation,
    steps: tuple[MetalStep, ...],
    fixed: Fixed = FREE,
    aim: Aim = "output",
    costs: Costs = USUAL_COSTS,
) -> Found:
    """The cut for metal that is taken in ``steps``, each divided evenly. Fixed numbers stay as they are.

    Where no numbers keep all limits, those that break a strength, power or hold limit least; chips that come as
    strings are preferred to that.
    """
    tried = [
        judged
        for given in _with_rungs(situation, fixed)
        for judged in _Search(situation=situation, steps=steps, fixed=given, aim=aim, costs=costs).tried()
    ]
    least = min(tried, key=lambda one: (one[0], one[1]))
    good = [one for one in tried if one[0] == least[0] and one[1] <= least[1] * AS_GOOD + 1e-12]
    _, _, cut = max(good, key=lambda one: one[2].ap_mm)
    seen = situation.see(cut)
    shares = sorted(((kind.share(situation, cut, seen), kind) for kind in (*_UPPER, *_FLOOR)), key=lambda x: -x[0])
    broken = tuple(kind for share, kind in shares if share > 1 + 1e-6)
    return Found(cut, minutes_of(situation, cut, steps), broken)


def _with_rungs(situation: Situation, fixed: Fixed) -> list[Fixed]:
    """On a machine with a ladder of feeds, every rung worth trying as a fixed feed."""
    rungs, window = situation.machine.feeds_mm_rev, situation.window
    if not rungs or fixed.feed_mm_rev is not None:
        return [fixed]
    low = min(window.feeds_at(ap)[0] for ap in window.depths) if window is not None else THIN_FEED
    inside = [feed for feed in rungs if feed >= low * (1 - TIGHT)] or [rungs[-1]]
    below = [feed for feed in rungs if feed < inside[0]]
    high = NOSE_SHARE * situation.nose_mm if situation.nose_mm > 0 else math.inf
    chosen = [*below[-1:], *(feed for feed in inside if feed <= high)]
    return [replace(fixed, feed_mm_rev=feed) for feed in chosen or rungs[:1]]


def minutes_of(situation: Situation, cut: Cut, steps: tuple[MetalStep, ...]) -> float:
    """Minutes of feed travel for all steps with even passes."""
    return _travel(cut.ap_mm, steps) * situation.minutes_per_mm(cut, situation.see(cut).clamp_rpm)


def _travel(ap_mm: float, steps: tuple[MetalStep, ...]) -> float:
    """Feed travel of all passes, mm."""
    return sum(length * max(1, math.ceil(height / ap_mm - 1e-6)) for height, length in steps)


def _depth(one: "_Judged") -> float:
    return one[2].ap_mm


class _Looked(NamedTuple):
    """A depth that was looked at: its group, the time or cost of a millimetre of travel, and what was judged."""

    ap_mm: float
    group: int
    unit: float
    judged: _Judged


def _promise(ap: float, travel_mm: float, looked: list[_Looked]) -> tuple[int, float]:
    """What the depths looked at beside one let expect of it: how well the limits are kept, and time or cost.

    ``looked`` is in order of depth.
    """
    at = bisect_left(looked, (ap,))
    below, above = looked[max(at - 1, 0)], looked[min(at, len(looked) - 1)]
    better = above if above.judged < below.judged else below
    unit = better.unit
    if above.group == below.group != UNKEPT and above.ap_mm > below.ap_mm:
        part = math.log(ap / below.ap_mm) / math.log(above.ap_mm / below.ap_mm)
        unit = below.unit ** (1 - part) * above.unit**part
    return min(above.group, below.group), unit * travel_mm


@dataclass(frozen=True, kw_only=True)
class _Search:
    situation: Situation
    steps: tuple[MetalStep, ...]
    fixed: Fixed
    aim: Aim
    costs: Costs

    @cached_property
    def _found(self) -> dict[Variable, float]:
        """The feed and the speed found last: at the next depth they are mostly near them."""
        return {}

    def tried(self) -> list["_Judged"]:
        """The depths worth a closer look, each with its best feed and speed.

        Time per millimetre of travel changes smoothly with depth and is sampled; of the many depths that divide some
        step evenly those that promise most are then computed.
        """
        if self.fixed.ap_mm is not None:
            return [self.at_depth(self.fixed.ap_mm)]
        highest = max((height for height, _ in self.steps), default=1.0)
        if highest <= LEAST_DEPTH:
            return [self.at_depth(max(highest, 1e-3))]
        deep = largest(
            LEAST_DEPTH, highest, lambda ap: self._load(Cut(ap, self._feed_for_depth(ap), self._slowest), "ap")
        )
        thin = largest(LEAST_DEPTH, highest, lambda ap: self._load(Cut(ap, self._thin_feed, self._slowest), "ap"))
        deepest, shallowest = max(deep, thin), max(deep / SHALLOWEST_SHARE, LEAST_DEPTH)
        sampled = self._sampled(deepest, shallowest, SAMPLES)
        least = min(one[0] for one in sampled)
        kept = [index for index, one in enumerate(sampled) if one[0] == least]
        if len(kept) < SAMPLES:  # a closer look at where the limits are kept best
            first, last = max(kept[0] - 1, 0), min(kept[-1] + 1, SAMPLES - 1)
            sampled += self._sampled(sampled[first][2].ap_mm, sampled[last][2].ap_mm, SAMPLES)[1:-1]
        looked = sorted(map(self._looked_at, sampled))
        even = {ap: _travel(ap, self.steps) for ap in self._even(deepest, shallowest)}
        for _ in range(CLOSER):  # every look makes the promises of the depths beside it better
            ap = min(even, key=lambda one: _promise(one, even[one], looked), default=None)
            if ap is None:
                break
            del even[ap]
            insort(looked, self._looked_at(self.at_depth(ap)))
        return [one.judged for one in looked]

    def _looked_at(self, judged: "_Judged") -> "_Looked":
        ap = judged[2].ap_mm
        return _Looked(ap, judged[0], judged[1] / max(_travel(ap, self.steps), 1e-9), judged)

    def _sampled(self, deepest: float, shallowest: float, count: int) -> list["_Judged"]:
        """Depths in equal ratios, from the deepest down."""
        ratio = (shallowest / deepest) ** (1 / (count - 1))
        return [self.at_depth(deepest * ratio**index) for index in range(count)]

    def _even(self, deepest: float, shallowest: float) -> set[float]:
        found = set()
        for height, _ in self.steps:
            count = max(1, math.ceil(height / (deepest * (1 + 3 * CLOSE)) - 1e-6))
            while height / count >= shallowest:
                found.add(height / count)
                count += max(1, count // 40)
        return found

    def _feed_for_depth(self, ap: float) -> float:
        """The feed the depth is sought at: the least of the window."""
        window = self.situation.window
        if self.fixed.feed_mm_rev is not None or window is None:
            return self._thin_feed
        return window.feeds_at(ap)[0]

    @property
    def _thin_feed(self) -> float:
        return self.fixed.feed_mm_rev or THIN_FEED

    def at_depth(self, ap: float) -> "_Judged":
        """How well the limits can be kept (0 best), time or cost, and the cut."""
        slow, situation = self._slowest, self.situation
        if self.fixed.feed_mm_rev is not None:
            return self._judged(self._with_speed(ap, self.fixed.feed_mm_rev))
        window = situation.window
        low = self._feed_floor(ap, window.feeds_at(ap)[0] if window is not None else LEAST_FEED, slow)
        if self._load(Cut(ap, low, slow), "f") > 1 + TIGHT:
            low = self._unbent(ap, low, slow) if situation.use == "finish" else LEAST_FEED
        high = largest(low, self._most_feed, lambda f: self._load(Cut(ap, f, slow), "f"), self._found.get("f"))
        self._found["f"] = high
        most = self._at_feed(ap, high)
        return self._with_least_worth(most, low, high) if self._is_clamped(most[2]) else most

    def _unbent(self, ap: float, low: float, vc: float) -> float:
        """The least feed of a finishing cut where limits are broken at ``low``: an edge that would have to rub for the
        piece or the bar to give way less is not thinned, the bend is told."""

        def hard(feed: float) -> float:
            cut = Cut(ap, feed, vc)
            seen = self.situation.see(cut)
            kinds = (kind for kind in self._moving["f"] if kind.name not in BENDS)
            return max((kind.share(self.situation, cut, seen) for kind in kinds), default=0.0)

        return low if hard(low) <= 1 + TIGHT else largest(LEAST_FEED, low, hard)

    def _is_clamped(self, cut: Cut) -> bool:
        """The grip left at speed holds the spindle down on the middle diameter."""
        situation = self.situation
        clamp = situation.see(cut).clamp_rpm
        return clamp < min(situation.fixed_limit_rpm, surface_speed_rpm(cut.vc_m_min, situation.mean_d_mm))

    def _at_feed(self, ap: float, feed: float) -> "_Judged":
        return self._judged(self._with_speed(ap, feed))

    def _with_least_worth(self, most: "_Judged", low: float, high: float) -> "_Judged":
        """Where the grip left at speed decides, less feed may allow so much more speed that it is faster."""
        ap, found = _depth(most), [most]

        def worth(log_feed: float) -> float:
            found.append(self._at_feed(ap, math.exp(log_feed)))
            return found[-1][1] if found[-1][0] != UNKEPT else math.inf

        golden(math.log(low), math.log(high), worth, FEED_STEPS)
        return min(found)

    def _with_speed(self, ap: float, feed: float) -> Cut:
        """The fastest cut at depth and feed that keeps the limits, or the one that costs least."""
        if self.fixed.vc_m_min is not None:
            return Cut(ap, feed, self.fixed.vc_m_min)
        slow = self._slowest
        top = slow * SPEED_ROOM
        fastest = largest(slow, top, lambda vc: self._load(Cut(ap, feed, vc), "vc"), self._found.get("vc"))
        self._found["vc"] = fastest
        cut = Cut(ap, feed, self._cheapest(ap, feed, slow, fastest) if self.aim == "cost" else fastest)
        if self.situation.machine.speeds_rpm:
            return cut._replace(vc_m_min=max(self.situation.see(cut).vc_there, LEAST_SPEED))
        return cut

    def _cheapest(self, ap: float, feed: float, slow: float, fast: float) -> float:
        """The cost falls with speed, then rises with the edges used up."""
        best = golden(
            math.log(slow),
            math.log(max(fast, slow)),
            lambda log_vc: self._worth(Cut(ap, feed, math.exp(log_vc))),
            SPEED_STEPS,
        )
        return math.exp(best)

    def _worth(self, cut: Cut) -> float:
        minutes = minutes_of(self.situation, cut, self.steps)
        return self.costs.of(minutes, life_min(self.situation, cut)) if self.aim == "cost" else minutes

    def _judged(self, cut: Cut) -> "_Judged":
        situation, seen = self.situation, self.situation.see(cut)

        def over(kinds: tuple[LimitKind, ...]) -> float:
            return max((kind.share(situation, cut, seen) for kind in kinds), default=0.0)

        upper = over(_UPPER)
        if upper > 1 + 1e-6:
            return UNKEPT, upper, cut
        group = 2 if over(_FLOOR_OF_FEED) > 1 + 1e-6 else 1 if over(_FLOOR) > 1 + 1e-6 else 0
        return group, self._worth(cut), cut

    def _load(self, cut: Cut, moving: Variable) -> float:
        """The largest share of any limit that a larger ``moving`` number breaks."""
        situation, seen = self.situation, self.situation.see(cut)
        return max((kind.share(situation, cut, seen) for kind in self._moving[moving]), default=0.0)

    @cached_property
    def _moving(self) -> dict[Variable, tuple[LimitKind, ...]]:
        """The limits there are in this situation, by what moves them."""
        probe = Cut(1.0, 0.2, self._slowest)
        seen = self.situation.see(probe)
        there = {kind.name for kind in _UPPER if kind.measure(self.situation, probe, seen) is not None}
        return {moving: tuple(kind for kind in kinds if kind.name in there) for moving, kinds in _UPPER_ON.items()}

    def _feed_floor(self, ap: float, low: float, vc: float) -> float:
        """The smallest feed at which the chip is thick enough to be cut and broken."""
        situation = self.situation

        def thick(feed: float) -> float:
            cut = Cut(ap, feed, vc)
            seen = situation.see(cut)
            most = max(kind.share(situation, cut, seen) for kind in _FLOOR_OF_FEED)
            return 1 / most if most > 0 else math.inf

        if thick(low) >= 1 - TIGHT:
            return low
        return largest(low, self._most_feed, thick) * (1 + 2 * CLOSE)

    @property
    def _most_feed(self) -> float:
        nose = self.situation.nose_mm
        return min(2 * nose * 0.99, MOST_FEED) if nose > 0 else MOST_FEED

    @property
    def _slowest(self) -> float:
        table = self.situation.table_vc
        if self.fixed.vc_m_min is not None:
            return self.fixed.vc_m_min
        if table is None:
            return LEAST_SPEED
        return max(LOWEST_SHARE * table * self.situation.harm * self.situation.wish, LEAST_SPEED)
