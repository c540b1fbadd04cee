"""What the blank gives."""

from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.core.model import Job

__all__ = ["StockReasons"]


class StockReasons(ReasonsPanel):
    """Parts from a bar, and what is wrong with the blank."""

    def show_job(self, job: Job) -> None:
        outcome = self.session.outcome
        supply = outcome.plan.supply if outcome else None
        numbers = supply.reasons if supply else ()
        every = outcome.plan.findings if outcome else ()
        findings = tuple(finding for finding in every if finding.code.startswith(("stock.", "bar.")))
        fresh = self.start(("stock", tuple(e.name for e in numbers), self.finding_key(findings)))
        if fresh:
            self.text("title", "title", "What the blank gives")
            self.findings(findings)
        for evidence in numbers:
            self.row(evidence.name, evidence)
        if fresh:
            self.end()
