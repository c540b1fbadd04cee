"""Finding any command, operation, tool or element by a few letters."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from toreuma.app.words import tr

__all__ = ["Findable", "Finder"]


@dataclass(frozen=True)
class Findable:
    """Something that can be found: what it is called, what kind it is, its key, what choosing it does."""

    text: str
    kind: str
    run: Callable[[], object]
    key: str = ""


class Finder(QFrame):
    """A small list under the header; letters narrow it, Enter runs, Esc closes."""

    def __init__(
        self,
        parent: QWidget,
        offers: Callable[[], list[Findable]],
        meant: Callable[[str], list[Findable]] = lambda text: [],
    ) -> None:
        """``offers`` is everything that has a name; ``meant`` what a text means by itself, as a thread or a code."""
        super().__init__(parent)
        self.setObjectName("palette")
        self._offers, self._meant = offers, meant
        self._known: list[Findable] = []
        self._shown: list[Findable] = []
        self.edit = QLineEdit()
        self.edit.setObjectName("search")
        self.edit.setPlaceholderText(tr("Command, operation, tool, surface, material, M12x1.75, 25 H7, CNMG120408"))
        self.edit.setAccessibleName(tr("Find"))
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Found"))
        self.list.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(6, 6, 6, 6)
        column.addWidget(self.edit)
        column.addWidget(self.list)
        self.edit.textChanged.connect(self._narrow)
        self.edit.returnPressed.connect(self.run_current)
        self.list.itemActivated.connect(lambda _: self.run_current())
        self.edit.installEventFilter(self)
        self.hide()

    def open(self) -> None:
        parent = self.parentWidget()
        if parent is None:
            return
        width = min(560, parent.width() - 40)
        self.setGeometry((parent.width() - width) // 2, 52, width, 330)
        self._known = self._offers()
        self.edit.clear()
        self._narrow("")
        self.show()
        self.raise_()
        self.edit.setFocus()

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        named = [one for one in self._known if all(word in f"{one.text} {one.kind}".lower() for word in words)]
        begins = [one for one in named if text.strip() and one.text.lower().startswith(text.strip().lower())]
        self._shown = [*begins, *self._meant(text.strip()), *(one for one in named if one not in begins)]
        self.list.clear()
        for one in self._shown[:80]:
            label = f"{one.text}   {one.kind}" + (f"   {one.key}" if one.key else "")
            self.list.addItem(QListWidgetItem(label))
        if not self._shown:
            looked = "commands, stages, operations, surfaces, features, tools, the shop, the bench and help"
            told = (
                f"Nothing is called {text.strip()!r}: looked at {looked}; and it is no thread, fit, code or material."
            )
            nothing = QListWidgetItem(told)
            nothing.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(nothing)
        self.list.setCurrentRow(0 if self._shown else -1)

    def run_current(self) -> None:
        row = self.list.currentRow()
        if 0 <= row < len(self._shown):
            self.hide()
            self._shown[row].run()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.FocusOut and not self.list.hasFocus():
            self.hide()
        if event.type() == QEvent.Type.KeyPress and isinstance(event, QKeyEvent):
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            if step is not None:
                self.list.setCurrentRow(min(max(self.list.currentRow() + step, 0), self.list.count() - 1))
                return True
            if event.key() == Qt.Key.Key_Escape:
                self.hide()
                return True
        return super().eventFilter(watched, event)
