"""The second side as a job of its own: the part end for end, the blank as the first side left it, its own hold."""

import shapely
from shapely.affinity import affine_transform

from toreuma.core.errors import JobError
from toreuma.core.geometry.region import Region, box, polygons
from toreuma.core.kinds.features import FEATURES
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Chuck, Element, FreeBlank, Job, Part, Setup
from toreuma.core.model.steps import Steps
from toreuma.core.plan.route import Plan, plan
from toreuma.core.plan.sides.set_up import second_tools
from toreuma.core.scene import build_scene
from toreuma.core.spoken import q, said

__all__ = ["plan_sides", "second_setup", "second_side", "turned_part"]

SIMPLE_MM = 2e-5
MOST_FRONT_MM = 1e4


def second_side(job: Job, first: Plan, piece: Region | None = None) -> Job:
    """The job of the second setup, once the first is planned, on the piece that came of it (empty: as planned).

    Raises `JobError` where there is none.
    """
    if len(job.setups) < 2:
        raise JobError("second side", "the job has no second setup", "choose a surface for the second hold")
    outline = _outline(_piece(first) if piece is None else piece, first.scene.profile.back_z)
    front = max(z for z, _ in outline)
    stock = job.stock
    if not front <= MOST_FRONT_MM:
        what = said("{} stand in front of its face", q(front))
        raise JobError("second side", what, "part the piece off, or choose a shorter blank")
    blank = FreeBlank(
        material=stock.material,
        face_allowance_mm=max(round(front, 6), 0.0),
        outline=outline,
        opened=first.opened,
        supply=stock.supply.changed(back_to_back=False),
    )
    taken = 1 if job.program.parts == 1 else 2  # a loop has its one part in the next number
    program = job.program.changed(number=job.program.number + taken, parts=1)
    name = f"{job.name or job.part.name}, second side"
    held, machine = job.setups[1], job.machine
    if job.hand_over is not None and machine.second is not None:
        apart = machine.second.retracted_gap_mm - job.setup.hold.body_length_mm - held.hold.body_length_mm
        held, machine = held.changed(spindle="sub"), machine.seen_from_second(apart)
    return job.changed(
        name=name,
        tools=second_tools(job),
        part=turned_part(job.part),
        stock=blank,
        machine=machine,
        setups=(held,),
        second_hold=None,
        hand_over=None,
        program=program,
    )


def plan_sides(
    job: Job, memo: Memo | None = None, check: Check = never_cancel, steps: Steps | None = None
) -> tuple[Plan, ...]:
    """The plan of every setup, each on what the one before left. Raises as `plan` does."""
    memo = memo or Memo()
    first = plan(job, memo, check, steps)
    return (first, plan(second_side(job, first), memo, check, steps)) if len(job.setups) > 1 else (first,)


def _piece(first: Plan) -> Region:
    """What comes out of the first hold: the piece parted off, or all of it."""
    parted = [one for one in first.operations if one.operation.kind == "part_off" and one.motions]
    if not parted:
        return first.operations[-1].after if first.operations else first.scene.stock
    left = getattr(parted[-1].operation, "leave_axial_mm", 0.0)
    return parted[-1].after.intersection(box(first.scene.profile.back_z - left, 0, 1e5, 1e5))


def _outline(piece: Region, back_z: float) -> tuple[tuple[float, float], ...]:
    """The section turned end for end: what was the back face stands at Z 0. Raises `JobError` where nothing is left."""
    turned = affine_transform(piece, [-1.0, 0.0, 0.0, 1.0, back_z, 0.0]).simplify(SIMPLE_MM)
    one = max(polygons(turned), key=lambda part: part.area, default=None)
    if one is None:
        raise JobError("second side", "the first side leaves nothing of the blank", "choose a larger blank")
    points = shapely.get_coordinates(one.exterior)[:-1]
    return tuple((round(float(z), 6), max(round(float(r), 6), 0.0)) for z, r in points)


def turned_part(part: Part) -> Part:
    """The part seen from its other end: Z 0 at what was the back face."""
    back = part.outside[-1].z_mm
    inside, from_back = _turned_bore(part, back)
    features = tuple(FEATURES[feature.kind].turned(feature, back) for feature in part.features)
    return part.changed(
        outside=_turned_outside(part.outside, back), inside=inside, inside_from_back=from_back, features=features
    )


def _turned_outside(elements: tuple[Element, ...], back: float) -> tuple[Element, ...]:
    """From the axis at the old back face to the old front; the face that closes the profile is left out."""
    last = elements[-1]
    found = [] if last.d_mm < 1e-9 else [Element(z_mm=0.0, d_mm=last.d_mm, corner=last.corner)]
    for before, one in zip(reversed(elements[:-1]), reversed(elements[1:]), strict=True):
        found.append(one.changed(z_mm=_turn(before.z_mm, back), d_mm=before.d_mm, corner=before.corner))
    first = elements[0]
    if abs(first.z_mm) > 1e-9 or first.kind == "arc":  # no flat front: the profile runs on to the axis
        found.append(first.changed(z_mm=back, d_mm=0.0, corner=None))
    return tuple(found)


def _turned_bore(part: Part, back: float) -> tuple[tuple[Element, ...], bool]:
    """A through bore read from its other end; a blind one stays as it is and opens in the other face."""
    elements = part.inside
    if not elements:
        return (), False
    if part.inside_from_back or elements[-1].z_mm > back + 1e-6:
        return elements, not part.inside_from_back
    last = elements[-1]
    found = [Element(z_mm=0.0, d_mm=last.d_mm, corner=last.corner)]
    for before, one in zip(reversed(elements[:-1]), reversed(elements[1:]), strict=True):
        found.append(one.changed(z_mm=_turn(before.z_mm, back), d_mm=before.d_mm, corner=before.corner))
    return tuple(found), False


def _turn(z: float, back: float) -> float:
    return round(back - z, 9)


def second_setup(job: Job) -> Setup:
    """The hold of the second side on the surface chosen for it. Raises `JobError` where none is, or it is none."""
    wanted = job.second_hold
    if wanted is None:
        raise JobError("second side", "no surface is chosen to grip for it", "choose one as second hold")
    scene = build_scene(job)
    profile = scene.profile
    own = [profile.segments[i] for i in profile.segments_of(wanted.element) if not profile.corners[i]]
    level = [segment for segment in own if abs(segment.start[1] - segment.end[1]) < 1e-6]
    if not level:
        raise JobError("second side", "the surface of the second hold is no cylinder", "choose another")
    jaw_face = profile.back_z - (level[0].start[0] - wanted.begins_mm - wanted.grip_length_mm)
    front = (
        float(scene.stock.bounds[0] - profile.back_z) * -1 if job.stock.length_mm or job.stock.kind == "free" else 0.0
    )
    hold = job.setup.hold
    changes: dict[str, object] = {
        "stick_out_mm": round(max(front, 0.0) - jaw_face, 4),
        "grip_length_mm": wanted.grip_length_mm,
        "bar_behind_mm": 0.0,
    }
    if isinstance(hold, Chuck):
        soft = wanted.jaws == "soft"
        d = 2 * level[0].start[1]
        changes |= {"jaws": wanted.jaws, "bored_d_mm": d if soft else None, "bored_depth_mm": None, "side": "outside"}
    return Setup(name="Second side", hold=hold.changed(**changes))
