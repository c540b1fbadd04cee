"""Threads of holes beside the axis, milled on a helix: the mill goes to the bottom and climbs a pitch in every turn."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.force import KIENZLE
from toreuma.core.cutting.holes import mill_feed_mm, milling_power_kw
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.milled import Sunk
from toreuma.core.geometry.shape import quarter_chords
from toreuma.core.model import HolePattern, HolesBeside, LiveDrive, ThreadForm
from toreuma.core.model.tool import ThreadMill
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven import carrier_and_drive, feature_of, places_of
from toreuma.core.plan.mill.driven_holder import holder_in_the_way
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.flats import crosses_by
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.spoken import q, said

__all__ = ["mill_threads"]

SPEED_SHARE = 0.7
"""Against roughing with the same tool material, as other mills: typical."""

CHORD_MM = 0.001
"""Chords of the helix lie so far inside it."""

FLOOR_PITCHES = 0.25
"""The end of the mill stays so far above the floor of a blind hole."""

THROUGH_PITCHES = 1.0
"""In a through hole the mill goes out so far behind it."""

FLANK_WITHIN_DEG = 0.5
PITCH_WITHIN_MM = 0.002
FULL_PAST_PITCHES = 0.75
"""The thread is full from half a pitch above the end of the mill on."""


@dataclass(frozen=True)
class _Helix:
    """Where the middle of the mill goes in one hole: on ``orbit`` mm about its middle, ``turns`` of them from each of
    some ``starts`` along its axis, ``lead`` up in every one, by its sign ``way`` about the hole; it comes in ``below``
    that start."""

    orbit: float
    starts: tuple[float, ...]
    turns: float
    lead: float
    way: float
    below: float


def mill_threads(work: Work, operation: HolesBeside, tool: ThreadMill) -> Cuts:
    """Every hole of a pattern in turn. Raises `OperationFault`."""
    carrier, live = carrier_and_drive(work)
    feature = feature_of(work, operation.feature, HolePattern)
    form = _form(work, operation, tool, feature)
    places = places_of(work, operation.feature, feature)
    polar = crosses_by("", carrier, tool) == "polar"
    helices = [_helix(tool, form, place) for place in places]
    first = helices[0]
    if not polar and first.orbit > carrier.y_mm + 1e-9:
        what = said("the mill goes {} to each side, Y of the {} reaches {}", q(first.orbit), carrier.name,
                    q(carrier.y_mm, "mm", "g"))  # fmt: skip
        raise OperationFault("y.travel", what, "choose a thicker mill, or another carrier")
    figures, reasons = _numbers(work, operation, tool, live, form, first)
    path = DrivenPath(work, figures.rpm or 0.0)
    feed = (figures.feed_mm_rev or 0.0) * (figures.rpm or 0.0)
    for place, helix in zip(places, helices, strict=True):
        _one_hole(work, path, place, helix, feed, polar)
    path.leave(places[0].along == "x")
    moves = tuple(path.motions)
    return Cuts(
        motions=moves,
        passes=tuple(Pass((_way(place, helix),), tool.d_mm / 2) for place, helix in zip(places, helices, strict=True)),
        reasons=reasons,
        findings=(*_findings(operation, tool, places[0], first), *holder_in_the_way(work, path.motions)),
        becomes=work.stock,
        figures=figures,
    )


def _form(work: Work, operation: HolesBeside, tool: ThreadMill, feature: HolePattern) -> ThreadForm:
    """The thread of the holes, which the mill's teeth fit. Raises `OperationFault`."""
    form = operation.form
    if not feature.thread or form is None:
        what = f"what thread {tool.id} should mill is not known"
        raise OperationFault("thread.none", what, "name it on the part and choose the holes again, or take a drill")
    if form.taper:
        what = f"{feature.thread} is a taper thread, the mill goes round on a cylinder"
        raise OperationFault("thread.taper", what, "use a tap of its taper")
    if abs(tool.profile_deg - form.flank_deg) > FLANK_WITHIN_DEG:
        what = f"the flanks of {tool.id} stand at {tool.profile_deg:g}°, the thread's at {form.flank_deg:g}°"
        raise OperationFault("thread.flanks", what, "choose a mill of this form")
    low, high = tool.pitch_mm
    if not low - PITCH_WITHIN_MM <= form.pitch_mm <= high + PITCH_WITHIN_MM:
        what = said("{} cuts pitches from {} to {}, the thread has {}", tool.id, q(low, "mm", "g", bare=True),
                    q(high, "mm", "g"), q(form.pitch_mm, "mm", "g"))  # fmt: skip
        raise OperationFault("thread.pitch", what, "choose a mill of this pitch")
    if form.starts > 1 and tool.rows == "all":
        what = f"the thread has {form.starts} starts, {tool.id} has rows of teeth a pitch apart"
        raise OperationFault("thread.starts", what, "choose a mill with one row")
    if tool.d_mm > feature.d_mm - 2 * _gap(tool, form):
        what = said("the hole is Ø {}, {} is Ø {}: it would cut all round at once", q(feature.d_mm, "mm", "g"),
                    tool.id, q(tool.d_mm, "mm", "g"))  # fmt: skip
        raise OperationFault("mill.wide", what, "choose a thinner mill")
    return form


