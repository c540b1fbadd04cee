"""Which column of a list of tools is which: asked where its own headings do not say so."""

from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QDialog, QDialogButtonBox, QGridLayout, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.files.rack import COLUMNS, matched

__all__ = ["WhichColumns", "is_clear"]

WORDS = {
    "code": "code of the tool",
    "edges_left": "edges left",
    "place": "place",
    "price": "price",
    "measured": "size measured",
    "note": "note",
}
SAMPLES = 3


def is_clear(headings: list[str]) -> bool:
    """Whether the headings say it all: the code is among them and nothing that could still be meant is left over."""
    found = matched(headings)
    named = {one for one in headings if one.strip()}
    return "code" in found and (len(found) == len(COLUMNS) or named <= set(found.values()))


class WhichColumns(QDialog):
    """A row for every column of the rack: which one of the list it is, and what stands in the first rows there."""

    def __init__(self, name: str, rows: list[dict[str, Any]], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._rows = rows
        self.setWindowTitle(tr("Which column is which"))
        self.says = Label(f"{name}: {tr('choose for each what it is called there; what is left over is not taken.')}")
        self.says.setWordWrap(True)
        self.boxes: dict[str, QComboBox] = {}
        self.samples: dict[str, Label] = {}
        grid = QGridLayout()
        grid.setHorizontalSpacing(12)
        grid.setColumnStretch(2, 1)
        headings, found = list(rows[0]), matched(rows[0])
        for line, column in enumerate(COLUMNS):
            label, box, sample = Label(tr(WORDS[column])), QComboBox(), Label()
            box.addItem(tr("not in the list"), "")
            for heading in headings:
                box.addItem(heading or tr("without a name"), heading)
            box.setCurrentIndex(box.findData(found.get(column, "")))
            box.setAccessibleName(tr(WORDS[column]))
            box.currentIndexChanged.connect(self._show)
            sample.setObjectName("muted")
            label.setBuddy(box)
            for place, widget in enumerate((label, box, sample)):
                grid.addWidget(widget, line, place)
            self.boxes[column], self.samples[column] = box, sample
        self.ends = QDialogButtonBox()
        self.take = self.ends.addButton(tr("Read the list"), QDialogButtonBox.ButtonRole.AcceptRole)
        self.ends.addButton(tr("Leave it"), QDialogButtonBox.ButtonRole.RejectRole)
        self.ends.accepted.connect(self.accept)
        self.ends.rejected.connect(self.reject)
        column_of = QVBoxLayout(self)
        column_of.setContentsMargins(18, 16, 18, 14)
        column_of.setSpacing(12)
        column_of.addWidget(self.says)
        column_of.addLayout(grid)
        column_of.addWidget(self.ends)
        self.setMinimumWidth(640)
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._show()

    @property
    def columns(self) -> dict[str, str]:
        """Which heading stands for which column of the rack."""
        return {column: box.currentData() for column, box in self.boxes.items() if box.currentData()}

    def _show(self) -> None:
        for column, box in self.boxes.items():
            cells = [str(row.get(box.currentData()) or "") for row in self._rows[:SAMPLES]] if box.currentData() else []
            self.samples[column].setText(",  ".join(one[:24] for one in cells if one))
        self.take.setEnabled("code" in self.columns)
        self.take.setToolTip("" if "code" in self.columns else tr("Choose the column of the code first"))
