"""The stretch of the outside or of a bore that roughing and finishing share, seen in the frame of its tool.

It says where the cut starts, where it ends, what limits it, and how far the tool may lift off. All lengths and
regions are those of the frame, in mm, unless they say otherwise.
"""

import math
from dataclasses import dataclass

import shapely

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import CHORD_MM, Segment
from toreuma.core.geometry.envelope import FLOOR, upper_envelope
from toreuma.core.geometry.reach import Reach, blocked_by_body, blocked_by_part
from toreuma.core.geometry.region import EMPTY, Region, box, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.model import FinishBore, FinishOd, Job, RoughBore, RoughOd, TurningTool
from toreuma.core.model.tool import BoringTool, GroovingTool, PartingTool, PullTool
from toreuma.core.plan.ground.frame import AWAY, BACK, FACE, INSIDE, OUTSIDE, Frame
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.plan.turn.bore import Bore, bore_of, hole_radius, in_the_way
from toreuma.core.reach.relieved import relieved
from toreuma.core.scene import contour
from toreuma.core.spoken import q, said

__all__ = ["Stretch", "TurningOperation", "blocked_of", "reach_of", "stretch_of"]

PAST_PART_OFF_MM = 0.2
PAST_END_MM = 1.0
PAST_FLOOR_MM = 0.5
HOLDER_CLEARANCE_MM = 0.3

BELOW_AXIS_R = -0.5
"""Nothing a tool follows from above lies below this radius outside: the part reaches up to the axis everywhere."""

PAST_AXIS_MM = 0.2
"""A flat floor is cut this far past the axis."""

BAR_CLEARANCE_MM = 0.5
"""Kept between a boring bar and the wall behind it: room for the chip as well."""

LEAST_LIFT_MM = 0.15
"""A bar that cannot lift off even this far does not fit the bore."""

FAR_MM = 1e4
BELOW_AXIS_MM = 3.0

TurningOperation = RoughOd | FinishOd | RoughBore | FinishBore

CUTS_WITH: dict[str, tuple[tuple[type, ...], str]] = {
    "pull": ((PullTool,), "tool for pull turning"),
    "plunge": ((GroovingTool, PartingTool), "blade"),
}
"""Patterns of roughing that ask for other tools than turning and boring tools."""


UP_A_WALL_MM = 0.02
"""A stretch that ends at a face goes so much farther: the tool then follows the face."""


@dataclass(frozen=True, kw_only=True)
class Stretch:
    """The finished stretch ends at ``end_z`` on radius ``end_r``; the nose centre stays between ``nose_from`` and
    ``nose_to``, and below ``ceiling``. ``bottom`` lies below everything that is followed.

    ``first`` is the first surface to cut, None where the stretch starts at a typed place.
    """

    frame: Frame
    shape: ToolShape
    stock: Region
    target: Region
    in_way: Region
    first: Segment | None
    end_z: float
    end_r: float
    nose_from: float
    nose_to: float
    ceiling: float
    bottom: float
    from_z: float | None
    findings: tuple[Finding, ...]

    @property
    def top(self) -> float:
        """The highest nose centre from which the tool can meet metal."""
        return min(float(self.stock.bounds[3]) + self.shape.nose_radius, self.ceiling)

    @property
    def safe(self) -> float:
        """Nose height at which the tool travels."""
        return min(self.top + APPROACH_MM, self.ceiling)

    @property
    def floor(self) -> float:
        """The lowest nose centre: outside with the tip on the axis."""
        return self.shape.nose_radius if self.frame in (OUTSIDE, AWAY) else self.bottom

    @property
    def span(self) -> tuple[float, float]:
        """Real Z of the nose centre at its front and back end."""
        if self.frame.swap:
            return self.top, self.end_z
        ends = [self.frame.point((z, 0.0))[0] for z in (self.nose_from, self.nose_to)]
        return max(ends), min(ends)

    @property
    def is_bore(self) -> bool:
        return self.frame.flip_r


