"""Jaws, collets, mandrels, centres and rests as solids, placed round the blank they hold."""

import math
from dataclasses import dataclass

import shapely

from toreuma.core.errors import JobError
from toreuma.core.geometry.centre_forms import centre_seat
from toreuma.core.geometry.region import EMPTY, Region, box, region_from_points, union
from toreuma.core.model.feature import CentreHole
from toreuma.core.model.hold import Centre, Chuck, Collet, FaceDriver, Hold, Mandrel
from toreuma.core.model.part import Part
from toreuma.core.model.rest import SteadyRest

__all__ = ["Holding", "centre_mouth", "centre_solid", "grip_radius", "holding_of", "steady_solid"]

LEAST_BORE_MM = 0.05


CONE_WITHIN_DEG = 1.0
"""How closely the mouth of a bore must lean like the centre's point."""


@dataclass(frozen=True, kw_only=True)
class Holding:
    """``face_z`` is the front of what grips, ``body_face_z`` the front of what carries it, ``clear_z`` the front of
    all that stands outside the blank, mm."""

    grips: Region
    body: Region
    face_z: float
    body_face_z: float
    clear_z: float
    grip_r: float


def grip_radius(stock: Region, face_z: float, length_mm: float, inside: bool = False) -> float:
    """Radius the hold sits on, mm: the largest of the blank inside the hold, or the smallest of its bore."""
    held = shapely.clip_by_rect(stock, face_z - length_mm, 0, face_z, 1e5)
    if held.is_empty:
        return float(stock.bounds[3])
    if not inside:
        return float(held.bounds[3])
    return float(held.bounds[1])


def holding_of(hold: Hold, stock: Region, front_z: float) -> Holding:
    """The solids of a hold with the blank sticking out of it; ``front_z`` is the front of the blank. Raises `JobError`
    for jaws that would sit in a bore that is not there."""
    face = front_z - hold.stick_out_mm
    if isinstance(hold, Chuck):
        return _chuck(hold, stock, face)
    if isinstance(hold, Collet):
        return _collet(hold, stock, face)
    if isinstance(hold, FaceDriver):
        return _driver(hold, float(stock.bounds[0]))
    return _mandrel(hold, face)


def _chuck(hold: Chuck, stock: Region, face: float) -> Holding:
    body_face = face - hold.jaw_length_mm
    back = body_face - hold.body_length_mm
    inside = hold.side == "inside"
    grip = grip_radius(stock, face, hold.grip_length_mm, inside)
    if inside and grip < LEAST_BORE_MM:
        raise JobError("hold", "the blank has no bore where the jaws would sit in it", "grip it outside")
    if inside:
        grips = box(body_face, max(grip - hold.jaw_height_mm, 0.0), face, grip)
        body = box(back, 0.0, body_face, hold.body_d_mm / 2)
        return Holding(
            grips=grips, body=body.difference(stock), face_z=face, body_face_z=body_face, clear_z=body_face, grip_r=grip
        )
    grips = box(body_face, grip, face, grip + hold.jaw_height_mm)
    if hold.bored_depth_mm is not None and hold.bored_depth_mm < hold.jaw_length_mm:
        step = box(body_face, max(grip - hold.step_mm, 0.0), face - hold.bored_depth_mm, grip)
        grips = union([grips, step.difference(stock)])
    if hold.relief is not None:
        cut = box(face - hold.relief.length_mm, grip, face + 1, grip + hold.relief.height_mm)
        grips = grips.difference(cut)
    body = box(back, grip, body_face, max(hold.body_d_mm / 2, grip + 1))
    return Holding(grips=grips, body=body, face_z=face, body_face_z=body_face, clear_z=face, grip_r=grip)


