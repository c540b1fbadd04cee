"""Which tool sits in which station, so that none stands in metal or jaws while another one cuts."""

import itertools
from collections.abc import Iterable, Mapping, Sequence

import shapely

from toreuma.core.findings import Cure
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job, Tool
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.reach.beside import stands_beside
from toreuma.core.scene import Scene

__all__ = ["arranged", "deepest", "meets", "seated_anew"]

TOUCH_MM2 = 0.05
MOST_TRIES = 50_000
"""Orders that do it are found long before; looking for more is in vain."""

Met = tuple[float, float, float]
Place = tuple[float, float]


def deepest(planned: OperationPlan) -> list[Place]:
    """Where an operation comes so near to the axis and to the hold that it is nowhere nearer to both."""
    ends = sorted({motion.segment.end for motion in planned.motions if not motion.event})
    found: list[Place] = []
    for z, r in ends:
        if not found or r < found[-1][1] - 1e-6:
            found.append((z, r))
    return found


def meets(job: Job, scene: Scene, stock: Region, tool: Tool, beside: Tool, places: Iterable[Place]) -> Met | None:
    """Place and depth where the tool beside would stand in metal or in the hold: (z, r, mm)."""
    carrier = job.machine.carrier_of(tool.station)
    for z, r in places:
        body = stands_beside(carrier, tool, beside, z, r)
        for solid in (stock, scene.jaws, scene.chuck, scene.steady):
            met = solid.intersection(body) if shapely.intersects(solid, body) else None
            if met is not None and met.area > TOUCH_MM2:
                low = met.bounds
                return (low[0] + low[2]) / 2, low[3], float(low[3] - max(body.bounds[1], low[1]))
    return None


def seated_anew(job: Job, scene: Scene, operations: Iterable[OperationPlan]) -> Cure | None:
    """The tools of this side in other stations, so that none is in the way; None where there is no such order.

    Tools that work at the other side only, and those of other carriers, stay where they are.
    """
    bad: set[tuple[str, str]] = set()
    used: set[str] = set()
    for planned in operations:
        tool, places = job.tool(planned.operation.tool), deepest(planned)
        used |= set(planned.operation.tools)
        if tool is None or not places:
            continue
        for beside in job.tools:
            alone = beside.id == tool.id or not _together(job, tool, beside)
            if not alone and meets(job, scene, planned.before, tool, beside, places) is not None:
                bad |= {(tool.id, beside.id), (beside.id, tool.id)}
    seats = {tool.id: tool.station for tool in job.tools}
    for carrier in job.machine.carriers:
        numbers = job.machine.stations_of(carrier)
        mine = [tool.id for tool in job.tools if tool.station in numbers]
        moved = arranged(numbers, carrier.kind != "gang plate", {one: seats[one] for one in mine}, used, bad)
        if moved is None:
            return None
        seats |= moved
    changed = {tool.id: seats[tool.id] for tool in job.tools if seats[tool.id] != tool.station}
    if not changed:
        return None

    def apply(job: Job) -> Job:
        return job.changed(tools=tuple(one.changed(station=seats.get(one.id, one.station)) for one in job.tools))

    words = ", ".join(f"{one} to {station}" for one, station in sorted(changed.items(), key=lambda item: item[1]))
    return Cure(f"Seat the tools anew: {words}", apply)


def _together(job: Job, tool: Tool, other: Tool) -> bool:
    return job.machine.carrier_of(tool.station) is job.machine.carrier_of(other.station)


def arranged(
    numbers: Sequence[int], ring: bool, sitting: Mapping[str, int], used: set[str], bad: set[tuple[str, str]]
) -> dict[str, int] | None:
    """A station for every tool of a carrier with no bad pair side by side, on a ``ring`` the first beside the last too;
    only ``used`` ones leave theirs, and as few as will do. None where there is no such order."""
    movable, tries = [one for one in sitting if one in used], itertools.count()
    for count in range(len(movable) + 1):
        for moved in itertools.combinations(movable, count):
            found = _seated(numbers, ring, sitting, moved, bad, tries)
            if found is not None:
                return found
    return None


def _seated(
    numbers: Sequence[int], ring: bool, sitting: Mapping[str, int], moved: Sequence[str], bad: set[tuple[str, str]],
    tries: "itertools.count[int]",
) -> dict[str, int] | None:  # fmt: skip
    """The first seats there are with all but ``moved`` ones where they sit."""
    found = {numbers.index(station): one for one, station in sitting.items() if one not in moved}

    def fits(one: str, at: int) -> bool:
        places = ((at + step) % len(numbers) if ring else at + step for step in (-1, 1))
        return not any((found.get(place, ""), one) in bad for place in places)

    def seat(index: int) -> bool:
        if index == len(moved):
            return True
        if next(tries) > MOST_TRIES:
            return False
        for at in range(len(numbers)):
            if at not in found and fits(moved[index], at):
                found[at] = moved[index]
                if seat(index + 1):
                    return True
                del found[at]
        return False

    if not all(fits(one, at) for at, one in found.items()):
        return None
    return {one: numbers[at] for at, one in found.items()} if seat(0) else None
