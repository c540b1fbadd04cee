"""The shop's own constants: what tables say, what was seen, and which of them new plans begin from."""

import time

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.stages.log.model import LogModel
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import parse
from toreuma.engine.library import library
from toreuma.engine.logbook.constants import Constant, constants_of, forget_constant, keep_constant
from toreuma.engine.logbook.renewed import job_with_shop_values, learned_since

__all__ = ["ConstantsView"]

COLUMNS = ("Constant", "Of", "Tables", "Of this shop", "Spread (90 %)", "Seen", "New plans begin from it")


class ConstantsView(QWidget):
    """A constant that is used becomes the shop's own value of the material; a plan keeps those it was made with."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model = model
        self.found: tuple[Constant, ...] = ()
        self.boxes: dict[int, QCheckBox] = {}
        self.table = QTableWidget(0, len(COLUMNS))
        self.table.setHorizontalHeaderLabels([tr(one) for one in COLUMNS])
        self.table.setAccessibleName(tr("The shop's own constants"))
        self.table.verticalHeader().hide()
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.horizontalHeader().setStretchLastSection(True)
        words = Label(
            "Tables are where it begins; every edge, power and time in the log moves it. The spread says how sure it "
            "is. What is ticked stands in the material or the machine from then on, with where it comes from in every "
            "reason; a plan that was made before keeps what it was made with."
        )
        words.setObjectName("muted")
        words.setWordWrap(True)
        self.operation, self.power = QComboBox(), QLineEdit()
        self.operation.setAccessibleName(tr("Operation whose power was read"))
        self.power.setPlaceholderText(tr("kW at the motor"))
        self.power.setAccessibleName(tr("Power that was read"))
        self.power.returnPressed.connect(self.observe)
        button = QPushButton(tr("It was read"))
        button.clicked.connect(lambda: self.observe())
        self.renew = QPushButton(tr("Plan this job with them"))
        self.renew.clicked.connect(lambda: self._renew())
        form = QHBoxLayout()
        form.addWidget(Label(tr("Power of the spindle in")))
        for widget in (self.operation, self.power, button):
            form.addWidget(widget)
        form.addStretch(1)
        form.addWidget(self.renew)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 8, 10, 8)
        column.addWidget(words)
        column.addWidget(self.table, 1)
        column.addLayout(form)

    def set_theme(self, theme: Theme) -> None:
        self.refresh()

    def refresh(self) -> None:
        book, now = self._model.book, self.operation.currentData()
        self.operation.clear()
        for side in book.sides if book is not None else ():
            for planned in side.operations:
                if planned.figures.power_kw:
                    self.operation.addItem(planned.operation.name or planned.operation.kind, planned.operation.id)
        self.operation.setCurrentIndex(max(self.operation.findData(now), 0))
        job = self._model.session.whole
        self.found, self.boxes = (), {}
        if job is not None:
            material = library().materials.get(job.stock.material.name, job.stock.material)
            found = self._model.asked(lambda: constants_of(self._model.store, material, job.machine.name))
            self.found = found or ()
        since = learned_since(job) if job is not None else []
        self.renew.setVisible(bool(since))
        self.renew.setToolTip("\n".join(since))
        self.table.setRowCount(len(self.found))
        for n, one in enumerate(self.found):
            learned = one.learned
            name = f"{one.name}, {one.cutting}" if one.cutting else one.name
            cells = (name, one.of, f"{learned.table:.4g} {one.unit}".strip(), f"{learned.value:.4g} {one.unit}".strip(),
                     f"± {float(f'{learned.spread:.2g}'):g}", str(learned.count))  # fmt: skip
            for column, words in enumerate(cells):
                item = QTableWidgetItem(words)
                if column > 1:
                    item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                self.table.setItem(n, column, item)
            last = self.table.cellWidget(n, len(COLUMNS) - 1)
            if last is not None:
                last.hide()  # it goes with the next turn of events, and is not to be seen until then
            box = QCheckBox(tr("use"))
            box.setToolTip(one.source if learned.count else tr("nothing seen yet"))
            box.setAccessibleName(f"{name}: {tr('new plans begin from it')}")
            box.setChecked(one.used)
            box.setEnabled(bool(learned.count) or one.used)
            box.toggled.connect(lambda on, c=one: self._use(c, on))
            self.boxes[n] = box
            self.table.setCellWidget(n, len(COLUMNS) - 1, box)
        self.table.resizeColumnsToContents()

    def observe(self) -> None:
        """A power that was read at the machine moves the specific force."""
        book = self._model.book
        if book is None or not self.power.text().strip():
            return
        try:
            kw = parse(self.power.text(), "kW", self._model.session.system)
        except ToreumaError as error:
            self._model.session.message.emit("error", f"{error.what}; {error.cure}")
            return
        operation = str(self.operation.currentData() or "")

        def write() -> bool:
            book.observe_power(operation, kw, time.time())
            return True

        if self._model.asked(write):
            self.power.clear()
            self.refresh()

    def _renew(self) -> None:
        """The open job with what the shop has learned since it was made; one step that can be taken back."""
        session = self._model.session
        if session.whole is not None:
            session.change_whole(job_with_shop_values(session.whole))
            self.refresh()

    def _use(self, one: Constant, on: bool) -> None:
        try:
            keep_constant(one) if on else forget_constant(one)
        except ToreumaError as error:
            self._model.session.message.emit("error", str(error))
        self.refresh()
