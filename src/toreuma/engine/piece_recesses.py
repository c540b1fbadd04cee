"""Grooves in what stands at the end of a program: recesses with even walls in cylinders, in the bore, in the face."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.geometry.elements import Arc, Line, Point, Segment

__all__ = ["FACE", "INSIDE", "OUTSIDE", "without_recesses"]

SAME_MM = 0.003
MOST_PIECES = 4
DIGITS = 4
STEEP_DEG, SAME_DEG = 45.0, 0.2
"""Walls that lean more are slopes of the part; both lean alike."""

FLANKS_DEG, TEETH = (30.0, 27.5, 15.0, 14.5), 3
"""So many recesses between walls that lean like flanks of threads are what a thread or a tap leaves."""

Row = dict[str, Any]


@dataclass(frozen=True)
class _Found:
    """A recess: where it begins and ends along its surface, how high that and its floor lie, all mm, and its form."""

    begin: float
    end: float
    surface: float
    floor: float
    wall_deg: float
    round_mm: float


@dataclass(frozen=True)
class Frame:
    """A surface as grooves see it: places along it and above it, and the groove as a feature."""

    seen: Callable[[Point], Point]
    feature: Callable[[_Found], Row]


def _round_it(side: str, up: float) -> Frame:
    def feature(one: _Found) -> Row:
        return {
            "kind": "groove", "side": side, "z_mm": round(-one.begin, DIGITS),
            "d_mm": round(2 * up * one.floor, DIGITS),
        } | _walls(one)  # fmt: skip

    return Frame(lambda place: (-place[0], up * place[1]), feature)


def _face(one: _Found) -> Row:
    depth = round(one.surface - one.floor, DIGITS)
    return {"kind": "face_groove", "d_mm": round(2 * one.end, DIGITS), "depth_mm": depth} | _walls(one)


def _walls(one: _Found) -> Row:
    width = round(one.end - one.begin, DIGITS)
    return {"width_mm": width, "wall_deg": one.wall_deg, "floor_round_mm": one.round_mm}


OUTSIDE, INSIDE = _round_it("outside", 1.0), _round_it("inside", -1.0)
FACE = Frame(lambda place: (place[1], place[0]), _face)


def without_recesses(segments: list[Segment], frame: Frame) -> tuple[list[Segment], list[Row]]:
    """The segments as if no groove were cut in their level surfaces, and those grooves; teeth of threads are none."""
    found, grooves = _without(segments, frame, STEEP_DEG)
    teeth = sum(any(abs(one["wall_deg"] - flank) < SAME_DEG for flank in FLANKS_DEG) for one in grooves)
    return (found, grooves) if teeth < TEETH else _without(segments, frame, SAME_DEG)


def _without(segments: list[Segment], frame: Frame, steepest: float) -> tuple[list[Segment], list[Row]]:
    found, grooves = list(segments), []
    while recess := _recess(found, frame, steepest):
        first, last, groove = recess
        found[first - 1 : last + 2] = [Line(found[first - 1].start, found[last + 1].end)]
        grooves.append(groove)
    return found, grooves


def _recess(segments: list[Segment], frame: Frame, steepest: float) -> tuple[int, int, Row] | None:
    """The first groove in a level surface: down a wall, along, and up another to the same height; its walls lean no
    more than ``steepest``."""
    for first in range(1, len(segments) - 2):
        if _is_level(segments[first - 1], frame) and _lean(segments[first], frame, -1.0) is not None:
            for last in range(first + 1, min(first + MOST_PIECES + 2, len(segments) - 1)):
                made = _made(segments, first, last, frame)
                if made is not None and made.wall_deg <= steepest:
                    return first, last, frame.feature(made)
    return None


def _made(segments: list[Segment], first: int, last: int, frame: Frame) -> _Found | None:
    """The groove between two walls; None where they are none, or what lies between is no floor."""
    down, up, between = segments[first], segments[last], segments[first + 1 : last]
    leans = _lean(down, frame, -1.0), _lean(up, frame, 1.0)
    if leans[0] is None or leans[1] is None or abs(leans[0] - leans[1]) > SAME_DEG:
        return None
    if not _is_level(segments[last + 1], frame):
        return None
    (begin, high), (end, other) = frame.seen(down.start), frame.seen(up.end)
    lines = [one for one in between if isinstance(one, Line)]
    rounds = [one.radius for one in between if isinstance(one, Arc)]
    if abs(high - other) > SAME_MM or len(lines) > 1 or not all(_is_level(one, frame) for one in lines):
        return None
    if len(rounds) not in (0, 2) or (rounds and abs(rounds[0] - rounds[1]) > SAME_MM):
        return None
    floor = min(frame.seen(place)[1] for one in (down, up, *lines) for place in (one.start, one.end))
    round_mm = round(sum(rounds) / 2, 3) if rounds else 0.0
    return _Found(begin, end, high, floor, round(sum(leans) / 2, 2), round_mm)  # type: ignore[arg-type]


def _lean(one: Segment, frame: Frame, way: float) -> float | None:
    """How far a wall that falls (-1) or rises (1) leans from square, degrees; None for what is no wall."""
    if not isinstance(one, Line):
        return None
    (a0, h0), (a1, h1) = frame.seen(one.start), frame.seen(one.end)
    if (h1 - h0) * way <= SAME_MM or a1 - a0 < -SAME_MM:
        return None
    lean = math.degrees(math.atan2(max(a1 - a0, 0.0), abs(h1 - h0)))
    return None if lean > STEEP_DEG else 0.0 if a1 - a0 < SAME_MM else lean


def _is_level(one: Segment, frame: Frame) -> bool:
    (a0, h0), (a1, h1) = frame.seen(one.start), frame.seen(one.end)
    return isinstance(one, Line) and abs(h0 - h1) < SAME_MM < abs(a0 - a1)
