"""What is wrong, where, in numbers, why it matters, and what would cure it."""

from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from toreuma.core.model import Job
from toreuma.core.spoken import q, said

__all__ = ["Cure", "Finding", "Severity", "place_text", "worst"]

Severity = Literal["error", "warning", "note"]
_ORDER = {"error": 0, "warning": 1, "note": 2}


@dataclass(frozen=True)
class Cure:
    """A change of the job that mends a finding."""

    label: str
    apply: Callable[[Job], Job]


@dataclass(frozen=True)
class Finding:
    """``at`` is a place (z, r) in mm on the part; ``line`` counts lines of program text from 1."""

    severity: Severity
    code: str
    what: str
    why: str = ""
    _: KW_ONLY
    operation: str = ""
    at: tuple[float, float] | None = None
    line: int | None = None
    cures: tuple[Cure, ...] = ()

    def as_dict(self) -> dict[str, object]:
        return {
            "severity": self.severity,
            "code": self.code,
            "what": self.what,
            "why": self.why,
            "operation": self.operation,
            "at": list(self.at) if self.at else None,
            "line": self.line,
            "cures": [cure.label for cure in self.cures],
        }


def place_text(z_mm: float, r_mm: float | None = None) -> str:
    """A place on the part in words, with its units: ``Z −40.05 mm, Ø 18.00 mm``."""
    z = q(z_mm, "mm", "-.3f")
    return said("Z {}", z) if r_mm is None else said("Z {}, Ø {}", z, q(2 * r_mm, "mm", ".3f"))


def worst(findings: tuple[Finding, ...]) -> Finding | None:
    """The most severe finding, the first of its kind; None when there are none."""
    return min(findings, key=lambda finding: _ORDER[finding.severity], default=None)
