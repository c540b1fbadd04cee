"""The time ribbon: operations as long as they take, spindle speed and power below, the cursor over all."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent, QTransform
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.forms.format import clock
from toreuma.app.session import Session
from toreuma.app.theme import Theme, icon
from toreuma.app.time.carry import Carried
from toreuma.app.time.play_bar import BUTTON_PX, PlayBar
from toreuma.app.time.player import Player, side_cursor
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import worst
from toreuma.core.model import Carrier
from toreuma.core.plan.turret.at_spindle import moved_to
from toreuma.core.prove import MoveDone
from toreuma.core.units import show
from toreuma.engine.follow import Outcome

__all__ = ["Ribbon"]

LABEL_PX = 104
RIGHT_PX = 64
LANE_PX, LANES_PX = 30, 38
"""Height of the one lane of a machine with one carrier, and of all lanes where it has more."""

TRACE_PX, GAP_PX = 25, 5
TRACES = 4
TOP_PX = 18


class Ribbon(QWidget):
    """Dragging moves the cursor; left and right step through moves, up and down through operations, Space plays."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._drawn_speed: tuple[Outcome, QPolygonF] | None = None
        self.setFixedHeight(TOP_PX + LANE_PX + TRACES * (TRACE_PX + GAP_PX) + 30)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Time ribbon"))
        self.carried: Carried | None = None
        self.player = Player(session, side_cursor(session), self)
        self.bar = PlayBar(self.player, theme, self)
        self.play, self.speeds = self.bar.play, self.bar.speeds
        for signal in (
            session.outcome_changed,
            session.proof_changed,
            session.cursor_changed,
            session.selection_changed,
        ):
            signal.connect(self.update)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.bar.set_theme(theme)
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Play and speed stand below the names of the traces."""
        self.bar.setGeometry(4, self.height() - BUTTON_PX - 2, LABEL_PX - 6, BUTTON_PX)
        super().resizeEvent(event)

    # Time and place

    def _total(self) -> float:
        return max(self._session.outcome.timeline.total_s, 1e-6) if self._session.outcome else 1.0

    def _x(self, seconds: float) -> float:
        return LABEL_PX + (self.width() - LABEL_PX - RIGHT_PX) * seconds / self._total()

    def _seconds(self, x: float) -> float:
        return (x - LABEL_PX) / max(self.width() - LABEL_PX - RIGHT_PX, 1) * self._total()

    # Painting

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        painter.fillRect(self.rect(), theme.colour("panel"))
        painter.setPen(theme.colour("line"))
        painter.drawLine(0, 0, self.width(), 0)
        outcome = self._session.outcome
        if outcome is None or not outcome.timeline.spans:
            painter.setPen(theme.colour("muted"))
            text = "Nothing cuts yet: add an operation" if self._session.job else ""
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, text)
            return
        self._ticks(painter)
        self._blocks(painter)
        lanes, trace = self._heights()
        speed = QRectF(LABEL_PX, TOP_PX + lanes + 8, self.width() - LABEL_PX - RIGHT_PX, trace)
        self._speed(painter, speed)
        self._power(painter, speed.translated(0, trace + GAP_PX))
        down = 2 * (trace + GAP_PX)
        self._bars(painter, speed.translated(0, down), "Force", "N", lambda step: step.force_n)
        down += trace + GAP_PX
        self._bars(painter, speed.translated(0, down), "Bend on Ø", "size_um", lambda step: 2000 * step.bend_mm)
        self._cursor(painter)
        self._block_there(painter, outcome)
        if self.carried is not None:
            lane = self._heights()[0] / max(len(self._carriers()), 1)
            wide = self.width() - LABEL_PX - RIGHT_PX
            self.carried.paint(painter, theme, QRectF(LABEL_PX, TOP_PX + self.carried.lane * lane, wide, lane))
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("focus"), 1.5))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))

    def _block_there(self, painter: QPainter, outcome: Outcome) -> None:
        """The line of the program under way at the cursor."""
        if self._session.cursor_s >= self._total() - 1e-6:
            return
        moment = outcome.timeline.at(self._session.cursor_s)
        line = outcome.timeline.spans[moment.index].motion.line
        text = outcome.program_line(line)
        painter.setFont(self._theme.number_font(11))
        painter.setPen(self._theme.colour("ink"))
        room = QRectF(LABEL_PX, self.height() - 24, self.width() - LABEL_PX - RIGHT_PX, 16)
        on_right = self._x(self._session.cursor_s) < self.width() / 2
        side = Qt.AlignmentFlag.AlignRight if on_right else Qt.AlignmentFlag.AlignLeft
        painter.drawText(room, side | Qt.AlignmentFlag.AlignVCenter, f"line {line}:  {text}")

    def _label(self, painter: QPainter, y: float, height: float, text: str) -> None:
        painter.setFont(self._theme.text_font(11))
        painter.setPen(self._theme.colour("muted"))
        painter.drawText(QRectF(8, y, LABEL_PX - 16, height), Qt.AlignmentFlag.AlignVCenter, text)

    def _ticks(self, painter: QPainter) -> None:
        total = self._total()
        step = next(
            s for s in (1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600, 7200, 36000, 1e9) if total / s <= 12
        )
        painter.setFont(self._theme.number_font(10))
        seconds = 0.0
        while seconds <= total:
            x = self._x(seconds)
            painter.setPen(self._theme.colour("line"))
            painter.drawLine(QPointF(x, TOP_PX - 4), QPointF(x, self.height() - 14))
            painter.setPen(self._theme.colour("muted"))
            painter.drawText(QPointF(x + 3, TOP_PX - 6), clock(seconds)[:-2])
            seconds += step

    def _carriers(self) -> tuple[Carrier, ...]:
        job = self._session.outcome.job if self._session.outcome else None
        return job.machine.carriers if job is not None else ()

    def _heights(self) -> tuple[float, float]:
        """Height of all lanes, and of a trace: several lanes take a little from the traces."""
        return (
            (LANE_PX, TRACE_PX) if len(self._carriers()) < 2 else (LANES_PX, TRACE_PX - (LANES_PX - LANE_PX) / TRACES)
        )

    def _blocks(self, painter: QPainter) -> None:
        outcome, theme = self._session.outcome, self._theme
        assert outcome is not None
        job, carriers = outcome.job, self._carriers()
        lane = self._heights()[0] / max(len(carriers), 1)
        for number, carrier in enumerate(carriers):
            name = f"{carrier.name}, min".capitalize() if len(carriers) == 1 else carrier.name.capitalize()
            self._label(painter, TOP_PX + number * lane, lane, name)
        for section, start, end in outcome.timeline.sections():
            if not 0 <= section < len(outcome.sections):
                continue
            operation = job.operation(outcome.sections[section])
            planned = outcome.plan.of(outcome.sections[section])
            if operation is None or planned is None:
                continue
            tool = job.tool(operation.tool)
            number = carriers.index(job.machine.carrier_of(tool.station)) if tool is not None else 0
            top, wide = TOP_PX + number * lane + 1, max(self._x(end) - self._x(start) - 1, 1)
            block = QRectF(self._x(start), top, wide, lane - (4 if len(carriers) == 1 else 2))
            chosen = operation.id == self._session.selection.operation
            painter.setPen(theme.colour("accent" if chosen else "line"))
            painter.setBrush(theme.colour("accent_soft" if chosen else "raised"))
            painter.drawRoundedRect(block, 2, 2)
            left = block.left() + 4
            if block.width() > 24:
                icon(operation.kind, theme, "ink", 16).paint(painter, int(left), int(block.center().y()) - 8, 16, 16)
                left += 21
            finding = worst(planned.findings)
            if finding is not None and finding.severity != "note":
                colour = "error" if finding.severity == "error" else "warning"
                icon(finding.severity, theme, colour, 12).paint(
                    painter, int(block.right()) - 15, int(block.center().y()) - 6, 12, 12
                )
            painter.setPen(theme.colour("ink"))
            painter.setFont(theme.text_font(11))
            room = QRectF(left, block.top(), block.right() - left - 14, block.height())
            if room.width() > 26:
                text = painter.fontMetrics().elidedText(operation.name, Qt.TextElideMode.ElideRight, int(room.width()))
                painter.drawText(room, Qt.AlignmentFlag.AlignVCenter, text)

    def _speed(self, painter: QPainter, room: QRectF) -> None:
        outcome, theme = self._session.outcome, self._theme
        assert outcome is not None
        top = outcome.job.machine.max_rpm
        self._label(painter, room.top(), room.height(), "Spindle, rpm")
        if self._drawn_speed is None or self._drawn_speed[0] is not outcome:
            points = outcome.timeline.speeds(outcome.job.machine)
            self._drawn_speed = outcome, QPolygonF([QPointF(seconds, rpm) for seconds, rpm in points])
        place = QTransform(room.width() / self._total(), 0, 0, -room.height() / top, room.left(), room.bottom())
        painter.setPen(QPen(theme.colour("line"), 1, Qt.PenStyle.DashLine))
        painter.drawLine(room.topLeft(), room.topRight())
        painter.setPen(QPen(theme.colour("ink"), 1.3))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(place.map(self._drawn_speed[1]))
        painter.setFont(theme.number_font(10))
        painter.setPen(theme.colour("muted"))
        painter.drawText(QPointF(room.right() + 6, room.top() + 8), f"{top:.0f}")

    def _power(self, painter: QPainter, room: QRectF) -> None:
        outcome, proof, theme = self._session.outcome, self._session.proof, self._theme
        assert outcome is not None
        system = self._session.system
        self._label(painter, room.top(), room.height(), f"Power, {show(0, 'kW', system).unit}")
        highest = max(point.power_kw for point in outcome.job.machine.power) * outcome.job.machine.efficiency
        painter.setPen(QPen(theme.colour("line"), 1, Qt.PenStyle.DashLine))
        painter.drawLine(room.topLeft(), room.topRight())
        painter.setPen(theme.colour("muted"))
        painter.setFont(theme.number_font(10))
        painter.drawText(QPointF(room.right() + 6, room.top() + 8), show(highest, "kW", system).number)
        if proof is None:
            painter.drawText(room, Qt.AlignmentFlag.AlignCenter, "being cut")
            return
        painter.setPen(Qt.PenStyle.NoPen)
        for span, step in zip(outcome.timeline.spans, proof.steps, strict=False):
            if step.power_kw <= 0 or step.available_kw <= 0:
                continue
            share = step.power_kw / step.available_kw
            height = min(step.power_kw / highest, 1.15) * room.height()
            painter.setBrush(theme.load_colour(share))
            left = self._x(span.start_s)
            painter.drawRect(QRectF(left, room.bottom() - height, max(self._x(span.end_s) - left, 1.0), height))

    def _bars(self, painter: QPainter, room: QRectF, label: str, unit: str, value: Callable[[MoveDone], float]) -> None:
        """A number of every move of the proof, as bars up to its largest."""
        outcome, proof, theme = self._session.outcome, self._session.proof, self._theme
        assert outcome is not None
        system = self._session.system
        self._label(painter, room.top(), room.height(), f"{label}, {show(0, unit, system).unit}")
        painter.setPen(QPen(theme.colour("line"), 1, Qt.PenStyle.DashLine))
        painter.drawLine(room.topLeft(), room.topRight())
        values = [value(step) for step in proof.steps] if proof is not None else []
        highest = max(values, default=0.0)
        shown = show(highest, unit, system).number
        if not any(digit in "123456789" for digit in shown):  # nothing of it can be read: nothing is drawn
            return
        painter.setPen(theme.colour("muted"))
        painter.setFont(theme.number_font(10))
        painter.drawText(QPointF(room.right() + 6, room.top() + 8), shown)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("muted"))
        for span, number in zip(outcome.timeline.spans, values, strict=False):
            if number > 0:
                height = number / highest * room.height()
                left = self._x(span.start_s)
                wide = max(self._x(span.end_s) - left, 1.0)
                painter.drawRect(QRectF(left, room.bottom() - height, wide, height))

    def _cursor(self, painter: QPainter) -> None:
        theme = self._theme
        x = self._x(self._session.cursor_s)
        painter.setPen(QPen(theme.colour("accent"), 2))
        painter.drawLine(QPointF(x, 4), QPointF(x, self.height() - 22))
        text = clock(self._session.cursor_s)
        painter.setFont(theme.number_font(11, bold=True))
        width = painter.fontMetrics().horizontalAdvance(text) + 10
        box = QRectF(min(max(x - width / 2, 0), self.width() - width), self.height() - 24, width, 16)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour("accent"))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(theme.colour("on_accent"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    # Pointer and keys

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._go(event)
        outcome = self._session.outcome
        in_lane = TOP_PX <= event.position().y() <= TOP_PX + self._heights()[0]
        if outcome is not None and in_lane:
            self._session.select(operation=outcome.operation_at(self._seconds(event.position().x())))
            self.carried = self._taken_hold(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if not event.buttons() & Qt.MouseButton.LeftButton:
            return
        if self.carried is not None:
            self.carried.at, self.carried.lane = event.position(), self._lane_at(event.position().y())
            self.carried.fault = self._fault(self.carried)
        if self.carried is None or not self.carried.moving:
            self._go(event)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        carried, self.carried = self.carried, None
        if carried is not None and carried.moving:
            fault = self._session.attempt(lambda job: moved_to(job, carried.tool, carried.lane, "main"))
            if fault is not None:
                self._session.message.emit("error", str(fault))
        self.update()

    def _lane_at(self, y: float) -> int:
        """The carrier whose lane is nearest."""
        lane = self._heights()[0] / max(len(self._carriers()), 1)
        return min(max(int((y - TOP_PX) // lane), 0), len(self._carriers()) - 1)

    def _taken_hold(self, at: QPointF) -> Carried | None:
        """The operation under the pointer, where there is another carrier for it."""
        outcome, identifier = self._session.outcome, self._session.selection.operation
        operation = outcome.job.operation(identifier) if outcome is not None and identifier is not None else None
        tool = outcome.job.tool(operation.tool) if outcome is not None and operation is not None else None
        times = outcome.times_of(identifier) if outcome is not None and identifier is not None else None
        if outcome is None or operation is None or tool is None or times is None or len(self._carriers()) < 2:
            return None
        home = self._carriers().index(outcome.job.machine.carrier_of(tool.station))
        block = QRectF(self._x(times[0]), TOP_PX, self._x(times[1]) - self._x(times[0]), 10)
        return (
            Carried(tool=tool.id, name=operation.name, home=home, block=block, grabbed=at, at=at, lane=home)
            if self._lane_at(at.y()) == home
            else None
        )

    def _fault(self, carried: Carried) -> str:
        """Why the tool cannot go where it is carried; empty where it can."""
        job = self._session.job
        if job is None or not carried.moving:
            return ""
        try:
            moved_to(job, carried.tool, carried.lane, "main")
        except ToreumaError as error:
            return str(error)
        return ""

    def _go(self, event: QMouseEvent) -> None:
        self._session.set_cursor(self._seconds(event.position().x()))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        outcome = self._session.outcome
        key = Qt.Key(event.key())
        if outcome is None:
            return
        now = self._session.cursor_s
        ends = [0.0, *(span.end_s for span in outcome.timeline.spans)]
        starts = [start for _, start, _ in outcome.timeline.sections()]
        if key == Qt.Key.Key_Right:
            self._session.set_cursor(next((t for t in ends if t > now + 1e-6), now))
        elif key == Qt.Key.Key_Left:
            self._session.set_cursor(next((t for t in reversed(ends) if t < now - 1e-6), 0.0))
        elif key == Qt.Key.Key_Down:
            self._session.set_cursor(next((t for t in starts if t > now + 1e-6), self._total()))
        elif key == Qt.Key.Key_Up:
            self._session.set_cursor(next((t for t in reversed(starts) if t < now - 1e-6), 0.0))
        elif key == Qt.Key.Key_Home:
            self._session.set_cursor(0.0)
        elif key == Qt.Key.Key_End:
            self._session.set_cursor(self._total())
        elif not self.bar.obey(event):
            super().keyPressEvent(event)
