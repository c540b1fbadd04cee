"""Words that call tools and tell them their speeds and feeds, and what has to be in force where something is cut."""

from toreuma.core.read.modes import LIVE, Modes
from toreuma.core.read.state import Nose
from toreuma.core.read.words import Block

__all__ = ["ToolWords"]


MOST_STATION = 200
"""A number above it is no station: the tool before is kept."""


class ToolWords(Modes):
    """Obeys T, D, S and F."""

    _cancels = False
    """Offsets are taken away somewhere in the program."""

    def _tool_words(self, names: list[str], block: Block) -> None:
        state = self._state
        number, offset = block.value("T"), None
        if number is not None:
            self._used.add("T")
            if number < 0 or number != int(number):
                what = f"T{number:g} calls no tool"
                self._say("error", "tool.number", block.line, what, "the control stops there; the tool before was kept")
                return
            if self._dialect.tool_number == "station and offset":
                self._tool(int(number), block)
            else:
                state.chosen = int(number)
                if "tool_change" in self._names.values() and "tool_change" not in names and block.value("D") is None:
                    self._once(
                        "warning",
                        "tool.waits",
                        block.line,
                        f"T{number:g} is chosen and not brought yet",
                        "a tool change does that; until then the one before is in force",
                        key=f"t{number:g}",
                    )
                else:
                    self._bring(state.chosen, block)
        elif "tool_change" in names and state.chosen:
            self._bring(state.chosen, block)
        if self._dialect.tool_number == "station" and (offset := self._take(block, "D")) is not None:
            state.offset, state.offset_line = int(offset), block.line

    def _tool(self, number: int, block: Block) -> None:
        """Station and offset in one number."""
        if number >= 10_000:
            self._say(
                "error",
                "tool.number",
                block.line,
                f"T{number} has more digits than station and offset",
                "what its digits mean depends on the machine",
            )
            if number // 100 > MOST_STATION:
                return
        station, offset = (number // 100, number % 100) if number >= 100 else (number, number)
        if 0 < number < 100 and "T0" not in block.text.upper().replace(" ", ""):
            self._once(
                "warning",
                "tool.short",
                block.line,
                f"T{number} has no offset of its own",
                f"station {station} with offset {station} was taken",
            )
        self._cancels = self._cancels or not offset
        if station != self._state.station or offset:
            self._bring(station or self._state.station, block)
        self._state.offset, self._state.offset_line = offset, block.line
        self._shifted("wear", self._state.wear.get(offset, (0.0, 0.0)))
        if offset != station and offset != 0:
            self._say(
                "error",
                "tool.offset",
                block.line,
                f"station {station} is used with offset {offset}",
                "the size of another tool would count, and every place of it be wrong by the difference",
            )

    def _bring(self, station: int, block: Block) -> None:
        """What was in force stays so, as on a machine."""
        state = self._state
        if self._dialect.tool_number == "station" and block.value("D") is None:
            state.offset, state.offset_line = state.offset or 1, block.line
        if station != state.station:
            state.tools += 1
            if state.side:
                self._say(
                    "error",
                    "side.left_on",
                    block.line,
                    "a tool is changed while compensation is on",
                    "the next one would go along its contour by the wrong amount",
                )
        state.station, state.shared = station, False

    def _nose(self) -> Nose | None:
        state = self._state
        return state.noses.get(state.offset) or state.noses.get(state.station)

    def _speed(self, number: float, block: Block) -> None:
        state = self._state
        if state.surface is None:
            self._say(
                "error",
                "speed.mode",
                block.line,
                "a speed without saying surface or spindle speed",
                "it would be taken as whatever was in force",
            )
            state.surface = False if self._somewhere else None
        state.speed = number

    def _set_feed(self, number: float, names: list[str], block: Block) -> None:
        if number <= 0:
            self._say("error", "feed.zero", block.line, f"the feed is {number:g}", "the tool would stand and rub")
            return
        state = self._state
        if "rapid" in names or (state.move == "rapid" and not names and block.value("X") is not None):
            self._once(
                "warning",
                "feed.rapid",
                block.line,
                f"F{number:g} in a rapid",
                "it counts from the next cut on",
                key=f"rapid{block.line}",
            )
        state.feed, state.feed_since = number * state.scale, state.tools

    def _live(self, names: list[str], rpm: float) -> None:
        """The driven tool comes to speed."""
        self._state.live_rpm = rpm * next(LIVE[name] for name in names if name in LIVE)

    def _feed_in_force(self, block: Block) -> float:
        """The feed of a cut, mm, after what else a cut needs was looked at."""
        state = self._state
        section = f"{state.section}/{state.tools}"
        if state.feed is None:
            self._once(
                "error",
                "feed.missing",
                block.line,
                "a cutting move without a feed",
                "a feed of 0.1 was assumed",
                key=f"feed{section}",
            )
        elif state.feed_since != state.tools:
            self._once(
                "warning",
                "feed.inherited",
                block.line,
                "the feed of the tool before is still in force",
                "no F was said since",
                key=f"feed{section}",
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
                key=f"angle{section}",
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
                key=f"spindle{section}{state.station}",
            )
        if state.running and state.surface and state.clamp is None:
            self._once(
                "error",
                "speed.no_clamp",
                block.line,
                "constant surface speed without a speed clamp",
                "near the centre the spindle runs away and the jaws open",
            )
        if state.station and not state.offset:
            self._once(
                "error",
                "tool.no_offset",
                block.line,
                f"station {state.station} cuts without its offset",
                "the machine does not know where its edge is",
                key=f"offset{section}{state.station}",
            )
        if state.station == 0:
            self._once(
                "error", "tool.none", block.line, "a cutting move before any tool is called", "what cuts is not known"
            )
        state.cut_with = state.tools
        return state.feed or 0.1
