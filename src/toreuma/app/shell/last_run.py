"""When a job is opened that was run before: one line of what its last run taught, and where the rest stands."""

import os

from PySide6.QtCore import QObject

from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.files.home import home

__all__ = ["LastRun"]


class LastRun(QObject):
    """Looks beside the window; a shop without a log is not asked, one that cannot be read is told in its stage."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self._beside = Beside(self)

    def look(self, job: Job) -> None:
        """Say what is known of a job that was just opened."""
        if not (os.environ.get("TOREUMA_STORE") or (home() / "log.sqlite").exists()):
            return
        self._beside.start(lambda check, progress: _taught(job), "log", self._say, self._unsaid)

    def close(self) -> None:
        self._beside.close()

    def _say(self, words: str) -> None:
        if words:
            self._session.message.emit("note", f"{words[:1].upper()}{words[1:]}. {tr('More in the log (Ctrl+0).')}")

    def _unsaid(self, error: ToreumaError) -> None:
        return


def _taught(job: Job) -> str:
    from toreuma.engine.logbook.book import taught
    from toreuma.log import open_store

    store = open_store()
    try:
        found = taught(store, job)
    finally:
        store.close()
    more = len(found.says) - 1 + len(found.edited)
    return f"{found.says[0]}; {more} more to know" if found.says and more > 0 else "".join(found.says[:1])
