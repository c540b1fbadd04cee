"""The header: what is open, the stages, units, theme, search."""

from PySide6.QtCore import Signal
from PySide6.QtGui import QFont, QFontMetrics, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QButtonGroup, QFrame, QHBoxLayout, QPushButton, QSizePolicy, QToolButton, QVBoxLayout

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.shell.actions import Actions
from toreuma.app.stages.stage import Stage
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr

__all__ = ["Header"]

NARROW_PX, BESIDE_NAME_PX = 1180, 14
GIVE_WAY = ("undo", "redo", "find", "open")


class Header(QFrame):
    """Emits what was asked for; the window does it."""

    stage_chosen = Signal(str)
    asked = Signal(str)

    def __init__(self, session: Session, theme: Theme, stages: tuple[Stage, ...], actions: Actions) -> None:
        super().__init__()
        self.setObjectName("header")
        self._session, self._stages, self._actions = session, stages, actions
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 10, 0)
        row.setSpacing(4)
        names = QVBoxLayout()
        names.setSpacing(0)
        names.setContentsMargins(0, 5, 0, 5)
        self.title = Label()
        self.title.setObjectName("title")
        self.facts = Label()
        self.facts.setObjectName("muted")
        for label in (self.title, self.facts):
            label.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
            names.addWidget(label)
        row.addLayout(names, 1)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for stage in stages:
            button = QPushButton(tr(stage.label))
            button.setObjectName("stage")
            button.setCheckable(True)
            button.setToolTip(f"{tr(stage.label)} ({stage.shortcut})")
            button.clicked.connect(lambda _=False, s=stage.key: self.stage_chosen.emit(s))
            self._group.addButton(button)
            self.buttons[stage.key] = button
            row.addWidget(button)
        row.addSpacing(10)
        right = QHBoxLayout()
        right.setSpacing(4)
        right.addStretch(1)
        self._tools: dict[str, QToolButton] = {}
        for one in (one for one in actions if one.button):
            small = QToolButton()
            small.setToolTip(one.hint)
            small.setAccessibleName(one.hint)
            small.clicked.connect(lambda _=False, n=one.name: self.asked.emit(n))
            self._tools[one.name] = small
            right.addWidget(small)
        self.units = QToolButton()
        self.units.setToolTip(tr("Millimetre or inch (Ctrl+U)"))
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

    def showEvent(self, event: QShowEvent) -> None:
        """Every stage has room for its name in bold, which it is written in when it is shown."""
        super().showEvent(event)
        for button in self.buttons.values():
            button.ensurePolished()
            bold = QFont(button.font())
            bold.setBold(True)
            button.setMinimumWidth(QFontMetrics(bold).horizontalAdvance(button.text()) + BESIDE_NAME_PX)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In a narrow window what stands in the menus as well gives its room to the name of the job."""
        super().resizeEvent(event)
        for name, button in self._tools.items():
            button.setVisible(event.size().width() >= NARROW_PX or name not in GIVE_WAY)

    def refresh(self) -> None:
        job, session = self._session.job, self._session
        self.title.setText(f"{job.name}{' •' if session.modified else ''}" if job else "Toreuma")
        self.title.setToolTip("Changed since it was saved" if session.modified else "")
        self.facts.setText(f"{job.stock.material.name}   {job.machine.name}" if job else "")
        self.units.setText("inch, X is Ø" if session.system == "inch" else "mm, X is Ø")
        self.units.setAccessibleName(f"Units: {session.system}; X as diameter")
        for name, button in self._tools.items():
            button.setEnabled(self._actions[name].when())
        for stage in self._stages:
            self.buttons[stage.key].setEnabled(stage.is_ready)

    def show_stage(self, stage: str) -> None:
        """Mark a stage as the one that is shown; none for an empty key."""
        self._group.setExclusive(bool(stage))
        for key, button in self.buttons.items():
            button.setChecked(key == stage)
