"""The hand-over on the canvas: both chucks round the part, and the whole machine small in a corner."""

from PySide6.QtCore import QPointF, QRectF, Qt

from toreuma.app.picture.paint import Painter
from toreuma.app.picture.view import View
from toreuma.core.channels.machine_view import Outline
from toreuma.core.channels.transfer import Transfer
from toreuma.core.units import show

__all__ = ["MACHINE_PX", "paint_hand_over", "paint_machine"]

INSET_HEIGHT_PX = 170
MACHINE_PX = 176
"""Kept free for the whole machine above both chucks."""

SHOWN_MM = 70.0
"""So much of a carrier is shown; the rest runs out of the picture."""

FILLS = {"chuck": "chuck_fill", "part": "part_fill", "carrier": "tool_body"}


def paint_hand_over(draw: Painter, made: Transfer) -> None:
    """The second hold where it grips, and how far it stands back before and after."""
    for flip in (False, True):
        draw.region(made.body, "chuck_fill", "jaw_edge", flip)
        draw.region(made.jaws, "jaw_fill", "jaw_edge", flip)
    view = draw.view
    top = view.point(made.jaw_face_z, float(made.body.bounds[3]))
    draw.p.setFont(draw.theme.text_font(11))
    draw.caption(QPointF(top.x() + 8, max(top.y() - 10, 46)), "second spindle, gripping", "accent")
    right = view.point(float(made.body.bounds[2]), 0)
    back = show(made.back_mm, "mm", draw.system, trim=True)
    draw.p.setPen(draw.pen("accent", 1.6))
    start = QPointF(min(right.x() + 8, draw.room.right() - 60), right.y() + 16)
    end = start + QPointF(48, 0)
    draw.p.drawLine(start, end)
    for lift in (-4, 4):
        draw.p.drawLine(end, end + QPointF(-7, lift))
    draw.caption(QPointF(min(start.x(), draw.room.right() - 118), right.y() - 8), f"goes back {back}", "accent")


def paint_machine(draw: Painter, blocks: tuple[Outline, ...]) -> None:
    """Everything of the machine to one scale, above both chucks."""
    if not blocks:
        return
    frame = QRectF(12, 34, draw.room.width() - 24, INSET_HEIGHT_PX)
    painter, theme = draw.p, draw.theme
    painter.setPen(draw.pen("line"))
    painter.setBrush(theme.colour("panel"))
    painter.drawRoundedRect(frame, 3, 3)
    low, high = min(block.z[0] for block in blocks), max(block.z[1] for block in blocks)
    reach = max(min(abs(r) for r in block.r) if block.kind == "carrier" else block.r[1] for block in blocks) + SHOWN_MM
    view = View.fitting(low, high, reach, frame.adjusted(10, 18, -10, -22))
    painter.setFont(theme.text_font(10))
    painter.save()
    painter.setClipRect(frame.adjusted(1, 1, -1, -1))
    for block in blocks:
        corners = view.point(block.z[0], block.r[1]), view.point(block.z[1], block.r[0])
        room = QRectF(*corners)
        painter.setPen(draw.pen("jaw_edge", 0.8))
        painter.setBrush(theme.colour(FILLS[block.kind]))
        painter.drawRect(room)
    painter.setPen(draw.pen("axis", 0.8, Qt.PenStyle.DashDotLine))
    painter.drawLine(view.point(low, 0), view.point(high, 0))
    painter.restore()
    painter.setPen(theme.colour("ink"))
    for block in blocks:
        if block.kind == "part":
            continue
        near = min(block.r, key=abs) if block.kind == "carrier" else block.r[1]
        at = view.point(sum(block.z) / 2, near)
        width = painter.fontMetrics().horizontalAdvance(block.name)
        x = min(max(at.x() - width / 2, frame.left() + 6), frame.right() - width - 6)
        y = at.y() + 12 if block.kind == "carrier" and near > 0 else at.y() - 4
        painter.drawText(QPointF(x, y), block.name)
    painter.setPen(theme.colour("muted"))
    painter.drawText(QPointF(frame.left() + 8, frame.bottom() - 6), "the whole machine, carriers where they wait")
