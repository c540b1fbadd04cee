"""Something touches what it must not."""

from dataclasses import dataclass

__all__ = ["HOLE_SHARE", "Contact"]

HOLE_SHARE = 0.7
"""A hole for a tap or a reamer is at least this share of it wide."""


@dataclass(frozen=True)
class Contact:
    """What touches, where (z, r) in mm, how deep in mm, on which line of the program."""

    what: str
    line: int
    at: tuple[float, float]
    depth_mm: float
