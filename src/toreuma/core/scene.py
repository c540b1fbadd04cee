"""The solids of one setup, to scale and in place: part, blank, jaws and chuck."""

from dataclasses import dataclass
from functools import cached_property

from toreuma.core.geometry.elements import CHORD_MM, chords
from toreuma.core.geometry.profile import Profile, build_profile
from toreuma.core.geometry.region import Region, box, mirrored_at_axis, region_from_points, union
from toreuma.core.model import Job

__all__ = ["Scene", "build_scene"]

BELOW_AXIS_MM = 3.0
"""How far below the axis solids are drawn: no cutting edge runs farther past the centre."""

INDEX_CLEARANCE_MM = 50.0


@dataclass(frozen=True)
class Scene:
    """Regions are upper halves in mm with Z 0 at the finished front face.

    ``reference`` is the turret's reference point and ``index`` the point where tools are changed, as (z, r).
    """

    profile: Profile
    stock: Region
    jaws: Region
    chuck: Region
    jaw_face_z: float
    stock_front_z: float
    stock_r: float
    reference: tuple[float, float]
    index: tuple[float, float]

    @cached_property
    def part(self) -> Region:
        return region_from_points(self.profile.points)

    @cached_property
    def fixed(self) -> Region:
        """What no tool may touch whatever it cuts."""
        return union([self.jaws, self.chuck])

    @property
    def part_key(self) -> tuple[object, ...]:
        return (self.profile.segments,)

    def contour(self, end_z: float, end_r: float, chord_mm: float = CHORD_MM) -> Region:
        """The part in front of ``end_z``, run on as a cylinder toward the chuck, with its lower half."""
        part = self.part if chord_mm == CHORD_MM else region_from_points(chords(self.profile.segments, chord_mm))
        z_low, _, z_high, r_high = part.bounds
        front = part.intersection(box(end_z, 0, max(z_high, end_z) + 1, r_high + 1))
        run_on = box(min(z_low, self.jaw_face_z) - 500, 0, end_z, end_r)
        return mirrored_at_axis(union([front, run_on]), BELOW_AXIS_MM)

    @cached_property
    def part_both_halves(self) -> Region:
        return mirrored_at_axis(self.part, BELOW_AXIS_MM)


def build_scene(job: Job) -> Scene:
    """Place part, blank and chuck of the job's setup. Raises `PartError` for an impossible profile."""
    profile = build_profile(job.part)
    hold, stock = job.setup.hold, job.stock
    front = stock.face_allowance_mm
    jaw_face = front - hold.stick_out_mm
    chuck_face = jaw_face - hold.jaw_length_mm
    chuck_back = chuck_face - hold.body_length_mm
    grip_r = stock.d_mm / 2
    reference = (chuck_face + job.machine.reference_from_nose_mm, job.machine.reference_d_mm / 2)
    index = (
        min(front + INDEX_CLEARANCE_MM, max(reference[0], front + 5.0)),
        min(grip_r + INDEX_CLEARANCE_MM, max(reference[1], grip_r + 5.0)),
    )
    return Scene(
        profile=profile,
        stock=box(min(chuck_back, jaw_face - hold.grip_length_mm), 0, front, grip_r),
        jaws=box(chuck_face, grip_r, jaw_face, grip_r + hold.jaw_height_mm),
        chuck=box(chuck_back, grip_r, chuck_face, max(hold.body_d_mm / 2, grip_r + 1)),
        jaw_face_z=jaw_face,
        stock_front_z=front,
        stock_r=grip_r,
        reference=reference,
        index=index,
    )
