"""Threads in the proof: where a program may cut into the plain cylinder, and what thread it really made.

A half section shows the true profile of a thread. The pitch diameter is measured on it as a gauge would: the
diameter at which metal and gap are equally wide.
"""

import math
from dataclasses import dataclass

import shapely

from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.region import EMPTY, Region, box, union
from toreuma.core.geometry.slender import rises_slowly, stands_for
from toreuma.core.model import Job, ThreadForm
from toreuma.core.model.feature import AxialHole, ThreadFeature
from toreuma.core.model.tool import Tap
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = [
    "MEASURED_MM",
    "ThreadMade",
    "allowed_by_taps",
    "allowed_by_threads",
    "crest_d",
    "thread_findings",
    "thread_made",
    "thread_zone",
    "threads_made",
]

MOST_BROKEN = 2.0
"""An edge may be broken so many pitches long."""
SHANK_PITCHES = 0.12
"""A cylinder no more than this above the seat of a thread is its shank, and no shoulder."""
RUN_OUT_PITCHES = 3.0
"""A thread without a relief may run out over so many pitches (DIN 76-1, usual run-out and a little more)."""

INSIDE_MM, FAR_MM = 0.01, 1e5

SKIN_MM, PLAIN_SHARE = 0.1, 0.7
"""A plain cylinder is metal along nearly all its length just below its surface."""

MEASURED_MM = 0.002
"""How closely the pitch diameter is measured."""


@dataclass(frozen=True, kw_only=True)
class ThreadMade:
    """A thread as it was cut: pitch diameter found with its limits, mm; ``complete`` where it is cut to its end."""

    designation: str
    pitch_d_mm: float | None
    limits_mm: tuple[float, float]
    complete: bool
    at: tuple[float, float]

    @property
    def ok(self) -> bool:
        low, high = self.limits_mm
        found = self.pitch_d_mm
        return self.complete and found is not None and low - MEASURED_MM <= found <= high + MEASURED_MM


def allowed_by_threads(job: Job, scene: Scene) -> Region:
    """The metal between crest and root of every thread the job cuts, where its tool in step with the spindle may be.

    Above the cylinder a thread sits on there is no thread: a shoulder beside it belongs to the part.
    """
    zones = [thread_zone(feature, form, scene.part) for _, form, feature in _cut(job)]
    return union(zones) if zones else EMPTY


def allowed_by_taps(job: Job) -> Region:
    """The walls of tapped holes on the axis, as deep as a tap's teeth stand, where it may be in step."""
    zones = [_tapped(job, feature) for feature in job.part.features if isinstance(feature, AxialHole)]
    return union(zones) if zones else EMPTY


def _cut(job: Job) -> list[tuple[int, ThreadForm, ThreadFeature]]:
    features = job.part.features
    found = []
    for index, form in (pair for one in job.operations if one.enabled for pair in one.threads_cut):
        feature = features[index] if index < len(features) else None
        if isinstance(feature, ThreadFeature):
            found.append((index, form, feature))
    return found


def thread_zone(feature: object, form: ThreadForm, part: Region) -> Region:
    """Where a thread is cut below the drawn surface of a part; nothing for features that carry none on it."""
    if isinstance(feature, AxialHole) and feature.thread:
        return _wall(feature, form, part)
    if not isinstance(feature, ThreadFeature):
        return EMPTY
    sharp = form.pitch_mm / (4 * math.tan(math.radians(form.flank_deg / 2)))
    run_out = RUN_OUT_PITCHES * form.pitch_mm
    grows = form.taper * (feature.length_mm + run_out)
    front, end = feature.from_z_mm, feature.from_z_mm - feature.length_mm
    seat = shapely.clip_by_rect(part, end + INSIDE_MM, 0, front - INSIDE_MM, FAR_MM)
    if seat.is_empty:
        return EMPTY
    if feature.side == "outside":
        low, high = form.pitch_d_mm[0] / 2 - sharp - grows, float(seat.bounds[3]) + form.taper / 2 * run_out
    else:
        low, high = float(seat.bounds[1]) - form.taper / 2 * run_out, form.pitch_d_mm[1] / 2 + sharp + grows
    ahead = run_out if feature.entry == "back" else form.pitch_mm
    zone = box(end - run_out, max(low, 0.0), front + ahead, high)
    if feature.side == "outside":  # it may run out into a shank or a slender cone of its own diameter, at either end
        for at, way in ((end, -1.0), (front, 1.0)):
            beside = sorted((at, at + way * INSIDE_MM))
            begins = _top(shapely.clip_by_rect(part, beside[0], 0, beside[1], FAR_MM))
            long = stands_for(part, at, begins, way, run_out)  # up to the next groove
            from_z, to_z = sorted((at, at + way * long))
            shank = shapely.clip_by_rect(part, from_z, 0, to_z, FAR_MM)
            top = _top(shank)
            own = begins <= high + SHANK_PITCHES * form.pitch_mm
            if own and top > high and rises_slowly(part, at, begins, way, long):
                zone = zone.union(box(from_z, max(low, 0.0), to_z, top))
    return zone


