"""Left panel of the transfer stage: how the part goes from one spindle to the other."""

from toreuma.app.fields import TRANSFER_FIELDS
from toreuma.app.widgets.rows import RowColumn
from toreuma.core.model import HandOver, Job

__all__ = ["TransferPanel"]

WAYS = (
    ("The first hold lets go", "released"),
    ("Cut off between both", "parted"),
    ("Bar drawn out, then cut off", "pulled"),
)
YES_NO = (("yes", True), ("no", False))
ONE_SPINDLE = (
    "This machine has one spindle. The part is turned round by hand into jaws bored for it, falls into a catcher or is "
    "held by a pick-off while it is parted: choose that with parting off, and plan the second side with its own hold."
)
NO_SECOND = "Choose the surface the second hold grips on the hold stage, then plan the second side and the hand-over."
ON_FIRST = "The hand-over is planned with the first side: show it to change it."
CAUTION = (
    "A push, a speed or a jaw that is wrong throws the part. First hand-over in single block with rapid turned down, "
    "doors shut; the machine's manual and the chucks' plates come first."
)


class TransferPanel(RowColumn):
    """Every setting of the hand-over; what follows from them stands on the right, the channels below."""

    def _fill(self) -> None:
        job = self._session.job
        if job is None:
            self._start(())
            return
        if job.machine.second is None or self._session.sides.side or (job.hand_over is None and len(job.setups) < 2):
            words = ONE_SPINDLE if job.machine.second is None else ON_FIRST if self._session.sides.side else NO_SECOND
            if self._start(("none", words)):
                self._heading("Hand-over")
                self._note(words)
                self._end()
            return
        if job.hand_over is None:
            if self._start(("offer",)):
                self._heading("Hand-over")
                self._note("The second spindle can take the part. Nothing is planned for it yet.")
                plan = lambda: self._session.change(job.changed(hand_over=HandOver()))  # noqa: E731
                self._buttons((("Plan the hand-over", plan),), columns=1)
                self._end()
            return
        fresh = self._start(("hand over",))
        now = job.hand_over
        if fresh:
            self._heading("Hand-over")
        self._choice("how", "The part", WAYS, now.how, lambda j, v: _with(j, how=v))
        for field in TRANSFER_FIELDS:
            self._typed(field.name, field, getattr(now, field.name), lambda j, v, n=field.name: _with(j, **{n: v}))  # type: ignore[misc]
        for name, label in (("phase", "Angles matched"), ("air_blast", "Air blast"), ("check_part", "Part asked for")):
            self._choice(name, label, YES_NO, getattr(now, name), lambda j, v, n=name: _with(j, **{n: v}))  # type: ignore[misc]
        if fresh:
            self._note(CAUTION)
            leave = lambda: self._session.change(self._session.job.changed(hand_over=None))  # type: ignore[union-attr]  # noqa: E731
            self._buttons((("Leave it out", leave),), columns=1)
            self._end()


def _with(job: Job, **changes: object) -> Job:
    return job.changed(hand_over=job.hand_over.changed(**changes)) if job.hand_over is not None else job
