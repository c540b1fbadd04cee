"""An interrupted cut: the share of a turn that is metal, and the hits a second."""

import math

__all__ = ["hits_per_s", "polygon_share"]


def polygon_share(sides: int, across_mm: float, r_mm: float) -> float:
    """Share of a turn in which a tool on radius ``r_mm`` meets a bar of a regular polygon across flats.

    Each side lies open over 2 acos(a / 2r): 1 - n acos(a / 2r) / pi, between 1 on the flats and 0 beyond the corners.
    """
    half = across_mm / 2
    if r_mm <= half:
        return 1.0
    return max(1 - sides * math.acos(half / r_mm) / math.pi, 0.0)


def hits_per_s(hits_per_turn: int, rpm: float) -> float:
    """How often the edge enters metal: z n / 60."""
    return hits_per_turn * rpm / 60
