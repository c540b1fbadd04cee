"""What all devices have in common: read on a thread of their own, one clear state, nothing lost, nothing that waits."""

import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

__all__ = ["Device", "DeviceEvent", "Health"]

Health = Literal["off", "looking", "well", "quiet", "garbled", "gone"]
"""Not started; not found yet; speaks sense; silent for too long; makes no sense; was there and is not."""

MOST_KEPT = 100_000
GARBLED = 3
"""So many lines without sense one after the other make a device garbled."""


@dataclass(frozen=True)
class DeviceEvent:
    """Something a device said, when it was heard (seconds since 1970), and what was made of it."""

    at: float
    what: Any


class Device:
    """Derive `_open`, `_step` and `_close`. A step hears for no longer than ``STEP_S`` and calls `told` or `garbled`.

    ``name`` is what people call it, ``where`` its address. ``quiet_s``: silent for longer, it is said to be quiet; None
    for one that speaks only when it is asked by hand.
    """

    STEP_S = 0.2
    kind = "device"

    def __init__(
        self, name: str, where: str, quiet_s: float | None = None, simulated: bool = False,
        clock: Callable[[], float] = time.time,
    ) -> None:  # fmt: skip
        self.name, self.where, self.simulated = name, where, simulated
        self._quiet_s, self._clock = quiet_s, clock
        self._events: deque[DeviceEvent] = deque(maxlen=MOST_KEPT)
        self._lock = threading.Lock()
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self._last, self._bad, self._open_now, self._was_open = 0.0, 0, False, False
        self.problem = ""
        """Why it is not well, in a line."""
        self.lost = 0
        """How many lines made no sense."""

    # For whoever uses it

    def start(self) -> None:
        """Begin to listen; at once for the caller."""
        if self._thread is None:
            self._stop.clear()
            self._thread = threading.Thread(target=self._run, name=f"device {self.name}", daemon=True)
            self._thread.start()

    def stop(self) -> None:
        """Listen no more. What was heard stays to be taken."""
        self._stop.set()
        thread, self._thread = self._thread, None
        if thread is not None:
            thread.join(2.0)

    def take(self) -> list[DeviceEvent]:
        """Everything heard since it was last asked, in its order."""
        with self._lock:
            found = list(self._events)
            self._events.clear()
        return found

    @property
    def health(self) -> Health:
        """One clear state."""
        if self._thread is None:
            return "off"
        if not self._open_now:
            return "gone" if self._was_open else "looking"
        if self._bad >= GARBLED:
            return "garbled"
        if self._quiet_s is not None and self._clock() - self._last > self._quiet_s:
            return "quiet"
        return "well"

    @property
    def words(self) -> str:
        """The state in words, with what is wrong."""
        told = {
            "off": "not listened to", "looking": "not found yet", "well": "well", "quiet": "silent",
            "garbled": "says what nobody understands", "gone": "was there and is gone",
        }[self.health]  # fmt: skip
        return f"{told}: {self.problem}" if self.problem and self.health not in ("well", "off") else told

    # For devices

    def told(self, what: Any) -> None:
        """Something with sense was heard."""
        with self._lock:
            self._events.append(DeviceEvent(self._clock(), what))
        self._last, self._bad, self.problem = self._clock(), 0, ""

    def garbled(self, why: str) -> None:
        """Something without sense was heard; it is not taken for anything."""
        self.lost += 1
        self._bad += 1
        self._last = self._clock()
        self.problem = why

    def _open(self) -> None:
        """Raises `OSError` where it cannot be reached."""
        raise NotImplementedError

    def _step(self) -> None:
        """Hear once. Raises `OSError` where it is gone."""
        raise NotImplementedError

    def _close(self) -> None:
        raise NotImplementedError

    def _run(self) -> None:
        pause = 0.1
        while not self._stop.is_set():
            try:
                if not self._open_now:
                    self._open()
                    self._open_now = self._was_open = True
                    self._last, self._bad, self.problem, pause = self._clock(), 0, "", 0.1
                self._step()
            except OSError as error:
                self._shut()
                self.problem = error.strerror or str(error) or "it does not answer"
                self._stop.wait(pause)
                pause = min(2 * pause, 2.0)
            except Exception as error:  # what others send must not end the listening
                self.garbled(f"{type(error).__name__}: {error}"[:160])
        self._shut()

    def _shut(self) -> None:
        if self._open_now:
            self._open_now = False
            try:
                self._close()
            except OSError:
                self.problem = self.problem or "it did not close"
