"""A drawing of what a code names, which changes as its letters change."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.geometry.insert_picture import InsertPicture
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.model.tool import Insert
from toreuma.core.units import show

__all__ = ["CodeDrawing"]

MARGIN_PX = 34
LINES_PX = 30
"""Room for the words below the side view."""
HEAD_MM = 70.0


class CodeDrawing(QWidget):
    """Shows an insert from above and from the side, or a holder's head with its insert."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._insert: tuple[Insert, InsertPicture] | None = None
        self._tool: ToolShape | None = None
        self._words: tuple[str, ...] = ()
        self.setMinimumSize(280, 260)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Drawing of what the code names"))

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.update()

    def show_insert(self, insert: Insert, picture: InsertPicture) -> None:
        self._insert, self._tool = (insert, picture), None
        self.update()

    def show_tool(self, shape: ToolShape, words: tuple[str, ...] = ()) -> None:
        """Draw a tool's head; ``words`` are sizes written below it."""
        self._insert, self._tool, self._words = None, shape, words
        self.update()

    def show_nothing(self) -> None:
        self._insert = self._tool = None
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self._theme.colour("paper"))
        painter.setFont(self._theme.number_font(12))
        if self._insert is not None:
            self._paint_insert(painter, *self._insert)
        elif self._tool is not None:
            self._paint_tool(painter, self._tool)
        else:
            painter.setPen(self._theme.colour("muted"))
            painter.setFont(self._theme.text_font())
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "Nothing to draw yet")
        painter.end()

    def _paint_insert(self, painter: QPainter, insert: Insert, picture: InsertPicture) -> None:
        room = QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX)
        low, high = picture.sharp.min(axis=0), picture.sharp.max(axis=0)
        if insert.shape == "R":
            low, high = low * 0 - insert.ic_mm / 2, high * 0 + insert.ic_mm / 2
        wide, tall = float(high[0] - low[0]), float(high[1] - low[1])
        gap, thick_mm = 0.3 * tall, insert.thickness_mm
        high_mm = tall + gap + thick_mm
        scale = min(room.width() / wide, (room.height() - LINES_PX) / high_mm)
        x, top = room.center().x(), room.center().y() - scale * high_mm / 2 - LINES_PX / 2
        middle = float(low[0] + high[0]) / 2
        above = View(scale, middle, QPointF(x, top + scale * float(high[1])))
        self._fill(painter, above, picture)
        self._inscribed(painter, above, insert, picture)
        beside = View(scale, 0.0, QPointF(x, top + scale * (tall + gap)))
        painter.setPen(self._pen("part_edge", 1.8))
        painter.setBrush(self._theme.colour("insert", 0.35))
        painter.drawPolygon(beside.polygon(picture.side))
        painter.setPen(self._theme.colour("ink"))
        thick = show(insert.thickness_mm, "mm", "mm", decimals=2)
        inch = show(insert.thickness_mm, "mm", "inch", decimals=3)
        below = beside.point(0, -thick_mm) + QPointF(0, 18)
        self._word(painter, below, f"S {thick}  ({inch})")
        if insert.clearance_deg:
            self._word(painter, beside.point(0, -thick_mm / 2), f"clearance {insert.clearance_deg:g}°")

    def _fill(self, painter: QPainter, view: View, picture: InsertPicture) -> None:
        painter.setPen(self._pen("part_edge", 1.8))
        painter.setBrush(self._theme.colour("insert", 0.35))
        painter.drawPath(view.path(picture.top))
        pen = self._pen("accent", 3.0)
        painter.setPen(pen)
        if picture.edge[0] != picture.edge[1]:
            painter.drawPolyline(QPolygonF([view.point(*place) for place in picture.edge]))

    def _inscribed(self, painter: QPainter, view: View, insert: Insert, picture: InsertPicture) -> None:
        pen = self._pen("muted", 1.0)
        pen.setDashPattern([6, 4])
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if insert.shape not in "LABK":
            radius = picture.centre_r * view.scale
            painter.drawEllipse(view.point(0, 0), radius, radius)
        ic = show(insert.ic_mm, "mm", "mm", decimals=3, trim=True)
        inch = show(insert.ic_mm, "mm", "inch", decimals=3)
        self._word(painter, view.point(0, 0), f"IC {ic}")
        self._word(painter, view.point(0, 0) + QPointF(0, 18), f"({inch})")
        at = view.point(*picture.corner)
        if insert.shape != "R":
            self._word(painter, at + QPointF(6, 22), f"{insert.included_angle_deg:g}°, R {insert.nose_radius_mm:g} mm")

    def _paint_tool(self, painter: QPainter, shape: ToolShape) -> None:
        room = QRectF(self.rect()).adjusted(MARGIN_PX, MARGIN_PX, -MARGIN_PX, -MARGIN_PX)
        z0, r0, z1, r1 = shape.cutting.union(shape.body).bounds
        inside = shape.tip[1] > 0
        axial = shape.tip == (0.0, 0.0)
        z1, r1 = (z1 if axial else min(z1, HEAD_MM), r1) if inside or axial else (z1, min(r1, HEAD_MM))
        scale = min(room.width() / (z1 - z0), room.height() / (r1 - r0))
        origin = QPointF(room.center().x() - scale * (z0 + z1) / 2, room.center().y() + scale * (r0 + r1) / 2)
        view = View(scale, 0.0, origin)
        painter.setClipRect(room.adjusted(-12, -12, 12, 12))
        painter.setPen(self._pen("jaw_edge", 1.4))
        painter.setBrush(self._theme.colour("tool_body", 0.8))
        painter.drawPath(view.path(shape.body))
        painter.setPen(self._pen("part_edge", 1.4))
        painter.setBrush(self._theme.colour("insert", 0.9))
        painter.drawPath(view.path(shape.cutting))
        painter.setClipping(False)
        tip = view.point(*shape.tip)
        painter.setPen(self._pen("accent", 2.0))
        painter.drawLine(tip - QPointF(9, 0), tip + QPointF(9, 0))
        painter.drawLine(tip - QPointF(0, 9), tip + QPointF(0, 9))
        self._sizes(painter)
        if not axial:
            self._word(painter, tip + QPointF(40, 22 if not inside else -14), f"κ {shape.entering_angle_deg:g}°")

    def _sizes(self, painter: QPainter) -> None:
        """As many sizes as go into one line at the bottom."""
        text, room = "", self.width() - 16
        for word in self._words:
            longer = f"{text}   {word}" if text else word
            if painter.fontMetrics().horizontalAdvance(longer) > room:
                break
            text = longer
        if text:
            self._word(painter, QPointF(self.width() / 2, self.height() - 14), text)

    def _word(self, painter: QPainter, at: QPointF, text: str) -> None:
        width = painter.fontMetrics().horizontalAdvance(text) + 8
        box = QRectF(at.x() - width / 2, at.y() - 9, width, 18)
        box.moveLeft(min(max(box.left(), 4.0), self.width() - width - 4.0))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self._theme.colour("paper", 0.85))
        painter.drawRoundedRect(box, 2, 2)
        painter.setPen(self._theme.colour("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _pen(self, name: str, width: float) -> QPen:
        pen = QPen(self._theme.colour(name), width)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        return pen
