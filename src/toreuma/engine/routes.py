"""The route that is proposed: several are planned and proved where the first one leaves something open, and the best of
them by what comes of it is taken."""

from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, replace

from toreuma.core.auto.mended import NO_STATION
from toreuma.core.auto.propose import Proposed
from toreuma.core.auto.steps import REST
from toreuma.core.auto.together import FEW
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.core.spoken import q, said
from toreuma.core.verdict import Verdict
from toreuma.engine.proposals import CENTRED_FROM, sawn, with_live_centre
from toreuma.engine.ways import GROOVED, Way, other_ways

__all__ = ["Routed", "Search"]

TOOL_S, SET_UP_S = 6.0, 30.0
"""What a tool more in the turret counts: it is set, measured and kept."""
WAYS_TO_COME = 1.5
"""Progress counts with so many more, whose number nobody knows."""
FINISHED = ("finished", "finished but for")

Proposer = Callable[[Way, Proposed | None, Callable[[float], None]], Proposed]
"""A route for a way to hold the job; the second is one that is known for its first side."""


@dataclass(frozen=True, kw_only=True)
class Routed:
    """A route for a way to hold the part, what its proof says of the part, and how long it takes."""

    way: Way
    proposed: Proposed
    verdict: Verdict
    seconds: float

    @property
    def cost(self) -> tuple[int, int, int, int, float]:
        """Finished comes first, then how much metal stands open, in how many places, then what has limits and is cut
        in both holds, then time and tools."""
        verdict, tools = self.verdict, len(self.proposed.job.tools)
        rank = 2 if verdict.dangers else 0 if verdict.finished else 1
        left = round(sum(row.left_mm2 for row in verdict.open))
        both = sum(row.in_both_holds for row in verdict.rows)
        between = SET_UP_S if self.way.anew else 0.0
        return rank, left, len(verdict.open) + len(verdict.dangers), both, self.seconds + TOOL_S * tools + between

    @property
    def is_short_of_stations(self) -> bool:
        """A tool does what it is not the first choice for, because stations are few."""
        return any(FEW in reason for one in self.proposed.chosen for reason in one.reasons)

    @property
    def is_plain(self) -> bool:
        """Every surface is cut toward the chuck, by one strong tool."""
        job = self.proposed.job
        lefts = any(getattr(tool, "hand", "") == "left" and tool.kind == "turning" for tool in job.tools)
        backs = any(tool.kind == "boring" and tool.bar.back for tool in job.tools)
        rounds = any(tool.kind == "turning" and tool.insert.shape == "R" for tool in job.tools)
        rest = any(one.name.endswith(REST) for setup in job.setups for one in setup.operations)
        return not (lefts or backs or rounds or rest)


@dataclass(frozen=True)
class Search:
    """How routes are looked for: ``propose`` plans a way, ``judged`` gives what its proof says and the seconds it
    takes, ``check`` raises to stop, ``offer`` is told the best route so far whenever it is a better one."""

    propose: Proposer
    judged: Callable[[Job], tuple[Verdict, float]]
    check: Check = never_cancel
    progress: Callable[[float], None] = lambda share: None
    offer: Callable[[Proposed], None] = lambda found: None

    def best(self, job: Job) -> Proposed:
        """The best of the routes tried, with the state its proof gives it.

        The job as it is comes first; where that leaves something open, or cuts backward what another hold would serve
        plainly, the part is held in other ways.
        """
        pieces = sawn(job)
        cut = (_sawn_words(pieces),) if pieces is not None else ()
        job = pieces or job
        carried = with_live_centre(job)
        if carried is None:
            return self._of_ways(job, cut)
        try:
            found = self._of_ways(carried, (*cut, _centre_words(carried)))
        except ToreumaError:  # what carries it leaves no room
            return self._of_ways(job, cut)
        if found.state in FINISHED:
            return found
        better = replace(self, offer=lambda one: self.offer(one) if one.state in FINISHED else None)
        free = better._of_ways(job, cut)
        return free if free.state in FINISHED else found

    def _of_ways(self, job: Job, cut: tuple[str, ...]) -> Proposed:
        """The best of the ways to hold a job, begun with the one it has; ``cut`` is what was decided before."""
        as_it_is = Way(job, "as it is held" if len(job.setups) < 2 and job.second_hold is None else "in two holds")
        tried = _Tried(job, cut, [self._route(as_it_is, None, 0)])
        plain = tried.first.verdict.finished and tried.first.is_plain
        if not plain:
            self.offer(tried.best())
        for count, way in enumerate(other_ways(job) if not plain else (), 1):
            self.check()
            if not tried.may_help(way):
                continue
            known = tried.first.proposed if tried.begins_alike(way) else None
            try:
                tried.routes.append(self._route(way, known, count))
            except ToreumaError:  # what cannot be held so is no route
                continue
            last = tried.routes[-1]
            if tried.ranked[0] is last:
                self.offer(tried.best())
            if last.verdict.finished and last.is_plain and not any(row.in_both_holds for row in last.verdict.rows):
                break
        self._set_up_anew(tried)
        self.progress(1.0)
        return tried.best()

    def _set_up_anew(self, tried: "_Tried") -> None:
        """A part that is turned round by hand, with tools for each side alone: the best two ways where none finishes
        it, and the best where tools serve for what they are not made for because stations are few."""
        best = tried.ranked[0]
        if tried.job.hand_over is not None or (best.verdict.finished and not best.is_short_of_stations):
            return
        turned = [one.way for one in tried.ranked if len(one.proposed.job.setups) > 1]
        for count, way in enumerate(turned[: 1 if best.verdict.finished else 2], len(tried.routes)):
            words = said("{}, set up anew in between", way.words)
            with suppress(ToreumaError):
                tried.routes.append(self._route(replace(way, anew=True, words=words), None, count))

    def _route(self, way: Way, known: Proposed | None, count: int) -> Routed:
        def told(share: float) -> None:
            done = count + share
            self.progress(done / (done + WAYS_TO_COME))

        proposed = self.propose(way, known, told)
        verdict, seconds = self.judged(proposed.job)
        return Routed(way=way, proposed=proposed, verdict=verdict, seconds=seconds)


