"""What rubs behind the edge: the back of an insert, a bar in too small a bore, a curved blade in too tight a ring.

The section shows the edge and the bodies; these three are met out of its plane or just behind the edge.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.region import EMPTY, Region
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.model.tool import BoringTool, GroovingTool, ThreadingTool, Tool, TurningTool
from toreuma.core.motion import Motion

__all__ = ["Rub", "rubs"]

RUBS_MM = 0.02
"""Less than this is what the edge itself leaves of its round."""

BESIDE_MM = 0.05
LAST_SHARE = 0.98
"""The direction of a move is that of its last piece."""

SLACK_MM = 0.01


@dataclass(frozen=True)
class Rub:
    """What rubs, where (z, r), and how deep, mm."""

    what: str
    at: tuple[float, float]
    depth_mm: float


def rubs(tool: Tool, shape: ToolShape, motion: Motion, removed: Callable[[], Region], stock: Region) -> Rub | None:
    """What rubs at the end of a feed move that cut something; ``removed`` gives it, ``stock`` is the metal left."""
    if isinstance(tool, TurningTool | BoringTool):
        found = _behind_the_edge(shape, motion, stock)
        if found is not None:
            return found
    bar = getattr(tool, "bar", None)
    in_ring = isinstance(tool, GroovingTool) and tool.where == "face" and tool.first_cut_mm is not None
    cut = removed() if bar is not None or in_ring else EMPTY
    if cut.is_empty:
        return None
    if bar is not None and isinstance(tool, BoringTool | GroovingTool | ThreadingTool):
        widest = float(cut.bounds[3])
        if widest < bar.least_cut_mm / 2 - SLACK_MM:
            depth = bar.least_cut_mm / 2 - widest
            return Rub("insert's flank in a bore smaller than the bar's least one", _middle(cut), depth)
    if isinstance(tool, GroovingTool) and tool.where == "face" and tool.first_cut_mm is not None:
        return _in_a_ring(tool.first_cut_mm, cut, stock)
    return None


def _behind_the_edge(shape: ToolShape, motion: Motion, stock: Region) -> Rub | None:
    """Metal inside the insert behind its trailing edge, widened by its clearance, where the move ends.

    An edge that advances into the metal cuts; it rubs where it is drawn along.
    """
    if shape.is_blade or shape.has_free_sides or _advances(shape, motion):
        return None
    z, r = motion.end[0] - shape.tip[0], motion.end[1] - shape.tip[1]
    guard = shapely.transform(shape.widened, lambda points: points + np.array((z, r)))
    if not shapely.intersects(guard, stock):
        return None
    over = guard.intersection(stock).buffer(-RUBS_MM / 2)
    if over.is_empty:
        return None
    at = over.representative_point()
    return Rub("insert's flank in metal", (at.x, at.y), float(over.distance(shapely.boundary(stock)) + RUBS_MM))


def _advances(shape: ToolShape, motion: Motion) -> bool:
    """The trailing edge goes into the metal with its whole length, as in a cut toward the axis."""
    z, r = shape.core[-1]
    to_metal = -1.0 if shape.tip[1] <= 0 else 1.0
    normal = (r, -z) if -z * to_metal > 0 else (-r, z)
    before = motion.segment.at(LAST_SHARE)
    along = (motion.end[0] - before[0], motion.end[1] - before[1])
    return float(along[0] * normal[0] + along[1] * normal[1]) > 1e-9


def _in_a_ring(first_mm: tuple[float, float], cut: Region, stock: Region) -> Rub | None:
    """The blade is curved for rings of these diameters: a tighter one meets its outer flank, a wider one its inner."""
    _, low, _, high = cut.bounds
    z = (cut.bounds[0] + cut.bounds[2]) / 2
    d = 2 * high
    outer = stock.distance(shapely.Point(z, high + BESIDE_MM)) == 0
    inner = low > BESIDE_MM and stock.distance(shapely.Point(z, low - BESIDE_MM)) == 0
    if outer and d < first_mm[0] - SLACK_MM:
        return Rub("blade's outer flank in the wall of the ring", (z, high), (first_mm[0] - d) / 2)
    if inner and outer and d > first_mm[1] + SLACK_MM:
        return Rub("blade's inner flank in the wall of the ring", (z, low), (d - first_mm[1]) / 2)
    return None


def _middle(region: Region) -> tuple[float, float]:
    at = region.representative_point()
    return at.x, at.y
