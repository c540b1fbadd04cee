"""A file this process holds while it runs: the system lets go of it when the process ends, however that is."""

import contextlib
import errno
import fcntl
import os
from pathlib import Path

__all__ = ["Held"]


class Held:
    """An open file with a lock on it. ``taken`` is false where another window holds it."""

    def __init__(self, path: Path, create: bool = True, shared: bool = False) -> None:
        """``shared`` is for looking: many may do so at once. Raises `OSError` where the file cannot be opened."""
        self.path = path
        flags = os.O_RDWR | os.O_APPEND | os.O_CLOEXEC | (os.O_CREAT if create else 0)
        self._handle: int | None = os.open(path, flags, 0o600)
        self.taken = _lock(self._handle, shared)
        if self.taken and not _same(self._handle, path):  # it was taken away between opening and locking
            self.taken = False
        if not self.taken:
            self.let_go()

    @property
    def handle(self) -> int:
        """The open file. Raises `ValueError` once it has been let go of."""
        if self._handle is None:
            raise ValueError("the file is no longer held")
        return self._handle

    def let_go(self, remove: bool = False) -> None:
        """Close the file, and with ``remove`` take it away first."""
        if self._handle is None:
            return
        if remove and self.taken:
            with contextlib.suppress(OSError):
                os.unlink(self.path)
        os.close(self._handle)
        self._handle, self.taken = None, False


def _lock(handle: int, shared: bool) -> bool:
    try:
        fcntl.flock(handle, (fcntl.LOCK_SH if shared else fcntl.LOCK_EX) | fcntl.LOCK_NB)
    except OSError as error:
        return error.errno not in (errno.EWOULDBLOCK, errno.EACCES)  # a disk that knows no locks is no reason to stop
    return True


def _same(handle: int, path: Path) -> bool:
    try:
        return os.path.samestat(os.fstat(handle), os.stat(path))
    except OSError:
        return False
