"""The moves of a blade in a groove: plunges that leave a little, layers, and both walls down to the floor."""

import math
from itertools import pairwise

import numpy as np

from toreuma.core.control_cycles import groove_pecks
from toreuma.core.geometry.elements import Point, Points, Segment
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.region import Region
from toreuma.core.model import CutGroove
from toreuma.core.model.tool import Blade
from toreuma.core.plan.groove.place import ROOM_MM, Ground
from toreuma.core.plan.ground.met import MetMetal, between
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cycle, Pass, Word
from toreuma.core.plan.ground.work import Work

__all__ = ["OVERLAP", "cut_as_cycle", "cut_open", "finish_walls", "lone_plunge", "plunge_places"]

OVERLAP = 0.8
"""Neighbouring plunges stand apart by at most this share of the blade's flat."""

LAYER_SHARE = 0.4
"""Plunging and turning goes down by this share of the blade's width at a time."""

TURN_LIFT_MM = 0.05
"""The blade bends when it turns sideways and would cut deeper: it turns so much above the floor of its plunge."""

PECK_SHARE = 1.0
PECK_LIFT_MM = 0.15
"""Chips are broken every so many widths by lifting off a little."""

STEP_WIDTHS = 3.0
"""A deep groove is opened to its whole width every so many widths of the blade, so that chips and holder have room."""

LEANS_MM = 0.4
"""A wall that leans by less, or is only rounded at its top, is left to the finishing cut."""

CLEAR_MM, BESIDE_MM = 0.2, 0.25
LEAST_AREA_MM2 = 0.02
CHORDS_MM = 0.0015
"""What plunges leave on a wall they made themselves comes of the chords they are drawn with."""
BEHIND_MM, LEAST_TAKEN_MM2 = 0.3, 1e-3
"""A way down a wall goes on so far behind the last metal; less than this is none."""
FLOOR_MM, OFF_WALL_MM = 0.1, 0.1
"""Off the floor, and off a wall, at feed."""
FILM_MM2 = 1e-4
SAME_MM = 1e-4


def plunge_places(ground: Ground, blade: Blade, walls_mm: float = 0.0) -> list[tuple[float, float]]:
    """Places and depths of the plunges, from the middle outward; in a face from the largest diameter inward, because
    the blade is curved for its first ring. Where the floor is wider than the blade by no more than ``walls_mm`` on
    either side, one in the middle: the walls that are finished take the rest."""
    z0, z1 = float(ground.line[-1, 0]), float(ground.line[0, 0])
    envelope = Envelope(ground.line)
    flat = max(blade.width_mm - 2 * blade.corner_radius_mm, 0.3 * blade.width_mm)
    middle = (z0 + z1) / 2
    places = [middle]
    if z1 - z0 > ROOM_MM:
        floor = ground.line[ground.line[:, 1] < float(ground.line[:, 1].min()) + SAME_MM, 0]
        low, high = float(floor.min()), float(floor.max())
        alone = high - low <= max(ROOM_MM, 2 * walls_mm)
        places = [(low + high) / 2] if alone else _apart(high, low, OVERLAP * flat)
        for end, begin in ((z1, high), (z0, low)):  # above walls that lean
            places += _apart(end, begin, OVERLAP * flat)[:-1] if abs(end - begin) > LEANS_MM else []
    found = []
    for z in sorted(places, key=lambda z: (0.0 if ground.frame.swap else abs(z - middle), -z)):
        depth = envelope.height(z) if z1 - z0 > ROOM_MM else float(ground.line[:, 1].min())
        found.append((z, depth))
    return found


def _apart(begin: float, end: float, step: float) -> list[float]:
    """Places from one end to the other, hair's breadths inside them, no farther apart than a step."""
    inset = math.copysign(min(SAME_MM, abs(end - begin) / 4), end - begin)
    count = max(1, math.ceil(abs(end - begin) / step - 1e-6)) + 1
    return [float(z) for z in np.linspace(begin + inset, end - inset, count)]


def lone_plunge(work: Work, ground: Ground) -> tuple[float, float] | None:
    """Place and depth of the one plunge that does it all, where the edge has the shape of the groove."""
    z, deep = (float(number) for number in ground.line[ground.line[:, 1].argmin()])
    begin = ground.top + ground.shape.nose_radius + CLEAR_MM
    stock = ground.frame.region(work.stock)
    whole = _swept(ground, [(z, begin), *map(tuple, ground.line.tolist()), (z, begin)]).intersection(stock)
    left = whole.area - _metal(work, ground, [(z, begin), (z, deep)])
    return (z, deep) if left < ROOM_MM * ground.depth else None


def _metal(work: Work, ground: Ground, path: list[tuple[float, float]]) -> float:
    """Area the blade would take along a way of its nose, mm2."""
    return _taken(ground, ground.frame.region(work.stock), path)


def _taken(ground: Ground, stock: Region, path: list[tuple[float, float]]) -> float:
    return float(_swept(ground, path).intersection(stock).area)


