"""What a job begins with, proposed from its part: the blank, the hold and how far it stands out; each follows the part
until the person sets it."""

import itertools
import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.errors import ToreumaError
from toreuma.core.geometry.blank import blank_region
from toreuma.core.geometry.elements import chords
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.region import box
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import BarSize, Chuck, Collet, Followed, Hold, Job, Machine, Stock
from toreuma.core.model.feature import CentreHole, Groove, Relief
from toreuma.core.plan.hold.second_grip import free_stretches, lies_between_jaws, passed_d_mm
from toreuma.core.units import System
from toreuma.engine.library import Library, library

__all__ = [
    "FOLLOWED",
    "farther_out",
    "goes_through",
    "longer_piece",
    "next_bar",
    "next_bar_mm",
    "proposed",
    "settled",
    "widest_end_z",
    "with_second_grip",
]

FOLLOWED: tuple[Followed, ...] = ("blank", "hold", "stick_out", "second_hold")
BEHIND_MM = 8.0
"""Room behind the part for the cut that parts it off, and for the tool that does."""
OWN_SHARE = 1.4
"""A bar in the rack is taken unless one that can be had is so much thinner."""
GRIP_SHARE, LEAST_GRIP_MM = 0.3, 5.0
"""Of a sawn piece: the share of its length that the jaws take, at least so much (usual practice)."""
TOOL_ROOM_MM = 6.0
"""Kept between a shoulder that is cut and the jaws behind it, for the tool that cuts it."""
PARTED_OUT_MM = 16.0
"""Behind a part that is parted off from a sawn piece: blade, its block, and their clearance to the jaws."""
LEAST_BEHIND_MM = 2.5
"""A narrower place shorter than this is a broken edge."""
SECOND_ROOM_MM = 4.0
"""Kept between the jaws of the second hold and what is cut in it."""
THIN_MM, THIN_GRIP_SHARE = 6.0, 0.5
"""What is thinner than this is gripped on so much of it."""
CLEAR_MM, LEAST_SECOND_MM, MOST_SECOND_MM = 1.0, 3.0, 15.0
"""Of the second hold: kept free of the first one's jaws and of the next shoulder, the least and the most it grips."""
BEHIND_ROOM_MM = 15.0
"""A stretch behind something else lies nearer the shoulder that the second side cuts: wheels and holders want room."""
STANDS_OUT_D, BORE_ROOM_MM = 2.0, 1.0
"""A second hold lets a piece stand out so many diameters before it moves nearer; what goes into the spindle is so much
slimmer than its bore."""
AWAY_ROOM_MM, MOST_SLENDER = 25.0, 7.0
"""What a holder takes on the side of the chuck; the most a bar stands out, in its diameters (usual practice)."""
SAME_MM, FAR_MM = 1e-3, 1e5


def next_bar(
    d_mm: float, system: System, shape: str = "round", material: str = "", shop: Library | None = None
) -> BarSize:
    """The smallest bar of a shape that cleans up to a diameter, from the shop's sizes or the usual ones."""
    shop = shop or library()
    wanted = d_mm + (shop.rules.bar_allowance_mm if shape == "round" else 0.0)
    fitting = [one for one in shop.bars(system, material) if one.shape == shape and one.size_mm >= wanted - SAME_MM]
    usual = min((one.size_mm for one in fitting if one not in shop.own_bars), default=wanted)
    own = next((one for one in fitting if one in shop.own_bars), None)
    found = own if own is not None and own.size_mm <= OWN_SHARE * usual else next(iter(fitting), None)
    size = math.ceil(wanted) if shape == "round" else wanted  # a drawn hexagon has the size of the part
    return found or BarSize.model_validate({"shape": shape, "size_mm": size})


def next_bar_mm(d_mm: float, system: System) -> float:
    """The smallest usual bar that cleans up to a diameter, mm."""
    return next_bar(d_mm, system).size_mm


