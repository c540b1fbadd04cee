"""Codes both ways: type one and read it, or set what is wanted and get the code in both systems."""

from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.picture.tool_drawing import CodeDrawing
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import StandardError
from toreuma.core.geometry.from_code import insert_from, tool_from
from toreuma.core.geometry.insert_picture import insert_picture
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.standards.codes import CodeError, InsertCode, decode
from toreuma.core.standards.codes.decode import Code, equivalents
from toreuma.core.standards.codes.respell import respelled, symbols_at
from toreuma.core.units import show
from toreuma.shipped.standards import code_tables

__all__ = ["CodesBench"]

LEAST_ROW_PX = 30
POPUP_PX = 330
COLUMNS = ("", "Symbol", "Position", "Means", "mm", "inch")


class CodesBench(QWidget):
    """The symbols of the code can be changed one by one below it; each change is written into the code."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.code: Code | None = None
        self.entry = QLineEdit("CNMG 120408")
        self.entry.setObjectName("codeEntry")
        self.entry.setAccessibleName(tr("Code of an insert, holder or boring bar"))
        self.entry.setPlaceholderText(tr("CNMG 120408, CCMT 21.51, PCLNR 2525 M12, A25R-PCLNR12"))
        self.entry.textChanged.connect(self.refresh)
        self.says = Label()
        self.says.setWordWrap(True)
        self.near = QHBoxLayout()
        self.drawing = CodeDrawing(theme)
        self.table = QTableWidget(0, len(COLUMNS))
        self.table.setHorizontalHeaderLabels(COLUMNS)
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.NoSelection)
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        self.table.setWordWrap(True)
        self.table.setAccessibleName(tr("Positions of the code"))
        header = self.table.horizontalHeader()
        for column in (0, 1, 2, 4, 5):
            header.setSectionResizeMode(column, QHeaderView.ResizeMode.ResizeToContents)
        header.setSectionResizeMode(3, QHeaderView.ResizeMode.Stretch)
        self.symbols = QGridLayout()
        self.symbols.setHorizontalSpacing(6)
        self.boxes: dict[int, QComboBox] = {}
        self.same = Label()
        self.same.setObjectName("code")
        self.same.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self._lay_out()
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        self.drawing.set_theme(theme)

    def _lay_out(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 20, 14)
        column.setSpacing(8)
        column.addWidget(self.entry)
        holder = QWidget()
        holder.setLayout(self.symbols)
        column.addWidget(holder)
        column.addWidget(self.says)
        nearest = QWidget()
        self.near.setContentsMargins(0, 0, 0, 0)
        nearest.setLayout(self.near)
        column.addWidget(nearest)
        row = QHBoxLayout()
        row.addWidget(self.drawing, 4)
        row.addWidget(self.table, 6)
        column.addLayout(row, 1)
        column.addWidget(self.same)

    def refresh(self) -> None:
        """Read what stands in the entry."""
        self._clear(self.near)
        try:
            self.code = decode(self.entry.text(), code_tables())
        except StandardError as error:
            self._fault(error)
            return
        self.entry.setProperty("bad", False)
        self._polish()
        words = {"insert": "Indexable insert", "holder": "Holder", "bar": "Boring bar"}[self.code.kind]
        self.says.setText(f"{words}, {self.code.system} designation")
        self.says.setObjectName("muted")
        self._fill_table(self.code)
        self._fill_symbols(self.code)
        same = equivalents(self.code, code_tables())
        self.same.setText("     ".join(f"{system}  {text}" for system, text in same.items()))
        self._draw(self.code)

    def _fault(self, error: StandardError) -> None:
        self.code = None
        self._clear(self.symbols)
        self.boxes = {}
        bad = bool(self.entry.text().strip())
        self.entry.setProperty("bad", bad)
        self._polish()
        if not bad:
            self.says.setText(tr("Type the code from the box, the holder or the bar; blanks and dashes do not matter."))
        elif isinstance(error, CodeError):
            allowed = "  ".join(error.allowed[:30])
            self.says.setText(f"{error.what}. Allowed there:  {allowed}")
        else:
            self.says.setText(f"{error.what}; {error.cure}")
        for text in error.nearest if isinstance(error, CodeError) and bad else ():
            button = QPushButton(text)
            button.clicked.connect(lambda _=False, t=text: self.entry.setText(t))
            self.near.addWidget(button)
        self.near.addStretch(1)
        self.table.setRowCount(0)
        self.same.setText("")
        self.drawing.show_nothing()

    def _polish(self) -> None:
        self.entry.style().unpolish(self.entry)
        self.entry.style().polish(self.entry)

    def _fill_table(self, code: Code) -> None:
        self.table.setRowCount(len(code.positions))
        for row, one in enumerate(code.positions):
            size = one.mm
            cells = (
                str(one.number),
                one.symbol,
                one.name,
                one.meaning,
                "" if size is None else show(size, "mm", "mm", decimals=3, trim=True).number,
                "" if size is None else show(size, "mm", "inch", decimals=4, trim=True).number,
            )
            for column, text in enumerate(cells):
                item = QTableWidgetItem(text)
                if column >= 4:
                    item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                self.table.setItem(row, column, item)
        self.table.resizeRowsToContents()
        for row in range(self.table.rowCount()):
            self.table.setRowHeight(row, max(self.table.rowHeight(row), LEAST_ROW_PX))

    def _fill_symbols(self, code: Code) -> None:
        """A choice for every position: what stands there, and what else may."""
        wanted = [one for one in code.positions if one.name != "maker's free text"]
        if [one.number for one in wanted] != list(self.boxes):
            self._clear(self.symbols)
            self.boxes = {}
            for column, one in enumerate(wanted):
                label = Label(one.name)
                label.setObjectName("muted")
                label.setWordWrap(True)
                box = QComboBox()
                box.setAccessibleName(one.name)
                box.setMinimumContentsLength(4)
                box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
                box.view().setMinimumWidth(POPUP_PX)
                box.activated.connect(lambda _, n=one.number: self._respell(n))
                self.symbols.addWidget(label, 0, column, Qt.AlignmentFlag.AlignBottom)
                self.symbols.addWidget(box, 1, column)
                self.boxes[one.number] = box
        for one in wanted:
            box = self.boxes[one.number]
            box.clear()
            for symbol, words in symbols_at(code, one.number, code_tables()).items():
                box.addItem(f"{symbol}  {words}" if words else symbol, symbol)
            box.setCurrentIndex(max(box.findData(one.symbol), 0))

    def _respell(self, number: int) -> None:
        if self.code is not None:
            self.entry.setText(respelled(self.code, number, self.boxes[number].currentData(), code_tables()))

    def _draw(self, code: Code) -> None:
        tables = code_tables()
        try:
            if isinstance(code, InsertCode):
                insert = insert_from(code, tables)
                self.drawing.show_insert(insert, insert_picture(insert))
            else:
                self.drawing.show_tool(shape_of(tool_from(code, tables)))
        except StandardError:
            self.drawing.show_nothing()

    @staticmethod
    def _clear(layout: Any) -> None:
        while layout.count():
            item = layout.takeAt(0)
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
