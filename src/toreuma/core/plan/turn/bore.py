"""The bore of the part as boring tools meet it: what is metal round it, where it ends, and how wide the way in is."""

from dataclasses import dataclass

import shapely

from toreuma.core.geometry.bore_steps import step_at
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.region import EMPTY, Region, box, mirrored_at_axis, union
from toreuma.core.plan.ground.frame import INSIDE
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.spoken import q, said

__all__ = ["FACED_MM", "Bore", "bore_of", "hole_radius", "in_the_way"]

FAR_MM = 1e4
BEHIND_MM = 500.0
POINT_SHARE = 0.35
"""Above a flat floor the point of a drill leaves a cone at most this share of the bore's diameter high."""

SHALLOW_SHARE = 0.5
"""In a bore wider than it is deep no cone stands higher than this share of its depth."""

EDGE_SHARE, FILM_MM = 0.6, 0.05
"""So much of an edge may cut at once at the bottom of a bore."""

FACED_MM = 2.2
"""A cone no higher than this, as indexable drills leave it, is cut with the floor."""

RUN_ON_MM, ROOM_MM = 1.0, 0.25
NARROW_SHARE = 0.9
"""What a drill left stands inside this share of the narrowest bore; farther out metal is its wall."""


@dataclass(frozen=True, kw_only=True)
class Bore:
    """``metal`` is seen from the axis (radii negative): all that is not the bore, run on past its end at ``end_r``.

    ``floor_z`` is where a blind bore ends. ``first`` is the first surface behind the front face.
    """

    metal: Region
    first: Segment
    end_z: float
    end_r: float
    floor_z: float | None
    largest_r: float
    front_z: float = 0.0

    @property
    def clear_from_z(self) -> float:
        """In front of this the hole has to be open for a bar to come in."""
        if self.floor_z is None:
            return self.end_z
        return self.floor_z + min(2 * POINT_SHARE * self.end_r, SHALLOW_SHARE * (self.front_z - self.floor_z))


def bore_of(work: Work, to_z: float | None) -> Bore:
    """The bore down to ``to_z``, or to its end. Raises `OperationFault` where there is none."""
    return work.memo.of(_bore, work.scene.shape, work.scene.stock_r, to_z)


def _bore(shape: PartShape, stock_r: float, to_z: float | None) -> Bore:
    front, back = shape.profile.front_z, shape.profile.back_z
    if shape.bore is None or shape.void is None:
        raise OperationFault("bore.none", "the part has no bore", "give the part an inside profile")
    walls = list(zip(shape.bore.segments, shape.bore.corners, strict=True))[1:-1]
    segments = [segment for segment, _ in walls]
    if to_z is not None and not segments[-1].end[0] <= to_z < 0:
        raise OperationFault(
            "range.outside",
            said(
                "the stretch ends at Z {}, outside the bore (Z {} to 0)",
                q(to_z, "mm", "g", bare=True),
                q(segments[-1].end[0], "mm", "g", bare=True),
            ),
            "choose an end in the bore",
        )
    end_z, end_r = segments[-1].end
    floor_z = None if end_z < back + 1e-6 else end_z
    run_on_z = end_z
    if floor_z is None:  # edges broken at the far end are cut from the other side
        kept = [segment for segment, corner in walls if not (corner and segment.end[0] < back + 1e-6)]
        run_on_z, end_r = kept[-1].end
    else:
        level = [s for s in segments if not (isinstance(s, Line) and abs(s.start[0] - s.end[0]) < 1e-6)]
        end_r = level[-1].end[1]
    if to_z is not None and to_z > end_z + 1e-6:
        step = step_at(segments, to_z)
        end_r = _radius_at(shape.void, to_z if step is None else step)
        end_z = run_on_z = to_z
        floor_z = to_z if step is not None else None
        if step is not None:  # the nose runs on past the broken edge into the narrower place
            run_on_z = max(to_z - RUN_ON_MM, segments[-1].end[0])
    open_ = [
        shapely.clip_by_rect(INSIDE.region(shape.void), run_on_z, -FAR_MM, FAR_MM, FAR_MM),
        box(run_on_z, 0.0, FAR_MM, FAR_MM),
        box(max(front, 0.0), -FAR_MM, FAR_MM, FAR_MM),
    ]
    if floor_z is None:
        open_.append(box(run_on_z - BEHIND_MM, -end_r, run_on_z, FAR_MM))
    whole = box(run_on_z - BEHIND_MM, -(stock_r + 100.0), 1.0, FAR_MM)
    largest = float(shapely.clip_by_rect(shape.void, end_z, 0, FAR_MM, FAR_MM).bounds[3])
    return Bore(
        metal=whole.difference(union(open_)),
        first=segments[0],
        end_z=end_z,
        end_r=end_r,
        floor_z=floor_z,
        largest_r=largest,
        front_z=front,
    )


