"""Threads as mills went round in their holes: on which circle, how far up in a turn, how deep. What such a mill leaves
is seen by these alone."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.core.geometry.elements import Point
from toreuma.core.geometry.milled import Sunk
from toreuma.core.model import ThreadForm
from toreuma.core.model.tool import ThreadMill
from toreuma.core.motion import Motion

__all__ = ["Chord", "Orbit", "chord_of", "fits", "is_at", "orbit_of"]

ON_CIRCLE_MM = 0.004
"""Chords with both ends so near the widest circle belong to the turns; the others lead in and out."""

PAST_LIMIT_MM = 0.005
"""A thread that comes out so much wider than its limits is told as such; wider still it is a cut into the part."""

BEHIND_PITCHES = 3.0
"""A mill goes out so far behind a through hole."""

NEARLY_A_TURN = 0.98
SAME_DEG = 0.01
TINY_MM = 1e-6


@dataclass(frozen=True, kw_only=True)
class Chord:
    """A piece of the way of a thread mill at feed: (u, v) across its axis and w along it, mm; across the work's axis
    they are (x, y), from the side (z, y) seen from where the work has turned by ``c_deg``."""

    line: int
    station: int
    from_side: bool
    c_deg: float
    start: tuple[float, float, float]
    end: tuple[float, float, float]


@dataclass(frozen=True, kw_only=True)
class Orbit:
    """The turns about one place: on ``radius``, from ``low`` to ``high``, ``lead_mm`` up in a turn of the hand of a
    right-hand thread, below zero the other way; ``in_step``: turns that follow on others cut in the same grooves."""

    line: int
    station: int
    radius: float
    low: float
    high: float
    lead_mm: float
    in_step: bool


def chord_of(motion: Motion, tool: ThreadMill) -> Chord | None:
    """The chord a move makes; None for rapids and moves of work that turns under a still tool."""
    driven = motion.driven
    if motion.feed is None or motion.event or driven is None:
        return None
    (z0, x0), (z1, x1) = motion.start, motion.end
    from_side = tool.mount == "radial"
    if from_side:
        start, end = (z0, driven.y[0], x0), (z1, driven.y[1], x1)
    else:
        start, end = (*_turned(x0, driven.y[0], driven.c_deg), z0), (*_turned(x1, driven.y[1], driven.c_deg), z1)
    return Chord(line=motion.line, station=tool.station, from_side=from_side, c_deg=driven.c_deg, start=start, end=end)


def is_at(chord: Chord, place: Sunk, within_mm: float) -> bool:
    """Whether a chord lies about the middle of a hole."""
    if chord.from_side is not (place.along == "x"):
        return False
    if chord.from_side and abs((chord.c_deg - place.c_deg + 180) % 360 - 180) > SAME_DEG:
        return False
    return max(math.dist(chord.start[:2], place.middle), math.dist(chord.end[:2], place.middle)) <= within_mm


def fits(chord: Chord, tool: ThreadMill, place: Sunk, form: ThreadForm) -> bool:
    """Whether a chord cuts nothing but the thread of a hole."""
    widest = (form.pitch_d_mm[1] - tool.pitch_d_mm(form.pitch_mm)) / 2 + PAST_LIMIT_MM
    floor = place.level - (BEHIND_PITCHES * form.pitch_mm if place.through else 0.0) - TINY_MM
    return is_at(chord, place, widest) and min(chord.start[2], chord.end[2]) >= floor


def _turned(x: float, y: float, deg: float) -> Point:
    a = math.radians(deg)
    return x * math.cos(a) - y * math.sin(a), x * math.sin(a) + y * math.cos(a)


def orbit_of(chords: Sequence[Chord], middle: Point, pitch_mm: float, same_mm: float) -> Orbit | None:
    """The turns that chords make about a place; None where they make no whole one. ``same_mm``: grooves that lie so
    near each other along the axis are one."""
    radii = [(math.dist(one.start[:2], middle), math.dist(one.end[:2], middle)) for one in chords]
    widest = max((max(pair) for pair in radii), default=0.0)
    if widest < ON_CIRCLE_MM:
        return None
    turns = [one for one, pair in zip(chords, radii, strict=True) if min(pair) > widest - ON_CIRCLE_MM]
    angle = sum(_angle(one, middle) for one in turns)
    if abs(angle) < NEARLY_A_TURN * 2 * math.pi:
        return None
    side = -1.0 if turns[0].from_side else 1.0  # z, y and x are a left-hand system
    up = sum(one.end[2] - one.start[2] for one in turns)
    lead = side * up / (angle / (2 * math.pi))
    return Orbit(
        line=turns[0].line,
        station=turns[0].station,
        radius=widest,
        low=min(min(one.start[2], one.end[2]) for one in turns),
        high=max(max(one.start[2], one.end[2]) for one in turns),
        lead_mm=lead,
        in_step=_in_step(turns, middle, side * lead, pitch_mm, same_mm),
    )


def _angle(chord: Chord, middle: Point) -> float:
    """How far it goes about a place, against the clock above zero, radians."""
    a, b = (math.atan2(p[1] - middle[1], p[0] - middle[0]) for p in (chord.start, chord.end))
    return (b - a + math.pi) % (2 * math.pi) - math.pi


def _in_step(turns: Sequence[Chord], middle: Point, lead: float, pitch: float, same_mm: float) -> bool:
    """Whether every place of the turns lies in the grooves of the first."""
    if abs(lead) < TINY_MM:
        return False

    def groove(w: float, u: float, v: float) -> float:
        return w - lead * math.atan2(v - middle[1], u - middle[0]) / (2 * math.pi)

    first = groove(turns[0].start[2], *turns[0].start[:2])
    for one in turns:
        away = (groove(one.end[2], *one.end[:2]) - first) / pitch
        if abs(away - round(away)) * pitch > same_mm:
            return False
    return True
