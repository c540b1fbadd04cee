"""Usual feeds, torque and thrust of drilling and tapping, usual feeds and load of milling."""

import math

from toreuma.core.cutting.force import specific_force_n_mm2
from toreuma.core.model import Material

__all__ = [
    "chip_in_milling_mm",
    "drill_feed_mm_rev",
    "drilling",
    "mean_chip_mm",
    "mill_feed_mm",
    "milling_power_kw",
    "tapping_torque_nm",
]

LIPS = 2
THRUST_SHARE = 0.6
"""Thrust of the lips against their cutting force: typical."""

CHISEL_SHARE, THINNED_SHARE, THINNED_FROM_DEG = 0.5, 0.25, 130.0
"""What the chisel edge adds to the thrust of the lips: half of it, a quarter where the web is thinned, as it is on flat
points: typical."""

FEED_EXPONENT, FEED_AT_MM = 0.65, 10.0
"""Usual feeds of drills grow with so much of a power of their diameter, and are listed for this one: typical."""

SOFTER_TOOTH, TOOTH_EXPONENT = 0.8, 0.85
"""Teeth of high-speed steel against those of carbide, and the power of the diameter that usual tooth feeds grow with:
typical."""

HARDER_FEED = {"high-speed steel": 1.0}
HARDER_FEED_ELSE = 1.2
"""Carbide drills feed so much more than those of high-speed steel: typical."""


def drilling(material: Material, d_mm: float, feed_mm_rev: float, point_deg: float) -> tuple[float, float]:
    """Torque in Nm and thrust in N of a twist drill of two lips, each with b = D/2 / sin(sigma/2) and
    h = f/2 sin(sigma/2) (Kienzle; lips' mean force at D/4); thrust with the chisel edge's own."""
    half = math.radians(point_deg) / 2
    thickness = feed_mm_rev / LIPS * math.sin(half)
    per_lip = specific_force_n_mm2(material, thickness) * d_mm / 2 * feed_mm_rev / LIPS
    chisel = 1 + (THINNED_SHARE if point_deg >= THINNED_FROM_DEG else CHISEL_SHARE)
    return LIPS * per_lip * d_mm / 4 / 1000, LIPS * THRUST_SHARE * chisel * per_lip * math.sin(half)


def drill_feed_mm_rev(material: Material, tool_material: str, d_mm: float) -> float | None:
    """Usual feed of a drill in a material, mm/rev; None where the material lists none."""
    if material.drill_feed_mm_rev is None:
        return None
    share = HARDER_FEED.get(tool_material, HARDER_FEED_ELSE)
    return float(share * material.drill_feed_mm_rev * (d_mm / FEED_AT_MM) ** FEED_EXPONENT)


def mill_feed_mm(material: Material, tool_material: str, d_mm: float) -> float | None:
    """Usual feed of a tooth of an end mill in a material, mm: that of a mill of 10 mm times (D/10)^0.85 (table books,
    typical); None where the material lists none."""
    if material.mill_feed_mm is None:
        return None
    share = SOFTER_TOOTH if tool_material == "high-speed steel" else 1.0
    return float(share * material.mill_feed_mm * (d_mm / FEED_AT_MM) ** TOOTH_EXPONENT)


def tapping_torque_nm(material: Material, d_mm: float, pitch_mm: float) -> float:
    """Torque of a sharp tap, Nm: M = kc P^2 d / 8000, kc at the chip thickness of a tenth of the pitch."""
    return specific_force_n_mm2(material, pitch_mm / 10) * pitch_mm**2 * d_mm / 8000


def chip_in_milling_mm(fz_mm: float, ae_mm: float, d_mm: float) -> float:
    """Largest chip thickness, mm: h = fz sqrt(1 - (1 - 2 ae/D)^2) up to ae = D/2, fz above."""
    return fz_mm * math.sqrt(1 - (1 - 2 * ae_mm / d_mm) ** 2) if ae_mm < d_mm / 2 else fz_mm


def mean_chip_mm(fz_mm: float, ae_mm: float, d_mm: float) -> float:
    """Mean chip thickness over the arc in the cut, mm: hm = 2 fz ae / (D phi), cos phi = 1 - 2 ae/D; 0.64 fz in a full
    slot (Martellotti)."""
    share = min(ae_mm / d_mm, 1.0)
    return 2 * fz_mm * share / math.acos(1 - 2 * share) if share > 0 else 0.0


def milling_power_kw(
    material: Material, ap_mm: float, ae_mm: float, fz_mm: float, teeth: int, d_mm: float, vc_m_min: float
) -> float:
    """Mean power at the cutter, kW: Pc = ap ae vf kc / 60e6 with kc at the mean chip thickness of the arc."""
    rpm = 1000 * vc_m_min / (math.pi * d_mm)
    mean = mean_chip_mm(fz_mm, ae_mm, d_mm)
    return ap_mm * ae_mm * fz_mm * teeth * rpm * specific_force_n_mm2(material, mean) / 60e6
