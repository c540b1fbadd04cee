"""A job for a part that has none yet: a bar it fits in, a chuck that holds it, no operations."""

import math

from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job, Part
from toreuma.core.units import System
from toreuma.io.library import bar_sizes_mm, holds, machines, materials

__all__ = ["fresh_job", "next_bar_mm"]

CLEAN_UP_MM = 1.0
FACE_MM = 1.0
BEHIND_MM = 8.0
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
    return Job.model_validate(
        {
            "name": name,
            "units": system,
            "part": part,
            "stock": {"kind": "round", "d_mm": bar, "face_allowance_mm": FACE_MM, "material": materials()[MATERIAL]},
            "machine": machines()[MACHINE],
            "setups": [{"name": "First side", "hold": chuck.changed(stick_out_mm=stick_out)}],
        }
    )
