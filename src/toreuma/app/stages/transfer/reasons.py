"""What the hand-over comes to, and both spindles at work."""

from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.core.channels.balance import as_found, cycle_numbers, moved_words, ran_numbers
from toreuma.core.channels.by_hand import ByHand
from toreuma.core.model import Job

__all__ = ["TransferReasons"]


class TransferReasons(ReasonsPanel):
    """Numbers of the hand-over, of the cycle, or of turning the part round by hand."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        for signal in (session.balance_changed, session.verdict_changed):  # the job is complete with its verdict
            signal.connect(self.refresh)

    def show_job(self, job: Job) -> None:
        """What the hand-over comes to, and what stands against it."""
        outcome = self.session.outcome
        if outcome is not None and outcome.by_hand is not None:
            self._by_hand(outcome.by_hand)
            return
        made = outcome.transfer if outcome is not None else None
        findings = made.findings if made is not None else ()
        session, found = self.session, self.session.balanced
        ran_s = session.pair.cycle_s if session.pair is not None else 0.0
        key = (made is not None, self.finding_key(findings), session.complete, session.search.state, found, ran_s)
        fresh = self.start(("transfer", *key))
        if fresh:
            self.text("title", "title", "What the hand-over comes to")
            if made is not None and not any(one.severity == "error" for one in findings):
                self.note("Nothing stands against it: grip, reach, room, speeds, angles and parking hold.")
            self.findings(findings)
        for name, evidence in (made.reasons if made is not None else {}).items():
            self.row(f"transfer.{name}", evidence)
        if fresh and made is not None:
            self.heading("Both spindles at work")
            if session.search.looks_for("cycle"):
                self.buttons((("Stop looking", session.stop_search),), columns=1)
            elif found is None and session.complete:
                self.note("Side two of one part while side one of the next is cut, for parts in a row.")
                self.buttons((("Find the shortest cycle", session.find_cycle),), columns=1)
        ran = ran_numbers(ran_s, found) if ran_s > 0 else ()
        for evidence in (*ran, *(cycle_numbers(found) if found is not None else ())):
            self.row(f"cycle.{evidence.name}", evidence)
        if fresh and found is not None:
            self.note(moved_words(found, self.session.job))
            if found.moved and self.session.whole is not None:
                there = lambda: session.change_whole(as_found(session.whole, found))  # type: ignore[arg-type]  # noqa: E731
                self.buttons((("Put them there", there),), columns=1)
        if fresh:
            self.end()

    def _by_hand(self, made: ByHand) -> None:
        """What turning the part round by hand comes to."""
        fresh = self.start(("by hand", self.finding_key(made.findings)))
        if fresh:
            self.text("title", "title", "What turning it round comes to")
            self.findings(made.findings)
        for key, evidence in made.reasons.items():
            self.row(f"turn.{key}", evidence)
        if fresh:
            self.end()
