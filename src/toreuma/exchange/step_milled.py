"""Faces that are not round about the turning axis, sorted into holes, flats and slots."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
import shapely

from toreuma.core.geometry.region import Region
from toreuma.core.model.feature import Feature, Flats, HolePattern, Slot
from toreuma.exchange.step_faces import Face

__all__ = ["Milled", "milled_features"]

NEAR_MM = 0.003
NEAR_DEG = 0.01
WHOLE_RAD = 2 * math.pi - 0.01
DECIMALS = 4


@dataclass(frozen=True)
class Milled:
    """A feature in the frame of the solid; `placed` brings it to the part's own Z."""

    feature: Feature

    def placed(self, shift_mm: float, flipped: bool, metal: Region) -> Feature:
        """Moved so that the front is at Z 0, and turned round with the part when that was."""
        one = self.feature

        def z(value: float) -> float:
            return _size((-value if flipped else value) + shift_mm)

        ends = {"front": "back", "back": "front"} if flipped else {}
        if isinstance(one, HolePattern):
            return one.changed(z_mm=z(one.z_mm), on=ends.get(one.on, one.on), start_deg=_turned(one.start_deg, flipped))
        assert isinstance(one, Flats | Slot)
        from_z, to_z = z(one.from_z_mm), z(one.to_z_mm)
        return one.changed(
            from_z_mm=max(from_z, to_z), to_z_mm=min(from_z, to_z), start_deg=_turned(one.start_deg, flipped)
        )


@dataclass(frozen=True, kw_only=True)
class _Hole:
    """One hole; ``on`` and ``z`` as in `HolePattern`, ``depth`` None for through."""

    on: str
    d: float
    depth: float | None
    circle_d: float
    z: float
    angle_deg: float


def milled_features(faces: list[Face], metal: Region) -> tuple[list[Milled], list[str]]:
    """Features of all faces that are not turned, and words for those that could not be told."""
    others = [face for face in faces if not face.turned]
    holes, used = _holes(others, metal)
    rest = [face for face in others if id(face) not in used]
    found = [Milled(pattern) for pattern in _patterns(holes)]
    flats, slots, left = _planes(rest, metal)
    found += [Milled(one) for one in (*_grouped_flats(flats), *_grouped_slots(slots))]
    unknown: dict[str, int] = {}
    for face in left:
        if not _beside_slot(face, slots):
            unknown[face.kind] = unknown.get(face.kind, 0) + 1
    return found, [f"{count} {kind} {'face' if count == 1 else 'faces'}" for kind, count in unknown.items()]


def _holes(faces: list[Face], metal: Region) -> tuple[list[_Hole], set[int]]:
    """Whole hollow cylinders beside or square to the axis, with the faces at their bottoms."""
    groups: list[list[Face]] = []
    for face in faces:
        if face.kind != "cylinder" or not face.hollow:
            continue
        for group in groups:
            if _same_cylinder(face, group[0]):
                group.append(face)
                break
        else:
            groups.append([face])
    holes: list[_Hole] = []
    used: set[int] = set()
    for group in groups:
        points = np.vstack([face.points for face in group])
        hole = _hole_of(group[0], points, metal)
        if hole is None or sum(face.span_rad for face in group) < WHOLE_RAD:
            continue
        holes += hole
        used |= {id(face) for face in group}
        used |= {id(face) for face in faces if _within(face, group[0])}
    return holes, used


def _same_cylinder(a: Face, b: Face) -> bool:
    if abs(a.radius - b.radius) > NEAR_MM or abs(abs(float(a.axis_way @ b.axis_way)) - 1) > 1e-6:
        return False
    away = a.axis_at - b.axis_at
    if float(np.linalg.norm(away - (away @ b.axis_way) * b.axis_way)) > NEAR_MM:
        return False
    if abs(b.axis_way[2]) > 0.9:
        return True
    side_a, side_b = (_side(face, b.axis_way) for face in (a, b))
    return 0 in (side_a, side_b) or side_a == side_b


def _side(face: Face, way: np.ndarray) -> int:  # type: ignore[type-arg]
    """On which side of the turning axis a face lies along a direction; 0 on both."""
    along = face.points @ way
    return 1 if along.min() > -NEAR_MM else -1 if along.max() < NEAR_MM else 0


def _within(face: Face, hole: Face) -> bool:
    """A face at the bottom or the mouth of a hole."""
    if face.kind not in ("cone", "plane", "sphere") or not len(face.points):
        return False
    away = face.points - hole.axis_at
    off = np.linalg.norm(away - (away @ hole.axis_way)[:, None] * hole.axis_way, axis=1)
    return bool(off.max() < hole.radius + NEAR_MM)


