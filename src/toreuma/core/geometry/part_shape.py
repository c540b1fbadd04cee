"""The whole turned part: outside, bore and features as one region."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely
from shapely.affinity import scale, translate

from toreuma.core.errors import PartError
from toreuma.core.geometry.chain import TINY, Chain, bare_segments, joined
from toreuma.core.geometry.elements import Line, Segment, chords
from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.knurled import as_turned, ridges
from toreuma.core.geometry.profile import Profile, build_profile
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import EMPTY, Region, polygons, region_from_points, rings, union
from toreuma.core.geometry.voids import Surfaces, Void, void_of
from toreuma.core.model.part import Part

__all__ = ["PartShape", "build_part"]

BEYOND_MM = 1.0


@dataclass(frozen=True, kw_only=True)
class PartShape:
    """``profile`` is the outside without grooves, ``bore`` the inside profile, ``voids`` what each feature takes.

    ``region`` is the upper half section of the finished part, mm, as it is turned; ``ridges`` are the rings in which
    knurls stand above it.
    """

    profile: Profile
    bore: Chain | None
    void: Region | None
    voids: tuple[tuple[int, Void], ...]
    region: Region
    ridges: Region = EMPTY

    @cached_property
    def solid(self) -> Region:
        """The part with its bore but without its features."""
        whole = region_from_points(self.profile.points)
        return whole.difference(self.void) if self.void is not None else whole

    @cached_property
    def fill(self) -> Region:
        """Metal that reliefs leave in their corners beyond the profile: their round where it is larger than deep."""
        fills = [one.fill for _, one in self.voids if not one.fill.is_empty]
        return union(fills).difference(union([one.cut for _, one in self.voids])) if fills else EMPTY

    def edge_of(self, void: Void) -> list[tuple[float, float]]:
        """The part of the finished outline that a feature made, as places."""
        edge = void.cut.boundary.intersection(self.region.boundary.buffer(1e-6))
        lines = [part for part in shapely.get_parts(edge) if part.length > 1e-6]
        return [(float(z), float(r)) for line in lines for z, r in line.coords]

    @cached_property
    def outlines(self) -> list[list[Segment]]:
        """The true lines and arcs round the half section, one closed run per ring."""
        return [recover(ring) for ring in rings(self.region)]


def build_part(part: Part) -> PartShape:
    """Build a part from its dimensions. Raises `PartError` that names the section, entry and field that cannot be."""
    profile = build_profile(as_turned(part))
    solid = region_from_points(profile.points)
    bore = _bore(part, profile) if part.inside else None
    void = _void(bore, profile) if bore else None
    if void is not None and part.inside_from_back:
        void, bore = scale(translate(void, -profile.back_z), -1, 1, origin=(0, 0)), None
    region = solid.difference(void) if void is not None else solid
    if void is not None and len(polygons(region)) != 1:
        raise PartError(-1, "", "the bore breaks through the outside", "make the bore smaller", "inside")
    if not part.features:
        return PartShape(profile=profile, bore=bore, void=void, voids=(), region=region)
    surfaces = Surfaces(
        upper_envelope(solid, profile.front_z, profile.back_z),
        upper_envelope(void, profile.front_z, profile.back_z) if void is not None else None,
        profile.back_z,
    )
    voids = []
    for index, feature in enumerate(part.features):
        one = void_of(index, feature, surfaces)
        if one is None:
            continue
        voids.append((index, one))
        region = region.union(one.fill).difference(one.cut)
        if len(polygons(region)) != 1:
            raise PartError(
                index, "kind", "this feature cuts the part in two or away", "make it smaller or move it", "features"
            )
    return PartShape(profile=profile, bore=bore, void=void, voids=tuple(voids), region=region, ridges=ridges(part))


def _bore(part: Part, profile: Profile) -> Chain:
    """The inside profile with its corners; the first and last segments lie on the faces."""
    elements = part.inside
    bare = bare_segments(elements, "inside")
    mouth = bare[0]
    if not isinstance(mouth, Line) or abs(mouth.end[0]) > TINY:
        raise PartError(
            0,
            "z_mm",
            "the bore does not begin at the front face",
            "give the mouth first: Z 0 and its diameter",
            "inside",
        )
    if len(elements) < 2:
        raise PartError(0, "z_mm", "the bore has no depth", "add an element that leads into the part", "inside")
    face = profile.segments[0]
    flat = isinstance(face, Line) and abs(face.end[0]) < TINY
    front_r = face.end[1] if flat else mouth.end[1] + TINY
    if flat and mouth.end[1] > front_r - TINY:
        raise PartError(
            0, "d_mm", f"the bore is wider than the front face, Ø{2 * front_r:g}", "use a smaller diameter", "inside"
        )
    bare[0] = Line((0.0, max(front_r, mouth.end[1] + TINY)), mouth.end)
    end_z, end_r = bare[-1].end
    if end_z < profile.back_z - TINY:
        last = len(elements) - 1
        raise PartError(
            last, "z_mm", f"the bore runs past the back face at Z {profile.back_z:g}", "end it there", "inside"
        )
    if end_z < profile.back_z + TINY:
        back_r = max(profile.segments[-1].start[1], end_r + TINY)
        bare.append(Line(bare[-1].end, (profile.back_z, back_r)))
    elif end_r > TINY:
        bare.append(Line(bare[-1].end, (end_z, 0.0)))
    else:
        bare.append(Line(bare[-1].end, bare[-1].end))
    return joined(bare, elements, "inside", part.edge_break_mm)


def _void(bore: Chain, profile: Profile) -> Region:
    """What the bore takes out, run on past the faces it opens in. Raises `PartError` when it crosses itself."""
    inner = chords(bore.segments[1:-1])
    start, end = inner[0], inner[-1]
    front = max(0.0, profile.front_z) + BEYOND_MM
    outline = [[front, 0.0], [front, start[1]], *inner.tolist()]
    if abs(end[0] - profile.back_z) < TINY:
        outline += [[end[0] - BEYOND_MM, end[1]], [end[0] - BEYOND_MM, 0.0]]
    else:
        outline += [[end[0], 0.0]]
    region = region_from_points(np.array(outline))
    if len(polygons(region)) != 1 or region.geom_type != "Polygon":
        raise PartError(-1, "", "the inside profile crosses itself", "change where its elements end", "inside")
    return region
