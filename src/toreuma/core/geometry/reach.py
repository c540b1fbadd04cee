"""Reach: which positions of the nose centre are free, and what a tool can remove from them."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import CHORD_MM, Points
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.minkowski import sum_with
from toreuma.core.geometry.region import EMPTY, Region, about, union
from toreuma.core.geometry.shape import ToolShape, grow

__all__ = ["Reach", "blocked_by_body", "blocked_by_part", "covered"]

BODY_TOLERANCE_MM = 0.04
"""Solids that only the holder must keep clear of are simplified this far; the clearance is larger."""


@dataclass(frozen=True)
class Reach:
    """Free positions of a tool coming from above, between two places along Z."""

    envelope: Envelope
    shape: ToolShape

    def removable(self, height: float) -> Region:
        """Everything the cutting edge covers from its free positions below ``height``."""
        return covered(self.envelope.above(height), self.shape)


def blocked_by_part(
    solid: Region, shape: ToolShape, leave_axial: float = 0.0, leave_radial: float = 0.0, chord_mm: float = CHORD_MM
) -> Region:
    """Nose centres at which the insert would cut into ``solid`` grown by the allowances, mm.

    The trailing edge is widened by its clearance, so that a path never rubs along it.
    """
    core = -shape.guarded_core
    if leave_axial > 0 or leave_radial > 0:
        corners = np.array([[a * leave_axial, b * leave_radial] for a in (-1, 1) for b in (-1, 1)])
        spread = (core[:, None, :] + corners[None, :, :]).reshape(-1, 2)
        core = shapely.get_coordinates(shapely.MultiPoint(spread).convex_hull.exterior)[:-1]
    return grow(sum_with(solid, core), shape.nose_radius, chord_mm)


def blocked_by_body(
    solid: Region, pieces: Iterable[Points], clearance: float, lowest_r: float = 0.0, within: Region | None = None
) -> Region:
    """Nose centres at which convex ``pieces`` of a tool would come closer than ``clearance`` to ``solid``.

    Metal below ``lowest_r`` is left out: outside, no body goes below the axis; a bar in a bore does. Centres outside
    the bounds of ``within`` may be left out as well.
    """
    above = shapely.clip_by_rect(solid, -1e6, lowest_r, 1e6, 1e6)
    rough = above.simplify(BODY_TOLERANCE_MM)
    around = None if within is None else about(within, clearance)
    sums = [sum_with(rough, -piece, around) for piece in pieces]
    return union(sums).buffer(clearance, quad_segs=3) if sums else EMPTY


def covered(free: Region, shape: ToolShape) -> Region:
    """What the cutting edge covers when its nose centre takes every place in ``free``."""
    return grow(sum_with(free, shape.core), shape.nose_radius)
