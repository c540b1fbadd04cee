"""Faces of a solid seen from its turning axis: what each draws in the half section, and where it lies."""

import math
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import numpy as np

from toreuma.core.geometry.elements import Arc, Line, Points, Segment
from toreuma.core.geometry.recover import recover

__all__ = ["Face", "Frame", "RawFace", "face_of", "faces_of", "turning_axis"]

SAME_MM = 2e-3
SAME_RAD = 1e-5
EDGE_SAMPLES = 33
GENERATRIX_SAMPLES = 400


@dataclass(frozen=True, kw_only=True)
class RawFace:
    """A face of the solid with its surface and area, in the model's own coordinates."""

    face: Any
    surface: Any
    kind: str
    area: float
    points: Points


@dataclass(frozen=True)
class Frame:
    """The turning axis as z of a right-handed frame; rows of ``axes`` are its x, y, z."""

    origin: Points
    axes: Points

    def place(self, points: Points) -> Points:
        """Model points, shape (n, 3), in the frame."""
        return np.asarray((points - self.origin) @ self.axes.T)

    def way(self, direction: Points) -> Points:
        return np.asarray(self.axes @ direction)


@dataclass(frozen=True, kw_only=True)
class Face:
    """A face in the frame of the turning axis; all mm.

    ``points`` are samples of its edges, shape (n, 3). ``axis_at`` and ``axis_way`` belong to cylinders and cones,
    ``normal`` (out of the solid) to planes; ``span_rad`` is how far a cylinder reaches round; ``hollow`` tells
    that the metal lies outside it.
    """

    kind: str
    points: Points
    generatrix: tuple[Segment, ...] = ()
    radius: float = 0.0
    axis_at: Points = field(default_factory=lambda: np.zeros(3))
    axis_way: Points = field(default_factory=lambda: np.zeros(3))
    normal: Points = field(default_factory=lambda: np.zeros(3))
    span_rad: float = 0.0
    hollow: bool = False

    @property
    def turned(self) -> bool:
        return bool(self.generatrix)


def faces_of(solid: Any) -> list[RawFace]:
    """All faces with samples of their edges."""
    from OCP.BRepAdaptor import BRepAdaptor_Surface
    from OCP.BRepGProp import BRepGProp
    from OCP.GProp import GProp_GProps
    from OCP.TopAbs import TopAbs_FACE
    from OCP.TopExp import TopExp_Explorer
    from OCP.TopoDS import TopoDS

    found = []
    explorer = TopExp_Explorer(solid, TopAbs_FACE)
    while explorer.More():
        face = TopoDS.Face(explorer.Current())
        surface = BRepAdaptor_Surface(face)
        properties = GProp_GProps()
        BRepGProp.SurfaceProperties_s(face, properties)
        kind = str(surface.GetType()).rsplit("_", 1)[-1].rstrip(">").split(":")[0].strip().lower()
        found.append(RawFace(face=face, surface=surface, kind=kind, area=properties.Mass(), points=_edge_points(face)))
        explorer.Next()
    return found


def _edge_points(face: Any) -> Points:
    from OCP.BRep import BRep_Tool
    from OCP.BRepAdaptor import BRepAdaptor_Curve
    from OCP.TopAbs import TopAbs_EDGE, TopAbs_VERTEX
    from OCP.TopExp import TopExp_Explorer
    from OCP.TopoDS import TopoDS

    points = []
    explorer = TopExp_Explorer(face, TopAbs_EDGE)
    while explorer.More():
        edge = TopoDS.Edge(explorer.Current())
        if not BRep_Tool.Degenerated_s(edge):
            curve = BRepAdaptor_Curve(edge)
            for value in np.linspace(curve.FirstParameter(), curve.LastParameter(), EDGE_SAMPLES):
                point = curve.Value(float(value))
                points.append((point.X(), point.Y(), point.Z()))
        explorer.Next()
    explorer = TopExp_Explorer(face, TopAbs_VERTEX)
    while explorer.More():
        point = BRep_Tool.Pnt_s(TopoDS.Vertex(explorer.Current()))
        points.append((point.X(), point.Y(), point.Z()))
        explorer.Next()
    return np.array(points).reshape(-1, 3)


def _axis_of(raw: RawFace) -> tuple[Points, Points] | None:
    """A point on the axis of a round surface and its direction."""
    shape = {"cylinder": "Cylinder", "cone": "Cone", "torus": "Torus"}.get(raw.kind)
    if shape is not None:
        axis = getattr(raw.surface, shape)().Axis()
    elif raw.kind == "surfaceofrevolution":
        axis = raw.surface.AxeOfRevolution()
    else:
        return None
    at, way = axis.Location(), axis.Direction()
    return np.array([at.X(), at.Y(), at.Z()]), np.array([way.X(), way.Y(), way.Z()])


