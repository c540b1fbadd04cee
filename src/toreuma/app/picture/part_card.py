"""A job as a small drawing with a few words: something to choose."""

from dataclasses import dataclass

from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QContextMenuEvent, QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.forms.label import plain_tip
from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.core.geometry.region import Region

__all__ = ["CardText", "PartCard", "draw_part"]


@dataclass(frozen=True)
class CardText:
    """``title`` stands below the drawing, ``lines`` muted below that; ``mark`` is a state, a word in its corner."""

    title: str
    lines: tuple[str, ...] = ()
    mark: str = ""


def draw_part(painter: QPainter, region: Region, room: QRectF, theme: Theme) -> None:
    """A part's section as large as the room allows, with its axis."""
    if region.is_empty or room.height() < 8:
        return
    z0, _, z1, r = region.bounds
    view = View.fitting(z0, z1, r, room)
    painter.setPen(QPen(theme.colour("part_edge"), 1.1))
    painter.setBrush(theme.colour("part_fill"))
    for flip in (False, True):
        painter.drawPath(view.path(region, flip))
    painter.setPen(QPen(theme.colour("axis"), 0.8, Qt.PenStyle.DashDotLine))
    left, right = view.point(z0, 0).x() - 5, view.point(z1, 0).x() + 5
    painter.drawLine(QPointF(left, view.origin.y()), QPointF(right, view.origin.y()))


class PartCard(QWidget):
    """Clicked, or chosen by Enter or the space bar."""

    chosen = Signal()
    asked = Signal(QPoint)
    """A menu is wanted at a place of the screen."""

    def __init__(self, theme: Theme, text: CardText, size: QSize) -> None:
        super().__init__()
        self._theme, self._text = theme, text
        self._region: Region | None = None
        self._over = False
        self._size = size
        self.setFixedSize(size)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(", ".join((text.title, *text.lines, text.mark)).strip(", "))
        self.setToolTip(plain_tip("\n".join((text.title, *text.lines))))

    def sizeHint(self) -> QSize:
        return self._size

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_part(self, region: Region | None) -> None:
        """The half section of the part, as soon as it is known."""
        self._region = region
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, frame = self._theme, QRectF(self.rect()).adjusted(1, 1, -1, -1)
        lit = self._over or self.hasFocus()
        painter.setPen(QPen(theme.colour("accent" if lit else "line"), 1.6 if self.hasFocus() else 1.0))
        painter.setBrush(theme.colour("raised"))
        painter.drawRoundedRect(frame, 4, 4)
        words = 18.0 + 15.0 * len(self._text.lines)
        room = frame.adjusted(12, 24 if self._text.mark else 9, -12, -words - 8)
        if self._region is not None:
            draw_part(painter, self._region, room, theme)
        at = QRectF(frame.left() + 10, frame.bottom() - words - 4, frame.width() - 20, 18)
        self._line(painter, at, self._text.title, "ink", 13)
        for line in self._text.lines:
            at = at.translated(0, 16 if at.height() > 16 else 15)
            at.setHeight(16)
            self._line(painter, at, line, "muted", 11)
        if self._text.mark:
            painter.setFont(theme.text_font(11))
            painter.setPen(theme.colour("ok" if self._text.mark.startswith("finished") else "warning"))
            painter.drawText(frame.adjusted(8, 5, -8, 0), Qt.AlignmentFlag.AlignRight, self._text.mark)
        painter.end()

    def _line(self, painter: QPainter, at: QRectF, text: str, colour: str, px: int) -> None:
        painter.setFont(self._theme.text_font(px))
        painter.setPen(self._theme.colour(colour))
        short = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(at.width()))
        painter.drawText(at, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, short)

    def enterEvent(self, event: object) -> None:
        self._over = True
        self.update()

    def leaveEvent(self, event: object) -> None:
        self._over = False
        self.update()

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton and self.rect().contains(event.position().toPoint()):
            self.chosen.emit()

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        self.asked.emit(event.globalPos())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit()
        else:
            super().keyPressEvent(event)
