"""What every operation kind is given, and how it writes its moves."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Literal

from toreuma.core.control_cycles import Made
from toreuma.core.geometry.elements import Line, Point, Points, Segment
from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import EMPTY, Region, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo, fingerprint
from toreuma.core.model import DrillHole, Job, Operation, PartOff, Tool
from toreuma.core.model.tool import Drill
from toreuma.core.motion import Motion, Spindle
from toreuma.core.plan.frame import OUTSIDE, Frame
from toreuma.core.plan.opened import Interruption
from toreuma.core.scene import Scene
from toreuma.core.simulate.removal import SIMULATION_CHORD_MM, after_cutting

__all__ = ["APPROACH_MM", "PULL_OUT_MM", "Path", "Work", "part_off_width_mm"]

APPROACH_MM = 2.0
"""Distance from the metal at which a rapid ends."""

PULL_OUT_MM = 0.5
"""How far the tool lifts off before it goes back."""


IN_THE_HOLE = ("drill", "tap", "ream", "rough_bore", "finish_bore")


@dataclass(frozen=True)
class Work:
    """One operation about to be planned: the job, the solids, the tool, and the stock as it is now.

    ``interruption`` is what it meets where driven tools have opened the metal before.
    """

    job: Job
    scene: Scene
    operation: Operation
    tool: Tool
    shape: ToolShape
    stock: Region
    memo: Memo
    interruption: Interruption | None = None

    @property
    def limit_z(self) -> float:
        """The smallest z of the nose centre, whatever its radius, that keeps the tool clear of jaws and chuck."""
        reach = max(-float(piece[:, 0].min()) for piece in (*self.shape.bodies, self.shape.core))
        clearance = self.job.setup.hold.tool_clearance_mm + self.shape.nose_radius
        return self.scene.clear_z + reach + clearance

    @property
    def blocked_by_centre(self) -> Region:
        """Nose centres at which insert or holder would come too close to the centre; empty without one."""
        centre = self.scene.centre
        if centre.is_empty:
            return EMPTY
        clearance = self.job.setup.hold.tool_clearance_mm

        def compute() -> Region:
            insert = blocked_by_part(centre, self.shape, clearance, clearance)
            return union([insert, blocked_by_body(centre, self.shape.bodies, clearance)])

        return self.memo.get(("centre", self.tool, fingerprint(centre), clearance), compute)

    def after(self, motions: tuple[Motion, ...], chord_mm: float = SIMULATION_CHORD_MM) -> Region:
        """The stock after these moves, each made with the tool of its station."""
        stock = self.stock
        for station, run in groupby(motions, key=lambda motion: motion.station):
            stock = self._after_run(stock, tuple(run), self._at_station(station), chord_mm)
        return stock

    def _at_station(self, station: int) -> Tool:
        if station == self.tool.station:
            return self.tool
        used = [self.job.tool(one) for one in self.operation.tools]
        return next((tool for tool in used if tool is not None and tool.station == station), self.tool)

    def _after_run(self, stock: Region, motions: tuple[Motion, ...], tool: Tool, chord_mm: float) -> Region:
        way = tuple((motion.segment, motion.is_rapid) for motion in motions)
        shape = self.shape if tool == self.tool else shape_of(tool)
        key = ("after", way, tool, fingerprint(stock), chord_mm)
        return self.memo.get(key, lambda: after_cutting(stock, motions, shape, chord_mm))

    @property
    def hole_begun_by(self) -> Drill | None:
        """The drill, spot or centre of an earlier operation that began the hole on the axis, if any."""
        for operation in self.job.operations:
            if operation.id == self.operation.id:
                break
            tool = self.job.tool(operation.tool)
            if isinstance(operation, DrillHole) and operation.enabled and isinstance(tool, Drill):
                return tool
        return None

    @property
    def followed_by(self) -> tuple[tuple[Operation, Tool], ...]:
        """Later operations that go on in the hole on the axis, with their tools."""
        later = [one.id for one in self.job.operations].index(self.operation.id) + 1
        found = []
        for operation in self.job.operations[later:]:
            tool = self.job.tool(operation.tool)
            if operation.enabled and tool is not None and operation.kind in IN_THE_HOLE:
                found.append((operation, tool))
        return tuple(found)

    @property
    def part_off_width(self) -> float | None:
        return part_off_width_mm(self.job)


def part_off_width_mm(job: Job) -> float | None:
    """Width of the blade that will part the piece off, mm, if one is planned."""
    for operation in job.operations:
        tool = job.tool(operation.tool) if isinstance(operation, PartOff) and operation.enabled else None
        if tool is not None and tool.kind == "parting":
            return tool.blade.width_mm
    return None


class Path:
    """Writes moves of the nose centre down as moves of the programmed point.

    Places are those of the frame; what is written down is real. Rapids over distance move one axis at a time: out
    along X first when leaving, Z first when coming; in a bore the other way round.
    """

    def __init__(self, work: Work, spindle: Spindle, frame: Frame = OUTSIDE, safe: float = 0.0) -> None:
        self._work = work
        self._spindle = spindle
        self._frame = frame
        self._safe = safe
        self._tip = frame.point(work.shape.tip)
        self._at = frame.point(work.scene.index)
        shape = work.shape
        self._ahead = max(-float(piece[:, 0].min()) for piece in (shape.core - shape.nose_radius, *shape.bodies))
        self.motions: list[Motion] = []

    @property
    def nose(self) -> tuple[float, float]:
        """Where the nose centre is."""
        return self._at[0] - self._tip[0], self._at[1] - self._tip[1]

    def rapid(self, z: float | None = None, r: float | None = None) -> None:
        """Rapid to nose centre (z, r); an axis left out stays."""
        self._go(z, r, None)

    def feed(self, feed: float, z: float | None = None, r: float | None = None) -> None:
        self._go(z, r, feed)

    def thread(self, lead: float, z: float, r: float | None = None) -> None:
        """In step with the spindle, ``lead`` mm in a turn."""
        self._go(z, r, lead, in_step=True)

    def slide(self, mm_min: float, z: float) -> None:
        """Along Z at a speed of its own, with the spindle standing: nothing is cut."""
        way = Line(self._at, (z + self._tip[0], self._at[1]))
        if way.length < 1e-6:
            return
        segment = self._frame.segment(way)
        self.motions.append(Motion(segment, mm_min, self._spindle, self._work.tool.station, per_minute=True))
        self._at = way.end

    @property
    def tip(self) -> tuple[float, float]:
        """The programmed point from the nose centre, in the frame."""
        return self._tip

    @property
    def at(self) -> Point:
        """Where the programmed point is, as it is really written."""
        return self._frame.point(self._at)

    def made(self, moves: Iterable[Made], feed: float) -> None:
        """What a control makes of a cycle, in real places of the programmed point."""
        for one in moves:
            self._add(self._frame.segment(one.segment), None if one.how == "rapid" else feed, one.how == "thread")

    def event(self, what: Literal["", "unclamp", "clamp"], dwell_s: float) -> None:
        """Something the machine does while no axis moves; nothing but waiting where it has no name."""
        place = Line(self.at, self.at)
        self.motions.append(Motion(place, None, self._spindle, self._work.tool.station, dwell_s=dwell_s, event=what))

    def along(self, segments: Iterable[Segment], feed: float) -> list[Segment]:
        """Follow segments of the nose centre; returns the segments of the programmed point."""
        written = []
        for segment in segments:
            moved = segment.moved(*self._tip)
            gap = abs(moved.start[0] - self._at[0]) + abs(moved.start[1] - self._at[1])
            if gap > 1e-6:
                self._add(Line(self._at, moved.start), feed)
            moved = replace(moved, start=self._at) if gap <= 1e-6 else moved
            self._add(moved, feed)
            written.append(moved)
        return written

    def recovered(self, points: Points, within_mm: float) -> list[Segment]:
        """Lines and arcs through a polyline of nose centres, computed once for equal points."""
        key = ("recovered", points.tobytes(), within_mm)
        return self._work.memo.get(key, lambda: recover(points, within_mm))

    def come(self, z: float, r: float) -> None:
        """From the index point to the start of a cut: along Z high above the work, then down.

        Into a bore: in front of the work to the height at which the tool travels, along Z, then out.
        """
        if self._frame.flip_r:
            front = self._frame.point((self._work.stock.bounds[2] + APPROACH_MM + self._ahead, 0.0))[0]
            goes_in = z > front if self._frame.flip_z else z < front
            self.rapid(z=front if goes_in else z)
            self.rapid(r=self._safe if goes_in else r)
        self.rapid(z=z)
        self.rapid(r=r)

    def leave(self) -> None:
        """Out along X, then back to the index point; out of a bore along Z first."""
        index = self._frame.point(self._work.scene.index)
        if self._frame.flip_r:
            self.rapid(r=max(self._safe, self.nose[1]))
            self._add(Line(self._at, (index[0], self._at[1])), None)
            self._add(Line(self._at, index), None)
            return
        self._add(Line(self._at, (self._at[0], index[1])), None)
        self._add(Line(self._at, index), None)

    def _go(self, z: float | None, r: float | None, feed: float | None, in_step: bool = False) -> None:
        target = (self._at[0] if z is None else z + self._tip[0], self._at[1] if r is None else r + self._tip[1])
        self._add(Line(self._at, target), feed, in_step)

    def _add(self, segment: Segment, feed: float | None, in_step: bool = False) -> None:
        if segment.length < 1e-6:
            return
        made = Motion(self._frame.segment(segment), feed, self._spindle, self._work.tool.station, in_step=in_step)
        self.motions.append(made.follows(self.motions[-1] if self.motions else None))
        self._at = segment.end
