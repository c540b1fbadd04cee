"""The steps in which a control is told speeds and feeds: planning chooses them, the writer writes them."""

import math
from typing import Literal

from toreuma.core.value import Positive, Value

__all__ = ["FT_MM", "USUAL", "Steps"]

FT_MM = 304.8
"""A foot, mm (exact)."""

NEAR = 1e-9


class Steps(Value):
    """``surface_m_min``, ``rpm``, ``feed_mm_rev`` and ``feed_mm_min``: the smallest differences that can be written."""

    surface_m_min: Positive = 1.0
    rpm: Positive = 1.0
    feed_mm_rev: Positive = 1e-4
    feed_mm_min: Positive = 0.1

    @classmethod
    def usual(cls, units: Literal["mm", "inch"]) -> "Steps":
        """Whole S, feeds to 0.1 um or 0.00001 in: what nearly every control takes."""
        if units == "mm":
            return cls()
        return cls(surface_m_min=FT_MM / 1000, feed_mm_rev=25.4e-5, feed_mm_min=25.4e-3)

    def surface(self, m_min: float, typed: bool = False) -> float:
        """A surface speed, m/min, down to a step; the nearest where a person typed it; at least one."""
        return _stepped(m_min, self.surface_m_min, typed)

    def turns(self, rpm: float, typed: bool = False) -> float:
        """A spindle speed down to a step; the nearest where a person typed it; at least one."""
        return _stepped(rpm, self.rpm, typed)

    def feed(self, mm: float, per_minute: bool = False) -> float:
        """The nearest feed, mm per turn or per minute; at least one step."""
        return _stepped(mm, self.feed_mm_min if per_minute else self.feed_mm_rev, nearest=True)


def _stepped(number: float, step: float, nearest: bool) -> float:
    count = round(number / step) if nearest else math.floor(number / step * (1 + NEAR))
    return max(count, 1) * step


USUAL = Steps()
"""Those of a program in millimetres."""
