"""Cures that need no judgement, taken on a proposed route, and operations left out of it that cannot be."""

from dataclasses import dataclass

from toreuma.core.auto.next_best import Failed
from toreuma.core.findings import Cure, Finding
from toreuma.core.memo import Check, Memo
from toreuma.core.model import Job
from toreuma.core.plan import plan
from toreuma.core.plan.ground.result import OperationPlan

__all__ = ["FAILED", "Mended", "mended"]

MOST_ROUNDS = 8
"""Cures lead to new findings at times; after so many rounds the rest is left to the person."""

TAKEN_CURES = ("finish.deep", "finish.thin", "station.neighbour", "thread.crest")
"""Findings whose first cure is taken without asking."""

FAILED = "auto.failed"
"""The code of what was left out."""


@dataclass(frozen=True)
class Mended:
    """A job with cures taken; what failed; which were taken; and one that would move tools of the other side."""

    job: Job
    failed: tuple[Failed, ...]
    taken: tuple[str, ...]
    seats: Cure | None


def mended(job: Job, check: Check, fixed: frozenset[str]) -> Mended:
    """The job with the cures taken that need no judgement, without operations that cut nothing or cannot be; what
    was wrong with those; and which cures were taken. Tools that are ``fixed`` work at the other side and stay."""
    memo, taken = Memo(), []
    seats: Cure | None = None
    tried: set[tuple[str, str]] = set()
    for _ in range(MOST_ROUNDS):
        planned = plan(job, memo, check)
        open_ = [one for one in planned.all_findings if one.cures and (one.code, one.operation) not in tried]
        finding = next((one for one in open_ if _is_taken(job, one)), None)
        if finding is None:
            break
        tried.add((finding.code, finding.operation))
        cured = finding.cures[0].apply(job)
        if any(cured.tool(one) != job.tool(one) for one in fixed):
            seats = finding.cures[0]
            continue
        job = cured
        taken.append(f"{finding.cures[0].label}: {finding.what}")
    failed: list[Failed] = []
    for _ in range(MOST_ROUNDS):
        planned = plan(job, memo, check)
        bad = [one for one in planned.operations if any(f.severity == "error" for f in one.findings)]
        idle = [one for one in planned.operations if not one.motions and one not in bad]
        if not bad and not idle:
            break
        failed += [_failed(one, job) for one in bad[:1]]
        gone = {one.operation.id for one in (*bad[:1], *idle)}
        job = job.with_setup(operations=tuple(one for one in job.operations if one.id not in gone))
    return Mended(job, tuple(failed), tuple(taken), seats)


def _failed(one: OperationPlan, job: Job) -> Failed:
    fault = next(finding for finding in one.findings if finding.severity == "error")
    name = one.operation.name or one.operation.id
    finding = Finding("warning", FAILED, f"{name}: {fault.what}", fault.why, at=fault.at)
    return Failed(one.operation.id, job.tool(one.operation.tool), fault.code, finding)


def _is_taken(job: Job, finding: Finding) -> bool:
    operation = job.operation(finding.operation)
    parting = operation is not None and operation.kind == "part_off" and finding.code == "hold.short"
    return parting or finding.code in TAKEN_CURES
