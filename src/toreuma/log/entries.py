"""What the log keeps, as values. An ``id`` of 0 is one that is not kept yet; moments are seconds since 1970 (UTC)."""

from dataclasses import dataclass

__all__ = [
    "SEEN",
    "STOPS",
    "EdgeUsed",
    "JobKept",
    "Measurement",
    "Note",
    "Observation",
    "OffsetSet",
    "PartMade",
    "RunKept",
    "Stop",
]

SEEN = ("none", "flank", "notch", "chipping", "built-up edge", "crater", "broken")
"""What may be seen on an edge."""

STOPS = ("bird's nest", "chatter", "burr", "torn surface", "broken tool", "size", "bar end", "other")
"""Why a machine was stopped, or what was seen of chips."""


@dataclass(frozen=True, kw_only=True)
class JobKept:
    """A job of the log, with its last revision."""

    ident: str
    name: str
    fingerprint: str
    revision: str
    runs: int
    last_run: float | None


@dataclass(frozen=True, kw_only=True)
class RunKept:
    """A batch at a machine. ``constants`` is JSON of what it was planned with; ``planned_s`` one part's time."""

    id: int
    ident: str
    name: str
    fingerprint: str
    revision: str
    machine: str
    material: str
    batch: int
    begun: float
    ended: float | None
    planned_s: float
    simulated: bool
    constants: str = "{}"


@dataclass(frozen=True, kw_only=True)
class PartMade:
    """A part of a run, counted from 1; ``seconds`` is what its cycle took, where that is known."""

    number: int
    at: float
    seconds: float | None = None


@dataclass(frozen=True, kw_only=True)
class Measurement:
    """A size of a part. ``size`` is the key of its line in the inspection list; ``uncertainty`` is k = 2, in the unit
    of the value. ``struck``: somebody took it back; it stays and does not count."""

    part: int
    size: str
    value: float
    at: float
    gauge: str = ""
    uncertainty: float = 0.0
    struck: bool = False
    id: int = 0


@dataclass(frozen=True, kw_only=True)
class OffsetSet:
    """What was added to a tool's offset behind a part: mm, on diameter for X."""

    after_part: int
    tool: str
    axis: str
    mm: float
    at: float
    why: str = ""
    id: int = 0


@dataclass(frozen=True, kw_only=True)
class EdgeUsed:
    """A corner of an insert, from which part to which; ``to_part`` is None while it is in. ``worn`` where it was at its
    end; ``seen`` is one of `SEEN`. ``cutting`` is what it is made of, ``planned_min`` the life it was planned with."""

    tool: str
    code: str
    corner: int
    from_part: int
    at: float
    to_part: int | None = None
    minutes: float = 0.0
    metres: float = 0.0
    vc_m_min: float = 0.0
    cutting: str = ""
    planned_min: float | None = None
    seen: str = "none"
    wear_mm: float | None = None
    worn: bool = False
    note: str = ""
    id: int = 0


@dataclass(frozen=True, kw_only=True)
class Stop:
    """The machine stood, or chips made trouble: ``kind`` is one of `STOPS`."""

    part: int
    operation: str
    kind: str
    at: float
    seconds: float = 0.0
    note: str = ""
    id: int = 0


@dataclass(frozen=True, kw_only=True)
class Note:
    """Words about a job or a run, perhaps with a picture. ``kind`` is note, trial or program: an edited program as it
    stood at the machine."""

    words: str
    at: float
    kind: str = "note"
    picture: bytes | None = None
    run: int | None = None
    id: int = 0


@dataclass(frozen=True, kw_only=True)
class Observation:
    """Something found against what was computed: power, Ra, time, deflection. ``of`` says of which material or
    machine."""

    kind: str
    of: str
    computed: float
    found: float
    at: float
    id: int = 0
