"""Milled features in space: where each hole, flat and slot lies, and what of a turn it leaves open."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt
import shapely
import shapely.affinity

from toreuma.core.errors import PartError
from toreuma.core.geometry.region import Region, box, polygons
from toreuma.core.geometry.shape import quarter_chords
from toreuma.core.model.feature import Flats, HolePattern, Slot
from toreuma.core.standards.threads.same import nominal_d_mm

__all__ = ["Along", "Sunk", "Turn", "hole_edge_mm", "metal_of_turn", "mouth_d_mm", "sunk_of"]

Along = Literal["z", "x"]

STEPS = 1440
"""Angles at which a turn is looked at: every quarter of a degree."""

EDGE_MM = 0.3
"""Chamfer at the mouth of holes where the part names none."""

SUNK_OF_THREAD = 1.05
"""A threaded hole is sunk to so many of its thread's diameters (DIN 76-1)."""

FAR_MM = 1e4
BEYOND_MM = 5.0


@dataclass(frozen=True, kw_only=True)
class Sunk:
    """One hole, flat or slot: ``region`` sunk from above down to ``level``, seen along the axis it is cut in.

    ``along`` x: the region lies in (z, y) and levels are X, seen from where the work has turned by ``c_deg``. Along z:
    the region lies in (x, y), seen from the front, levels are Z, and ``c_deg`` is where its middle lies. ``top`` is
    where metal begins; ``floor_to`` is how far below the level a point or a breakthrough may go. ``middle`` is its
    place (u, v), ``d_mm`` the diameter of a hole, else 0. ``behind``: it lies in the back face and is open that way.
    ``threaded_to`` is the level down to which full thread is wanted, where the drawing says.
    """

    along: Along
    c_deg: float
    region: Region
    level: float
    top: float
    through: bool
    middle: tuple[float, float]
    d_mm: float = 0.0
    behind: bool = False
    threaded_to: float | None = None

    def may_open(self, z: float, r: float) -> bool:
        """Whether a turn there can meet it at all."""
        if self.along == "x":
            return r > self.level and self.region.bounds[0] <= z <= self.region.bounds[2]
        if self._covered(z):
            return False
        return self._nearest - 1e-9 <= r <= self._farthest + 1e-9

    def _covered(self, z: float) -> bool:
        """It ends before ``z``; a through hole goes on a little, as its drill does."""
        past = BEYOND_MM if self.through else 0.0
        return z >= self.level + past if self.behind else z <= self.level - past

    @cached_property
    def _nearest(self) -> float:
        return float(self.region.distance(shapely.Point(0.0, 0.0)))

    @cached_property
    def _farthest(self) -> float:
        return float(np.hypot(*shapely.get_coordinates(self.region).T).max())

    def opens(self, z: float, r: float, angles: npt.NDArray[np.float64]) -> npt.NDArray[np.bool_]:
        """Whether it takes the metal on radius ``r`` at ``z``, at each of some angles in radians."""
        if self.along == "z":
            if self._covered(z):
                return np.zeros(len(angles), dtype=bool)
            return np.asarray(shapely.contains_xy(self.region, r * np.cos(angles), r * np.sin(angles)))
        turned = angles - math.radians(self.c_deg)
        inside = shapely.contains_xy(self.region, np.full(len(angles), z), r * np.sin(turned))
        return np.asarray(inside & (r * np.cos(turned) > self.level))


@dataclass(frozen=True)
class Turn:
    """One turn at a place: the share that is metal, how often the edge enters it, and the longest gap, degrees."""

    share: float
    hits: int
    gap_deg: float


WHOLE = Turn(1.0, 0, 0.0)


def metal_of_turn(sunk: tuple[Sunk, ...], z: float, r: float) -> Turn:
    """What of a turn on radius ``r`` at ``z`` is metal where these are open."""
    sunk = tuple(one for one in sunk if one.may_open(z, r))
    if not sunk or r <= 0:
        return WHOLE
    angles: npt.NDArray[np.float64] = np.arange(STEPS, dtype=float) * (2 * math.pi / STEPS)
    open_ = np.zeros(STEPS, dtype=bool)
    for one in sunk:
        open_ |= one.opens(z, r, angles)
    if not open_.any():
        return WHOLE
    if open_.all():
        return Turn(0.0, 0, 360.0)
    begins = np.flatnonzero(open_ & ~np.roll(open_, 1))
    ends = np.flatnonzero(~open_ & np.roll(open_, 1))
    ends = ends[np.searchsorted(ends, begins, side="right") % len(ends)]
    longest = int(((ends - begins) % STEPS).max())
    return Turn(float(1 - open_.mean()), len(begins), 360.0 * longest / STEPS)


