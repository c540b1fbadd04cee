"""A run chart: a size over the parts, its limits, what was set, the line it follows and what is ahead."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QBrush, QColor, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF, QWheelEvent
from PySide6.QtWidgets import QWidget

from toreuma.app.theme import Theme
from toreuma.core.units import System, show

__all__ = ["ChartData", "RunChart"]

LEFT_PX, RIGHT_PX, TOP_PX, BOTTOM_PX = 78, 18, 26, 40
POINT_PX = 3.2
DENSE = 1.5
"""More points than this for a pixel are drawn as the band they fill."""
STEP = 1.2
NEAR_PX = 60
"""Words nearer to each other stand in two rows."""


@dataclass(frozen=True)
class ChartData:
    """``parts`` and ``values`` are alike long, values mm. ``line`` are fitted values of the last parts, ``ahead`` are
    (part, value, uncertainty). ``sets`` (part, words) and ``changes`` are parts behind which something was done."""

    parts: Sequence[int] = ()
    values: Sequence[float] = ()
    lower: float | None = None
    upper: float | None = None
    aim: float | None = None
    line: Sequence[float] = ()
    ahead: Sequence[tuple[int, float, float]] = ()
    sets: Sequence[tuple[int, str]] = ()
    changes: Sequence[int] = ()
    title: str = ""
    unit: str = "mm"
    _array: dict[str, np.ndarray] = field(default_factory=dict, compare=False, repr=False)

    @property
    def x(self) -> np.ndarray:
        return self._array.setdefault("x", np.asarray(self.parts, dtype=float))

    @property
    def y(self) -> np.ndarray:
        return self._array.setdefault("y", np.asarray(self.values, dtype=float))


class RunChart(QWidget):
    """Wheel: more or fewer parts about the pointer; drag: along the run; double click: all of it."""

    pointed = Signal(int)
    """The part under the pointer."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setMinimumHeight(180)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Run chart")
        self._theme, self.data = theme, ChartData()
        self.system: System = "mm"
        self._span: tuple[float, float] | None = None
        self._held: tuple[float, tuple[float, float]] | None = None
        self._pointer: QPointF | None = None

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_data(self, data: ChartData, system: System) -> None:
        """Another series, all of it."""
        self.data, self.system, self._span = data, system, None
        self.setAccessibleDescription(f"{data.title}, {len(data.parts)} parts")
        self.update()

    # Places

    @property
    def span(self) -> tuple[float, float]:
        """First and last part shown."""
        if self._span is not None:
            return self._span
        if not len(self.data.parts):
            return 0.0, 10.0
        last = max([float(self.data.x[-1]), *(float(one[0]) for one in self.data.ahead)])
        return float(self.data.x[0]) - 0.5, last + 0.5

    def _range(self, inside: np.ndarray) -> tuple[float, float]:
        d = self.data
        every = [one for one in (d.lower, d.upper, d.aim) if one is not None]
        every += [float(inside.min()), float(inside.max())] if len(inside) else []
        low, high = (min(every), max(every)) if every else (0.0, 1.0)
        air = max(0.08 * (high - low), 1e-4)
        return low - air, high + air

    def paintEvent(self, event: QPaintEvent) -> None:
        p = QPainter(self)
        p.fillRect(self.rect(), self._theme.colour("paper"))
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        room = QRectF(LEFT_PX, TOP_PX, self.width() - LEFT_PX - RIGHT_PX, self.height() - TOP_PX - BOTTOM_PX)
        if room.width() < 20 or room.height() < 20:
            return
        first, last = self.span
        x, y = self.data.x, self.data.y
        begin, end = np.searchsorted(x, (first, last))
        low, high = self._range(y[begin:end])
        to = _Places(room, first, last, low, high)
        self._limits(p, to)
        self._marks(p, to)
        p.setClipRect(room)
        self._ahead(p, to)
        self._points(p, to, x[begin:end], y[begin:end])
        self._line(p, to, begin, end)
        p.setClipping(False)
        self._axes(p, to)
        self._reading(p, to, x[begin:end], y[begin:end])

    def _limits(self, p: QPainter, to: "_Places") -> None:
        d, theme = self.data, self._theme
        p.fillRect(to.room, theme.colour("raised"))
        for value, words in ((d.upper, "most"), (d.lower, "least")):
            if value is None:
                continue
            p.setPen(QPen(theme.colour("error"), 1.6))
            at = to.y(value)
            p.drawLine(QPointF(to.room.left(), at), QPointF(to.room.right(), at))
            self._words(p, QPointF(to.room.right() - 4, at - 4), words, "error", right=True)
        if d.aim is not None:
            p.setPen(QPen(theme.colour("muted"), 1.0, Qt.PenStyle.DashLine))
            at = to.y(d.aim)
            p.drawLine(QPointF(to.room.left(), at), QPointF(to.room.right(), at))

    def _marks(self, p: QPainter, to: "_Places") -> None:
        """Offsets and new edges: lines across with a sign at their head."""
        theme = self._theme
        before, row = -1e9, 0
        for part, words in self.data.sets:
            at = to.x(part + 0.5)
            row = 1 - row if at - before < NEAR_PX else 0
            before = at
            if to.room.left() <= at <= to.room.right():
                p.setPen(QPen(theme.colour("accent"), 1.2))
                p.drawLine(QPointF(at, to.room.top()), QPointF(at, to.room.bottom()))
                self._words(p, QPointF(at + 3, to.room.top() + 12 + 13 * row), words, "accent")
        for part in self.data.changes:
            at = to.x(part + 0.5)
            if to.room.left() <= at <= to.room.right():
                p.setPen(QPen(theme.colour("ink"), 1.0, Qt.PenStyle.DotLine))
                p.drawLine(QPointF(at, to.room.top()), QPointF(at, to.room.bottom()))
                p.setBrush(theme.colour("ink"))
                p.setPen(Qt.PenStyle.NoPen)
                foot = to.room.bottom()
                p.drawPolygon(QPolygonF([QPointF(at - 5, foot + 8), QPointF(at + 5, foot + 8), QPointF(at, foot)]))

    def _ahead(self, p: QPainter, to: "_Places") -> None:
        ahead = self.data.ahead
        if not ahead:
            return
        upper = [QPointF(to.x(part), to.y(value + u)) for part, value, u in ahead]
        lower = [QPointF(to.x(part), to.y(value - u)) for part, value, u in reversed(ahead)]
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(self._theme.colour("accent", 0.18))
        p.drawPolygon(QPolygonF([*upper, *lower]))
        p.setPen(QPen(self._theme.colour("accent"), 1.4, Qt.PenStyle.DashLine))
        p.drawPolyline(QPolygonF([QPointF(to.x(part), to.y(value)) for part, value, _ in ahead]))

    def _points(self, p: QPainter, to: "_Places", x: np.ndarray, y: np.ndarray) -> None:
        d, theme = self.data, self._theme
        if len(x) > DENSE * to.room.width():
            self._band(p, to, x, y)
            return
        for part, value in zip(x, y, strict=True):
            out = (d.lower is not None and value < d.lower) or (d.upper is not None and value > d.upper)
            colour = theme.colour("error" if out else "ink")
            p.setPen(QPen(colour, 1.2))
            p.setBrush(QBrush(colour) if not out else QBrush(QColor(0, 0, 0, 0)))
            at = QPointF(to.x(part), to.y(value))
            if out:  # a cross, so that it is not colour alone
                r = POINT_PX + 1
                p.drawLine(at + QPointF(-r, -r), at + QPointF(r, r))
                p.drawLine(at + QPointF(-r, r), at + QPointF(r, -r))
            else:
                p.drawEllipse(at, POINT_PX, POINT_PX)

    def _band(self, p: QPainter, to: "_Places", x: np.ndarray, y: np.ndarray) -> None:
        """Very many points: least and most of every column of pixels."""
        columns = np.clip(
            ((x - to.first) / (to.last - to.first) * to.room.width()).astype(int), 0, int(to.room.width())
        )
        starts = np.flatnonzero(np.r_[True, np.diff(columns) > 0])
        lows, highs = np.minimum.reduceat(y, starts), np.maximum.reduceat(y, starts)
        p.setPen(QPen(self._theme.colour("ink"), 1.0))
        for column, low, high in zip(columns[starts], lows, highs, strict=True):
            at = to.room.left() + float(column)
            p.drawLine(QPointF(at, to.y(float(low)) + 0.5), QPointF(at, to.y(float(high)) - 0.5))

    def _line(self, p: QPainter, to: "_Places", begin: int, end: int) -> None:
        line = self.data.line
        shift = len(self.data.values) - len(line)
        places = [(self.data.x[n], line[n - shift]) for n in range(max(begin, shift), end)]
        if len(places) > 1:
            p.setPen(QPen(self._theme.colour("accent"), 1.6))
            p.drawPolyline(QPolygonF([QPointF(to.x(float(a)), to.y(float(b))) for a, b in places]))

    def _axes(self, p: QPainter, to: "_Places") -> None:
        theme, d = self._theme, self.data
        p.setPen(QPen(theme.colour("line"), 1))
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.drawRect(to.room)
        p.setFont(theme.text_font(12, bold=True))
        p.setPen(theme.colour("ink"))
        p.drawText(QPointF(to.room.left(), TOP_PX - 9), d.title)
        p.setFont(theme.number_font(11))
        p.setPen(theme.colour("muted"))
        for value in _ticks(to.low, to.high, 6):
            shown = show(value, d.unit, self.system)
            box = QRectF(0, to.y(value) - 9, LEFT_PX - 6, 18)
            p.drawText(box, int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter), shown.number)
        for part in _ticks(to.first, to.last, 12):
            if part >= 1 and abs(part - round(part)) < 1e-9:
                box = QRectF(to.x(part) - 30, to.room.bottom() + 8, 60, 16)
                p.drawText(box, int(Qt.AlignmentFlag.AlignCenter), f"{part:.0f}")
        p.setFont(theme.text_font(11))
        unit = show(0.0, d.unit, self.system).unit
        p.drawText(QPointF(6, TOP_PX - 9), unit)
        p.drawText(QPointF(to.room.right() - 28, to.room.bottom() + 36), "part")

    def _reading(self, p: QPainter, to: "_Places", x: np.ndarray, y: np.ndarray) -> None:
        if self._pointer is None or not len(x) or not to.room.contains(self._pointer):
            return
        n = int(np.abs(x - to.part(self._pointer.x())).argmin())
        shown = show(float(y[n]), self.data.unit, self.system)
        at = QPointF(to.x(float(x[n])), to.y(float(y[n])))
        p.setPen(QPen(self._theme.colour("accent"), 1.5))
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.drawEllipse(at, 6, 6)
        words = f"part {x[n]:.0f}: {shown}"
        left = at.x() > to.room.center().x()
        self._words(p, at + QPointF(-10 if left else 10, -8), words, "ink", right=left)

    def _words(self, p: QPainter, at: QPointF, words: str, colour: str, right: bool = False) -> None:
        p.setFont(self._theme.text_font(11))
        p.setPen(self._theme.colour(colour))
        wide = p.fontMetrics().horizontalAdvance(words)
        p.drawText(at - QPointF(wide if right else 0, 0), words)

    # Moving about

    def wheelEvent(self, event: QWheelEvent) -> None:
        first, last = self.span
        share = min(max((event.position().x() - LEFT_PX) / max(self.width() - LEFT_PX - RIGHT_PX, 1), 0.0), 1.0)
        factor = 1 / STEP if event.angleDelta().y() > 0 else STEP
        at = first + share * (last - first)
        wide = max((last - first) * factor, 4.0)
        self._span = (at - share * wide, at + (1 - share) * wide)
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._held = (event.position().x(), self.span)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self._pointer = event.position()
        if self._held is not None and event.buttons():
            begun, (first, last) = self._held
            moved = (event.position().x() - begun) / max(self.width() - LEFT_PX - RIGHT_PX, 1) * (last - first)
            self._span = (first - moved, last - moved)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._held = None

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self._span = None
        self.update()

    def leaveEvent(self, event: object) -> None:
        self._pointer = None
        self.update()


@dataclass(frozen=True)
class _Places:
    room: QRectF
    first: float
    last: float
    low: float
    high: float

    def x(self, part: float) -> float:
        return self.room.left() + (part - self.first) / max(self.last - self.first, 1e-9) * self.room.width()

    def y(self, value: float) -> float:
        return self.room.bottom() - (value - self.low) / max(self.high - self.low, 1e-12) * self.room.height()

    def part(self, x: float) -> float:
        return self.first + (x - self.room.left()) / max(self.room.width(), 1.0) * (self.last - self.first)


def _ticks(low: float, high: float, most: int) -> list[float]:
    """Round numbers from low to high, no more than so many."""
    if not high > low:
        return []
    raw = (high - low) / most
    power = 10.0 ** np.floor(np.log10(raw))
    step = next(power * n for n in (1, 2, 5, 10) if power * n >= raw)
    return [float(n * step) for n in range(int(np.ceil(low / step)), int(np.floor(high / step)) + 1)]
