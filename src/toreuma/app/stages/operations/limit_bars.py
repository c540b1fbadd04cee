"""Bars that show how much of every limit a cut uses, in the temper colours of its load."""

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QHelpEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.limits import Use
from toreuma.core.units import System, show

__all__ = ["LimitBars"]

ROW_PX, BAR_PX, NAME_PX = 34, 7, 20
FULL = 1.15
"""The bar's room as a share of the limit: a little beyond it can be seen."""


class LimitBars(QWidget):
    """One line for every limit: its name, the number against its bound, and a bar; the tick marks the limit."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._uses: tuple[Use, ...] = ()
        self._system: System = "mm"
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(tr("How much of every limit is used"))

    def show_uses(self, uses: tuple[Use, ...], system: System) -> None:
        """Show limits in the order given."""
        self._uses, self._system = uses, system
        self.setFixedHeight(self.sizeHint().height())
        self.setAccessibleDescription("; ".join(self._words(use) for use in uses))
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(280, max(len(self._uses), 1) * ROW_PX)

    def _words(self, use: Use) -> str:
        sense = "least" if use.kind.least else "most"
        number = show(use.number, use.kind.unit, self._system).number
        bound = show(use.bound, use.kind.unit, self._system)
        return f"{use.kind.name}: {number}, at {sense} {bound}"

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ToolTip and isinstance(event, QHelpEvent):
            row = int(event.pos().y() // ROW_PX)
            if 0 <= row < len(self._uses):
                use = self._uses[row]
                QToolTip.showText(event.globalPos(), f"{use.kind.why}\n{use.label}. Margin {use.margin:.0%}.", self)
                return True
        return super().event(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, width = self._theme, self.width() - 2
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        for index, use in enumerate(self._uses):
            y = index * ROW_PX
            name, _, numbers = self._words(use).partition(": ")
            painter.setPen(theme.colour("error" if use.share > 1.0005 and use.kind.binds else "ink"))
            painter.setFont(theme.text_font(12))
            painter.drawText(QRectF(0, y, width, NAME_PX), left, name[0].upper() + name[1:])
            painter.setPen(theme.colour("muted"))
            painter.setFont(theme.number_font(11))
            painter.drawText(QRectF(0, y, width, NAME_PX), right, numbers)
            room = QRectF(0, y + NAME_PX, width, BAR_PX)
            painter.fillRect(room, theme.colour("line"))
            full = width / FULL
            painter.fillRect(QRectF(0, y + NAME_PX, min(use.share, FULL) * full, BAR_PX), theme.load_colour(use.share))
            painter.setPen(theme.colour("ink"))
            painter.drawLine(QPointF(full, room.top() - 2), QPointF(full, room.bottom() + 2))