def sunk_of(
    index: int, feature: HolePattern | Flats | Slot, part: Region, along: Along | None = None
) -> tuple[Sunk, ...]:
    """Every place of a milled feature on a part, whose turned half section is ``part``.

    ``along`` asks for flats as a mill along Z makes them; empty: as they are drawn. Raises `PartError`.
    """
    if isinstance(feature, HolePattern):
        return _holes(index, feature, part)
    if isinstance(feature, Flats):
        return _flats(index, feature, part, along or "x")
    return _slots(index, feature, part)


def hole_edge_mm(edge_break_mm: float) -> float:
    """Chamfer at the mouth of a hole, mm."""
    return edge_break_mm or EDGE_MM


def mouth_d_mm(feature: HolePattern, edge_break_mm: float) -> float:
    """How wide the mouth of a hole is sunk, mm: by its edge, and where a tap follows wider than its thread.

    Countersinks of threads: DIN 76-1, 1.05 d."""
    edge = feature.d_mm + 2 * hole_edge_mm(edge_break_mm)
    nominal = nominal_d_mm(feature.thread) if feature.thread else None
    return edge if nominal is None else max(edge, SUNK_OF_THREAD * nominal)


def _angles(count: int, start: float, step: float | None) -> list[float]:
    return [start + n * (360 / count if step is None else step) for n in range(count)]


def _stretch(part: Region, r: float, front: bool = True) -> tuple[float, float] | None:
    """The foremost metal along Z at a radius: (back, front)."""
    line = shapely.LineString([(-FAR_MM, r), (FAR_MM, r)])
    pieces = [piece.bounds for piece in shapely.get_parts(part.intersection(line)) if piece.length > 1e-6]
    if not pieces:
        return None
    chosen = max(pieces, key=lambda b: b[2]) if front else min(pieces, key=lambda b: b[0])
    return float(chosen[0]), float(chosen[2])


def _wall(part: Region, z: float) -> tuple[float, float] | None:
    """Bore and outside radius of the metal at a place along Z."""
    line = shapely.LineString([(z, 0.0), (z, FAR_MM)])
    met = part.intersection(line)
    return None if met.is_empty else (float(met.bounds[1]), float(met.bounds[3]))


def _holes(index: int, feature: HolePattern, part: Region) -> tuple[Sunk, ...]:
    r = feature.d_mm / 2
    found = []
    for angle in _angles(feature.count, feature.start_deg, feature.step_deg):
        if feature.on == "outside":
            wall = _wall(part, feature.z_mm)
            if wall is None:
                raise PartError(
                    index, "z_mm", f"there is no metal at Z {feature.z_mm:g}", "use a place on the part", "features"
                )
            middle, (bottom, top) = (feature.z_mm, 0.0), wall
            level = _through_wall(bottom, top, r) if feature.depth_mm is None else top - feature.depth_mm
        else:
            away = feature.circle_d_mm / 2
            metal = _stretch(part, away, feature.on == "front")
            if metal is None:
                raise PartError(
                    index,
                    "circle_d_mm",
                    f"there is no metal on Ø{feature.circle_d_mm:g}",
                    "use a circle on the part",
                    "features",
                )
            turned = math.radians(angle)
            middle, (bottom, top) = (away * math.cos(turned), away * math.sin(turned)), metal
            if feature.on == "back":
                bottom, top = top, bottom
            into = 1.0 if feature.on == "front" else -1.0
            level = bottom if feature.depth_mm is None else top - into * feature.depth_mm
        region = shapely.Point(middle).buffer(r, quad_segs=quarter_chords(r))
        along: Along = "x" if feature.on == "outside" else "z"
        behind, through = feature.on == "back", feature.depth_mm is None
        length = feature.thread_length_mm if feature.thread else None
        threaded_to = None if length is None else top + length if behind else top - length
        found.append(
            Sunk(
                along=along,
                c_deg=angle,
                region=region,
                level=level,
                top=top,
                through=through,
                middle=middle,
                d_mm=feature.d_mm,
                behind=behind,
                threaded_to=threaded_to,
            )
        )
    return tuple(found)


def _through_wall(bore_r: float, top: float, r: float) -> float:
    """X at which a hole round a bore has come through on its whole width; through to the other side of a full bar."""
    return math.sqrt(max(bore_r**2 - r**2, 0.0)) if bore_r > 1e-9 else -top


