"""What the demo jobs are made with: elements of a profile, holds, whole jobs, tools of the catalogue."""

from typing import Any

from toreuma.core.model import Job, Operation
from toreuma.core.standards.fits import tolerance_of
from toreuma.shipped.library import catalogue, holds, machines, materials
from toreuma.shipped.paths import data_path
from toreuma.shipped.standards import fit_tables

INCH = 25.4
DEMO = data_path("demo")


def line(
    z: float, d: float, name: str = "", fit: str = "", ra: float | None = None, corner: str = ""
) -> dict[str, Any]:
    """An element; ``corner`` like C1 or R0.5."""
    found: dict[str, Any] = {"z_mm": z, "d_mm": d, "name": name}
    if fit:
        limits = tolerance_of(d, fit, fit_tables())
        found["size"] = {"fit": fit, "lower_um": limits.lower_um, "upper_um": limits.upper_um}
    if ra:
        found["ra_um"] = ra
    if corner:
        found["corner"] = {"kind": "chamfer" if corner[0] == "C" else "round", "size_mm": float(corner[1:])}
    return found


def hold(name: str, **changes: Any) -> dict[str, Any]:
    found = next(one for one in holds() if one.name == name)
    return found.changed(**changes).model_dump()


def job(
    name: str, machine: str, part: Any, stock: dict[str, Any], material: str, setup: dict[str, Any], **more: Any
) -> Job:
    return Job.model_validate(
        {
            "name": name,
            "part": part,
            "stock": {**stock, "material": materials()[material]},
            "machine": machines()[machine],
            "setups": [setup],
            **more,
        }
    )


def tool(job: Job, name: str) -> Any:
    """A whole tool of the catalogue in the first free station."""
    taken = {one.station for one in job.tools}
    station = next(number for number in range(1, job.machine.stations + 1) if number not in taken)
    found = next(one for one in catalogue().tools if one.name == name)
    return found.changed(id=f"T{station}", station=station)


def with_tool(job: Job, name: str) -> tuple[Job, str]:
    """The job with one more tool of the catalogue, and the tool's id."""
    found = tool(job, name)
    return job.changed(tools=(*job.tools, found)), found.id


def used_only(job: Job) -> Job:
    """Without tools that no operation takes."""
    used = {one for setup in job.setups for operation in setup.operations for one in operation.tools}
    return job.changed(tools=tuple(one for one in job.tools if one.id in used))


def edited(job: Job, identifier: str, side: int = 0, **changes: Any) -> Job:
    """One operation of a side with other fields."""

    def change(operation: Operation) -> Operation:
        return operation.changed(**changes) if operation.id == identifier else operation

    setup = job.setups[side]
    setup = setup.changed(operations=tuple(change(one) for one in setup.operations))
    return job.changed(setups=(*job.setups[:side], setup, *job.setups[side + 1 :]))


def one_of(job: Job, kind: str, side: int = 0, nth: int = 0) -> Operation:
    """The operation of a kind on a side, counted from 0."""
    return [one for one in job.setups[side].operations if one.kind == kind][nth]
