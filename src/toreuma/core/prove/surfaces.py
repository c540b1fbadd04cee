"""Every surface of the finished piece held against the drawn one: how far metal stands above it or is missing."""

from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job
from toreuma.core.model.part import Element, turned_size
from toreuma.core.prove.threads import allowed_by_threads
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["SurfaceMade", "surfaces_made"]

PLACES = 33
CORNER_MM, MOST_SHARE = 1.2, 0.3
"""Left out beside each end, where noses round the corner: so much, at most so much of the surface."""

SAME_MM = 1e-4
AXIS_MM = 1e-3
FREE_UM = 5.0
"""Allowed on radius where the drawing gives no limits: a hundredth on diameter."""

STANDS_UM = 50.0
"""More metal than this is what no finishing cut has been at."""


@dataclass(frozen=True, kw_only=True)
class SurfaceMade:
    """A surface as it was cut. ``points`` (n, 2) lie on it, (z, r) in mm; ``over_um`` stands above it at most,
    ``under_um`` is missing at most, both square to it; ``allowed_um`` is half of its limits, on radius.

    ``bounded`` tells that the drawing gives limits.
    """

    name: str
    side: str
    points: Points
    over_um: float
    under_um: float
    allowed_um: float
    bounded: bool

    @property
    def cut(self) -> bool:
        """A finishing cut has been there."""
        return self.over_um < STANDS_UM

    @property
    def deviation_um(self) -> float:
        """The larger of both, with its sign: positive where metal stands."""
        return self.over_um if self.over_um >= self.under_um else -self.under_um

    @property
    def share(self) -> float:
        """Share of what is allowed."""
        return abs(self.deviation_um) / self.allowed_um

    @property
    def middle(self) -> tuple[float, float]:
        z, r = self.points[len(self.points) // 2]
        return float(z), float(r)


def surfaces_made(job: Job, scene: Scene, final: Region) -> tuple[SurfaceMade, ...]:
    """All surfaces of the outside, the bore, and grooves and holes, front to back.

    Threads are left out: they are measured by themselves.
    """
    drawn, threads = shapely.boundary(scene.part), allowed_by_threads(job, scene)
    found = []
    for name, side, element, points in _surfaces(job, scene):
        free = points[points[:, 1] > AXIS_MM]
        free = free[shapely.distance(shapely.points(free), drawn) < SAME_MM] if len(free) else free
        free = free[~shapely.intersects(shapely.points(free), threads)] if len(free) else free
        if len(free) < 2:
            continue
        over, under = _deviations(free, final)
        size = turned_size(element, side) if element is not None else None
        allowed = (size.upper_um - size.lower_um) / 4 if size is not None else FREE_UM
        found.append(
            SurfaceMade(
                name=name,
                side=side,
                points=free,
                over_um=over,
                under_um=under,
                allowed_um=max(allowed, 0.5),
                bounded=size is not None,
            )
        )
    return tuple(found)


def _surfaces(job: Job, scene: Scene) -> list[tuple[str, str, Element | None, Points]]:
    found: list[tuple[str, str, Element | None, Points]] = []
    chains = [("outside", job.part.outside, scene.profile)]
    if scene.shape.bore is not None:
        chains.append(("inside", job.part.inside, scene.shape.bore))  # type: ignore[arg-type]
    for side, elements, chain in chains:
        for segment, index, corner in zip(chain.segments, chain.elements, chain.corners, strict=True):
            if corner or index >= len(elements) or segment.length < SAME_MM:
                continue
            element = elements[index]
            level = abs(segment.start[1] - segment.end[1]) < SAME_MM
            name = element.name or said("Ø {}", q(element.d_mm, "mm", "g", bare=True))
            inner = min(CORNER_MM / segment.length, MOST_SHARE)
            points = np.array([segment.at(share) for share in np.linspace(inner, 1 - inner, PLACES)])
            found.append((name, side, element if level else None, points))
    boundary = shapely.boundary(scene.part)
    for index, void in scene.shape.voids:
        feature = job.part.features[index]
        edge = shapely.intersection(boundary, void.cut.buffer(SAME_MM))
        for piece in shapely.get_parts(shapely.line_merge(edge)):
            if piece.geom_type == "LineString" and piece.length > CORNER_MM / 4:
                shares = np.linspace(0.02, 0.98, PLACES)
                points = shapely.get_coordinates(shapely.line_interpolate_point(piece, shares, normalized=True))
                side = "inside" if getattr(feature, "side", "") == "inside" else "outside"
                found.append((feature.name or feature.kind.replace("_", " "), side, None, points))
    return found


def _deviations(points: Points, final: Region) -> tuple[float, float]:
    """How far, um, metal stands above the points and is missing below them at most."""
    places = shapely.points(points)
    away = 1000 * shapely.distance(places, shapely.boundary(final))
    stands = shapely.contains_properly(final, places)
    return float(away[stands].max(initial=0.0)), float(away[~stands].max(initial=0.0))
