"""Which function plans which kind of operation. A new kind is one module and one line here."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.kinds.registry import declared
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
from toreuma.core.plan.kept.as_written import plan_as_written
from toreuma.core.plan.mill.flats import plan_flats
from toreuma.core.plan.mill.holes_beside import plan_holes
from toreuma.core.plan.mill.slot import plan_slot
from toreuma.core.plan.thread.thread import plan_thread
from toreuma.core.plan.turn.as_cycle import cycles_before
from toreuma.core.plan.turn.face import plan_face
from toreuma.core.plan.turn.finish import plan_finish
from toreuma.core.plan.turn.knurl import plan_knurl
from toreuma.core.plan.turn.rough import front_later, plan_rough

__all__ = ["KINDS", "Kind"]


def everywhere(memo: Memo, given: Given, operation: Operation) -> tuple[float, float] | None:
    """The whole stock counts."""
    return None


def alone(job: Job, operation: Operation) -> Neighbours:
    """No other operation counts."""
    return ALONE


@dataclass(frozen=True)
class Kind:
    """How an operation kind is planned.

    ``zone`` gives the stretch along Z, (low, high) in mm, whose stock alone its cuts depend on; without it they depend
    on all of it. What happens outside the zone does not make it plan again. ``neighbours`` gives what it knows of other
    operations; what it does not ask for cannot change its cuts. ``brings_metal``: it needs none to be there.
    """

    plan: Callable[[Work, Any], Cuts]
    zone: Callable[[Memo, Given, Any], tuple[float, float] | None] = everywhere
    neighbours: Callable[[Job, Operation], Neighbours] = alone
    brings_metal: bool = False


KINDS: dict[str, Kind] = declared(
    Operation,
    face=Kind(plan_face),
    rough_od=Kind(plan_rough, neighbours=front_later),
    finish_od=Kind(plan_finish, neighbours=cycles_before),
    rough_bore=Kind(plan_rough),
    finish_bore=Kind(plan_finish),
    drill=Kind(plan_drill, neighbours=in_the_hole),
    ream=Kind(plan_ream),
    groove=Kind(plan_groove, groove_zone),
    thread=Kind(plan_thread),
    tap=Kind(plan_tap),
    holes=Kind(plan_holes),
    flats=Kind(plan_flats),
    slot=Kind(plan_slot),
    knurl=Kind(plan_knurl),
    feed_bar=Kind(plan_feed_bar, neighbours=beside_bar, brings_metal=True),
    as_written=Kind(plan_as_written),
    part_off=Kind(plan_part_off, neighbours=at_the_cut),
)
