"""Layers of a milled floor or wall: even ones not above the largest depth, the last a thin one of its own."""

import math

__all__ = ["layers"]


def layers(top: float, floor: float, largest: float, leave: float) -> list[float]:
    """Levels from below ``top`` down to ``floor``: even layers down to ``leave`` above it, then the floor itself."""
    rough = floor + min(leave, top - floor)
    count = max(math.ceil((top - rough) / largest - 1e-9), 1) if top - rough > 1e-9 else 0
    found = [top - (top - rough) * (n + 1) / count for n in range(count)]
    return found if abs(rough - floor) < 1e-9 else [*found, floor]
