"""The metal at any moment of a program, and where the tool stands."""

from collections import OrderedDict
from collections.abc import Sequence
from itertools import groupby

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region, rings
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.simulate.removal import after_cutting
from toreuma.core.simulate.timeline import Moment, Timeline

__all__ = ["Replay", "ToolOutline"]

KEEP = 24

ToolOutline = tuple[list[Points], list[Points]]
"""Outlines of body and cutting part, each a list of closed (n, 2) rings in mm."""


class Replay:
    """Stock and tool over the time of a timeline.

    ``ends`` are stocks known already: (index of the last span they hold for, region), by rising index.
    """

    def __init__(self, job: Job, stock: Region, timeline: Timeline, ends: Sequence[tuple[int, Region]] = ()) -> None:
        self._stock = stock
        self.timeline = timeline
        self._ends = tuple(ends)
        self._shapes: dict[int, ToolShape] = {tool.station: shape_of(tool) for tool in job.tools}
        self._recent: OrderedDict[tuple[int, int], Region] = OrderedDict()

    def stock_at(self, seconds: float) -> Region:
        """The stock, upper half, mm, after everything cut until ``seconds``."""
        moment = self.timeline.at(seconds)
        if moment.index < 0:
            return self._stock
        key = (moment.index, round(moment.share * 200))
        if key not in self._recent:
            self._recent[key] = self._compute(moment)
            if len(self._recent) > KEEP:
                self._recent.popitem(last=False)
        return self._recent[key]

    def _compute(self, moment: Moment) -> Region:
        first, stock = 0, self._stock
        for index, region in self._ends:
            if index < moment.index or (index == moment.index and moment.share >= 1):
                first, stock = index + 1, region
        motions = [span.motion for span in self.timeline.spans[first : moment.index + 1]]
        if motions and moment.share < 1:
            last = motions.pop()
            motions += [last.until(moment.share)] if moment.share > 0 else []
        for station, run in groupby(motions, key=lambda motion: motion.station):
            if station in self._shapes:
                stock = after_cutting(stock, list(run), self._shapes[station])
        return stock

    def tool_at(self, seconds: float) -> ToolOutline | None:
        """Outlines of the tool in place; None before the first tool is called."""
        moment = self.timeline.at(seconds)
        if moment.index < 0:
            return None
        motion: Motion = self.timeline.spans[moment.index].motion
        shape = self._shapes.get(motion.station)
        if shape is None:
            return None
        tip = motion.segment.at(moment.share)
        origin = (tip[0] - shape.tip[0], tip[1] - shape.tip[1])
        return [ring + origin for ring in rings(shape.body)], [ring + origin for ring in rings(shape.cutting)]
