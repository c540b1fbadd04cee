"""A tool on the part: what it leaves, numbered, and the tool itself where it is tightest."""

from PySide6.QtCore import QPointF, QRectF, Qt

from toreuma.app.picture.paint import Painter
from toreuma.core.advise import ReachView
from toreuma.core.units import show

__all__ = ["paint_reach"]

MARK_PX = 9.0


def paint_reach(draw: Painter, view: ReachView) -> None:
    """Draw over the section."""
    draw.region(view.body, "tool_body", "jaw_edge", alpha=0.6)
    draw.region(view.cutting, "insert", "part_edge", alpha=0.9)
    painter = draw.p
    painter.setPen(draw.pen("beyond", 1.4))
    painter.setBrush(draw.hatch("beyond"))
    painter.drawPath(draw.view.path(view.leftover))
    painter.setFont(draw.theme.number_font(11))
    taken: list[tuple[float, float]] = []
    for number, spot in enumerate(view.spots, 1):
        at = draw.view.point(*spot.at)
        place = at + QPointF(16, -18)
        while any(abs(place.x() - x) < 2 * MARK_PX and abs(place.y() - y) < 2 * MARK_PX for x, y in taken):
            place += QPointF(0, -2.2 * MARK_PX)
        taken.append((place.x(), place.y()))
        painter.setPen(draw.pen("beyond", 1.0))
        painter.drawLine(at, place)
        painter.setBrush(draw.theme.colour("panel"))
        painter.drawEllipse(place, MARK_PX, MARK_PX)
        painter.setPen(draw.theme.colour("ink"))
        painter.drawText(
            QRectF(place.x() - MARK_PX, place.y() - MARK_PX, 2 * MARK_PX, 2 * MARK_PX),
            Qt.AlignmentFlag.AlignCenter,
            str(number),
        )
        if number == 1:
            text = f"{show(spot.area_mm2, 'mm2', draw.system, decimals=2)} left: {spot.reason}"
            width = painter.fontMetrics().horizontalAdvance(text) + 8
            box = QRectF(place.x() + MARK_PX + 3, place.y() - 9, width, 18)
            box.moveRight(min(box.right(), draw.room.right() - 4))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(draw.theme.colour("panel", 0.92))
            painter.drawRoundedRect(box, 2, 2)
            painter.setPen(draw.theme.colour("ink"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
