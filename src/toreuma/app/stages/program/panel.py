"""The program as it was written, with the line of the cursor marked."""

from pathlib import Path

from PySide6.QtCore import QRect, QSize, Qt
from PySide6.QtGui import (
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QSyntaxHighlighter,
    QTextCharFormat,
    QTextCursor,
    QTextFormat,
)
from PySide6.QtWidgets import QComboBox, QFileDialog, QPlainTextEdit, QTextEdit, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.spoken import spoken
from toreuma.files.writing import write_atomically
from toreuma.shipped.library import dialect

__all__ = ["ProgramPanel"]


class Highlighter(QSyntaxHighlighter):
    """Comments quiet, rapids dotted grey: the words themselves stay plain."""

    def __init__(self, parent: QPlainTextEdit, theme: Theme) -> None:
        super().__init__(parent.document())
        self.theme = theme

    def highlightBlock(self, text: str) -> None:
        form = QTextCharFormat()
        if text.startswith("("):
            form.setForeground(self.theme.colour("accent"))
            if text.startswith("(OP "):
                form.setFontWeight(700)
            self.setFormat(0, len(text), form)
        elif text.startswith("N"):
            form.setForeground(self.theme.colour("muted"))
            self.setFormat(0, text.find(" ") if " " in text else len(text), form)


class Margin(QWidget):
    """Line numbers of the text."""

    def __init__(self, editor: "ProgramText") -> None:
        super().__init__(editor)
        self._editor = editor

    def sizeHint(self) -> QSize:
        return QSize(self._editor.margin_px(), 0)

    def paintEvent(self, event: QPaintEvent) -> None:
        self._editor.paint_margin(event)


