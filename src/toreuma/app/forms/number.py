"""One number with its unit, its pin, and its reasons folded behind it."""

from collections.abc import Callable
from html import escape

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QKeySequence
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLineEdit, QToolButton, QVBoxLayout

from toreuma.app.forms.label import Label
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.errors import ToreumaError
from toreuma.core.units import System, parse, show

__all__ = ["Entry", "NumberRow", "evidence_html"]


class Entry(QLineEdit):
    """A field that reads quantities. What cannot be read stays as typed, marked, with the reason beside it."""

    typed = Signal(str)

    def __init__(self, name: str, large: bool = False) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setObjectName("value" if large else "entry")
        self._shown = ""
        self.returnPressed.connect(self._submit)

    def present(self, text: str) -> None:
        """Show a value, unless something typed is being mended."""
        self._shown = text
        if not self.property("bad") and not (self.hasFocus() and self.isModified()):
            self.setText(text)

    def refuse(self) -> None:
        """Mark what was typed as wrong and keep it."""
        self._mark(True)

    def accept(self) -> None:
        self._mark(False)
        self.setModified(False)

    def reset(self) -> None:
        self._mark(False)
        self.setText(self._shown)

    def _mark(self, bad: bool) -> None:
        self.setProperty("bad", bad)
        self.style().unpolish(self)
        self.style().polish(self)

    def _submit(self) -> None:
        self.typed.emit(self.text())

    def event(self, event: QEvent) -> bool:
        """Once a value is in, undo and redo belong to the job and no longer to the letters."""
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(event, QKeyEvent) and not self.isModified():
            undo = event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo)
            if undo:
                event.ignore()
                return False
        return super().event(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if self.isModified() and self.text() != self._shown and not self.property("bad"):
            self._submit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.reset()
        else:
            super().keyPressEvent(event)


class NumberRow(QFrame):
    """Name, value, unit; a pin where the person may fix it; a fold with the evidence."""

    folded = Signal()

    def __init__(
        self, evidence: Evidence, theme: Theme, change: Callable[[float | None], ToreumaError | None] | None = None
    ) -> None:
        super().__init__()
        self.setProperty("topic", "numbers")
        self._theme, self._change = theme, change
        self._empty_allowed = False
        self._evidence = evidence
        self._system: System = "mm"
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 3, 0, 3)
        column.setSpacing(1)
        row = QHBoxLayout()
        row.setSpacing(4)
        self._name = Label(rich=True)
        self._name.setObjectName("muted")
        self._name.setWordWrap(True)
        self._name.setTextFormat(Qt.TextFormat.RichText)
        self.entry = Entry(evidence.name)
        self.entry.setFixedWidth(84)
        self.entry.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.entry.typed.connect(self._typed)
        self._value = Label()
        self._value.setFont(theme.number_font(14))
        self._value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self._unit = Label()
        self._unit.setObjectName("muted")
        self._unit.setFixedWidth(57)
        self._value.setFixedWidth(84)
        self.pin = QToolButton()
        self.pin.setObjectName("pin")
        self.pin.setCheckable(True)
        self.pin.clicked.connect(self._pin_clicked)
        self.fold = QToolButton()
        self.fold.setObjectName("pin")
        self.fold.setCheckable(True)
        self.fold.setText(tr("why"))
        self.fold.setAccessibleName(f"Why {evidence.name}")
        self.fold.toggled.connect(self._fold)
        row.addWidget(self._name, 1)
        row.addWidget(self.entry if change else self._value)
        row.addWidget(self._unit)
        row.addWidget(self.pin)
        row.addWidget(self.fold)
        column.addLayout(row)
        self._fault = Label()
        self._fault.setObjectName("error")
        self._fault.setWordWrap(True)
        self._fault.hide()
        column.addWidget(self._fault)
        self._why = Label(rich=True)
        self._why.setWordWrap(True)
        self._why.setTextFormat(Qt.TextFormat.RichText)
        self._why.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self._why.setContentsMargins(10, 2, 0, 6)
        self._why.hide()
        column.addWidget(self._why)
        (self._value if change else self.entry).setVisible(False)
        for button, width in ((self.pin, 20), (self.fold, 30)):
            button.setFixedWidth(width)
            keep = button.sizePolicy()
            keep.setRetainSizeWhenHidden(bool(evidence.formula or evidence.typable or change is None))
            button.setSizePolicy(keep)
        self.pin.setVisible(evidence.typable and change is not None)

    def help_page(self) -> tuple[str, str]:
        """The number with its reasons, for the help."""
        name = tr(self._evidence.name)
        return name[:1].upper() + name[1:], evidence_words(self._evidence, self._system)

    def show_evidence(self, evidence: Evidence, system: System) -> None:
        self._evidence, self._system = evidence, system
        shown = show(evidence.number, evidence.unit, system)
        self._name.setText(_label(evidence, self._theme))
        self.entry.present(shown.number)
        self._value.setText(shown.number)
        self._unit.setText(shown.unit)
        self.pin.setChecked(evidence.pinned)
        self.pin.setIcon(icon("pinned" if evidence.pinned else "pin", self._theme, "accent", 15))
        word = "Let it be proposed again" if evidence.pinned else "Pin this number"
        self.pin.setToolTip(word)
        self.pin.setAccessibleName(f"{word}: {evidence.name}")
        self.fold.setVisible(bool(evidence.formula or evidence.limits or evidence.note))
        self._why.setText(evidence_html(evidence, system, self._theme))

    def allow_empty(self, allowed: bool) -> None:
        """Whether nothing typed is an answer."""
        self._empty_allowed = allowed

    def _typed(self, text: str) -> None:
        if self._empty_allowed and not text.strip():
            self._apply(None)
            return
        try:
            number = parse(text, self._evidence.unit, self._system)
        except ToreumaError as error:
            self._refuse(f"{error.what}; {error.cure}")
            return
        self._apply(number)

    def _pin_clicked(self, checked: bool) -> None:
        self.entry.reset()
        self._apply(self._evidence.number if checked else None)

    def _apply(self, number: float | None) -> None:
        if self._change is None:
            return
        error = self._change(number)
        if error is not None:
            self._refuse(f"{error.what}; {error.cure}")
            return
        self._fault.hide()
        self.entry.accept()

    def _refuse(self, text: str) -> None:
        self.entry.refuse()
        self._fault.setText(text)
        self._fault.show()
        self.folded.emit()

    def _fold(self, opened: bool) -> None:
        self._why.setVisible(opened)
        self.folded.emit()


