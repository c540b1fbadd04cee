"""Reaming on the axis: a hole drilled a little smaller is brought to size, in and out at feed."""

import math

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.findings import Finding
from toreuma.core.model import ReamHole
from toreuma.core.model.tool import Reamer
from toreuma.core.motion import Spindle
from toreuma.core.plan.axis.axial import before_metal, deepest_z, metal_front, swept
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.plan.numbers.situations import rung_of_feed
from toreuma.core.spoken import q, said

__all__ = ["FOLLOWS_MM", "plan_ream", "reaming_stock_mm"]

SPEED_SHARE = {"high-speed steel": 0.4}
SPEED_SHARE_ELSE = 0.3
"""Reaming speed against that of roughing with the same tool material: typical."""

FRONT_SHARE = 0.47
"""Radius of the front of the lead, which does not cut into the full, as a share of the drilled diameter."""

FEED_PER_D, LEAST_FEED, MOST_FEED = 0.02, 0.05, 0.5
"""Feed as a share of the diameter, within these bounds, mm/rev: typical."""

STOCK_SHARE, LEAST_STOCK_MM, MOST_STOCK_MM = 0.02, 0.1, 0.4
"""What is left for the reamer on diameter, as a share of it and within these bounds, mm: typical."""


OUT_FEEDS, MOST_OUT_MM = 20.0, 5.0
"""It is drawn out turning forward, so many times as fast and no faster than mm/rev: typical, so that no land marks the
wall and chips come along."""

FOLLOWS_MM = 0.5
"""A shank thinner than the hole by this much follows the flutes into it."""

PAST_EDGE_MM = 3.0
"""The hole is measured so far behind its edge."""


def plan_ream(work: Work, operation: ReamHole) -> Cuts:
    """Ream the hole on the axis as deep as the part and the hole allow."""
    tool = work.tool
    if not isinstance(tool, Reamer):
        raise OperationFault("tool.kind", f"{tool.id} is not a reamer", "choose a reamer")
    start = metal_front(work, tool.d_mm / 2)
    if start is None:
        note = Finding("note", "ream.nothing", "there is no metal for the reamer to take", operation=operation.id)
        return Cuts(motions=(), passes=(), reasons={}, findings=(note,))
    start = float(work.stock.bounds[2])
    inner = min(start, 0.0) - tool.lead_mm - PAST_EDGE_MM  # behind a broken edge
    full = work.stock.intersection(swept(work, start, inner))
    before = 2 * float(full.bounds[1]) if not full.is_empty else tool.d_mm
    if before < 0.5 * tool.d_mm:
        raise OperationFault(
            "ream.full",
            said("there is no hole for {}, Ø {}", tool.id, q(tool.d_mm, "mm", "g")),
            said("drill Ø {} first", q(tool.d_mm - reaming_stock_mm(tool), "mm", ".1f")),
        )
    back = work.scene.profile.back_z
    through = back - tool.lead_mm - operation.breakthrough_mm
    end = max(deepest_z(work, start, through), _bottom(work, before))
    if operation.depth_mm is not None:
        end = -(operation.depth_mm + tool.lead_mm)
    end = math.ceil(end * 1000) / 1000
    if end > min(start, 0.0) - tool.lead_mm:
        raise OperationFault(
            "ream.wide",
            said("the part has no room for {}, Ø {}", tool.id, q(tool.d_mm, "mm", "g")),
            "choose the reamer of the hole",
        )
    figures, reasons = _numbers(work, operation, tool, before, start - end)
    feed = figures.feed_mm_rev or 0.0
    path = Path(work, Spindle("fixed", figures.rpm or 0.0))
    clear = before_metal(start)
    path.come(start + APPROACH_MM, 0.0)
    path.rapid(z=clear)
    begin = len(path.motions)
    path.feed(feed, z=end)
    drawn = (path.motions[begin].segment,)
    path.feed(max(min(OUT_FEEDS * feed, MOST_OUT_MM), feed), z=clear)
    path.rapid(z=start + APPROACH_MM)
    path.leave()
    done = swept(work, start + APPROACH_MM, end)
    findings = tuple(_findings(operation, tool, before, start - end))
    sized = Pass(drawn, (tool.d_mm - before) / 2, finishing=True)
    return Cuts(
        motions=tuple(path.motions),
        passes=(sized,),
        reasons=reasons,
        findings=findings,
        coverage=lambda: done,
        figures=figures,
    )


def reaming_stock_mm(tool: Reamer) -> float:
    """What is left for the reamer, mm on diameter."""
    return min(max(STOCK_SHARE * tool.d_mm, LEAST_STOCK_MM), MOST_STOCK_MM)


def _bottom(work: Work, before: float) -> float:
    """How far the drilled hole lets the reamer in before its front meets full metal."""
    core = metal_front(work, FRONT_SHARE * before)
    return -math.inf if core is None else core


def _numbers(work: Work, operation: ReamHole, tool: Reamer, before: float, depth: float) -> tuple[Figures, Reasons]:
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    speed = axial_speed(work, tool.material, tool.d_mm, share, "reaming")
    usual = rung_of_feed(work.given.machine, round(min(max(FEED_PER_D * tool.d_mm, LEAST_FEED), MOST_FEED), 3))
    wanted, ap = operation.pins.feed_mm_rev, (tool.d_mm - before) / 2
    feed = Evidence(
        "feed",
        "f",
        usual,
        "mm/rev",
        formula="0.02 D, from 0.05 to 0.5 mm/rev",
        source="typical for reamers, machining textbooks",
        typable=True,
    )
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=speed.rpm, feed_mm_rev=usual if wanted is None else wanted, ap_mm=ap)
    return figures, {
        **speed.reasons,
        Figure.FEED: pinned(feed, wanted),
        Figure.DEPTH: Evidence(
            "stock for the reamer",
            "",
            ap,
            "mm",
            measured_on="on radius",
            formula="half of its diameter less that of the hole",
            limits=(Limit("usual", reaming_stock_mm(tool) / 2, "mm"),),
        ),
        Figure.HOLE_DEPTH: Evidence(
            "depth of the front", "", depth, "mm", inputs=(Input("lead", "", tool.lead_mm, "mm"),)
        ),
    }


def _findings(operation: ReamHole, tool: Reamer, before: float, depth: float) -> list[Finding]:
    found, left = [], tool.d_mm - before
    if depth > tool.flute_length_mm and tool.shank_d_mm > tool.d_mm - FOLLOWS_MM:
        what = said(
            "{} deep, the flutes of {} are {} long", q(depth, "mm", ".1f"), tool.id, q(tool.flute_length_mm, "mm", "g")
        )
        found.append(
            Finding("error", "drill.flute", what, "it rubs with its shank: take a longer one", operation=operation.id)
        )
    if left > 2 * reaming_stock_mm(tool):
        what = said("{} on diameter is left for {}, usual {}", q(left), tool.id, q(reaming_stock_mm(tool)))
        found.append(Finding("warning", "ream.much", what, "a reamer sizes, it does not drill", operation=operation.id))
    if left < 0.4 * reaming_stock_mm(tool):
        what = said("{} on diameter is left for {}, usual {}", q(left), tool.id, q(reaming_stock_mm(tool)))
        found.append(
            Finding("warning", "ream.little", what, "it rubs and leaves the hole as it was", operation=operation.id)
        )
    return found
