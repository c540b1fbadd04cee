"""A dimension pulled with the mouse: the part follows, in steps that suit the zoom."""

from PySide6.QtCore import QPointF

from toreuma.app.forms.part_edits import chained
from toreuma.app.picture.dimensions import Dimension
from toreuma.app.session import Session
from toreuma.core.edit.dragged import moved_corner, widened
from toreuma.core.model import Job

__all__ = ["DimensionDrag"]

STEPS = {"mm": (0.01, 0.05, 0.1, 0.5, 1.0, 5.0), "inch": tuple(25.4 / n for n in (1000, 200, 64, 32, 16, 4))}
FIELDS = ("z_mm", "d_mm")


class DimensionDrag:
    """Begun on a number of the profile; one undo takes the whole pull back."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._held: tuple[Dimension, QPointF, float] | None = None
        self.moving = False

    def begin(self, dimension: Dimension | None, at: QPointF) -> None:
        """A button was pressed, on a number or beside."""
        job = self._session.job
        self._held, self.moving = None, False
        if dimension is None or job is None or dimension.side == "feature" or dimension.field not in FIELDS:
            return
        value = getattr(chained(job, dimension.side)[dimension.element], dimension.field)
        self._held = dimension, at, value

    @property
    def holds(self) -> bool:
        return self._held is not None

    def move(self, at: QPointF, scale: float) -> None:
        """The pointer is somewhere else, at so many pixels a millimetre."""
        if self._held is None or self._session.job is None:
            return
        self.moving = True
        dimension, begun, value = self._held
        step = next((one for one in STEPS[self._session.system] if one * scale >= 1.0), STEPS[self._session.system][-1])
        along = dimension.field == "z_mm"
        pulled = (at.x() - begun.x()) / scale if along else 2 * (begun.y() - at.y()) / scale
        new = round(round((value + pulled) / step) * step, 6)
        side, index = dimension.side, dimension.element

        def change(job: Job) -> Job:
            edit = moved_corner if along else widened
            return job.changed(part=edit(job.part, side, index, new))  # type: ignore[arg-type]

        self._session.attempt(change, together="pull")

    def end(self) -> bool:
        """The button is up; tells whether something was pulled."""
        was, self.moving, self._held = self.moving, False, None
        self._session.history.part()
        return was