def stretch_of(work: Work, operation: TurningOperation, beyond_mm: float = 0.0, chord_mm: float = CHORD_MM) -> Stretch:
    """Marks of a turning operation. ``beyond_mm`` is cut in addition past the end (roughing clears the way)."""
    inside = operation.kind in ("rough_bore", "finish_bore")
    pattern = operation.pattern if operation.kind == "rough_od" else ""
    wanted, needs = CUTS_WITH.get(
        pattern, ((BoringTool,), "boring tool") if inside else ((TurningTool,), "turning tool")
    )
    if not isinstance(work.tool, wanted):
        raise OperationFault("tool.kind", f"{work.tool.id} is not a {needs}", f"choose a {needs}")
    if pattern == "along_x":
        return _facing(work, operation, chord_mm)
    if pattern == "pull":
        return _away(work, operation, beyond_mm, chord_mm)
    if pattern == "plunge":
        return _outside(work, operation, 0.0, chord_mm)
    if work.shape.leads_toward_chuck:
        return _inside(work, operation, beyond_mm) if inside else _outside(work, operation, beyond_mm, chord_mm)
    if inside and isinstance(work.tool, BoringTool) and work.tool.bar.back:
        return _back(work, operation, beyond_mm)
    if inside:
        raise OperationFault(
            "tool.hand",
            f"{work.tool.id} is a left-hand bar: it leads out of the bore",
            "choose a right-hand bar, or set its hand to right",
            Cure("Make the tool right-hand", lambda job: _right_hand(job, work.tool.id)),
        )
    return _away(work, operation, beyond_mm, chord_mm)


def _filled(work: Work, target: Region) -> Region:
    """With the metal that shallow reliefs leave in their corners."""
    fill = work.scene.shape.fill
    return target if fill.is_empty else union([target, fill])


def _relieved(work: Work, operation: TurningOperation, target: Region) -> Region:
    """Without the undercuts that a finishing cut takes along."""
    if not isinstance(operation, FinishOd | FinishBore):
        return target
    frame = INSIDE if isinstance(operation, FinishBore) else OUTSIDE
    along = relieved(work.given.part, work.shape, operation.allow_away)
    cut = [frame.region(void.cut) for index, void in work.scene.shape.voids if index in along]
    if not cut:
        return target
    fill = work.scene.shape.fill
    left = target.difference(union(cut))
    return left if fill.is_empty else union([left, frame.region(fill)])


def _outside(work: Work, operation: TurningOperation, beyond_mm: float, chord_mm: float) -> Stretch:
    scene, shape, profile = work.scene, work.shape, work.scene.profile
    end_z, end_r = _end_outside(work, operation)
    extension = operation.extension_mm
    if extension is None:
        edge = profile.segments[profile.outside_end - 1].end[0] - profile.back_z
        extension = 0.0 if operation.to_z_mm is not None else edge + _past_end(work, work.given.threads_past_mm[0])
    wanted = end_z - extension - beyond_mm - shape.tip[0]
    nose_to = max(wanted, work.limit_z)
    nose_from = _start(work, operation, nose_to)
    target = _filled(work, work.memo.of(contour, profile, scene.jaw_face_z, end_z, end_r, chord_mm))
    target = _relieved(work, operation, target)
    first = profile.segments[profile.outside_start] if operation.from_z_mm is None else None
    findings = _short_of_end(work, end_z, nose_to)
    return Stretch(
        frame=OUTSIDE,
        shape=shape,
        stock=work.stock,
        target=target,
        in_way=EMPTY,
        first=first,
        end_z=end_z,
        end_r=end_r,
        nose_from=nose_from,
        nose_to=nose_to,
        ceiling=1e6,
        bottom=-1.0,
        from_z=operation.from_z_mm,
        findings=findings,
    )


