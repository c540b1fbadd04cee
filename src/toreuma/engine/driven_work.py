"""What driven tools make in a program that nobody planned: holes beside the axis, flats and slots, as features of its
part and operations that cut them."""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby, pairwise
from typing import Any

import numpy as np
from shapely.affinity import translate

from toreuma.core.geometry.region import Region, box
from toreuma.core.model import HolesBeside, MillFlats, MillSlot, Operation
from toreuma.core.model.tool import Drill, EndMill, Reamer, Tap, Tool
from toreuma.core.motion import Motion
from toreuma.core.read import Program
from toreuma.engine.foreign_job import from_tools
from toreuma.engine.foreign_tools import Filled

__all__ = ["DrivenWork", "driven_work", "made_beside", "mount_of"]

SAME_MM, SAME_DEG = 0.01, 0.01
DIGITS = 4
AXIAL, RADIAL = "axial", "radial"

Row = dict[str, Any]


@dataclass(frozen=True, kw_only=True)
class DrivenWork:
    """``features`` beside those the part has, ``operations`` with the line at which each begins, which way each tool
    stands, and what of it is nothing of the kind, in words."""

    features: tuple[Row, ...]
    operations: tuple[tuple[int, Operation], ...]
    mounts: dict[str, str]
    left: tuple[str, ...]


@dataclass(frozen=True)
class _Place:
    """Where a tool went in: its way, how far from the axis or along it (mm), its angle, and how deep (Z, or radius)."""

    mount: str
    at_mm: float
    deg: float
    bottom: float

    @property
    def row(self) -> tuple[str, float]:
        return self.mount, round(self.at_mm, 2)


@dataclass
class _Holes:
    """A pattern in the making."""

    mount: str
    at_mm: float
    degs: tuple[float, ...]
    d_mm: float = 0.0
    bottom: float | None = None
    thread: str = ""


def mount_of(tool: Tool, motions: Iterable[Motion]) -> str | None:
    """Which way a tool stands that is driven in a program; None where it is not."""
    moves = [one for one in motions if one.driven is not None and one.station == tool.station
             and not one.event and one.length > SAME_MM]  # fmt: skip
    cuts = [one for one in moves if not one.is_rapid]
    if not cuts:
        return None
    places = [] if isinstance(tool, EndMill) else _places(cuts)
    return places[0].mount if places else _leaves_along(moves)[0]


def made_beside(program: Program, made: Sequence[Filled], piece: Region, count: int = 0) -> DrivenWork:
    """The same of a program with its tools and what comes of it, wherever that stands along Z."""
    front = 0.0 if piece.is_empty else float(piece.bounds[2])
    motions = from_tools(program, tuple(made)).motions
    driven = [replace(one, segment=one.segment.moved(-front, 0.0)) for one in motions if one.driven is not None]
    return driven_work(driven, [one.tool for one in made], translate(piece, -front), count)


def driven_work(motions: Sequence[Motion], tools: Iterable[Tool], part: Region, count: int) -> DrivenWork:
    """Make features of what driven tools cut in a part that has ``count`` features already; Z of the moves counts from
    its front face."""
    return _Making(tuple(motions), {one.station: one for one in tools}, part, count).made()


