"""``shop``: the person's own machines, holds, materials, tools, bars and house rules."""

import json
from pathlib import Path
from typing import Annotated, Any

import typer

from toreuma.commands.common import JsonOption, print_json
from toreuma.core.errors import JobError
from toreuma.engine.library import drop_entry, library, renew
from toreuma.engine.shop import by_likeness, every, exported, taken_in
from toreuma.files.shop import FOLDERS, shop_folder
from toreuma.files.writing import write_atomically

__all__ = ["register"]

KindArgument = Annotated[str, typer.Argument(metavar="KIND", help=", ".join(FOLDERS))]
NameArgument = Annotated[str, typer.Argument(metavar="NAME")]


def register(app: typer.Typer) -> None:
    """Add the commands."""
    shop = typer.Typer(help="Your own machines, holds, materials, tools, bars and house rules.")
    for name, command in (
        ("list", list_command),
        ("show", show_command),
        ("new", new_command),
        ("remove", remove_command),
        ("export", export_command),
        ("import", import_command),
    ):
        shop.command(name)(command)
    app.add_typer(shop, name="shop")


def list_command(
    kind: Annotated[str | None, typer.Argument(metavar="[KIND]")] = None, as_json: JsonOption = False
) -> None:
    """What the shop has: own entries first, then those that ship."""
    kinds = [_kind(kind)] if kind else list(FOLDERS)
    found = {one: [(name, own) for name, own in every(one)] for one in kinds}
    problems = [str(problem) for problem in library().shop.problems]
    if as_json:
        rows = {one: [{"name": name, "own": own} for name, own in names] for one, names in found.items()}
        print_json({"folder": str(shop_folder()), "entries": rows, "problems": problems})
        return
    for one, names in found.items():
        print(one)
        for name, own in names:
            print(f"  {name}{'   own' if own else ''}")
    for problem in problems:
        typer.echo(f"toreuma: {problem}", err=True)


def show_command(kind: KindArgument, name: NameArgument, as_json: JsonOption = False) -> None:
    """An entry as it lies in the shop."""
    print(exported(_kind(kind), name), end="")


def new_command(
    kind: KindArgument,
    name: NameArgument,
    like: Annotated[str, typer.Option("--like", help="The entry it begins as, own or shipped")] = "",
    change: Annotated[list[str] | None, typer.Option("--set", help="field=value, as max_rpm=3000; repeatable")] = None,
    source: Annotated[str, typer.Option("--source", help="Where its values come from")] = "own",
    as_json: JsonOption = False,
) -> None:
    """Put a new entry into the shop, like another one with what is known typed over."""
    entry = by_likeness(_kind(kind), name, like, [_assignment(one) for one in change or ()], source)
    renew()
    if as_json:
        print_json({"kind": entry.kind, "name": entry.name, "value": entry.value.model_dump(mode="json")})
    else:
        print(f"{entry.kind} {entry.name}")


def remove_command(kind: KindArgument, name: NameArgument) -> None:
    """Take an own entry out of the shop; its file stays beside it, with ``~`` after its name."""
    drop_entry(_kind(kind), name)
    print(f"removed: {kind} {name}")


def export_command(
    output: Annotated[Path, typer.Option("-o", "--output", metavar="FILE", help="File to write")],
    kind: Annotated[str | None, typer.Argument(metavar="[KIND]")] = None,
    name: Annotated[str | None, typer.Argument(metavar="[NAME]")] = None,
) -> None:
    """Write one entry, all of a kind, or the whole shop to a file."""
    text = exported(_kind(kind) if kind else None, name)
    try:
        write_atomically(output, text)
    except OSError as error:
        raise JobError(str(output), f"it cannot be written ({error.strerror})", "choose another place") from None
    print(output)


def import_command(
    file: Annotated[Path, typer.Argument(metavar="FILE", help="Entries another shop wrote")],
    as_json: JsonOption = False,
) -> None:
    """Take entries of a file into the shop; what cannot be used is named and left out."""
    names, problems = taken_in(file)
    if as_json:
        print_json({"taken": names, "problems": [str(one) for one in problems]})
    else:
        for one in names:
            print(one)
        for problem in problems:
            typer.echo(f"toreuma: {problem}", err=True)
    if problems and not names:
        raise typer.Exit(2)


def _kind(text: str) -> str:
    singular = {folder: kind for kind, folder in FOLDERS.items()}
    found = singular.get(text.lower(), text.lower())
    if found not in FOLDERS:
        raise JobError(f"shop {text}", "there is no such kind of entry", f"choose from {', '.join(FOLDERS)}")
    return found


def _assignment(text: str) -> tuple[str, Any]:
    """``field=value`` with the value as JSON, or as plain words."""
    field, equals, value = text.partition("=")
    if not equals:
        raise JobError("--set", f"'{text}' is no field=value", "write for example max_rpm=3000")
    try:
        return field.strip(), json.loads(value)
    except ValueError:
        return field.strip(), value.strip() or None
