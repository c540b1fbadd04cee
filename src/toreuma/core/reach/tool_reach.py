"""What a tool reaches on a part in its hold, what it leaves, and what stands in its way.

The free positions of the nose are what is left of the half plane when everything blocked is taken away, as far as it
hangs together with where the tool comes from. Outside tools come from above, tools in a bore from the axis in front,
face tools from the front. What the cutting part covers from there is reached; the rest of the metal is left over.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.minkowski import sum_with
from toreuma.core.geometry.reach import blocked_by_body
from toreuma.core.geometry.region import EMPTY, Region, about, box, mirrored_at_axis, polygons, union
from toreuma.core.geometry.shape import ToolShape, grow
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Tool
from toreuma.core.scene import Scene, once_a_scene

__all__ = ["Surface", "ToolReach", "near_body", "reach_of_shape", "reach_on", "surface_metal"]

SurfaceKind = Literal["outside", "bore", "front", "groove"]

CHORD_MM = 0.002
SIMPLE_MM = 0.002
"""The part is simplified this far: leftovers are judged in hundredths of a square millimetre."""

LEAST_MM = 0.004
"""Leftover thinner than this is what chords and simplifying make."""

BODY_CLEAR_MM = 0.3
STEM_SHARE = 0.04
"""A stem is a little slimmer than its blade: it keeps clear of the walls by this share of the blade's width."""

MARGIN_MM = 60.0

JAW_ROOM_MM, LAST_JAW_ROOM_MM = 4.0, 1.0
"""What lies closer to the jaws than this is for the second hold; in that one the tool decides."""


@dataclass(frozen=True)
class Surface:
    """A surface to be cut; ``feature`` is the index of a groove among the part's features."""

    kind: SurfaceKind
    feature: int = -1

    @property
    def words(self) -> str:
        return {"outside": "the outside", "bore": "the bore", "front": "the front face", "groove": "the groove"}[
            self.kind
        ]


@dataclass(frozen=True)
class ToolReach:
    """``leftover`` is the metal of the surface that the tool does not get at, mm and mm2 in the half section.

    ``free`` are the nose positions it can take.
    """

    leftover: Region
    free: Region

    @property
    def area_mm2(self) -> float:
        return float(self.leftover.area)


ABOVE_MM, STANDS_SHARE = 0.05, 0.5
"""Looked at so far above ridges; ridges that fill this share of their ring have been rolled."""


@once_a_scene
def surface_metal(scene: Scene, surface: Surface) -> Region:
    """The metal that has to go for a surface, between blank and part."""
    stock, back = scene.stock, scene.profile.back_z
    if surface.kind == "groove":
        void = next((one for index, one in scene.shape.voids if index == surface.feature), None)
        return EMPTY if void is None else void.cut.intersection(scene.shape.solid)
    if surface.kind == "bore":
        void_region = scene.shape.void
        inside = EMPTY if void_region is None else void_region
        return stock.intersection(inside).intersection(box(back, 0, scene.profile.front_z, 1e4))
    if surface.kind == "front":
        return stock.intersection(box(scene.profile.front_z, 0, 1e4, 1e4))
    end = _outside_end(scene)
    whole = _filled(scene)
    return stock.intersection(box(end, 0, scene.profile.front_z, 1e4)).difference(union([whole, rolled_on(scene)]))


@once_a_scene
def rolled_on(scene: Scene) -> Region:
    """The ridges that another hold has rolled: they stand on the blank, with no metal above them to be turned off."""
    if not scene.cut_before:
        return EMPTY
    found = []
    for ring in polygons(scene.shape.ridges):
        z0, _, z1, high = ring.bounds
        above = box(z0, high + ABOVE_MM, z1, high + 2 * ABOVE_MM)
        standing = scene.stock.intersection(ring).area > STANDS_SHARE * ring.area
        if standing and not scene.stock.intersects(above):
            found.append(ring)
    return union(found)


