"""Two parts back to back on one blank: the job of the second end, held on what the first end finished.

The first end is turned without being parted off. The piece is turned round, gripped on the finished part, and the
second program ends with the cut that takes the two apart.
"""

import itertools

from toreuma.core.errors import JobError
from toreuma.core.geometry.blank import outline_points
from toreuma.core.model import Chuck, Element, FreeBlank, Job
from toreuma.core.plan.bar.supply import cut_width_mm

__all__ = ["second_end"]


COARSE_MM = 0.01
"""How closely the finished end is carried along: jaws and tools stay clear of it by more."""


def second_end(job: Job) -> Job:
    """The same route on the other end of the blank, in jaws on the surface chosen for the second hold.

    Raises `JobError` where that surface is not chosen yet or is no cylinder.
    """
    wanted, outside = job.second_hold, job.part.outside
    if wanted is None or not 0 < wanted.element < len(outside):
        raise JobError("second end", "no surface is chosen to grip for it", "choose one as second hold")
    near, far = outside[wanted.element - 1], outside[wanted.element]
    if far.kind == "arc" or abs(near.d_mm - far.d_mm) > 1e-6:
        raise JobError("second end", "the surface of the second hold is no cylinder", "choose another")
    if isinstance(job.stock, FreeBlank) and not job.stock.outside:
        raise JobError("second end", "its blank has one part in it", "choose a bar, or turn the part round by hand")
    whole = -outside[-1].z_mm * 2 + cut_width_mm(job)
    jaw_face = -(whole + far.z_mm) - wanted.clearance_mm
    hold = job.setup.hold
    changes: dict[str, object] = {
        "stick_out_mm": round(job.stock.face_allowance_mm - jaw_face, 4),
        "grip_length_mm": wanted.grip_length_mm,
    }
    if isinstance(hold, Chuck):
        soft = wanted.jaws == "soft"
        changes |= {"jaws": wanted.jaws, "bored_d_mm": far.d_mm if soft else None, "bored_depth_mm": None}
    turned = job.with_setup(hold=hold.changed(**changes), centre=None)
    return turned.changed(
        name=f"{(job.name or job.part.name)[:100]}, second end", stock=_half_made(job, whole), second_hold=None
    )


def _half_made(job: Job, whole_mm: float) -> FreeBlank:
    """The blank with the finished part at its back, front to chuck: raw bar, then the part from its back face on."""
    stock, facing = job.stock, job.stock.face_allowance_mm
    raw = stock.outside[0].d_mm if isinstance(stock, FreeBlank) else stock.largest_d_mm
    points = outline_points(job.part.outside, COARSE_MM)
    cut_z = -(whole_mm + points[-1][0])
    path = [(cut_z, raw)] + [(-(whole_mm + z), 2 * r) for z, r in points[::-1]]
    steps = [path[0], *(b for a, b in itertools.pairwise(path) if abs(a[0] - b[0]) + abs(a[1] - b[1]) > 1e-6)]
    outside = [Element(z_mm=0.0, d_mm=raw), *(Element(z_mm=round(z - facing, 5), d_mm=round(d, 5)) for z, d in steps)]
    return FreeBlank(
        material=stock.material,
        face_allowance_mm=facing,
        outside=tuple(outside),
        skin=stock.skin,
        skin_mm=stock.skin_mm,
        runout_mm=stock.runout_mm,
        supply=stock.supply.changed(back_to_back=False),
    )
