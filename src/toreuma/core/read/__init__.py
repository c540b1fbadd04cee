"""From program text back to moves, knowing only the dialect."""

from toreuma.core.read.kinds import Kind, kind_of
from toreuma.core.read.reader import Program, Section, read
from toreuma.core.read.state import Given, InForce, Mark, Nose

__all__ = ["Given", "InForce", "Kind", "Mark", "Nose", "Program", "Section", "kind_of", "read"]
