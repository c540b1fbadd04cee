"""Where a place on the half section falls on the screen."""

from dataclasses import dataclass

import numpy as np
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainterPath, QPolygonF

from toreuma.core.geometry.elements import Points, Segment
from toreuma.core.geometry.region import Region, rings

__all__ = ["View"]


@dataclass(frozen=True)
class View:
    """``scale`` px per mm; ``z`` mm at ``origin.x``; the axis lies at ``origin.y``. Upper half upward."""

    scale: float
    z: float
    origin: QPointF

    @classmethod
    def fitting(cls, z0: float, z1: float, r: float, room: QRectF) -> "View":
        """Show z0 to z1 and radius ``r`` on both sides of the axis inside ``room``."""
        scale = min(room.width() / max(z1 - z0, 1e-3), room.height() / max(2 * r, 1e-3))
        return cls(max(scale, 1e-3), (z0 + z1) / 2, room.center())

    def point(self, z: float, r: float) -> QPointF:
        return QPointF(self.origin.x() + (z - self.z) * self.scale, self.origin.y() - r * self.scale)

    def place(self, point: QPointF) -> tuple[float, float]:
        """(z, r) of a screen point; r is negative below the axis."""
        return self.z + (point.x() - self.origin.x()) / self.scale, (self.origin.y() - point.y()) / self.scale

    def zoomed(self, factor: float, about: QPointF) -> "View":
        scale = min(max(self.scale * factor, 0.05), 50_000.0)
        z, r = self.place(about)
        x = about.x() - (z - self.z) * scale
        return View(scale, self.z, QPointF(x, about.y() + r * scale))

    def moved(self, by: QPointF) -> "View":
        return View(self.scale, self.z, self.origin + by)

    def path(self, region: Region, flip: bool = False) -> QPainterPath:
        """A region as a path; ``flip`` puts it below the axis."""
        path = QPainterPath()
        for ring in rings(region.simplify(0.1 / self.scale)):  # a tenth of a pixel
            path.addPolygon(self.polygon(ring, flip))
            path.closeSubpath()
        return path

    def polygon(self, points: Points, flip: bool = False) -> QPolygonF:
        x = self.origin.x() + (points[:, 0] - self.z) * self.scale
        y = self.origin.y() - (-points[:, 1] if flip else points[:, 1]) * self.scale
        return QPolygonF([QPointF(a, b) for a, b in zip(x.tolist(), y.tolist(), strict=True)])

    def line(self, segments: "tuple[Segment, ...] | list[Segment]", flip: bool = False) -> QPolygonF:
        """Joined segments as a polyline, fine enough for this zoom."""
        tolerance = max(0.15 / self.scale, 1e-5)
        return self.polygon(np.vstack([segment.points(tolerance) for segment in segments]), flip)
