"""Tools that come back for nothing."""

from collections.abc import Iterator

from toreuma.core.critic.moves import may_pass, move_before, name_of
from toreuma.core.findings import Finding
from toreuma.core.memo import Memo
from toreuma.core.plan.route import Plan, plan

__all__ = ["tool_changes"]

LEAST_S = 1.0
"""For less nobody changes an order."""


def tool_changes(planned: Plan, memo: Memo) -> Iterator[Finding]:
    """A tool that comes back although its second cut could have been made the first time."""
    operations = [one.operation for one in planned.operations if one.motions]
    machine = planned.job.machine
    for index, later in enumerate(operations):
        earlier = next((i for i in range(index - 2, -1, -1) if operations[i].tool == later.tool), None)
        if earlier is None or any(operations[i].tool == later.tool for i in range(earlier + 1, index)):
            continue
        between = operations[earlier + 1 : index]
        if not may_pass(later, between):
            continue
        after = operations[index + 1] if index + 1 < len(operations) else None
        station = tool.station if (tool := planned.job.tool(later.tool)) is not None else 1
        changes = 2 if after is None or after.tool != operations[index - 1].tool else 3
        cure = move_before(later, between[0])
        other = plan(
            cure.apply(planned.job), memo, steps=planned.steps
        )  # another order may cut longer than it saves in changes
        saved = (changes - 1) * machine.carrier_of(station).tool_change_s + planned.times.total_s - other.times.total_s
        if saved < LEAST_S:
            continue
        yield Finding(
            "note",
            "order.change",
            f"{later.tool} comes back for '{name_of(later)}': another order saves {saved:.1f} s",
            f"nothing between asks for it to wait; after '{name_of(operations[earlier])}' it costs none",
            operation=later.id,
            cures=(cure,),
        )
