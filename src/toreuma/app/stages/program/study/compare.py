"""Two programs side by side by their moves: what differs, and only that."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QColor
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.read import Program
from toreuma.core.read.compare import Difference, Way, differences

__all__ = ["ComparePage"]

MOST_ROWS = 2000
COLOURS = {"only here": "accent", "only there": "insert", "places": "error", "feeds": "warning", "speeds": "warning"}


class ComparePage(QWidget):
    """A row a move; the left half is the text that is worked on."""

    closed = Signal()
    line_chosen = Signal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.says = Label()
        self.says.setWordWrap(True)
        self.table = QTableWidget()
        self.table.setAccessibleName(tr("Differences by move"))
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        self.table.cellClicked.connect(self._on_cell)
        back = QPushButton(tr("Back to the picture"))
        back.clicked.connect(self.closed.emit)
        head = QHBoxLayout()
        head.addWidget(self.says, 1)
        head.addWidget(back)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 8, 10, 8)
        column.addLayout(head)
        column.addWidget(self.table, 1)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme

    def show_both(self, here: str, one: Program, there: str, other: Program, text: str) -> None:
        """Fill in what differs."""
        found = differences(one, other)
        what = tr("Both do the same, move by move.")
        if found:
            what = f"{len(found)} {tr('places differ; all other moves are the same, however they are written.')}"
        self.says.setText(f"{here}  |  {there}\n{what}")
        rows = [(each, pair) for each in found for pair in _pairs(each)][:MOST_ROWS]
        self.table.setColumnCount(5)
        self.table.setHorizontalHeaderLabels([tr("line"), here, tr("what differs"), tr("line"), there])
        self.table.setRowCount(len(rows))
        for n, (each, (left, right)) in enumerate(rows):
            colour = self._theme.colour(COLOURS[each.what])
            cells = (
                (str(left.line) if left else "", None), (_words(left), None), (tr(each.what), colour),
                (str(right.line) if right else "", None), (_words(right), None),
            )  # fmt: skip
            for column, (words, ink) in enumerate(cells):
                self._put(n, column, words, ink)
        header = self.table.horizontalHeader()
        for column in range(5):
            stretch = column in (1, 4)
            mode = QHeaderView.ResizeMode.Stretch if stretch else QHeaderView.ResizeMode.ResizeToContents
            header.setSectionResizeMode(column, mode)

    def _put(self, row: int, column: int, words: str, ink: QColor | None) -> None:
        item = QTableWidgetItem(words)
        if ink is not None:
            item.setForeground(ink)
        else:
            item.setFont(self._theme.number_font(11))
        if column in (0, 3):
            item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.table.setItem(row, column, item)

    def _on_cell(self, row: int, column: int) -> None:
        item = self.table.item(row, 0)
        if item is not None and item.text():
            self.line_chosen.emit(int(item.text()))


def _pairs(each: Difference) -> list[tuple[Way | None, Way | None]]:
    size = max(len(each.here), len(each.there))
    return [(each.here[n] if n < len(each.here) else None, each.there[n] if n < len(each.there) else None)
            for n in range(size)]  # fmt: skip


def _words(way: Way | None) -> str:
    if way is None:
        return ""
    mode, value, _ = way.speed
    feed = f" F{way.feed:g}" if way.feed is not None else ""
    speed = f" S{value:g}{' m/min' if mode == 'surface' else ''}" if value else ""
    how = {"rapid": "rapid", "thread": "thread", "Line": "line", "Arc": "arc"}[way.how]
    return f"T{way.station} {how} Z{way.z:g} Ø{way.d:g}{feed}{speed}"
