"""``compare`` and ``rewrite``: two programs by their moves, and one written anew."""

import re
from pathlib import Path
from typing import Annotated, Any

import typer

from toreuma.commands.common import JsonOption, print_json
from toreuma.commands.reading import FileArgument, LanguageOption
from toreuma.core.errors import ProgramError
from toreuma.core.read.compare import Difference, Way, differences
from toreuma.core.read.rewrite import Rewritten, renumbered, shifted, with_speed
from toreuma.engine.foreign import given_of, language_of, program_bytes_text, read_foreign, with_neighbours
from toreuma.files.writing import write_atomically

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("compare")(compare)
    app.command("rewrite")(rewrite)


def compare(
    here: FileArgument,
    there: Annotated[Path, typer.Argument(metavar="OTHER", help="The program to hold it against")],
    dialect_name: LanguageOption = None,
    as_json: JsonOption = False,
) -> None:
    """Hold two programs against each other by what their moves do, not by how they are written."""
    programs = []
    for path in (here, there):
        given = with_neighbours(given_of({}, "given"), path)
        programs.append(read_foreign(program_bytes_text(path), name=dialect_name, given=given).program)
    found = differences(*programs)
    if as_json:
        print_json({"same": not found, "differences": [_row(one) for one in found]})
    else:
        for one in found:
            print(f"  {one.what}: {_ways(one.here) or 'nothing'}  against  {_ways(one.there) or 'nothing'}")
        print(f"{len(found)} differences" if found else "both do the same")
    if found:
        raise typer.Exit(1)


def _row(one: Difference) -> dict[str, Any]:
    return {"what": one.what, "here": [_way(way) for way in one.here], "there": [_way(way) for way in one.there]}


def _way(way: Way) -> dict[str, Any]:
    mode, value, clamp = way.speed
    return {"line": way.line, "how": way.how, "z": way.z, "d": way.d, "feed": way.feed, "station": way.station,
            "speed": {"mode": mode, "value": value, "clamp": clamp}}  # fmt: skip


def _ways(ways: tuple[Way, ...]) -> str:
    if not ways:
        return ""
    first, last = ways[0], ways[-1]
    lines = f"line {first.line}" if first.line == last.line else f"lines {first.line} to {last.line}"
    return f"{lines}, to Z {last.z:g} Ø {last.d:g}" + (f" F {last.feed:g}" if last.feed is not None else "")


def rewrite(
    file: FileArgument,
    output: Annotated[Path, typer.Option("-o", "--output", help="Where the new text goes")],
    renumber: Annotated[
        int | None, typer.Option("--renumber", help="Number blocks in steps; 0: only needed ones")
    ] = None,
    shift: Annotated[str | None, typer.Option("--shift", help='Move places of one tool: "T2 Z-0.25"')] = None,
    speed: Annotated[str | None, typer.Option("--speed", help='Change a speed of one tool: "T2 180 160"')] = None,
    dialect_name: LanguageOption = None,
    as_json: JsonOption = False,
) -> None:
    """Write a program anew without changing anything else: numbers, places of one tool, or a speed."""
    text = program_bytes_text(file)
    language, _ = language_of(text, dialect_name)
    changed, left = 0, []
    steps: list[Rewritten] = []
    if renumber is not None:
        steps.append(renumbered(text, language, renumber))
        text = steps[-1].text
    if shift is not None:
        match = re.fullmatch(r"\s*T?(\d+)\s+([XZ])\s*([+-]?\d*\.?\d+)\s*", shift, re.I)
        if match is None:
            raise ProgramError("--shift", "it is not understood", 'write it as "T2 Z-0.25"')
        steps.append(shifted(text, language, int(match[1]), match[2].upper(), float(match[3])))
        text = steps[-1].text
    if speed is not None:
        match = re.fullmatch(r"\s*T?(\d+)\s+(\d+\.?\d*)\s+(\d+\.?\d*)\s*", speed, re.I)
        if match is None:
            raise ProgramError("--speed", "it is not understood", 'write it as "T2 180 160"')
        steps.append(with_speed(text, language, int(match[1]), float(match[2]), float(match[3])))
        text = steps[-1].text
    changed, left = sum(one.changed for one in steps), [line for one in steps for line in one.left]
    try:
        write_atomically(output, text)
    except OSError as error:
        raise ProgramError(output.name, f"it cannot be written ({error.strerror})", "choose another folder") from None
    if as_json:
        print_json({"changed_lines": changed, "left_lines": left, "file": str(output)})
        return
    print(f"{changed} lines changed" + (f"; left as they are: lines {', '.join(map(str, left))}" if left else ""))
