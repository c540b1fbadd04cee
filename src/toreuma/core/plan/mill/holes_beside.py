"""Holes beside the axis: each tool of the pattern goes to every hole while the work stands at its angle."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.force import KIENZLE
from toreuma.core.cutting.holes import drilling, tapping_torque_nm
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.milled import Sunk, mouth_d_mm
from toreuma.core.geometry.region import Region, box
from toreuma.core.model import HolePattern, HolesBeside, LiveDrive
from toreuma.core.model.tool import Drill, Reamer, Tap, ThreadMill
from toreuma.core.motion import PECK_BACK_OFF_MM
from toreuma.core.plan.axis.drill import pecks_of
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault, Pass
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven import carrier_and_drive, feature_of, places_of
from toreuma.core.plan.mill.driven_holder import holder_in_the_way
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.thread_mill import mill_threads
from toreuma.core.plan.numbers.axial_speed import axial_speed, pinned
from toreuma.core.plan.numbers.drilling import SPEED_SHARE, SPEED_SHARE_ELSE, point_length_mm
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads.same import is_left_hand

__all__ = ["drill_feed", "plan_holes"]

CONE_SHARE = 0.95
REAM_SHARE, TAP_SHARE = 0.35, 0.25
"""Speed against that of roughing with the same tool material: typical."""

FLAT_SHORT_MM = 1.0


@dataclass(frozen=True)
class _Sunk:
    """How deep the end of the tool goes in one hole, and where its full diameter then ends."""

    end: float
    full: float


def plan_holes(work: Work, operation: HolesBeside) -> Cuts:
    """One tool at every hole of a pattern."""
    tool = work.tool
    if isinstance(tool, ThreadMill):
        return mill_threads(work, operation, tool)
    if not isinstance(tool, Drill | Reamer | Tap):
        what = f"{tool.id} makes no holes"
        raise OperationFault("tool.kind", what, "choose a drill, a spot drill, a reamer, a tap or a thread mill")
    if isinstance(tool, Tap) and is_left_hand(tool.thread):
        what = f"{tool.id} cuts a left-hand thread: it would have to turn the other way"
        raise OperationFault("tap.left", what, "left-hand taps are not planned: mill this thread")
    _, live = carrier_and_drive(work)
    feature = feature_of(work, operation.feature, HolePattern)
    places = places_of(work, operation.feature, feature)
    deep = [_depth(work, tool, operation, feature, one) for one in places]
    figures, reasons = _numbers(work, operation, tool, live, places[0], deep[0])
    rpm, feed = figures.rpm or 0.0, figures.feed_mm_rev or 0.0
    path = DrivenPath(work, rpm)
    along_x = places[0].along == "x"
    for place, depth in zip(places, deep, strict=True):
        _one_hole(work, operation, path, place, depth, rpm * feed)
    path.leave(along_x)
    findings = (*_findings(operation, tool, places[0], deep[0]), *holder_in_the_way(work, path.motions))
    drills = isinstance(tool, Drill) and tool.form not in ("spot", "centre")  # a spot only marks the place
    opened = (operation.feature,) if drills else ()
    drawn = tuple(Pass((one,), tool.d_mm / 2) for one in _ways(places, deep))
    moves = tuple(path.motions)
    return Cuts(
        motions=moves,
        passes=drawn,
        reasons=reasons,
        findings=findings,
        becomes=work.stock,
        opens=opened,
        figures=figures,
    )


def _depth(work: Work, tool: Drill | Reamer | Tap, operation: HolesBeside, feature: HolePattern, place: Sunk) -> _Sunk:
    """Where the end of the tool goes."""
    past = operation.breakthrough_mm if place.through else 0.0
    if isinstance(tool, Drill) and tool.form in ("spot", "centre"):
        wide = min(mouth_d_mm(feature, work.given.part.edge_break_mm), CONE_SHARE * tool.d_mm)
        end = place.top - wide / 2 / math.tan(math.radians(tool.point_deg) / 2)
        return _Sunk(max(end, place.level), place.top)
    if isinstance(tool, Drill):
        full = place.level - past
        return _Sunk(full - point_length_mm(tool), full)
    if isinstance(tool, Reamer):
        full = place.level - past if place.through else place.level + FLAT_SHORT_MM
        return _Sunk(full - tool.lead_mm if place.through else full, full)
    lead = tool.lead_pitches * tool.pitch_mm
    if tool.taper > 0:
        return _Sunk(place.top - tool.gauge_mm, place.top - tool.gauge_mm + lead)
    if place.threaded_to is not None:
        end = place.threaded_to - lead
        if not place.through and end < place.level:
            room = said("the hole is {} deeper than its thread, the lead of {} takes {}",
                        q(place.threaded_to - place.level), tool.id, q(lead))  # fmt: skip
            raise OperationFault("tap.short", room, "drill deeper, or take a tap with a shorter lead")
        return _Sunk(end, end + lead)
    end = place.level - lead if place.through else place.level + tool.pitch_mm
    return _Sunk(end, end + lead)


def _one_hole(work: Work, operation: HolesBeside, path: DrivenPath, place: Sunk, depth: _Sunk, mm_min: float) -> None:
    tool = work.tool
    path.index(place.c_deg)
    if place.along == "x":
        clear = float(_near(work, place).bounds[3]) + APPROACH_MM
        path.rapid(z=place.middle[0])
        path.rapid(x=clear)
    else:
        clear = float(_near(work, place).bounds[2]) + APPROACH_MM
        path.rapid(x=math.hypot(*place.middle))
        path.rapid(z=clear)
    axis, front = ("x" if place.along == "x" else "z"), clear - APPROACH_MM
    bottoms = [depth.end]
    if isinstance(tool, Drill) and tool.form not in ("spot", "centre"):
        bottoms = pecks_of(tool, operation.peck, operation.peck_mm, front, depth.end)
    reached = front
    for bottom in bottoms:
        if reached < front:
            path.rapid(**{axis: clear})
            path.rapid(**{axis: reached + PECK_BACK_OFF_MM})
        path.feed(mm_min, **{axis: bottom})
        reached = bottom
    if isinstance(tool, Tap):
        path.reverse()
        path.feed(mm_min, **{axis: clear})
        path.reverse()
    elif isinstance(tool, Reamer):
        path.feed(2 * mm_min, **{axis: clear})
    else:
        path.rapid(**{axis: clear})


def _ways(places: tuple[Sunk, ...], deep: list[_Sunk]) -> list[Line]:
    """The way of the tool through every hole, as the section shows it."""
    found = []
    for place, depth in zip(places, deep, strict=True):
        u = place.middle[0] if place.along == "x" else math.hypot(*place.middle)
        ends = ((u, place.top), (u, depth.end)) if place.along == "x" else ((place.top, u), (depth.end, u))
        found.append(Line(*ends))
    return found


def _near(work: Work, place: Sunk) -> Region:
    """The metal the tool passes over between its holes."""
    wide = max(place.d_mm, getattr(work.tool, "d_mm", 0.0)) / 2
    if place.along == "x":
        return work.stock.intersection(box(place.middle[0] - wide, 0, place.middle[0] + wide, 1e5))
    away = math.hypot(*place.middle)
    return work.stock.intersection(box(-1e5, max(away - wide, 0.0), 1e5, away + wide))


def _numbers(
    work: Work, operation: HolesBeside, tool: Drill | Reamer | Tap, live: LiveDrive, place: Sunk, depth: _Sunk
) -> tuple[Figures, Reasons]:
    material = work.given.stock.material
    shares = {Reamer: REAM_SHARE, Tap: TAP_SHARE}
    share = shares.get(type(tool), SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE))
    speed = axial_speed(work, tool.material, tool.d_mm, share, "holes beside the axis")
    rpm = speed.rpm
    there = min(live.power_kw, live.torque_nm * rpm / 9549.3)
    if isinstance(tool, Tap):
        feed = tool.pitch_mm
        told = Evidence("feed", "f", feed, "mm/rev", formula="the pitch of the tap")
        torque, thrust = tapping_torque_nm(material, tool.d_mm, tool.pitch_mm), 0.0
    elif isinstance(tool, Reamer):
        feed = round(min(max(0.02 * tool.d_mm, 0.05), 0.5), 3)
        told = Evidence("feed", "f", feed, "mm/rev", formula="0.02 D, from 0.05 to 0.5 mm/rev", typable=True)
        torque, thrust = 0.0, 0.0
    else:
        feed, told = drill_feed(work, tool, rpm, there)
        torque, thrust = drilling(material, tool.d_mm, feed, tool.point_deg)
    wanted = operation.pins.feed_mm_rev
    if wanted is not None and not isinstance(tool, Tap):
        feed, told = wanted, pinned(told, wanted)
    reasons = {
        **speed.reasons,
        Figure.TURNS: replace(speed.n, name="speed of the tool"),
        Figure.FEED: told,
        Figure.FEED_A_MINUTE: Evidence("feed a minute", "vf", feed * rpm, "mm/min", formula="vf = f n"),
        Figure.HOLE_DEPTH: Evidence(
            "depth of the tool's end", "", place.top - depth.end, "mm",
            formula="to the full diameter, and point, lead and breakthrough",
            inputs=(Input("to the full diameter", "", place.top - depth.full, "mm"),
                    Input("over the diameter", "L/D", (place.top - depth.end) / tool.d_mm, "ratio")),
        ),
    }  # fmt: skip
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=rpm, feed_mm_rev=feed)
    if torque > 0:
        power = torque * rpm / 9549.3
        figures = replace(figures, power_kw=power, power_there_kw=there)
        reasons[Figure.TORQUE] = Evidence(
            "torque",
            "M",
            torque,
            "N m",
            formula="of lips or teeth, kc at their chip",
            source=KIENZLE,
            limits=(Limit("drive", live.torque_nm, "N m", bit=True),),
        )
        reasons[Figure.POWER] = Evidence(
            "power at the edge", "Pc", power, "kW", formula="Pc = M n / 9549",
            limits=(Limit("drive of the tool", there, "kW", bit=True),),
        )  # fmt: skip
    if thrust > 0:
        reasons[Figure.THRUST] = Evidence("thrust", "Ff", thrust, "N", formula="0.6 of the lips' force along the axis")
    return figures, reasons


def drill_feed(work: Work, tool: Drill, rpm: float, there_kw: float) -> tuple[float, Evidence]:
    """Feed of a driven drill: the middle of its range, within what the drive has."""
    material, middle = work.given.stock.material, sum(tool.feed_mm_rev) / 2
    torque, _ = drilling(material, tool.d_mm, middle, tool.point_deg)
    share = min(there_kw / max(torque * rpm / 9549.3, 1e-9), 1.0)
    by_power = middle * share ** (1 / (1 - material.mc))
    number = max(math.floor(min(middle, by_power) * 1000 + 1e-6) / 1000, 0.001)
    limits = (
        Limit("middle of the drill's range", middle, "mm/rev", bit=middle <= by_power),
        Limit("drive of the tool", by_power, "mm/rev", bit=by_power < middle),
    )
    formula = "middle of the range, within the drive"
    return number, Evidence("feed", "f", number, "mm/rev", formula=formula, limits=limits, typable=True)


def _findings(operation: HolesBeside, tool: Drill | Reamer | Tap, place: Sunk, depth: _Sunk) -> list[Finding]:
    found = []
    follows = isinstance(tool, Tap) and tool.follows_into(place.d_mm)
    if place.top - depth.full > tool.flute_length_mm and not follows:
        what = said(
            "{} deep, the flutes of {} are {} long",
            q(place.top - depth.full, "mm", ".1f"),
            tool.id,
            q(tool.flute_length_mm, "mm", "g"),
        )
        found.append(
            Finding("error", "drill.flute", what, "chips cannot get out: take a longer one", operation=operation.id)
        )
    return found
