"""What every operation kind is given, and how it writes its moves."""

from dataclasses import dataclass
from itertools import groupby

from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part
from toreuma.core.geometry.region import EMPTY, Region, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo, fingerprint
from toreuma.core.model import DrillHole, Job, Operation, PartOff, Tool
from toreuma.core.model.tool import Drill
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.opened import Interruption
from toreuma.core.scene import Scene
from toreuma.core.simulate.removal import SIMULATION_CHORD_MM, after_cutting

__all__ = ["Work", "part_off_width_mm"]


IN_THE_HOLE = ("drill", "tap", "ream", "rough_bore", "finish_bore")


@dataclass(frozen=True)
class Work:
    """One operation about to be planned: the job, the solids, the tool, and the stock as it is now.

    ``interruption`` is what it meets where driven tools have opened the metal before.
    """

    job: Job
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
        clearance = self.job.setup.hold.tool_clearance_mm + self.shape.nose_radius
        return self.scene.clear_z + reach + clearance

    @property
    def blocked_by_centre(self) -> Region:
        """Nose centres at which insert or holder would come too close to the centre; empty without one."""
        centre = self.scene.centre
        if centre.is_empty:
            return EMPTY
        clearance = self.job.setup.hold.tool_clearance_mm

        def compute() -> Region:
            insert = blocked_by_part(centre, self.shape, clearance, clearance)
            return union([insert, blocked_by_body(centre, self.shape.bodies, clearance)])

        return self.memo.get(("centre", self.tool, fingerprint(centre), clearance), compute)

    def after(self, motions: tuple[Motion, ...], chord_mm: float = SIMULATION_CHORD_MM) -> Region:
        """The stock after these moves, each made with the tool of its station."""
        stock = self.stock
        for station, run in groupby(motions, key=lambda motion: motion.station):
            stock = self._after_run(stock, tuple(run), self._at_station(station), chord_mm)
        return stock

    def _at_station(self, station: int) -> Tool:
        if station == self.tool.station:
            return self.tool
        used = [self.job.tool(one) for one in self.operation.tools]
        return next((tool for tool in used if tool is not None and tool.station == station), self.tool)

    def _after_run(self, stock: Region, motions: tuple[Motion, ...], tool: Tool, chord_mm: float) -> Region:
        way = tuple((motion.segment, motion.is_rapid) for motion in motions)
        shape = self.shape if tool == self.tool else shape_of(tool)
        key = ("after", way, tool, fingerprint(stock), chord_mm)
        return self.memo.get(key, lambda: after_cutting(stock, motions, shape, chord_mm))

    @property
    def hole_begun_by(self) -> Drill | None:
        """The drill, spot or centre of an earlier operation that began the hole on the axis, if any."""
        for operation in self.job.operations:
            if operation.id == self.operation.id:
                break
            tool = self.job.tool(operation.tool)
            if isinstance(operation, DrillHole) and operation.enabled and isinstance(tool, Drill):
                return tool
        return None

    @property
    def followed_by(self) -> tuple[tuple[Operation, Tool], ...]:
        """Later operations that go on in the hole on the axis, with their tools."""
        later = [one.id for one in self.job.operations].index(self.operation.id) + 1
        found = []
        for operation in self.job.operations[later:]:
            tool = self.job.tool(operation.tool)
            if operation.enabled and tool is not None and operation.kind in IN_THE_HOLE:
                found.append((operation, tool))
        return tuple(found)

    @property
    def part_off_width(self) -> float | None:
        return part_off_width_mm(self.job)


def part_off_width_mm(job: Job) -> float | None:
    """Width of the blade that will part the piece off, mm, if one is planned."""
    for operation in job.operations:
        tool = job.tool(operation.tool) if isinstance(operation, PartOff) and operation.enabled else None
        if tool is not None and tool.kind == "parting":
            return tool.blade.width_mm
    return None