def _top(region: Region) -> float:
    return 0.0 if region.is_empty else float(region.bounds[3])


def _wall(hole: AxialHole, form: ThreadForm, part: Region) -> Region:
    """The wall of a tapped hole on the axis, as deep as the teeth of its thread."""
    r = form.pitch_d_mm[1] / 2 + form.pitch_mm / 2
    back, _, front, _ = part.bounds
    depth = hole.depth_mm if hole.depth_mm is not None else front - back
    return box(front - depth, 0.0, front, r) if hole.end == "front" else box(back, 0.0, back + depth, r)


def _tapped(job: Job, hole: AxialHole) -> Region:
    """The wall of a tapped hole, as deep as its tap's teeth stand, over the hole's length."""
    if not hole.thread or hole.end != "front":
        return EMPTY
    taps = [job.tool(one.tool) for one in job.operations if one.kind == "tap" and one.enabled]
    radius = max((tap.d_mm / 2 for tap in taps if isinstance(tap, Tap)), default=0.0)
    depth = hole.depth_mm if hole.depth_mm is not None else 1e4
    return box(-depth, 0.0, 0.0, radius + 0.05)


def threads_made(job: Job, final: Region) -> tuple[ThreadMade, ...]:
    """Every thread the job cuts, measured on the finished piece."""
    drawn = build_part(job.part).region
    return tuple(thread_made(feature, form, final, drawn) for _, form, feature in _cut(job))


def thread_made(feature: ThreadFeature, form: ThreadForm, final: Region, drawn: Region) -> ThreadMade:
    """A thread measured on the finished piece, whoever cut it. ``drawn`` is the part without its teeth: where an edge
    is broken at the thread's end there are none."""
    front, back = feature.from_z_mm - form.pitch_mm, feature.from_z_mm - feature.length_mm
    turns = max(1, math.floor((front - back) / form.pitch_mm + 1e-6))
    middle = (front + back) / 2
    window = (middle - turns * form.pitch_mm / 2, middle + turns * form.pitch_mm / 2)
    wanted = sum(form.pitch_d_mm) / 2
    grows = feature.taper_sign * form.taper / 2 * (-1.0 if feature.side == "inside" else 1.0)
    tilt = _Tilt(grows, feature.gauge_z_mm(form.gauge_mm))
    pitch = _pitch_d(final, window, wanted, form.pitch_mm, feature.side == "inside", tilt)
    ends = back + _broken_mm(feature, form, drawn)
    last = (ends, ends + form.pitch_mm)
    if feature.entry == "back":  # the mate stops at the front
        ends = feature.from_z_mm - _broken_mm(feature, form, drawn, -1.0)
        last = (ends - form.pitch_mm, ends)
    return ThreadMade(
        designation=feature.designation,
        pitch_d_mm=pitch,
        limits_mm=form.pitch_d_mm,
        complete=pitch is not None and 0.25 < _metal_share(final, last, pitch / 2, tilt) < 0.75,
        at=(middle, sum(form.crest_d_mm) / 4),
    )


