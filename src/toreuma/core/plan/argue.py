"""Findings about numbers: limits that are not kept, pinned numbers beyond one, and what each would cost."""

import math

from toreuma.core.cutting.limits import Use
from toreuma.core.findings import Cure, Finding, Severity
from toreuma.core.model import Job, Operation
from toreuma.core.propose.proposal import Proposal
from toreuma.core.units import format_number, show

__all__ = ["beyond_limits"]

PIN_OF = {"ap": "ap_mm", "f": "feed_mm_rev", "vc": "vc_m_min"}
NUMBER_OF = {"ap": "ap_max", "f": "f", "vc": "vc"}
ERRORS = ("power", "grip")
"""Limits whose breaking stops the spindle or throws the piece."""

CHOSEN = ("finish",)
"""Limits that are only a wish."""


def beyond_limits(job: Job, operation: Operation, proposal: Proposal | None) -> list[Finding]:
    """What is beyond a limit: flagged, with what would happen and what would mend it; never changed."""
    if proposal is None:
        return []
    every = [_finding(job, operation, proposal, use) for use in proposal.broken if use.kind.name not in CHOSEN]
    found = list({finding.code: finding for finding in reversed(every)}.values())[::-1]  # one a pin, the worst first
    clamp = proposal.numbers["clamp"]
    lowest = min((limit.number for limit in clamp.limits), default=math.inf)
    if clamp.pinned and clamp.number > lowest * 1.0001:
        label = min(clamp.limits, key=lambda limit: limit.number).label
        found.append(
            Finding(
                "warning",
                "pin.clamp_rpm",
                f"speed clamp is pinned at {clamp.number:.0f} rpm, limit {lowest:.0f} rpm ({label})",
                "a pinned number is kept as it stands; at that speed the hold is not safe",
                operation.id,
                cures=(_unpin(operation.id, "clamp_rpm"),),
            )
        )
    return found


def _finding(job: Job, operation: Operation, proposal: Proposal, use: Use) -> Finding:
    pins = operation.pins
    pinned = [var for var in use.kind.on if getattr(pins, PIN_OF[var]) is not None]
    there, bound = (str(show(number, use.kind.unit, "mm")) for number in (use.number, use.bound))
    sense = "at least" if use.kind.least else "at most"
    what = f"{use.kind.quantity} {there}, {sense} {bound} ({use.label})"
    cures = tuple(_unpin(operation.id, PIN_OF[var]) for var in pinned[:1])
    if use.kind.name in ERRORS:
        code = "power.short" if use.kind.name == "power" else "grip.short"
        return Finding(
            "error", code, what, use.kind.beyond, operation.id, cures=(*cures, *_ease(job, operation, proposal, use))
        )
    if pinned:
        words = " and ".join(proposal.numbers[NUMBER_OF[v]].name for v in pinned if NUMBER_OF[v] in proposal.numbers)
        note = f"{use.kind.beyond}; pinned: {words or 'depth'}; a pinned number is kept as it stands"
        return Finding("warning", f"pin.{PIN_OF[pinned[0]]}", what, note, operation.id, cures=cures)
    code = "limit." + use.kind.name.replace(", ", ".").replace(" ", "_")
    severity: Severity = "note" if use.kind.floor else "warning"
    return Finding(severity, code, what, use.kind.beyond, operation.id)


def _unpin(operation_id: str, field: str) -> Cure:
    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: None})))

    names = {"ap_mm": "depth", "feed_mm_rev": "feed", "vc_m_min": "surface speed", "clamp_rpm": "clamp"}
    return Cure(f"Use the proposed {names[field]}", apply)


def _ease(job: Job, operation: Operation, proposal: Proposal, use: Use) -> tuple[Cure, ...]:
    """Less depth where there is a choice of depth, less feed otherwise.

    Less speed would not help below the motor's base speed, where power falls with it.
    """
    share = 1 / use.share if use.share < math.inf else 0.0
    if "ap_max" in proposal.numbers:
        depth = math.floor(100 * proposal.cut.ap_mm * share) / 100
        return _pin_cure(operation.id, f"Limit the depth to {depth:g} mm", "ap_mm", depth)
    feed = math.floor(1000 * proposal.cut.feed_mm_rev * share ** (1 / (1 - job.stock.material.mc))) / 1000
    return _pin_cure(operation.id, f"Lower the feed to {format_number(feed, 3)} mm/rev", "feed_mm_rev", feed)


def _pin_cure(operation_id: str, label: str, field: str, number: float) -> tuple[Cure, ...]:
    if number <= 0:
        return ()

    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: number})))

    return (Cure(label, apply),)
