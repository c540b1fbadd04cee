"""Which station each tool sits in: apart from its neighbours as far as the turret has room."""

from collections.abc import Sequence

from toreuma.core.model import Job, Tool

__all__ = ["seated"]


def seated(job: Job, tools: Sequence[Tool]) -> dict[str, Tool]:
    """Tools by name with station and id, evenly spread. Those that do not fit share the last stations' numbers on."""
    apart = max(1, job.machine.stations // max(len(tools), 1))
    placed = {}
    for index, tool in enumerate(tools):
        station = 1 + index * apart
        placed[tool.name] = tool.changed(id=f"T{station}", station=station)
    return placed
