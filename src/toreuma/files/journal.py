"""Unsaved work, state by state: each window appends to a journal of its own, which lasts until the person answers.

A journal is ``journal/<id>.log`` in the person's folder, a line for each state: a check sum and one JSON object. A line
that was being written when the power went is known by its sum, and the one before it counts. A window holds its journal
as long as it runs (`toreuma.files.locks`), so one that nobody holds was left by a window that was ended::

    5f2a09c1 {"at": 1796000000.2, "file": "/jobs/spear.toreuma", "base": "9e…", "job": {…}}

An empty one says that the work is saved or was dropped on purpose. Writing is done on a thread of its own.
"""

import contextlib
import errno
import json
import os
import secrets
import tempfile
import threading
import time
import zlib
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.files.home import home
from toreuma.files.jobs import job_text, parse_job
from toreuma.files.locks import Held
from toreuma.files.reading import bytes_of

__all__ = ["Journal", "Left", "State", "left_behind", "places"]

SETTLE_S = 0.8
"""Edits that come together are kept together; no edit waits longer than this."""
LOOKED_AT_S = 0.02
TURN_BYTES = 24_000_000
"""A journal that has grown to this is begun anew with the state that stands."""
MOST_BYTES = 2 * TURN_BYTES + 40_000_000


@dataclass(frozen=True)
class State:
    """A job as it stood, the file it belongs to and the print of that file when it was read or saved last."""

    job: Job
    file: Path | None = None
    base: str = ""
    at: float = 0.0
    """Seconds since 1970, as the clock of this computer said it."""


def places() -> list[Path]:
    """Where journals lie: in the person's folder, and in the system's own where that one cannot be written to."""
    other = f"toreuma-{os.getuid()}-{zlib.crc32(str(home()).encode('utf-8', 'surrogateescape')):08x}"
    return [home() / "journal", Path(tempfile.gettempdir()) / other]


class Journal:
    """The journal of one window. ``problem`` says why nothing can be kept, where that is so."""

    def __init__(self) -> None:
        self.problem = ""
        self._held: Held | None = None
        self._end = 0
        self._waiting: State | None = None
        self._busy = self._closing = self._hurry = False
        self._rests = 0
        self._wake = threading.Condition()
        self._disk = threading.Lock()
        self._thread: threading.Thread | None = None

    @property
    def path(self) -> Path | None:
        """The file that is written to; None before the first state."""
        return self._held.path if self._held is not None else None

    def put(self, state: State) -> None:
        """Keep this state soon; a later one may take its place before it is written."""
        with self._wake:
            if self._closing:
                return
            self._waiting = state
            if self._thread is None:
                self._thread = threading.Thread(target=self._write_all, name="journal", daemon=True)
                self._thread.start()
            self._wake.notify_all()

    def keep_now(self, wait_s: float = 5.0) -> bool:
        """Write what waits and come back when it is on the disk; False where that did not go."""
        end = time.monotonic() + wait_s
        with self._wake:
            self._hurry = True
            self._wake.notify_all()
            while (self._waiting is not None or self._busy) and time.monotonic() < end:
                self._wake.wait(0.05)
            self._hurry = False
            return self._waiting is None and not self._busy and not self.problem

    def rest(self) -> None:
        """Nothing is unsaved any more: what is written is no longer offered."""
        with self._wake:
            self._waiting = None
            self._rests += 1
        with self._disk, contextlib.suppress(OSError):
            if self._held is not None and self._end:
                os.ftruncate(self._held.handle, 0)
                os.fsync(self._held.handle)
                self._end = 0

    def close(self) -> None:
        """The window goes; what is unsaved stays to be offered."""
        if self._thread is not None:
            self.keep_now()
        with self._wake:
            self._closing = True
            self._wake.notify_all()
        if self._thread is not None:
            self._thread.join(2.0)
        with self._disk:
            if self._held is not None:
                self._held.let_go(remove=self._end == 0)
                self._held = None

    def _write_all(self) -> None:
        while True:
            with self._wake:
                while self._waiting is None and not self._closing:
                    self._wake.wait()
                end = time.monotonic() + SETTLE_S
                while (left := end - time.monotonic()) > 0 and not (self._hurry or self._closing):
                    self._wake.wait(left)
                state, self._waiting, rests = self._waiting, None, self._rests
                self._busy = state is not None
            if state is not None:
                self._write(state, rests)
            with self._wake:
                self._busy = False
                self._wake.notify_all()
                if self._closing and self._waiting is None:
                    return

    def _write(self, state: State, rests: int) -> None:
        """Put a state on the disk, unless it was saved or dropped meanwhile; ``problem`` says why it could not be."""
        try:
            line = _line(state)
            with self._disk:
                if rests == self._rests:
                    self._append(line)
            self.problem = ""
        except OSError as error:
            self.problem = f"unsaved work cannot be kept ({error.strerror})"
        except (ValueError, RecursionError) as error:
            self.problem = f"unsaved work cannot be kept ({type(error).__name__})"

    def _append(self, line: bytes) -> None:
        full = self._held is None or self._end > TURN_BYTES or not self._held.path.exists()
        old, end = self._held, self._end
        if full:
            self._held, self._end = _anew(), 0
        assert self._held is not None
        try:
            written = 0
            while written < len(line):
                written += os.write(self._held.handle, line[written:])
            os.fsync(self._held.handle)
        except OSError:
            with contextlib.suppress(OSError):
                os.ftruncate(self._held.handle, self._end)  # half a line is no line
            if full and old is not None:  # the one before still holds the state before
                self._held.let_go(remove=True)
                self._held, self._end = old, end
            raise
        self._end += len(line)
        if full and old is not None:
            old.let_go(remove=True)


