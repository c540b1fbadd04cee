"""Findings about numbers: limits that are not kept, pinned numbers beyond one, and what each would cost."""

import math

from toreuma.core.cutting.figures import Figure
from toreuma.core.cutting.limits import Use
from toreuma.core.findings import Cure, Finding, Severity
from toreuma.core.model import Job, Operation
from toreuma.core.propose.proposal import Proposal
from toreuma.core.spoken import q, said

__all__ = ["beyond_limits"]

PIN_OF = {"ap": "ap_mm", "f": "feed_mm_rev", "vc": "vc_m_min"}
NUMBER_OF = {"ap": Figure.LARGEST_DEPTH, "f": Figure.FEED, "vc": Figure.SPEED}
ERRORS = ("power", "grip")
"""Limits whose breaking stops the spindle or throws the piece."""

UNTIDY = ("least depth for chips", "least feed for chips", "chip window, depth")
"""Limits whose breaking makes strings of chips: often the stock leaves no choice."""

HOLDS_DOWN = 0.8

CHOSEN = ("finish",)
"""Limits that are only a wish."""


def beyond_limits(operation: Operation, proposal: Proposal | None) -> list[Finding]:
    """What is beyond a limit: flagged, with what would happen and what would mend it; never changed."""
    if proposal is None:
        return []
    every = [_finding(operation, proposal, use) for use in proposal.broken if use.kind.name not in CHOSEN]
    found = list({finding.code: finding for finding in reversed(every)}.values())[::-1]  # one a pin, the worst first
    clamp, pinned = proposal.figures.clamp_rpm or 0.0, operation.pins.clamp_rpm is not None
    lowest = min(proposal.bounds[Figure.CLAMP], key=lambda limit: limit.number)
    if pinned and clamp > lowest.number * 1.0001:
        found.append(
            Finding(
                "warning",
                "pin.clamp_rpm",
                f"speed clamp is pinned at {clamp:.0f} rpm, limit {lowest.number:.0f} rpm ({lowest.label})",
                "a pinned number is kept as it stands; at that speed the hold is not safe",
                operation=operation.id,
                cures=(_unpin(operation.id, "clamp_rpm"),),
            )
        )
    return found


def _finding(operation: Operation, proposal: Proposal, use: Use) -> Finding:
    pins = operation.pins
    pinned = [var for var in use.kind.on if getattr(pins, PIN_OF[var]) is not None]
    there, bound = (q(number, use.kind.unit, "") for number in (use.number, use.bound))
    sense = "at least" if use.kind.least else "at most"
    what = said("{} {}, {} {} ({})", use.kind.quantity, there, sense, bound, use.label)
    cures = tuple(_unpin(operation.id, PIN_OF[var]) for var in pinned[:1])
    if use.kind.name in ERRORS:
        code = "power.short" if use.kind.name == "power" else "grip.short"
        return Finding(
            "error",
            code,
            what,
            use.kind.beyond,
            operation=operation.id,
            cures=(*cures, *_ease(operation, proposal, use)),
        )
    if pinned:
        words = " and ".join(proposal.reasons[NUMBER_OF[v]].name for v in pinned if NUMBER_OF[v] in proposal.reasons)
        note = f"{use.kind.beyond}; pinned: {words or 'depth'}; a pinned number is kept as it stands"
        return Finding("warning", f"pin.{PIN_OF[pinned[0]]}", what, note, operation=operation.id, cures=cures)
    severity: Severity = "note" if use.kind.name in UNTIDY else "warning"
    holds = next((one for one in proposal.uses if _holds_down(one, use)), None)
    why = f"{use.kind.beyond}; held down by {holds.kind.name} ({holds.label})" if holds else use.kind.beyond
    return Finding(severity, use.kind.code, what, why, operation=operation.id)


def _holds_down(one: Use, broken: Use) -> bool:
    """A limit that is used up, and keeps the number from growing out of the broken one."""
    meets = set(one.kind.on) & set(broken.kind.on)
    return bool(meets) and not one.kind.floor and not one.kind.table and HOLDS_DOWN < one.share <= 1.0005


def _unpin(operation_id: str, field: str) -> Cure:
    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: None})))

    names = {"ap_mm": "depth", "feed_mm_rev": "feed", "vc_m_min": "surface speed", "clamp_rpm": "clamp"}
    return Cure(f"Use the proposed {names[field]}", apply)


def _ease(operation: Operation, proposal: Proposal, use: Use) -> tuple[Cure, ...]:
    """As much depth as the limit allows where there is a choice of depth, as much feed otherwise.

    Less speed would not help below the motor's base speed, where power falls with it.
    """
    for key, field, words, unit, step in (
        (Figure.LARGEST_DEPTH, "ap_mm", "Limit the depth to", "mm", 100),
        (Figure.FEED, "feed_mm_rev", "Lower the feed to", "mm/rev", 1000),
    ):
        most = next((limit.number for limit in proposal.bounds.get(key, ()) if limit.of == use.kind.name), None)
        if most is not None:
            number = math.floor(step * most) / step
            return _pin_cure(operation.id, said("{} {}", words, q(number, unit, "g")), field, number)
    return ()


def _pin_cure(operation_id: str, label: str, field: str, number: float) -> tuple[Cure, ...]:
    if number <= 0:
        return ()

    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: number})))

    return (Cure(label, apply),)
