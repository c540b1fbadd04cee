"""A file that somebody else may have open or change: told, compared, never written over unseen."""

from collections.abc import Callable
from hashlib import sha256
from pathlib import Path

from PySide6.QtCore import QFileSystemWatcher, QObject, QTimer
from PySide6.QtWidgets import QWidget

from toreuma.app.forms.bar import AskBar
from toreuma.app.session import Session
from toreuma.app.shell.conflict import Answer, ConflictDialog
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.files.aside import free_name
from toreuma.files.home import home
from toreuma.files.jobs import print_of, read_job
from toreuma.files.locks import Held

__all__ = ["Shared"]

LATER_MS = 400


class Shared(QObject):
    """Holds the file of the open job against the other windows of this computer, and watches it for everybody else.

    ``bar`` asks when it was changed outside; ``ask`` is who is asked before a save would write over such a change.
    """

    def __init__(self, window: QWidget, session: Session) -> None:
        super().__init__(window)
        self._window, self._session = window, session
        self.bar = AskBar()
        self.ask: Callable[[Path, Job | None], Answer] = self._ask
        self._held: Held | None = None
        self._path: Path | None = None
        self._seen = ""
        self._watcher = QFileSystemWatcher(self)
        self._later = QTimer(self, singleShot=True, interval=LATER_MS)
        self._later.timeout.connect(self.look)
        self._watcher.fileChanged.connect(lambda _: self._later.start())
        self._watcher.directoryChanged.connect(lambda _: self._later.start())
        session.job_changed.connect(self._on_job)

    def _on_job(self) -> None:
        if self._session.path == self._path:
            return
        self.let_go()
        self._path = self._session.path
        if self._path is None:
            return
        self._watcher.addPath(str(self._path.parent))
        if self._hold(self._path):
            return
        self._session.message.emit(
            "warning", f"{self._path.name} is open in another window too: what is saved there is not lost, "
                       "and is compared before this one is saved."
        )  # fmt: skip

    def _hold(self, path: Path) -> bool:
        folder = home() / "open"
        try:
            folder.mkdir(parents=True, exist_ok=True)
            name = sha256(str(path.resolve()).encode("utf-8", "surrogateescape")).hexdigest()[:24]
            held = Held(folder / f"{name}.lock")
        except OSError:
            return True
        self._held = held if held.taken else None
        return held.taken

    def let_go(self) -> None:
        """Nothing is held or watched any more."""
        self.bar.hide()
        if self._held is not None:
            self._held.let_go(remove=True)
            self._held = None
        if self._watcher.directories():
            self._watcher.removePaths(self._watcher.directories())
        self._path, self._seen = None, ""

    def look(self) -> None:
        """Compare the file with what was read of it, and ask where it is another one by now."""
        session = self._session
        path, now = session.path, print_of(session.path) if session.path is not None else ""
        if path is None or now in ("", session.base):
            self.bar.hide()
            return
        if now == self._seen:
            return
        self._seen = now
        words = f"{path.name} {tr('was changed outside this window.')}"
        if session.modified:
            words += " " + tr("What is changed here is not saved; both are compared when it is.")
        self.bar.ask(words, ("Read it again", self._read_again), ("Keep what is here", lambda: None))

    def _read_again(self) -> None:
        theirs = self._theirs(self._session.path)
        if theirs is not None:
            self._session.read_again(*theirs)

    def _theirs(self, path: Path | None) -> tuple[Job, str] | None:
        try:
            return read_job(path) if path is not None else None
        except ToreumaError as error:
            self._session.message.emit("error", str(error))
            return None

    def place_for(self, path: Path) -> Path | None:
        """Where to save what was meant for this file; None where it is not to be saved now."""
        session = self._session
        now = print_of(path)
        if path != session.path or now in ("", session.base):
            return path
        try:
            theirs = read_job(path)
        except ToreumaError:
            theirs = None
        answer = self.ask(path, theirs[0] if theirs is not None else None)
        if answer == "both":
            return free_name(path)
        if answer == "theirs" and theirs is not None:
            session.read_again(*theirs)
        return path if answer == "mine" else None

    def _ask(self, path: Path, theirs: Job | None) -> Answer:
        session = self._session
        assert session.whole is not None
        dialog = ConflictDialog(self._window, path, session.history.saved, session.whole, theirs)
        dialog.exec()
        return dialog.answer
