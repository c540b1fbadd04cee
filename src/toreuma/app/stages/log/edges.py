"""Edges: what is in, what it has cut, when to change it, and what was seen on those that came out."""

import time
from collections.abc import Sequence

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import heading
from toreuma.app.stages.log.model import LogModel
from toreuma.app.stages.log.wear import wear_icon
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.spoken import spoken
from toreuma.core.units import parse, show
from toreuma.log.entries import SEEN

__all__ = ["EdgesView"]

NOW = ("Tool", "Edge", "Corner", "Parts", "Minutes", "Metres", "Of its life", "When to change")
OUT = ("Tool", "Corner", "Parts", "Minutes", "Metres", "Seen", "Wear", "Note")


class EdgesView(QWidget):
    """The chosen edge is turned or changed with what was seen on it."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model, self._theme = model, theme
        self.now, self.out = _table(NOW, tr("Edges that are in")), _table(OUT, tr("Edges that came out"))
        self.now.setSelectionMode(QTableWidget.SelectionMode.SingleSelection)
        self.seen = QButtonGroup(self)
        signs = QHBoxLayout()
        for kind in SEEN:
            button = QToolButton()
            button.setText(kind)
            button.setIconSize(QSize(46, 46))
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setCheckable(True)
            button.setAccessibleName(f"{tr('Seen on the edge')}: {kind}")
            button.setChecked(kind == "flank")
            self.seen.addButton(button)
            signs.addWidget(button)
        self.wear, self.note = QLineEdit(), QLineEdit()
        self.wear.setPlaceholderText(tr("width of the wear"))
        self.wear.setAccessibleName(tr("Width of the wear"))
        self.note.setPlaceholderText(tr("note"))
        self.note.setAccessibleName(tr("Note on the edge"))
        self.early, self.change = QPushButton(tr("Came out early")), QPushButton(tr("Turned or changed"))
        self.early.setToolTip(tr("It was not worn yet: its life is not counted"))
        self.change.clicked.connect(lambda: self.take_out(worn=True))
        self.early.clicked.connect(lambda: self.take_out(worn=False))
        signs.addSpacing(12)
        form = QVBoxLayout()
        for pair in ((self.wear, self.change), (self.note, self.early)):
            row = QHBoxLayout()
            for widget in pair:
                row.addWidget(widget)
            form.addLayout(row)
        signs.addLayout(form, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 8, 10, 8)
        column.addWidget(heading("In the machine"))
        column.addWidget(self.now, 3)
        column.addLayout(signs)
        column.addWidget(heading("Came out"))
        column.addWidget(self.out, 2)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        for button in self.seen.buttons():
            button.setIcon(wear_icon(button.text(), theme))

    def refresh(self) -> None:
        book = self._model.book
        kept = self.now.currentRow()
        edges = (self._model.asked(book.edges) or ()) if book is not None else ()
        rows = [
            (
                f"T{one.tool.station} {one.tool.name}", one.edge.code, str(one.edge.corner), str(one.parts),
                f"{one.minutes:.1f}", f"{one.metres:.0f}", f"{one.share:.0%}" if one.share is not None else "not known",
                spoken(one.says, self._model.session.system),
            )
            for one in edges
        ]  # fmt: skip
        _fill(self.now, rows, [one.tool.id for one in edges])
        self.now.setCurrentCell(max(kept, 0), 0)
        every = (self._model.asked(lambda: self._model.store.edges(book.run.id)) or []) if book is not None else []
        system = self._model.session.system
        done = [one for one in reversed(every) if one.to_part is not None]
        _fill(
            self.out,
            [
                (
                    one.tool, str(one.corner), str((one.to_part or 0) - one.from_part + 1), f"{one.minutes:.1f}",
                    f"{one.metres:.0f}", one.seen if one.worn else f"{one.seen}, early",
                    str(show(one.wear_mm, "mm", system)) if one.wear_mm is not None else "", one.note,
                )
                for one in done
            ],
            [one.tool for one in done],
        )  # fmt: skip

    def take_out(self, worn: bool) -> None:
        """The chosen edge comes out behind the last part."""
        book, row = self._model.book, self.now.currentRow()
        item = self.now.item(row, 0) if row >= 0 else None
        if book is None or item is None:
            return
        wear = None
        if self.wear.text().strip():
            try:
                wear = parse(self.wear.text(), "mm", self._model.session.system)
            except ToreumaError as error:
                self._model.session.message.emit("error", f"{error.what}; {error.cure}")
                return
        chosen = self.seen.checkedButton()
        seen = chosen.text() if chosen is not None else "none"
        tool = item.data(Qt.ItemDataRole.UserRole)

        def write() -> bool:
            book.change_edge(tool, book.made(), time.time(), seen, wear, worn, self.note.text().strip())
            return True

        if self._model.asked(write):
            self.wear.clear()
            self.note.clear()
            self._model.wrote()
            self.refresh()


def _table(columns: tuple[str, ...], name: str) -> QTableWidget:
    table = QTableWidget(0, len(columns))
    table.setHorizontalHeaderLabels([tr(one) for one in columns])
    table.setAccessibleName(name)
    table.verticalHeader().hide()
    table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
    table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
    table.horizontalHeader().setStretchLastSection(True)
    return table


def _fill(table: QTableWidget, rows: Sequence[Sequence[str]], keys: Sequence[str]) -> None:
    table.setRowCount(len(rows))
    for n, (row, key) in enumerate(zip(rows, keys, strict=True)):
        for column, words in enumerate(row):
            item = QTableWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, key)
            table.setItem(n, column, item)
    table.resizeColumnsToContents()
