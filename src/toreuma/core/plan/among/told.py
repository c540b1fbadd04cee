"""Planned operations with what the others have to say about them."""

from collections.abc import Callable, Iterator
from dataclasses import replace

from toreuma.core.findings import Finding
from toreuma.core.model import Job
from toreuma.core.plan.among.depths import finish_depths
from toreuma.core.plan.among.offers import OFFERS
from toreuma.core.plan.among.sizes import hole_sizes
from toreuma.core.plan.ground.result import OperationPlan

__all__ = ["told_by_others"]

RULES: tuple[Callable[[Job, OperationPlan], Iterator[Finding]], ...] = (finish_depths, hole_sizes)


def told_by_others(job: Job, planned: tuple[OperationPlan, ...]) -> tuple[OperationPlan, ...]:
    """Each operation with its findings and cures that depend on other operations or tools."""
    return tuple(_told(job, one) for one in planned)


def _told(job: Job, planned: OperationPlan) -> OperationPlan:
    offered = tuple(_offered(job, planned, one) for one in planned.findings)
    found = (*offered, *(finding for rule in RULES for finding in rule(job, planned)))
    return planned if found == planned.findings else replace(planned, findings=found)


def _offered(job: Job, planned: OperationPlan, finding: Finding) -> Finding:
    offer = OFFERS.get(finding.code)
    more = offer(job, planned.operation) if offer is not None else ()
    return replace(finding, cures=(*more, *finding.cures)) if more else finding
