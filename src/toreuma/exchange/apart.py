"""Work on files of others in a process of its own: what ends, freezes or floods that one does no harm to this one.

A module that can be run apart calls `serve` with what it does::

    python -m toreuma.exchange.read_apart  <- {"path": …}
    -> {"share": 0.4}
    -> {"done": …}  or  {"fault": [where, what, cure]}
"""

import contextlib
import json
import os
import resource
import select
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from toreuma.core.errors import ImportFault, ToreumaError
from toreuma.core.memo import Check, never_cancel

__all__ = ["Limits", "Progress", "run_apart", "serve"]

Progress = Callable[[float], None]

TICK_S = 0.05
MOST_ANSWER = 60_000_000
EXPORT_AGAIN = "export it again, or a simpler one"


@dataclass(frozen=True)
class Limits:
    """``wall_s`` by the clock, ``memory_mb`` of address space, ``file_mb`` the largest file that may be written."""

    wall_s: float = 60.0
    memory_mb: int = 6_000
    file_mb: int = 0


def run_apart(
    module: str,
    request: dict[str, Any],
    where: str,
    limits: Limits,
    check: Check = never_cancel,
    progress: Progress = lambda share: None,
) -> Any:
    """What a module answers to a request. Raises `ImportFault` for what it says, and where it ended, took too long or
    too much; and what ``check`` raises to stop, at once."""
    environment = {
        **os.environ, "QT_QPA_PLATFORM": "offscreen", "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1",
        "TOREUMA_APART_MB": str(limits.memory_mb), "TOREUMA_APART_S": str(limits.wall_s),
        "TOREUMA_APART_FILE_MB": str(limits.file_mb),
    }  # fmt: skip
    child = subprocess.Popen(
        [sys.executable, "-P", "-m", module], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
        env=environment, start_new_session=True,
    )  # fmt: skip
    assert child.stdin is not None
    try:
        with contextlib.suppress(BrokenPipeError):
            child.stdin.write(json.dumps(request).encode())
            child.stdin.close()
        for said in _lines(child, time.monotonic() + limits.wall_s, where, check):
            if "share" in said:
                progress(float(said["share"]))
            elif "fault" in said:
                raise ImportFault(*(str(word) for word in said["fault"][:3]))
            elif "done" in said:
                return said["done"]
        child.wait(5)
        raise ImportFault(where, _end_of(child.returncode), EXPORT_AGAIN)
    finally:
        with contextlib.suppress(ProcessLookupError, PermissionError):
            os.killpg(child.pid, signal.SIGKILL)
        child.wait()
        assert child.stdout is not None
        child.stdout.close()


def _lines(child: "subprocess.Popen[bytes]", end: float, where: str, check: Check) -> Iterator[dict[str, Any]]:
    """What the process says, a line each, until it ends."""
    assert child.stdout is not None
    handle, rest = child.stdout.fileno(), bytearray()
    while True:
        check()
        if time.monotonic() > end:
            raise ImportFault(where, "reading it takes too long", EXPORT_AGAIN)
        if not select.select([handle], [], [], TICK_S)[0]:
            continue
        data = os.read(handle, 1 << 20)
        if not data:
            return
        rest += data
        if len(rest) > MOST_ANSWER:
            raise ImportFault(where, "there is far too much in it", EXPORT_AGAIN)
        if b"\n" not in data:
            continue
        *lines, last = bytes(rest).split(b"\n")
        rest = bytearray(last)
        for line in lines:
            with contextlib.suppress(ValueError):
                said = json.loads(line)
                if isinstance(said, dict):
                    yield said


def _end_of(status: int | None) -> str:
    if status in (-signal.SIGKILL, -signal.SIGXCPU):
        return "reading it takes too much"
    return "it is damaged: what reads it ended over it"


def serve(work: Callable[[dict[str, Any], Progress], Any]) -> None:
    """Answer the one request of standard input within the limits that are set for this process."""
    _limit()
    out = os.fdopen(os.dup(1), "w", encoding="utf-8")
    os.dup2(os.open(os.devnull, os.O_WRONLY), 1)  # what libraries print is no answer

    def say(said: dict[str, Any]) -> None:
        out.write(json.dumps(said) + "\n")
        out.flush()

    request = json.loads(sys.stdin.buffer.read())
    try:
        say({"done": work(request, lambda share: say({"share": share}))})
    except ToreumaError as error:
        say({"fault": [error.where, error.what, error.cure]})
    except (MemoryError, RecursionError):
        say({"fault": [request.get("where", "file"), "reading it takes too much memory", EXPORT_AGAIN]})
    except Exception as error:  # any fault of a library over a file made by others
        what = f"it cannot be read ({type(error).__name__}: {error})"
        say({"fault": [request.get("where", "file"), what, EXPORT_AGAIN]})
    os._exit(0)  # nothing of it is needed any more, and libraries may take long to go


def _limit() -> None:
    megabytes, seconds = int(os.environ["TOREUMA_APART_MB"]), float(os.environ["TOREUMA_APART_S"])
    for what, most in (
        (resource.RLIMIT_AS, megabytes << 20),
        (resource.RLIMIT_CPU, int(2 * seconds) + 5),
        (resource.RLIMIT_CORE, 0),
        (resource.RLIMIT_FSIZE, int(os.environ["TOREUMA_APART_FILE_MB"]) << 20),
    ):
        _, hard = resource.getrlimit(what)
        most = most if hard == resource.RLIM_INFINITY else min(most, hard)
        with contextlib.suppress(ValueError, OSError):
            resource.setrlimit(what, (most, hard))
