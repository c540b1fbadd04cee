"""What roughing leaves against the nose that finishes."""

import math
from collections.abc import Iterator

from toreuma.core.findings import Cure, Finding
from toreuma.core.model import FinishBore, FinishOd, Job, RoughBore, RoughOd, TurningTool
from toreuma.core.model.tool import BoringTool
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.spoken import q, said

__all__ = ["finish_depths"]

NOSE_SHARE = 2 / 3
"""Finishing takes at least this share of the nose radius."""


def finish_depths(job: Job, planned: OperationPlan) -> Iterator[Finding]:
    """Roughing leaves less than the nose wants: it pushes the piece away and rubs instead of cutting."""
    operation, tool = planned.operation, job.tool(planned.operation.tool)
    if not isinstance(operation, FinishOd | FinishBore) or not isinstance(tool, TurningTool | BoringTool):
        return
    if not planned.motions:
        return
    nose = tool.insert.nose_radius_mm
    at = next(i for i, op in enumerate(job.operations) if op.id == operation.id)
    kind: type[RoughOd | RoughBore] = RoughBore if isinstance(operation, FinishBore) else RoughOd
    before = [op for op in job.operations[:at] if isinstance(op, kind) and op.enabled]
    left = before[-1].leave_radial_mm - operation.leave_mm if before else math.inf
    if tool.insert.shape == "R" or left >= NOSE_SHARE * nose - 1e-6:
        return
    wanted = math.ceil(NOSE_SHARE * nose * 20) / 20
    roughing = {op.id for op in before}

    def leave_more(job: Job) -> Job:
        changed = tuple(
            op.changed(leave_radial_mm=wanted) if op.id in roughing and isinstance(op, kind) else op
            for op in job.operations
        )
        return job.with_setup(operations=changed)

    cures = [Cure(said("Leave {} on radius", q(wanted, "mm", "g")), leave_more)]
    fits = [
        t for t in job.tools if isinstance(t, type(tool)) and 0 < NOSE_SHARE * t.insert.nose_radius_mm <= left + 1e-6
    ]
    for other in sorted(fits, key=lambda t: -t.insert.nose_radius_mm)[:1]:
        label = said("Finish with {}, nose {}", other.id, q(other.insert.nose_radius_mm, "mm", "g"))
        cures.append(
            Cure(label, lambda j, t=other.id: j.with_operation(operation.id, lambda op: op.changed(tool=t)))  # type: ignore[misc]
        )
    yield Finding(
        "warning",
        "finish.thin",
        said("finish depth {} on radius is below 2/3 of the nose radius {}", q(left), q(nose, "mm", "g")),
        said("the nose pushes the piece away and rubs: leave {} or use a smaller nose", q(wanted, "mm", "g")),
        operation=operation.id,
        cures=tuple(cures),
    )
