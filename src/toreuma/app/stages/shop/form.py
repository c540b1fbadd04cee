"""Every field of an entry, with its unit, range, why it matters, and what is taken while it is empty."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox, QGridLayout, QLineEdit, QWidget

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.stages.shop.values import fits_usual, range_text, read_value, value_at, value_text
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.kinds.shop import ShopField, range_of
from toreuma.core.units import UNITS, System
from toreuma.engine.shop import fields_of, shown, with_field

__all__ = ["ShopForm"]

ENTRY_PX, LABEL_PX, UNIT_PX = 170, 180, 56
WIDTHS_PX = {"lines": 3 * ENTRY_PX, "meanings": 3 * ENTRY_PX, "word": ENTRY_PX // 2}


class _Row(QWidget):
    """One field; what was typed wrong stays, with its fault below."""

    def __init__(self, field: ShopField, hint: str, edit: Callable[[ShopField, str], str]) -> None:
        super().__init__()
        self.field, self._hint, self._edit = field, hint, edit
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 2, 0, 2)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(0)
        label = Label(tr(field.label))
        label.setFixedWidth(LABEL_PX)
        label.setWordWrap(True)
        self.entry: QLineEdit | QComboBox
        if field.options:
            self.entry = QComboBox()
            for words, _ in field.options:
                self.entry.addItem(tr(words))
            self.entry.activated.connect(self._chosen)
        else:
            self.entry = QLineEdit()
            self.entry.setPlaceholderText(tr(field.empty))
            self.entry.editingFinished.connect(self._typed)
            if field.form in ("text", "lines", "meanings"):
                self.entry.setObjectName("name")
        wide = field.form in ("curve", "list", "text", "words", "meanings", "lines")
        self.entry.setFixedWidth(WIDTHS_PX.get(field.form, 2 * ENTRY_PX if wide else ENTRY_PX))
        self.entry.setAccessibleName(field.label)
        self.unit = Label()
        self.unit.setObjectName("muted")
        self.unit.setFixedWidth(UNIT_PX)
        self.says = Label(hint)
        self.says.setObjectName("muted")
        self.says.setWordWrap(True)
        label.setBuddy(self.entry)
        grid.addWidget(label, 0, 0)
        grid.addWidget(self.entry, 0, 1)
        grid.addWidget(self.unit, 0, 2)
        grid.addWidget(self.says, 0, 3) if not wide else grid.addWidget(self.says, 1, 1, 1, 3)
        self.says.setVisible(bool(hint))
        grid.setColumnStretch(3, 1)

    def help_page(self) -> tuple[str, str]:
        """The field, for the help."""
        field = self.field
        lines = (field.why, self._hint, f"While it is empty: {field.empty}." if field.empty else "")
        return tr(field.label), "\n\n".join(dict.fromkeys(line for line in lines if line)) or "Typed as it is."

    def present(self, text: str, index: int, system: System) -> None:
        if isinstance(self.entry, QComboBox):
            self.entry.setCurrentIndex(index)
        elif not self.is_open:
            self.entry.setText(text)
            self.entry.setCursorPosition(0)
        self.unit.setText(UNITS[self.field.unit][system].label if self.field.unit in UNITS else "")

    def say(self, fault: str, unusual: bool = False) -> None:
        name = "error" if fault else "warning" if unusual else "muted"
        self.says.setObjectName(name)
        self.says.setText(fault or (f"Unusual; {self._hint}" if unusual else self._hint))
        self.says.setVisible(bool(self.says.text()))
        for widget in (self.says, self.entry):
            if widget is self.entry:
                widget.setProperty("bad", bool(fault))
            widget.style().unpolish(widget)
            widget.style().polish(widget)

    def _typed(self) -> None:
        assert isinstance(self.entry, QLineEdit)
        if self.entry.isModified():
            self.entry.setModified(False)
            fault = self._edit(self.field, self.entry.text())
            if fault:
                self.entry.setModified(True)
                self.say(fault)

    def _chosen(self, index: int) -> None:
        fault = self._edit(self.field, str(index))
        if fault:
            self.say(fault)

    @property
    def is_open(self) -> bool:
        """Something is typed here that did not go in."""
        return isinstance(self.entry, QLineEdit) and self.entry.isModified()


class ShopForm(ScrollColumn):
    """Shows one value; ``changed`` gives it with an edit."""

    changed = Signal(object)

    def __init__(self) -> None:
        super().__init__(left=18, right=14)
        self.kind = ""
        self.value: Any = None
        self.rows: dict[str, _Row] = {}
        self._system: System = "mm"
        self._key: tuple[object, ...] = ()
        self._name = ""

    def show_value(self, kind: str, value: Any, system: System, editable: bool, name: str = "") -> None:
        """Put an entry into the form; one that ships can be read and not changed."""
        if name != self._name:
            self._name, self._key = name, ()
        self.kind, self.value, self._system = kind, value, system
        seen = shown(value)
        fields = fields_of(kind, value)
        key = (kind, tuple(one.path for one in fields), tuple(one.heading for one in fields), system)
        if key != self._key:
            self._key = key
            self._fill(fields)
        for path, row in self.rows.items():
            held = value_at(seen, path)
            row.present(value_text(row.field, held, system), _index(row.field, held), system)
            row.entry.setEnabled(editable)
            if not row.is_open:
                row.say("", not fits_usual(row.field, held))
        self.settle()

    def _fill(self, fields: tuple[ShopField, ...]) -> None:
        self.clear()
        self.verticalScrollBar().setValue(0)
        self.rows = {}
        for field in fields:
            if field.heading:
                self.column.addWidget(heading(field.heading))
            bounds = range_of(shown(self.value), field.path) if field.form == "number" else (None, None)
            words = (range_text(field, bounds, self._system), field.why, f"empty: {field.empty}" if field.empty else "")
            hint = "; ".join(one for one in words if one)
            row = _Row(field, hint[:1].upper() + hint[1:], self._edit)
            self.rows[field.path] = row
            self.column.addWidget(row)
        self.column.addStretch(1)

    def _edit(self, field: ShopField, text: str) -> str:
        """Take an edit; gives what is wrong with it, empty when it went in."""
        try:
            new = field.options[int(text)][1] if field.options else read_value(field, text, self._system)
            changed = with_field(self.value, field.path, new)
        except ToreumaError as error:
            return f"{error.what}; {error.cure}"
        if changed != self.value:
            self.value = changed
            self.changed.emit(changed)
        return ""


def _index(field: ShopField, held: Any) -> int:
    """Which of its options a value is."""
    if field.form == "part":
        return 0 if held is None else 1
    return next((i for i, (_, value) in enumerate(field.options) if value == held), 0)
