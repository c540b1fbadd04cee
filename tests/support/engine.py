"""One engine for all tests of a process: what was planned, proved or found for a job once is not computed again."""

from collections.abc import Callable, Hashable
from functools import cache
from threading import RLock
from typing import Any, TypeVar

from toreuma.core.auto.propose import Proposed
from toreuma.core.channels.balance import Balanced
from toreuma.core.findings import Finding
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.prove import Proof
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine, Progress, Proved
from toreuma.engine.follow import Outcome
from toreuma.engine.pair import PairProof

__all__ = ["RecordedEngine", "followed", "judged", "proved", "recorded", "remembered", "routed"]

T = TypeVar("T")


class SharedMemo(Memo):
    """A memory that several threads may use: windows work in threads of their own."""

    def __init__(self, size: int) -> None:
        super().__init__(size)
        self._one_at_a_time = RLock()

    def of(self, function: Callable[..., T], *arguments: object) -> T:
        with self._one_at_a_time:
            return super().of(function, *arguments)

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        with self._one_at_a_time:
            return super().get(key, compute)

    def digest(self, value: object) -> Hashable:
        with self._one_at_a_time:
            return super().digest(value)


@cache
def remembered() -> Memo:
    """The one memory of this process."""
    return SharedMemo(60_000)


class RecordedEngine(Engine):
    """Gives the outcome recorded for an equal job; what is new is computed and recorded."""

    def __init__(self) -> None:
        super().__init__(memo=remembered())
        self._kept: dict[tuple[object, ...], Any] = {}

    def forget(self) -> None:
        """A window that closes leaves what is recorded for the next one."""

    def _once(self, what: str, job: Job, compute: Callable[[], Any], check: Check) -> Any:
        check()
        key = what, self.memo.digest(job)
        if key not in self._kept:
            self._kept[key] = compute()
        check()
        return self._kept[key]

    def follow(self, job: Job, check: Check = never_cancel) -> Outcome:
        return self._once("follow", job, lambda: super(RecordedEngine, self).follow(job, check), check)

    def order(self, outcome: Outcome) -> tuple[Finding, ...]:
        compute = super().order
        return self._once("order", outcome.job, lambda: compute(outcome), never_cancel)

    def prove(self, outcome: Outcome, check: Check = never_cancel, progress: Progress = lambda share: None) -> Proved:
        compute = super().prove
        return self._once("prove", outcome.job, lambda: compute(outcome, check, progress), check)

    def pair(self, outcome: Outcome, check: Check = never_cancel) -> PairProof | None:
        compute = super().pair
        return self._once("pair", outcome.job, lambda: compute(outcome, check), check)

    def verdict(self, whole: Job, pair: PairProof | None = None, check: Check = never_cancel) -> Verdict:
        return self._once("verdict", whole, lambda: super(RecordedEngine, self).verdict(whole, pair, check), check)

    def balance(
        self, job: Job, check: Check = never_cancel, better: Callable[[float, float], None] = lambda cycle, bound: None
    ) -> Balanced | None:
        return self._once("balance", job, lambda: super(RecordedEngine, self).balance(job, check, better), check)

    def route(
        self,
        job: Job,
        check: Check = never_cancel,
        progress: Progress = lambda share: None,
        offer: Callable[[Proposed], None] = lambda found: None,
        enough: Callable[[], bool] = lambda: False,
    ) -> Proposed:
        key = "route", self.memo.digest(job)
        if key not in self._kept:
            found = super().route(job, check, progress, offer, enough)
            if enough():  # cut short: not what is found by looking to the end
                return found
            self._kept[key] = found
        check()
        return self._kept[key]  # type: ignore[no-any-return]


@cache
def recorded() -> RecordedEngine:
    """The engine of this process."""
    return RecordedEngine()


def followed(job: Job) -> Outcome:
    """A job planned, written and read back."""
    return recorded().follow(job)


def proved(job: Job) -> Proof:
    """The proof of a job's first side."""
    return recorded().prove(followed(job)).proof


def routed(job: Job) -> Proposed:
    """The route proposed for a job."""
    return recorded().route(job)


def judged(job: Job) -> Verdict:
    """Whether the part of a job is finished, all its sides counted."""
    return recorded().verdict(job)
