"""Rounding to the preferred numbers of ISO 3, series R40, as the thread standards round their tolerances."""

import math

__all__ = ["to_r40"]

_R40 = (
    *(100, 106, 112, 118, 125, 132, 140, 150, 160, 170, 180, 190, 200, 212, 224, 236, 250, 265, 280, 300),
    *(315, 335, 355, 375, 400, 425, 450, 475, 500, 530, 560, 600, 630, 670, 710, 750, 800, 850, 900, 950, 1000),
)


def to_r40(value: float) -> float:
    """The preferred number nearest to ``value`` in ratio; ``value`` above 0."""
    scale = 10.0 ** (math.floor(math.log10(value)) - 2)
    return float(min(_R40, key=lambda number: abs(math.log(number * scale / value))) * scale)
