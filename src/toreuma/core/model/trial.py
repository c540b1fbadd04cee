"""What was seen when a tool was tried on a cut."""

from typing import Literal

from pydantic import Field

from toreuma.core.value import Name, Value

__all__ = ["CHIPS", "Trial"]

Chip = Literal["", "short and broken", "curls that break late", "long strings", "crushed"]
CHIPS: tuple[Chip, ...] = ("", "short and broken", "curls that break late", "long strings", "crushed")


class Trial(Value):
    """``tool`` is the tool's name by its codes, ``cut`` what was cut with it, at a feed and a depth on radius."""

    tool: Name
    cut: Name
    feed_mm_rev: float = Field(default=0.0, ge=0, le=50)
    ap_mm: float = Field(default=0.0, ge=0, le=1000)
    chip: Chip = ""
    burr: Name = ""
    noise: Name = ""
    finish: Name = ""
