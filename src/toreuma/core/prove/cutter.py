"""Obeys moves one by one: takes the metal away, and sees what touches what."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
import shapely.affinity

from toreuma.core.cutting.beam import Compliance, compliance_of
from toreuma.core.cutting.force import (
    available_power_kw,
    cutting_power_kw,
    force_with_nose_n,
    in_plane_n,
    specific_force_n_mm2,
)
from toreuma.core.cutting.holes import drilling
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.geometry.region import EMPTY, Region, box, depth_inside, fold, polygons, tidy, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, Tool
from toreuma.core.model.tool import BarPuller, BarStop, Drill, KnurlingTool, Reamer, Tap, ThreadingTool, ThreadMill
from toreuma.core.motion import Motion
from toreuma.core.prove.contact import HOLE_SHARE, Contact
from toreuma.core.prove.flanks import rubs
from toreuma.core.prove.knurls import Rolled, rolled_by
from toreuma.core.prove.orbits import Chord, chord_of
from toreuma.core.prove.sunk import MilledPiece
from toreuma.core.prove.taps import Stroke, stroke_of
from toreuma.core.prove.threads import allowed_by_taps, allowed_by_threads
from toreuma.core.reach.beside import beside_of, carrier_body, low_beside, stands_beside
from toreuma.core.scene import Scene
from toreuma.core.simulate.rapids import bent_ways, goes_bent
from toreuma.core.simulate.removal import Swept, swept_each

__all__ = ["Contact", "Cutter", "Gouge", "MoveDone"]

TOUCH_MM = 0.005
"""Overlaps thinner than this are contact of surfaces, not of solids."""

FILM_MM2 = 1e-3
"""Less metal than this is a film that chords leave: nothing rubs on it."""

PAST_CENTRE_MM = 1.0
"""So much past the centre nobody minds."""

GROWN = 1.25
"""The outline is tidied when it has so many times the points it had."""

AT_ONCE = 256
"""What so many moves sweep is made at once."""

BLADE_MM = 1.0
"""Nothing that parts a piece off is narrower, and no piece thinner."""

GOUGE_MM = 0.0005
"""Overlaps with the part thinner than this are below what the program's own resolution can avoid."""


@dataclass(frozen=True)
class Gouge:
    """A move cuts below the finished surface."""

    line: int
    at: tuple[float, float]
    depth_mm: float


@dataclass(frozen=True)
class Guard:
    """Metal that must stay, and what of it lies deeper than a program's resolution."""

    part: Region
    sunk: Region

    @staticmethod
    def of(part: Region) -> "Guard":
        return Guard(part, part.buffer(-GOUGE_MM, join_style="mitre"))


@dataclass(frozen=True, kw_only=True)
class MoveDone:
    """What one move did: area removed in the half section, mean depth, power and force at the edge, bend on radius;
    ``along_n`` is the force against the feed, ``across_n`` square to it."""

    removed_mm2: float = 0.0
    depth_mm: float = 0.0
    power_kw: float = 0.0
    available_kw: float = 0.0
    force_n: float = 0.0
    bend_mm: float = 0.0
    along_n: float = 0.0
    across_n: float = 0.0

    @property
    def turns_piece(self) -> bool:
        """An edge pulls at the piece with forces that are known; drilling only pushes it into the hold."""
        return self.along_n > 0


