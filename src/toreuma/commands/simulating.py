"""``simulate``: a stand-in for a device, in this terminal, until its input ends."""

from importlib import import_module
from typing import Annotated

import typer

from toreuma.core.errors import JobError
from toreuma.devices.simulated.started import NAMES
from toreuma.engine.day import machine_settings
from toreuma.engine.engine import Engine
from toreuma.engine.library import open_job

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("simulate")(simulate)


def simulate(
    name: Annotated[str, typer.Argument(metavar="NAME", help=f"One of {', '.join(NAMES)}")],
    job: Annotated[str, typer.Option("--job", help="Job whose proved program the machine follows")] = "demo:spear",
    speed: Annotated[float, typer.Option("--speed", help="Seconds of the machine in one of ours")] = 1.0,
) -> None:
    """Run a simulated device. Its first line is its address; lines typed here tell it what to do (see docs)."""
    if name not in NAMES:
        raise JobError("simulate", f"there is no device '{name}'", f"choose from {', '.join(NAMES)}")
    settings = {}
    if name == "machine":
        loaded, engine = open_job(job), Engine()
        outcome = engine.follow(loaded)
        program = outcome.written.name if outcome.written is not None else loaded.name
        settings = machine_settings(outcome.timeline, program, loaded.stock.supply.batch, loaded, speed)
    import_module(f"toreuma.devices.simulated.{name}").run(**settings)
