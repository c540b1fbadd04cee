"""The judge at work: a program cut on the raster, and what is left held against the drawing."""

import math
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import numpy as np
from scipy.ndimage import distance_transform_edt, find_objects, label

from benchmarks.judge.drawing import outlines
from benchmarks.judge.machine import Way, ways
from benchmarks.judge.metal import Cells, Points, Raster, hull, round_ways

__all__ = ["CELL", "Judged", "Tool", "judge"]

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
    """Thickest metal left and missing, mm, with places; what ran into what, with lines; ``off`` the bar."""

    left_mm: float = 0.0
    left_at: tuple[float, float] = (0.0, 0.0)
    lost_mm: float = 0.0
    lost_at: tuple[float, float] = (0.0, 0.0)
    hits: list[tuple[str, int]] = field(default_factory=list)
    off: bool = False

    @property
    def finished(self) -> bool:
        return self.off and self.left_mm == 0 and self.lost_mm == 0


def judge(part: Json, blank: Points, fixed: list[Points], tools: dict[int, Tool], text: str, home: tuple[float, float],
          jaw_face: float, cell: float = CELL, driven: frozenset[int] = frozenset(),
          centre: tuple[Points, ...] = ()) -> Judged:  # fmt: skip
    """Cut a program out of a blank. ``blank``, ``fixed`` and ``centre`` are outlines of the upper half, a cell that lies
    in two of them in neither. What ``driven`` tools cut is not seen."""
    solid, taken = outlines(part)
    back = float(solid[:, 0].min())
    front, top = float(blank[:, 0].max()) + 2, float(blank[:, 1].max()) + 1
    raster = Raster(min(float(blank[:, 0].min()), back) - 2, front, max(top, float(solid[:, 1].max()) + 1), cell)
    drawn = raster.inside(solid)
    features = raster.empty()
    for n, ring in enumerate(taken):
        hole = raster.inside(ring)
        drawn &= ~hole
        if n or not part.get("inside"):
            features |= hole
    raster.metal = raster.inside(blank)
    stops, in_front = raster.empty(), raster.empty()
    for ring in fixed:
        stops ^= raster.inside(ring)
    for ring in centre:
        in_front ^= raster.inside(ring)
    way = ways(text, home, driven)
    centred = not any(one.how.startswith("centre") for one in way)
    found = Judged()
    piece = _cut(raster, (stops, stops | in_front), centred, tools, way, found, jaw_face, back)
    threads = _threads(part, raster)
    _compare(found, raster, piece, drawn, features, threads)
    return found


def _cut(raster: Raster, fixed: tuple[Cells, Cells], centred: bool, tools: dict[int, Tool], way: list[Way],
         found: Judged, jaw_face: float, back: float) -> Cells:  # fmt: skip
    piece, stops = raster.empty(), fixed[centred]
    after_thread = False
    for one in way:
        if one.how.startswith("centre"):
            stops = fixed[one.how == "centre in"]
            continue
        tool = tools.get(one.station)
        if tool is None:
            continue
        out_of_thread = after_thread and one.how == "rapid" and one.start[0] == one.end[0]
        after_thread = one.how == "thread"
        places = _places(one)
        cutting = [(tool.core, tool.round), *((piece_, 0.0) for piece_ in tool.ahead)]
        for core, radius in cutting:
            for shape in _passes(core, places, one.how == "thread"):
                window, cells = raster.under(shape, radius, step=RAPID_STEP if one.how == "rapid" else 1)
                if not cells.size:
                    continue
                if one.how == "rapid":
                    if not out_of_thread:
                        _hit(found, raster, raster.metal[window] & cells, "rapid in metal", one.line, RAPID_STEP)
                else:
                    raster.metal[window] &= ~cells
                _hit(found, raster, stops[window] & cells, "edge in the hold", one.line,
                     RAPID_STEP if one.how == "rapid" else 1)  # fmt: skip
        for body in tool.bodies:
            for shape in _passes(body, places, False):
                window, cells = raster.under(shape, 0.0, SKIN, BODY_STEP)
                if cells.size:
                    _hit(found, raster, raster.metal[window] & cells, "holder in metal", one.line, BODY_STEP)
                    _hit(found, raster, stops[window] & cells, "holder in the hold", one.line, BODY_STEP)
        if one.how == "feed" and tool.kind == "parting":
            piece = _fall(raster, piece, jaw_face)
    return piece if piece.any() else raster.metal.copy()


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


def _threads(part: Json, raster: Raster) -> Cells:
    """Where threads are cut below the drawn surface."""
    found = raster.empty()
    for one in part.get("features", ()):
        if one["kind"] == "thread":
            z = raster.z0 + (np.arange(raster.shape[1]) + 0.5) * raster.cell
            found[:, (z > one["from_z_mm"] - one["length_mm"] - 8) & (z < one["from_z_mm"] + 5)] = True
        if one["kind"] == "axial_hole" and one.get("thread"):
            found[: int(1.4 * one["d_mm"] / 2 / raster.cell)] = True
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
