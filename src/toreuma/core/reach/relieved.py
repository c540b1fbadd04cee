"""Reliefs that a slim finishing tool takes along on its way: it goes down their slope, and into the shoulder."""

import math

import numpy as np

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.shape import TRAIL_MARGIN_DEG, ToolShape
from toreuma.core.geometry.voids import FACE_RAMP_DEG, RAMP_DEG
from toreuma.core.model import Part, Relief

__all__ = ["relieved", "slides_in"]

SAME = 1e-6


def slides_in(shape: ToolShape, relief: Relief) -> bool:
    """Whether a finishing cut takes an undercut (DIN 509) along: its trailing edge stands steeper than the slope of the
    relief, its leading edge leans back more than the slope in the shoulder, its nose is no larger."""
    bar = shape.tip[1] > 0
    if relief.form == "thread" or bar is not (relief.side == "inside") or len(shape.core) < 3 or shape.is_blade:
        return False
    if shape.leads_toward_chuck is not (relief.toward == "front"):
        return False
    upright = shape.core * [1.0, -1.0] if bar else shape.core  # a bar in a bore stands on its head
    trails, leans = _angles(upright if shape.leads_toward_chuck else upright * [-1.0, 1.0])
    into_face = FACE_RAMP_DEG.get(relief.form, 0.0) if relief.face_depth_mm > 0 else 0.0
    steep = trails - TRAIL_MARGIN_DEG >= RAMP_DEG[relief.form] and leans >= into_face
    return steep and shape.nose_radius <= relief.radius_mm + SAME


def relieved(part: Part, shape: ToolShape, away: bool) -> tuple[int, ...]:
    """Which features of a part such a cut takes along; those that go into the shoulder only where it may move
    ``away`` from the chuck."""
    return tuple(
        index
        for index, one in enumerate(part.features)
        if isinstance(one, Relief) and slides_in(shape, one) and (away or one.face_depth_mm == 0)
    )


def _angles(core: Points) -> tuple[float, float]:
    """Of a core whose tool goes toward smaller z: how steep its trailing edge stands to the axis, and how far its
    leading edge leans back, degrees."""
    away = core[np.hypot(core[:, 0], core[:, 1]) > SAME]
    angles = [math.degrees(math.atan2(r, z)) for z, r in away]
    return min(angles), 90.0 - max(angles)
