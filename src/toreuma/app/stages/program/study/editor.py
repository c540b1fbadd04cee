"""Text of a program to be worked on: numbered, coloured by meaning, folded by tool, what was found in the margin."""

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QPoint, QRect, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QHelpEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPolygon,
    QResizeEvent,
    QTextBlock,
    QTextCursor,
    QTextFormat,
)
from PySide6.QtWidgets import QCompleter, QPlainTextEdit, QTextEdit, QToolTip, QWidget

from toreuma.app.forms.label import plain_tip
from toreuma.app.stages.program.study.colours import Colours
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.dialect import Dialect
from toreuma.core.read.following import following
from toreuma.core.read.sentence import words_of
from toreuma.core.read.spans import spans_of

__all__ = ["Mark", "ProgramEditor", "alike"]

Mark = tuple[str, str]
"""Kind of a finding, and its words."""

EDITED_MS = 160
TAKES = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Tab, Qt.Key.Key_Escape)
"""Keys that belong to the list of offers while it is open."""
NUMBER_PX, MARK_PX = 34, 16
WORST = ("contact", "not understood", "question", "suspicious")


class _Margin(QWidget):
    """Line numbers, folds, and marks."""

    def __init__(self, editor: "ProgramEditor") -> None:
        super().__init__(editor)
        self._editor = editor
        self.setMouseTracking(True)

    def sizeHint(self) -> QSize:
        return QSize(self._editor.margin_px, 0)

    def paintEvent(self, event: QPaintEvent) -> None:
        self._editor.paint_margin(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._editor.margin_pressed(event.position().toPoint())

    def event(self, event: object) -> bool:
        if isinstance(event, QHelpEvent):
            self._editor.tell_marks(event.pos(), event.globalPos())
            return True
        return super().event(event)  # type: ignore[arg-type]


class ProgramEditor(QPlainTextEdit):
    """``edited`` comes a moment after the last key; ``line_chosen`` when the cursor comes to another line."""

    edited = Signal(str)
    line_chosen = Signal(int)

    def __init__(self, theme: Theme, dialect: Dialect) -> None:
        super().__init__()
        self._theme = theme
        self._marks: dict[int, list[Mark]] = {}
        self._heads: set[int] = set()
        self._folded: set[int] = set()
        self._quiet = False
        self._line = 0
        self.setObjectName("program")
        self.setFont(theme.number_font(13))
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self.setAccessibleName(tr("Program text"))
        self.setTabChangesFocus(False)
        self.margin = _Margin(self)
        self.colours = Colours(self.document(), theme, dialect)
        self._timer = QTimer(self, singleShot=True, interval=EDITED_MS)
        self._timer.timeout.connect(self._tell)
        self._told = ""
        self.textChanged.connect(self._on_text)
        self.cursorPositionChanged.connect(self._on_cursor)
        self.updateRequest.connect(self._on_update)
        self.setViewportMargins(self.margin_px, 0, 0, 0)
        self._completer: QCompleter | None = None

    @property
    def margin_px(self) -> int:
        return NUMBER_PX + MARK_PX + 12

    @property
    def line(self) -> int:
        """The line the cursor stands in, from 1."""
        return self.textCursor().blockNumber() + 1

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.setFont(theme.number_font(13))
        self.colours.set_theme(theme)
        self._mark_line()
        self.margin.update()

    def put(self, text: str) -> None:
        """Another text stands here; it begins without a past."""
        self._quiet = True
        self._folded.clear()
        self.setPlainText(text)
        self._timer.stop()
        self._told = self.toPlainText()
        self._quiet = False
        self._line = 0
        self._on_cursor()

    def replace_all(self, text: str) -> None:
        """The text is changed as one step that undo takes back; lines that stay are not touched."""
        now = self.toPlainText()
        if now == text:
            return
        head, tail = _same_ends(now, text)
        cursor = QTextCursor(self.document())
        cursor.beginEditBlock()
        cursor.setPosition(head)
        cursor.setPosition(len(now) - tail, QTextCursor.MoveMode.KeepAnchor)
        cursor.insertText(text[head : len(text) - tail])
        cursor.endEditBlock()

    def go_to(self, line: int) -> None:
        """Put the cursor to a line, unfolded."""
        block = self.document().findBlockByNumber(line - 1)
        if not block.isValid():
            return
        self._unfold_around(block)
        self.setTextCursor(QTextCursor(block))
        self.centerCursor()

    def show_language(self, dialect: Dialect, machine: Mapping[str, str] | None) -> None:
        self.colours.show(dialect, machine)

    def show_marks(self, marks: Mapping[int, Sequence[Mark]], heads: Sequence[int]) -> None:
        """What was found, by line, and the lines where a tool's stretch begins."""
        self._marks = {line: list(each) for line, each in marks.items()}
        self._heads = set(heads)
        self.margin.update()

    # margin ------------------------------------------------------------------------------------------------------

    def _on_update(self, rect: QRect, dy: int) -> None:
        if dy:
            self.margin.scroll(0, dy)
        else:
            self.margin.update(0, rect.y(), self.margin.width(), rect.height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        area = self.contentsRect()
        self.margin.setGeometry(QRect(area.left(), area.top(), self.margin_px, area.height()))

    def _rows(self) -> list[tuple[QTextBlock, QRect]]:
        """Blocks that are seen, and their rows in the margin."""
        found = []
        block = self.firstVisibleBlock()
        top = self.blockBoundingGeometry(block).translated(self.contentOffset()).top()
        while block.isValid() and top <= self.viewport().height():
            height = self.blockBoundingRect(block).height()
            if block.isVisible():
                found.append((block, QRect(0, round(top), self.margin_px, round(height))))
            block, top = block.next(), top + height
        return found

    def paint_margin(self, event: QPaintEvent) -> None:
        painter = QPainter(self.margin)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(event.rect(), self._theme.colour("panel"))
        painter.setFont(self._theme.number_font(10))
        for block, row in self._rows():
            line = block.blockNumber() + 1
            painter.setPen(self._theme.colour("ink" if line == self.line else "muted"))
            box = row.adjusted(0, 0, -(MARK_PX + 14), 0)
            painter.drawText(box, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, str(line))
            if line in self._marks:
                self._paint_mark(painter, QPoint(NUMBER_PX + 8, row.center().y()), self._marks[line])
            if line in self._heads:
                self._paint_fold(painter, QPoint(self.margin_px - 7, row.center().y()), line in self._folded)

    def _paint_mark(self, painter: QPainter, at: QPoint, marks: Sequence[Mark]) -> None:
        """A full square for what is broken, a ring for a question, a triangle for what looks wrong."""
        kind = min((mark[0] for mark in marks), key=lambda one: WORST.index(one) if one in WORST else 9)
        colour = self._theme.colour({"suspicious": "warning", "question": "accent"}.get(kind, "error"))
        painter.setPen(colour)
        painter.setBrush(Qt.BrushStyle.NoBrush if kind == "question" else colour)
        x, y = at.x(), at.y()
        if kind == "question":
            painter.drawEllipse(QPoint(x, y), 4, 4)
        elif kind == "suspicious":
            painter.drawPolygon(QPolygon([QPoint(x, y - 4), QPoint(x + 5, y + 4), QPoint(x - 5, y + 4)]))
        else:
            painter.drawRect(x - 4, y - 4, 8, 8)

    def _paint_fold(self, painter: QPainter, at: QPoint, folded: bool) -> None:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self._theme.colour("muted"))
        x, y = at.x(), at.y()
        if folded:
            painter.drawPolygon(QPolygon([QPoint(x - 3, y - 4), QPoint(x + 3, y), QPoint(x - 3, y + 4)]))
        else:
            painter.drawPolygon(QPolygon([QPoint(x - 4, y - 2), QPoint(x + 4, y - 2), QPoint(x, y + 4)]))

    def margin_pressed(self, at: QPoint) -> None:
        for block, row in self._rows():
            if row.top() <= at.y() < row.bottom():
                line = block.blockNumber() + 1
                if line in self._heads and at.x() > self.margin_px - 14:
                    self.fold(line, line not in self._folded)
                else:
                    self.go_to(line)
                return

    def tell_marks(self, at: QPoint, where: QPoint) -> None:
        for block, row in self._rows():
            if row.top() <= at.y() < row.bottom():
                marks = self._marks.get(block.blockNumber() + 1, [])
                text = "\n".join(f"{kind}: {words}" for kind, words in marks)
                QToolTip.showText(where, plain_tip(text), self.margin)

    # folding -----------------------------------------------------------------------------------------------------

    def fold(self, line: int, away: bool) -> None:
        """Hide or show the lines of one tool below its call."""
        (self._folded.add if away else self._folded.discard)(line)
        following = sorted(one for one in self._heads if one > line)
        block = self.document().findBlockByNumber(line)
        end = following[0] - 1 if following else self.document().blockCount()
        while block.isValid() and block.blockNumber() < end:
            block.setVisible(not away)
            block = block.next()
        self.document().markContentsDirty(0, self.document().characterCount())
        self.viewport().update()
        self.margin.update()

    def fold_all(self, away: bool) -> None:
        for line in sorted(self._heads):
            self.fold(line, away)

    def _unfold_around(self, block: QTextBlock) -> None:
        if not block.isVisible():
            head = max((one for one in self._folded if one <= block.blockNumber() + 1), default=0)
            if head:
                self.fold(head, False)

    # typing ------------------------------------------------------------------------------------------------------

    def _on_text(self) -> None:
        if not self._quiet:
            self._timer.start()

    @property
    def busy(self) -> bool:
        """Something was typed that nobody was told of yet."""
        return self._timer.isActive() and self.toPlainText() != self._told

    def settle(self) -> None:
        """What stands here is known: it is not told again."""
        self._timer.stop()
        self._told = self.toPlainText()

    def flush(self) -> None:
        """Tell what was typed now, without waiting for the next key."""
        if self._timer.isActive():
            self._timer.stop()
            self._tell()

    def _tell(self) -> None:
        """Colouring counts as a change of the document, and is none of the text."""
        text = self.toPlainText()
        if text != self._told:
            self._told = text
            self.edited.emit(text)

    def _on_cursor(self) -> None:
        self._mark_line()
        if self.line != self._line:
            self._line = self.line
            self.margin.update()
            if not self._quiet:
                self.line_chosen.emit(self.line)

    def _mark_line(self) -> None:
        selection = QTextEdit.ExtraSelection()
        selection.format.setBackground(self._theme.colour("accent_soft"))
        selection.format.setProperty(QTextFormat.Property.FullWidthSelection, True)
        selection.cursor = self.textCursor()
        selection.cursor.clearSelection()
        self.setExtraSelections([selection])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        popup = self._completer.popup() if self._completer is not None else None
        if popup is not None and popup.isVisible() and event.key() in TAKES:
            event.ignore()
            return
        if event.key() == Qt.Key.Key_Space and event.modifiers() == Qt.KeyboardModifier.ControlModifier:
            self.complete()
            return
        super().keyPressEvent(event)

    def complete(self) -> None:
        """Offer what may stand here: words that begin so, or what may follow those of the block."""
        cursor = self.textCursor()
        before = cursor.block().text()[: cursor.positionInBlock()]
        begun = before[len(before.rstrip("GMgm0123456789.")) :].upper()
        begun = begun if begun[:1] in ("G", "M") else ""
        offers = self._offers(before[: len(before) - len(begun)], begun)
        if not offers:
            return
        self._completer = QCompleter(offers, self)
        self._completer.setWidget(self)
        self._completer.setCompletionMode(QCompleter.CompletionMode.UnfilteredPopupCompletion)
        size = len(begun)
        self._completer.activated.connect(lambda text: self._take(str(text), size))
        box = self.cursorRect()
        box.setWidth(360)
        box.translate(self.margin_px, 0)
        self._completer.complete(box)

    def _offers(self, before: str, begun: str) -> list[str]:
        language, machine = self.colours.dialect, self.colours.machine
        if begun:
            names = language.vocabulary(machine)
            found = sorted((word for word in names if word.startswith(begun)), key=_order)
            return [f"{word}   {tr(words_of(names[word]))}" for word in found]
        last = next((one.name for one in reversed(spans_of(before, language, machine)) if one.name), "")
        return [f"{letters}   {tr(words)}" for letters, words in following(last, language)]

    def _take(self, text: str, begun: int) -> None:
        cursor = self.textCursor()
        cursor.movePosition(QTextCursor.MoveOperation.Left, QTextCursor.MoveMode.KeepAnchor, begun)
        cursor.insertText(text.split("   ")[0])
        self.setTextCursor(cursor)


def _order(word: str) -> tuple[str, float]:
    return word[0], float(word[1:])


def _same_ends(one: str, other: str) -> tuple[int, int]:
    """How many letters two texts share at their beginning, and how many more at their end."""
    most = min(len(one), len(other))
    head = next((n for n, (a, b) in enumerate(zip(one, other, strict=False)) if a != b), most)
    tail = next((n for n in range(most - head) if one[-1 - n] != other[-1 - n]), most - head)
    return head, tail


def alike(one: str, other: str) -> bool:
    """Whether a text came about from the other by editing it."""
    head, tail = _same_ends(one, other)
    return bool(one) and head + tail > 0.3 * max(len(one), len(other))