def goes_through(d_mm: float, machine: Machine) -> bool:
    """Whether a bar goes through the spindle; where the machine does not say, every bar does."""
    return machine.spindle_bore_mm is None or d_mm <= machine.spindle_bore_mm + SAME_MM


def proposed(job: Job) -> Job:
    """The job with what follows its part as the part wants it now; a part that cannot be built leaves it as it is."""
    try:
        shape = build_part(job.part)
    except ToreumaError:
        return job
    for name in FOLLOWED:
        if name in job.follows:
            job = _PROPOSERS[name](job, shape)
    return job


def settled(before: Job, after: Job) -> Job:
    """The job after an edit: what the person set by it follows no longer, what still does is proposed anew."""
    if after.follows != before.follows or not after.follows:
        return after
    follows = tuple(name for name in after.follows if _SEEN[name](before) == _SEEN[name](after))
    if follows != after.follows:
        after = after.changed(follows=follows)
    return proposed(after) if _ground(before) != _ground(after) else after


def _ground(job: Job) -> tuple[object, ...]:
    """What the proposals rest on."""
    return job.part, job.machine, job.units, job.stock.material.name, _blank(job), _hold(job), _stick_out(job)


def _blank(job: Job) -> object:
    return job.stock.model_dump(exclude={"material", "supply", "skin", "skin_mm", "runout_mm"})


def _hold(job: Job) -> object:
    return job.setup.hold.changed(stick_out_mm=1.0, grip_length_mm=1.0)


def _stick_out(job: Job) -> object:
    return job.setup.hold.stick_out_mm, job.setup.hold.grip_length_mm


def _second(job: Job) -> object:
    return job.second_hold


_SEEN: dict[str, Callable[[Job], object]] = {
    "blank": _blank,
    "hold": _hold,
    "stick_out": _stick_out,
    "second_hold": _second,
}


def _with_blank(job: Job, shape: PartShape) -> Job:
    """A bar that cleans up; one that does not go through the spindle is sawn to a piece."""
    largest = round(2 * shape.profile.largest_r, 6)
    rules = library().rules
    across = _hexagon_across(job, largest)
    kept = job.stock.model_dump(include={"skin", "skin_mm", "runout_mm", "supply"})
    kept.update(material=job.stock.material, face_allowance_mm=rules.face_allowance_mm)
    if across is not None:
        bar = next_bar(across, job.units, "hexagon", job.stock.material.name)
        size: dict[str, Any] = {"kind": "polygon", "sides": 6, "across_mm": bar.size_mm}
        around = bar.size_mm / math.cos(math.pi / 6)
    elif (tube := _tube(job, shape, largest)) is not None:
        bar = tube
        size, around = {"kind": "tube", "d_mm": bar.size_mm, "bore_d_mm": bar.bore_d_mm}, bar.size_mm
    else:
        bar = next_bar(largest, job.units, "round", job.stock.material.name)
        size, around = {"kind": "round", "d_mm": bar.size_mm}, bar.size_mm
    if not goes_through(around, job.machine):
        step = 25.4 / 32 if job.units == "inch" else 0.5
        whole = -shape.profile.back_z + 2 * rules.face_allowance_mm
        size["length_mm"] = round(math.ceil(whole / step - SAME_MM) * step, 5)
    elif bar.price_per_kg or bar.length_mm != 3000.0:
        price = {"price_per_kg": bar.price_per_kg} if bar.price_per_kg else {}
        kept["supply"] = job.stock.supply.changed(bar_length_mm=bar.length_mm, **price)
    return job.changed(stock={**kept, **size})


