"""Everything the limits of a turning cut are judged by, and what a cut looks like in it."""

import math
from bisect import bisect_right
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple

from toreuma.core.cutting import force
from toreuma.core.cutting.engagement import Engagement, engaged
from toreuma.core.cutting.evidence import Limit
from toreuma.core.cutting.grip import jaw_pull_n_per_rpm2, required_grip_n
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.cutting.window import ChipWindow
from toreuma.core.model import Hold, Machine, Mandrel, Material
from toreuma.core.model.hold import Chuck
from toreuma.core.model.material import LIFE_MIN, StartSpeed
from toreuma.core.model.steps import USUAL, Steps

__all__ = ["BarHeld", "Bend", "Cut", "Gripped", "Seen", "Situation", "Use"]

Use = Literal["rough", "finish", "part_off"]

LEAST_SPINDLE_SHARE = 0.05
"""Where no grip is left at any speed, the spindle is taken to turn at this share of its top speed."""

LEAST_MM_MIN = 1e-6
"""Slower than this nothing gets anywhere: a spindle that stands."""


class Cut(NamedTuple):
    """Depth on radius (the width of a blade), mm; feed, mm/rev; surface speed, m/min."""

    ap_mm: float
    feed_mm_rev: float
    vc_m_min: float


@dataclass(frozen=True)
class Gripped:
    """The hold, and where the cut is: on which diameter, how far in front of it, mm."""

    hold: Hold
    cut_d_mm: float
    grip_d_mm: float
    overhang_mm: float

    def needed_n(self, cutting_n: float, feed_n: float, passive_n: float) -> float:
        """Grip a cut asks for, N, safety included."""
        return required_grip_n(self.hold, cutting_n, feed_n, passive_n, self.cut_d_mm, self.grip_d_mm, self.overhang_mm)

    def safe_rpm(self, needed_n: float) -> float:
        """Highest speed at which so much grip is left; infinite where it is not known or speed takes none."""
        hold = self.hold
        pull = self._pull
        if hold.force_n is None or pull == 0:
            return math.inf
        return math.sqrt(max(hold.force_n - needed_n, 0.0) / pull)

    @cached_property
    def _pull(self) -> float:
        gains = isinstance(self.hold, Mandrel) or (isinstance(self.hold, Chuck) and self.hold.side == "inside")
        return 0.0 if gains else jaw_pull_n_per_rpm2(self.hold)


@dataclass(frozen=True)
class Bend:
    """The place where the piece gives way most against what it may: mm/N, and mm allowed on radius."""

    mm_per_n: float
    allowed_mm: float
    where: str


@dataclass(frozen=True)
class BarHeld:
    """A boring bar: free length over diameter against what its material stands, and how it gives way."""

    overhang_ratio: float
    usable_ratio: float
    mm_per_n: float
    allowed_mm: float


