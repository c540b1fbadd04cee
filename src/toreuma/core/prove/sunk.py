"""Obeys driven tools in space, and compares what they cut with the holes, flats and slots of the part."""

import math
from collections.abc import Callable, Hashable, Iterator, Sequence
from contextlib import suppress
from copy import copy
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
import shapely
from shapely import Point

from toreuma.core.cutting.force import specific_force_n_mm2
from toreuma.core.errors import PartError
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk, hole_edge_mm, mouth_d_mm, sunk_of
from toreuma.core.geometry.of_bar import is_of_bar
from toreuma.core.geometry.region import Region, region_from_points, rings
from toreuma.core.geometry.solids import ALONG_X, Solid, facets, joined, prism, revolved, thickness_um, turned_about_z
from toreuma.core.memo import Memo
from toreuma.core.model import Job, ThreadForm, Tool, is_milled
from toreuma.core.model.feature import Flats, HolePattern, Slot
from toreuma.core.model.tool import EndMill, Reamer, Tap, ThreadMill
from toreuma.core.motion import Motion
from toreuma.core.prove.contact import HOLE_SHARE, Contact
from toreuma.core.prove.driven_cuts import DrivenCuts, DrivenTool
from toreuma.core.prove.layers import Layers
from toreuma.core.prove.metal import COARSE, SIMPLE_MM, Metal, is_full, may_meet
from toreuma.core.prove.orbits import chord_of, fits
from toreuma.core.prove.undrawn import Undrawn, undrawn_bodies, undrawn_of
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["Bored", "MilledPiece", "feature_solid"]

BEYOND_MM = 5.0
EDGE_SLACK_MM = 0.05
POINT_SHARE = 0.6
"""A point goes no deeper below its full diameter than this share of the diameter, a centre at 80 degrees."""

THROUGH_MM = 3.0
"""How far a tool may come out behind a through hole."""

TOUCH_UM = 10.0
LEAST_DEG, TURN_SHARE, MOST_TURNS = 1e-6, 0.4, 720
"""Turned less the work stands; it is looked at after every so much of the tool's diameter, and no more often."""

SHORT_MM = 0.5
"""Moves shorter than this are chords of a round."""

FILM_MM = 0.001
"""Features are compared this much larger and smaller: faces that coincide would leave films to be taken apart."""


@dataclass(frozen=True)
class Bored:
    """What driven tools made of the part's milled features, um: missing metal, metal left, and where; ``each`` is the
    metal left in every one of them, by its place among the part's features; ``undrawn`` is what was kept as written
    beside them."""

    gouge_um: float = 0.0
    leftover_um: float = 0.0
    findings: tuple[Finding, ...] = ()
    each: tuple[tuple[int, float], ...] = ()
    undrawn: tuple[Undrawn, ...] = ()


