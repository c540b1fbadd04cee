"""Play and speed, at the foot of a ribbon of time."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QToolButton, QWidget

from toreuma.app.theme import Theme, icon
from toreuma.app.time.player import SPEEDS, Player
from toreuma.app.words import tr

__all__ = ["BUTTON_PX", "PlayBar"]

BUTTON_PX = 24


class PlayBar(QWidget):
    """Shows what its player does, and tells it what to do."""

    def __init__(self, player: Player, theme: Theme, parent: QWidget) -> None:
        super().__init__(parent)
        self._player, self._theme = player, theme
        self.play = QToolButton()
        self.play.setAccessibleName(tr("Play or stop"))
        self.play.setToolTip(tr("Play the program (Space)"))
        self.play.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.play.setFixedSize(BUTTON_PX + 2, BUTTON_PX)
        self.play.clicked.connect(player.toggle)
        self.speeds = QComboBox()
        self.speeds.setAccessibleName(tr("Speed of playing"))
        self.speeds.setToolTip(tr("Seconds of the program in one second"))
        self.speeds.setStyleSheet("padding: 0 0 0 5px; font-size: 11px;")
        self.speeds.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.speeds.setFixedHeight(BUTTON_PX)
        for speed in SPEEDS:
            self.speeds.addItem(f"×{speed}", speed)
        self.speeds.activated.connect(lambda _: player.set_speed(self.speeds.currentData()))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        row.addWidget(self.play)
        row.addWidget(self.speeds, 1)
        player.changed.connect(self.show_player)
        self.show_player()

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.show_player()

    def show_player(self) -> None:
        self.play.setIcon(icon("stop" if self._player.playing else "play", self._theme))
        self.speeds.setCurrentIndex(self.speeds.findData(self._player.speed))

    def obey(self, event: QKeyEvent) -> bool:
        """Space plays, plus and minus change the speed; tells whether the key was one of them."""
        key = Qt.Key(event.key())
        if key == Qt.Key.Key_Space:
            self._player.toggle()
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Minus):
            self._player.faster(1 if key == Qt.Key.Key_Plus else -1)
        else:
            return False
        return True
