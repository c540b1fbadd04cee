"""Roughing parallel to the contour: layer by layer along the finished shape, for castings and forgings."""

import math
from dataclasses import replace

import shapely

from toreuma.core.cutting.figures import Reasons
from toreuma.core.findings import Finding
from toreuma.core.geometry.recover import FIT_MM
from toreuma.core.geometry.region import Region, thickness
from toreuma.core.model import RoughOd
from toreuma.core.plan.ground.path import APPROACH_MM, PULL_OUT_MM, Path
from toreuma.core.plan.ground.result import Cuts, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.passes import passes
from toreuma.core.plan.numbers.situations import spindle_of
from toreuma.core.plan.turn.as_cycle import pattern_as_cycle
from toreuma.core.plan.turn.stretch import Stretch, reach_of
from toreuma.core.propose.proposal import Proposal

__all__ = ["rough_along_contour"]

LEAST_MM = 0.05

SLANT = math.sqrt(2.0)
"""A cycle moves the contour along both axes: on a slope of 45 degrees its passes are so much deeper."""


def rough_along_contour(
    work: Work, operation: RoughOd, stretch: Stretch, touched: Region, proposal: Proposal, reasons: Reasons
) -> Cuts:
    """Even layers between the blank and what is left for finishing, the outermost first.

    ``touched`` are the nose centres at which the insert meets metal.
    """
    limit, feed, _ = proposal.cut
    clear = shapely.clip_by_rect(stretch.stock, stretch.nose_to, stretch.bottom, stretch.nose_from, 1e4)
    thick = thickness(clear.difference(stretch.target), stretch.target) - operation.leave_radial_mm
    if thick < LEAST_MM:
        note = Finding("note", "rough.nothing", "there is nothing to rough here", operation=operation.id)
        return Cuts(
            motions=(),
            passes=(),
            reasons=reasons,
            findings=(note, *stretch.findings),
            proposal=proposal,
            figures=proposal.figures,
        )
    slant = SLANT if operation.written == "whole" else 1.0
    count = max(1, math.ceil(slant * thick / limit - 1e-6))
    depth = thick / count
    path = Path(work, spindle_of(work, proposal), stretch.frame, stretch.safe)
    reasons = {**reasons, **passes([depth] * count, limit, "on radius")}
    figures = replace(proposal.figures, ap_mm=depth)
    if operation.written == "whole":
        leave = (operation.leave_axial_mm, operation.leave_radial_mm)
        made, cycles, _ = pattern_as_cycle(work, operation, path, thick, count, leave, feed)
        path.leave()
        told, every = stretch.findings, tuple(cycles)
        return Cuts(
            motions=tuple(path.motions),
            passes=tuple(made),
            reasons=reasons,
            findings=told,
            proposal=proposal,
            cycles=every,
            figures=figures,
        )
    drawn = []
    for layer in range(count - 1, -1, -1):
        more = layer * depth
        reach = reach_of(work, stretch, operation.leave_axial_mm + more, operation.leave_radial_mm + more)
        line = reach.envelope.points
        line = line[line[:, 1] > stretch.floor - 1e-9] if stretch.frame.swap is False else line
        if len(line) < 2:
            continue
        begin = (float(line[0, 0]), float(line[0, 1]))
        beside = shapely.clip_by_rect(touched, -1e6, begin[1], 1e6, 1e6)  # a leaning edge meets the front far above
        clear_z = max(begin[0], begin[0] if beside.is_empty else float(beside.bounds[2])) + APPROACH_MM
        if path.motions:
            path.rapid(r=stretch.safe)
            path.rapid(z=clear_z)
        else:
            path.come(clear_z, stretch.safe)
        path.rapid(r=begin[1])
        first = len(path.motions)
        path.feed(feed, *begin)
        path.along(path.recovered(line, FIT_MM), feed)
        drawn.append(Pass(tuple(motion.segment for motion in path.motions[first:]), depth))
        path.feed(feed, r=path.nose[1] + PULL_OUT_MM)
    path.leave()
    return Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=stretch.findings,
        proposal=proposal,
        figures=figures,
    )
