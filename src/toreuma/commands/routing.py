"""The command that proposes a whole route."""

import time
from dataclasses import replace
from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.auto.propose import Proposed
from toreuma.core.errors import ToreumaError
from toreuma.engine.engine import Engine
from toreuma.engine.library import open_job
from toreuma.files.jobs import save_job

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    """Add the command."""
    app.command("auto")(auto)


def auto(
    job: JobArgument,
    output: Annotated[Path | None, typer.Option("-o", "--output", help="Job file to write")] = None,
    way: Annotated[int, typer.Option("--way", min=1, help="Take this one of the ways found, 1 the best")] = 1,
    within: Annotated[
        float | None,
        typer.Option("--within", min=0, help="Take the best found after so many seconds; the first is waited for"),
    ] = None,
    as_json: JsonOption = False,
) -> None:
    """Propose a whole route: tools, operations, order, and the reason of every choice."""
    begun = time.monotonic()
    found = Engine().route(open_job(job), enough=lambda: within is not None and time.monotonic() - begun > within)
    if way > 1:
        if way > len(found.others) + 1:
            raise ToreumaError("--way", f"{len(found.others) + 1} ways were found", "choose one of them")
        found = _in_front(found, way - 2)
    if output is not None:
        save_job(found.job, output)
    if as_json:
        print_json(_report(found))
    else:
        _print(found)
    if not any(setup.operations for setup in found.job.setups):
        raise typer.Exit(1)


def _in_front(found: Proposed, index: int) -> Proposed:
    """Another way first, and the one that was first among the rest."""
    rest = (replace(found, others=()), *(one for n, one in enumerate(found.others) if n != index))
    return replace(found.others[index], others=rest)


def _report(found: Proposed) -> dict[str, object]:
    return {
        "setups": [
            {"name": setup.name, "operations": [operation.model_dump(mode="json") for operation in setup.operations]}
            for setup in found.job.setups
        ],
        "tools": [tool.model_dump(mode="json") for tool in found.job.tools],
        "chosen": [
            {"side": one.side + 1, "operation": one.operation, "what": one.what, "tool": one.tool,
             "reasons": list(one.reasons), "not": list(one.rivals)}
            for one in found.chosen
        ],
        "state": found.state,
        "words": found.words,
        "way": found.way,
        "seconds": found.seconds,
        "decided": found.decided,
        "others": [
            {"way": one.way, "state": one.state, "words": one.words, "seconds": one.seconds,
             "tools": len(one.job.tools)}
            for one in found.others
        ],
        "taken": list(found.taken),
        "open": [finding.as_dict() for finding in found.without],
    }  # fmt: skip


def _print(found: Proposed) -> None:
    reasons = {(one.side, one.operation): one for one in found.chosen}
    for side, setup in enumerate(found.job.setups):
        print(f"Setup {side + 1}: {setup.name or 'side'}")
        for operation in setup.operations:
            tool = found.job.tool(operation.tool)
            print(f"  {operation.id:<5} {operation.name}  [{operation.tool} {tool.name if tool else ''}]")
            one = reasons.get((side, operation.id))
            for reason in one.reasons if one else ():
                print(f"          {reason}")
            for rival in one.rivals[:2] if one else ():
                print(f"          not {rival}")
    print(f"  {found.words}")
    if found.decided:
        print(f"  way: {found.decided}")
    for number, other in enumerate(found.others, 2):
        print(f"  way {number}: {other.way}: {other.seconds:.0f} s, {len(other.job.tools)} tools, {other.words}")
    for line in found.taken:
        print(f"  taken: {line}")
    for finding in found.without:
        print(f"  open: {finding.what} ({finding.why})")