def _swept(ground: Ground, path: list[tuple[float, float]]) -> Region:
    return sweep(np.array(path), ground.shape.core, ground.shape.nose_radius, 0.005)


def cut_open(
    work: Work,
    operation: CutGroove,
    path: Path,
    ground: Ground,
    plunges: list[tuple[float, float]],
    feed: float,
    blade: Blade,
) -> list[Pass]:
    """Down at every place where metal is met; or down and sideways, layer by layer."""
    begin = ground.top + ground.shape.nose_radius + 0.2
    worth = [(z, depth) for z, depth in plunges if _metal(work, ground, [(z, begin), (z, depth)]) > LEAST_AREA_MM2]
    if operation.method == "plunge_turn" and len(worth) > 1:
        return _layers(path, ground, worth, feed, blade, begin)
    met = MetMetal(ground.frame.region(work.stock), ground.shape)
    drawn, above = [], begin
    peck = PECK_SHARE * blade.width_mm if operation.method == "plunges" else math.inf
    for level in _steps(begin, worth, blade):
        for z, depth in worth:
            bottom = max(depth, level)
            if bottom > above - SAME_MM:
                continue
            _over(path, ground, z)
            high = above + CLEAR_MM if above < begin else met.down_to((z, bottom), begin, CLEAR_MM)
            path.rapid(r=min(high, ground.safe))
            first = len(path.motions)
            _plunge(path, min(above, high), bottom, feed, peck)
            drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), blade.width_mm))
            path.rapid(r=ground.safe)
        above = level
    return drawn


def _layers(
    path: Path, ground: Ground, plunges: list[tuple[float, float]], feed: float, blade: Blade, begin: float
) -> list[Pass]:
    """Plunge by a part of the width, lift a little, turn to the other wall; deeper, and back."""
    low, high = min(depth for _, depth in plunges), float(ground.line[:, 1].max())
    count = max(1, math.ceil((high - low) / (LAYER_SHARE * blade.width_mm)))
    levels = np.linspace(high, low, count + 1)[1:]
    line = Envelope(ground.line).with_levels(levels).points
    drawn, toward_chuck = [], True
    for level in levels:
        inside = line[line[:, 1] <= level + 1e-6, 0]
        ends = (float(inside.max()), float(inside.min()))
        start, end = ends if toward_chuck else ends[::-1]
        if not path.motions or abs(path.nose[0] - start) > 1e-6:
            _over(path, ground, start)
            path.rapid(r=min(begin, ground.safe))
        first = len(path.motions)
        path.feed(feed, z=start, r=float(level))
        path.feed(feed, r=float(level) + TURN_LIFT_MM)
        path.feed(feed, z=end)
        drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), blade.width_mm))
        toward_chuck = not toward_chuck
    path.rapid(r=ground.safe)
    return drawn


def _over(path: Path, ground: Ground, z: float) -> None:
    """Above a place, ready to go down."""
    if not path.motions:
        path.come(z, ground.safe)
        return
    path.rapid(r=ground.safe)
    path.rapid(z=z)


def cut_as_cycle(
    path: Path, ground: Ground, plunges: list[tuple[float, float]], feed: float, blade: Blade
) -> tuple[list[Pass], tuple[Cycle, ...]]:
    """Plunges of one depth, from the front to the back, as the grooving cycle of the control."""
    places = sorted((z for z, _ in plunges), reverse=True)
    depth = max(r for _, r in plunges)
    begin = min(ground.top + ground.shape.nose_radius + CLEAR_MM, ground.safe)
    step = (places[0] - places[-1]) / (len(places) - 1) if len(places) > 1 else 0.0
    _over(path, ground, places[0])
    path.rapid(r=begin)
    start, first = path.at, len(path.motions)
    end = ground.frame.point((places[-1] + path.tip[0], depth + path.tip[1]))
    peck, step = round(PECK_SHARE * blade.width_mm, 3), math.ceil(1000 * step) / 1000
    facing = ground.frame.swap
    path.made(groove_pecks(start, end, peck, step, PECK_LIFT_MM, facing), feed)
    place = (Word("x", "x", end[1]), Word("z", "z", end[0]), Word("bottom", "z", end[0]))
    cuts = (Word("lift", "length", PECK_LIFT_MM), Word("peck", "fine", peck), Word("step", "fine", step))
    name = "face_peck_cycle" if facing else "groove_cycle"
    words = (*place, *cuts, Word("feed", "feed", feed))
    drawn = [Pass((motion.segment,), blade.width_mm) for motion in path.motions[first:] if not motion.is_rapid]
    cycle = Cycle(name=name, first=first, count=len(path.motions) - first, words=words)
    path.rapid(r=ground.safe)
    return drawn, (cycle,)


def _steps(begin: float, plunges: list[tuple[float, float]], blade: Blade) -> list[float]:
    """Levels to which the groove is opened in turn; one where it is not deep or as wide as the blade."""
    deepest = min((depth for _, depth in plunges), default=begin)
    count = max(1, math.ceil((begin - deepest) / (STEP_WIDTHS * blade.width_mm) - 1e-6)) if len(plunges) > 1 else 1
    return [begin + (deepest - begin) * (i + 1) / count for i in range(count)]


