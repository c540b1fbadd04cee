"""The session: the job, its history, the latest results, what is selected, and what is looked for."""

from collections.abc import Callable
from contextlib import AbstractContextManager
from pathlib import Path

from pydantic import ValidationError
from PySide6.QtCore import QObject, QTimer, Signal

from toreuma.app.session.history import History
from toreuma.app.session.results import NOTHING, Results
from toreuma.app.session.search import IDLE, Search
from toreuma.app.session.selection import Cursors, Selection
from toreuma.app.session.worker import Worker
from toreuma.core.auto.propose import Chosen, Proposed
from toreuma.core.channels.balance import Balanced
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.model import Job, Part
from toreuma.core.plan.sides.set_up import with_second
from toreuma.core.prove import Proof
from toreuma.core.scene import Scene, build_scene
from toreuma.core.simulate.replay import Replay
from toreuma.core.spoken import spoken
from toreuma.core.units import System
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine, Proved
from toreuma.engine.follow import Outcome
from toreuma.engine.fresh import fresh_job
from toreuma.engine.library import library, open_job
from toreuma.engine.pair import PairProof
from toreuma.engine.proposals import settled
from toreuma.exchange.imports import Imported
from toreuma.files.jobs import print_of, read_job, save_job, validation_line
from toreuma.files.journal import State
from toreuma.shipped.library import DEMO_PREFIX

__all__ = ["Session", "solids_of"]


def solids_of(job: Job) -> tuple[object, ...]:
    """What the solids of a job are built from."""
    return job.part, job.stock, job.setup.hold, job.setup.centre, job.setup.rest


