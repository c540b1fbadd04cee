"""Feed in the air: the share of the feed time in which an edge meets no metal, on the raster."""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from benchmarks.judge.court import Court
from benchmarks.judge.machine import Way
from benchmarks.judge.metal import Cells, Points, hull, round_ways

__all__ = ["Fed", "fed"]

PIECE_MM = 0.5
"""Ways are looked at in pieces so long."""
MOST_RPM = 6000.0


@dataclass(frozen=True)
class Fed:
    """Seconds at feed, and seconds of them in the air; threads and taps are not counted."""

    feed_s: float
    air_s: float


def fed(court: Court, ways: list[Way], blank: Cells, speeds: float = 1.0) -> Fed:
    """What the ways of one side do at feed in a blank; ``speeds`` turns surface speeds into m/min."""
    raster, metal = court.raster, blank.copy()
    feed_s = air_s = 0.0
    for one in ways:
        tool = court.tools.get(one.station)
        if tool is None or one.how != "feed" or one.feed <= 0:
            continue
        places = round_ways(one.start, one.end, one.centre, one.clockwise)
        for a, b in _pieces(places):
            seconds = _seconds(one, a, b, speeds)
            feed_s += seconds
            met = False
            for core, radius in ((tool.core, tool.round), *((piece, 0.0) for piece in tool.ahead)):
                shape = hull(np.vstack([core + a, core + b]))
                window = raster.window(shape, radius)
                cells = raster.within(window, metal[window], shape, radius)
                met = met or bool(cells.any())
                metal[window] &= ~cells
            air_s += 0.0 if met else seconds
    return Fed(feed_s, air_s)


def _pieces(places: Points) -> list[tuple[Points, Points]]:
    """Chords no longer than a piece; short ones of a round stay together up to its length."""
    found = []
    start = places[0]
    for end in places[1:]:
        long = math.dist(start, end)
        if long < PIECE_MM / 2 and end is not places[-1]:
            continue
        count = max(1, math.ceil(long / PIECE_MM))
        cuts = [start + (end - start) * n / count for n in range(count + 1)]
        found += list(pairwise(cuts))
        start = end
    return found


def _seconds(one: Way, a: Points, b: Points, speeds: float) -> float:
    long = math.dist(a, b)
    if one.per_minute:
        return 60 * long / one.feed
    rpm = one.rpm
    if one.surface:
        middle = abs(float(a[1] + b[1])) / 2
        rpm = min(1000 * speeds * one.rpm / (2 * math.pi * max(middle, 0.05)), one.clamp or MOST_RPM)
    return 60 * long / (one.feed * rpm) if rpm > 0 else 0.0
