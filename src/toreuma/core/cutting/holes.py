"""Torque and thrust of drilling and tapping, mean and peak load of milling."""

import math

from toreuma.core.cutting.force import specific_force_n_mm2
from toreuma.core.model import Material

__all__ = ["chip_in_milling_mm", "drilling", "milling_power_kw", "tapping_torque_nm"]

LIPS = 2
THRUST_SHARE = 0.6
"""Thrust against the cutting force of the lips: typical, without the chisel edge's own."""


def drilling(material: Material, d_mm: float, feed_mm_rev: float, point_deg: float) -> tuple[float, float]:
    """Torque in Nm and thrust in N of a twist drill of two lips, each with b = D/2 / sin(sigma/2) and
    h = f/2 sin(sigma/2) (Kienzle; lips' mean force at D/4)."""
    half = math.radians(point_deg) / 2
    thickness = feed_mm_rev / LIPS * math.sin(half)
    per_lip = specific_force_n_mm2(material, thickness) * d_mm / 2 * feed_mm_rev / LIPS
    return LIPS * per_lip * d_mm / 4 / 1000, LIPS * THRUST_SHARE * per_lip * math.sin(half)


def tapping_torque_nm(material: Material, d_mm: float, pitch_mm: float) -> float:
    """Torque of a sharp tap, Nm: M = kc P^2 d / 8000, kc at the chip thickness of a tenth of the pitch."""
    return specific_force_n_mm2(material, pitch_mm / 10) * pitch_mm**2 * d_mm / 8000


def chip_in_milling_mm(fz_mm: float, ae_mm: float, d_mm: float) -> float:
    """Largest chip thickness, mm: h = fz sqrt(1 - (1 - 2 ae/D)^2) up to ae = D/2, fz above."""
    return fz_mm * math.sqrt(1 - (1 - 2 * ae_mm / d_mm) ** 2) if ae_mm < d_mm / 2 else fz_mm


def milling_power_kw(
    material: Material, ap_mm: float, ae_mm: float, fz_mm: float, teeth: int, d_mm: float, vc_m_min: float
) -> float:
    """Mean power at the cutter, kW: Pc = ap ae vf kc / 60e6 with kc at the mean chip thickness fz sqrt(ae/D)."""
    rpm = 1000 * vc_m_min / (math.pi * d_mm)
    mean = fz_mm * math.sqrt(min(ae_mm / d_mm, 1.0))
    return ap_mm * ae_mm * fz_mm * teeth * rpm * specific_force_n_mm2(material, mean) / 60e6
