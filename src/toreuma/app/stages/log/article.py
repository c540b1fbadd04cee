"""The first article: sizes against the inspection list, drawn on the part, split into causes, with what to set."""

import time

from PySide6.QtCore import QByteArray, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtSvg import QSvgRenderer
from PySide6.QtWidgets import (
    QHBoxLayout,
    QPushButton,
    QSpinBox,
    QSplitter,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.stages.log.model import LogModel
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.measure import Characteristic
from toreuma.core.measure.split import Offset
from toreuma.core.spoken import spoken
from toreuma.core.units import UNITS, parse, show
from toreuma.engine.logbook.first_article import ArticleRow, FirstArticle
from toreuma.log import OffsetSet
from toreuma.papers.picture.errors import ErrorMark, errors_on_part

__all__ = ["ArticleView"]

COLUMNS = ("", "What", "Least", "Most", "Found", "Off by", "Left over", "Cut by")
FOUND = 4
ROOM_MM = (120.0, 72.0)


class PartErrors(QWidget):
    """The part with a bar at every size."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setMinimumHeight(190)
        self.setAccessibleName(tr("Errors drawn on the part"))
        self._theme = theme
        self._picture = QSvgRenderer()
        self.svg = ""

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_svg(self, svg: str) -> None:
        self.svg = svg
        self._picture.load(QByteArray(svg.encode()))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._theme.colour("raised"))
        size = self._picture.defaultSize()
        if size.isEmpty():
            return
        scale = min(self.width() / size.width(), self.height() / size.height())
        wide, tall = size.width() * scale, size.height() * scale
        self._picture.render(painter, QRectF((self.width() - wide) / 2, (self.height() - tall) / 2, wide, tall))


class ArticleView(QWidget):
    """A found size is typed, or comes from a gauge into the row that is chosen; Enter goes on to the next one."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model, self._theme = model, theme
        self.article: FirstArticle | None = None
        self._filling = False
        self.part = QSpinBox()
        self.part.setRange(1, 9_999_999)
        for widget in (self.part, self.part.lineEdit()):
            widget.setAccessibleName(tr("Part that was measured"))
        self.part.valueChanged.connect(lambda _: self.refresh())
        self.table = QTableWidget(0, len(COLUMNS))
        self.table.setAccessibleName(tr("Inspection list"))
        self.table.setHorizontalHeaderLabels([tr(one) for one in COLUMNS])
        self.table.verticalHeader().hide()
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.setEditTriggers(QTableWidget.EditTrigger.AllEditTriggers)
        self.table.itemChanged.connect(self._on_typed)
        self.picture = PartErrors(theme)
        self.says = ScrollColumn(12, 4, 10, 4)
        top = QHBoxLayout()
        top.addWidget(Label(tr("Part")))
        top.addWidget(self.part)
        self.state = Label()
        self.state.setObjectName("muted")
        top.addWidget(self.state, 1)
        left = QWidget()
        column = QVBoxLayout(left)
        column.setContentsMargins(10, 8, 6, 8)
        column.addLayout(top)
        column.addWidget(self.table, 1)
        right = QWidget()
        beside = QVBoxLayout(right)
        beside.setContentsMargins(0, 8, 8, 8)
        beside.addWidget(self.picture, 3)
        beside.addWidget(self.says, 4)
        split = QSplitter(Qt.Orientation.Horizontal)
        split.addWidget(left)
        split.addWidget(right)
        split.setSizes([600, 430])
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(split)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.picture.set_theme(theme)
        self.refresh()

    @property
    def lines(self) -> tuple[Characteristic, ...]:
        """Lines that a number is found for."""
        book = self._model.book
        return tuple(one for one in book.lines if one.is_sized) if book is not None else ()

    def refresh(self) -> None:
        book = self._model.book
        self.article = None if book is None else self._model.asked(lambda: book.article(self.part.value()))
        self._fill_table()
        self._fill_picture()
        self._fill_says()

    def _fill_table(self) -> None:
        self._filling = True
        rows = {row.line.key: row for row in self.article.rows} if self.article is not None else {}
        lines = self.lines
        self.table.setRowCount(len(lines))
        for n, line in enumerate(lines):
            self._fill_row(n, line, rows.get(line.key))
        for column, wide in enumerate((32, 158, 60, 60, 74, 58, 60, 120)):
            self.table.setColumnWidth(column, wide)
        measured = sum(row.found is not None for row in rows.values())
        out = sum(row.within is False for row in rows.values())
        unit = show(0.0, "mm", self._model.session.system).unit
        self.state.setText(f"{measured} of {len(lines)} measured, {out} out of limits; sizes in {unit}")
        self._filling = False

    def _fill_row(self, n: int, line: Characteristic, row: ArticleRow | None) -> None:
        system = self._model.session.system

        def number(value: float | None, sign: bool = False) -> str:
            if value is None:
                return ""
            text = show(value, line.unit, system).number
            return f"+{text}" if sign and value > 0 else text

        found = row.found if row is not None else None
        cells = (
            str(line.number), _begun(spoken(line.what, system)), number(line.lower), number(line.upper), number(found),
            number(row.error if row else None, True), number(row.rest if row else None, True), row.tool if row else "",
        )  # fmt: skip
        out = row is not None and row.within is False
        for column, words in enumerate(cells):
            item = QTableWidgetItem(words)
            item.setToolTip(f"{line.means}; {line.often}" if column != FOUND else tr("What was found; Enter goes on"))
            if column != FOUND:
                item.setFlags(Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable)
            if column not in (1, 7):
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            if out and column in (FOUND, 5):
                item.setForeground(QColor(self._theme.colour("error")))
                item.setText(f"{words} ✕" if column == FOUND else words)
            self.table.setItem(n, column, item)

    def _on_typed(self, item: QTableWidgetItem) -> None:
        if self._filling or item.column() != FOUND:
            return
        line = self.lines[item.row()]
        if not item.text().strip():
            self.take_back(item.row())
            return
        try:
            unit = line.unit if line.unit in UNITS else "mm"
            value = parse(item.text().replace("✕", ""), unit, self._model.session.system)
        except ToreumaError as error:
            self._model.session.message.emit("error", f"{line.what}: {error.what}; {error.cure}")
            return
        self.enter(item.row(), value)

    def take_back(self, row: int) -> None:
        """A cell that was emptied: what stood there does not count any more; it stays in the log, struck."""
        book, line, part = self._model.book, self.lines[row], self.part.value()
        if book is not None:
            self._model.asked(lambda: book.take_back(part, line.key))
            self.refresh()
            self._model.wrote()

    def enter(self, row: int, value: float, gauge: str = "", uncertainty: float | None = None) -> bool:
        """A size that was found, mm, for a row, in place of one that stood there; the next row is chosen."""
        book, line = self._model.book, self.lines[row]
        if book is None:
            return False
        part = self.part.value()
        at = time.time()
        kept = self._model.asked(lambda: book.enter(part, line.key, value, at, gauge, uncertainty, instead=True))
        if kept is None:
            return False
        self.refresh()
        self._model.wrote()
        following = min(row + 1, self.table.rowCount() - 1)
        self.table.setCurrentCell(following, FOUND)
        return True

    def reading(self, mm: float, gauge: str) -> bool:
        """A gauge's button was pressed: what it says goes into the row that is chosen."""
        row = self.table.currentRow()
        return self.enter(max(row, 0), mm, gauge) if self.lines else False

    def _fill_picture(self) -> None:
        book = self._model.book
        if book is None or self.article is None:
            self.picture.show_svg("")
            return
        marks = []
        for row in self.article.rows:
            one = row.line
            if row.error is None or one.quantity not in ("diameter", "wires", "length", "depth"):
                continue
            system = self._model.session.system
            words = f"{row.error * 1000:+.0f}" if system == "mm" else f"{row.error / 0.0254:+.1f}"
            r = -one.at[1] if one.side == "inside" else one.at[1]
            marks.append(ErrorMark(one.number, one.at[0], r, row.error, row.within is not False, words))
        ink = self._theme.colour("ink").name()
        self.picture.show_svg(errors_on_part(book.sides[0].scene, marks, ROOM_MM, ink))

    def _fill_says(self) -> None:
        self.says.clear()
        system = self._model.session.system
        column = self.says.column
        if self.article is None or not any(row.found is not None for row in self.article.rows):
            self._say(tr("Type what was found; what the sizes have in common is told here."), "muted")
            self.says.settle()
            return
        column.addWidget(heading("What to set"))
        for offset, words in self.article.offsets:
            self._offer(offset, spoken(words, system))
        if not self.article.offsets:
            self._say(tr("Nothing: what was found is within what it is uncertain by."), "ok")
        column.addWidget(heading("Why"))
        for words in (*self.article.left, *self.article.says):
            self._say(spoken(words, system), "body")
        column.addStretch(1)
        self.says.settle()

    def _say(self, words: str, name: str) -> None:
        label = Label(words)
        label.setObjectName(name)
        label.setWordWrap(True)
        self.says.column.addWidget(label)

    def _offer(self, offset: Offset, words: str) -> None:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 1, 0, 1)
        label = Label(words)
        label.setWordWrap(True)
        button = QPushButton(tr("It was set"))
        button.setToolTip(tr("Write into the log that this was set at the machine; nothing is sent to it"))
        button.clicked.connect(lambda: self._set(offset))
        line.addWidget(label, 1)
        line.addWidget(button)
        self.says.column.addWidget(row)

    def _set(self, offset: Offset) -> None:
        book = self._model.book
        if book is None:
            return
        tool = offset.tool.removesuffix(" side 2")
        entry = OffsetSet(
            after_part=self.part.value(), tool=tool, axis=offset.axis, mm=round(offset.mm, 4), at=time.time(),
            why="first article",
        )  # fmt: skip
        if self._model.asked(lambda: self._model.store.add(book.run.id, entry)) is not None:
            self._model.session.message.emit("ok", tr("Written into the log."))
            self.part.setValue(self.part.value() + 1)
            self._model.wrote()


def _begun(words: str) -> str:
    return words[:1].upper() + words[1:]
