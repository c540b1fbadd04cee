"""Models out: the finished part, or the stock after a cut, as a STEP solid."""

import math
import tempfile
from collections.abc import Iterable
from pathlib import Path
from typing import Any

import shapely

from toreuma.core.errors import JobError
from toreuma.core.geometry.elements import Arc, Line, Segment
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region, polygons, rings
from toreuma.core.model import Flats, HolePattern, Part, Slot
from toreuma.core.model.feature import is_milled
from toreuma.exchange.solids import wake
from toreuma.files.writing import write_atomically

__all__ = ["part_solid", "region_solid", "write_step"]

REACH_MM = 2000.0
ON_AXIS_MM = 1e-3


def part_solid(part: Part) -> Any:
    """The finished part with its milled extras. Raises `PartError` for a part that cannot be built."""
    shape = build_part(part)
    solid = _spun(shape.outlines)
    for feature in part.features:
        if is_milled(feature):
            for tool in _cutters(feature, shape.region):
                solid = _cut(solid, tool)
    return solid


def region_solid(region: Region) -> Any:
    """A half section spun about the axis."""
    pieces = polygons(region)
    if not pieces:
        raise JobError("model", "there is no metal left to write", "choose an earlier cut")
    return _spun([recover(ring) for piece in pieces for ring in rings(piece)])


def write_step(solid: Any, path: Path) -> None:
    """Write a solid as STEP AP214, in full or not at all. Raises `JobError`."""
    from OCP.IFSelect import IFSelect_RetDone
    from OCP.Interface import Interface_Static
    from OCP.STEPControl import STEPControl_AsIs, STEPControl_Writer

    wake()
    Interface_Static.SetCVal_s("write.step.product.name", path.stem)
    writer = STEPControl_Writer()
    writer.Transfer(solid, STEPControl_AsIs)
    try:
        with tempfile.TemporaryDirectory() as folder:
            beside = Path(folder) / "out.step"
            if writer.Write(str(beside)) != IFSelect_RetDone:
                raise JobError(path.name, "the model could not be written", "free the disk")
            write_atomically(path, beside.read_bytes())
    except OSError as error:
        raise JobError(path.name, f"it cannot be written ({error.strerror})", "choose another folder") from None


def _spun(outlines: Iterable[list[Segment]]) -> Any:
    """Closed outlines in (z, r), turned about the axis; z of the part is Z of the model."""
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeRevol
    from OCP.gp import gp_Ax1, gp_Dir, gp_Pnt

    wake()
    face = _face(list(outlines))
    return BRepPrimAPI_MakeRevol(face, gp_Ax1(gp_Pnt(0, 0, 0), gp_Dir(0, 0, 1))).Shape()


def _face(outlines: list[list[Segment]]) -> Any:
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge, BRepBuilderAPI_MakeFace, BRepBuilderAPI_MakeWire
    from OCP.GC import GC_MakeArcOfCircle
    from OCP.gp import gp_Pnt

    def point(at: tuple[float, float]) -> Any:
        return gp_Pnt(at[1] if at[1] > 1e-9 else 0.0, 0.0, at[0])

    face = None
    for outline in outlines:
        wire = BRepBuilderAPI_MakeWire()
        for segment in outline:
            if isinstance(segment, Line):
                wire.Add(BRepBuilderAPI_MakeEdge(point(segment.start), point(segment.end)).Edge())
            else:
                middle = _middle(segment)
                arc = GC_MakeArcOfCircle(point(segment.start), point(middle), point(segment.end)).Value()
                wire.Add(BRepBuilderAPI_MakeEdge(arc).Edge())
        if face is None:
            face = BRepBuilderAPI_MakeFace(wire.Wire())
        else:
            face.Add(wire.Wire())
    assert face is not None
    return face.Face()


def _middle(arc: Arc) -> tuple[float, float]:
    """A place in the middle of an arc; one that ends on the axis is taken as a ball, centred on it exactly."""
    away, pole = (arc.start, arc.end) if arc.end[1] < 1e-9 else (arc.end, arc.start)
    if pole[1] > 1e-9 or abs(arc.centre[1]) > ON_AXIS_MM or abs(away[0] - pole[0]) < 1e-9:
        return arc.at(0.5)
    centre = (away[0] ** 2 + away[1] ** 2 - pole[0] ** 2) / (2 * (away[0] - pole[0]))
    radius = abs(pole[0] - centre)
    half = math.atan2(away[1], away[0] - centre) / 2
    if pole[0] < centre:
        half += math.pi / 2
    return centre + radius * math.cos(half), radius * math.sin(half)


def _cut(solid: Any, tool: Any) -> Any:
    from OCP.BRepAlgoAPI import BRepAlgoAPI_Cut

    return BRepAlgoAPI_Cut(solid, tool).Shape()


def _cutters(feature: object, region: Region) -> Iterable[Any]:
    if isinstance(feature, HolePattern):
        yield from _hole_cutters(feature, region)
    elif isinstance(feature, Flats):
        yield from _flat_cutters(feature)
    elif isinstance(feature, Slot):
        yield from _slot_cutters(feature, region)


def _angles(count: int, start: float, step: float | None) -> list[float]:
    spacing = step if step is not None else 360 / count
    return [math.radians(start + index * spacing) for index in range(count)]


