"""What reading gives, what stays in force from block to block, and how what is wrong is told."""

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from toreuma.core.dialect import Dialect, short
from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.elements import Point
from toreuma.core.motion import Motion
from toreuma.core.read.expressions import Variables
from toreuma.core.read.words import Block

__all__ = ["MOVES_NOTHING", "Given", "InForce", "Mark", "Nose", "Program", "Reading", "Section", "State"]

MOVES_NOTHING = "moving neither tool nor work"
"""What a word that nobody knows is taken for, in words."""

HOME: Point = (400.0, 200.0)
"""Where the reference point is taken to be where no machine is known; no place is told as being there."""


@dataclass(frozen=True)
class Section:
    """A stretch of the program opened by an operation's comment; ``number`` is what the comment says."""

    number: int
    title: str
    line: int


@dataclass(frozen=True, kw_only=True)
class Mark:
    """Something between moves that concerns other channels or the second spindle, behind ``at`` moves.

    ``what`` is the dialect's name for it; "wait" has the mark's ``number`` and ``channels``, "second_to" the place the
    second spindle goes to, mm, at ``feed`` mm/min or in rapid; others may have a number.
    """

    what: str
    line: int
    at: int
    number: float = 0.0
    channels: tuple[int, ...] = ()
    feed: float | None = None


@dataclass(frozen=True, slots=True)
class Nose:
    """The rounded edge of a tool: its radius, mm, and where the programmed point lies about its centre.

    ``tip`` counts the eight ways about the centre as ISO 841 axes have them: 1 to 4 are the corners, counted from +Z +X
    against the clock, 5 to 8 the ways +Z, +X, -Z, -X; 0 and 9 are the centre itself.
    """

    radius_mm: float
    tip: int = 3


@dataclass(frozen=True, slots=True)
class InForce:
    """From ``line`` on, in the order blocks are obeyed, ``what`` is ``value``; ``step`` counts the blocks obeyed."""

    step: int
    line: int
    what: str
    value: str | float | None


@dataclass(frozen=True, kw_only=True)
class Given:
    """What somebody knows besides the text: noses by station, datums in machine places, variables, switches that leave
    blocks out, programs in neighbouring files by their number, what M words mean that only the machine's builder
    knows, and where the reference point is taken to be."""

    noses: Mapping[int, Nose] = field(default_factory=dict)
    datums: Mapping[str, Point] = field(default_factory=dict)
    variables: Mapping[int, float] = field(default_factory=dict)
    skipped: frozenset[int] = frozenset()
    neighbours: Mapping[int, str] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    home: Point = HOME


@dataclass(frozen=True, kw_only=True)
class Program:
    """What the text does: moves in order, sections, and everything in it that is wrong.

    A program that is called is read once; ``parts`` is how often it is run. ``in_force`` has every change of what stays
    in force, where that was asked for; ``lost`` are places nobody can know, where no machine is given.
    """

    text: str
    motions: tuple[Motion, ...]
    sections: tuple[Section, ...]
    findings: tuple[Finding, ...]
    parts: int = 1
    marks: tuple[Mark, ...] = ()
    in_force: tuple[InForce, ...] = ()
    obeyed: Mapping[int, int] = field(default_factory=dict)
    """How many blocks were obeyed when a line was the first time, where what is in force is kept."""
    missing: tuple[int, ...] = ()
    """Numbers of programs that are called and not there."""

    def in_force_at(self, line: int) -> dict[str, InForce]:
        """What is in force when the block of a line has been obeyed the first time, by name, each with its line; where
        the line says nothing, behind the one before it."""
        said = [one for one in self.obeyed if one <= line]
        if not said:
            return {}
        step = self.obeyed[max(said)]
        return {one.what: one for one in self.in_force if one.step <= step}


