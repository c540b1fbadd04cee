"""How strong the corner of an insert is by its shape, and how much of feed and edge it stands."""

import math

__all__ = ["NOSE_SHARE", "STRENGTH", "usable_depth_mm"]

STRENGTH = {
    "R": 1.0, "S": 0.95, "O": 0.95, "H": 0.95, "P": 0.95, "C": 0.9, "W": 0.88, "M": 0.9, "E": 0.86, "L": 0.85,
    "T": 0.7, "D": 0.6, "K": 0.55, "A": 0.8, "B": 0.8, "V": 0.35,
}  # fmt: skip
"""Strength of the corner against that of a round insert: typical, by its angle."""

NOSE_SHARE = 0.5
"""Feed at most this share of the nose radius."""

EDGE_SHARE = 0.74
"""Depth at most this share of the edge for the strongest corner: two thirds for 80 degrees, a quarter for 35."""


def usable_depth_mm(shape: str, edge_mm: float, entering_deg: float) -> float:
    """Largest depth on radius, mm, an edge of a length stands with a corner of this shape (typical shares)."""
    lean = math.sin(math.radians(entering_deg)) if shape != "R" else 1.0
    return EDGE_SHARE * STRENGTH.get(shape, 0.7) * edge_mm * lean
