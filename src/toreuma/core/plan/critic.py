"""A second look at the order: what another one would save, in seconds, micrometres or burrs, each with its cure.

Rules look at a finished plan. None of them changes anything; each cure moves one operation.
"""

from collections.abc import Callable, Iterator

from toreuma.core.cutting.beam import compliance_of
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line
from toreuma.core.model import FinishOd, Job, Operation
from toreuma.core.plan.hold import held_piece
from toreuma.core.plan.result import OperationPlan
from toreuma.core.plan.route import Plan

__all__ = ["critique"]

BEND_UM = 5.0
"""A difference in bending below this is not worth another order, on diameter."""

JOINT_ERROR_UM = 10.0
"""Two tools' offsets differ by about this much: a hundredth."""

EDGE_MM = 0.05
NEAR_MM = 2.0

AFTER: dict[str, tuple[str, ...]] = {
    "finish_od": ("rough_od", "face"),
    "rough_bore": ("drill",),
    "finish_bore": ("rough_bore", "drill"),
    "ream": ("drill", "rough_bore"),
    "tap": ("drill",),
    "thread": ("rough_od", "finish_od", "groove", "finish_bore"),
    "groove": ("rough_od", "rough_bore"),
    "drill": ("face", "drill"),
    "rough_od": ("rough_od",),
}
"""Kinds that have to come before a kind, as a rule; parting off comes last."""


def critique(planned: Plan) -> tuple[Finding, ...]:
    """What another order of the operations would be better at."""
    return tuple(finding for rule in RULES for finding in rule(planned))


def _moved(operation: str, before: str) -> Callable[[Job], Job]:
    """Put one operation right in front of another."""

    def apply(job: Job) -> Job:
        moving = job.operation(operation)
        if moving is None:
            return job
        rest = [one for one in job.operations if one.id != operation]
        at = next((i for i, one in enumerate(rest) if one.id == before), len(rest))
        return job.with_setup(operations=(*rest[:at], moving, *rest[at:]))

    return apply


def _name(operation: Operation) -> str:
    return operation.name or operation.id


def _may_pass(moving: Operation, others: list[Operation]) -> bool:
    """Nothing among the others has to come before the one that is to be moved in front of them."""
    needed = AFTER.get(moving.kind, ())
    return moving.kind != "part_off" and not any(one.kind in needed or one.kind == "part_off" for one in others)


def _tool_changes(planned: Plan) -> Iterator[Finding]:
    """A tool that comes back although its second cut could have been made the first time."""
    operations = [one.operation for one in planned.operations if one.motions]
    machine = planned.job.machine
    for index, later in enumerate(operations):
        earlier = next((i for i in range(index - 2, -1, -1) if operations[i].tool == later.tool), None)
        if earlier is None or any(operations[i].tool == later.tool for i in range(earlier + 1, index)):
            continue
        between = operations[earlier + 1 : index]
        if not _may_pass(later, between):
            continue
        after = operations[index + 1] if index + 1 < len(operations) else None
        changes = 2 if after is None or after.tool != operations[index - 1].tool else 3
        saved = (changes - 1) * machine.tool_change_s
        target = between[0]
        yield Finding(
            "note",
            "order.change",
            f"{later.tool} comes back for '{_name(later)}': {saved:.1f} s of tool changes",
            f"nothing between asks for it to wait; after '{_name(operations[earlier])}' it costs none",
            later.id,
            cures=(Cure(f"Move '{_name(later)}' before '{_name(target)}'", _moved(later.id, target.id)),),
        )


def _unfaced(planned: Plan) -> Iterator[Finding]:
    """Work on the axis before the face is clean."""
    operations = [one.operation for one in planned.operations]
    face = next((i for i, one in enumerate(operations) if one.kind == "face"), None)
    if face is None:
        return
    first = next((one for one in operations[:face] if one.kind in ("drill", "ream", "tap")), None)
    if first is None:
        return
    stands = planned.operations[face].before.bounds[2]
    yield Finding(
        "warning",
        "order.unfaced",
        f"'{_name(first)}' starts on a front that still stands {stands:.2f} mm out",
        "a pip or a slanted saw cut pushes the point aside; its cone is faced away again",
        first.id,
        cures=(Cure(f"Face before '{_name(first)}'", _moved(operations[face].id, first.id)),),
    )


def _burrs(planned: Plan) -> Iterator[Finding]:
    """Grooves and holes cut after the thread or the bore they throw their burr into."""
    done: list[OperationPlan] = []
    for one in planned.operations:
        if one.operation.kind in ("groove", "drill"):
            for before in done:
                if before.operation.kind in ("thread", "tap") and _meet(before, one):
                    yield Finding(
                        "warning",
                        "order.burr",
                        f"'{_name(one.operation)}' throws a burr into '{_name(before.operation)}', cut before it",
                        "the gauge jams on it: first what makes burrs, then the thread",
                        one.operation.id,
                        cures=(
                            Cure(
                                f"Move '{_name(one.operation)}' before '{_name(before.operation)}'",
                                _moved(one.operation.id, before.operation.id),
                            ),
                        ),
                    )
        if one.motions:
            done.append(one)


