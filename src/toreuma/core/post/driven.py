"""Writes the moves of a driven tool: the work turned to an angle and braked, Y, and ways made by turning it."""

from typing import Literal

from toreuma.core.dialect import Dialect
from toreuma.core.motion import Driven, Motion

__all__ = ["DrivenWords"]

ANGLE_DECIMALS = 3


class DrivenWords:
    """Mixed into the writer, whose words for X, Z and numbers it uses."""

    _dialect: Dialect
    _scale: float
    _places: int
    _units: Literal["mm", "inch"]
    _move: str
    _feed: str
    _x: str
    _z: str
    _y: str
    _turning: Driven | None

    def _block(self, words: str, number: int | None = None) -> None:
        raise NotImplementedError

    def _x_word(self, r: float) -> str:
        raise NotImplementedError

    def _z_word(self, z: float) -> str:
        raise NotImplementedError

    @staticmethod
    def _number_text(value: float, places: int) -> str:
        raise NotImplementedError

    def _speed_text(self, number: float) -> str:
        raise NotImplementedError

    def _pause(self, seconds: float) -> None:
        raise NotImplementedError

    def _feed_text(self, feed: float, decimals: int) -> str:
        raise NotImplementedError

    def _begin_driven(self, first: Motion) -> dict[str, str]:
        """Where a driven tool begins, as words for the template."""
        self._turning = first.driven
        self._y = self._y_word(0.0)
        return {"live_rpm": self._speed_text(abs(first.driven.rpm))} if first.driven is not None else {}

    def _driven(self, motion: Motion, driven: Driven) -> None:
        codes, before = self._dialect.codes, self._turning
        if motion.event in ("c_axis_on", "c_axis_off"):  # the templates have them
            return
        if before is not None and driven.polar != before.polar:
            self._block(codes["polar_on" if driven.polar else "polar_off"])
            self._move = ""
            if before.polar and before.y[1]:  # the tool stands in line with the axis again, farther out
                self._x = self._y = ""
        if before is not None and driven.rpm != before.rpm:
            self._block(
                f"{codes['live_forward' if driven.rpm > 0 else 'live_reverse']} S{self._speed_text(abs(driven.rpm))}"
            )
        self._turning = driven
        if motion.event == "index":
            self._block(f"{codes['rapid']} C{self._number_text(driven.c_deg, ANGLE_DECIMALS)}")
            self._move = codes["rapid"]
        elif motion.event:
            self._block(codes[motion.event])
        elif motion.dwell_s > 0:
            self._pause(motion.dwell_s)
        else:
            self._driven_move(motion, driven)

    def _driven_move(self, motion: Motion, driven: Driven) -> None:
        codes = self._dialect.codes
        x, z, y = self._x_word(motion.end[1]), self._z_word(motion.end[0]), self._y_word(driven.y[1])
        if (x, z, y) == (self._x, self._z, self._y):
            return
        move = codes["rapid" if motion.is_rapid else "line"]
        words = [move] if move != self._move else []
        words += [x] if x != self._x else []
        words += [("C" if driven.polar else "Y") + y] if y != self._y else []
        words += [z] if z != self._z else []
        if motion.feed is not None:
            feed = self._feed_text(motion.feed * self._scale, self._dialect.minute_decimals[self._units])
            words += [feed] if feed != self._feed else []
            self._feed = feed
        self._block(" ".join(words))
        self._move, self._x, self._z, self._y = move, x, z, y

    def _y_word(self, y: float) -> str:
        """The number alone: the letter is C where the work is turned in step."""
        return self._number_text(y * self._scale, self._places)
