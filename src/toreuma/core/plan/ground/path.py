"""How a planner writes its moves."""

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from toreuma.core.control_cycles import Made
from toreuma.core.geometry.elements import Line, Point, Points, Segment
from toreuma.core.geometry.recover import recover
from toreuma.core.motion import Motion, Spindle
from toreuma.core.plan.ground.frame import OUTSIDE, Frame
from toreuma.core.plan.ground.moves import Moves
from toreuma.core.plan.ground.work import Work

__all__ = ["APPROACH_MM", "PULL_OUT_MM", "Path"]

APPROACH_MM = 2.0
"""Distance from the metal at which a rapid ends."""

PULL_OUT_MM = 0.5
"""How far the tool lifts off before it goes back."""


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
        self._steps = work.given.steps
        shape = work.shape
        self._ahead = max(-float(piece[:, 0].min()) for piece in (shape.core - shape.nose_radius, *shape.bodies))
        self.motions: list[Motion] = Moves()

    @property
    def nose(self) -> tuple[float, float]:
        """Where the nose centre is."""
        return self._at[0] - self._tip[0], self._at[1] - self._tip[1]

    def rapid(self, z: float | None = None, r: float | None = None) -> None:
        """Rapid to nose centre (z, r); an axis left out stays."""
        self._go(z, r, None)

    def feed(self, feed: float, z: float | None = None, r: float | None = None) -> None:
        self._go(z, r, feed)

    def go(self, feed: float | None, z: float | None = None, r: float | None = None) -> None:
        """At a feed, or at a rapid where there is none."""
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
        feed = self._steps.feed(mm_min, per_minute=True)
        self.motions.append(Motion(segment, feed, self._spindle, self._work.tool.station, per_minute=True))
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
        return self._work.memo.of(recover, points, within_mm)

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
        if feed is not None and not in_step:
            feed = self._steps.feed(feed)
        made = Motion(self._frame.segment(segment), feed, self._spindle, self._work.tool.station, in_step=in_step)
        self.motions.append(made.follows(self.motions[-1] if self.motions else None))
        self._at = segment.end
