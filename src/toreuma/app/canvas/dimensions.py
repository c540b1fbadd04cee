"""Dimensions of the half section, as a turner writes them, and where each can be taken hold of."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt

from toreuma.app.canvas.paint import Painter
from toreuma.app.format import diameter
from toreuma.app.session import Selection
from toreuma.app.size_text import size_text
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.profile import Profile
from toreuma.core.model import Element, Part
from toreuma.core.scene import Scene
from toreuma.core.units import show

__all__ = ["Dimension", "DimensionPainter"]


@dataclass(frozen=True)
class Dimension:
    """Where a number stands on the canvas, and which field of which element it shows."""

    box: QRectF
    side: str
    element: int
    field: str


class DimensionPainter:
    """Writes the dimensions of one picture."""

    def __init__(self, draw: Painter) -> None:
        self._draw = draw

    def paint(self, scene: Scene, part: Part, chosen: Selection) -> list[Dimension]:
        """Diameters on their cylinders and, above the part, every corner's distance from the front face.

        Gives back where each number stands, so that it can be edited there.
        """
        self._draw.p.setFont(self._draw.theme.number_font(11))
        profile, found = scene.profile, []
        for index, segment in enumerate(profile.segments[:-1]):
            if index < len(profile.elements) and not profile.corners[index]:
                element = profile.elements[index]
                mark = chosen.side == "outside" and chosen.element == element
                found += self._diameter(segment, part.outside, "outside", element, mark)
        bore = scene.shape.bore
        for index, segment in enumerate(bore.segments[1:-1] if bore else (), 1):
            if bore is not None and not bore.corners[index]:
                element = bore.elements[index]
                mark = chosen.side == "inside" and chosen.element == element
                found += self._diameter(segment, part.inside, "inside", element, mark)
        return found + self._ordinates(profile, part, chosen)

    def _ordinates(self, profile: Profile, part: Part, chosen: Selection) -> list[Dimension]:
        top = self._draw.view.point(0, profile.largest_r).y() - 34
        corners = [(0.0, 0.0, "outside", -1)]
        corners += [(e.z_mm, e.d_mm / 2, "outside", i) for i, e in enumerate(part.outside)]
        corners += [(e.z_mm, e.d_mm / 2, "inside", i) for i, e in enumerate(part.inside)]
        wanted = (chosen.side, chosen.element)
        found: list[Dimension] = []
        seen: list[float] = []
        for z, r, side, index in sorted(corners, key=lambda corner: (corner[2], corner[3]) != wanted):
            x = self._draw.view.point(z, 0).x()
            if not any(abs(x - other) < 14 for other in seen):
                seen.append(x)
                box = self._ordinate(x, self._draw.view.point(z, r).y(), top, z, (side, index) == wanted)
                if index >= 0:
                    found.append(Dimension(box, side, index, "z_mm"))
        return found

    def _diameter(
        self, segment: Segment, elements: tuple[Element, ...], side: str, element: int, chosen: bool
    ) -> list[Dimension]:
        level = isinstance(segment, Line) and abs(segment.start[1] - segment.end[1]) < 1e-6
        if not level or segment.start[1] <= 0 or element >= len(elements):
            return []
        size = elements[element].size
        text = diameter(elements[element].d_mm / 2, self._draw.system) + (
            f" {size_text(size, self._draw.system)}" if size else ""
        )
        middle = self._draw.view.point((segment.start[0] + segment.end[0]) / 2, segment.start[1])
        width = self._draw.p.fontMetrics().horizontalAdvance(text)
        room = abs(segment.end[0] - segment.start[0]) * self._draw.view.scale
        if room < 14:
            return []
        box = QRectF(middle.x() - width / 2 - 3, middle.y() + 6, width + 6, 16)
        hit = box
        if room < width + 6:
            self._draw.p.save()
            self._draw.p.translate(middle.x(), middle.y() + 6)
            self._draw.p.rotate(90)
            self._boxed(QRectF(0, -8, width + 6, 16), text, chosen)
            self._draw.p.restore()
            hit = QRectF(middle.x() - 8, middle.y() + 6, 16, width + 6)
        else:
            self._boxed(box, text, chosen)
        return [Dimension(hit, side, element, "d_mm")]

    def _boxed(self, box: QRectF, text: str, chosen: bool) -> None:
        self._draw.p.setPen(Qt.PenStyle.NoPen)
        self._draw.p.setBrush(self._draw.theme.colour("accent_soft" if chosen else "panel", 0.92))
        self._draw.p.drawRoundedRect(box, 2, 2)
        self._draw.p.setPen(self._draw.theme.colour("ink"))
        self._draw.p.drawText(box, Qt.AlignmentFlag.AlignCenter, text)

    def _ordinate(self, x: float, y: float, top: float, z: float, chosen: bool) -> QRectF:
        self._draw.p.setPen(self._draw.pen("accent" if chosen else "muted", 1.6 if chosen else 0.8))
        self._draw.p.drawLine(QPointF(x, y - 3), QPointF(x, top + 4))
        text = show(z, "mm", self._draw.system, trim=True).number
        width = self._draw.p.fontMetrics().horizontalAdvance(text)
        self._draw.p.save()
        self._draw.p.translate(x + 4, top)
        self._draw.p.rotate(-90)
        self._draw.p.setPen(self._draw.theme.colour("ink"))
        self._draw.p.drawText(QPointF(0, 0), text)
        self._draw.p.restore()
        return QRectF(x - 9, top - width - 2, 18, width + 6)
