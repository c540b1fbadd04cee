"""One piece of work beside the window, with progress and a way to stop it."""

import warnings
from collections.abc import Callable

from PySide6.QtCore import QObject, QThread, Signal, SignalInstance

from toreuma.core.errors import Cancelled, ToreumaError
from toreuma.core.memo import Check
from toreuma.files.log import write_fault

__all__ = ["Task", "Work", "left_running"]

Work = Callable[[Check, Callable[[float], None]], object]
"""Is given a check, which raises `Cancelled` once the task is stopped, and whom to tell the share done."""


STOP_MS = 3_000
_LEFT: list["Task"] = []
"""What runs out after its window has gone."""


def left_running() -> bool:
    """A step of a task that was ended has not come to its own end."""
    return any(not task.isFinished() for task in _LEFT)


def _unheard(*signals: SignalInstance) -> None:
    """Nothing more is heard of them."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore", RuntimeWarning)  # that nobody listens to one of them is no fault
        for signal in signals:
            signal.disconnect()


class Task(QThread):
    """Ends with exactly one of ``done``, ``failed`` or, when stopped, neither. ``what`` names it where it fails."""

    done = Signal(object)
    failed = Signal(object)
    progress = Signal(float)

    def __init__(self, work: Work, what: str, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._work, self._what = work, what
        self._stopped = False

    def stop(self) -> None:
        self._stopped = True

    def leave(self) -> None:
        """Stop without waiting; goes away by itself once the step under way has ended. Nothing more is heard of it."""
        self.stop()
        _unheard(self.done, self.failed, self.progress)
        self.finished.connect(self.deleteLater)
        if self.isFinished():
            self.deleteLater()

    def end(self) -> bool:
        """Stop, and wait for the end. A step that does not come to its own in time is left to run out by itself, for
        the window that goes does not wait for it: that gives False."""
        self.stop()
        if self.wait(STOP_MS):
            return True
        _unheard(self.done, self.failed, self.progress, self.finished)
        self.setParent(None)
        _LEFT.append(self)
        return False

    def _check(self) -> None:
        if self._stopped:
            raise Cancelled

    def run(self) -> None:
        try:
            found = self._work(self._check, self.progress.emit)
            self._check()
            self.done.emit(found)
        except Cancelled:
            return
        except ToreumaError as error:
            self.failed.emit(error)
        except Exception as error:  # a fault of ours must not end the window
            write_fault(error)
            what = f"{self._what} failed ({type(error).__name__}: {error})"
            self.failed.emit(ToreumaError(self._what, what, "undo the last change and save the job"))