class ProgramText(QPlainTextEdit):
    """Read-only text with line numbers; moving through it moves the cursor of time."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._moving = False
        self.follows = True
        self.setReadOnly(True)
        self.setTextInteractionFlags(
            Qt.TextInteractionFlag.TextSelectableByKeyboard | Qt.TextInteractionFlag.TextSelectableByMouse
        )
        self.setAccessibleName(tr("Program"))
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self._margin = Margin(self)
        self._colours = Highlighter(self, theme)
        self.setViewportMargins(self.margin_px(), 0, 0, 0)
        self.updateRequest.connect(self._on_update)
        self.cursorPositionChanged.connect(self._on_cursor)

    def set_theme(self, theme: Theme) -> None:
        self._theme = self._colours.theme = theme
        self._colours.rehighlight()

    def margin_px(self) -> int:
        return 38

    def show_text(self, text: str) -> None:
        if text != self.toPlainText():
            self._moving = True
            place = self.verticalScrollBar().value()
            self.setPlainText(text)
            self.verticalScrollBar().setValue(place)
            self._moving = False

    def mark_line(self, line: int) -> None:
        """Show a line of the program as the one under way."""
        block = self.document().findBlockByNumber(line - 1)
        if not block.isValid():
            return
        selection = QTextEdit.ExtraSelection()
        selection.format.setBackground(self._theme.colour("accent_soft"))
        selection.format.setProperty(QTextFormat.Property.FullWidthSelection, True)
        cursor = QTextCursor(block)
        selection.cursor = cursor
        self.setExtraSelections([selection])
        if self.textCursor().blockNumber() != line - 1:
            self._moving = True
            self.setTextCursor(cursor)
            self.centerCursor()
            self._moving = False

    def _on_cursor(self) -> None:
        if not self._moving and self.follows:
            self._session.go_to_line(self.textCursor().blockNumber() + 1)

    def _on_update(self, rect: QRect, dy: int) -> None:
        if dy:
            self._margin.scroll(0, dy)
        else:
            self._margin.update(0, rect.y(), self._margin.width(), rect.height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        area = self.contentsRect()
        self._margin.setGeometry(QRect(area.left(), area.top(), self.margin_px(), area.height()))

    def paint_margin(self, event: QPaintEvent) -> None:
        painter = QPainter(self._margin)
        painter.fillRect(event.rect(), self._theme.colour("panel"))
        painter.setPen(self._theme.colour("muted"))
        painter.setFont(self._theme.number_font(10))
        block = self.firstVisibleBlock()
        top = self.blockBoundingGeometry(block).translated(self.contentOffset()).top()
        while block.isValid() and top <= event.rect().bottom():
            height = self.blockBoundingRect(block).height()
            box = QRect(0, round(top), self.margin_px() - 8, round(height))
            painter.drawText(
                box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, str(block.blockNumber() + 1)
            )
            block, top = block.next(), top + height


class ProgramPanel(WaitsUnseen, QWidget):
    """Left panel of the program stage."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session = session
        self.text = ProgramText(session, theme)
        self._title = Label()
        self._title.setObjectName("heading")
        self._title.setContentsMargins(12, 10, 0, 4)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.which = QComboBox()
        self.which.setAccessibleName(tr("Which program is shown"))
        self.which.activated.connect(lambda _: self.refresh())
        column.addWidget(self._title)
        column.addWidget(self.which)
        column.addWidget(self.text, 1)
        session.proof_changed.connect(self.refresh)
        session.outcome_changed.connect(self.refresh)
        session.cursor_changed.connect(self._on_cursor)

    def set_theme(self, theme: Theme) -> None:
        self.text.set_theme(theme)

    def _fill(self) -> None:
        self._offer()
        self.text.follows = not self._channel
        self.text.show_text(self._shown())
        job = self._session.job
        self._title.setText(f"{self.file_name()}   {dialect(job.program.dialect).name}" if job else "")
        self._on_cursor()

    def _offer(self) -> None:
        """The programs there are: this side alone, and those of the channels of a part that is handed over."""
        pair, now = self._session.pair, self.which.currentData() or 0
        channels = list(pair.texts) if pair is not None else []
        if [self.which.itemData(n) for n in range(self.which.count())] != [0, *channels]:
            self.which.clear()
            self.which.addItem("This side alone", 0)
            for channel in channels:
                self.which.addItem(f"Channel {channel}, both sides and the hand-over", channel)
            self.which.setCurrentIndex(max(self.which.findData(now), 0))
        self.which.setVisible(bool(channels))

    @property
    def _channel(self) -> int:
        return int(self.which.currentData() or 0) if self._session.pair is not None else 0

    def _shown(self) -> str:
        pair, outcome = self._session.pair, self._session.outcome
        if pair is not None and self._channel:
            return pair.texts[self._channel]
        return outcome.program.text if outcome else ""

    def shown_text(self) -> str:
        """The text that stands here."""
        return self._shown()

    def file_name(self) -> str:
        job = self._session.job
        channel = f"-{self._channel}" if self._channel else ""
        return f"O{job.program.number:04d}{channel}{dialect(job.program.dialect).file_suffix}" if job else ""

    def _on_cursor(self) -> None:
        outcome = self._session.outcome
        if self._stale or self._channel:  # the cursor of time follows the side that is shown
            return
        if outcome is None or not outcome.timeline.spans:
            return
        moment = outcome.timeline.at(self._session.cursor_s)
        self.text.mark_line(outcome.timeline.spans[moment.index].motion.line)

    def save(self) -> None:
        """Ask where the program goes and write it there."""
        outcome = self._session.outcome
        if outcome is None:
            return
        name, _ = QFileDialog.getSaveFileName(self, "Save program", self.file_name())
        if name:
            self.save_as(Path(name))

    def save_as(self, path: Path) -> None:
        outcome = self._session.outcome
        if outcome is None:
            return
        try:
            write_atomically(path, self._shown())
        except OSError as error:
            self._session.message.emit(
                "error", f"{path.name}: it cannot be written ({error.strerror}); choose another folder"
            )
            return
        verdict = self._session.verdict
        proved = verdict is not None and verdict.finished
        word = spoken(verdict.words, self._session.system) if verdict is not None else "not proved yet"
        self._session.message.emit("ok" if proved else "warning", f"Program saved as {path.name}; {word}")
