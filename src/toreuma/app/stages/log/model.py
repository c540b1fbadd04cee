"""The log as the window sees it: the store, the runs of the open job, and the book of the one that is shown."""

import time
from collections.abc import Callable
from typing import TypeVar

from PySide6.QtCore import QObject, Signal

from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.core.errors import ToreumaError
from toreuma.core.model.identity import job_id
from toreuma.engine.engine import Engine
from toreuma.engine.logbook.book import Book, Taught, begin_run, taught
from toreuma.log import RunKept, Store, open_store

__all__ = ["LogModel"]

T = TypeVar("T")


class LogModel(QObject):
    """``changed`` when runs or entries have changed, ``opened`` when another run is shown. Faults go to the session."""

    changed = Signal()
    opened = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.session = session
        self.engine = Engine()
        self.book: Book | None = None
        self.runs: list[RunKept] = []
        self._store: Store | None = None
        self._beside = Beside(self)

    @property
    def store(self) -> Store:
        """Opened when it is first asked for. Raises `ToreumaError`."""
        if self._store is None:
            self._store = open_store()
        return self._store

    @property
    def busy(self) -> bool:
        """A run is being opened."""
        return self._beside.task is not None

    def close(self) -> None:
        self._beside.close()
        if self._store is not None:
            self._store.close()
            self._store = None

    def refresh(self) -> None:
        """The runs of the open job, read again."""
        whole = self.session.whole
        self.runs = self.asked(lambda: self.store.runs(job_id(whole)) if whole is not None else []) or []
        if self.book is not None and self.book.run.id not in {one.id for one in self.runs}:
            self.book = None
            self.opened.emit()
        self.changed.emit()

    def taught(self) -> Taught | None:
        """What the last run of the open job taught."""
        whole = self.session.whole
        return None if whole is None else self.asked(lambda: taught(self.store, whole))

    def begin(self) -> None:
        """The open job goes to the machine."""
        whole = self.session.whole
        if whole is None:
            return
        self._beside.start(
            lambda check, progress: begin_run(self.store, self.engine, whole, time.time()), "run", self._on_begun,
            self._on_fault,
        )  # fmt: skip
        self.changed.emit()

    def _on_begun(self, run: int) -> None:
        self.refresh()
        self.open(run)

    def end(self) -> None:
        """The shown run is over."""
        if self.book is not None:
            book = self.book
            self.asked(lambda: book.end(time.time()))
            self.refresh()

    def open(self, run: int) -> None:
        """Show a run; its job is planned and judged as it was."""
        if self.book is not None and self.book.run.id == run:
            return
        self._beside.start(
            lambda check, progress: Book(self.store, run, self.engine), "run", self._on_opened, self._on_fault
        )
        self.changed.emit()

    def _on_opened(self, book: Book) -> None:
        self.book = book
        self.opened.emit()
        self.changed.emit()

    def _on_fault(self, error: ToreumaError) -> None:
        self.session.message.emit("error", str(error))
        self.changed.emit()

    def asked(self, ask: Callable[[], T]) -> T | None:
        """What the store answers; None, with a line in the window, where it cannot."""
        try:
            return ask()
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return None

    def wrote(self) -> None:
        """Something was entered."""
        self.changed.emit()
