"""General tolerances for linear dimensions without a mark of their own (ISO 2768-1)."""

from bisect import bisect_left

from toreuma.core.value import Value

__all__ = ["GeneralTables", "general_tolerance_mm"]

LEAST_MM = 0.5


class GeneralTables(Value):
    """``plus_minus_mm`` by class; each step is the largest size of its column."""

    source: str
    steps_mm: tuple[float, ...]
    plus_minus_mm: dict[str, tuple[float | None, ...]]


def general_tolerance_mm(size_mm: float, letter: str, tables: GeneralTables) -> float | None:
    """Plus and minus for a size in class f, m, c or v; None where the standard gives none."""
    row = tables.plus_minus_mm.get(letter)
    if row is None or not LEAST_MM <= size_mm <= tables.steps_mm[-1]:
        return None
    return row[bisect_left(tables.steps_mm, size_mm)]
