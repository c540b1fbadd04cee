"""The whole machine in section at a moment of the run: both holds, the metal in them, and every tool in its place."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.prove.run import Stand
from toreuma.core.prove.scenery import Held, Sight

__all__ = ["RunView", "doing_words"]

MARGIN_PX = 26
NOT_YET = "The run is shown when both channels are proved together"


class RunView(QWidget):
    """Wheel zooms at the pointer, dragging moves, F fits."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._view: View | None = None
        self.follows = False
        self._grabbed: QPointF | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Section of the whole machine"))
        session.run_changed.connect(self.update)
        session.proof_changed.connect(self.fit)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def fit(self) -> None:
        """Show everything."""
        self._view = None
        self.update()

    def follow(self, on: bool) -> None:
        """Stay where something is cut, or show everything."""
        self.follows = on
        self.fit()

    def _room(self) -> QRectF:
        return QRectF(self.rect()).adjusted(MARGIN_PX, 34 + MARGIN_PX, -MARGIN_PX, -MARGIN_PX)

    def _fitted(self) -> View:
        pair = self._session.pair
        room = self._room()
        if pair is None:
            return View.fitting(0, 100, 50, room)
        first, second = pair.scenery.at(0.0).holds
        r = 1.35 * max(float(first.body.bounds[3]), float(second.body.bounds[3]))
        return View.fitting(float(first.body.bounds[0]), float(second.body.bounds[2]), r, room)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, theme = QPainter(self), self._theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.colour("paper"))
        pair = self._session.pair
        if pair is None or not pair.scenery.pieces:
            painter.setPen(theme.colour("muted"))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, NOT_YET)
            return
        if self.follows:
            z, r = pair.scenery.focus(self._session.run_s)
            self._view = View.fitting(z - r, z + r, r, self._room())
        elif self._view is None:
            self._view = self._fitted()
        draw = Painter(painter, self._view, theme, self._session.system, QRectF(self.rect()))
        moment = pair.scenery.at(self._session.run_s)
        for held in moment.holds:
            self._hold(draw, held)
        draw.axis()
        for stand in moment.stands:
            self._tool(draw, stand)
        for held in moment.holds:
            self._name(draw, held)
        draw.scale_bar(QPointF(self.width() - 24, self.height() - 22))
        self._doing(draw, moment)

    def _hold(self, draw: Painter, held: Held) -> None:
        for flip in (False, True):
            draw.region(held.body, "chuck_fill", "jaw_edge", flip)
            draw.region(held.jaws, "jaw_fill", "jaw_edge", flip)
            if not held.metal.is_empty:
                draw.region(held.metal, "stock_fill", "stock_edge", flip)
        if not held.metal.is_empty:
            draw.p.setPen(Qt.PenStyle.NoPen)
            draw.p.setBrush(draw.hatch("stock_edge", 0.6))
            draw.p.drawPath(draw.view.path(held.metal))

    def _tool(self, draw: Painter, stand: Stand) -> None:
        draw.region(stand.body, "tool_body", "jaw_edge")
        draw.region(stand.cutting, "insert", "part_edge")
        at = draw.view.point(*stand.tip)
        if self.rect().contains(at.toPoint()):
            draw.p.setFont(draw.theme.number_font(10))
            draw.caption(at + QPointF(8, 18 if stand.carrier.side == "below" else -10), stand.tool.id, "accent")

    def _name(self, draw: Painter, held: Held) -> None:
        """What the hold is, and whether it is open; the word stands above it."""
        low, _, high, r = held.body.bounds
        name = "main spindle" if held.where == "main" else "second spindle"
        state = "open" if held.is_open else f"holds part {held.part + 1}" if held.part >= 0 else "holds the bar"
        if held.metal.is_empty:
            state = "open, empty" if held.is_open else "empty"
        draw.p.setFont(draw.theme.text_font(11))
        at = draw.view.point((low + high) / 2, r)
        wide = draw.p.fontMetrics().horizontalAdvance(f"{name}, {state}")
        x = min(max(at.x() - wide / 2, 8), self.width() - wide - 8)
        draw.caption(QPointF(x, max(at.y() - 8, 62)), f"{name}, {state}", "ink")

    def _doing(self, draw: Painter, moment: Sight) -> None:
        draw.p.setFont(draw.theme.text_font(11))
        for number, words in enumerate(doing_words(self._session, moment.seconds)):
            draw.caption(QPointF(12, self.height() - 30 + 16 * number), words, "ink")

    # Pointer and keys

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._view = None
        super().resizeEvent(event)

    def wheelEvent(self, event: QWheelEvent) -> None:
        if self._view is not None:
            self._view = self._view.zoomed(1.0015 ** event.angleDelta().y(), event.position())
            self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._grabbed = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grabbed is not None and self._view is not None:
            self._view = self._view.moved(event.position() - self._grabbed)
            self._grabbed = event.position()
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._grabbed = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_F:
            self.fit()
        else:
            super().keyPressEvent(event)


def doing_words(session: Session, seconds: float) -> list[str]:
    """What every channel does at a time: the words of its line, or the mark it stands at."""
    pair = session.pair
    if pair is None:
        return []
    found = []
    for channel in pair.texts:
        at = pair.ran.at(channel, seconds)
        if at is None:
            found.append(f"channel {channel} has ended")
        elif at.mark is not None and at.mark.what == "wait":
            found.append(f"channel {channel} waits at W{at.mark.number:.0f}")
        else:
            found.append(f"channel {channel}, line {at.line}:  {pair.line(at.line)}")
    return found
