"""What limits the spindle's speed whatever is cut: machine, chuck plate, bar behind the spindle, rest, centre."""

import math

from toreuma.core.cutting.evidence import Limit
from toreuma.core.cutting.whip import whip_limit_rpm
from toreuma.core.model import Centre, Hold, Machine, Rest, Stock, Tool

__all__ = ["BAR_BEHIND", "FreeBar", "free_bar", "live_limits", "quiet_up_to_rpm", "spindle_limits"]

BAR_BEHIND = "bar behind the spindle"

FreeBar = tuple[float, float, float, float, float]
"""Length (mm), E (N/mm2), moment of inertia (mm4), section (mm2) and density (kg/m3) of the bar behind the spindle."""


def spindle_limits(
    machine: Machine, hold: Hold, stock: Stock, centre: Centre | None = None, rest: Rest | None = None
) -> tuple[Limit, ...]:
    """Highest speeds, rpm, of everything that turns with the work."""
    whip_rpm = quiet_up_to_rpm(hold, stock)
    limits = [Limit("machine", machine.max_rpm, "rpm"), Limit("chuck plate", hold.max_rpm, "rpm")]
    if whip_rpm is not None and whip_rpm < math.inf:
        limits.append(Limit(BAR_BEHIND, math.floor(whip_rpm), "rpm"))
    if rest is not None:
        limits.append(Limit(f"{rest.kind} rest", rest.max_rpm, "rpm"))
    if centre is not None:
        limits.append(Limit("live centre", centre.max_rpm, "rpm"))
    return tuple(limits)


def live_limits(machine: Machine, tool: Tool) -> tuple[Limit, ...]:
    """What limits the speed of a driven tool."""
    live = machine.carrier_of(tool.station).live
    return (Limit("drive of the tool", live.max_rpm, "rpm"),) if live is not None else ()


def free_bar(hold: Hold, stock: Stock) -> FreeBar | None:
    """The bar that stands free behind the spindle; None where none does or its stiffness is not known."""
    material = stock.material
    if hold.bar_behind_mm <= 0 or stock.length_mm is not None or stock.kind == "free":
        return None
    if material.e_n_mm2 is None:
        return None
    r = stock.round_d_mm / 2
    bore = stock.bore_d_mm / 2 if stock.kind == "tube" else 0.0
    inertia = math.pi / 4 * (r**4 - bore**4)
    return hold.bar_behind_mm, material.e_n_mm2, inertia, stock.section_mm2(), material.density_kg_m3


def quiet_up_to_rpm(hold: Hold, stock: Stock) -> float | None:
    """Half the first bending frequency of the bar that stands free behind the spindle, rpm; None where none does."""
    bar = free_bar(hold, stock)
    return None if bar is None else whip_limit_rpm(*bar)
