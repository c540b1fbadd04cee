"""Parting off: plunge part depth, break the back edge with the corner of the blade, go on to the centre."""

import math
from dataclasses import replace

import numpy as np
import shapely
import shapely.affinity

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.speed import clamp_inputs, surface_speed_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line, Point, Segment
from toreuma.core.geometry.envelope import Envelope, upper_envelope
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.profile import Profile
from toreuma.core.geometry.reach import blocked_by_part, covered
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import EMPTY, Region, box, mirrored_at_axis, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.model import Job, Operation, PartingTool, PartOff
from toreuma.core.plan.ground.contour import from_place, nose_at_start
from toreuma.core.plan.ground.given import Neighbours
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.plan.numbers.situations import blade_situation, proposed, rung_of_feed, spindle_of
from toreuma.core.propose.proposal import Proposal
from toreuma.core.scene import BELOW_AXIS_MM
from toreuma.core.spoken import q, said

__all__ = ["is_held", "plan_part_off"]

NEAR_MM = 0.2
"""How near to the bar a rapid ends: it is round there, and its size is known."""

EDGE_RUN_IN_MM = 0.2
"""How far outside the stock the edge cut begins, along the edge."""

EDGE_AHEAD_MM = 0.5
"""The stock is looked at so far in front of the edge that is broken."""

STEEP = 0.5
"""Fall per length from which on an edge counts as steep."""

DEEPER_THAN_EDGE_MM = 0.4
"""The first plunge goes this much deeper than the back edge reaches."""

PAST_CENTRE_MM = 0.05
PAST_WALL_MM, THIN_WALL_MM = 0.2, 1.0
"""Into a bore: so far past the wall, and fed more slowly through the last of it."""

TOUCH_MM2 = 0.01
"""Smaller overlaps come from chords of arcs."""


def plan_part_off(work: Work, operation: PartOff) -> Cuts:
    """Cut the finished part from the bar behind its back face."""
    tool = work.tool
    if not isinstance(tool, PartingTool):
        raise OperationFault("tool.kind", f"{tool.id} is not a parting tool", "choose a blade for parting off")
    work = _between_both(work) if work.given.neighbours.is_taken else work
    shape, scene = work.shape, work.scene
    top = _stock_radius(work)
    proposal = proposed(work, blade_situation(work, tool.blade, 2 * top), ((top, top),), tool.blade.width_mm)
    figures, near = _figures(work, operation, tool, proposal)
    reasons = {**proposal.reasons, **_reasons(operation, tool, proposal, figures, near)}
    feed = proposal.cut.feed_mm_rev
    hollow = _hollow_radius(work)
    findings = [
        *_too_deep(work, tool, operation, top - hollow),
        *_block_in_way(work, operation, hollow),
        *_near_jaws(work, operation),
    ]
    findings += _falls(work, operation)
    path = Path(work, spindle_of(work, proposal, figures.clamp_rpm))
    slot_z = _slot_z(work)
    clear, near_r = top + APPROACH_MM + shape.nose_radius, top + NEAR_MM + shape.nose_radius
    path.come(slot_z, clear)
    path.rapid(r=near_r)
    begin = len(path.motions)
    profile = scene.profile
    wide = profile.segments[profile.outside_end - 1].end[0] - profile.back_z
    beside = _stock_radius(work, wide + EDGE_AHEAD_MM, slot=False)
    edge = [] if operation.leave_axial_mm else work.memo.of(_edge, scene.shape, shape, beside)
    if edge:
        bottom = profile.segments[-1].start[1]
        path.feed(feed, r=max(bottom - DEEPER_THAN_EDGE_MM, 0.2) + shape.nose_radius)
        path.rapid(r=near_r)
        start = edge[0].start
        safe = _stock_radius(work, start[0] - slot_z, slot=False) + NEAR_MM + shape.nose_radius
        path.rapid(r=max(near_r, safe))
        path.rapid(z=start[0])
        down = max(safe, start[1])
        path.rapid(r=down)
        path.along([Line((start[0], down), start), *edge], feed)
    slow_r = max(operation.slow_below_d_mm / 2, hollow + THIN_WALL_MM if hollow else 0.0) + shape.nose_radius
    if path.nose[1] > slow_r:
        path.feed(feed, z=slot_z, r=slow_r)
    leans = _leans(work)
    path.feed(near, z=slot_z, r=_last_r(hollow, leans))
    reasons[Figure.NUB] = _nub(tool, leans)
    drawn = tuple(motion.segment for motion in path.motions[begin:] if not motion.is_rapid)
    path.leave()
    return Cuts(
        motions=tuple(path.motions),
        passes=(Pass(drawn, tool.blade.width_mm),),
        reasons=reasons,
        findings=tuple(findings),
        proposal=proposal,
        figures=figures,
        coverage=lambda: _coverage(work),
    )


