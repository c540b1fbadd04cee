"""The stage of the part, and of a drawing or model that is read."""

from pathlib import Path

from PySide6.QtWidgets import QWidget

from toreuma.app.picture.look import Look
from toreuma.app.stages.part.imports import ImportPanel
from toreuma.app.stages.part.panel import PartPanel
from toreuma.app.stages.part.reasons import PartReasons
from toreuma.app.stages.stage import Shared, Stage, Themed

__all__ = ["PartStage"]


class PartStage(Stage):
    """A file that is read takes the left until it is taken or left; that needs no job."""

    key, label, shortcut = "part", "Part", "Ctrl+1"
    panel: PartPanel
    numbers: PartReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = PartPanel(shared.session, shared.theme)
        self.imports = ImportPanel(shared.session, shared.theme)
        self.numbers = PartReasons(shared.session, shared.theme)
        self.imports.finished.connect(self.turned)
        self.look = Look(chooses="surface", opened=False, sizes=True)

    @property
    def left(self) -> QWidget:
        return self.imports if self.imports.is_busy else self.panel

    @property
    def below(self) -> QWidget | None:
        """Nothing until something cuts: the table needs the room."""
        job = self.session.job
        return self.shared.ribbon if job is not None and job.operations else None

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.imports, self.numbers)

    @property
    def is_ready(self) -> bool:
        return super().is_ready or self.imports.is_busy

    def read(self, path: Path) -> None:
        """Read a drawing or model and show what it gives; the job stays until it is taken."""
        self.imports.start(path)
        self.turned.emit()

    def close(self) -> None:
        self.imports.close_down()
