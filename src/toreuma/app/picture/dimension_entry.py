"""A dimension edited where it stands on the canvas."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.forms.part_cells import cell_text, typed_change
from toreuma.app.forms.part_edits import chained, feature_text, typed_feature
from toreuma.app.picture.dimensions import Dimension
from toreuma.app.session import Session
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job

__all__ = ["DimensionEntry"]

WIDTH_PX = 104


class DimensionEntry(QLineEdit):
    """Opens over a number; Enter puts it in, Escape leaves it. What cannot be stays, with its reason below."""

    def __init__(self, canvas: QWidget, session: Session) -> None:
        super().__init__(canvas)
        self._session = session
        self._dimension: Dimension | None = None
        self._why = Label(parent=canvas)
        self._why.setObjectName("fault")
        self._why.setWordWrap(True)
        self._why.hide()
        self.setAccessibleName(tr("Dimension"))
        self.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setFixedWidth(WIDTH_PX)
        self.returnPressed.connect(self.submit)
        self.hide()

    def open(self, dimension: Dimension) -> None:
        """Edit the number a dimension shows."""
        job = self._session.job
        if job is None:
            return
        self._dimension = dimension
        if dimension.side == "feature":
            feature = job.part.features[dimension.element]
            self.setText(feature_text(feature, dimension.field, self._session.system))
        else:
            element = chained(job, dimension.side)[dimension.element]
            self.setText(cell_text(element, dimension.field, self._session.system))
        self._mark("")
        centre = dimension.box.center()
        self.move(int(centre.x() - WIDTH_PX / 2), int(centre.y() - self.sizeHint().height() / 2))
        self.show()
        self.selectAll()
        self.setFocus()

    def close_up(self) -> None:
        """Leave the number as it is."""
        self._dimension = None
        self.hide()
        self._why.hide()

    def submit(self) -> None:
        """Put what was typed into the part, or say why it cannot be."""
        dimension, job = self._dimension, self._session.job
        if dimension is None or job is None:
            return

        def change(job: Job) -> Job:
            if dimension.side == "feature":
                return typed_feature(job, dimension.element, dimension.field, self.text())
            elements = list(chained(job, dimension.side))
            fields = typed_change(dimension.field, self.text(), job.units, elements[dimension.element])
            elements[dimension.element] = elements[dimension.element].changed(**fields)
            return job.changed(part=job.part.changed(**{dimension.side: tuple(elements)}))

        error: ToreumaError | None = self._session.attempt(change)
        if error is None:
            self.close_up()
        else:
            self._mark(f"{error.what}; {error.cure}")

    def _mark(self, why: str) -> None:
        self.setProperty("bad", bool(why))
        self.style().unpolish(self)
        self.style().polish(self)
        self._why.setText(why)
        self._why.setFixedWidth(2 * WIDTH_PX)
        self._why.adjustSize()
        self._why.move(self.x(), self.y() + self.height() + 2)
        self._why.setVisible(bool(why))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.close_up()
            if (parent := self.parentWidget()) is not None:
                parent.setFocus()
        else:
            super().keyPressEvent(event)
