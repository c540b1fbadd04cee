"""Corners and angles in lines, and the way beside a contour: moves that hang on the ones after them."""

from dataclasses import replace
from typing import Literal, cast

from toreuma.core.geometry.elements import Line, Point, Segment
from toreuma.core.geometry.joins import bevelled, line_from_angle, meetings, rounded
from toreuma.core.motion import Motion
from toreuma.core.read.moves import Corner, Moves
from toreuma.core.read.nose import NoseError, compensated
from toreuma.core.read.words import Block

__all__ = ["Corners"]


class Corners(Moves):
    """Obeys ,C ,R ,A and G41, G42, G40."""

    _side_from: int | None = None

    # corners -----------------------------------------------------------------------------------------------------

    def _break_asked(self, block: Block) -> Corner | None:
        """The rounding or chamfer a block of a straight move asks for."""
        kinds: tuple[Literal["R", "C"], ...] = ("R", "C")
        for kind in kinds:
            letter = f",{kind}" if f",{kind}" in block.said.last else kind
            if letter == kind and (kind not in block.said.last or not self._plain_corners(kind, block)):
                continue
            size = self._take(block, letter) or 0.0
            if size < 0:
                self._say(
                    "error",
                    "corner.size",
                    block.line,
                    f"{letter}{size:g} is no size of a corner",
                    "only positive ones are read",
                )
                return None
            return Corner(kind, size * self._state.scale, block.line) if size else None
        return self._old_chamfer(block)

    def _old_chamfer(self, block: Block) -> Corner | None:
        """``G1 Z-20. I2.`` and ``G1 X40. K-1.``: a chamfer into the other axis, the way its sign says."""
        said, (along_x, along_z) = block.said.last, self._dialect.relative
        for letter, own, other, axis in (("I", "Z", "X", "r"), ("K", "X", "Z", "z")):
            ways = {"X": along_x, "Z": along_z}
            moves = own in said or ways[own] in said
            crosses = other in said or ways[other] in said
            if letter not in said or not moves or crosses or not self._plain_corners(letter, block):
                continue
            size = (self._take(block, letter) or 0.0) * self._state.scale
            return Corner("C", abs(size), block.line, (axis, size)) if size else None
        return None

    def _plain_corners(self, letter: str, block: Block) -> bool:
        """Whether a letter without a comma is a corner or an angle in a straight move."""
        if self._dialect.corners == "comma" or (letter == "C" and (self._state.held_at_angle or self._state.polar)):
            return False
        if self._dialect.corners == "unsaid":
            number = block.value(letter) or 0.0
            words = {"R": "a rounding", "A": "an angle"}.get(letter, "a chamfer")
            self._once(
                "error",
                "corner.plain",
                block.line,
                f"{letter}{number:g} in a straight move was taken for {words}",
                "some controls want a comma before it, others do something else",
                key=f"plain {letter}",
            )
        return True

    def _joined(self, segment: Segment, feed: float | None, block: Block) -> Segment:
        """The corner before a move is broken: what went before ends earlier, the move begins later."""
        corner, self._corner = self._corner, None
        assert corner is not None
        before = self._last_segment()
        if feed is None or before is None:
            self._say("error", "corner.open", corner.line, "a corner without a cut behind it", "it was left sharp")
            return segment
        if corner.toward is not None:
            way = segment.end[corner.toward[0] == "r"] - segment.start[corner.toward[0] == "r"]
            if way * corner.toward[1] <= 0:
                what = "the chamfer leads one way, the move behind it another"
                self._say("error", "corner.size", corner.line, what, "the control stops, or cuts another shape")
                return segment
        pieces = (rounded if corner.kind == "R" else bevelled)(before, segment, corner.size)
        if pieces is None:
            what = f"{'a rounding' if corner.kind == 'R' else 'a chamfer'} of {corner.size:g} mm does not fit there"
            self._say("error", "corner.size", corner.line, what, "the control stops, or cuts another shape")
            return segment
        first, between, after = pieces
        self._put_last(first, between)
        return after

    def _last_segment(self) -> Segment | None:
        if self._collected is not None:
            return self._collected[-1].segment if self._collected else None
        return self._motions[-1].segment if self._motions else None

    def _put_last(self, first: Segment, between: Segment) -> None:
        if self._collected is not None:
            last = self._collected.pop()
            self._collected += [last._replace(segment=one) for one in (first, between) if one.length > 1e-9]
            return
        made = self._motions.pop()
        self._motions += [replace(made, segment=one) for one in (first, between) if one.length > 1e-9]

    def _corner_left(self, line: int) -> None:
        """The program goes on with something that cannot follow a corner or an angle."""
        if self._corner is not None:
            self._say(
                "error", "corner.open", self._corner.line, "a corner without a cut behind it", "it was left sharp"
            )
            self._corner = None
        if self._angle_open is not None:
            self._say(
                "error",
                "angle.open",
                self._angle_open[1].line,
                "a line at an angle that nothing ends",
                "it was left out",
            )
            self._angle_open = None

    # angles ------------------------------------------------------------------------------------------------------

    def _angle_asked(self, block: Block) -> float | None:
        if ",A" in block.said.last:
            return self._take(block, ",A")
        if "A" in block.said.last and self._dialect.second_axis != "A" and self._plain_corners("A", block):
            return self._take(block, "A")
        return None

    def _by_angle(self, target: Point, deg: float | None, block: Block) -> Point | None:
        """The end of a straight move that has an angle, or that ends one begun at an angle; None while it is open."""
        state, said = self._state, block.said.last
        along_x, along_z = self._dialect.relative
        has_r, has_z = "X" in said or along_x in said, "Z" in said or along_z in said
        if self._angle_open is not None:
            return self._second_of_two(target, deg, block)
        if deg is None:
            return target
        if not has_r and not has_z:
            self._angle_open = (deg, block)
            return None
        if has_r and has_z:
            self._say(
                "error", "angle.both", block.line, "an angle stands beside both ends of its line", "the ends were taken"
            )
            return target
        end = line_from_angle(state.at, deg, z=target[0]) if has_z else line_from_angle(state.at, deg, r=target[1])
        if end is None:
            self._say(
                "error", "angle.never", block.line, f"a line at {deg:g} degrees never comes there", "it was left out"
            )
            return None
        return end

    def _second_of_two(self, target: Point, deg: float | None, block: Block) -> Point | None:
        """Two lines at angles meet; the first of them is made now."""
        assert self._angle_open is not None
        (first_deg, first), self._angle_open = self._angle_open, None
        if deg is None:
            self._say(
                "error",
                "angle.open",
                first.line,
                "a line at an angle whose end cannot be worked out",
                "the line behind it needs its angle and both its ends",
            )
            return target
        a = line_from_angle(self._state.at, first_deg, z=self._state.at[0] + 1.0) or (
            self._state.at[0],
            self._state.at[1] + 1.0,
        )
        b = line_from_angle(target, deg, z=target[0] + 1.0) or (target[0], target[1] + 1.0)
        met = meetings(Line(self._state.at, a), Line(target, b))
        if not met:
            self._say(
                "error",
                "angle.never",
                block.line,
                f"lines at {first_deg:g} and {deg:g} degrees never meet",
                "the first was left out",
            )
            return target
        self._add(Line(self._state.at, met[0]), self._feed_in_force(first), first)
        self._corner = self._break_asked(first)
        return target

    # beside the contour ------------------------------------------------------------------------------------------

    def _side_word(self, side: str, block: Block) -> None:
        state = self._state
        if side == "off":
            if state.side and self._collected is None:
                self._leaving = True
            state.side = ""
            return
        if state.side and state.side != side and self._collected is None:
            self._off_contour()
        if not state.side and self._collected is None:
            if self._leaving:
                self._off_contour()
            self._side_from = len(self._motions)
        state.side = cast(Literal["left", "right"], side)
        self._side_now = side
        if self._nose() is None:
            self._once(
                "error",
                "side.nose",
                block.line,
                f"the nose of station {state.station} is not known",
                "compensation was left out: give its radius and tip",
                key=f"nose {state.station}",
            )

    _side_now = ""

    def _off_contour(self) -> None:
        """Moves since compensation began go beside their contour."""
        begin, leaving, self._leaving = self._side_from, self._leaving, False
        nose = self._nose()
        self._side_from = len(self._motions) if self._state.side else None
        if begin is None or nose is None:
            return
        run = [n for n in range(begin, len(self._motions)) if self._motions[n].segment.length > 1e-9]
        if not run:
            return
        try:
            made = compensated(
                [self._motions[n].segment for n in run], nose, self._side_now == "left", begins=True, ends=leaving
            )
        except NoseError as error:
            line = self._motions[run[min(error.index, len(run) - 1)]].line
            self._say("error", "side.narrow", line, str(error), "the control stops there; compensation was left out")
            return
        self._put_along(begin, run, {k: [one.segment for one in made if one.index == k] for k in range(len(run))})

    def _put_along(self, begin: int, run: list[int], segments: dict[int, list[Segment]]) -> None:
        """In place of the programmed moves those of the programmed point, with what happens between them."""
        moved: list[Motion] = []
        index = {n: k for k, n in enumerate(run)}
        at = self._motions[begin].segment.start
        starts = []
        for n in range(begin, len(self._motions)):
            motion = self._motions[n]
            starts.append(begin + len(moved))
            if n not in index:
                moved.append(replace(motion, segment=Line(at, at)))
                continue
            for segment in segments[index[n]]:
                moved.append(replace(motion, segment=segment))
                at = segment.end
        ends = {begin + k: place for k, place in enumerate(starts)}
        self._marks = [replace(one, at=ends.get(one.at, one.at if one.at < begin else begin + len(moved)))
                       for one in self._marks]  # fmt: skip
        self._motions[begin:] = moved