def _facing(work: Work, operation: TurningOperation, chord_mm: float) -> Stretch:
    """Roughing toward the axis: levels along Z, passes along X, seen with both exchanged."""
    scene, shape = work.scene, FACE.shape(work.shape)
    if -float(work.shape.core[:, 0].min()) > 1e-6:
        raise OperationFault(
            "tool.shape",
            f"the cutting edge of {work.tool.id} stands ahead of its nose and would cut into the faces",
            "rough along X with an entering angle of 90° or more",
        )
    end_z, end_r = _end_outside(work, operation)
    stop = max(end_z - (operation.extension_mm or 0.0), work.limit_z - shape.nose_radius)
    along = _filled(work, contour(scene.profile, scene.jaw_face_z, end_z, end_r, chord_mm))
    target = union([along, box(-FAR_MM, -BELOW_AXIS_MM, stop, FAR_MM)])
    hole_r = float(work.stock.bounds[1])
    nose_from = scene.stock_r + APPROACH_MM + shape.nose_radius
    nose_to = max(hole_r - 1.0, -0.2)
    return Stretch(
        frame=FACE,
        shape=shape,
        stock=FACE.region(work.stock),
        target=FACE.region(target),
        in_way=EMPTY,
        first=None,
        end_z=end_z,
        end_r=end_r,
        nose_from=nose_from,
        nose_to=nose_to,
        ceiling=1e6,
        bottom=stop - 1.0,
        from_z=operation.from_z_mm,
        findings=_short_of_end(work, end_z, stop - shape.tip[1]) if stop > end_z else (),
    )


def _away(work: Work, operation: TurningOperation, beyond_mm: float, chord_mm: float) -> Stretch:
    """A left-hand tool goes from the end of the stretch to its start, away from the chuck.

    It comes down beside what stands at the end: the part, the bar, the hold.
    """
    scene, profile, shape = work.scene, work.scene.profile, AWAY.shape(work.shape)
    end_z, end_r = _end_outside(work, operation)
    begin = min(-end_z + shape.nose_radius, -work.limit_z)
    if operation.from_z_mm is not None:
        past, goal = operation.extension_mm or 0.0, operation.from_z_mm
    else:
        past, goal = PAST_END_MM if operation.extension_mm is None else operation.extension_mm, profile.front_z
    nose_to = -goal - past - beyond_mm - shape.tip[0]
    if begin <= nose_to:
        raise OperationFault(
            "range.empty",
            said("nothing to cut between Z {} and Z {}", q(-begin, bare=True), q(-nose_to, bare=True)),
            "the tool comes down beside the hold: stick the bar out more, or end the stretch sooner",
        )
    target = _relieved(work, operation, _filled(work, contour(profile, scene.jaw_face_z, end_z, end_r, chord_mm)))
    standing = work.stock.intersection(box(-FAR_MM, 0, min(-begin + shape.nose_radius, end_z), FAR_MM))
    return Stretch(
        frame=AWAY,
        shape=shape,
        stock=AWAY.region(work.stock),
        target=AWAY.region(target.union(standing)),
        in_way=EMPTY,
        first=None,
        end_z=end_z,
        end_r=end_r,
        nose_from=begin,
        nose_to=nose_to,
        ceiling=1e6,
        bottom=-1.0,
        from_z=operation.from_z_mm,
        findings=(),
    )


def _inside(work: Work, operation: TurningOperation, beyond_mm: float) -> Stretch:
    bore = bore_of(work, operation.to_z_mm)
    shape = INSIDE.shape(work.shape)
    past = PAST_FLOOR_MM
    nose = shape.nose_radius if operation.kind == "finish_bore" else 0.0
    if bore.floor_z is None:
        whole = 0.0 if operation.to_z_mm is not None else _past_end(work, work.given.threads_past_mm[1], nose)
        past = (whole if operation.extension_mm is None else operation.extension_mm) + beyond_mm
    nose_to = bore.end_z - past - shape.tip[0]
    nose_from = _start(work, operation, nose_to)
    hole_r, ceiling = _way_in(work, bore, shape)
    stock = shapely.clip_by_rect(INSIDE.region(work.stock), -FAR_MM, -FAR_MM, FAR_MM, -hole_r)
    first = INSIDE.segment(bore.first) if operation.from_z_mm is None else None
    return Stretch(
        frame=INSIDE,
        shape=shape,
        stock=stock,
        target=_relieved(
            work,
            operation,
            bore.metal if work.scene.shape.fill.is_empty else union([bore.metal, INSIDE.region(work.scene.shape.fill)]),
        ),
        in_way=in_the_way(work, bore, hole_r),
        first=first,
        end_z=bore.end_z,
        end_r=-bore.end_r,
        nose_from=nose_from,
        nose_to=nose_to,
        ceiling=ceiling,
        bottom=-(work.scene.stock_r + 5.0),
        from_z=operation.from_z_mm,
        findings=_rubbing(work, hole_r),
    )


