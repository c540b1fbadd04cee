"""What features take out of the turned part: one function per kind, from the surface it sits on to a region.

A new kind of groove is a model in `toreuma.core.model.feature` and one function here, named in `VOIDS`.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.errors import PartError
from toreuma.core.geometry.centre_forms import centre_profile, cone_mouth
from toreuma.core.geometry.envelope import Envelope
from toreuma.core.geometry.outline import RoundedPoint, rounded_points
from toreuma.core.geometry.region import EMPTY, Region, region_from_points
from toreuma.core.model.feature import AxialHole, CentreHole, FaceGroove, Groove, Relief

__all__ = ["Surfaces", "Void", "void_of"]

BESIDE_MM = 1e-6
BEYOND_MM = 1.0
RAMP_DEG = {"E": 15.0, "F": 15.0, "G": 22.0, "H": 15.0, "thread": 30.0}
"""Of the slope from the floor to the cylinder (DIN 509, DIN 76-1); form G: what its f, r and t1 leave."""

FACE_RAMP_DEG = {"F": 8.0, "G": 16.0, "H": 8.0}
"""Of the slope out of the shoulder, for the forms that go into it; form G: what its g, r and t2 leave."""


@dataclass(frozen=True)
class Surfaces:
    """What features sit on: the tops of the outside and of the bore, and both faces along Z."""

    outside: Envelope
    inside: Envelope | None
    back_z: float

    def radius(self, index: int, side: str, z: float) -> float:
        """Radius of the outside or the bore at ``z``. Raises `PartError` where there is none."""
        line = self.outside if side == "outside" else self.inside
        if line is None:
            raise PartError(index, "side", "the part has no bore for this", "give it an inside profile", "features")
        height = line.height(z)
        if height <= 0:
            raise PartError(index, "z_mm", f"there is no surface at Z {z:g}", "use a place on the part", "features")
        return height


@dataclass(frozen=True)
class Void:
    """What a feature takes away, and what its rounds leave standing in a corner."""

    cut: Region
    fill: Region = EMPTY


def void_of(index: int, feature: object, surfaces: Surfaces) -> Void | None:
    """The void of one feature; None for features that take nothing off the turned outline. Raises `PartError`."""
    make = VOIDS.get(type(feature))
    return make(index, feature, surfaces) if make else None


def _groove(index: int, groove: Groove, surfaces: Surfaces) -> Void:
    """Walls from the surface down, leaning, to the floor."""
    front, back, floor = groove.z_mm, groove.z_mm - groove.width_mm, groove.d_mm / 2
    into = 1.0 if groove.side == "outside" else -1.0
    at_front = surfaces.radius(index, groove.side, front - BESIDE_MM)
    at_back = surfaces.radius(index, groove.side, back + BESIDE_MM)
    depth = into * (at_front - floor), into * (at_back - floor)
    if min(depth) <= 0:
        word = "above" if groove.side == "outside" else "below"
        raise PartError(
            index,
            "d_mm",
            f"the groove's floor lies {word} the surface, which is Ø{2 * min(at_front, at_back):g} there",
            "use a diameter inside the metal",
            "features",
        )
    lean = math.tan(math.radians(groove.wall_deg))
    floor_front, floor_back = front - depth[0] * lean, back + depth[1] * lean
    if floor_front < floor_back - BESIDE_MM:
        widest = sum(depth) * lean
        raise PartError(
            index, "width_mm", "the walls meet before the floor", f"use a width of {widest:.4g} or more", "features"
        )
    in_front, behind = (_edge(groove, surfaces, z, at, into) for z, at in ((front, at_front), (back, at_back)))
    open_r = max(at_front, at_back) + BEYOND_MM if into > 0 else 0.0
    round_mm = groove.floor_round_mm
    corners: list[RoundedPoint] = [(front + in_front, open_r, 0), (front + in_front, at_front, 0)]
    corners += [(front - in_front * lean, at_front - into * in_front, 0)] if in_front else []
    if floor_front - floor_back > BESIDE_MM:
        corners += [(floor_front, floor, round_mm), (floor_back, floor, round_mm)]
    else:
        corners += [((floor_front + floor_back) / 2, floor, round_mm)]
    corners += [(back + behind * lean, at_back - into * behind, 0)] if behind else []
    corners += [(back - behind, at_back, 0), (back - behind, open_r, 0)]
    return Void(region_from_points(rounded_points(corners)))


def _edge(groove: Groove, surfaces: Surfaces, z: float, at: float, into: float) -> float:
    """The broken edge at one end of a groove; none where it ends in the corner of a shoulder, which has no edge."""
    size = groove.edge_break_mm
    beyond = z + (size if z == groove.z_mm else -size)
    line = surfaces.outside if groove.side == "outside" else surfaces.inside
    rises = line is not None and into * (line.height(beyond) - at) > size / 2
    return 0.0 if rises else size


def _face_groove(index: int, groove: FaceGroove, surfaces: Surfaces) -> Void:
    outer, inner = groove.d_mm / 2, groove.d_mm / 2 - groove.width_mm
    if inner < 0:
        raise PartError(index, "width_mm", "the groove reaches past the axis", "use a smaller width", "features")
    face, into = (0.0, -1.0) if groove.end == "front" else (surfaces.back_z, 1.0)
    if groove.depth_mm >= -surfaces.back_z:
        raise PartError(index, "depth_mm", "the groove goes through the part", "use a smaller depth", "features")
    floor = face + into * groove.depth_mm
    lean = groove.depth_mm * math.tan(math.radians(groove.wall_deg))
    if outer - inner < 2 * lean:
        raise PartError(
            index, "width_mm", "the walls meet before the floor", f"use a width of {2 * lean:.4g} or more", "features"
        )
    open_z, round_mm = face - into * BEYOND_MM, groove.floor_round_mm
    corners = [
        (open_z, outer, 0.0),
        (face, outer, 0.0),
        (floor, outer - lean, round_mm),
        (floor, inner + lean, round_mm),
        (face, inner, 0.0),
        (open_z, inner, 0.0),
    ]
    return Void(region_from_points(rounded_points(corners)))


def _relief(index: int, relief: Relief, surfaces: Surfaces) -> Void:
    """From the shoulder round the corner, along the floor, up the ramp to the cylinder."""
    along = 1.0 if relief.toward == "front" else -1.0
    into = 1.0 if relief.side == "outside" else -1.0
    z0, round_mm, face = relief.z_mm, relief.radius_mm, relief.face_depth_mm if relief.form in FACE_RAMP_DEG else 0.0
    end = z0 + along * relief.length_mm
    surface = surfaces.radius(index, relief.side, end - along * BESIDE_MM)
    floor = surface - into * relief.depth_mm
    if floor <= 0:
        raise PartError(index, "depth_mm", "the relief reaches the axis", "use a smaller depth", "features")
    ramp = relief.depth_mm / math.tan(math.radians(RAMP_DEG[relief.form]))
    if ramp + round_mm > relief.length_mm:
        raise PartError(
            index, "length_mm", "the relief is too short for its ramp", f"use {ramp + round_mm:.3g} or more", "features"
        )
    shoulder = floor + into * (2.01 * round_mm + face / math.tan(math.radians(FACE_RAMP_DEG.get(relief.form, 45.0))))
    top = max(shoulder, surface) + BEYOND_MM if into > 0 else max(min(shoulder, surface) - BEYOND_MM, 0.0)
    path = rounded_points(
        [
            (z0, shoulder, 0.0),
            (z0 - along * face, floor, round_mm),
            (end - along * ramp, floor, 0.0),
            (end, surface, 0.0),
        ]
    )
    closed = [*path.tolist(), [end, top], [z0, top]]
    cut = region_from_points(closed)
    corner = [*path[1:-2].tolist(), [z0 - along * face, floor]]
    fill = region_from_points(corner) if round_mm > relief.depth_mm else EMPTY
    return Void(cut, fill)


def _axial_hole(index: int, hole: AxialHole, surfaces: Surfaces) -> Void:
    face, into = (0.0, -1.0) if hole.end == "front" else (surfaces.back_z, 1.0)
    length = -surfaces.back_z
    radius = hole.d_mm / 2
    open_z = face - into * BEYOND_MM
    if hole.depth_mm is None:
        end = face + into * (length + BEYOND_MM)
        return Void(region_from_points([[open_z, 0], [open_z, radius], [end, radius], [end, 0]]))
    point = radius / math.tan(math.radians(hole.point_deg / 2)) if hole.point_deg < 180 else 0.0
    full = face + into * hole.depth_mm
    if hole.depth_mm >= length:
        raise PartError(
            index,
            "depth_mm",
            "the hole is deeper than the part is long",
            "leave the depth empty for through",
            "features",
        )
    outline = [[open_z, 0], [open_z, radius], [full, radius], [full + into * point, 0]]
    return Void(region_from_points(outline))


def _centre_hole(index: int, centre: CentreHole, surfaces: Surfaces) -> Void:
    """A pilot, and the cone or the arc before it."""
    face, into = (0.0, -1.0) if centre.end == "front" else (surfaces.back_z, 1.0)
    if centre.mouth_d_mm <= centre.d_mm:
        raise PartError(index, "mouth_d_mm", "the cone is not wider than its pilot", "use a larger mouth", "features")
    guarded = cone_mouth(centre.d_mm)
    if centre.form == "B" and centre.mouth_d_mm <= guarded:
        cure = f"use a mouth over {guarded:g}, such as {cone_mouth(centre.d_mm, 'B'):g}, or form A"
        raise PartError(index, "mouth_d_mm", "nothing guards the cone of this form B", cure, "features")
    profile = centre_profile(centre.form, centre.d_mm, centre.mouth_d_mm)
    deep, open_z = profile[-1][0], face - into * BEYOND_MM
    outline = [[open_z, 0.0], [open_z, centre.mouth_d_mm / 2]]
    outline += [[face + into * (deep - x), r] for x, r in reversed(profile)]
    return Void(region_from_points(outline))


VOIDS: dict[type, Callable[[int, Any, Surfaces], Void]] = {
    Groove: _groove,
    FaceGroove: _face_groove,
    Relief: _relief,
    AxialHole: _axial_hole,
    CentreHole: _centre_hole,
}
