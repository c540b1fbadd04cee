"""What may be seen on an edge, drawn: our own pictures to choose from."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QIcon, QPainter, QPen, QPixmap, QPolygonF

from toreuma.app.theme import Theme

__all__ = ["wear_icon"]

SIDE = 64
FACE = QPolygonF([QPointF(6, 14), QPointF(58, 14), QPointF(58, 40), QPointF(6, 40)])


def _flank(p: QPainter) -> None:
    p.drawRect(QRectF(8, 40, 48, 9))
    for x in range(11, 56, 5):
        p.drawLine(QPointF(x, 41), QPointF(x - 2, 48))


def _notch(p: QPainter) -> None:
    p.drawPolygon(QPolygonF([QPointF(42, 40), QPointF(47, 54), QPointF(52, 40)]))


def _chipping(p: QPainter) -> None:
    p.drawPolyline(QPolygonF([
        QPointF(8, 40), QPointF(16, 40), QPointF(20, 46), QPointF(25, 40), QPointF(33, 40), QPointF(36, 49),
        QPointF(43, 40), QPointF(47, 44), QPointF(50, 40), QPointF(56, 40),
    ]))  # fmt: skip


def _built_up(p: QPainter) -> None:
    p.drawChord(QRectF(16, 28, 32, 22), 0, 180 * 16)


def _crater(p: QPainter) -> None:
    p.drawEllipse(QRectF(14, 24, 36, 9))


def _broken(p: QPainter) -> None:
    p.drawPolyline(QPolygonF([QPointF(34, 14), QPointF(40, 24), QPointF(34, 31), QPointF(44, 38), QPointF(58, 52)]))


SIGNS: dict[str, Callable[[QPainter], None]] = {
    "flank": _flank, "notch": _notch, "chipping": _chipping, "built-up edge": _built_up, "crater": _crater,
    "broken": _broken,
}  # fmt: skip


def wear_icon(seen: str, theme: Theme) -> QIcon:
    """The edge from in front, with what is seen on it."""
    pixmap = QPixmap(QSize(SIDE, SIDE))
    pixmap.fill(Qt.GlobalColor.transparent)
    p = QPainter(pixmap)
    p.setRenderHint(QPainter.RenderHint.Antialiasing)
    p.setPen(QPen(theme.colour("ink"), 2))
    p.setBrush(theme.colour("insert"))
    p.drawPolygon(FACE)
    p.setBrush(theme.colour("error", 0.35))
    p.setPen(QPen(theme.colour("error"), 2))
    if seen in SIGNS:
        SIGNS[seen](p)
    p.end()
    return QIcon(pixmap)
