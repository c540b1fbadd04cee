"""Interrupted cuts that another order avoids: corners of a bar that a later roughing takes off."""

from collections.abc import Iterator

from toreuma.core.critic.moves import move_before, name_of
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import box
from toreuma.core.memo import Memo
from toreuma.core.model.stock import PolygonBar
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan, plan

__all__ = ["interrupted"]

CUTS = ("face", "groove", "part_off", "finish_od")
LEAST_MM2 = 0.05
BESIDE_MM = 0.05
FAR_MM = 1e5


def interrupted(planned: Plan, memo: Memo) -> Iterator[Finding]:
    """Cuts through the corners of a bar in front of the roughing that would have made it round there."""
    stock = planned.job.stock
    if not isinstance(stock, PolygonBar):
        return
    corners = box(-FAR_MM, stock.across_mm / 2, FAR_MM, FAR_MM)
    operations = planned.operations
    for index, one in enumerate(operations):
        if one.operation.kind not in CUTS or one.removed.intersection(corners).area < LEAST_MM2:
            continue
        rough = next((later for later in operations[index + 1 :] if later.operation.kind == "rough_od"), None)
        if rough is None or not _would_clear(one, rough, stock):
            continue
        cure = move_before(rough.operation, one.operation)
        after = plan(cure.apply(planned.job), memo, steps=planned.steps)
        again = after.of(one.operation.id)
        now, then = hits(one, stock), hits(again, stock) if again is not None else 0
        if now <= then:
            continue
        saved = planned.times.total_s - after.times.total_s
        seconds = f", {saved:.1f} s" if saved > 0.05 else ""
        yield Finding(
            "note",
            "order.hits",
            f"'{name_of(one.operation)}' is hit {now} times by the corners of the bar; after "
            f"'{name_of(rough.operation)}' {then} times{seconds}",
            "every hit is a knock on the edge; first make it round, then cut what is round",
            operation=one.operation.id,
            cures=(cure,),
        )


def hits(one: OperationPlan, stock: PolygonBar) -> int:
    """How often corners strike the edge: the turns it makes among them, times their number."""
    corners = box(-FAR_MM, stock.across_mm / 2, FAR_MM, FAR_MM)
    metal = one.before.intersection(corners)
    turns = 0.0
    for motion in one.motions:
        if motion.is_rapid or motion.feed is None or motion.per_minute:
            continue
        radii = (motion.start[1], motion.end[1])
        length = abs(max(radii) - max(min(radii), stock.across_mm / 2)) if max(radii) > stock.across_mm / 2 else 0.0
        low, high = sorted((motion.start[0], motion.end[0]))
        if length <= 0 or metal.intersection(box(low - 0.1, 0, high + 0.1, FAR_MM)).is_empty:
            continue
        inside = min(length, stock.largest_d_mm / 2 - stock.across_mm / 2)
        turns += inside / motion.feed
    return round(stock.sides * turns)


def _would_clear(one: OperationPlan, rough: OperationPlan, stock: PolygonBar) -> bool:
    """The roughing takes the corners off at the place of the cut, or up to its very side."""
    z0, _, z1, _ = one.removed.bounds
    taken = rough.removed.intersection(box(-FAR_MM, stock.across_mm / 2, FAR_MM, FAR_MM))
    return not taken.is_empty and bool(taken.bounds[0] < z1 + BESIDE_MM and taken.bounds[2] > z0 - BESIDE_MM)
