"""Plays a program: moves a cursor of time along at a chosen speed."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QElapsedTimer, QObject, QTimer, Signal

from toreuma.app.session import Session

__all__ = ["SPEEDS", "Cursor", "Player", "run_cursor", "side_cursor"]

SPEEDS = (1, 2, 5, 10, 20, 50, 100)
TICK_MS = 33


@dataclass(frozen=True)
class Cursor:
    """A time that can be read and put elsewhere; ``total`` is 0 where there is nothing to play."""

    now: Callable[[], float]
    total: Callable[[], float]
    put: Callable[[float], None]


def side_cursor(session: Session) -> Cursor:
    """The cursor of the side that is shown."""
    total = lambda: session.outcome.timeline.total_s if session.outcome is not None else 0.0  # noqa: E731
    return Cursor(lambda: session.cursor_s, total, session.set_cursor)


def run_cursor(session: Session) -> Cursor:
    """The cursor of the whole run, both channels together."""
    total = lambda: session.pair.ran.seconds if session.pair is not None else 0.0  # noqa: E731
    return Cursor(lambda: session.run_s, total, session.set_run)


class Player(QObject):
    """Stops by itself at the end, and when the job changes; ``arrived``: where it was to play to."""

    changed = Signal()
    arrived = Signal()

    def __init__(self, session: Session, cursor: Cursor, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._cursor = cursor
        self.speed = 10
        self._timer = QTimer(self, interval=TICK_MS)
        self._timer.timeout.connect(self.tick)
        self._since = QElapsedTimer()
        self._until: float | None = None
        session.job_changed.connect(self.stop)

    @property
    def playing(self) -> bool:
        return self._timer.isActive()

    def toggle(self) -> None:
        """Play from the cursor, or from the start where it stands at the end; or stop."""
        if self.playing:
            self.stop()
            return
        total = self._cursor.total()
        if total <= 0:
            return
        if self._cursor.now() >= total - 1e-6:
            self._cursor.put(0.0)
        self._begin(None)

    def play_until(self, seconds: float) -> None:
        """Play up to a moment and stay there: from the cursor, or from the start where it stands behind it."""
        if self._cursor.total() <= 0:
            return
        if self._cursor.now() >= seconds - 1e-6:
            self._cursor.put(0.0)
        self._begin(seconds)

    def _begin(self, until: float | None) -> None:
        self._until = until
        self._since.start()
        self._timer.start()
        self.changed.emit()

    def stop(self) -> None:
        self._until = None
        if self.playing:
            self._timer.stop()
            self.changed.emit()

    def set_speed(self, speed: int) -> None:
        """So many seconds of the program in one."""
        self.speed = speed
        self.changed.emit()

    def faster(self, step: int) -> None:
        """The next of the usual speeds up or down."""
        at = min(range(len(SPEEDS)), key=lambda index: abs(SPEEDS[index] - self.speed))
        self.set_speed(SPEEDS[min(max(at + step, 0), len(SPEEDS) - 1)])

    def tick(self) -> None:
        """Move the cursor by the time that has passed."""
        total = self._cursor.total()
        if total <= 0:
            self.stop()
            return
        passed = self._since.restart() / 1000 * self.speed
        until = total if self._until is None else min(self._until, total)
        self._cursor.put(min(self._cursor.now() + passed, until))
        if self._until is not None and self._cursor.now() >= until - 1e-6:
            self.stop()
            self.arrived.emit()
        elif self._cursor.now() >= total - 1e-6:
            self.stop()