@dataclass(frozen=True, kw_only=True)
class Situation:
    """A cut with material, machine, tool and hold. What is not known is None and limits nothing.

    ``d_mm`` is the largest diameter cut, where power is judged, ``mean_d_mm`` the middle one, for the time.
    ``harm`` is the factor on speed of everything that wears the edge faster, ``wish`` of what asks for a longer life;
    the edge shall last ``least_life_min``. ``factors`` name what ``harm`` and ``wish`` are made of.
    ``thinning`` is the chip's thickness over the feed where an edge stands so low that it counts for its life.
    ``steps`` are those in which the control is told speeds.
    ``entering_deg`` is not used for a round insert, whose ``nose_mm`` is its radius.
    """

    material: Material
    machine: Machine
    tool_material: str
    use: Use
    d_mm: float
    mean_d_mm: float
    nose_mm: float
    entering_deg: float
    window: ChipWindow | None = None
    usable_depth_mm: float | None = None
    feed_share: float = 1.0
    harm: float = 1.0
    wish: float = 1.0
    least_life_min: float = LIFE_MIN
    speed_limits: tuple[Limit, ...] = ()
    gripped: Gripped | None = None
    bend: Bend | None = None
    bar: BarHeld | None = None
    wanted_ra_um: float | None = None
    clamp_pin_rpm: float | None = None
    factors: tuple[tuple[str, float], ...] = ()
    thinning: float = 1.0
    steps: Steps = USUAL

    @cached_property
    def row(self) -> StartSpeed | None:
        """The starting speeds of material and tool material."""
        return next((one for one in self.material.speeds if one.tool_material == self.tool_material), None)

    @cached_property
    def table_vc(self) -> float | None:
        """Starting surface speed, m/min, before any factor."""
        return getattr(self.row, f"{self.use}_m_min") if self.row else None

    @cached_property
    def fixed_limit_rpm(self) -> float:
        """The lowest of the speed limits that do not depend on the cut."""
        lowest = min((limit.number for limit in self.speed_limits), default=math.inf)
        return min(lowest, self.machine.max_rpm)

    def rung(self, rpm: float) -> float:
        """The spindle speed the machine really has: the rung at or below, the lowest rung where there is none."""
        rungs = self.machine.speeds_rpm
        if not rungs:
            return rpm
        return rungs[max(bisect_right(rungs, rpm * (1 + 1e-9)) - 1, 0)]

    def see(self, cut: Cut) -> "Seen":
        """Engagement, forces and speeds of a cut."""
        forces = self._forces(cut.ap_mm, cut.feed_mm_rev)
        rpm = self.rung(min(surface_speed_rpm(cut.vc_m_min, self.d_mm), forces.clamp_rpm))
        return Seen(*forces, rpm, math.pi * self.d_mm * rpm / 1000)

    def _forces(self, ap: float, feed: float) -> "_Forces":
        """What does not depend on the speed; the last depth and feed asked for are kept."""
        if self._last.get("at") != (ap, feed):
            self._last["at"], self._last["forces"] = (ap, feed), self._computed(ap, feed)
        forces: _Forces = self._last["forces"]
        return forces

    @cached_property
    def _last(self) -> dict[str, Any]:
        return {}

    def _computed(self, ap: float, feed: float) -> "_Forces":
        edge = engaged(ap, feed, self.nose_mm, self.entering_deg)
        specific = force.specific_force_n_mm2(self.material, edge.thickness_mm)
        cutting = specific * ap * feed
        angle = math.radians(edge.entering_deg)
        plane = force.IN_PLANE_SHARE * cutting
        feed_n, passive_n = plane * math.sin(angle), plane * math.cos(angle)
        clamp, needed = self.fixed_limit_rpm, None
        if self.gripped is not None:
            needed = self.gripped.needed_n(cutting, feed_n, passive_n)
            clamp = min(clamp, max(self.gripped.safe_rpm(needed), LEAST_SPINDLE_SHARE * self.machine.max_rpm))
        if self.clamp_pin_rpm is not None:
            clamp = self.clamp_pin_rpm
        return _Forces(edge, specific, cutting, feed_n, passive_n, needed, clamp)

    def minutes_per_mm(self, cut: Cut, clamp_rpm: float) -> float:
        """Minutes for one millimetre of feed travel on the middle diameter."""
        d_mm = self.mean_d_mm if self.machine.surface_speed else self.d_mm
        rpm = self.rung(min(surface_speed_rpm(cut.vc_m_min, d_mm), clamp_rpm))
        return 1 / max(cut.feed_mm_rev * rpm, LEAST_MM_MIN)

    def changed(self, **changes: object) -> "Situation":
        return replace(self, **changes)  # type: ignore[arg-type]


class _Forces(NamedTuple):
    edge: Engagement
    specific_n_mm2: float
    cutting_n: float
    feed_n: float
    passive_n: float
    needed_n: float | None
    clamp_rpm: float


class Seen(NamedTuple):
    """A cut in its situation: forces in N, ``needed_n`` the grip it asks for, ``vc_there`` on the largest diameter."""

    edge: Engagement
    specific_n_mm2: float
    cutting_n: float
    feed_n: float
    passive_n: float
    needed_n: float | None
    clamp_rpm: float
    rpm: float
    vc_there: float
