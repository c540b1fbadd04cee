"""Numbers and places as a person reads them."""

import math

from toreuma.core.units import Shown, System, show

__all__ = ["both_ways", "clock", "diameter", "length", "place"]


def length(value_mm: float, system: System) -> Shown:
    return show(value_mm, "mm", system)


def diameter(r_mm: float, system: System, trim: bool = True) -> str:
    """A radius shown as the diameter it makes, with the sign, trimmed."""
    return f"Ø {show(2 * r_mm, 'mm', system, trim=trim).number}"


def place(z_mm: float, r_mm: float, system: System) -> str:
    """A place on the half section, diameter and radius both named."""
    z, d, r = (show(value, "mm", system) for value in (z_mm, 2 * abs(r_mm), abs(r_mm)))
    return f"Z {z.number}   Ø {d.number}   r {r.number} {z.unit}"


def both_ways(z_mm: float, r_mm: float, system: System) -> str:
    """A place in both systems, the person's own first."""
    other: System = "inch" if system == "mm" else "mm"
    return f"{place(z_mm, r_mm, system)}      {place(z_mm, r_mm, other)}"


def clock(seconds: float) -> str:
    """Minutes and seconds: 1:05.2; a dash where the time is not known."""
    if not math.isfinite(seconds):
        return "–"
    tenths = round(max(seconds, 0.0) * 10)
    return f"{tenths // 600}:{tenths % 600 / 10:04.1f}"
