"""A designation with a symbol that cannot stand where it stands."""

from collections.abc import Iterable

from toreuma.core.errors import StandardError

__all__ = ["CodeError"]


class CodeError(StandardError):
    """Which position, what was found, what is allowed there, and codes near it that can be.

    ``nearest`` holds whole codes; it is filled in by whoever knows the whole text.
    """

    def __init__(
        self, text: str, position: int, name: str, found: str, allowed: Iterable[str], nearest: Iterable[str] = ()
    ) -> None:
        self.text, self.position, self.name, self.found = text, position, name, found
        self.allowed, self.nearest = tuple(allowed), tuple(nearest)
        seen = f"'{found}'" if found else "nothing"
        cure = f"allowed there: {' '.join(self.allowed)}" if self.allowed else "look at the code again"
        if self.nearest:
            cure += f"; nearest: {', '.join(self.nearest)}"
        super().__init__(f"code '{text}'", f"position {position}, {name}: found {seen}", cure)

    def near(self, nearest: Iterable[str]) -> "CodeError":
        """The same fault with codes that can be."""
        return CodeError(self.text, self.position, self.name, self.found, self.allowed, nearest)
