"""A PostgreSQL server of the tests' own, where one is installed."""

import os
import shutil
import socket
import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

__all__ = ["installed", "server"]

NOBODY = 65534


def installed() -> bool:
    return all(_found(name) for name in ("initdb", "pg_ctl"))


def _found(name: str) -> str | None:
    there = shutil.which(name)
    if there is None:
        others = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"))
        there = str(others[-1]) if others else None
    return there


@contextmanager
def server() -> Iterator[str]:
    """Its address, with an empty database in it; it is gone afterwards."""
    folder = Path(tempfile.mkdtemp(prefix="toreuma-pg-"))
    as_root = os.geteuid() == 0  # the server refuses to run as root
    if as_root:
        os.chown(folder, NOBODY, NOBODY)
    data = folder / "data"

    def run(name: str, *arguments: str) -> None:
        tool = _found(name)
        assert tool is not None
        drop = {"user": NOBODY, "group": NOBODY, "extra_groups": []} if as_root else {}
        done = subprocess.run(
            [tool, *arguments], capture_output=True, text=True, cwd=folder, timeout=120, **drop,  # type: ignore[call-overload]
            env={**os.environ, "LC_ALL": "C", "HOME": str(folder)},
        )  # fmt: skip
        assert done.returncode == 0, done.stderr + done.stdout

    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    run("initdb", "-D", str(data), "-U", "shop", "-A", "trust", "-E", "UTF8")
    options = f"-p {port} -k {folder} -c listen_addresses=127.0.0.1 -c fsync=off"
    run("pg_ctl", "-D", str(data), "-w", "-l", str(folder / "log"), "-o", options, "start")
    try:
        yield f"postgresql+psycopg://shop@127.0.0.1:{port}/postgres"
    finally:
        run("pg_ctl", "-D", str(data), "-m", "immediate", "stop")
        shutil.rmtree(folder, ignore_errors=True)
