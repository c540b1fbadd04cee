"""Search, replace, and go to a line, below the text."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QTextCursor, QTextDocument
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.stages.program.study.editor import ProgramEditor
from toreuma.app.words import tr

__all__ = ["FindBar"]


class FindBar(QWidget):
    """Enter finds the next; Escape closes. A number alone in the first field with Ctrl+G goes to that line."""

    closed = Signal()

    def __init__(self, editor: ProgramEditor) -> None:
        super().__init__()
        self._editor = editor
        self.wanted, self.instead = QLineEdit(), QLineEdit()
        self.wanted.setPlaceholderText(tr("Search, or a line number"))
        self.instead.setPlaceholderText(tr("Replace with"))
        self.wanted.setAccessibleName(tr("Search in the program"))
        self.instead.setAccessibleName(tr("Replace with"))
        self.says = Label()
        self.says.setObjectName("muted")
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 4, 8, 4)
        row.setSpacing(6)
        row.addWidget(self.wanted, 2)
        row.addWidget(self.instead, 2)
        for words, run in (("Next", self.find_next), ("Replace", self.replace), ("All", self.replace_all)):
            button = QPushButton(tr(words))
            button.clicked.connect(run)
            row.addWidget(button)
        row.addWidget(self.says)
        self.wanted.returnPressed.connect(self.find_next)
        self.instead.returnPressed.connect(self.replace)
        self.hide()

    def open(self) -> None:
        chosen = self._editor.textCursor().selectedText()
        if chosen and "\u2029" not in chosen:
            self.wanted.setText(chosen)
        self.show()
        self.wanted.setFocus()
        self.wanted.selectAll()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.hide()
            self._editor.setFocus()
            self.closed.emit()
            return
        super().keyPressEvent(event)

    def find_next(self) -> bool:
        """To the next place, from the top again where none comes any more."""
        text = self.wanted.text()
        if not text:
            return False
        if text.isdigit() and text not in self._editor.toPlainText().split():
            self._editor.go_to(int(text))
            return True
        if self._editor.find(text):
            self.says.setText("")
            return True
        self._editor.moveCursor(QTextCursor.MoveOperation.Start)
        found = self._editor.find(text)
        self.says.setText("" if found else tr("not there"))
        return found

    def replace(self) -> None:
        cursor = self._editor.textCursor()
        if cursor.selectedText().lower() == self.wanted.text().lower() and self.wanted.text():
            cursor.insertText(self.instead.text())
        self.find_next()

    def replace_all(self) -> None:
        wanted = self.wanted.text()
        if not wanted:
            return
        document: QTextDocument = self._editor.document()
        count, cursor = 0, QTextCursor(document)
        cursor.beginEditBlock()
        at = document.find(wanted, 0)
        while not at.isNull():
            at.insertText(self.instead.text())
            count += 1
            at = document.find(wanted, at)
        cursor.endEditBlock()
        self.says.setText(f"{count}")