def _gap(tool: ThreadMill, form: ThreadForm) -> float:
    """The gap that a mill in the middle of its hole needs all round, mm."""
    return max(0.02 * form.pitch_mm, 0.02 * (tool.d_mm - tool.pitch_d_mm(form.pitch_mm)))


def _helix(tool: ThreadMill, form: ThreadForm, place: Sunk) -> _Helix:
    """On the middle of the limits of the pitch diameter; as many turns as the teeth leave to do."""
    pitch = form.pitch_mm
    orbit = (sum(form.pitch_d_mm) / 2 - tool.pitch_d_mm(pitch)) / 2
    end = place.level - THROUGH_PITCHES * pitch if place.through else place.level + FLOOR_PITCHES * pitch
    if place.threaded_to is not None:
        end = max(end, place.threaded_to - FULL_PAST_PITCHES * pitch)
    way = (-1.0 if form.left_hand else 1.0) * (1.0 if place.along == "z" else -1.0)
    if tool.rows == "one":
        lead = pitch * form.starts
        turns = max((place.top + pitch - end) / lead, 1.0)
        below = min(lead / 4, FLOOR_PITCHES * pitch)
        return _Helix(orbit, tuple(end + n * pitch for n in range(form.starts)), turns, lead, way, below)
    whole = max(math.floor(tool.flute_length_mm / pitch + 1e-6) - 1, 1) * pitch
    count = max(math.ceil((place.top - end - tool.flute_length_mm) / whole - 1e-6), 0) + 1
    return _Helix(orbit, tuple(end + n * whole for n in range(count)), 1.0, pitch, way, FLOOR_PITCHES * pitch)


def _one_hole(work: Work, path: DrivenPath, place: Sunk, helix: _Helix, feed: float, polar: bool) -> None:
    """Down in the middle, out to the thread on a half round, the turns, and back to the middle on another."""
    path.index(place.c_deg, braked=not polar)
    across = place.along == "x"
    u, v = place.middle if across else (math.hypot(*place.middle), 0.0)
    near = work.stock.bounds[3] if across else work.stock.bounds[2]
    clear = float(near) + APPROACH_MM

    def at(du: float, dv: float, w: float) -> dict[str, float]:
        return {"z": u + du, "y": v + dv, "x": w} if across else {"x": u + du, "y": v + dv, "z": w}

    if across:
        path.rapid(z=u, y=v)
        path.rapid(x=clear)
    else:
        path.rapid(x=u)
        path.rapid(z=clear)
    if polar:
        path.polar(on=True)
    for start in helix.starts:
        path.rapid(**({"x": start} if across else {"z": start}))
        for du, dv, w in _points(helix, start):
            path.feed(feed, **at(du, dv, w))
    path.rapid(**({"x": clear} if across else {"z": clear}))
    if polar:
        path.polar(on=False)


