"""The section beside the text: every move above the axis, the metal at the chosen line below it."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.geometry.region import Region
from toreuma.core.motion import Motion
from toreuma.core.units import System
from toreuma.engine.check_report import kind_in
from toreuma.engine.study import Cut, Study

__all__ = ["StudyPicture"]

MARGIN_PX, PICK_PX = 30, 9
COLOURS = {"contact": "error", "not understood": "error", "question": "accent"}
FEW_MOVES = 6000
"""More moves than this are drawn as the metal they leave, and only those near the line one by one."""


class StudyPicture(QWidget):
    """A click on a move chooses its line. Wheel zooms, dragging moves, F fits."""

    line_chosen = Signal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._view: View | None = None
        self._fitted = True
        self._grabbed: QPointF | None = None
        self._pressed: QPointF | None = None
        self.study: Study | None = None
        self.cut: Cut | None = None
        self.line = 0
        self.system: System = "mm"
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(260, 240)
        self.setAccessibleName(tr("What the program cuts"))

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_study(self, study: Study, cut: Cut | None) -> None:
        """Another reading; the picture keeps its zoom where the blank is the same."""
        if self.study is None or self.study.blank != study.blank:
            self._view = None
        self.study, self.cut = study, cut
        self.update()

    def show_line(self, line: int) -> None:
        self.line = line
        self.update()

    def fit(self) -> None:
        self._view, self._fitted = None, True
        self.update()

    # what is seen ------------------------------------------------------------------------------------------------

    def _room(self) -> QRectF:
        return QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX)

    def view(self) -> View | None:
        if self.study is None:
            return None
        if self._view is None:
            blank = self.study.blank
            front = blank.front_z + max(0.12 * (blank.front_z - blank.back_z), 4.0)
            self._view = View.fitting(blank.back_z, front, 0.62 * blank.widest_mm, self._room())
        return self._view

    def _moves(self) -> list[Motion]:
        study = self.study
        if study is None:
            return []
        home = study.given.home
        found = []
        for one in study.program.motions:
            ends = (*one.start, *one.end)
            if (
                one.segment.length > 1e-9
                and one.driven is None
                and home[0] not in ends[::2]
                and home[1] not in ends[1::2]
            ):
                found.append(one)
        return found

    def metal(self) -> Region | None:
        """The metal when the block of the line has been obeyed."""
        if self.cut is None:
            return None
        spans = self.cut.replay.timeline.spans
        if not spans or not self.line:
            return self.cut.proof.final
        moment = 0.0
        for span in spans:
            if span.motion.line <= self.line:
                moment = max(moment, span.end_s)
        return self.cut.replay.stock_at(moment)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._theme.colour("paper"))
        view = self.view()
        if view is None or self.study is None:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        draw = Painter(painter, view, self._theme, self.system, QRectF(self.rect()))
        if self.cut is not None:
            metal = self.metal()
            draw.outline(self.cut.scene.stock, "stock_edge", 1.0, [4, 4])
            if metal is not None and not metal.is_empty:
                draw.region(metal, "stock_fill", "stock_edge", flip=True)
            if self.study.blank.jaws_z is not None:
                for flip in (False, True):
                    draw.region(self.cut.scene.jaws, "jaw_fill", "jaw_edge", flip=flip)
        draw.axis()
        self._paint_moves(painter, draw, view)
        self._paint_findings(painter, view)
        draw.scale_bar(QPointF(self.width() - 24.0, self.height() - 16.0))
        draw.caption(QPointF(12.0, 20.0), tr("Above: the moves, click one for its line. Below: the metal at the line"))

    def _paint_moves(self, painter: QPainter, draw: Painter, view: View) -> None:
        moves = self._moves()
        chosen = [one for one in moves if one.line == self.line]
        if len(moves) > FEW_MOVES:
            near = range(self.line - 60, self.line + 61)
            moves = [one for one in moves if one.line in near]
        rapid, cut = draw.pen("rapid", 0.9, Qt.PenStyle.DotLine), draw.pen("accent", 1.2)
        for one in moves:
            painter.setPen(rapid if one.is_rapid else cut)
            painter.drawPolyline(view.line([one.segment]))
        painter.setPen(draw.pen("insert", 3.0))
        for one in chosen:
            painter.drawPolyline(view.line([one.segment]))
        last = chosen[-1] if chosen else next((one for one in reversed(moves) if one.line <= self.line), None)
        if last is not None:
            at = view.point(*last.end)
            painter.setBrush(self._theme.colour("insert"))
            painter.drawEllipse(at, 4, 4)

    def _paint_findings(self, painter: QPainter, view: View) -> None:
        if self.cut is None:
            return
        for finding in self.cut.findings:
            if finding.at is None:
                continue
            at, kind = view.point(*finding.at), kind_in(finding)
            colour = self._theme.colour(
                {"contact": "error", "not understood": "error", "question": "accent"}.get(kind, "warning")
            )
            painter.setPen(colour)
            painter.setBrush(colour if kind == "contact" else Qt.BrushStyle.NoBrush)
            if kind == "contact":
                painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8))
            else:
                painter.drawEllipse(at, 5, 5)

    # pointer -----------------------------------------------------------------------------------------------------

    def nearest(self, at: QPointF) -> int | None:
        """The line of the move under the pointer."""
        view = self.view()
        if view is None:
            return None
        z, r = view.place(at)
        best: tuple[float, int] | None = None
        for one in self._moves():
            points = one.segment.points(0.05)
            for (z0, r0), (z1, r1) in zip(points[:-1].tolist(), points[1:].tolist(), strict=True):
                way = _distance(z, abs(r), z0, r0, z1, r1)
                if best is None or way < best[0] - 1e-9:
                    best = (way, one.line)
        return best[1] if best is not None and best[0] * view.scale <= PICK_PX else None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = self._grabbed = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._grabbed is not None and self._view is not None and event.buttons():
            self._view = self._view.moved(event.position() - self._grabbed)
            self._grabbed, self._fitted = event.position(), False
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        still = self._pressed is not None and (event.position() - self._pressed).manhattanLength() < 4
        self._pressed = self._grabbed = None
        if still:
            line = self.nearest(event.position())
            if line is not None:
                self.line_chosen.emit(line)

    def wheelEvent(self, event: QWheelEvent) -> None:
        view = self.view()
        if view is not None:
            self._view = view.zoomed(1.15 ** (event.angleDelta().y() / 120), event.position())
            self._fitted = False
            self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self._fitted:
            self._view = None


def _distance(z: float, r: float, z0: float, r0: float, z1: float, r1: float) -> float:
    """From a point to a stretch of a line, mm."""
    dz, dr = z1 - z0, r1 - r0
    size = dz * dz + dr * dr
    share = 0.0 if size == 0 else min(max(((z - z0) * dz + (r - r0) * dr) / size, 0.0), 1.0)
    return math.hypot(z - z0 - share * dz, r - r0 - share * dr)
