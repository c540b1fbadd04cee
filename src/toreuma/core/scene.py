"""The solids of one setup, to scale and in place: part, blank, hold and centre."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, replace
from functools import cached_property, wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

from toreuma.core.cutting.beam import Supports
from toreuma.core.geometry.blank import blank_region
from toreuma.core.geometry.elements import CHORD_MM, chords
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.profile import Profile
from toreuma.core.geometry.region import EMPTY, Region, box, mirrored_at_axis, region_from_points, union
from toreuma.core.geometry.workholding import Holding, centre_solid, holding_of, steady_solid
from toreuma.core.model import Centre, FollowRest, Hold, Job, Machine, Part, Rest, SteadyRest, Stock

__all__ = ["BELOW_AXIS_MM", "WIRE_MM", "Scene", "build_scene", "contour", "once_a_scene", "placed"]

T = TypeVar("T")
P = ParamSpec("P")

BELOW_AXIS_MM = 3.0
"""How far below the axis solids are drawn: no cutting edge runs farther past the centre."""

INDEX_CLEARANCE_MM = 50.0


WIRE_MM = 0.2
"""What stands for the part where there is no drawing: so thin a wire on the axis that no cut is held against it."""


@dataclass(frozen=True, kw_only=True)
class Scene:
    """Regions are upper halves in mm with Z 0 at the finished front face.

    ``jaws`` is what grips, ``chuck`` what carries it, ``centre`` what supports in front, ``steady`` what
    stands round it between; nothing of them stands outside the blank in front of ``clear_z``, but the centre.
    ``reference`` is the turret's reference point and ``index`` the point where tools are changed, as (z, r).
    ``ends_z`` is where the outside ends that this hold is to serve; None: it serves all it can.
    ``cut_before`` says that the blank is what another hold left, ``hinged`` that the hold keeps it in place and does
    not clamp it.
    """

    shape: PartShape
    stock: Region
    jaws: Region
    chuck: Region
    centre: Region
    jaw_face_z: float
    clear_z: float
    stock_front_z: float
    stock_r: float
    grip_r: float
    reference: tuple[float, float]
    index: tuple[float, float]
    cut_before: bool = False
    hinged: bool = False
    steady: Region = EMPTY
    rest: Rest | None = None
    ends_z: float | None = None

    @property
    def has_drawing(self) -> bool:
        """A part is drawn: more than the wire that stands for one."""
        return float(self.part.bounds[3]) > WIRE_MM / 2 + 1e-9

    @property
    def supports(self) -> Supports:
        """What carries the piece along its free length."""
        stands = (self.rest.z_mm,) if isinstance(self.rest, SteadyRest) and not self.steady.is_empty else ()
        return Supports(self.jaw_face_z, hinged=self.hinged, centre=not self.centre.is_empty, rests=stands)

    @property
    def supports_followed(self) -> Supports:
        """The same in a finishing cut, where a rest that rides on the saddle follows the tool."""
        behind = self.rest.behind_mm if isinstance(self.rest, FollowRest) else None
        return replace(self.supports, follow_mm=behind)

    @property
    def profile(self) -> Profile:
        """The outside of the part without its grooves: what turning follows."""
        return self.shape.profile

    @property
    def part(self) -> Region:
        return self.shape.region

    @cached_property
    def fixed(self) -> Region:
        """What no tool may touch whatever it cuts."""
        return union([self.jaws, self.chuck, self.centre, self.steady])

    @cached_property
    def without_centre(self) -> "Scene":
        """With the live centre drawn back."""
        return replace(self, centre=EMPTY)

    @cached_property
    def part_both_halves(self) -> Region:
        return mirrored_at_axis(self.part, BELOW_AXIS_MM)

    @cached_property
    def known(self) -> dict[Hashable, Any]:
        """What was worked out of these solids before; see `once_a_scene`."""
        return {}


def once_a_scene(function: Callable[Concatenate[Scene, P], T]) -> Callable[Concatenate[Scene, P], T]:
    """A function of a scene that is worked out once for each: a hundred tools ask the same of it. What else it is given
    tells its results apart and can be hashed."""
    name = f"{function.__module__}.{function.__qualname__}"

    @wraps(function)
    def known(scene: Scene, *others: P.args, **named: P.kwargs) -> T:
        key = (name, others, tuple(sorted(named.items())))
        if key not in scene.known:
            scene.known[key] = function(scene, *others, **named)
        return scene.known[key]  # type: ignore[no-any-return]

    return known  # type: ignore[return-value]


def contour(profile: Profile, jaw_face_z: float, end_z: float, end_r: float, chord_mm: float = CHORD_MM) -> Region:
    """The part in front of ``end_z``, run on as a cylinder toward the chuck, with its lower half.

    Bores and grooves count as metal: they are cut on their own.
    """
    points = profile.points if chord_mm == CHORD_MM else chords(profile.segments, chord_mm)
    part = region_from_points(points)
    z_low, _, z_high, r_high = part.bounds
    front = part.intersection(box(end_z, 0, max(z_high, end_z) + 1, r_high + 1))
    run_on = box(min(z_low, jaw_face_z) - 500, 0, end_z, end_r)
    return mirrored_at_axis(union([front, run_on]), BELOW_AXIS_MM)


def build_scene(job: Job) -> Scene:
    """Place part, blank and hold of the job's setup. Raises `PartError` for a part or blank that cannot be."""
    return placed(job.part, job.stock, job.setup.hold, job.setup.centre, job.machine, job.setup.rest)


def placed(
    part: Part, blank: Stock, hold: Hold, centre: Centre | None, machine: Machine, rest: Rest | None = None
) -> Scene:
    """The solids in place. Raises `PartError` for a part or blank that cannot be."""
    shape = build_part(part)
    front = blank.face_allowance_mm
    back = front - hold.stick_out_mm - _behind(hold)
    stock = blank_region(blank, shape, back)
    front = max(front, float(stock.bounds[2])) if blank.kind == "free" else front
    holding: Holding = holding_of(hold, stock, front)
    stock_r = float(stock.bounds[3])
    support = centre_solid(centre, part, front) if centre else EMPTY
    steady = steady_solid(rest, stock) if isinstance(rest, SteadyRest) else EMPTY
    carrier = machine.carriers[0]
    reference = (holding.body_face_z + carrier.reference_from_nose_mm, carrier.reference_d_mm / 2)
    index = (
        min(front + INDEX_CLEARANCE_MM, max(reference[0], front + 5.0)),
        min(stock_r + INDEX_CLEARANCE_MM, max(reference[1], stock_r + 5.0)),
    )
    return Scene(
        shape=shape,
        stock=stock,
        jaws=holding.grips,
        chuck=holding.body,
        centre=support,
        jaw_face_z=holding.face_z,
        clear_z=holding.clear_z if steady.is_empty else max(holding.clear_z, float(steady.bounds[2])),
        stock_front_z=front,
        stock_r=stock_r,
        grip_r=holding.grip_r,
        reference=reference,
        index=index,
        hinged=hold.kind == "driver",
        steady=steady,
        rest=rest,
        cut_before=blank.kind == "free" and bool(blank.outline),
    )


def _behind(hold: Hold) -> float:
    """How far behind the front of the hold a bar runs, mm; it ends on the pins of a face driver."""
    standing = {"chuck": "jaw_length_mm", "collet": "cap_length_mm", "mandrel": "length_mm"}.get(hold.kind)
    if standing is None:
        return 0.0
    return max(hold.grip_length_mm, float(getattr(hold, standing)) + hold.body_length_mm)
