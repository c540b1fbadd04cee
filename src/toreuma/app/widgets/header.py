"""The header: what is open, the stages, units, theme, search."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
)

from toreuma.app.session import Session
from toreuma.app.theme import Theme, icon

__all__ = ["STAGES", "Header"]

STAGES: tuple[tuple[str, str], ...] = (
    ("part", "Part"),
    ("stock", "Stock"),
    ("hold", "Hold"),
    ("tools", "Tools"),
    ("operations", "Operations"),
    ("transfer", "Transfer"),
    ("proof", "Proof"),
    ("program", "Program"),
    ("bench", "Bench"),
)


class Header(QFrame):
    """Emits what was asked for; the window does it."""

    stage_chosen = Signal(str)
    asked = Signal(str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("header")
        self._session = session
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 10, 0)
        row.setSpacing(4)
        names = QVBoxLayout()
        names.setSpacing(0)
        names.setContentsMargins(0, 5, 0, 5)
        self.title = QLabel()
        self.title.setObjectName("title")
        self.facts = QLabel()
        self.facts.setObjectName("muted")
        for label in (self.title, self.facts):
            label.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
            names.addWidget(label)
        row.addLayout(names, 1)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for number, (stage, label) in enumerate(STAGES, 1):
            button = QPushButton(label)
            button.setObjectName("stage")
            button.setCheckable(True)
            button.setToolTip(f"{label} (Ctrl+{number})")
            button.clicked.connect(lambda _=False, s=stage: self.stage_chosen.emit(s))
            self._group.addButton(button)
            self.buttons[stage] = button
            row.addWidget(button)
        row.addSpacing(10)
        right = QHBoxLayout()
        right.setSpacing(4)
        right.addStretch(1)
        self._tools: dict[str, QToolButton] = {}
        for name, tip in (
            ("undo", "Undo (Ctrl+Z)"),
            ("redo", "Redo (Ctrl+Shift+Z)"),
            ("open", "Open (Ctrl+O)"),
            ("save", "Save (Ctrl+S)"),
            ("theme", "Light or dark (Ctrl+T)"),
            ("find", "Find (Ctrl+K)"),
        ):
            button = QToolButton()
            button.setToolTip(tip)
            button.setAccessibleName(tip)
            button.clicked.connect(lambda _=False, n=name: self.asked.emit(n))
            self._tools[name] = button
            right.addWidget(button)
        self.units = QToolButton()
        self.units.setToolTip("Millimetre or inch (Ctrl+U)")
        self.units.setFixedWidth(92)
        self.units.clicked.connect(lambda: self.asked.emit("units"))
        right.addWidget(self.units)
        row.addLayout(right, 1)
        self.set_theme(theme)
        session.job_changed.connect(self.refresh)
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        for name, button in self._tools.items():
            button.setIcon(icon(name, theme))

    def refresh(self) -> None:
        job, session = self._session.job, self._session
        self.title.setText(f"{job.name}{' •' if session.modified else ''}" if job else "Toreuma")
        self.title.setToolTip("Changed since it was saved" if session.modified else "")
        self.facts.setText(f"{job.stock.material.name}   {job.machine.name}" if job else "")
        self.units.setText("inch, X is Ø" if session.system == "inch" else "mm, X is Ø")
        self.units.setAccessibleName(f"Units: {session.system}; X as diameter")
        self._tools["undo"].setEnabled(session.history.can_go_back)
        self._tools["redo"].setEnabled(session.history.can_go_forth)
        self._tools["save"].setEnabled(job is not None)
        for button in self.buttons.values():
            button.setEnabled(job is not None)

    def show_stage(self, stage: str) -> None:
        self.buttons[stage].setChecked(True)