def _hole_of(face: Face, points: np.ndarray, metal: Region) -> list[_Hole] | None:  # type: ignore[type-arg]
    way = face.axis_way
    d = _size(2 * face.radius)
    if abs(abs(way[2]) - 1) < 1e-6:
        x, y = float(face.axis_at[0]), float(face.axis_at[1])
        low, high = float(points[:, 2].min()), float(points[:, 2].max())
        column = _column(metal, (low + high) / 2, math.hypot(x, y))
        if column is None:
            return None
        open_front, open_back = high > column[1] - NEAR_MM, low < column[0] + NEAR_MM
        depth = None if open_front and open_back else _size(high - low)
        on, z = ("front", column[1]) if open_front else ("back", column[0])
        return [
            _Hole(on=on, d=d, depth=depth, circle_d=_size(2 * math.hypot(x, y)), z=_size(z), angle_deg=_angle(x, y))
        ]
    if abs(way[2]) > 1e-6 or _axis_distance(face) > NEAR_MM:
        return None
    z = float(face.axis_at[2])
    along = points @ way
    outer, inner = _radii(metal, z)
    low, high = float(along.min()), float(along.max())
    if low < -NEAR_MM and high > NEAR_MM and min(-low, high) > 0.5 * outer:
        return [
            _Hole(
                on="outside",
                d=d,
                depth=None,
                circle_d=0.0,
                z=_size(z),
                angle_deg=_angle(float(way[0]), float(way[1])) % 180,
            )
        ]
    sign = 1.0 if high + low > 0 else -1.0
    deep = min(abs(low), abs(high))
    through = inner > 0 and deep < inner + NEAR_MM
    angle = _angle(sign * float(way[0]), sign * float(way[1]))
    return [
        _Hole(
            on="outside", d=d, depth=None if through else _size(outer - deep), circle_d=0.0, z=_size(z), angle_deg=angle
        )
    ]


def _axis_distance(face: Face) -> float:
    """Distance between a cylinder's axis, square to the turning axis, and that axis."""
    way, at = face.axis_way, face.axis_at
    return abs(float(at[0] * way[1] - at[1] * way[0]))


def _column(metal: Region, z: float, r: float) -> tuple[float, float] | None:
    """The stretch of metal along Z at a radius that holds ``z``."""
    low, _, high, _ = metal.bounds
    cut = shapely.intersection(shapely.LineString([(low - 1, r), (high + 1, r)]), metal)
    for part in shapely.get_parts(cut):
        if part.bounds[0] - NEAR_MM <= z <= part.bounds[2] + NEAR_MM and part.length > NEAR_MM:
            return float(part.bounds[0]), float(part.bounds[2])
    return None


def _radii(metal: Region, z: float) -> tuple[float, float]:
    """Outer radius of the metal at a place and the radius of its bore there, 0 without one."""
    cut = shapely.intersection(shapely.LineString([(z, -1.0), (z, 1e5)]), metal)
    if cut.is_empty:
        return 0.0, 0.0
    return float(cut.bounds[3]), max(float(cut.bounds[1]), 0.0)


def _patterns(holes: list[_Hole]) -> Iterable[HolePattern]:
    """Equal holes on one circle become one pattern when they stand evenly."""
    groups: dict[tuple[object, ...], list[float]] = {}
    for hole in holes:
        key = (hole.on, round(hole.d, 3), _maybe(hole.depth), round(hole.circle_d, 2), round(hole.z, 3))
        groups.setdefault(key, []).append(hole.angle_deg)
    for (on, d, depth, circle, z), angles in groups.items():
        base = HolePattern.model_validate({"on": on, "d_mm": d, "depth_mm": depth, "circle_d_mm": circle, "z_mm": z})
        for start, step, count in _runs(sorted(angles)):
            yield base.changed(start_deg=start, step_deg=step, count=count)


def _maybe(value: float | None) -> float | None:
    return None if value is None else round(value, 3)


def _runs(angles: list[float]) -> Iterable[tuple[float, float | None, int]]:
    """(start, step, count) of evenly spaced angles; a step of None is a whole turn."""
    if len(angles) == 1:
        yield angles[0], None, 1
        return
    steps = [b - a for a, b in pairwise(angles)]
    even = max(steps) - min(steps) < NEAR_DEG
    if even and abs(steps[0] * len(angles) - 360) < NEAR_DEG * len(angles):
        yield angles[0], None, len(angles)
    elif even:
        yield angles[0], round(steps[0], 3), len(angles)
    else:
        yield from ((angle, None, 1) for angle in angles)


@dataclass(frozen=True, kw_only=True)
class _Plane:
    """A plane along the axis: distance from it, stretch along Z, half width, direction."""

    distance: float
    low: float
    high: float
    half_width: float
    angle_deg: float
    inward: bool
    depth: float = 0.0


