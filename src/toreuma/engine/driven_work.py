"""What driven tools make in a program that nobody planned: holes beside the axis, flats and slots, as features of its
part and operations that cut them."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Any

from shapely.affinity import translate

from toreuma.core.geometry.region import Region, box
from toreuma.core.model import HolesBeside, MillFlats, MillSlot, Operation
from toreuma.core.model.tool import Drill, EndMill, Reamer, Tap, Tool
from toreuma.core.motion import Motion
from toreuma.core.read import Program
from toreuma.engine.driven_mills import FLATS, SLOTS, Flat
from toreuma.engine.driven_places import (
    AXIAL,
    SAME_MM,
    Place,
    alike,
    by_angle,
    leaves_along,
    patterns,
    places_of,
    plain_deg,
    spread,
)
from toreuma.engine.foreign_job import from_tools
from toreuma.engine.foreign_tools import Filled

__all__ = ["DrivenWork", "driven_work", "made_beside", "mount_of"]

DIGITS = 4

Row = dict[str, Any]


@dataclass(frozen=True, kw_only=True)
class DrivenWork:
    """``features`` beside those the part has, ``operations`` with the line at which each begins, and what of it is
    nothing of the kind, in words."""

    features: tuple[Row, ...]
    operations: tuple[tuple[int, Operation], ...]
    left: tuple[str, ...]


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
    places = [] if isinstance(tool, EndMill) else places_of(cuts)
    return places[0].mount if places else leaves_along(moves)[0]


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
        self._waiting: list[tuple[int, Tool, list[Place]]] = []
        self._left: list[str] = []

    def made(self) -> DrivenWork:
        for station, run in groupby((one for one in self._motions if one.driven is not None), lambda one: one.station):
            moves = [one for one in run if not one.event and one.length > SAME_MM]
            cuts = [one for one in moves if not one.is_rapid]
            tool = self._tools.get(station)
            if cuts and tool is not None:
                self._stretch(tool, cuts, leaves_along(moves))
        for line, tool, places in self._waiting:  # what only marks places, or breaks edges
            if not self._at_known(line, tool, places):
                self._leave(line, tool)
        for index, hole in self._holes.items():
            self._features[index] = self._hole_row(hole)
        rows = sorted(self._operations, key=lambda one: one[0])
        return DrivenWork(features=tuple(self._features), operations=tuple(rows), left=tuple(self._left))

    def _stretch(self, tool: Tool, cuts: list[Motion], mounts: tuple[str, ...]) -> None:
        line = cuts[0].line
        if isinstance(tool, EndMill):
            if not (self._flats(tool, cuts, line, mounts) or self._slots(tool, cuts, line, mounts)):
                self._leave(line, tool)
            return
        places = places_of(cuts)
        if not places:
            self._leave(line, tool)
        elif isinstance(tool, Tap | Reamer) or (isinstance(tool, Drill) and tool.form not in ("spot", "centre")):
            self._drilled(line, tool, places)
        else:
            self._waiting.append((line, tool, places))

    def _leave(self, line: int, tool: Tool) -> None:
        self._left.append(f"line {line}: what driven tool {tool.id} cuts is no hole, flat or slot; it is left out")

    # Holes

    def _drilled(self, line: int, tool: Drill | Tap | Reamer, places: list[Place]) -> None:
        for pattern in patterns(places):
            index = self._index_of(pattern)
            hole = self._holes[index]
            deep = pattern[0].bottom + (_point_mm(tool) if isinstance(tool, Drill) else 0.0)
            if isinstance(tool, Tap):
                hole.thread = tool.thread
                hole.d_mm = hole.d_mm or round(tool.d_mm - tool.pitch_mm, 3)
            else:
                hole.d_mm = max(hole.d_mm, tool.d_mm)
                hole.bottom = deep if hole.bottom is None else min(hole.bottom, deep)
            self._operate(line, tool, HolesBeside, index)

    def _index_of(self, pattern: list[Place]) -> int:
        """The pattern that stands there already, or a new one."""
        degs = tuple(sorted(one.deg for one in pattern))
        for index, hole in self._holes.items():
            if (hole.mount, round(hole.at_mm, 2)) == pattern[0].row and alike(hole.degs, degs):
                return index
        self._features.append({})
        index = len(self._features) - 1
        self._holes[index] = _Holes(pattern[0].mount, pattern[0].at_mm, degs)
        return index

    def _at_known(self, line: int, tool: Tool, places: list[Place]) -> bool:
        """Whether a tool goes to the holes of patterns that are known."""
        found = False
        for pattern in patterns(places):
            degs = tuple(sorted(one.deg for one in pattern))
            for index, hole in self._holes.items():
                if (hole.mount, round(hole.at_mm, 2)) == pattern[0].row and alike(hole.degs, degs):
                    self._operate(line, tool, HolesBeside, index)
                    found = True
        return found

    def _hole_row(self, hole: _Holes) -> Row:
        back, _, _, outer = self._part.bounds
        row: Row = {"kind": "holes", "count": len(hole.degs), "d_mm": round(hole.d_mm, DIGITS)} | spread(hole.degs)
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
        part, angles = self._part, by_angle(cuts)
        found: list[Flat] = []
        for one in angles.values():
            flat = next(filter(None, (FLATS[mount](part, tool, one) for mount in mounts)), None)
            if flat is None or (found and (abs(flat[0] - found[0][0]) > SAME_MM or flat[1] != found[0][1])):
                return False
            found.append(flat)
        distance, (front, back) = found[0]
        row = {"kind": "flats", "count": len(angles), "distance_mm": round(distance, DIGITS),
               "from_z_mm": round(front, DIGITS), "to_z_mm": round(back, DIGITS)}  # fmt: skip
        self._add(line, tool, MillFlats, row, tuple(sorted(angles)))
        return True

    def _slots(self, tool: EndMill, cuts: list[Motion], line: int, mounts: tuple[str, ...]) -> bool:
        """Ways along the axis under the surface, or through the face."""
        angles = by_angle(cuts)
        for mount in mounts:
            rows = [SLOTS[mount](self._part, tool, one) for one in angles.values()]
            if all(rows) and len({tuple(sorted(one.items())) for one in rows if one}) == 1:
                row = (rows[0] or {}) | {"count": len(angles)}
                self._add(line, tool, MillSlot, row, tuple(sorted(angles)))
                return True
        return False

    def _add(
        self, line: int, tool: EndMill, kind: type[MillFlats] | type[MillSlot], row: Row, degs: tuple[float, ...]
    ) -> None:
        angles = spread(degs)
        if "step_deg" in angles:  # features of this kind are spread evenly: each by itself
            for deg in degs:
                self._features.append(row | {"count": 1, "start_deg": plain_deg(deg)})
                self._operate(line, tool, kind, len(self._features) - 1)
            return
        self._features.append(row | angles)
        self._operate(line, tool, kind, len(self._features) - 1)

    def _operate(self, line: int, tool: Tool, kind: type[Any], index: int) -> None:
        number = len(self._operations) + 1
        name = f"{tool.name}, station {tool.station}"[:120]
        made = kind(id=f"d{number}", name=name, tool=tool.id, feature=self._count + index)
        self._operations.append((line, made))


def _point_mm(tool: Drill) -> float:
    return tool.d_mm / 2 / math.tan(math.radians(tool.point_deg) / 2)