def _tube(job: Job, shape: PartShape, largest: float) -> BarSize | None:
    """The shop's own tube whose wall holds the part, the thinnest wall first; tubes are not bought unasked."""
    if shape.bore is None or shape.void is None or shape.void.bounds[0] > shape.profile.back_z + SAME_MM:
        return None
    shop = library()
    room = shop.rules.bar_allowance_mm
    bore = 2 * min(float(r) for _, r in chords(shape.bore.segments[1:]) if r > SAME_MM)
    material = job.stock.material.name
    fitting = [
        one
        for one in shop.own_bars
        if one.shape == "tube"
        and one.bore_d_mm
        and one.material in ("", material)
        and one.size_mm >= largest + room - SAME_MM
        and one.bore_d_mm <= bore - room + SAME_MM
    ]
    return min(fitting, key=lambda one: one.size_mm - (one.bore_d_mm or 0.0), default=None)


def _hexagon_across(job: Job, largest: float) -> float | None:
    """The size across flats of a hexagon that is the widest of the part: such a bar needs no milling."""
    for feature in job.part.features:
        if feature.kind == "flats" and feature.count == 6:
            across = 2 * feature.distance_mm
            if abs(across / math.cos(math.pi / 6) - largest) < 0.02 * largest:
                return round(across, 6)
    return None


def _takes(hold: Hold, d_mm: float) -> bool:
    if isinstance(hold, Collet):
        return hold.range_mm[0] <= d_mm <= hold.range_mm[1]
    if isinstance(hold, Chuck):
        span = hold.grip_range_mm
        return hold.jaws == "hard" and hold.side == "outside" and (span is None or span[0] <= d_mm <= span[1])
    return False


@dataclass(frozen=True)
class _Piece:
    """A blank that is put into the hold one by one: Z of its front, its length, and its diameter where it is gripped,
    all mm."""

    front: float
    length: float
    grip_d: float


def _piece(stock: Stock, shape: PartShape) -> _Piece | None:
    """A sawn piece, a casting or a forging; None for a bar and for what another hold left."""
    if stock.kind != "free":
        length = stock.length_mm
        return None if length is None else _Piece(stock.face_allowance_mm, length, stock.largest_d_mm)
    if stock.outline:
        return None
    blank = blank_region(stock, shape, 0.0)
    back, _, front, _ = blank.bounds
    gripped = blank.intersection(box(back, 0.0, back + min(GRIP_SHARE * (front - back), MOST_SECOND_MM), FAR_MM))
    return _Piece(max(front, stock.face_allowance_mm), front - back, 2 * float(gripped.bounds[3]))


def _with_hold(job: Job, shape: PartShape) -> Job:
    """The shop's own holds before those that ship; a collet on a machine with a gang plate, else a chuck with hard
    jaws, the smallest that takes the blank."""
    piece = _piece(job.stock, shape)
    if piece is not None:
        d = piece.grip_d
    else:
        d = job.stock.largest_d_mm if job.stock.kind != "free" else 2 * shape.profile.largest_r
    shop = library()
    own = shop.shop.of("hold")
    gang = any(carrier.kind == "gang plate" for carrier in job.machine.carriers)
    fitting = [hold for hold in shop.holds.values() if _takes(hold, d)]
    wanted = Collet if gang and piece is None else Chuck

    def rank(hold: Hold) -> tuple[bool, bool, float]:
        return hold.name not in own, not isinstance(hold, wanted), hold.body_d_mm

    best = min(fitting, key=rank, default=None)
    if best is None:
        best = max(
            (h for h in shop.holds.values() if isinstance(h, Chuck) and h.jaws == "hard"), key=lambda h: h.body_d_mm
        )
    now = job.setup.hold
    return job.with_setup(hold=best.changed(stick_out_mm=now.stick_out_mm, grip_length_mm=best.grip_length_mm))