class _Making:
    def __init__(self, motions: tuple[Motion, ...], tools: dict[int, Tool], part: Region, count: int) -> None:
        self._motions, self._tools, self._part, self._count = motions, tools, part, count
        self._features: list[Row] = []
        self._holes: dict[int, _Holes] = {}
        self._operations: list[tuple[int, Operation]] = []
        self._waiting: list[tuple[int, Tool, list[_Place]]] = []
        self._mounts: dict[str, str] = {}
        self._left: list[str] = []

    def made(self) -> DrivenWork:
        for station, run in groupby((one for one in self._motions if one.driven is not None), lambda one: one.station):
            moves = [one for one in run if not one.event and one.length > SAME_MM]
            cuts = [one for one in moves if not one.is_rapid]
            tool = self._tools.get(station)
            if cuts and tool is not None:
                self._stretch(tool, cuts, _leaves_along(moves))
        for line, tool, places in self._waiting:  # what only marks places, or breaks edges
            if not self._at_known(line, tool, places):
                self._leave(line, tool)
        for index, hole in self._holes.items():
            self._features[index] = self._hole_row(hole)
        rows = sorted(self._operations, key=lambda one: one[0])
        return DrivenWork(
            features=tuple(self._features), operations=tuple(rows), mounts=self._mounts, left=tuple(self._left)
        )

    def _stretch(self, tool: Tool, cuts: list[Motion], mounts: tuple[str, ...]) -> None:
        line = cuts[0].line
        if isinstance(tool, EndMill):
            if not (self._flats(tool, cuts, line, mounts) or self._slots(tool, cuts, line, mounts)):
                self._leave(line, tool)
            return
        places = _places(cuts)
        if not places:
            self._leave(line, tool)
        elif isinstance(tool, Tap | Reamer) or (isinstance(tool, Drill) and tool.form not in ("spot", "centre")):
            self._drilled(line, tool, places)
        else:
            self._waiting.append((line, tool, places))

    def _leave(self, line: int, tool: Tool) -> None:
        self._left.append(f"line {line}: what driven tool {tool.id} cuts is no hole, flat or slot; it is left out")

    # Holes

    def _drilled(self, line: int, tool: Drill | Tap | Reamer, places: list[_Place]) -> None:
        for pattern in _patterns(places):
            index = self._index_of(pattern)
            hole = self._holes[index]
            deep = pattern[0].bottom + (_point_mm(tool) if isinstance(tool, Drill) else 0.0)
            if isinstance(tool, Tap):
                hole.thread = tool.thread
                hole.d_mm = hole.d_mm or round(tool.d_mm - tool.pitch_mm, 3)
            else:
                hole.d_mm = max(hole.d_mm, tool.d_mm)
                hole.bottom = deep if hole.bottom is None else min(hole.bottom, deep)
            self._operate(line, tool, pattern[0].mount, HolesBeside, index)

    def _index_of(self, pattern: list[_Place]) -> int:
        """The pattern that stands there already, or a new one."""
        degs = tuple(sorted(one.deg for one in pattern))
        for index, hole in self._holes.items():
            if (hole.mount, round(hole.at_mm, 2)) == pattern[0].row and _alike(hole.degs, degs):
                return index
        self._features.append({})
        index = len(self._features) - 1
        self._holes[index] = _Holes(pattern[0].mount, pattern[0].at_mm, degs)
        return index

    def _at_known(self, line: int, tool: Tool, places: list[_Place]) -> bool:
        """Whether a tool goes to the holes of patterns that are known."""
        found = False
        for pattern in _patterns(places):
            degs = tuple(sorted(one.deg for one in pattern))
            for index, hole in self._holes.items():
                if (hole.mount, round(hole.at_mm, 2)) == pattern[0].row and _alike(hole.degs, degs):
                    self._operate(line, tool, hole.mount, HolesBeside, index)
                    found = True
        return found

    def _hole_row(self, hole: _Holes) -> Row:
        back, _, _, outer = self._part.bounds
        row: Row = {"kind": "holes", "count": len(hole.degs), "d_mm": round(hole.d_mm, DIGITS)} | _spread(hole.degs)
        bottom = hole.bottom
        if hole.mount == AXIAL:
            row |= {"on": "front", "circle_d_mm": round(2 * hole.at_mm, DIGITS)}
            if bottom is not None and bottom > back + SAME_MM:
                row["depth_mm"] = round(-bottom, DIGITS)
        else:
            row |= {"on": "outside", "z_mm": round(hole.at_mm, DIGITS)}
            inner, top = self._wall(hole.at_mm, outer)
            if bottom is not None and bottom > inner + SAME_MM:
                row["depth_mm"] = round(top - bottom, DIGITS)
        return row | ({"thread": hole.thread} if hole.thread else {})

    def _wall(self, z: float, outer: float) -> tuple[float, float]:
        """Where the metal begins and ends along X at a place, mm from the axis."""
        cut = self._part.intersection(box(z - SAME_MM, 0.0, z + SAME_MM, outer + 1.0))
        return (0.0, outer) if cut.is_empty else (float(cut.bounds[1]), float(cut.bounds[3]))

    # Flats and slots

    def _flats(self, tool: EndMill, cuts: list[Motion], line: int, mounts: tuple[str, ...]) -> bool:
        """Ways across the whole width: of a mill along X at its lowest level, of one along Z with its side."""
        by_angle = _by_angle(cuts)
        ways = {RADIAL: self._flat_from_above, AXIAL: self._flat_from_the_side}
        found = [next(filter(None, (ways[mount](tool, one) for mount in mounts)), None) for one in by_angle.values()]
        if any(one is None for one in found) or len({(m, round(d, 2), z) for m, d, z in found if m}) != 1:  # type: ignore[misc]
            return False
        mount, distance, (front, back) = found[0]  # type: ignore[misc]
        self._add(line, tool, mount, MillFlats, {
            "kind": "flats", "count": len(by_angle), "distance_mm": round(distance, DIGITS),
            "from_z_mm": round(front, DIGITS), "to_z_mm": round(back, DIGITS), "start_deg": _plain(min(by_angle)),
        }, tuple(sorted(by_angle)))  # fmt: skip
        return True

    def _flat_from_above(self, tool: EndMill, cuts: list[Motion]) -> tuple[str, float, tuple[float, float]] | None:
        level = min(one.end[1] for one in cuts)
        floor = [one for one in cuts if max(one.start[1], one.end[1]) < level + SAME_MM]
        if not floor or level <= 0:
            return None
        span = _span(floor, tool.d_mm / 2)
        front, back = min(span[1], 0.0), span[0]
        outer = self._outer(back, front)
        half = math.sqrt(max(outer**2 - level**2, 0.0))
        wide = _across(floor)
        covers = wide[0] - tool.d_mm / 2 <= -half + SAME_MM and wide[1] + tool.d_mm / 2 >= half - SAME_MM
        return (RADIAL, level, (front, back)) if half > SAME_MM and covers and front - back > SAME_MM else None

    def _flat_from_the_side(self, tool: EndMill, cuts: list[Motion]) -> tuple[str, float, tuple[float, float]] | None:
        back = min(one.end[0] for one in cuts)
        across = [one for one in cuts if one.driven is not None and abs(one.driven.y[1] - one.driven.y[0]) > SAME_MM
                  and abs(one.end[1] - one.start[1]) < SAME_MM]  # fmt: skip
        if not across or back >= -SAME_MM:
            return None
        distance = min(one.end[1] for one in across) - tool.d_mm / 2
        outer = self._outer(back, 0.0)
        wide = _across(across)
        half = math.sqrt(max(outer**2 - distance**2, 0.0)) if distance > 0 else 0.0
        covers = half > SAME_MM and wide[0] <= -half + SAME_MM and wide[1] >= half - SAME_MM
        return (AXIAL, distance, (0.0, back)) if covers else None

    def _slots(self, tool: EndMill, cuts: list[Motion], line: int, mounts: tuple[str, ...]) -> bool:
        """Ways along the axis under the surface, or through the face."""
        by_angle = _by_angle(cuts)
        ways = {RADIAL: self._slot_outside, AXIAL: self._slot_in_face}
        for mount in mounts:
            rows = [ways[mount](tool, one) for one in by_angle.values()]
            if all(rows) and len({tuple(sorted(one.items())) for one in rows if one}) == 1:
                row = (rows[0] or {}) | {"count": len(by_angle)}
                self._add(line, tool, mount, MillSlot, row, tuple(sorted(by_angle)))
                return True
        return False

    def _slot_outside(self, tool: EndMill, cuts: list[Motion]) -> Row | None:
        level = min(one.end[1] for one in cuts)
        floor = [one for one in cuts if max(one.start[1], one.end[1]) < level + SAME_MM]
        if not floor or level <= 0:
            return None
        back, front = _span(floor, tool.d_mm / 2)
        low, high = _across(floor)
        is_open = front > SAME_MM
        front = min(front, 0.0)
        outer = self._outer(back, front)
        if outer - level < SAME_MM or front - back < SAME_MM or abs(low + high) > SAME_MM:
            return None
        return {
            "kind": "slot", "on": "outside", "width_mm": round(high - low + tool.d_mm, DIGITS),
            "depth_mm": round(outer - level, DIGITS), "from_z_mm": 0.0 if is_open else round(front, DIGITS),
            "to_z_mm": round(back, DIGITS), "round_ends": True,
        }  # fmt: skip

    def _slot_in_face(self, tool: EndMill, cuts: list[Motion]) -> Row | None:
        level = min(one.end[0] for one in cuts)
        floor = [one for one in cuts if max(one.start[0], one.end[0]) < level + SAME_MM]
        if not floor or level >= -SAME_MM:
            return None
        places = [x for one in floor for x in (one.start[1], one.end[1])]
        begin, end = min(places) - tool.d_mm / 2, max(places) + tool.d_mm / 2
        low, high = _across(floor)
        outer = self._outer(level, 0.0)
        if abs(low + high) > SAME_MM or end - begin < high - low + tool.d_mm - SAME_MM:
            return None
        whole = begin <= -outer + SAME_MM and end >= outer - SAME_MM
        return {
            "kind": "slot", "on": "front", "width_mm": round(high - low + tool.d_mm, DIGITS),
            "depth_mm": round(-level, DIGITS), "length_mm": 0.0 if whole else round(end - begin, DIGITS),
            "off_mm": 0.0 if whole else round(abs(begin + end) / 2, DIGITS), "round_ends": True,
        }  # fmt: skip

    def _outer(self, back: float, front: float) -> float:
        """The widest of the part between two places, on radius."""
        cut = self._part.intersection(box(back, 0.0, front, 1e5))
        return 0.0 if cut.is_empty else float(cut.bounds[3])

    def _add(
        self,
        line: int,
        tool: EndMill,
        mount: str,
        kind: type[MillFlats] | type[MillSlot],
        row: Row,
        degs: tuple[float, ...],
    ) -> None:
        spread = _spread(degs)
        if "step_deg" in spread:  # features of this kind are spread evenly: each by itself
            for deg in degs:
                self._features.append(row | {"count": 1, "start_deg": _plain(deg)})
                self._operate(line, tool, mount, kind, len(self._features) - 1)
            return
        self._features.append(row | spread)
        self._operate(line, tool, mount, kind, len(self._features) - 1)

    def _operate(self, line: int, tool: Tool, mount: str, kind: type[Any], index: int) -> None:
        self._mounts[tool.id] = mount
        number = len(self._operations) + 1
        name = f"{tool.name}, station {tool.station}"[:120]
        made = kind(id=f"d{number}", name=name, tool=tool.id, feature=self._count + index)
        self._operations.append((line, made))


