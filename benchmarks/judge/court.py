"""The judge at work: a program cut on the raster, and what is left held against the drawing."""

import math
import re
import zlib
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any

import numpy as np
from scipy.ndimage import distance_transform_edt, find_objects, label

from benchmarks.judge.drawing import outlines
from benchmarks.judge.machine import Way, ways
from benchmarks.judge.metal import Cells, Points, Raster, hull, round_ways

__all__ = ["CELL", "HARM_MM", "Case", "Hold", "Judged", "Tool"]

CELL = 0.03
SURE = 2.6
"""Differences thinner than so many cells are the raster's own."""

FEATURE_NOSE, NOSE = 0.45, 1.25
SKIN = 0.06
RAPID_STEP, BODY_STEP = 3, 8
"""Where nothing is cut only every so-manieth cell is looked at."""
"""Bodies and rapids that dip in by less than this only touch."""

Json = dict[str, Any]


@dataclass(frozen=True)
class Tool:
    """A tool from its programmed point: what cuts, its round, and what carries it; ``kind`` as the job has it."""

    kind: str
    core: Points
    round: float
    bodies: tuple[Points, ...]
    ahead: tuple[Points, ...] = ()


@dataclass
class Judged:
    """Thickest metal left and missing, mm, with places; what ran into what, with lines; ``off`` the bar. ``more`` of
    both is what the first programs of the case did not leave or lose."""

    left_mm: float = 0.0
    left_at: tuple[float, float] = (0.0, 0.0)
    lost_mm: float = 0.0
    lost_at: tuple[float, float] = (0.0, 0.0)
    hits: list[tuple[str, int]] = field(default_factory=list)
    off: bool = False
    more_left_mm: float = 0.0
    more_lost_mm: float = 0.0

    def harms(self, clean: "Judged") -> bool:
        """It is worse than what the first programs of the case made."""
        grown = self.more_left_mm > HARM_MM or self.more_lost_mm > HARM_MM
        return grown or len(self.hits) > len(clean.hits) or self.off != clean.off

    @property
    def finished(self) -> bool:
        return self.off and self.left_mm == 0 and self.lost_mm == 0


HARM_MM = 0.1
BAR_TOOLS = ("bar_stop", "bar_puller")

KEPT_EVERY = 8
"""Of the first program the state before every so-manieth way is kept."""

Key = tuple[object, ...]


@dataclass
class _State:
    """Where a run stands before a way: the metal and the piece that fell, both packed, and what counts for the way
    after it."""

    index: int
    metal: bytes
    piece: bytes
    after_thread: bool
    centred: bool
    hits: int


@dataclass(frozen=True)
class Hold:
    """What stands round the work on one side: outlines of the upper half, a cell that lies in two of a region in
    neither; ``centre`` is there while it is in. What ``driven`` tools cut is not seen."""

    fixed: list[list[Points]]
    centre: list[Points]
    tools: dict[int, Tool]
    home: tuple[float, float]
    jaw_face: float
    driven: frozenset[int] = frozenset()


class Case:
    """A part with its blank and the sides it is cut on, judged with one program a side."""

    def __init__(self, part: Json, blank: list[Points], holds: list[Hold], cell: float = CELL) -> None:
        solid, taken = outlines(part)
        self._back = float(solid[:, 0].min())
        front, top = float(blank[0][:, 0].max()) + 2, float(blank[0][:, 1].max()) + 1
        low = min(float(blank[0][:, 0].min()), self._back) - 2
        raster = Raster(low, front, max(top, float(solid[:, 1].max()) + 1), cell)
        self._drawn = raster.inside(solid)
        self._features = raster.empty()
        for n, ring in enumerate(taken):
            hole = raster.inside(ring)
            self._drawn &= ~hole
            if n or not part.get("inside"):
                self._features |= hole
        self._threads = _threads(part, raster)
        self._raster = raster
        rasters = [raster]
        for _ in holds[1:]:
            last = rasters[-1]
            turned = Raster(0.0, 1.0, 1.0, cell)
            turned.z0, turned.shape = self._back - last.z0 - last.shape[1] * cell, last.shape
            rasters.append(turned)
        self.courts = [Court(one, hold, self._back) for one, hold in zip(rasters, holds, strict=True)]
        self.blank = self.courts[0].filled(blank)
        self._first: tuple[Cells, Judged] | None = None

    def judge(self, texts: list[str]) -> Judged:
        """Cut one program a side, each on what the one before left. Raises `NotJudged`."""
        return self.follow([court.ways(text) for court, text in zip(self.courts, texts, strict=True)])

    def follow(self, each: list[list[Way]]) -> Judged:
        """Cut the ways of every side, each on what the one before left."""
        found = Judged()
        piece = self.blank
        for number, (court, way) in enumerate(zip(self.courts, each, strict=True)):
            piece, hits = court.cut(way, np.ascontiguousarray(piece[:, ::-1]) if number else piece)
            found.hits += hits
        piece = piece[:, ::-1] if len(self.courts) % 2 == 0 else piece
        if self._first is not None and np.array_equal(piece, self._first[0]):
            return replace(self._first[1], hits=found.hits)
        _compare(found, self._raster, piece, self._drawn, self._features, self._threads)
        if self._first is None:
            self._first = piece, replace(found)
        else:
            first = self._first[0]
            thick = 2 * self._raster.cell
            found.more_left_mm = thick * _thickest(piece & ~self._drawn & ~first)
            found.more_lost_mm = thick * _thickest(self._drawn & ~piece & ~self._threads & first)
        return found


