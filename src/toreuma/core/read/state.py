"""What reading gives, what stays in force from block to block, and how what is wrong is told."""

from collections.abc import Hashable
from dataclasses import dataclass, field, replace

from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.elements import Point
from toreuma.core.motion import Motion
from toreuma.core.read.words import Block

__all__ = ["Mark", "Program", "Reading", "Section", "State", "normal"]


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


@dataclass(frozen=True, kw_only=True)
class Program:
    """What the text does: moves in order, sections, and everything in it that is wrong.

    A program that is called is read once; ``parts`` is how often it is run.
    """

    text: str
    motions: tuple[Motion, ...]
    sections: tuple[Section, ...]
    findings: tuple[Finding, ...]
    parts: int = 1
    marks: tuple[Mark, ...] = ()


@dataclass(kw_only=True)
class State:
    """Everything that stays in force from block to block."""

    at: Point
    scale: float = 1.0
    units_set: bool = False
    move: str = ""
    taper: float = 0.0
    """Of the cycle of one pass in force, mm, until its word stands again."""
    feed: float | None = None
    per_minute: bool | None = None
    surface: bool | None = None
    speed: float = 0.0
    clamp: float | None = None
    running: bool = False
    station: int = 0
    offset: int = 0
    offset_line: int = 0
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
    datum: str = ""
    firsts: dict[str, Block] = field(default_factory=dict)
    warned: set[str] = field(default_factory=set)

    def copy(self) -> "State":
        return replace(self, firsts=dict(self.firsts), warned=set(self.warned))

    def key(self) -> Hashable:
        """Everything in force but where in the program it stands, and cycles begun."""
        return (
            self.at, self.scale, self.units_set, self.move, self.taper, self.feed, self.per_minute, self.surface,
            self.speed, self.clamp, self.running, self.station, self.offset, self.ended, self.live_rpm,
            self.held_at_angle, self.braked, self.polar, self.c_deg, self.angle_told, self.y, self.second,
            self.shared, self.datum, frozenset(self.warned),
        )  # fmt: skip


class Reading:
    """A program being read: what is in force, the moves so far, and what was found."""

    def __init__(self, dialect: Dialect, reference: Point) -> None:
        self._dialect = dialect
        self._across = dialect.x_is_diameter
        self._reference = reference
        self._state = State(at=reference)
        self._names = {normal(code): name for name, code in dialect.codes.items()}
        self._motions: list[Motion] = []
        self._sections: list[Section] = []
        self._findings: list[Finding] = []
        self._marks: list[Mark] = []
        self._second_reference = reference

    def _say(self, severity: Severity, code: str, line: int, what: str, why: str) -> None:
        self._findings.append(Finding(severity, code, f"line {line}: {what}", why, line=line))

    def _once(self, severity: Severity, code: str, line: int, what: str, why: str, key: str = "") -> None:
        mark = key or code
        if mark not in self._state.warned:
            self._state.warned.add(mark)
            self._say(severity, code, line, what, why)


def normal(code: str) -> str:
    """G01, G1 and g1 are the same word."""
    return code[0].upper() + f"{float(code[1:]):g}"
