"""From the dimensions of a part to the true lines and arcs of its outside."""

import math
from dataclasses import dataclass
from functools import cached_property

import shapely

from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Line, Point, Points, Segment, arc_through_ends, chords
from toreuma.core.model.part import Corner, Element, Part

__all__ = ["Profile", "build_profile"]

TINY = 1e-6


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
    """Join the elements of a part, with their chamfers and rounds, into true lines and arcs.

    Raises `PartError` that names the element and field that cannot be.
    """
    bare = _bare_segments(part)
    elements = part.outside
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

    segments: list[Segment] = [bare[0]]
    origin, is_corner = [0], [False]
    for index, following in enumerate(bare[1:], 1):
        corner = elements[index - 1].corner
        if corner is not None:
            before, blend, following = _cut_corner(index - 1, corner, segments[-1], following)
            segments[-1] = before
            segments.append(blend)
            origin.append(index - 1)
            is_corner.append(True)
        segments.append(following)
        origin.append(index)
        is_corner.append(False)
    profile = Profile(tuple(segments), tuple(origin), tuple(is_corner))
    _check_shape(profile)
    return profile


def _bare_segments(part: Part) -> list[Segment]:
    at: Point = (0.0, 0.0)
    segments: list[Segment] = []
    for index, element in enumerate(part.outside):
        end = (element.z_mm, element.d_mm / 2)
        if math.dist(at, end) < TINY:
            raise PartError(index, "z_mm", "the element has no length", "change where it ends or delete it")
        if end[0] > TINY:
            raise PartError(
                index, "z_mm", "the element ends in front of the finished face at Z 0", "use a Z of 0 or below"
            )
        segments.append(_segment(index, element, at, end))
        at = end
    if at[0] > -TINY:
        raise PartError(len(segments) - 1, "z_mm", "the part has no length", "end the profile at a Z below 0")
    return segments


def _segment(index: int, element: Element, start: Point, end: Point) -> Segment:
    if element.kind == "line":
        return Line(start, end)
    if element.radius_mm is None:
        raise PartError(index, "radius_mm", "an arc needs a radius", "type the radius or make it a line")
    try:
        arc = arc_through_ends(start, end, element.radius_mm, clockwise=element.bulge == "concave")
    except ValueError:
        least = math.dist(start, end) / 2
        raise PartError(
            index,
            "radius_mm",
            f"radius {element.radius_mm:g} is too small to join both ends",
            f"use {least:.4g} or more",
        ) from None
    if float(arc.points(0.001)[:, 0].max()) > 1e-4:
        raise PartError(
            index, "radius_mm", "the arc bows out in front of the finished face at Z 0", "use a larger radius"
        )
    if min(point[1] for point in arc.points(0.01)) < -TINY:
        raise PartError(index, "radius_mm", "the arc dips below the axis", "use a larger radius")
    return arc


def _cut_corner(index: int, corner: Corner, before: Segment, after: Segment) -> tuple[Segment, Segment, Segment]:
    """Shorten both neighbours and put the chamfer or round between them."""
    if not isinstance(before, Line) or not isinstance(after, Line):
        raise PartError(
            index,
            "corner",
            "a chamfer or round here needs a straight element on both sides",
            "take the corner away or draw the blend as an arc",
        )
    t0, t1 = before.tangent(), after.tangent()
    cross = t0[0] * t1[1] - t0[1] * t1[0]
    turn = math.atan2(cross, t0[0] * t1[0] + t0[1] * t1[1])
    if abs(turn) < 1e-6:
        raise PartError(index, "corner", "the two elements run on straight, there is no corner", "take it away")
    size = corner.size_mm
    trim = size if corner.kind == "chamfer" else size * math.tan(abs(turn) / 2)
    room = min(before.length, after.length)
    if trim > room - TINY:
        raise PartError(
            index,
            "corner",
            f"the {corner.kind} of {size:g} is larger than the edge it sits on",
            f"use less than {size * room / trim:.4g}",
        )
    corner_at = before.end
    start = (corner_at[0] - trim * t0[0], corner_at[1] - trim * t0[1])
    end = (corner_at[0] + trim * t1[0], corner_at[1] + trim * t1[1])
    blend: Segment = Line(start, end)
    if corner.kind == "round":
        blend = arc_through_ends(start, end, size, clockwise=turn < 0)
    return Line(before.start, start), blend, Line(end, after.end)


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
