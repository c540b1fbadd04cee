"""Moves: lines, arcs, threads, waits, and the way to the reference point."""

import math
from dataclasses import replace

from toreuma.core.geometry.elements import Arc, Line, Point, Segment, arc_through_ends
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.read.modes import Modes
from toreuma.core.read.words import Block

__all__ = ["Moves"]

ARC_ENDS_MM = 0.003
"""How far start and end of an arc given by its centre may differ in radius."""


class Moves(Modes):
    """Makes moves of blocks."""

    def _dwell(self, block: Block) -> None:
        seconds = block.value("P") or block.value("X") or block.value("U") or 0.0
        if block.value("P") is not None:
            seconds /= 1000
        self._motions.append(replace(self._motion(Line(self._state.at, self._state.at), None, block), dwell_s=seconds))

    def _to_reference(self, block: Block) -> None:
        z, r = self._target(block)
        if (z, r) != self._state.at:
            self._add(Line(self._state.at, (z, r)), None, block)
        home = self._second_reference if self._state.second else self._reference
        z = home[0] if block.value("Z") is not None or block.value("W") is not None else z
        r = home[1] if block.value("X") is not None or block.value("U") is not None else r
        self._add(Line(self._state.at, (z, r)), None, block)

    def _target(self, block: Block) -> Point:
        scale, (z, r) = self._state.scale, self._state.at
        across = scale / 2 if self._across else scale
        for letter, number in block.said.words:
            if letter == "X":
                r = number * across
            elif letter == "U":
                r += number * across
            elif letter == "Z":
                z = number * scale
            elif letter == "W":
                z += number * scale
        return z, r

    def _thread(self, target: Point, lead: float, block: Block) -> None:
        """A move in step with the spindle: the feed is the lead."""
        if self._state.surface:
            self._once(
                "error",
                "thread.surface",
                block.line,
                "a thread with constant surface speed",
                "the spindle changes its speed between passes and the thread is crossed",
                key=f"thread{self._state.section}",
            )
        if target != self._state.at:
            made = self._motion(Line(self._state.at, target), lead, block)
            made = replace(made, in_step=True, per_minute=False)
            self._motions.append(made.follows(self._motions[-1] if self._motions else None))
        self._state.at = target

    def _index(self, deg: float, block: Block) -> None:
        """The work is turned to an angle."""
        state = self._state
        if not state.held_at_angle:
            self._say("error", "c_axis.off", block.line, "an angle while the axis of rotation is not engaged",
                      "the control stops there")  # fmt: skip
            return
        if state.braked:
            self._say("error", "c_axis.braked", block.line, "the work is turned with its brake closed",
                      "free it first, the drive gives up")  # fmt: skip
        turned, state.c_deg, state.angle_told = deg - state.c_deg, deg, True
        made = self._motion(Line(state.at, state.at), None, block)
        self._motions.append(replace(made, event="index", driven=self._angle(turned)))

    def _driven(self, target: Point, block: Block) -> None:
        """A move of a driven tool, Y and ways made by turning the work among them."""
        state = self._state
        wide = block.value("C") if state.polar else block.value("Y")
        y = state.y if wide is None else wide * state.scale
        if (target, y) == (state.at, state.y):
            return
        if state.move not in ("rapid", "line"):
            self._say("error", "driven.move", block.line, "a driven tool moves along straight lines only",
                      "another way of moving is in force; it was read as a line")  # fmt: skip
        feed = None if state.move == "rapid" else self._feed_in_force(block)
        if feed is not None and not state.angle_told:
            self._once("warning", "c_axis.untold", block.line,
                       "the work is cut at an angle that was not told since its axis was engaged",
                       "where it stands then is the machine's own; it was taken as 0")  # fmt: skip
        made = self._motion(Line(state.at, target), feed, block)
        driven = replace(self._angle(), y=(state.y, y))
        self._motions.append(replace(made, spindle=STOPPED, driven=driven))
        state.at, state.y = target, y

    def _arc(self, target: Point, block: Block) -> Arc | None:
        state = self._state
        clockwise = state.move == "arc_clockwise"
        radius = block.value("R")
        i, k = block.value("I"), block.value("K")
        if radius is None and i is None and k is None:
            self._say("error", "arc.open", block.line, "an arc without a radius or centre", "it was read as a line")
            return None
        if radius is not None:
            try:
                chord = math.dist(state.at, target) / 2
                wanted = abs(radius) * state.scale
                # A radius rounded down to the program's resolution may miss half the chord by that much.
                wanted = max(wanted, chord) if chord - wanted < 0.002 else wanted
                return arc_through_ends(state.at, target, wanted, clockwise, large=radius < 0)
            except ValueError:
                self._say(
                    "error",
                    "arc.radius",
                    block.line,
                    f"radius {radius:g} cannot join the ends of the arc",
                    "it was read as a line",
                )
                return None
        centre = (state.at[0] + (k or 0.0) * state.scale, state.at[1] + (i or 0.0) * state.scale)
        gap = abs(math.dist(centre, state.at) - math.dist(centre, target))
        if gap > ARC_ENDS_MM:
            self._say(
                "error",
                "arc.centre",
                block.line,
                f"the ends of the arc differ by {gap:.3f} mm in radius",
                "the control stops or cuts another shape",
            )
        if math.dist(centre, state.at) < 1e-9:
            return None
        return Arc(state.at, target, centre, clockwise)

    def _goes_on(self) -> tuple[float | None, Spindle] | None:
        """Feed and spindle of straight moves that follow with only a place; None where more is to be looked at."""
        state = self._state
        more = state.held_at_angle or state.second or state.shared or not state.units_set
        if more or state.move not in ("rapid", "line"):
            return None
        return (None if state.move == "rapid" else state.feed or 0.1), self._spindle()

    def _straight_on(self, block: Block, feed: float | None, spindle: Spindle) -> None:
        """A straight move like the one before."""
        state, target = self._state, self._target(block)
        line = Line(state.at, target)
        if line.length > 1e-9:
            made = Motion(
                line,
                feed,
                spindle,
                state.station,
                per_minute=bool(state.per_minute),
                line=block.line,
                section=state.section,
            )
            self._motions.append(made)
        state.at = target

    def _add(self, segment: Segment, feed: float | None, block: Block) -> None:
        if segment.length > 1e-9:
            self._motions.append(self._motion(segment, feed, block))
        self._state.at = segment.end
