"""A job's part as a small picture, for folders of files."""

from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QRectF, Qt
from PySide6.QtGui import QGuiApplication, QImage, QPainter, QPen

from toreuma.app.picture.part_card import draw_part
from toreuma.app.theme import load_theme
from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.engine.glimpse import region_of
from toreuma.files.writing import write_atomically

__all__ = ["write_thumbnail"]


def write_thumbnail(job: Job, path: Path, size_px: int) -> None:
    """Write a square PNG. Raises `JobError` for a part that cannot be drawn or a place that cannot be written to."""
    app = QGuiApplication.instance() or QGuiApplication(["toreuma"])
    region = region_of(job.part)
    if region is None:
        raise JobError(job.name, "its part cannot be drawn", "open it and look at its surfaces")
    theme = load_theme("light")
    image = QImage(size_px, size_px, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(theme.colour("raised"))
    painter.setPen(QPen(theme.colour("line"), 1.0))
    edge = size_px / 32
    painter.drawRoundedRect(QRectF(1, 1, size_px - 2, size_px - 2), edge, edge)
    room = QRectF(0, 0, size_px, size_px).adjusted(3 * edge, 3 * edge, -3 * edge, -3 * edge)
    draw_part(painter, region, room, theme)
    painter.end()
    data = QByteArray()
    image.save(QBuffer(data), "PNG")  # type: ignore[call-overload]
    try:
        write_atomically(path, bytes(data.data()))
    except OSError as error:
        raise JobError(path.name, f"it cannot be written ({error.strerror})", "choose another place") from None
    del app
