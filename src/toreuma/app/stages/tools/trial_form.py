"""A small form for what was seen when a tool was tried: chip, burr, noise, finish."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QComboBox, QGridLayout, QLineEdit, QPushButton, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.core.model.trial import CHIPS

__all__ = ["TrialForm"]

LINES = (
    ("burr", "none, at the back edge …"),
    ("noise", "quiet, sings, chatters …"),
    ("finish", "Ra measured, marks …"),
)


class TrialForm(QWidget):
    """Emits what was typed when it is kept."""

    kept = Signal(dict)

    def __init__(self) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        self.chip = QComboBox()
        self.chip.setAccessibleName(tr("Chip"))
        for words in CHIPS:
            self.chip.addItem(words or "not looked at", words)
        self._label(grid, 0, "Chip")
        grid.addWidget(self.chip, 0, 1)
        self.lines: dict[str, QLineEdit] = {}
        for row, (name, hint) in enumerate(LINES, 1):
            entry = QLineEdit()
            entry.setObjectName("name")
            entry.setPlaceholderText(hint)
            entry.setAccessibleName(name.capitalize())
            entry.setMaxLength(120)
            self.lines[name] = entry
            self._label(grid, row, name.capitalize())
            grid.addWidget(entry, row, 1)
        self.keep = QPushButton(tr("Keep what was seen"))
        self.keep.clicked.connect(self._keep)
        grid.addWidget(self.keep, len(LINES) + 1, 1, Qt.AlignmentFlag.AlignLeft)

    def _keep(self) -> None:
        typed = {name: entry.text().strip() for name, entry in self.lines.items()}
        self.kept.emit({"chip": self.chip.currentData(), **typed})

    @staticmethod
    def _label(grid: QGridLayout, row: int, text: str) -> None:
        label = Label(text)
        label.setObjectName("muted")
        grid.addWidget(label, row, 0)