def turning_axis(faces: list[RawFace]) -> Frame | None:
    """The axis that the largest area is round about; None when nothing is round."""
    groups: list[tuple[Points, Points, float]] = []
    for raw in faces:
        axis = _axis_of(raw)
        if axis is None:
            continue
        at, way = axis
        for index, (other, direction, area) in enumerate(groups):
            if abs(abs(float(way @ direction)) - 1) < SAME_RAD and _off_axis(at, other, direction) < SAME_MM:
                groups[index] = (other, direction, area + raw.area)
                break
        else:
            groups.append((at, way, raw.area))
    if not groups:
        return None
    at, way, _ = max(groups, key=lambda group: group[2])
    main = int(np.abs(way).argmax())
    z = way if way[main] > 0 else -way
    helper = np.eye(3)[(main + 1) % 3]
    x = helper - (helper @ z) * z
    x /= np.linalg.norm(x)
    return Frame(at, np.array([x, np.cross(z, x), z]))


def _off_axis(point: Points, at: Points, way: Points) -> float:
    away = point - at
    return float(np.linalg.norm(away - (away @ way) * way))


def face_of(raw: RawFace, frame: Frame) -> Face:
    """A face in the frame of the turning axis, with what it draws in the half section."""
    points = frame.place(raw.points)
    makers = {
        "cylinder": _cylinder,
        "cone": _cone,
        "plane": _plane,
        "torus": _torus,
        "sphere": _sphere,
        "surfaceofrevolution": _revolved,
    }
    make = makers.get(raw.kind)
    return make(raw, frame, points) if make else Face(kind=raw.kind, points=points)


def _local_axis(raw: RawFace, frame: Frame) -> tuple[Points, Points, bool]:
    """Axis of a round surface in the frame, and whether it is the turning axis."""
    axis = _axis_of(raw)
    assert axis is not None
    at, way = frame.place(axis[0][None, :])[0], frame.way(axis[1])
    coaxial = abs(abs(way[2]) - 1) < SAME_RAD and math.hypot(at[0], at[1]) < SAME_MM
    return at, way, coaxial


def _is_reversed(raw: RawFace) -> bool:
    from OCP.TopAbs import TopAbs_REVERSED

    return bool(raw.face.Orientation() == TopAbs_REVERSED)


def _cylinder(raw: RawFace, frame: Frame, points: Points) -> Face:
    from OCP.BRepTools import BRepTools

    at, way, coaxial = _local_axis(raw, frame)
    radius = raw.surface.Cylinder().Radius()
    u0, u1, _, _ = BRepTools.UVBounds_s(raw.face)
    direct = raw.surface.Cylinder().Position().Direct()
    hollow = _is_reversed(raw) == direct
    generatrix: tuple[Segment, ...] = ()
    if coaxial:
        z0, z1 = float(points[:, 2].min()), float(points[:, 2].max())
        generatrix = (Line((z0, radius), (z1, radius)),)
    return Face(
        kind="cylinder",
        points=points,
        generatrix=generatrix,
        radius=radius,
        axis_at=at,
        axis_way=way,
        span_rad=u1 - u0,
        hollow=hollow,
    )


def _cone(raw: RawFace, frame: Frame, points: Points) -> Face:
    at, way, coaxial = _local_axis(raw, frame)
    if not coaxial:
        return Face(kind="cone", points=points, generatrix=(), radius=0.0, axis_at=at, axis_way=way)
    cone = raw.surface.Cone()
    apex = cone.Apex()
    tip = float(frame.place(np.array([[apex.X(), apex.Y(), apex.Z()]]))[0, 2])
    slope = math.tan(abs(cone.SemiAngle()))
    z0, z1 = float(points[:, 2].min()), float(points[:, 2].max())
    ends = (z0, abs(z0 - tip) * slope), (z1, abs(z1 - tip) * slope)
    return Face(kind="cone", points=points, generatrix=(Line(*ends),), radius=0.0, axis_at=at, axis_way=way)


def _plane(raw: RawFace, frame: Frame, points: Points) -> Face:
    from OCP.BRepClass import BRepClass_FaceClassifier
    from OCP.gp import gp_Pnt
    from OCP.TopAbs import TopAbs_IN

    plane = raw.surface.Plane()
    direction = plane.Axis().Direction()
    normal = frame.way(np.array([direction.X(), direction.Y(), direction.Z()]))
    if _is_reversed(raw) == plane.Position().Direct():
        normal = -normal
    if abs(abs(normal[2]) - 1) > SAME_RAD:
        return Face(kind="plane", points=points, normal=normal)
    z = float(np.median(points[:, 2]))
    r = np.hypot(points[:, 0], points[:, 1])
    low, high = float(r.min()), float(r.max())
    centre = frame.origin + frame.axes[2] * z
    inside = BRepClass_FaceClassifier(raw.face, gp_Pnt(*(float(c) for c in centre)), 1e-7)
    if inside.State() == TopAbs_IN:
        low = 0.0
    return Face(
        kind="plane", points=points, generatrix=(Line((z, low), (z, high)),) if high - low > 1e-6 else (), normal=normal
    )


