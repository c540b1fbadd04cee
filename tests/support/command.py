"""The command line run in this process."""

import contextlib
import io
import sys
from dataclasses import dataclass

from toreuma.cli import main

__all__ = ["Done", "toreuma"]


@dataclass
class Done:
    returncode: int
    stdout: str
    stderr: str


def toreuma(*arguments: object) -> Done:
    """Run a command as the entry point does, in this process."""
    out, err = io.StringIO(), io.StringIO()
    before, sys.argv = sys.argv, ["toreuma", *map(str, arguments)]
    try:
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            main()
        status = 0
    except SystemExit as end:
        status = int(end.code or 0)
    finally:
        sys.argv = before
    return Done(status, out.getvalue(), err.getvalue())
