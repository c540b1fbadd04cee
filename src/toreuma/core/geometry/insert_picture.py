"""An insert drawn as its sheet shows it: from above with its circle, and from the side with its clearance."""

import math
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.insert_outline import corner_deg, outline
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.shape import grow
from toreuma.core.model.tool import Insert

__all__ = ["InsertPicture", "insert_picture"]


@dataclass(frozen=True, kw_only=True)
class InsertPicture:
    """Everything in mm about the middle of the insert; the working corner points to the lower left.

    ``sharp`` is the outline without rounding, ``edge`` the leading edge, ``corner`` the sharp working corner.
    ``side`` is the side view, its upper face at 0, to be drawn beside.
    """

    top: Region
    sharp: Points
    centre_r: float
    corner: tuple[float, float]
    edge: tuple[tuple[float, float], tuple[float, float]]
    side: Points


def insert_picture(insert: Insert) -> InsertPicture:
    """Outline, inscribed circle and side view of an insert."""
    half = math.radians(corner_deg(insert)) / 2
    lead = math.radians(45.0) + half  # the bisector of the working corner points up to the right
    sharp = outline(insert, 0.0, lead)
    middle = np.zeros(2) if insert.shape == "R" else _middle(insert, sharp, half)
    nose = 0.0 if insert.shape == "R" else insert.nose_radius_mm
    core = outline(insert, nose, lead) - middle
    if nose > 0:
        core = core + np.array([1.0, 1.0]) / math.sqrt(2) * nose / math.sin(half)
    top = grow(shapely.MultiPoint(core).convex_hull, nose)
    sharp = sharp - middle
    wide = float(sharp[:, 0].max() - sharp[:, 0].min())
    run = insert.thickness_mm * math.tan(math.radians(insert.clearance_deg))
    side = np.array(
        [
            [-wide / 2, 0.0],
            [wide / 2, 0.0],
            [wide / 2 - run, -insert.thickness_mm],
            [-wide / 2 + run, -insert.thickness_mm],
        ]
    )
    corner = (float(sharp[0, 0]), float(sharp[0, 1]))
    far = (float(sharp[1, 0]), float(sharp[1, 1])) if len(sharp) > 1 else corner
    return InsertPicture(top=top, sharp=sharp, centre_r=insert.ic_mm / 2, corner=corner, edge=(corner, far), side=side)


def _middle(insert: Insert, sharp: Points, half: float) -> Points:
    """Centre of the inscribed circle; of the whole for shapes without one."""
    if insert.shape in "LABK":
        return np.asarray(sharp.mean(axis=0))
    return np.array([1.0, 1.0]) / math.sqrt(2) * insert.ic_mm / 2 / math.sin(half)
