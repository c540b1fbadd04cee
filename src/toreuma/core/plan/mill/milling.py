"""Speed, feed of a tooth, depth, power and bending of an end mill."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.holes import chip_in_milling_mm, mill_feed_mm, milling_power_kw
from toreuma.core.cutting.speed import bound, lowest
from toreuma.core.model import LiveDrive, Material
from toreuma.core.model.tool import EndMill
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.spoken import q, said

__all__ = ["MillNumbers", "mill_numbers", "side_step_mm"]

SPEED_SHARE = 0.7
"""Milling speed against that of roughing a turned surface with the same tool material: typical."""

SIDE_SHARE = 0.6
"""Steps sideways are no wider than this share of the mill."""

SLOT_DEPTH, SIDE_DEPTH = 0.5, 1.0
"""Depth in diameters, cutting with the full width or with less: typical."""

MOST_THIN = 2.0
"""The feed is never raised more than this for a thin chip."""

CORE_SHARE = 0.8
"""A mill bends as a rod of this share of its diameter: typical."""

E_N_MM2 = {"high-speed steel": 210e3}
E_CARBIDE = 600e3
MOST_BEND_MM = 0.03
"""A mill may bend so much in a roughing cut."""


@dataclass(frozen=True, kw_only=True)
class MillNumbers:
    """One mill in one cut: what moves are made with, all its numbers, and why."""

    rpm: float
    vf_mm_min: float
    ap_mm: float
    figures: Figures
    reasons: Reasons


def side_step_mm(tool: EndMill) -> float:
    """Widest step sideways, mm."""
    return SIDE_SHARE * tool.d_mm


def mill_numbers(work: Work, tool: EndMill, live: LiveDrive, ae_mm: float, wanted_ap_mm: float) -> MillNumbers:
    """Numbers for a width of cut ``ae_mm``; depth no deeper than ``wanted_ap_mm``. Raises `OperationFault`."""
    material, pins = work.given.stock.material, work.operation.pins
    speed = axial_speed(work, tool.material, tool.d_mm, SPEED_SHARE, "milling")
    rpm = speed.rpm
    ae = min(ae_mm, tool.d_mm)
    middle, limits_of_tooth, why = _tooth_mm(tool, material)
    thin = min(middle / max(chip_in_milling_mm(middle, ae, tool.d_mm), 1e-9), MOST_THIN)
    usual = round(middle * thin, 4)
    tooth = Evidence(
        "feed of a tooth", "fz", usual, "mm",
        formula=f"{why}, raised where the chip is thin: h = fz √(1 − (1 − 2 ae/D)²)",
        source="table books; chip thickness of peripheral milling, machining textbooks",
        limits=limits_of_tooth,
        inputs=(Input(why, "h", middle, "mm"), Input("for the thin chip", "×", thin, "ratio"),
                Input("width of cut", "ae", ae, "mm")),
    )  # fmt: skip
    turn = Evidence("feed", "f", usual * tool.teeth, "mm/rev", formula="f = fz z", typable=True)
    turn = pinned(turn, pins.feed_mm_rev)
    feed = usual * tool.teeth if pins.feed_mm_rev is None else pins.feed_mm_rev
    fz = feed / tool.teeth
    there = min(live.power_kw, live.torque_nm * rpm / 9549.3)
    per_mm = milling_power_kw(material, 1.0, ae, fz, tool.teeth, tool.d_mm, math.pi * tool.d_mm * rpm / 1000)
    by_share = (SLOT_DEPTH if ae > SIDE_SHARE * tool.d_mm + 1e-9 else SIDE_DEPTH) * tool.d_mm
    force_per_mm = 60000 * per_mm / (math.pi * tool.d_mm * rpm / 1000)
    stiff = _bend_mm_n(tool)
    limits = [
        Limit("what there is to cut", wanted_ap_mm, "mm"),
        Limit("flutes", tool.flute_length_mm, "mm"),
        Limit("diameters for this width", by_share, "mm"),
        Limit("drive of the tool", there / max(per_mm, 1e-12), "mm"),
        Limit(
            said("bends {}", q(1000 * MOST_BEND_MM, "um", ".0f")), MOST_BEND_MM / max(force_per_mm * stiff, 1e-12), "mm"
        ),
    ]
    ap = bound(limits) if pins.ap_mm is None else pins.ap_mm
    force, power = force_per_mm * ap, per_mm * ap
    reasons = {
        **speed.reasons,
        Figure.TURNS: replace(speed.n, name="speed of the tool"),
        Figure.FEED_OF_TOOTH: tooth,
        Figure.FEED: turn,
        Figure.FEED_A_MINUTE: Evidence("feed a minute", "vf", feed * rpm, "mm/min", formula="vf = f n"),
        Figure.ACROSS: Evidence(
            "width of cut", "ae", ae, "mm", formula="at most 0.6 D sideways, the whole mill in a slot"
        ),
        Figure.DEPTH: pinned(replace(lowest("depth of a layer", "ap", "mm", limits), typable=True), pins.ap_mm),
        Figure.FORCE: Evidence("mean cutting force", "Fc", force, "N", formula="Fc = Pc / vc"),
        Figure.POWER: Evidence(
            "power at the edge", "Pc", power, "kW", formula="Pc = ap ae vf kc / 60e6",
            limits=(Limit("drive of the tool", there, "kW", bit=True),),
        ),
        Figure.MILL_BEND: Evidence(
            "mill bends", "y", 1000 * force * stiff, "um", formula="y = F L³ / (3 E I) of a rod of 0.8 D",
            source="Euler-Bernoulli beam", inputs=(Input("stands out", "L", tool.out_mm, "mm"),),
        ),
    }  # fmt: skip
    figures = Figures(
        vc_m_min=speed.vc_m_min,
        rpm=rpm,
        feed_mm_rev=feed,
        ap_mm=ap,
        force_n=force,
        power_kw=power,
        power_there_kw=there,
    )
    return MillNumbers(rpm=rpm, vf_mm_min=feed * rpm, ap_mm=ap, figures=figures, reasons=reasons)


def _tooth_mm(tool: EndMill, material: Material) -> tuple[float, tuple[Limit, ...], str]:
    """Chip of a tooth, mm: usual for the material and the diameter, within the mill's own range; and what bound it."""
    low, high = tool.fz_mm
    usual = mill_feed_mm(material, tool.material, tool.d_mm)
    if usual is None:
        return (low + high) / 2, (), "middle of the mill's range"
    words = f"usual in {material.name} at Ø{tool.d_mm:g}"
    limits = (
        Limit(words, usual, "mm", bit=low <= usual <= high),
        Limit("least of the mill", low, "mm", bit=usual < low),
        Limit("most of the mill", high, "mm", bit=usual > high),
    )
    return min(max(usual, low), high), limits, words if low <= usual <= high else "the mill's own range"


def _bend_mm_n(tool: EndMill) -> float:
    """Compliance at the end, mm/N: L^3 / (3 E I)."""
    inertia = math.pi * (CORE_SHARE * tool.d_mm) ** 4 / 64
    return tool.out_mm**3 / (3 * E_N_MM2.get(tool.material, E_CARBIDE) * inertia)
