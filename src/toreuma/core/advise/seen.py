"""What the numbers of an operation offer against what was seen: chips, chatter, burrs, torn surfaces."""

from collections.abc import Sequence

from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Job, Operation
from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.spoken import q, said

__all__ = ["remedies"]

MORE_FEED, LESS_SPEED, MORE_SPEED, LESS_DEPTH = 1.2, 0.8, 1.15, 0.75


def remedies(sides: Sequence[Plan], seen: str, where: str) -> Finding | None:
    """A finding with cures for what was ``seen`` ``where``, an operation by its name; None where nothing answers."""
    for plan in sides:
        for planned in plan.operations:
            if where and where in (planned.operation.name, planned.operation.kind, planned.operation.id):
                cures = tuple(_cures(seen, planned))
                if not cures:
                    return None
                what = said("{} in '{}'", seen, planned.operation.name or planned.operation.kind)
                return Finding("note", "log.seen", what, WHY[seen], operation=planned.operation.id, cures=cures)
    return None


WHY = {
    "bird's nest": "a chip breaks where feed and depth lie inside its window; a short way back breaks it for sure",
    "chatter": "the cut and the piece or bar swing together: another speed, less depth, or a thicker chip calms it",
    "burr": "a burr grows with a thin chip and a worn edge that leaves the metal",
    "torn surface": "metal that sticks to the edge tears the surface: more speed takes it off",
}


def _cures(kind: str, planned: OperationPlan) -> list[Cure]:
    f = planned.figures
    feed, vc, ap = f.feed_mm_rev, f.vc_m_min, f.ap_mm
    found: list[Cure] = []
    if kind in ("bird's nest", "burr", "chatter") and feed:
        found.append(_pin("feed", "feed_mm_rev", round(feed * MORE_FEED, 3), "mm/rev", planned.operation))
    if kind == "bird's nest" and "chip_break_mm" in type(planned.operation).model_fields:
        found.append(_break(planned.operation))
    if kind == "chatter" and vc:
        found.append(_pin("surface speed", "vc_m_min", round(vc * LESS_SPEED), "m/min", planned.operation))
    if kind == "chatter" and ap:
        found.append(_pin("depth", "ap_mm", round(ap * LESS_DEPTH, 2), "mm", planned.operation))
    if kind == "torn surface" and vc:
        found.append(_pin("surface speed", "vc_m_min", round(vc * MORE_SPEED), "m/min", planned.operation))
    return found


def _pin(name: str, field: str, value: float, unit: str, operation: Operation) -> Cure:
    def change(job: Job) -> Job:
        return job.with_operation(operation.id, lambda op: op.changed(pins=op.pins.changed(**{field: value})))

    form = {"mm/rev": ".3f", "m/min": ".0f", "mm": ".2f"}[unit]
    return Cure(said("Pin {} at {}", name, q(value, unit, form)), change)


def _break(operation: Operation) -> Cure:
    every = 4.0

    def change(job: Job) -> Job:
        return job.with_operation(operation.id, lambda op: op.changed(chip_break_mm=every))

    return Cure(said("Break chips every {}", q(every, "mm", "g")), change)
