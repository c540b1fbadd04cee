"""A place in the line that was not understood."""

from dataclasses import dataclass

__all__ = ["Fault", "Misread"]


@dataclass(frozen=True)
class Fault:
    """``start`` and ``end`` count characters of the text; ``what`` is wrong there, ``expected`` would be right."""

    start: int
    end: int
    what: str
    expected: str

    def __str__(self) -> str:
        return f"{self.what}; {self.expected}"


class Misread(Exception):
    """Raised while reading a piece; the reader turns it into the piece's fault."""

    def __init__(self, start: int, end: int, what: str, expected: str) -> None:
        super().__init__(what)
        self.fault = Fault(start, end, what, expected)
