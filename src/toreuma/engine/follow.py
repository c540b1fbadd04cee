"""From a job to everything the window shows: planned, written, read back, and in time."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from toreuma.core.channels.balance import Balanced, balance
from toreuma.core.channels.by_hand import ByHand, turned_by_hand
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.critic import critique
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, union
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.plan import Plan, plan
from toreuma.core.plan.bar.feed_bar import bar_before
from toreuma.core.plan.sides.second_side import plan_sides, second_side
from toreuma.core.post import post
from toreuma.core.prove import Proof, prove
from toreuma.core.read import Program, read
from toreuma.core.simulate.replay import Replay
from toreuma.core.simulate.timeline import Timeline, timeline_of
from toreuma.engine.pair import PairProof, prove_channels
from toreuma.shipped.library import dialect

__all__ = ["Outcome", "PairProof", "balance_of", "follow", "order_of", "prove_outcome", "prove_pair"]


@dataclass(frozen=True)
class Outcome:
    """A job planned and its program read back. ``sections`` maps program sections to operation ids, in order."""

    plan: Plan
    program: Program
    timeline: Timeline
    sections: tuple[str, ...]
    replay: Replay
    transfer: Transfer | None = None
    by_hand: ByHand | None = None

    @property
    def job(self) -> Job:
        return self.plan.job

    def program_line(self, line: int) -> str:
        """A line of the program text, counted from 1."""
        return self._lines[line - 1] if 1 <= line <= len(self._lines) else ""

    @cached_property
    def _lines(self) -> list[str]:
        return self.program.text.splitlines()

    def operation_at(self, seconds: float) -> str | None:
        """The operation under way at a time."""
        moment = self.timeline.at(seconds)
        return self.operation_of(moment.index)

    def operation_of(self, span: int) -> str | None:
        if span < 0:
            return None
        section = self.timeline.spans[span].motion.section
        return self.sections[section] if 0 <= section < len(self.sections) else None

    def opened_at(self, seconds: float) -> tuple[int, ...]:
        """Milled features that are open at a time, those another hold has opened among them."""
        before = self.job.stock.opened if self.job.stock.kind == "free" else ()
        found = set(before)
        for one in self.plan.operations:
            times = self.times_of(one.operation.id) if one.cuts.opens is not None else None
            if times is not None and one.cuts.opens is not None and times[1] <= seconds + 1e-6:
                found.add(one.cuts.opens)
        return tuple(sorted(found))

    def operation_of_line(self, line: int) -> str | None:
        """The operation a line of the program belongs to."""
        found = None
        for index, section in enumerate(self.program.sections):
            if section.line <= line and index < len(self.sections):
                found = self.sections[index]
        return found

    def times_of(self, operation_id: str) -> tuple[float, float] | None:
        """Start and end of an operation, s."""
        for section, start, end in self.timeline.sections():
            if 0 <= section < len(self.sections) and self.sections[section] == operation_id:
                return start, end
        return None


def follow(job: Job, memo: Memo, check: Check = never_cancel) -> Outcome:
    """Plan a job, write its program and read that back. Raises `ToreumaError` and what ``check`` raises."""
    planned = plan(job, memo, check)
    cutting = [operation for operation in planned.operations if operation.motions]
    language = dialect(job.program.dialect)
    text = post(planned, language).text if cutting else ""
    program = read(text, language, planned.scene.reference, memo) if cutting else Program("", (), (), ())
    timeline = timeline_of(program.motions, job.machine)
    sections = tuple(operation.operation.id for operation in cutting)
    ends = _ends(timeline, [operation.after for operation in cutting])
    replay = Replay(job, planned.scene.stock, timeline, ends)
    transfer, by_hand = _transfer(job, planned)
    return Outcome(planned, program, timeline, sections, replay, transfer, by_hand)


def order_of(outcome: Outcome, memo: Memo) -> tuple[Finding, ...]:
    """What another order of the operations would be better at; it is planned to see that, which takes its time."""
    return critique(outcome.plan, memo)


def _transfer(job: Job, planned: Plan) -> tuple[Transfer | None, ByHand | None]:
    """The hand-over, or the turn by hand, where there is one and the second side has a hold."""
    try:
        return hand_over(job, planned), turned_by_hand(job, planned)
    except ToreumaError:  # the hold stage says what is wrong with the second hold
        return None, None


def prove_pair(outcome: Outcome, memo: Memo, check: Check = never_cancel) -> PairProof | None:
    """Both channels of a part that is handed over, run together and cut on both spindles; None where there are none."""
    if outcome.transfer is None or len(outcome.job.setups) < 2:
        return None
    sides = (outcome.plan, plan(second_side(outcome.job, outcome.plan), memo, check))
    return prove_channels(outcome.job, sides, outcome.transfer, dialect(outcome.job.program.dialect), check=check)


def balance_of(
    job: Job,
    memo: Memo,
    check: Check = never_cancel,
    better: Callable[[float, float], None] = lambda cycle, bound: None,
) -> Balanced | None:
    """The shortest cycle of a part that is handed over; None where there is no hand-over."""
    sides = plan_sides(job, memo, check)
    taken = hand_over(job, sides[0]) if len(sides) > 1 else None
    return balance(job, sides, taken, check=check, better=better) if taken is not None else None


def _ends(timeline: Timeline, states: list[Region]) -> list[tuple[int, Region]]:
    """The last span of every section with the stock after it."""
    last: dict[int, int] = {}
    for index, span in enumerate(timeline.spans):
        last[span.motion.section] = index
    return [(last[section], states[section]) for section in sorted(last) if 0 <= section < len(states)]


def prove_outcome(
    outcome: Outcome, check: Check = never_cancel, progress: Callable[[float], None] = lambda share: None
) -> tuple[Proof, Replay]:
    """Prove an outcome's program; the replay that comes with it knows only what was read back."""
    before = bar_before(outcome.job, outcome.plan.scene)
    proof = prove(outcome.job, outcome.plan.scene, outcome.program, outcome.plan.declared, check, progress, before)
    states = [region for section, region in proof.states if section >= 0]
    if states and proof.parted:
        states[-1] = union([states[-1], proof.final])
    ends = _ends(outcome.timeline, states) if len(states) == len(outcome.sections) else []
    return proof, Replay(outcome.job, outcome.plan.scene.stock, outcome.timeline, ends)
