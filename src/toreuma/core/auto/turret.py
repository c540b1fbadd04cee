"""Which station each tool sits in: apart from its neighbours as far as the turret has room."""

from collections.abc import Mapping, Sequence

from toreuma.core.model import Job, Tool

__all__ = ["seated"]


def seated(job: Job, names: Sequence[str], tools: Mapping[str, Tool], known: Mapping[str, Tool]) -> dict[str, Tool]:
    """Tools by name with station and id, evenly spread over what is free; ``known`` ones stay where they sit.

    Where there are more tools than stations, the last ones get numbers past the turret's end, and planning says so.
    """
    placed = {name: known[name] for name in names if name in known}
    fresh = [name for name in names if name not in known]
    taken = {tool.station for tool in known.values()}
    free = [station for station in range(1, job.machine.stations + 1) if station not in taken]
    apart = max(1, len(free) // max(len(fresh), 1))
    chosen = free[::apart][: len(fresh)]
    beyond = max([job.machine.stations, *taken]) + 1
    chosen += range(beyond, beyond + len(fresh) - len(chosen))
    for name, station in zip(fresh, chosen, strict=True):
        placed[name] = tools[name].changed(id=f"T{station}", station=station)
    return placed
