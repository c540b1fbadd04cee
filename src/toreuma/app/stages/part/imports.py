"""Left panel while a drawing or model is looked at: what was understood, before anything is accepted."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDoubleSpinBox,
    QGridLayout,
    QProgressBar,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.app.stages.part.panel import feature_line
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import show
from toreuma.exchange.dxf_in import GAP_MM
from toreuma.exchange.imports import Imported, adopted, adopted_as_blank
from toreuma.exchange.read_apart import read_part_apart

__all__ = ["ImportPanel"]


class ImportPanel(QWidget):
    """Reads a file, shows what it gives on top of what was there, and takes it over or drops it."""

    finished = Signal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session, self._theme = session, theme
        self._beside = Beside(self)
        self._path = Path()
        self._gap_mm = GAP_MM
        self.found: Imported | None = None
        self.may_leave: Callable[[], bool] = lambda: True
        """Asked before the open job is left; the window puts its own question here."""
        self._title = Label()
        self._title.setObjectName("title")
        self._title.setContentsMargins(12, 10, 12, 0)
        self._bar = QProgressBar()
        self._bar.setTextVisible(False)
        self._bar.setRange(0, 100)
        self.facts = ScrollColumn()
        self.accept_button = QPushButton(tr("Take as a new job"))
        self.accept_button.setObjectName("main")
        self.accept_button.setToolTip(
            tr("With a bar, a hold and the machine and material used last; the open job is left")
        )
        self.accept_button.clicked.connect(self.take_as_job)
        self.part_button = QPushButton(tr("Put into this job"))
        self.part_button.setToolTip(tr("In place of the part of the open job, which keeps its blank, tools and route"))
        self.part_button.clicked.connect(lambda: self.accept())
        self.blank_button = QPushButton(tr("Take as blank"))
        self.blank_button.setToolTip(tr("The profile becomes the casting or forging the part is cut from"))
        self.blank_button.clicked.connect(lambda: self.accept(as_blank=True))
        self.drop_button = QPushButton(tr("Leave it"))
        self.drop_button.clicked.connect(self.drop)
        row = QGridLayout()
        row.setContentsMargins(10, 6, 10, 10)
        row.setSpacing(6)
        buttons = (self.accept_button, self.drop_button, self.part_button, self.blank_button)
        for index, button in enumerate(buttons):
            row.addWidget(button, index // 2, index % 2)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        column.addWidget(self._title)
        column.addWidget(self._bar)
        column.addWidget(self.facts, 1)
        column.addLayout(row)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme

    @property
    def reading(self) -> bool:
        return self._beside.task is not None

    @property
    def is_busy(self) -> bool:
        """Something is being read, or waits to be taken."""
        return self.reading or self.found is not None

    def start(
        self, path: Path, layers: list[str] | None = None, units: str | None = None, gap_mm: float = GAP_MM
    ) -> None:
        """Begin to read a file."""
        self._path, self._gap_mm, self.found = path, gap_mm, None
        self._title.setText(path.name)
        self.facts.clear()
        self._say("muted", "Being read; the open job stays as it is.")
        self.accept_button.setEnabled(False)
        self.blank_button.setEnabled(False)
        self.part_button.setEnabled(False)
        self.drop_button.setText(tr("Stop"))
        self._bar.setValue(0)
        self._bar.show()
        self._beside.start(
            lambda check, progress: read_part_apart(path, layers, units, gap_mm, check, progress),
            path.name, self._on_done, self._on_failed, lambda share: self._bar.setValue(round(100 * share)),
        )  # fmt: skip

    def stop(self) -> None:
        """End what is being read."""
        self._beside.leave()

    def close_down(self) -> None:
        """Wait for what still runs out, before the window goes."""
        self._beside.close()

    def take_as_job(self) -> None:
        """Begin a job of its own with what was read, once the open one may be left."""
        found = self.found
        if found is None or not self.may_leave():
            return
        self._session.preview = self.found = None
        self._session.begin(found.part, self._path.stem, "inch" if found.units == "inch" else "mm")
        self.finished.emit()

    def accept(self, as_blank: bool = False) -> None:
        """Put what was read in place of the part of the open job, or of its blank."""
        found = self.found
        if found is None:
            return
        self._session.preview = self.found = None
        error = self._session.attempt(lambda job: (adopted_as_blank if as_blank else adopted)(job, found))
        if error is not None:
            self._session.message.emit("error", f"{error.where}: {error.what}; {error.cure}")
        self.finished.emit()

    def drop(self) -> None:
        """Leave everything as it was."""
        self.stop()
        self._session.preview = self.found = None
        self.finished.emit()

    def _on_failed(self, error: ToreumaError) -> None:
        self._session.message.emit("error", str(error))
        self.drop()

    def _on_done(self, found: Imported) -> None:
        self.found = found
        self._bar.hide()
        self.accept_button.setEnabled(True)
        for button in (self.part_button, self.blank_button):
            button.setVisible(self._session.job is not None)
            button.setEnabled(self._session.job is not None)
        self.drop_button.setText(tr("Leave it"))
        self._session.preview = found
        self.facts.clear()
        system = self._session.system
        part = found.part
        self._say("plain", f"{len(part.outside)} elements outside, {len(part.inside)} inside, read in {found.units}.")
        self._say("plain", f"Largest deviation {show(found.deviation_um, 'um', system, decimals=2)}")
        if part.features:
            self.facts.column.addWidget(heading("Understood as features"))
            for feature in part.features:
                self._say("plain", feature_line(feature, system))
        if found.warnings:
            self.facts.column.addWidget(heading("Take care"))
            for word in found.warnings:
                self._say("warning", word)
        if found.ignored:
            self.facts.column.addWidget(heading("Left out"))
            self._say("muted", ", ".join(found.ignored))
        if found.layers:
            self._layers(found)
        self.facts.column.addStretch(1)
        self.facts.settle()
        self._session.selection_changed.emit()

    def _layers(self, found: Imported) -> None:
        """What of a drawing is read, and in which unit."""
        self.facts.column.addWidget(heading("Layers and unit"))
        boxes = {}
        for layer in found.layers:
            box = QCheckBox(layer)
            box.setChecked(True)
            boxes[layer] = box
            self.facts.column.addWidget(box)
        units = QComboBox()
        units.setAccessibleName(tr("Unit of the drawing"))
        for words, value in (("As the file says", None), ("Millimetres", "mm"), ("Inches", "inch")):
            units.addItem(words, value)
        gap = QDoubleSpinBox()
        gap.setAccessibleName(tr("Gaps closed up to"))
        gap.setPrefix(tr("Close gaps up to  "))
        gap.setSuffix(" mm")
        gap.setDecimals(3)
        gap.setRange(0.0, 10.0)
        gap.setValue(self._gap_mm)
        again = QPushButton(tr("Read again"))
        again.clicked.connect(
            lambda: self.start(
                self._path, [n for n, box in boxes.items() if box.isChecked()], units.currentData(), gap.value()
            )
        )
        self.facts.column.addWidget(units)
        self.facts.column.addWidget(gap)
        self.facts.column.addWidget(again, 0, Qt.AlignmentFlag.AlignLeft)

    def _say(self, name: str, text: str) -> None:
        label = Label(text[0].upper() + text[1:])
        label.setObjectName(name)
        label.setWordWrap(True)
        self.facts.column.addWidget(label)
