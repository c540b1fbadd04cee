"""A drawing board: places of the half plane on paper, to a standard scale, written as SVG in millimetres of paper."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from html import escape

import numpy as np
import shapely

from toreuma.core.geometry.region import Region, polygons

__all__ = ["LINES", "SCALES", "Board", "Line", "scale_for", "scale_words"]

SCALES = (20.0, 10.0, 5.0, 4.0, 2.5, 2.0, 1.0, 0.5, 0.4, 0.25, 0.2, 0.1, 0.05, 0.025, 0.02, 0.01)
"""Scales of ISO 5455 with intermediate ones, which it allows, the largest first."""


@dataclass(frozen=True)
class Line:
    """A kind of line: width on paper, mm, and its dashes."""

    width_mm: float
    dashes: tuple[float, ...] = ()
    grey: int = 0


LINES = {
    "wide": Line(0.5),
    "narrow": Line(0.18),
    "middle": Line(0.25),
    "centre": Line(0.18, (6.0, 0.8, 0.5, 0.8)),
    "adjacent": Line(0.18, (5.0, 0.7, 0.4, 0.7, 0.4, 0.7)),
    "hidden": Line(0.18, (2.0, 0.8)),
    "bold": Line(0.8),
}
"""Lines of ISO 128-2: visible outlines wide; dimensions and hatching narrow; axes long-dashed dotted; neighbours and
blanks long-dashed double-dotted."""

FACETS_MM = 0.02
"""Outlines are drawn so closely on paper."""


def scale_for(width: float, height: float, room: tuple[float, float]) -> float:
    """The largest standard scale at which something so wide and high, mm, goes into a room on paper, mm."""
    fits = min(room[0] / max(width, 1e-6), room[1] / max(height, 1e-6))
    return next((one for one in SCALES if one <= fits), SCALES[-1])


def scale_words(scale: float) -> str:
    """As a drawing says it: 2:1, 1:5."""
    return f"{scale:g}:1" if scale >= 1 else f"1:{1 / scale:g}"


@dataclass
class Board:
    """``window`` is what it shows (z0, r0, z1, r1), mm; ``margin`` what is left round it on paper, mm."""

    window: tuple[float, float, float, float]
    scale: float
    margin: tuple[float, float, float, float] = (6.0, 6.0, 6.0, 6.0)
    ink: str = "#000"
    _parts: list[str] = field(default_factory=list)

    @property
    def width(self) -> float:
        return (self.window[2] - self.window[0]) * self.scale + self.margin[0] + self.margin[2]

    @property
    def height(self) -> float:
        return (self.window[3] - self.window[1]) * self.scale + self.margin[1] + self.margin[3]

    def x(self, z: float) -> float:
        return self.margin[0] + (z - self.window[0]) * self.scale

    def y(self, r: float) -> float:
        return self.margin[1] + (self.window[3] - r) * self.scale

    # On the part, mm

    def region(self, region: Region, line: str | None = "wide", fill: str = "none") -> None:
        """Outline a region, filled with a grey of the page where one is given."""
        path = self._path(region)
        if path:
            stroke = self._stroke(line) if line else 'stroke="none"'
            self._parts.append(f'<path d="{path}" fill="{fill}" fill-rule="evenodd" {stroke}/>')

    def hatch(self, region: Region, spacing_mm: float = 2.0, deg: float = 45.0, line: str = "narrow") -> None:
        """Hatch a region with lines so far apart on paper."""
        if region.is_empty:
            return
        z0, r0, z1, r1 = region.bounds
        way = np.array([math.cos(math.radians(deg)), math.sin(math.radians(deg))])
        across = np.array([-way[1], way[0]])
        corners = np.array([[z0, r0], [z0, r1], [z1, r0], [z1, r1]])
        step = spacing_mm / self.scale
        low, high = (corners @ across).min(), (corners @ across).max()
        begin, end = (corners @ way).min(), (corners @ way).max()
        count = int((high - low) / step)
        if count > 2000:
            return
        places = (math.floor(low / step) + 1 + np.arange(count + 1)) * step
        lines = np.stack(
            [places[:, None] * across + begin * way, places[:, None] * across + end * way], axis=1
        )  # in one grid, so that neighbouring pieces of a part are hatched alike
        pieces = shapely.intersection(shapely.linestrings(lines), region)
        ends = [
            shapely.get_coordinates(one)[[0, -1]]
            for one in shapely.get_parts(pieces)
            if one.geom_type == "LineString" and one.length > 0
        ]
        path = "".join(f"M{self.x(a[0]):.2f} {self.y(a[1]):.2f}L{self.x(b[0]):.2f} {self.y(b[1]):.2f}" for a, b in ends)
        if path:
            self._parts.append(f'<path d="{path}" fill="none" {self._stroke(line)}/>')

    def line(self, points: Sequence[tuple[float, float]], line: str = "narrow") -> None:
        """A line through places (z, r)."""
        self._polyline(np.asarray(points, dtype=float), line)

    # On paper, mm

    def paper_line(self, points: Iterable[tuple[float, float]], line: str = "narrow") -> None:
        text = " ".join(f"{x:.2f},{y:.2f}" for x, y in points)
        self._parts.append(f'<polyline points="{text}" fill="none" {self._stroke(line)}/>')

    def text(
        self, x: float, y: float, words: str, size_mm: float = 2.8, anchor: str = "middle", turn: bool = False,
        bold: bool = False,
    ) -> None:  # fmt: skip
        """Words with their base line there; turned, they read from the right of the page."""
        turned = f' transform="rotate(-90 {x:.2f} {y:.2f})"' if turn else ""
        weight = ' font-weight="bold"' if bold else ""
        self._parts.append(
            f'<text x="{x:.2f}" y="{y:.2f}" font-size="{size_mm}" text-anchor="{anchor}"{weight}{turned}>'
            f"{escape(words)}</text>"
        )

    def arrow(self, x: float, y: float, dx: float, dy: float, size_mm: float = 2.2) -> None:
        """An arrow head with its point there, coming from (dx, dy)."""
        long = math.hypot(dx, dy) or 1.0
        ux, uy = dx / long * size_mm, dy / long * size_mm
        wx, wy = -uy * 0.18, ux * 0.18
        points = [(x, y), (x + ux + wx, y + uy + wy), (x + ux - wx, y + uy - wy)]
        text = " ".join(f"{a:.2f},{b:.2f}" for a, b in points)
        self._parts.append(f'<polygon points="{text}" fill="#000" stroke="none"/>')

    def circle(self, x: float, y: float, radius: float, line: str = "narrow", fill: str = "#fff") -> None:
        self._parts.append(f'<circle cx="{x:.2f}" cy="{y:.2f}" r="{radius:.2f}" fill="{fill}" {self._stroke(line)}/>')

    def polygon(self, points: Iterable[tuple[float, float]], fill: str = "#000", line: str | None = None) -> None:
        text = " ".join(f"{x:.2f},{y:.2f}" for x, y in points)
        stroke = self._stroke(line) if line else 'stroke="none"'
        self._parts.append(f'<polygon points="{text}" fill="{fill}" {stroke}/>')

    def blank(self, x: float, y: float, width: float, height: float) -> None:
        """White behind words that stand on lines."""
        self._parts.append(f'<rect x="{x:.2f}" y="{y:.2f}" width="{width:.2f}" height="{height:.2f}" fill="#fff"/>')

    def bar(self, x: float, y: float, width: float, long: float, colour: str, filled: bool) -> None:
        """A bar from a place up or down, ``long`` mm of paper, down where that is positive."""
        top, fill = min(y, y + long), colour if filled else "none"
        self._parts.append(
            f'<rect x="{x:.2f}" y="{top:.2f}" width="{width:.2f}" height="{abs(long):.2f}" fill="{fill}" '
            f'stroke="{colour}" stroke-width="0.35"/>'
        )

    def label(self, x: float, y: float, words: str, colour: str, size_mm: float = 2.9) -> None:
        """Words in a colour, about a place."""
        self._parts.append(
            f'<text x="{x:.2f}" y="{y:.2f}" font-size="{size_mm}" text-anchor="middle" fill="{colour}">'
            f"{escape(words)}</text>"
        )

    @property
    def svg(self) -> str:
        """The drawing, as large as it is on paper."""
        size = (
            f'width="{self.width:.2f}mm" height="{self.height:.2f}mm" viewBox="0 0 {self.width:.2f} {self.height:.2f}"'
        )
        head = f'<svg xmlns="http://www.w3.org/2000/svg" {size} font-family="B612, sans-serif">'
        return head + "".join(self._parts) + "</svg>"

    def _polyline(self, points: np.ndarray, line: str) -> None:
        text = " ".join(f"{self.x(z):.2f},{self.y(r):.2f}" for z, r in points)
        self._parts.append(f'<polyline points="{text}" fill="none" {self._stroke(line)}/>')

    def _path(self, region: Region) -> str:
        rings = []
        for piece in polygons(shapely.simplify(region, FACETS_MM / self.scale)):
            for ring in (piece.exterior, *piece.interiors):
                points = shapely.get_coordinates(ring)[:-1]
                rings.append("M" + "L".join(f"{self.x(z):.2f} {self.y(r):.2f}" for z, r in points) + "Z")
        return "".join(rings)

    def _stroke(self, name: str) -> str:
        line = LINES[name]
        dashes = f' stroke-dasharray="{" ".join(f"{one:g}" for one in line.dashes)}"' if line.dashes else ""
        return f'stroke="{self.ink}" stroke-width="{line.width_mm}" stroke-linejoin="round"{dashes}'
