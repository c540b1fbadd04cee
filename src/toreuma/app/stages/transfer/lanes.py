"""What each channel does during the hand-over, one lane a channel, with links where they wait for each other."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.channels.balance import Balanced
from toreuma.core.channels.waits import Act
from toreuma.core.units import show

__all__ = ["HandOverLanes"]

LABEL_PX, RIGHT_PX, TOP_PX, LANE_PX, GAP_PX = 104, 64, 30, 40, 26
NOT_YET = "Plan the hand-over on the left to see what each channel does and waits for"


class HandOverLanes(QWidget):
    """Times run from the parking of the first carrier to the second spindle standing back with the part."""

    def __init__(self, session: Session, theme: Theme, height: int) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self.setFixedHeight(height)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(tr("Channels during the hand-over"))
        session.outcome_changed.connect(self.update)
        session.balance_changed.connect(self.update)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, theme = QPainter(self), self._theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.colour("panel"))
        painter.setPen(theme.colour("line"))
        painter.drawLine(0, 0, self.width(), 0)
        outcome = self._session.outcome
        made = (outcome.transfer or outcome.by_hand) if outcome is not None else None
        if made is None:
            painter.setPen(theme.colour("muted"))
            painter.setFont(theme.text_font())
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, NOT_YET)
            return
        found = self._session.balanced
        if found is not None and found.slots:
            self._cycle(painter, found)
            return
        total = max(made.seconds, 1e-6)

        def x(seconds: float) -> float:
            return LABEL_PX + (self.width() - LABEL_PX - RIGHT_PX) * seconds / total

        tops = {channel: TOP_PX + n * (LANE_PX + GAP_PX) for n, channel in enumerate(made.channels)}
        painter.setFont(theme.number_font(10))
        painter.setPen(theme.colour("muted"))
        painter.drawText(QPointF(x(0), TOP_PX - 10), "0 s")
        painter.drawText(QPointF(x(total) + 6, TOP_PX - 10), str(show(total, "s", self._session.system, trim=True)))
        bottom = max(tops.values()) + LANE_PX
        for channel, items in made.channels.items():
            painter.setFont(theme.text_font(11))
            painter.setPen(theme.colour("muted"))
            painter.drawText(
                QRectF(8, tops[channel], LABEL_PX - 12, LANE_PX),
                Qt.AlignmentFlag.AlignVCenter,
                f"Channel {channel}" if outcome is not None and outcome.transfer is not None else "By hand",
            )
            for (start, end), item in zip(made.laid.times[channel], items, strict=False):
                room = QRectF(x(start), tops[channel], max(x(end) - x(start), 1.0), LANE_PX)
                if isinstance(item, Act):
                    self._act(painter, room, item)
                elif end > start:
                    painter.setPen(QPen(theme.colour("muted"), 1, Qt.PenStyle.DotLine))
                    painter.drawLine(QPointF(room.left(), room.center().y()), QPointF(room.right(), room.center().y()))
        self._marks(painter, x, bottom)

    def _cycle(self, painter: QPainter, found: Balanced) -> None:
        """The steady cycle: the hand-over, then each carrier's work on both sides; side two stands darker."""
        job, theme = self._session.job, self._theme
        if job is None:
            return
        room = self.width() - LABEL_PX - RIGHT_PX

        def x(seconds: float) -> float:
            return LABEL_PX + room * seconds / max(found.cycle_s, 1e-6)

        bottom = TOP_PX + len(job.machine.carriers) * (LANE_PX + GAP_PX) - GAP_PX
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("line"))
        painter.setBrush(theme.colour("chuck_fill"))
        taken = QRectF(x(0), TOP_PX, x(found.hand_over_s) - x(0), bottom - TOP_PX)
        painter.drawRect(taken)
        for number, carrier in enumerate(job.machine.carriers):
            top = TOP_PX + number * (LANE_PX + GAP_PX)
            painter.setFont(theme.text_font(11))
            painter.setPen(theme.colour("muted"))
            label = QRectF(8, top, LABEL_PX - 12, LANE_PX)
            painter.drawText(label, Qt.AlignmentFlag.AlignVCenter, carrier.name.capitalize())
            for slot in (one for one in found.slots if one.carrier == number):
                begin = found.hand_over_s + slot.start_s
                block = QRectF(x(begin), top, max(x(begin + slot.end_s - slot.start_s) - x(begin) - 1, 1), LANE_PX)
                painter.setPen(theme.colour("line"))
                painter.setBrush(theme.colour("accent_soft" if slot.side else "raised"))
                painter.drawRoundedRect(block, 2, 2)
                if block.width() > 30:
                    painter.setPen(theme.colour("ink"))
                    painter.setFont(theme.text_font(10))
                    inside = block.adjusted(4, 2, -4, -2)
                    side = "second: " if slot.side else ""
                    text = painter.fontMetrics().elidedText(
                        side + slot.name, Qt.TextElideMode.ElideRight, int(inside.width())
                    )
                    painter.drawText(inside, Qt.AlignmentFlag.AlignVCenter, text)
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("muted"))
        words = "Steady cycle: the hand-over, then the first side of the next part and the second side of this one"
        painter.drawText(QPointF(LABEL_PX, bottom + 22), words)
        painter.drawText(QPointF(LABEL_PX, TOP_PX - 10), "0 s")
        end = str(show(found.cycle_s, "s", self._session.system, trim=True))
        painter.drawText(QPointF(x(found.cycle_s) + 6, TOP_PX - 10), end)

    def _act(self, painter: QPainter, room: QRectF, act: Act) -> None:
        theme = self._theme
        painter.setPen(theme.colour("line"))
        painter.setBrush(theme.colour("raised"))
        painter.drawRoundedRect(room.adjusted(1, 1, -1, -1), 2, 2)
        if room.width() > 30:
            painter.setPen(theme.colour("ink"))
            painter.setFont(theme.text_font(10))
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            inside = room.adjusted(4, 2, -4, -2)
            needed = painter.boundingRect(inside, flags, act.words)
            if inside.adjusted(-1, -1, 1, 1).contains(needed):
                painter.drawText(inside, flags, act.words)

    def _marks(self, painter: QPainter, x: object, bottom: float) -> None:
        """Where channels meet: a link through all lanes with the number of the mark."""
        made = self._session.outcome.transfer if self._session.outcome is not None else None
        if made is None:
            return
        channel, items = next(iter(made.channels.items()))
        for (_, end), item in zip(made.laid.times[channel], items, strict=False):
            if isinstance(item, Act):
                continue
            at = x(end)  # type: ignore[operator]
            painter.setPen(QPen(self._theme.colour("accent"), 2))
            painter.drawLine(QPointF(at, TOP_PX - 4), QPointF(at, bottom + 6))
            painter.setFont(self._theme.number_font(10, bold=True))
            painter.drawText(QPointF(at - 10, bottom + 20), f"W{item.mark}")
