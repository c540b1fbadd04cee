"""Unsaved work of this window, kept while it is being done."""

from PySide6.QtCore import QObject, QTimer

from toreuma.app.session import Session
from toreuma.files.journal import Journal, State

__all__ = ["Keep"]

LOOK_MS = 2_500


class Keep(QObject):
    """Puts every state of the job that is not saved into the journal, and says so where that does not go."""

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self.journal = Journal()
        self._session = session
        self._told = ""
        self._look = QTimer(self, singleShot=True, interval=LOOK_MS)
        self._look.timeout.connect(self._on_look)
        session.job_changed.connect(self._on_job)

    def _on_job(self) -> None:
        session = self._session
        if session.whole is not None and session.modified:
            self.journal.put(State(session.whole, session.path, session.base))
            self._look.start()
        else:
            self.journal.rest()

    def _on_look(self) -> None:
        if self.journal.problem and self.journal.problem != self._told:
            self._session.message.emit("error", f"{self.journal.problem}: save the job, and free the disk")
        self._told = self.journal.problem

    def close(self, answered: bool = True) -> None:
        """The window goes; what is unsaved was saved or dropped on purpose where the person has ``answered``."""
        self._look.stop()
        if answered:
            self.journal.rest()
        self.journal.close()
