"""What planning one operation gives."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import shapely

from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.infeed import InfeedPass
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Segment
from toreuma.core.geometry.region import EMPTY, Region
from toreuma.core.model import Operation
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.opened import Interruption
from toreuma.core.propose.proposal import Proposal
from toreuma.core.simulate.clock import Times

__all__ = ["PLANNING_CHORD_MM", "Cuts", "Cycle", "OperationFault", "OperationPlan", "Pass", "Word"]


class OperationFault(ToreumaError):
    """An operation that cannot be planned, with cures where there are any."""

    def __init__(self, code: str, what: str, cure: str, *cures: Cure, at: tuple[float, float] | None = None) -> None:
        super().__init__("operation", what, cure)
        self.code = code
        self.cures = cures
        self.at = at


@dataclass(frozen=True)
class Pass:
    """One cutting pass of the programmed point, for drawing; ``depth_mm`` on radius (along Z for a face)."""

    segments: tuple[Segment, ...]
    depth_mm: float
    finishing: bool = False


@dataclass(frozen=True)
class Word:
    """What a cycle is told: ``what`` it is, as the dialect's templates of cycles name it, and ``how`` its number is
    written: a place (``x`` on radius, ``z``), an amount (``across`` on radius, ``length``), the place ``above`` a hole,
    ``fine`` in the least increment, ``count``, ``padded`` to six figures, ``feed``, or the numbers of the contour's
    blocks (``first``, ``last``). Lengths in mm."""

    what: str
    how: Literal["x", "z", "across", "length", "above", "fine", "count", "padded", "feed", "first", "last"]
    number: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Cycle:
    """A run of moves that a control makes from one or two blocks: from move ``first`` on, ``count`` moves.

    ``name`` is what the dialect calls it. ``contour`` is what its blocks describe, as the programmed point runs it;
    ``contour_of`` names the operation whose contour it follows. ``ends`` where a word has to end it.
    """

    name: str
    first: int
    count: int
    words: tuple[Word, ...]
    contour: tuple[Segment, ...] = ()
    contour_of: str = ""
    ends: bool = False


PLANNING_CHORD_MM = 0.001
"""How closely planning simulates its own cuts; the proof, which decides, does it more finely."""


@dataclass(frozen=True, kw_only=True)
class Cuts:
    """Moves and passes of one operation, before they are timed and simulated.

    ``figures`` are its numbers for code, ``reasons`` the same and more for people; ``further`` are those of further
    tools. ``coverage`` gives the region the operation leaves clean as far as its tool reaches; it is computed only
    when somebody asks what remains. ``chord_mm`` is how closely planning simulates the cuts: coarsely where a
    finishing allowance stays on. ``infeed`` are the passes of a thread; ``becomes`` is the stock after an
    operation that does not cut; ``opens`` are the milled features that are open afterwards;
    ``cycles`` are the runs of moves to be written as one block each; ``strokes`` are first move and the one behind
    the last of every roughing pass that is written move by move; ``interruption`` is what open features do to the cut.
    """

    motions: tuple[Motion, ...]
    passes: tuple[Pass, ...]
    reasons: Reasons
    findings: tuple[Finding, ...] = ()
    proposal: Proposal | None = None
    coverage: Callable[[], Region] = field(default=lambda: EMPTY, compare=False)
    chord_mm: float = PLANNING_CHORD_MM
    infeed: tuple[InfeedPass, ...] = ()
    becomes: Region | None = None
    opens: tuple[int, ...] = ()
    cycles: tuple[Cycle, ...] = ()
    strokes: tuple[tuple[int, int], ...] = ()
    interruption: Interruption | None = None
    figures: Figures = field(default_factory=Figures)
    further: tuple[Reasons, ...] = ()


DECIDING = (Figure.FEED, Figure.TURNS, Figure.SPEED)
"""Numbers asked in turn for what held them down."""


@dataclass(frozen=True, kw_only=True)
class OperationPlan:
    """A planned operation: its cuts, the stock before and after, its times and findings.

    ``zone`` is the stretch along Z to which all of it is confined, if it is."""

    operation: Operation
    cuts: Cuts
    before: Region
    after: Region
    times: Times
    findings: tuple[Finding, ...]
    zone: tuple[float, float] | None = None

    @property
    def motions(self) -> tuple[Motion, ...]:
        return self.cuts.motions

    @property
    def figures(self) -> Figures:
        return self.cuts.figures

    @property
    def reasons(self) -> Reasons:
        return self.cuts.reasons

    @property
    def governed_by(self) -> str | None:
        """The limit that decides the cut; where speed and feed are not sought together, what held either down."""
        if self.cuts.proposal is not None:
            return self.cuts.proposal.governing.kind.name
        held = (self.reasons[key].bit for key in DECIDING if key in self.reasons)
        return next((limit.label for limit in held if limit is not None), None)

    def load_of(self, one: Pass) -> float:
        """Share of the available power one pass takes: that of the deepest, by depth."""
        power, there, depth = self.figures.power_kw, self.figures.power_there_kw, self.figures.ap_mm
        if power is None or not there or not depth:
            return 0.0
        return power / there * one.depth_mm / depth

    @cached_property
    def removed(self) -> Region:
        if not self.motions:
            return EMPTY
        before, after = self.before, self.after
        if self.zone is not None:  # elsewhere nothing changes
            before, after = (shapely.clip_by_rect(one, self.zone[0], 0, self.zone[1], 1e5) for one in (before, after))
        return before.difference(after)

    @cached_property
    def covered(self) -> Region:
        return self.cuts.coverage()