def _planes(faces: list[Face], metal: Region) -> tuple[list[_Plane], list[tuple[_Plane, bool]], list[Face]]:
    """Flats as wide as the outside allows, slot floors narrower than that (with whether in the bore), the rest."""
    flats: list[_Plane] = []
    slots: list[tuple[_Plane, bool]] = []
    left: list[Face] = []
    for face in faces:
        plane = _plane_of(face)
        if plane is None:
            left.append(face)
            continue
        outer = _widest(metal, plane.low, plane.high)
        if plane.inward:
            bore = _radii(metal, (plane.low + plane.high) / 2)[1]
            if bore <= NEAR_MM:
                left.append(face)  # the wall of a pocket, not the floor of a keyway
                continue
            slots.append((replace(plane, depth=plane.distance - bore), True))
        elif plane.half_width > math.sqrt(max(outer**2 - plane.distance**2, 0.0)) - 0.02:
            flats.append(plane)
        else:
            slots.append((replace(plane, depth=outer - plane.distance), False))
    return flats, slots, left


def _plane_of(face: Face) -> _Plane | None:
    if face.kind != "plane" or abs(face.normal[2]) > 1e-6:
        return None
    normal = face.normal
    distance = float((face.points @ normal).mean())
    across = face.points @ np.array([-normal[1], normal[0], 0.0])
    if abs(float(across.max() + across.min())) > 0.01:
        return None
    sign = 1.0 if distance > 0 else -1.0
    angle = _angle(sign * float(normal[0]), sign * float(normal[1]))
    low, high = float(face.points[:, 2].min()), float(face.points[:, 2].max())
    return _Plane(
        distance=abs(distance), low=low, high=high, half_width=float(across.max()), angle_deg=angle, inward=distance < 0
    )


def _widest(metal: Region, low: float, high: float) -> float:
    held = shapely.clip_by_rect(metal, low + NEAR_MM, 0, high - NEAR_MM, 1e5)
    return float(held.bounds[3]) if not held.is_empty else 0.0


def _grouped_flats(planes: list[_Plane]) -> Iterable[Flats]:
    groups: dict[tuple[float, float, float], list[float]] = {}
    for plane in planes:
        key = (round(plane.distance, 3), round(plane.low, 3), round(plane.high, 3))
        groups.setdefault(key, []).append(plane.angle_deg)
    for (distance, low, high), angles in groups.items():
        base = Flats(count=1, distance_mm=distance, from_z_mm=high, to_z_mm=low)
        for start, step, count in _runs(sorted(angles)):
            if step is None:
                yield base.changed(start_deg=start, count=count)
            else:
                yield from (base.changed(start_deg=start + index * step) for index in range(count))


def _grouped_slots(slots: list[tuple[_Plane, bool]]) -> Iterable[Slot]:
    groups: dict[tuple[object, ...], list[float]] = {}
    for plane, inside in slots:
        key = (inside, *(round(v, 3) for v in (plane.depth, plane.low, plane.high, plane.half_width)))
        groups.setdefault(key, []).append(plane.angle_deg)
    for (inside, depth, low, high, half), angles in groups.items():
        for start, step, count in _runs(sorted(angles)):
            yield Slot.model_validate(
                {
                    "on": "inside" if inside else "outside",
                    "width_mm": 2 * half,  # type: ignore[operator]
                    "depth_mm": depth,
                    "from_z_mm": high,
                    "to_z_mm": low,
                    "start_deg": start,
                    "count": count if step is None else 1,
                }
            )


def _beside_slot(face: Face, slots: list[tuple[_Plane, bool]]) -> bool:
    """A wall or a round end of a slot."""
    for plane, _inside in slots:
        low, high = face.points[:, 2].min(), face.points[:, 2].max()
        if low < plane.low - NEAR_MM or high > plane.high + NEAR_MM:
            continue
        way = np.array([math.cos(math.radians(plane.angle_deg)), math.sin(math.radians(plane.angle_deg)), 0.0])
        across = face.points @ np.array([-way[1], way[0], 0.0])
        if float(np.abs(across).max()) < plane.half_width + 0.01:
            return True
    return False


def _angle(x: float, y: float) -> float:
    """Angle of a place round the axis, degrees, 0 up to 360."""
    angle = round(math.degrees(math.atan2(y, x)), 4) % 360
    return 0.0 if abs(angle - 360) < 1e-3 else angle


def _turned(angle_deg: float, flipped: bool) -> float:
    return (180 - angle_deg) % 360 if flipped else angle_deg


def _size(value: float) -> float:
    return round(value, DECIMALS) + 0.0
