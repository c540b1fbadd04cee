"""The whole machine in space at a moment of the run, a quarter cut away, as a drawing without perspective."""

from dataclasses import replace

from PySide6.QtCore import QElapsedTimer, QPointF, QRectF, Qt, QTimer
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.picture.space.renderer import Camera, NoSpace, Renderer
from toreuma.app.session import Session
from toreuma.app.stages.transfer.run_view import NOT_YET, doing_words
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.prove.space import Space
from toreuma.engine.pair import PairProof

__all__ = ["SpaceView"]

DEG_PER_PX = 0.35
MOST_UP_DEG = 85.0
STILL_MS = 180
"""A picture that follows another sooner than this is drawn the fast way, and finely once nothing moves."""
CANNOT = "The view in space needs OpenGL 3.3 through EGL (Debian: libegl1, libegl-mesa0, libgl1-mesa-dri). "
LOOKS = ((24.0, 20.0), (0.0, 0.0), (-24.0, 20.0), (24.0, 65.0))
"""Round and up, degrees: from the front on the right, as the section, from the left, from above."""


class SpaceView(QWidget):
    """Dragging turns, dragging with the middle button moves, the wheel zooms, V takes the next usual look, F fits."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._renderer: Renderer | None = None
        self.fault = ""
        self._space: tuple[PairProof, Space] | None = None
        self.camera: Camera | None = None
        self.follows = False
        self._look = 0
        self._grabbed: QPointF | None = None
        self._moving = QElapsedTimer()
        self._settled = QTimer(self, singleShot=True, interval=STILL_MS + 20)
        self._settled.timeout.connect(self.update)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("The whole machine in space"))
        session.run_changed.connect(self._stir)
        session.proof_changed.connect(self.update)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def fit(self) -> None:
        """Show everything, from the usual place."""
        self.camera = None
        self.update()

    @property
    def moving(self) -> bool:
        """Something has moved just now."""
        return self._moving.isValid() and self._moving.elapsed() < STILL_MS

    def _stir(self) -> None:
        """Draw what moves the fast way, and finely once it stands."""
        self._moving.start()
        self._settled.start()
        self.update()

    def release(self) -> None:
        """Let go of all bodies and of what draws them: the window closes."""
        self._space = self._renderer = None

    def follow(self, on: bool) -> None:
        """Stay where something is cut, or show everything."""
        self.follows = on
        self.fit()

    def next_look(self) -> None:
        """The next of the usual directions."""
        if self.camera is not None:
            self._look = (self._look + 1) % len(LOOKS)
            round_deg, up_deg = LOOKS[self._look]
            self.camera = replace(self.camera, round_deg=round_deg, up_deg=up_deg)
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, theme = QPainter(self), self._theme
        pair = self._session.pair
        if pair is None or not pair.scenery.pieces or not self._ready():
            painter.fillRect(self.rect(), theme.colour("paper"))
            painter.setPen(theme.colour("muted"))
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            painter.drawText(QRectF(self.rect()).adjusted(40, 0, -40, 0), flags, self.fault or NOT_YET)
            return
        if self._space is None or self._space[0] is not pair:
            self._space = pair, Space(pair.scenery)
        space = self._space[1]
        if self.camera is None:
            low, high, r = space.reach
            half = max((high - low) / 2 * 1.08, 1.3 * r * self.width() / max(self.height(), 1))
            self.camera = Camera(z=(low + high) / 2, half_mm=half, round_deg=LOOKS[0][0], up_deg=LOOKS[0][1])
            self._look = 0
        if self.follows:
            z, r = pair.scenery.focus(self._session.run_s)
            self.camera = replace(self.camera, z=z, half_mm=r * max(self.width() / max(self.height(), 1), 1.0))
        ratio = self.devicePixelRatioF()
        size = max(int(self.width() * ratio), 1), max(int(self.height() * ratio), 1)
        assert self._renderer is not None
        bodies = space.at(self._session.run_s)
        image = self._renderer.draw(bodies, self.camera, size, theme, fine=not self.moving)
        image.setDevicePixelRatio(ratio)
        painter.drawImage(0, 0, image)
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("ink"))
        for number, words in enumerate(doing_words(self._session, self._session.run_s)):
            painter.drawText(QPointF(12, self.height() - 30 + 16 * number), words)

    def _ready(self) -> bool:
        """Whether something draws in space here."""
        if self._renderer is None and not self.fault:
            try:
                self._renderer = Renderer()
            except NoSpace as error:
                self.fault = CANNOT + f"({error})"
        return self._renderer is not None

    # Pointer and keys

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self.camera is not None:
            half = min(max(self.camera.half_mm * 0.9985 ** event.angleDelta().y(), 2.0), 5000.0)
            moved = (event.position().x() / max(self.width(), 1) - 0.5) * 2 * (self.camera.half_mm - half)
            self.camera = replace(self.camera, half_mm=half, z=self.camera.z + moved)
            self._stir()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._grabbed = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grabbed is None or self.camera is None:
            return
        by = event.position() - self._grabbed
        self._grabbed = event.position()
        if event.buttons() & Qt.MouseButton.MiddleButton:
            unit = 2 * self.camera.half_mm / max(self.width(), 1)
            self.camera = replace(self.camera, z=self.camera.z - by.x() * unit, x=self.camera.x + by.y() * unit)
        else:
            up = min(max(self.camera.up_deg + by.y() * DEG_PER_PX, -MOST_UP_DEG), MOST_UP_DEG)
            self.camera = replace(self.camera, round_deg=self.camera.round_deg - by.x() * DEG_PER_PX, up_deg=up)
        self._stir()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grabbed = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key == Qt.Key.Key_F:
            self.fit()
        elif key == Qt.Key.Key_V:
            self.next_look()
        else:
            super().keyPressEvent(event)
