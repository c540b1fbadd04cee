"""What a verdict is: one row for every thing the drawing asks for, and a state for all of them."""

from dataclasses import dataclass, replace
from typing import Literal

from toreuma.core.findings import Finding
from toreuma.core.spoken import q, said

__all__ = ["TOLD_BY_ROWS", "Made", "Row", "RowState", "State", "Verdict"]

TOLD_BY_ROWS = frozenset(("leftover", "reach.left", "reach.corner", "thread.missing", "milled.open", "knurl.missing"))
"""Findings of one side that the rows of the whole part say better."""

RowState = Literal["made", "allowed", "open", "wrong"]
"""As drawn; but for what is allowed to stay; not made; made otherwise than it is drawn."""

State = Literal["finished", "finished but for", "not finished", "unsafe"]


@dataclass(frozen=True)
class Made:
    """Who made it: the side, counted from 0, the operation's title in the program, and the line that cut it last."""

    side: int
    operation: str
    line: int


@dataclass(frozen=True, kw_only=True)
class Row:
    """One surface or feature of the drawing.

    ``what`` is what it is, ``wanted`` and ``found`` in words, ``left`` what is open or allowed about it, with its size;
    ``cure`` is what would make it. ``at`` is a place (z, r) in mm as the drawing counts them; ``nose_mm`` rounds its
    corners; ``left_mm2`` of the half section stand on it; ``in_both_holds``: it has limits, and
    what was cut of it in the second counts in them.
    """

    key: str
    what: str
    wanted: str
    found: str
    state: RowState
    left: str = ""
    cure: str = ""
    made: Made | None = None
    at: tuple[float, float] = (0.0, 0.0)
    nose_mm: float | None = None
    left_mm2: float = 0.0
    in_both_holds: bool = False

    def as_finding(self) -> Finding:
        """What is to be said of it: what is open or wrong, or that nothing is."""
        if self.state in ("made", "allowed"):
            what = said("{}: {}", self.what, self.left or self.found)
            return Finding("note", "part.made", what, said("wanted: {}", self.wanted), at=self.at, line=self._line)
        code = "part.open" if self.state == "open" else "part.wrong"
        what = said("{}: {}", self.what, self.left or "it is not made")
        why = f"what would make it: {self.cure}" if self.cure else ""
        return Finding("error", code, what, why, at=self.at, line=self._line)

    @property
    def _line(self) -> int | None:
        return self.made.line if self.made is not None and self.made.line > 0 else None

    def as_dict(self) -> dict[str, object]:
        return {
            "what": self.what,
            "wanted": self.wanted,
            "found": self.found,
            "state": self.state,
            "left": self.left,
            "cure": self.cure,
            "side": self.made.side + 1 if self.made else None,
            "operation": self.made.operation if self.made else None,
            "line": self.made.line if self.made else None,
            "at": [round(number, 4) for number in self.at],
        }


@dataclass(frozen=True, kw_only=True)
class Verdict:
    """``rows`` in the order of the drawing, whose back face is at ``back_z``; ``dangers`` are what makes the program
    unsafe, ``unplanned`` what kept operations out of it."""

    rows: tuple[Row, ...]
    back_z: float = 0.0
    dangers: tuple[Finding, ...] = ()
    unplanned: tuple[Finding, ...] = ()

    @property
    def open(self) -> tuple[Row, ...]:
        """What is not made, or made otherwise."""
        return tuple(row for row in self.rows if row.state in ("open", "wrong"))

    def finding(self, row: Row, turned: bool = False) -> Finding:
        """A row as something to be shown; ``turned``: in the places of the second side."""
        told = row.as_finding()
        return replace(told, at=(self.back_z - row.at[0], row.at[1])) if turned else told

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What keeps the part from being finished, the operations that are missing first."""
        return (*self.unplanned, *(row.as_finding() for row in self.open))

    @property
    def words(self) -> str:
        """The state in a line, with what it counts."""
        if self.dangers:
            first = self.dangers[0]
            return said("unsafe: {}{}", first.what, _more(len(self.dangers) - 1))
        if not self.finished:
            first = self.findings[0]
            return said("not finished: {}{}", first.what, _more(len(self.findings) - 1))
        if self.but_for:
            return said("finished but for {}", self.stays)
        return "finished"

    @property
    def but_for(self) -> tuple[Row, ...]:
        """What stays and may."""
        return tuple(row for row in self.rows if row.state == "allowed")

    @property
    def stays(self) -> str:
        """What stays and may, in a line; empty where nothing does."""
        noses = sorted({row.nose_mm for row in self.but_for if row.nose_mm is not None})
        count = sum(row.nose_mm is not None for row in self.but_for)
        others = [said("{}: {}", row.what, row.left) for row in self.but_for if row.nose_mm is None]
        if noses:
            size = said("{} to {}", q(noses[0], "mm", "g", bare=True), q(noses[-1], "mm", "g"))
            size = size if len(noses) > 1 else said("{}", q(noses[0], "mm", "g"))
            several = said("inner corners of {} surfaces, rounded by noses of {}", count, size)
            others.append(several if count > 1 else said("inner corners of one surface, rounded by a nose of {}", size))
        words = others[0] if others else ""
        for other in others[1:]:
            words = said("{}; {}", words, other)
        return words

    @property
    def state(self) -> State:
        if self.dangers:
            return "unsafe"
        if self.open or self.unplanned:
            return "not finished"
        return "finished but for" if self.but_for else "finished"

    @property
    def finished(self) -> bool:
        """Off the machine comes the part of the drawing, but perhaps for what is allowed to stay."""
        return self.state in ("finished", "finished but for")


def _more(count: int) -> str:
    return f", and {count} more" if count > 0 else ""
