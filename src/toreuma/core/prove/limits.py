"""Speeds, feeds and depths as a program really has them, against what machine, hold, tool and material stand.

The limits are those that planning keeps, worked out anew from what was read and from the metal that was met. Beyond
one of them a cut is *out of limits*, a warning; beyond what holds or breaks it is *unsafe*, an error.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from toreuma.core.cutting.corner import usable_depth_mm
from toreuma.core.cutting.grip import grip_at_speed_n
from toreuma.core.cutting.limits import HIGHEST_SHARE
from toreuma.core.cutting.situation import Gripped
from toreuma.core.cutting.speed import spindle_rpm, surface_speed_rpm
from toreuma.core.cutting.spindle_limits import BAR_BEHIND, live_limits, spindle_limits
from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Centre, Job, SteadyRest, Tool
from toreuma.core.model.tool import BoringTool, Drill, GroovingTool, Mill, PartingTool, Reamer, TurningTool
from toreuma.core.motion import Motion
from toreuma.core.prove.cutter import MoveDone
from toreuma.core.read import Program
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["limit_findings"]

SAME = 1 + 1e-3
"""Shares up to this are rounding."""

ROUGHLY = 1.05
"""Forces are known to 20 % at best: so little more than the safety leaves is no news."""

NOSE_BREAKS = 0.8
"""A feed of so much of the nose radius breaks the corner: typical, planning stays at half the radius."""

FAR_BEYOND = {"blade": 2.0, "drill": 1.6, "window": 1.6, "mill": 2.0, "speed": 2.0, "power": 1.5}
"""So many times its largest feed, speed or power, and something breaks or stalls: judged, on the far side."""

LEAST_MM2 = 0.3
"""Short cuts of less metal than this are over before anything feels them."""

MOST_REAMED_MM, REAMED_SHARE = 0.3, 0.02
"""The most a reamer takes on diameter: so much, and a share of its diameter; typical, twice of what is planned."""

FLYWHEEL_S = 1.0
"""Chuck and work carry the spindle through a load that is over sooner: judged."""

LEAST_TURNS = 3.0
"""What an edge meets in fewer turns is how it comes into the metal, wide and thin: no depth that a cut goes on with."""

FILM_MM = 0.02
"""Thinner cuts load nothing."""


@dataclass(frozen=True)
class _Met:
    """A limit that was met: what share of it is used, and the finding where that is too much."""

    share: float
    finding: Finding

    @property
    def weight(self) -> tuple[bool, float]:
        """What breaks comes before what is only beyond a table, however far."""
        return self.finding.severity == "error", self.share


@dataclass(frozen=True)
class _Held:
    """The job in its hold, and the centre where it is in."""

    job: Job
    scene: Scene
    centre: Centre | None


def limit_findings(job: Job, scene: Scene, program: Program, steps: Sequence[MoveDone]) -> Iterator[Finding]:
    """The worst of each kind in every section."""
    tools = {tool.station: tool for tool in job.tools}
    worst: dict[tuple[int, str], _Met] = {}
    centre = job.setup.centre
    carried = None if any(motion.event in ("centre_in", "centre_out") for motion in program.motions) else centre
    for motion, step in zip(program.motions, steps, strict=True):
        if motion.event in ("centre_in", "centre_out"):
            carried = centre if motion.event == "centre_in" else None
        for met in _met(_Held(job, scene, carried), motion, step, tools.get(motion.station)):
            key = motion.section, met.finding.code
            if key not in worst or worst[key].weight < met.weight:
                worst[key] = met
    yield from (met.finding for met in worst.values())


def _met(held: _Held, motion: Motion, step: MoveDone, tool: Tool | None) -> Iterator[_Met]:
    job = held.job
    if motion.event:
        return
    if motion.driven is not None:
        if tool is not None:
            yield from _driven(job, motion, tool)
        return
    if not motion.shared:
        yield from _spindle(held, motion)
    if tool is None or motion.is_rapid:
        return
    yield from _lead(job, motion)
    if step.removed_mm2 <= LEAST_MM2 or step.depth_mm < FILM_MM or motion.in_step:
        return
    yield from _power(job, motion, step)
    if motion.length >= LEAST_TURNS * _feed(job, motion):
        yield from _grip(held, motion, step)
    yield from _edge(job, motion, step, tool)
    yield from _surface(job, motion, tool)


def _told(severity: Severity, code: str, motion: Motion, what: str, why: str) -> Finding:
    return Finding(severity, code, said("line {}: {}", motion.line, what), why, at=motion.end, line=motion.line)


def _rpm(job: Job, motion: Motion) -> float:
    """Spindle speed at the far end of a cut, where force has its longest arm."""
    return spindle_rpm(motion.spindle, max(abs(motion.start[1]), abs(motion.end[1])), job.machine.max_rpm)


def _asked_rpm(job: Job, motion: Motion) -> float:
    """Highest speed a move asks of the spindle; a surface speed without a clamp asks for all there is."""
    spindle = motion.spindle
    if spindle.mode != "surface":
        return spindle.value if spindle.mode == "fixed" else 0.0
    (_, r0), (_, r1) = motion.start, motion.end
    least = 0.0 if r0 * r1 <= 0 else min(abs(r0), abs(r1))
    return min(surface_speed_rpm(spindle.value, 2 * least), spindle.clamp_rpm or job.machine.max_rpm)


def _spindle(held: _Held, motion: Motion) -> Iterator[_Met]:
    job = held.job
    asked = _asked_rpm(job, motion)
    if asked <= 0:
        return
    limits = spindle_limits(job.machine, job.setup.hold, job.stock, held.centre, job.setup.rest)
    least = min(limits, key=lambda limit: limit.number)
    if asked > least.number * SAME:
        severity: Severity = "warning" if least.label == BAR_BEHIND else "error"
        what = f"the spindle turns up to {asked:.0f} rpm, {least.label} allows {least.number:.0f} rpm"
        why = "the bar begins to whip" if least.label == BAR_BEHIND else "the hold lets go or bearings fail"
        yield _Met(asked / least.number, _told(severity, "limits.spindle", motion, what, why))


def _lead(job: Job, motion: Motion) -> Iterator[_Met]:
    """In step with the spindle, and at any feed, the slides go no faster than their rapid."""
    if motion.feed is None:
        return
    per_min = motion.feed if motion.per_minute else motion.feed * _rpm(job, motion)
    dz, dr = (abs(b - a) / max(motion.length, 1e-9) for a, b in zip(motion.start, motion.end, strict=True))
    machine = job.machine
    for share, most, axis in ((dz, machine.rapid_z_mm_min, "Z"), (dr, machine.rapid_x_mm_min, "X")):
        if per_min * share > most * SAME:
            what = said("{} would move at {}", axis, q(per_min * share, "mm/min", ".0f"))
            why = said("its rapid is {}; in step with the spindle the thread is lost", q(most, "mm/min", ".0f"))
            yield _Met(per_min * share / most, _told("error", "limits.axis", motion, what, why))


def _power(job: Job, motion: Motion, step: MoveDone) -> Iterator[_Met]:
    """Power the cut takes from the metal it really met, against what the spindle has at that speed."""
    if step.available_kw <= 0 or step.power_kw <= step.available_kw * (1 + 1e-4):
        return
    share = step.power_kw / step.available_kw
    takes, there = q(step.power_kw, "kW", ".2f"), q(step.available_kw, "kW", ".2f")
    what = said("takes {} at the edge, {} are there", takes, there)
    why = said("it meets {} of metal; the spindle slows down or stalls", q(step.depth_mm))
    seconds = 60 * motion.length / max(_feed(job, motion) * _rpm(job, motion), 1e-9)
    stalls = share > FAR_BEYOND["power"] and seconds > FLYWHEEL_S
    yield _Met(share, _told("error" if stalls else "warning", "power.over", motion, what, why))


def _grip(held: _Held, motion: Motion, step: MoveDone) -> Iterator[_Met]:
    """What the jaws still hold at this speed against what this cut pulls, where it is."""
    job, scene = held.job, held.scene
    hold, rpm = job.setup.hold, _rpm(job, motion)
    there = grip_at_speed_n(hold, rpm)
    if there is None or step.force_n <= 0 or scene.grip_r <= 0 or not step.turns_piece:
        return
    z = max(motion.start[0], motion.end[0])
    overhang = 0.0 if held.centre is not None else max(z - scene.jaw_face_z, 0.0)
    if not scene.steady.is_empty and isinstance(scene.rest, SteadyRest):
        overhang = min(overhang, max(z - scene.rest.z_mm, 0.0))
    d = 2 * max(abs(motion.start[1]), abs(motion.end[1]))
    needed = Gripped(hold, d, 2 * scene.grip_r, overhang).needed_n(step.force_n, step.along_n, step.across_n)
    if needed <= there * ROUGHLY:
        return
    slips = needed > hold.safety * there
    what = said("the cut asks for {} of grip, {} are left at {} rpm", q(needed, "N", ".0f"), q(there, "N", ".0f"),
                f"{rpm:.0f}")  # fmt: skip
    why = "the piece slips or tilts out of the hold" if slips else "the safety the hold is to have is used up"
    yield _Met(needed / max(there, 1e-9), _told("error" if slips else "warning", "limits.grip", motion, what, why))


def _edge(job: Job, motion: Motion, step: MoveDone, tool: Tool) -> Iterator[_Met]:
    feed = _feed(job, motion)
    if isinstance(tool, TurningTool | BoringTool):
        yield from _insert(motion, step, tool, feed)
    elif isinstance(tool, PartingTool | GroovingTool):
        yield from _most_feed(motion, feed, tool.blade.feed_range_mm_rev[1], "blade")
    elif isinstance(tool, Drill):
        yield from _most_feed(motion, feed, tool.feed_mm_rev[1], "drill")
    elif isinstance(tool, Reamer):
        yield from _reamed(motion, step, tool)


def _reamed(motion: Motion, step: MoveDone, tool: Reamer) -> Iterator[_Met]:
    """A reamer sizes: what is left for it is a few tenths."""
    taken, most = 2 * step.depth_mm, MOST_REAMED_MM + REAMED_SHARE * tool.d_mm
    if taken > most * SAME:
        what = said("the reamer takes {} on diameter, {} are the most", q(taken), q(most))
        severity: Severity = "error" if taken > 2 * most else "warning"
        yield _Met(taken / most, _told(severity, "limits.reamer", motion, what, "it chatters, the hole comes out wide"))


def _feed(job: Job, motion: Motion) -> float:
    """Feed per turn, mm."""
    rpm, feed = _rpm(job, motion), motion.feed or 0.0
    return (feed / rpm if rpm > 0 else 0.0) if motion.per_minute else feed


def _insert(motion: Motion, step: MoveDone, tool: TurningTool | BoringTool, feed: float) -> Iterator[_Met]:
    insert, shape = tool.insert, shape_of(tool)
    depth, nose = step.depth_mm, insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    if nose > 0 and feed > NOSE_BREAKS * nose * SAME:
        what = said("feeds {} with a nose of {}", q(feed, "mm/rev", ".3g"), q(nose, "mm", "g"))
        share = feed / (NOSE_BREAKS * nose)
        yield _Met(share, _told("error", "limits.feed", motion, what, "the corner breaks"))
    elif insert.chip_window:
        yield from _most_feed(motion, feed, max(feed for feed, _ in insert.chip_window), "window")
    usable = usable_depth_mm(insert.shape, shape.edge_length, shape.entering_angle_deg)
    lasts = motion.length >= LEAST_TURNS * feed
    if lasts and insert.shape != "R" and usable > 0 and depth > usable * SAME:
        whole = shape.edge_length
        what = said("takes {} of metal, the edge stands {}", q(depth), q(usable))
        severity: Severity = "error" if depth > whole else "warning"
        yield _Met(depth / usable, _told(severity, "limits.depth", motion, what, "the edge breaks along its length"))


WRITTEN_MM_REV = 0.00013
"""Feeds are written to 0.00001 inch: half of that is no feed beyond a limit."""


def _most_feed(motion: Motion, feed: float, most: float, kind: str) -> Iterator[_Met]:
    """Feed against the largest a tool stands."""
    if most <= 0 or feed <= most * SAME + WRITTEN_MM_REV:
        return
    share = feed / most
    what = said("feeds {}, {} are the most for this tool", q(feed, "mm/rev", ".3g"), q(most, "mm/rev", ".3g"))
    far = share > FAR_BEYOND[kind]
    why = "the edge breaks" if far else "chips are crushed and the edge wears"
    yield _Met(share, _told("error" if far else "warning", "limits.feed", motion, what, why))


def _surface(job: Job, motion: Motion, tool: Tool) -> Iterator[_Met]:
    """Surface speed at the edge against the end of the usual range of material and tool material."""
    material = getattr(getattr(tool, "insert", None) or getattr(tool, "blade", None) or tool, "material", None)
    row = next((one for one in job.stock.material.speeds if one.tool_material == material), None)
    if row is None:
        return
    usual = HIGHEST_SHARE * max(row.rough_m_min, row.finish_m_min, row.part_off_m_min)
    r = tool.d_mm / 2 if isinstance(tool, Drill) else max(abs(motion.start[1]), abs(motion.end[1]))
    rpm = spindle_rpm(motion.spindle, r if motion.spindle.mode == "surface" else 0.0, job.machine.max_rpm)
    vc = 2 * math.pi * r * rpm / 1000
    if vc > usual * SAME:
        what = said("cuts at {}, the usual range ends at {}", q(vc, "m/min", ".0f"), q(usual, "m/min", ".0f"))
        far = vc > FAR_BEYOND["speed"] * usual
        why = "the edge fails at once" if far else "nothing is known there: edges fail early"
        yield _Met(vc / usual, _told("error" if far else "warning", "limits.surface_speed", motion, what, why))


def _driven(job: Job, motion: Motion, tool: Tool) -> Iterator[_Met]:
    """The speed of a driven tool against its drive, and the feed of its teeth."""
    rpm = abs(motion.driven.rpm) if motion.driven is not None else 0.0
    for limit in live_limits(job.machine, tool):
        if rpm > limit.number * SAME:
            what = f"the tool turns at {rpm:.0f} rpm, its drive allows {limit.number:.0f} rpm"
            yield _Met(rpm / limit.number, _told("error", "limits.spindle", motion, what, "the drive fails"))
    if motion.is_rapid or rpm <= 0 or motion.in_step or motion.feed is None:
        return
    each = motion.feed / rpm if motion.per_minute else motion.feed
    if isinstance(tool, Drill):
        yield from _most_feed(motion, each, tool.feed_mm_rev[1], "drill")
    elif isinstance(tool, Mill) and each / tool.teeth > tool.fz_mm[1] * FAR_BEYOND["mill"] * SAME:
        most = tool.fz_mm[1] * FAR_BEYOND["mill"]
        what = said("feeds {} a tooth, {} are twice the most", q(each / tool.teeth, "mm", ".3f"), q(most, "mm", ".3f"))
        yield _Met(each / tool.teeth / most, _told("error", "limits.feed", motion, what, "the teeth break"))