def _leaves_along(moves: list[Motion]) -> tuple[str, ...]:
    """Which way a mill stands, the likelier first: it leaves the metal along its own axis."""
    if any(one.driven is not None and one.driven.polar for one in moves):
        return (AXIAL,)  # turning the work takes nothing that stands along X across
    votes = {AXIAL: 0, RADIAL: 0}
    for before, after in pairwise(moves):
        if not before.is_rapid and after.is_rapid:
            (z0, r0), (z1, r1) = after.start, after.end
            votes[AXIAL] += abs(r1 - r0) < SAME_MM and z0 < z1 > 0
            votes[RADIAL] += abs(z1 - z0) < SAME_MM and r1 > r0
    if votes[AXIAL] == votes[RADIAL]:
        return RADIAL, AXIAL
    return (max(votes, key=lambda mount: votes[mount]),)


def _point_mm(tool: Drill) -> float:
    return tool.d_mm / 2 / math.tan(math.radians(tool.point_deg) / 2)


def _places(cuts: list[Motion]) -> list[_Place]:
    """Where a drill, reamer or tap went in; nothing where it went another way as well."""
    deepest: dict[tuple[str, float, float], _Place] = {}
    for one in cuts:
        assert one.driven is not None
        (z0, x0), (z1, x1), (y0, y1) = one.start, one.end, one.driven.y
        if abs(y1 - y0) > SAME_MM:
            return []
        if abs(x1 - x0) < SAME_MM < abs(z1 - z0):
            deg = one.driven.c_deg + math.degrees(math.atan2(y1, x1))
            place = _Place(AXIAL, math.hypot(x1, y1), _plain(deg), min(z0, z1))
        elif abs(z1 - z0) < SAME_MM < abs(x1 - x0) and abs(y1) < SAME_MM:
            place = _Place(RADIAL, z1, _plain(one.driven.c_deg), min(x0, x1))
        else:
            return []
        key = (*place.row, place.deg)
        before = deepest.get(key)
        deepest[key] = place if before is None or place.bottom < before.bottom else before
    return list(deepest.values())


