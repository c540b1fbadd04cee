"""First sizes for features a person adds: what the standards list for the place, ready to be changed."""

from typing import Any

from toreuma.core.errors import PartError, ToreumaError
from toreuma.core.geometry.centre_forms import CENTRE_SIZES
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job
from toreuma.core.standards.knurls import PITCHES_MM
from toreuma.core.standards.reliefs import run_out_fields, usual_undercut
from toreuma.core.standards.threads import Thread, thread_of
from toreuma.shipped.standards import relief_tables, thread_tables

__all__ = ["feature_on", "new_feature", "standard_reliefs"]

GROOVE_SHARE = 0.08
KNURL_SHARE = 0.05
"""A pitch of this share of the diameter at most: as the standard's table grows with it (typical)."""


def new_feature(job: Job, kind: str) -> dict[str, Any]:
    """A feature of the part as a whole, as fields. Raises `PartError`."""
    shape = build_part(job.part)
    face = 2 * shape.profile.segments[0].end[1]
    length = -shape.profile.back_z
    if kind == "axial_hole":
        return {"kind": kind, "d_mm": round(max(0.25 * face, 1.0), 1), "depth_mm": round(0.4 * length, 1)}
    if kind == "centre_hole":
        pilot, mouth, _ = next((size for size in reversed(CENTRE_SIZES) if size[1] <= 0.4 * face), CENTRE_SIZES[0])
        return {"kind": kind, "d_mm": pilot, "mouth_d_mm": mouth}
    bore = 2 * float(shape.void.bounds[3]) if shape.void is not None else 0.0
    middle = (face + bore) / 2
    if kind == "face_groove":
        width = round(0.1 * face, 1)
        return {"kind": kind, "d_mm": round(middle + width, 1), "width_mm": width, "depth_mm": 2.0}
    if kind == "holes":
        d = round(max(0.2 * (face - bore) / 2, 1.0), 1)
        return {"kind": kind, "on": "front", "count": 4, "d_mm": d, "depth_mm": 2 * d, "circle_d_mm": round(middle, 1)}
    back = shape.profile.back_z
    reach = min(8.0, 0.3 * length)
    distance = round(0.88 * shape.profile.segments[shape.profile.outside_end - 1].end[1], 2)
    return {
        "kind": "flats",
        "count": 2,
        "distance_mm": distance,
        "from_z_mm": round(back + reach, 3),
        "to_z_mm": round(back, 3),
    }


def feature_on(job: Job, side: str, index: int, kind: str) -> dict[str, Any]:
    """A feature on a straight element, as fields. Raises `PartError`."""
    elements = job.part.outside if side == "outside" else job.part.inside
    here, before = elements[index], elements[index - 1] if index else None
    if before is None or here.kind != "line":
        raise PartError(index, "kind", "this needs a straight element behind the first", "choose a cylinder", side)
    start, end, d = before.z_mm, here.z_mm, here.d_mm
    length = start - end
    if length < 1.0:
        raise PartError(index, "z_mm", "the surface has no length for it", "choose a cylinder", side)
    into = 1.0 if side == "outside" else -1.0
    if kind == "groove":
        width = round(min(3.0, 0.4 * length), 2)
        return {
            "kind": kind,
            "side": side,
            "z_mm": round((start + end + width) / 2, 3),
            "width_mm": width,
            "d_mm": round(d * (1 - into * GROOVE_SHARE), 2),
        }
    if kind == "thread":
        return {
            "kind": kind,
            "side": side,
            "designation": _likely_thread(job, d, side),
            "from_z_mm": start,
            "length_mm": round(max(length - 3.0, 0.6 * length), 2),
        }
    if kind == "knurl":
        sizes = [size for size in PITCHES_MM if size <= KNURL_SHARE * d]
        bare = length - sum(one.corner.size_mm for one in (before, here) if one.corner is not None)
        lead = before.corner.size_mm if before.corner is not None else 0.0
        pitch = max(sizes, default=PITCHES_MM[0])
        return {"kind": kind, "pitch_mm": pitch, "from_z_mm": round(start - lead, 3), "length_mm": round(bare, 3)}
    if kind == "relief":
        return _relief(job, side, d, end)
    if kind == "slot":
        return {
            "kind": kind,
            "on": side,
            "width_mm": round(0.25 * d, 1),
            "depth_mm": round(0.12 * d, 1),
            "from_z_mm": round(start - 0.1 * length, 3),
            "to_z_mm": round(end + 0.1 * length, 3),
        }
    if kind == "holes":
        size = round(min(0.3 * length, 0.25 * d), 1)
        return {"kind": kind, "on": "outside", "count": 1, "d_mm": size, "z_mm": round((start + end) / 2, 3)}
    return {
        "kind": "flats",
        "count": 2,
        "distance_mm": round(0.44 * d, 2),
        "from_z_mm": round(end + min(10.0, length), 3),
        "to_z_mm": end,
    }


def _likely_thread(job: Job, d_mm: float, side: str) -> str:
    """The coarse thread of this diameter, by the system the job is read in; a fine one where none is listed."""
    names = [f"M{d_mm:g}", f"M{d_mm:g}x1.5", f"M{round(d_mm):d}x1"]
    if job.units == "inch":
        names = [name for name in _inch_names() if _fits(name, d_mm, side)] + names
    return next((name for name in names if _fits(name, d_mm, side)), names[-1])


def _inch_names() -> list[str]:
    series = thread_tables().unified.series
    return [f"{size}-{count:g} {name}" for name in ("UNF", "UNC") for size, count in series[name].items()]


def _fits(name: str, d_mm: float, side: str) -> bool:
    try:
        thread: Thread = thread_of(name, thread_tables())
    except ToreumaError:
        return False
    wanted = thread.d_mm if side == "outside" else thread.internal.minor.middle
    return abs(wanted - d_mm) < 0.02 * d_mm


def standard_reliefs(form: str, side: str = "outside") -> list[dict[str, Any]]:
    """Sizes the standards list for a form, as the fields of a relief with their ``name`` and ``form``."""
    tables = relief_tables()
    if form != "thread":
        return [row.model_dump() for row in tables.of(form)]
    rows = tables.outside if side == "outside" else tables.inside
    found = []
    for row, short in ((row, short) for row in rows for short in (False, True)):
        fields = run_out_fields(tables, row.pitch_mm, "outside" if side == "outside" else "inside", short)
        name = f"{row.pitch_mm:g} short" if short else f"{row.pitch_mm:g}"
        found.append({**fields, "form": "for pitch", "name": name, "face_depth_mm": 0.0})
    return found


def _relief(job: Job, side: str, d_mm: float, shoulder_z: float) -> dict[str, Any]:
    """A thread run-out where a thread ends, else form E by diameter."""
    for feature in job.part.features:
        if feature.kind == "thread" and feature.side == side and feature.from_z_mm > shoulder_z:
            pitch = thread_of(feature.designation, thread_tables()).pitch_mm
            sizes = run_out_fields(relief_tables(), pitch, feature.side)
            return {"kind": "relief", "form": "thread", "side": side, "z_mm": shoulder_z, **sizes}
    row = usual_undercut(relief_tables(), d_mm)
    fields = {key: getattr(row, key) for key in ("length_mm", "depth_mm", "radius_mm")}
    return {"kind": "relief", "form": "E", "side": side, "z_mm": shoulder_z, **fields}
