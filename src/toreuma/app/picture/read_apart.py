"""Pictures of others read in a process of their own: a few lines of drawing may ask for more than any memory holds."""

import base64
from pathlib import Path
from typing import Any

from PySide6.QtCore import QBuffer, QByteArray, QSize, Qt
from PySide6.QtGui import QGuiApplication, QImage, QImageReader

from toreuma.core.errors import ImportFault
from toreuma.core.memo import Check, never_cancel
from toreuma.exchange.apart import Limits, Progress, run_apart, serve
from toreuma.exchange.imports import checked_bytes

__all__ = ["read_picture"]

LIMITS = Limits(wall_s=60.0, memory_mb=3_000)
MOST_PX, KEPT_PX = 12_000, 4_000
"""Larger pictures are refused; what is kept is made smaller than this, which is more than a screen shows."""


def read_picture(path: Path, check: Check = never_cancel) -> QImage:
    """A picture from a file. Raises `ImportFault`, and what ``check`` raises to stop."""
    checked_bytes(path)
    request = {"path": str(path.absolute()), "where": path.name}
    image = QImage()
    image.loadFromData(base64.b64decode(run_apart(__name__, request, path.name, LIMITS, check)), "PNG")
    if image.isNull():
        raise ImportFault(path.name, "this is no picture that can be read", "use PNG, JPEG or SVG")
    return image


def _work(request: dict[str, Any], progress: Progress) -> str:
    app = QGuiApplication.instance() or QGuiApplication(["toreuma"])
    reader = QImageReader(request["path"])
    reader.setAutoTransform(True)
    size = reader.size()
    if size.isValid() and max(size.width(), size.height()) > MOST_PX:
        raise ImportFault(request["where"], f"the picture is larger than {MOST_PX} pixels", "save it smaller")
    image = reader.read()
    if image.isNull():
        raise ImportFault(request["where"], "this is no picture that can be read", "use PNG, JPEG or SVG")
    if max(image.width(), image.height()) > KEPT_PX:
        image = image.scaled(QSize(KEPT_PX, KEPT_PX), Qt.AspectRatioMode.KeepAspectRatio)
    data = QByteArray()
    image.save(QBuffer(data), "PNG")  # type: ignore[call-overload]
    del app
    return base64.b64encode(bytes(data.data())).decode()


if __name__ == "__main__":
    serve(_work)
