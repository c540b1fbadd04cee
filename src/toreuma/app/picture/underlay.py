"""A picture of a paper drawing behind the section, placed and scaled by two clicks and a length."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QImage, QPainter, QPen

from toreuma.app.picture.view import View
from toreuma.app.theme import Theme

__all__ = ["Underlay"]

SEEN = 0.45


class Underlay:
    """The first click says where the axis meets the front face, the second one another place a known length away.

    Until both are known it fills the window.
    """

    def __init__(self, image: QImage) -> None:
        self._image = image
        self.clicks: list[QPointF] = []
        self._origin = QPointF()
        self._mm_of_px = 0.0

    @property
    def placed(self) -> bool:
        return self._mm_of_px > 0

    @property
    def asks(self) -> str:
        """What the person is to do next."""
        if self.placed:
            return ""
        steps = ("Click where the axis meets the front face on the picture.",
                 "Click another place whose distance from there you know.",
                 "Type that distance.")  # fmt: skip
        return steps[len(self.clicks)]

    def click(self, at: QPointF, room: QRectF) -> bool:
        """A click on the picture as it fills the window; tells whether the length is wanted now."""
        frame = self._filling(room)
        self.clicks.append((at - frame.topLeft()) * (self._image.width() / frame.width()))
        return len(self.clicks) == 2

    def scale(self, length_mm: float) -> bool:
        """Both places lie so far apart; False where they are the same place."""
        one, other = self.clicks
        apart = math.hypot(other.x() - one.x(), other.y() - one.y())
        if apart < 2 or length_mm <= 0:
            self.clicks = []
            return False
        self._origin, self._mm_of_px = one, length_mm / apart
        return True

    def _filling(self, room: QRectF) -> QRectF:
        factor = min(room.width() / self._image.width(), room.height() / self._image.height())
        wide, high = factor * self._image.width(), factor * self._image.height()
        return QRectF(room.center().x() - wide / 2, room.center().y() - high / 2, wide, high)

    def paint(self, painter: QPainter, view: View, room: QRectF, theme: Theme) -> None:
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setOpacity(SEEN if self.placed else 0.9)
        frame = self._filling(room)
        if self.placed:
            factor = view.scale * self._mm_of_px
            corner = view.point(0.0, 0.0) - self._origin * factor
            frame = QRectF(corner.x(), corner.y(), factor * self._image.width(), factor * self._image.height())
        painter.drawImage(frame, self._image)
        painter.restore()
        if not self.placed:
            painter.setPen(QPen(theme.colour("beyond"), 2))
            for one in self.clicks:
                at = frame.topLeft() + one * (frame.width() / self._image.width())
                painter.drawLine(at - QPointF(8, 0), at + QPointF(8, 0))
                painter.drawLine(at - QPointF(0, 8), at + QPointF(0, 8))
            painter.setPen(theme.colour("ink"))
            painter.setFont(theme.text_font(bold=True))
            words = QRectF(room.left(), room.top(), room.width(), 26)
            painter.fillRect(words, theme.colour("accent_soft"))
            painter.drawText(words, Qt.AlignmentFlag.AlignCenter, self.asks)
