"""Random turned parts, and jobs to cut them."""

import math
import random
from typing import Any

from toreuma.core.model import Job, Part
from toreuma.shipped.library import demo_job

__all__ = ["INSERTS", "job_for", "random_part"]

INSERTS: dict[str, dict[str, Any]] = {
    "80 rhomb": {"shape": "C", "included_angle_deg": 80, "ic_mm": 12.7, "nose_radius_mm": 0.8, "entering": 95},
    "55 rhomb": {"shape": "D", "included_angle_deg": 55, "ic_mm": 9.525, "nose_radius_mm": 0.4, "entering": 93},
    "round": {"shape": "R", "included_angle_deg": 90, "ic_mm": 6.0, "nose_radius_mm": 3.0, "entering": 90},
}


def random_part(random_source: random.Random) -> tuple[Part, float]:
    """A random outside profile that goes up and down, and a bar it comes out of."""
    pick = random_source.uniform
    largest = pick(8, 60)
    z, d = 0.0, pick(0.25, 0.7) * largest
    elements: list[dict[str, Any]] = [{"z_mm": 0.0, "d_mm": round(d, 3)}]
    for _ in range(random_source.randint(2, 6)):
        kind = random_source.choice(["step", "cylinder", "taper", "taper", "convex", "concave"])
        length = pick(2, 14)
        new_d = min(max(pick(0.3, 1.0) * largest, 3.0), largest)
        if kind == "step" and abs(new_d - d) > 0.5:
            elements.append({"z_mm": round(z, 3), "d_mm": round(new_d, 3)})
            d = new_d
        elif kind in ("convex", "concave"):
            chord = math.hypot(length, (new_d - d) / 2)
            entry = {"kind": "arc", "bulge": kind, "radius_mm": round(chord * pick(0.75, 3.0), 3)}
            z -= length
            d = new_d
            elements.append({**entry, "z_mm": round(z, 3), "d_mm": round(d, 3)})
        elif kind == "taper":
            z, d = z - length, new_d
            elements.append({"z_mm": round(z, 3), "d_mm": round(d, 3)})
        if kind != "cylinder" or z == 0:
            continue
        z -= length
        elements.append({"z_mm": round(z, 3), "d_mm": round(d, 3)})
    z -= pick(2, 8)
    elements.append({"z_mm": round(z, 3), "d_mm": round(d, 3)})
    if random_source.random() < 0.5:
        elements[-1]["corner"] = {
            "kind": random_source.choice(["chamfer", "round"]),
            "size_mm": round(min(pick(0.2, 1.0), 0.2 * d), 3),
        }
    if random_source.random() < 0.6 and elements[1]["z_mm"] < -1 and elements[1].get("kind", "line") == "line":
        elements[0]["corner"] = {"kind": "chamfer", "size_mm": round(min(0.15 * elements[0]["d_mm"], 0.5), 3)}
    return Part.model_validate({"outside": elements}), largest


def job_for(part: Part, insert: str, units: str = "mm", arcs: str = "R") -> Job:
    """The demo job's route with another part, the finishing and roughing insert of one shape, and a bar that fits."""
    from toreuma.core.geometry.profile import build_profile

    profile = build_profile(part)
    base = demo_job("spear")
    d = math.ceil(2 * profile.largest_r + 1.5)
    form = INSERTS[insert]
    tools = []
    for tool in base.tools[:3]:
        if tool.kind == "turning":
            changed = {key: value for key, value in form.items() if key != "entering"}
            tools.append(
                tool.changed(
                    insert=tool.insert.changed(**changed),
                    holder=tool.holder.changed(entering_angle_deg=form["entering"]),
                )
            )
        else:
            tools.append(tool.changed(blade=tool.blade.changed(depth_mm=d / 2 + 3)))
    hold = base.setup.hold.changed(stick_out_mm=-profile.back_z + 20.0)
    stock = base.stock.changed(d_mm=d)
    job = base.changed(part=part, stock=stock, tools=tuple(tools), units=units)
    job = job.with_setup(operations=tuple(op for op in base.operations if op.kind not in ("groove", "thread")))
    return job.with_setup(hold=hold).changed(program=base.program.changed(arcs=arcs))
