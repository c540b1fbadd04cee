"""Coordinates in which every tool comes from above and leads toward smaller z.

Outside and toward the chuck these are the real ones. A bore is seen from its axis outward, with radii negative; a
tool of the other hand is seen end for end; a face is seen with z and r exchanged. What is planned in a frame is
turned back when it is written down.
"""

from dataclasses import dataclass

import numpy as np
from shapely.affinity import affine_transform

from toreuma.core.geometry.elements import Arc, Line, Point, Segment
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.shape import ToolShape, turned

__all__ = ["AWAY", "BACK", "FACE", "INSIDE", "OUTSIDE", "Frame"]


@dataclass(frozen=True)
class Frame:
    """Which axes are turned round or exchanged. Turning twice gives back what there was."""

    flip_z: bool = False
    flip_r: bool = False
    swap: bool = False

    @property
    def _matrix(self) -> tuple[float, float, float, float]:
        if self.swap:
            return 0.0, 1.0, 1.0, 0.0
        return -1.0 if self.flip_z else 1.0, 0.0, 0.0, -1.0 if self.flip_r else 1.0

    def point(self, point: Point) -> Point:
        a, b, c, d = self._matrix
        return a * point[0] + b * point[1], c * point[0] + d * point[1]

    def region(self, region: Region) -> Region:
        return region if self == OUTSIDE else affine_transform(region, [*self._matrix, 0.0, 0.0])

    def shape(self, shape: ToolShape) -> ToolShape:
        return shape if self == OUTSIDE else turned(shape, np.array(self._matrix).reshape(2, 2))

    def segment(self, segment: Segment) -> Segment:
        """Turning one axis round turns an arc's direction round as well."""
        if isinstance(segment, Line):
            return Line(self.point(segment.start), self.point(segment.end))
        start, end, centre = (self.point(point) for point in (segment.start, segment.end, segment.centre))
        a, b, c, d = self._matrix
        return Arc(start, end, centre, segment.clockwise != (a * d - b * c < 0))


OUTSIDE, INSIDE, FACE, AWAY = Frame(), Frame(flip_r=True), Frame(swap=True), Frame(flip_z=True)
BACK = Frame(flip_z=True, flip_r=True)
"""A bore from its end to its front, cut by a bar whose edge looks back."""
