"""Facing: square to the axis in even passes, past the centre so that no pip is left."""

import math
from dataclasses import replace

import shapely
import shapely.affinity

from toreuma.core.control_cycles import faced_pass
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.region import box
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.model import Face, Job, TurningTool
from toreuma.core.plan.ground.path import APPROACH_MM, PULL_OUT_MM, Path
from toreuma.core.plan.ground.result import Cuts, Cycle, OperationFault, Pass, Word
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.passes import passes
from toreuma.core.plan.numbers.situations import insert_situation, proposed, spindle_of
from toreuma.core.spoken import q, said

__all__ = ["plan_face"]

BESIDE_MM, BESIDE_CLEAN_MM = 1.0, 0.4
"""A cut toward the axis begins so far outside the metal; nearer where its surface is clean."""

FILM_MM = 0.001
INTO_HOLE_MM = 1.0
"""Facing round a hole stops so far past its edge."""


def plan_face(work: Work, operation: Face) -> Cuts:
    """Cut from outside to past the centre. Depths are along Z."""
    tool, shape, _scene = work.tool, work.shape, work.scene
    if not isinstance(tool, TurningTool):
        raise OperationFault("tool.kind", f"{tool.id} is not a turning tool", "choose a turning tool for facing")
    ahead = -float(shape.core[:, 0].min())
    if ahead > 1e-6:
        raise OperationFault(
            "tool.shape",
            said("the cutting edge of {} stands {} ahead of its nose and would cut into the part", tool.id, q(ahead)),
            "face with an entering angle of 90° or more",
        )
    nose = shape.nose_radius
    ring = work.stock.intersection(box(operation.leave_mm, 0, 1e5, 1e5))
    top = float(ring.bounds[3]) if not ring.is_empty else work.stock.bounds[3]
    front = work.stock.bounds[2]
    depth = front - operation.leave_mm
    situation = insert_situation(work, tool.insert, "rough", _entering(tool), 2 * top, top)
    proposal = proposed(work, situation, ((max(depth, 0.01), top),))
    reasons = dict(proposal.reasons)
    reasons[Figure.LARGEST_DEPTH] = replace(reasons[Figure.LARGEST_DEPTH], measured_on="along Z")
    limit, feed, _ = proposal.cut
    if depth < 1e-6:
        note = Finding(
            "note", "face.nothing", "the front is already at its place: nothing to face", operation=operation.id
        )
        return Cuts(motions=(), passes=(), reasons=reasons, findings=(note,), figures=proposal.figures)

    count = max(1, math.ceil(depth / limit - 1e-9))
    step = depth / count
    path = Path(work, spindle_of(work, proposal))
    centre = upper_envelope(work.blocked_by_centre, front + APPROACH_MM + nose, operation.leave_mm + nose)
    hole_r = float(ring.bounds[1]) if not ring.is_empty else 0.0
    beside = BESIDE_CLEAN_MM if work.given.stock.skin == "clean" else BESIDE_MM
    start_r = top + beside + nose
    end_r = max(-operation.past_centre_mm, hole_r - INTO_HOLE_MM, centre.points[:, 1].max())
    findings = _stopped_by_centre(operation, end_r - nose) if end_r > max(hole_r - INTO_HOLE_MM, 0) else ()
    if end_r > start_r - beside:
        return Cuts(
            motions=(), passes=(), reasons=reasons, findings=findings, proposal=proposal, figures=proposal.figures
        )
    path.come(front + APPROACH_MM + nose, max(start_r, work.stock.bounds[3] + APPROACH_MM + nose))
    drawn = []
    cycles = []
    for index in range(1, count + 1):
        z = front - index * step + nose
        last = index == count and operation.leave_mm == 0
        if operation.written == "passes":
            begin, place = len(path.motions), (z + path.tip[0], end_r + path.tip[1])
            path.made(faced_pass(path.at, *place), feed)
            words = (Word("x", "x", place[1]), Word("z", "z", place[0]), Word("feed", "feed", feed))
            cycles.append(Cycle(name="face_cycle", first=begin, count=len(path.motions) - begin, words=words))
            drawn.append(Pass((path.motions[begin + 1].segment,), step, finishing=last))
            continue
        path.rapid(z=z, r=start_r)
        path.feed(feed, r=end_r)
        drawn.append(Pass((path.motions[-1].segment,), step, finishing=last))
        free = not findings and _takes_all(shape, (z, end_r), hole_r, step)
        path.go(None if free else feed, z=z + PULL_OUT_MM)
        path.rapid(r=start_r)
    path.rapid(z=front + APPROACH_MM + nose)
    path.leave()
    reasons |= passes([step] * count, limit, "along Z")
    clean = box(operation.leave_mm, max(end_r, 0), front + 1, top + 1)
    return Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=findings,
        proposal=proposal,
        coverage=lambda: clean,
        cycles=tuple(cycles),
        figures=replace(proposal.figures, ap_mm=step),
    )


def _takes_all(shape: ToolShape, at: tuple[float, float], inner_r: float, depth_mm: float) -> bool:
    """At the end of a pass the edge is past all of the layer: where it leans back, or a centre stops it, metal stands
    beside the nose still, and it lifts off at feed."""
    if depth_mm <= shape.nose_radius:  # the lowest point of the nose has passed
        return True
    face = at[0] - shape.nose_radius
    inner = shapely.LineString([(at[0], inner_r), (face + depth_mm, inner_r)])
    edge = shapely.affinity.translate(shape.cutting, *at)
    return bool(edge.buffer(FILM_MM).covers(inner))


def _stopped_by_centre(operation: Face, r_mm: float) -> tuple[Finding, ...]:
    def drawn_back(job: Job) -> Job:
        return job.with_operation(operation.id, lambda op: op.changed(centre_back=True))

    def taken_away(job: Job) -> Job:
        return job.with_setup(centre=None)

    return (
        Finding(
            "warning",
            "face.centre",
            said("the centre stops the facing cut at Ø {}", q(2 * max(r_mm, 0), "mm", ".1f")),
            "a ring of stock stays round the centre: face and drill the centre hole before it comes in",
            operation=operation.id,
            at=(0.0, max(r_mm, 0.0)),
            cures=(Cure("Face with the centre drawn back", drawn_back), Cure("Take the centre away", taken_away)),
        ),
    )


def _entering(tool: TurningTool) -> float:
    """Entering angle of the edge that leads when the tool is fed toward the axis."""
    if tool.insert.shape == "R":
        return 90.0
    corner = 60.0 if tool.insert.shape == "T" else tool.insert.included_angle_deg
    return min(270.0 - tool.holder.entering_angle_deg - corner, 150.0)
