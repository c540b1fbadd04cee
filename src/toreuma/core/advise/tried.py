"""A tool that goes into machine and work, and what it leaves; which of many alike are worth computing that for."""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from toreuma.core.geometry.region import Region, polygons
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Check
from toreuma.core.model import Insert, TurningTool
from toreuma.core.model.tool import Bar, BoringTool
from toreuma.core.reach.tool_reach import Surface, ToolReach, reach_of_shape
from toreuma.core.scene import Scene

__all__ = ["CORNER_SHARE", "REACH_TOLERANCE_MM2", "Tried", "corners_aside", "looked_at"]

REACH_TOLERANCE_MM2 = 0.3
BODY_MM2 = 0.02
"""A body that costs less than this is not in the way: finishing tools are told apart by little more."""

CORNER_SHARE = 0.3
"""A rest below this share of the squared nose radius is that of a corner."""


@dataclass(frozen=True, eq=False)
class Tried:
    """A tool with its codes, tried on a surface: what it leaves there is computed when it is asked for."""

    scene: Scene
    surface: Surface
    tool: TurningTool | BoringTool
    codes: tuple[str, ...]
    in_turret: bool
    most_round_mm: float = math.inf
    """A corner that is rounder than this is no corner, but metal that is left."""

    @property
    def insert(self) -> Insert:
        return self.tool.insert

    @property
    def bar(self) -> Bar | None:
        return self.tool.bar if isinstance(self.tool, BoringTool) else None

    @property
    def leads_out(self) -> bool:
        """It cuts away from the chuck."""
        return self.tool.hand == "left" or (self.bar is not None and self.bar.back)

    @property
    def shank_mm(self) -> float:
        return self.tool.holder.shank_width_mm if isinstance(self.tool, TurningTool) else 0.0

    @property
    def entering_deg(self) -> float:
        return (self.bar or self.tool.holder).entering_angle_deg  # type: ignore[union-attr]

    @property
    def title(self) -> str:
        return " in ".join(self.codes)

    @property
    def nose_mm(self) -> float:
        return self.insert.ic_mm / 2 if self.insert.shape == "R" else self.insert.nose_radius_mm

    @property
    def edge(self) -> tuple[object, ...]:
        """What its cutting edge is and how it stands: tools that share it differ in their bodies alone."""
        insert = self.insert
        back = self.bar is not None and self.bar.back
        return insert.shape, insert.ic_mm, self.nose_mm, self.entering_deg, self.tool.hand, back

    @cached_property
    def shape(self) -> ToolShape:
        return shape_of(self.tool)

    @cached_property
    def outline(self) -> bytes:
        """Tools of one outline leave the same."""
        return b" ".join(np.round(piece, 6).tobytes() for piece in (self.shape.core, *self.shape.bodies))

    @cached_property
    def reach(self) -> ToolReach:
        return reach_of_shape(self.scene, self.shape, self.surface)

    @cached_property
    def left_mm2(self) -> float:
        """What is left besides the corners the nose is too large for."""
        return corners_aside(self.reach.leftover, self.corner_mm)

    @property
    def corner_mm(self) -> float:
        """Radius of the corners it may leave."""
        return min(self.nose_mm, self.most_round_mm)

    @cached_property
    def body_is_in_the_way(self) -> bool:
        """Its edge alone would leave less: another body behind the same edge may do better."""
        if self.left_mm2 <= BODY_MM2:
            return False
        bare = reach_of_shape(self.scene, self.shape, self.surface, with_body=False).leftover
        return corners_aside(bare, self.corner_mm) < self.left_mm2 - BODY_MM2


def corners_aside(left: Region, nose_mm: float) -> float:
    """Area of what is left besides the corners a nose is too large for, mm2."""
    return float(sum(p.area for p in polygons(left) if p.area > CORNER_SHARE * nose_mm**2))


def looked_at(
    tools: Iterable[Tried],
    rank: Callable[[Tried], tuple[float, ...]],
    check: Check,
    progress: Callable[[float], None] = lambda share: None,
) -> list[Tried]:
    """The tools worth computing a reach for. ``rank`` is what each has, low for the best, if it reaches all.

    Of tools with one edge that is the best, and the next one of another outline while a body stands in the way: where
    none does, no other leaves less. Once a tool reaches all, what ranks behind it is looked at by one of each shape, to
    compare. Bars, of which few go into a bore, are all looked at: one that bends or jams gives way to another.
    """
    alike: dict[tuple[object, ...], list[Tried]] = {}
    for one in sorted(tools, key=rank):
        alike.setdefault(one.edge, []).append(one)
    found: list[Tried] = []
    reaching: list[tuple[float, ...]] = []
    for index, group in enumerate(alike.values()):
        behind = bool(reaching) and not group[0].bar and min(reaching) < rank(group[0])
        if behind and any(one.insert.shape == group[0].insert.shape for one in found):
            continue
        outlines: set[bytes] = set()
        for one in group:
            if one.outline in outlines:
                continue
            check()
            if outlines and not one.bar and not found[-1].body_is_in_the_way:
                break
            outlines.add(one.outline)
            found.append(one)
            if one.left_mm2 <= REACH_TOLERANCE_MM2:
                reaching.append(rank(one))
        progress((index + 1) / len(alike))
    return found
