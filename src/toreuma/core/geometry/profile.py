"""From the dimensions of a part to the true lines and arcs of its outside."""

from dataclasses import dataclass
from functools import cached_property

import shapely

from toreuma.core.errors import PartError
from toreuma.core.geometry.chain import TINY, bare_segments, joined
from toreuma.core.geometry.elements import Line, Points, Segment, chords
from toreuma.core.model.part import Part

__all__ = ["Profile", "build_profile"]


@dataclass(frozen=True)
class Profile:
    """The outside of a part from the axis at the front to the axis at the back.

    ``elements[i]`` is the index in ``part.outside`` that segment ``i`` comes from; the back face has the
    index after the last. ``corners[i]`` tells whether the segment is that element's chamfer or round.
    """

    segments: tuple[Segment, ...]
    elements: tuple[int, ...]
    corners: tuple[bool, ...]

    @property
    def back_z(self) -> float:
        """Z of the back face, mm."""
        return self.segments[-1].end[0]

    @property
    def front_z(self) -> float:
        """Largest Z of the part, mm."""
        return float(self.points[:, 0].max())

    @property
    def largest_r(self) -> float:
        return float(self.points[:, 1].max())

    @cached_property
    def points(self) -> Points:
        """Chords of the whole outside, shape (n, 2)."""
        return chords(self.segments)

    @cached_property
    def outside_end(self) -> int:
        """How many segments stand before the back edge and the back face."""
        count = len(self.segments) - 1
        while count > 1 and self.corners[count - 1] and self.elements[count - 1] == self.elements[-1] - 1:
            count -= 1
        return count

    @cached_property
    def outside_start(self) -> int:
        """Index of the first segment behind a flat front face; 0 when the front is not flat."""
        first = self.segments[0]
        flat = isinstance(first, Line) and abs(first.end[0] - first.start[0]) < TINY
        return 1 if flat and len(self.segments) > 2 else 0

    def segments_of(self, element: int) -> list[int]:
        return [i for i, origin in enumerate(self.elements) if origin == element]


def build_profile(part: Part) -> Profile:
    """The outside of a part as true lines and arcs, without its grooves.

    Raises `PartError` that names the element and field that cannot be.
    """
    elements = part.outside
    bare = bare_segments(elements, "outside")
    if bare[-1].end[0] > -TINY:
        raise PartError(len(bare) - 1, "z_mm", "the part has no length", "end the profile at a Z below 0")
    back = Line(bare[-1].end, (bare[-1].end[0], 0.0))
    if back.length > TINY:
        bare.append(back)
    elif elements[-1].corner is not None:
        raise PartError(
            len(elements) - 1,
            "corner",
            "there is no back face to break the edge with",
            "end the profile above the axis or take the corner away",
        )
    else:
        bare.append(Line(bare[-1].end, bare[-1].end))
    chain = joined(bare, elements, "outside", part.edge_break_mm)
    profile = Profile(chain.segments, chain.elements, chain.corners)
    _check_shape(profile)
    return profile


def _check_shape(profile: Profile) -> None:
    """The closed half section must be one piece above the axis that does not cross itself."""
    for index, segment in enumerate(profile.segments[:-1]):
        below = [p for p in (segment.start, segment.end) if p[1] < -TINY]
        if below:
            raise PartError(
                profile.elements[index], "d_mm", "the profile goes below the axis", "use diameters of 0 or more"
            )
    points = profile.points
    if float(points[:, 0].min()) < profile.back_z - TINY:
        index = next(
            i
            for i, segment in enumerate(profile.segments)
            if float(segment.points(0.01)[:, 0].min()) < profile.back_z - TINY
        )
        raise PartError(
            profile.elements[index],
            "z_mm",
            "the element reaches behind the end of the profile",
            "let the last element end farthest toward the chuck",
        )
    ring = shapely.LinearRing(points if len(points) > 2 else [*points, points[0]])
    if ring.is_simple and shapely.Polygon(ring).area > TINY:
        return
    first, second = _crossing(profile)
    raise PartError(
        profile.elements[second],
        "z_mm",
        f"the profile crosses itself: element {profile.elements[second] + 1} meets element "
        f"{profile.elements[first] + 1}",
        "change where one of them ends",
    )


def _crossing(profile: Profile) -> tuple[int, int]:
    lines = [shapely.LineString(segment.points(0.001)) for segment in profile.segments if segment.length > TINY]
    for later in range(len(lines)):
        for earlier in range(later):
            meet = lines[later].intersection(lines[earlier])
            ends = shapely.Point(lines[earlier].coords[-1]) if later == earlier + 1 else None
            if not meet.is_empty and (ends is None or not meet.equals_exact(ends, 1e-5)):
                return earlier, later
    return 0, len(profile.segments) - 1
