"""What driven tools cut away, kept compactly: ways at one level as one region, holes by their deepest point."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import EMPTY, Region, box, polygons
from toreuma.core.geometry.shape import ToolShape, quarter_chords
from toreuma.core.geometry.solids import ALONG_X, Bounds, Solid, facets, joined, prism, revolved, swept, turned_about_z
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Tool
from toreuma.core.model.tool import EndMill, Mill
from toreuma.core.motion import Motion

__all__ = ["DrivenCuts", "DrivenTool"]

COARSE_TOOL = 48
"""Facets of a tool where only contact is looked for."""

SAME_MM = 1e-6
CHORD_MM = 0.0005


@dataclass(frozen=True, kw_only=True)
class DrivenTool:
    """A driven tool as bodies along its own axis, its end at the origin; ``rough`` cuts where only contact counts."""

    tool: Tool
    cutting: Solid
    rough: Solid
    bodies: tuple[Solid, ...]
    teeth: int

    @staticmethod
    def of(tool: Tool) -> "DrivenTool":
        shape: ToolShape = shape_of(tool.changed(mount="axial", hand="right", spindle="main"))
        upper = _upper(shape.cutting)
        bodies = (_upper(shapely.MultiPoint(piece).convex_hull) for piece in shape.bodies)
        return DrivenTool(
            tool=tool,
            cutting=revolved(upper, facets(float(shape.cutting.bounds[3]))),
            rough=revolved(upper, COARSE_TOOL),
            bodies=tuple(revolved(body, COARSE_TOOL) for body in bodies),
            teeth=tool.teeth if isinstance(tool, Mill) else 2,
        )

    @property
    def is_flat(self) -> bool:
        """Cuts a flat floor and a straight wall."""
        return isinstance(self.tool, EndMill) and self.tool.corner_radius_mm == 0

    @property
    def solids(self) -> tuple[Solid, ...]:
        """All of it."""
        return (self.rough, *self.bodies)

    @property
    def along_x(self) -> bool:
        return self.tool.mount == "radial"

    def inner(self, share: float) -> Solid:
        """The middle of a tool for holes, to such a share of its width: what must be open before it comes."""
        end = float(self.cutting.bounding_box()[5])
        return revolved(box(0.0, 0.0, end, share * float(getattr(self.tool, "d_mm", 0.0)) / 2), COARSE_TOOL)

    def along(self, body: Solid, motion: Motion) -> Solid:
        """A body of the tool moved along a move, where the work is."""
        assert motion.driven is not None
        stood = body.transform(ALONG_X) if self.along_x else body
        ends = zip((motion.start, motion.end), motion.driven.y, strict=True)
        return turned_about_z(swept(stood, np.array([[x, y, z] for (z, x), y in ends])), motion.driven.c_deg)

    def bounds_along(self, body: Solid, motion: Motion) -> Bounds:
        """Bounds of a body of the tool moved along a move, for somebody who turned with the work: how far it is from
        the axis is the same at every angle, and here the bounds lie close."""
        assert motion.driven is not None
        x0, y0, z0, x1, y1, z1 = body.bounding_box()
        if self.along_x:  # the tool's own axis lies along X
            x0, z0, x1, z1 = z0, x0, z1, x1
        ends = list(zip((motion.start, motion.end), motion.driven.y, strict=True))
        xs, ys, zs = ([x for (_, x), _ in ends], [y for _, y in ends], [z for (z, _), _ in ends])
        return min(xs) + x0, min(ys) + y0, min(zs) + z0, max(xs) + x1, max(ys) + y1, max(zs) + z1

    def level_of(self, motion: Motion) -> float | None:
        """The level along its axis down to which a flat mill opens the metal; None for other cuts."""
        if not self.is_flat:
            return None
        places, (begin, end) = self.seen(motion)
        straight_down = bool(np.abs(places[1] - places[0]).max() < SAME_MM)
        return round(min(begin, end), 6) if straight_down or abs(begin - end) < SAME_MM else None

    def seen(self, motion: Motion) -> tuple[Points, tuple[float, float]]:
        """A move as the tool sees it: places (u, v) across its axis, (2, 2), and levels along it."""
        assert motion.driven is not None
        (z0, x0), (z1, x1), (y0, y1) = motion.start, motion.end, motion.driven.y
        if self.along_x:
            return np.array([[z0, y0], [z1, y1]]), (x0, x1)
        return np.array([[x0, y0], [x1, y1]]), (z0, z1)


def _upper(region: Region) -> Region:
    return region.intersection(box(-1e4, 0, 1e4, 1e4))


class DrivenCuts:
    """Moves that cut, in any order: their bodies are made when somebody asks."""

    def __init__(self) -> None:
        self._levels: dict[tuple[int, float, float], tuple[int, DrivenTool, list[Points]]] = {}
        self._holes: dict[tuple[int, float, float, float], tuple[int, DrivenTool, float]] = {}
        self._others: list[tuple[int, Solid]] = []

    def copy(self) -> "DrivenCuts":
        made = DrivenCuts()
        made._levels = {key: (line, driven, list(ways)) for key, (line, driven, ways) in self._levels.items()}
        made._holes, made._others = dict(self._holes), list(self._others)
        return made

    @property
    def any(self) -> bool:
        """Something was cut."""
        return bool(self._levels or self._holes or self._others)

    def add(self, motion: Motion, driven: DrivenTool) -> None:
        """A cutting move of a driven tool."""
        assert motion.driven is not None
        places, (begin, end) = driven.seen(motion)
        station, c = driven.tool.station, motion.driven.c_deg
        level = driven.level_of(motion)
        if level is not None:
            self._levels.setdefault((station, c, level), (motion.line, driven, []))[2].append(places)
        elif bool(np.abs(places[1] - places[0]).max() < SAME_MM):
            hole = station, c, round(float(places[0, 0]), 6), round(float(places[0, 1]), 6)
            line, _, deepest = self._holes.get(hole, (motion.line, driven, np.inf))
            self._holes[hole] = line, driven, min(begin, end, deepest)
        else:
            self._others.append((motion.line, driven.along(driven.cutting, motion)))

    def bodies(self) -> Iterator[tuple[int, Solid]]:
        """(line of the first move, body) of everything cut."""
        below: dict[tuple[int, float], tuple[Region, float]] = {}
        for (station, c, level), (line, driven, ways) in sorted(self._levels.items(), key=lambda item: item[0]):
            assert isinstance(driven.tool, EndMill)
            r = driven.tool.d_mm / 2
            segments = quarter_chords(r, CHORD_MM)
            region = shapely.union_all(shapely.buffer(shapely.linestrings(ways), r, quad_segs=segments))
            deeper, reach = below.get((station, c), (EMPTY, level))
            top = max(level, reach) + driven.tool.flute_length_mm
            if not deeper.is_empty and deeper.buffer(SAME_MM).covers(region):
                continue  # a layer above what was cut deeper
            below[station, c] = deeper.union(region), max(level, reach)
            yield line, _stood(joined(prism(*rings, level, top) for rings in _rings(region)), driven, c)
        for (_, c, u, v), (line, driven, deepest) in self._holes.items():
            yield line, _stood(driven.cutting.translate((u, v, deepest)), driven, c)
        yield from self._others


def _rings(region: Region) -> Iterator[tuple[list[Points]]]:
    for one in polygons(region):
        yield ([shapely.get_coordinates(ring)[:-1] for ring in (one.exterior, *one.interiors)],)


def _stood(body: Solid, driven: DrivenTool, c_deg: float) -> Solid:
    """A body made along the tool's axis, where the work is."""
    return turned_about_z(body.transform(ALONG_X) if driven.along_x else body, c_deg)