def _broken_mm(feature: ThreadFeature, form: ThreadForm, drawn: Region, inward: float = 1.0) -> float:
    """How long the edge at an end of the thread is broken, at its pitch diameter: the back one, looking toward +Z (1),
    or the front one (-1)."""
    end = feature.from_z_mm - (feature.length_mm if inward > 0 else 0.0)
    r = sum(form.pitch_d_mm) / 4
    far = end + inward * MOST_BROKEN * form.pitch_mm
    met = shapely.intersection(drawn, shapely.LineString([(end, r), (far, r)]))
    if met.is_empty:
        return 0.0
    return max(float(met.bounds[0]) - end if inward > 0 else end - float(met.bounds[2]), 0.0)


def crest_d(feature: ThreadFeature, final: Region) -> float | None:
    """Diameter over the crests of a thread outside, between them in a bore; None where there is no metal."""
    front, back = feature.from_z_mm - INSIDE_MM, feature.from_z_mm - feature.length_mm + INSIDE_MM
    stretch = shapely.clip_by_rect(final, back, 0, front, FAR_MM)
    if stretch.is_empty:
        return None
    return 2 * float(stretch.bounds[3 if feature.side == "outside" else 1])


@dataclass(frozen=True)
class _Tilt:
    """How the radius of a taper thread grows toward the chuck, from its gauge plane."""

    per_mm: float = 0.0
    gauge_z: float = 0.0

    def at(self, z: float) -> float:
        return self.per_mm * (self.gauge_z - z)


LEVEL = _Tilt()


def _pitch_d(
    final: Region, window: tuple[float, float], wanted: float, pitch: float, inside: bool, tilt: _Tilt
) -> float | None:
    """Diameter at which half the length is metal, that of a taper thread in its gauge plane; None where no thread is
    found near the wanted one."""
    low, high = (wanted - pitch) / 2, (wanted + pitch) / 2
    sign = -1.0 if inside else 1.0  # outside, metal gets less with the radius; in a bore, more

    def over(r: float) -> float:
        return sign * (_metal_share(final, window, r, tilt) - 0.5)

    if over(low) <= 0 or over(high) >= 0:
        return None
    while high - low > MEASURED_MM / 8:
        middle = (low + high) / 2
        low, high = (middle, high) if over(middle) > 0 else (low, middle)
    return low + high


def _metal_share(final: Region, window: tuple[float, float], r: float, tilt: _Tilt = LEVEL) -> float:
    line = shapely.LineString([(z, r + tilt.at(z)) for z in window])
    return float(shapely.intersection(final, line).length / line.length)


def thread_findings(job: Job, made: tuple[ThreadMade, ...], final: Region) -> list[Finding]:
    """Threads that came out wrong, and threads of the part that nothing cuts."""
    found = []
    for one in made:
        low, high = one.limits_mm
        if one.pitch_d_mm is None:
            what = f"{one.designation}: no thread was cut"
        elif not one.complete:
            what = f"{one.designation}: the thread is not cut to its end"
        elif not one.ok:
            what = said(
                "{}: pitch diameter {}, limits {} to {}",
                one.designation,
                q(one.pitch_d_mm, "mm", ".3f"),
                q(low, "mm", ".3f", bare=True),
                q(high, "mm", ".3f"),
            )
        else:
            continue
        found.append(Finding("error", "thread.size", what, "the gauge would not pass", at=one.at))
    cut = {index for index, _, _ in _cut(job)}
    for index, feature in enumerate(job.part.features):
        if isinstance(feature, ThreadFeature) and index not in cut and not _toothed(feature, final):
            what = f"{feature.designation} is not cut by any operation"
            place = (feature.from_z_mm, 0.0)
            severity: Severity = "note" if len(job.setups) > 1 else "warning"
            found.append(Finding(severity, "thread.missing", what, "the part has a plain cylinder there", at=place))
    return found


def _toothed(feature: ThreadFeature, final: Region) -> bool:
    """Another side cut it: the surface where the thread sits is no plain cylinder any more."""
    front, back = feature.from_z_mm, feature.from_z_mm - feature.length_mm
    stretch = final.intersection(box(back, 0, front, 1e5))
    if stretch.is_empty:
        return False
    r = float(stretch.bounds[3]) - SKIN_MM if feature.side == "outside" else float(stretch.bounds[1]) + SKIN_MM
    return _metal_share(final, (back, front), r) < PLAIN_SHARE
