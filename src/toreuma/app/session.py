"""The open job and everything derived from it: what every view of the window looks at."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from pydantic import ValidationError
from PySide6.QtCore import QObject, QTimer, Signal

from toreuma.app.sides import Sides
from toreuma.app.worker import Worker
from toreuma.core.auto.propose import Chosen, Proposed
from toreuma.core.channels.balance import Balanced
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.model import Job
from toreuma.core.prove import Proof
from toreuma.core.scene import build_scene
from toreuma.core.simulate.replay import Replay
from toreuma.core.units import System
from toreuma.engine.engine import Engine, Proved
from toreuma.engine.follow import Outcome
from toreuma.engine.library import open_job
from toreuma.engine.pair import PairProof
from toreuma.exchange.imports import Imported
from toreuma.files.jobs import load_job, save_job, validation_line

__all__ = ["Selection", "Session", "solids_of"]


@dataclass(frozen=True)
class Selection:
    """What is selected: an operation by id, an element of a profile by index, a feature, or a line of the program."""

    operation: str | None = None
    element: int | None = None
    line: int | None = None
    side: str = "outside"
    feature: int | None = None


def solids_of(job: Job) -> tuple[object, ...]:
    """What the solids of a job are built from."""
    return job.part, job.stock, job.setup.hold, job.setup.centre


class Session(QObject):
    """Holds the job, its history, and the latest plan and proof. Views listen to its signals."""

    job_changed = Signal()
    outcome_changed = Signal()
    order_changed = Signal()
    proof_changed = Signal()
    selection_changed = Signal()
    cursor_changed = Signal()
    balance_changed = Signal()
    run_changed = Signal()
    progress = Signal(float)
    message = Signal(str, str)

    def __init__(self, engine: Engine | None = None, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.job: Job | None = None
        self.whole: Job | None = None
        self.sides = Sides()
        self.chosen: tuple[Chosen, ...] = ()
        self.path: Path | None = None
        self.outcome: Outcome | None = None
        self.order: tuple[Finding, ...] = ()
        self.proof: Proof | None = None
        self.replay: Replay | None = None
        self.pair: PairProof | None = None
        self.balanced: Balanced | None = None
        self.balancing = False
        self.problem: ToreumaError | None = None
        self.preview: Imported | None = None
        self.selection = Selection()
        self.cursor_s = 0.0
        self.run_s = 0.0
        self._follow_end = True
        self._undo: list[Job] = []
        self._redo: list[Job] = []
        self._saved: Job | None = None
        self._request = 0
        self._followed = -1
        self.routing = False
        self._worker = Worker(engine or Engine(), self)
        self._worker.followed.connect(self._on_followed)
        self._worker.routed.connect(self._on_routed)
        self._worker.ordered.connect(self._on_ordered)
        self._worker.proved.connect(self._on_proved)
        self._worker.paired.connect(self._on_paired)
        self._worker.better.connect(self._on_better)
        self._worker.balanced.connect(self._on_balanced)
        self._worker.failed.connect(self._on_failed)
        self._worker.progress.connect(self._on_progress)

    # The job and its history

    @property
    def system(self) -> System:
        return self.job.units if self.job else "mm"

    @property
    def modified(self) -> bool:
        return self.whole is not None and self.whole != self._saved

    @property
    def complete(self) -> bool:
        """Settled, and both channels proved together where the part is handed over."""
        return self.settled and (self.pair is not None or not self._hands_over)

    @property
    def _hands_over(self) -> bool:
        """Both channels are proved together."""
        taken = self.outcome.transfer if self.outcome is not None and self.problem is None else None
        return taken is not None and self.job is not None and len(self.job.setups) > 1

    @property
    def settled(self) -> bool:
        """Plan and proof belong to the job as it stands."""
        if self.job is None or self.problem is not None:
            return True
        planned = self.outcome is not None and self._followed == self._request
        return planned and (self.proof is not None or not (self.outcome and self.outcome.program.motions))

    def show(self, job: Job, path: Path | None = None) -> None:
        """Take up a job just opened."""
        self._undo, self._redo = [], []
        self._saved, self.path = job, path
        self.sides, self.chosen = Sides(), ()
        self.selection, self.cursor_s, self._follow_end = Selection(), 0.0, True
        self.outcome = self.proof = self.pair = self.replay = None
        self._set(job)
        self.selection_changed.emit()

    def change(self, job: Job) -> None:
        """Put an edited job in place of the one before, which undo brings back."""
        if self.job is None or self.whole is None or job == self.job:
            return
        self._undo.append(self.whole)
        self._redo.clear()
        self._set(self.sides.whole(self.whole, job))

    def change_whole(self, job: Job) -> None:
        """Put another job with all its sides in place of the one before."""
        if self.whole is None or job == self.whole:
            return
        self._undo.append(self.whole)
        self._redo.clear()
        self._set(job)

    def show_side(self, side: int) -> None:
        """Show the first or the second side of the job."""
        if self.whole is None or side == self.sides.side:
            return
        before, self.sides.side = self.sides.side, side
        try:
            self.sides.shown(self.whole)
        except ToreumaError as error:
            self.sides.side = before
            self.message.emit("error", str(error))
            return
        self.selection, self.cursor_s, self._follow_end = Selection(), 0.0, True
        self.outcome = self.proof = self.pair = self.replay = None
        self._set(self.whole)
        self.selection_changed.emit()

    def attempt(self, change: Callable[[Job], Job]) -> ToreumaError | None:
        """Apply a change if it gives a job that can be; else say in one error what is wrong and keep the job."""
        if self.job is None:
            return None
        try:
            changed = change(self.job)
            if solids_of(changed) != solids_of(self.job):
                build_scene(changed)
        except ValidationError as error:
            place, what = validation_line(error)
            return JobError(place, what, "type another value")
        except ToreumaError as error:
            return error
        if self.sides.side and (changed.part, changed.stock) != (self.job.part, self.job.stock):
            what = "part and blank of the second side follow from the first"
            return JobError("second side", what, "change them on the first side")
        self.change(changed)
        return None

    def undo(self) -> None:
        if self._undo and self.whole is not None:
            self._redo.append(self.whole)
            self._set(self._undo.pop())

    def redo(self) -> None:
        if self._redo and self.whole is not None:
            self._undo.append(self.whole)
            self._set(self._redo.pop())

    @property
    def can_undo(self) -> bool:
        return bool(self._undo)

    @property
    def can_redo(self) -> bool:
        return bool(self._redo)

    def _set(self, whole: Job) -> None:
        self.whole = whole
        try:
            self.job = self.sides.shown(whole)
        except ToreumaError as error:  # the first side cannot be planned any more: show it, so that it can be mended
            self.sides.side, self.job = 0, whole
            self.message.emit("error", str(error))
        self.problem, self.balanced, self.balancing = None, None, False
        self._request = self._worker.request(self.job)
        self.job_changed.emit()

    # Files

    def open(self, name: str) -> bool:
        """Open a file or a demo job; on failure say why and keep what is open."""
        try:
            job = open_job(name) if name.startswith("demo:") else load_job(Path(name))
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return False
        self.show(job, None if name.startswith("demo:") else Path(name))
        return True

    def save(self, path: Path) -> bool:
        if self.whole is None:
            return False
        try:
            save_job(self.whole, path)
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return False
        self.path, self._saved = path, self.whole
        self.message.emit("ok", f"Saved as {path.name}")
        self.job_changed.emit()
        return True

    # Selection and time

    def select(
        self,
        operation: str | None = None,
        element: int | None = None,
        line: int | None = None,
        side: str = "outside",
        feature: int | None = None,
    ) -> None:
        chosen = Selection(operation, element, line, side, feature)
        if chosen != self.selection:
            self.selection = chosen
            self.selection_changed.emit()

    def set_cursor(self, seconds: float) -> None:
        total = self.outcome.timeline.total_s if self.outcome else 0.0
        self.cursor_s = min(max(seconds, 0.0), total)
        self._follow_end = self.cursor_s >= total - 1e-6
        self.cursor_changed.emit()

    def set_run(self, seconds: float) -> None:
        """Put the cursor of the whole run, both channels together, to a time."""
        total = self.pair.ran.seconds if self.pair is not None else 0.0
        self.run_s = min(max(seconds, 0.0), total)
        self.run_changed.emit()

    def go_to_line(self, line: int) -> None:
        """Put the cursor at the end of the move a program line makes."""
        if self.outcome is None:
            return
        spans = self.outcome.timeline.spans
        span = next((span for span in spans if span.motion.line >= line), None)
        if span is not None:
            self.set_cursor(span.end_s)

    # Findings

    def findings(self) -> tuple[Finding, ...]:
        """Everything the plan and the proof have to say, worst first."""
        found = (
            *(self.outcome.plan.all_findings if self.outcome else ()),
            *(self.order if self.outcome else ()),
            *(self.outcome.transfer.findings if self.outcome and self.outcome.transfer else ()),
            *(self.outcome.by_hand.findings if self.outcome and self.outcome.by_hand else ()),
            *(self.proof.findings if self.proof else ()),
            *(self.pair.ran.findings if self.pair else ()),
            *(self.pair.handed if self.pair else ()),
        )
        return tuple(sorted(found, key=lambda f: ("error", "warning", "note").index(f.severity)))

    # A whole route

    def propose_route(self) -> None:
        """Ask for a whole route; the job gets it when it is found, and undo takes it away again."""
        if self.whole is not None:
            self.routing = True
            self._request = self._worker.request_route(self.whole)
            self.job_changed.emit()

    def stop_routing(self) -> None:
        """Leave the route as it is."""
        if self.routing and self.whole is not None:
            self.routing = False
            self._set(self.whole)

    # Both spindles at work

    def find_cycle(self) -> None:
        """Look for the shortest cycle with both spindles at work; the proofs have to be there."""
        if self.job is not None and self.complete and not self.balancing:
            self.balancing = True
            self._request = self._worker.request_balance(self.job)
            self.balance_changed.emit()

    def stop_cycle(self) -> None:
        """Leave it; nothing else is lost."""
        if self.balancing:
            self._worker.cancel()
            self.balancing = False
            self.balance_changed.emit()

    def _on_better(self, number: int, cycle_s: float, bound_s: float) -> None:
        if number == self._request:
            self.message.emit("ok", f"Cycle {cycle_s:.1f} s, none is below {bound_s:.1f} s; still looking")

    def _on_balanced(self, number: int, found: Balanced | None) -> None:
        if number == self._request:
            self.balanced, self.balancing = found, False
            self.balance_changed.emit()
            if found is not None and found.slots:
                self.message.emit("ok", f"Cycle {found.cycle_s:.1f} s, none is below {found.bound_s:.1f} s")
            else:
                self.message.emit("warning", "No carrier reaches the second side with the tools it needs")

    def _on_routed(self, number: int, proposed: Proposed) -> None:
        if number != self._request:
            return
        self.routing = False
        self.chosen = proposed.chosen
        self.sides.side = 0
        before = self.whole
        if proposed.job == before:
            self._set(proposed.job)
        else:
            self.change_whole(proposed.job)
        count = sum(len(setup.operations) for setup in proposed.job.setups)
        lines = [finding.what for finding in proposed.without]
        words = f"{count} operations proposed" + (". Open: " + "; ".join(lines) if lines else "")
        self.message.emit("warning" if lines else "ok", words)

    # Results of the worker

    def _on_followed(self, number: int, outcome: Outcome) -> None:
        if number != self._request:
            return
        self._followed = number
        self.outcome, self.proof, self.pair, self.replay = outcome, None, None, outcome.replay
        self.order = ()
        self.cursor_s = outcome.timeline.total_s if self._follow_end else min(self.cursor_s, outcome.timeline.total_s)
        self.outcome_changed.emit()
        QTimer.singleShot(0, self._worker.drawn)  # comes after the paint events this has caused

    def _on_ordered(self, number: int, order: tuple[Finding, ...]) -> None:
        if number == self._request:
            self.order = order
            self.order_changed.emit()

    def _on_proved(self, number: int, result: Proved) -> None:
        if number != self._request:
            return
        self.proof, self.replay = result.proof, result.replay
        self.progress.emit(1.0)
        self.proof_changed.emit()

    def _on_paired(self, number: int, pair: PairProof) -> None:
        if number == self._request:
            self.pair = pair
            self.run_s = min(self.run_s, pair.ran.seconds)
            self.proof_changed.emit()
            self.run_changed.emit()

    def _on_failed(self, number: int, error: ToreumaError) -> None:
        if number == self._request:
            self.routing = False
            self.problem = error
            self.outcome = self.proof = self.pair = self.replay = None
            self.message.emit("error", str(error))
            self.outcome_changed.emit()

    def _on_progress(self, number: int, share: float) -> None:
        if number == self._request:
            self.progress.emit(share)

    def close(self) -> None:
        """End the worker; what it still had to say is no longer heard."""
        self._request = -1
        self._worker.stop()