def _flats(index: int, feature: Flats, part: Region, along: Along) -> tuple[Sunk, ...]:
    low, high = sorted((feature.from_z_mm, feature.to_z_mm))
    metal = part.intersection(box(low, 0, high, FAR_MM))
    if metal.is_empty:
        raise PartError(
            index, "from_z_mm", "there is no metal between the ends of the flats", "use a place on the part", "features"
        )
    top = float(metal.bounds[3])
    if feature.distance_mm >= top:
        raise PartError(
            index,
            "distance_mm",
            f"the part is Ø{2 * top:g} there, the flats lie outside it",
            "use less than its radius",
            "features",
        )
    wide = top + BEYOND_MM
    found = []
    for angle in _angles(feature.count, feature.start_deg, None):
        if along == "x":
            region = box(low, -wide, high if not _is_front(part, high) else high + BEYOND_MM, wide)
            found.append(
                Sunk(
                    along="x",
                    c_deg=angle,
                    region=region,
                    level=feature.distance_mm,
                    top=top,
                    through=False,
                    middle=((low + high) / 2, 0.0),
                )
            )
        else:
            side = shapely.affinity.rotate(box(feature.distance_mm, -wide, wide, wide), angle, origin=(0, 0))
            away = math.radians(angle)
            middle = feature.distance_mm * math.cos(away), feature.distance_mm * math.sin(away)
            found.append(Sunk(along="z", c_deg=angle, region=side, level=low, top=high, through=False, middle=middle))
    return tuple(found)


def _is_front(part: Region, z: float) -> bool:
    return z >= float(part.bounds[2]) - 1e-6


def _slots(index: int, feature: Slot, part: Region) -> tuple[Sunk, ...]:
    half, found = feature.width_mm / 2, []
    if feature.on == "inside":
        what = "a keyway in a bore is not milled here"
        raise PartError(index, "on", what, "broach or slot it: leave it out of the route", "features")
    if feature.corner_radius_mm > half + 1e-9:
        what = f"corners of R {feature.corner_radius_mm:g} do not go into a width of {feature.width_mm:g} mm"
        raise PartError(index, "corner_radius_mm", what, "half the width makes round ends", "features")
    long = abs(feature.from_z_mm - feature.to_z_mm) if feature.on == "outside" else feature.length_mm
    if long < feature.width_mm - 1e-9 and (feature.on == "outside" or long > 0):
        field = "to_z_mm" if feature.on == "outside" else "length_mm"
        what = f"the slot is {long:g} mm long and {feature.width_mm:g} mm wide"
        raise PartError(index, field, what, "a slot is at least as long as it is wide", "features")
    for angle in _angles(feature.count, feature.start_deg, None):
        if feature.on == "outside":
            low, high = sorted((feature.from_z_mm, feature.to_z_mm))
            wall = _wall(part, (low + high) / 2)
            if wall is None:
                raise PartError(
                    index, "from_z_mm", "there is no metal at the slot", "use a place on the part", "features"
                )
            top = wall[1]
            beyond = BEYOND_MM if _is_front(part, high) else 0.0
            strip = _rounded(low, high + beyond, half, feature, beyond > 0)
            found.append(
                Sunk(
                    along="x",
                    c_deg=angle,
                    region=strip,
                    level=top - feature.depth_mm,
                    top=top,
                    through=False,
                    middle=((low + high) / 2, 0.0),
                )
            )
            continue
        behind = feature.on == "back"
        top = float(part.bounds[0 if behind else 2])
        level = top + feature.depth_mm if behind else top - feature.depth_mm
        long = feature.length_mm / 2 or float(part.bounds[3]) + BEYOND_MM
        off = feature.off_mm if feature.length_mm else 0.0
        lying = _rounded(off - long, off + long, half, feature, not feature.length_mm)
        region = shapely.affinity.rotate(lying, angle, origin=(0, 0))
        away = math.radians(angle)
        middle = off * math.cos(away), off * math.sin(away)
        found.append(
            Sunk(
                along="z", c_deg=angle, region=region, level=level, top=top, through=False, middle=middle, behind=behind
            )
        )
    return tuple(found)


def _rounded(low: float, high: float, half: float, feature: Slot, open_end: bool) -> Region:
    """A strip, its ends round with half its width or with a radius at the corners; an open end runs on square."""
    corner = feature.corner_radius_mm
    if not feature.round_ends and corner > 0 and not open_end:
        inner = box(low + corner, corner - half, high - corner, half - corner)
        return inner.buffer(corner, quad_segs=quarter_chords(corner))
    right_across = feature.on != "outside" and not feature.length_mm
    if not feature.round_ends or right_across or high - low <= 2 * half:
        return box(low, -half, high, half)
    middle = shapely.LineString([(low + half, 0.0), (high - half, 0.0)]).buffer(half, quad_segs=quarter_chords(half))
    return polygons(middle.union(box((low + high) / 2, -half, high, half)))[0] if open_end else middle
