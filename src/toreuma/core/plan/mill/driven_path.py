"""Writes moves of a driven tool down: the work stands at an angle under its brake, or is turned in step."""

import math

from toreuma.core.geometry.elements import Line, Point
from toreuma.core.motion import STOPPED, Driven, Event, Motion
from toreuma.core.plan.ground.moves import Moves
from toreuma.core.plan.ground.work import Work

__all__ = ["DrivenPath"]

POLAR_MM_MIN = 2000.0
"""Ways through air while the work is turned in step."""


class DrivenPath:
    """Places are of the tool's end, (z, x) and y, as somebody sees them who turned with the work."""

    def __init__(self, work: Work, rpm: float) -> None:
        self._work, self._rpm = work, work.given.steps.turns(rpm)
        self._at: Point = work.scene.index
        self._y = self._c = 0.0
        self._told = False
        self._polar = False
        axis = work.given.machine.c_axis
        self._has_brake = axis is not None and axis.brake_nm > 0
        self._braked = False
        self.motions: list[Motion] = Moves()
        self._event("c_axis_on")

    def rapid(self, z: float | None = None, x: float | None = None, y: float | None = None) -> None:
        """Rapid; an axis left out stays."""
        self._go(None, z, x, y)

    def feed(self, mm_min: float, z: float | None = None, x: float | None = None, y: float | None = None) -> None:
        self._go(mm_min, z, x, y)

    def index(self, deg: float, braked: bool = True) -> None:
        """Turn the work to an angle and hold it there; the first angle is always told, whatever the axis stood at."""
        self.brake(on=False)
        if not self._told or abs(deg - self._c) > 1e-9:
            turned, self._c, self._told = deg - self._c, deg, True
            self._event("index", turned)
        self.brake(on=braked)

    def brake(self, on: bool) -> None:
        if self._has_brake and on != self._braked:
            self._braked = on
            self._event("brake_on" if on else "brake_off")

    def polar(self, on: bool) -> None:
        """From here on Y comes about by turning the work, or no longer; then the tool stands in line with the axis, and
        the work as far round as that takes."""
        if self._polar and not on and self._y:
            z, x = self._at
            self._c += math.degrees(math.atan2(self._y, x))
            self._at, self._y = (z, math.hypot(x, self._y)), 0.0
        self._polar = on

    def reverse(self) -> None:
        """The tool turns the other way from here on."""
        self._rpm = -self._rpm

    def turn(self, rpm: float) -> None:
        """The tool turns so fast from here on; below zero in reverse."""
        self._rpm = self._work.given.steps.turns(rpm)

    def dwell(self, seconds: float) -> None:
        """It stands where it is."""
        driven = Driven(rpm=self._rpm, c_deg=self._c, y=(self._y, self._y), polar=self._polar)
        way = Line(self._at, self._at)
        self.motions.append(Motion(way, None, STOPPED, self._station, dwell_s=seconds, driven=driven))

    def leave(self, along_x: bool) -> None:
        """Back to the index point: along the tool's axis first."""
        z, r = self._work.scene.index
        self.rapid(x=r) if along_x else self.rapid(z=z)
        self.rapid(y=0.0)
        self.rapid(z=z) if along_x else self.rapid(x=r)
        self._polar = False
        self.brake(on=False)
        self._event("c_axis_off")

    def _event(self, what: Event, turned: float = 0.0) -> None:
        driven = Driven(rpm=self._rpm, c_deg=self._c, y=(self._y, self._y), polar=self._polar, turned_deg=turned)
        self.motions.append(Motion(Line(self._at, self._at), None, STOPPED, self._station, event=what, driven=driven))

    @property
    def _station(self) -> int:
        return self._work.tool.station

    def _go(self, feed: float | None, z: float | None, x: float | None, y: float | None) -> None:
        end = (self._at[0] if z is None else z, self._at[1] if x is None else x)
        end_y = self._y if y is None else y
        if end == self._at and end_y == self._y:
            return
        if self._polar and feed is None:  # turned in step, the axis of rotation knows no rapid
            feed = POLAR_MM_MIN
        driven = Driven(rpm=self._rpm, c_deg=self._c, y=(self._y, end_y), polar=self._polar)
        feed = None if feed is None else self._work.given.steps.feed(feed, per_minute=True)
        way = Line(self._at, end)
        self.motions.append(Motion(way, feed, STOPPED, self._station, per_minute=feed is not None, driven=driven))
        self._at, self._y = end, end_y
