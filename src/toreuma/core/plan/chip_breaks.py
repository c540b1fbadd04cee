"""Breaking chips by stopping the feed: short retracts on the way, for work that nobody watches."""

from collections.abc import Sequence

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Machine
from toreuma.core.motion import Motion
from toreuma.core.plan.work import Path
from toreuma.core.simulate.clock import motion_time_s

__all__ = ["BACK_MM", "chip_breaks", "feed_in_pieces"]

BACK_MM = 0.3
"""How far the tool goes back to break a chip: enough for the edge to leave the cut."""


def feed_in_pieces(path: Path, feed: float, end_z: float, every_mm: float | None) -> None:
    """Along Z to ``end_z``, going back a little after every so many millimetres; in one piece without them."""
    begin = path.nose[0]
    length = abs(end_z - begin)
    if every_mm is None or length <= every_mm:
        path.feed(feed, z=end_z)
        return
    toward = 1.0 if end_z > begin else -1.0
    at = begin + toward * every_mm
    while abs(end_z - at) > BACK_MM and (end_z - at) * toward > 0:
        path.feed(feed, z=at)
        path.rapid(z=at - toward * BACK_MM)
        at += toward * every_mm
    path.feed(feed, z=end_z)


def chip_breaks(motions: Sequence[Motion], machine: Machine) -> Evidence:
    """How often the feed goes back, and the seconds it costs: the way back, and the same way again at feed."""
    backs = [m for m in motions if m.is_rapid and abs(m.segment.length - BACK_MM) < 1e-6]
    cost = 0.0
    for index, motion in enumerate(motions):
        if motion in backs:
            after = motions[index + 1] if index + 1 < len(motions) else None
            again = motion_time_s(after, machine) * BACK_MM / after.segment.length if after is not None else 0.0
            cost += motion_time_s(motion, machine) + again
    return Evidence(
        "retracts to break chips", "", float(len(backs)), "", formula="the feed goes back a little every so many mm",
        note=f"They cost {cost:.1f} s.",
    )  # fmt: skip
