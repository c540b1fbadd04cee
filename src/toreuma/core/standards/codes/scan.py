"""Walking through a designation symbol by symbol."""

import re
from collections.abc import Iterable, Mapping
from difflib import SequenceMatcher

from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.positions import Position

__all__ = ["Scanner", "closest"]

BETWEEN = " -_/\t"


class Scanner:
    """Takes symbols off the front of a text; blanks and dashes between symbols are passed over."""

    def __init__(self, text: str) -> None:
        self.text = text.strip()
        upper = self.text.upper().replace(",", ".").replace("(1.25)", "1.2").replace("(1.75)", "1.8")
        upper = upper.replace("(", "").replace(")", "")
        self._rest = upper.removeprefix("ISO ")
        self.positions: list[Position] = []

    @property
    def rest(self) -> str:
        """What is not read yet, as it stands."""
        return self._rest

    def peek(self) -> str:
        """What is not read yet, without the blanks and dashes in front."""
        return self._rest.lstrip(BETWEEN)

    def table(self, number: int, name: str, table: Mapping[str, object] | Iterable[str]) -> str:
        """The longest symbol of a table that stands here. Raises `CodeError`."""
        symbols = list(table)
        here = self.peek()
        found = max((s for s in symbols if here.startswith(s)), key=len, default="")
        if not found:
            width = max((len(s) for s in symbols), default=1)
            raise CodeError(self.text, number, name, here[:width], symbols)
        self._rest = here[len(found) :]
        return found

    def pattern(self, number: int, name: str, pattern: str, allowed: Iterable[str]) -> str:
        """What matches a pattern here. Raises `CodeError`."""
        here = self.peek()
        match = re.match(pattern, here)
        if match is None:
            raise CodeError(self.text, number, name, here[:2], allowed)
        self._rest = here[match.end() :]
        return match.group(0)

    def note(self, number: int, name: str, symbol: str, meaning: str, mm: float | None = None) -> None:
        """Keep what a position means."""
        self.positions.append(Position(number=number, name=name, symbol=symbol, meaning=meaning, mm=mm))

    def tail(self, number: int) -> str:
        """All that is left, as the maker's free text."""
        left = self._rest.strip(BETWEEN)
        if not left:
            return ""
        written = self.text[self.text.upper().rfind(left) :] if left in self.text.upper() else left
        self.note(number, "maker's free text", written, "not part of the standard: kept as it stands")
        return written


def closest(text: str, candidates: Iterable[str], count: int = 3) -> list[str]:
    """The candidates most like a text, best first; those equally like it stay in order."""
    clean = "".join(c for c in text.upper() if c not in BETWEEN)
    scored = {c: SequenceMatcher(None, clean, c.replace(" ", "").replace("-", "")).ratio() for c in candidates}
    return sorted(scored, key=lambda c: -round(scored[c], 2))[:count]
