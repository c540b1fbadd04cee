"""Roughing with a blade: plunges side by side down to what is left for finishing.

The force goes along the blade, toward the axis: hard skin is met by the front edge only, and a deep recess between
two collars is opened where no turning tool gets in.
"""

import numpy as np

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.model import RoughOd
from toreuma.core.model.tool import Blade, GroovingTool, PartingTool
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.situations import blade_situation, proposed, spindle_of
from toreuma.core.plan.turn.stretch import Stretch, reach_of, stretch_of
from toreuma.core.spoken import q, said

__all__ = ["rough_by_plunging"]

OVERLAP = 0.8
"""Neighbouring plunges stand apart by at most this share of the blade's flat."""

TEETH_MM = 0.5
"""On a slope they stand closer, so that the steps between them are no higher than this."""

LEAST_SHARE = 0.1
"""They never stand closer than this share of the flat."""

PECK_WIDTHS, PECK_LIFT_MM = 1.0, 0.15
"""Chips are broken every so many widths by lifting off a little."""

LEAST_AREA_MM2 = 0.05
CLEAR_MM = 0.3


def rough_by_plunging(work: Work, operation: RoughOd) -> Cuts:
    """Plunge from the front of the stretch to its end, wherever there is metal."""
    tool = work.tool
    stretch = stretch_of(work, operation)
    if not isinstance(tool, GroovingTool | PartingTool) or not work.shape.is_blade:
        raise OperationFault("tool.shape", f"{tool.id} has no square front", "choose a blade with a square front")
    if isinstance(tool, GroovingTool) and tool.where != "outside":
        raise OperationFault("tool.where", f"{tool.id} does not cut outside", "choose a blade for outside grooves")
    reach = reach_of(work, stretch, operation.leave_axial_mm, operation.leave_radial_mm)
    blade, top = tool.blade, float(work.stock.bounds[3])
    plunges = [one for one in _places(stretch, reach.envelope, blade) if _meets(work, stretch, *one)]
    deepest = max((stretch.top - r for _, r in plunges), default=blade.width_mm)
    situation = blade_situation(work, blade, 2 * top)
    proposal = proposed(work, situation, ((blade.width_mm, max(deepest, 0.1)),), blade.width_mm)
    feed = proposal.cut.feed_mm_rev
    path = Path(work, spindle_of(work, proposal), stretch.frame, stretch.safe)
    drawn = [_plunge(path, stretch, z, r, feed, blade) for z, r in plunges]
    findings = list(stretch.findings)
    if plunges:
        path.leave()
    else:
        findings.append(Finding("note", "rough.nothing", "there is nothing to rough here", operation=operation.id))
    if deepest > blade.depth_mm:
        findings.append(
            Finding(
                "error", "blade.short", said("the blade cuts {} deep, {} are needed", q(blade.depth_mm), q(deepest)),
                "its block would touch the work", operation=operation.id,
            )
        )  # fmt: skip
    reasons = {**proposal.reasons, Figure.PLUNGES: _count(len(plunges), blade)}
    return Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=tuple(findings),
        proposal=proposal,
        figures=proposal.figures,
    )


def _places(stretch: Stretch, envelope: Envelope, blade: Blade) -> list[tuple[float, float]]:
    """Nose centre of every plunge at its deepest, front first."""
    flat = blade.width_mm - 2 * blade.corner_radius_mm
    front = min(stretch.nose_from, float(stretch.stock.bounds[2]) + stretch.shape.nose_radius)
    last = stretch.nose_to + flat
    at = [front]
    while at[-1] > last + 1e-6:
        step = OVERLAP * flat
        here = envelope.height(at[-1])
        while step > LEAST_SHARE * flat and abs(envelope.height(max(at[-1] - step, last)) - here) > TEETH_MM:
            step *= 0.7
        at.append(max(at[-1] - step, last))
    floor = stretch.shape.nose_radius
    return [(z, max(envelope.height(z), floor)) for z in at]


def _meets(work: Work, stretch: Stretch, z: float, r: float) -> bool:
    """The plunge takes metal worth it."""
    if stretch.safe <= r:
        return False
    swept = sweep(_straight(z, stretch.safe, r), stretch.shape.core, stretch.shape.nose_radius, 0.01)
    return bool(swept.intersection(work.stock).area > LEAST_AREA_MM2)


def _plunge(path: Path, stretch: Stretch, z: float, deep: float, feed: float, blade: Blade) -> Pass:
    begin = stretch.top + stretch.shape.nose_radius + CLEAR_MM
    if path.motions:
        path.rapid(r=stretch.safe)
        path.rapid(z=z)
    else:
        path.come(z, stretch.safe)
    path.rapid(r=min(begin, stretch.safe))
    first, at, step = len(path.motions), begin, PECK_WIDTHS * blade.width_mm
    while at - step > deep + CLEAR_MM:
        at -= step
        path.feed(feed, r=at)
        path.feed(feed, r=at + PECK_LIFT_MM)
    path.feed(feed, r=deep)
    segments = tuple(motion.segment for motion in path.motions[first:])
    path.rapid(r=stretch.safe)
    return Pass(segments, blade.width_mm)


def _straight(z: float, high: float, low: float) -> Points:
    return np.array([[z, high], [z, low]])


def _count(number: int, blade: Blade) -> Evidence:
    return Evidence(
        "plunges", "i", float(number), "",
        formula=f"no farther apart than {OVERLAP:.0%} of the blade's flat, closer on slopes",
        inputs=(Input("width of the blade", "CW", blade.width_mm, "mm"),),
    )  # fmt: skip