def at_the_cut(job: Job, operation: Operation) -> Neighbours:
    """Whether a second spindle holds the part while it is cut off."""
    return Neighbours(is_taken=is_held(job))


def is_held(job: Job) -> bool:
    """A second spindle holds the part while it is cut off."""
    return job.hand_over is not None and job.machine.second is not None and job.hand_over.how != "released"


def _between_both(work: Work) -> Work:
    """The second hold stands in front of the part: the blade comes and goes square to the axis, from its reference."""
    r = work.given.machine.carrier_of(work.tool.station).reference_d_mm / 2
    return replace(work, scene=replace(work.scene, index=(_slot_z(work) + work.shape.tip[0], r)))


def _leans(work: Work) -> float:
    """How far the other corner of a leaning front stands behind the free end's, mm on radius."""
    return float(np.ptp(np.sort(work.shape.core[:, 1])[:2]))


def _nub(tool: PartingTool, leans: float) -> Evidence:
    """The last pin of metal between part and bar, and on which of them it stays."""
    if leans > 0:
        return Evidence(
            "nub left on the part", "", 0.0, "mm", formula="the free end of the leaning front cuts through first",
            inputs=(Input("taken off the bar after that", "w tan κ", leans, "mm"),),
            note="A leaning front pushes a deep blade aside: not for deep cuts.",
        )  # fmt: skip
    return Evidence(
        "nub left on the part", "", tool.blade.width_mm, "mm", formula="up to the blade's width, where it breaks",
        note="A front that leans, or a pick-off that holds the part, leaves none.",
    )  # fmt: skip


def _falls(work: Work, operation: PartOff) -> list[Finding]:
    """Nobody watches, and the part falls among the chips."""
    if operation.taken != "falls" or work.given.conditions.attended or work.given.neighbours.is_taken:
        return []

    def caught(job: Job) -> Job:
        return job.with_operation(operation.id, lambda op: op.changed(taken="caught"))

    return [
        Finding(
            "warning",
            "part_off.falls",
            "the part falls into the chips, and nobody is there",
            "it is bruised, or goes out with them",
            operation=operation.id,
            cures=(Cure("Send the catcher out", caught),),
        )
    ]


def _figures(work: Work, operation: PartOff, tool: PartingTool, proposal: Proposal) -> tuple[Figures, float]:
    """With the clamp of the steady speed, and the slower feed near the centre, mm/rev."""
    clamp = proposal.figures.clamp_rpm or math.inf
    if operation.pins.clamp_rpm is None:
        steady = surface_speed_rpm(proposal.cut.vc_m_min, operation.steady_below_d_mm)
        clamp = work.given.steps.turns(min(clamp, steady))
    near = rung_of_feed(work.given.machine, proposal.cut.feed_mm_rev * operation.slow_share)
    return replace(proposal.figures, clamp_rpm=clamp, ap_mm=tool.blade.width_mm), near


