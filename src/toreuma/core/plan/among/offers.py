"""Cures in which other tools of the job help."""

from collections.abc import Callable

from toreuma.core.findings import Cure
from toreuma.core.model import Job, MillSlot, Operation, RoughOd, Slot, Tool
from toreuma.core.model.tool import Drill, EndMill

__all__ = ["OFFERS"]


def drilled_first(job: Job, operation: Operation) -> tuple[Cure, ...]:
    """Let a drill of the job that suits make the hole a mill goes down in."""
    mill = job.tool(operation.tool)
    if not isinstance(operation, MillSlot) or not isinstance(mill, EndMill):
        return ()
    feature = job.part.features[operation.feature]
    if not isinstance(feature, Slot):
        return ()
    most = feature.width_mm - 2 * operation.leave_mm
    there = [one for one in job.tools if _suits(one, mill, most)]
    if not there:
        return ()
    best = max(there, key=lambda one: getattr(one, "d_mm", 0.0))
    return (Cure(f"Drill a start hole with {best.id}", lambda j: _with(j, operation.id, best.id)),)


def _suits(tool: Tool, mill: EndMill, most: float) -> bool:
    driven = isinstance(tool, Drill) and tool.mount == mill.mount and tool.form not in ("spot", "centre")
    return driven and mill.d_mm / 2 <= getattr(tool, "d_mm", 0.0) <= most


def _with(job: Job, operation: str, drill: str) -> Job:
    return job.with_operation(operation, lambda op: op.changed(start_tool=drill))


def second_of_a_couple(job: Job, operation: Operation) -> tuple[Cure, ...]:
    """Another tool like the first one on a carrier of the other side."""
    first = job.tool(operation.tool)
    if not isinstance(operation, RoughOd) or first is None:
        return ()
    own = job.machine.carrier_of(first.station)
    taken = {tool.station for tool in job.tools}
    found = []
    for carrier in job.machine.carriers:
        free = next((n for n in job.machine.stations_of(carrier) if n not in taken), None)
        if carrier.channel == own.channel or carrier.side == own.side or "main" not in carrier.reaches or free is None:
            continue
        label = f"A second {first.name or first.id} in station {free}, {carrier.name}"
        found.append(Cure(label, lambda j, n=free: _seated(j, operation, first, n)))  # type: ignore[misc]
    return tuple(found)


def _seated(job: Job, operation: RoughOd, first: Tool, station: int) -> Job:
    taken = {one.id for one in job.tools}
    name = next(text for text in (f"T{station}", *(f"T{n}" for n in range(1, 1000))) if text not in taken)
    job = job.changed(tools=(*job.tools, first.changed(id=name, station=station)))
    return job.with_operation(operation.id, lambda op: op.changed(pinch_tool=name))


OFFERS: dict[str, Callable[[Job, Operation], tuple[Cure, ...]]] = {
    "mill.start": drilled_first,
    "pinch.shape": second_of_a_couple,
}
"""By the code of the finding they mend."""
