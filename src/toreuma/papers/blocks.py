"""What a sheet is made of: headings, facts, tables, pictures, notes. Templates lay them out and know nothing else."""

from dataclasses import dataclass, field
from typing import ClassVar

__all__ = ["Block", "Cell", "Facts", "Notes", "Picture", "Sheet", "Table"]


class Block:
    """One piece of a sheet; ``form`` names its template."""

    form: ClassVar[str]


@dataclass(frozen=True)
class Facts(Block):
    """Pairs of a name and what it is, in columns; ``strong`` names stand out."""

    form = "facts"
    title: str
    rows: tuple[tuple[str, str], ...]
    strong: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Cell:
    """A cell of a table: words, a picture, or a box to be filled in by hand."""

    words: str = ""
    svg: str = ""
    box: bool = False
    small: str = ""


@dataclass(frozen=True)
class Table(Block):
    """``columns`` are headings with how a column stands (left, right, centre) and its share of the width, %."""

    form = "table"
    title: str
    columns: tuple[tuple[str, str, float], ...]
    rows: tuple[tuple[Cell, ...], ...]
    note: str = ""


@dataclass(frozen=True)
class Picture(Block):
    """A drawing with what stands below it."""

    form = "picture"
    svg: str
    words: str = ""


@dataclass(frozen=True)
class Notes(Block):
    """Sentences, one below the other."""

    form = "notes"
    title: str
    lines: tuple[str, ...]
    boxed: bool = False


@dataclass(frozen=True)
class Sheet:
    """One sheet: ``title`` and ``of`` stand in its head; several blocks in one place stand beside each other."""

    key: str
    title: str
    of: str
    blocks: tuple[Block | tuple[Block, ...], ...] = field(default_factory=tuple)
