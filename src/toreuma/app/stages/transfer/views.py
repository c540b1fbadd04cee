"""The pictures of the transfer stage: the hand-over, the whole run in section, the whole run in space."""

from pathlib import Path

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QFileDialog, QHBoxLayout, QToolButton, QWidget

from toreuma.app.session import Session
from toreuma.app.stages.transfer.run_view import RunView
from toreuma.app.stages.transfer.space_view import SpaceView
from toreuma.app.theme import Theme
from toreuma.app.words import tr

__all__ = ["HAND_OVER", "VIEWS", "TransferViews"]

HAND_OVER = "hand-over"
VIEWS = ((HAND_OVER, "Hand-over"), ("run", "Whole run"), ("space", "In space"))


class TransferViews(QWidget):
    """The bar that chooses; ``shown`` is what is chosen, None for the hand-over, which the section shows."""

    chosen = Signal(str)

    def __init__(self, session: Session, theme: Theme, canvas: QWidget) -> None:
        super().__init__()
        self._session, self._canvas = session, canvas
        self.run = RunView(session, theme)
        self.space = SpaceView(session, theme)
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 5, 10, 5)
        self.buttons = QButtonGroup(self)
        for key, label in VIEWS:
            button = _button(label, checkable=True)
            button.setObjectName(key)
            button.clicked.connect(lambda _=False, k=key: self.choose(k))
            self.buttons.addButton(button)
            row.addWidget(button)
        row.addStretch(1)
        self.near = _button("At the cut", checkable=True)
        self.near.setToolTip(tr("Stay where something is cut"))
        self.near.toggled.connect(self._follow)
        row.addWidget(self.near)
        self.save = _button("Picture…")
        self.save.setToolTip(tr("Save what is shown as a picture"))
        self.save.clicked.connect(self._ask_where)
        row.addWidget(self.save)
        self.now = HAND_OVER
        self.choose(HAND_OVER)
        session.outcome_changed.connect(self._offer)

    @property
    def shown(self) -> RunView | SpaceView | None:
        views: dict[str, RunView | SpaceView] = {"run": self.run, "space": self.space}
        return views.get(self.now)

    def set_theme(self, theme: Theme) -> None:
        self.run.set_theme(theme)
        self.space.set_theme(theme)

    def _offer(self) -> None:
        """A part that stays at one spindle has no run of both."""
        outcome = self._session.outcome
        both = outcome is not None and outcome.transfer is not None and len(outcome.job.setups) > 1
        for button in self.buttons.buttons():
            button.setEnabled(both or button.objectName() == HAND_OVER)
            button.setToolTip("" if button.isEnabled() else "For a part that a second spindle takes over")
        if not both and self.now != HAND_OVER and outcome is not None:
            self.choose(HAND_OVER)

    def choose(self, view: str) -> None:
        """Show one of the pictures."""
        self.now = view
        for button in self.buttons.buttons():
            button.setChecked(button.objectName() == view)
        self.near.setEnabled(view != HAND_OVER)
        self.chosen.emit(view)

    def _follow(self, on: bool) -> None:
        self.run.follow(on)
        self.space.follow(on)

    def save_picture(self, path: Path) -> bool:
        """Write what is shown as PNG; tells whether it was written."""
        return (self.shown or self._canvas).grab().save(str(path), "PNG")

    def _ask_where(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Save the picture", f"{self.now}.png", "PNG (*.png)")
        if name and not self.save_picture(Path(name)):
            self._session.message.emit(
                "error", f"{Path(name).name}: the picture cannot be written; choose another folder"
            )


def _button(words: str, checkable: bool = False) -> QToolButton:
    button = QToolButton()
    button.setText(tr(words))
    button.setCheckable(checkable)
    return button