def _with_stick_out(job: Job, shape: PartShape) -> Job:
    """So far out that the part and the cut that parts it off stand free; a sawn piece as far as its grip lets it."""
    hold, stock = job.setup.hold, job.stock
    length = -shape.profile.back_z
    if (piece := _piece(stock, shape)) is not None:
        grip = min(hold.grip_length_mm, max(LEAST_GRIP_MM, round(GRIP_SHARE * piece.length, 1)))
        room = piece.length - piece.front + _last_shoulder_z(shape) - TOOL_ROOM_MM
        grip = max(min(grip, round(room, 1)), LEAST_GRIP_MM)
        out = max(round(piece.length - grip, 3), 1.0)
        return job.with_setup(hold=hold.changed(stick_out_mm=out, grip_length_mm=grip))
    return job.with_setup(hold=hold.changed(stick_out_mm=round(stock.face_allowance_mm + length + BEHIND_MM, 1)))


def _last_shoulder_z(shape: PartShape) -> float:
    """Where the hindmost shoulder stands that a tool in the first hold cuts; the front face where there is none."""
    profile = shape.profile
    rises = [
        one.end[0]
        for one in profile.segments[1 : profile.outside_end]
        if one.end[1] > one.start[1] + SAME_MM and one.end[0] > profile.back_z + SAME_MM
    ]
    return min(rises, default=0.0)


def _with_second_hold(job: Job, shape: PartShape) -> Job:
    """A sawn piece is turned round: its second hold sits on the longest cylinder that the first one leaves free and
    that carries nothing. What is parted off from a bar has none."""
    piece = _piece(job.stock, shape)
    if piece is None:
        return job.changed(second_hold=None)
    held = _gripped_again(job, piece.front - job.setup.hold.stick_out_mm + CLEAR_MM)
    return _longer(job, shape).changed(second_hold=None) if held is None else held


CENTRED_FROM, CENTRE_ROOM_MM = 4.0, 4.0
"""Stick-out over diameter beyond which a piece wants a centre: 3 to 5 ask for caution, more for a centre; how much
slimmer than the front it is, so that a tool gets to the edge."""


def with_second_grip(job: Job, ends_z: float | None = None) -> Job | None:
    """The job with a second hold for what comes off the bar, where it has none, in front of ``ends_z``; None where
    nothing can be gripped."""
    if job.second_hold is not None and ends_z is None:
        return None
    if len(job.setups) > 1 or job.stock.kind == "free":
        return None
    whole = -math.inf if job.stock.length_mm is None else job.stock.face_allowance_mm - job.setup.hold.stick_out_mm
    room = -math.inf if ends_z is None else ends_z + SECOND_ROOM_MM
    reach = max(whole + CLEAR_MM, room)
    held = _gripped_again(job, reach, SECOND_ROOM_MM)
    if held is None or (ends_z is None and _grip_mm(held) < THIN_MM):  # little to hold: up to the next shoulder
        held = max((one for one in (held, _gripped_again(job, reach)) if one is not None), key=_grip_mm, default=None)
    return None if held is None else held.changed(follows=tuple(one for one in held.follows if one != "second_hold"))


def _grip_mm(job: Job) -> float:
    return job.second_hold.grip_length_mm if job.second_hold is not None else 0.0


def sawn(job: Job) -> Job | None:
    """A bar that does not go through the spindle, sawn to pieces that stand out as far and are gripped as long; None
    where it goes through, or is no bar."""
    stock, hold = job.stock, job.setup.hold
    if stock.kind == "free" or stock.length_mm is not None or goes_through(stock.largest_d_mm, job.machine):
        return None
    step = 25.4 / 32 if job.units == "inch" else 0.5
    whole = hold.stick_out_mm + hold.grip_length_mm
    return job.changed(stock=stock.changed(length_mm=round(math.ceil(whole / step - SAME_MM) * step, 5)))


