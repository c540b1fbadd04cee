"""Work on the axis before the face is clean."""

import math
from collections.abc import Iterator

from toreuma.core.critic.moves import moved, name_of
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.centre_forms import CONE_DEG, GUARD_DEG
from toreuma.core.model import Tool
from toreuma.core.model.tool import Drill
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan
from toreuma.core.spoken import q, said

__all__ = ["unfaced"]

POINTED = ("spot", "centre")


def unfaced(planned: Plan) -> Iterator[Finding]:
    """The first hole on the axis that is made in front of the facing cut."""
    operations = planned.operations
    face = next((i for i, one in enumerate(operations) if one.operation.kind == "face"), None)
    if face is None:
        return
    early = [one for one in operations[:face] if one.operation.kind in ("drill", "ream", "tap")]
    if not early:
        return
    first, stands = early[0], float(operations[face].before.bounds[2])
    yield Finding(
        "warning",
        "order.unfaced",
        said("'{}' starts on a front that still stands {} out: ", name_of(first.operation), q(stands))
        + _costs(first, planned.job.tool(first.operation.tool), stands),
        "a pip or a slanted saw cut pushes the point aside; its cone is faced away again",
        operation=first.operation.id,
        cures=(
            Cure(f"Face before '{name_of(first.operation)}'", moved(operations[face].operation.id, first.operation.id)),
        ),
    )


def _costs(one: OperationPlan, tool: Tool | None, stands: float) -> str:
    """What facing afterwards takes from it: the mouth of a cone gets smaller, a drill has cut metal for nothing."""
    if isinstance(tool, Drill) and tool.form in POINTED:
        mouth_deg = GUARD_DEG if tool.centre_form == "B" else CONE_DEG
        angle = mouth_deg if tool.form == "centre" else tool.point_deg
        return said("its mouth comes out {} smaller", q(2000 * stands * math.tan(math.radians(angle / 2)), "um", ".0f"))
    feeds = [motion for motion in one.motions if not motion.is_rapid]
    length = sum(motion.segment.length for motion in feeds)
    seconds = one.times.cutting_s * stands / length if length > 0 else 0.0
    return f"{seconds:.1f} s of drilling are faced away again"