def _torus(raw: RawFace, frame: Frame, points: Points) -> Face:
    from OCP.BRepTools import BRepTools

    at, way, coaxial = _local_axis(raw, frame)
    torus = raw.surface.Torus()
    major, minor = torus.MajorRadius(), torus.MinorRadius()
    if not coaxial:
        return Face(kind="torus", points=points, generatrix=(), radius=minor, axis_at=at, axis_way=way)
    _, _, v0, v1 = BRepTools.UVBounds_s(raw.face)
    up = 1.0 if way[2] > 0 else -1.0
    return Face(
        kind="torus",
        points=points,
        generatrix=_arcs((float(at[2]), major), minor, v0, v1, up),
        radius=minor,
        axis_at=at,
        axis_way=way,
    )


def _sphere(raw: RawFace, frame: Frame, points: Points) -> Face:
    """A ball about a place on the axis; its poles may lie on the face without an edge there."""
    sphere = raw.surface.Sphere()
    return _ball(raw, frame, points, sphere.Location(), sphere.Radius())


def _ball(raw: RawFace, frame: Frame, points: Points, middle: Any, radius: float) -> Face:
    at = frame.place(np.array([[middle.X(), middle.Y(), middle.Z()]]))[0]
    if math.hypot(at[0], at[1]) > SAME_MM:
        return Face(kind="sphere", points=points, generatrix=(), radius=radius, axis_at=at)
    angles = np.arctan2(points[:, 2] - at[2], np.hypot(points[:, 0], points[:, 1]))
    low, high = (float(angles.min()), float(angles.max())) if len(angles) else (-math.pi / 2, math.pi / 2)
    ends = [(a, b) for a in (low, -math.pi / 2) for b in (high, math.pi / 2)]
    # a pole on the face needs no edge there: the zone whose area comes closest is the one
    low, high = min(ends, key=lambda ab: abs(2 * math.pi * radius**2 * (math.sin(ab[1]) - math.sin(ab[0])) - raw.area))
    return Face(
        kind="sphere",
        points=points,
        generatrix=_arcs((float(at[2]), 0.0), radius, low, high, 1.0),
        radius=radius,
        axis_at=at,
    )


def _arcs(centre: tuple[float, float], radius: float, v0: float, v1: float, up: float) -> tuple[Segment, ...]:
    """Arcs from one angle to another, measured from +r toward +z (``up`` 1) or -z, of at most a third of a turn."""
    pieces = max(1, math.ceil(abs(v1 - v0) / (2 * math.pi / 3)))
    angles = np.linspace(v0, v1, pieces + 1)
    ends = [(centre[0] + up * radius * math.sin(v), max(centre[1] + radius * math.cos(v), 0.0)) for v in angles]
    clockwise = up * (v1 - v0) > 0  # growing z at falling r is a turn to the right
    return tuple(Arc(a, b, centre, clockwise) for a, b in pairwise(ends) if math.dist(a, b) > 1e-9)


def _revolved(raw: RawFace, frame: Frame, points: Points) -> Face:
    from OCP.BRepTools import BRepTools
    from OCP.GeomAbs import GeomAbs_Circle

    at, way, coaxial = _local_axis(raw, frame)
    if not coaxial:
        return Face(kind="revolved", points=points, generatrix=(), radius=0.0, axis_at=at, axis_way=way)
    u0, _, v0, v1 = BRepTools.UVBounds_s(raw.face)
    if v1 - v0 < 1e-9:  # the face closes over a pole that has no edge: only balls do
        curve = raw.surface.BasisCurve()
        if curve.GetType() != GeomAbs_Circle:
            return Face(kind="revolved", points=points, generatrix=(), radius=0.0, axis_at=at, axis_way=way)
        circle = curve.Circle()
        return _ball(raw, frame, points, circle.Location(), circle.Radius())
    found = []
    for v in np.linspace(v0, v1, GENERATRIX_SAMPLES):
        point = raw.surface.Value(u0, float(v))
        found.append((point.X(), point.Y(), point.Z()))
    local = frame.place(np.array(found))
    section = np.column_stack([local[:, 2], np.hypot(local[:, 0], local[:, 1])])
    return Face(
        kind="revolved", points=points, generatrix=tuple(recover(section, 0.001)), radius=0.0, axis_at=at, axis_way=way
    )
