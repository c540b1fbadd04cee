"""How jobs are planned while a route is looked for."""

from dataclasses import dataclass, field, replace

from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Centre, Hold, Job, Machine, Part, Rest, Stock
from toreuma.core.model.steps import Steps
from toreuma.core.plan import plan
from toreuma.core.plan.route import Plan
from toreuma.core.plan.sides.second_side import plan_sides
from toreuma.core.scene import Scene, placed

__all__ = ["Planning"]


def _ending(
    part: Part,
    blank: Stock,
    hold: Hold,
    centre: Centre | None,
    machine: Machine,
    rest: Rest | None,
    ends_z: float | None,
) -> Scene:
    return replace(placed(part, blank, hold, centre, machine, rest), ends_z=ends_z)


@dataclass(frozen=True)
class Planning:
    """In the steps of the control the program is written for, with what is remembered: the route that is taken is the
    one that was looked at, and is not planned again."""

    memo: Memo = field(default_factory=Memo)
    check: Check = never_cancel
    steps: Steps | None = None

    def scene(self, job: Job, ends_z: float | None) -> Scene:
        """The solids of a side, the same ones for every way that holds the same blank alike: what was worked out of
        them is known. ``ends_z``: where the outside is left to the other side, mm. Raises `PartError`."""
        setup = job.setup
        return self.memo.of(_ending, job.part, job.stock, setup.hold, setup.centre, job.machine, setup.rest, ends_z)

    def plan(self, job: Job) -> Plan:
        """Plan one side; raises as `toreuma.core.plan.plan` does."""
        return plan(job, self.memo, self.check, self.steps)

    def sides(self, job: Job) -> tuple[Plan, ...]:
        """Plan every side, each on what the one before left; raises as `plan`."""
        return plan_sides(job, self.memo, self.check, self.steps)
