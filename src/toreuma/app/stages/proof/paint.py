"""Surfaces of the finished piece in the colour of what they use of their limits, each with its number."""

from collections.abc import Iterable

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPen

from toreuma.app.picture.paint import Painter
from toreuma.core.prove import Proof
from toreuma.core.prove.surfaces import SurfaceMade
from toreuma.core.units import show

__all__ = ["paint_deviations"]

STROKE_PX = 4.0
AWAY_PX = 16.0
FAULT_AWAY_PX = 26.0
CROWDED_PX = 70.0
"""Faults closer together than this share the number of the worst."""

MOST_NUMBERS = 14
LEAST_UM = 0.05
TOLD_UM = 1.0
"""Where the drawing gives no limits, numbers below this only fill the picture."""


def paint_deviations(draw: Painter, proof: Proof) -> None:
    """Below the axis, over the metal: strokes along every surface, numbers beside them, gouges and metal left."""
    taken: list[QRectF] = []
    told_at: list[QPointF] = []
    for kind, at, um in _faults(proof):
        place = draw.view.point(at[0], -at[1]) + QPointF(0, FAULT_AWAY_PX)
        if all((place - other).manhattanLength() > CROWDED_PX for other in told_at):
            told_at.append(place)
            _number(draw, place, f"{kind} {_um(draw, um)}", "error", taken)
    told = (s for s in proof.surfaces if s.cut and (s.bounded or abs(s.deviation_um) >= TOLD_UM))
    shown = sorted(told, key=lambda s: (not s.bounded, -s.share))
    for surface in shown[:MOST_NUMBERS]:
        _label(draw, surface, taken)
    for surface in proof.surfaces:  # over the grounds of the numbers
        _stroke(draw, surface)


def _faults(proof: Proof) -> Iterable[tuple[str, tuple[float, float], float]]:
    """Gouges and pieces of metal left that the plan did not declare, the worst of each place."""
    for gouge in sorted(proof.gouges, key=lambda one: -one.depth_mm)[:8]:
        yield "gouge", gouge.at, 1000 * gouge.depth_mm
    for place, um in proof.left[:8]:
        yield "left", place, um


def _stroke(draw: Painter, surface: SurfaceMade) -> None:
    colour = draw.theme.load_colour(surface.share) if surface.cut else draw.theme.colour("muted", 0.5)
    pen = QPen(colour, STROKE_PX if surface.cut else 1.5)
    pen.setCapStyle(Qt.PenCapStyle.FlatCap)
    if not surface.cut:
        pen.setDashPattern([2, 2])
    draw.p.setPen(pen)
    draw.p.setBrush(Qt.BrushStyle.NoBrush)
    draw.p.drawPolyline(draw.view.polygon(surface.points, flip=True))


def _label(draw: Painter, surface: SurfaceMade, taken: list[QRectF]) -> None:
    z, r = surface.middle
    at = draw.view.point(z, -r)
    away = 1 if surface.side == "outside" else -1
    sign = "+" if surface.deviation_um > LEAST_UM else "−" if surface.deviation_um < -LEAST_UM else ""
    number = f"{sign}{_um(draw, abs(surface.deviation_um))}"
    if surface.bounded:
        number += f" of ±{show(surface.allowed_um, 'size_um', draw.system, trim=True).number}"
    name = surface.name if surface.bounded or surface.share > 1 else ""
    _number(draw, at + QPointF(0, away * AWAY_PX), f"{name} {number}".strip(), "ink", taken, away)


def _um(draw: Painter, um: float) -> str:
    return str(show(um, "size_um", draw.system, decimals=1))


def _number(draw: Painter, at: QPointF, text: str, colour: str, taken: list[QRectF], away: int = 1) -> None:
    """Written where nothing else is written yet, ever farther down or (-1) up; left out otherwise, the strokes tell."""
    draw.p.setFont(draw.theme.number_font(11))
    metrics = draw.p.fontMetrics()
    width, height = metrics.horizontalAdvance(text), metrics.height()
    left = min(max(at.x() - width / 2, draw.room.left() + 6), draw.room.right() - width - 6)
    for lines in range(4):
        shift = lines * (height + 2.0) * away
        box = QRectF(left - 3, at.y() - height + 3 + shift, width + 6, height)
        if draw.room.contains(box) and not any(box.intersects(other) for other in taken):
            taken.append(box)
            draw.caption(QPointF(left, at.y() + shift), text, colour, numbers=True)
            return
