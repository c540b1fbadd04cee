"""The route that is proposed: several are planned and proved where the first one leaves something open, and the best of
them by what comes of it is taken."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

from toreuma.core.auto.propose import Proposed
from toreuma.core.edit.necks import necks_as_grooves
from toreuma.core.edit.reshape import mirrored
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.core.spoken import q, said
from toreuma.core.verdict import Verdict
from toreuma.engine.proposals import (
    CENTRED_FROM,
    farther_out,
    longer_piece,
    proposed,
    sawn,
    widest_end_z,
    with_live_centre,
    with_second_grip,
)

__all__ = ["Routed", "Way", "best_route"]

TOOL_S = 6.0
"""What a tool more in the turret counts: it is set, measured and kept."""
FINISHED = ("finished", "finished but for")
GROOVED = "its necks cut as grooves"
REST = "what is left"
"""The end of the names of cuts with a second tool."""

Progress = Callable[[float], None]


@dataclass(frozen=True)
class Way:
    """A job held in some way, in ``words``; the first side serves the outside down to ``ends_z``, mm along Z (None: all
    it can). ``for_outside``: it only helps where the outside is left open; ``fine``: a second tool is taken
    for small rests."""

    job: Job
    words: str
    ends_z: float | None = None
    for_outside: bool = False
    fine: bool = False


_Proposer = Callable[[Way, Proposed | None, Progress], Proposed]
"""A route for a way to hold the job; the second is one that is known for its first side."""


@dataclass(frozen=True, kw_only=True)
class Routed:
    """A route for a way to hold the part, what its proof says of the part, and how long it takes."""

    way: Way
    proposed: Proposed
    verdict: Verdict
    seconds: float

    @property
    def cost(self) -> tuple[int, int, float]:
        """Finished comes first, then how much is open, then time and tools."""
        verdict, tools = self.verdict, len(self.proposed.job.tools)
        rank = 2 if verdict.dangers else 0 if verdict.finished else 1
        return rank, len(verdict.open) + len(verdict.dangers), self.seconds + TOOL_S * tools

    @property
    def is_plain(self) -> bool:
        """Every surface is cut toward the chuck, by one strong tool."""
        job = self.proposed.job
        lefts = any(getattr(tool, "hand", "") == "left" and tool.kind == "turning" for tool in job.tools)
        backs = any(tool.kind == "boring" and tool.bar.back for tool in job.tools)
        rounds = any(tool.kind == "turning" and tool.insert.shape == "R" for tool in job.tools)
        rest = any(one.name.endswith(REST) for setup in job.setups for one in setup.operations)
        return not (lefts or backs or rounds or rest)


def best_route(
    job: Job, propose: _Proposer, judged: Callable[[Job], tuple[Verdict, float]], check: Check, progress: Progress
) -> Proposed:
    """The best of the routes tried, with the state its proof gives it.

    The job as it is comes first; where that leaves something open, or cuts backward what another hold would serve
    plainly, the part is gripped a second time.
    """
    pieces = sawn(job)
    cut = (_sawn_words(pieces),) if pieces is not None else ()
    job = pieces or job
    if (carried := with_live_centre(job)) is not None:
        try:
            found = _best(carried, propose, judged, check, progress, (*cut, _centre_words(carried)))
        except ToreumaError:  # what carries it leaves no room
            return _best(job, propose, judged, check, progress, cut)
        if found.state in FINISHED:
            return found
        free = _best(job, propose, judged, check, progress, cut)
        return free if free.state in FINISHED else found
    return _best(job, propose, judged, check, progress, cut)


def _best(
    job: Job,
    propose: _Proposer,
    judged: Callable[[Job], tuple[Verdict, float]],
    check: Check,
    progress: Progress,
    cut: tuple[str, ...],
) -> Proposed:
    """The best of the ways to hold a job, begun with the one it has; ``cut`` is what was decided before."""
    as_it_is = Way(job, "as it is held" if len(job.setups) < 2 and job.second_hold is None else "in two holds")
    first = propose(as_it_is, None, lambda share: progress(share / 2))
    found = [_routed(as_it_is, first, judged)]
    plain = found[0].verdict.finished and found[0].is_plain
    for way in _others(job) if not plain else ():
        check()
        if way.for_outside and not any(row.key.startswith("outside") for row in found[0].verdict.open):
            continue
        if way.fine and any(one.verdict.finished for one in found):
            continue
        alike = way.job.part == job.part and way.job.stock == job.stock
        same = alike and way.job.setup == job.setup
        if way.ends_z is None and alike and any(one.verdict.finished for one in found):
            continue  # nothing is left for a second grip, or for a tool that had no room
        try:
            known = first if way.ends_z is None and same and not way.fine else None
            again = propose(way, known, lambda share: progress(0.5 + share / 2))
            found.append(_routed(way, again, judged))
        except ToreumaError:  # what cannot be held so is no route
            continue
        if found[-1].verdict.finished and found[-1].is_plain:
            break
    progress(1.0)
    ranked = sorted(found, key=lambda one: one.cost)
    best, *others = (_said(one, job, cut) for one in ranked)
    rivals = tuple(one for one in others if one.job != best.job)
    rival = next((one for one in ranked[1:] if one.proposed.job != best.job), None)
    return replace(best, decided=_decided(ranked[0], rival) if rival is not None else "", others=rivals)


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
    (rank, open_, _), (other_rank, other_open, _) = best.cost, rival.cost
    way, other = best.way.words, rival.way.words
    if rank != other_rank:
        return said("{}: {}; {}: {}", way, _briefly(best), other, _briefly(rival))
    if open_ != other_open:
        return said("{}: {} open; {}: {} open", way, open_, other, other_open)
    (mine, few), (theirs, many) = ((q(one.seconds, "s", ".0f"), len(one.proposed.job.tools)) for one in (best, rival))
    return said("{}: {}, {} tools; {}: {}, {} tools", way, mine, few, other, theirs, many)


def _briefly(one: Routed) -> str:
    return "finished" if one.verdict.finished else one.verdict.state


def _routed(way: Way, proposed: Proposed, judged: Callable[[Job], tuple[Verdict, float]]) -> Routed:
    verdict, seconds = judged(proposed.job)
    return Routed(way=way, proposed=proposed, verdict=verdict, seconds=seconds)


def _others(job: Job) -> Iterator[Way]:
    """Other ways to hold it: gripped a second time, for what is left or for all that lies behind its widest place; then
    with its other end in front."""
    gripped = with_second_grip(job)
    if gripped is not None:
        yield Way(gripped, "gripped again for what is left")
    farther = farther_out(job)
    if farther is not None:
        yield Way(farther, "from a bar that stands out farther", for_outside=True)
    if (grooved := _grooved(job)) is not None:
        yield Way(grooved, GROOVED)
        if (again := with_second_grip(grooved)) is not None:
            yield Way(again, f"{GROOVED}, and gripped again")
    for held in (job, gripped):
        if held is not None:
            yield Way(held, "with a second tool for what is left", for_outside=True, fine=True)
    if len(job.setups) > 1 or job.stock.kind == "free":
        return
    longer = longer_piece(job)
    if longer is not None:
        yield Way(longer, "from a longer piece, parted off")
    behind = widest_end_z(job)
    if behind is not None and _is_heavier_behind(job, behind):
        yield from _turned(job)
    if behind is not None and (held := with_second_grip(job, behind)) is not None:
        yield Way(held, "the widest place first, the rest from the other end", behind)
    if behind is None or not _is_heavier_behind(job, behind):
        yield from _turned(job)


def _grooved(job: Job) -> Job | None:
    """The job with its necks drawn as grooves; None where it has none."""
    part = necks_as_grooves(job.part)
    if part is None:
        return None
    try:
        return proposed(job.changed(part=part))
    except ToreumaError:
        return None


def _is_heavier_behind(job: Job, ends_z: float) -> bool:
    """More is to be turned off behind a place than in front of it: that wants the first hold, which is the strong
    one."""
    stock = job.stock
    if stock.kind == "free":
        return False
    chain = [(one.z_mm, one.d_mm / 2) for one in job.part.outside]
    rough = stock.largest_d_mm / 2
    behind = front = 0.0
    for (z0, r0), (z1, r1) in pairwise(chain):
        taken = (z0 - z1) * (rough**2 - (r0**2 + r0 * r1 + r1**2) / 3)
        if (z0 + z1) / 2 < ends_z:
            behind += taken
        else:
            front += taken
    return behind > front


def _turned(job: Job) -> Iterator[Way]:
    """With its other end in front."""
    part = mirrored(job.part)
    if part == job.part:
        return
    try:
        turned = proposed(job.changed(part=part))
    except ToreumaError:
        return
    same = part.outside == job.part.outside and part.inside == job.part.inside
    yield Way(turned, "begun from its other end", for_outside=not same)
    behind = widest_end_z(turned)
    held = with_second_grip(turned, behind)
    if held is None and turned.second_hold is not None:
        held, behind = turned, None
    if held is not None:
        yield Way(held, "begun from its other end, and gripped again", behind)
