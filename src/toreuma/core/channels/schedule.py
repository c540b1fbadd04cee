"""Who does what after whom: operations of both sides and the hand-over, in each channel, with computed waits."""

from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.core.channels.hand_over import Transfer
from toreuma.core.channels.waits import Act, Wait
from toreuma.core.model import Job
from toreuma.core.plan.result import OperationPlan
from toreuma.core.plan.route import Plan

__all__ = ["Item", "Turn", "in_turn"]


@dataclass(frozen=True)
class Turn:
    """An operation of a side (0 or 1), cut in its turn."""

    side: int
    planned: OperationPlan


Item = Turn | Act | Wait


def in_turn(job: Job, sides: Sequence[Plan], taken: Transfer) -> dict[int, tuple[Item, ...]]:
    """Everything one after the other: a channel waits wherever the one before it is another's.

    Marks are numbered on through first side, hand-over and second side, so that none is there twice.
    """
    rows: dict[int, list[Item]] = {channel: [] for channel in taken.channels}
    both = frozenset(rows)
    mark = 0

    def meet() -> None:
        nonlocal mark
        if len(rows) > 1:
            mark += 1
            for row in rows.values():
                row.append(Wait(mark, both))

    def channel_of(planned: OperationPlan) -> int:
        channel = job.machine.carrier_of(planned.motions[0].station).channel
        return channel if channel in rows else max(rows)

    def cut(side: int, left_out: OperationPlan | None = None) -> None:
        before: int | None = None
        for planned in sides[side].operations:
            if not planned.motions or planned is left_out:
                continue
            channel = channel_of(planned)
            if before is not None and before != channel:
                meet()
            rows[channel].append(Turn(side, planned))
            before = channel

    parted = _cut_between(sides[0], taken)
    cut(0, parted)
    meet()
    shift = mark
    stages = {channel: _stages(items) for channel, items in taken.channels.items()}
    for number in range(max(len(one) for one in stages.values())):
        for channel, parts in stages.items():
            for one in parts[number] if number < len(parts) else ():
                if isinstance(one, Act) and one.code == "part_off" and parted is not None:
                    continue
                rows[channel].append(Wait(one.mark + shift, one.channels) if isinstance(one, Wait) else one)
        if parted is not None and any(
            isinstance(one, Act) and one.code == "part_off" for parts in stages.values() for one in parts[number]
        ):
            row = rows[channel_of(parted)]
            row.insert(len(row) - (1 if row and isinstance(row[-1], Wait) else 0), Turn(0, parted))
    mark += max((one.mark for row in taken.channels.values() for one in row if isinstance(one, Wait)), default=0)
    if len(sides) > 1:
        cut(1)
        meet()
    return {channel: tuple(row) for channel, row in rows.items()}


def _cut_between(first: Plan, taken: Transfer) -> OperationPlan | None:
    """The operation that parts off while both spindles hold the part, if any does."""
    if taken.settings.how == "released":
        return None
    return next((one for one in reversed(first.operations) if one.operation.kind == "part_off" and one.motions), None)


def _stages(items: Sequence[Act | Wait]) -> list[list[Act | Wait]]:
    """The items of a channel up to each wait, the wait with them."""
    found: list[list[Act | Wait]] = [[]]
    for one in items:
        found[-1].append(one)
        if isinstance(one, Wait):
            found.append([])
    return found if found[-1] else found[:-1]
