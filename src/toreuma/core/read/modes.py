"""Words that stay in force: units, ways of moving, tool, speed, feed, and what the machine does meanwhile."""

import math
from dataclasses import replace

from toreuma.core.geometry.elements import Line, Point, Segment
from toreuma.core.motion import STOPPED, Driven, Event, Motion, Spindle
from toreuma.core.read.state import Mark, Reading
from toreuma.core.read.words import Block

__all__ = ["EVENTS", "HANDED", "LIVE", "MOVES", "WITHOUT_EFFECT", "Modes"]

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


MOVES = frozenset(
    (
        "rapid", "line", "arc_clockwise", "arc_counter_clockwise", "thread", "changing_lead", "tap_cycle",
        "tap_side_cycle", "peck_cycle", "peck_side_cycle", "bore_cycle", "bore_side_cycle", "drill_cycle",
        "dwell_drill_cycle", "thread_cycle", "turn_cycle", "face_cycle",
    )
)  # fmt: skip
"""Words that say how to go, and stay in force."""

WITHOUT_EFFECT = frozenset(
    ("nothing", "exact", "exact_on", "through_on", "plane", "set_datum_end", "tool_change", "macro_off", "orient",
     "rigid_tap", "local_shift", "set_datum", "clamp")
)  # fmt: skip
"""Words that change nothing of what stays in force, or are obeyed where the block leads."""

NOT_CUT = {
    "cylinder_on": "the work turned under a driven tool along its round",
    "plane_across": "a plane across the axis",
    "plane_along": "a plane beside the axis",
}
"""What is read as a word and not as moves yet."""

SPINDLE = ("spindle_forward", "spindle_reverse", "forward_coolant", "reverse_coolant")
DATUM_WORDS = ("work_offset", "second_offset", "datum_3", "datum_4", "datum_5", "datum_6", "datum_more")


class Modes(Reading):
    """Obeys words that change what is in force."""

    def _mode(self, name: str, block: Block) -> None:
        state = self._state
        if name in MOVES:
            if name != state.move:
                state.cycle = {}
            state.move = name
        elif name in ("mm", "inch"):
            state.scale, state.units_set = (25.4 if name == "inch" else 1.0), True
        elif name in ("absolute", "incremental"):
            state.incremental = name == "incremental"
        elif name in ("return_start", "return_near"):
            state.near = name == "return_near"
        elif name in ("feed_per_minute", "feed_per_rev"):
            state.per_minute = name == "feed_per_minute"
        elif name in ("surface_speed", "fixed_speed"):
            state.surface = name == "surface_speed"
        elif name in SPINDLE:
            self._spindle_word(name, block)
        elif name in ("coolant_on", "mist_on", "coolant_off"):
            state.coolant = name != "coolant_off"
        elif name.startswith("compensation_"):
            self._side_word(name.removeprefix("compensation_"), block)
        elif name in DATUM_WORDS:
            self._set_datum_in_force(name, block)
        elif name == "cycle_off":
            state.move, state.cycle = "", {}
        elif name in ("chamfer_on", "chamfer_off"):
            state.runs_out = name == "chamfer_on"
        elif name == "speed_shared":
            state.shared, state.running = True, False
        elif name in HANDED:
            self._handed(name, block)
        elif name == "live_stop":
            state.live_rpm = 0.0
        elif name in ("polar_on", "polar_off"):
            self._polar_word(name, block)
        elif name in NOT_CUT:
            self._once(
                "error",
                "program.not_cut",
                block.line,
                f"{NOT_CUT[name]} is not read yet",
                "what the tool does until it is switched off is not known",
                key=name,
            )

    def _spindle_word(self, name: str, block: Block) -> None:
        state = self._state
        state.running, state.reverse = True, name.startswith(("spindle_reverse", "reverse"))
        state.coolant = state.coolant or name.endswith("coolant")
        if self._anyone:  # the words that end driven work are the machine's own
            state.live_rpm, state.held_at_angle = 0.0, False
        self._turns(block, on=True)
        if state.reverse:
            self._once(
                "error",
                "spindle.reverse",
                block.line,
                "the spindle runs in reverse",
                "the work comes against the backs of the edges: every tool of this machine cuts with it forward",
            )

    def _polar_word(self, name: str, block: Block) -> None:
        state = self._state
        if state.polar and name == "polar_off" and state.y:  # the tool stands in line with the axis again
            z, x = state.at
            state.at, state.c_deg = (z, math.hypot(x, state.y)), state.c_deg + math.degrees(math.atan2(state.y, x))
            state.y = 0.0
        state.polar = name == "polar_on"
        if state.polar and not state.held_at_angle and not self._anyone:
            self._say(
                "error",
                "c_axis.off",
                block.line,
                "the work is to turn in step, and its axis of rotation is not engaged",
                "the control stops there",
            )
        if state.polar and self._anyone:
            state.held_at_angle = True

    def _side_word(self, side: str, block: Block) -> None:
        """The nose goes beside the contour from the next move on, or on it again."""
        raise NotImplementedError

    def _set_datum_in_force(self, name: str, block: Block) -> None:
        raise NotImplementedError

    def _preset(self, block: Block) -> None:
        raise NotImplementedError

    def _shifted(self, what: str, by: Point) -> None:
        raise NotImplementedError

    def _add(self, segment: Segment, feed: float | None, block: Block) -> None:
        raise NotImplementedError

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
        if name == "set_datum":
            if not self._somewhere:  # the machine is known, and so is whether its datums may be written
                number = (block.value("Z") or 0.0) * state.scale
                self._marks.append(Mark(what=name, line=block.line, at=len(self._motions), number=number))
            return
        number = self._take(block, "P" if name == "push_limit" else "S") or 0.0
        self._marks.append(Mark(what=name, line=block.line, at=len(self._motions), number=number))

    @property
    def _has_second(self) -> bool:
        """Whether another spindle has places of its own."""
        return self._second_reference is not self._reference

    def _clamp(self, block: Block) -> None:
        """A clamp of the speed, a preset of the place, or both."""
        speed = self._clamp_and_speed(block)[0]
        if speed is not None:
            self._used.add("S")
            self._state.clamp = speed
        if any(block.value(letter) is not None for letter in ("X", "Z", *self._dialect.relative) if letter):
            self._preset(block)
        elif speed is None:
            self._say(
                "error",
                "program.shift",
                block.line,
                "neither a speed nor a place stands with this word",
                "it does nothing",
            )

    def _clamp_and_speed(self, block: Block) -> tuple[float | None, float | None]:
        """The S that belongs to a clamp and the one that is a speed: each to the word before it."""
        found: dict[bool, float] = {}
        clamps = False
        for letter, number in block.words:
            if letter == "G":
                name = self._named(letter, number)
                clamps = name == "clamp" or (clamps and name not in ("surface_speed", "fixed_speed"))
            elif letter == "S":
                found[clamps] = number
        return found.get(True), found.get(False)

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
        if state.second or state.shared or state.datum not in ("", "work_offset"):
            return replace(made, second=state.second, shared=state.shared, datum=state.datum)
        return made
