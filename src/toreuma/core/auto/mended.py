"""Cures that need no judgement, taken on a proposed route, and operations left out of it that cannot be."""

from dataclasses import dataclass

from toreuma.core.auto.next_best import Failed
from toreuma.core.auto.planning import Planning
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Job
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.turret.at_spindle import reaching
from toreuma.core.spoken import said

__all__ = ["FAILED", "NO_STATION", "Mended", "mended"]

MOST_ROUNDS = 8
"""Cures lead to new findings at times; after so many rounds the rest is left to the person."""

TAKEN_CURES = ("finish.deep", "finish.thin", "station.neighbour", "thread.crest")
"""Findings whose first cure is taken without asking."""

BESIDE_HOLD = "driven.holder"
"""The holder of a driven tool stands in the hold, or in the part."""

NO_STATION = "tool.station"
FAILED = "auto.failed"
"""The code of what was left out."""


@dataclass(frozen=True)
class Mended:
    """A job with cures taken; what failed; which were taken; and one that would move tools of the other side."""

    job: Job
    failed: tuple[Failed, ...]
    taken: tuple[str, ...]
    seats: Cure | None


def mended(job: Job, planning: Planning, fixed: frozenset[str]) -> Mended:
    """The job with the cures taken that need no judgement, without operations that cut nothing or cannot be; what
    was wrong with those; and which cures were taken. Tools that are ``fixed`` work at the other side and stay."""
    taken: list[str] = []
    seats: Cure | None = None
    tried: set[tuple[str, str]] = set()
    for _ in range(MOST_ROUNDS):
        planned = planning.plan(job)
        open_ = [one for one in planned.all_findings if one.cures and (one.code, one.operation) not in tried]
        finding = next((one for one in open_ if _is_taken(job, one)), None)
        if finding is None:
            break
        tried.add((finding.code, finding.operation))
        cure = _cure_of(job, finding)
        cured = cure.apply(job)
        if any(cured.tool(one) != job.tool(one) for one in fixed):
            seats = cure
            continue
        job = cured
        taken.append(f"{cure.label}: {finding.what}")
    failed: list[Failed] = []
    for _ in range(MOST_ROUNDS):
        planned = planning.plan(job)
        bad = [one for one in planned.operations if any(f.severity == "error" for f in one.findings)]
        idle = [one for one in planned.operations if not one.motions and one not in bad]
        if not bad and not idle:
            break
        homeless = [one for one in bad if any(finding.code == NO_STATION for finding in one.findings)]
        out = homeless or bad[:1]  # what else is wrong may come of the one before it
        failed += [_failed(one, job) for one in out]
        gone = {one.operation.id for one in (*out, *idle)}
        job = job.with_setup(operations=tuple(one for one in job.operations if one.id not in gone))
    return Mended(job, tuple(failed), tuple(taken), seats)


def _failed(one: OperationPlan, job: Job) -> Failed:
    fault = next(finding for finding in one.findings if finding.severity == "error")
    name = one.operation.name or one.operation.id
    seats = sum(carrier.stations for carrier in reaching(job))
    what, why = said("{}: {}", name, fault.what), fault.why
    if fault.code == NO_STATION:
        what = said("{}: no station is free for its tool", name)
        why = said(
            "the {} of the machine hold tools that are needed more; make it by hand or at another machine", seats
        )
    finding = Finding("warning", FAILED, what, why, at=fault.at)
    return Failed(one.operation.id, job.tool(one.operation.tool), fault.code, finding)


def _is_taken(job: Job, finding: Finding) -> bool:
    operation = job.operation(finding.operation)
    kinds = ("part_off", "knurl") if _is_from_bar(job) else ("part_off",)
    farther_out = operation is not None and operation.kind in kinds and finding.code == "hold.short"
    return farther_out or finding.code in (*TAKEN_CURES, BESIDE_HOLD)


def _cure_of(job: Job, finding: Finding) -> Cure:
    """The first, as a rule; room beside the hold comes of a bar that stands out farther rather than of a long mill."""
    return finding.cures[-1 if finding.code == BESIDE_HOLD and _is_from_bar(job) else 0]


def _is_from_bar(job: Job) -> bool:
    return job.stock.kind != "free" and job.stock.length_mm is None
