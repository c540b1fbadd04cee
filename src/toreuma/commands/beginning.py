"""``new`` and ``line``: a part typed in a turner's words."""

from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.advise.unsaid import unsaid
from toreuma.core.errors import JobError
from toreuma.core.spoken import spoken
from toreuma.core.units import System
from toreuma.engine.fresh import line_fault, new_job, starter_line
from toreuma.engine.library import open_job
from toreuma.engine.line import line_of, said, with_part
from toreuma.engine.proposals import settled
from toreuma.engine.stock_line import with_blank
from toreuma.files.jobs import save_job
from toreuma.shipped.library import starters

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    """Add the commands."""
    app.command("new")(new_command)
    app.command("line")(line_command)


def new_command(
    file: Annotated[Path, typer.Argument(metavar="JOB", help="Job file to write")],
    line: Annotated[str, typer.Option("--line", "-l", help="The part: 30 x 18 c1 / 44 x 27 r2")] = "",
    starter: Annotated[str, typer.Option("--starter", help="A part to begin with in place of a line")] = "",
    name: Annotated[str, typer.Option("--name", help="Default: the file's name")] = "",
    units: Annotated[str, typer.Option("--units", help="mm or inch")] = "mm",
    material: Annotated[str, typer.Option("--material", help="Any of its names: 4140, 1.4404, 316L")] = "",
    machine: Annotated[str, typer.Option("--machine", help="A machine by name, the shop's own or a shipped one")] = "",
    blank: Annotated[
        str,
        typer.Option("--blank", help="What it is cut from, else proposed: D60, D60 L80, D80 d50, HEX 24, casting 3"),
    ] = "",
    as_json: JsonOption = False,
) -> None:
    """Write a job of a new part: bar, hold and stick-out are proposed from it."""
    system = _system(units)
    if file.exists():
        raise JobError(str(file), "there is a file of this name already", "choose another name or move it away")
    if starter:
        if starter not in starters():
            raise JobError(f"--starter {starter}", "there is no such starter", f"choose from {', '.join(starters())}")
        line = line or starter_line(starter, system)
    if not line.strip():
        raise JobError("--line", "the part is missing", "type it as 30 x 18 c1 / 44 x 27, or name a --starter")
    job, note = new_job(name or file.stem, system, material, machine, line)
    job = with_blank(job, blank) if blank.strip() else job
    save_job(job, file)
    if as_json:
        stock = job.stock.model_dump(mode="json", exclude={"material", "supply"})
        print_json({"file": str(file), "line": line_of(job.part, system), "note": note, "stock": stock,
                    "material": job.stock.material.name, "machine": job.machine.name,
                    "hold": job.setup.hold.name, "stick_out_mm": job.setup.hold.stick_out_mm})  # fmt: skip
        return
    if note:
        print(f"note: {note}")
    print(file)


def line_command(
    job: JobArgument,
    change: Annotated[str, typer.Option("--set", help="The part said anew; written to -o, or to the job")] = "",
    output: Annotated[Path | None, typer.Option("-o", "--output", metavar="JOB", help="Job file to write")] = None,
    check: Annotated[bool, typer.Option("--check", help="What a drawing usually says and this part does not")] = False,
    named: Annotated[bool, typer.Option("--names", help="With the names of surfaces and features")] = False,
    as_json: JsonOption = False,
) -> None:
    """Print the part of a job as a line, or say it anew."""
    found = open_job(job)
    if change:
        if output is None and job.startswith("demo:"):
            raise JobError("-o", "a demo job is not changed", "name a file to write")
        read = said(change, found.units, found.part.name)
        if read.part is None or read.faults:
            raise line_fault(read.faults, change)
        found = settled(found, with_part(found, read.part))
        save_job(found, output or Path(job))
    text = line_of(found.part, found.units, named)
    left = unsaid(found.part) if check or as_json else ()
    if as_json:
        print_json(
            {
                "line": text,
                "unsaid": [{**one.as_dict(), "what": spoken(one.what, found.units)} for one in left],
                "units": found.units,
                "part": found.part.model_dump(mode="json", exclude_none=True),
            }
        )
        return
    print(text)
    for one in left:
        print(f"  not said: {spoken(one.what, found.units)} ({one.why})")


def _system(text: str) -> System:
    words: dict[str, System] = {"mm": "mm", "metric": "mm", "inch": "inch", "in": "inch"}
    if text.lower() not in words:
        raise JobError("--units", f"'{text}' is no unit for a job", "use mm or inch")
    return words[text.lower()]
