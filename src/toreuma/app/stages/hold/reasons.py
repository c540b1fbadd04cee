"""What the hold allows."""

from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.core.cautions import HOLD_CAUTIONS
from toreuma.core.model import Job
from toreuma.core.plan.asked.grips import operation_grips

__all__ = ["HoldReasons"]


class HoldReasons(ReasonsPanel):
    """Limits of the hold, and the safety of each cut in it."""

    def show_job(self, job: Job) -> None:
        outcome = self.session.outcome
        plan = outcome.plan if outcome else None
        numbers = (*plan.hold.reasons, *(plan.second.reasons if plan.second else ())) if plan else ()
        findings = (*plan.hold.findings, *(plan.second.findings if plan.second else ())) if plan else ()
        grips = operation_grips(plan) if plan else []
        key = (tuple(e.name for e in numbers), self.finding_key(findings), tuple(name for name, _ in grips))
        fresh = self.start(("hold", *key))
        if fresh:
            self.text("title", "title", "What the hold allows")
            self.findings(findings)
        for evidence in numbers:
            self.row(evidence.name, evidence)
        if fresh and grips:
            self.heading("Safety of each cut, at its highest speed")
        for name, evidence in grips:
            self.row(f"grip.{name}", evidence)
        if fresh:
            for caution in HOLD_CAUTIONS:
                self.note(caution)
            self.end()
