"""Obeys driven tools in space, and compares what they cut with the holes, flats and slots of the part."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from toreuma.core.cutting.force import specific_force_n_mm2
from toreuma.core.errors import PartError
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk, hole_edge_mm, sunk_of
from toreuma.core.geometry.region import Region, region_from_points
from toreuma.core.geometry.solids import ALONG_X, Solid, facets, joined, prism, revolved, thickness_um, turned_about_z
from toreuma.core.model import Job, MillFlats, MillSlot, Tool
from toreuma.core.model.feature import Flats, HolePattern, Slot
from toreuma.core.model.tool import Tap
from toreuma.core.motion import Motion
from toreuma.core.prove.contact import Contact
from toreuma.core.prove.driven_cuts import Cuts, DrivenTool
from toreuma.core.scene import Scene

__all__ = ["Bored", "MilledPiece", "feature_solid"]

BEYOND_MM = 5.0
EDGE_SLACK_MM = 0.05
POINT_SHARE = 0.6
"""A point goes no deeper below its full diameter than this share of the diameter, a centre at 80 degrees."""

THROUGH_MM = 3.0
"""How far a tool may come out behind a through hole."""

TOUCH_UM = 10.0
COARSE = 96
"""Facets of round metal where only contact is looked for."""

SIMPLE_MM, SHORT_MM = 0.005, 0.5
"""Round metal need not be finer where it only bounds what is compared; moves shorter than the second are chords."""

FILM_MM = 0.001
"""Features are compared this much larger and smaller: faces that coincide would leave films to be taken apart."""


@dataclass(frozen=True)
class Bored:
    """What driven tools made of the part's milled features, um: missing metal, metal left, and where."""

    gouge_um: float = 0.0
    leftover_um: float = 0.0
    findings: tuple[Finding, ...] = ()


class MilledPiece:
    """Everything driven tools have cut so far, and what they touched."""

    def __init__(self, job: Job, scene: Scene) -> None:
        self._job, self._scene = job, scene
        self._tools: dict[int, DrivenTool] = {}
        self._cuts = Cuts()
        self._gone: list[Solid] = []
        self._short: list[Solid] = []
        self._metal: tuple[Region, Solid] | None = None
        self.touches: list[Contact] = []

    @cached_property
    def _fixed(self) -> Solid:
        return revolved(self._scene.fixed.simplify(SIMPLE_MM), COARSE)

    def obey(self, motion: Motion, tool: Tool, stock: Region) -> tuple[float, float]:
        """Make one move in the round stock; gives power at the edge, kW, and what the drive has."""
        if motion.event or motion.length < 1e-9 or motion.driven is None:
            return 0.0, 0.0
        driven = self._tools.get(tool.station)
        if driven is None or driven.tool is not tool:
            driven = self._tools[tool.station] = DrivenTool.of(tool)
        way = driven.along(driven.rough, motion)
        if motion.feed is not None and motion.length < SHORT_MM and not isinstance(tool, Tap):
            self._cuts.add(motion, driven)  # a chord of a round: it touches nothing its neighbours do not
            self._short.append(way)
            return 0.0, 0.0
        metal = self._round(stock)
        met = way ^ metal
        for body in driven.bodies:
            moved = driven.along(body, motion)
            self._touch("holder in metal", moved ^ metal, motion)
            self._touch("holder in jaws or chuck", moved ^ self._fixed, motion)
        self._touch("tool in jaws or chuck", way ^ self._fixed, motion)
        if isinstance(tool, Tap):
            return 0.0, 0.0
        if motion.is_rapid:
            self._touch("rapid in metal", met, motion)
            return 0.0, 0.0
        self._cuts.add(motion, driven)
        self._gone.append(way)
        self._metal = stock, metal - way
        if met.is_empty() or motion.feed is None:
            return 0.0, 0.0
        live = self._job.machine.carrier_of(tool.station).live
        rpm = abs(motion.driven.rpm)
        if live is None or rpm <= 0:
            return 0.0, 0.0
        tooth = motion.feed / rpm / driven.teeth
        rate = met.volume() / motion.length * motion.feed
        power = rate * specific_force_n_mm2(self._job.stock.material, max(tooth / 2, 1e-3)) / 6e7
        return power, min(live.power_kw, live.torque_nm * rpm / 9549.3)

    def _round(self, stock: Region) -> Solid:
        """The stock as it is now, with what driven tools took from it."""
        if self._metal is None or self._metal[0] is not stock:
            self._metal = stock, revolved(stock.simplify(SIMPLE_MM), COARSE) - joined(self._gone)
        if self._short:
            taken, self._short = joined(self._short), []
            self._gone.append(taken)
            self._metal = stock, self._metal[1] - taken
        return self._metal[1]

    def _touch(self, what: str, met: Solid, motion: Motion) -> None:
        deep = 0.0 if met.is_empty() else thickness_um(met)
        if deep > TOUCH_UM:
            self.touches.append(Contact(what, motion.line, _place(met), deep / 1000))

    def compared(self, final: Region) -> Bored:
        """What was cut, held against every milled feature that an operation of the job cuts."""
        job, part = self._job, self._scene.part
        wanted = {one.feature for one in job.operations if one.enabled and one.kind in ("holes", "flats", "slot")}
        edged = {one.feature for one in job.operations if isinstance(one, MillSlot | MillFlats) and one.edge_tool}
        opened = job.stock.opened if job.stock.kind == "free" else ()
        solids, allowed, findings = {}, [], []
        for index, feature in enumerate(job.part.features):
            if not isinstance(feature, HolePattern | Flats | Slot):
                continue
            try:
                places = sunk_of(index, feature, part)
            except PartError:
                continue
            solids[index] = joined(feature_solid(one, -FILM_MM) for one in places)
            broken = feature.kind == "holes" or index in edged
            edge = hole_edge_mm(job.part.edge_break_mm) if broken else 0.0
            allowed += [_allowed(one, edge, feature.kind == "flats") for one in places]
            if index not in wanted and index not in opened and not any(one.behind for one in places):
                what = f"{feature.name or feature.kind}: no operation cuts it in this setup"
                findings.append(Finding("note", "milled.open", what, "it stays in the metal"))
        round_ = revolved(final.simplify(SIMPLE_MM))
        bodies = list(self._cuts.bodies())
        cut = joined(body for _, body in bodies)
        gouged = (cut - joined(allowed)) ^ round_
        left = joined([solids[index] for index in sorted(wanted) if index in solids]) ^ round_
        left = left - cut
        gouge, leftover = _beside_film(gouged), _beside_film(left)
        leftover = (
            leftover if leftover > LIMIT_UM else 0.0
        )  # films that a program's resolution leaves, as on round ones
        if gouge > LIMIT_UM:
            line = next((line for line, solid in bodies if thickness_um(solid ^ gouged) > LIMIT_UM), 0)
            what = f"line {line}: a driven tool cuts {gouge:.1f} µm of metal that belongs to the part"
            findings.append(
                Finding("error", "milled.gouge", what, "the part would be scrap", at=_place(gouged), line=line)
            )
        if leftover > LIMIT_UM:
            what = f"{leftover:.1f} µm are left in a hole, flat or slot"
            findings.append(Finding("error", "milled.left", what, "the plan says it is cut", at=_place(left)))
        return Bored(gouge, leftover, tuple(findings))


