"""Drilling, tapping and boring cycles: along Z in the face, along X in the side, again at every place that follows."""

from dataclasses import dataclass

from toreuma.core.geometry.elements import Line, Point
from toreuma.core.motion import peck_bottoms
from toreuma.core.read.corners import Corners
from toreuma.core.read.cycles import MOST_PASSES
from toreuma.core.read.told import Told
from toreuma.core.read.words import Block

__all__ = ["Drilling"]

ALONG_X = ("tap_side_cycle", "peck_side_cycle", "bore_side_cycle")
TAPPING = ("tap_cycle", "tap_side_cycle")
BORING = ("bore_cycle", "bore_side_cycle")
MOST_REPEATS = 1000


@dataclass(frozen=True, slots=True)
class _Hole:
    """Along its axis: where the tool starts, comes near, and ends; ``axis`` is 0 along Z and 1 along X. mm."""

    start: float
    near: float
    bottom: float
    axis: int


class Drilling(Corners):
    """Makes the moves of G80 to G89."""

    def _told(self, name: str, block: Block) -> Told:
        raise NotImplementedError

    def _feed_told(self, told: Told, block: Block) -> float:
        raise NotImplementedError

    def _turn_of(self, block: Block) -> float | None:
        raise NotImplementedError

    def _drill(self, block: Block) -> None:
        """One hole, or as many as are asked for; what a block leaves out stays as it was."""
        state, kept = self._state, self._state.cycle
        axis = 1 if state.move in ALONG_X else 0
        start = state.at
        kept.setdefault("start", start[axis])
        across = self._across_place(block, axis)
        if across is not None and across != start:
            self._add(Line(start, across), None, block)
        told = self._told(state.move, block)
        hole = self._hole(told, block, axis)
        if hole is None:
            return
        repeats = told.of("repeats") if told.given("repeats") else 1.0
        if not 0 <= repeats <= MOST_REPEATS:
            what = f"it would be made {repeats:g} times"
            self._say("error", "cycle.words", block.line, what, f"check its {told.letter('repeats')}")
            return
        turn = self._turn_of(block)
        for number in range(round(repeats)):
            if number and turn is not None:  # every hole after the first is turned to as well
                self._index(state.c_deg + turn, block)
            self._one_hole(hole, told, block)

    def _across_place(self, block: Block, axis: int) -> Point | None:
        """Where the hole is; an angle of the work has been obeyed already."""
        state, (along_x, along_z) = self._state, self._dialect.relative
        z, r = self._target(block)
        names = ("Z", along_z) if axis == 1 else ("X", along_x)
        if not any(block.value(one) is not None for one in names if one):
            return None
        self._used |= {one for one in names if one}
        return (state.at[0], r) if axis == 0 else (z, state.at[1])

    def _hole(self, told: Told, block: Block, axis: int) -> _Hole | None:
        state, kept = self._state, self._state.cycle
        place, way = (("Z", "X")[axis], self._dialect.relative[1 - axis])
        unit = self._unit("zr"[axis])
        start = kept["start"] if not state.near else state.at[axis]
        above = self._take(block, told.letter("above"))
        if above is not None:
            is_way = self._dialect.drill_above == "way" or state.incremental
            # A way is told on radius, along X as well.
            kept["R"] = start + above * state.scale if is_way else above * unit + state.shift[axis]
        near = kept.get("R", start)
        number = self._take(block, place)
        relative = self._take(block, way) if way else None
        if number is not None:
            kept["bottom"] = near + number * unit if state.incremental else number * unit + state.shift[axis]
        elif relative is not None:
            kept["bottom"] = near + relative * unit
        if "bottom" not in kept:
            self._say("error", "cycle.words", block.line, f"the cycle needs a {place}", "how deep it goes is not said")
            return None
        for what in ("peck", "dwell"):
            if told.given(what):
                kept[what] = told.of(what)
        return _Hole(start, near, kept["bottom"], axis)

    def _one_hole(self, hole: _Hole, told: Told, block: Block) -> None:
        state, feed = self._state, self._feed_told(told, block)
        back = hole.near if state.near else hole.start
        self._drill_to(hole, hole.near, None, block)
        if state.move in TAPPING:
            lead = feed
            turns = abs(state.live_rpm) or (0.0 if state.surface else state.speed)
            if state.per_minute and turns:
                lead = feed / turns
            self._tapped_down(hole, lead, block)
        elif state.move in BORING:
            self._drill_to(hole, hole.bottom, feed, block)
            self._drill_dwell(block)
            self._drill_to(hole, hole.near, feed, block)
        else:
            self._pecked(hole, feed, block)
        self._drill_to(hole, back, None, block)

    def _tapped_down(self, hole: _Hole, lead: float, block: Block) -> None:
        """Down and out in step with the spindle, in as many pecks as are asked for."""
        for place in self._bottoms(hole, block):
            self._tapped(hole, place, lead, block)
            self._drill_dwell(block)
            self._tapped(hole, hole.near, lead, block)

    def _pecked(self, hole: _Hole, feed: float, block: Block) -> None:
        down = -1.0 if hole.bottom < hole.near else 1.0
        for place in self._bottoms(hole, block):
            at = self._state.at[hole.axis]
            if abs(at - hole.near) > 1e-9:
                self._drill_to(hole, hole.near, None, block)
                self._drill_to(hole, at - down * self._dialect.peck_back_mm, None, block)
            self._drill_to(hole, place, feed, block)
        self._drill_dwell(block)

    def _bottoms(self, hole: _Hole, block: Block) -> list[float]:
        """Where each peck ends, along the hole."""
        peck = abs(self._state.cycle.get("peck", 0.0))
        down = -1.0 if hole.bottom < hole.near else 1.0
        depth = abs(hole.near - hole.bottom)
        if peck > 0 and depth / peck > MOST_PASSES:
            what = f"it would peck more than {MOST_PASSES} times"
            self._say("error", "cycle.words", block.line, what, "the control would stand there for hours")
            return []
        return [hole.near - down * below for below in peck_bottoms(0.0, -depth, peck)]

    def _drill_dwell(self, block: Block) -> None:
        dwell = self._state.cycle.get("dwell", 0.0)
        if dwell > 0:
            self._stand(dwell * self._dialect.dwell_s.get("P", 0.001), block)

    def _place(self, hole: _Hole, along: float) -> Point:
        return (along, self._state.at[1]) if hole.axis == 0 else (self._state.at[0], along)

    def _drill_to(self, hole: _Hole, along: float, feed: float | None, block: Block) -> None:
        target = self._place(hole, along)
        if target == self._state.at:
            return
        if self._state.held_at_angle and self._state.live_rpm:
            self._driven_to(target, self._state.y, feed, block)
        else:
            self._add(Line(self._state.at, target), feed, block)

    def _tapped(self, hole: _Hole, along: float, lead: float, block: Block) -> None:
        if self._state.held_at_angle and self._state.live_rpm:
            feed = lead * abs(self._state.live_rpm) if self._state.per_minute else lead
            self._driven_to(self._place(hole, along), self._state.y, feed, block)
        else:
            self._thread(self._place(hole, along), lead, block)
