"""Sizes through the run: the chart of one, what it says, and the offset that was set."""

import time

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import ScrollColumn
from toreuma.app.forms.label import Label
from toreuma.app.picture.chart import ChartData, RunChart
from toreuma.app.stages.log.model import LogModel
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.spoken import spoken
from toreuma.core.units import parse, show
from toreuma.engine.logbook.through_run import SizeRun
from toreuma.log import OffsetSet

__all__ = ["ThroughView"]

SIGNS = {"error": "✕ ", "warning": "▲ ", "ok": "● ", "note": ""}


class ThroughView(QWidget):
    """Sizes that were measured at the left, the chosen one beside them."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model = model
        self.found: SizeRun | None = None
        self.sizes = QListWidget()
        self.sizes.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.sizes.setWordWrap(True)
        self.sizes.setResizeMode(QListWidget.ResizeMode.Adjust)
        self.sizes.setAccessibleName(tr("Sizes that were measured"))
        self.sizes.setFixedWidth(256)
        self.sizes.currentItemChanged.connect(lambda *_: self._show())
        self.chart = RunChart(theme)
        self.says = ScrollColumn(12, 4, 10, 4)
        self.tool, self.axis, self.amount = QComboBox(), QComboBox(), QLineEdit()
        self.tool.setAccessibleName(tr("Tool whose offset was set"))
        self.axis.addItems(["X", "Z"])
        self.axis.setAccessibleName(tr("Axis of the offset"))
        self.amount.setPlaceholderText(tr("added, such as -0.012"))
        self.amount.setAccessibleName(tr("What was added to the offset"))
        self.amount.returnPressed.connect(self.set_offset)
        self.set = QPushButton(tr("It was set"))
        self.set.setToolTip(tr("Write into the log that this was set at the machine; nothing is sent to it"))
        self.set.clicked.connect(self.set_offset)
        form = QHBoxLayout()
        form.addWidget(Label(tr("Offset")))
        for widget in (self.tool, self.axis, self.amount, self.set):
            form.addWidget(widget)
        form.addStretch(1)
        right = QVBoxLayout()
        right.setContentsMargins(0, 8, 8, 8)
        right.addWidget(self.chart, 3)
        right.addLayout(form)
        right.addWidget(self.says, 2)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 8, 0, 0)
        row.addWidget(self.sizes)
        row.addLayout(right, 1)

    def set_theme(self, theme: Theme) -> None:
        self.chart.set_theme(theme)

    def refresh(self) -> None:
        book = self._model.book
        now = self.sizes.currentItem().data(256) if self.sizes.currentItem() is not None else ""
        self.sizes.blockSignals(True)
        self.sizes.clear()
        keys = (self._model.asked(book.measured) or {}) if book is not None else {}
        now = now or max(keys, key=lambda one: keys[one], default="")
        lines = {one.key: one for one in book.lines} if book is not None else {}
        for key in keys:
            item = QListWidgetItem(f"{lines[key].number}  {spoken(lines[key].what, self._model.session.system)}")
            item.setData(256, key)
            self.sizes.addItem(item)
            if key == now:
                self.sizes.setCurrentItem(item)
        if self.sizes.currentItem() is None and self.sizes.count():
            self.sizes.setCurrentRow(0)
        self.sizes.blockSignals(False)
        self._show()

    def _show(self) -> None:
        book, item = self._model.book, self.sizes.currentItem()
        self.found = None
        if book is not None and item is not None:
            self.found = self._model.asked(lambda: book.size(item.data(256)))
        self._fill_tools()
        self.says.clear()
        found, system = self.found, self._model.session.system
        if found is None:
            self.chart.show_data(ChartData(title=tr("No size of this run was measured yet")), system)
            return
        fit, run = found.fit, book.run.id if book is not None else 0
        every = self._model.asked(lambda: self._model.store.series(run, found.line.key)) or []
        self.chart.show_data(
            ChartData(
                parts=[one[0] for one in every], values=[one[2] for one in every],
                lower=found.line.lower, upper=found.line.upper, aim=found.line.aim,
                line=fit.line if fit is not None else (),
                ahead=[(one.part, one.mm, one.uncertainty) for one in fit.ahead] if fit is not None else (),
                sets=[(part, _signed(mm, system)) for part, mm in found.sets], changes=found.changes,
                title=spoken(found.line.what, system), unit=found.line.unit,
            ),
            system,
        )  # fmt: skip
        for kind, words in found.says:
            label = Label(f"{SIGNS[kind]}{spoken(words, system)}")
            label.setObjectName(kind if kind != "note" else "body")
            label.setWordWrap(True)
            self.says.column.addWidget(label)
        self.says.column.addStretch(1)
        self.says.settle()

    def _fill_tools(self) -> None:
        book = self._model.book
        if book is None or self.found is None:
            return
        names, wanted = book.names(), book.tool_of(self.found.line)
        self.tool.clear()
        for tool in sorted({tool.id for side in book.sides for tool in side.job.tools}):
            self.tool.addItem(names.get(tool, tool), tool)
        self.tool.setCurrentIndex(max(self.tool.findData(wanted), 0))
        self.axis.setCurrentText("X" if self.found.line.quantity in ("diameter", "wires") else "Z")
        if self.found.fit is not None and self.found.fit.correction and not self.amount.hasFocus():
            system = self._model.session.system
            self.amount.setText(show(round(self.found.fit.correction, 4), "mm", system).number.replace("\u2212", "-"))

    def set_offset(self) -> None:
        """What is typed was set at the machine, behind the last part."""
        book = self._model.book
        if book is None or not self.amount.text().strip():
            return
        try:
            mm = parse(self.amount.text(), "mm", self._model.session.system)
        except ToreumaError as error:
            self._model.session.message.emit("error", f"{error.what}; {error.cure}")
            return
        entry = OffsetSet(
            after_part=book.made(), tool=self.tool.currentData() or "", axis=self.axis.currentText(), mm=mm,
            at=time.time(), why="through the run",
        )  # fmt: skip
        if self._model.asked(lambda: self._model.store.add(book.run.id, entry)) is not None:
            self.amount.clear()
            self._model.wrote()
            self.refresh()


def _signed(mm: float, system: str) -> str:
    return f"{mm * 1000:+.0f} µm" if system == "mm" else f"{mm / 0.0254:+.1f} thou"