def _back(work: Work, operation: TurningOperation, beyond_mm: float) -> Stretch:
    """A bar whose edge looks back goes from the end of the stretch out to its start.

    It comes down beside what stands at the end, and lies in the bore in front of what it cuts.
    """
    bore, shape = bore_of(work, operation.to_z_mm), BACK.shape(work.shape)
    whole = bore_of(work, None)  # what stands behind the end of the stretch is no run-on: the insert is beside it
    begin = -bore.end_z + shape.nose_radius
    if operation.from_z_mm is not None:
        past = UP_A_WALL_MM if operation.extension_mm is None else operation.extension_mm
        goal = operation.from_z_mm
    else:
        past = PAST_END_MM if operation.extension_mm is None else operation.extension_mm
        goal = work.scene.profile.front_z
    nose_to = -goal - past - beyond_mm - shape.tip[0]
    if begin <= nose_to:
        raise OperationFault(
            "range.empty",
            said("nothing to cut between Z {} and Z {}", q(-begin, bare=True), q(-nose_to, bare=True)),
            "let the stretch end deeper in the bore, or begin nearer the front",
        )
    hole_r, ceiling = _way_in(work, whole, shape)
    stock = shapely.clip_by_rect(BACK.region(work.stock), -FAR_MM, -FAR_MM, FAR_MM, -hole_r)
    return Stretch(
        frame=BACK,
        shape=shape,
        stock=stock,
        target=AWAY.region(whole.metal),
        in_way=AWAY.region(in_the_way(work, whole, hole_r)),
        first=None,
        end_z=bore.end_z,
        end_r=-bore.end_r,
        nose_from=begin,
        nose_to=nose_to,
        ceiling=ceiling,
        bottom=-(work.scene.stock_r + 5.0),
        from_z=operation.from_z_mm,
        findings=_rubbing(work, hole_r),
    )


def _rubbing(work: Work, hole_r: float) -> tuple[Finding, ...]:
    """The hole is smaller than the bore the insert's flank needs."""
    bar = getattr(work.tool, "bar", None)
    if bar is None or 2 * hole_r >= bar.least_cut_mm - 1e-6:
        return ()
    what = said("the hole is Ø {}, the flank of {} asks for Ø {}", q(2 * hole_r), work.tool.id, q(bar.least_cut_mm))
    why = "the insert rubs below its edge until the hole is that wide: a larger drill, or a thinner bar"
    return (Finding("warning", "bore.flank", what, why, operation=work.operation.id),)


def _way_in(work: Work, bore: Bore, shape: ToolShape) -> tuple[float, float]:
    """Radius of the hole there is, and the highest nose centre a bar has in it, seen from the axis. Raises
    `OperationFault` where it does not go in or cannot lift off."""
    hole_r = hole_radius(work, bore)
    ceiling = min(hole_r - BAR_CLEARANCE_MM - shape.height, PAST_AXIS_MM)
    short = shape.nose_radius - hole_r + LEAST_LIFT_MM - ceiling
    if short > 0:
        raise _narrow(work, hole_r, short)
    return hole_r, ceiling


def _narrow(work: Work, hole_r: float, short_mm: float) -> OperationFault:
    """The bar does not go in, or cannot lift off once it is in."""
    least = math.ceil(2 * hole_r + short_mm + 0.05)
    if hole_r <= 0:
        return OperationFault(
            "bore.full",
            f"there is no hole for {work.tool.id} to go into",
            said("drill about Ø {} first", q(least, "mm", "g")),
        )
    return OperationFault(
        "bore.narrow",
        said("{} does not fit the hole of Ø {}: it lacks {} to lift off", work.tool.id, q(2 * hole_r), q(short_mm)),
        said("a thinner bar, or a hole of about Ø {} first", q(least, "mm", "g")),
    )


