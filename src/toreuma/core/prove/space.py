"""The machine at one moment of a run as bodies in space, a quarter cut away toward the one who looks.

x points up, to carriers above the axis; z along the main spindle; y toward the one who looks.
"""

from collections import OrderedDict
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.meshes import Mesh, mesh_of
from toreuma.core.geometry.region import Region, box, polygons
from toreuma.core.geometry.solids import Solid, joined, prism, revolved, turned_about_z
from toreuma.core.geometry.tool_shapes import ROUND
from toreuma.core.model import Carrier, Tool
from toreuma.core.model.tool import BoringTool, Drill, Mill, Reamer, Tap, ThreadMill
from toreuma.core.motion import Motion
from toreuma.core.prove.driven_cuts import DrivenCuts, DrivenTool
from toreuma.core.prove.run import Stand
from toreuma.core.prove.scenery import Held, Scenery, Where

__all__ = ["Body", "BodyKind", "Space"]

BodyKind = Literal["metal", "jaws", "chuck", "holder", "edge"]

FACETS, FINE = 96, 128
SIMPLE_MM = 0.02
"""A picture needs no more than this."""

JAW_DEG, QUARTER_MM = 44.0, 2000.0
INSERT_MM, PROUD_MM, SHANK_SHARE = 5.0, 0.5, 0.9
"""Thickness of inserts and blades, and how far they stand out of their seat; depth of a shank over its width."""

KEEP = 12