def _meet(a: OperationPlan, b: OperationPlan) -> bool:
    """What both take away lies close together along Z and on the same side of the metal."""
    if a.removed.is_empty or b.removed.is_empty:
        return False
    return bool(a.removed.distance(b.removed) < NEAR_MM)


def _bending(planned: Plan) -> Iterator[Finding]:
    """A cut on a piece that an earlier one, which could wait, has made thin."""
    job, scene = planned.job, planned.scene
    e = job.stock.material.e_n_mm2
    if e is None:
        return
    supported = job.setup.centre is not None
    cuts = [one for one in planned.operations if one.motions]
    for index, one in enumerate(cuts):
        if one.operation.kind not in ("rough_od", "finish_od", "thread") or "force" not in one.numbers:
            continue
        for earlier_index in range(index - 1, -1, -1):
            earlier = cuts[earlier_index]
            if earlier.operation.kind not in ("groove", "rough_od"):
                continue
            between = [x.operation for x in cuts[earlier_index:index]]
            if not _may_pass(one.operation, between) or earlier.removed.is_empty:
                continue
            z = one.removed.centroid.x if not one.removed.is_empty else 0.0
            if earlier.removed.centroid.x > z:  # what is thin lies in front of the cut: it bends nothing
                continue
            now, then = (held_piece(region, scene.jaw_face_z) for region in (one.before, earlier.before))
            if now.is_empty or then.is_empty or now.bounds[2] < scene.jaw_face_z + 1:
                continue
            force = one.numbers["force"].number
            more = compliance_of(now, scene.jaw_face_z, e, supported).at(z)
            less = compliance_of(then, scene.jaw_face_z, e, supported).at(z)
            saved_um = 2000 * 0.5 * force * (more - less)
            if saved_um > BEND_UM:
                yield Finding(
                    "note",
                    "order.bend",
                    f"'{_name(one.operation)}' bends the piece {saved_um:.0f} µm more on diameter after "
                    f"'{_name(earlier.operation)}' than before it",
                    "thin places last: the cut farther out finds a stiffer piece",
                    one.operation.id,
                    cures=(
                        Cure(
                            f"Move '{_name(one.operation)}' before '{_name(earlier.operation)}'",
                            _moved(one.operation.id, earlier.operation.id),
                        ),
                    ),
                )
                break


def _joints(planned: Plan) -> Iterator[Finding]:
    """Two tools that meet on one surface: the difference of their offsets stands there as a step."""
    finishing = [one.operation for one in planned.operations if isinstance(one.operation, FinishOd) and one.motions]
    for first in finishing:
        for second in finishing:
            if first.tool == second.tool or second.from_z_mm is None:
                continue
            z = second.from_z_mm
            radius = _inside_a_surface(planned, z)
            if radius is None or (first.to_z_mm is not None and abs(first.to_z_mm - z) > NEAR_MM):
                continue
            edge = _nearest_edge(planned, z)
            yield Finding(
                "warning",
                "order.joint",
                f"{first.tool} and {second.tool} meet on Ø {2 * radius:.2f} mm at Z {z:g}: offsets "
                f"{JOINT_ERROR_UM:g} µm apart leave a step of {2 * JOINT_ERROR_UM:g} µm",
                "one tool for the whole surface, or the joint on an edge",
                second.id,
                (z, radius),
                cures=(
                    Cure(f"Finish both with {first.tool}", _with_tool(second.id, first.tool)),
                    Cure(f"Move the joint to the edge at Z {edge:g}", _joint_at(first.id, second.id, edge)),
                ),
            )


def _inside_a_surface(planned: Plan, z: float) -> float | None:
    """Radius where a place lies within a surface and not at its edge."""
    profile = planned.scene.profile
    for segment, corner in zip(profile.segments, profile.corners, strict=True):
        low, high = sorted((segment.start[0], segment.end[0]))
        if not corner and low + EDGE_MM < z < high - EDGE_MM and isinstance(segment, Line):
            share = (z - segment.start[0]) / (segment.end[0] - segment.start[0])
            return segment.at(share)[1]
    return None


def _nearest_edge(planned: Plan, z: float) -> float:
    edges: list[float] = [point[0] for s in planned.scene.profile.segments for point in (s.start, s.end)]
    nearest: float = min(edges, key=lambda edge: abs(edge - z))
    return round(nearest, 4)


def _with_tool(operation: str, tool: str) -> Callable[[Job], Job]:
    return lambda job: job.with_operation(operation, lambda op: op.changed(tool=tool))


def _joint_at(first: str, second: str, z: float) -> Callable[[Job], Job]:
    def apply(job: Job) -> Job:
        job = job.with_operation(first, lambda op: op.changed(to_z_mm=z))
        return job.with_operation(second, lambda op: op.changed(from_z_mm=z))

    return apply


RULES: tuple[Callable[[Plan], Iterator[Finding]], ...] = (_unfaced, _burrs, _joints, _bending, _tool_changes)
