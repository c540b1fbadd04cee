"""Speed, feed, torque and thrust of drilling, and how deep the point goes."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting import force
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.holes import drilling
from toreuma.core.cutting.speed import lowest
from toreuma.core.model import DrillHole, Machine, Material
from toreuma.core.model.tool import Drill
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.plan.numbers.situations import rung_of_feed

__all__ = ["Hole", "drill_numbers", "point_length_mm"]

SPEED_SHARE = {"high-speed steel": 0.8}
SPEED_SHARE_ELSE = 0.6
"""Drilling speed against that of roughing with the same tool material: typical."""


@dataclass(frozen=True)
class Hole:
    """Where the point starts and ends, and where the metal begins on the axis, all along Z in mm."""

    start_z: float
    end_z: float
    is_through: bool


def point_length_mm(tool: Drill) -> float:
    """From the tip to where the drill has its full diameter, mm: D/2 / tan(sigma/2); of a step drill its step too."""
    if tool.form == "step" and tool.step_length_mm is not None and tool.pilot_d_mm is not None:
        return tool.step_length_mm + (tool.d_mm - tool.pilot_d_mm) / 2 / math.tan(math.radians(tool.step_deg) / 2)
    return tool.d_mm / 2 / math.tan(math.radians(tool.point_deg) / 2)


def drill_numbers(work: Work, operation: DrillHole, tool: Drill, hole: Hole) -> dict[str, Evidence]:
    """Evidence of speed, feed, depth (mm), torque (N m), thrust (N) and power (kW). Raises `OperationFault`."""
    machine, material = work.given.machine, work.given.stock.material
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    vc, spindle = axial_speed(work, tool.material, tool.d_mm, share, "drilling")
    feed = _feed(machine, material, tool, operation, spindle.number)
    torque, thrust = drilling(material, tool.d_mm, feed.number, tool.point_deg)
    power = torque * spindle.number / 9549.3
    there = force.available_power_kw(machine, spindle.number)
    point = point_length_mm(tool)
    deep = Evidence(
        "depth of the point",
        "",
        hole.start_z - hole.end_z,
        "mm",
        formula="through: to the back, point and breakthrough"
        if hole.is_through
        else "as deep as the part allows, or typed",
        inputs=(
            Input("to the full diameter", "", hole.start_z - hole.end_z - point, "mm"),
            Input("point", "D/2 / tan(σ/2)", point, "mm"),
            Input("over the diameter", "L/D", (hole.start_z - hole.end_z) / tool.d_mm, "ratio"),
        ),
    )
    return {
        "vc": vc,
        "n": spindle,
        "f": feed,
        "depth": deep,
        "torque": Evidence(
            "torque", "M", torque, "N m", "both lips, kc at their chip thickness, at a quarter of D", force.KIENZLE
        ),
        "thrust": Evidence(
            "thrust", "Ff", thrust, "N", "0.6 of the lips' force along the axis; without the chisel edge", force.KIENZLE
        ),
        "power": Evidence(
            "power at the edge",
            "Pc",
            power,
            "kW",
            formula="Pc = M n / 9549",
            source=force.KIENZLE,
            limits=(Limit(f"spindle at {spindle.number:.0f} rpm", there, "kW", True),),
        ),
    }


def _feed(machine: Machine, material: Material, tool: Drill, operation: DrillHole, rpm: float) -> Evidence:
    """Middle of the drill's range, less where the spindle has not the power."""
    low, high = tool.feed_mm_rev
    middle = (low + high) / 2
    there = force.available_power_kw(machine, rpm)
    torque, _ = drilling(material, tool.d_mm, middle, tool.point_deg)
    share = min(there / max(torque * rpm / 9549.3, 1e-9), 1.0)
    by_power = middle * share ** (1 / (1 - material.mc))
    limits = [
        Limit("middle of the drill's range", middle, "mm/rev"),
        Limit(f"power at {rpm:.0f} rpm", by_power, "mm/rev"),
    ]
    evidence = lowest("feed", "f", "mm/rev", limits, formula="middle of the range, within the power")
    number = rung_of_feed(machine, math.floor(evidence.number * 1000 + 1e-6) / 1000)
    return pinned(replace(evidence, number=max(number, 0.001), pin="feed_mm_rev"), operation.pins.feed_mm_rev)
