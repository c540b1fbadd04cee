"""Moves: lines, arcs, threads, dwells, and those of a driven tool."""

import math
from dataclasses import replace
from typing import Literal, NamedTuple

from toreuma.core.geometry.elements import Arc, Line, Point, Segment, arc_through_ends
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.read.places import Places
from toreuma.core.read.words import Block

__all__ = ["Collected", "Corner", "Moves"]

ARC_ENDS_MM = 0.003
"""How far start and end of an arc given by its centre may differ in radius."""


class Corner(NamedTuple):
    """A rounding or a chamfer: its size, mm, and the line it is asked for in; ``toward`` is the axis ("z" or "r") along
    which the move behind it goes, and which way."""

    kind: Literal["R", "C"]
    size: float
    line: int
    toward: tuple[str, float] | None = None


class Collected(NamedTuple):
    """A piece of a contour: its feed, None where it is gone at a rapid, its line, and what else was in force."""

    segment: Segment
    feed: float | None
    line: int
    side: str
    speed: float


class Moves(Places):
    """Makes moves of blocks."""

    _collected: list[Collected] | None = None
    """Where moves are a contour for a cycle and not made."""
    _corner: Corner | None = None
    """What breaks the corner at the end of the last move."""
    _angle_open: tuple[float, Block] | None = None
    """The direction of a line whose end the next block gives."""
    _leaving = False
    """Compensation was switched off, and the next move leads off the contour."""

    def _joined(self, segment: Segment, feed: float | None, block: Block) -> Segment:
        raise NotImplementedError

    def _off_contour(self) -> None:
        raise NotImplementedError

    def _dwell(self, block: Block) -> None:
        for letter, each in self._dialect.dwell_s.items():
            number = self._take(block, letter)
            if number is None:
                continue
            if number < 0:
                self._say("error", "program.dwell", block.line, f"a dwell of {number:g}", "it has to be positive")
                return
            if letter in ("X", "U") and self._dialect.whole_numbers == "steps" and letter in block.said.whole:
                each = 0.001
            self._stand(number * each, block)
            return
        self._say("error", "program.dwell", block.line, "a dwell without a time", "say how long")

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
            made = replace(made, in_step=True, per_minute=False, turned=self._state.turn)
            self._motions.append(made.follows(self._motions[-1] if self._motions else None))
        self._state.at = target

    def _thread_word(self, target: Point, lead: float, block: Block) -> None:
        """A move in step with the spindle by itself; it may begin at an angle of its own, and its lead may change."""
        state = self._state
        angle = self._take(block, "Q")
        if angle is not None:
            state.turn = (
                (angle / 1000 if "Q" in block.text.upper() and "." not in _behind("Q", block.text) else angle)
                / 360
                % 1.0
            )
        if state.move != "changing_lead":
            self._thread(target, lead, block)
            return
        growth = (self._take(block, "K") or 0.0) * state.scale
        for share, each in _leads(max(abs(b - a) for a, b in zip(state.at, target, strict=True)), lead, growth):
            start = state.at
            z = start[0] + (target[0] - start[0]) * share
            r = start[1] + (target[1] - start[1]) * share
            self._thread((z, r), each, block)

    def _index(self, deg: float, block: Block) -> None:
        """The work is turned to an angle."""
        state = self._state
        if not state.held_at_angle and self._anyone:
            state.held_at_angle = True  # the word that engages the axis is the machine's own
        if not state.held_at_angle:
            self._say(
                "error",
                "c_axis.off",
                block.line,
                "an angle while the axis of rotation is not engaged",
                "the control stops there",
            )
            return
        if state.braked:
            self._say(
                "error",
                "c_axis.braked",
                block.line,
                "the work is turned with its brake closed",
                "free it first, the drive gives up",
            )
        turned, state.c_deg, state.angle_told = deg - state.c_deg, deg, True
        made = self._motion(Line(state.at, state.at), None, block)
        self._motions.append(replace(made, event="index", driven=self._angle(turned)))

    def _stand(self, seconds: float, block: Block) -> None:
        """The tool stands where it is, turning where it is driven."""
        state = self._state
        made = self._motion(Line(state.at, state.at), None, block)
        if state.held_at_angle and state.live_rpm:
            made = replace(made, spindle=STOPPED, driven=self._angle())
        self._motions.append(replace(made, dwell_s=seconds))

    def _driven(self, target: Point, block: Block) -> None:
        """A move of a driven tool, Y and ways made by turning the work among them."""
        state = self._state
        wide = self._take(block, "C") if state.polar else self._take(block, "Y")
        more = self._take(block, self._dialect.relative_across) if self._dialect.relative_across else None
        y = state.y if wide is None else wide * state.scale + (state.y if state.incremental else 0.0)
        y += (more or 0.0) * state.scale
        if (target, y) == (state.at, state.y):
            return
        if state.move not in ("rapid", "line"):
            self._say(
                "error",
                "driven.move",
                block.line,
                "a driven tool moves along straight lines only",
                "another way of moving is in force; it was read as a line",
            )
        feed = None if state.move == "rapid" else self._feed_in_force(block)
        if feed is not None and not state.angle_told:
            self._once(
                "warning",
                "c_axis.untold",
                block.line,
                "the work is cut at an angle that was not told since its axis was engaged",
                "where it stands then is the machine's own; it was taken as 0",
            )
        self._driven_to(target, y, feed, block)

    def _driven_to(self, target: Point, y: float, feed: float | None, block: Block) -> None:
        state = self._state
        made = self._motion(Line(state.at, target), feed, block)
        driven = replace(self._angle(), y=(state.y, y))
        self._motions.append(replace(made, spindle=STOPPED, driven=driven))
        state.at, state.y = target, y

    def _arc(self, target: Point, block: Block) -> Arc | None:
        state = self._state
        clockwise = state.move == "arc_clockwise"
        radius = self._take(block, "R")
        i, k = self._take(block, "I"), self._take(block, "K")
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
        if self._dialect.arc_centre == "place":
            across = 0.5 if self._across else 1.0
            z = state.at[0] if k is None else k * state.scale + state.shift[0]
            r = state.at[1] if i is None else i * state.scale * across + state.shift[1]
            centre = (z, r)
        else:
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
        more = state.held_at_angle or state.second or state.shared or not state.units_set or state.incremental
        if more or state.lost or state.datum not in ("", "work_offset") or state.move not in ("rapid", "line"):
            return None
        if self._collected is not None or self._corner is not None or self._angle_open is not None or state.side:
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
        """A move becomes part of the program, or of the contour that is being gathered."""
        if segment.length > 1e-9:
            if self._corner is not None:
                segment = self._joined(segment, feed, block)
            if self._collected is not None:
                self._collected.append(Collected(segment, feed, block.line, self._state.side, self._state.speed))
            else:
                self._motions.append(self._motion(segment, feed, block))
                if self._leaving:
                    self._off_contour()
        self._state.at = segment.end


def _leads(length: float, lead: float, growth: float) -> list[tuple[float, float]]:
    """A thread of changing lead as turns of one lead each: which share of what is left, and the lead, mm."""
    found: list[tuple[float, float]] = []
    left = length
    while left > 1e-6 and len(found) < 1000 and lead > 0:
        way = min(lead + growth / 2, left)
        if way <= 0:
            break
        found.append((way / left, lead + growth / 2))
        left, lead = left - way, lead + growth
    return found


def _behind(letter: str, text: str) -> str:
    """The number behind a letter as it is written."""
    rest = text.upper().split(letter)[-1]
    return rest[: next((n for n, c in enumerate(rest) if c not in "+-.0123456789 "), len(rest))]
