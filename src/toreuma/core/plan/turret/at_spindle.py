"""Whether a tool comes to the spindle in hand at all: its carrier reaches it, and the tool faces it."""

import re
from collections.abc import Iterable

from toreuma.core.errors import JobError
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Carrier, Job, Operation, PartingTool, Tool
from toreuma.core.model.carrier import SpindleName
from toreuma.core.model.tool import BarPuller, BarStop, GroovingTool
from toreuma.core.plan.turret.stations import placed, shank_fault

__all__ = ["comes_to", "faces", "facing_other", "moved_to", "not_there", "points_at", "reaching", "serves"]

HANDED_CODE = re.compile(r"\b([A-Z]{4})([RL])(?=\s?\d)")
"""A holder's code up to its hand (ISO 5608, ISO 6261)."""


def reaching(job: Job) -> tuple[Carrier, ...]:
    """The carriers that reach the spindle in hand."""
    return tuple(one for one in job.machine.carriers if "main" in one.reaches)


def comes_to(job: Job, tool: Tool) -> bool:
    """The carrier the tool sits on reaches the spindle in hand."""
    return tool.station > job.machine.stations or "main" in job.machine.carrier_of(tool.station).reaches


def faces(job: Job, tool: Tool) -> bool:
    """The tool points toward the spindle in hand, to neither, or its carrier swings round."""
    if job.machine.second is None:
        return True
    return points_at(job.machine.carrier_of(tool.station), tool, job.setup.spindle)


def points_at(carrier: Carrier, tool: Tool, spindle: SpindleName) -> bool:
    """On this carrier the tool can point toward a spindle."""
    if spindle == tool.spindle or tool.mount == "radial" or carrier.kind == "milling spindle":
        return True
    return isinstance(tool, PartingTool) or (isinstance(tool, GroovingTool) and tool.where == "outside")


def serves(job: Job, tool: Tool) -> bool:
    """The tool can cut at the spindle in hand where it sits."""
    return comes_to(job, tool) and faces(job, tool)


def facing_other(tool: Tool) -> Tool:
    """The same cut at the other spindle: a tool of the other hand that faces the other way."""
    hand = "left" if tool.hand == "right" else "right"
    swapped = HANDED_CODE.sub(lambda m: m.group(1) + ("L" if m.group(2) == "R" else "R"), tool.name)
    return tool.changed(hand=hand, spindle="sub" if tool.spindle == "main" else "main", name=swapped)


def not_there(job: Job, operation: Operation, tools: Iterable[Tool]) -> Finding | None:
    """The error of an operation with a tool that does not come to the spindle in hand, with its cures."""
    for tool in tools:
        if isinstance(tool, BarStop | BarPuller) and comes_to(job, tool):
            continue
        if not comes_to(job, tool):
            carrier = job.machine.carrier_of(tool.station)
            what = f"{tool.id} sits on the {carrier.name}, which does not reach the {_name(job)} spindle"
            why = "another carrier has to bring it"
            return Finding("error", "tool.reach", what, why, operation=operation.id, cures=_cures(job, operation, tool))
        if not faces(job, tool):
            carrier = job.machine.carrier_of(tool.station)
            what = f"{tool.id} on the {carrier.name} faces away from the {_name(job)} spindle"
            why = f"a {carrier.kind} does not swing round: a milling spindle does, or a tool of the other hand"
            return Finding("error", "tool.faces", what, why, operation=operation.id, cures=_cures(job, operation, tool))
    return None


def moved_to(job: Job, tool_id: str, number: int, spindle: SpindleName) -> Job:
    """A tool in a free station of another carrier (counted from 0), for a spindle as ``job.machine`` names it.

    Raises `JobError` where it cannot work there.
    """
    tool, carrier = job.tool(tool_id), job.machine.carriers[number]
    if tool is None:
        raise JobError("carrier", f"there is no tool '{tool_id}' in the job", "choose one that is there")
    if job.machine.carrier_of(tool.station) is carrier:
        return job
    where = f"{tool_id} on the {carrier.name}"
    if spindle not in carrier.reaches:
        raise JobError(where, "it does not reach that spindle", "keep the tool where it is")
    if tool.mount != "still" and carrier.live is None:
        raise JobError(where, "it drives no tools", "keep the tool where it is")
    faced: SpindleName = job.setup.spindle if spindle == "main" else "sub"
    if not points_at(carrier, tool, faced):
        raise JobError(where, "the tool would face away from the spindle", "put one of the other hand there")
    free = _free(job, carrier)
    if free is None:
        raise JobError(where, "no station is free", "take a tool out there first")
    seated = tool.changed(station=free)
    fault = shank_fault(seated, job.machine)
    if fault:
        raise JobError(where, fault, "keep the tool where it is")
    return placed(job, tool_id, free)


def _name(job: Job) -> str:
    return "second" if job.setup.spindle == "sub" else "main"


def _cures(job: Job, operation: Operation, tool: Tool) -> tuple[Cure, ...]:
    """The tool itself where a carrier swings round, else one of the other hand beside it."""
    found: list[Cure] = []
    for carrier in reaching(job):
        free = _free(job, carrier)
        if free is None or (tool.mount != "still" and carrier.live is None):
            continue
        if carrier.kind == "milling spindle" or tool.spindle == job.setup.spindle:
            label = f"{tool.id} to station {free}, {carrier.name}"
            found.append(Cure(label, lambda j, n=free: placed(j, tool.id, n)))  # type: ignore[misc]
        else:
            label = f"One that faces it in station {free}, {carrier.name}"
            found.append(Cure(label, lambda j, n=free: _with_other(j, operation.id, tool, n)))  # type: ignore[misc]
    return tuple(found)


def _free(job: Job, carrier: Carrier) -> int | None:
    taken = {tool.station for tool in job.tools}
    return next((number for number in job.machine.stations_of(carrier) if number not in taken), None)


def _with_other(job: Job, operation: str, tool: Tool, station: int) -> Job:
    """The operation with a tool of the other hand in a free station."""
    taken = {one.id for one in job.tools}
    name = next(text for text in (f"T{station}", *(f"T{n}" for n in range(1, 1000))) if text not in taken)
    other = facing_other(tool).changed(id=name, station=station)

    def swap(one: Operation) -> Operation:
        fields = ("tool", "root_tool", "wall_tool")
        return one.changed(**{field: name for field in fields if getattr(one, field, None) == tool.id})

    return job.changed(tools=(*job.tools, other)).with_operation(operation, swap)
