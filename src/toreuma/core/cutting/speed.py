"""Surface speed, spindle speed and the clamp."""

import math
from collections.abc import Iterable

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.motion import Spindle

__all__ = ["bound", "clamp_diameter", "lowest", "spindle_rpm", "surface_speed_rpm"]


def surface_speed_rpm(vc_m_min: float, d_mm: float) -> float:
    """Spindle speed for a surface speed on a diameter: n = 1000 vc / (pi d). Infinite on the axis."""
    return 1000 * vc_m_min / (math.pi * d_mm) if d_mm > 0 else math.inf


def clamp_diameter(vc_m_min: float, clamp_rpm: float) -> float:
    """The diameter, mm, below which the clamp holds the speed: d = 1000 vc / (pi n)."""
    return 1000 * vc_m_min / (math.pi * clamp_rpm)


def spindle_rpm(spindle: Spindle, r_mm: float, machine_max_rpm: float) -> float:
    """Spindle speed, rpm, with the programmed point at radius ``r_mm``."""
    if spindle.mode == "stopped":
        return 0.0
    if spindle.mode == "fixed":
        return min(spindle.value, machine_max_rpm)
    ceiling = min(spindle.clamp_rpm or machine_max_rpm, machine_max_rpm)
    return min(surface_speed_rpm(spindle.value, 2 * abs(r_mm)), ceiling)


def bound(limits: Iterable[Limit]) -> float:
    """How far several limits let a number go."""
    return min(limit.number for limit in limits)


def lowest(name: str, symbol: str, unit: str, limits: list[Limit], **more: object) -> Evidence:
    """The lowest of several limits, the one that bit marked."""
    least = min(limits, key=lambda limit: limit.number)
    marked = tuple(Limit(x.label, x.number, x.unit, bit=x is least) for x in limits)
    return Evidence(name, symbol, least.number, unit, limits=marked, **more)  # type: ignore[arg-type]


def clamp_inputs(vc_m_min: float, clamp_rpm: float) -> tuple[Input, ...]:
    return (
        Input("surface speed", "vc", vc_m_min, "m/min"),
        Input("clamp bites below diameter", "d", clamp_diameter(vc_m_min, clamp_rpm), "mm"),
    )
