"""Chip windows for inserts of which a program says nothing but their size."""

from toreuma.core.model import Insert, Tool
from toreuma.engine.foreign_tools import Filled
from toreuma.engine.library import library

__all__ = ["with_usual_chips"]


def with_usual_chips(made: Filled) -> tuple[Tool, tuple[str, ...]]:
    """The tool with the chip window of the most alike insert in store, and that as an assumption; else as it is."""
    insert = getattr(made.tool, "insert", None)
    if not isinstance(insert, Insert) or insert.chip_window:
        return made.tool, made.assumed
    store = [one for one in library().catalogue.inserts if one.chip_window]
    alike = min(store, key=lambda one: _unlike(insert, one), default=None)
    if alike is None:
        return made.tool, made.assumed
    tool = made.tool.changed(insert=insert.changed(chip_window=alike.chip_window))
    return tool, (*made.assumed, f"that its chips break as those of {alike.code}")


def _unlike(one: Insert, two: Insert) -> tuple[float, bool, float, float]:
    return (
        round(abs(one.nose_radius_mm - two.nose_radius_mm), 3),
        one.shape != two.shape,
        abs(one.clearance_deg - two.clearance_deg),
        abs(one.ic_mm - two.ic_mm),
    )
