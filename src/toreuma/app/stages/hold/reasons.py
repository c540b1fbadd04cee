"""What the hold allows."""

from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.core.model import Job
from toreuma.core.plan.asked.grips import operation_grips

__all__ = ["HoldReasons"]

HOLD_CAUTIONS = (
    "Jaws fly outward as the speed rises, and the grip falls. Never go above the limit on the chuck's own plate.",
    "A bar that sticks out behind the spindle whips: keep it guarded, in a liner, or cut short.",
    "A centre supports the piece, it does not hold it.",
    "Computed values: the machine's manual, the chuck's sheet, local rules and trained staff come first.",
)


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