def _patterns(places: list[_Place]) -> Iterator[list[_Place]]:
    """Places alike but for their angle."""

    def alike(one: _Place) -> tuple[str, float, float]:
        return *one.row, round(one.bottom, 2)

    for _, run in groupby(sorted(places, key=lambda one: (alike(one), one.deg)), alike):
        every = list(run)
        if "step_deg" in (spread := _spread(tuple(one.deg for one in every))) and spread["step_deg"] is None:
            yield from ([one] for one in every)
        else:
            yield every


def _spread(degs: tuple[float, ...]) -> Row:
    """Where a pattern begins, and the step between its angles; no step where it is even all round, None where there is
    no even one."""
    row: Row = {"start_deg": degs[0]}
    steps = np.diff(degs)
    if len(degs) < 2 or (np.ptp(steps) < SAME_DEG and abs(float(steps[0]) - 360 / len(degs)) < SAME_DEG):
        return row
    return row | {"step_deg": _plain(float(steps[0])) if np.ptp(steps) < SAME_DEG else None}


def _by_angle(cuts: list[Motion]) -> dict[float, list[Motion]]:
    found: dict[float, list[Motion]] = {}
    for one in cuts:
        assert one.driven is not None
        found.setdefault(_plain(one.driven.c_deg), []).append(one)
    return found


def _span(cuts: list[Motion], r: float) -> tuple[float, float]:
    """Back and front of what a mill along X passes over."""
    places = [z for one in cuts for z in (one.start[0], one.end[0])]
    return min(places) - r, max(places) + r


def _across(cuts: list[Motion]) -> tuple[float, float]:
    places = [y for one in cuts if one.driven is not None for y in one.driven.y]
    return min(places), max(places)


def _alike(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    return len(one) == len(other) and all(abs(a - b) < SAME_DEG for a, b in zip(one, other, strict=True))


def _plain(deg: float) -> float:
    """An angle from 0 up to 360, without the dust of its computing."""
    found = round(deg % 360, DIGITS)
    return 0.0 if found == 360 else found
