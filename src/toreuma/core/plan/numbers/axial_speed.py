"""Surface speed and spindle speed of a tool that turns, or is turned about, at one speed the whole way."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.cutting.speed import bound, lowest, surface_speed_rpm
from toreuma.core.cutting.spindle_limits import live_limits
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.standing import speed_limits
from toreuma.core.plan.numbers.derates import counted
from toreuma.core.plan.numbers.situations import rung_of_speed
from toreuma.core.spoken import q, said

__all__ = ["AxialSpeed", "axial_speed", "pinned"]


@dataclass(frozen=True)
class AxialSpeed:
    """Surface speed and spindle speed, with why."""

    vc_m_min: float
    rpm: float
    vc: Evidence
    n: Evidence

    @property
    def reasons(self) -> Reasons:
        return {Figure.SPEED: self.vc, Figure.TURNS: self.n}


def axial_speed(work: Work, tool_material: str, d_mm: float, share: float, doing: str) -> AxialSpeed:
    """Surface speed, m/min, as a share of that of roughing less every derate, and the spindle speed, rpm, at least 1.

    Raises `OperationFault` where the material has no speed for the tool material and none is pinned.
    """
    given, pins, material = work.given, work.operation.pins, work.given.stock.material
    row = next((row for row in material.speeds if row.tool_material == tool_material), None)
    if row is None and pins.vc_m_min is None:
        raise OperationFault(
            "speed.unknown",
            f"no starting speed for {tool_material} in {material.name}",
            "pin a surface speed or add one to the material",
        )
    factors = [one for one in counted(given, roughing=False, opened=work.interruption) if one.speed != 1]
    table = row.rough_m_min if row is not None else 0.0
    usual = round(table * share * math.prod(one.speed for one in factors), 1)
    vc = Evidence(
        "surface speed",
        "vc",
        usual,
        "m/min",
        formula=f"roughing speed of the table, times the share for {doing} and the factors",
        source=material.source,
        inputs=(
            Input("table, roughing", "vc0", table, "m/min"),
            Input(f"for {doing}", "×", share, "ratio"),
            *(Input(one.name, "×", one.speed, "ratio") for one in factors),
        ),
        typable=True,
    )
    vc_m_min = usual if pins.vc_m_min is None else pins.vc_m_min
    by_surface = Limit(said("surface speed on Ø {}", q(d_mm, "mm", "g")), surface_speed_rpm(vc_m_min, d_mm), "rpm")
    driven = work.tool.mount != "still"
    others = live_limits(given.machine, work.tool) if driven else speed_limits(given)
    limits = [*others, by_surface]
    rpm = given.steps.turns(bound(limits) if driven else rung_of_speed(given.machine, bound(limits)))
    spindle = lowest("spindle speed", "n", "rpm", limits, formula="n = 1000 vc / (π D)")
    spindle = replace(spindle, number=rpm, typable=True)
    clamp = None if pins.clamp_rpm is None else given.steps.turns(pins.clamp_rpm, typed=True)
    return AxialSpeed(vc_m_min, rpm if clamp is None else clamp, pinned(vc, pins.vc_m_min), pinned(spindle, clamp))


def pinned(evidence: Evidence, wanted: float | None) -> Evidence:
    """The evidence with the person's own number in it, where there is one."""
    if wanted is None:
        return evidence
    return replace(evidence, pinned=True, proposed=evidence.number, number=wanted)
