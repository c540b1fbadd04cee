"""How a thread is divided into passes: depth, sideways shift, chip area and force of each."""

import math
from dataclasses import dataclass
from typing import Literal

from toreuma.core.cutting.force import specific_force_n_mm2
from toreuma.core.model import Material

__all__ = ["Division", "Infeed", "InfeedPass", "Tip", "first_depth_mm", "infeed", "pass_count"]

Infeed = Literal["modified", "radial", "flank", "alternating"]
Division = Literal["area", "depth", "typed"]

FIRST_MM, FIRST_PER_PITCH = 0.1, 0.15
"""Deepest first pass, mm on radius: so much, and so much per millimetre of pitch. Typical for carbide in steel."""

TOUGH_SHARE, TOUGH = 0.85, ("M", "S", "H")
LEAST_PASSES = 3
BESIDE_DEG = 1.0
"""Modified flank infeed stays this far beside the flank, so that the trailing edge cuts a little and does not rub."""


@dataclass(frozen=True)
class Tip:
    """The end of a threading tooth: a round, or a flat between the flanks; mm. A sharp one has neither."""

    round_mm: float = 0.0
    flat_mm: float = 0.0

    def lacks_mm(self, half: float) -> float:
        """How far it stays above the point its flanks would meet in; ``half`` the angle between them, radians."""
        if self.flat_mm > 0:
            return self.flat_mm / (2 * math.tan(half))
        return self.round_mm * (1 / math.sin(half) - 1)

    def missing_mm2(self, half: float) -> float:
        """Area between it and that point."""
        if self.flat_mm > 0:
            return self.flat_mm**2 / (4 * math.tan(half))
        return float(self.round_mm**2 * (1 / math.tan(half) - (math.pi / 2 - half)))


SHARP = Tip()


@dataclass(frozen=True, kw_only=True)
class InfeedPass:
    """One pass: depth from the crest and how much deeper than before, mm on radius; ``shift_mm`` from where the last
    pass begins, toward the front; chip area in mm2, cutting force in N."""

    depth_mm: float
    infeed_mm: float
    shift_mm: float
    area_mm2: float
    force_n: float
    spring: bool = False


def first_depth_mm(pitch_mm: float, material: Material) -> float:
    """The deepest the first pass may be, mm on radius."""
    share = TOUGH_SHARE if material.group in TOUGH else 1.0
    return (FIRST_MM + FIRST_PER_PITCH * pitch_mm) * share


def pass_count(depth_mm: float, pitch_mm: float, material: Material, flank_deg: float = 60.0, tip: Tip = SHARP) -> int:
    """So many passes of equal chip area that the first is no deeper than it may be: ``h sqrt(1/n) <= cap``.

    A tooth with a flat takes no larger chip than a sharp one of 60 degrees would at that depth.
    """
    cap = first_depth_mm(pitch_mm, material)
    count = (depth_mm / cap) ** 2
    if tip.flat_mm > 0:
        count = _area(depth_mm, math.radians(flank_deg / 2), tip) / (cap**2 * math.tan(math.radians(30)))
    return max(LEAST_PASSES, math.ceil(count - 1e-9))


def infeed(
    depth_mm: float,
    flank_deg: float,
    count: int,
    kind: Infeed,
    division: Division,
    material: Material,
    tip: Tip = SHARP,
    springs: int = 0,
    typed_mm: tuple[float, ...] = (),
) -> list[InfeedPass]:
    """The passes of a thread ``depth_mm`` deep on radius.

    Equal chip area gives ``h sqrt(i/n)`` for a sharp tooth (a triangle's area grows with the square of its depth); with
    a round or a flat at its tip the same area is sought with it. Typed depths are taken in rising order as far as the
    thread is deep, with the full depth last.
    """
    half = math.radians(flank_deg / 2)
    depths = _depths(depth_mm, count, division, typed_mm, half, tip)
    found, before = [], 0.0
    for index, depth in enumerate(depths):
        area = _area(depth, half, tip) - _area(before, half, tip)
        edge = depth / math.cos(half) * (1 if kind in ("flank", "modified") and index else 2)
        force = specific_force_n_mm2(material, max(area / max(edge, 1e-9), 1e-4)) * area
        found.append(
            InfeedPass(
                depth_mm=depth,
                infeed_mm=depth - before,
                shift_mm=_shift(kind, depth_mm - depth, half, index),
                area_mm2=area,
                force_n=force,
            )
        )
        before = depth
    return (
        found
        + [InfeedPass(depth_mm=depth_mm, infeed_mm=0.0, shift_mm=0.0, area_mm2=0.0, force_n=0.0, spring=True)] * springs
    )


def _depths(
    depth: float, count: int, division: Division, typed: tuple[float, ...], half: float, tip: Tip
) -> list[float]:
    if division == "typed" and typed:
        below = sorted({one for one in typed if one < depth - 1e-6})
        return [*below, depth]
    if division == "depth":
        return [depth * (i + 1) / count for i in range(count)]
    whole, lacks, missing = _area(depth, half, tip), tip.lacks_mm(half), tip.missing_mm2(half)
    return [math.sqrt((whole * (i + 1) / count + missing) / math.tan(half)) - lacks for i in range(count - 1)] + [depth]


def _area(depth: float, half: float, tip: Tip) -> float:
    """Area a tooth covers below the crest, mm2: the triangle less what its tip lacks."""
    if depth <= 0:
        return 0.0
    over = depth + tip.lacks_mm(half)
    return max(float(over**2 * math.tan(half) - tip.missing_mm2(half)), 0.0)


def _shift(kind: Infeed, above: float, half: float, index: int) -> float:
    """Where a pass begins against the last one, toward the front, mm; ``above`` is how much shallower it is."""
    if kind == "radial":
        return 0.0
    if kind == "modified":
        return above * math.tan(max(half - math.radians(BESIDE_DEG), 0.0))
    side = above * math.tan(half)
    return side if kind == "flank" or index % 2 == 0 else -side
