"""Facing: square to the axis in even passes, past the centre so that no pip is left."""

import math
from dataclasses import replace

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.region import box
from toreuma.core.model import Face, Job, TurningTool
from toreuma.core.motion import Spindle
from toreuma.core.plan import numbers as num
from toreuma.core.plan.result import Cuts, OperationFault, Pass
from toreuma.core.plan.work import APPROACH_MM, PULL_OUT_MM, Path, Work

__all__ = ["plan_face"]


def plan_face(work: Work, operation: Face) -> Cuts:
    """Cut from outside to past the centre. Depths are along Z."""
    tool, shape, _scene = work.tool, work.shape, work.scene
    if not isinstance(tool, TurningTool):
        raise OperationFault("tool.kind", f"{tool.id} is not a turning tool", "choose a turning tool for facing")
    ahead = -float(shape.core[:, 0].min())
    if ahead > 1e-6:
        raise OperationFault(
            "tool.shape",
            f"the cutting edge of {tool.id} stands {ahead:.2f} mm ahead of its nose and would cut into the part",
            "face with an entering angle of 90° or more",
        )
    nose = shape.nose_radius
    top = work.stock.bounds[3]
    values = _numbers(work, operation, tool, 2 * top)
    vc, feed, limit = (values[key].number for key in ("vc", "f", "ap_max"))
    front = work.stock.bounds[2]
    depth = front - operation.leave_mm
    if depth < 1e-6:
        note = Finding(
            "note", "face.nothing", "the front is already at its place: nothing to face", operation=operation.id
        )
        return Cuts((), (), values, (note,))

    count = max(1, math.ceil(depth / limit - 1e-9))
    step = depth / count
    path = Path(work, Spindle("surface", vc, values["clamp"].number))
    centre = upper_envelope(work.blocked_by_centre, front + APPROACH_MM + nose, operation.leave_mm + nose)
    start_r, end_r = top + APPROACH_MM + nose, max(-operation.past_centre_mm, centre.points[:, 1].max())
    findings = _stopped_by_centre(operation, end_r - nose) if end_r > 0 else ()
    if end_r > start_r - APPROACH_MM:
        return Cuts((), (), values, findings)
    path.come(front + APPROACH_MM + nose, start_r)
    drawn = []
    for index in range(1, count + 1):
        z = front - index * step + nose
        path.rapid(z=z, r=start_r)
        path.feed(feed, r=end_r)
        drawn.append(Pass((path.motions[-1].segment,), step, finishing=index == count and operation.leave_mm == 0))
        path.feed(feed, z=z + PULL_OUT_MM)
        path.rapid(r=start_r)
    path.rapid(z=front + APPROACH_MM + nose)
    path.leave()
    values |= num.passes([step] * count, values["ap_max"])
    values |= num.power(work.job, step, feed, vc, _entering(tool), values["clamp"].number, 2 * top)
    clean = box(operation.leave_mm, max(end_r, 0), front + 1, top + 1)
    return Cuts(tuple(path.motions), tuple(drawn), values, findings, coverage=lambda: clean)


def _stopped_by_centre(operation: Face, r_mm: float) -> tuple[Finding, ...]:
    def apply(job: Job) -> Job:
        return job.with_setup(centre=None)

    return (
        Finding(
            "warning",
            "face.centre",
            f"the centre stops the facing cut at Ø {2 * max(r_mm, 0):.1f} mm",
            "a ring of stock stays round the centre: face and drill the centre hole before it comes in",
            operation.id,
            (0.0, max(r_mm, 0.0)),
            cures=(Cure("Take the centre away", apply),),
        ),
    )


def _numbers(work: Work, operation: Face, tool: TurningTool, d_mm: float) -> dict[str, Evidence]:
    job, pins = work.job, operation.pins
    vc = num.surface_speed(job, tool.insert.material, "rough", pins)
    clamp = num.clamp(vc.number, work.hold.limits, pins)
    feed = num.rough_feed(job, tool.insert, pins)
    rpm = min(surface_speed_rpm(vc.number, d_mm), clamp.number)
    depth = num.rough_depth(
        tool.insert, _entering(tool), work.shape.edge_length, job, vc.number, feed.number, rpm, pins
    )
    return {"vc": vc, "clamp": clamp, "f": feed, "ap_max": replace(depth, measured_on="along Z")}


def _entering(tool: TurningTool) -> float:
    """Entering angle of the edge that leads when the tool is fed toward the axis."""
    if tool.insert.shape == "R":
        return 90.0
    corner = 60.0 if tool.insert.shape == "T" else tool.insert.included_angle_deg
    return min(270.0 - tool.holder.entering_angle_deg - corner, 150.0)