@dataclass(kw_only=True)
class State:
    """Everything that stays in force from block to block."""

    at: Point
    lost: frozenset[str] = frozenset()
    """Axes, "z" and "r", whose place nobody can know."""
    scale: float = 1.0
    units_set: bool = False
    move: str = ""
    taper: float = 0.0
    """Of the cycle of one pass in force, mm, until its word stands again."""
    cycle: dict[str, float] = field(default_factory=dict)
    """Words of the drilling cycle in force, and the start of the pass in force."""
    incremental: bool = False
    near: bool = False
    """A drilling cycle comes back to the place above the hole, not to where it began."""
    feed: float | None = None
    lead: float | None = None
    """Of threads, mm, where it has a letter of its own."""
    feed_since: int = 0
    """How many tools were called when the feed was last said."""
    per_minute: bool | None = None
    surface: bool | None = None
    speed: float = 0.0
    clamp: float | None = None
    running: bool = False
    reverse: bool = False
    station: int = 0
    offset: int = 0
    offset_line: int = 0
    tools: int = 0
    chosen: int = 0
    """The station that the next tool change brings."""
    section: int = -1
    ended: bool = False
    live_rpm: float = 0.0
    held_at_angle: bool = False
    braked: bool = False
    polar: bool = False
    c_deg: float = 0.0
    angle_told: bool = False
    """Since the axis of rotation was engaged."""
    y: float = 0.0
    second: bool = False
    shared: bool = False
    coolant: bool = False
    datum: str = ""
    shift: Point = (0.0, 0.0)
    """What is added to a programmed place, mm: presets, shifts and datums together."""
    shifts: dict[str, Point] = field(default_factory=dict)
    """Of that, each by what made it."""
    origins: dict[str, Point] = field(default_factory=dict)
    cut_with: int = -1
    """``tools`` when the last cut was made."""
    side: Literal["", "left", "right"] = ""
    """Of the contour, where the nose goes along it."""
    noses: dict[int, Nose] = field(default_factory=dict)
    wear: dict[int, Point] = field(default_factory=dict)
    runs_out: bool | None = None
    """Whether threads of one pass come out before their end; None: as the control is set."""
    turn: float = 0.0
    """Share of a turn at which the next thread begins."""
    firsts: dict[str, Block] = field(default_factory=dict)
    warned: set[str] = field(default_factory=set)

    def copy(self) -> "State":
        return replace(
            self,
            firsts=dict(self.firsts),
            warned=set(self.warned),
            cycle=dict(self.cycle),
            shifts=dict(self.shifts),
            origins=dict(self.origins),
            noses=dict(self.noses),
            wear=dict(self.wear),
        )

    def key(self) -> Hashable:
        """Everything in force but where in the program it stands, and cycles begun."""
        return (
            self.at,
            self.lost,
            self.scale,
            self.units_set,
            self.move,
            self.taper,
            self.feed,
            self.per_minute,
            self.surface,
            self.speed,
            self.clamp,
            self.running,
            self.reverse,
            self.station,
            self.offset,
            self.ended,
            self.live_rpm,
            self.held_at_angle,
            self.braked,
            self.polar,
            self.c_deg,
            self.angle_told,
            self.y,
            self.second,
            self.shared,
            self.datum,
            self.incremental,
            self.near,
            self.side,
            self.chosen,
            self.turn,
            self.shift,
            self.tools == self.feed_since,
            self.tools == self.cut_with,
            frozenset(self.warned),
            frozenset(self.cycle.items()),
            frozenset(self.shifts.items()),
            frozenset(self.origins.items()),
            frozenset(self.noses.items()),
            frozenset(self.wear.items()),
        )


