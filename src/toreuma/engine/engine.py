"""The engine: what window, command line and tests ask of the core, with one memory and one library behind it."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from toreuma.core.auto.planning import Planning
from toreuma.core.auto.propose import Proposed, propose_route
from toreuma.core.channels.balance import Balanced, balance
from toreuma.core.channels.by_hand import turned_by_hand
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.critic import critique
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.plan import Plan, plan
from toreuma.core.plan.asked.part_time import part_time
from toreuma.core.plan.sides.second_side import plan_sides, second_side
from toreuma.core.prove import Proof
from toreuma.core.simulate.replay import Replay
from toreuma.core.verdict import Verdict
from toreuma.engine.follow import Outcome, follow, replay_of
from toreuma.engine.further_parts import verdict_of_pair
from toreuma.engine.house import by_house_rules
from toreuma.engine.judging import Whole, prove_whole
from toreuma.engine.library import Library, library
from toreuma.engine.meetings import without_meetings
from toreuma.engine.pair import PairProof, prove_channels
from toreuma.engine.proving import prove_plan, prove_read
from toreuma.engine.routes import Search
from toreuma.engine.ways import Way
from toreuma.shipped.library import known_threads

__all__ = ["Engine", "Proved"]

Progress = Callable[[float], None]


def _unheard(share: float) -> None:
    """Progress that nobody listens to."""


@dataclass(frozen=True)
class Proved:
    """The proof of a side, and its replay, which knows only what was read back."""

    proof: Proof
    replay: Replay


class _Enough(Exception):
    """No better route is waited for."""


class Engine:
    """Follows jobs from plan to proof. What it has computed it remembers by content; one thread uses it at a time.

    Everything raises `ToreumaError` for what cannot be, and whatever ``check`` raises to stop the work.
    """

    def __init__(self, own: Library | None = None, memo: Memo | None = None) -> None:
        self._own = own
        self.memo = memo or Memo()

    @property
    def library(self) -> Library:
        """Everything that is looked up, as it stands now: the person may have changed it."""
        return self._own or library()

    def forget(self) -> None:
        """Let go of everything remembered."""
        self.memo.clear()

    def language(self, job: Job, name: str | None = None) -> Dialect:
        """The dialect a job's programs are written in, or the one named."""
        return self.library.dialect(name or job.program.dialect).set_at(job.machine)

    def plan(self, job: Job, check: Check = never_cancel, dialect: str | None = None) -> Plan:
        """The plan of the job's first side, in the steps of its control."""
        return plan(job, self.memo, check, self.language(job, dialect).steps(job.units))

    def side(self, whole: Job, side: int, check: Check = never_cancel) -> Job:
        """A side of a job, counted from 0, as a job of its own: the second one on what the first leaves."""
        return whole if side == 0 or len(whole.setups) < 2 else second_side(whole, self.plan(whole, check))

    def sides(self, job: Job, check: Check = never_cancel, dialect: str | None = None) -> tuple[Plan, ...]:
        """The plan of every side, each on what the one before left."""
        return plan_sides(job, self.memo, check, self.language(job, dialect).steps(job.units))

    def transfer(self, sides: tuple[Plan, ...]) -> Transfer | None:
        """How the part is handed over between planned sides, if it is."""
        return hand_over(sides[0].job, sides[0]) if len(sides) > 1 else None

    def part_time(self, sides: tuple[Plan, ...]) -> Evidence:
        """What a part takes on its machine, with what lies between its sides."""
        taken = self.transfer(sides)
        by_hand = turned_by_hand(sides[0].job, sides[0]) if taken is None else None
        return part_time(sides, taken.seconds if taken is not None else by_hand.seconds if by_hand is not None else 0.0)

    def follow(self, job: Job, check: Check = never_cancel) -> Outcome:
        """Plan a job, write its program and read that back."""
        return follow(self.plan(job, check), self.language(job), self.memo)

    def order(self, outcome: Outcome) -> tuple[Finding, ...]:
        """What another order would be better at; it is planned to see that, which takes its time."""
        return critique(outcome.plan, self.memo)

    def prove(self, outcome: Outcome, check: Check = never_cancel, progress: Progress = _unheard) -> Proved:
        """Cut the program of a followed job, with what is remembered."""
        proof = prove_read(outcome.plan, outcome.program, check, progress, memo=self.memo)
        return Proved(proof, replay_of(outcome, proof))

    def prove_afresh(self, planned: Plan, text: str | None = None, dialect: str | None = None) -> Proof:
        """Write a plan, or take other text for it, read and cut it with nothing remembered."""
        return prove_plan(planned, self.language(planned.job, dialect), text)

    def pair(self, outcome: Outcome, check: Check = never_cancel) -> PairProof | None:
        """Both channels of a part that is handed over, run together and cut on both spindles; None without two."""
        job = outcome.job
        if outcome.transfer is None or len(job.setups) < 2:
            return None
        other = second_side(job, outcome.plan)
        sides = (outcome.plan, self.plan(other, check))
        return prove_channels(job, sides, outcome.transfer, self.language(job), check=check, memo=self.memo)

    def verdict(self, whole: Job, pair: PairProof | None = None, check: Check = never_cancel) -> Verdict:
        """Whether the part is finished and its program safe: all sides proved one on the other, with what is known.
        ``pair`` is the proof of both channels, where it was made already."""
        sides = self.sides(whole, check)
        taken = self.transfer(sides)
        pair = pair or self._handed(whole, check)
        if taken is not None and pair is not None:
            return verdict_of_pair(sides, taken, pair)
        return prove_whole(sides, self.language(whole), check=check, memo=self.memo).verdict

    def _handed(self, whole: Job, check: Check) -> PairProof | None:
        """The proof of both channels of a job that is handed over."""
        sides = self.sides(whole, check)
        taken = self.transfer(sides)
        if taken is None:
            return None
        return prove_channels(whole, sides, taken, self.language(whole), check=check, memo=self.memo)

    def prove_whole(self, sides: tuple[Plan, ...], texts: dict[int, str], dialect: str | None = None) -> Whole:
        """All sides of a job proved with nothing remembered; ``texts`` are taken instead of the planned programs."""
        return prove_whole(sides, self.language(sides[0].job, dialect), texts)

    def balance(
        self, job: Job, check: Check = never_cancel, better: Callable[[float, float], None] = lambda cycle, bound: None
    ) -> Balanced | None:
        """The shortest cycle of a part that is handed over; None where there is no hand-over."""
        sides = self.sides(job, check)
        taken = self.transfer(sides)
        return balance(job, sides, taken, check=check, better=better) if taken is not None else None

    def route(
        self,
        job: Job,
        check: Check = never_cancel,
        progress: Progress = _unheard,
        offer: Callable[[Proposed], None] = lambda found: None,
        enough: Callable[[], bool] = lambda: False,
    ) -> Proposed:
        """A whole route for a job, from the catalogue and the person's rack, proved; one that cannot be read is
        empty. ``offer`` is told the best route so far, with the others that were found, whenever it is a better one;
        that one is given as soon as ``enough`` says so."""
        codes = {item.code for item in self.library.rack()}
        store = self.library.store(codes)
        rules = self.library.rules

        def propose(way: Way, begun: Proposed | None, told: Progress) -> Proposed:
            threads = known_threads(way.job.part)
            planning = Planning(self.memo, check_or_enough, self.language(way.job).steps(way.job.units))
            found = propose_route(
                way.job, store, codes, threads, planning, told, begun, way.ends_z, fine=way.fine, anew=way.anew
            )
            ruled = by_house_rules(found.job, rules)
            return replace(found, job=without_meetings(ruled, lambda one: self._handed(one, check_or_enough)))

        def judged(one: Job) -> tuple[Verdict, float]:
            return self.verdict(one, check=check_or_enough), sum(side.times.total_s for side in self.sides(one, check))

        found: list[Proposed] = []

        def offered(route: Proposed) -> None:
            found.append(route)
            offer(route)

        def check_or_enough() -> None:
            check()
            if found and enough():
                raise _Enough

        try:
            return Search(propose, judged, check_or_enough, progress, offered).best(job)
        except _Enough:
            return found[-1]
