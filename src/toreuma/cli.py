"""The command line. Errors are one line on stderr: ``toreuma: WHERE: WHAT; HOW TO FIX``.

Exit status: 0 all well, 1 findings at level error, 2 bad input. A command loads what it needs and nothing else.
"""

import os
import sys
from importlib import import_module
from typing import Annotated, Any

import typer
from typer.core import TyperGroup

from toreuma.core.errors import ToreumaError

__all__ = ["ROOM_OF", "app", "main"]

ROOMS = {
    "window": ("open", "demo", "shot", "thumbnail"),
    "planning": ("describe", "plan", "post", "schema"),
    "proving": ("prove",),
    "papers": ("sheet",),
    "logging": ("log",),
    "simulating": ("simulate",),
    "reading": ("read",),
    "rewriting": ("compare", "rewrite"),
    "checking": ("check",),
    "routing": ("auto",),
    "exchange": ("import", "export", "second-end"),
    "beginning": ("new", "line"),
    "shop": ("shop",),
    "help": ("help",),
    "materials": ("material", "prove-out"),
    "standards": ("decode", "thread", "fit"),
}
"""Which module of `toreuma.commands` knows which command."""

ROOM_OF = {command: room for room, commands in ROOMS.items() for command in commands}


class _Commands(TyperGroup):
    """Commands whose module is loaded when they are asked for."""

    def list_commands(self, ctx: Any) -> list[str]:
        return list(ROOM_OF)

    def get_command(self, ctx: Any, name: str) -> Any:
        if name not in ROOM_OF:
            return None
        room = typer.Typer()
        import_module(f"toreuma.commands.{ROOM_OF[name]}").register(room)
        return typer.main.get_group(room).commands[name]


app = typer.Typer(
    cls=_Commands,
    add_completion=False,
    pretty_exceptions_enable=False,
    help="Plan turned parts, and prove every program.",
)


@app.callback(invoke_without_command=True)
def _start(
    context: typer.Context,
    version: Annotated[bool, typer.Option("--version", help="Print versions, of what it rests on too")] = False,
) -> None:
    if version:
        print(import_module("toreuma.engine.rests_on").version_text())
        raise typer.Exit
    if context.invoked_subcommand is None:
        import_module("toreuma.commands.window").show_window(None)


def main() -> None:
    """Run the command line and exit with its status."""
    try:
        status = app(standalone_mode=False)
    except ToreumaError as error:
        print(f"toreuma: {error}", file=sys.stderr)
        sys.exit(2)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        sys.exit(0)
    except KeyboardInterrupt:
        sys.exit(130)
    except Exception as error:
        message = getattr(error, "format_message", None)
        if message is None:
            raise
        print(f"toreuma: command line: {message()}; see toreuma --help", file=sys.stderr)
        sys.exit(2)
    sys.exit(status if isinstance(status, int) else 0)