class MilledPiece:
    """Everything driven tools have cut so far, and what they touched; ``history`` stands for how it came about."""

    def __init__(self, job: Job, scene: Scene) -> None:
        self._job, self._scene = job, scene
        self._tools: dict[int, DrivenTool] = {}
        self._cuts = DrivenCuts()
        self._gone: list[Solid] = []
        self._metal: Metal | None = None
        self._threading: list[tuple[Motion, DrivenTool]] = []
        self._layers = Layers()
        self._side = (False, 0.0)
        self.touches: list[Contact] = []
        self.history: Hashable = ()

    @cached_property
    def _fixed(self) -> Solid:
        return revolved(self._scene.fixed.simplify(SIMPLE_MM), COARSE)

    def obey(self, motion: Motion, tool: Tool, stock: Region) -> tuple[float, float]:
        """Make one move in the round stock; gives power at the edge, kW, and what the drive has."""
        turns = motion.event == "index" and motion.driven is not None and abs(motion.driven.turned_deg) > LEAST_DEG
        if motion.driven is None or not (turns or (not motion.event and motion.length >= 1e-9)):
            return 0.0, 0.0
        driven = self._tools.get(tool.station)
        if driven is None or driven.tool is not tool:
            driven = self._tools[tool.station] = DrivenTool.of(tool)
        if turns:
            self._turned(motion, driven, stock)
            return 0.0, 0.0
        feeds = motion.feed is not None and not isinstance(tool, Tap)
        if feeds and isinstance(tool, ThreadMill):
            self._threading.append((motion, driven))
            if motion.length >= SHORT_MM or len(self._threading) % LOOKED_AT == 0:
                self._contacts(motion, driven, stock)
            return 0.0, 0.0
        if feeds:
            self._cuts.add(motion, driven)
        if feeds and motion.length < SHORT_MM:  # a chord of a round: it touches nothing its neighbours do not
            self._removed_mm3(motion, driven, stock)
            return 0.0, 0.0
        self._contacts(motion, driven, stock)
        return self._power(motion, driven, self._removed_mm3(motion, driven, stock)) if feeds else (0.0, 0.0)

    def _turned(self, motion: Motion, driven: DrivenTool, stock: Region) -> None:
        """The work turns to another angle while the tool stands where it is: it must stand clear of all it meets."""
        assert motion.driven is not None
        turned, end, y = motion.driven.turned_deg, motion.driven.c_deg, motion.driven.y[0]
        stood = replace(motion, driven=replace(motion.driven, y=(y, y)))
        near = [body for body in driven.solids if may_meet(stock, driven.bounds_along(body, stood))]
        wide = max(float(getattr(driven.tool, "d_mm", 1.0)), 1.0)
        way_mm = math.radians(abs(turned)) * (math.hypot(motion.start[1], y) + wide)
        count = min(max(math.ceil(way_mm / (TURN_SHARE * wide)), 1), MOST_TURNS)
        for angle in (end - turned * (1 - n / count) for n in range(1, count + 1) if near):
            for body in near:
                at_angle = driven.along(body, replace(motion, driven=replace(motion.driven, c_deg=angle, y=(y, y))))
                met = at_angle ^ self._metal_now(stock).near(at_angle)
                if not met.is_empty() and thickness_um(met) > TOUCH_UM:
                    self._touch("tool in metal while the work turns", met, motion)
                    return

    def _contacts(self, motion: Motion, driven: DrivenTool, stock: Region) -> None:
        """What tool and holder run into on the way; their boxes tell first whether they could."""
        fixed = self._scene.fixed
        for body in driven.bodies:
            bounds = driven.bounds_along(body, motion)
            if may_meet(stock, bounds):
                moved = driven.along(body, motion)
                self._touch("holder in metal", moved ^ self._metal_now(stock).near(moved), motion)
            if may_meet(fixed, bounds):
                self._touch("holder in jaws or chuck", driven.along(body, motion) ^ self._fixed, motion)
        bounds = driven.bounds_along(driven.rough, motion)
        if may_meet(fixed, bounds):
            self._touch("tool in jaws or chuck", driven.along(driven.rough, motion) ^ self._fixed, motion)
        if not motion.is_rapid and isinstance(driven.tool, Tap | Reamer | ThreadMill) and may_meet(stock, bounds):
            way = driven.along(driven.inner(HOLE_SHARE), motion)
            self._touch(f"{driven.tool.kind} in solid metal", way ^ self._metal_now(stock).near(way), motion)
        if motion.is_rapid and not isinstance(driven.tool, Tap) and may_meet(stock, bounds):
            way = driven.along(driven.rough, motion)
            self._touch("rapid in metal", way ^ self._metal_now(stock).near(way), motion)

    def _removed_mm3(self, motion: Motion, driven: DrivenTool, stock: Region) -> float:
        """Take what one move cuts; gives the volume of metal there was, mm3."""
        assert motion.driven is not None
        level = driven.level_of(motion)
        if level is None:
            if not may_meet(stock, driven.bounds_along(driven.rough, motion)):
                return 0.0
            way, metal = driven.along(driven.rough, motion), self._metal_now(stock)
            met = way ^ metal.near(way)
            self._take(way)
            return float(met.volume())
        side = driven.along_x, motion.driven.c_deg
        if side != self._side:
            self._settle()
            self._side = side
        places, _ = driven.seen(motion)
        assert isinstance(driven.tool, EndMill)
        r = driven.tool.d_mm / 2
        region = shapely.LineString(places).buffer(r) if np.ptp(places, axis=0).any() else Point(places[0]).buffer(r)

        def metal_mm3(over: Region, low: float, high: float | None) -> float:
            body = self._column(over, low, high)
            bounds = body.bounding_box()
            if high is not None and is_full(stock, bounds) and not self._round(stock).is_cut_near(bounds):
                return float(over.area * (high - low))
            return float((body ^ self._round(stock).near(body)).volume()) if may_meet(stock, bounds) else 0.0

        return self._layers.cut(region, level, metal_mm3)

    def _power(self, motion: Motion, driven: DrivenTool, removed_mm3: float) -> tuple[float, float]:
        """Power at the edge, kW, and what the drive has."""
        assert motion.driven is not None
        live = self._job.machine.carrier_of(driven.tool.station).live
        rpm = abs(motion.driven.rpm)
        if motion.feed is None or live is None or rpm <= 0 or removed_mm3 <= 0:
            return 0.0, 0.0
        tooth = motion.feed / rpm / driven.teeth
        rate = removed_mm3 / motion.length * motion.feed
        power = rate * specific_force_n_mm2(self._job.stock.material, max(tooth / 2, 1e-3)) / 6e7
        return power, min(live.power_kw, live.torque_nm * rpm / 9549.3)

    def _column(self, region: Region, level: float, top: float | None = None) -> Solid:
        """What stands over a region of the side being milled, from a level up to another, or all above it."""
        along_x, c_deg = self._side
        outlines = [ring[:-1] for ring in rings(region)]
        body = prism(outlines, level, self._top if top is None else top)
        return turned_about_z(body.transform(ALONG_X), c_deg) if along_x else turned_about_z(body, c_deg)

    @property
    def _top(self) -> float:
        """Above all metal, along Z or X."""
        return max(float(self._scene.stock_r), self._scene.stock_front_z) + BEYOND_MM

    def _round(self, stock: Region) -> Metal:
        """The stock with all that other sides and other tools took from it."""
        if self._metal is None or self._metal.stock is not stock:
            self._metal = Metal(stock)
            for way in self._gone:
                self._metal.take(way)
        return self._metal

    def _metal_now(self, stock: Region) -> Metal:
        """The stock as it is now, with all that driven tools took from it."""
        self._settle()
        return self._round(stock)

    def _settle(self) -> None:
        """Take the layers of this side out of the metal."""
        for level, region in self._layers.each():
            self._take(self._column(region.simplify(SIMPLE_MM), level))
        self._layers = Layers()

    def _take(self, body: Solid) -> None:
        self._gone.append(body)
        if self._metal is not None:
            self._metal.take(body)

    def _touch(self, what: str, met: Solid, motion: Motion) -> None:
        deep = 0.0 if met.is_empty() else thickness_um(met)
        if deep > TOUCH_UM:
            self.touches.append(Contact(what, motion.line, _place(met), deep / 1000))

    def copy(self) -> "MilledPiece":
        """The same state, to go on from elsewhere."""
        made = copy(self)
        made._tools, made._gone, made.touches = dict(self._tools), list(self._gone), list(self.touches)
        made._cuts, made._layers = self._cuts.copy(), self._layers.copy()
        made._threading = list(self._threading)
        made._metal = self._metal.copy() if self._metal is not None else None
        return made

    def compared(self, job: Job, final: Region, memo: Memo | None = None) -> Bored:
        """What was cut, held against every milled feature that an operation of the job cuts."""
        milling = [each for one in job.operations if one.enabled for each in one.milling]
        wanted = frozenset(each.feature for each in milling if not each.edges_only)
        edged = frozenset(each.feature for each in milling if each.edges_only)
        if (
            not wanted
            and not self._cuts.any
            and not self._threading
            and not undrawn_of(job)
            and not any(is_milled(one) for one in job.part.features)
        ):
            return Bored()
        if memo is None:
            return self._compared(wanted, edged, final)
        forms = tuple(each.form for each in milling)
        own = memo.digest(job.part), memo.digest(job.stock), memo.digest(final)
        kept = tuple(memo.digest(one) for one in undrawn_of(job))
        key = ("bored", *own, self.history, wanted, edged, forms, kept)
        return memo.get(key, lambda: self._compared(wanted, edged, final))

    def _off_their_threads(self) -> Iterator[tuple[int, Solid]]:
        """What thread mills cut where no thread is drawn, or wider and deeper than it."""
        if not self._threading:
            return
        rooms = list(self._rooms())
        off = [one for one in self._threading if not _in_thread(*one, rooms)]
        for motion, driven in off[:: max(len(off) // MOST_CHORDS, 1)]:
            yield motion.line, driven.along(driven.cutting, motion)

    def _rooms(self) -> Iterator[tuple[Sunk, ThreadForm]]:
        """Every hole with a thread that a mill is meant to cut."""
        job = self._job
        for one in (each for operation in job.operations if operation.enabled for each in operation.milling):
            feature = job.part.features[one.feature] if one.feature < len(job.part.features) else None
            if one.form is not None and isinstance(feature, HolePattern) and feature.thread:
                with suppress(PartError):
                    yield from ((place, one.form) for place in sunk_of(one.feature, feature, self._scene.part))

    def _compared(self, wanted: frozenset[int], edged: frozenset[int], final: Region) -> Bored:
        job, part = self._job, self._scene.part
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
            edge = hole_edge_mm(job.part.edge_break_mm) if index in edged else 0.0
            if isinstance(feature, HolePattern):
                edge = (mouth_d_mm(feature, job.part.edge_break_mm) - feature.d_mm) / 2
            allowed += [_allowed(one, edge, feature.kind == "flats") for one in places]
            cut = index in wanted or index in opened or is_of_bar(job.stock, feature)
            if not cut and not any(one.behind for one in places):
                what = f"{feature.name or feature.kind}: no operation cuts it in this setup"
                findings.append(Finding("note", "milled.open", what, "it stays in the metal"))
        round_ = revolved(final.simplify(SIMPLE_MM))
        bodies = [*self._cuts.bodies(), *self._off_their_threads()]
        taken = joined(body for _, body in bodies)
        undrawn = list(undrawn_bodies(job))
        gouged = (taken - joined([*allowed, *(body for _, body in undrawn)])) ^ round_
        left = joined([solids[index] for index in sorted(wanted) if index in solids]) ^ round_
        left = left - taken
        gouge, leftover = _beside_film(gouged), _beside_film(left)
        leftover = (
            leftover if leftover > LIMIT_UM else 0.0
        )  # films that a program's resolution leaves, as on round ones
        if gouge > LIMIT_UM:
            line = next((line for line, solid in bodies if thickness_um(solid ^ gouged) > LIMIT_UM), 0)
            what = said("line {}: a driven tool cuts {} of metal that belongs to the part", line, q(gouge, "um", ".1f"))
            findings.append(
                Finding("error", "milled.gouge", what, "the part would be scrap", at=_place(gouged), line=line)
            )
        if leftover > LIMIT_UM:
            what = said("{} are left in a hole, flat or slot", q(leftover, "um", ".1f"))
            findings.append(Finding("error", "milled.left", what, "the plan says it is cut", at=_place(left)))
        each = tuple((index, _beside_film((one ^ round_) - taken)) for index, one in solids.items())
        kept = tuple(Undrawn(name, _beside_film((one ^ round_) - taken), _place(one)) for name, one in undrawn)
        return Bored(gouge, leftover, tuple(findings), each, kept)


MOST_CHORDS = 24
"""Of a mill that goes round where it should not, about so many chords tell what it cuts."""

LOOKED_AT = 6
"""One in so many chords of a thread mill is held against what stands round it."""

LIMIT_UM, LEAST_UM = 2.0, 0.1
"""As for turned surfaces."""


def _in_thread(motion: Motion, driven: DrivenTool, rooms: Sequence[tuple[Sunk, ThreadForm]]) -> bool:
    """Whether a move of a thread mill cuts nothing but a thread that is drawn."""
    assert isinstance(driven.tool, ThreadMill)
    chord = chord_of(motion, driven.tool)
    return chord is None or any(fits(chord, driven.tool, place, form) for place, form in rooms)


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
