"""A bar standing free behind the spindle: the speed at which it begins to whip."""

import math

__all__ = ["first_bending_rpm", "whip_limit_rpm"]

SAFE_SHARE = 0.5
"""Share of the first bending frequency up to which a bar turns quietly."""


def first_bending_rpm(length_mm: float, e_n_mm2: float, i_mm4: float, area_mm2: float, density_kg_m3: float) -> float:
    """First bending frequency of a free end as a cantilever: ``w = 3.516 sqrt(E I / (rho A L^4))``, as rpm."""
    rho = density_kg_m3 * 1e-12  # t/mm3, so that N, mm and s go together
    omega = 3.516 * math.sqrt(e_n_mm2 * i_mm4 / (rho * area_mm2 * length_mm**4))
    return omega * 30 / math.pi


def whip_limit_rpm(length_mm: float, e_n_mm2: float, i_mm4: float, area_mm2: float, density_kg_m3: float) -> float:
    """Half of the first bending frequency; infinite without an overhang."""
    if length_mm <= 0:
        return math.inf
    return SAFE_SHARE * first_bending_rpm(length_mm, e_n_mm2, i_mm4, area_mm2, density_kg_m3)
