"""What driven tools make in a program that nobody planned: holes beside the axis, flats and slots, as features of its
part."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Any

from shapely.affinity import translate

from toreuma.core.geometry.milled import mouth_d_mm
from toreuma.core.geometry.region import Region, box
from toreuma.core.model import HolePattern, Milling
from toreuma.core.model.tool import ChamferMill, Drill, EndMill, Reamer, Tap, ThreadMill, Tool
from toreuma.core.motion import Motion
from toreuma.core.read import Program
from toreuma.engine.driven_mills import FLATS, SLOTS, Flat, is_same_place, is_within
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
from toreuma.engine.driven_threads import milled_thread
from toreuma.engine.foreign_job import from_tools
from toreuma.engine.foreign_tools import Filled

__all__ = ["DrivenWork", "driven_work", "made_beside", "mount_of", "stretches"]

DIGITS = 4

Row = dict[str, Any]


@dataclass(frozen=True, kw_only=True)
class DrivenWork:
    """``features`` beside those the part has, what every stretch of a driven tool does to them, and what of it is
    nothing of the kind, in words."""

    features: tuple[Row, ...]
    milled: tuple[tuple[Milling, ...], ...]
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
    full_to: float | None = None


def mount_of(tool: Tool, motions: Iterable[Motion]) -> str | None:
    """Which way a tool stands that is driven in a program; None where it is not."""
    moves = [one for one in motions if one.driven is not None and one.station == tool.station
             and not one.event and one.length > SAME_MM]  # fmt: skip
    cuts = [one for one in moves if not one.is_rapid]
    if not cuts:
        return None
    places = [] if isinstance(tool, EndMill) else places_of(cuts)
    return places[0].mount if places else leaves_along(moves)[0]


def stretches(motions: Iterable[Motion]) -> list[list[Motion]]:
    """Moves by what makes them: a tool that stands still, or one that turns. What a driven tool does while it stops
    between its cuts belongs to them."""
    found: list[list[Motion]] = []
    for (station, driven), run in groupby(motions, lambda one: (one.station, one.driven is not None)):
        moves = list(run)
        if driven and len(found) > 1 and _only_travels(found[-1], station) and _is_driven(found[-2], station):
            state = found[-2][-1].driven
            assert state is not None
            still = replace(state, y=(state.y[1], state.y[1]), turned_deg=0.0)
            between = [replace(one, driven=still) for one in found.pop()]
            found[-1] += [*between, *moves]
        else:
            found.append(moves)
    return found


def _only_travels(run: list[Motion], station: int) -> bool:
    return run[0].station == station and run[0].driven is None and all(one.is_rapid for one in run)


def _is_driven(run: list[Motion], station: int) -> bool:
    return run[0].station == station and run[0].driven is not None


def made_beside(program: Program, made: Sequence[Filled], piece: Region, count: int = 0) -> DrivenWork:
    """The same of a program with its tools and what comes of it, wherever that stands along Z."""
    front = 0.0 if piece.is_empty else float(piece.bounds[2])
    motions = [
        replace(one, segment=one.segment.moved(-front, 0.0)) for one in from_tools(program, tuple(made)).motions
        if one.driven is not None or not one.event
    ]  # fmt: skip
    return driven_work(motions, [one.tool for one in made], translate(piece, -front), count)


def driven_work(motions: Sequence[Motion], tools: Iterable[Tool], part: Region, count: int) -> DrivenWork:
    """Make features of what driven tools cut in a part that has ``count`` features already; Z of the moves counts from
    its front face."""
    return _Making(tuple(motions), {one.station: one for one in tools}, part, count).made()


class _Making:
    def __init__(self, motions: tuple[Motion, ...], tools: dict[int, Tool], part: Region, count: int) -> None:
        self._motions, self._tools, self._part, self._count = motions, tools, part, count
        self._features: list[Row] = []
        self._holes: dict[int, _Holes] = {}
        self._milled: list[list[Milling]] = []
        self._waiting: list[_Stretch] = []
        self._left: list[tuple[int, str]] = []

    def made(self) -> DrivenWork:
        for run in stretches(self._motions):
            if run[0].driven is None:
                continue
            self._milled.append([])
            moves = [one for one in run if not one.event and one.length > SAME_MM]
            cuts = [one for one in moves if not one.is_rapid]
            tool = self._tools.get(run[0].station)
            if cuts and tool is not None:
                self._look(_Stretch(tool, cuts, leaves_along(moves), self._milled[-1]))
        for one in self._waiting:  # what only marks places, or breaks edges
            if not (self._threads(one) or self._at_known(one) or self._along_edges(one)):
                self._leave(one)
        for index, hole in self._holes.items():
            self._features[index] = self._hole_row(hole)
        left = tuple(what for _, what in sorted(self._left))
        return DrivenWork(features=tuple(self._features), milled=tuple(tuple(one) for one in self._milled), left=left)

    def _look(self, one: "_Stretch") -> None:
        tool = one.tool
        if isinstance(tool, EndMill):
            if not (self._flats(one) or self._slots(one)):
                self._leave(one)
            return
        places = places_of(one.cuts)
        if _is_pointed(tool) or isinstance(tool, ThreadMill):
            self._waiting.append(one)
        elif places and isinstance(tool, Drill | Tap | Reamer):
            self._drilled(one, tool, places)
        else:
            self._leave(one)

    def _leave(self, one: "_Stretch") -> None:
        what = f"what driven tool {one.tool.id} cuts is no hole, flat or slot"
        self._left.append((one.line, f"line {one.line}: {what}; it is kept as written, and not drawn"))

    # Holes

    def _drilled(self, one: "_Stretch", tool: Drill | Tap | Reamer, places: list[Place]) -> None:
        for pattern in patterns(places):
            index = self._index_of(pattern)
            hole = self._holes[index]
            deep = pattern[0].bottom + (_point_mm(tool) if isinstance(tool, Drill) else 0.0)
            if isinstance(tool, Tap):
                hole.thread = tool.thread
                hole.d_mm = hole.d_mm or round(tool.d_mm - tool.pitch_mm, 3)
                hole.full_to = pattern[0].bottom + tool.lead_pitches * tool.pitch_mm
            else:
                hole.d_mm = max(hole.d_mm, tool.d_mm)
                hole.bottom = deep if hole.bottom is None else min(hole.bottom, deep)
            self._mills(one, index)

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

    def _at_known(self, one: "_Stretch") -> bool:
        """Whether a tool goes to the holes of patterns that are known, no wider than their edges are broken."""
        found = False
        for pattern in patterns(places_of(one.cuts)):
            degs = tuple(sorted(place.deg for place in pattern))
            for index, hole in self._holes.items():
                same = (hole.mount, round(hole.at_mm, 2)) == pattern[0].row and alike(hole.degs, degs)
                if same and self._marks(one.tool, hole, pattern[0]):
                    self._mills(one, index)
                    found = True
        return found

    def _threads(self, one: "_Stretch") -> bool:
        """Whether a mill cuts threads into holes of patterns that are known."""
        found = False
        for index, hole in self._holes.items() if isinstance(one.tool, ThreadMill) else ():
            assert isinstance(one.tool, ThreadMill)
            made = milled_thread(one.cuts, one.tool, HolePattern.model_validate(self._hole_row(hole)), self._part)
            if made is not None:
                form, hole.full_to = made
                hole.thread = form.designation
                one.milled.append(Milling(feature=self._count + index, form=form))
                found = True
        return found

    def _marks(self, tool: Tool, hole: _Holes, place: Place) -> bool:
        feature = HolePattern.model_validate(self._hole_row(hole))
        top = 0.0 if hole.mount == AXIAL else self._wall(hole.at_mm, float(self._part.bounds[3]))[1]
        slope = math.tan(math.radians(float(getattr(tool, "point_deg", 90.0))) / 2)
        return 2 * (top - place.bottom) * slope <= mouth_d_mm(feature, 0.0) + SAME_MM

    def _along_edges(self, one: "_Stretch") -> bool:
        """Whether a pointed tool goes along what mills cut at the same angles."""
        degs = tuple(sorted(by_angle(one.cuts)))
        found = False
        for index, row in enumerate(self._features):
            if row and "count" in row and row["kind"] != "holes" and alike(_degs_of(row), degs):
                one.milled.append(Milling(feature=self._count + index, edges_only=True))
                found = True
        return found

    def _hole_row(self, hole: _Holes) -> Row:
        back, _, _, outer = self._part.bounds
        row: Row = {"kind": "holes", "count": len(hole.degs), "d_mm": round(hole.d_mm, DIGITS)} | spread(hole.degs)
        bottom = hole.bottom
        if hole.mount == AXIAL:
            inner, top = back, 0.0
            row |= {"on": "front", "circle_d_mm": round(2 * hole.at_mm, DIGITS)}
        else:
            inner, top = self._wall(hole.at_mm, outer)
            row |= {"on": "outside", "z_mm": round(hole.at_mm, DIGITS)}
        if bottom is not None and bottom > inner + SAME_MM:
            row["depth_mm"] = round(top - bottom, DIGITS)
        if hole.full_to is not None and hole.full_to > inner + SAME_MM:
            row["thread_length_mm"] = round(top - hole.full_to, DIGITS)
        return row | ({"thread": hole.thread} if hole.thread else {})

    def _wall(self, z: float, outer: float) -> tuple[float, float]:
        """Where the metal begins and ends along X at a place, mm from the axis."""
        cut = self._part.intersection(box(z - SAME_MM, 0.0, z + SAME_MM, outer + 1.0))
        return (0.0, outer) if cut.is_empty else (float(cut.bounds[1]), float(cut.bounds[3]))

    # Flats and slots

    def _flats(self, one: "_Stretch") -> bool:
        """Ways across the whole width: of a mill along X at its lowest level, of one along Z with its side."""
        part, angles = self._part, by_angle(one.cuts)
        tool = one.tool
        assert isinstance(tool, EndMill)
        found: list[Flat] = []
        for cuts in angles.values():
            flat = next(filter(None, (FLATS[mount](part, tool, cuts) for mount in one.mounts)), None)
            if flat is None or (found and (abs(flat[0] - found[0][0]) > SAME_MM or flat[1] != found[0][1])):
                return False
            found.append(flat)
        distance, (front, back) = found[0]
        row = {"kind": "flats", "count": len(angles), "distance_mm": round(distance, DIGITS),
               "from_z_mm": round(front, DIGITS), "to_z_mm": round(back, DIGITS)}  # fmt: skip
        self._add(one, row, tuple(sorted(angles)))
        return True

    def _slots(self, one: "_Stretch") -> bool:
        """Ways along the axis under the surface, or through the face."""
        angles, tool = by_angle(one.cuts), one.tool
        assert isinstance(tool, EndMill)
        for mount in one.mounts:
            rows = [SLOTS[mount](self._part, tool, cuts) for cuts in angles.values()]
            if all(rows) and len({tuple(sorted(each.items())) for each in rows if each}) == 1:
                row = (rows[0] or {}) | {"count": len(angles)}
                turned = row.pop("start_deg", 0.0)
                self._add(one, row, tuple(sorted(plain_deg(deg + turned) for deg in angles)))
                return True
        return False

    def _add(self, one: "_Stretch", row: Row, degs: tuple[float, ...]) -> None:
        angles = spread(degs)
        if "step_deg" in angles:  # features of this kind are spread evenly: each by itself
            for deg in degs:
                self._mills(one, self._known(row | {"count": 1, "start_deg": plain_deg(deg)}))
            return
        self._mills(one, self._known(row | angles))

    def _known(self, row: Row) -> int:
        """The feature that is there already, a roughing cut left smaller, or a finishing one makes larger."""
        for index, other in enumerate(self._features):
            if not other or not is_same_place(row, other):
                continue
            if is_within(row, other):
                return index
            if is_within(other, row):
                self._features[index] = row
                return index
        self._features.append(row)
        return len(self._features) - 1

    def _mills(self, one: "_Stretch", index: int) -> None:
        if all(each.feature != self._count + index for each in one.milled):
            one.milled.append(Milling(feature=self._count + index))


@dataclass(frozen=True)
class _Stretch:
    """What one driven tool cuts before the next is called, which way it may stand, the likelier first; ``milled`` is
    what comes of it."""

    tool: Tool
    cuts: list[Motion]
    mounts: tuple[str, ...]
    milled: list[Milling]

    @property
    def line(self) -> int:
        return self.cuts[0].line


def _is_pointed(tool: Tool) -> bool:
    return isinstance(tool, ChamferMill) or (isinstance(tool, Drill) and tool.form in ("spot", "centre"))


def _degs_of(row: Row) -> tuple[float, ...]:
    """Angles of a feature whose places are spread evenly."""
    count = row["count"]
    return tuple(sorted(plain_deg(row["start_deg"] + 360 * n / count) for n in range(count)))


def _point_mm(tool: Drill) -> float:
    return tool.d_mm / 2 / math.tan(math.radians(tool.point_deg) / 2)