def with_live_centre(job: Job) -> Job | None:
    """A slender piece carried by a centre in the centre hole that is drawn in its front; None where it needs none, has
    one, or there is nothing to bring one up with."""
    hole = next((one for one in job.part.features if isinstance(one, CentreHole) and one.end == "front"), None)
    if hole is None or job.setup.centre is not None or not job.machine.tailstock or job.stock.kind == "free":
        return None
    if job.setup.hold.stick_out_mm <= CENTRED_FROM * job.stock.largest_d_mm:
        return None
    front = job.part.outside[0].d_mm - CENTRE_ROOM_MM
    fitting = [
        one for one in library().centres.values() if one.largest_mouth_mm >= hole.mouth_d_mm and one.d_mm <= front
    ]
    if not fitting:
        return None
    return job.with_setup(centre=max(fitting, key=lambda one: (one.d_mm, one.name)))


def farther_out(job: Job) -> Job | None:
    """The bar drawn out so far that a tool which leads away from the chuck has room in front of it; None where the
    person set how far, or it would stand out as a whip."""
    stock, hold = job.stock, job.setup.hold
    if stock.kind == "free" or stock.length_mm is not None or "stick_out" not in job.follows:
        return None
    out = round(hold.stick_out_mm + AWAY_ROOM_MM, 1)
    if out > MOST_SLENDER * stock.largest_d_mm or job.setup.centre is not None:
        return None
    kept = tuple(one for one in job.follows if one != "stick_out")
    return job.with_setup(hold=hold.changed(stick_out_mm=out)).changed(follows=kept)


def longer_piece(job: Job) -> Job | None:
    """A sawn job on a piece so long that the whole part stands free and is parted off, then gripped again; None where
    the blank is the person's own."""
    stock = job.stock
    if stock.kind == "free" or stock.length_mm is None or len(job.setups) > 1:
        return None
    if not {"blank", "stick_out"} <= set(job.follows):
        return None
    shape, hold = build_part(job.part), job.setup.hold
    out = round(stock.face_allowance_mm - shape.profile.back_z + PARTED_OUT_MM, 1)
    longer = job.changed(stock=stock.changed(length_mm=round(out + MOST_SECOND_MM, 1)), second_hold=None)
    longer = longer.with_setup(hold=hold.changed(stick_out_mm=out, grip_length_mm=MOST_SECOND_MM))
    held = _gripped_again(longer, -math.inf)
    if held is None:
        return None
    own = ("second_hold", "stick_out", "blank")
    return held.changed(follows=tuple(one for one in held.follows if one not in own))


def widest_end_z(job: Job) -> float | None:
    """Where the widest place of the outside ends, before what breaks its edge; None where none is narrower behind."""
    profile = build_part(job.part).profile
    widest = [
        one
        for one in profile.segments[: profile.outside_end]
        if max(one.start[1], one.end[1]) > profile.largest_r - SAME_MM and one.end[0] < one.start[0] - SAME_MM
    ]
    if not widest:
        return None
    behind = [one for one in profile.segments[: profile.outside_end] if one.start[0] <= widest[-1].end[0] + SAME_MM]
    narrower = any(
        min(one.start[1], one.end[1]) < profile.largest_r - SAME_MM
        for one in behind
        if one.end[0] < one.start[0] - LEAST_BEHIND_MM
    )
    return widest[-1].end[0] if narrower else None


def _gripped_again(job: Job, reach_z: float, room_mm: float = 0.0) -> Job | None:
    """Gripped on the longest free stretch of a cylinder in front of ``reach_z``, so far from what is behind it, that
    the hold's jaws get to past what lies in front of it; as near its back as the part goes into the hold. Where no
    stretch is long enough, jaws lie over a groove."""
    return _gripped_free(job, reach_z, room_mm) or _gripped_free(job, reach_z, room_mm, over_gaps=True)


