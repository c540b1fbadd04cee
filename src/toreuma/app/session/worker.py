"""Planning and proving beside the window: the latest job wins, older work is dropped."""

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from queue import SimpleQueue
from typing import Literal

from PySide6.QtCore import QObject, Signal

from toreuma.app.session.task import Task
from toreuma.core.errors import Cancelled, ToreumaError
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.engine.engine import Engine
from toreuma.files.log import write_fault

__all__ = ["Worker"]

Asked = Literal["plan", "route", "cycle"]

QUIET_S = 5.0
"""It stands still for the window no longer than this."""

PAINT_FIRST_S = 0.5
"""The proof waits no longer than this for the window to draw the plan."""


class Worker(QObject):
    """One engine on a thread of its own. Every result carries the number of the request it answers."""

    followed = Signal(int, object)
    ordered = Signal(int, object)
    proved = Signal(int, object)
    judged = Signal(int, object)
    paired = Signal(int, object)
    failed = Signal(int, object)
    offered = Signal(int, object)
    routed = Signal(int, object)
    better = Signal(int, float, float)
    balanced = Signal(int, object)
    progress = Signal(int, float)

    def __init__(self, engine: Engine, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._engine = engine
        self._queue: SimpleQueue[tuple[int, Callable[[int, Check], None]] | None] = SimpleQueue()
        self._latest = 0
        self._lock = threading.Lock()
        self._wake = threading.Event()
        self._may_go_on = threading.Event()
        self._may_go_on.set()
        self._enough = threading.Event()
        self._task = Task(self._answer_all, "planning", self)
        self._task.start()

    def request(self, whole: Job, side: int = 0) -> int:
        """Ask for a side of a job to be planned and proved; gives the number of the request."""
        return self._ask(lambda number, check: self._plan(number, whole, side, check))

    def request_route(self, job: Job) -> int:
        """Ask for a whole route for a job; gives the number of the request."""
        self._enough.clear()
        return self._ask(lambda number, check: self._route(number, job, check))

    def end_with_the_best(self) -> None:
        """A route that was offered is enough: it is the answer."""
        self._enough.set()

    def request_cycle(self, job: Job) -> int:
        """Ask for the shortest cycle with both spindles at work; gives the number of the request."""
        return self._ask(lambda number, check: self._cycle(number, job, check))

    def _ask(self, answer: Callable[[int, Check], None]) -> int:
        number = self.cancel()
        self._queue.put((number, answer))
        return number

    def drawn(self) -> None:
        """The window has drawn the plan it was given: the proof may take the processor."""
        self._wake.set()

    @contextmanager
    def quiet(self) -> Iterator[None]:
        """Stands still at its next step while the window does something long: both want the same processor."""
        self._may_go_on.clear()
        try:
            yield
        finally:
            self._may_go_on.set()

    def cancel(self) -> int:
        """Drop what is under way; gives a number no request has had."""
        with self._lock:
            self._latest += 1
            number = self._latest
        self._wake.set()
        return number

    def stop(self) -> None:
        """End the thread. A step that does not come to its end in time is left to run out by itself: the window that
        goes does not wait for it."""
        self.cancel()
        self._queue.put(None)
        if self._task.end():
            self._engine.forget()

    def _answer_all(self, check: Check, progress: object) -> None:
        """The thread's loop."""
        while (request := self._queue.get()) is not None:
            number, answer = request
            try:
                answer(number, self._check_for(number))
            except Cancelled:
                continue
            except ToreumaError as error:
                self.failed.emit(number, error)
            except Exception as error:  # a fault of ours must not end the thread or lose the job
                write_fault(error)
                what = f"planning failed ({type(error).__name__}: {error})"
                self.failed.emit(number, ToreumaError("plan", what, "undo the last change and save the job"))

    def _check_for(self, number: int) -> Check:
        def check() -> None:
            self._may_go_on.wait(QUIET_S)
            if number != self._latest:
                raise Cancelled

        return check

    def _route(self, number: int, job: Job, check: Check) -> None:
        found = self._engine.route(
            job,
            check,
            lambda share: self.progress.emit(number, share),
            lambda route: self.offered.emit(number, route),
            self._enough.is_set,
        )
        check()
        self.routed.emit(number, found)

    def _cycle(self, number: int, job: Job, check: Check) -> None:
        found = self._engine.balance(job, check, lambda cycle, bound: self.better.emit(number, cycle, bound))
        check()
        self.balanced.emit(number, found)

    def _plan(self, number: int, whole: Job, side: int, check: Check) -> None:
        self._wake.clear()
        check()
        outcome = self._engine.follow(self._engine.side(whole, side, check), check)
        check()
        self.followed.emit(number, outcome)
        if not outcome.program.motions:
            return
        self._wake.wait(PAINT_FIRST_S)  # the window draws the new plan before the proof takes the processor
        check()
        self.ordered.emit(number, self._engine.order(outcome))
        check()
        proof = self._engine.prove(outcome, check, lambda share: self.progress.emit(number, share))
        check()
        self.proved.emit(number, proof)
        pair = self._engine.pair(outcome, check)
        check()
        if pair is not None:
            self.paired.emit(number, pair)
        verdict = self._engine.verdict(whole, pair, check)
        check()
        self.judged.emit(number, verdict)
