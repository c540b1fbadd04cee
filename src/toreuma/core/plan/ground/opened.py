"""Cuts through what driven tools have opened: what of each turn is air, how often the edge is hit, for how long."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.cutting.interruption import hits_per_s
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.errors import PartError
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk, metal_of_turn, sunk_of
from toreuma.core.geometry.region import Region
from toreuma.core.model import Machine, Operation, Part
from toreuma.core.model.feature import Flats, HolePattern, Slot
from toreuma.core.motion import Motion
from toreuma.core.simulate.clock import motion_time_s

__all__ = ["Interruption", "interruption_finding", "interruption_of", "interruption_reasons", "opened_by"]

STEP_MM = 0.25
BESIDE_MM = 0.05
LEAST_S = 0.05
"""Interrupted cuts shorter than this are over before they are one."""

LONG_GAP_DEG = 45.0


@dataclass(frozen=True, kw_only=True)
class Interruption:
    """``share`` of a turn that is metal at the worst place, most ``hits_a_turn`` and ``hits_per_s``, ``hits`` in all,
    the longest gap in degrees, and for how many seconds the cut is interrupted."""

    share: float
    hits_a_turn: int
    hits_per_s: float
    hits: int
    gap_deg: float
    seconds: float

    @property
    def shock(self) -> str:
        """What the edge feels when it enters: after a long gap it hits metal that has come back whole."""
        return "hard" if self.gap_deg >= LONG_GAP_DEG else "light"


def opened_by(drawn: Part, part: Region, indices: Iterable[int]) -> tuple[Sunk, ...]:
    """Every hole, flat and slot of some features."""
    found: list[Sunk] = []
    for index in indices:
        feature = drawn.features[index] if index < len(drawn.features) else None
        if isinstance(feature, HolePattern | Flats | Slot):
            try:
                found += sunk_of(index, feature, part)
            except PartError:
                continue
    return tuple(found)


def interruption_of(
    motions: Iterable[Motion], removed: Region, opened: tuple[Sunk, ...], machine: Machine
) -> Interruption | None:
    """What the edge meets along turning moves through metal ``removed``; None where nothing is open there."""
    if not opened or removed.is_empty:
        return None
    cut = removed.buffer(BESIDE_MM)
    shapely.prepare(cut)
    known: dict[tuple[float, float], tuple[float, int, float]] = {}
    share, a_turn, most, hits, gap, seconds = 1.0, 0, 0.0, 0.0, 0.0, 0.0
    for motion in motions:
        if motion.is_rapid or motion.driven is not None or motion.segment.length < 1e-9:
            continue
        shares = np.linspace(0.0, 1.0, max(math.ceil(motion.segment.length / STEP_MM), 1) + 1)
        middles = (shares[1:] + shares[:-1]) / 2
        points = np.array([motion.segment.at(float(one)) for one in middles])
        inside = shapely.contains_xy(cut, points[:, 0], np.abs(points[:, 1]))
        if not inside.any():
            continue
        each = motion_time_s(motion, machine) / len(middles)
        for z, r in points[inside]:
            place = round(float(z), 1), round(abs(float(r)), 1)
            if place not in known:
                turn = metal_of_turn(opened, *place)
                known[place] = turn.share, turn.hits, turn.gap_deg
            metal, count, open_deg = known[place]
            if metal >= 1.0:
                continue
            rpm = spindle_rpm(motion.spindle, float(r), machine.max_rpm)
            seconds += each
            hits += count * rpm / 60 * each
            share, a_turn, gap = min(share, metal), max(a_turn, count), max(gap, open_deg)
            most = max(most, hits_per_s(count, rpm))
    return (
        Interruption(share=share, hits_a_turn=a_turn, hits_per_s=most, hits=round(hits), gap_deg=gap, seconds=seconds)
        if seconds > LEAST_S
        else None
    )


def interruption_reasons(found: Interruption) -> Reasons:
    """What a person asks of an interrupted cut, as evidence."""
    return {
        Figure.HITS: Evidence(
            "hits a second", "", found.hits_per_s, "ratio",
            formula="hits of a turn · n / 60, at the worst place",
            inputs=(Input("hits a turn", "", found.hits_a_turn, "ratio"),
                    Input("metal of the turn", "", 100 * found.share, "%"),
                    Input("longest gap", "", found.gap_deg, "deg"),
                    Input("hits in all", "", found.hits, "ratio")),
        ),
        Figure.INTERRUPTED: Evidence(
            "interrupted cut", "", found.seconds, "s", formula="cutting where a turn is not whole"
        ),
    }  # fmt: skip


def interruption_finding(operation: Operation, found: Interruption) -> Finding:
    what = (
        f"{found.seconds:.1f} s of it are interrupted: {found.hits_a_turn} hits a turn, "
        f"{found.hits_per_s:.0f} a second, {100 * (1 - found.share):.0f} % of the turn is air, "
        f"the longest gap {found.gap_deg:.0f}°"
    )
    why = f"every entry is a {found.shock} knock on the edge; speed is taken back for it: turn before what opens it"
    return Finding("warning", "cut.interrupted", what, why, operation=operation.id)