def _gripped_free(job: Job, reach_z: float, room_mm: float, over_gaps: bool = False) -> Job | None:
    best: tuple[float, float, int, float] | None = None
    widest = 0.0
    for index, (before, here) in enumerate(itertools.pairwise(job.part.outside), 1):
        widest = max(widest, before.d_mm)
        if here.kind != "line" or abs(before.d_mm - here.d_mm) > SAME_MM:
            continue
        passes = passed_d_mm(job.setup.hold, here.d_mm)
        if passes is not None and widest > passes + SAME_MM:
            continue
        last = index == len(job.part.outside) - 1
        broken = job.part.edge_break_mm
        at_front, at_back = (one.corner.size_mm if one.corner is not None else broken for one in (before, here))
        front = before.z_mm - at_front
        back = max(here.z_mm + (0.0 if last else room_mm), reach_z) + at_back
        for high, low in free_stretches(front, back, _taken(job, over_gaps)):
            worth = high - low - (BEHIND_ROOM_MM if high < front - SAME_MM and not last else 0.0)
            if worth >= LEAST_SECOND_MM and (best is None or worth > best[0] + SAME_MM):
                best = worth, high - low, index, front - high
    if best is None:
        return None
    _, free, element, begins = best
    most = THIN_GRIP_SHARE * free if free < THIN_MM else free - CLEAR_MM
    grip = math.floor(100 * min(most, job.setup.hold.grip_length_mm, MOST_SECOND_MM)) / 100
    begins += _nearer_back(job, element, begins, grip, free - CLEAR_MM - grip)
    begins = math.ceil(1000 * begins - 0.1) / 1000 if begins > SAME_MM else 0.0
    wanted = {"element": element, "begins_mm": begins, "grip_length_mm": grip, "clearance_mm": CLEAR_MM}
    return job.changed(second_hold=wanted)


def _nearer_back(job: Job, element: int, begins: float, grip: float, room: float) -> float:
    """How much farther back the grip may begin where the piece would stand out far: what is deeper in the hold than
    its jaws are long has to go into the spindle."""
    hold, front, part = job.setup.hold, job.part.outside[:element], job.part
    deep = begins + grip - front[-1].z_mm
    too_far = -part.outside[-1].z_mm - deep - STANDS_OUT_D * part.outside[element].d_mm
    if min(room, too_far) <= 0 or not isinstance(hold, Chuck | Collet):
        return 0.0
    bore = job.machine.spindle_bore_mm
    if job.hand_over is None and (bore is None or max(one.d_mm for one in front) < bore - BORE_ROOM_MM):
        return min(room, too_far)
    jaws = hold.jaw_length_mm if isinstance(hold, Chuck) else hold.cap_length_mm
    return min(max(jaws - deep, 0.0), room, too_far)


def _longer(job: Job, shape: PartShape) -> Job:
    """Nothing can be gripped a second time: a longer piece, on which the whole part stands free of the jaws."""
    stock, hold = job.stock, job.setup.hold
    if stock.kind == "free" or not {"blank", "stick_out"} <= set(job.follows):
        return job
    out = round(stock.face_allowance_mm - shape.profile.back_z + BEHIND_MM, 1)
    job = job.changed(stock=stock.changed(length_mm=round(out + hold.grip_length_mm, 1)))
    return job.with_setup(hold=hold.changed(stick_out_mm=out))


def _taken(job: Job, over_gaps: bool) -> list[tuple[float, float]]:
    """Stretches of the outside that carry something jaws cannot sit on, (high, low); nor lie over, ``over_gaps``."""
    drawn = job.stock.kind == "polygon"  # the flats are the bar's own: jaws sit on them
    carried = [
        one for one in job.part.features if not (drawn and one.kind == "flats") and not lies_between_jaws(one, job.part)
    ]
    kept = (one for one in carried if not (over_gaps and isinstance(one, Groove | Relief)))
    lies = (FEATURES[feature.kind].on_outside(feature) for feature in kept)
    return [(one[1], one[2]) for one in lies if one is not None]


_PROPOSERS: dict[str, Callable[[Job, PartShape], Job]] = {
    "blank": _with_blank,
    "hold": _with_hold,
    "stick_out": _with_stick_out,
    "second_hold": _with_second_hold,
}
