"""Everything the drawing asks for, one row each: what was found, whether that is it, and the line that cut it."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QColor
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableWidget, QTableWidgetItem

from toreuma.app.forms.label import plain_tip
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.spoken import spoken
from toreuma.core.units import System
from toreuma.core.verdict import Row, Verdict

__all__ = ["RowTable"]

HEADS = ("asked for", "found", "state", "line")
ROW_PX = 22
WORDS = {"made": "made", "allowed": "but for", "open": "not made", "wrong": "out"}
COLOURS = {"made": "ok", "allowed": "muted", "open": "error", "wrong": "error"}
ORDER = ("open", "wrong", "allowed", "made")


class RowTable(QTableWidget):
    """What is not made comes first. A row that is chosen is shown on the part and in the program."""

    picked = Signal(object)

    def __init__(self, verdict: Verdict, system: System, theme: Theme) -> None:
        self.rows_shown = sorted(verdict.rows, key=lambda row: ORDER.index(row.state))
        super().__init__(len(self.rows_shown), len(HEADS))
        self.setAccessibleName(tr("Everything the drawing asks for"))
        self.setHorizontalHeaderLabels([tr(head) for head in HEADS])
        self.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QTableWidget.SelectionMode.SingleSelection)
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        sides = 1 + max((row.made.side for row in verdict.rows if row.made is not None), default=0)
        for place, row in enumerate(self.rows_shown):
            line = str(row.made.line) if row.made is not None and row.made.line else "–"
            if row.made is not None and row.made.line and sides > 1:
                line = f"{row.made.side + 1}: {line}"
            texts = (spoken(row.what, system), spoken(row.found, system) or "–", tr(WORDS[row.state]), line)
            tip = plain_tip(_tip(row, system))
            for column, text in enumerate(texts):
                item = QTableWidgetItem(text[:1].upper() + text[1:] if column == 0 else text)
                toward = Qt.AlignmentFlag.AlignRight if column == 3 else Qt.AlignmentFlag.AlignLeft
                item.setTextAlignment(toward | Qt.AlignmentFlag.AlignVCenter)
                item.setToolTip(tip)
                if column == 2:
                    item.setForeground(QColor(theme.colour(COLOURS[row.state])))
                self.setItem(place, column, item)
        header = self.horizontalHeader()
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for column in range(1, len(HEADS)):
            header.setSectionResizeMode(column, QHeaderView.ResizeMode.ResizeToContents)
        self.setFixedHeight(header.sizeHint().height() + ROW_PX * len(self.rows_shown) + 14)
        self.currentCellChanged.connect(self._on_row)

    def _on_row(self, row: int, *_: int) -> None:
        if 0 <= row < len(self.rows_shown):
            self.picked.emit(self.rows_shown[row])


def _tip(row: Row, system: System) -> str:
    """All that a row says."""
    lines = [f"{tr('wanted')}: {spoken(row.wanted, system)}"]
    if row.found:
        lines.append(f"{tr('found')}: {spoken(row.found, system)}")
    if row.left:
        lines.append(spoken(row.left, system))
    if row.cure:
        lines.append(f"{tr('what would make it')}: {spoken(row.cure, system)}")
    if row.made is not None:
        lines.append(f"{row.made.operation}, {tr('side')} {row.made.side + 1}")
    return "\n".join(lines)
