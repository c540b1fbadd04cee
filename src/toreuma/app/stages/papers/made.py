"""The papers of the open job, made beside the window: what is wanted, what came of it, and what is still to come."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from PySide6.QtCore import QObject, QTimer, Signal

from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.app.session.task import Work
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.core.units import System
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.papers import document, dossier_of
from toreuma.engine.pdf_apart import pdf_apart
from toreuma.papers.html import PaperSize
from toreuma.papers.sheets import SHEETS

__all__ = ["Made", "Maker", "Wanted"]

AFTER_MS = 250
"""So long nothing may change before sheets are made."""


@dataclass(frozen=True)
class Wanted:
    """Kinds of sheets, the paper, and the units; those the job is read in where none are named."""

    sheets: tuple[str, ...] = tuple(SHEETS)
    paper: PaperSize = "A4"
    units: Literal["", "mm", "inch"] = ""


@dataclass(frozen=True)
class Made:
    """Pages of one state of a job."""

    job: Job
    wanted: Wanted
    page: str
    pdf: bytes
    proved: bool


class Maker(QObject):
    """Makes the pages afresh when the job or what is wanted has changed, while somebody looks at them."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.engine = Engine()
        self.wanted = Wanted()
        self.made: Made | None = None
        self.problem: ToreumaError | None = None
        self.looked_at = False
        self._beside = Beside(self)
        self._soon = QTimer(self, singleShot=True, interval=AFTER_MS)
        self._soon.timeout.connect(self._begin)
        session.job_changed.connect(self.renew)
        session.verdict_changed.connect(self.renew)
        session.proof_changed.connect(self.renew)

    @property
    def busy(self) -> bool:
        """Pages are on their way."""
        return self._beside.task is not None or self._soon.isActive()

    @property
    def settled(self) -> bool:
        """The pages are there, or why there are none."""
        return self.current or (self.problem is not None and not self.busy)

    @property
    def waits(self) -> bool:
        """The proof is not through yet: sheets name its state."""
        return self._session.job is not None and not self._session.complete

    @property
    def current(self) -> bool:
        """The pages are those of the job as it stands."""
        return self.made is not None and (self.made.job, self.made.wanted) == (self._session.whole, self.wanted)

    def want(self, wanted: Wanted) -> None:
        """Other sheets, or other paper."""
        self.wanted = wanted
        self.renew()

    def renew(self) -> None:
        """Make them when they are looked at and not those of the job as it stands."""
        if self.looked_at and not self.current:
            self._beside.leave()
            self._soon.start()
        self.changed.emit()

    def _begin(self) -> None:
        whole = self._session.whole
        if whole is None or self.waits or not self.looked_at:
            return
        system: System = self.wanted.units or whole.units
        work = self._work(whole, self.wanted, system, self._session.verdict)
        self._beside.start(work, "papers", self._on_made, self._on_failed)
        self.changed.emit()

    def _work(self, whole: Job, wanted: Wanted, system: System, verdict: Verdict | None) -> Work:
        def work(check: object, progress: object) -> Made:
            dossier = dossier_of(
                self.engine,
                whole,
                made_at=datetime.now(),
                system=system,
                verdict=verdict,
                check=check,  # type: ignore[arg-type]
            )
            page = document(dossier, wanted.sheets, wanted.paper)
            return Made(whole, wanted, page, pdf_apart(page, check), dossier.proved)  # type: ignore[arg-type]

        return work

    def _on_made(self, made: Made) -> None:
        self.made, self.problem = made, None
        self.changed.emit()

    def _on_failed(self, error: ToreumaError) -> None:
        self.problem = error
        self.changed.emit()

    def stop(self) -> None:
        """Give up what is being made."""
        self._soon.stop()
        self._beside.leave()
        self.changed.emit()

    def close(self) -> None:
        """Wait for what still runs out, before the window goes."""
        self._soon.stop()
        self._beside.close()
