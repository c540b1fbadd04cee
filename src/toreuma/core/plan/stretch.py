"""The stretch of the outside that roughing and finishing share: where it starts, where it ends, what limits it."""

from dataclasses import dataclass

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import CHORD_MM
from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.reach import Reach, blocked_by_body, blocked_by_part
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.memo import fingerprint
from toreuma.core.model import FinishOd, Job, RoughOd
from toreuma.core.plan.result import OperationFault
from toreuma.core.plan.work import APPROACH_MM, Work

__all__ = ["Stretch", "reach_of", "stick_out_more", "stretch_of"]

PAST_PART_OFF_MM = 0.5
PAST_END_MM = 1.0
HOLDER_CLEARANCE_MM = 0.3

BELOW_AXIS_R = -0.5
"""Nothing a tool follows from above lies below this radius: the part reaches up to the axis everywhere."""


@dataclass(frozen=True)
class Stretch:
    """Places along Z in mm: the finished stretch ends at ``end_z`` on radius ``end_r``; the nose centre stays
    between ``nose_from`` and ``nose_to``."""

    target: Region
    end_z: float
    end_r: float
    nose_from: float
    nose_to: float
    from_z: float | None
    findings: tuple[Finding, ...]


def stretch_of(
    work: Work, operation: RoughOd | FinishOd, beyond_mm: float = 0.0, chord_mm: float = CHORD_MM
) -> Stretch:
    """Marks of an outside operation. ``beyond_mm`` is cut in addition past the end (roughing clears the way)."""
    scene, shape = work.scene, work.shape
    if not shape.leads_toward_chuck:
        raise OperationFault(
            "tool.hand",
            f"{work.tool.id} is a left-hand tool: it leads away from the chuck",
            "choose a right-hand tool, or set its hand to right",
            Cure("Make the tool right-hand", lambda job: _right_hand(job, work.tool.id)),
        )
    end_z, end_r = _end_mark(work, operation)
    wanted = end_z - _extension(work, operation) - beyond_mm - shape.tip[0]
    limit = work.limit_z
    nose_to = max(wanted, limit)
    front = max(scene.stock_front_z, work.stock.bounds[2])
    nose_from = front + APPROACH_MM + shape.nose_radius
    if operation.from_z_mm is not None:
        nose_from = min(nose_from, operation.from_z_mm + shape.nose_radius)
    if nose_from <= nose_to:
        raise OperationFault(
            "range.empty",
            f"nothing to cut between Z {nose_from:.2f} and Z {nose_to:.2f}",
            "let the stretch end farther toward the chuck, or stick the bar out more",
        )
    target = work.memo.get(
        ("contour", scene.part_key, end_z, end_r, scene.jaw_face_z, chord_mm),
        lambda: scene.contour(end_z, end_r, chord_mm),
    )
    return Stretch(target, end_z, end_r, nose_from, nose_to, operation.from_z_mm, _short_of_end(work, end_z, nose_to))


def reach_of(
    work: Work, stretch: Stretch, leave_axial: float = 0.0, leave_radial: float = 0.0, chord_mm: float = CHORD_MM
) -> Reach:
    """Reach of the tool on the stretch: insert against the part, holder against part and the bar behind."""
    key = (
        "reach",
        work.tool,
        fingerprint(stretch.target),
        stretch.nose_from,
        stretch.nose_to,
        leave_axial,
        leave_radial,
        fingerprint(work.scene.stock),
        fingerprint(work.scene.centre),
    )

    def compute() -> Reach:
        blocked = union(
            [
                blocked_by_part(stretch.target, work.shape, leave_axial, leave_radial, chord_mm),
                _body_blocked(work, stretch, max(leave_axial, leave_radial)),
                work.blocked_by_centre,
            ]
        )
        return Reach(upper_envelope(blocked, stretch.nose_from, stretch.nose_to, BELOW_AXIS_R), work.shape)

    return work.memo.get(key, compute)


def _body_blocked(work: Work, stretch: Stretch, leave: float) -> Region:
    """Nose centres at which holder or shank come too close to the part or to the bar that stays behind it."""
    behind = work.scene.stock.intersection(box(-1e4, 0, stretch.nose_to + work.shape.tip[0], 1e4))
    solid = stretch.target.union(behind)
    clearance = HOLDER_CLEARANCE_MM + leave
    key = ("body", work.tool, clearance, fingerprint(solid))
    return work.memo.get(key, lambda: blocked_by_body(solid, work.shape.bodies, clearance))


def _end_mark(work: Work, operation: RoughOd | FinishOd) -> tuple[float, float]:
    profile = work.scene.profile
    if operation.to_z_mm is None:
        last = profile.segments[profile.outside_end - 1]
        return last.end
    line = upper_envelope(work.scene.part, profile.front_z, profile.back_z)
    z = operation.to_z_mm
    if not profile.back_z <= z < profile.front_z:
        raise OperationFault(
            "range.outside",
            f"the stretch ends at Z {z:g}, outside the part (Z {profile.back_z:g} to 0)",
            "choose an end on the part",
        )
    return z, line.height(z)


def _extension(work: Work, operation: RoughOd | FinishOd) -> float:
    """How far past the end mark the tip runs, mm."""
    if operation.extension_mm is not None:
        return operation.extension_mm
    if operation.to_z_mm is not None:
        return 0.0
    edge = work.scene.profile.segments[work.scene.profile.outside_end - 1].end[0] - work.scene.profile.back_z
    width = work.part_off_width
    return edge + (width + PAST_PART_OFF_MM if width else PAST_END_MM)


def _short_of_end(work: Work, end_z: float, nose_to: float) -> tuple[Finding, ...]:
    """The jaws stop the tool before the end of the stretch."""
    short = nose_to + work.shape.tip[0] - end_z
    if short < 1e-6:
        return ()
    more = round(short + 2.0, 0) + 1
    return (
        Finding(
            "error",
            "hold.short",
            f"the jaws stop the tool {short:.2f} mm before the end at Z {end_z:.2f}",
            "insert, holder and jaws keep their clearance",
            work.operation.id,
            (end_z, work.scene.stock_r),
            cures=(stick_out_more(more),),
        ),
    )


def stick_out_more(more_mm: float) -> Cure:
    """Hold the bar farther out."""

    def apply(job: Job) -> Job:
        hold = job.setup.hold
        return job.with_setup(hold=hold.changed(stick_out_mm=round(hold.stick_out_mm + more_mm, 3)))

    return Cure(f"Stick the bar out {more_mm:g} mm more", apply)


def _right_hand(job: Job, tool_id: str) -> Job:
    return job.changed(tools=tuple(tool.changed(hand="right") if tool.id == tool_id else tool for tool in job.tools))
