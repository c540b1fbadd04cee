"""A free cut tried out: every limit it meets, how close it comes to each, and which one ends it."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.engagement import engaged
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.heat import SOFTENING_C, edge_temperature_c
from toreuma.core.cutting.heat import SOURCE as HEAT
from toreuma.core.cutting.life import relative_life_min
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.model import Machine, Material

__all__ = ["LADDER_M_MIN", "LabCut", "LabLimit", "LabResult", "Rung", "ladder", "try_cut"]

LADDER_M_MIN = (10, 16, 25, 40, 63, 100, 160, 250, 400, 630, 1000)
"""Surface speeds of the ladder, about 1.6 times apart (R5 of ISO 3)."""

LEAST_CHIP_MM = 0.01
"""Thinner chips are not cut but rubbed: about a third of a usual edge rounding of 0.03 mm."""

LEAST_LIFE_MIN = 2.0
"""An edge that lasts less is changed more than it cuts."""

MOST_BEND_MM = 0.05


@dataclass(frozen=True)
class LabCut:
    """Depth on radius; ``stick_out_mm`` is the free length of a plain bar of diameter ``d_mm``."""

    d_mm: float
    stick_out_mm: float
    vc_m_min: float
    feed_mm_rev: float
    ap_mm: float
    nose_mm: float
    entering_deg: float
    tool_material: str


@dataclass(frozen=True)
class LabLimit:
    """``share`` is how much of the limit is used; above 1 it ends the cut, and ``why`` explains it in one sentence.

    With ``least`` the number must not fall below its limit.
    """

    name: str
    share: float
    number: Evidence
    why: str
    least: bool = False


@dataclass(frozen=True)
class LabResult:
    """Limits with the one used most first, and numbers that limit nothing."""

    limits: tuple[LabLimit, ...]
    numbers: tuple[Evidence, ...]

    @property
    def worst(self) -> LabLimit:
        return self.limits[0]


@dataclass(frozen=True)
class Rung:
    """One speed of the ladder with what it comes closest to."""

    vc_m_min: float
    share: float
    limit: str


def try_cut(cut: LabCut, material: Material, machine: Machine) -> LabResult:
    """All limits of a free cut. Every size of the cut is positive."""
    edge = engaged(cut.ap_mm, cut.feed_mm_rev, cut.nose_mm, cut.entering_deg)
    fc = force.force_with_nose_n(material, cut.ap_mm, cut.feed_mm_rev, cut.nose_mm, cut.entering_deg)
    _, passive = force.in_plane_n(fc, cut.ap_mm, cut.feed_mm_rev, cut.nose_mm, cut.entering_deg)
    rpm = surface_speed_rpm(cut.vc_m_min, cut.d_mm)
    limits = [
        _power(fc, cut, machine, rpm),
        _speed(rpm, machine),
        _strength(cut),
        _rubbing(edge.thickness_mm),
        *_heat(material, cut, edge.thickness_mm),
        *_bend(material, cut, passive),
    ]
    numbers = [
        Evidence("cutting force", "Fc", fc, "N", formula="kc1.1 he^-mc ap f", source=force.KIENZLE),
        Evidence("chip thickness", "he", edge.thickness_mm, "mm", formula="ap f / Le", source="Woxen 1932"),
        Evidence("metal removed", "Q", cut.vc_m_min * cut.ap_mm * cut.feed_mm_rev, "cm3/min", formula="vc ap f"),
        Evidence(
            "theoretical finish",
            "Ra",
            finish.theoretical_ra_um(cut.feed_mm_rev, cut.nose_mm),
            "um",
            formula=finish.FORMULA,
            source=finish.SOURCE,
        ),
    ]
    life = _life(material, cut)
    if life is not None:
        numbers.append(life)
        limits.append(
            LabLimit(
                "edge life",
                LEAST_LIFE_MIN / max(life.number, 1e-9),
                replace(life, limits=(Limit("least", LEAST_LIFE_MIN, "min", True),)),
                "A little more speed costs a lot of life (Taylor): below this the edge is changed more than it cuts.",
                least=True,
            )
        )
    return LabResult(tuple(sorted(limits, key=lambda one: -one.share)), tuple(numbers))


def ladder(
    cut: LabCut, material: Material, machine: Machine, speeds: Iterable[float] = LADDER_M_MIN
) -> tuple[Rung, ...]:
    """The cut at every speed of a ladder, each with the limit it comes closest to."""
    found = []
    for vc in speeds:
        worst = try_cut(replace(cut, vc_m_min=float(vc)), material, machine).worst
        found.append(Rung(float(vc), worst.share, worst.name))
    return tuple(found)


def _power(fc: float, cut: LabCut, machine: Machine, rpm: float) -> LabLimit:
    needed = force.cutting_power_kw(fc, cut.vc_m_min)
    there = force.available_power_kw(machine, min(rpm, machine.max_rpm))
    number = Evidence(
        "power at the edge",
        "Pc",
        needed,
        "kW",
        formula="Fc vc / 60000",
        source=force.KIENZLE,
        inputs=(Input("cutting force", "Fc", fc, "N"),),
        limits=(Limit(f"spindle at {rpm:.0f} rpm", there, "kW", True),),
    )
    why = "Beyond what the spindle has at this speed it slows down or stalls."
    return LabLimit("power", needed / max(there, 1e-9), number, why)


def _speed(rpm: float, machine: Machine) -> LabLimit:
    number = Evidence(
        "spindle speed",
        "n",
        rpm,
        "rpm",
        formula="1000 vc / (π D)",
        limits=(Limit(machine.name, machine.max_rpm, "rpm", True),),
    )
    return LabLimit("spindle speed", rpm / machine.max_rpm, number, "The spindle turns no faster.")


def _strength(cut: LabCut) -> LabLimit:
    most = 0.5 * cut.nose_mm
    bound = (Limit("half the nose", most, "mm/rev", True),)
    number = Evidence("feed", "f", cut.feed_mm_rev, "mm/rev", formula="f ≤ 0.5 rε", limits=bound)
    return LabLimit("corner strength", cut.feed_mm_rev / most, number, "Beyond half its radius the corner breaks.")


def _rubbing(thickness_mm: float) -> LabLimit:
    number = Evidence("chip thickness", "he", thickness_mm, "mm", limits=(Limit("least", LEAST_CHIP_MM, "mm", True),))
    why = "Thinner than the edge is round, a chip is rubbed off: it heats and hardens the surface."
    return LabLimit("thin chip", LEAST_CHIP_MM / max(thickness_mm, 1e-9), number, why, least=True)


def _heat(material: Material, cut: LabCut, thickness_mm: float) -> list[LabLimit]:
    kc = force.specific_force_n_mm2(material, thickness_mm)
    there = edge_temperature_c(material, kc, cut.vc_m_min, thickness_mm)
    softens = SOFTENING_C.get(cut.tool_material)
    if there is None or softens is None:
        return []
    number = Evidence(
        "temperature of the edge",
        "",
        there,
        "°C",
        formula="20 + 0.4 U/(ρc) (v h/a)^⅓",
        source=HEAT,
        limits=(Limit(f"{cut.tool_material} softens", softens, "°C", True),),
    )
    tool = cut.tool_material[0].upper() + cut.tool_material[1:]
    why = f"{tool} loses its hardness beyond this heat and wears away at once."
    return [LabLimit("heat", there / softens, number, why)]


def _bend(material: Material, cut: LabCut, passive_n: float) -> list[LabLimit]:
    if material.e_n_mm2 is None or cut.stick_out_mm <= 0:
        return []
    inertia = math.pi * cut.d_mm**4 / 64
    bend = passive_n * cut.stick_out_mm**3 / (3 * material.e_n_mm2 * inertia)
    number = Evidence(
        "bend of the piece",
        "y",
        bend,
        "mm",
        formula="Fp L³ / (3 E I)",
        source="Euler-Bernoulli cantilever",
        measured_on="on radius",
        limits=(Limit("too much", MOST_BEND_MM, "mm", True),),
    )
    why = "A piece that gives way under the push comes out larger there."
    return [LabLimit("bend", bend / MOST_BEND_MM, number, why)]


def _life(material: Material, cut: LabCut) -> Evidence | None:
    row = next((one for one in material.speeds if one.tool_material == cut.tool_material), None)
    if row is None:
        return None
    return relative_life_min(
        cut.tool_material, cut.vc_m_min, row.rough_m_min, cut.feed_mm_rev, MEANT_FEED, cut.ap_mm, MEANT_DEPTH
    )


MEANT_FEED, MEANT_DEPTH = 0.25, 2.0
"""Feed (mm/rev) and depth (mm) the starting speeds are meant for: usual roughing."""