SIDEWAYS = np.array([[0.0, 1.0, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [1.0, 0.0, 0.0, 0.0]])
"""From an outline (z, x) drawn out along y to (x, y, z)."""


@dataclass(frozen=True)
class Body:
    """A body to be drawn where ``place`` (4, 4) puts it."""

    kind: BodyKind
    mesh: Mesh
    place: npt.NDArray[np.float64]


class Space:
    """Bodies of a run. What does not change is made once; the metal is made anew as it is cut."""

    def __init__(self, scenery: Scenery) -> None:
        self._scenery = scenery
        self._run = scenery.run
        self._tools: dict[tuple[int, bool, bool], tuple[tuple[BodyKind, Mesh], ...]] = {}
        self._driven: dict[int, DrivenTool] = {}
        self._holds: dict[tuple[Where, bool], tuple[tuple[BodyKind, Mesh], ...]] = {}
        self._metal: OrderedDict[object, Mesh] = OrderedDict()
        self._groups: dict[tuple[Where, int], list[tuple[float, Solid]]] = {}

    @cached_property
    def reach(self) -> tuple[float, float, float]:
        """Smallest and largest z and the largest r of both holds at the start, mm."""
        first, second = self._scenery.at(0.0).holds
        bounds = shapely.total_bounds([one for one in (first.body, first.jaws, second.body, second.jaws, first.metal)
                                       if not one.is_empty])  # fmt: skip
        return float(bounds[0]), float(bounds[2]), float(bounds[3])

    def at(self, seconds: float) -> list[Body]:
        """Everything there is at a time."""
        moment = self._scenery.at(seconds)
        found: list[Body] = []
        for held in moment.holds:
            along = 0.0 if held.where == "main" else held.zero
            found += [Body(kind, mesh, _moved(0.0, 0.0, along)) for kind, mesh in self._hold(held)]
            if not held.metal.is_empty:
                found.append(Body("metal", self._metal_of(held, seconds, moment.stands), np.eye(4)))
        for stand in moment.stands:
            found += self._tool(stand, seconds)
        return found

    # Holds

    def _hold(self, held: Held) -> tuple[tuple[BodyKind, Mesh], ...]:
        """Chuck and jaws, counted from the zero of their side."""
        key = held.where, held.is_open
        if key not in self._holds:
            along = 0.0 if held.where == "main" else held.zero
            body, jaws = (shapely.transform(one, lambda p: p - [along, 0.0]) for one in (held.body, held.jaws))
            hold = (self._run.job.setup if held.where == "main" else self._run.job.setups[-1]).hold
            gripping = revolved(jaws.simplify(SIMPLE_MM), FINE)
            if hold.kind == "chuck":
                gripping = gripping ^ joined(_sector(45.0 + 60.0 + 120.0 * n) for n in range(3))
            chuck = revolved(body.simplify(SIMPLE_MM), FINE)
            self._holds[key] = ("chuck", mesh_of(chuck - _quarter())), ("jaws", mesh_of(gripping - _quarter()))
        return self._holds[key]

    # Metal

    def _metal_of(self, held: Held, seconds: float, stands: tuple[Stand, ...]) -> Mesh:
        """The metal a spindle holds: turned, less what driven tools took, turned to its angle."""
        gone = self._gone(held, seconds)
        c_deg = next((s.motion.driven.c_deg for s in stands if s.motion.driven is not None
                      and s.motion.second == (held.where == "second")), 0.0)  # fmt: skip
        c_deg = c_deg if held.where == "main" else -c_deg
        key = shapely.to_wkb(held.metal), len(gone), round(c_deg, 2), round(held.zero, 3)
        if key not in self._metal:
            outline = held.metal.simplify(SIMPLE_MM)
            if gone:
                solid = turned_about_z(revolved(outline, FACETS) - joined(gone), -c_deg) - _quarter()
            else:
                solid = revolved(outline, FACETS, 270.0).rotate((0.0, 0.0, 90.0))
            self._metal[key] = mesh_of(solid)
            if len(self._metal) > KEEP:
                self._metal.popitem(last=False)
        self._metal.move_to_end(key)
        return self._metal[key]

    def _gone(self, held: Held, seconds: float) -> list[Solid]:
        """Bodies of what driven tools have cut of the part a spindle holds, in the machine's places."""
        if held.part < 0:
            return []
        main = self._bodies("main", held.part, seconds)
        if held.where == "main":
            return main
        by = held.zero - self._run.scenes[0].profile.back_z
        there = [one.rotate((180.0, 0.0, 0.0)).translate((0.0, 0.0, held.zero))
                 for one in self._bodies("second", held.part, seconds)]  # fmt: skip
        return [*(one.translate((0.0, 0.0, by)) for one in main), *there]

    def _bodies(self, where: Where, number: int, seconds: float) -> list[Solid]:
        """What is cut at one angle by one tool is one body, there once its last move has ended."""
        key = where, number
        if key not in self._groups:
            groups: list[tuple[float, Solid]] = []
            moves: list[Motion] = []
            ended = 0.0
            every = self._scenery.driven_before(where, number, float("inf"))
            for index, (motion, end_s) in enumerate(every):
                after = every[index + 1][0] if index + 1 < len(every) else None
                moves.append(motion)
                ended = end_s
                if after is None or _place(after) != _place(motion):
                    groups.append((ended, self._cut(moves)))
                    moves = []
            self._groups[key] = groups
        return [body for end_s, body in self._groups[key] if end_s <= seconds + 1e-9]

    def _cut(self, moves: list[Motion]) -> Solid:
        cuts = DrivenCuts()
        for motion in moves:
            tool = self._driven_tool(motion.station)
            if tool is not None and motion.length > 1e-9 and not isinstance(tool.tool, ThreadMill):
                cuts.add(motion, tool)
        return joined(body for _, body in cuts.bodies())

    # Tools

    def _driven_tool(self, station: int) -> DrivenTool | None:
        if station not in self._driven:
            tool = next((one for one in self._run.job.tools if one.station == station), None)
            if not isinstance(tool, Drill | Reamer | Tap | Mill):
                return None
            self._driven[station] = DrivenTool.of(tool)
        return self._driven[station]

    def _tool(self, stand: Stand, seconds: float) -> list[Body]:
        below, second = stand.carrier.side == "below", stand.motion.second
        key = stand.tool.station, below, second
        if key not in self._tools:
            self._tools[key] = self._shapes(stand.tool, stand.carrier, second)
        z, x = stand.tip
        y = self._y(stand, seconds)
        return [Body(kind, mesh, _moved(x, -y if below else y, z)) for kind, mesh in self._tools[key]]

    def _y(self, stand: Stand, seconds: float) -> float:
        """Square to X and Z, where the tool is driven across."""
        leg = self._run.leg_at(stand.channel, seconds)
        if leg is None or leg.motion.driven is None:
            return 0.0
        from_y, to_y = leg.motion.driven.y
        long = leg.end_s - leg.start_s
        share = min(max((seconds - leg.start_s) / long, 0.0), 1.0) if leg.moves and long > 0 else 1.0
        return from_y + share * (to_y - from_y)

    def _shapes(self, tool: Tool, carrier: Carrier, second: bool) -> tuple[tuple[BodyKind, Mesh], ...]:
        """A tool from its programmed point, the way it stands on its carrier."""
        shape = self._run.shape(tool.station)
        if shape is None:
            return ()
        tip = shape.tip
        if isinstance(tool, ROUND) and tool.mount != "radial":
            solids: list[tuple[BodyKind, Solid]] = [
                ("holder", joined(_about_axis(shapely.MultiPoint(piece).convex_hull, tip) for piece in shape.bodies)),
                ("edge", _about_axis(shape.cutting, tip)),
            ]
        elif isinstance(tool, ROUND):
            driven = self._driven_tool(tool.station)
            standing = np.array([[0.0, 0.0, 1.0, 0.0], [0.0, 1.0, 0.0, 0.0], [1.0, 0.0, 0.0, 0.0]])
            bodies = driven.bodies if driven is not None else ()
            solids = [("holder", joined(bodies).transform(standing))]
            solids += [("edge", driven.rough.transform(standing))] if driven is not None else []
        else:
            half = tool.bar.diameter_mm / 2 if isinstance(tool, BoringTool) else 0.0
            solids = [
                (
                    "holder",
                    joined(_sideways(shapely.MultiPoint(piece).convex_hull, tip, half) for piece in shape.bodies),
                ),
                ("edge", _sideways(shape.cutting, tip, 0.0, INSERT_MM)),
            ]
        found: list[tuple[BodyKind, Mesh]] = []
        for kind, solid in solids:
            stood = _other_way(solid) if second else solid
            found.append((kind, mesh_of(turned_about_z(stood, 180.0) if carrier.side == "below" else stood)))
        return tuple(found)


def _place(motion: Motion) -> tuple[int, int, float]:
    return motion.section, motion.station, motion.driven.c_deg if motion.driven is not None else 0.0


def _other_way(solid: Solid) -> Solid:
    """End for end; made anew, because a body that is only seen mirrored keeps the old directions of its surface."""
    return Solid(solid.mirror((0.0, 0.0, 1.0)).to_mesh())


def _moved(x: float, y: float, z: float) -> npt.NDArray[np.float64]:
    place = np.eye(4)
    place[:3, 3] = x, y, z
    return place


def _quarter() -> Solid:
    """The quarter toward the one who looks."""
    return Solid.cube((QUARTER_MM, QUARTER_MM, 2 * QUARTER_MM)).translate((0.0, 0.0, -QUARTER_MM))


def _sector(middle_deg: float) -> Solid:
    """A wedge along the axis."""
    angles = np.radians([middle_deg - JAW_DEG / 2, middle_deg, middle_deg + JAW_DEG / 2])
    outline = np.vstack([[0.0, 0.0], np.column_stack([np.cos(angles), np.sin(angles)]) * QUARTER_MM])
    return prism([outline], -QUARTER_MM, QUARTER_MM)


def _about_axis(region: Region, tip: tuple[float, float]) -> Solid:
    """A round tool about its own axis through the programmed point."""
    upper = shapely.transform(region, lambda p: p - np.array([tip[0], 0.0])).intersection(box(-1e4, 0, 1e4, 1e4))
    return revolved(upper.simplify(SIMPLE_MM), 48)


def _sideways(region: Region, tip: tuple[float, float], half: float, thick: float = 0.0) -> Solid:
    """An outline drawn out square to the section: to both sides by ``half``, else below the plane of the edge."""
    bodies = []
    for one in polygons(region.simplify(SIMPLE_MM)):
        ring: Points = shapely.get_coordinates(one.exterior)[:-1] - np.array(tip)
        width = float(np.ptp(ring, axis=0).min())
        low, high = (-half, half) if half else (-(thick or SHANK_SHARE * width), PROUD_MM if thick else 0.0)
        bodies.append(prism([ring], low, high).transform(SIDEWAYS))
    return joined(bodies)
