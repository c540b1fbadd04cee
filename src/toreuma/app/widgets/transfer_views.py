"""The pictures of the transfer stage: the hand-over, the whole run in section, the whole run in space."""

from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QButtonGroup, QFileDialog, QHBoxLayout, QStackedWidget, QToolButton, QVBoxLayout, QWidget

from toreuma.app.canvas.run_view import RunView
from toreuma.app.session import Session
from toreuma.app.space.view import SpaceView
from toreuma.app.theme import Theme

__all__ = ["VIEWS", "TransferViews"]

VIEWS = (("hand-over", "Hand-over"), ("run", "Whole run"), ("space", "In space"))


class TransferViews(QWidget):
    """Its bar chooses; the canvas given shows the hand-over. Other stages hide the bar."""

    chosen = Signal(str)

    def __init__(self, session: Session, theme: Theme, canvas: QWidget) -> None:
        super().__init__()
        self._session = session
        self.run = RunView(session, theme)
        self.space = SpaceView(session, theme)
        self._pages: dict[str, QWidget] = {"hand-over": canvas, "run": self.run, "space": self.space}
        self.stack = QStackedWidget()
        self.bar = QWidget()
        self.bar.setObjectName("panel")
        row = QHBoxLayout(self.bar)
        row.setContentsMargins(10, 5, 10, 5)
        self.buttons = QButtonGroup(self)
        for key, label in VIEWS:
            self.stack.addWidget(self._pages[key])
            button = QToolButton(text=label, checkable=True)
            button.setObjectName(key)
            button.clicked.connect(lambda _=False, k=key: self.choose(k))
            self.buttons.addButton(button)
            row.addWidget(button)
        row.addStretch(1)
        self.near = QToolButton(text="At the cut", checkable=True)
        self.near.setToolTip("Stay where something is cut")
        self.near.toggled.connect(self._follow)
        row.addWidget(self.near)
        self.save = QToolButton(text="Picture…")
        self.save.setToolTip("Save what is shown as a picture")
        self.save.clicked.connect(self._ask_where)
        row.addWidget(self.save)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.bar)
        column.addWidget(self.stack, 1)
        self.now = "hand-over"
        self.choose("hand-over")
        session.outcome_changed.connect(self._offer)
        self.bar.hide()

    def set_theme(self, theme: Theme) -> None:
        self.run.set_theme(theme)
        self.space.set_theme(theme)

    def _offer(self) -> None:
        """A part that stays at one spindle has no run of both."""
        outcome = self._session.outcome
        both = outcome is not None and outcome.transfer is not None and len(outcome.job.setups) > 1
        for button in self.buttons.buttons():
            button.setEnabled(both or button.objectName() == "hand-over")
            button.setToolTip("" if button.isEnabled() else "For a part that a second spindle takes over")
        if not both and self.now != "hand-over" and outcome is not None:
            self.choose("hand-over")

    def set_stage(self, stage: str) -> None:
        """The transfer stage shows what was chosen there, others the section."""
        self.bar.setVisible(stage == "transfer")
        self.stack.setCurrentWidget(self._pages[self.now if stage == "transfer" else "hand-over"])

    def choose(self, view: str) -> None:
        """Show one of the pictures."""
        self.now = view
        for button in self.buttons.buttons():
            button.setChecked(button.objectName() == view)
        self.stack.setCurrentWidget(self._pages[view])
        self.near.setEnabled(view != "hand-over")
        self.chosen.emit(view)

    def _follow(self, on: bool) -> None:
        self.run.follow(on)
        self.space.follow(on)

    def fit(self) -> None:
        """Fit the picture that is shown."""
        self._pages[self.now].fit()  # type: ignore[attr-defined]

    def save_picture(self, path: Path) -> bool:
        """Write what is shown as PNG; tells whether it was written."""
        return self.stack.currentWidget().grab().save(str(path), "PNG")

    def _ask_where(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Save the picture", f"{self.now}.png", "PNG (*.png)")
        if name and not self.save_picture(Path(name)):
            self._session.message.emit(
                "error", f"{Path(name).name}: the picture cannot be written; choose another folder"
            )
