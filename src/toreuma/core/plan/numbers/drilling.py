"""Speed, feed, torque and thrust of drilling, and how deep the point goes."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting import force
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.holes import drill_feed_mm_rev, drilling
from toreuma.core.cutting.speed import bound, lowest, surface_speed_rpm
from toreuma.core.model import DrillHole, Machine, Material
from toreuma.core.model.tool import Drill
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import AxialSpeed, axial_speed, pinned
from toreuma.core.plan.numbers.situations import rung_of_feed, rung_of_speed
from toreuma.core.spoken import q, said

__all__ = ["Hole", "carried_feed_mm_rev", "drill_numbers", "point_length_mm", "usual_feed_mm_rev"]

SPEED_SHARE = {"high-speed steel": 0.8}
LEAST_TURNS_SHARE, TURN_STEPS = 0.3, 40
"""A drill may turn so much more slowly than it could, to be fed as is usual; looked for in so many steps."""
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


def drill_numbers(work: Work, operation: DrillHole, tool: Drill, hole: Hole) -> tuple[Figures, Reasons]:
    """Speed, feed, depth (mm), torque (N m), thrust (N) and power (kW). Raises `OperationFault`."""
    machine, material = work.given.machine, work.given.stock.material
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    speed = _carried(work, tool, axial_speed(work, tool.material, tool.d_mm, share, "drilling"))
    feed, told = _feed(machine, material, tool, operation, speed.rpm)
    torque, thrust = drilling(material, tool.d_mm, feed, tool.point_deg)
    power = torque * speed.rpm / 9549.3
    there = force.available_power_kw(machine, speed.rpm)
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
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=speed.rpm, feed_mm_rev=feed, power_kw=power, power_there_kw=there)
    return figures, {
        **speed.reasons,
        Figure.FEED: told,
        Figure.HOLE_DEPTH: deep,
        Figure.TORQUE: Evidence(
            "torque",
            "M",
            torque,
            "N m",
            formula="both lips, kc at their chip thickness, at a quarter of D",
            source=force.KIENZLE,
        ),
        Figure.THRUST: Evidence(
            "thrust",
            "Ff",
            thrust,
            "N",
            formula="0.6 of the lips' force, half as much more for the chisel edge, a quarter if thinned",
            source=force.KIENZLE,
        ),
        Figure.POWER: Evidence(
            "power at the edge",
            "Pc",
            power,
            "kW",
            formula="Pc = M n / 9549",
            source=force.KIENZLE,
            limits=(Limit(f"spindle at {speed.rpm:.0f} rpm", there, "kW", bit=True),),
        ),
    }


def _carried(work: Work, tool: Drill, speed: AxialSpeed) -> AxialSpeed:
    """The speed, slower where the spindle cannot carry the usual feed at it: a drill that is fed too little rubs, one
    that turns more slowly only takes longer."""
    machine, material = work.given.machine, work.given.stock.material
    pins = work.operation.pins
    if pins.clamp_rpm is not None or pins.vc_m_min is not None:
        return speed
    feed = rung_of_feed(machine, usual_feed_mm_rev(material, tool))
    torque, _ = drilling(material, tool.d_mm, feed, tool.point_deg)

    def carries(rpm: float) -> bool:
        return torque * rpm / 9549.3 <= force.available_power_kw(machine, rpm)

    if carries(speed.rpm):
        return speed
    steps = (speed.rpm * LEAST_TURNS_SHARE ** (n / TURN_STEPS) for n in range(1, TURN_STEPS + 1))
    rungs = sorted({rung_of_speed(machine, rpm) for rpm in steps}, reverse=True)
    slower = next((rpm for rpm in rungs if carries(rpm)), None)
    if slower is None:
        return speed
    rpm = work.given.steps.turns(slower)
    limit = Limit(said("power at a feed of {}", q(feed, "mm/rev", "g")), rpm, "rpm", bit=True)
    limits = (*(replace(one, bit=False) for one in speed.n.limits), limit)
    return replace(speed, rpm=rpm, n=replace(speed.n, number=rpm, limits=limits))


def carried_feed_mm_rev(machine: Machine, material: Material, tool: Drill) -> float:
    """The most a drill is fed, mm/rev, up to what is usual, at any speed that suits it: as far as the spindle's power
    carries the torque of both lips (Kienzle)."""
    usual = usual_feed_mm_rev(material, tool)
    row = next((row for row in material.speeds if row.tool_material == tool.material), None)
    if row is None:
        return usual
    vc = row.rough_m_min * SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    fastest = min(surface_speed_rpm(vc, tool.d_mm), machine.max_rpm)
    speeds = [fastest * LEAST_TURNS_SHARE ** (n / TURN_STEPS) for n in range(TURN_STEPS + 1)]
    return max(_by_power(machine, material, tool, usual, rpm) for rpm in speeds)


def _by_power(machine: Machine, material: Material, tool: Drill, feed: float, rpm: float) -> float:
    """As much of a feed as the spindle carries at a speed, mm/rev: M grows with f^(1 - mc)."""
    torque, _ = drilling(material, tool.d_mm, feed, tool.point_deg)
    share = min(force.available_power_kw(machine, rpm) / max(torque * rpm / 9549.3, 1e-9), 1.0)
    return float(feed * share ** (1 / (1 - material.mc)))


def usual_feed_mm_rev(material: Material, tool: Drill) -> float:
    """Usual in the material for the diameter, within the drill's range, mm/rev."""
    low, high = tool.feed_mm_rev
    usual = drill_feed_mm_rev(material, tool.material, tool.d_mm)
    return (low + high) / 2 if usual is None else min(usual, high)


def _feed(
    machine: Machine, material: Material, tool: Drill, operation: DrillHole, rpm: float
) -> tuple[float, Evidence]:
    """What is usual in the material for its diameter, within the drill's range; less where the power is not there."""
    high = tool.feed_mm_rev[1]
    usual = drill_feed_mm_rev(material, tool.material, tool.d_mm)
    middle = usual_feed_mm_rev(material, tool)
    by_power = _by_power(machine, material, tool, middle, rpm)
    limits = [
        Limit("middle of the drill's range", middle, "mm/rev")
        if usual is None
        else Limit(said("usual in {} for Ø {}", material.name, q(tool.d_mm, "mm", "g")), usual, "mm/rev"),
        Limit("largest of the drill", high, "mm/rev"),
        Limit(f"power at {rpm:.0f} rpm", by_power, "mm/rev"),
    ]
    evidence = lowest(
        "feed",
        "f",
        "mm/rev",
        limits,
        formula="f = f10 (D/10)^0.65, × 1.2 for carbide; within the drill's range and the power",
    )
    number = max(rung_of_feed(machine, math.floor(bound(limits) * 1000 + 1e-6) / 1000), 0.001)
    wanted = operation.pins.feed_mm_rev
    told = pinned(replace(evidence, number=number, typable=True), wanted)
    return number if wanted is None else wanted, told
