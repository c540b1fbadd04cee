"""What the passes of an operation come to."""

from toreuma.core.cutting.evidence import Evidence, Limit

__all__ = ["passes"]


def passes(depths: list[float], largest: Evidence) -> dict[str, Evidence]:
    """Count of passes and the deepest one really taken."""
    deepest = max(depths, default=0.0)
    return {
        "passes": Evidence("passes", "i", float(len(depths)), "", formula="even passes not above the largest depth"),
        "ap": Evidence(
            "depth taken",
            "ap",
            deepest,
            "mm",
            measured_on=largest.measured_on,
            formula="each step divided evenly, not above the largest depth",
            limits=(Limit("largest depth", largest.number, "mm", True),),
        ),
    }
