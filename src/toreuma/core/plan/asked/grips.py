"""How safely the hold carries each planned operation."""

import math

from toreuma.core.cutting import grip
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.plan.hold.hardest import Hardest
from toreuma.core.plan.hold.standing import needed_grip_n
from toreuma.core.plan.route import Plan

__all__ = ["operation_grips"]


def operation_grips(plan: Plan) -> list[tuple[str, Evidence]]:
    """Safety of the grip in each planned operation at its highest speed: (operation id, evidence)."""
    job, found = plan.job, []
    for planned in plan.operations:
        clamp, force = planned.figures.clamp_rpm, Hardest.of(planned)
        if force is None or clamp is None:
            continue
        there = grip.grip_at_speed_n(job.setup.hold, clamp)
        if there is None:
            continue
        needed = needed_grip_n(job, plan.scene, force) / job.setup.hold.safety
        found.append(
            (
                planned.operation.id,
                Evidence(
                    planned.operation.name or planned.operation.id,
                    "S",
                    there / needed if needed > 0 else math.inf,
                    "ratio",
                    formula="grip at the clamp speed over the grip that just holds",
                    source=grip.SOURCE,
                    inputs=(
                        Input("cutting force", "Fc", force.cutting_n, "N"),
                        Input("grip at speed", "F", there, "N"),
                        Input("just holds", "", needed, "N"),
                        Input("clamp", "n", clamp, "rpm"),
                    ),
                    limits=(Limit("wanted, at least", job.setup.hold.safety, "ratio"),),
                ),
            )
        )
    return found