def _plunge(path: Path, begin: float, depth: float, feed: float, peck: float) -> None:
    for bottom in _pecks(begin, depth, peck):
        path.feed(feed, r=bottom)
        if bottom > depth + SAME_MM:
            path.feed(feed, r=bottom + PECK_LIFT_MM)


def _pecks(begin: float, depth: float, step: float) -> list[float]:
    """Bottoms of the pecks of one plunge, the last at its depth."""
    count = max(1, math.ceil((begin - depth) / step - 1e-6)) if math.isfinite(step) else 1
    return [begin + (depth - begin) * (i + 1) / count for i in range(count)]


def finish_walls(work: Work, path: Path, ground: Ground, feed: float) -> list[Pass]:
    """The front wall down to the middle of the floor, then the back wall down to the same place; each as far as the
    plunges have left metal on it."""
    line = ground.line
    low = float(line[:, 1].min())
    floor = line[line[:, 1] < low + SAME_MM, 0]
    middle = float((floor.max() + floor.min()) / 2)
    high = ground.top + ground.shape.nose_radius + CLEAR_MM
    opened = work.after(tuple(path.motions)).buffer(-CHORDS_MM, quad_segs=2)
    standing = ground.frame.region(opened)
    met = MetMetal(standing, ground.shape)
    drawn = []
    for way in (_half(line, middle, low), _half(line[::-1], middle, low)):
        whole = path.recovered(way, 0.0005)
        cut = _as_far_as_metal(ground, standing, whole)
        if not cut:
            continue
        begun = met.begun(cut)
        if begun[0].start != whole[0].start and _comes_in(path, ground, met, begun[0].start, middle):
            cut = begun
        else:
            z, near = float(way[0, 0]), min(float(way[0, 1]) + CLEAR_MM, ground.safe)
            _over(path, ground, z)
            if _taken(ground, standing, [(z, ground.safe), (z, near)]) > FILM_MM2:  # left for finishing stands there
                path.rapid(r=met.down_to((z, near), min(high, ground.safe), CLEAR_MM))
                path.feed(feed, r=near)
            else:
                path.rapid(r=near)
        first = len(path.motions)
        path.feed(feed, *cut[0].start)
        path.along(cut, feed)
        drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), 0.1, finishing=True))
        _leave_wall(path, ground, feed, middle, low)
    return drawn


def _as_far_as_metal(ground: Ground, stock: Region, way: list[Segment]) -> list[Segment]:
    """The way down a wall without an end that takes nothing more; nothing where all of it takes none."""

    def taken(part: list[Segment]) -> float:
        places = [part[0].start, *(point for one in part for point in one.points(0.001)[1:])]
        return _taken(ground, stock, [(float(z), float(r)) for z, r in places])

    whole, length = taken(way), sum(one.length for one in way)
    if whole < LEAST_TAKEN_MM2:
        return []
    low, high = 0.0, length
    while high - low > BEHIND_MM / 4:
        middle = (low + high) / 2
        low, high = (low, middle) if taken(between(way, 0.0, middle)) > whole - LEAST_TAKEN_MM2 else (middle, high)
    end = high + BEHIND_MM
    return between(way, 0.0, end) if end < length - 2 * BEHIND_MM else way


def _leave_wall(path: Path, ground: Ground, feed: float, middle: float, low: float) -> None:
    """Out of the groove: off the floor, or off a wall toward the middle, before it is rapid."""
    z, r = path.nose
    if r < low + FLOOR_MM:
        path.feed(feed, r=low + FLOOR_MM)
    elif abs(middle - z) > SAME_MM:
        path.feed(feed, z=z + math.copysign(min(OFF_WALL_MM, abs(middle - z)), middle - z))
    path.rapid(r=ground.safe)


def _comes_in(path: Path, ground: Ground, met: MetMetal, place: Point, middle: float) -> bool:
    """Go down beside a wall to a place on it, where there is room for that."""
    z = place[0] + math.copysign(min(BESIDE_MM, abs(middle - place[0])), middle - place[0])
    heights = np.arange(place[1], ground.safe, CLEAR_MM)
    if not met.is_free(np.column_stack([np.full(len(heights), z), heights]), CLEAR_MM):
        return False
    _over(path, ground, z)
    path.rapid(r=place[1])
    return True


def _half(line: Points, middle: float, low: float) -> Points:
    """The way from one end of the line down to the middle of the floor."""
    falling = line[0, 0] > line[-1, 0]
    kept = [point for point in line if (point[0] > middle) is falling and abs(point[0] - middle) > 1e-9]
    way = np.vstack([*kept, [middle, low]]) if kept else np.array([[middle, line[0, 1]], [middle, low]])
    same = [True, *(bool(np.abs(a - b).max() > 1e-9) for a, b in pairwise(way))]
    return np.asarray(way[same])