class Court:
    """One side of a job. Of the first program states are kept; of another one only what is different is cut anew."""

    def __init__(self, raster: Raster, hold: Hold, back: float) -> None:
        self._hold, self.raster, self._back = hold, raster, back
        self.tools, self._home, self._driven = hold.tools, hold.home, hold.driven
        stops = raster.empty()
        for region in hold.fixed:
            stops |= self.filled(region)
        self._fixed = stops, stops | self.filled(hold.centre)
        self._kept: list[_State] = []
        self._keys: list[Key] = []
        self._clean: tuple[Cells, Cells, list[tuple[str, int]]] | None = None

    def filled(self, rings: list[Points]) -> Cells:
        found = self.raster.empty()
        for ring in rings:
            found ^= self.raster.inside(ring)
        return found

    def ways(self, text: str) -> list[Way]:
        """The ways of a program. Raises `NotJudged`."""
        return ways(text, self._home, self._driven)

    def cut(self, way: list[Way], blank: Cells) -> tuple[Cells, list[tuple[str, int]]]:
        """What ways leave of a blank, and what ran into what, with lines."""
        keys, found = [_key(one) for one in way], Judged()
        if self._clean is not None and keys == self._keys and np.array_equal(blank, self._clean[0]):
            return self._clean[1], self._clean[2]
        fresh = self._begin(way, blank)
        if self._clean is None:
            self._keys = keys
            every = set(range(0, len(way), KEPT_EVERY))
            left = self._cut(way, fresh, found, every, lambda state: self._kept.append(state) or False)
            assert left is not None
            self._clean = blank, left, found.hits
            return left, found.hits
        first, clean, hits = self._clean
        if not np.array_equal(blank, first):
            left = self._cut(way, fresh, found, set(), lambda state: False)
            assert left is not None
            return left, found.hits
        same = next((n for n, (a, b) in enumerate(zip(keys, self._keys, strict=False)) if a != b), len(keys))
        begin = max((one for one in self._kept if one.index <= same), key=lambda one: one.index, default=fresh)
        if begin.index == 0 or fresh.centred is not self._kept[0].centred:
            begin = fresh
        found.hits = list(hits[: begin.hits])
        behind = {one.index - len(self._keys) + len(way): one for one in self._kept}
        back = next(
            (n for n, (a, b) in enumerate(zip(keys[::-1], self._keys[::-1], strict=False)) if a != b),
            min(len(keys), len(self._keys)),
        )
        places = {index for index in behind if index >= max(begin.index + 1, len(way) - back)}

        def known(state: _State) -> bool:
            other = behind[state.index]
            if replace(state, index=0, hits=0) != replace(other, index=0, hits=0):
                return False
            found.hits += [one for one in hits[other.hits :] if one not in found.hits]
            return True

        left = self._cut(way, begin, found, places, known)
        return clean if left is None else left, found.hits

    def _begin(self, way: list[Way], blank: Cells) -> _State:
        centred = not any(one.how.startswith("centre") for one in way)
        return _State(0, _packed(blank), _packed(self.raster.empty()), False, centred, 0)

    def _cut(
        self, way: list[Way], begin: _State, found: Judged, places: set[int], at_place: Callable[[_State], bool]
    ) -> Cells | None:
        """Cut on from a state; None where ``at_place`` says at one of the places that the rest is known."""
        raster, piece, centred = self.raster, _unpacked(begin.piece, self.raster), begin.centred
        raster.metal = _unpacked(begin.metal, raster)
        after_thread = begin.after_thread
        for index, one in enumerate(way[begin.index :], begin.index):
            if index in places:
                state = _State(index, _packed(raster.metal), _packed(piece), after_thread, centred, len(found.hits))
                if at_place(state):
                    return None
            if one.how.startswith("centre"):
                centred = one.how == "centre in"
                continue
            tool = self.tools.get(one.station)
            if tool is None:
                continue
            out_of_thread = after_thread and one.how == "rapid" and one.start[0] == one.end[0]
            after_thread = one.how == "thread"
            if tool.kind in BAR_TOOLS:  # the bar lies where the part before it was cut off
                drawn_out = raster.metal
                raster.metal = drawn_out.copy()
                raster.metal[:, max(int((self._back - raster.z0) / raster.cell), 0) :] = False
                self._pass(one, tool, self._fixed[centred], out_of_thread, found)
                raster.metal = drawn_out
                continue
            self._pass(one, tool, self._fixed[centred], out_of_thread, found)
            if one.how == "feed" and tool.kind == "parting":
                piece = _fall(raster, piece, self._hold.jaw_face)
        return piece if piece.any() else raster.metal.copy()

    def _pass(self, one: Way, tool: Tool, stops: Cells, out_of_thread: bool, found: Judged) -> None:
        raster, places = self.raster, _places(one)
        step = RAPID_STEP if one.how == "rapid" else 1
        cutting = [(tool.core, tool.round), *((piece, 0.0) for piece in tool.ahead)]
        for core, radius in cutting:
            for shape in _passes(core, places, one.how == "thread"):
                window = raster.window(shape, radius, step)
                cells = raster.within(window, raster.metal[window] | stops[window], shape, radius)
                if one.how == "rapid":
                    if not out_of_thread:
                        _hit(found, raster, raster.metal[window] & cells, "rapid in metal", one.line, step)
                else:
                    raster.metal[window] &= ~cells
                _hit(found, raster, stops[window] & cells, "edge in the hold", one.line, step)
        for body in tool.bodies:
            for shape in _passes(body, places, False):
                window = raster.window(shape, 0.0, BODY_STEP)
                cells = raster.within(window, raster.metal[window] | stops[window], shape, -SKIN)
                _hit(found, raster, raster.metal[window] & cells, "holder in metal", one.line, BODY_STEP)
                _hit(found, raster, stops[window] & cells, "holder in the hold", one.line, BODY_STEP)


