"""The right panel of a stage: the numbers of what is selected, why they are so, and what is wrong with them."""

from toreuma.app.forms.rows import RowColumn
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.findings import Finding
from toreuma.core.model import Job

__all__ = ["ReasonsPanel"]


class ReasonsPanel(RowColumn):
    """Rebuilt when another thing is selected; refreshed in place when only numbers change. Stages fill `show_job`."""

    def __init__(self, session: Session, theme: Theme) -> None:
        self.finding: Finding | None = None
        super().__init__(session, theme)
        self.setAccessibleName(tr("ReasonsPanel"))

    def show_finding(self, finding: Finding | None) -> None:
        self.finding = finding
        self.refresh()

    def show_job(self, job: Job) -> None:
        """Fill the panel; called while there is a job."""
        raise NotImplementedError

    def _fill(self) -> None:
        job = self.session.job
        if job is None:
            self.start(())
        else:
            self.show_job(job)
