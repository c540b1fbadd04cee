"""The route that is proposed: several are planned and proved where the first one leaves something open, and the best of
them by what comes of it is taken."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Protocol

from toreuma.core.auto.propose import Proposed
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.core.verdict import Verdict
from toreuma.engine.proposals import with_second_grip

__all__ = ["Routed", "best_route"]

Progress = Callable[[float], None]


class _Proposer(Protocol):
    """A route for a job; ``first`` is one that is known for its first side."""

    def __call__(self, job: Job, first: Proposed | None, progress: Progress) -> Proposed: ...


@dataclass(frozen=True, kw_only=True)
class Routed:
    """A route, what its proof says of the part, and how long it takes."""

    proposed: Proposed
    verdict: Verdict
    seconds: float

    @property
    def cost(self) -> tuple[int, int, float]:
        """Finished comes first, then how much is open, then time."""
        verdict = self.verdict
        rank = 2 if verdict.dangers else 0 if verdict.finished else 1
        return rank, len(verdict.open) + len(verdict.dangers), self.seconds


def best_route(
    job: Job, propose: _Proposer, judged: Callable[[Job], tuple[Verdict, float]], check: Check, progress: Progress
) -> Proposed:
    """The best of the routes tried, with the state its proof gives it.

    The job as it is comes first; where that leaves something open, the part is gripped a second time.
    """
    first = propose(job, None, lambda share: progress(share / 2))
    found = [_routed(first, judged)]
    for other in _others(job) if not found[0].verdict.finished else ():
        check()
        try:
            again = propose(other, first, lambda share: progress(0.5 + share / 2))
            found.append(_routed(again, judged))
        except ToreumaError:  # what cannot be held so is no route
            continue
        if found[-1].verdict.finished:
            break
    progress(1.0)
    best = min(found, key=lambda one: one.cost)
    without = () if best.verdict.finished else best.proposed.without
    return replace(best.proposed, without=without, state=best.verdict.state, words=best.verdict.words)


def _routed(proposed: Proposed, judged: Callable[[Job], tuple[Verdict, float]]) -> Routed:
    verdict, seconds = judged(proposed.job)
    return Routed(proposed=proposed, verdict=verdict, seconds=seconds)


def _others(job: Job) -> Iterator[Job]:
    """The job held in other ways."""
    gripped = with_second_grip(job)
    if gripped is not None:
        yield gripped
