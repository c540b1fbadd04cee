"""What commands share: options and printing."""

import json
import sys
from typing import Annotated, Any

import typer

__all__ = ["DialectOption", "JobArgument", "JsonOption", "print_json"]

JobArgument = Annotated[str, typer.Argument(metavar="JOB", help="A .toreuma file, or demo:NAME")]
JsonOption = Annotated[bool, typer.Option("--json", help="Print JSON for scripts")]

DialectOption = Annotated[str | None, typer.Option("-d", "--dialect", help="How to write; default: as the job says")]


def print_json(data: Any) -> None:
    json.dump(data, sys.stdout, indent=2, ensure_ascii=False)
    print()
