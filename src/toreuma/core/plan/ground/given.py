"""All of a job that the planner of one operation may read: it is the key under which its result is kept."""

from dataclasses import dataclass

from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Centre, CutThread, Hold, Job, Machine, Operation, Part, PartOff, Rest, Stock, Tool
from toreuma.core.model.conditions import Conditions
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.operation import RoughOd
from toreuma.core.model.steps import USUAL, Steps
from toreuma.core.model.tool import Drill, ThreadingTool

__all__ = ["ALONE", "Given", "Neighbours", "parting_width_mm", "threads_past_mm"]

OFF_SHOULDER_MM = 0.8
"""Clearance of the insert to the bar behind, and for its way out."""
AT_BACK_TURNS = 1.5
"""A thread that ends so many turns in front of the back edge runs out behind it."""


@dataclass(frozen=True, kw_only=True)
class Neighbours:
    """What an operation knows of the others. Each kind asks for what its cuts depend on, and gets nothing else.

    ``begun_by`` is the drill that began the hole on the axis, ``goes_on`` the operations that go on in it, each with
    its tool; ``cycles`` are roughing cycles before it whose contour it could follow; ``is_first``: nothing is done
    before it. ``cut_off_mm`` is the width of the cut that took the part before off; ``is_taken``: a second spindle
    holds the part while it is cut off.
    """

    begun_by: Drill | None = None
    goes_on: tuple[tuple[Operation, Tool], ...] = ()
    cycles: tuple[tuple[RoughOd, Tool], ...] = ()
    is_first: bool = False
    faced_later: bool = False
    cut_off_mm: float = 0.0
    is_taken: bool = False


ALONE = Neighbours()


@dataclass(frozen=True, kw_only=True)
class Given:
    """Part, blank, hold, circumstances, machine, the steps of its control; the operation's own tools, in order.

    ``parting_mm`` is the width of the blade that will part the piece off, mm, if one is planned; ``threads_past_mm`` is
    how far behind the back edge the inserts of threads that end there have to run, outside and in the bore; ``opened``
    are the milled features that are open already.
    """

    part: Part
    stock: Stock
    hold: Hold
    centre: Centre | None
    rest: Rest | None = None
    conditions: Conditions
    machine: Machine
    steps: Steps = USUAL
    parting_mm: float | None = None
    threads_past_mm: tuple[float, float] = (0.0, 0.0)
    tools: tuple[Tool, ...] = ()
    opened: tuple[int, ...] = ()
    neighbours: Neighbours = ALONE

    @classmethod
    def of(cls, job: Job, steps: Steps | None = None) -> "Given":
        """What every operation of a job's first setup is given; ``steps``: those of its control, or the usual ones."""
        return cls(
            part=job.part,
            stock=job.stock,
            hold=job.setup.hold,
            centre=job.setup.centre,
            rest=job.setup.rest,
            conditions=job.conditions,
            machine=job.machine,
            steps=steps or Steps.usual(job.units),
            parting_mm=parting_width_mm(job),
            threads_past_mm=(threads_past_mm(job, "outside"), threads_past_mm(job, "inside")),
        )

    def tool(self, tool_id: str | None) -> Tool | None:
        """One of the operation's own tools."""
        return next((tool for tool in self.tools if tool.id == tool_id), None)


def threads_past_mm(job: Job, side: str) -> float:
    """How far behind the back edge threads of a side that end there have to run, mm: the half of the insert that goes
    ahead, and its way out; 0 where none does."""
    back, found = job.part.outside[-1].z_mm, 0.0
    for operation in job.operations:
        tool = job.tool(operation.tool)
        if not (isinstance(operation, CutThread) and operation.enabled and isinstance(tool, ThreadingTool)):
            continue
        feature = job.part.features[operation.feature] if operation.feature < len(job.part.features) else None
        if not isinstance(feature, ThreadFeature) or feature.side != side:
            continue
        form, shape = operation.form, shape_of(tool)
        if feature.from_z_mm - feature.length_mm < back + AT_BACK_TURNS * form.lead_mm:
            ahead = max(-float(piece[:, 0].min()) for piece in (shape.core, *shape.bodies))
            found = max(found, ahead + (form.depth_mm or form.pitch_mm) + form.lead_mm / 2 + OFF_SHOULDER_MM)
    return found


def parting_width_mm(job: Job) -> float | None:
    """Width of the blade that will part the piece off, mm, if one is planned."""
    for operation in job.operations:
        tool = job.tool(operation.tool) if isinstance(operation, PartOff) and operation.enabled else None
        if tool is not None and tool.kind == "parting":
            return tool.blade.width_mm
    return None
