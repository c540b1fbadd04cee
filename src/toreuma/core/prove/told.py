"""Speeds and feeds of a program against those it was meant to tell the control."""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

from toreuma.core.findings import Finding, Severity
from toreuma.core.motion import Motion, Spindle
from toreuma.core.read import Program
from toreuma.core.spoken import q, said

__all__ = ["Told", "told_otherwise", "told_to"]

SAME_SPEED, SAME_FEED, STEP_MM = 1e-4, 1e-3, 1.5e-4
"""Shares within which speeds and feeds are the same; leads are written in steps of this many mm or finer."""

MORE = 1.2
"""So much faster than planned is no longer what the switches of a machine are turned to: an error, whatever stands."""


SAME_PLACE_MM = 0.02
"""Moves that begin and end as near to each other are the same."""

Feed = tuple[float, bool]
"""In mm per turn, or per minute where the second is true."""

Place = tuple[int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """What a tool is told while it cuts: speeds, and feeds in mm per turn or per minute.

    ``section`` is the number of its operation in the program's comment; None: wherever that tool cuts at that spindle.
    ``each`` has the feeds of single moves, found by where they go.
    """

    station: int
    section: int | None
    second: bool
    speeds: frozenset[Spindle]
    feeds: frozenset[Feed]
    each: Mapping[Place, frozenset[Feed]] = field(default_factory=dict)

    def feeds_of(self, motion: Motion) -> frozenset[Feed]:
        """Those of the very move, or of the whole section where it has no such move."""
        return next((self.each[place] for place in _places(motion) if place in self.each), self.feeds)


def told_to(motions: Iterable[Motion], section: int | None = None, second: bool = False) -> Iterator[Told]:
    """What these moves tell each tool."""
    cuts: dict[int, list[Motion]] = {}
    for motion in motions:
        if motion.feed is not None:
            cuts.setdefault(motion.station, []).append(motion)
    for station, own in cuts.items():
        feeds = frozenset((float(one.feed or 0), one.per_minute) for one in own)
        each: dict[Place, frozenset[Feed]] = {}
        for one in own:
            for place in _places(one):
                each[place] = each.get(place, frozenset()) | {(float(one.feed or 0), one.per_minute)}
        yield Told(
            station=station,
            section=section,
            second=second,
            speeds=frozenset(_speed(one) for one in own if not one.shared),
            feeds=feeds,
            each=each,
        )


def _places(motion: Motion) -> Iterator[Place]:
    """Where a move begins and ends in whole steps, counted from two origins: what is near lies in one step of one."""
    ends = (*motion.start, *motion.end, *((motion.driven.c_deg, *motion.driven.y) if motion.driven else ()))
    for n, origin in enumerate((0.0, 0.5)):
        yield n, *(math.floor(one / SAME_PLACE_MM + origin) for one in ends)


def told_otherwise(program: Program, wanted: Iterable[Told]) -> Iterator[Finding]:
    """Where a section of the program first cuts at a speed or feed that is not among those meant for it."""
    wanted = tuple(wanted)
    meant = {(one.station, one.section, one.second): one for one in wanted}
    stations: dict[tuple[int, bool], set[int]] = {}
    for one in wanted:
        if one.section is not None:
            stations.setdefault((one.section, one.second), set()).add(one.station)
    seen: set[tuple[str, int]] = set()
    for motion in program.motions:
        if motion.feed is None or not 0 <= motion.section < len(program.sections):
            continue
        section = program.sections[motion.section]
        whole, own = (motion.station, None, motion.second), (motion.station, section.number, motion.second)
        told = meant.get(own) or meant.get(whole)
        if told is None:
            planned = stations.get((section.number, motion.second))
            if planned and ("told.tool", motion.section) not in seen:
                seen.add(("told.tool", motion.section))
                which = " or ".join(map(str, sorted(planned)))
                what = f"line {motion.line}: cuts with station {motion.station}, planned is {which}"
                why = "its speeds, feeds and reach were worked out for another tool"
                yield Finding("error", "told.tool", what, why, line=motion.line)
            continue
        for found in (_speed_finding(motion, told), _feed_finding(motion, told)):
            if found is not None and (found.code, motion.section) not in seen:
                seen.add((found.code, motion.section))
                yield found


def _speed(motion: Motion) -> Spindle:
    """The speed of the work, or of the tool where that turns; a clamp counts with a surface speed only."""
    if motion.driven is not None:
        return Spindle("fixed", abs(motion.driven.rpm))
    spindle = motion.spindle
    return spindle if spindle.mode == "surface" else Spindle(spindle.mode, spindle.value)


def _speed_finding(motion: Motion, told: Told) -> Finding | None:
    speed = _speed(motion)
    if motion.shared or not told.speeds or any(_alike(speed, one) for one in told.speeds):
        return None
    meant = ", ".join(sorted(map(_words, told.speeds)))
    faster = all(_faster(speed, one) for one in told.speeds)
    what = f"line {motion.line}: cuts at {_words(speed)}, planned is {meant}"
    why = "the numbers of this operation were checked for the planned speed"
    return Finding("error" if faster else "warning", "told.speed", what, why, line=motion.line)


def _feed_finding(motion: Motion, told: Told) -> Finding | None:
    feed = float(motion.feed or 0)
    same = [one for one, per_minute in told.feeds_of(motion) if per_minute == motion.per_minute]
    if any(math.isclose(feed, one, rel_tol=SAME_FEED, abs_tol=STEP_MM) for one in same):
        return None
    unit = "mm/min" if motion.per_minute else "mm/rev"
    meant: str = "none"
    for n, one in enumerate(sorted(same)):
        meant = said("{}, {}", meant, q(one, unit, ".4g")) if n else said("{}", q(one, unit, ".4g"))
    severity: Severity = "error" if feed > MORE * max(same, default=0.0) else "warning"
    what = said("line {}: feeds {}, planned is {}", motion.line, q(feed, unit, ".4g"), meant)
    return Finding(severity, "told.feed", what, "the cut was checked for the planned feed", line=motion.line)


def _alike(one: Spindle, other: Spindle) -> bool:
    if one.mode != other.mode or not math.isclose(one.value, other.value, rel_tol=SAME_SPEED):
        return False
    return math.isclose(one.clamp_rpm or 0.0, other.clamp_rpm or 0.0, rel_tol=SAME_SPEED)


def _faster(one: Spindle, other: Spindle) -> bool:
    clamps = one.clamp_rpm or 0.0, other.clamp_rpm or 0.0
    clamped = clamps[0] > clamps[1] * (1 + SAME_SPEED) or (clamps[1] > 0 == clamps[0])  # a clamp is a safe speed
    return one.mode != other.mode or one.value > MORE * other.value or clamped


def _words(spindle: Spindle) -> str:
    if spindle.mode == "stopped":
        return "a standing spindle"
    if spindle.mode == "fixed":
        return f"{spindle.value:g} rpm"
    return said("{} up to {} rpm", q(spindle.value, "m/min", "g"), f"{spindle.clamp_rpm or 0:g}")
