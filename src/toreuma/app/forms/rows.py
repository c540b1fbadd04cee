"""A column of number rows, texts and findings that is rebuilt only when its structure changes."""

from collections.abc import Callable, Iterable
from typing import Any

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QWidget

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.fields import typed_evidence
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.label import Label
from toreuma.app.forms.number import NumberRow
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.kinds.field import Field
from toreuma.core.model import Job

__all__ = ["RowColumn", "narrow_box"]

Change = Callable[[float | None], ToreumaError | None]


def narrow_box() -> QComboBox:
    """A list to choose from that never widens its panel, however long its words are."""
    box = QComboBox()
    box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
    box.setMinimumContentsLength(10)
    return box


class RowColumn(WaitsUnseen, ScrollColumn):
    """Subclasses fill it in `_fill`: `start` clears it when its key is new, rows are then made on first use."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.session, self.theme = session, theme
        self.rows: dict[str, NumberRow] = {}
        self.choices: dict[str, QComboBox] = {}
        self.lines: dict[str, QLineEdit] = {}
        self.key: tuple[object, ...] = ()
        self.texts: dict[str, QLabel] = {}
        self._soon = QTimer(self, singleShot=True, interval=0)
        self._soon.timeout.connect(self.refresh)
        for signal in (session.selection_changed, session.job_changed):
            signal.connect(self.refresh)
        for signal in (session.outcome_changed, session.order_changed, session.proof_changed):
            signal.connect(self._soon.start)  # after section and ribbon, which are drawn first

    def set_theme(self, theme: Theme) -> None:
        self.theme, self.key = theme, ()
        self.refresh()

    def refresh(self) -> None:
        super().refresh()
        if not self._stale:
            self.settle()

    def start(self, key: tuple[object, ...]) -> bool:
        """Clear the column when ``key`` is new; tells whether it has to be filled."""
        key = (self.theme.name, *key)
        if key == self.key:
            return False
        self.key = key
        self.rows, self.texts, self.choices, self.lines = {}, {}, {}, {}
        self.clear()
        return True

    def add(self, widget: QWidget) -> None:
        self.column.addWidget(widget)

    def heading(self, text: str) -> None:
        self.add(heading(text))

    def note(self, text: str) -> None:
        label = Label(tr(text))
        label.setObjectName("muted")
        label.setWordWrap(True)
        self.add(label)

    def text(self, key: str, name: str, text: str) -> None:
        """Put text into a label kept under ``key``, made on first use."""
        if key not in self.texts:
            label = Label()
            label.setObjectName(name)
            label.setWordWrap(True)
            self.texts[key] = label
            self.add(label)
        self.texts[key].setText(tr(text) if name == "title" else text)

    def row(self, key: str, evidence: Evidence, change: Change | None = None) -> None:
        if key not in self.rows:
            self.rows[key] = NumberRow(evidence, self.theme, change)
            self.rows[key].folded.connect(self.settle)
            self.add(self.rows[key])
        self.rows[key].show_evidence(evidence, self.session.system)

    def typed(self, key: str, field: Field, value: float | None, change: Callable[[Job, float | None], Job]) -> None:
        """A field the person types; an empty one shows what stands in for it."""
        self.row(
            key,
            typed_evidence(field, value if value is not None else float("nan")),
            lambda number: self.session.attempt(lambda job: change(job, number)),
        )
        self.rows[key].allow_empty(bool(field.empty))
        self.rows[key].entry.setPlaceholderText(tr(field.empty))
        if value is None:
            self.rows[key].entry.present("")

    def line(self, key: str, label: str, text: str, change: Callable[[Job, str], Job]) -> None:
        """A field of plain words; what stands after a colon in the label is shown while it is empty."""
        if key not in self.lines:
            short, _, hint = label.partition(": ")
            entry = QLineEdit()
            entry.setAccessibleName(short)
            entry.setPlaceholderText(tr(hint))
            entry.editingFinished.connect(lambda: self._worded(entry, change))
            self.lines[key] = entry
            self.labelled(short, entry)
        if not self.lines[key].hasFocus():
            self.lines[key].setText(text)

    def labelled(self, label: str, widget: QWidget) -> None:
        """A widget with its label in front."""
        row = QHBoxLayout()
        row.setContentsMargins(0, 2, 0, 2)
        name = Label(tr(label))
        name.setObjectName("muted")
        row.addWidget(name)
        row.addWidget(widget, 1)
        holder = QWidget()
        holder.setLayout(row)
        self.add(holder)

    def _worded(self, entry: QLineEdit, change: Callable[[Job, str], Job]) -> None:
        if not entry.isModified():
            return
        entry.setModified(False)
        error = self.session.attempt(lambda job: change(job, entry.text().strip()))
        if error is not None:
            self.session.message.emit("error", f"{error.where}: {error.what}; {error.cure}")

    def choice(
        self, key: str, label: str, options: Iterable[tuple[str, Any]], now: Any, change: Callable[[Job, Any], Job]
    ) -> None:
        """A choice among few; ``options`` are (words, value)."""
        if key not in self.choices:
            box = narrow_box()
            box.setAccessibleName(label)
            for words, value in options:
                box.addItem(tr(words), value)
            box.activated.connect(lambda index: self._chosen(key, box.itemData(index), change))
            self.choices[key] = box
            self.labelled(label, box)
        box = self.choices[key]
        box.setCurrentIndex(max(box.findData(now), 0))

    def _chosen(self, key: str, value: Any, change: Callable[[Job, Any], Job]) -> None:
        error = self.session.attempt(lambda job: change(job, value))
        if error is not None:
            self.session.message.emit("error", str(error))
            self.key = ()
            self.refresh()

    def buttons(self, entries: Iterable[tuple[str, Callable[[], object]]], columns: int = 2) -> None:
        """Plain buttons, a few to a row."""
        row: QHBoxLayout | None = None
        for index, (text, run) in enumerate(entries):
            if index % columns == 0:
                row = QHBoxLayout()
                row.setContentsMargins(0, 1, 0, 1)
                holder = QWidget()
                holder.setLayout(row)
                self.add(holder)
            button = QPushButton(tr(text))
            button.clicked.connect(lambda _=False, r=run: r())
            assert row is not None
            row.addWidget(button)

    def findings(self, findings: tuple[Finding, ...]) -> None:
        if findings:
            self.add(heading("Findings"))
        for finding in findings:
            self.add(FindingCard(finding, self.session, self.theme))

    def end(self) -> None:
        self.column.addStretch(1)

    @staticmethod
    def finding_key(findings: tuple[Finding, ...]) -> tuple[str, ...]:
        return tuple(finding.what for finding in findings)