def in_force(state: State) -> dict[str, str | float | None]:
    """What a person would ask for, by name; feeds and speeds as they were said, in mm."""
    turns = "" if not state.running else "reverse" if state.reverse else "forward"
    return {
        "units": ("inch" if state.scale != 1 else "mm") if state.units_set else None,
        "move": state.move,
        "feed": state.feed,
        "feed_mode": None if state.per_minute is None else "per minute" if state.per_minute else "per turn",
        "speed": state.speed or None,
        "speed_mode": None if state.surface is None else "surface" if state.surface else "fixed",
        "clamp": state.clamp,
        "spindle": turns,
        "station": state.station,
        "offset": state.offset,
        "datum": state.datum,
        "side": state.side,
        "distances": "incremental" if state.incremental else "absolute",
        "coolant": "on" if state.coolant else "off",
    }


class Reading:
    """A program being read: what is in force, the moves so far, and what was found."""

    def __init__(
        self, dialect: Dialect, reference: Point | None, machine: Mapping[str, str] | None, given: Given
    ) -> None:
        self._dialect = dialect
        self._given = given
        self._across = dialect.x_is_diameter
        self._reference = reference or given.home
        self._somewhere = reference is None
        self._state = State(
            at=self._reference, lost=frozenset("zr") if reference is None else frozenset(), noses=dict(given.noses)
        )
        begun = dialect.power_on
        if begun.units != "unsaid":
            self._state.scale, self._state.units_set = (25.4 if begun.units == "inch" else 1.0), True
        if begun.feed != "unsaid":
            self._state.per_minute = begun.feed == "minute"
        if begun.speed != "unsaid":
            self._state.surface = begun.speed == "surface"
        self._state.origins = dict(given.datums)
        self._anyone = machine is None and reference is None
        self._names = dialect.vocabulary(None if self._anyone else machine or {})
        self._names |= {short(word): name for word, name in given.words.items()}
        self._variables = Variables(dict(given.variables))
        self._motions: list[Motion] = []
        self._sections: list[Section] = []
        self._findings: list[Finding] = []
        self._marks: list[Mark] = []
        self._in_force: list[InForce] = []
        self._obeyed: dict[int, int] = {}
        self._before: dict[str, str | float | None] = {}
        self._raw: tuple[object, ...] = ()
        self._used: set[str] = set()
        self._missing: list[int] = []
        self._second_reference = self._reference

    def _say(self, severity: Severity, code: str, line: int, what: str, why: str) -> None:
        self._findings.append(Finding(severity, code, f"line {line}: {what}", why, line=line))

    def _once(self, severity: Severity, code: str, line: int, what: str, why: str, key: str = "") -> None:
        mark = key or code
        if mark not in self._state.warned:
            self._state.warned.add(mark)
            self._say(severity, code, line, what, why)

    @property
    def _smallest(self) -> float:
        """What one of a number means that counts smallest steps, in the program's unit."""
        return float(10.0 ** -self._dialect.smallest["inch" if self._state.scale != 1 else "mm"])

    @property
    def _fine(self) -> float:
        """The same of P, Q and D in cycles, where they have no point."""
        return self._smallest if self._dialect.cycles_count_steps else 1.0

    def _named(self, letter: str, number: float) -> str | None:
        """What the dialect calls a word."""
        return self._names.get(short(f"{letter}{number:g}"))

    def _take(self, block: Block, letter: str) -> float | None:
        """The number behind a letter, which is thereby obeyed."""
        number = block.said.last.get(letter)
        if number is not None:
            self._used.add(letter)
        return number

    def _watch(self, step: int, line: int) -> None:
        """Keep what changed of what is in force."""
        self._obeyed.setdefault(line, step)
        state = self._state
        raw = (
            state.scale, state.units_set, state.move, state.feed, state.per_minute, state.speed, state.surface,
            state.clamp, state.running, state.reverse, state.station, state.offset, state.datum, state.side,
            state.incremental, state.coolant,
        )  # fmt: skip
        if raw == self._raw:
            return
        self._raw = raw
        now = in_force(state)
        self._in_force += [InForce(step, line, what, value) for what, value in now.items()
                           if self._before.get(what, "") != value]  # fmt: skip
        self._before = now