def _collet(hold: Collet, stock: Region, face: float) -> Holding:
    """The cap leans back from its front to the body at 30 degrees, as far as the cap is long."""
    grip = grip_radius(stock, face, hold.grip_length_mm)
    body_face = face - hold.cap_length_mm
    front_r = max(hold.cap_d_mm / 2, grip + 0.5)
    body_r = max(hold.body_d_mm / 2, front_r)
    rear_r = min(front_r + hold.cap_length_mm * math.tan(math.radians(30)), body_r)
    outline = [[face, grip], [face, front_r], [body_face, rear_r], [body_face, grip]]
    grips = region_from_points(outline)
    return Holding(
        grips=grips,
        body=box(body_face - hold.body_length_mm, grip, body_face, body_r),
        face_z=face,
        body_face_z=body_face,
        clear_z=face,
        grip_r=grip,
    )


def _mandrel(hold: Mandrel, face: float) -> Holding:
    """``face`` is where the blank's back rests; the mandrel stands in front of it, in the bore."""
    grips = box(face, 0.0, face + hold.length_mm, hold.d_mm / 2)
    body = box(face - hold.body_length_mm, 0.0, face, hold.body_d_mm / 2)
    return Holding(grips=grips, body=body, face_z=face, body_face_z=face, clear_z=face, grip_r=hold.d_mm / 2)


def _driver(hold: FaceDriver, back: float) -> Holding:
    """The pins stand on the back of the blank, round a point of their own."""
    grips = box(back - hold.pin_length_mm, 0.0, back, hold.around_d_mm / 2)
    body_face = back - hold.pin_length_mm
    body = box(body_face - hold.body_length_mm, 0.0, body_face, hold.body_d_mm / 2)
    return Holding(grips=grips, body=body, face_z=back, body_face_z=body_face, clear_z=back, grip_r=hold.pins_d_mm / 2)


def centre_mouth(part: Part) -> tuple[float, float]:
    """Where a centre can sit in the front: radius of the mouth of a 60 degree cone and how deep that lies under the
    face, mm; a centre hole's or a bore's, radius 0 for none."""
    hole = next((f for f in part.features if isinstance(f, CentreHole) and f.end == "front"), None)
    if hole is not None:
        return centre_seat(hole)
    if len(part.inside) < 2 or part.inside[1].kind != "line":
        return 0.0, 0.0
    mouth, cone = part.inside[:2]
    lean = math.degrees(math.atan2((mouth.d_mm - cone.d_mm) / 2, mouth.z_mm - cone.z_mm))
    return (mouth.d_mm / 2 if abs(lean - 30.0) < CONE_WITHIN_DEG else 0.0), 0.0


def centre_solid(centre: Centre, part: Part, front_z: float) -> Region:
    """The live centre sitting in the part's centre hole, or with its tip at the front where there is none."""
    mouth, deep = centre_mouth(part)
    slope = math.tan(math.radians(30))
    tip = (-deep if mouth else front_z) - mouth / slope
    long = max(centre.point_length_mm, mouth / slope + 2.0)  # a wide mouth takes a longer point
    base_r = min(long * slope, centre.d_mm / 2)
    shoulder = tip + long
    point = region_from_points([[tip, 0.0], [shoulder, base_r], [shoulder, 0.0]])
    return union([point, box(shoulder, 0.0, shoulder + centre.body_length_mm, centre.d_mm / 2)])


def steady_solid(rest: SteadyRest, stock: Region) -> Region:
    """Rollers on the blank and the frame round them; empty where the blank does not reach."""
    z, half = rest.z_mm, rest.roller_mm / 2
    under = shapely.clip_by_rect(stock, z - half, 0.0, z + half, 1e5)
    if under.is_empty:
        return EMPTY
    r = float(under.bounds[3])
    rollers = box(z - half, r, z + half, r + rest.arm_mm + 1.0)
    inner = r + rest.arm_mm
    frame = box(z - rest.frame_mm / 2, inner, z + rest.frame_mm / 2, max(rest.frame_d_mm / 2, inner + 10.0))
    return union([rollers, frame])
