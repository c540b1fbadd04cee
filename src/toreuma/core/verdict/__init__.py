"""Whether the part is finished: everything its drawing asks for held against what all sides together made of it."""

from toreuma.core.verdict.row import TOLD_BY_ROWS, Row, Verdict
from toreuma.core.verdict.side import SideMade
from toreuma.core.verdict.verdict import verdict_of

__all__ = ["TOLD_BY_ROWS", "Row", "SideMade", "Verdict", "verdict_of"]
