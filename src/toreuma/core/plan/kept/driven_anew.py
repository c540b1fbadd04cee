"""A stretch of a driven tool planned anew: an operation for each of the holes, flats and slots it cuts."""

from typing import Any

from toreuma.core.errors import JobError
from toreuma.core.model import AsWritten, HolesBeside, Job, MillFlats, Milling, MillSlot, Operation
from toreuma.core.plan.kept.instead import free_id, instead_of

__all__ = ["driven_anew"]


def driven_anew(job: Job, kept: AsWritten) -> Job:
    """The job with the stretch planned instead of kept. Raises `JobError` where no operation would do it."""
    fresh: list[Operation] = []
    told = {"tool": kept.tool, "name": kept.name, "enabled": kept.enabled}
    for one in kept.milled:
        if not one.edges_only and (made := _cut(job, one, told | {"id": free_id(job, fresh)})) is not None:
            fresh.append(made)
    broken = [one.feature for one in kept.milled if one.edges_only]
    if not broken:
        return instead_of(job, kept, fresh)
    with_edges = tuple(_breaks(one, broken, kept.tool) for one in job.operations)
    if with_edges == job.operations:
        what = "it breaks edges of what other moves cut"
        raise JobError(kept.name or kept.id, what, "plan those anew first")
    left = [one for one in with_edges if one is not kept]
    at = with_edges.index(kept)
    return job.with_setup(operations=(*left[:at], *fresh, *left[at:]))


def _cut(job: Job, one: Milling, told: dict[str, Any]) -> Operation | None:
    """The operation that cuts a feature; None where the part has no such one any more."""
    features = job.part.features
    kind = features[one.feature].kind if one.feature < len(features) else ""
    match kind:
        case "holes":
            return HolesBeside(**told, feature=one.feature, form=one.form)
        case "flats":
            return MillFlats(**told, feature=one.feature)
        case "slot":
            return MillSlot(**told, feature=one.feature)
        case _:
            return None


def _breaks(operation: Operation, features: list[int], tool: str) -> Operation:
    """An operation that breaks the edges of what it mills as well, where it mills one of those."""
    if isinstance(operation, MillFlats | MillSlot) and operation.feature in features:
        return operation.changed(edge_tool=tool)
    return operation
