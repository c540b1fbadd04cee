"""Means of measuring, as a data file lists them."""

from pydantic import Field

from toreuma.core.value import Name, Positive, Value

__all__ = ["Gauge", "GaugeTables"]


class Gauge(Value):
    """A means of measuring."""

    name: Name
    for_: tuple[str, ...] = Field(alias="for", description="Kinds of sizes, with the side where that counts")
    range_mm: tuple[float, float] = (0.0, 1e5)
    uncertainty_um: Positive = Field(description="Expanded, k = 2, as a shop has it: typical")


class GaugeTables(Value):
    """Means of measuring, the simplest first."""

    source: str
    gauges: tuple[Gauge, ...]
