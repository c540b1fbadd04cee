"""Cutting force and power after Kienzle, and what the spindle has."""

import math
from itertools import pairwise

from toreuma.core.cutting.engagement import engaged
from toreuma.core.model import Machine, Material
from toreuma.core.model.spindles import PowerPoint

__all__ = [
    "WEAR_FACTOR",
    "available_power_kw",
    "corrected",
    "cutting_force_n",
    "cutting_power_kw",
    "force_with_nose_n",
    "in_plane_n",
    "specific_force_n_mm2",
    "torque_nm",
]

RAKE_PER_DEG, WEAR_FACTOR = 0.015, 1.3
RAKE_BASE_DEG = {"K": 2.0}
RAKE_BASE_ELSE_DEG = 6.0
"""Rake angle the specific forces were measured with: 2 degrees for cast iron, 6 for the rest (Kienzle)."""

IN_PLANE_SHARE = 0.55
"""Force in the plane of feed and depth as a share of the cutting force: typical for a sharp edge."""

KIENZLE = "Kienzle 1952; typical value, ±20 %"


def specific_force_n_mm2(material: Material, chip_thickness_mm: float) -> float:
    """Specific cutting force kc = kc1.1 h^-mc, N/mm2, for undeformed chip thickness h in mm (h > 0)."""
    return material.kc11_n_mm2 * math.pow(chip_thickness_mm, -material.mc)


def cutting_force_n(material: Material, ap_mm: float, feed_mm_rev: float, entering_angle_deg: float) -> float:
    """Main cutting force Fc = kc b h = kc ap f, N, with h = f sin(kappa) and ap on radius (Kienzle 1952)."""
    kappa = math.radians(entering_angle_deg)
    thickness = feed_mm_rev * math.sin(kappa)
    return specific_force_n_mm2(material, thickness) * ap_mm * feed_mm_rev


def corrected(force_n: float, group: str, rake_deg: float, worn: bool = False) -> float:
    """A cutting force for another rake angle (1 - 0.015 per degree) and, ``worn``, for the end of the edge's life."""
    base = RAKE_BASE_DEG.get(group, RAKE_BASE_ELSE_DEG)
    return force_n * (1 - RAKE_PER_DEG * (rake_deg - base)) * (WEAR_FACTOR if worn else 1.0)


def force_with_nose_n(
    material: Material, ap_mm: float, feed_mm_rev: float, nose_radius_mm: float, entering_deg: float
) -> float:
    """Main cutting force, N, at the equivalent chip thickness of an edge with a nose (Kienzle with Woxen)."""
    edge = engaged(ap_mm, feed_mm_rev, nose_radius_mm, entering_deg)
    return specific_force_n_mm2(material, edge.thickness_mm) * ap_mm * feed_mm_rev


def in_plane_n(
    force_n: float, ap_mm: float, feed_mm_rev: float, nose_radius_mm: float, entering_deg: float
) -> tuple[float, float]:
    """Feed and passive force, N: the in-plane force square to the chord of the engaged edge (Colwell)."""
    angle = math.radians(engaged(ap_mm, feed_mm_rev, nose_radius_mm, entering_deg).entering_deg)
    return IN_PLANE_SHARE * force_n * math.sin(angle), IN_PLANE_SHARE * force_n * math.cos(angle)


def cutting_power_kw(force_n: float, vc_m_min: float) -> float:
    """Power at the edge, kW: Pc = Fc vc / 60000."""
    return force_n * vc_m_min / 60_000


KW_RPM_NM = 9549.3
"""60000 / 2π: torque in N m is so many times power in kW over speed in rpm."""


def available_power_kw(machine: Machine, rpm: float, minutes: float | None = None) -> float:
    """Power at the edge, kW, the spindle has at ``rpm``: motor curve times efficiency, no more than its torque gives.

    The continuous rating; where a load lasts no longer than the intermittent one may be drawn, that.
    """
    short = machine.short_power and minutes is not None and minutes <= machine.short_minutes
    power = _along(machine.short_power if short else machine.power, rpm) * machine.efficiency
    return power if machine.torque_nm is None else min(power, machine.torque_nm * rpm / KW_RPM_NM)


def torque_nm(power_kw: float, rpm: float) -> float:
    """Torque of a power at a speed: M = 9549 P / n."""
    return KW_RPM_NM * power_kw / rpm if rpm > 0 else 0.0


def _along(curve: tuple[PowerPoint, ...], rpm: float) -> float:
    """Straight lines between the corners of the curve; level beyond its ends."""
    if rpm <= curve[0].rpm:
        return curve[0].power_kw
    for low, high in pairwise(curve):
        if rpm <= high.rpm:
            return low.power_kw + (high.power_kw - low.power_kw) * (rpm - low.rpm) / (high.rpm - low.rpm)
    return curve[-1].power_kw
