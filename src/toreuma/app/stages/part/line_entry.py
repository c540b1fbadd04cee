"""The line above the table: the part typed in a turner's words, live in the picture."""

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QResizeEvent, QTextCharFormat, QTextCursor
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPlainTextEdit, QTextEdit, QToolButton, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.line import Fault, Line
from toreuma.engine.fresh import starter_line
from toreuma.engine.line import line_of, said, with_part
from toreuma.shipped.library import starters

__all__ = ["LineEntry", "LineText"]

TOGETHER = "line"
LEAST_ROWS, MOST_ROWS = 2, 9
HINT = {
    "mm": "30 x 18 c1 / 44 x 27 r2 / 62 h7 x 15; bore 16 through",
    "inch": "1-1/4 x 3/4 c.03 / 1-3/4 x 1 r1/16; bore 5/8 through",
}


class LineText(QPlainTextEdit):
    """As tall as its text, up to a few rows; Tab leaves it."""

    left = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("line")
        self.setTabChangesFocus(True)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setAccessibleName(tr("The part in words"))
        self.textChanged.connect(self._fit)

    def _fit(self) -> None:
        rows = min(max(round(self.document().size().height()), LEAST_ROWS), MOST_ROWS)
        self.setFixedHeight(rows * self.fontMetrics().lineSpacing() + 14)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self.left.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.clearFocus()
            return
        super().keyPressEvent(event)


class LineEntry(QWidget):
    """Typing changes the part as far as it can be made; what was not understood is underlined where it stands."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self.setProperty("topic", "line")
        self.text = LineText()
        self.says = Label()
        self.says.setWordWrap(True)
        self.says.setContentsMargins(0, 0, 0, 0)
        self.begin_with = QToolButton()
        self.begin_with.setText(tr("Begin with"))
        self.begin_with.setAccessibleName(tr("Begin with a usual part"))
        self.begin_with.setToolTip(tr("A usual part, with its few dimensions to type over"))
        self.begin_with.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.begin_with)
        for name in starters():
            menu.addAction(tr(name.capitalize()), partial(self.start_with, name))
        self.begin_with.setMenu(menu)
        title = Label(tr("The part in words"))
        title.setObjectName("heading")
        top = QHBoxLayout()
        top.addWidget(title, 1)
        top.addWidget(self.begin_with)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 4, 10, 4)
        column.setSpacing(3)
        column.addLayout(top)
        column.addWidget(self.text)
        column.addWidget(self.says)
        self.faults: tuple[Fault, ...] = ()
        self._own = ""
        self._filling = self._applying = False
        self._shown: tuple[object, ...] = ()
        self.text.textChanged.connect(self._typed)
        self.text.left.connect(self._on_left)
        session.job_changed.connect(self._on_job)
        self._on_job()

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self._mark()

    def select_all(self) -> None:
        """Ready to be typed over."""
        self.text.setFocus()
        self.text.selectAll()

    def start_with(self, name: str) -> None:
        """Put a starter in place of the part."""
        self.text.setPlainText(starter_line(name, self._session.system))
        self.text.setFocus()

    # The part as it stands, in words

    def _on_job(self) -> None:
        job = self._session.job
        self.setEnabled(job is not None and self._session.side == 0)
        key = (job.part, job.units) if job is not None else ()
        if key == self._shown:
            return
        was, self._shown = self._shown, key
        if job is None or self._applying:
            return
        if self.text.hasFocus() and self.faults and was and was[-1] == job.units:
            return  # what is being typed is not lost
        self._fill(line_of(job.part, job.units))

    def _fill(self, text: str) -> None:
        self._filling = True
        self.text.setPlainText(text)
        self.text.setPlaceholderText(HINT[self._session.system])
        self._filling = False
        self.faults = ()
        self._own = text
        self._mark()

    def _on_left(self) -> None:
        self._session.history.part()

    # Typing

    def _typed(self) -> None:
        job = self._session.job
        if self._filling or job is None:
            return
        text = self.text.toPlainText()
        if text == self._own:
            return
        self._own = text
        line = said(text, job.units, job.part.name)
        self.faults = line.faults
        if line.part is not None:
            self._apply(line)
        elif not text.strip():
            self.faults = (Fault(0, 0, "nothing is said of the part", "begin with a diameter and a length: 30 x 18"),)
        self._mark(line)

    def _apply(self, line: Line) -> None:
        part = line.part
        assert part is not None
        self._applying = True
        error = self._session.attempt(lambda job: with_part(job, part), TOGETHER)
        self._applying = False
        if error is not None:
            self.faults = (Fault(0, len(self.text.toPlainText()), error.what, error.cure), *self.faults)

    def _mark(self, line: Line | None = None) -> None:
        """Underline what was not understood, and say the first of it."""
        shown = []
        for fault in self.faults:
            mark = QTextEdit.ExtraSelection()
            cursor = self.text.textCursor()
            end = self.text.document().characterCount() - 1
            start, stop = min(fault.start, end), min(max(fault.end, fault.start + 1), end)
            cursor.setPosition(max(start if start < stop else stop - 1, 0))
            cursor.setPosition(stop, QTextCursor.MoveMode.KeepAnchor)
            look = QTextCharFormat()
            look.setUnderlineStyle(QTextCharFormat.UnderlineStyle.WaveUnderline)
            look.setUnderlineColor(self._theme.colour("error"))
            look.setForeground(self._theme.colour("error"))
            mark.cursor, mark.format = cursor, look
            shown.append(mark)
        self.text.setExtraSelections(shown)
        notes = "; ".join(note.what for note in line.notes) if line is not None else ""
        self._say("error" if self.faults else "muted", str(self.faults[0]) if self.faults else notes)

    def _say(self, name: str, text: str) -> None:
        self.says.setObjectName(name)
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        self.says.setText(text[:1].upper() + text[1:])
        self.says.setVisible(bool(text))
