"""A tool that could do a job, with what speaks for it and against it."""

from dataclasses import dataclass

from toreuma.core.model import Tool

__all__ = ["Candidate", "Rejected"]


@dataclass(frozen=True, kw_only=True)
class Candidate:
    """``codes`` are those of insert and carrier, or of the whole tool. ``left_mm2`` is what it does not reach,
    corners smaller than its nose left out. ``against`` says in one line why it stands behind the first."""

    tool: Tool
    codes: tuple[str, ...]
    on_rack: bool
    in_turret: bool
    left_mm2: float
    strength: float
    reasons: tuple[str, ...]
    against: str = ""
    rank: tuple[float, ...] = ()

    @property
    def title(self) -> str:
        return " in ".join(self.codes)


@dataclass(frozen=True)
class Rejected:
    """A tool that cannot do it, and the number that says so."""

    title: str
    why: str