def _reasons(
    operation: PartOff, tool: PartingTool, proposal: Proposal, figures: Figures, near_mm_rev: float
) -> Reasons:
    """What is said of them."""
    vc, lower, before = proposal.cut.vc_m_min, figures.clamp_rpm or math.inf, proposal.figures.clamp_rpm or math.inf
    clamp = proposal.reasons[Figure.CLAMP]
    near = Evidence(
        "feed near the centre",
        "f",
        near_mm_rev,
        "mm/rev",
        formula=said(
            "{} of the feed below Ø {}", f"{operation.slow_share:.0%}", q(operation.slow_below_d_mm, "mm", "g")
        ),
        note="the surface speed falls to nothing there and the edge is pushed, not cut",
    )
    steady = surface_speed_rpm(vc, operation.steady_below_d_mm)
    label = said("steady below Ø {}", q(operation.steady_below_d_mm, "mm", "g"))
    limits = (*(replace(limit, bit=limit.bit and steady > before) for limit in clamp.limits),
              Limit(label, math.floor(steady), "rpm", bit=steady <= before))  # fmt: skip
    return {
        Figure.CLAMP: replace(clamp, number=lower, limits=limits, inputs=clamp_inputs(vc, lower)),
        Figure.FEED_NEAR_CENTRE: near,
        Figure.DEPTH: Evidence("blade width", "CW", tool.blade.width_mm, "mm"),
    }


def _right_nose(shape: ToolShape) -> float:
    """Centre of the blade's free-end corner measured from the nose centre the program moves, mm."""
    return float(shape.core[:, 0].max())


def _slot_z(work: Work) -> float:
    """Where the program's nose centre runs to cut the back face, or what is left before it."""
    return _slot_place(work.scene.profile, work.shape) - _left(work)


def _left(work: Work) -> float:
    """Left on the back face, mm."""
    return work.operation.leave_axial_mm if isinstance(work.operation, PartOff) else 0.0


def _slot_place(profile: Profile, shape: ToolShape) -> float:
    return profile.back_z - shape.nose_radius - _right_nose(shape)


def _stock_radius(work: Work, ahead_mm: float = 0.0, slot: bool = True) -> float:
    """Largest radius of the stock where the blade goes in, unless ``slot`` is off, and up to ``ahead_mm`` in front of
    that, mm."""
    z = work.scene.profile.back_z - _left(work)
    met = work.stock.intersection(box(z - (work.shape.edge_length if slot else 0.0), 0, z + ahead_mm + 1e-3, 1e4))
    return float(met.bounds[3]) if not met.is_empty else work.scene.stock_r


def _hollow_radius(work: Work) -> float:
    """Radius of what is hollow all over the blade's width, mm; 0 where it goes to the centre."""
    z = work.scene.profile.back_z - _left(work)
    met = work.stock.intersection(box(z - work.shape.edge_length, 0, z - 1e-6, 1e4))
    return 0.0 if met.is_empty else max(float(met.bounds[1]), 0.0)


def _last_r(hollow: float, leans: float) -> float:
    """Where the blade stops: past the centre, or past the wall of a bore, mm on radius."""
    past = PAST_WALL_MM if hollow > PAST_WALL_MM else PAST_CENTRE_MM
    return hollow - past - leans


def _edge_line(part: PartShape, shape: ToolShape, ahead_mm: float = 0.0) -> Envelope:
    """How far down the blade may go over the back edge and behind it, from ``ahead_mm`` in front of the edge."""
    profile = part.profile
    edge_z = profile.segments[profile.outside_end - 1].end[0]
    z_from = edge_z + shape.nose_radius - _right_nose(shape) + ahead_mm
    both = mirrored_at_axis(part.region, BELOW_AXIS_MM)
    back = both.intersection(box(-1e5, -1e5, z_from + 2 * shape.edge_length, 1e5))
    return upper_envelope(blocked_by_part(back, shape), z_from, _slot_place(profile, shape) - 1e-3)