def _line(state: State) -> bytes:
    record = {
        "at": state.at or time.time(),
        "file": str(state.file) if state.file is not None else None,
        "base": state.base,
        "job": job_text(state.job),
    }
    data = json.dumps(record, separators=(",", ":")).encode("ascii")
    return b"%08x %s\n" % (zlib.crc32(data), data)


def _anew() -> Held:
    """A journal nobody else has, in the first place that can be written to. Raises `OSError`."""
    fault: OSError | None = None
    for folder in places():
        try:
            folder.mkdir(parents=True, exist_ok=True, mode=0o700)
            if folder.stat().st_uid != os.getuid():
                continue
            while True:
                held = Held(folder / f"{secrets.token_hex(8)}.log")
                if held.taken:
                    return held
        except OSError as error:
            fault = fault or error
    raise fault or OSError(errno.EACCES, "there is no place for it")


@dataclass(frozen=True)
class Left:
    """Unsaved work of a window that was ended. ``states`` counts what its journal holds."""

    path: Path
    state: State
    states: int

    def claim(self) -> Held | None:
        """Hold it, so that no other window offers it; None where another one does, or where it is gone."""
        for _ in range(25):
            try:
                held = Held(self.path, create=False)
            except OSError:
                return None
            if held.taken:
                return held
            time.sleep(LOOKED_AT_S)  # another window may only be looking
        return None

    def drop(self) -> bool:
        """Take it away for good; False where another window holds it."""
        held = self.claim()
        if held is not None:
            held.let_go(remove=True)
        return held is not None


def left_behind() -> tuple[list[Left], list[JobError]]:
    """What windows that were ended had not saved, latest first, and a line for every journal that cannot be read.

    Work that stands in its file already is none. Nothing is taken away but empty journals nobody holds.
    """
    found: list[Left] = []
    faults: list[JobError] = []
    for path in _logs():
        try:
            looking = Held(path, create=False, shared=True)
        except OSError:
            continue
        if not looking.taken:
            continue  # its window still runs
        try:
            left = _last(path)
        except JobError as error:
            faults.append(error)
            continue
        except FileNotFoundError:
            continue
        finally:
            looking.let_go()
        if left is not None and not _stands(left.state):
            found.append(left)
        else:
            _clear(path)
    return sorted(found, key=lambda one: -one.state.at), faults


def _clear(path: Path) -> None:
    """Take away a journal nobody holds that has nothing to offer."""
    with contextlib.suppress(OSError):
        Held(path, create=False).let_go(remove=True)


def _logs() -> Iterator[Path]:
    for folder in places():
        with contextlib.suppress(OSError):
            if folder.stat().st_uid == os.getuid():
                yield from sorted(folder.glob("*.log"))


def _last(path: Path) -> Left | None:
    """The last state of a journal that is whole; None where there is none. Raises `JobError`."""
    lines = bytes_of(path, MOST_BYTES).split(b"\n")
    sound = [line for line in lines if _is_sound(line)]
    for count in range(len(sound), 0, -1):
        state = _state(sound[count - 1], path.name)
        if state is not None:
            return Left(path, state, count)
    if any(lines[:-1]):  # a first line that was never ended is no work yet
        what = "unsaved work in it cannot be read"
        raise JobError(str(path), what, "it is left there; a newer Toreuma may read it, else remove it")
    return None


def _is_sound(line: bytes) -> bool:
    return len(line) > 9 and line[:8] == b"%08x" % zlib.crc32(line[9:])


def _state(line: bytes, where: str) -> State | None:
    try:
        record = json.loads(line[9:])
        job = parse_job(record["job"], where)
        file = Path(record["file"]) if record["file"] else None
        return State(job, file, str(record["base"]), float(record["at"]))
    except (JobError, ValueError, KeyError, TypeError, RecursionError):
        return None


def _stands(state: State) -> bool:
    """The file holds this very job already: it was saved just before the window ended."""
    if state.file is None:
        return False
    try:
        return bytes_of(state.file, MOST_BYTES) == job_text(state.job).encode()
    except (OSError, JobError, ValueError):
        return False