def _outside_end(scene: Scene) -> float:
    """Where turning the outside ends: before the back edge, and clear of the hold."""
    edge = scene.profile.segments[scene.profile.outside_end - 1].end[0]
    room = LAST_JAW_ROOM_MM if scene.cut_before else JAW_ROOM_MM
    free = edge if edge >= scene.clear_z else max(edge, scene.clear_z + room)
    return free if scene.ends_z is None else max(free, scene.ends_z)


@once_a_scene
def _filled(scene: Scene) -> Region:
    """The part with bores and grooves full."""
    points = scene.profile.points
    return shapely.Polygon(points).buffer(0)


def reach_on(scene: Scene, tool: Tool, surface: Surface) -> ToolReach:
    """What of a surface a tool reaches, in its holder and past the hold."""
    return reach_of_shape(scene, shape_of(tool), surface)


def reach_of_shape(
    scene: Scene, shape: ToolShape, surface: Surface, with_body: bool = True, with_hold: bool = True
) -> ToolReach:
    """As `reach_on` for a bare shape; ``with_body`` and ``with_hold`` leave holder or jaws out, to tell them apart."""
    key = ("reach_of_shape", shape.key, surface, with_body, with_hold)
    if key not in scene.known:
        scene.known[key] = _reach(scene, shape, surface, with_body, with_hold)
    return scene.known[key]  # type: ignore[no-any-return]


def _reach(scene: Scene, shape: ToolShape, surface: Surface, with_body: bool, with_hold: bool) -> ToolReach:
    metal = surface_metal(scene, surface)
    if metal.is_empty:
        return ToolReach(EMPTY, EMPTY)
    target = _target(scene, surface)
    window, gate = _window(metal, surface, shape)
    blocked = [_blocked_by_edge(target, shape, window)]
    lowest = -1e6 if surface.kind == "bore" or shape.tip[1] > 0 else 0.0
    if with_body:
        near = near_body(scene, surface)
        stems = [piece for piece in shape.bodies if shape.is_blade and _follows(piece, shape)]
        others = [piece for piece in shape.bodies if not any(piece is one for one in stems)]
        blocked.append(blocked_by_body(near, others, BODY_CLEAR_MM, lowest, window))
        if stems:
            blocked.append(blocked_by_body(near, stems, STEM_SHARE * _width(shape), lowest, window))
    if with_hold and not scene.fixed.is_empty:
        pieces = [*shape.bodies, shape.core] if with_body else [shape.core]
        clear = BODY_CLEAR_MM + shape.nose_radius
        blocked.append(blocked_by_body(_hold(scene, surface), pieces, clear, lowest, window))
    pieces_free = [piece for piece in polygons(window.difference(union(blocked))) if piece.intersects(gate)]
    free = union(pieces_free) if pieces_free else EMPTY
    near = about(metal, shape.nose_radius)
    covered = grow(sum_with(free, shape.core, near), shape.nose_radius, CHORD_MM) if not free.is_empty else EMPTY
    left = metal.difference(covered)
    return ToolReach(_worth(left), free)


def _width(shape: ToolShape) -> float:
    """Of a blade: along Z, of one that goes into a face on radius."""
    return float(np.ptp(shape.core[:, 1 if _is_facing(shape) else 0])) + 2 * shape.nose_radius


def _is_facing(shape: ToolShape) -> bool:
    """What carries it stands behind it along Z, as with a blade for faces."""
    last = shape.bodies[-1] if shape.bodies else shape.core
    return bool(last[:, 0].max() > last[:, 1].max())


def _follows(piece: Points, shape: ToolShape) -> bool:
    """The stem of a blade, which goes into the groove behind its edge."""
    across = 1 if _is_facing(shape) else 0
    low, high = shape.core[:, across].min() - shape.nose_radius, shape.core[:, across].max() + shape.nose_radius
    return bool((piece[:, across] > low).all() and (piece[:, across] < high).all())