def _packed(cells: Cells) -> bytes:
    return zlib.compress(np.packbits(cells).tobytes(), 1)


def _unpacked(packed: bytes, raster: Raster) -> Cells:
    bits = np.unpackbits(np.frombuffer(zlib.decompress(packed), np.uint8), count=math.prod(raster.shape))
    return bits.astype(bool).reshape(raster.shape)


def _key(one: Way) -> Key:
    """All of a way that its cut depends on."""
    lead = one.feed if one.how == "thread" else 0
    return one.how, one.start, one.end, one.station, lead, one.centre, one.clockwise, one.turned


def _fall(raster: Raster, piece: Cells, jaw_face: float) -> Cells:
    """What the hold has no more falls; the largest of it is the piece."""
    column = int((jaw_face - raster.z0) / raster.cell)
    full = np.flatnonzero(raster.metal[:, column:].any(axis=0))
    if not len(full) or len(full) == full[-1] - full[0] + 1:
        return piece
    marks, count = label(raster.metal)
    if count < 2:
        return piece
    held = set(np.unique(marks[:, : max(column, 1)])) - {0}
    for mark in range(1, count + 1):
        if mark in held:
            continue
        loose = marks == mark
        raster.metal &= ~loose
        if loose.sum() > piece.sum():
            piece = loose
    return piece


def _hit(found: Judged, raster: Raster, cells: Cells, what: str, line: int, step: int = 1) -> None:
    if (
        cells.any()
        and (what, line) not in found.hits
        and _thick(cells) * raster.cell * step > 2 * SKIN + step * raster.cell
    ):
        found.hits.append((what, line))


def _thick(cells: Cells) -> float:
    padded = np.pad(cells, 1)
    return float(2 * distance_transform_edt(padded).max())


def _places(one: Way) -> Points:
    if one.how != "thread" or one.feed <= 0:
        return round_ways(one.start, one.end, one.centre, one.clockwise)
    a, b = np.array(one.start), np.array(one.end)
    turns = float(np.abs(b - a).max() / one.feed)
    first = (-one.turned) % 1.0
    return np.array([a + (b - a) * (first + n) / turns for n in range(math.floor(turns - first + 1e-9) + 1)])


def _passes(core: Points, places: Points, stamped: bool) -> list[Points]:
    """Convex bodies a tool sweeps between places, or where it stands once a turn."""
    if stamped:
        return [hull(core + place) for place in places]
    return [hull(np.vstack([core + a, core + b])) for a, b in pairwise(places)]


