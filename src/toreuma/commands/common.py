"""What commands share: options and printing."""

import json
from typing import Annotated, Any

import typer

from toreuma.core.errors import JobError

__all__ = ["DialectOption", "JobArgument", "JsonOption", "print_json"]

JobArgument = Annotated[str, typer.Argument(metavar="JOB", help="A .toreuma file, or demo:NAME")]
JsonOption = Annotated[bool, typer.Option("--json", help="Print JSON for scripts")]

DialectOption = Annotated[str | None, typer.Option("-d", "--dialect", help="How to write; default: as the job says")]


def print_json(data: Any) -> None:
    """Print data for scripts. Raises `JobError` rather than a number that is none."""
    try:
        text = json.dumps(data, indent=2, ensure_ascii=False, allow_nan=False)
    except ValueError:
        raise JobError("plan", "a number in it is not finite", "look at its findings without --json") from None
    print(text)
