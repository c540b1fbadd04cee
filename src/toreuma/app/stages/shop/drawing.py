"""A machine or a hold to scale, following what is typed."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.geometry.shop_picture import Piece
from toreuma.core.units import System

__all__ = ["ShopDrawing"]

FILLS = {"machine": "chuck_fill", "hold": "jaw_fill", "bar": "stock_fill", "carrier": "tool_body", "steady": "jaw_fill"}
BROKEN = ("assumed", "reach")
MARGIN_PX, WORDS_PX = 18, 26


class ShopDrawing(QWidget):
    """What is not known is drawn in broken lines."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._pieces: list[Piece] = []
        self._system: System = "mm"
        self.setMinimumHeight(190)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Drawing to scale"))

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_pieces(self, pieces: list[Piece], system: System = "mm") -> None:
        self._pieces, self._system = pieces, system
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self._theme.colour("paper"))
        if self._pieces:
            self._paint(painter)
        painter.end()

    def _view(self, room: QRectF) -> View:
        bounds = [one.region.bounds for one in self._pieces]
        z0, z1 = min(b[0] for b in bounds), max(b[2] for b in bounds)
        high = max(b[3] for b in bounds)
        low = min(-b[3] if one.both else b[1] for one, b in zip(self._pieces, bounds, strict=True))
        scale = min(room.width() / (z1 - z0), room.height() / max(high - low, 1e-3))
        axis = room.center().y() + scale * (high + low) / 2
        return View(scale, (z0 + z1) / 2, QPointF(room.center().x(), axis))

    def _paint(self, painter: QPainter) -> None:
        room = QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX - WORDS_PX)
        view = self._view(room)
        draw = Painter(painter, view, self._theme, self._system, QRectF(self.rect()))
        for one in self._pieces:
            for flip in (False, True) if one.both else (False,):
                pen = QPen(self._theme.colour("jaw_edge" if one.look not in BROKEN else "axis"), 1.2)
                if one.look in BROKEN:
                    pen.setStyle(Qt.PenStyle.DashLine)
                    painter.setBrush(Qt.BrushStyle.NoBrush)
                else:
                    painter.setBrush(self._theme.colour(FILLS[one.look]))
                painter.setPen(pen)
                painter.drawPath(view.path(one.region, flip))
        draw.axis()
        self._words(painter, view)
        draw.scale_bar(QPointF(self.width() - 20, self.height() - 16))

    def _words(self, painter: QPainter, view: View) -> None:
        """Names above what they name, moved aside where two would stand on each other."""
        painter.setFont(self._theme.text_font(11))
        painter.setPen(self._theme.colour("ink"))
        taken: list[QRectF] = []
        for one in self._pieces:
            if not one.label:
                continue
            b = one.region.bounds
            middle, top = view.point((b[0] + b[2]) / 2, b[3]), view.point(0, b[3]).y()
            wide = painter.fontMetrics().horizontalAdvance(one.label) + 6
            at = QRectF(middle.x() - wide / 2, top - 16, wide, 15)
            if one.look in ("bar", "assumed"):
                at.moveTop(view.origin.y() + 2)
            at.moveLeft(min(max(at.left(), 4.0), self.width() - wide - 4.0))
            at.moveTop(max(at.top(), 2.0))
            while any(at.intersects(other) for other in taken):
                at.translate(0, 15)
            taken.append(at)
            painter.drawText(at, Qt.AlignmentFlag.AlignCenter, one.label)
