"""Planning and proving away from the window: the latest job wins, older work is dropped."""

import threading
import traceback
from queue import SimpleQueue
from typing import Literal

from PySide6.QtCore import QObject, QThread, Signal

from toreuma.core.errors import Cancelled, ToreumaError
from toreuma.core.model import Job
from toreuma.engine.engine import Engine

__all__ = ["Worker"]

Asked = Literal["plan", "route", "balance"]

PAINT_FIRST_S = 0.5
"""The proof waits no longer than this for the window to draw the plan."""


class Worker(QObject):
    """Runs on its own thread. Every result carries the number of the request it answers."""

    followed = Signal(int, object)
    ordered = Signal(int, object)
    proved = Signal(int, object)
    paired = Signal(int, object)
    failed = Signal(int, object)
    routed = Signal(int, object)
    better = Signal(int, float, float)
    balanced = Signal(int, object)
    progress = Signal(int, float)

    def __init__(self, engine: Engine, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._engine = engine
        self._queue: SimpleQueue[tuple[int, Job, Asked] | None] = SimpleQueue()
        self._latest = 0
        self._lock = threading.Lock()
        self._wake = threading.Event()
        self._thread = _Loop(self)
        self._thread.start()

    def request(self, job: Job) -> int:
        """Ask for a job to be planned and proved; gives the number of the request."""
        return self._ask(job, "plan")

    def request_route(self, job: Job) -> int:
        """Ask for a whole route for a job; gives the number of the request."""
        return self._ask(job, "route")

    def request_balance(self, job: Job) -> int:
        """Ask for the shortest cycle with both spindles at work; gives the number of the request."""
        return self._ask(job, "balance")

    def _ask(self, job: Job, asked: Asked) -> int:
        with self._lock:
            self._latest += 1
            number = self._latest
        self._wake.set()
        self._queue.put((number, job, asked))
        return number

    def drawn(self) -> None:
        """The window has drawn the plan it was given: the proof may take the processor."""
        self._wake.set()

    def cancel(self) -> None:
        """Drop what is under way."""
        with self._lock:
            self._latest += 1
        self._wake.set()

    def stop(self) -> None:
        """End the thread."""
        self.cancel()
        self._queue.put(None)
        self._thread.wait()

    def run(self) -> None:
        """The thread's loop."""
        while (request := self._queue.get()) is not None:
            number, job, asked = request
            try:
                {"plan": self._answer, "route": self._route, "balance": self._balance}[asked](number, job)
            except Cancelled:
                continue
            except ToreumaError as error:
                self.failed.emit(number, error)
            except Exception as error:  # a fault of ours must not end the thread or lose the job
                traceback.print_exc()
                what = f"planning failed ({type(error).__name__}: {error})"
                self.failed.emit(number, ToreumaError("plan", what, "undo the last change and save the job"))

    def _route(self, number: int, job: Job) -> None:
        def check() -> None:
            if number != self._latest:
                raise Cancelled

        found = self._engine.route(job, check, lambda share: self.progress.emit(number, share))
        check()
        self.routed.emit(number, found)

    def _balance(self, number: int, job: Job) -> None:
        def check() -> None:
            if number != self._latest:
                raise Cancelled

        def better(cycle_s: float, bound_s: float) -> None:
            self.better.emit(number, cycle_s, bound_s)

        found = self._engine.balance(job, check, better)
        check()
        self.balanced.emit(number, found)

    def _answer(self, number: int, job: Job) -> None:
        def check() -> None:
            if number != self._latest:
                raise Cancelled

        self._wake.clear()
        check()
        outcome = self._engine.follow(job, check)
        check()
        self.followed.emit(number, outcome)
        if outcome.program.motions:
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


class _Loop(QThread):
    def __init__(self, worker: Worker) -> None:
        super().__init__(worker)
        self._worker = worker

    def run(self) -> None:
        self._worker.run()
