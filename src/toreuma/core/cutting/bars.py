"""Boring bars: how far each material stands out before it chatters, and how far it gives way."""

import math

from toreuma.core.cutting.situation import BarHeld
from toreuma.core.model.tool import Bar

__all__ = ["bar_compliance_mm_n", "bar_held", "bar_limit"]

BAR_LIMITS = {"steel": 4.0, "tungsten alloy": 6.0, "carbide": 7.0}
DAMPED_LIMIT = 10.0
"""Usable overhang over diameter: typical; damped bars and more go farther than their material."""

BAR_E_N_MM2 = {"steel": 210_000.0, "tungsten alloy": 350_000.0, "carbide": 600_000.0}
"""Young's modulus of bar materials: typical."""


def bar_limit(bar: Bar) -> float:
    """Usable length over diameter."""
    return DAMPED_LIMIT if bar.damped else BAR_LIMITS[bar.material]


def bar_compliance_mm_n(bar: Bar, overhang_mm: float) -> float:
    """How far the tip of a bar gives way under 1 N across it: L^3 / (3 E I), I = pi d^4 / 64 (cantilever)."""
    inertia = math.pi * bar.diameter_mm**4 / 64
    return overhang_mm**3 / (3 * BAR_E_N_MM2[bar.material] * inertia)


def bar_held(bar: Bar, overhang_mm: float, allowed_mm: float) -> BarHeld:
    """A bar as the limits of a cut see it; ``allowed_mm`` is how far it may give way."""
    ratio = overhang_mm / bar.diameter_mm
    return BarHeld(ratio, bar_limit(bar), bar_compliance_mm_n(bar, overhang_mm), allowed_mm)
