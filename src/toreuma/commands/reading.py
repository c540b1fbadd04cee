"""``read``: what any program does, and what is wrong with it."""

from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JsonOption, print_json
from toreuma.core.errors import ProgramError
from toreuma.core.read import kind_of
from toreuma.core.read.guess import Reason
from toreuma.engine.foreign import Foreign, given_of, program_bytes_text, read_foreign, with_neighbours
from toreuma.engine.library import library
from toreuma.engine.reading_report import how_of, reading_report
from toreuma.files.reading import json_of

__all__ = ["FileArgument", "LanguageOption", "SkipOption", "knowledge", "register"]

MOST_GIVEN_BYTES = 5_000_000
MOST_SHOWN = 400

FileArgument = Annotated[Path, typer.Argument(metavar="FILE", help="A program, as text")]
LanguageOption = Annotated[str | None, typer.Option("-d", "--dialect", help="Its words; default: as it looks")]
GivenOption = Annotated[Path | None, typer.Option("--given", help="Tools and other knowledge, JSON")]
MachineOption = Annotated[str | None, typer.Option("--machine", help="The machine it runs on")]
SkipOption = Annotated[list[int] | None, typer.Option("--skip", help="Leave blocks of this switch out (/ is 1)")]


def register(app: typer.Typer) -> None:
    app.command("read")(read_command)


def read_command(
    file: FileArgument,
    given: GivenOption = None,
    dialect_name: LanguageOption = None,
    skip: SkipOption = None,
    machine: MachineOption = None,
    at: Annotated[int | None, typer.Option("--at", help="Show what is in force behind this line")] = None,
    as_json: JsonOption = False,
) -> None:
    """Read any program: its moves, what is in force, and what is wrong with it. Nothing is executed but moves."""
    found = _read(file, given, dialect_name, skip or [], machine)
    if as_json:
        data = reading_report(found)
        if at is not None:
            data["at"] = _in_force_at(found, at)
        print_json(data)
    elif at is not None:
        for what, (value, line) in _in_force_at(found, at).items():
            print(f"  {what.replace('_', ' '):<11} {value}  (line {line})")
    else:
        _print(found)
    if any(kind_of(one) == "not understood" for one in found.program.findings):
        raise typer.Exit(1)


def _read(file: Path, given: Path | None, name: str | None, skip: list[int], machine: str | None) -> Foreign:
    text = program_bytes_text(file)
    known = given_of({} if given is None else knowledge(given), "given" if given is None else given.name)
    known = with_neighbours(known, file, skip)
    where = library().machine(machine) if machine is not None else None
    return read_foreign(text, name=name, given=known, machine=where)


def knowledge(path: Path) -> object:
    """What a file of tools and other knowledge says. Raises `ToreumaError`."""
    try:
        return json_of(path, MOST_GIVEN_BYTES)
    except FileNotFoundError:
        raise ProgramError(path.name, "there is no such file", "check the file's name") from None


def _in_force_at(found: Foreign, line: int) -> dict[str, tuple[object, int]]:
    """What is in force when the block of a line has been obeyed the first time, and since which line."""
    now = found.program.in_force_at(line)
    return {what: (one.value, one.line) for what, one in now.items() if one.value not in (None, "")}


def _print(found: Foreign) -> None:
    program = found.program
    print(f"{found.dialect.name}" + "".join(f"; {one.what} (line {one.line})" for one in _why(found)))
    for motion in program.motions[:MOST_SHOWN]:
        feed = "" if motion.feed is None else f" F {motion.feed:g} mm/{'min' if motion.per_minute else 'rev'}"
        print(f"  line {motion.line:>5}  {how_of(motion):<7} Z {motion.end[0]:>10.3f}  Ø {2 * motion.end[1]:>10.3f}  "
              f"station {motion.station}{feed}")  # fmt: skip
    if len(program.motions) > MOST_SHOWN:
        print(f"  {len(program.motions) - MOST_SHOWN} more moves; --json prints all")
    for finding in program.findings:
        print(f"  {kind_of(finding)}: {finding.what}; {finding.why}")
    if not program.findings:
        print("  everything in it was understood")


def _why(found: Foreign) -> list[Reason]:
    return [] if found.guess is None else list(found.guess.reasons)
