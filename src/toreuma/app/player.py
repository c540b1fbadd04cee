"""Plays the program: moves the cursor of time along at a chosen speed."""

from PySide6.QtCore import QElapsedTimer, QObject, QTimer, Signal

from toreuma.app.session import Session

__all__ = ["SPEEDS", "Player"]

SPEEDS = (1, 2, 5, 10, 20, 50, 100)
TICK_MS = 33


class Player(QObject):
    """Stops by itself at the end, and when the job changes."""

    changed = Signal()

    def __init__(self, session: Session, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.speed = 10
        self._timer = QTimer(self, interval=TICK_MS)
        self._timer.timeout.connect(self.tick)
        self._since = QElapsedTimer()
        session.job_changed.connect(self.stop)

    @property
    def playing(self) -> bool:
        return self._timer.isActive()

    def toggle(self) -> None:
        """Play from the cursor, or from the start where it stands at the end; or stop."""
        if self.playing:
            self.stop()
            return
        outcome = self._session.outcome
        if outcome is None or not outcome.timeline.spans:
            return
        if self._session.cursor_s >= outcome.timeline.total_s - 1e-6:
            self._session.set_cursor(0.0)
        self._since.start()
        self._timer.start()
        self.changed.emit()

    def stop(self) -> None:
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
        outcome = self._session.outcome
        if outcome is None:
            self.stop()
            return
        passed = self._since.restart() / 1000 * self.speed
        self._session.set_cursor(self._session.cursor_s + passed)
        if self._session.cursor_s >= outcome.timeline.total_s - 1e-6:
            self.stop()