LIMIT_UM, LEAST_UM = 2.0, 0.1
"""As for turned surfaces."""


def _beside_film(body: Solid) -> float:
    """Thickness, um, with the film it was measured beside; 0 where there is nothing."""
    found = thickness_um(body)
    return found + 1000 * FILM_MM if found > LEAST_UM else 0.0


def _place(body: Solid) -> tuple[float, float]:
    """A place (z, r) amid a body."""
    low_x, low_y, low_z, high_x, high_y, high_z = body.bounding_box()
    return (low_z + high_z) / 2, math.hypot((low_x + high_x) / 2, (low_y + high_y) / 2)


def feature_solid(place: Sunk, more_mm: float = 0.0) -> Solid:
    """The body of one hole, flat or slot, up to beyond the metal; larger all round by so much, or smaller."""
    region = place.region.buffer(more_mm, join_style="mitre") if more_mm else place.region
    return _stood(place, lambda: prism([shapely.get_coordinates(region.exterior)[:-1]], place.level - more_mm,
                                       place.top + BEYOND_MM))  # fmt: skip


def _allowed(place: Sunk, edge_mm: float, is_flat: bool) -> Solid:
    """Where a tool may take metal away: the feature, the edge at its mouth, and below where its point comes out."""
    if place.d_mm <= 0:
        body = feature_solid(place, FILM_MM)
        mouth = _front if is_flat else _mouth
        return joined([body, mouth(place, edge_mm)]) if edge_mm else body
    r, wide = place.d_mm / 2 + FILM_MM, edge_mm + EDGE_SLACK_MM
    deepest = place.level - (THROUGH_MM + place.d_mm if place.through else POINT_SHARE * place.d_mm)
    beyond = place.top + BEYOND_MM
    outline = [
        (deepest, 0.0), (deepest, r), (place.top - wide, r), (place.top, r + wide), (beyond, r + wide), (beyond, 0.0)
    ]  # fmt: skip
    u, v = place.middle
    return _stood(place, lambda: revolved(region_from_points(outline), facets(r)).translate((u, v, 0.0)))


def _front(place: Sunk, edge_mm: float) -> Solid:
    """Where the edge of a flat at the front may be broken."""
    wide = edge_mm + EDGE_SLACK_MM
    _, left, high, right = place.region.bounds
    outline = np.array([[high - BEYOND_MM - wide, left], [high, left], [high, right], [high - BEYOND_MM - wide, right]])
    return _stood(place, lambda: prism([outline], place.level - wide, place.level + FILM_MM))


def _mouth(place: Sunk, edge_mm: float) -> Solid:
    """Where the edge of a slot may be broken: a band round it, from where the surface lies lowest there."""
    wide = edge_mm + EDGE_SLACK_MM
    band = place.region.buffer(wide, join_style="mitre")
    aside = max(abs(float(band.bounds[1])), abs(float(band.bounds[3])))
    low = math.sqrt(max(place.top**2 - aside**2, 0.0)) if place.along == "x" else place.top
    outline = [shapely.get_coordinates(band.exterior)[:-1]]
    return _stood(place, lambda: prism(outline, low - wide, place.top + BEYOND_MM))


def _stood(place: Sunk, make: Callable[[], Solid]) -> Solid:
    """A body made in the plane of a place, where it is on the work."""
    body = make()
    return body if place.along == "z" else turned_about_z(body.transform(ALONG_X), place.c_deg)
