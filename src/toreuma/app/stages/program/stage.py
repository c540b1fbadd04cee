"""The stage of the program: the planned one, or any other on a desk of its own."""

from functools import cached_property
from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from toreuma.app.forms.leaving import kept_or_dropped
from toreuma.app.picture.look import Look
from toreuma.app.stages.program.panel import ProgramPanel
from toreuma.app.stages.program.reasons import ProgramReasons
from toreuma.app.stages.program.study.desk import Desk
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.theme import Theme

__all__ = ["ProgramStage"]


class ProgramStage(Stage):
    """Shows the program of the job, and in its place a desk for one that nobody planned while that is open."""

    key, label, shortcut = "program", "Program", "Ctrl+8"
    taken = Signal(object)
    """The program on the desk as a job."""

    panel: ProgramPanel
    numbers: ProgramReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self._theme = shared.theme
        self.panel = ProgramPanel(shared.session, shared.theme)
        self.numbers = ProgramReasons(shared.session, shared.theme)
        self.look = Look(tool=True, passes=True, shade="Share of power there is")
        self.at_desk = False

    @cached_property
    def desk(self) -> Desk:
        """Made when the first program is opened."""
        desk = Desk(self._theme)
        desk.closed.connect(self.leave_desk)
        desk.message.connect(self.session.message)
        desk.taken.connect(self.taken)
        self.session.job_changed.connect(self._on_job)
        desk.show_job(self.session.whole, self.session.side)
        return desk

    def _on_job(self) -> None:
        self.desk.show_job(self.session.whole, self.session.side)

    @property
    def has_desk(self) -> bool:
        return "desk" in self.__dict__

    @property
    def page(self) -> QWidget | None:
        return self.desk if self.at_desk else None

    @property
    def is_ready(self) -> bool:
        return self.at_desk or super().is_ready

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (*super().themed, self)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        if self.has_desk:
            self.desk.set_theme(theme)

    def open_program(self, path: Path) -> bool:
        """Put a program on the desk; what lies there unsaved is asked about first."""
        if not self.may_leave() or not self.desk.open(path):
            return False
        self.at_desk = True
        self.turned.emit()
        return True

    def edit_planned(self) -> None:
        """The planned program on the desk, as a text of its own."""
        text = self.panel.shown_text()
        if text and self.may_leave():
            self.desk.take(text, None)
            self.at_desk = True
            self.turned.emit()

    def save(self) -> None:
        """What is shown here goes into a file."""
        if self.at_desk:
            self.desk.save()
        else:
            self.panel.save()

    def may_leave(self) -> bool:
        """Ask before text is lost that nobody saved."""
        if not self.has_desk or not self.desk.modified:
            return True
        return kept_or_dropped(self.desk, "The program on the desk has changes that are not saved.", self.desk.save)

    def close(self) -> None:
        if self.has_desk:
            self.desk.stop()

    def leave_desk(self) -> None:
        """The planned program again; what lies on the desk stays there."""
        self.at_desk = False
        self.turned.emit()
