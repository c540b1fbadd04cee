"""Pages one below the other, as they will be printed."""

from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPaintEvent, QPalette, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QAbstractScrollArea

from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.papers.pdf import Pages

__all__ = ["PagesView", "image_of"]

GAP_PX, MARGIN_PX = 14, 16
LEAST, MOST, STEP = 0.35, 4.0, 1.15
"""How far pages are made smaller and larger, against the width of the view."""
KEPT = 12
"""So many drawn pages are kept."""


def image_of(pages: Pages, number: int, width_px: int) -> QImage:
    """A page so wide."""
    width, height, data = pages.image(number, width_px)
    return QImage(data, width, height, 4 * width, QImage.Format.Format_RGB32).copy()


class PagesView(QAbstractScrollArea):
    """Draws the pages that are seen; Ctrl and the wheel make them larger and smaller."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setAccessibleName(tr("Pages as they are printed"))
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._pages: Pages | None = None
        self._drawn: dict[tuple[int, int], QImage] = {}
        self.words = ""
        self.zoom = 1.0
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        palette = self.viewport().palette()
        palette.setColor(QPalette.ColorRole.Window, theme.colour("line"))
        self.viewport().setPalette(palette)
        self.viewport().setAutoFillBackground(True)
        self.viewport().update()

    @property
    def count(self) -> int:
        """How many pages there are."""
        return len(self._pages.sizes) if self._pages is not None else 0

    @property
    def page(self) -> int:
        """The page at the top, counted from 1; 0 where there are none."""
        top = self.verticalScrollBar().value() + MARGIN_PX + GAP_PX
        return next((n + 1 for n, box in enumerate(self._boxes()) if box.bottom() > top), self.count)

    def show_pages(self, pages: Pages | None) -> None:
        """Other pages; the place that is looked at stays."""
        if self._pages is not None:
            self._pages.close()
        self._pages, self._drawn = pages, {}
        self._lay()

    def say(self, words: str) -> None:
        """What stands here while there are no pages, or above them while others are being made."""
        if words != self.words:
            self.words = words
            self.viewport().update()

    def go_to(self, page: int) -> None:
        """Bring a page, counted from 1, to the top."""
        boxes = self._boxes()
        if 0 < page <= len(boxes):
            self.verticalScrollBar().setValue(boxes[page - 1].top() - MARGIN_PX)

    def zoom_by(self, factor: float) -> None:
        """Larger or smaller; what is at the top stays there."""
        share = self.verticalScrollBar().value() / max(self._tall(), 1)
        self.zoom = min(max(self.zoom * factor, LEAST), MOST)
        self._drawn = {}
        self._lay()
        self.verticalScrollBar().setValue(round(share * self._tall()))

    def fit(self) -> None:
        """As wide as the view."""
        self.zoom_by(1 / self.zoom)

    def _boxes(self) -> list[QRect]:
        """Where the pages stand, from the top of the first one."""
        boxes, y = [], MARGIN_PX
        room = self.viewport().width() - 2 * MARGIN_PX
        for width, height in self._pages.sizes if self._pages is not None else ():
            wide = max(round(min(room, 980) * self.zoom), 50)
            tall = round(wide * height / width)
            boxes.append(QRect(max((self.viewport().width() - wide) // 2, MARGIN_PX), y, wide, tall))
            y += tall + GAP_PX
        return boxes

    def _tall(self) -> int:
        boxes = self._boxes()
        return boxes[-1].bottom() + MARGIN_PX if boxes else 0

    def _lay(self) -> None:
        boxes = self._boxes()
        wide = max((box.right() + MARGIN_PX for box in boxes), default=0)
        self.verticalScrollBar().setRange(0, max(self._tall() - self.viewport().height(), 0))
        self.verticalScrollBar().setPageStep(self.viewport().height())
        self.verticalScrollBar().setSingleStep(60)
        self.horizontalScrollBar().setRange(0, max(wide - self.viewport().width(), 0))
        self.horizontalScrollBar().setPageStep(self.viewport().width())
        self.viewport().update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._drawn = {}
        self._lay()

    def wheelEvent(self, event: QWheelEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom_by(STEP if event.angleDelta().y() > 0 else 1 / STEP)
            event.accept()
            return
        super().wheelEvent(event)

    def scrollContentsBy(self, dx: int, dy: int) -> None:
        self.viewport().update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self.viewport())
        shift = QPoint(-self.horizontalScrollBar().value(), -self.verticalScrollBar().value())
        for number, box in enumerate(self._boxes()):
            here = box.translated(shift)
            if not here.intersects(self.viewport().rect()):
                continue
            painter.drawImage(here, self._image(number, box.width()))
            painter.setPen(QColor(0, 0, 0, 90))
            painter.drawRect(here)
        if self.words:
            self._say(painter)

    def _image(self, number: int, width_px: int) -> QImage:
        ratio = self.viewport().devicePixelRatioF()
        key = (number, round(width_px * ratio))
        if key not in self._drawn:
            if len(self._drawn) >= KEPT:
                self._drawn.pop(next(iter(self._drawn)))
            assert self._pages is not None
            self._drawn[key] = image_of(self._pages, number, key[1])
        return self._drawn[key]

    def _say(self, painter: QPainter) -> None:
        painter.setFont(self._theme.text_font(13))
        metrics = painter.fontMetrics()
        box = metrics.boundingRect(QRect(0, 0, self.viewport().width() - 60, 400), _WRAP, self.words)
        box.adjust(-14, -8, 14, 8)
        box.moveCenter(self.viewport().rect().center())
        if self.count:
            box.moveTop(MARGIN_PX)
        painter.fillRect(box, self._theme.colour("raised"))
        painter.setPen(self._theme.colour("ink"))
        painter.drawText(box, _WRAP, self.words)


_WRAP = int(Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap)
