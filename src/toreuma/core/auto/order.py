"""The order of operations: what clears the way first, thin and finished places late, parting off last."""

from collections.abc import Sequence

from toreuma.core.advise.wishes import Wish
from toreuma.core.auto.steps import RouteStep
from toreuma.core.kinds.operations import RANKS
from toreuma.core.model import Job

__all__ = ["SLENDER", "is_cut_first", "ordered"]

SLENDER = 5.0
"""Stick-out over diameter beyond which the outside is roughed before facing: the force goes toward the chuck. A bar
with corners is made round first as well: facing it would be one knock after the other."""

ROUGH_FIRST = 8

ON_THE_AXIS = ("face_groove", "axial_hole", "centre_hole")


def ordered(job: Job, steps: Sequence[RouteStep]) -> list[RouteStep]:
    """Steps in the order they are cut; equal ones stay as they came."""
    hold = job.setup.hold
    long_one = job.stock.kind != "free" and hold.stick_out_mm / job.stock.largest_d_mm > SLENDER
    with_centre = job.setup.centre is not None
    rough_first = (long_one or job.stock.kind == "polygon") and not with_centre
    ranks = {**RANKS, "rough outside": ROUGH_FIRST} if rough_first else RANKS
    last = max(ranks.values())

    def key(step: RouteStep) -> tuple[bool, bool, int]:
        rank = ranks[step.group]
        return rank == last, with_centre and not step.operation.centre_back, rank

    return sorted(steps, key=key)


def is_cut_first(job: Job, wish: Wish) -> bool:
    """While a live centre is drawn back: the front, everything on the axis and in the bore, and parting off."""
    feature = job.part.features[wish.feature] if wish.feature >= 0 else None
    if feature is not None:
        return feature.kind in ON_THE_AXIS or getattr(feature, "side", "outside") == "inside"
    return wish.surface is None or wish.surface.kind in ("bore", "front")
