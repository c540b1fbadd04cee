"""Cutting force and power after Kienzle, and what the spindle has."""

import math

import numpy as np

from toreuma.core.model import Machine, Material

__all__ = ["available_power_kw", "cutting_force_n", "cutting_power_kw", "specific_force_n_mm2"]

KIENZLE = "Kienzle 1952; typical value, ±20 %"


def specific_force_n_mm2(material: Material, chip_thickness_mm: float) -> float:
    """Specific cutting force kc = kc1.1 h^-mc, N/mm2, for undeformed chip thickness h in mm (h > 0)."""
    return material.kc11_n_mm2 * math.pow(chip_thickness_mm, -material.mc)


def cutting_force_n(material: Material, ap_mm: float, feed_mm_rev: float, entering_angle_deg: float) -> float:
    """Main cutting force Fc = kc b h = kc ap f, N, with h = f sin(kappa) and ap on radius (Kienzle 1952)."""
    kappa = math.radians(entering_angle_deg)
    thickness = feed_mm_rev * math.sin(kappa)
    return specific_force_n_mm2(material, thickness) * ap_mm * feed_mm_rev


def cutting_power_kw(force_n: float, vc_m_min: float) -> float:
    """Power at the edge, kW: Pc = Fc vc / 60000."""
    return force_n * vc_m_min / 60_000


def available_power_kw(machine: Machine, rpm: float) -> float:
    """Power at the edge, kW, the spindle has at ``rpm``: motor curve times efficiency."""
    speeds = [point.rpm for point in machine.power]
    powers = [point.power_kw for point in machine.power]
    return float(np.interp(rpm, speeds, powers)) * machine.efficiency
