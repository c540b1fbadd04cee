"""``check``: any program cut out of a blank, without a drawing."""

from pathlib import Path
from typing import Annotated, Any

import typer

from toreuma.commands.common import JsonOption, print_json
from toreuma.commands.reading import FileArgument, LanguageOption, SkipOption, knowledge
from toreuma.core.units import System, show
from toreuma.engine.as_job import as_job
from toreuma.engine.check import Checked, check_program
from toreuma.engine.check_report import check_report, kind_in
from toreuma.engine.foreign import given_of, program_bytes_text, with_neighbours
from toreuma.engine.piece_words import piece_lines
from toreuma.files.jobs import save_job

MINUS = "\u2212"

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("check")(check)


def check(
    file: FileArgument,
    blank: Annotated[
        str, typer.Option("--blank", help='"D50 L80", "D60 d30 L40", "HEX 24 L60", with J-55 for the jaws')
    ],
    tools: Annotated[Path | None, typer.Option("--tools", help="Tools by station, JSON")] = None,
    dialect_name: LanguageOption = None,
    machine: Annotated[str | None, typer.Option("--machine", help="The machine it runs on")] = None,
    skip: SkipOption = None,
    as_json: JsonOption = False,
    job: Annotated[
        Path | None, typer.Option("--job", help="Take it as a job: part, tools and operations, written here")
    ] = None,
) -> None:
    """Cut any program out of a blank with its tools, and say what comes of it. Needs no drawing."""
    text = program_bytes_text(file)
    data: Any = {} if tools is None else knowledge(tools)
    given = with_neighbours(given_of(data, "tools" if tools is None else tools.name), file, skip or [])
    made = check_program(text, blank, data, name=dialect_name, machine=machine, given=given)
    taken = as_job(made.study, file.stem) if job is not None else None
    if job is not None and taken is not None:
        save_job(taken.job, job)
    if as_json:
        print_json(check_report(made))
    else:
        _print(made)
        if job is not None and taken is not None:
            written = [one for one in taken.job.operations if one.kind == "as_written"]
            print(f"  taken as a job: {job.name}, {_operations(len(written))} as written")
            for line in taken.left_out:
                print(f"    {line}")
    if not made.safe:
        raise typer.Exit(1)


def _operations(count: int) -> str:
    return f"{count} operation{'' if count == 1 else 's'}"


def _print(made: Checked) -> None:
    report = check_report(made)
    study = made.study
    print(f"{study.dialect.name}; {len(study.program.motions)} moves, {made.cut.proof.time_s:.0f} s")
    for use, tool in zip(study.overview.tools, study.tools, strict=True):
        print(
            f"  line {use.line:>4}  station {use.station}: {tool.tool.kind}, {', '.join(use.comments) or 'no comment'}"
        )
    system: System = "inch" if report["units"] == "inch" else "mm"

    print(f"  what comes of it, {show(0.0, 'mm', system).unit}:")
    for line in piece_lines(made.cut, system):
        print(f"    {line.replace(MINUS, '-')}")
    for finding in made.findings:
        print(f"  {kind_in(finding)}: {finding.what}; {finding.why}")
    for line in made.cut.assumed:
        print(f"  assumed: {line}")
