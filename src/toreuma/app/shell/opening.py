"""Job files that take long to read are read beside the window, and can be given up."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject

from toreuma.app.forms.bar import AskBar
from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.files.jobs import read_job

__all__ = ["AT_ONCE_BYTES", "Opening"]

AT_ONCE_BYTES = 400_000
"""Files up to this are read while the person waits: that takes less than the blink of an eye."""


class Opening(QObject):
    """``bar`` says what is being read; ``opened`` is told when it is there."""

    def __init__(self, session: Session, parent: QObject, may_leave: Callable[[], bool]) -> None:
        super().__init__(parent)
        self._session, self._may_leave = session, may_leave
        self.bar = AskBar()
        self.reading = Beside(self)

    @staticmethod
    def is_large(path: Path) -> bool:
        try:
            return path.stat().st_size > AT_ONCE_BYTES
        except (OSError, ValueError):
            return False

    def start(self, path: Path, opened: Callable[[], None]) -> None:
        """Begin to read; a file that is being read is given up."""
        left = self._session.whole

        def show(found: tuple[Job, str]) -> None:
            self.bar.hide()
            if self._session.whole is not left and not self._may_leave():
                return  # something was done meanwhile that is not to be left
            self._session.show(found[0], path, found[1])
            opened()

        def fail(error: ToreumaError) -> None:
            self.bar.hide()
            self._session.message.emit("error", str(error))

        self.reading.start(lambda check, progress: read_job(path, progress), path.name, show, fail, self.bar.share)
        self.bar.ask(f"{path.name} {tr('is being read; what is open stays as it is.')}", ("Stop", self.stop))

    def stop(self) -> None:
        """Give up what is being read."""
        self.reading.leave()
        self.bar.hide()

    def close(self) -> None:
        """Wait for what still runs out, before the window goes."""
        self.reading.close()
