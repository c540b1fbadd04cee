"""The whole run in time: a lane for every carrier and every spindle, links where channels wait for each other."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent, QTransform
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.forms.format import clock
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.time.carry import Carried
from toreuma.app.time.play_bar import BUTTON_PX, PlayBar
from toreuma.app.time.player import Player, run_cursor
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.plan.turret.at_spindle import moved_to
from toreuma.core.prove.lanes import Lanes, lanes_of
from toreuma.engine.pair import PairProof

__all__ = ["RunRibbon"]

LABEL_PX, RIGHT_PX, TOP_PX, GAP_PX, FOOT_PX = 118, 30, 20, 3, 30
NOT_YET = "Both channels are being proved together"
NOTHING = "Plan the second side and the hand-over: then the whole run stands here"
SPINDLES = (("main", "Main spindle"), ("second", "Second spindle"))
MOST_NUMBERS_PX = 16


class RunRibbon(QWidget):
    """Dragging moves the cursor; left and right step through moves, up and down from operation to operation."""

    def __init__(self, session: Session, theme: Theme, height: int) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._known: tuple[PairProof, Lanes] | None = None
        self.carried: Carried | None = None
        self.setFixedHeight(height)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Ribbon of the whole run"))
        self._where = "main"
        self.player = Player(session, run_cursor(session), self)
        self.bar = PlayBar(self.player, theme, self)
        for signal in (session.outcome_changed, session.proof_changed, session.run_changed):
            signal.connect(self.update)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.bar.set_theme(theme)
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.bar.setGeometry(4, self.height() - BUTTON_PX - 2, 98, BUTTON_PX)
        super().resizeEvent(event)

    @property
    def lanes(self) -> Lanes | None:
        """The run as lanes; None while there is none."""
        pair = self._session.pair
        if pair is None:
            return None
        if self._known is None or self._known[0] is not pair:
            self._known = pair, lanes_of(pair.scenery, pair.ran, pair.findings)
        return self._known[1]

    # Time and place

    def _x(self, seconds: float) -> float:
        total = self._session.pair.ran.seconds if self._session.pair is not None else 1.0
        return LABEL_PX + (self.width() - LABEL_PX - RIGHT_PX) * seconds / max(total, 1e-6)

    def _seconds(self, x: float) -> float:
        total = self._session.pair.ran.seconds if self._session.pair is not None else 1.0
        return (x - LABEL_PX) / max(self.width() - LABEL_PX - RIGHT_PX, 1) * total

    def _rooms(self) -> list[QRectF]:
        """A strip for every carrier, then one for every spindle."""
        job = self._session.job
        count = (len(job.machine.carriers) if job is not None else 0) + len(SPINDLES)
        high = (self.height() - TOP_PX - FOOT_PX - GAP_PX * count) / max(count, 1)
        wide = self.width() - LABEL_PX - RIGHT_PX
        return [QRectF(LABEL_PX, TOP_PX + n * (high + GAP_PX), wide, high) for n in range(count)]

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, theme = QPainter(self), self._theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.colour("panel"))
        painter.setPen(theme.colour("line"))
        painter.drawLine(0, 0, self.width(), 0)
        lanes, job = self.lanes, self._session.job
        if lanes is None or job is None or not lanes.taken:
            painter.setPen(theme.colour("muted"))
            painter.setFont(theme.text_font())
            waits = self._session.outcome is not None and self._session.outcome.transfer is not None
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, NOT_YET if waits else NOTHING)
            return
        rooms = self._rooms()
        carriers = job.machine.carriers
        for number, (start, end) in enumerate(lanes.taken):
            self._taken(painter, start, end, rooms, number)
        for number, carrier in enumerate(carriers):
            self._label(painter, rooms[number], carrier.name.capitalize(), f"channel {carrier.channel}")
            self._carrier(painter, lanes, number, carrier.channel, rooms[number])
        for room, (where, words) in zip(rooms[len(carriers) :], SPINDLES, strict=True):
            self._label(painter, room, words, "rpm")
            self._spindle(painter, lanes, where, room)
        self._links(painter, lanes, rooms[0].top(), rooms[len(carriers) - 1].bottom())
        self._notches(painter, lanes, rooms)
        self._cursor(painter, lanes, rooms[-1].bottom())
        if self.carried is not None:
            self.carried.paint(painter, theme, rooms[self.carried.lane])
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("focus"), 1.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))

    def _label(self, painter: QPainter, room: QRectF, name: str, below: str) -> None:
        theme = self._theme
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("ink"))
        upper = QRectF(8, room.top(), LABEL_PX - 12, room.height() / 2)
        painter.drawText(upper, Qt.AlignmentFlag.AlignBottom, name)
        painter.setPen(theme.colour("muted"))
        painter.drawText(upper.translated(0, room.height() / 2), Qt.AlignmentFlag.AlignTop, below)

    def _taken(self, painter: QPainter, start: float, end: float, rooms: list[QRectF], number: int) -> None:
        """A hand-over stands across all lanes."""
        theme = self._theme
        band = QRectF(
            self._x(start), TOP_PX - 4, max(self._x(end) - self._x(start), 2), rooms[-1].bottom() - TOP_PX + 6
        )
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("accent_soft"))
        painter.drawRect(band)
        painter.setPen(theme.colour("accent"))
        painter.setFont(theme.text_font(10))
        painter.drawText(QPointF(band.left(), TOP_PX - 7), f"hand-over of part {number + 1}")

    def _carrier(self, painter: QPainter, lanes: Lanes, number: int, channel: int, room: QRectF) -> None:
        theme = self._theme
        painter.setPen(QPen(theme.colour("line"), 1))
        painter.drawLine(room.bottomLeft(), room.bottomRight())
        for stood in (one for one in lanes.waits if one.channel == channel and one.end_s > one.start_s):
            painter.setPen(QPen(theme.colour("muted"), 1, Qt.PenStyle.DotLine))
            y = room.center().y()
            painter.drawLine(QPointF(self._x(stood.start_s), y), QPointF(self._x(stood.end_s), y))
        for block in (one for one in lanes.blocks if one.carrier == number):
            wide = max(self._x(block.end_s) - self._x(block.start_s) - 1, 1)
            strip = QRectF(self._x(block.start_s), room.top(), wide, room.height() - 1)
            painter.setPen(theme.colour("line"))
            second = block.where == "second"
            painter.setBrush(theme.colour("stock_fill" if second else "raised"))
            painter.drawRoundedRect(strip, 2, 2)
            if strip.width() > 30:
                painter.setPen(theme.colour("ink"))
                painter.setFont(theme.text_font(10))
                inside = strip.adjusted(4, 0, -3, 0)
                words = ("second: " if second else "") + block.name
                text = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, int(inside.width()))
                painter.drawText(inside, Qt.AlignmentFlag.AlignVCenter, text)

    def _spindle(self, painter: QPainter, lanes: Lanes, where: str, room: QRectF) -> None:
        """What it holds, and how fast it turns."""
        theme = self._theme
        painter.setFont(theme.text_font(10))
        for number, start, end in lanes.stays[where]:  # type: ignore[index]
            strip = QRectF(self._x(start), room.top(), max(self._x(end) - self._x(start) - 1, 1), room.height() - 1)
            painter.setPen(theme.colour("line"))
            painter.setBrush(theme.colour("stock_fill" if where == "second" else "raised", 0.55))
            painter.drawRect(strip)
            painter.setPen(theme.colour("muted"))
            painter.drawText(strip.adjusted(4, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, f"part {number + 1}")
        points = lanes.speeds[where]  # type: ignore[index]
        most = max((rpm for _, rpm in points), default=0.0)
        if most <= 0:
            return
        line = QPolygonF([QPointF(seconds, rpm) for seconds, rpm in points])
        wide = room.width() / max(lanes.seconds, 1e-6)
        place = QTransform(wide, 0, 0, -(room.height() - 4) / most, room.left(), room.bottom() - 1)
        painter.setPen(QPen(theme.colour("ink"), 1.1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(place.map(line))
        painter.setFont(theme.number_font(9))
        painter.setPen(theme.colour("muted"))
        painter.drawText(QPointF(room.right() + 3, room.top() + 9), f"{most:.0f}")

    def _links(self, painter: QPainter, lanes: Lanes, top: float, bottom: float) -> None:
        """Where channels meet: a line through their lanes; numbers where there is room."""
        theme = self._theme
        free = 0.0
        painter.setFont(theme.number_font(9))
        for mark, seconds in sorted({(one.mark, one.end_s) for one in lanes.waits}, key=lambda one: one[1]):
            x = self._x(seconds)
            painter.setPen(QPen(theme.colour("accent"), 1.6))
            painter.drawLine(QPointF(x, top - 2), QPointF(x, bottom + 1))
            if x > free:
                painter.drawText(QPointF(x + 2, bottom - 2), f"W{mark}")
                free = x + MOST_NUMBERS_PX + painter.fontMetrics().horizontalAdvance(f"W{mark}")

    def _notches(self, painter: QPainter, lanes: Lanes, rooms: list[QRectF]) -> None:
        """What is wrong, at its time and in the lane of its channel."""
        job = self._session.job
        if job is None:
            return
        for notch in (one for one in lanes.notches if one.severity != "note"):
            row = next((n for n, one in enumerate(job.machine.carriers) if one.channel == notch.channel), 0)
            x, y = self._x(notch.at_s), rooms[row].top()
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(self._theme.colour("error" if notch.severity == "error" else "warning"))
            painter.drawPolygon(QPolygonF([QPointF(x - 5, y), QPointF(x + 5, y), QPointF(x, y + 8)]))

    def _cursor(self, painter: QPainter, lanes: Lanes, bottom: float) -> None:
        theme, now = self._theme, self._session.run_s
        x = self._x(now)
        painter.setPen(QPen(theme.colour("accent"), 2))
        painter.drawLine(QPointF(x, 4), QPointF(x, bottom + 6))
        painter.setFont(theme.number_font(11, bold=True))
        text = clock(now)
        wide = painter.fontMetrics().horizontalAdvance(text) + 10
        box = QRectF(min(max(x - wide / 2, LABEL_PX - 10), self.width() - wide), bottom + 6, wide, 16)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("accent"))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(theme.colour("on_accent"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.setFont(theme.number_font(10))
        painter.setPen(theme.colour("muted"))
        total = clock(lanes.seconds)
        end = QRectF(self.width() - 90, bottom + 6, 84, 16)
        if box.right() < end.left():
            painter.drawText(end, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, f"of {total}")

    # Pointer and keys

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus()
        self._session.set_run(self._seconds(event.position().x()))
        self.carried = self._taken_hold(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if not event.buttons() & Qt.MouseButton.LeftButton:
            return
        if self.carried is not None:
            self.carried.at = event.position()
            self.carried.lane = self._lane_at(event.position().y())
            self.carried.fault = self._move(self.carried, apply=False)
        if self.carried is None or not self.carried.moving:
            self._session.set_run(self._seconds(event.position().x()))
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        carried, self.carried = self.carried, None
        if carried is not None and carried.moving:
            fault = self._move(carried, apply=True)
            if fault:
                self._session.message.emit("error", fault)
        self.update()

    def _lane_at(self, y: float) -> int:
        """The carrier whose lane is nearest."""
        rooms = self._rooms()[: -len(SPINDLES)]
        return min(range(len(rooms)), key=lambda n: abs(rooms[n].center().y() - y))

    def _taken_hold(self, at: QPointF) -> Carried | None:
        """The operation under the pointer."""
        lanes, job = self.lanes, self._session.job
        rooms = self._rooms()[: -len(SPINDLES)]
        row = next((n for n, room in enumerate(rooms) if room.contains(at)), None)
        block = lanes.block_at(row, self._seconds(at.x())) if lanes is not None and row is not None else None
        if block is None or job is None or row is None:
            return None
        tool = next((one for one in job.tools if one.station == block.station), None)
        if tool is None:
            return None
        room = QRectF(self._x(block.start_s), rooms[row].top(), self._x(block.end_s) - self._x(block.start_s), 10)
        self._where = block.where
        return Carried(tool=tool.id, name=block.name, home=row, block=room, grabbed=at, at=at, lane=row)

    def _move(self, carried: Carried, apply: bool) -> str:
        """Put the tool on the carrier; in one line why that cannot be."""
        whole = self._session.whole
        if whole is None or not carried.moving:
            return ""
        try:
            moved = moved_to(whole, carried.tool, carried.lane, "main" if self._where == "main" else "sub")
        except ToreumaError as error:
            return str(error)
        if apply:
            self._session.change_whole(moved)
        return ""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        lanes, now = self.lanes, self._session.run_s
        key = Qt.Key(event.key())
        if lanes is None:
            super().keyPressEvent(event)
            return
        starts = sorted({0.0, *(one.start_s for one in lanes.blocks), *(start for start, _ in lanes.taken)})
        if key == Qt.Key.Key_Right:
            self._session.set_run(next((t for t in lanes.ends if t > now + 1e-6), lanes.seconds))
        elif key == Qt.Key.Key_Left:
            self._session.set_run(next((t for t in reversed(lanes.ends) if t < now - 1e-6), 0.0))
        elif key == Qt.Key.Key_Down:
            self._session.set_run(next((t for t in starts if t > now + 1e-6), lanes.seconds))
        elif key == Qt.Key.Key_Up:
            self._session.set_run(next((t for t in reversed(starts) if t < now - 1e-6), 0.0))
        elif key in (Qt.Key.Key_Home, Qt.Key.Key_End):
            self._session.set_run(0.0 if key == Qt.Key.Key_Home else lanes.seconds)
        elif not self.bar.obey(event):
            super().keyPressEvent(event)
