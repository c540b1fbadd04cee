"""The ways a part may be held and cut: gripped a second time, from its other end, with its necks as grooves."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from toreuma.core.edit.necks import necks_as_grooves
from toreuma.core.edit.reshape import mirrored
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.engine.proposals import farther_out, longer_piece, proposed, widest_end_z, with_second_grip

__all__ = ["GROOVED", "Way", "other_ways"]

BESIDE_HOLD_MM = 35.0
"""A hold that is drawn back gives room for a holder so far before the end of the part."""
GROOVED = "its necks cut as grooves"


@dataclass(frozen=True)
class Way:
    """A job held in some way, in ``words``; the first side serves the outside down to ``ends_z``, mm along Z (None: all
    it can). ``for_outside``: it only helps where the outside is left open, with ``near_back_mm`` so near its end;
    ``fine``: a second tool is taken for small rests; ``anew``: the machine is set up anew for the second side."""

    job: Job
    words: str
    ends_z: float | None = None
    for_outside: bool = False
    near_back_mm: float | None = None
    fine: bool = False
    anew: bool = False


def other_ways(job: Job) -> Iterator[Way]:
    """Other ways to hold it: gripped a second time, for what is left or for all that lies behind its widest place; with
    its other end in front, early where most is to be turned off behind."""
    gripped = with_second_grip(job)
    either = len(job.setups) < 2 and not (job.stock.kind == "free" and (job.stock.outline or job.stock.outside))
    behind = widest_end_z(job) if either else None
    heavier = behind is not None and _is_heavier_behind(job, behind)
    turned = list(_turned(job)) if heavier else []
    yield from turned[:1]
    if gripped is not None:
        yield Way(gripped, "gripped again for what is left")
    yield from turned[1:]
    farther = farther_out(job)
    if farther is not None:
        yield Way(farther, "from a bar that stands out farther", for_outside=True, near_back_mm=BESIDE_HOLD_MM)
    if (grooved := _grooved(job)) is not None:
        yield Way(grooved, GROOVED)
        if (again := with_second_grip(grooved)) is not None:
            yield Way(again, f"{GROOVED}, and gripped again")
    for held in (job, gripped):
        if held is not None:
            yield Way(held, "with a second tool for what is left", for_outside=True, fine=True)
    if not either:
        return
    longer = longer_piece(job)
    if longer is not None:
        yield Way(longer, "from a longer piece, parted off")
    if behind is not None and (held := with_second_grip(job, behind)) is not None:
        yield Way(held, "the widest place first, the rest from the other end", behind)
    if not heavier:
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
