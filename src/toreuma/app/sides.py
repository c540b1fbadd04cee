"""Which side of a job is shown: the first as it is, the second as a job of its own on what the first leaves."""

from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.plan import plan
from toreuma.core.plan.sides.second_side import second_side

__all__ = ["Sides"]


class Sides:
    """Turns a whole job into the side that is shown, and an edit of that side back into the whole."""

    def __init__(self) -> None:
        self.side = 0
        self._memo = Memo()
        self._base: tuple[object, Job] | None = None

    def shown(self, whole: Job) -> Job:
        """The side to show. Raises `ToreumaError` where the first side cannot be planned."""
        if self.side == 0 or len(whole.setups) < 2:
            self.side = 0
            return whole
        first = whole.changed(setups=(whole.setup.changed(), whole.setups[1].changed(operations=())))
        if self._base is None or self._base[0] != first:
            self._base = first, second_side(whole, plan(first, self._memo))
        base = self._base[1]
        return base.changed(setups=(whole.setups[1].changed(spindle=base.setup.spindle),))

    def whole(self, before: Job, edited: Job) -> Job:
        """The whole job after an edit of the side shown; part and blank of a second side follow from the first."""
        if self.side == 0 or self._base is None:
            return edited
        as_shown = edited.machine == self._base[1].machine
        return before.changed(
            setups=(before.setup, edited.setup.changed(spindle=before.setups[1].spindle)),
            tools=edited.tools,
            machine=before.machine if as_shown else edited.machine,
            conditions=edited.conditions,
            trials=edited.trials,
            units=edited.units,
            prove_out=edited.prove_out,
        )
