"""Where numbers are counted from: datums, presets, shifts, ways and places, and the reference point."""

from toreuma.core.geometry.elements import Line, Point
from toreuma.core.read.state import Nose
from toreuma.core.read.tools import ToolWords
from toreuma.core.read.words import Block

__all__ = ["DATUMS", "Places", "label_of"]

DATUMS = {
    "work_offset": "G54", "second_offset": "G55", "datum_3": "G56", "datum_4": "G57", "datum_5": "G58",
    "datum_6": "G59",
}  # fmt: skip
"""What every dialect calls its six datums, and how people know them."""

PLACE_VARIABLES = {5001: "r", 5002: "z", 5041: "r", 5042: "z"}
"""Where the last block ended, and where the tool is: the same, for one who reads."""

SAME_MM = 1e-6


def label_of(name: str) -> str:
    """How people know a datum."""
    if name.startswith("datum_more"):
        return f"G54.1 P{name.split(' ')[-1]}"
    return DATUMS.get(name, "")


class Places(ToolWords):
    """Makes places (z, r) in mm, as the datum first in force sees them, of the numbers in blocks."""

    def _index(self, deg: float, block: Block) -> None:
        """The work is turned to an angle."""
        raise NotImplementedError

    def _unit(self, axis: str) -> float:
        """mm for one of a number along Z, or on radius for one of X."""
        return self._state.scale / 2 if axis == "r" and self._across else self._state.scale

    def _target(self, block: Block) -> Point:
        """Where a block leads; what it says nothing of stays."""
        state, (along_x, along_z) = self._state, self._dialect.relative
        z, r = state.at
        for letter, number in block.said.words:
            if letter == "X":
                way = number * self._unit("r")
                r = r + way if state.incremental else way + state.shift[1]
                self._found("r", block, lost=state.incremental)
            elif letter == "Z":
                way = number * state.scale
                z = z + way if state.incremental else way + state.shift[0]
                self._found("z", block, lost=state.incremental)
            elif letter == along_x:
                r += number * self._unit("r")
                self._found("r", block, lost=True)
            elif letter == along_z:
                z += number * state.scale
                self._found("z", block, lost=True)
        return z, r

    def _place_number(self, index: int) -> float | None:
        """A place as a program would write it now, by the variable that controls keep it in; None for other ones, and
        where nobody knows."""
        axis, state = PLACE_VARIABLES.get(index), self._state
        if axis is None or axis in state.lost:
            return None
        at, shift = (state.at[1], state.shift[1]) if axis == "r" else (state.at[0], state.shift[0])
        return (at - shift) / self._unit(axis)

    def _found(self, axis: str, block: Block, lost: bool) -> None:
        """A place is known again; a way from where nobody knows leads nobody knows where."""
        state = self._state
        if axis not in state.lost:
            return
        if not lost:
            state.lost -= {axis}
        elif not self._moves_nothing(block):
            name = "X" if axis == "r" else "Z"
            self._once(
                "error",
                "place.lost",
                block.line,
                f"a way along {name} begins where the tool is, and nobody knows where",
                f"give {name} as a place first",
                key=f"lost {axis}",
            )

    def _moves_nothing(self, block: Block) -> bool:
        """A way of nothing, as back to the reference point."""
        return not any(block.value(letter) for letter in (*self._dialect.relative, "X", "Z"))

    def _move_all(self, letters: str) -> list[str]:
        return [one for one in (*letters, *self._dialect.relative) if one]

    def _to_reference(self, block: Block, how: str) -> None:
        """By way of the place in the block to the reference point, on the axes that are named; or straight there."""
        second = how == "second_reference"
        for letter in self._move_all("XZYCHP"):
            self._take(block, letter)
        state = self._state
        turned = any(block.value(one) is not None for one in ("C", self._dialect.relative_angle) if one)
        if turned and not state.polar and (state.held_at_angle or self._anyone):
            self._index(0.0, block)
        named_z = any(block.value(one) is not None for one in ("Z", self._dialect.relative[1]) if one)
        named_r = any(block.value(one) is not None for one in ("X", self._dialect.relative[0]) if one)
        lost = state.lost
        z, r = state.at if how == "reference_straight" else self._target(block)
        via = (z if named_z else state.at[0], r if named_r else state.at[1])
        if via != state.at and not (lost and self._moves_nothing(block)):
            self._add(Line(state.at, via), None, block)
        home = self._second_reference if state.second else self._reference
        end = (home[0] if named_z else state.at[0], home[1] if named_r else state.at[1])
        self._add(Line(state.at, end), None, block)
        if self._somewhere or second:
            gone = {axis for axis, named in (("z", named_z), ("r", named_r)) if named}
            state.lost = frozenset(lost | gone if gone else lost)
        if second:
            self._once(
                "warning",
                "place.second_reference",
                block.line,
                "where the second reference point lies is not known",
                "the first one was taken",
            )

    def _machine_place(self, block: Block) -> None:
        """A place counted from the reference point, whatever datum is in force."""
        z, r = self._state.at
        for letter, number in block.said.words:
            if letter == "X":
                r, self._used = self._reference[1] + number * self._unit("r"), self._used | {"X"}
            elif letter == "Z":
                z, self._used = self._reference[0] + number * self._state.scale, self._used | {"Z"}
        self._add(Line(self._state.at, (z, r)), None, block)
        if self._somewhere:
            gone = {axis for axis, letter in (("z", "Z"), ("r", "X")) if block.value(letter) is not None}
            self._state.lost |= gone

    def _set_datum_in_force(self, name: str, block: Block) -> None:
        """Places count from another datum from here on."""
        state = self._state
        if name == "datum_more":
            name = f"{name} {self._take(block, 'P') or 0:.0f}"
        label = label_of(name)
        before, state.datum = state.datum, name
        if self._has_second or not self._somewhere or not before or before == name:
            self._shifted("datum", self._from_first(name))
            return
        self._shifted("datum", self._from_first(name))
        if label_of(before) not in state.origins or label not in state.origins:
            self._once(
                "error",
                "datum.unknown",
                block.line,
                f"where {label} lies against {label_of(before)} is not known",
                "places after it were taken as if both were the same",
                key=f"datum {label}",
            )

    def _from_first(self, name: str) -> Point:
        """Of a datum against the one first in force, mm."""
        origins, first = self._state.origins, self._state.shifts.get("first datum")
        here = origins.get(label_of(name))
        if here is None:
            return self._state.shifts.get("datum", (0.0, 0.0))
        if first is None:
            self._state.shifts["first datum"] = first = here
        return here[0] - first[0], here[1] - first[1]

    def _shifted(self, what: str, by: Point) -> None:
        """One of the things places are shifted by is now this much."""
        state = self._state
        state.shifts[what] = by
        each = [shift for name, shift in state.shifts.items() if name != "first datum"]
        state.shift = (sum(one[0] for one in each), sum(one[1] for one in each))

    def _preset(self, block: Block) -> None:
        """The place where the tool stands gets other numbers.

        Before a tool has cut anything the numbers are the part's, as every tool of such a program is preset where it
        stands; after that they shift what is to come.
        """
        state, (along_x, along_z) = self._state, self._dialect.relative
        fresh = state.cut_with != state.tools
        base = list(state.shifts.get("preset", (0.0, 0.0)))
        at = list(state.at)
        for letter, number in block.said.words:
            axis = 0 if letter in ("Z", along_z) else 1
            unit = self._unit("zr"[axis])
            if letter in ("X", "Z"):
                self._used.add(letter)
                place = number * unit
                if fresh:
                    base[axis], at[axis] = 0.0, place
                    state.lost -= {"zr"[axis]}
                else:
                    base[axis] += state.at[axis] - (place + state.shift[axis])
            elif letter and letter in (along_x, along_z):
                self._used.add(letter)
                base[axis] -= number * unit
        self._shifted("preset", (base[0], base[1]))
        if fresh:
            state.at = (at[0], at[1])
            state.shifts["preset"] = (base[0], base[1])

    def _local(self, block: Block) -> None:
        """A shift of the datum in force, taken back by zeros."""
        now = list(self._state.shifts.get("local", (0.0, 0.0)))
        for axis, letter in enumerate("ZX"):
            number = self._take(block, letter)
            if number is not None:
                now[axis] = number * self._unit("zr"[axis])
        self._shifted("local", (now[0], now[1]))

    def _set_data(self, block: Block) -> None:
        """Datums and tool offsets written by the program."""
        state = self._state
        kind, number = self._take(block, "L"), self._take(block, "P")
        (along_x, along_z) = self._dialect.relative
        by: dict[int, float] = {}
        to: dict[int, float] = {}
        for letter, value in block.said.words:
            if letter in ("X", "Z") and not state.incremental:
                to["ZX".index(letter)] = value * self._unit("zr"["ZX".index(letter)])
            elif letter in ("X", "Z", along_x, along_z) and letter:
                axis = 0 if letter in ("Z", along_z) else 1
                by[axis] = value * self._unit("zr"[axis])
            else:
                continue
            self._used.add(letter)
        if kind == 2:
            self._move_datum(round(number or 0), to, by, block)
        elif kind in (None, 1, 3, 10, 11, 12, 13) and number is not None:
            self._set_tool(round(number), to, by, block)
        else:
            self._say(
                "error",
                "program.data",
                block.line,
                "what this data word sets is not known",
                "datums have L2, tool offsets P",
            )

    def _move_datum(self, number: int, to: dict[int, float], by: dict[int, float], block: Block) -> None:
        state, label = self._state, f"G{53 + number}"
        if number == 0 or label not in DATUMS.values():
            self._say("error", "program.data", block.line, f"there is no datum P{number}", "1 to 6 are G54 to G59")
            return
        here, again = label == label_of(state.datum or "work_offset"), state.origins.get(label)
        if to:
            start = again or (0.0, 0.0)
            new = (to.get(0, start[0]), to.get(1, start[1]))
            state.origins[label] = new
            if here and again is None and state.cut_with >= 0:
                self._say(
                    "error",
                    "datum.unknown",
                    block.line,
                    f"{label} is moved, and where it lay is not known",
                    "places after it were taken as if it had stayed",
                )
            elif here and again is not None:
                by = {axis: new[axis] - again[axis] + by.get(axis, 0.0) for axis in (0, 1)}
            elif here:
                state.shifts["first datum"] = new
        if by and here:
            old = state.shifts.get("datum", (0.0, 0.0))
            self._shifted("datum", (old[0] + by.get(0, 0.0), old[1] + by.get(1, 0.0)))
        if by and not to and again is not None:
            state.origins[label] = (again[0] + by.get(0, 0.0), again[1] + by.get(1, 0.0))

    def _set_tool(self, number: int, to: dict[int, float], by: dict[int, float], block: Block) -> None:
        """Nose and wear of a tool offset; what a whole offset is set to only the machine can know."""
        state = self._state
        radius, tip = self._take(block, "R"), self._take(block, "Q")
        whole, number = number > 10_000, number % 10_000
        if radius is not None or tip is not None:
            old = state.noses.get(number, Nose(0.0))
            state.noses[number] = Nose(
                old.radius_mm if radius is None else radius * state.scale, old.tip if tip is None else round(tip)
            )
        if whole and (to or by):
            self._once(
                "warning",
                "tool.measured",
                block.line,
                f"the program writes the measured offset {number}",
                "it was taken as the one its places are meant for",
            )
            return
        if to or by:
            old_z, old_r = state.wear.get(number, (0.0, 0.0))
            new = (to.get(0, old_z) + by.get(0, 0.0), to.get(1, old_r) + by.get(1, 0.0))
            state.wear[number] = new
            if number == state.offset:
                self._shifted("wear", new)
