"""From program text back to moves, knowing only the dialect."""

from toreuma.core.read.reader import Program, Section, read

__all__ = ["Program", "Section", "read"]
