"""Reaming on the axis: a hole drilled a little smaller is brought to size, in and out at feed."""

import math
from dataclasses import replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.speed import lowest, surface_speed_rpm
from toreuma.core.findings import Finding
from toreuma.core.model import ReamHole
from toreuma.core.model.tool import Reamer
from toreuma.core.motion import Spindle
from toreuma.core.plan.axial import deepest_z, metal_front, swept
from toreuma.core.plan.grounds import rung_of_feed, rung_of_speed
from toreuma.core.plan.hold import speed_limits
from toreuma.core.plan.result import Cuts, OperationFault, Pass
from toreuma.core.plan.work import APPROACH_MM, Path, Work

__all__ = ["plan_ream"]

SPEED_SHARE = {"high-speed steel": 0.4}
SPEED_SHARE_ELSE = 0.3
"""Reaming speed against that of roughing with the same tool material: typical."""

FRONT_SHARE = 0.47
"""Radius of the front of the lead, which does not cut into the full, as a share of the drilled diameter."""

FEED_PER_D, LEAST_FEED, MOST_FEED = 0.02, 0.05, 0.5
"""Feed as a share of the diameter, within these bounds, mm/rev: typical."""

STOCK_SHARE, LEAST_STOCK_MM, MOST_STOCK_MM = 0.02, 0.1, 0.4
"""What is left for the reamer on diameter, as a share of it and within these bounds, mm: typical."""


def plan_ream(work: Work, operation: ReamHole) -> Cuts:
    """Ream the hole on the axis as deep as the part and the hole allow."""
    tool = work.tool
    if not isinstance(tool, Reamer):
        raise OperationFault("tool.kind", f"{tool.id} is not a reamer", "choose a reamer")
    start = metal_front(work, tool.d_mm / 2)
    if start is None:
        note = Finding("note", "ream.nothing", "there is no metal for the reamer to take", operation=operation.id)
        return Cuts((), (), {}, (note,))
    start = float(work.stock.bounds[2])
    full = work.stock.intersection(swept(work, start, min(start, 0.0) - tool.lead_mm))
    before = 2 * float(full.bounds[1]) if not full.is_empty else tool.d_mm
    if before < 0.5 * tool.d_mm:
        raise OperationFault(
            "ream.full",
            f"there is no hole for {tool.id}, Ø {tool.d_mm:g} mm",
            f"drill Ø {tool.d_mm - _stock(tool):.1f} mm first",
        )
    back = work.scene.profile.back_z
    through = back - tool.lead_mm - operation.breakthrough_mm
    end = max(deepest_z(work, start, through), _bottom(work, before))
    if operation.depth_mm is not None:
        end = -(operation.depth_mm + tool.lead_mm)
    end = math.ceil(end * 1000) / 1000
    if end > min(start, 0.0) - tool.lead_mm:
        raise OperationFault(
            "ream.wide", f"the part has no room for {tool.id}, Ø {tool.d_mm:g} mm", "choose the reamer of the hole"
        )
    values = _numbers(work, operation, tool, before, start - end)
    feed = values["f"].number
    path = Path(work, Spindle("fixed", values["n"].number))
    path.come(start + APPROACH_MM, 0.0)
    begin = len(path.motions)
    path.feed(feed, z=end)
    drawn = (path.motions[begin].segment,)
    path.feed(2 * feed, z=start + APPROACH_MM)
    path.leave()
    done = swept(work, start + APPROACH_MM, end)
    findings = tuple(_findings(operation, tool, before, start - end))
    sized = Pass(drawn, (tool.d_mm - before) / 2, finishing=True)
    return Cuts(tuple(path.motions), (sized,), values, findings, coverage=lambda: done)


def _stock(tool: Reamer) -> float:
    """What is left for the reamer, mm on diameter."""
    return min(max(STOCK_SHARE * tool.d_mm, LEAST_STOCK_MM), MOST_STOCK_MM)


def _bottom(work: Work, before: float) -> float:
    """How far the drilled hole lets the reamer in before its front meets full metal."""
    core = metal_front(work, FRONT_SHARE * before)
    return -math.inf if core is None else core


def _numbers(work: Work, operation: ReamHole, tool: Reamer, before: float, depth: float) -> dict[str, Evidence]:
    job, pins, material = work.job, operation.pins, work.job.stock.material
    row = next((row for row in material.speeds if row.tool_material == tool.material), None)
    if row is None and pins.vc_m_min is None:
        raise OperationFault(
            "speed.unknown",
            f"no starting speed for {tool.material} in {material.name}",
            "pin a surface speed or add one to the material",
        )
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    table = row.rough_m_min if row is not None else 0.0
    vc = Evidence(
        "surface speed",
        "vc",
        pins.vc_m_min or round(table * share, 1),
        "m/min",
        formula="roughing speed of the table, times the share for reaming",
        source=material.source,
        inputs=(Input("table, roughing", "vc0", table, "m/min"), Input("for reaming", "×", share, "ratio")),
        pin="vc_m_min",
        pinned=pins.vc_m_min is not None,
        proposed=round(table * share, 1) if pins.vc_m_min is not None else None,
    )
    by_surface = Limit(f"surface speed on Ø {tool.d_mm:g} mm", surface_speed_rpm(vc.number, tool.d_mm), "rpm")
    spindle = lowest("spindle speed", "n", "rpm", [*speed_limits(job), by_surface], formula="n = 1000 vc / (π D)")
    usual = min(max(FEED_PER_D * tool.d_mm, LEAST_FEED), MOST_FEED)
    feed = rung_of_feed(job, round(usual, 3))
    return {
        "vc": vc,
        "n": replace(spindle, number=float(math.floor(rung_of_speed(job, spindle.number)))),
        "f": Evidence(
            "feed",
            "f",
            pins.feed_mm_rev or feed,
            "mm/rev",
            formula="0.02 D, from 0.05 to 0.5 mm/rev",
            pin="feed_mm_rev",
            pinned=pins.feed_mm_rev is not None,
            proposed=feed if pins.feed_mm_rev is not None else None,
        ),
        "ap": Evidence(
            "stock for the reamer",
            "",
            (tool.d_mm - before) / 2,
            "mm",
            measured_on="on radius",
            formula="half of its diameter less that of the hole",
            limits=(Limit("usual", _stock(tool) / 2, "mm"),),
        ),
        "depth": Evidence("depth of the front", "", depth, "mm", inputs=(Input("lead", "", tool.lead_mm, "mm"),)),
    }


def _findings(operation: ReamHole, tool: Reamer, before: float, depth: float) -> list[Finding]:
    found, left = [], tool.d_mm - before
    if depth > tool.flute_length_mm:
        what = f"{depth:.1f} mm deep, the flutes of {tool.id} are {tool.flute_length_mm:g} mm long"
        found.append(Finding("error", "drill.flute", what, "it rubs with its shank: take a longer one", operation.id))
    if left > 2 * _stock(tool):
        what = f"{left:.2f} mm on diameter is left for {tool.id}, usual {_stock(tool):.2f} mm"
        found.append(Finding("warning", "ream.much", what, "a reamer sizes, it does not drill", operation.id))
    if left < 0.4 * _stock(tool):
        what = f"{left:.2f} mm on diameter is left for {tool.id}, usual {_stock(tool):.2f} mm"
        found.append(Finding("warning", "ream.little", what, "it rubs and leaves the hole as it was", operation.id))
    return found