def _target(scene: Scene, surface: Surface) -> Region:
    """What must not be cut, both halves."""
    if surface.kind == "groove":
        return _both(scene, "part")
    if surface.kind in ("outside", "front"):
        return _both(scene, "filled")
    return _both(scene, "bored")


@once_a_scene
def _both(scene: Scene, which: str) -> Region:
    if which == "part":
        half = scene.part
    elif which == "filled":
        half = _filled(scene)
        back = scene.profile.back_z
        end_r = float(scene.profile.segments[scene.profile.outside_end - 1].end[1])
        half = half.union(box(back - MARGIN_MM, 0, back, end_r))
    else:
        half = scene.shape.solid
    return mirrored_at_axis(half.simplify(SIMPLE_MM), MARGIN_MM * 4)


@once_a_scene
def near_body(scene: Scene, surface: Surface) -> Region:
    """What bodies stay clear of: the part, and the blank behind it."""
    back = scene.profile.back_z
    behind = union(polygons(scene.stock.intersection(box(-1e4, 0, back, 1e4))))  # a face that only touches is none
    if surface.kind == "bore":
        through = scene.shape.void
        behind = behind if through is None else behind.difference(box(-1e4, 0, back, _bore_end_r(scene)))
        return mirrored_at_axis(union([scene.shape.solid, behind]), MARGIN_MM * 4)
    part = scene.part if surface.kind == "groove" else _filled(scene)
    if surface.kind == "front":  # whatever is turned off later stands beside the face
        part = union([part, scene.stock.intersection(box(-1e4, 0, scene.profile.front_z, 1e4))])
    return mirrored_at_axis(union([part, behind]), 3.0)


def _bore_end_r(scene: Scene) -> float:
    """Radius a through bore leaves open behind the part; 0 for a blind one."""
    void, back = scene.shape.void, scene.profile.back_z
    if void is None or void.bounds[0] > back + 1e-6:
        return 0.0
    return float(shapely.intersection(void, shapely.LineString([(back + 1e-3, 0), (back + 1e-3, 1e4)])).bounds[3])


@once_a_scene
def _hold(scene: Scene, surface: Surface) -> Region:
    return mirrored_at_axis(scene.fixed, MARGIN_MM * 4) if surface.kind == "bore" else scene.fixed


def _blocked_by_edge(target: Region, shape: ToolShape, window: Region) -> Region:
    core = -shape.guarded_core if shape.tip[1] <= 0 else -shape.widened_core
    return grow(sum_with(target, core, about(window, shape.nose_radius)), shape.nose_radius, CHORD_MM)


def _window(metal: Region, surface: Surface, shape: ToolShape) -> tuple[Region, Region]:
    """Where the nose may be, near the metal, and the part of it where the tool comes from."""
    z0, r0, z1, r1 = metal.bounds
    edge = shape.nose_radius + 0.5
    away = 2.0 * shape.nose_radius + 2.0
    if surface.kind == "bore":
        window = box(z0 - away, -edge, z1 + away + MARGIN_MM / 4, r1 + away)
        gate = box(z1 + away, -edge, z1 + away + MARGIN_MM / 4, r1)
    elif surface.kind == "front" or (shape.tip[0] != 0 and shape.tip[1] == 0):
        window, gate = box(z0 - away, -edge, z1 + 2 * away, r1 + 2 * away), box(z1 + away, -edge, z1 + 2 * away, r1)
    elif shape.tip[1] > 0:
        window = box(z0 - away, max(r0 - MARGIN_MM, -edge), z1 + away, r1 + away)
        gate = box(z0 - away, max(r0 - MARGIN_MM, -edge), z1 + away, max(r0 - MARGIN_MM, -edge) + 1.0)
    else:
        top = r1 + away
        window, gate = box(z0 - away, -edge, z1 + away, top + 1), box(z0 - away, top, z1 + away, top + 1)
    return window, gate


def _worth(left: Region) -> Region:
    """The leftover without films."""
    return left.buffer(-LEAST_MM / 2, quad_segs=2).buffer(LEAST_MM / 2, quad_segs=2)
