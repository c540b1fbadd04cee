"""What a new part asks: name, units, material, machine; each begins with what was chosen last."""

from PySide6.QtCore import QEvent, QObject, QSettings, QStringListModel, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QCompleter, QFrame, QGridLayout, QLineEdit, QPushButton, QVBoxLayout

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import System
from toreuma.engine.fresh import MACHINE, MATERIAL
from toreuma.engine.library import library

__all__ = ["NewStrip"]

UNITS: tuple[tuple[str, System], ...] = (("Millimetres", "mm"), ("Inches", "inch"))
USUAL_NAME = "new part"


class NewStrip(QFrame):
    """Enter in any field begins the part; a material is found by any of its names while it is typed."""

    begun = Signal()

    def __init__(self, settings: QSettings) -> None:
        super().__init__()
        self.setObjectName("card")
        self._settings = settings
        self.name = QLineEdit()
        self.name.setObjectName("name")
        self.name.setPlaceholderText(tr(USUAL_NAME))
        self.name.setAccessibleName(tr("Name of the new part"))
        self.units = QComboBox()
        self.units.setAccessibleName(tr("Units of the new part"))
        for words, value in UNITS:
            self.units.addItem(tr(words), value)
        self.material = QLineEdit()
        self.material.setObjectName("name")
        self.material.setAccessibleName(tr("Material of the new part"))
        self.machine = QComboBox()
        self.machine.setAccessibleName(tr("Machine of the new part"))
        self.begin = QPushButton(tr("Begin"))
        self.begin.setObjectName("main")
        self.begin.clicked.connect(self._begin)
        self.says = Label()
        self.says.setWordWrap(True)
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        grid.setVerticalSpacing(3)
        fields = (("Name", self.name), ("Units", self.units), ("Material", self.material), ("Machine", self.machine))
        for column, (words, field) in enumerate(fields):
            label = Label(tr(words))
            label.setObjectName("heading")
            label.setBuddy(field)
            grid.addWidget(label, 0, column)
            grid.addWidget(field, 1, column)
            field.setMinimumWidth(126 if field is self.units else 90)
            grid.setColumnStretch(column, 1 if field is self.units else 2)
            if isinstance(field, QLineEdit):
                field.returnPressed.connect(self._begin)
            else:
                field.installEventFilter(self)
        grid.addWidget(self.begin, 1, len(fields))
        column_ = QVBoxLayout(self)
        column_.setContentsMargins(14, 8, 14, 8)
        column_.setSpacing(4)
        column_.addLayout(grid)
        column_.addWidget(self.says)
        self._names = QStringListModel(self)
        completer = QCompleter(self._names, self)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        self.material.setCompleter(completer)
        self.material.textChanged.connect(self._on_material)
        self.refresh()

    def refresh(self) -> None:
        """What the shop has now, with what was chosen last."""
        shop, settings = library(), self._settings
        self._names.setStringList(list(shop.materials))
        chosen = str(settings.value("new/machine", MACHINE))
        self.machine.clear()
        for name in shop.machines:
            self.machine.addItem(name, name)
        self.machine.setCurrentIndex(max(self.machine.findData(chosen), 0))
        self.units.setCurrentIndex(max(self.units.findData(str(settings.value("new/units", "mm"))), 0))
        if not self.material.text():
            self.material.setText(str(settings.value("new/material", MATERIAL)))
        self._on_material(self.material.text())

    @property
    def system(self) -> System:
        found: System = self.units.currentData()
        return found

    def usual(self) -> dict[str, str]:
        """What new jobs begin with, as it was chosen last."""
        keys = {"units": "mm", "material": MATERIAL, "machine": MACHINE}
        return {key: str(self._settings.value(f"new/{key}", value)) for key, value in keys.items()}

    def wanted(self) -> tuple[str, System, str, str]:
        """Name, units, material and machine as they stand."""
        return (
            self.name.text().strip() or USUAL_NAME,
            self.system,
            self.material.text().strip(),
            str(self.machine.currentData()),
        )

    def keep(self, material: str) -> None:
        """Remember what was chosen; ``material`` is the name it was found by."""
        self._settings.setValue("new/units", self.system)
        self._settings.setValue("new/material", material)
        self._settings.setValue("new/machine", self.machine.currentData())
        self.name.clear()
        self.material.setText(material)

    def say(self, level: str, text: str) -> None:
        """A line under the fields."""
        self.says.setObjectName(level)
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        self.says.setText(text[:1].upper() + text[1:])
        self.says.setVisible(bool(text))

    def _on_material(self, text: str) -> None:
        """Say which material is meant, while it is typed."""
        try:
            material, named = library().material(text)
        except ToreumaError as error:
            self.material.setProperty("bad", bool(text.strip()))
            self._polish()
            self.say("error" if text.strip() else "muted", f"{error.what}; {error.cure}")
            return
        self.material.setProperty("bad", False)
        self._polish()
        same = material.name.casefold() == text.strip().casefold()
        words = named.note or ("" if same else f"{text.strip()} is {material.name}")
        self.say("warning" if named.note else "muted", words)

    def _polish(self) -> None:
        self.material.style().unpolish(self.material)
        self.material.style().polish(self.material)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Enter begins from a list as well, while it is closed."""
        enter = (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        pressed = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() in enter
        if pressed and isinstance(watched, QComboBox) and not watched.view().isVisible():
            self._begin()
            return True
        return super().eventFilter(watched, event)

    def _begin(self) -> None:
        self.begun.emit()
