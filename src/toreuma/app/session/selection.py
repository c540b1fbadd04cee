"""What is selected, and where the cursors stand."""

from dataclasses import dataclass

__all__ = ["Cursors", "Selection"]

END_S = 1e-6


@dataclass(frozen=True, kw_only=True)
class Selection:
    """What is selected: an operation by id, an element of a profile by index, a feature, or a line of the program."""

    operation: str | None = None
    element: int | None = None
    line: int | None = None
    side: str = "outside"
    feature: int | None = None


@dataclass(frozen=True)
class Cursors:
    """Times looked at, s: in the program of the side, and in the whole run. At the end, it stays at the end."""

    at_s: float = 0.0
    run_s: float = 0.0
    at_end: bool = True

    def moved(self, seconds: float, total_s: float) -> "Cursors":
        """The cursor of the side at another time."""
        at_s = min(max(seconds, 0.0), total_s)
        return Cursors(at_s, self.run_s, at_s >= total_s - END_S)

    def fitted(self, total_s: float) -> "Cursors":
        """The cursor of the side in a program that takes another time."""
        return self.moved(total_s if self.at_end else self.at_s, total_s)

    def run_moved(self, seconds: float, total_s: float) -> "Cursors":
        """The cursor of the whole run at another time."""
        return Cursors(self.at_s, min(max(seconds, 0.0), total_s), self.at_end)