def _cylinder(at: tuple[float, float, float], way: tuple[float, float, float], radius: float, length: float) -> Any:
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt

    return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(*at), gp_Dir(*way)), radius, length).Shape()


def _surface_r(region: Region, low_z: float, high_z: float) -> float:
    """Largest radius of the part over a stretch, mm."""
    held = shapely.clip_by_rect(region, low_z, 0, high_z, 1e5)
    return float(held.bounds[3]) if not held.is_empty else float(region.bounds[3])


def _hole_cutters(holes: HolePattern, region: Region) -> Iterable[Any]:
    """Flat-bottomed, as deep below the surface as the drawing says."""
    radius = holes.d_mm / 2
    low, _, high, _ = region.bounds
    outer = _surface_r(region, holes.z_mm - 1e-3, holes.z_mm + 1e-3)
    for angle in _angles(holes.count, holes.start_deg, holes.step_deg):
        c, s = math.cos(angle), math.sin(angle)
        if holes.on == "outside":
            depth = holes.depth_mm if holes.depth_mm is not None else 2 * outer + 20
            start = outer + 10
            yield _cylinder((start * c, start * s, holes.z_mm), (-c, -s, 0.0), radius, depth + 10)
            continue
        r = holes.circle_d_mm / 2
        into = -1.0 if holes.on == "front" else 1.0
        face = holes.z_mm if holes.z_mm else (high if holes.on == "front" else low)
        depth = holes.depth_mm if holes.depth_mm is not None else high - low + 20
        yield _cylinder((r * c, r * s, face - into * 10), (0.0, 0.0, into), radius, depth + 10)


def _box_beside(angle: float, near: float, half_width: float, low: float, high: float, far: float = REACH_MM) -> Any:
    """A box outward from a distance from the axis, in a direction."""
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeBox
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt

    c, s = math.cos(angle), math.sin(angle)
    corner = gp_Pnt(near * c + half_width * s, near * s - half_width * c, low)
    axes = gp_Ax2(corner, gp_Dir(0, 0, 1), gp_Dir(c, s, 0))
    return BRepPrimAPI_MakeBox(axes, far - near, 2 * half_width, high - low).Shape()


def _flat_cutters(flats: Flats) -> Iterable[Any]:
    for angle in _angles(flats.count, flats.start_deg, None):
        yield _box_beside(angle, flats.distance_mm, REACH_MM / 4, flats.to_z_mm, flats.from_z_mm)


def _slot_cutters(slot: Slot, region: Region) -> Iterable[Any]:
    """Keyways outside and inside, slots and pockets in a face."""
    low, _, high, outer = region.bounds
    half = slot.width_mm / 2
    corner = half if slot.round_ends else min(slot.corner_radius_mm, half)
    for angle in _angles(slot.count, slot.start_deg, None):
        if slot.on in ("front", "back"):
            yield from _in_face(slot, angle, corner if slot.length_mm else 0.0, (low, high, outer))
            continue
        held = shapely.clip_by_rect(region, slot.to_z_mm, 0, slot.from_z_mm, 1e5)
        if slot.on == "inside":
            yield _box_beside(angle, 0.0, half, slot.to_z_mm, slot.from_z_mm, float(held.bounds[1]) + slot.depth_mm)
            continue
        floor = float(held.bounds[3]) - slot.depth_mm
        c, s = math.cos(angle), math.sin(angle)
        for z0, z1, wide in _strips(slot.to_z_mm, slot.from_z_mm, half, corner):
            yield _box_beside(angle, floor, wide, z0, z1)
        for z, aside in _corners(slot.to_z_mm, slot.from_z_mm, half, corner):
            place = (floor * c - aside * s, floor * s + aside * c, z)
            yield _cylinder(place, (c, s, 0.0), corner, outer + 10 - floor)


def _in_face(slot: Slot, angle: float, corner: float, bounds: tuple[float, float, float]) -> Iterable[Any]:
    """A slot in a face, from outside the face to its floor."""
    low, high, outer = bounds
    half = slot.width_mm / 2
    reach = slot.length_mm / 2 if slot.length_mm else outer + 10
    off = slot.off_mm if slot.length_mm else 0.0
    face, into = (high, -slot.depth_mm) if slot.on == "front" else (low, slot.depth_mm)
    z0, z1 = sorted((face, face + into))
    z0, z1 = z0 - (slot.on == "back"), z1 + (slot.on == "front")
    c, s = math.cos(angle), math.sin(angle)
    for near, far, wide in _strips(off - reach, off + reach, half, corner):
        yield _box_beside(angle, near, wide, z0, z1, far)
    for along, aside in _corners(off - reach, off + reach, half, corner):
        yield _cylinder((along * c - aside * s, along * s + aside * c, z0), (0.0, 0.0, 1.0), corner, z1 - z0)


def _strips(low: float, high: float, half: float, corner: float) -> Iterable[tuple[float, float, float]]:
    """The straight parts of a strip with rounded corners: from, to, half its width."""
    if high - corner > low + corner:
        yield low + corner, high - corner, half
    if 0 < corner < half:
        yield low, high, half - corner


def _corners(low: float, high: float, half: float, corner: float) -> Iterable[tuple[float, float]]:
    """Middles of its corners, along and aside."""
    if corner > 0:
        asides = sorted({corner - half, half - corner})
        yield from ((along, aside) for along in (low + corner, high - corner) for aside in asides)
