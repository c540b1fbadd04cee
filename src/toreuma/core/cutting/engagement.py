"""How the edge stands in the cut: engaged length, equivalent chip thickness, effective entering angle."""

import math
from dataclasses import dataclass

__all__ = ["Engagement", "engaged"]


@dataclass(frozen=True)
class Engagement:
    """``length_mm`` is the engaged edge Le, ``thickness_mm`` the equivalent chip thickness he = ap f / Le (Woxen 1932),
    ``entering_deg`` the angle of the chord of the engaged edge to the axis (Colwell 1954)."""

    length_mm: float
    thickness_mm: float
    entering_deg: float


def engaged(ap_mm: float, feed_mm_rev: float, nose_radius_mm: float, entering_deg: float) -> Engagement:
    """Engagement of an edge with a nose radius; ap on radius. Valid for f < 2 rε and ap > 0.

    The edge is straight down to the nose and runs round it to where the feed mark of the turn before begins.
    """
    kappa, nose, half = math.radians(entering_deg), nose_radius_mm, feed_mm_rev / 2
    tail = math.asin(min(half / nose, 1.0)) if nose > 0 else 0.0
    arc_depth = nose * (1 - math.cos(kappa))
    if ap_mm <= arc_depth:
        turn = math.acos(1 - ap_mm / nose)
        length, along = nose * (turn + tail), nose * math.sin(turn) + half
    else:
        straight = (ap_mm - arc_depth) / math.sin(kappa)
        length = straight + nose * (kappa + tail)
        along = straight * math.cos(kappa) + nose * math.sin(kappa) + (half if nose > 0 else 0.0)
    return Engagement(length, ap_mm * feed_mm_rev / length, math.degrees(math.atan2(ap_mm, along)))
