"""Words that stay in force: units, ways of moving, tool, speed, feed, and what the machine does meanwhile."""

from dataclasses import replace

from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.motion import STOPPED, Driven, Event, Motion, Spindle
from toreuma.core.read.state import Mark, Reading
from toreuma.core.read.words import Block

__all__ = ["EVENTS", "HANDED", "LIVE", "Modes"]

EVENTS: dict[str, Event] = {
    "unclamp": "unclamp",
    "clamp_work": "clamp",
    "centre_in": "centre_in",
    "centre_out": "centre_out",
    "c_axis_on": "c_axis_on",
    "c_axis_off": "c_axis_off",
    "brake_on": "brake_on",
    "brake_off": "brake_off",
}

HANDED = (
    "main_spindle", "second_spindle", "set_datum", "second_open", "second_close", "air_blast", "sync", "sync_off",
    "phase", "push_limit", "closed_asked", "part_asked", "part_out",
)  # fmt: skip
"""Words of the hand-over."""

LIVE = {"live_forward": 1.0, "live_reverse": -1.0}
"""Which way a driven tool turns."""


class Modes(Reading):
    """Obeys words that change what is in force."""

    def _mode(self, name: str, block: Block) -> None:
        state = self._state
        if name in (
            "rapid",
            "line",
            "thread",
            "tap_cycle",
            "peck_cycle",
            "thread_cycle",
            "turn_cycle",
            "face_cycle",
            "arc_clockwise",
            "arc_counter_clockwise",
        ):
            state.move = name
        elif name in ("mm", "inch"):
            state.scale, state.units_set = (25.4 if name == "inch" else 1.0), True
        elif name in ("feed_per_minute", "feed_per_rev"):
            state.per_minute = name == "feed_per_minute"
        elif name in ("surface_speed", "fixed_speed"):
            state.surface = name == "surface_speed"
            if state.surface and state.clamp is None:
                self._say(
                    "error",
                    "speed.no_clamp",
                    block.line,
                    "constant surface speed without a speed clamp",
                    "near the centre the spindle runs away and the jaws open",
                )
        elif name in ("spindle_forward", "spindle_reverse"):
            state.running = True
            self._turns(block, on=True)
            if name == "spindle_reverse":
                self._once(
                    "error",
                    "spindle.reverse",
                    block.line,
                    "the spindle runs in reverse",
                    "the work comes against the backs of the edges: every tool of this machine cuts with it forward",
                )
        elif name == "clamp":
            self._clamp(block)
        elif name in ("work_offset", "second_offset"):
            state.datum = name
        elif name == "cycle_off":
            state.move = ""
        elif name == "speed_shared":
            state.shared, state.running = True, False
        elif name in HANDED:
            self._handed(name, block)
        elif name == "live_stop":
            state.live_rpm = 0.0
        elif name in ("polar_on", "polar_off"):
            state.polar = name == "polar_on"
            if state.polar and not state.held_at_angle:
                self._say(
                    "error",
                    "c_axis.off",
                    block.line,
                    "the work is to turn in step, and its axis of rotation is not engaged",
                    "the control stops there",
                )

    def _turns(self, block: Block, on: bool) -> None:
        """The spindle in hand begins to turn or stops; other channels may hold what it holds."""
        what = ("second_" if self._state.second else "main_") + ("turns" if on else "stands")
        self._marks.append(Mark(what=what, line=block.line, at=len(self._motions)))

    def _handed(self, name: str, block: Block) -> None:
        """What concerns the second spindle; a number may stand with it."""
        state = self._state
        if name in ("main_spindle", "second_spindle"):
            second = name == "second_spindle"
            if second != state.second:  # the same place, counted from the other chuck along the other Z
                ends = self._second_reference, self._reference
                here, there = ends if state.second else ends[::-1]
                state.second, state.at = second, (there[0] - (state.at[0] - here[0]), state.at[1])
                state.running = False
            return
        number = block.value("Z") if name == "set_datum" else block.value("P" if name == "push_limit" else "S")
        scale = state.scale if name == "set_datum" else 1.0
        self._marks.append(Mark(what=name, line=block.line, at=len(self._motions), number=(number or 0.0) * scale))

    def _clamp(self, block: Block) -> None:
        speed = block.value("S")
        if speed is None or any(block.value(letter) is not None for letter in "XZUW"):
            self._say(
                "error",
                "program.shift",
                block.line,
                "a coordinate shift is not read",
                "every place after it would be uncertain",
            )
            return
        self._state.clamp = speed

    def _event(self, event: Event, block: Block) -> None:
        """The hold opens or closes, the centre comes or goes."""
        if self._state.running and event in ("unclamp", "clamp"):
            self._say(
                "error",
                "hold.turning",
                block.line,
                "the hold is moved while the spindle turns",
                "the bar is thrown out",
            )
        place = Line(self._state.at, self._state.at)
        state = self._state
        if event in ("c_axis_on", "c_axis_off"):
            state.held_at_angle, state.c_deg, state.y = event == "c_axis_on", 0.0, 0.0
            state.angle_told = False
            if state.held_at_angle and state.running:
                self._say(
                    "error",
                    "c_axis.turning",
                    block.line,
                    "the axis of rotation is engaged while the spindle turns",
                    "stop the spindle first",
                )
        if event.startswith("brake"):
            state.braked = event == "brake_on"
        made = self._motion(place, None, block)
        at_angle = event.startswith(("c_axis", "brake"))
        self._motions.append(replace(made, event=event, driven=self._angle() if at_angle else made.driven))

    def _angle(self, turned: float = 0.0) -> Driven:
        state = self._state
        return Driven(rpm=state.live_rpm, c_deg=state.c_deg, y=(state.y, state.y), polar=state.polar, turned_deg=turned)

    def _live(self, names: list[str], rpm: float) -> None:
        """The driven tool comes to speed."""
        self._state.live_rpm = rpm * next(LIVE[name] for name in names if name in LIVE)

    def _tool(self, number: int, block: Block) -> None:
        station, offset = (number // 100, number % 100) if number >= 100 else (number, number)
        self._state.offset, self._state.offset_line = offset, block.line
        self._state.station = station
        self._state.shared = False
        if offset != station and offset != 0:
            self._say(
                "error",
                "tool.offset",
                block.line,
                f"station {station} is used with offset {offset}",
                "the size of another tool would count, and every place of it be wrong by the difference",
            )
        self._state.feed = None
        self._state.surface = None

    def _speed(self, number: float, block: Block) -> None:
        if self._state.surface is None:
            self._say(
                "error",
                "speed.mode",
                block.line,
                "a speed without saying surface or spindle speed",
                "it would be taken as whatever was in force",
            )
        self._state.speed = number

    def _set_feed(self, number: float, block: Block) -> None:
        if number <= 0:
            self._say("error", "feed.zero", block.line, f"the feed is {number:g}", "the tool would stand and rub")
            return
        self._state.feed = number * self._state.scale

    def _feed_in_force(self, block: Block) -> float:
        state = self._state
        if state.feed is None:
            self._once(
                "error",
                "feed.missing",
                block.line,
                "a cutting move without a feed",
                "a feed of 0.1 was assumed",
                key=f"feed{state.section}",
            )
        if state.per_minute is None:
            self._once(
                "error",
                "feed.mode",
                block.line,
                "the feed is neither per revolution nor per minute",
                "per revolution was assumed",
            )
        if state.live_rpm and not state.held_at_angle:
            self._once(
                "error",
                "c_axis.off",
                block.line,
                "a driven tool cuts while nothing holds the work at its angle",
                "the cut turns the work away",
                key=f"angle{state.section}",
            )
        slides = bool(state.per_minute) and not state.running and not state.held_at_angle  # a gripper, a stop, a probe
        stands = not state.running or state.speed <= 0 or state.surface is None
        if not state.live_rpm and not state.shared and not slides and stands:
            self._once(
                "error",
                "spindle.stopped",
                block.line,
                "a cutting move with the spindle standing or no speed set",
                "the edge breaks",
                key=f"spindle{state.section}{state.station}",
            )
        if state.station and not state.offset:
            self._once(
                "error",
                "tool.no_offset",
                block.line,
                f"station {state.station} cuts without its offset",
                "the machine does not know where its edge is",
                key=f"offset{state.section}{state.station}",
            )
        if state.station == 0:
            self._once(
                "error", "tool.none", block.line, "a cutting move before any tool is called", "what cuts is not known"
            )
        return state.feed or 0.1

    _turning: tuple[object, Spindle] = (), STOPPED
    """What is in force about the spindle, and what that makes of it: the same for most moves."""

    def _spindle(self) -> Spindle:
        state = self._state
        if not state.running or state.speed <= 0 or state.surface is None:
            return STOPPED
        if not state.surface:
            return Spindle("fixed", state.speed, state.clamp)
        metres = 0.3048 if state.scale != 1.0 else 1.0
        return Spindle("surface", state.speed * metres, state.clamp)

    def _motion(self, segment: Segment, feed: float | None, block: Block) -> Motion:
        state = self._state
        turning = state.running, state.speed, state.surface, state.clamp, state.scale
        if turning != self._turning[0]:
            self._turning = turning, self._spindle()
        spindle, per_minute = self._turning[1], bool(state.per_minute)
        made = Motion(
            segment, feed, spindle, state.station, per_minute=per_minute, line=block.line, section=state.section
        )
        return replace(made, second=state.second, shared=state.shared) if state.second or state.shared else made
