"""One operation about to be planned: what every kind is given."""

from dataclasses import dataclass
from itertools import groupby

from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part
from toreuma.core.geometry.region import EMPTY, Region, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo
from toreuma.core.model import Operation, Tool
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.ground.opened import Interruption
from toreuma.core.scene import Scene
from toreuma.core.simulate.removal import SIMULATION_CHORD_MM, after_cutting, cuts_only

__all__ = ["Work"]


@dataclass(frozen=True, kw_only=True)
class Work:
    """What is given, the solids, the operation and its tool, and the stock as it is now.

    ``interruption`` is what it meets where driven tools have opened the metal before.
    """

    given: Given
    scene: Scene
    operation: Operation
    tool: Tool
    shape: ToolShape
    stock: Region
    memo: Memo
    interruption: Interruption | None = None

    @property
    def limit_z(self) -> float:
        """The smallest z of the nose centre, whatever its radius, that keeps the tool clear of jaws and chuck."""
        reach = max(-float(piece[:, 0].min()) for piece in (*self.shape.bodies, self.shape.core))
        clearance = self.given.hold.tool_clearance_mm + self.shape.nose_radius
        return self.scene.clear_z + reach + clearance

    @property
    def blocked_by_centre(self) -> Region:
        """Nose centres at which insert or holder would come too close to the centre; empty without one."""
        if self.scene.centre.is_empty:
            return EMPTY
        return self.memo.of(_blocked_by, self.scene.centre, self.shape, self.given.hold.tool_clearance_mm)

    def after(self, motions: tuple[Motion, ...], chord_mm: float = SIMULATION_CHORD_MM) -> Region:
        """The stock after these moves, each made with the tool of its station."""
        stock = self.stock
        for station, run in groupby(motions, key=lambda motion: motion.station):
            tool = next((one for one in self.given.tools if one.station == station), self.tool)
            shape = self.shape if tool == self.tool else shape_of(tool)
            stock = self.memo.of(after_cutting, stock, cuts_only(run), shape, chord_mm)
        return stock


def _blocked_by(solid: Region, shape: ToolShape, clearance_mm: float) -> Region:
    insert = blocked_by_part(solid, shape, clearance_mm, clearance_mm)
    return union([insert, blocked_by_body(solid, shape.bodies, clearance_mm)])
