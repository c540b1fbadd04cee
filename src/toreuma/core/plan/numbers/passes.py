"""What the passes of an operation come to."""

from toreuma.core.cutting.evidence import Evidence, Limit
from toreuma.core.cutting.figures import Figure, Reasons

__all__ = ["passes"]


def passes(depths: list[float], largest_mm: float, measured_on: str) -> Reasons:
    """Count of passes and the deepest one really taken, none deeper than ``largest_mm``."""
    deepest = max(depths, default=0.0)
    return {
        Figure.PASSES: Evidence(
            "passes", "i", float(len(depths)), "", formula="even passes not above the largest depth"
        ),
        Figure.DEPTH: Evidence(
            "depth taken",
            "ap",
            deepest,
            "mm",
            measured_on=measured_on,
            formula="each step divided evenly, not above the largest depth",
            limits=(Limit("largest depth", largest_mm, "mm", bit=True),),
        ),
    }
