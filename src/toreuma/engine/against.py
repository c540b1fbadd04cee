"""A program of any origin held against the part of a job."""

from collections.abc import Callable
from dataclasses import dataclass

from toreuma.core.findings import Finding
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole

__all__ = ["Against", "held_against"]

MOST_TOLD = 12


@dataclass(frozen=True, kw_only=True)
class Against:
    """What came of it: the verdict over the part, what is not made, and what is wrong in the text."""

    name: str
    verdict: Verdict
    open: tuple[str, ...]
    findings: tuple[Finding, ...]


def held_against(
    job: Job, side: int, text: str, check: Check, progress: Callable[[float], None] = lambda share: None
) -> Against:
    """Cut a text in place of the planned program of a side, counted from 0, with the tools and the hold of the job.
    Raises `ToreumaError`."""
    engine = Engine()
    sides = engine.sides(job, check)
    whole = prove_whole(sides, engine.language(job), {side: text}, check, progress)
    proof = whole.proofs[min(side, len(whole.proofs) - 1)]
    errors = tuple(one for one in proof.findings if one.severity == "error")
    missing = tuple(one.what for one in whole.verdict.findings)[:MOST_TOLD]
    return Against(name=job.name, verdict=whole.verdict, open=missing, findings=errors[:MOST_TOLD])
