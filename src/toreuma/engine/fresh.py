"""A job for a part that has none yet, on the machine and of the material it is wanted, with the shop's rules."""

from toreuma.core.errors import JobError
from toreuma.core.geometry.elements import chords
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.line import Fault
from toreuma.core.model import Job, Machine, Material, Part
from toreuma.core.units import System
from toreuma.engine.library import library
from toreuma.engine.line import said
from toreuma.engine.proposals import FOLLOWED, next_bar_mm, proposed
from toreuma.shipped.library import starters

__all__ = [
    "STARTING_LINE",
    "copied",
    "fresh_job",
    "line_fault",
    "new_job",
    "next_bar_mm",
    "restocked",
    "short_name",
    "starter_line",
]

MOST_LETTERS = 120

COMMON = ("face_allowance_mm", "length_mm", "skin", "skin_mm", "runout_mm", "supply", "material")
MATERIAL, MACHINE = "C45", "slant-bed"
STARTING_LINE: dict[System, str] = {"mm": "30 x 50", "inch": "1 x 2"}
"""What a part is before anything is said of it."""


def fresh_job(
    part: Part, name: str, system: System = "mm", material: Material | None = None, machine: Machine | None = None
) -> Job:
    """A job of a part, with blank, hold and stick-out proposed. Raises `PartError` for a part that cannot be built."""
    shape = build_part(part)
    shop = library()
    rules = shop.rules
    machine = machine or shop.machines.get(MACHINE) or next(iter(shop.machines.values()))
    material = material or shop.materials.get(MATERIAL) or next(iter(shop.materials.values()))
    costs = {"edge_cost": rules.edge_cost, "edge_change_min": rules.edge_change_min}
    conditions = {
        **costs,
        "stance": rules.stance,
        "attended": rules.attended,
        "aim": rules.aim,
        "coolant": rules.coolant,
        "offset_error_um": rules.offset_error_um,
        "machine_per_h": machine.per_h or rules.machine_per_h,
    }
    job = Job.model_validate(
        {
            "name": short_name(name),
            "units": system,
            "part": part,
            "stock": {"kind": "round", "d_mm": max(2 * shape.profile.largest_r, 0.1), "material": material,
                      "supply": {"currency": rules.currency}},
            "machine": machine,
            "setups": [{"name": "First side", "hold": next(iter(shop.holds.values()))}],
            "conditions": conditions,
            "program": {"dialect": rules.dialect or machine.dialect, "arcs": rules.arcs},
            "follows": FOLLOWED,
        }
    )  # fmt: skip
    return proposed(job)


def short_name(name: str, end: str = "") -> str:
    """A name as long as a job may have, with what is to stand at its end; halves of characters are left out."""
    plain = name.encode("utf-8", "ignore").decode()
    return plain[: MOST_LETTERS - len(end)] + end


def new_job(name: str, system: System, material: str = "", machine: str = "", line: str = "") -> tuple[Job, str]:
    """A job of a part in a turner's words on a machine and of a material by any of their names, and what the person
    should know of how they were found. Raises `ToreumaError`."""
    shop = library()
    found, named = shop.material(material) if material.strip() else (None, None)
    where = shop.machine(machine) if machine.strip() else None
    read = said(line or STARTING_LINE[system], system)
    if read.part is None or read.faults:
        raise line_fault(read.faults, line)
    rules = shop.rules
    part = read.part.changed(
        edge_break_mm=read.part.edge_break_mm or rules.edge_break_mm,
        general_tolerance=read.part.general_tolerance or rules.general_tolerance,
    )
    notes = [named.note if named is not None else "", *(note.what for note in read.notes)]
    return fresh_job(part, name, system, found, where), "; ".join(one for one in notes if one)


def line_fault(faults: tuple[Fault, ...], line: str) -> JobError:
    """The first place of a line that was not understood, as an error."""
    if not faults:
        return JobError("line", "there is no outside in it", "begin with a diameter and a length: 30 x 50")
    first = faults[0]
    marked = line[first.start : first.end].strip()
    where = f"line, character {first.start + 1}" + (f" '{marked[:40]}'" if marked else "")
    return JobError(where, first.what, first.expected)


def starter_line(name: str, system: System) -> str:
    """The line of a starter, with its few dimensions to type over. Raises `KeyError`."""
    return starters()[name][system]


def copied(job: Job, name: str) -> Job:
    """A job as the starting point of the next: the same in all but its name and what was seen of tools tried."""
    return job.changed(name=name, trials=())


def restocked(job: Job, kind: str) -> Job:
    """The job with another kind of blank, as large as the part wants it; what is not its size is kept."""
    shape = build_part(job.part)
    largest = 2 * shape.profile.largest_r
    kept = job.stock.model_dump(include=set(COMMON))
    bore = 2 * min((p[1] for p in chords(shape.bore.segments[1:-1])), default=0.0) if shape.bore else 0.0
    sizes: dict[str, dict[str, object]] = {
        "round": {"kind": "round", "d_mm": next_bar_mm(largest, job.units)},
        "hexagon": {"kind": "polygon", "sides": 6, "across_mm": next_bar_mm(largest, job.units)},
        "square": {"kind": "polygon", "sides": 4, "across_mm": next_bar_mm(largest, job.units)},
        "tube": {
            "kind": "tube",
            "d_mm": next_bar_mm(largest, job.units),
            "bore_d_mm": max(round(bore - 2.0, 1), round(largest / 4, 1)) if bore > 4 else round(largest / 4, 1),
        },
        "free": {"kind": "free", "allowance_mm": 3.0},
    }
    if "free" in (kind, job.stock.kind):
        kept.pop("length_mm", None)
    return job.changed(stock={**kept, **sizes[kind]})
