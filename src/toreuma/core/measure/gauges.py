"""What a size is measured with, and how often.

The means is the first of a list, simplest first, whose uncertainty is no more than a fifth of the tolerance: the usual
rule of shops, between the tenth that is wished and the third that is borne (ISO 14253-1 puts the uncertainty inside the
limits).
"""

from collections.abc import Sequence

from toreuma.core.measure.characteristic import Quantity
from toreuma.core.standards.gauges import Gauge, GaugeTables

__all__ = ["gauge_for", "how_often"]

SHARE = 0.2
"""Uncertainty of a means, at most so much of the tolerance."""

STEPS = ((18.0, "every 5th part"), (45.0, "every 10th part"), (112.0, "every 25th part"))
"""Up to so many tolerance units a size is looked at so often: IT7, IT9 and IT11 are 16, 40 and 100 (ISO 286-1), counted
from the middle of their step of sizes."""

SELDOM = "first, last, new edge"


def gauge_for(
    quantity: Quantity, side: str, size_mm: float, tolerance_mm: float | None, tables: GaugeTables
) -> tuple[Gauge | None, bool]:
    """The simplest means for a size, and whether it is fine enough; the finest there is where none is."""
    words = (quantity, f"{quantity} {side}")
    there = [
        one
        for one in tables.gauges
        if any(word in one.for_ for word in words) and one.range_mm[0] <= size_mm <= one.range_mm[1]
    ]
    if not there:
        return None, False
    if tolerance_mm is None:
        return there[0], True
    fine = next((one for one in there if one.uncertainty_um <= 1000 * SHARE * tolerance_mm), None)
    return (fine, True) if fine is not None else (min(there, key=lambda one: one.uncertainty_um), False)


def how_often(size_mm: float, tolerance_mm: float | None, steps: Sequence[tuple[float, str]] = STEPS) -> str:
    """When a size is measured through a run: closer limits oftener. Every size is measured on the first part."""
    if tolerance_mm is None:
        return SELDOM
    size = max(size_mm, 1.0)
    unit_mm = (0.45 * size ** (1 / 3) + 0.001 * size) / 1000  # i of ISO 286-1
    return next((words for most, words in steps if tolerance_mm <= most * unit_mm), SELDOM)
