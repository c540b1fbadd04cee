"""How many edges a batch uses up: the cutting time of each operation against the life of its edge (Taylor 1907)."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

from toreuma.core.model import Tool
from toreuma.core.model.tool import BoringTool, TurningTool
from toreuma.core.plan.route import Plan

__all__ = ["EdgeUse", "edge_uses"]

ROUND_DOWN = 1e-9


@dataclass(frozen=True, kw_only=True)
class EdgeUse:
    """One tool through a batch. ``share`` of an edge is used up by a part; None where no life is known of any cut.

    ``parts_per_edge`` whole parts come from an edge, ``edges`` are used up by the batch, from ``inserts`` pieces.
    ``unknown`` names operations whose life is not known: what they wear is not counted.
    """

    tool: Tool
    cutting_min: float
    share: float | None
    parts_per_edge: int | None
    edges: int | None
    inserts: int | None
    unknown: tuple[str, ...]

    def changes(self, batch: int) -> int:
        """How often its edge is turned or changed before the batch is done."""
        return 0 if self.parts_per_edge is None else max(math.ceil(batch / self.parts_per_edge) - 1, 0)


def edge_uses(plans: Iterable[Plan], batch: int) -> tuple[EdgeUse, ...]:
    """Every tool that cuts, by station."""
    minutes: dict[str, float] = {}
    shares: dict[str, float] = {}
    unknown: dict[str, list[str]] = {}
    tools: dict[str, Tool] = {}
    for plan in plans:
        for planned in plan.operations:
            tool = plan.job.tool(planned.operation.tool)
            if tool is None or not planned.motions or planned.times.cutting_s <= 0:
                continue
            tools[tool.id] = tool
            minutes[tool.id] = minutes.get(tool.id, 0.0) + planned.times.cutting_s / 60
            life = planned.figures.life_min
            if life is not None and 0 < life < math.inf:
                shares[tool.id] = shares.get(tool.id, 0.0) + planned.times.cutting_s / 60 / life
            else:
                unknown.setdefault(tool.id, []).append(planned.operation.name or planned.operation.id)
    ordered = sorted(tools.values(), key=lambda one: (one.station, one.id))
    return tuple(
        _use(one, minutes[one.id], shares.get(one.id), tuple(unknown.get(one.id, ())), batch) for one in ordered
    )


def _use(tool: Tool, cutting_min: float, share: float | None, unknown: tuple[str, ...], batch: int) -> EdgeUse:
    if share is None:
        return EdgeUse(
            tool=tool, cutting_min=cutting_min, share=None, parts_per_edge=None, edges=None, inserts=None,
            unknown=unknown,
        )  # fmt: skip
    parts = max(int(1 / share + ROUND_DOWN), 1)
    edges = math.ceil(batch / parts) if share <= 1 else math.ceil(batch * share)
    each = tool.insert.edges if isinstance(tool, TurningTool | BoringTool) else 1
    return EdgeUse(
        tool=tool, cutting_min=cutting_min, share=share, parts_per_edge=parts, edges=edges,
        inserts=math.ceil(edges / each), unknown=unknown,
    )  # fmt: skip