class Session(QObject):
    """Holds the job and hands its edits to the worker. Views listen to its signals.

    ``whole`` is the job with all its sides, ``job`` the side that is shown: the second one is a job of its own on what
    the first leaves, which the worker finds out. ``side`` counts from 0.
    """

    job_changed = Signal()
    outcome_changed = Signal()
    order_changed = Signal()
    proof_changed = Signal()
    verdict_changed = Signal()
    selection_changed = Signal()
    cursor_changed = Signal()
    balance_changed = Signal()
    run_changed = Signal()
    progress = Signal(float)
    message = Signal(str, str)
    wanted = Signal(str)
    """An action of the window, asked for in a panel by its id."""

    def __init__(self, engine: Engine | None = None, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.job: Job | None = None
        self.whole: Job | None = None
        self.side = 0
        self.chosen: tuple[Chosen, ...] = ()
        self._found: tuple[Proposed, ...] = ()
        self.path: Path | None = None
        self.base = ""
        """The print of the file as it was read or saved last; empty where there was none."""
        self.history = History()
        self.results = NOTHING
        self.search = IDLE
        self.balanced: Balanced | None = None
        self.preview: Imported | None = None
        self.usual: dict[str, str] = {}
        """What new jobs begin with: units, material and machine by name, as they were chosen last."""
        self.selection = Selection()
        self.cursors = Cursors()
        self._request = 0
        self._wanted_side = 0
        self._placed: tuple[tuple[object, ...], Scene] | None = None
        self._worker = Worker(engine or Engine(), self)
        self._worker.followed.connect(self._on_followed)
        self._worker.offered.connect(self._on_offered)
        self._worker.routed.connect(self._on_routed)
        self._worker.ordered.connect(self._on_ordered)
        self._worker.proved.connect(self._on_proved)
        self._worker.paired.connect(self._on_paired)
        self._worker.judged.connect(self._on_judged)
        self._worker.better.connect(self._on_better)
        self._worker.balanced.connect(self._on_balanced)
        self._worker.failed.connect(self._on_failed)
        self._worker.progress.connect(self._on_progress)

    # What views read

    @property
    def system(self) -> System:
        return self.job.units if self.job else "mm"

    @property
    def modified(self) -> bool:
        return self.whole is not None and self.whole != self.history.saved

    @property
    def settled(self) -> bool:
        """Plan and proof belong to the job as it stands."""
        return self.job is None or (self.results.request == self._request and self.results.settled)

    @property
    def complete(self) -> bool:
        """Settled, and both channels proved together where the part is handed over."""
        return self.settled and (self.job is None or self.results.complete)

    @property
    def outcome(self) -> Outcome | None:
        return self.results.outcome

    @property
    def order(self) -> tuple[Finding, ...]:
        return self.results.order

    @property
    def proof(self) -> Proof | None:
        return self.results.proof

    def quiet(self) -> AbstractContextManager[None]:
        """While the window does something long, what is worked out beside it stands still."""
        return self._worker.quiet()

    @property
    def verdict(self) -> Verdict | None:
        """Whether the whole part is finished, all its sides counted."""
        return self.results.verdict

    @property
    def replay(self) -> Replay | None:
        return self.results.replay

    @property
    def pair(self) -> PairProof | None:
        return self.results.pair

    @property
    def problem(self) -> ToreumaError | None:
        return self.results.problem

    @property
    def at_end(self) -> bool:
        """The cursor stands at the end of a program that cuts."""
        total = self.outcome.timeline.total_s if self.outcome else 0.0
        return total > 0 and self.cursors.at_end

    @property
    def cursor_s(self) -> float:
        return self.cursors.at_s

    @property
    def run_s(self) -> float:
        return self.cursors.run_s

    def scene_of(self, job: Job) -> Scene:
        """The solids of a job, made once for all who look at them. Raises `ToreumaError`."""
        key = (*solids_of(job), job.machine)
        if self._placed is None or self._placed[0] != key:
            self._placed = key, build_scene(job)
        return self._placed[1]

    def findings(self) -> tuple[Finding, ...]:
        """Everything the plan and the proof have to say, worst first."""
        return self.results.findings

    # The job and its history

    def show(self, job: Job, path: Path | None = None, base: str | None = None) -> None:
        """Take up a job just opened. ``base`` is the print of its file, found out where it is not given."""
        self.history.begin(job)
        self.base = (print_of(path) if path is not None else "") if base is None else base
        self.path, self.chosen, self.side, self.results = path, (), 0, NOTHING
        self.selection, self.cursors = Selection(), Cursors()
        self._set(job, job)
        self.selection_changed.emit()

    def take_up(self, state: State, saved: Job | None) -> None:
        """Go on with work that was not saved; ``saved`` is what its file holds, None where there is none."""
        self.show(state.job, state.file, state.base)
        self.history.saved = saved
        self.job_changed.emit()

    def change(self, job: Job, together: str = "") -> None:
        """Put an edited job in place of the one before, which undo brings back; edits ``together`` under one word are
        undone as one."""
        if self.job is None or self.whole is None or job == self.job:
            return
        before, whole = self.whole, job
        if self.side:  # part and blank of a second side follow from the first
            held = job.setup.changed(spindle=before.setups[1].spindle)
            kept = ("conditions", "trials", "units", "prove_out", "program")
            machine = before.machine if job.machine == self.job.machine else job.machine
            changes = {name: getattr(job, name) for name in kept}
            whole = with_second(before, job.changed(setups=(held,))).changed(machine=machine, **changes)
        self.history.put(before, together)
        self._set(whole, job)

    def change_whole(self, job: Job) -> None:
        """Put another job with all its sides in place of the one before."""
        if self.whole is None or job == self.whole:
            return
        self.history.put(self.whole)
        self._set(job, None)

    def show_side(self, side: int) -> None:
        """Show the first or the second side of the job, as soon as it is known what it is cut from."""
        if self.whole is None or side == self._wanted_side or side >= len(self.whole.setups):
            return
        self._set(self.whole, self.whole if side == 0 else None, side)

    def attempt(self, change: Callable[[Job], Job], together: str = "") -> ToreumaError | None:
        """Apply a change if it gives a job that can be; else say in one error what is wrong and keep the job. What
        follows the part follows it."""
        if self.job is None:
            return None
        try:
            changed = settled(self.job, change(self.job))
            if solids_of(changed) != solids_of(self.job):
                self.scene_of(changed)
        except ValidationError as error:
            place, what = validation_line(error)
            return JobError(place, what, "type another value")
        except ToreumaError as error:
            return error
        if self.side and (changed.part, changed.stock) != (self.job.part, self.job.stock):
            what = "part and blank of the second side follow from the first"
            return JobError("second side", what, "change them on the first side")
        self.change(changed, together)
        return None

    def begin(self, part: Part, name: str, units: System) -> None:
        """Take up a new job of a part, on the machine and of the material that were used last. Raises `PartError`."""
        shop = library()
        material, machine = (self.usual.get(what, "") for what in ("material", "machine"))
        self.show(fresh_job(part, name, units, shop.materials.get(material), shop.machines.get(machine)))

    def undo(self) -> None:
        self._step(self.history.back)

    def redo(self) -> None:
        self._step(self.history.forth)

    def _step(self, way: Callable[[Job], Job | None]) -> None:
        found = way(self.whole) if self.whole is not None else None
        if found is not None:
            self._set(found, None)

    def _set(self, whole: Job, shown: Job | None, side: int | None = None) -> None:
        """Another job stands. ``shown`` is the side of it to show, None where only the worker finds it out."""
        self._wanted_side = (self.side if side is None else side) if len(whole.setups) > 1 else 0
        self.whole, self.balanced = whole, None
        if self._wanted_side == 0:
            shown = whole
        if shown is not None:
            self._turn_to(self._wanted_side)
            self.job = shown
        self.results = self.results.with_more(problem=None)
        self._end_search("stopped")
        self._request = self._worker.request(whole, self._wanted_side)
        self.job_changed.emit()

    def _turn_to(self, side: int) -> None:
        """Views of the other side have nothing to show yet."""
        if side != self.side:
            self.side, self.results = side, NOTHING
            self.selection, self.cursors = Selection(), Cursors()
            self.selection_changed.emit()

    # Files

    def open(self, name: str) -> bool:
        """Open a file or a demo job; on failure say why and keep what is open."""
        try:
            if name.startswith(DEMO_PREFIX):
                self.show(open_job(name))
            else:
                job, base = read_job(Path(name))
                self.show(job, Path(name), base)
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return False
        return True

    def read_again(self, job: Job, base: str) -> None:
        """Take what the file holds by now; undo brings back what stood here."""
        self.base, self.history.saved = base, job
        self.change_whole(job)
        self.job_changed.emit()

    def save(self, path: Path) -> bool:
        if self.whole is None:
            return False
        try:
            self.base = save_job(self.whole, path)
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return False
        self.path, self.history.saved = path, self.whole
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
        chosen = Selection(operation=operation, element=element, line=line, side=side, feature=feature)
        if chosen != self.selection:
            self.selection = chosen
            self.selection_changed.emit()

    def set_cursor(self, seconds: float) -> None:
        self.cursors = self.cursors.moved(seconds, self.outcome.timeline.total_s if self.outcome else 0.0)
        self.cursor_changed.emit()

    def set_run(self, seconds: float) -> None:
        """Put the cursor of the whole run, both channels together, to a time."""
        self.cursors = self.cursors.run_moved(seconds, self.pair.ran.seconds if self.pair is not None else 0.0)
        self.run_changed.emit()

    def go_to_line(self, line: int) -> None:
        """Put the cursor at the end of the move a program line makes."""
        moment = self.moment_of(line)
        if moment is not None:
            self.set_cursor(moment)

    def moment_of(self, line: int) -> float | None:
        """When the move of a program line is over, s; None where it makes none and nothing follows."""
        spans = self.outcome.timeline.spans if self.outcome is not None else ()
        return next((span.end_s for span in spans if span.motion.line >= line), None)

    def next_fault(self) -> tuple[float, Finding] | None:
        """The next error with a line behind the cursor, and its moment; the first one where none comes any more."""
        found = []
        for finding in self.findings():
            moment = self.moment_of(finding.line) if finding.severity == "error" and finding.line else None
            if moment is not None:
                found.append((moment, finding))
        found.sort(key=lambda one: one[0])
        later = [one for one in found if one[0] > self.cursor_s + 1e-6 and not self.at_end]
        return next(iter(later or found), None)

    # Searches: a whole route, and both spindles at work

    def propose_route(self) -> None:
        """Ask for a whole route; the job gets it when it is found, and undo takes it away again."""
        if self.whole is not None and not self.search.looks_for("route"):
            self.search = Search("route", self._worker.request_route(self.whole), "looking")
            self.job_changed.emit()

    @property
    def ways(self) -> tuple[Proposed, ...]:
        """The routes found last, the best first, while the job is still the same part on the same machine."""
        whole = self.whole
        if whole is None or not any(one.job.part == whole.part for one in self._found):
            return ()
        return self._found if all(one.job.machine == whole.machine for one in self._found) else ()

    def take_way(self, way: Proposed) -> None:
        """Put another of the ways found in the place of the route there is; undo takes it away again."""
        if self.whole is not None and way.job != self.whole:
            self.chosen = way.chosen
            self.history.put(self.whole)
            self._set(way.job, way.job, 0)
            words = f"{way.way[:1].upper()}{way.way[1:]}: {spoken(way.words, self.system)}"
            self.message.emit("ok" if way.state.startswith("finished") else "warning", words)

    def find_cycle(self) -> None:
        """Look for the shortest cycle with both spindles at work; the proofs have to be there."""
        if self.job is not None and self.complete and not self.search.looks_for("cycle"):
            self.search = Search("cycle", self._worker.request_cycle(self.job), "looking")
            self.balance_changed.emit()

    def stop_search(self) -> None:
        """Leave everything as it is; a plan or proof the search came in between of is taken up again."""
        if self.search.state == "looking":
            self._worker.cancel()
            self._end_search("stopped")
            self._take_up()

    def _end_search(self, state: str) -> None:
        if self.search.state != "looking":
            return
        what, self.search = self.search.what, self.search.ended(state)  # type: ignore[arg-type]
        (self.balance_changed if what == "cycle" else self.job_changed).emit()

    def _take_up(self) -> None:
        """Ask again for what was under way when a search began."""
        if self.whole is not None and not self.complete:
            self._request = self._worker.request(self.whole, self._wanted_side)

    def _on_better(self, number: int, cycle_s: float, bound_s: float) -> None:
        if number == self.search.request:
            self.message.emit("ok", f"Cycle {cycle_s:.1f} s, none is below {bound_s:.1f} s; still looking")

    def _on_balanced(self, number: int, found: Balanced | None) -> None:
        if number != self.search.request or self.search.state != "looking":
            return
        self.balanced = found
        self._end_search("found")
        if found is not None and found.slots:
            self.message.emit("ok", f"Cycle {found.cycle_s:.1f} s, none is below {found.bound_s:.1f} s")
        else:
            self.message.emit("warning", "No carrier reaches the second side with the tools it needs")

    def end_with_the_best(self) -> None:
        """Look no further for a route: the best one found so far is taken."""
        if self.offers:
            self._worker.end_with_the_best()

    @property
    def offers(self) -> tuple[Proposed, ...]:
        """The routes found so far by a search that is under way, the best first."""
        return self._found if self.search.looks_for("route") and self.search.offers else ()

    def _on_offered(self, number: int, proposed: Proposed) -> None:
        if number != self.search.request or self.search.state != "looking":
            return
        self.search = self.search.with_offer()
        self._found = (proposed, *proposed.others)
        seconds, tools = f"{proposed.seconds:.0f} s", len(proposed.job.tools)
        words = f"{proposed.way[:1].upper()}{proposed.way[1:]}, {seconds}, {tools} tools: {proposed.words}"
        level = "ok" if proposed.state.startswith("finished") else "warning"
        self.message.emit(level, f"{spoken(words, self.system)}. Still looking for a better way")
        self.job_changed.emit()

    def _on_routed(self, number: int, proposed: Proposed) -> None:
        if number != self.search.request or self.search.state != "looking" or self.whole is None:
            return
        self._end_search("found")
        self.chosen = proposed.chosen
        self._found = (proposed, *proposed.others)
        if proposed.job != self.whole:
            self.history.put(self.whole)
        self._set(proposed.job, proposed.job, 0)
        count = sum(len(setup.operations) for setup in proposed.job.setups)
        lines = [spoken(finding.what, self.system) for finding in proposed.without]
        words = f"{count} operations proposed, {spoken(proposed.words, self.system)}"
        words += ". Open: " + "; ".join(lines) if lines else ""
        words += "".join(f". {spoken(one, self.system)}" for one in proposed.taken)
        decided = spoken(proposed.decided, self.system)
        words += f". {decided[:1].upper()}{decided[1:]}" if decided else ""
        self.message.emit("ok" if proposed.state.startswith("finished") else "warning", words)

    # Results of the worker

    def _on_followed(self, number: int, outcome: Outcome) -> None:
        if number != self._request:
            return
        turned = self.side != self._wanted_side or outcome.job != self.job
        self._turn_to(self._wanted_side)
        self.results = Results(request=number, outcome=outcome, replay=outcome.replay)
        self.cursors = self.cursors.fitted(outcome.timeline.total_s)
        if turned:
            self.job = outcome.job
            self.job_changed.emit()
        self.outcome_changed.emit()
        QTimer.singleShot(0, self._worker.drawn)  # comes after the paint events this has caused

    def _on_ordered(self, number: int, order: tuple[Finding, ...]) -> None:
        if number == self._request:
            self.results = self.results.with_more(order=order)
            self.order_changed.emit()

    def _on_proved(self, number: int, made: Proved) -> None:
        if number == self._request:
            self.results = self.results.with_more(proof=made.proof, replay=made.replay)
            self.progress.emit(1.0)
            self.proof_changed.emit()

    def _on_paired(self, number: int, pair: PairProof) -> None:
        if number == self._request:
            self.results = self.results.with_more(pair=pair)
            self.cursors = self.cursors.run_moved(self.run_s, pair.ran.seconds)
            self.proof_changed.emit()
            self.run_changed.emit()

    def _on_judged(self, number: int, verdict: Verdict) -> None:
        if number == self._request:
            self.results = self.results.with_more(verdict=verdict)
            self.verdict_changed.emit()

    def _on_failed(self, number: int, error: ToreumaError) -> None:
        if number == self.search.request and self.search.state == "looking":
            self._end_search("failed")
            self.message.emit("error", str(error))
            self._take_up()
        elif number == self._request and self._wanted_side and self.whole is not None:
            self.message.emit("error", str(error))  # the first side is shown, so that it can be mended
            self._set(self.whole, self.whole, 0)
        elif number == self._request:
            self.results = Results(request=number, problem=error)
            self.message.emit("error", str(error))
            self.outcome_changed.emit()

    def _on_progress(self, number: int, share: float) -> None:
        if number in (self._request, self.search.request):
            self.progress.emit(share)

    def close(self) -> None:
        """End the worker; what it still had to say is no longer heard, and what was computed is let go."""
        self._request = -1
        self.search, self.results = IDLE, NOTHING
        self._worker.stop()
