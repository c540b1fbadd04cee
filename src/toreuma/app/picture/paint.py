"""How things on the canvas look."""

import math
from collections.abc import Iterable

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QPainter, QPen, QPixmap, QPolygonF

from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.core.cutting.beam import Compliance
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Points, Segment
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.symbols import Symbol
from toreuma.core.plan.ground.result import Cuts, OperationPlan
from toreuma.core.scene import Scene
from toreuma.core.units import System, show

__all__ = ["Painter", "PassLines"]

HATCH_PX = 8
MOST_KEPT = 1000


class PassLines:
    """The passes of operations as lines on the screen, kept as long as they are seen in the same view."""

    def __init__(self) -> None:
        self._view: View | None = None
        self._kept: dict[int, tuple[Cuts, list[QPolygonF]]] = {}

    def of(self, planned: OperationPlan, view: View) -> list[QPolygonF]:
        if view != self._view or len(self._kept) > MOST_KEPT:
            self._view, self._kept = view, {}
        known = self._kept.get(id(planned.cuts))
        if known is None:
            known = planned.cuts, [view.line(one.segments) for one in planned.cuts.passes]
            self._kept[id(planned.cuts)] = known
        return known[1]


class Painter:
    """Draws one picture of the canvas."""

    def __init__(
        self, painter: QPainter, view: View, theme: Theme, system: System, room: QRectF, lines: PassLines | None = None
    ) -> None:
        self.lines = lines or PassLines()
        self.p = painter
        self.view = view
        self.theme = theme
        self.system = system
        self.room = room

    def pen(self, name: str, width: float = 1.0, style: Qt.PenStyle = Qt.PenStyle.SolidLine) -> QPen:
        pen = QPen(self.theme.colour(name), width, style)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        return pen

    def hatch(self, name: str, alpha: float = 1.0, lean_left: bool = False) -> QBrush:
        """Thin lines at 45 degrees, as a section is drawn."""
        tile = QPixmap(HATCH_PX * 2, HATCH_PX * 2)
        tile.fill(Qt.GlobalColor.transparent)
        painter = QPainter(tile)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self.theme.colour(name, alpha), 1.6))
        n = HATCH_PX * 2
        for shift in (-n, 0, n):
            if lean_left:
                painter.drawLine(QPointF(shift, 0), QPointF(shift + n, n))
            else:
                painter.drawLine(QPointF(shift, n), QPointF(shift + n, 0))
        painter.end()
        tile.setDevicePixelRatio(2.0)
        return QBrush(tile)

    def axis(self) -> None:
        pen = self.pen("axis", 1.0)
        pen.setDashPattern([14, 4, 2, 4])
        pen.setCapStyle(Qt.PenCapStyle.FlatCap)
        self.p.setPen(pen)
        y = self.view.origin.y()
        self.p.drawLine(QPointF(self.room.left(), y), QPointF(self.room.right(), y))

    def region(self, region: Region, fill: str, edge: str, flip: bool = False, alpha: float = 1.0) -> None:
        self.p.setBrush(self.theme.colour(fill, alpha))
        self.p.setPen(self.pen(edge, 1.2))
        self.p.drawPath(self.view.path(region, flip))

    def workholding(self, scene: Scene) -> None:
        for flip in (False, True):
            self.region(scene.chuck, "chuck_fill", "jaw_edge", flip)
            self.region(scene.jaws, "jaw_fill", "jaw_edge", flip)
            self.region(scene.centre, "jaw_fill", "jaw_edge", flip)
            self.region(scene.steady, "jaw_fill", "jaw_edge", flip)

    def part(self, scene: Scene) -> None:
        self.section(scene.part)
        self._edges_beyond(scene)

    def section(self, region: Region) -> None:
        """A hatched half section with its outline."""
        path = self.view.path(region)
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(self.theme.colour("part_fill"))
        self.p.drawPath(path)
        self.p.setBrush(self.hatch("part_hatch"))
        self.p.drawPath(path)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.setPen(self.pen("part_edge", 1.8))
        self.p.drawPath(path)

    def _edges_beyond(self, scene: Scene) -> None:
        """Steps of the bore seen behind the section."""
        if scene.shape.bore is None:
            return
        self.p.setPen(self.pen("part_edge", 0.8))
        for segment in scene.shape.bore.segments[1:]:
            z, r = segment.start
            self.p.drawLine(self.view.point(z, 0.0), self.view.point(z, r))

    def symbols(self, symbols: Iterable[Symbol], selected: int | None) -> None:
        """Threads, holes, flats and slots as a drawing shows them."""
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        for symbol in symbols:
            pen = self.pen("part_edge", {"thin": 0.8, "edge": 1.4, "centre": 0.8}[symbol.style])
            if symbol.style == "centre":
                pen.setDashPattern([10, 3, 2, 3])
            if symbol.feature == selected:
                pen.setColor(self.theme.colour("accent"))
                pen.setWidthF(max(pen.widthF(), 2.2) if symbol.style == "edge" else pen.widthF())
            self.p.setPen(pen)
            self.p.drawPolyline(self.view.polygon(np.array(symbol.points)))

    def outline(self, region: Region, name: str, width: float, dash: list[float] | None = None) -> None:
        """Only the outline of a region, above the axis."""
        pen = self.pen(name, width)
        if dash:
            pen.setDashPattern(dash)
        self.p.setPen(pen)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.drawPath(self.view.path(region))

    def second_grip(self, front_z: float, back_z: float, r: float) -> None:
        """Where the second hold will sit: brackets over the surface."""
        for flip in (1.0, -1.0):
            a, b = (self.view.point(z, flip * r) for z in (front_z, back_z))
            lift = QPointF(0, -12.0 * flip)
            self.p.setPen(self.pen("accent", 2.0))
            self.p.drawPolyline(QPolygonF([a, a + lift, b + lift, b]))
        text = "second hold"
        at = self.view.point((front_z + back_z) / 2, r)
        self.p.setFont(self.theme.text_font(11))
        self.caption(at - QPointF(self.p.fontMetrics().horizontalAdvance(text) / 2, 18), text, "accent")

    def bending(self, along: Compliance, base_y: float, height: float) -> None:
        """How far the piece gives way under 100 N, along its free length, as a curve over its own base line."""
        worst_z, worst = along.worst
        scale = height / worst if worst > 0 else 0.0
        points = [
            QPointF(self.view.point(float(z), 0).x(), base_y - float(c) * scale)
            for z, c in zip(along.z, along.mm_per_n, strict=True)
        ]
        ends = [QPointF(points[-1].x(), base_y), QPointF(points[0].x(), base_y)]
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(self.theme.colour("accent", 0.16))
        self.p.drawPolygon(QPolygonF([*points, *ends]))
        self.p.setPen(self.pen("accent", 1.8))
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.drawPolyline(QPolygonF(points))
        self.p.setPen(self.pen("line", 1.0))
        self.p.drawLine(ends[0], ends[1])
        text = f"{show(100_000 * worst, 'um', self.system, decimals=2)} under {show(100, 'N', self.system)}"
        where = show(worst_z, "mm", self.system, decimals=1, trim=True)
        self.p.setFont(self.theme.number_font(11))
        left = min(max(ends[0].x(), self.room.left() + 8), self.room.right() - 260)
        self.caption(QPointF(left, base_y + 15), f"Gives way most at Z {where}: {text}", "ink")

    def part_ghost(self, scene: Scene) -> None:
        """The finished outline over the metal below the axis."""
        pen = self.pen("part_edge", 1.0)
        pen.setDashPattern([3, 3])
        self.p.setPen(pen)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.drawPath(self.view.path(scene.part, flip=True))

    def blank(self, scene: Scene) -> None:
        """The blank round the part above the axis: a light ground with a dashed edge."""
        path = self.view.path(scene.stock)
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(self.theme.colour("stock_fill", 0.35))
        self.p.drawPath(path)
        pen = self.pen("stock_edge", 1.0)
        pen.setDashPattern([6, 4])
        self.p.setPen(pen)
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.drawPath(path)

    def metal(self, region: Region, blank: Region) -> None:
        """The stock as it is, below the axis, on the faint ground of what was there before."""
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(self.theme.colour("removed", 0.9))
        self.p.drawPath(self.view.path(blank, flip=True))
        self.region(region, "stock_fill", "stock_edge", flip=True)

    def opened(self, symbols: Iterable[Symbol]) -> None:
        """Holes, flats and slots that are open, below the axis: no metal inside their outline."""
        self.p.setBrush(self.theme.colour("paper"))
        self.p.setPen(self.pen("stock_edge", 1.2))
        for symbol in symbols:
            if symbol.style == "edge":
                self.p.drawPolygon(QPolygonF([self.view.point(z, -r) for z, r in symbol.points]))

    def passes(self, planned: OperationPlan, selected: bool, faint: bool) -> None:
        """Passes as strokes as wide as they are deep, in the temper colour of their load."""
        for one, line in zip(planned.cuts.passes, self.lines.of(planned, self.view), strict=True):
            if one.finishing:
                pen = self.pen("finish", 2.2 if selected else 1.3)
            else:
                colour = self.theme.load_colour(planned.load_of(one))
                colour.setAlphaF(0.22 if faint else 1.0)
                pen = QPen(
                    colour, min(max(one.depth_mm * self.view.scale * 0.22, 1.2), 6.0) * (1.0 if selected else 0.7)
                )
                pen.setCapStyle(Qt.PenCapStyle.RoundCap)
                pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
            if faint and one.finishing:
                pen.setColor(self.theme.colour("finish", 0.3))
            self.p.setPen(pen)
            self.p.drawPolyline(line)

    def travel(self, planned: OperationPlan) -> None:
        """Rapids as fine dots."""
        pen = self.pen("rapid", 1.0)
        pen.setDashPattern([1, 4])
        self.p.setPen(pen)
        for motion in planned.motions:
            if motion.is_rapid:
                self.p.drawPolyline(self.view.line([motion.segment]))

    def tool(self, body: list[Points], cutting: list[Points]) -> None:
        self.p.setPen(self.pen("jaw_edge", 1.0))
        self.p.setBrush(self.theme.colour("tool_body", 0.75))
        for ring in body:
            self.p.drawPolygon(self.view.polygon(ring, flip=True))
        self.p.setPen(self.pen("part_edge", 1.0))
        self.p.setBrush(self.theme.colour("insert", 0.95))
        for ring in cutting:
            self.p.drawPolygon(self.view.polygon(ring, flip=True))

    def highlight(self, segments: list[Segment]) -> None:
        self.p.setBrush(Qt.BrushStyle.NoBrush)
        self.p.setPen(self.pen("accent", 4.0))
        self.p.drawPolyline(self.view.line(segments))

    def leftover(self, undeclared: Region, declared: Region, gouged: Region) -> None:
        for region, name in ((declared, "warning"), (undeclared, "leftover"), (gouged, "error")):
            path = self.view.path(region, flip=True)
            self.p.setPen(self.pen(name, 1.2))
            self.p.setBrush(self.theme.colour(name, 0.45))
            self.p.drawPath(path)

    def marks(self, findings: Iterable[Finding], selected_at: tuple[float, float] | None) -> None:
        """A flag at the place of each finding: a triangle for errors, a ring for the rest."""
        for finding in findings:
            if finding.at is None:
                continue
            at = self.view.point(finding.at[0], -abs(finding.at[1]))
            name = {"error": "error", "warning": "warning"}.get(finding.severity, "muted")
            chosen = finding.at == selected_at
            self.p.setPen(self.pen(name, 2.4 if chosen else 1.6))
            self.p.setBrush(self.theme.colour("panel", 0.85))
            size = 9.0 if chosen else 6.5
            if finding.severity == "error":
                top, left, right = QPointF(0, -size), QPointF(-size, size * 0.8), QPointF(size, size * 0.8)
                self.p.drawPolygon(QPolygonF([at + top, at + left, at + right]))
            else:
                self.p.drawEllipse(at, size * 0.8, size * 0.8)

    # Frame

    def scale_bar(self, at: QPointF) -> None:
        """A round length that is 60 to 150 px long, ending at ``at``."""
        unit = 25.4 if self.system == "inch" else 1.0
        length = 60 / self.view.scale / unit
        power = 10.0 ** math.floor(math.log10(length))
        nice = next(step * power for step in (1, 2, 5, 10) if step * power >= length)
        px = nice * unit * self.view.scale
        self.p.setPen(self.pen("ink", 1.4))
        left = at - QPointF(px, 0)
        self.p.drawLine(left, at)
        for end in (left, at):
            self.p.drawLine(end - QPointF(0, 4), end + QPointF(0, 4))
        self.p.setFont(self.theme.number_font(11))
        text = f"{nice:g} {'in' if self.system == 'inch' else 'mm'}"
        self.p.drawText(QRectF(left.x(), at.y() - 22, px, 16), Qt.AlignmentFlag.AlignCenter, text)

    def load_key(self, at: QPointF, words: str) -> None:
        """What the temper colours mean; ``at`` is the right end."""
        width, steps = 14.0, (0.0, 0.25, 0.5, 0.75, 1.0, 1.2)
        left = at.x() - width * len(steps)
        for index, share in enumerate(steps):
            self.p.fillRect(QRectF(left + index * width, at.y() - 8, width - 1, 8), self.theme.load_colour(share))
        self.p.setFont(self.theme.text_font(11))
        self.p.setPen(self.theme.colour("muted"))
        self.p.drawText(QRectF(left - 210, at.y() - 12, 204, 16), Qt.AlignmentFlag.AlignRight, words)
        self.p.setFont(self.theme.number_font(10))
        labels = QRectF(left - 4, at.y() + 1, width * 5, 14)
        self.p.drawText(labels, Qt.AlignmentFlag.AlignLeft, "0")
        self.p.drawText(labels, Qt.AlignmentFlag.AlignRight, "100 %")
        self.p.drawText(QRectF(at.x() - width, at.y() + 1, 20, 14), Qt.AlignmentFlag.AlignLeft, ">")

    def caption(self, at: QPointF, text: str, colour: str = "muted", numbers: bool = False) -> None:
        self.p.setFont(self.theme.number_font(11) if numbers else self.theme.text_font(11))
        box = QRectF(self.p.fontMetrics().boundingRect(text)).translated(at).adjusted(-4, -2, 4, 2)
        self.p.setPen(Qt.PenStyle.NoPen)
        self.p.setBrush(self.theme.colour("paper", 0.85))
        self.p.drawRoundedRect(box, 2, 2)
        self.p.setPen(self.theme.colour(colour))
        self.p.drawText(at, text)
