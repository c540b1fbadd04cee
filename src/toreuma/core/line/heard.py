"""What the pieces of a line have said so far."""

from typing import Any

from toreuma.core.line.fault import Fault
from toreuma.core.line.feature_words import Waiting
from toreuma.core.line.step import CornerWord, Step

__all__ = ["Said"]


class Said:
    """What the pieces have said so far."""

    def __init__(self) -> None:
        self.outside: list[Step] = []
        self.inside: list[Step] = []
        self.features: list[Waiting] = []
        self.loose: list[tuple[str, int, CornerWord]] = []
        """Corners said between two steps: the side, how many steps stood before, and the corner."""
        self.notes: list[Fault] = []
        """What was understood otherwise than written, or may be meant otherwise."""
        self.length_mm: float | None = None
        self.general: dict[str, Any] = {}