def _radius_at(void: Region, z: float) -> float:
    return float(shapely.intersection(void, shapely.LineString([(z, 0.0), (z, FAR_MM)])).bounds[3])


def hole_radius(work: Work, bore: Bore) -> float:
    """Radius of the hole there is now, where it is narrowest on the way to the end; 0 where there is none."""
    way = shapely.clip_by_rect(work.stock, bore.clear_from_z, 0, FAR_MM, FAR_MM)
    open_r = float(way.bounds[1]) if not way.is_empty else bore.largest_r
    if bore.floor_z is None or open_r <= 0:
        return open_r
    bottom = _core(work, bore, open_r)  # a narrower step in front of it counts as well
    low = not bottom.is_empty and float(bottom.bounds[2]) - bore.floor_z <= FACED_MM
    faced = low and work.operation.kind == "finish_bore"  # a ring at the floor is gone before the bar faces it
    if not faced and not bottom.is_empty and float(bottom.bounds[1]) > _least_hole_r(work):
        return min(open_r, float(bottom.bounds[1]))  # no core, but a wall that the bar goes past
    top = float(bottom.bounds[2]) if not bottom.is_empty else bore.floor_z
    top = max(top, bore.floor_z + FACED_MM) if faced else top
    steps = shapely.clip_by_rect(work.stock, top + 1e-3, 0, FAR_MM, FAR_MM)
    return min(open_r, float(steps.bounds[1])) if not steps.is_empty else open_r


def _least_hole_r(work: Work) -> float:
    """Radius of the narrowest hole that bar and insert go into."""
    pieces = (*work.shape.bodies, work.shape.core)
    across = max(float(abs(piece[:, 1]).max()) for piece in pieces) + work.shape.nose_radius
    return across / 2 + ROOM_MM


def _core(work: Work, bore: Bore, hole_r: float) -> Region:
    """What stands in the hole at its end, as drills leave it."""
    inner = hole_r if bore.floor_z is None else min(hole_r, NARROW_SHARE * bore.end_r)
    return shapely.clip_by_rect(work.stock, -FAR_MM, 0, bore.clear_from_z, max(inner - 1e-3, 0.0))


def in_the_way(work: Work, bore: Bore, hole_r: float) -> Region:
    """Solids in the bore that bar and insert must keep clear of, seen from the axis, on both sides of it."""
    core = _core(work, bore, hole_r)
    if bore.floor_z is not None and not core.is_empty and float(core.bounds[2]) - bore.floor_z <= FACED_MM:
        core = EMPTY  # the bar faces so flat a cone away with the floor
    taken = bore.end_r - EDGE_SHARE * work.shape.edge_length
    if bore.floor_z is None and not core.is_empty and float(core.bounds[1]) > taken:
        core = EMPTY  # a rim behind a through bore, which the edge in front of the bar takes
    if bore.floor_z is not None and not core.is_empty:
        stands = shapely.clip_by_rect(core, bore.floor_z + FILM_MM, 0, FAR_MM, FAR_MM)
        if not stands.is_empty and float(stands.bounds[1]) > taken:
            core = EMPTY  # a ring that a flat drill has left open in the middle: the edge in front of the bar takes it
    held = shapely.clip_by_rect(work.scene.fixed, -FAR_MM, 0, FAR_MM, bore.largest_r)
    both = union([core, held])
    return EMPTY if both.is_empty else mirrored_at_axis(both, FAR_MM)
