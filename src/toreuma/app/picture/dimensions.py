"""Dimensions of the half section, as a turner writes them, and where each can be taken hold of."""

from collections.abc import Iterable
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt

from toreuma.app.forms.format import diameter
from toreuma.app.forms.size_text import size_text
from toreuma.app.picture.callouts import Callout, callouts
from toreuma.app.picture.paint import Painter
from toreuma.app.session import Selection
from toreuma.core.geometry.chain import Chain
from toreuma.core.geometry.elements import Arc, Line, Segment
from toreuma.core.geometry.profile import Profile
from toreuma.core.geometry.symbols import Symbol
from toreuma.core.model import Element, Part
from toreuma.core.scene import Scene
from toreuma.core.units import show

__all__ = ["Dimension", "DimensionPainter"]


BESIDE_PX = 17.0
LEAST_CORNER_PX = 7.0

LEADER_PX = 22.0
"""Length of the line from a feature to its words."""

MOST_MOVES = 6


@dataclass(frozen=True)
class Dimension:
    """Where a number stands on the canvas, and which field of which element of a profile it shows.

    With ``side`` "feature", ``element`` counts the part's features.
    """

    box: QRectF
    side: str
    element: int
    field: str


class DimensionPainter:
    """Writes the dimensions of one picture."""

    def __init__(self, draw: Painter) -> None:
        self._draw = draw

    def paint(self, scene: Scene, part: Part, symbols: Iterable[Symbol], chosen: Selection) -> list[Dimension]:
        """Diameters on their cylinders and, above the part, every corner's distance from the front face.

        Gives back where each number stands, so that it can be edited there.
        """
        self._draw.p.setFont(self._draw.theme.number_font(11))
        profile, found = scene.profile, list[Dimension]()
        chains: list[tuple[str, Chain | Profile, range, tuple[Element, ...]]] = [
            ("outside", profile, range(len(profile.segments) - 1), part.outside)
        ]
        bore = scene.shape.bore
        if bore is not None:
            chains.append(("inside", bore, range(1, len(bore.segments) - 1), part.inside))
        for side, chain, wanted, elements in chains:
            for index in wanted:
                segment, element = chain.segments[index], chain.elements[index]
                if element >= len(elements):
                    continue
                mark = chosen.side == side and chosen.element == element
                if chain.corners[index]:
                    found += self._corner(segment, elements[element], side, element, mark)
                elif isinstance(segment, Arc):
                    found += self._radius(segment, elements[element], side, element, mark)
                else:
                    found += self._diameter(segment, elements, side, element, mark)
        found += self._ordinates(profile, part, chosen)
        taken = [one.box for one in found]
        for callout in callouts(part, scene, symbols, self._draw.system):
            found += self._callout(callout, taken, chosen.feature == callout.feature)
        return found

    def _callout(self, callout: Callout, taken: list[QRectF], chosen: bool) -> list[Dimension]:
        """The words of a feature in the air beside it, moved away from what is written already."""
        metrics = self._draw.p.fontMetrics()
        widths = [metrics.horizontalAdvance(word.text) for word in callout.words]
        at = self._draw.view.point(*callout.at)
        box = QRectF(0, 0, sum(widths) + 8, 16)
        room = self._draw.room
        step = QPointF(0, -18 if callout.where == "above" else 18)
        if callout.where in ("above", "bore"):
            box.moveCenter(at + QPointF(0, -LEADER_PX if callout.where == "above" else LEADER_PX))
        elif callout.where == "front":
            box.moveTopLeft(at + QPointF(LEADER_PX, -8))
        else:
            box.moveTopRight(at + QPointF(-LEADER_PX, -8))
        box.moveLeft(min(max(box.left(), room.left() + 4), room.right() - box.width() - 4))
        for _ in range(MOST_MOVES):
            if not any(box.intersects(other) for other in taken):
                break
            box.translate(step)
        else:
            if not chosen:
                return []
        taken.append(box)
        self._draw.p.setPen(self._draw.pen("accent" if chosen else "muted", 1.6 if chosen else 0.8))
        self._draw.p.drawLine(at, QPointF(min(max(at.x(), box.left()), box.right()), box.center().y()))
        self._boxed(box, "".join(word.text for word in callout.words), chosen)
        x, found = box.left() + 4, []
        for word, width in zip(callout.words, widths, strict=True):
            if word.field:
                hit = QRectF(x, box.top(), width, box.height())
                found.append(Dimension(hit, "feature", callout.feature, word.field))
            x += width
        return found

    def _corner(self, segment: Segment, element: Element, side: str, index: int, chosen: bool) -> list[Dimension]:
        """Size of a chamfer or round, where it is large enough to be seen or its element is selected."""
        corner = element.corner
        if corner is None or (segment.length * self._draw.view.scale < LEAST_CORNER_PX and not chosen):
            return []
        sign = "C" if corner.kind == "chamfer" else "R"
        text = f"{sign}{show(corner.size_mm, 'mm', self._draw.system, trim=True).number}"
        return [Dimension(self._beside(segment, side, text, chosen), side, index, "corner")]

    def _radius(self, segment: Arc, element: Element, side: str, index: int, chosen: bool) -> list[Dimension]:
        if element.radius_mm is None:
            return []
        text = f"R{show(element.radius_mm, 'mm', self._draw.system, trim=True).number}"
        return [Dimension(self._beside(segment, side, text, chosen), side, index, "radius_mm")]

    def _beside(self, segment: Segment, side: str, text: str, chosen: bool) -> QRectF:
        """A small number in the air beside the middle of a segment."""
        z, r = segment.at(0.5)
        dz, dr = segment.tangent(0.5)
        away = (dr, -dz) if side == "outside" else (-dr, dz)  # to the right of the way: out of the metal
        at = self._draw.view.point(z, r) + QPointF(away[0] * BESIDE_PX, -away[1] * BESIDE_PX)
        width = self._draw.p.fontMetrics().horizontalAdvance(text)
        box = QRectF(at.x() - width / 2 - 2, at.y() - 8, width + 4, 16)
        self._boxed(box, text, chosen)
        return box

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
        if (grind := elements[element].grind_mm) is not None:
            text = f"{text} +{show(grind, 'mm', self._draw.system, trim=True).number} to grind"
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
