"""Which function plans which kind of operation. A new kind is one module and one line here."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.memo import Memo
from toreuma.core.model import Job, Operation
from toreuma.core.plan.axis.drill import in_the_hole, plan_drill
from toreuma.core.plan.axis.ream import plan_ream
from toreuma.core.plan.axis.tap import plan_tap
from toreuma.core.plan.bar.feed_bar import beside_bar, plan_feed_bar
from toreuma.core.plan.groove.groove import plan_groove
from toreuma.core.plan.groove.part_off import at_the_cut, plan_part_off
from toreuma.core.plan.groove.place import groove_zone
from toreuma.core.plan.ground.given import ALONE, Given, Neighbours
from toreuma.core.plan.ground.result import Cuts
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.flats import plan_flats
from toreuma.core.plan.mill.holes_beside import plan_holes
from toreuma.core.plan.mill.slot import plan_slot
from toreuma.core.plan.thread.thread import plan_thread
from toreuma.core.plan.turn.as_cycle import cycles_before
from toreuma.core.plan.turn.face import plan_face
from toreuma.core.plan.turn.finish import plan_finish
from toreuma.core.plan.turn.rough import plan_rough

__all__ = ["KINDS", "Kind"]


def everywhere(memo: Memo, given: Given, operation: Operation) -> tuple[float, float] | None:
    """The whole stock counts."""
    return None


def alone(job: Job, operation: Operation) -> Neighbours:
    """No other operation counts."""
    return ALONE


@dataclass(frozen=True)
class Kind:
    """An operation kind: its planner, and what it is called.

    ``zone`` gives the stretch along Z, (low, high) in mm, whose stock alone its cuts depend on; without it they depend
    on all of it. What happens outside the zone does not make it plan again. ``neighbours`` gives what it knows of other
    operations; what it does not ask for cannot change its cuts.
    """

    plan: Callable[[Work, Any], Cuts]
    label: str
    zone: Callable[[Memo, Given, Any], tuple[float, float] | None] = everywhere
    neighbours: Callable[[Job, Operation], Neighbours] = alone


KINDS: dict[str, Kind] = {
    "face": Kind(plan_face, "Face"),
    "rough_od": Kind(plan_rough, "Rough outside"),
    "finish_od": Kind(plan_finish, "Finish outside", neighbours=cycles_before),
    "rough_bore": Kind(plan_rough, "Rough the bore"),
    "finish_bore": Kind(plan_finish, "Finish the bore"),
    "drill": Kind(plan_drill, "Drill on the axis", neighbours=in_the_hole),
    "ream": Kind(plan_ream, "Ream on the axis"),
    "groove": Kind(plan_groove, "Groove", groove_zone),
    "thread": Kind(plan_thread, "Thread"),
    "tap": Kind(plan_tap, "Tap on the axis"),
    "holes": Kind(plan_holes, "Holes beside the axis"),
    "flats": Kind(plan_flats, "Mill flats"),
    "slot": Kind(plan_slot, "Mill a slot"),
    "feed_bar": Kind(plan_feed_bar, "Feed the bar", neighbours=beside_bar),
    "part_off": Kind(plan_part_off, "Part off", neighbours=at_the_cut),
}
