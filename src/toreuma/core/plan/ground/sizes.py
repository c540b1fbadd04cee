"""Tools that cannot be: of no width, or of sizes that contradict each other."""

from collections.abc import Iterable

from toreuma.core.findings import Finding
from toreuma.core.model import Operation, Tool
from toreuma.core.spoken import q, said

__all__ = ["no_such_tool"]

SAME_MM = 1e-6

LEAST_MM = 0.01
"""Narrower than any edge that is made."""


def no_such_tool(operation: Operation, tools: Iterable[Tool]) -> Finding | None:
    """The error of an operation with a tool of no width, or whose corner is rounder than its width has room for."""
    for tool in tools:
        blade, insert = getattr(tool, "blade", None), getattr(tool, "insert", None)
        if blade is not None:
            radius, width, words = blade.corner_radius_mm, blade.width_mm, "width"
        elif tool.kind == "end_mill":
            radius, width, words = tool.corner_radius_mm, tool.d_mm, "diameter"
        elif insert is not None and hasattr(insert, "nose_radius_mm") and hasattr(insert, "ic_mm"):
            radius, width, words = insert.nose_radius_mm, insert.ic_mm, "inscribed circle"
        else:
            continue
        if width < LEAST_MM:
            what = said("{} has a " + words + " of {}", tool.id, q(width, "mm", "g"))
            return Finding("error", "tool.sizes", what, "no such tool is made", operation=operation.id)
        if radius > width / 2 + SAME_MM:
            what = said("{}: a corner radius of {} has no room in a " + words + " of {}", tool.id, q(radius, "mm", "g"),
                        q(width, "mm", "g"))  # fmt: skip
            return Finding("error", "tool.sizes", what, "one of both is mistyped", operation=operation.id)
    return None
