"""What moves take away from the stock."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.affinity import translate

from toreuma.core.geometry.elements import Line, Points
from toreuma.core.geometry.minkowski import hulls, sweep
from toreuma.core.geometry.region import EMPTY, Region, fold, tidy
from toreuma.core.geometry.shape import ToolShape, quarter_chords
from toreuma.core.motion import STOPPED, Motion

__all__ = ["SIMULATION_CHORD_MM", "Swept", "after_cutting", "cuts_only", "cutting_sweep", "nose_path", "swept_each"]

SIMULATION_CHORD_MM = 0.0002
"""How closely the chords of a simulated cut follow the true one, where nothing coarser will do."""


def nose_path(motion: Motion, shape: ToolShape, tolerance_mm: float = SIMULATION_CHORD_MM) -> Points:
    """Places of the nose centre along a move, shape (n, 2), mm."""
    return np.asarray(motion.segment.points(tolerance_mm) - np.array(shape.tip))


def cutting_sweep(motions: Sequence[Motion], shape: ToolShape, chord_mm: float = SIMULATION_CHORD_MM) -> Region:
    """What the cutting edge passes over in a run of moves of one tool.

    A move in step with the spindle meets a half plane through the axis once a turn: it stamps the tool into it.
    """
    if any(motion.in_step for motion in motions):
        threads = [_stamped(motion, shape) for motion in motions if motion.in_step]
        others = cutting_sweep([motion for motion in motions if not motion.in_step], shape, chord_mm)
        return shapely.union_all([*threads, others])
    paths = [nose_path(motion, shape, chord_mm) for motion in motions if motion.segment.length > 1e-12]
    if not paths:
        return EMPTY
    runs: list[list[Points]] = [[paths[0]]]
    for path in paths[1:]:
        joined = np.abs(path[0] - runs[-1][-1][-1]).max() < 1e-9
        if joined:
            runs[-1].append(path[1:])
        else:
            runs.append([path])
    swept = [sweep(np.vstack(run), shape.core, shape.nose_radius, chord_mm) for run in runs]
    swept += [sweep(np.vstack(run), piece, 0.0, chord_mm) for run in runs for piece in shape.ahead]
    return shapely.union_all(swept)


def _stamped(motion: Motion, shape: ToolShape) -> Region:
    """The cutting part at its place after every whole turn of the spindle, counted from where the thread began."""
    first = (-motion.turned) % 1.0
    count = math.floor(motion.turns - first + 1e-9)
    places = [motion.segment.at((first + turn) / motion.turns) for turn in range(count + 1)]
    cutting, (tip_z, tip_r) = shape.cutting, shape.tip
    return shapely.union_all([translate(cutting, z - tip_z, r - tip_r) for z, r in places])


@dataclass(frozen=True)
class Swept:
    """What a tool passes over in one move: with its edge, and with the convex pieces of holder, shank and
    what they are held in, coarsely."""

    cutting: Region
    pieces: "np.ndarray[tuple[int], np.dtype[np.object_]]"


def swept_each(motions: Sequence[Motion], shape: ToolShape) -> list[Swept]:
    """`Swept` of every move of one tool: that of all straight ones is made at once."""
    found: list[Swept | None] = [None] * len(motions)
    straight = [n for n, one in enumerate(motions) if isinstance(one.segment, Line) and not one.in_step]
    if straight and not shape.ahead:
        ends = np.array([(motions[n].segment.start, motions[n].segment.end) for n in straight]) - np.array(shape.tip)
        cut = hulls(ends, shape.core)
        if shape.nose_radius > 0:
            cut = shapely.buffer(
                cut, shape.nose_radius, quad_segs=quarter_chords(shape.nose_radius, SIMULATION_CHORD_MM)
            )
        behind = (*shape.bodies, *shape.held)
        bodies = np.array([hulls(ends, piece) for piece in behind], dtype=object).reshape(-1, len(straight))
        for place, n in enumerate(straight):
            found[n] = Swept(cut[place], bodies[:, place])
    return [one or _swept(motion, shape) for one, motion in zip(found, motions, strict=True)]


def _swept(motion: Motion, shape: ToolShape) -> Swept:
    path = nose_path(motion, shape, 0.01)
    behind = (*shape.bodies, *shape.held)
    pieces = np.empty(len(behind), dtype=object)
    pieces[:] = [sweep(path, piece, 0.0) for piece in behind]
    return Swept(cutting_sweep([motion], shape), pieces)


def cuts_only(motions: Iterable[Motion]) -> tuple[Motion, ...]:
    """The moves that cut, with nothing but what shapes the cut: the way, and in step with the spindle lead and turn."""
    return tuple(
        Motion(one.segment, one.feed if one.in_step else 0.0, STOPPED, 0, in_step=one.in_step, turned=one.turned)
        for one in motions
        if not one.is_rapid and one.driven is None
    )


def after_cutting(
    stock: Region, motions: Sequence[Motion], shape: ToolShape, chord_mm: float = SIMULATION_CHORD_MM
) -> Region:
    """The stock after the feed moves of one tool."""
    feeds = [motion for motion in motions if not motion.is_rapid and motion.driven is None]
    swept = fold(cutting_sweep(feeds, shape, chord_mm))
    return tidy(shapely.difference(stock, swept), chord_mm / 200) if not swept.is_empty else stock