def evidence_words(evidence: Evidence, system: System) -> str:
    """Formula, inputs, limits and source of a number as lines of text."""
    lines = [f"Measured {evidence.measured_on}."] if evidence.measured_on else []
    lines += [f"`{evidence.formula}`"] if evidence.formula else []
    lines += [f"- {one.label} {one.symbol} = {show(one.number, one.unit, system)}" for one in evidence.inputs]
    lines += [
        f"- limit {one.label}: {show(one.number, one.unit, system)}{' (decides)' if one.bit else ''}"
        for one in evidence.limits
    ]
    lines += [one for one in (evidence.note, f"Source: {evidence.source}" if evidence.source else "") if one]
    return "\n\n".join(lines) or "Typed by you; nothing is computed for it."


def _label(evidence: Evidence, theme: Theme) -> str:
    name = tr(evidence.name)
    text = escape(name[0].upper() + name[1:])
    if not evidence.measured_on:
        return text
    return f"{text}<br><span style='font-size:11px; color:{theme.colour('ink').name()}'>{evidence.measured_on}</span>"


def evidence_html(evidence: Evidence, system: System, theme: Theme) -> str:
    """Formula, inputs, limits and source of a number, ready to print."""
    muted, accent = theme.colour("muted").name(), theme.colour("accent").name()
    lines = []
    if evidence.pinned and evidence.proposed is not None:
        lines.append(f"<b>Pinned.</b> Proposed: {show(evidence.proposed, evidence.unit, system)}")
    if evidence.formula:
        lines.append(f"<i>{escape(evidence.formula)}</i>")
    for given in evidence.inputs:
        lines.append(
            f"<span style='color:{muted}'>{escape(given.label)}</span> {escape(given.symbol)} = "
            f"{show(given.number, given.unit, system)}"
        )
    for limit in evidence.limits:
        text = f"limit {escape(limit.label)}: {show(limit.number, limit.unit, system)}"
        lines.append(
            f"<b style='color:{accent}'>{text} — decides</b>" if limit.bit and len(evidence.limits) > 1 else text
        )
    if evidence.note:
        lines.append(escape(evidence.note))
    if evidence.source:
        lines.append(f"<span style='color:{muted}'>Source: {escape(evidence.source)}</span>")
    return "<br>".join(lines)
