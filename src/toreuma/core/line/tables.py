"""The standards' tables the line is read with."""

from dataclasses import dataclass

from toreuma.core.standards.fits import FitTables
from toreuma.core.standards.reliefs import ReliefTables
from toreuma.core.standards.threads import ThreadTables

__all__ = ["LineTables"]


@dataclass(frozen=True)
class LineTables:
    """Fits, threads, and the rows of reliefs and thread run-outs."""

    fits: FitTables
    threads: ThreadTables
    reliefs: ReliefTables
