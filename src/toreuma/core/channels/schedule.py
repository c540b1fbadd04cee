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

    def cut(side: int) -> None:
        before: int | None = None
        for planned in sides[side].operations:
            if not planned.motions:
                continue
            channel = job.machine.carrier_of(planned.motions[0].station).channel
            if before is not None and before != channel:
                meet()
            rows[channel if channel in rows else max(rows)].append(Turn(side, planned))
            before = channel

    cut(0)
    meet()
    shift = mark
    for channel, items in taken.channels.items():
        rows[channel] += [Wait(one.mark + shift, one.channels) if isinstance(one, Wait) else one for one in items]
    mark += max((one.mark for row in taken.channels.values() for one in row if isinstance(one, Wait)), default=0)
    if len(sides) > 1:
        cut(1)
        meet()
    return {channel: tuple(row) for channel, row in rows.items()}