def _points(helix: _Helix, start: float) -> list[tuple[float, float, float]]:
    """(du, dv, w) from the middle of the hole: a half round out, the turns, a half round in; it climbs all the way."""
    steps = 4 * quarter_chords(helix.orbit, CHORD_MM)
    half = max(steps // 4, 4)
    low = start - helix.below  # the half round before the turns climbs, too: along the thread's own flank
    found = [(0.0, 0.0, low)]
    for n in range(1, half + 1):  # from the middle round a circle of half the orbit to the thread at angle 0
        a = math.pi * n / half
        found.append((helix.orbit / 2 * (1 - math.cos(a)), -helix.way * helix.orbit / 2 * math.sin(a),
                      low + helix.below * n / half))  # fmt: skip
    count = max(math.ceil(steps * helix.turns), 8)
    for n in range(1, count + 1):
        a = 2 * math.pi * helix.turns * n / count
        found.append((helix.orbit * math.cos(a), helix.way * helix.orbit * math.sin(a),
                      start + helix.lead * helix.turns * n / count))  # fmt: skip
    end = 2 * math.pi * helix.turns
    top = start + helix.lead * helix.turns
    for n in range(1, half + 1):
        a = math.pi * n / half
        along, aside = helix.orbit / 2 * (1 + math.cos(a)), helix.orbit / 2 * math.sin(a)
        du = along * math.cos(end) - aside * math.sin(end)
        dv = along * math.sin(end) + aside * math.cos(end)
        found.append((du, helix.way * dv, top + helix.below * n / half))
    return found


def _numbers(
    work: Work, operation: HolesBeside, tool: ThreadMill, live: LiveDrive, form: ThreadForm, helix: _Helix
) -> tuple[Figures, Reasons]:
    """Speed, and the feed of the mill's middle, which is slower than that of its teeth."""
    material, pins = work.given.stock.material, operation.pins
    speed = axial_speed(work, tool.material, tool.d_mm, SPEED_SHARE, "milling")
    low, high = tool.fz_mm
    usual = mill_feed_mm(material, tool.material, tool.d_mm)
    tooth = min(max(usual if usual is not None else (low + high) / 2, low), high)
    thread_d = tool.d_mm + 2 * helix.orbit
    inward = 2 * helix.orbit / thread_d
    told = Evidence(
        "feed", "f", tooth * tool.teeth * inward, "mm/rev", typable=True,
        formula="f = fz z (D − d) / D: of the mill's middle, its teeth go farther round",
        inputs=(Input("feed of a tooth", "fz", tooth, "mm"), Input("teeth", "z", float(tool.teeth), ""),
                Input("major diameter", "D", thread_d, "mm"), Input("mill", "d", tool.d_mm, "mm")),
        limits=(Limit("least of the mill", low, "mm"), Limit("most of the mill", high, "mm")),
    )  # fmt: skip
    told = pinned(told, pins.feed_mm_rev)
    feed = pins.feed_mm_rev if pins.feed_mm_rev is not None else tooth * tool.teeth * inward
    deep = (tool.d_mm - tool.pitch_d_mm(form.pitch_mm)) / 2 + form.pitch_mm / 8
    rows = min(tool.flute_length_mm / form.pitch_mm, 1e3) if tool.rows == "all" else 1.0
    wide = rows * form.pitch_mm / 2
    power = milling_power_kw(material, wide, deep, tooth, tool.teeth, tool.d_mm, speed.vc_m_min)
    there = min(live.power_kw, live.torque_nm * speed.rpm / 9549.3)
    reasons = {
        **speed.reasons,
        Figure.TURNS: replace(speed.n, name="speed of the tool"),
        Figure.FEED: told,
        Figure.FEED_A_MINUTE: Evidence("feed a minute", "vf", feed * speed.rpm, "mm/min", formula="vf = f n"),
        Figure.ACROSS: Evidence(
            "middle of the mill beside that of the hole", "e", helix.orbit, "mm", formula="e = (D2 − d2) / 2",
            inputs=(Input("pitch diameter, middle of its limits", "D2", sum(form.pitch_d_mm) / 2, "mm"),
                    Input("pitch diameter of the mill", "d2", tool.pitch_d_mm(form.pitch_mm), "mm")),
        ),
        Figure.POWER: Evidence(
            "power at the edge", "Pc", power, "kW", formula="Pc = ap ae vf kc / 60e6", source=KIENZLE,
            limits=(Limit("drive of the tool", there, "kW", bit=True),),
        ),
    }  # fmt: skip
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=speed.rpm, feed_mm_rev=feed, power_kw=power, power_there_kw=there)
    return figures, reasons


def _findings(operation: HolesBeside, tool: ThreadMill, place: Sunk, helix: _Helix) -> list[Finding]:
    deep = place.top - helix.starts[0]
    reach = tool.out_mm if tool.rows == "all" else tool.flute_length_mm
    if deep <= reach + 1e-6:
        return []
    what = said("{} deep, {} reaches {}", q(deep, "mm", ".1f"), tool.id, q(reach, "mm", "g"))
    return [Finding("error", "mill.reach", what, "take a longer one", operation=operation.id)]


def _way(place: Sunk, helix: _Helix) -> Line:
    """Of the mill through one hole, as the section shows it."""
    u = place.middle[0] if place.along == "x" else math.hypot(*place.middle)
    ends = ((u, place.top), (u, helix.starts[0])) if place.along == "x" else ((place.top, u), (helix.starts[0], u))
    return Line(*ends)