def _edge(part: PartShape, shape: ToolShape, top: float) -> list[Segment]:
    """The back edge as the nose centre runs it, with a run-in through the air; empty without an edge."""
    profile = part.profile
    broken = profile.segments[profile.outside_end : -1]
    if not broken:
        return []
    z, r = nose_at_start(broken[0], shape.nose_radius)
    bottom = broken[-1].end[1]
    line = from_place(_edge_line(part, shape).with_levels(np.array([bottom])).points, (z - _right_nose(shape), r))
    contour = recover(line[line[:, 1] >= bottom - 1e-6])
    if not contour:
        raise OperationFault("tool.reach", "the blade does not get down to the back edge", "a slimmer blade or no edge")
    ahead = _edge_line(part, shape, ahead_mm=2 * max(top - bottom, 0.0) + 2.0)
    return [Line(_run_in(contour[0], top + shape.nose_radius, ahead), contour[0].start), *contour]


def _run_in(first: Segment, top: float, ahead: Envelope) -> Point:
    """Where the edge cut begins in the air: back along a steep edge if nothing stands there, else straight above."""
    (z, r), (dz, dr) = first.start, first.tangent()
    rise = max(top - r, 0.0) + EDGE_RUN_IN_MM
    if dr > -STEEP:
        return z, r + rise
    slanted = (z + rise * dz / dr, r + rise)
    return slanted if ahead.clears(slanted, (z, r)) else (z, r + rise)


def _too_deep(work: Work, tool: PartingTool, operation: PartOff, deep: float) -> list[Finding]:
    if tool.blade.depth_mm >= deep:
        return []
    return [
        Finding(
            "error",
            "blade.short",
            said("the blade cuts {} deep, {} on radius are needed", q(tool.blade.depth_mm), q(deep)),
            "the block would touch the bar before the part is off",
            operation=operation.id,
            at=(work.scene.profile.back_z, _stock_radius(work)),
        )
    ]


def _block_in_way(work: Work, operation: PartOff, hollow: float) -> list[Finding]:
    """The block behind the blade at its deepest, against what stands beside the cut."""
    place = np.array([_slot_z(work), _last_r(hollow, _leans(work))])
    body = union([shapely.MultiPoint(piece + place).convex_hull for piece in work.shape.bodies])
    slot = shapely.affinity.translate(work.shape.cutting, *place)
    beside = work.stock.difference(box(slot.bounds[0], 0, slot.bounds[2], 1e4))
    met = beside.intersection(body)
    if met.area < TOUCH_MM2:
        return []
    deep = float(met.bounds[3] - met.bounds[1])
    return [
        Finding(
            "error",
            "blade.block",
            said(
                "the block of {} would stand {} inside the metal beside the cut (Z {} to {})",
                work.tool.id,
                q(deep),
                q(met.bounds[0], "mm", ".1f", bare=True),
                q(met.bounds[2], "mm", ".1f", bare=True),
            ),
            "take a blade that stands out farther, or one whose block lies on the other side",
            operation=operation.id,
            at=(float(met.centroid.x), float(met.bounds[3])),
        )
    ]


def _near_jaws(work: Work, operation: PartOff) -> list[Finding]:
    back = _slot_z(work)
    missing = work.limit_z - back
    if missing <= 0:
        return []
    more = float(int(missing + 1) + 1)
    return [
        Finding(
            "error",
            "hold.short",
            said("the blade or its block comes {} too close to the jaws", q(missing)),
            "blade, block and jaws keep their clearance",
            operation=operation.id,
            at=(back, work.scene.stock_r),
            cures=(stick_out_more(more),),
        )
    ]


def _coverage(work: Work) -> Region:
    """The back face and its edge, as far as the blade reaches them."""
    profile = work.scene.profile
    if _left(work):
        return EMPTY
    edge_z = profile.segments[profile.outside_end - 1].end[0]
    clean = covered(
        _edge_line(work.scene.shape, work.shape).above(work.scene.stock_r + work.shape.nose_radius + 1.0), work.shape
    )
    return clean.intersection(box(-1e5, 0, edge_z, 1e5))
