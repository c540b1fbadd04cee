"""Finding one's place on the line the nose centre follows."""

import numpy as np

from toreuma.core.geometry.elements import Point, Points, Segment

__all__ = ["from_place", "nose_at_start"]


def nose_at_start(first: Segment, nose: float) -> Point:
    """The nose centre that touches the start of a profile segment.

    The metal lies to the left of the profile's direction, so the nose centre lies to its right.
    """
    dz, dr = first.tangent()
    return first.start[0] + nose * dr, first.start[1] - nose * dz


def from_place(outline: Points, place: Point) -> Points:
    """The outline (n, 2) without what lies before its point nearest to ``place``."""
    start = np.array(place)
    a, b = outline[:-1], outline[1:]
    along = b - a
    share = np.clip(((start - a) * along).sum(axis=1) / np.maximum((along**2).sum(axis=1), 1e-18), 0, 1)
    foot = a + share[:, None] * along
    nearest = int(np.hypot(*(foot - start).T).argmin())
    rest = outline[nearest + 1 :]
    if np.hypot(*(rest[0] - foot[nearest])) < 1e-7 and len(rest) > 1:
        return np.asarray(rest)
    return np.vstack([foot[nearest], rest])
