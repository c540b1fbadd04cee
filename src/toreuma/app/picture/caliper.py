"""Measuring between two places of the profile."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.core.geometry.profile import Profile
from toreuma.core.units import show

__all__ = ["Caliper"]

SNAP_PX = 12


class Caliper:
    """Two places, snapped to corners: reads distance along Z, diameters and radial distance."""

    def __init__(self) -> None:
        self.active = False
        self.places: list[tuple[float, float]] = []
        self._over: tuple[float, float] | None = None

    def toggle(self) -> None:
        self.active = not self.active
        self.places, self._over = [], None

    def hover(self, view: View, at: QPointF, profile: Profile) -> None:
        self._over = self._snapped(view, at, profile) if self.active else None

    def click(self, view: View, at: QPointF, profile: Profile) -> None:
        if len(self.places) >= 2:
            self.places = []
        self.places.append(self._snapped(view, at, profile))

    @staticmethod
    def _snapped(view: View, at: QPointF, profile: Profile) -> tuple[float, float]:
        z, r = view.place(at)
        ends = [segment.end for segment in profile.segments] + [profile.segments[0].start]
        near = min(ends, key=lambda end: (end[0] - z) ** 2 + (end[1] - abs(r)) ** 2)
        close = (view.point(*near) - view.point(z, abs(r))).manhattanLength() <= SNAP_PX
        return near if close else (z, abs(r))

    def paint(self, draw: Painter) -> None:
        if not self.active:
            return
        colour = draw.theme.colour("accent")
        draw.p.setPen(draw.pen("accent", 1.6))
        draw.p.setBrush(Qt.BrushStyle.NoBrush)
        shown = [*self.places, *([self._over] if self._over and len(self.places) < 2 else [])]
        for place in shown:
            draw.p.drawEllipse(draw.view.point(*place), 5, 5)
        if len(shown) < 2:
            draw.caption(QPointF(12, 38), "Caliper: click two places; corners catch", "accent")
            return
        a, b = shown[0], shown[1]
        draw.p.drawLine(draw.view.point(*a), draw.view.point(*b))
        self._reading(draw, a, b, colour)

    @staticmethod
    def _reading(draw: Painter, a: tuple[float, float], b: tuple[float, float], colour: QColor) -> None:
        def text(value: float) -> str:
            return str(show(value, "mm", draw.system))

        lines = [
            f"along Z {text(abs(b[0] - a[0]))}",
            f"on radius {text(abs(b[1] - a[1]))}",
            f"Ø {text(2 * a[1])} and Ø {text(2 * b[1])}",
        ]
        at = draw.view.point(*b) + QPointF(12, -52)
        box = QRectF(at.x(), at.y(), 210, 52)
        draw.p.setBrush(draw.theme.colour("raised"))
        draw.p.drawRoundedRect(box, 3, 3)
        draw.p.setFont(draw.theme.number_font(11))
        draw.p.setPen(draw.theme.colour("ink"))
        draw.p.drawText(box.adjusted(8, 4, 0, 0), Qt.AlignmentFlag.AlignLeft, "\n".join(lines))
