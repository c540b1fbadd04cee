"""A scrolling column whose wrapped texts always get the height they need."""

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QLabel, QScrollArea, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.words import tr

__all__ = ["ScrollColumn", "heading"]


class ScrollColumn(QScrollArea):
    """Put widgets into ``column`` and call `settle` when they changed."""

    def __init__(self, left: int = 12, top: int = 10, right: int = 8, bottom: int = 12) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._page = QWidget()
        self.column = QVBoxLayout(self._page)
        self.column.setContentsMargins(left, top, right, bottom)
        self.column.setSpacing(2)
        self.setWidget(self._page)
        self._timer = QTimer(self, singleShot=True, interval=0)
        self._timer.timeout.connect(self._fit)
        self._gone = QWidget()

    def clear(self) -> None:
        """Take everything out. It is deleted a little later: one of them may be in the middle of an event. One that is
        hidden while it is typed into ends that, and what hears of it may fill the column anew meanwhile."""
        items = [self.column.takeAt(0) for _ in range(self.column.count())]
        for item in items:
            widget = item.widget() if item else None
            if widget is not None:
                widget.hide()  # a layout shows its widgets late: without this it would come up again
                widget.setParent(self._gone)
                widget.deleteLater()

    def settle(self) -> None:
        """Give wrapped texts their height once the layout is done."""
        self._timer.start()

    def _fit(self) -> None:
        self._page.setMinimumHeight(max(self.column.totalHeightForWidth(self.viewport().width()), 0))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.settle()


def heading(text: str) -> QLabel:
    """A small title inside a column."""
    label = Label(tr(text))
    label.setObjectName("heading")
    label.setContentsMargins(0, 8, 0, 0)
    return label
