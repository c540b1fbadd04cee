"""From program text back to moves, knowing only the dialect."""

from toreuma.core.read.reader import Program, Section, read
from toreuma.core.read.state import Mark

__all__ = ["Mark", "Program", "Section", "read"]