class Cutter:
    """The stock on the machine while a program runs."""

    def __init__(self, job: Job, scene: Scene, bar_before: Region | None = None) -> None:
        self._job = job
        self._scene = scene
        self._shapes = {tool.station: (tool, shape_of(tool)) for tool in job.tools}
        whole = scene.part.intersection(scene.stock)
        threaded = union(polygons(whole.difference(allowed_by_threads(job, scene))))
        tapped = union(polygons(whole.difference(allowed_by_taps(job))))
        self.guarded = union(polygons(threaded.intersection(tapped)))
        self._guards = {kind: Guard.of(region) for kind, region in (("", whole), ("thread", threaded), ("tap", tapped))}
        self.stock = scene.stock if bar_before is None else bar_before
        self.centre_in = True
        self.open_line: int | None = None
        self.cut_open = 0
        self.fed: list[tuple[int, float]] = []
        self.missed: list[tuple[int, float]] = []
        self.dead: list[int] = []
        self.piece: Region = EMPTY
        self._corners = 0
        self._hanging: tuple[int, tuple[float, float]] | None = None
        self._bending: tuple[int, Compliance | None] | None = None
        self.after_thread = False
        self.station: int | None = None
        self._neighbours: dict[int, tuple[Tool, ...]] = {}
        self.contacts: list[Contact] = []
        self.gouges: list[Gouge] = []
        self.loose: list[tuple[int, Region]] = []
        self.rolled: list[Rolled] = []
        self.tapped: list[Stroke] = []
        self.chords: list[Chord] = []
        self.milled = MilledPiece(job, scene)

    def knows(self, station: int) -> bool:
        return station in self._shapes

    def past_centre_mm(self, station: int) -> float:
        """How far the programmed point of a tool goes past the axis for its whole front to have passed it."""
        _, shape = self._shapes[station]
        low = np.sort(shape.core[:, 1])[: min(2, len(shape.core))]
        leans = float(np.ptp(low)) if shape.is_blade else 0.0
        return 2 * shape.nose_radius + leans + PAST_CENTRE_MM

    @property
    def fixed(self) -> Region:
        """What no tool may touch now."""
        return self._scene.fixed if self.centre_in else self._scene.without_centre.fixed

    @property
    def finished(self) -> Region:
        """The piece if it is off, else the stock."""
        return self.piece if not self.piece.is_empty else self.stock

    def obey_all(
        self, motions: Sequence[Motion], tell: Callable[[int], None] = lambda count: None
    ) -> tuple[MoveDone, ...]:
        """Make moves one after the other. ``tell`` hears how many are made."""
        steps: list[MoveDone] = []
        # what a section does depends on nothing but the state it begins in
        self._corners, self._hanging = 0, None
        for begin in range(0, len(motions), AT_ONCE):
            run = motions[begin : begin + AT_ONCE]
            for motion, swept in zip(run, self._swept(run), strict=True):
                if len(steps) % 4 == 0:
                    tell(len(steps))
                steps.append(self._obey(motion, swept))
        return tuple(steps)

    def _swept(self, motions: Sequence[Motion]) -> list[Swept | None]:
        """What each move sweeps; None where a tool does not cut through the section."""
        found: list[Swept | None] = [None] * len(motions)
        where: dict[int, list[int]] = {}
        for n, motion in enumerate(motions):
            still = motion.driven is None and not motion.event and motion.segment.length >= 1e-9
            if still and motion.station in self._shapes:
                where.setdefault(motion.station, []).append(n)
        for station, places in where.items():
            shape = self._shapes[station][1]
            each = swept_each([motions[n] for n in places], shape)
            for n, one in zip(places, each, strict=True):
                found[n] = self._bent(motions[n], shape) or one
        return found

    def _bent(self, motion: Motion, shape: ToolShape) -> Swept | None:
        """What a rapid sweeps whose axes arrive one after the other; None for every other move."""
        if not goes_bent(motion, self._job.machine):
            return None
        each = swept_each(bent_ways(motion, self._job.machine), shape)
        return Swept(union([one.cutting for one in each]), np.concatenate([one.pieces for one in each]))

    def _obey(self, motion: Motion, passed: Swept | None) -> MoveDone:
        """Make one move. Moves of stations without a tool do nothing."""
        if motion.station != self.station:
            self._change(motion)
        if motion.driven is not None:
            if not motion.event and motion.station in self._shapes:
                self._beside(motion)
            return self._driven(motion)
        if motion.event:
            self._hold(motion)
            return MoveDone()
        if passed is None:
            return MoveDone()
        tool, shape = self._shapes[motion.station]
        stroke = stroke_of(motion, tool) if isinstance(tool, Tap) else None
        if stroke is not None:
            self.tapped.append(stroke)
        if isinstance(tool, BarPuller):
            return self._draw(motion, passed)
        if isinstance(tool, KnurlingTool) and not motion.is_rapid:
            return self._roll(motion, tool, passed)
        if self.open_line is not None and not motion.is_rapid and not self.cut_open:
            self.cut_open = motion.line
        swept = fold(passed.cutting)
        drawn_out = self.after_thread and motion.start[0] == motion.end[0]  # pulled straight out of a thread
        self.after_thread = motion.in_step
        if motion.is_rapid and drawn_out:
            removed = 0.0
        elif motion.is_rapid:
            self._touch("rapid in metal", swept, self.stock, motion)
            removed = 0.0
        else:
            before = self.stock
            if isinstance(tool, Tap | Reamer):
                self._into_solid(tool, swept, motion)
            removed = self._cut(motion, swept)
            if removed > FILM_MM2 and motion.spindle.mode == "stopped" and motion.per_minute:
                self.dead.append(motion.line)
            if removed > FILM_MM2 and not motion.in_step:
                self._rub(tool, shape, motion, swept, before)
        self._body("holder in metal", passed, self.stock, motion)
        self._body("holder in jaws or chuck", passed, self.fixed, motion)
        self._beside(motion)
        self._touch("insert in jaws or chuck", swept, self.fixed, motion)
        if isinstance(tool, Drill):
            return self._drilled(motion, removed, tool)
        return self._threaded(motion, removed) if motion.in_step else self._step(motion, removed, shape)

    def _change(self, motion: Motion) -> None:
        """Another tool comes in where the one before it stands: it must have room there, with all that carries it."""
        before, self.station = self.station, motion.station
        if before is None or motion.station not in self._shapes or before not in self._shapes:
            return
        carriers = [self._job.machine.carrier_of(station) for station in (before, motion.station)]
        if carriers[0] is not carriers[1] or carriers[1].kind == "gang plate":
            return
        shape, (z, r) = self._shapes[motion.station][1], motion.start
        stands = shapely.affinity.translate(shape.solid, z - shape.tip[0], r - shape.tip[1])
        self._touch("tool change in metal", fold(stands), self.stock, motion)
        self._touch("tool change in jaws or chuck", fold(stands), self.fixed, motion)

    def _draw(self, motion: Motion, passed: Swept) -> MoveDone:
        """A gripper goes over the bar's end, or moves with the bar in an open hold; nothing is cut."""
        if self.open_line is None:
            self._body("gripper in metal", passed, self.stock, motion)
            self._body("gripper in jaws or chuck", passed, self.fixed, motion)
            self._touch("gripper in metal", fold(passed.cutting), self.stock, motion)
        return MoveDone()

    def _roll(self, motion: Motion, tool: KnurlingTool, passed: Swept) -> MoveDone:
        """Wheels press ridges up; nothing is cut."""
        swept = fold(passed.cutting)
        self._body("holder in metal", passed, self.stock, motion)
        self._body("holder in jaws or chuck", passed, self.fixed, motion)
        self._touch("wheels in jaws or chuck", swept, self.fixed, motion)
        bare = self.stock.difference(union([one.raised for one in self.rolled]))
        made = rolled_by(tool, motion.line, bare, swept)
        if made is not None:
            self.rolled.append(made)
            self.stock = made.grown_on(self.stock)
        return MoveDone()

    def _hold(self, motion: Motion) -> None:
        """The centre comes or goes; the hold opens, and closes on a bar that stands out to the stop in front of it."""
        if motion.event in ("centre_in", "centre_out"):
            self.centre_in = motion.event == "centre_in"
            self._bending = None
            return
        held = self._shapes.get(motion.station)
        if motion.event == "unclamp":
            self.open_line = motion.line
            if held is not None and isinstance(held[0], BarPuller):
                self.missed += [(motion.line, motion.start[0] - float(self.stock.bounds[2]))]
            return
        self.open_line = None
        if held is not None and isinstance(held[0], BarStop | BarPuller):
            more = motion.start[0] - self._scene.stock_front_z
            self.fed.append((motion.line, more))
            self.stock = shapely.affinity.translate(self._scene.stock, more)
            self.piece = EMPTY

    def _driven(self, motion: Motion) -> MoveDone:
        """A driven tool takes nothing off the round stock; what it takes is kept in space."""
        if motion.station not in self._shapes:
            return MoveDone()
        if self.open_line is not None and not motion.is_rapid and not self.cut_open:
            self.cut_open = motion.line
        tool = self._shapes[motion.station][0]
        stroke = stroke_of(motion, tool) if isinstance(tool, Tap) else None
        if stroke is not None:
            self.tapped.append(stroke)
        chord = chord_of(motion, tool) if isinstance(tool, ThreadMill) else None
        if chord is not None:
            self.chords.append(chord)
        known = len(self.milled.touches)
        power, there = self.milled.obey(motion, tool, self.stock)
        self.contacts += self.milled.touches[known:]
        return MoveDone(removed_mm2=0.0, depth_mm=0.0, power_kw=power, available_kw=there)

    def _cut(self, motion: Motion, swept: Region) -> float:
        if self._hanging == (motion.station, motion.start):
            self._cut_free(motion, swept)
        if not shapely.intersects(swept, self.stock):
            return 0.0
        guard = self._guards[self._may(motion)]
        if shapely.intersects(swept, guard.sunk):
            over = swept.intersection(guard.part)
            depth = depth_inside(over, guard.part)
            if depth > GOUGE_MM:
                at = over.representative_point()
                self.gouges.append(Gouge(motion.line, (at.x, at.y), depth))
        before = self.stock.area
        self._settle(self._tidied(self.stock.difference(swept)), motion)
        return float(before - self.stock.area - (self.piece.area if not self.piece.is_empty else 0.0))

    def _cut_free(self, motion: Motion, swept: Region) -> None:
        """The blade goes on in the cut that loosened the piece: it hangs by less than the section shows, as by the
        teeth of a thread that runs through the cut."""
        left = polygons(self.piece.difference(swept))
        if left:
            self.piece, self._hanging = max(left, key=lambda one: one.area), (motion.station, motion.end)

    def _may(self, motion: Motion) -> str:
        """Where a move may cut below the drawn surface: in step with the spindle the walls of threads are made."""
        tool = self._shapes[motion.station][0]
        if not motion.in_step:
            return ""
        return "thread" if isinstance(tool, ThreadingTool) else "tap" if isinstance(tool, Tap) else ""

    def _tidied(self, left: Region) -> Region:
        """Without slivers, and without points on straight lines as soon as there are many more than before."""
        if shapely.get_num_coordinates(left) <= GROWN * self._corners:
            return union(polygons(left))
        left = tidy(left)
        self._corners = int(shapely.get_num_coordinates(left))
        return left

    def _settle(self, left: Region, motion: Motion) -> None:
        """Keep what the chuck holds; what is loose falls, the finished piece among it."""
        parts = polygons(left)
        if len(parts) <= 1:
            self.stock = left
            return
        grip = box(-1e5, 0, self._scene.jaw_face_z, 1e4)
        held = [part for part in parts if part.intersects(grip)]
        for part in parts:
            if part in held:
                continue
            if self._is_piece(part, held):
                self.piece, self._hanging = part, (motion.station, motion.end)
            elif part.area > 1e-4:
                self.loose.append((motion.line, part))
        self.stock = union(held)

    def _is_piece(self, part: Region, held: list[Region]) -> bool:
        """What comes off is the piece: most of what is drawn; without a drawing, all that is in front of the hold."""
        if self._scene.has_drawing:
            return bool(part.intersection(self._scene.part).area > 0.5 * self._scene.part.area)
        behind = max((float(one.bounds[2]) for one in held), default=-1e5)
        return behind < float(part.bounds[0]) + BLADE_MM and part.area > BLADE_MM**2

    def _rub(self, tool: Tool, shape: ToolShape, motion: Motion, swept: Region, before: Region) -> None:
        found = rubs(tool, shape, motion, lambda: swept.intersection(before), self.stock)
        if found is not None:
            self.contacts.append(Contact(found.what, motion.line, found.at, found.depth_mm))

    def _into_solid(self, tool: Tap | Reamer, swept: Region, motion: Motion) -> None:
        """A tap and a reamer need a hole: neither has an edge at its middle."""
        low, _, high, _ = swept.bounds
        middle = shapely.clip_by_rect(self.stock, low, 0.0, high, HOLE_SHARE * tool.d_mm / 2)
        self._touch(f"{tool.kind} in solid metal", middle, middle, motion)

    def _body(self, what: str, passed: Swept, solid: Region, motion: Motion) -> None:
        """Holder and shank: looked at as a whole only where one of their pieces comes near."""
        if solid.is_empty or not len(passed.pieces):
            return
        below = float(shapely.bounds(passed.pieces)[:, 1].min()) < 0  # it comes round on the other side
        if below or shapely.intersects(passed.pieces, solid).any():
            self._touch(what, fold(shapely.union_all(passed.pieces)), solid, motion)

    def _beside(self, motion: Motion) -> None:
        """The tools in the stations beside come down with the one that cuts."""
        tool = self._shapes[motion.station][0]
        if motion.station not in self._neighbours:
            self._neighbours[motion.station] = beside_of(self._job, tool)
        carrier, ends = self._job.machine.carrier_of(motion.station), (motion.start, motion.end)
        solids = [one for one in (self.stock, self.fixed) if not one.is_empty]
        front, top = (max((float(one.bounds[n]) for one in solids), default=0.0) for n in (2, 3))
        each: list[tuple[str, list[Region]]] = []
        for other in (*self._neighbours[motion.station], None):
            lows = [low_beside(carrier, tool, other, z, r) for z, r in ends]
            if not any(low_z < front and low_r < top for low_z, low_r in lows):
                continue
            if other is None:
                each.append((f"the {carrier.kind}", [carrier_body(carrier, tool, z, r) for z, r in ends]))
            else:
                stands = [stands_beside(carrier, tool, other, z, r) for z, r in ends]
                each.append((f"the tool beside, {other.id},", stands))
        for what, stands in each:
            passed = shapely.union_all(stands).convex_hull
            for solid, where in ((self.stock, "metal"), (self.fixed, "jaws or chuck")):
                if not solid.is_empty and shapely.intersects(passed, solid):
                    self._touch(f"{what} in {where}", passed, solid, motion)

    def _touch(self, what: str, moving: Region, solid: Region, motion: Motion) -> None:
        if solid.is_empty or not shapely.intersects(moving, solid):
            return
        overlap = moving.intersection(solid)
        if overlap.area < 1e-6 or overlap.buffer(-TOUCH_MM / 2).is_empty:
            return
        at = overlap.representative_point()
        depth = depth_inside(overlap, solid)
        self.contacts.append(Contact(what, motion.line, (at.x, at.y), depth))

    def _step(self, motion: Motion, removed: float, shape: ToolShape) -> MoveDone:
        if removed < 1e-9 or motion.feed is None:
            return MoveDone()
        depth = removed / motion.segment.length
        radius = max(abs(motion.start[1]), abs(motion.end[1]))
        rpm = spindle_rpm(motion.spindle, radius, self._job.machine.max_rpm)
        if rpm <= 0:
            return MoveDone(removed_mm2=removed, depth_mm=depth)
        feed = motion.feed / rpm if motion.per_minute else motion.feed
        nose = 0.0 if shape.is_blade else shape.nose_radius
        force = force_with_nose_n(self._job.stock.material, depth, feed, nose, shape.entering_angle_deg)
        power = cutting_power_kw(force, 2 * math.pi * radius * rpm / 1000)
        along, across = in_plane_n(force, depth, feed, nose, shape.entering_angle_deg)
        dz, dr = (abs(b - a) / motion.segment.length for a, b in zip(motion.start, motion.end, strict=True))
        radial = across * dz + along * dr
        there = available_power_kw(self._job.machine, rpm)
        return MoveDone(
            removed_mm2=removed,
            depth_mm=depth,
            power_kw=power,
            available_kw=there,
            force_n=force,
            bend_mm=radial * self._gives_way(motion),
            along_n=along,
            across_n=across,
        )

    def _threaded(self, motion: Motion, removed: float) -> MoveDone:
        """A pass of a thread: every turn takes the same chip."""
        rpm = spindle_rpm(motion.spindle, 0.0, self._job.machine.max_rpm)
        if removed < 1e-9 or motion.feed is None or rpm <= 0:
            return MoveDone()
        turns = max(motion.segment.length / motion.feed, 1.0)
        area, radius = removed / turns, max(abs(motion.start[1]), abs(motion.end[1]))
        depth = math.sqrt(area)
        force = specific_force_n_mm2(self._job.stock.material, max(depth / 2, 1e-3)) * area
        power = cutting_power_kw(force, 2 * math.pi * radius * rpm / 1000)
        there = available_power_kw(self._job.machine, rpm)
        return MoveDone(
            removed_mm2=removed,
            depth_mm=depth,
            power_kw=power,
            available_kw=there,
            force_n=force,
            bend_mm=0.5 * force * self._gives_way(motion),
        )

    def _drilled(self, motion: Motion, removed: float, tool: Drill) -> MoveDone:
        """A move of a drill: power from its torque, and thrust as the force."""
        rpm = spindle_rpm(motion.spindle, 0.0, self._job.machine.max_rpm)
        if removed < 1e-9 or motion.feed is None or rpm <= 0:
            return MoveDone()
        feed = motion.feed / rpm if motion.per_minute else motion.feed
        torque, thrust = drilling(self._job.stock.material, tool.d_mm, feed, tool.point_deg)
        there = available_power_kw(self._job.machine, rpm)
        return MoveDone(
            removed_mm2=removed,
            depth_mm=tool.d_mm / 2,
            power_kw=torque * rpm / 9549.3,
            available_kw=there,
            force_n=thrust,
        )

    def _gives_way(self, motion: Motion) -> float:
        """Compliance of the piece at the tool, mm/N, as it was when the operation began."""
        if self._bending is None or self._bending[0] != motion.section:
            e, hold_z = self._job.stock.material.e_n_mm2, self._scene.jaw_face_z
            found = None
            low, _, high, _ = self.stock.bounds
            if e is not None and not self.stock.is_empty and low < hold_z + 1e-6 < high - 1:
                centre = self.centre_in and self._job.setup.centre is not None
                supports = replace(self._scene.supports, centre=centre)
                found = compliance_of(self.stock, supports, e)
            self._bending = motion.section, found
        found = self._bending[1]
        return found.at((motion.start[0] + motion.end[0]) / 2) if found is not None else 0.0
