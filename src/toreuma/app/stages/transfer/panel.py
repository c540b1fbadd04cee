"""Left panel of the transfer stage: how the part goes from one spindle to the other."""

from collections.abc import Callable

from toreuma.app.forms.fields import PARTS_FIELD, TRANSFER_FIELDS, TURN_FIELDS
from toreuma.app.forms.rows import RowColumn
from toreuma.app.words import tr
from toreuma.core.model import HandOver, Job, PartOff, TurnRound

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
TOGETHER = "Let {} and {} work together"
TAKEN = (("falls into the chips", "falls"), ("is caught", "caught"), ("is held by the pick-off", "picked"))
BY_HAND = (
    "This machine has one spindle: the part is taken out, turned round into jaws bored for it, and the program of the "
    "second side is started."
)
TURN_CAUTION = (
    "Spindle stopped and drive off before a hand goes near the jaws; burrs cut. Tighten with the key, take the key out "
    "at once. The machine's manual and a trained person come first."
)
CAUTION = (
    "A push, a speed or a jaw that is wrong throws the part. First hand-over in single block with rapid turned down, "
    "doors shut; the machine's manual and the chucks' plates come first."
)


class TransferPanel(RowColumn):
    """Every setting of the hand-over; what follows from them stands on the right, the channels below."""

    def _fill(self) -> None:
        job = self.session.job
        if job is None:
            self.start(())
            return
        if job.machine.second is None and len(job.setups) > 1 and not self.session.side:
            self._by_hand(job)
            return
        if job.machine.second is None or self.session.side or (job.hand_over is None and len(job.setups) < 2):
            words = ON_FIRST if self.session.side else ONE_SPINDLE if job.machine.second is None else NO_SECOND
            if self.start(("none", words)):
                self.heading("Hand-over")
                self.note(words)
                self.end()
            return
        if job.hand_over is None:
            if self.start(("offer",)):
                self.heading("Hand-over")
                self.note("The second spindle can take the part. Nothing is planned for it yet.")
                plan = lambda: self.session.change(job.changed(hand_over=HandOver()))  # noqa: E731
                self.buttons((("Plan the hand-over", plan),), columns=1)
                self.end()
            return
        fresh = self.start(("hand over", job.hand_over.apart))
        now = job.hand_over
        if fresh:
            self.heading("Hand-over")
        self.choice("how", "The part", WAYS, now.how, lambda j, v: _with(j, how=v))
        many = lambda j, v: j.changed(program=j.program.changed(parts=max(round(v or 1), 1)))  # noqa: E731
        self.typed("parts", PARTS_FIELD, job.program.parts, many)
        for field in TRANSFER_FIELDS:
            self.typed(field.name, field, getattr(now, field.name), lambda j, v, n=field.name: _with(j, **{n: v}))  # type: ignore[misc]
        for name, label in (("phase", "Angles matched"), ("air_blast", "Air blast"), ("check_part", "Part asked for")):
            self.choice(name, label, YES_NO, getattr(now, name), lambda j, v, n=name: _with(j, **{n: v}))  # type: ignore[misc]
        if fresh:
            for pair in now.apart:
                self.note(tr("{} and {} never work at the same time: they would meet.").format(*pair))
            free = [(tr(TOGETHER).format(one, other), self._freed(one, other)) for one, other in now.apart]
            if free:
                self.buttons(tuple(free), columns=1)
            self.note(CAUTION)
            leave = lambda: self.session.change(self.session.job.changed(hand_over=None))  # type: ignore[union-attr]  # noqa: E731
            self.buttons((("Leave it out", leave),), columns=1)
            self.end()

    def _freed(self, one: str, other: str) -> Callable[[], None]:
        """Two tools need no longer wait for each other."""

        def change() -> None:
            job = self.session.job
            if job is not None and job.hand_over is not None:
                left = tuple(pair for pair in job.hand_over.apart if pair != (one, other))
                self.session.change(_with(job, apart=left))

        return change

    def _by_hand(self, job: Job) -> None:
        """The part is turned round by hand: how it comes off, what is done, how long that takes."""
        fresh = self.start(("by hand", job.turn_round is None, _parts_off(job) is not None))
        now = job.turn_round or TurnRound()
        if fresh:
            self.heading("Turned round by hand")
            self.note(BY_HAND)
        cut = _parts_off(job)
        if cut is not None:
            change = lambda j, v: j.with_operation(cut.id, lambda op: op.changed(taken=v))  # noqa: E731
            self.choice("taken", "The part", TAKEN, cut.taken, change)
        for field in TURN_FIELDS:
            self.typed(field.name, field, getattr(now, field.name), lambda j, v, n=field.name: _turned(j, **{n: v}))  # type: ignore[misc]
        if fresh:
            self.note(TURN_CAUTION)
            self.end()


def _parts_off(job: Job) -> PartOff | None:
    return next((op for op in job.operations if isinstance(op, PartOff) and op.enabled), None)


def _turned(job: Job, **changes: object) -> Job:
    return job.changed(turn_round=(job.turn_round or TurnRound()).changed(**changes))


def _with(job: Job, **changes: object) -> Job:
    return job.changed(hand_over=job.hand_over.changed(**changes)) if job.hand_over is not None else job
