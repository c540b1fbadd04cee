"""A machine that is set up anew for the second side: where its tools sit then, and a change of it in the whole job."""

import itertools

from toreuma.core.model import Job, Tool

__all__ = ["second_tools", "with_second"]


def second_tools(job: Job) -> tuple[Tool, ...]:
    """The tools of the second side where they sit then: set up anew, or as the job has them."""
    stations = dict(job.setups[1].stations)
    if not stations or job.hand_over is not None:
        return job.tools
    return tuple(tool.changed(station=stations[tool.id]) for tool in job.tools if tool.id in stations)


def with_second(whole: Job, side: Job) -> Job:
    """The job with the tools and the setup of its second side as they were changed there. Tools that sit on the first
    side only stay; a new one that took the name of one of those gets another."""
    if not whole.setups[1].stations or whole.hand_over is not None:
        return whole.changed(tools=side.tools, setups=(whole.setup, side.setup))
    sat = {name for name, _ in whole.setups[1].stations}
    shown = {tool.id: tool for tool in side.tools if tool.id in sat}
    first = {name for operation in whole.operations for name in operation.tools}
    tools = [
        shown[tool.id].changed(station=tool.station) if tool.id in shown else tool
        for tool in whole.tools
        if tool.id in shown or tool.id not in sat or tool.id in first
    ]
    taken = {tool.id for tool in (*tools, *side.tools)}
    beyond = itertools.count(max([whole.machine.stations, *(tool.station for tool in tools)]) + 1)
    names = {name: name for name in shown}
    for tool in side.tools:
        if tool.id in shown:
            continue
        clash = any(one.id == tool.id for one in tools)
        names[tool.id] = next(text for n in itertools.count(1) if (text := f"T{n}") not in taken) if clash else tool.id
        taken.add(names[tool.id])
        tools.append(tool.changed(id=names[tool.id], station=next(beyond)))
    setup = side.setup.changed(
        operations=tuple(one.with_tools(names) for one in side.setup.operations),
        stations=tuple((names[tool.id], tool.station) for tool in side.tools),
    )
    return whole.changed(tools=tuple(tools), setups=(whole.setup, setup))
