"""Two tools that meet on one surface: the difference of their offsets stands there as a step."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from toreuma.core.critic.moves import name_of
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.model import FinishBore, FinishOd, Job
from toreuma.core.plan.route import Plan
from toreuma.core.spoken import q, said

__all__ = ["joints"]

EDGE_MM = 0.05
NEAR_MM = 2.0

Finishing = FinishOd | FinishBore


@dataclass(frozen=True)
class _Line:
    """The outside or the bore: its segments, and which of them are corners."""

    segments: tuple[Segment, ...]
    corners: tuple[bool, ...]


def joints(planned: Plan) -> Iterator[Finding]:
    """Finishing cuts of one side that meet within a surface, with the step their offsets would leave there."""
    error_um = planned.job.conditions.offset_error_um
    finishing = [one.operation for one in planned.operations if isinstance(one.operation, Finishing) and one.motions]
    for first in finishing:
        for second in finishing:
            if first.kind != second.kind or first.tool == second.tool or second.from_z_mm is None:
                continue
            z, line = second.from_z_mm, _line(planned, second)
            radius = _inside_a_surface(line, z)
            if radius is None or (first.to_z_mm is not None and abs(first.to_z_mm - z) > NEAR_MM):
                continue
            edge = _nearest_edge(line, z)
            yield Finding(
                "warning",
                "order.joint",
                said(
                    "{} and {} meet on Ø {} at Z {}: offsets {} apart leave a step of {}",
                    first.tool,
                    second.tool,
                    q(2 * radius),
                    q(z, "mm", "g", bare=True),
                    q(error_um, "um", "g"),
                    q(2 * error_um, "um", "g"),
                ),
                "one tool for the whole surface, or the joint on an edge",
                operation=second.id,
                at=(z, radius),
                cures=(
                    Cure(f"Finish both with {first.tool}", _with_tool(second.id, first.tool)),
                    Cure(
                        said("Move the joint to the edge at Z {}", q(edge, "mm", "g", bare=True)),
                        _joint_at(first.id, second.id, edge),
                    ),
                    Cure(f"One cut for both: '{name_of(first)}'", _as_one(first.id, second)),
                ),
            )


def _line(planned: Plan, operation: Finishing) -> _Line:
    profile, bore = planned.scene.profile, planned.scene.shape.bore
    if operation.kind == "finish_bore" and bore is not None:
        return _Line(bore.segments, bore.corners)
    return _Line(profile.segments, profile.corners)


def _inside_a_surface(line: _Line, z: float) -> float | None:
    """Radius where a place lies within a surface and not at its edge."""
    for segment, corner in zip(line.segments, line.corners, strict=True):
        low, high = sorted((segment.start[0], segment.end[0]))
        if not corner and low + EDGE_MM < z < high - EDGE_MM and isinstance(segment, Line):
            share = (z - segment.start[0]) / (segment.end[0] - segment.start[0])
            return segment.at(share)[1]
    return None


def _nearest_edge(line: _Line, z: float) -> float:
    edges: list[float] = [point[0] for s in line.segments for point in (s.start, s.end)]
    nearest: float = min(edges, key=lambda edge: abs(edge - z))
    return round(nearest, 4)


def _with_tool(operation: str, tool: str) -> Callable[[Job], Job]:
    return lambda job: job.with_operation(operation, lambda op: op.changed(tool=tool))


def _joint_at(first: str, second: str, z: float) -> Callable[[Job], Job]:
    def apply(job: Job) -> Job:
        job = job.with_operation(first, lambda op: op.changed(to_z_mm=z))
        return job.with_operation(second, lambda op: op.changed(from_z_mm=z))

    return apply


def _as_one(first: str, second: Finishing) -> Callable[[Job], Job]:
    """The first cut goes on to where the second ends, which falls away."""

    def apply(job: Job) -> Job:
        job = job.with_operation(first, lambda op: op.changed(to_z_mm=second.to_z_mm))
        return job.with_setup(operations=tuple(one for one in job.operations if one.id != second.id))

    return apply
