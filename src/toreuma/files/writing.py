"""One way to write: in full or not at all, flushed to disk, with rights, owner and links of what was there kept."""

import contextlib
import errno
import os
import stat
import tempfile
import time
from pathlib import Path

__all__ = ["write_atomically"]

LEFT_S = 60.0
"""What a writer that is gone left behind is cleared once it is this old."""
SHORT = 40

_MASK = os.umask(0)
os.umask(_MASK)


def write_atomically(path: Path, content: str | bytes) -> None:
    """Write a file in full or not at all: to a new one beside it, flushed to disk, then renamed.

    A link is followed, a device or a pipe is refused; mode and owner stay. A file with several names, or one whose
    owner or folder does not allow another in its place, is written over. Raises `OSError`, for a file that is read-only
    too.
    """
    data = content.encode("utf-8") if isinstance(content, str) else content
    path = Path(os.path.realpath(path))
    found = path.stat() if path.exists() else None
    if found is not None and not stat.S_ISREG(found.st_mode):
        raise OSError(errno.EINVAL, "this is a folder, a device or a pipe, no file", str(path))
    if found is not None and not (found.st_mode & 0o222 and os.access(path, os.W_OK)):
        raise PermissionError(errno.EACCES, "the file is read-only", str(path))
    if found is not None and (found.st_nlink > 1 or not os.access(path.parent, os.W_OK)):
        _write_over(path, data)
        return
    _clear(path)
    handle, name = tempfile.mkstemp(prefix=f"{_prefix(path)}{os.getpid()}-", suffix=".part", dir=path.parent)
    try:
        with os.fdopen(handle, "wb") as stream:
            stream.write(data)
            stream.flush()
            os.fsync(stream.fileno())
            kept = _like(stream.fileno(), found)
        if kept:
            os.replace(name, path)
            _flush_folder(path.parent)
        else:
            _write_over(path, data)
            os.unlink(name)
    except BaseException:
        with contextlib.suppress(OSError):
            os.unlink(name)
        raise


def _prefix(path: Path) -> str:
    return f".{path.name[:SHORT]}."


def _like(handle: int, found: os.stat_result | None) -> bool:
    """Give a new file the mode and owner of the one it takes the place of; False where it may not be given away."""
    if found is None:
        os.fchmod(handle, 0o666 & ~_MASK)
        return True
    mine = os.fstat(handle)
    if (mine.st_uid, mine.st_gid) != (found.st_uid, found.st_gid):
        try:
            os.fchown(handle, found.st_uid, found.st_gid)
        except OSError:
            return False
    os.fchmod(handle, found.st_mode & 0o7777)
    return True


def _write_over(path: Path, data: bytes) -> None:
    with open(path, "r+b") as stream:
        stream.write(data)
        stream.truncate()
        stream.flush()
        os.fsync(stream.fileno())


def _flush_folder(folder: Path) -> None:
    """The new name itself is flushed; some folders cannot be."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def _clear(path: Path) -> None:
    """Take away what writers of this file left that were ended amid their work."""
    start = _prefix(path)
    with contextlib.suppress(OSError):
        for entry in os.scandir(path.parent):
            if not (entry.name.startswith(start) and entry.name.endswith(".part")):
                continue
            number = entry.name[len(start) :].partition("-")[0]
            with contextlib.suppress(OSError):
                if number.isdigit() and not _runs(int(number)) and time.time() - entry.stat().st_mtime > LEFT_S:
                    os.unlink(entry.path)


def _runs(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except (OSError, OverflowError):
        return True
    return True
