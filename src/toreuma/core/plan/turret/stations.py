"""Stations of the turret or gang plate: who sits where, what to set at the machine, and neighbours in the way."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, Machine, Tool
from toreuma.core.model.tool import Drill, Mill, Reamer, Tap
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.turret.seating import deepest, meets, seated_anew
from toreuma.core.reach.beside import beside_of, sizes_of
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = [
    "Offset",
    "bushing",
    "free_station",
    "neighbours",
    "nose_number",
    "offsets",
    "placed",
    "shank_fault",
    "station_words",
    "turned_to",
    "with_tool",
]


@dataclass(frozen=True, kw_only=True)
class Offset:
    """What is set for one tool: from the face and side of its station to the tip, or against the master tool.

    ``x_mm`` counts on diameter, ``z_mm`` along Z; ``nose`` is the number of the tip's direction on controls.
    """

    station: int
    tool: Tool
    x_mm: float
    z_mm: float
    nose_radius_mm: float
    nose: int


def nose_number(shape: ToolShape) -> int:
    """Direction from the nose centre to the programmed point as most controls number it: 3 is toward chuck and axis."""
    z, r = (0 if abs(v) < 1e-9 else 1 if v > 0 else -1 for v in shape.tip)
    return {(1, 1): 1, (-1, 1): 2, (-1, -1): 3, (1, -1): 4, (1, 0): 5, (0, 1): 6, (-1, 0): 7, (0, -1): 8}.get((z, r), 9)


def offsets(job: Job, master: str | None = None) -> tuple[Offset, ...]:
    """Sizes to set for every tool of the job by station; with ``master``, each against that tool."""
    rows = [_offset(tool) for tool in sorted(job.tools, key=lambda tool: tool.station)]
    base = next((row for row in rows if row.tool.id == master), None)
    if base is None:
        return tuple(rows)
    return tuple(
        Offset(
            station=r.station,
            tool=r.tool,
            x_mm=r.x_mm - base.x_mm,
            z_mm=r.z_mm - base.z_mm,
            nose_radius_mm=r.nose_radius_mm,
            nose=r.nose,
        )
        for r in rows
    )


def _offset(tool: Tool) -> Offset:
    shape = shape_of(tool)
    along, across = sizes_of(tool)
    radius = shape.nose_radius
    number = 7 if isinstance(tool, Drill | Reamer | Tap | Mill) else nose_number(shape)
    return Offset(station=tool.station, tool=tool, x_mm=2 * across, z_mm=along, nose_radius_mm=radius, nose=number)


def free_station(job: Job) -> int | None:
    """The lowest station nothing sits in; None when the carrier is full."""
    taken = {tool.station for tool in job.tools}
    return next((n for n in range(1, job.machine.stations + 1) if n not in taken), None)


def with_tool(job: Job, tool: Tool, station: int) -> tuple[Job, str]:
    """The job with a tool added in a station, and the id it got; a tool already there stays in the job elsewhere."""
    taken = {one.id for one in job.tools}
    number = next(n for n in range(1, 10_000) if f"T{n}" not in taken)
    name = f"T{station}" if f"T{station}" not in taken else f"T{number}"
    return job.changed(tools=(*job.tools, tool.changed(id=name, station=station))), name


def placed(job: Job, tool_id: str, station: int) -> Job:
    """A tool moved to a station; whoever sits there takes its old place."""
    old = next(tool.station for tool in job.tools if tool.id == tool_id)

    def move(tool: Tool) -> Tool:
        if tool.id == tool_id:
            return tool.changed(station=station)
        return tool.changed(station=old) if tool.station == station else tool

    return job.changed(tools=tuple(move(tool) for tool in job.tools))


def shank_fault(tool: Tool, machine: Machine) -> str:
    """Why a tool does not go into a station; empty when it does."""
    holder, bar, takes = getattr(tool, "holder", None), getattr(tool, "bar", None), machine.carrier_of(tool.station)
    if holder is not None:
        height = holder.shank_height_mm or holder.shank_width_mm
        if height > takes.shank_mm + 0.5:
            return said("shank {}, the station takes {}", q(height, "mm", "g"), q(takes.shank_mm, "mm", "g"))
    across = bar.diameter_mm if bar is not None else getattr(tool, "shank_d_mm", 0.0)
    return (
        said("shank Ø {}, the station takes {}", q(across, "mm", "g"), q(takes.bar_mm, "mm", "g"))
        if across > takes.bar_mm + 0.5
        else ""
    )


def bushing(tool: Tool, machine: Machine) -> str:
    """The bushing a round shank needs in its station; empty for square shanks and those that fit as they are."""
    bar = getattr(tool, "bar", None)
    across = bar.diameter_mm if bar is not None else getattr(tool, "shank_d_mm", 0.0)
    takes = machine.carrier_of(tool.station).bar_mm
    if across <= 0 or abs(across - takes) < 0.1 or across > takes:
        return ""
    return said("bushing Ø {} to Ø {}", q(takes, "mm", "g", bare=True), q(across, "mm", "g"))


def station_words(station: int, machine: Machine) -> str:
    """What a station is on, where a machine has more than one carrier."""
    return machine.carrier_of(station).name if len(machine.carriers) > 1 else ""


def turned_to(job: Job, tool_id: str) -> Job:
    """A tool set to work at the other spindle."""

    def turn(tool: Tool) -> Tool:
        return tool.changed(spindle="main" if tool.spindle == "sub" else "sub") if tool.id == tool_id else tool

    return job.changed(tools=tuple(turn(tool) for tool in job.tools))


def neighbours(job: Job, scene: Scene, operations: Iterable[OperationPlan]) -> Iterator[Finding]:
    """Tools beside the one that cuts, against the blank and what holds it, at the deepest places of every operation."""
    seats: Cure | None = None
    for planned in operations:
        tool, places = job.tool(planned.operation.tool), deepest(planned)
        if tool is None or not places:
            continue
        for beside in beside_of(job, tool):
            met = meets(job, scene, planned.before, tool, beside, places)
            if met is not None:
                seats = seats or seated_anew(job, scene, operations)
                yield _in_the_way(job, planned.operation.id, tool, beside, met, seats)


def _in_the_way(
    job: Job, operation: str, tool: Tool, beside: Tool, met: tuple[float, float, float], seats: Cure | None
) -> Finding:
    free = free_station(job)

    def move(job: Job) -> Job:
        return placed(job, beside.id, free) if free is not None else job

    return Finding(
        "error",
        "station.neighbour",
        said(
            "{} in station {} would stand {} in metal or jaws while {} cuts",
            beside.id,
            beside.station,
            q(met[2], "mm", ".1f"),
            tool.id,
        ),
        "the neighbour comes down with the tool",
        operation=operation,
        at=(met[0], met[1]),
        cures=(seats,) if seats else (Cure(f"Move {beside.id} to station {free}", move),) if free is not None else (),
    )