@dataclass(frozen=True)
class _Tried:
    """The routes of a job that were planned and proved, in the order they were; ``cut`` is what was decided before."""

    job: Job
    cut: tuple[str, ...]
    routes: list[Routed]

    @property
    def first(self) -> Routed:
        return self.routes[0]

    @property
    def ranked(self) -> list[Routed]:
        return sorted(self.routes, key=lambda one: one.cost)

    def best(self) -> Proposed:
        """The best so far, the others with it."""
        ranked = self.ranked
        best, *others = (_said(one, self.job, self.cut) for one in ranked)
        rivals = tuple(one for one in others if one.job != best.job)
        rival = next((one for one in ranked[1:] if one.proposed.job != best.job), None)
        return replace(best, decided=_decided(ranked[0], rival) if rival is not None else "", others=rivals)

    def begins_alike(self, way: Way) -> bool:
        """Its first side is the first route's."""
        return way.ends_z is None and not way.fine and self._holds_alike(way) and way.job.setup == self.job.setup

    def may_help(self, way: Way) -> bool:
        """It may be better than what is there: a tool more has a station, room behind serves what is left there, and
        what is finished needs no more grips."""
        finished = any(one.verdict.finished for one in self.routes)
        if way.fine and (finished or any(one.code == NO_STATION for one in self.first.proposed.failed)):
            return False
        if way.for_outside and not self._is_open_outside(way):
            return False
        return not (finished and way.ends_z is None and self._holds_alike(way))

    def _is_open_outside(self, way: Way) -> bool:
        open_ = [row for row in self.first.verdict.open if row.key.startswith("outside")]
        if way.near_back_mm is not None:
            back = self.job.part.outside[-1].z_mm
            open_ = [row for row in open_ if row.at[0] < back + way.near_back_mm]
        return bool(open_)

    def _holds_alike(self, way: Way) -> bool:
        return way.job.part == self.job.part and way.job.stock == self.job.stock


def _centre_words(job: Job) -> str:
    """Why a centre carries the front."""
    stock = job.stock
    if stock.kind == "free":
        return ""
    slender = job.setup.hold.stick_out_mm / stock.largest_d_mm
    return said(
        "A live centre carries the front: it stands out {} diameters, more than {} give way",
        f"{slender:.1f}",
        f"{CENTRED_FROM:g}",
    )


def _sawn_words(job: Job) -> str:
    """Why the bar comes in pieces."""
    stock = job.stock
    if stock.kind == "free":
        return ""
    length, d, bore = (
        q(one or 0.0, "mm", "g") for one in (stock.length_mm, stock.largest_d_mm, job.machine.spindle_bore_mm)
    )
    return said("Sawn to pieces of {}: the bar is Ø {}, the spindle's bore Ø {}", length, d, bore)


def _said(one: Routed, job: Job, before: tuple[str, ...]) -> Proposed:
    """A route with the word of its proof, and what was done ``before`` it."""
    proposed, verdict = one.proposed, one.verdict
    without = () if verdict.finished else proposed.without
    taken, words = (*before, *proposed.taken), verdict.words
    if one.way.words.startswith(GROOVED):
        taken = ("The part's necks are drawn as grooves, so that a blade cuts them: the shape is the same", *taken)
    elif proposed.job.part != job.part:
        taken = ("The part is turned end for end: it is begun from its other end", *taken)
        words = said("{}; the part is turned end for end", words)
    return replace(
        proposed, without=without, taken=taken, state=verdict.state, words=words, way=one.way.words, seconds=one.seconds
    )


def _decided(best: Routed, rival: Routed) -> str:
    """The number that spoke for the best way, with the one it stood against."""
    (rank, left, open_, both, _), (other_rank, other_left, other_open, other_both, _) = best.cost, rival.cost
    way, other = best.way.words, rival.way.words
    if rank != other_rank:
        return said("{}: {}; {}: {}", way, _briefly(best), other, _briefly(rival))
    if left != other_left:
        mine, theirs = (q(float(one), "mm2", ".0f") for one in (left, other_left))
        return said("{}: {} stand open; {}: {}", way, mine, other, theirs)
    if open_ != other_open:
        return said("{}: {} open; {}: {} open", way, open_, other, other_open)
    if both != other_both:
        return said("{}: {} sizes cut in both holds; {}: {}", way, both, other, other_both)
    (mine, few), (theirs, many) = ((q(one.seconds, "s", ".0f"), len(one.proposed.job.tools)) for one in (best, rival))
    return said("{}: {}, {} tools; {}: {}, {} tools", way, mine, few, other, theirs, many)


def _briefly(one: Routed) -> str:
    return "finished" if one.verdict.finished else one.verdict.state