def _start(work: Work, operation: TurningOperation, nose_to: float) -> float:
    """Where the nose centre starts: in front of all metal, or at the typed place."""
    front = max(work.scene.stock_front_z, work.stock.bounds[2])
    nose_from = front + APPROACH_MM + work.shape.nose_radius
    if operation.from_z_mm is not None:
        nose_from = min(nose_from, operation.from_z_mm + work.shape.nose_radius)
    if nose_from <= nose_to:
        raise OperationFault(
            "range.empty",
            said("nothing to cut between Z {} and Z {}", q(nose_from, bare=True), q(nose_to, bare=True)),
            "let the stretch end farther toward the chuck, or stick the bar out more",
        )
    return float(nose_from)


def reach_of(
    work: Work, stretch: Stretch, leave_axial: float = 0.0, leave_radial: float = 0.0, chord_mm: float = CHORD_MM
) -> Reach:
    """Reach of the tool on the stretch: insert against the part, holder or bar against all that stands there."""
    blocked = blocked_of(work, stretch, leave_axial, leave_radial, chord_mm)
    least_r = BELOW_AXIS_R if stretch.frame in (OUTSIDE, AWAY) else FLOOR
    line = work.memo.of(upper_envelope, blocked, stretch.nose_from, stretch.nose_to, least_r)
    return Reach(line, stretch.shape)


def blocked_of(
    work: Work, stretch: Stretch, leave_axial: float = 0.0, leave_radial: float = 0.0, chord_mm: float = CHORD_MM
) -> Region:
    """Nose centres the tool may not take: of insert, holder or bar, against the part and all that stands there."""
    shape = stretch.shape
    insert = work.memo.of(blocked_by_part, stretch.target, shape, leave_axial, leave_radial, chord_mm)
    body = _body_blocked(work, stretch, max(leave_axial, leave_radial))
    way = EMPTY
    if not stretch.in_way.is_empty:
        clearance = HOLDER_CLEARANCE_MM + shape.nose_radius
        way = work.memo.of(blocked_by_body, stretch.in_way, (*shape.bodies, shape.core), clearance, -FAR_MM)
    centre = EMPTY if stretch.is_bore else stretch.frame.region(work.blocked_by_centre)
    return work.memo.of(union, (insert, body, way, centre))


def _body_blocked(work: Work, stretch: Stretch, leave: float) -> Region:
    """Nose centres at which holder, shank or bar come too close to the part or to the bar that stays behind it."""
    solid, lowest = stretch.target, 0.0
    if stretch.is_bore or stretch.frame.swap:
        lowest = -FAR_MM
    elif stretch.frame == OUTSIDE:
        behind = work.scene.stock.intersection(box(-FAR_MM, 0, stretch.nose_to + stretch.shape.tip[0], FAR_MM))
        solid = solid.union(behind)
    return work.memo.of(blocked_by_body, solid, stretch.shape.bodies, HOLDER_CLEARANCE_MM + leave, lowest)


def _end_outside(work: Work, operation: TurningOperation) -> tuple[float, float]:
    profile = work.scene.profile
    if operation.to_z_mm is None:
        last = profile.segments[profile.outside_end - 1]
        return last.end
    line = upper_envelope(work.scene.part, profile.front_z, profile.back_z)
    z = operation.to_z_mm
    if not profile.back_z <= z < profile.front_z:
        raise OperationFault(
            "range.outside",
            said(
                "the stretch ends at Z {}, outside the part (Z {} to 0)",
                q(z, "mm", "g", bare=True),
                q(profile.back_z, "mm", "g", bare=True),
            ),
            "choose an end on the part",
        )
    return z, line.height(z)


def _past_end(work: Work, threads_mm: float, nose_mm: float = 0.0) -> float:
    """How far past the end of the part the tip runs, mm; at least as far as threads ask for. In a bore the round of
    the nose leaves the wall behind it as well."""
    width = work.given.parting_mm
    return max(width + PAST_PART_OFF_MM if width else PAST_END_MM + nose_mm, threads_mm)


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
            said("the jaws stop the tool {} before the end at Z {}", q(short), q(end_z, bare=True)),
            "insert, holder and jaws keep their clearance",
            operation=work.operation.id,
            at=(end_z, work.scene.stock_r),
            cures=(stick_out_more(more),),
        ),
    )


def _right_hand(job: Job, tool_id: str) -> Job:
    return job.changed(tools=tuple(tool.changed(hand="right") if tool.id == tool_id else tool for tool in job.tools))
