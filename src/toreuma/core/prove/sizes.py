"""Sizes of the finished piece: every cylinder measured where it was cut, held against its limits."""

from dataclasses import dataclass, replace

import numpy as np

from toreuma.core.geometry.crossings import crossings
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.part import limits_turned
from toreuma.core.prove.threads import RUN_OUT_PITCHES
from toreuma.core.spoken import q, said

__all__ = ["SizeMade", "sizes_made"]

PLACES = 41
"""At so many places along a cylinder it is looked at; grooves in it are passed over."""

SAME_MM, EDGE_MM, CORNER_MM, DRAWN_MM = 1e-6, 0.05, 1.2, 1e-4
STANDS_MM = 0.1
"""More metal than this on diameter is what no finishing cut has been at."""

RUN_OUT_STEP_MM = 0.05
RESOLUTION_MM = 0.0015
"""What a program in whole micrometres of diameter can hold, and chords on top of it."""


@dataclass(frozen=True, kw_only=True)
class SizeMade:
    """A cylinder as it was cut: least and greatest diameter found with the limits, mm; None where it has none.

    ``cut`` is false where metal still stands on it; so much of its length, ``run_out_mm``, is a thread's run-out.
    """

    name: str
    side: str
    nominal_mm: float
    found_mm: tuple[float, float]
    limits_mm: tuple[float, float] | None
    z: tuple[float, float]
    run_out_mm: float = 0.0

    @property
    def cut(self) -> bool:
        if self.side == "outside":
            return self.found_mm[1] < self.nominal_mm + STANDS_MM
        return self.found_mm[0] > self.nominal_mm - STANDS_MM

    @property
    def ok(self) -> bool:
        """Within its limits; within a hundredth of the drawn size where there are none."""
        return self.within(self.found_mm[0]) and self.within(self.found_mm[1])

    @property
    def ok_where_least(self) -> bool:
        """Within them where least metal stands: elsewhere a nose may have rounded the corner beside it."""
        return self.within(self.found_mm[0 if self.side == "outside" else 1])

    def within(self, d_mm: float) -> bool:
        """Whether a diameter is within the limits."""
        low, high = self.limits_mm or (self.nominal_mm - 0.01, self.nominal_mm + 0.01)
        return low - RESOLUTION_MM <= d_mm <= high + RESOLUTION_MM


def sizes_made(job: Job, shape: PartShape, final: Region) -> tuple[SizeMade, ...]:
    """Every cylinder of the outside and the bore, front to back."""
    found = []
    chains = [("outside", job.part.outside, shape.profile)]
    if shape.bore is not None:
        chains.append(("inside", job.part.inside, shape.bore))  # type: ignore[arg-type]
    for side, elements, chain in chains:
        for segment, index, corner in zip(chain.segments, chain.elements, chain.corners, strict=True):
            level = isinstance(segment, Line) and abs(segment.start[1] - segment.end[1]) < SAME_MM
            if corner or not level or index >= len(elements) or segment.length < SAME_MM:
                continue
            element = elements[index]
            z = (segment.start[0], segment.end[0])
            places = _places(shape, side, z, segment.start[1])
            in_thread, plain = _shared(job, side, places)
            known = _radii(final, plain, side, segment.start[1])
            crests = _radii(final, in_thread, side, segment.start[1])
            if crests:  # of a thread the crest counts
                known.append(max(crests) if side == "outside" else min(crests))
            if not known or segment.start[1] < SAME_MM:
                continue
            made = (2 * min(known), 2 * max(known))
            name = element.name or said("Ø {}", q(element.d_mm, "mm", "g", bare=True))
            size = SizeMade(
                name=name,
                side=side,
                nominal_mm=2 * segment.start[1],
                found_mm=made,
                limits_mm=limits_turned(element, side),
                z=z,
            )
            found.append(replace(size, run_out_mm=_run_out_mm(job, size, final)))
    return tuple(found)


def _places(shape: PartShape, side: str, z: tuple[float, float], r: float) -> list[float]:
    """Places along a cylinder where the drawing shows it: no groove, relief or hole takes it away there."""
    away = min(CORNER_MM / abs(z[1] - z[0]), 0.3)  # noses round the inner corners
    every = z[0] + (z[1] - z[0]) * np.linspace(away, 1 - away, PLACES)
    shown = np.ones(PLACES, dtype=bool)
    for shift in (-EDGE_MM, 0.0, EDGE_MM):
        index, radii, outward = crossings(shape.region, every + shift)
        surface = (outward if side == "outside" else ~outward) & (np.abs(radii - r) < DRAWN_MM)
        shown &= np.isin(np.arange(PLACES), index[surface])
    return [float(place) for place in every[shown]]


def _shared(job: Job, side: str, places: list[float]) -> tuple[list[float], list[float]]:
    """Places along a cylinder that lie in a thread, and those that lie neither in one nor in its run-out."""
    seats = [f for f in job.part.features if isinstance(f, ThreadFeature) and f.side == side]
    threads = [(f.from_z_mm - f.length_mm, f.from_z_mm) for f in seats]
    taken = [*threads, *_run_outs(job, side)]
    in_thread = [one for one in places if any(low <= one <= high for low, high in threads)]
    return in_thread, [one for one in places if not any(low <= one <= high for low, high in taken)]


def _run_outs(job: Job, side: str) -> list[tuple[float, float]]:
    """Where threads run out beyond their full length, into what has their diameter (ISO 6410 draws none of it)."""
    found = []
    for operation in (one for setup in job.setups for one in setup.operations):
        for index, form in operation.threads_cut:
            feature = job.part.features[index] if index < len(job.part.features) else None
            if isinstance(feature, ThreadFeature) and feature.side == side:
                out, end = RUN_OUT_PITCHES * form.pitch_mm, feature.from_z_mm - feature.length_mm
                ahead = out if feature.entry == "back" else form.pitch_mm
                found += [(end - out, end), (feature.from_z_mm, feature.from_z_mm + ahead)]
    return found


def _run_out_mm(job: Job, size: SizeMade, final: Region) -> float:
    """How much of a cylinder's length is out of its limits because a thread runs out into it."""
    low, high = min(size.z), max(size.z)
    longest = 0.0
    for start, end in _run_outs(job, size.side):
        start, end = max(start, low), min(end, high)
        if start >= end:
            continue
        places = np.arange(start + RUN_OUT_STEP_MM / 2, end, RUN_OUT_STEP_MM)
        radii = (r for one in places for r in _radii(final, [one], size.side, size.nominal_mm / 2))
        longest += RUN_OUT_STEP_MM * sum(not size.within(2 * r) for r in radii)
    return float(longest)


def _radii(final: Region, places: list[float], side: str, near: float) -> list[float]:
    """Radius of the surface at each place with metal: its upper end outside, the lower one in a bore, and of several
    that nearest the drawn one."""
    index, radii, outward = crossings(final, np.asarray(places))
    wanted = outward if side == "outside" else ~outward
    here = (radii[wanted & (index == place)] for place in range(len(places)))
    return [float(ends[np.abs(ends - near).argmin()]) for ends in here if len(ends)]
