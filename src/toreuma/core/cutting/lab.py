"""A cut tried out: every limit it meets, how close it comes to each, and which one ends it."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.life import LEAST_LIFE_MIN, life_evidence
from toreuma.core.cutting.limits import Use, used
from toreuma.core.cutting.situation import Bend, Cut, Situation
from toreuma.core.model import Machine, Material

__all__ = ["LADDER_M_MIN", "LabResult", "Rung", "free_situation", "ladder", "try_cut"]

LADDER_M_MIN = (10, 16, 25, 40, 63, 100, 160, 250, 400, 630, 1000)
"""Surface speeds of the ladder, about 1.6 times apart (R5 of ISO 3)."""

MOST_BEND_MM = 0.05


@dataclass(frozen=True)
class LabResult:
    """Limits with the one used most first, and numbers that limit nothing."""

    limits: tuple[Use, ...]
    numbers: tuple[Evidence, ...]

    @property
    def worst(self) -> Use:
        return self.limits[0]


@dataclass(frozen=True)
class Rung:
    """One speed of the ladder with what it comes closest to."""

    vc_m_min: float
    share: float
    limit: str


def free_situation(
    material: Material,
    machine: Machine,
    tool_material: str,
    d_mm: float,
    stick_out_mm: float,
    nose_mm: float,
    entering_deg: float,
) -> Situation:
    """A plain bar that sticks out of the chuck, cut at its free end. Every size is positive, mm and degrees."""
    bend = None
    if material.e_n_mm2 is not None:
        inertia = math.pi * d_mm**4 / 64
        bend = Bend(stick_out_mm**3 / (3 * material.e_n_mm2 * inertia), MOST_BEND_MM, "too much")
    return Situation(
        material=material,
        machine=machine,
        tool_material=tool_material,
        use="rough",
        d_mm=d_mm,
        mean_d_mm=d_mm,
        nose_mm=nose_mm,
        entering_deg=entering_deg,
        least_life_min=LEAST_LIFE_MIN,
        bend=bend,
    )


def try_cut(situation: Situation, cut: Cut) -> LabResult:
    """All limits of a cut. Every number of the cut is positive."""
    seen = situation.see(cut)
    numbers = [
        Evidence("cutting force", "Fc", seen.cutting_n, "N", formula="kc1.1 he^-mc ap f", source=force.KIENZLE),
        Evidence("feed force", "Ff", seen.feed_n, "N", source="Colwell 1954"),
        Evidence("passive force", "Fp", seen.passive_n, "N", source="Colwell 1954"),
        Evidence("chip thickness", "he", seen.edge.thickness_mm, "mm", formula="ap f / Le", source="Woxen 1932"),
        Evidence("metal removed", "Q", seen.vc_there * cut.ap_mm * cut.feed_mm_rev, "cm3/min", formula="vc ap f"),
    ]
    if situation.nose_mm > 0:
        numbers.append(finish.finish_evidence(situation.material, cut.feed_mm_rev, situation.nose_mm))
    if situation.row is not None:
        life = life_evidence(situation, cut)
        numbers += [life, _cost(situation, cut, life.number)]
    return LabResult(used(situation, cut), tuple(numbers))


def _cost(situation: Situation, cut: Cut, life: float) -> Evidence:
    """Edges used for a litre of metal: what the cut costs besides its time."""
    litre_min = 1000 / max(situation.see(cut).vc_there * cut.ap_mm * cut.feed_mm_rev, 1e-9)
    return Evidence(
        "edges for a litre of metal",
        "",
        litre_min / max(life, 1e-9),
        "ratio",
        formula="minutes for 1000 cm³ over the life of an edge",
        inputs=(Input("minutes for a litre", "t", litre_min, "min"),),
    )


def ladder(situation: Situation, cut: Cut, speeds: Iterable[float] = LADDER_M_MIN) -> tuple[Rung, ...]:
    """The cut at every speed of a ladder, each with the limit it comes closest to, the table's own range aside.

    Limits that speed does not move count only where they are broken.
    """
    found = []
    for vc in speeds:
        uses = used(situation, cut._replace(vc_m_min=float(vc)))
        worst = next(use for use in uses if not use.kind.table and ("vc" in use.kind.on or use.share > 1 + 1e-6))
        found.append(Rung(float(vc), worst.share, worst.kind.name))
    return tuple(found)
