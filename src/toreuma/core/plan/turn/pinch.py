"""Two tools from both sides of the axis that rough at the same time: one ahead, the other one pass deeper behind it.

One spindle has one speed: the tool ahead commands it. Each takes every other pass; where a pass has no partner, the
tool ahead takes it alone. The passive forces of both nearly cancel, their cutting forces add up.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line, Point
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, RoughOd, Tool
from toreuma.core.motion import STOPPED, Motion
from toreuma.core.plan.ground.path import APPROACH_MM, PULL_OUT_MM
from toreuma.core.plan.ground.result import Cuts, OperationPlan
from toreuma.core.plan.ground.work import Work
from toreuma.core.simulate.clock import times_of
from toreuma.core.spoken import q, said

__all__ = ["LAG_MM", "Couple", "couples", "is_pinched", "pinch_findings", "pinch_numbers", "pinched_s"]

LAG_MM = 3.0
"""How far the second tool stays behind the first along Z."""

SAME_MM = 0.01


@dataclass(frozen=True)
class Couple:
    """What both tools do at the same time: a pass each, or one alone (``follow`` is empty)."""

    lead: tuple[Motion, ...]
    follow: tuple[Motion, ...]


def is_pinched(job: Job, planned: OperationPlan) -> bool:
    """Two tools rough at the same time here, and nothing stands against it."""
    operation = planned.operation
    wanted = isinstance(operation, RoughOd) and operation.pinch_tool is not None and len(planned.cuts.strokes) > 1
    return wanted and not any(one.severity == "error" for one in planned.findings)


def couples(job: Job, planned: OperationPlan) -> tuple[Couple, ...]:
    """The passes of an operation in couples, each tool coming to its pass from where its last one ended."""
    operation = planned.operation
    second = job.tool(operation.pinch_tool or "") if isinstance(operation, RoughOd) else None
    if second is None:
        return ()
    safe = float(planned.before.bounds[3]) + APPROACH_MM + PULL_OUT_MM
    strokes = [_cutting(planned.motions[first:last]) for first, last in planned.cuts.strokes]
    index = planned.motions[0].start
    places = {"lead": index, "follow": index}
    found: list[Couple] = []
    at = 0
    while at < len(strokes):
        paired = at + 1 < len(strokes) and _fit(strokes[at], strokes[at + 1])
        lead = _coming(places["lead"], strokes[at], safe)
        places["lead"] = lead[-1].end
        follow: tuple[Motion, ...] = ()
        if paired:
            coming = _coming(places["follow"], strokes[at + 1], safe)
            wait = _lag_s(job, strokes[at])
            begun = next(n for n, one in enumerate(coming) if not one.is_rapid)
            stand = Motion(Line(coming[begun].start, coming[begun].start), None, STOPPED, second.station, dwell_s=wait)
            follow = tuple(
                replace(one, station=second.station, spindle=STOPPED, shared=True)
                for one in (*coming[:begun], stand, *coming[begun:])
            )
            places["follow"] = follow[-1].end
        found.append(Couple(lead, follow))
        at += 2 if paired else 1
    return tuple(_home(found, index, safe))


def _cutting(motions: tuple[Motion, ...]) -> tuple[Motion, ...]:
    """A pass from its first feed on."""
    begun = next((n for n, one in enumerate(motions) if not one.is_rapid), len(motions))
    return motions[begun:]


def _fit(ahead: tuple[Motion, ...], behind: tuple[Motion, ...]) -> bool:
    """The pass behind begins where the one ahead does, runs on straight, and ends no farther."""
    if not ahead or not behind:
        return False
    begins = abs(ahead[0].start[0] - behind[0].start[0]) < SAME_MM
    deeper = min(one.end[1] for one in behind) < min(one.end[1] for one in ahead)
    ends = min(one.end[0] for one in behind) >= min(one.end[0] for one in ahead) - SAME_MM
    return begins and deeper and ends


def _coming(at: Point, stroke: tuple[Motion, ...], safe: float) -> tuple[Motion, ...]:
    """A pass with the way to it: up, along above the metal, down."""
    first = stroke[0]
    ways = [(at[0], max(safe, at[1])), (first.start[0], max(safe, at[1])), first.start]
    found, here = [], at
    for there in ways:
        if there != here:
            found.append(Motion.rapid(here, there, first.spindle, first.station))
            here = there
    return (*found, *stroke)


def _lag_s(job: Job, ahead: tuple[Motion, ...]) -> float:
    """How long the second tool waits for the first one to be ahead, s."""
    cut = max(ahead, key=lambda one: one.length)
    rpm = spindle_rpm(cut.spindle, cut.start[1], job.machine.max_rpm)
    return 60 * LAG_MM / (cut.feed * rpm) if cut.feed and rpm > 0 else 1.0


def _home(found: list[Couple], index: Point, safe: float) -> Iterator[Couple]:
    """Both go back to where they came from behind their last pass."""
    follows = [n for n, one in enumerate(found) if one.follow]
    for n, one in enumerate(found):
        lead = (*one.lead, *_back(one.lead[-1], index, safe)) if n == len(found) - 1 else one.lead
        follow = (*one.follow, *_back(one.follow[-1], index, safe)) if follows and n == follows[-1] else one.follow
        yield Couple(lead, follow)


def _back(last: Motion, index: Point, safe: float) -> tuple[Motion, ...]:
    up = (last.end[0], max(safe, index[1]))
    ways = [Motion.rapid(last.end, up, last.spindle, last.station), Motion.rapid(up, index, last.spindle, last.station)]
    return tuple(replace(one, shared=last.shared) for one in ways)


def pinched_s(job: Job, planned: OperationPlan) -> float:
    """How long both tools take together, s."""
    if not is_pinched(job, planned):
        return planned.times.total_s
    total, before = 0.0, None
    for one in couples(job, planned):
        total += times_of(one.lead, job.machine, before).total_s
        total += (one.follow and LAG_MM and next(m.dwell_s for m in one.follow if m.dwell_s)) or 0.0
        before = one.lead[-1]
    return total


def pinch_numbers(work: Work, operation: RoughOd, cuts: Cuts) -> Reasons:
    """What two tools at once come to, beside the numbers of one."""
    figures, found = cuts.figures, Reasons()
    power, vc, depth = figures.power_kw, figures.vc_m_min, figures.ap_mm
    if power is not None:
        there = figures.power_there_kw or math.inf
        found[Figure.PINCH_POWER] = Evidence(
            "power of both tools", "P", 2 * power, "kW", formula="both tools cut the same chip at the same time",
            inputs=(Input("of one", "P1", power, "kW"),), limits=(Limit("there at this speed", there, "kW"),),
        )  # fmt: skip
    if vc is not None and depth is not None:
        r = float(work.stock.bounds[3])
        share = max((r - depth) / r, 0.0) if r > 0 else 1.0
        found[Figure.PINCH_SPEED] = Evidence(
            "second tool cuts at", "vc2", vc * share, "m/min",
            formula="vc · (r − ap) / r: one spindle, one speed",
            inputs=(Input("first tool", "vc", vc, "m/min"), Input("between both", "ap", depth, "mm")),
        )  # fmt: skip
    found[Figure.PINCH_LAG] = Evidence(
        "second tool stays behind by", "", LAG_MM, "mm", measured_on="along Z", formula="it cuts one pass deeper"
    )
    return found


def pinch_findings(work: Work, operation: RoughOd, cuts: Cuts) -> Iterator[Finding]:
    """What stands against two tools at once."""
    machine, first = work.given.machine, work.tool
    second = work.given.tool(operation.pinch_tool)
    if second is None:
        return
    alone = Cure("With one tool", lambda j: j.with_operation(operation.id, lambda op: op.changed(pinch_tool=None)))

    def told(code: str, what: str, why: str, *cures: Cure) -> Finding:
        return Finding("error", code, what, why, operation=operation.id, cures=(*cures, alone))

    carriers = machine.carrier_of(first.station), machine.carrier_of(second.station)
    if carriers[0].channel == carriers[1].channel:
        what = f"{first.id} and {second.id} are moved by one program"
        yield told("pinch.channel", what, "they cannot cut at the same time: take one of another channel")
    elif carriers[0].side == carriers[1].side:
        what = f"{first.id} and {second.id} both come from {carriers[0].side} the axis"
        yield told("pinch.side", what, "they meet: take one from the other side")
    if not _alike(first, second):
        what = f"{second.id} has another edge than {first.id}"
        yield told("pinch.shape", what, "their passes would not match")
    if operation.pattern != "along_z" or operation.written != "moves" or operation.chip_break_mm:
        what = "two tools at once rough along Z in plain moves, without chip breaks or cycles"
        plain = Cure("Plain moves along Z", lambda j: j.with_operation(operation.id, _plainly))
        yield told("pinch.moves", what, "a control's cycle knows one tool", plain)
    power, there = cuts.figures.power_kw, cuts.figures.power_there_kw
    if power is not None and there is not None and 2 * power > there + 1e-9:
        depth = (cuts.figures.ap_mm or 0.0) / 2
        what = said("both tools want {}, the spindle has {}", q(2 * power, "kW", ".1f"), q(there, "kW", ".1f"))
        shallower = Cure(said("At most {} deep", q(depth)), lambda j: _no_deeper(j, operation, depth))
        yield Finding("warning", "pinch.power", what, "it stalls", operation=operation.id, cures=(shallower, alone))


def _alike(first: Tool, second: Tool) -> bool:
    """Both have the same edge in the same holder."""
    one, other = shape_of(first), shape_of(second)
    same_core = one.core.shape == other.core.shape and abs(one.core - other.core).max() < 1e-6
    return same_core and abs(one.nose_radius - other.nose_radius) < 1e-9 and one.tip == other.tip


def _plainly(operation: object) -> RoughOd:
    assert isinstance(operation, RoughOd)
    return operation.changed(pattern="along_z", written="moves", chip_break_mm=None)


def _no_deeper(job: Job, operation: RoughOd, depth: float) -> Job:
    pins = operation.pins.changed(ap_mm=round(depth, 3))
    return job.with_operation(operation.id, lambda op: op.changed(pins=pins))
