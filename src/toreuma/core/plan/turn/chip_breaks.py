"""Breaking chips by stopping the feed: short retracts or stops on the way, for work that nobody watches."""

from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Job, Machine, Material, RoughBore, RoughOd
from toreuma.core.motion import Motion, Spindle
from toreuma.core.plan.ground.path import Path
from toreuma.core.simulate.clock import motion_time_s

__all__ = ["BACK_MM", "Breaks", "breaks_of", "chip_breaks", "feed_in_pieces", "stops_in_hard_skin"]

BACK_MM = 0.3
"""How far the tool goes back to break a chip: enough for the edge to leave the cut."""

STOP_TURNS = 1.5
"""A stop of the feed lasts so many turns: after one the chip has no thickness left."""


@dataclass(frozen=True)
class Breaks:
    """The feed is broken off every ``every_mm``: by going back a little, or by standing for ``stop_s``."""

    every_mm: float
    stop_s: float = 0.0


def breaks_of(operation: RoughOd | RoughBore, spindle: Spindle, machine: Machine, d_mm: float) -> Breaks | None:
    """How the operation breaks its chips; None where it does not. A stop lasts as long as on ``d_mm``, the largest
    diameter, where the spindle turns slowest."""
    if operation.chip_break_mm is None:
        return None
    if operation.chip_break == "retract":
        return Breaks(operation.chip_break_mm)
    rpm = max(spindle_rpm(spindle, d_mm / 2, machine.max_rpm), 1.0)
    return Breaks(operation.chip_break_mm, round(60 * STOP_TURNS / rpm, 3))


def feed_in_pieces(path: Path, feed: float, end_z: float, breaks: Breaks | None) -> None:
    """Along Z to ``end_z``, breaking the feed off after every so many millimetres; in one piece without."""
    begin = path.nose[0]
    length = abs(end_z - begin)
    if breaks is None or length <= breaks.every_mm:
        path.feed(feed, z=end_z)
        return
    toward = 1.0 if end_z > begin else -1.0
    at = begin + toward * breaks.every_mm
    while abs(end_z - at) > BACK_MM and (end_z - at) * toward > 0:
        path.feed(feed, z=at)
        if breaks.stop_s > 0:
            path.event("", breaks.stop_s)
        else:
            path.rapid(z=at - toward * BACK_MM)
        at += toward * breaks.every_mm
    path.feed(feed, z=end_z)


def chip_breaks(motions: Sequence[Motion], machine: Machine, breaks: Breaks) -> Evidence:
    """How often the feed breaks off, and the seconds it costs: the stop, or the way back and the same way again at
    feed."""
    if breaks.stop_s > 0:
        count = sum(1 for motion in motions if motion.dwell_s and not motion.event)
        return Evidence(
            "stops to break chips", "", float(count), "", formula="the feed stands for a turn and a half",
            inputs=(Input("each stop", "t", breaks.stop_s, "s"), Input("turns", "", STOP_TURNS, "")),
            note=f"They cost {count * breaks.stop_s:.1f} s.",
        )  # fmt: skip
    backs = [m for m in motions if m.is_rapid and not m.dwell_s and abs(m.segment.length - BACK_MM) < 1e-6]
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


def stops_in_hard_skin(material: Material, operation: RoughOd | RoughBore) -> tuple[Finding, ...]:
    """A stop rubs: an alloy that hardens gets a skin just where the edge goes on."""
    if operation.chip_break_mm is None or operation.chip_break != "stop" or not material.work_hardens:
        return ()

    def back(job: Job) -> Job:
        return job.with_operation(operation.id, lambda op: op.changed(chip_break="retract"))

    what = f"the feed stops in {material.name}, which hardens where the edge rubs"
    why = "no dwell in work-hardening alloys: the next turn meets a hard ring"
    return (
        Finding("warning", "chips.stop", what, why, operation=operation.id, cures=(Cure("Go back instead", back),)),
    )
