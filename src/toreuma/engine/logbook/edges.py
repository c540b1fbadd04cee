"""Edges through a run: what each has cut, when the one that is in should be changed, by cost and by risk."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from toreuma.core.model import Tool
from toreuma.core.model.conditions import Conditions
from toreuma.core.plan import Plan
from toreuma.core.plan.asked.part_time import part_time
from toreuma.core.spoken import said
from toreuma.log import EdgeUsed

__all__ = ["EdgeNow", "cutting_of_tool", "edges_now", "with_use"]

LIFE_SPREAD = 0.25
"""Lives of alike edges differ so much, one standard deviation of their logarithm (typical)."""
RISK = 0.05
"""An edge is changed before it fails with more than this chance, where a failure costs a part."""
FAILURE_PARTS = 3.0
"""An edge that fails costs so many parts' time, looking and throwing away counted (typical)."""


@dataclass(frozen=True, kw_only=True)
class EdgeNow:
    """``share`` of its life is used; ``by_cost`` and ``by_risk`` are the parts an edge should make, None where no life
    is known."""

    tool: Tool
    edge: EdgeUsed
    parts: int
    minutes: float
    metres: float
    share: float | None
    by_cost: int | None
    by_risk: int | None
    says: str


def cutting_of_tool(plans: Sequence[Plan], tool: str) -> tuple[float, float, float, float | None]:
    """Minutes and metres of cut a part, mean surface speed m/min, and the life of its edge in minutes of that cut."""
    minutes = metres = share = 0.0
    for plan in plans:
        for planned in plan.operations:
            if planned.operation.tool != tool or not planned.motions:
                continue
            t, vc = planned.times.cutting_s / 60, planned.figures.vc_m_min or 0.0
            minutes, metres = minutes + t, metres + t * vc
            life = planned.figures.life_min
            if life and math.isfinite(life):
                share += t / life
    speed = metres / minutes if minutes else 0.0
    return minutes, metres, speed, minutes / share if share else None


def with_use(edge: EdgeUsed, plans: Sequence[Plan], to_part: int) -> EdgeUsed:
    """An edge with what it has cut up to a part."""
    minutes, metres, speed, life = cutting_of_tool(plans, edge.tool)
    parts = max(to_part - edge.from_part + 1, 0)
    return replace(
        edge, to_part=to_part, minutes=parts * minutes, metres=parts * metres, vc_m_min=speed, planned_min=life
    )


def edges_now(
    plans: Sequence[Plan], edges: Sequence[EdgeUsed], made: int, conditions: Conditions
) -> tuple[EdgeNow, ...]:
    """Every edge that is in, behind ``made`` parts, with when to change it."""
    tools = {tool.id: tool for plan in plans for tool in plan.job.tools}
    found = []
    for edge in edges:
        if edge.to_part is not None or edge.tool not in tools:
            continue
        minutes, metres, _, life = cutting_of_tool(plans, edge.tool)
        parts = max(made - edge.from_part + 1, 0)
        limits = _when(minutes, life, part_time(plans).number / 60, conditions)
        share = parts * minutes / life if life else None
        found.append(
            EdgeNow(
                tool=tools[edge.tool], edge=edge, parts=parts, minutes=parts * minutes, metres=parts * metres,
                share=share, by_cost=limits[0], by_risk=limits[1], says=_words(parts, *limits),
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda one: one.tool.station))


def _when(minutes: float, life: float | None, part_min: float, conditions: Conditions) -> tuple[int | None, int | None]:
    """Parts an edge should make. By risk: the chance that it fails up to then stays small. By cost: that of an edge a
    part, and of failing times its chance, are least together. Lives are log-normal about the computed one."""
    if not life or minutes <= 0:
        return None, None
    most = max(int(3 * life / minutes), 1)
    rate = conditions.machine_per_h / 60
    change = conditions.edge_cost + conditions.edge_change_min * rate
    failure = change + FAILURE_PARTS * part_min * rate
    best, cheapest, risk = 1, math.inf, 1
    survived, made = 1.0, 0.0
    for n in range(1, most + 1):
        chance = _failed(n * minutes, life)
        made += survived
        cost = (change * (1 - chance) + failure * chance) / made
        survived = 1 - chance
        if cost < cheapest:
            best, cheapest = n, cost
        if chance <= RISK:
            risk = n
    return best, risk


def _failed(minutes: float, life: float) -> float:
    """Chance that an edge has failed by then."""
    return 0.5 * math.erfc(-math.log(max(minutes, 1e-9) / life) / LIFE_SPREAD / math.sqrt(2))


def _words(parts: int, by_cost: int | None, by_risk: int | None) -> str:
    if by_cost is None or by_risk is None:
        return "no life is known of its cuts: look at it"
    if parts >= by_risk:
        return said("change it now: {} parts, and past {} it may well fail", parts, by_risk)
    first = min(by_cost, by_risk)
    if parts >= first:
        return said("change it at the next stop: {} parts cost least", by_cost)
    why = "cheapest" if by_cost <= by_risk else "before it may well fail"
    more = first - parts
    return said("change it after {} {} more ({})", more, "part" if more == 1 else "parts", why)
