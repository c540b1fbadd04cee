"""Asked before a save would write over what somebody else saved meanwhile."""

from pathlib import Path
from typing import Literal

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QHBoxLayout, QListWidget, QPushButton, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.core.edit.difference import differences
from toreuma.core.model import Job

__all__ = ["Answer", "ConflictDialog"]

Answer = Literal["both", "mine", "theirs", "not now"]


class ConflictDialog(QDialog):
    """What was changed in the file and what was changed here, side by side, and what to keep. ``saved`` is the job as
    it was read, ``theirs`` what the file holds now, None where that cannot be read."""

    def __init__(self, parent: QWidget | None, path: Path, saved: Job | None, mine: Job, theirs: Job | None) -> None:
        super().__init__(parent)
        self.answer: Answer = "not now"
        self.setObjectName("page")
        self.setWindowTitle(path.name)
        self.resize(760, 420)
        column = QVBoxLayout(self)
        title = Label(f"{path.name} {tr('was saved by somebody else since it was opened here.')}")
        title.setObjectName("title")
        title.setWordWrap(True)
        column.addWidget(title)
        across = QHBoxLayout()
        self.there, self.here = QListWidget(), QListWidget()
        before = saved if saved is not None else mine
        for words, shown, after in (("Changed in the file", self.there, theirs), ("Changed here", self.here, mine)):
            side = QVBoxLayout()
            side.addWidget(Label(tr(words)))
            shown.setAccessibleName(tr(words))
            shown.setWordWrap(True)
            shown.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
            if after is None:
                shown.addItem(tr("It cannot be read; it is kept under its name with ~ after it."))
            else:
                shown.addItems([str(one) for one in differences(before, after)] or [tr("nothing")])
            side.addWidget(shown)
            across.addLayout(side)
        column.addLayout(across, 1)
        answers = QHBoxLayout()
        answers.addStretch(1)
        choices: tuple[tuple[str, Answer], ...] = (
            ("Not now", "not now"),
            ("Take theirs", "theirs"),
            ("Save mine over it", "mine"),
            ("Keep both", "both"),
        )
        self.buttons: dict[Answer, QPushButton] = {}
        for label, answer in choices:
            button = QPushButton(tr(label))
            button.clicked.connect(lambda _=False, answer=answer: self._answered(answer))
            button.setEnabled(answer != "theirs" or theirs is not None)
            answers.addWidget(button)
            self.buttons[answer] = button
        self.buttons["both"].setDefault(True)
        self.buttons["both"].setToolTip(tr("What is here is saved under a dated name beside it"))
        self.buttons["mine"].setToolTip(tr("What stands in the file is kept under its name with ~ after it"))
        column.addLayout(answers)

    def _answered(self, answer: Answer) -> None:
        self.answer = answer
        self.accept()
