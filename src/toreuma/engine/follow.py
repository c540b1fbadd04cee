"""From a job to everything the window shows: planned, written, read back, and in time."""

from dataclasses import dataclass
from functools import cached_property

from toreuma.core.channels.by_hand import ByHand, turned_by_hand
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ToreumaError
from toreuma.core.geometry.region import Region, union
from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.prove import Proof
from toreuma.core.read import Program, read
from toreuma.core.simulate.replay import Replay
from toreuma.core.simulate.timeline import Timeline, timeline_of
from toreuma.engine.hand_changes import Written, written

__all__ = ["Outcome", "follow", "replay_of"]


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """A job planned and its program read back. ``sections`` maps program sections to operation ids, in order."""

    plan: Plan
    program: Program
    timeline: Timeline
    sections: tuple[str, ...]
    replay: Replay
    transfer: Transfer | None = None
    by_hand: ByHand | None = None
    written: Written | None = None

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
            times = self.times_of(one.operation.id) if one.cuts.opens else None
            if times is not None and times[1] <= seconds + 1e-6:
                found.update(one.cuts.opens)
        return tuple(sorted(found))

    def times_of(self, operation_id: str) -> tuple[float, float] | None:
        """Start and end of an operation, s."""
        for section, start, end in self.timeline.sections():
            if 0 <= section < len(self.sections) and self.sections[section] == operation_id:
                return start, end
        return None


def follow(planned: Plan, language: Dialect, memo: Memo) -> Outcome:
    """Write the program of a plan and read that back. Raises `ToreumaError`."""
    job = planned.job
    cutting = [operation for operation in planned.operations if operation.motions]
    made = written(planned, language) if cutting else None
    program = (
        read(made.text, language, planned.scene.reference, memo, machine=job.machine.own_words)
        if made is not None
        else Program(text="", motions=(), sections=(), findings=())
    )
    timeline = timeline_of(program.motions, job.machine)
    sections = tuple(operation.operation.id for operation in cutting)
    ends = _ends(timeline, [operation.after for operation in cutting])
    replay = Replay(job, planned.scene.stock, timeline, ends)
    transfer, by_hand = _transfer(job, planned)
    return Outcome(
        plan=planned,
        program=program,
        timeline=timeline,
        sections=sections,
        replay=replay,
        transfer=transfer,
        by_hand=by_hand,
        written=made,
    )


def _transfer(job: Job, planned: Plan) -> tuple[Transfer | None, ByHand | None]:
    """The hand-over, or the turn by hand, where there is one and the second side has a hold."""
    try:
        return hand_over(job, planned), turned_by_hand(job, planned)
    except ToreumaError:  # the hold stage says what is wrong with the second hold
        return None, None


def _ends(timeline: Timeline, states: list[Region]) -> list[tuple[int, Region]]:
    """The last span of every section with the stock after it."""
    last: dict[int, int] = {}
    for index, span in enumerate(timeline.spans):
        last[span.motion.section] = index
    return [(last[section], states[section]) for section in sorted(last) if 0 <= section < len(states)]


def replay_of(outcome: Outcome, proof: Proof) -> Replay:
    """The replay of what was read back and cut."""
    states = [region for section, region in proof.states if section >= 0]
    if states and proof.parted:
        states[-1] = union([states[-1], proof.final])
    ends = _ends(outcome.timeline, states) if len(states) == len(outcome.sections) else []
    return Replay(outcome.job, outcome.plan.scene.stock, outcome.timeline, ends)
