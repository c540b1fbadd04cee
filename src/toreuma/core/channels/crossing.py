"""Carriers of one side of the axis cannot pass each other on their way along Z."""

from itertools import combinations

from toreuma.core.model import Job
from toreuma.core.model.carrier import SpindleName

__all__ = ["crossings"]


def crossings(job: Job, carrier: int, spindle: SpindleName) -> tuple[int, ...]:
    """Numbers below zero, one for every pair of carriers that would have to pass each other: while one of the pair
    works where it would have to be past the other, the other cannot do so either.

    ``carrier`` counts from 0. Of two on the same side, in different channels, the one whose reference point lies
    nearer to the main spindle stays on that side of the other.
    """
    found = []
    carriers = job.machine.carriers
    for number, (a, b) in enumerate(combinations(range(len(carriers)), 2), 1):
        one, other = carriers[a], carriers[b]
        if one.side != other.side or one.channel == other.channel:
            continue
        nearer, farther = sorted((a, b), key=lambda n: (carriers[n].reference_from_nose_mm, n))
        if (carrier, spindle) in ((nearer, "sub"), (farther, "main")):
            found.append(-number)
    return tuple(found)
