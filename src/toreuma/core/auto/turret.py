"""Which station each tool sits in, apart from its neighbours as far as there is room."""

import itertools
from collections.abc import Mapping, Sequence

from toreuma.core.model import Job, Tool
from toreuma.core.plan.turret.at_spindle import faces, facing_other, reaching

__all__ = ["seated", "set_up_anew"]


def seated(
    job: Job, names: Sequence[str], tools: Mapping[str, Tool], known: Mapping[str, Tool], needed: Sequence[str]
) -> dict[str, Tool]:
    """Tools by name with station and id, evenly spread over what is free on carriers that reach the spindle in hand;
    ``known`` ones stay where they sit, and none of the job's tools loses its station.

    ``needed`` are the names again, the most needed first: where there are more tools than stations, the last of them
    get numbers past the turret's end, and planning says so. A tool that would face away from the spindle is taken of
    the other hand.
    """
    placed = {name: known[name] for name in names if name in known}
    fresh = [name for name in names if name not in known]
    taken = {tool.station for tool in (*known.values(), *job.tools)}
    there = [station for carrier in reaching(job) for station in job.machine.stations_of(carrier)]
    free = [station for station in sorted(there) if station not in taken]
    kept = [name for name in needed if name in fresh][: len(free)]
    fresh.sort(key=lambda name: name not in kept)
    apart = max(1, len(free) // max(len(fresh), 1))
    chosen = free[::apart][: len(fresh)]
    beyond = max([job.machine.stations, *taken]) + 1
    chosen += range(beyond, beyond + len(fresh) - len(chosen))
    named = {tool.id for tool in (*known.values(), *job.tools)}
    for name, station in zip(fresh, chosen, strict=True):
        # A tool that was moved keeps its name: another one in its old place gets one that nobody has.
        numbers = itertools.chain((station,), itertools.count(1))
        free_name = next(text for n in numbers if (text := f"T{n}") not in named)
        named.add(free_name)
        tool = tools[name].changed(id=free_name, station=station)
        placed[name] = tool if faces(job, tool) else facing_other(tool)
    return placed


def set_up_anew(whole: Job, first: Job, second: Job) -> Job:
    """Both sides as one job, the machine set up anew for the second: a tool of both keeps its name, the others get one
    that nobody has and a number past the turret's end, for they sit nowhere while the first side is cut."""
    same = {tool.name: tool.id for tool in first.tools}
    taken, beyond = {tool.id for tool in first.tools}, itertools.count(whole.machine.stations + 1)
    ids: dict[str, str] = {}
    more: list[Tool] = []
    for tool in second.tools:
        ids[tool.id] = same.get(tool.name) or next(text for n in itertools.count(1) if (text := f"T{n}") not in taken)
        if ids[tool.id] not in taken:
            taken.add(ids[tool.id])
            more.append(tool.changed(id=ids[tool.id], station=next(beyond)))
    operations = tuple(one.with_tools(ids) for one in second.operations)
    stations = tuple((ids[tool.id], tool.station) for tool in second.tools)
    setup = second.setup.changed(operations=operations, stations=stations)
    return whole.changed(tools=(*first.tools, *more), setups=(first.setup, setup))
