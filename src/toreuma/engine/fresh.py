"""A job for a part that has none yet: a bar it fits in, a chuck that holds it, no operations."""

import math

from toreuma.core.geometry.elements import chords
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job, Part
from toreuma.core.units import System
from toreuma.engine.library import library
from toreuma.shipped.library import holds, machines
from toreuma.shipped.standards import bar_sizes_mm

__all__ = ["fresh_job", "next_bar_mm", "restocked"]

CLEAN_UP_MM = 1.0
FACE_MM = 1.0
BEHIND_MM = 8.0
COMMON = ("face_allowance_mm", "length_mm", "skin", "skin_mm", "runout_mm", "supply", "material")
MATERIAL, MACHINE = "C45", "slant-bed"


def next_bar_mm(d_mm: float, system: System) -> float:
    """The smallest usual bar that cleans up to a diameter, mm."""
    wanted = d_mm + CLEAN_UP_MM
    return next((size for size in bar_sizes_mm(system) if size >= wanted), math.ceil(wanted))


def fresh_job(part: Part, name: str, system: System = "mm") -> Job:
    """Raises `PartError` for a part that cannot be built."""
    shape = build_part(part)
    length = -shape.profile.back_z
    bar = next_bar_mm(2 * shape.profile.largest_r, system)
    stick_out = round(FACE_MM + length + BEHIND_MM, 1)
    chuck = next(
        (h for h in holds() if h.kind == "chuck" and h.grip_range_mm and bar <= h.grip_range_mm[1]), holds()[2]
    )
    material = library().materials[MATERIAL]
    return Job.model_validate(
        {
            "name": name,
            "units": system,
            "part": part,
            "stock": {"kind": "round", "d_mm": bar, "face_allowance_mm": FACE_MM, "material": material},
            "machine": machines()[MACHINE],
            "setups": [{"name": "First side", "hold": chuck.changed(stick_out_mm=stick_out)}],
        }
    )


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
