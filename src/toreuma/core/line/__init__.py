"""The line: a part in a turner's words, read into dimensions and written from them."""

from toreuma.core.line.fault import Fault
from toreuma.core.line.read import Line, read_line
from toreuma.core.line.tables import LineTables
from toreuma.core.line.write import written_line

__all__ = ["Fault", "Line", "LineTables", "read_line", "written_line"]
