"""Holes beside the axis that no tool of the route brings to their size."""

from collections.abc import Iterator

from toreuma.core.findings import Finding
from toreuma.core.model import HolesBeside, Job
from toreuma.core.model.feature import HolePattern
from toreuma.core.model.tool import Drill, Reamer
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.spoken import q, said

__all__ = ["hole_sizes"]

SAME_MM = 0.1


def hole_sizes(job: Job, planned: OperationPlan) -> Iterator[Finding]:
    """A drill or reamer of another size than the holes, where no reamer of the route goes through them."""
    operation = planned.operation
    if not isinstance(operation, HolesBeside) or not planned.motions:
        return
    feature, tool = job.part.features[operation.feature], job.tool(operation.tool)
    if not isinstance(feature, HolePattern) or feature.thread or not isinstance(tool, Drill | Reamer):
        return
    marks = isinstance(tool, Drill) and tool.form in ("spot", "centre")
    same = [one for one in job.operations if isinstance(one, HolesBeside) and one.feature == operation.feature]
    reamed = any(isinstance(job.tool(one.tool), Reamer) for one in same if one.enabled)
    if not marks and (not reamed or isinstance(tool, Reamer)) and abs(tool.d_mm - feature.d_mm) > SAME_MM:
        what = said(
            "{} makes Ø{}, the holes are Ø{}",
            tool.id,
            q(tool.d_mm, "mm", "g", bare=True),
            q(feature.d_mm, "mm", "g", bare=True),
        )
        yield Finding("error", "holes.size", what, "choose a tool of the hole's size", operation=operation.id)
