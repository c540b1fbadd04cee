"""Why a tool leaves metal where it does: nose, edge, holder, bar or jaws, and how close the holder comes."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import shapely

from toreuma.core.geometry.region import Region, polygons, thickness
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Tool
from toreuma.core.reach.tool_reach import LEAST_MM, Surface, ToolReach, reach_of_shape
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["Spot", "plunge_deg", "tight_spots"]

Reason = Literal["nose radius", "leading edge", "trailing edge", "holder", "bar against the far wall", "jaws"]

MOST_SPOTS = 6
LEAST_MM2 = 0.02
FULL_SHARE = 0.5
"""A piece counts as left by the step that first leaves this share of it."""


@dataclass(frozen=True, kw_only=True)
class Spot:
    """One piece of metal left: where, how much, how thick, and what keeps the tool away."""

    at: tuple[float, float]
    area_mm2: float
    thick_mm: float
    from_z: float
    to_z: float
    reason: Reason
    words: str


def tight_spots(scene: Scene, tool: Tool, surface: Surface, reach: ToolReach) -> tuple[Spot, ...]:
    """The largest pieces of leftover, each with what is in the way. The tool is tried with ever more of itself."""
    shape = shape_of(tool)
    pieces = sorted(polygons(reach.leftover), key=lambda piece: -piece.area)[:MOST_SPOTS]
    pieces = [piece for piece in pieces if piece.area > LEAST_MM2]
    if not pieces:
        return ()
    disc = replace(shape, core=np.zeros((1, 2)))
    steps: list[tuple[Reason, Region]] = []
    if shape.nose_radius > 0:
        steps.append(("nose radius", reach_of_shape(scene, disc, surface, with_body=False, with_hold=False).leftover))
    edge = reach_of_shape(scene, shape, surface, with_body=False, with_hold=False).leftover
    steps.append(("trailing edge", edge))
    body: Reason = "bar against the far wall" if surface.kind == "bore" else "holder"
    steps.append((body, reach_of_shape(scene, shape, surface, with_hold=False).leftover))
    return tuple(_spot(scene, tool, shape, piece, _first(piece, steps)) for piece in pieces)


def _first(piece: Region, steps: list[tuple[Reason, Region]]) -> Reason:
    for reason, left in steps:
        if piece.intersection(left).area > FULL_SHARE * piece.area:
            return reason
    return "jaws"


def _spot(scene: Scene, tool: Tool, shape: ToolShape, piece: Region, reason: Reason) -> Spot:
    point = piece.representative_point()
    at = (float(point.x), float(point.y))
    z0, _, z1, _ = piece.bounds
    if reason == "trailing edge" and _wall_in_front(scene, piece, shape):
        reason = "leading edge"
    thick = thickness(piece, scene.part) if piece.area > LEAST_MM else 0.0
    return Spot(
        at=at,
        area_mm2=float(piece.area),
        thick_mm=thick,
        from_z=float(z1),
        to_z=float(z0),
        reason=reason,
        words=_words(tool, shape, reason),
    )


def _wall_in_front(scene: Scene, piece: Region, shape: ToolShape) -> bool:
    """The wall beside the piece stands where the tool is heading, not behind it."""
    point = piece.representative_point()
    z, r = float(point.x), float(point.y)
    toward = shapely.LineString([(z, r), (z - 1e4, r)]).intersection(scene.part)
    behind = shapely.LineString([(z, r), (z + 1e4, r)]).intersection(scene.part)
    near = [
        math.inf if part.is_empty else float(shapely.distance(part, shapely.Point(z, r))) for part in (toward, behind)
    ]
    ahead, back = near if shape.leads_toward_chuck else near[::-1]
    return ahead < back


def plunge_deg(shape: ToolShape) -> float | None:
    """The steepest way down the trailing edge allows, in degrees from the axis; None for tools without one."""
    if len(shape.core) < 3 or shape.is_blade or shape.tip[0] == 0:
        return None
    last = shape.core[-1]
    angle = math.degrees(math.atan2(abs(float(last[1])), abs(float(last[0]))))
    return angle if float(last[0]) * shape.tip[0] < 0 else 180 - angle


def _words(tool: Tool, shape: ToolShape, reason: Reason) -> str:
    steep = plunge_deg(shape)
    if reason == "nose radius":
        return said("the nose radius {} does not go into the corner", q(shape.nose_radius, "mm", "g"))
    if reason == "trailing edge":
        return f"the trailing edge goes down at {steep:.0f}° at most" if steep is not None else "the back of the tool"
    if reason == "leading edge":
        return f"the leading edge stands at {shape.entering_angle_deg:g}°"
    if reason == "holder":
        return "the head of the holder would touch"
    return "the bar would touch the far wall" if reason != "jaws" else "jaws, chuck or centre stand in the way"
