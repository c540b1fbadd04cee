"""``open``, ``demo``, ``shot`` and ``thumbnail``: the window, and pictures of it and of jobs."""

import os
from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument
from toreuma.core.errors import JobError
from toreuma.engine.library import open_job

__all__ = ["register", "show_window"]


def register(app: typer.Typer) -> None:
    app.command("open")(open_command)
    app.command("demo")(demo)
    app.command("shot")(shot)
    app.command("thumbnail")(thumbnail)


def open_command(job: Annotated[str | None, typer.Argument(metavar="[JOB]")] = None) -> None:
    """Open the window, with a job when one is named."""
    show_window(job)


def demo(name: Annotated[str, typer.Argument(metavar="[NAME]")] = "spear") -> None:
    """Open the window with a demo job; ``day`` runs a batch at a simulated machine first and shows its log."""
    if name == "day":
        _day()
        if not has_screen():
            return
        show_window("demo:spear", "log")
    show_window(f"demo:{name}")


def _day() -> None:
    """A batch of 85 with gauge, presetter, machine agent and bar feeder, told as it goes."""
    from toreuma.engine.day import run_day
    from toreuma.log import open_store

    print("a batch of 85 at a simulated machine: nothing of it is real but the arithmetic")
    report = run_day(open_store(), open_job("demo:spear"), speed=1500.0, tell=lambda words: print(f"  {words}"))
    print("\n".join(report.words()))


def has_screen() -> bool:
    return any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"))


def show_window(job: str | None, stage: str = "") -> None:
    loaded = open_job(job) if job else None
    path = Path(job) if job and not job.startswith("demo:") else None
    if not has_screen():
        raise JobError(
            "screen", "no display was found", "for a picture use: toreuma shot demo:spear operations out.png"
        )
    from toreuma.app.shell.start import run

    raise typer.Exit(run(loaded, path, stage))


def shot(
    job: JobArgument,
    stage: Annotated[str, typer.Argument(metavar="STAGE", help="first, or a stage")],
    file: Annotated[Path, typer.Argument(metavar="FILE")],
    size: Annotated[str, typer.Option("--size", help="Width x height")] = "1280x800",
    theme: Annotated[str, typer.Option("--theme", help="light or dark")] = "light",
    select: Annotated[str | None, typer.Option("--select", help="Operation to select")] = None,
    at: Annotated[float | None, typer.Option("--at", help="Time of the cursor, s")] = None,
    read: Annotated[Path | None, typer.Option("--read", help="A drawing or model being looked at")] = None,
    wish: Annotated[str | None, typer.Option("--wish", help="What asks for a tool, a bench page, table")] = None,
    side: Annotated[int, typer.Option("--side", help="Side of the part, 1 or 2")] = 1,
    page: Annotated[str | None, typer.Option("--page", help="A page of help to open beside it")] = None,
) -> None:
    """Make a picture of a stage, without a screen."""
    loaded = open_job(job)
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from toreuma.app.shell.shot import take_shot

    take_shot(
        loaded, stage, file, size=size, theme=theme, select=select, at_s=at, read=read, wish=wish, side=side, page=page
    )
    print(file)


def thumbnail(
    job: JobArgument,
    file: Annotated[Path, typer.Argument(metavar="FILE", help="The PNG to write")],
    size: Annotated[int, typer.Option("--size", help="Pixels of its longer side", min=16, max=1024)] = 256,
) -> None:
    """Make a small picture of a job's part, for folders."""
    loaded = open_job(job)
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from toreuma.app.picture.thumbnail import write_thumbnail

    write_thumbnail(loaded, file, size)
