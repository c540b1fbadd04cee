"""The passes of a thread: depth, step, shift, chip area and force. A typed depth makes the list one's own."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHeaderView, QTableWidget, QTableWidgetItem

from toreuma.app.session import Session
from toreuma.app.words import tr
from toreuma.core.cutting.infeed import InfeedPass
from toreuma.core.errors import UnitError
from toreuma.core.model import Job
from toreuma.core.units import parse, show

__all__ = ["InfeedTable"]

HEADS = ("pass", "depth", "step", "shift", "mm²", "N")
DEPTH = 1
ROW_PX = 22


class InfeedTable(QTableWidget):
    """One row a pass; depths on radius. Spring passes stand at the end and are not typed."""

    def __init__(self, session: Session, operation: str) -> None:
        super().__init__(0, len(HEADS))
        self._session, self._operation = session, operation
        self._passes: tuple[InfeedPass, ...] = ()
        self._filling = False
        self.setAccessibleName(tr("Passes of the thread"))
        self.setHorizontalHeaderLabels(HEADS)
        self.setToolTip(
            "Depth, step and shift of each pass, its chip area and cutting force. Depths are on radius. "
            "Type a depth to make the list your own."
        )
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.itemChanged.connect(self._typed)

    def show_passes(self, passes: tuple[InfeedPass, ...]) -> None:
        """Fill the rows; nothing is lost while one is typed in."""
        if passes == self._passes and self.rowCount() == len(passes):
            return
        self._passes, self._filling = passes, True
        system = self._session.system
        self.setRowCount(len(passes))
        for row, one in enumerate(passes):
            name = "spring" if one.spring else str(row + 1)
            lengths = [show(value, "mm", system).number for value in (one.depth_mm, one.infeed_mm, one.shift_mm)]
            for column, text in enumerate((name, *lengths, f"{one.area_mm2:.3f}", f"{one.force_n:.0f}")):
                item = QTableWidgetItem(text)
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                if column != DEPTH or one.spring:
                    item.setFlags(item.flags() & ~Qt.ItemFlag.ItemIsEditable)
                self.setItem(row, column, item)
        self._filling = False
        self.setFixedHeight(self.horizontalHeader().sizeHint().height() + ROW_PX * len(passes) + 10)

    def _typed(self, item: QTableWidgetItem) -> None:
        """Take the depth as one's own, with all others as they stand."""
        if self._filling:
            return
        system = self._session.system
        depths = [one.depth_mm for one in self._passes if not one.spring]
        try:
            depths[item.row()] = parse(item.text(), "mm", system)
        except UnitError as error:
            self._session.message.emit("error", str(error))
            self._again()
            return
        rising = tuple(sorted(depth for depth in depths[:-1] if depth > 0))

        def change(job: Job) -> Job:
            return job.with_operation(self._operation, lambda op: op.changed(division="typed", typed_mm=rising))

        refused = self._session.attempt(change)
        if refused is not None:
            self._session.message.emit("error", str(refused))
            self._again()

    def _again(self) -> None:
        passes, self._passes = self._passes, ()
        self.show_passes(passes)