METRIC = re.compile(r"M?(\d+(?:\.\d+)?)(?:xPh[\d.]+P|x)(\d+(?:\.\d+)?)")
UNIFIED = re.compile(r"(?:(?:(\d+)[ -])?(\d+)/(\d+)|(?:#|No\.? ?)?(\d+))-(\d+) ?UN")
PITCH = {3: 0.5, 4: 0.7, 5: 0.8, 6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 16: 2.0, 20: 2.5}
"""Coarse pitches of metric threads that are named without one."""

RUN_OUT_TURNS = 3


def _threads(part: Json, raster: Raster) -> Cells:
    """Where threads are cut below the drawn surface: a ring between root and crest, with room for its run-out."""
    found = raster.empty()
    z = raster.z0 + (np.arange(raster.shape[1]) + 0.5) * raster.cell
    for one in part.get("features", ()):
        name = one.get("designation") if one["kind"] == "thread" else one.get("thread")
        if not name:
            continue
        size = METRIC.match(name)
        plain = re.match(r"M(\d+)(?![\d.x])", name)
        d, pitch = (float(size.group(1)), float(size.group(2))) if size else (0.0, 4.0)
        if plain and not size:
            d, pitch = float(plain.group(1)), PITCH.get(int(plain.group(1)), 2.0)
        if inch := UNIFIED.match(name):
            whole, up, down, number, turns = inch.groups()
            d = 25.4 * (0.06 + 0.013 * int(number) if number else int(whole or 0) + (int(up) / int(down) if up else 0))
            pitch = 25.4 / int(turns)
        if one["kind"] == "thread":
            front, back = one["from_z_mm"], one["from_z_mm"] - one["length_mm"]
        else:
            front, back = 0.0, -(one.get("depth_mm") or one.get("thread_length_mm") or 1e4)
            if one.get("end") == "back":
                end = part["outside"][-1]["z_mm"]
                front, back = end - back, end
        low, high = (d / 2 - 0.8 * pitch, d / 2 + 0.3 * pitch) if d else (0.0, 1e4)
        rows = slice(max(int(low / raster.cell), 0), min(int(high / raster.cell) + 1, raster.shape[0]))
        run = RUN_OUT_TURNS * pitch
        found[rows, (z > back - run) & (z < front + run)] = True
    return found


def _compare(found: Judged, raster: Raster, piece: Cells, drawn: Cells, features: Cells, threads: Cells) -> None:
    extra, lost = piece & ~drawn, drawn & ~piece & ~threads
    found.off = not extra[:, :3].any()
    for nose, where in ((NOSE, ~features), (FEATURE_NOSE, features)):
        edge = int(nose / raster.cell) + 6
        for rows, columns in _pieces(extra & where):
            around = (slice(max(rows.start - edge, 0), rows.stop + edge),
                      slice(max(columns.start - edge, 0), columns.stop + edge))  # fmt: skip
            deep = _deep((extra & where)[around])
            reached = _reachable(~drawn[around], nose / raster.cell)
            sure = np.where(reached, deep, 0.0)
            if 2 * sure.max() > SURE and 2 * sure.max() * raster.cell > found.left_mm:
                found.left_mm = float(2 * sure.max() * raster.cell)
                found.left_at = _at(raster, around, sure)
    for window in _pieces(lost):
        deep = _deep(lost[window])
        if 2 * deep.max() > SURE and 2 * deep.max() * raster.cell > found.lost_mm:
            found.lost_mm, found.lost_at = float(2 * deep.max() * raster.cell), _at(raster, window, deep)


def _thickest(cells: Cells) -> float:
    """Half the thickness of the thickest piece, in cells."""
    return max((float(_deep(cells[window]).max()) for window in _pieces(cells)), default=0.0)


def _pieces(cells: Cells) -> list[tuple[slice, slice]]:
    """Windows of pieces that are more than a film."""
    marks, _ = label(cells)
    return [window for window in find_objects(marks) if min(w.stop - w.start for w in window) >= SURE / 2]


def _deep(cells: Cells) -> Points:
    """How far each cell lies inside, in cells."""
    return np.asarray(distance_transform_edt(np.pad(cells, 1))[1:-1, 1:-1])


def _reachable(air: Cells, radius: float) -> Cells:
    """Air that a round of so many cells can pass through."""
    padded = np.pad(air, int(radius) + 2, constant_values=True)
    kept = distance_transform_edt(padded) >= radius
    grown = distance_transform_edt(~kept) <= radius + 0.5
    edge = int(radius) + 2
    return grown[edge:-edge, edge:-edge]


def _at(raster: Raster, window: tuple[slice, slice], deep: Points) -> tuple[float, float]:
    row, column = (int(n) + w.start for n, w in zip(divmod(int(deep.argmax()), deep.shape[1]), window, strict=True))
    return round(raster.z0 + (column + 0.5) * raster.cell, 2), round(2 * (row + 0.5) * raster.cell, 2)
