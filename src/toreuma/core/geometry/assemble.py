"""From loose lines and arcs of a half section, drawn or spun out of a solid, to the region that is metal.

The axis closes what stands open on it. Among the faces that the lines enclose, those that lie on the axis with
another one above them all along are hollow: a bore. All others are metal. Lines inside the metal, such as visible
edges, vanish with the union.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Points, Segment
from toreuma.core.geometry.region import Region, polygons, union

__all__ = ["Gap", "metal_of"]

ON_AXIS_MM = 1e-4
ABOVE_MM = 1e-3
HOLLOW_SHARE = 0.98
"""Share of a face's length along the axis that must have metal above it for the face to be a bore."""

SNAP_MM = 1e-5


@dataclass(frozen=True)
class Gap:
    """Two loose ends that were joined, and how far apart they were, mm."""

    at: tuple[float, float]
    width_mm: float


def metal_of(segments: Sequence[Segment], gap_mm: float) -> tuple[Region, list[Gap]]:
    """The metal a half section encloses, and the gaps closed on the way. All r at or above 0.

    Raises `PartError` when nothing is enclosed.
    """
    if not segments:
        raise PartError(-1, "", "there are no lines or arcs to make a profile of", "choose other layers", "outside")
    lines = [segment.points() for segment in segments]
    gaps = _close_gaps(lines, gap_mm)
    z = np.concatenate([line[:, 0] for line in lines])
    axis = np.array([[z.min() - 1.0, 0.0], [z.max() + 1.0, 0.0]])
    noded = shapely.union_all([shapely.LineString(line) for line in (*lines, axis)], grid_size=SNAP_MM)
    faces = [face for face in shapely.get_parts(shapely.polygonize([noded])) if face.area > 1e-9]
    if not faces:
        raise PartError(
            -1, "", "the lines enclose no area", f"close the profile, or allow gaps above {gap_mm:g} mm", "outside"
        )
    metal = union(face for face in faces if not _is_hollow(face, faces))
    return max(polygons(metal), key=lambda piece: piece.area), gaps


def _close_gaps(lines: list[Points], gap_mm: float) -> list[Gap]:
    """Run loose ends that nearly meet on to where they cross, and those that nearly touch the axis onto it."""
    ends = [(index, place) for index in range(len(lines)) for place in (0, -1)]
    points = np.array([lines[index][place] for index, place in ends])
    gaps: list[Gap] = []
    for number in range(len(ends)):
        here = points[number].copy()
        away = np.hypot(*(points - here).T)
        away[number] = np.inf
        nearest = int(away.argmin())
        if away[nearest] < SNAP_MM / 10:
            continue
        if away[nearest] <= gap_mm:
            gaps.append(Gap((float(here[0]), float(here[1])), float(away[nearest])))
            meeting = _crossing(lines, ends[number], ends[nearest], 2 * gap_mm)
            for which in (number, nearest):
                points[which] = meeting
        elif 0 < abs(here[1]) <= gap_mm:
            points[number, 1] = 0.0
        for which in (number, nearest):
            line, at = ends[which]
            lines[line] = lines[line].copy()
            lines[line][at] = points[which]
    return gaps


def _crossing(lines: list[Points], first: tuple[int, int], second: tuple[int, int], within_mm: float) -> Points:
    """Where two ends, run on straight, cross; the second end when they run alike or cross far away."""
    (p, u), (q, v) = (_end_and_way(lines[line], place) for line, place in (first, second))
    cross = float(u[0] * v[1] - u[1] * v[0])
    if abs(cross) < 1e-3:
        return q
    along = float((q[0] - p[0]) * v[1] - (q[1] - p[1]) * v[0]) / cross
    meeting = p + along * u
    return np.asarray(meeting) if max(np.hypot(*(meeting - p)), np.hypot(*(meeting - q))) <= within_mm else q


def _end_and_way(line: Points, place: int) -> tuple[Points, Points]:
    """An end of a polyline and the direction in which it points outward."""
    end, before = (line[0], line[1]) if place == 0 else (line[-1], line[-2])
    way = end - before
    return end, way / np.hypot(*way)


def _is_hollow(face: Region, faces: Sequence[Region]) -> bool:
    """The face lies on the axis and another lies directly above it nearly everywhere."""
    low, bottom, high, _ = face.bounds
    if bottom > ON_AXIS_MM:
        return False
    places = np.linspace(low, high, 65)[1:-1]
    tops = []
    for z in places:
        column = face.intersection(shapely.LineString([(z, -1.0), (z, 1e5)]))
        if column.is_empty or column.length < ON_AXIS_MM:
            continue
        tops.append((float(z), float(column.bounds[3])))
    probes = shapely.points([(z, r + ABOVE_MM) for z, r in tops])
    covered = np.zeros(len(tops), dtype=bool)
    for other in faces:
        if other is not face:
            covered |= shapely.intersects(other, probes)
    return bool(len(tops)) and float(covered.mean()) >= HOLLOW_SHARE
