"""Estimate of the edge's temperature, and where a tool material softens."""

from toreuma.core.model import Material

__all__ = ["SOFTENING_C", "edge_temperature_c"]

AMBIENT_C = 20.0
CONTACT_SHARE = 0.65
"""Share of the energy that heats chip and tool where they touch: chosen so that coated carbide at its starting speed
comes to the 700 to 1000 degrees that are usually measured."""

SOURCE = "Cook 1973, dimensional analysis of cutting temperature; an estimate, ±25 %"

SOFTENING_C = {
    "high-speed steel": 600.0,
    "uncoated carbide": 1000.0,
    "coated carbide": 1200.0,
    "cermet": 1200.0,
    "ceramic": 1300.0,
    "CBN": 1300.0,
    "PCD": 700.0,
}
"""Temperature at the edge at which a tool material loses its hardness, or PCD burns: typical."""


def temperature_rise_k(
    energy_j_mm3: float, heat_j_mm3_k: float, diffusivity_mm2_s: float, vc_m_min: float, thickness_mm: float
) -> float:
    """Mean rise at the chip and tool, K: 0.4 U/(rho c) (v h / a)^(1/3), v in mm/s."""
    v = vc_m_min * 1000 / 60
    return float(0.4 * energy_j_mm3 / heat_j_mm3_k * (v * thickness_mm / diffusivity_mm2_s) ** (1 / 3))


def edge_temperature_c(material: Material, kc_n_mm2: float, vc_m_min: float, thickness_mm: float) -> float | None:
    """Temperature at the edge, degrees C; None where the material's heat data are not known.

    The specific energy is the specific cutting force (1000 N/mm2 is 1 J/mm3), of which a share heats the contact.
    """
    if material.conductivity_w_m_k is None or material.heat_j_kg_k is None:
        return None
    heat = material.density_kg_m3 * material.heat_j_kg_k * 1e-9
    diffusivity = material.conductivity_w_m_k / (material.density_kg_m3 * material.heat_j_kg_k) * 1e6
    return AMBIENT_C + temperature_rise_k(CONTACT_SHARE * kc_n_mm2 / 1000, heat, diffusivity, vc_m_min, thickness_mm)
