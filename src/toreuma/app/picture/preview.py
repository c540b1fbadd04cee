"""A part that was read from a file, over what the file holds, before it is taken."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.app.theme import Theme
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.symbols import symbols_of
from toreuma.core.units import System
from toreuma.exchange.imports import Imported
from toreuma.shipped.library import known_threads

__all__ = ["paint_preview"]


def paint_preview(
    painter: QPainter, room: QRectF, frame: QRectF, theme: Theme, system: System, found: Imported, before: Region | None
) -> None:
    """The understood part filled, the file's own lines thick under it, the part as it was faint behind."""
    regions = [found.drawn, *([before] if before is not None else [])]
    z0, z1 = min(r.bounds[0] for r in regions), max(r.bounds[2] for r in regions)
    view = View.fitting(z0 - 4, z1 + 4, 1.15 * max(r.bounds[3] for r in regions), room)
    draw = Painter(painter, view, theme, system, frame)
    if before is not None:
        draw.outline(before, "muted", 1.0, [5, 4])
    shape = build_part(found.part)
    draw.outline(found.drawn, "accent", 5.0)
    draw.section(shape.region)
    draw.symbols(symbols_of(found.part, shape, known_threads(found.part)), None)
    draw.axis()
    painter.setBrush(Qt.BrushStyle.NoBrush)
    draw.caption(QPointF(12, 20), "Hatched: as understood. Thick line: as the file has it.")
    if before is not None:
        draw.caption(QPointF(12, 38), "Dashed: the part as it is now.")
    draw.scale_bar(QPointF(frame.width() - 16, frame.height() - 30))
