"""What was computed for one request, as one value."""

from dataclasses import dataclass, replace

from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.prove import Proof
from toreuma.core.simulate.replay import Replay
from toreuma.core.verdict import Verdict
from toreuma.engine.follow import Outcome
from toreuma.engine.pair import PairProof

__all__ = ["NOTHING", "Results"]

WORST_FIRST = ("error", "warning", "note")


@dataclass(frozen=True, kw_only=True)
class Results:
    """``request`` is the number they answer. They come one after the other; ``problem`` is why there are none."""

    request: int = -1
    outcome: Outcome | None = None
    order: tuple[Finding, ...] = ()
    proof: Proof | None = None
    replay: Replay | None = None
    pair: PairProof | None = None
    verdict: Verdict | None = None
    problem: ToreumaError | None = None

    @property
    def hands_over(self) -> bool:
        """The part goes on to a second spindle, so that both channels are proved together."""
        job = self.outcome.job if self.outcome is not None else None
        return (
            job is not None and self.outcome is not None and self.outcome.transfer is not None and len(job.setups) > 1
        )

    @property
    def settled(self) -> bool:
        """Plan and proof of the side are there, or the reason why not."""
        if self.problem is not None:
            return True
        return self.outcome is not None and (self.proof is not None or not self.outcome.program.motions)

    @property
    def complete(self) -> bool:
        """Settled, both channels proved together where the part is handed over, and the whole part judged."""
        judged = self.problem is not None or self.verdict is not None or self.proof is None
        return self.settled and judged and (self.problem is not None or self.pair is not None or not self.hands_over)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Everything plan and proof have to say, worst first."""
        outcome, pair = self.outcome, self.pair
        found = (
            *(outcome.plan.all_findings if outcome else ()),
            *(self.order if outcome else ()),
            *(outcome.transfer.findings if outcome and outcome.transfer else ()),
            *(outcome.by_hand.findings if outcome and outcome.by_hand else ()),
            *(outcome.written.findings if outcome and outcome.written else ()),
            *(self.proof.findings if self.proof else ()),
            *(pair.ran.findings if pair else ()),
            *(pair.handed if pair else ()),
        )
        return tuple(sorted(found, key=lambda finding: WORST_FIRST.index(finding.severity)))

    def with_more(self, **more: object) -> "Results":
        return replace(self, **more)  # type: ignore[arg-type]


NOTHING = Results()
