"""A copy of unsaved work beside the file, offered again after a crash."""

from pathlib import Path

from PySide6.QtCore import QStandardPaths, QTimer
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.files.jobs import job_text, load_job
from toreuma.files.writing import write_atomically

__all__ = ["Autosave"]

AFTER_MS = 4_000


class Autosave:
    """Writes the job a few seconds after a change; ``bar`` offers what an earlier run left behind."""

    def __init__(self, session: Session, parent: QWidget) -> None:
        self._session = session
        self._found: Path | None = None
        self._timer = QTimer(parent, singleShot=True, interval=AFTER_MS)
        self._timer.timeout.connect(self.write)
        session.job_changed.connect(lambda: self._timer.start() if session.modified else None)
        self.bar = QFrame()
        self.bar.setObjectName("notice")
        row = QHBoxLayout(self.bar)
        row.setContentsMargins(12, 4, 12, 4)
        row.addWidget(Label(tr("An earlier run ended with unsaved changes to this job.")), 1)
        for text, slot in (("Take them up", self._take), ("Drop them", self._drop)):
            button = QPushButton(text)
            button.clicked.connect(slot)
            row.addWidget(button)
        self.bar.hide()

    @staticmethod
    def place(path: Path | None) -> Path:
        """Where the copy of a job lies; a job without a file has its copy with the application's data."""
        if path is not None:
            return path.with_name(f".{path.name}.autosave")
        folder = QStandardPaths.writableLocation(QStandardPaths.StandardLocation.AppDataLocation)
        return Path(folder or ".") / "unsaved.toreuma.autosave"

    def write(self) -> None:
        """Write the copy now. A folder that cannot be written to is no reason to disturb the work."""
        job, path = self._session.whole, self.place(self._session.path)
        if job is None or not self._session.modified:
            return
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            write_atomically(path, job_text(job))
        except OSError:
            return

    def look_for(self, path: Path | None) -> None:
        """Offer a copy that an earlier run left for this job."""
        copy = self.place(path)
        newer = copy.exists() and (path is None or copy.stat().st_mtime >= path.stat().st_mtime)
        self._found = copy if newer else None
        self.bar.setVisible(newer)

    def clean(self, path: Path | None) -> None:
        """Take the copy away: the work is saved, or was dropped on purpose."""
        self._timer.stop()
        self.place(path).unlink(missing_ok=True)

    def _take(self) -> None:
        if self._found is not None:
            try:
                self._session.change(load_job(self._found))
            except ToreumaError as error:
                self._session.message.emit("error", str(error))
        self.bar.hide()

    def _drop(self) -> None:
        if self._found is not None:
            self._found.unlink(missing_ok=True)
        self.bar.hide()
