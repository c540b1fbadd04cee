"""One piece of work at a time beside the window: a new one takes the place of what still runs."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QObject

from toreuma.app.session.task import Task, Work
from toreuma.core.errors import ToreumaError

__all__ = ["Beside"]


class Beside(QObject):
    """Whoever starts something is told the end of it once, unless it was left before."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.task: Task | None = None
        """What is under way."""

    def start(
        self,
        work: Work,
        what: str,
        done: Callable[[Any], None],
        failed: Callable[[ToreumaError], None],
        progress: Callable[[float], None] | None = None,
    ) -> None:
        """Begin; ``what`` names the work where it fails."""
        self.leave()
        task = self.task = Task(work, what, self)
        task.done.connect(lambda found: self._end(task, done, found))
        task.failed.connect(lambda error: self._end(task, failed, error))
        if progress is not None:
            task.progress.connect(progress)
        task.finished.connect(task.deleteLater)
        task.start()

    def leave(self) -> None:
        """Give it up: at once for the person, while a step under way in a library runs out by itself."""
        if self.task is not None:
            self.task.leave()
            self.task = None

    def close(self) -> None:
        """Wait for what still runs out, before the window goes."""
        self.leave()
        for task in self.findChildren(Task):
            task.wait()

    def _end(self, task: Task, tell: Callable[[Any], None], what: object) -> None:
        if self.task is task:
            self.task = None
            tell(what)
