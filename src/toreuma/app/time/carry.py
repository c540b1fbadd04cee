"""Carrying an operation from one carrier's lane of a ribbon to another's."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from toreuma.app.theme import Theme

__all__ = ["Carried"]

SLACK_PX = 6.0


@dataclass(kw_only=True)
class Carried:
    """A tool's block taken hold of at ``grabbed``; ``lane`` is the carrier it is over, ``fault`` why it cannot go."""

    tool: str
    name: str
    home: int
    block: QRectF
    grabbed: QPointF
    at: QPointF
    lane: int
    fault: str = ""

    @property
    def moving(self) -> bool:
        """It has left its lane."""
        return self.lane != self.home and abs(self.at.y() - self.grabbed.y()) > SLACK_PX

    def paint(self, painter: QPainter, theme: Theme, room: QRectF) -> None:
        """The block under the pointer, and in the lane why it cannot go there."""
        if not self.moving:
            return
        colour = theme.colour("error" if self.fault else "accent")
        painter.setBrush(theme.colour("accent_soft", 0.6))
        painter.setPen(QPen(colour, 1.6, Qt.PenStyle.DashLine))
        there = QRectF(self.block.left(), room.top(), max(self.block.width(), 12), room.height() - 1)
        painter.drawRoundedRect(there, 2, 2)
        words = self.fault or f"{self.tool} goes here with all it cuts"
        painter.setFont(theme.text_font(10, bold=True))
        wide = painter.fontMetrics().horizontalAdvance(words) + 10
        left = min(there.left() + 4, room.right() - wide)
        label = QRectF(left, there.top() + 1, wide, min(there.height() - 2, 15))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("raised"))
        painter.drawRect(label)
        painter.setPen(colour)
        painter.drawText(label, Qt.AlignmentFlag.AlignCenter, words)
