"""Widgets side by side, as many to a row as the width has room for."""

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem, QWidget

__all__ = ["Flow"]


class Flow(QLayout):
    """A widget that holds it is as tall as its rows."""

    def __init__(self, parent: QWidget | None = None, gap_px: int = 6) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._gap = gap_px
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._place(QRect(0, 0, width, 0), move=False)

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        self._place(rect, move=True)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """One widget; how tall the rows are is asked for with the width."""
        hints = [item.sizeHint() for item in self._items]
        return QSize(max((h.width() for h in hints), default=0), max((h.height() for h in hints), default=0))

    def _place(self, rect: QRect, move: bool) -> int:
        x, y, row = rect.x(), rect.y(), 0
        for item in self._items:
            size = item.sizeHint()
            if x > rect.x() and x + size.width() > rect.right() + 1:
                x, y, row = rect.x(), y + row + self._gap, 0
            if move:
                item.setGeometry(QRect(QPoint(x, y), size))
            x += size.width() + self._gap
            row = max(row, size.height())
        return y + row - rect.y()
