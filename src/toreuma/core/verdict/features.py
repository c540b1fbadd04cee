"""Rows for what the section does not show: threads, tapped holes, what is milled, knurls."""

import math
from collections.abc import Mapping, Sequence

import shapely

from toreuma.core.errors import PartError
from toreuma.core.geometry.knurled import nominal_d_mm
from toreuma.core.geometry.milled import Sunk, sunk_of
from toreuma.core.geometry.of_bar import is_of_bar
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job, Tool
from toreuma.core.model import ThreadForm as Form
from toreuma.core.model.feature import AxialHole, Flats, HolePattern, Knurl, Slot, ThreadFeature
from toreuma.core.model.tool import Tap
from toreuma.core.motion import Motion
from toreuma.core.prove.orbits import is_at
from toreuma.core.prove.taps import Stroke
from toreuma.core.prove.threads import MEASURED_MM, ThreadMade, crest_d, thread_made
from toreuma.core.spoken import q, said
from toreuma.core.standards.knurls import blank_d_mm
from toreuma.core.standards.threads.same import is_left_hand
from toreuma.core.verdict.makers import Makers
from toreuma.core.verdict.milled_threads import milled_thread_row
from toreuma.core.verdict.row import Made, Row, RowState
from toreuma.core.verdict.side import SideMade

__all__ = ["feature_rows"]

LEFT_UM, HOLE_LEFT_UM = 2.0, 35.0
"""A drilled hole has no limits here: the nearest drill there is makes it, some hundredths smaller or not."""
SAME_MM, LEAD_SHARE = 0.02, 1e-3
DEPTH_MM = 0.05
GAUGE_TURNS = 1.0
"""A taper thread may be so many turns too deep or too shallow (ASME B1.20.1, ISO 7-1)."""

BLIND_PITCHES = 7.0
"""A blind hole without a length of thread: so much of it may stay without, for the lead and its clearance."""

CORE_AT_MM = 0.5
CORE_AT_PITCHES = 0.75
"""So much of a hole about its middle is measured."""

WIDER_SHARE = 1.3
"""A bore so much wider than a tapped hole is another's."""

RIDGE_MM, END_MM = 0.03, 0.3
TAPER_SAME = 1e-3
SHORTEST = 0.6
"""But this share of the hole has a thread."""


def feature_rows(
    job: Job, shape: PartShape, final: Region, sides: Sequence[SideMade], forms: Mapping[int, Form], makers: Makers
) -> list[Row]:
    """A row for every thread, tapped hole, milled feature and knurl."""
    rows: list[Row] = []
    for index, feature in enumerate(job.part.features):
        if isinstance(feature, ThreadFeature):
            rows.append(_thread(index, feature, forms.get(index), shape, final, sides, makers))
        elif isinstance(feature, AxialHole) and feature.thread:
            rows.append(_tapped(index, feature, forms.get(index), final, job, sides, makers))
        elif isinstance(feature, HolePattern | Flats | Slot):
            rows.append(_milled(index, feature, forms.get(index), job, sides, makers))
        elif isinstance(feature, Knurl):
            rows.append(_knurl(index, feature, job, final, sides, makers))
    return rows


def _thread(
    index: int,
    feature: ThreadFeature,
    form: Form | None,
    shape: PartShape,
    final: Region,
    sides: Sequence[SideMade],
    makers: Makers,
) -> Row:
    at = (feature.from_z_mm - feature.length_mm / 2, 0.0)
    name = feature.name or feature.designation
    wanted = said("{}, {} long", feature.designation, q(feature.length_mm, "mm", "g"))
    row = Row(key=f"feature {index}", what=name, wanted=wanted, found="", state="open", at=at)
    if form is None:
        left = "its sizes are not known, so that it cannot be measured"
        return _with(row, "open", "not measured", left, "a designation of a standard")
    made, crest = _measured(index, feature, form, shape.region, final, sides)
    maker = _in_step(feature, sides, makers)
    limits = said("{} to {}", q(form.pitch_d_mm[0], "mm", ".3f", bare=True), q(form.pitch_d_mm[1], "mm", ".3f"))
    if made.pitch_d_mm is None:
        return _with(row, "open", "none", "no thread is cut", "a threading operation", maker)
    found = said("pitch Ø {}", q(made.pitch_d_mm, "mm", ".3f"))
    if not made.complete:
        return _with(row, "open", found, "it is not cut to its end", "a longer thread, or a relief for its end", maker)
    if not made.ok:
        return _with(row, "wrong", found, said("pitch Ø limits {}", limits), "another depth", maker)
    lead = _lead_off(form, feature, sides)
    if lead is not None:
        return _with(row, "wrong", found, said("cut with a lead of {}", q(lead, "mm", "g")), "its own lead", maker)
    if crest is not None and not form.taper:
        low, high = form.crest_d_mm
        if not low - MEASURED_MM <= crest <= high + MEASURED_MM:
            left = said("crest Ø {}, limits {} to {}", q(crest, "mm", ".3f"), q(low, "mm", ".3f", bare=True), q(high))
            return _with(row, "wrong", found, left, "the limits of the thread's crest on its cylinder", maker)
    return _with(row, "made", found, "", "", maker)


def _with(row: Row, state: RowState, found: str, left: str = "", cure: str = "", made: Made | None = None) -> Row:
    return Row(key=row.key, what=row.what, wanted=row.wanted, found=found, state=state, left=left, cure=cure,
               made=made, at=row.at)  # fmt: skip


def _measured(
    index: int, feature: ThreadFeature, form: Form, drawn: Region, final: Region, sides: Sequence[SideMade]
) -> tuple[ThreadMade, float | None]:
    """A thread and the diameter of its crests, looked at from the side that cuts it: there it has its end."""
    for side in sides:
        own = side.job.part.features[index] if index < len(side.job.part.features) else None
        if isinstance(own, ThreadFeature) and _cuts(side, feature):
            here = side.as_drawn(final)  # end for end both ways
            return thread_made(own, form, here, build_part(side.job.part).region), crest_d(own, here)
    return thread_made(feature, form, final, drawn), crest_d(feature, final)


def _in_step(feature: ThreadFeature, sides: Sequence[SideMade], makers: Makers) -> Made | None:
    """The last cut in step with the spindle along a thread."""
    for number in range(len(sides) - 1, -1, -1):
        side = sides[number]
        cuts = [one for one in _cuts(side, feature) if one.section >= 0]
        if cuts:
            made = makers.of_section(number, cuts[-1].section)
            return Made(number, made.operation if made else "", cuts[-1].line)
    return None


def _cuts(side: SideMade, feature: ThreadFeature) -> list[Motion]:
    """The moves in step with the spindle that pass along a thread, in the order they are made."""
    ends = sorted(side.drawn_z(z) for z in (feature.from_z_mm - feature.length_mm, feature.from_z_mm))
    taps = {tool.station for tool in side.job.tools if isinstance(tool, Tap)}
    inside = feature.side == "inside"
    bars = {tool.station for tool in side.job.tools if getattr(tool, "where", "outside") == "inside"}
    return [
        one
        for one in side.proof.program.motions
        if one.in_step
        and one.station not in taps
        and (one.station in bars) is inside
        and min(one.start[0], one.end[0]) < ends[1] - SAME_MM
        and max(one.start[0], one.end[0]) > ends[0] + SAME_MM
    ]


def _lead_off(form: Form, feature: ThreadFeature, sides: Sequence[SideMade]) -> float | None:
    """A lead that is not the thread's, among the cuts in step along it."""
    for side in sides:
        for one in _cuts(side, feature):
            if abs((one.feed or 0.0) - form.lead_mm) > LEAD_SHARE * form.lead_mm:
                return float(one.feed or 0.0)
    return None


def _tapped(
    index: int, hole: AxialHole, form: Form | None, final: Region, job: Job, sides: Sequence[SideMade], makers: Makers
) -> Row:
    name = hole.name or hole.thread
    back = sides[0].back_z
    length = _length(hole, -back)
    low, high = (-length, 0.0) if hole.end == "front" else (back, back + length)
    at = (_amid(final, low, high, hole.d_mm), 0.0)
    wanted = said("{}, {} deep", hole.thread, q(length, "mm", "g"))
    key = f"thread in feature {index}"
    row = Row(key=key, what=f"{name} in the axis", wanted=wanted, found="", state="open", at=at)
    for number, side in enumerate(sides):
        own = side.job.part.features[index] if index < len(side.job.part.features) else None
        if not isinstance(own, AxialHole) or own.end != "front":
            continue
        strokes = [one for one in side.proof.tapped if not one.from_side and math.hypot(*one.place) < SAME_MM]
        if strokes:
            return _tapped_row(
                row,
                form,
                strokes,
                length,
                side,
                number,
                makers,
                _core_d(final, at, form.pitch_mm if form is not None else 0.0),
                exact=hole.depth_mm is None or hole.thread_length_mm is not None,
            )
    return _with(row, "open", "none", "no tap goes in", "a tapping operation")


def _length(hole: AxialHole, through: float) -> float:
    """Full thread that is wanted."""
    return hole.thread_length_mm or (hole.depth_mm if hole.depth_mm is not None else through)


def _amid(final: Region, low: float, high: float, d: float) -> float:
    """The middle along Z of what of a hole between two places is no wider bore, mm."""
    wide = WIDER_SHARE * d / 2
    narrow = shapely.clip_by_rect(final, low, 0.0, high, wide)
    if narrow.is_empty:
        return (low + high) / 2
    return float(narrow.bounds[0] + narrow.bounds[2]) / 2


def _core_d(final: Region, at: tuple[float, float], pitch_mm: float) -> float:
    """Diameter of the hole between the teeth, where it is narrowest over more than a pitch."""
    along = max(CORE_AT_MM, CORE_AT_PITCHES * pitch_mm)
    wide = shapely.clip_by_rect(final, at[0] - along, 0, at[0] + along, 1e5)
    return 2 * float(wide.bounds[1]) if not wide.is_empty else 0.0


def _tapped_row(
    row: Row,
    form: Form | None,
    strokes: Sequence[Stroke],
    length: float,
    side: SideMade,
    number: int,
    makers: Makers,
    core: float | None,
    exact: bool = False,
) -> Row:
    deepest = min(strokes, key=lambda one: one.end)
    tool = next((one for one in side.job.tools if one.station == deepest.station), None)
    section = next((one.section for one in side.proof.program.motions if one.line == deepest.line), -1)
    maker = makers.of_section(number, section)
    made = Made(number, maker.operation if maker else "", deepest.line)
    if not isinstance(tool, Tap):
        return _with(row, "open", "none", "no tap goes in", "a tapping operation", made)
    wrong = _wrong_tap(form, tool, deepest, core)
    full = -deepest.end - tool.lead_pitches * tool.pitch_mm
    found = said("{}, {} of full thread", tool.thread, q(full))
    if not wrong and tool.taper > 0:
        turns = (-deepest.end - tool.gauge_mm) / tool.pitch_mm
        if abs(turns) <= GAUGE_TURNS:
            return _with(row, "made", said("{}, {} deep", tool.thread, q(-deepest.end)), "", "", made)
        off = f"its gauge stands {abs(turns):.1f} turns {'in' if turns > 0 else 'out'}, one is allowed"
        return _with(row, "open" if turns < 0 else "wrong", found, off, "the tap to its gauge plane", made)
    if wrong:
        return _with(row, "wrong", found, wrong, "the tap and the hole of its own thread", made)
    least = length - DEPTH_MM if exact else max(length - BLIND_PITCHES * tool.pitch_mm, SHORTEST * length)
    if full < least:
        return _with(row, "open", found, said("{} of full thread are wanted", q(length)), "a deeper stroke", made)
    return _with(row, "made", found, "", "", made)


def _wrong_tap(form: Form | None, tool: Tap, stroke: Stroke, core: float | None) -> str:
    """What is wrong with the thread that a tap made; empty where nothing is."""
    if abs(abs(stroke.lead_mm) - tool.pitch_mm) > LEAD_SHARE * tool.pitch_mm:
        return said(
            "the tap of pitch {} is fed {} a turn", q(tool.pitch_mm, "mm", "g"), q(abs(stroke.lead_mm), "mm", ".4g")
        )
    if form is None:
        return ""
    if form.left_hand is not is_left_hand(tool.thread):
        return f"the thread is {'left' if form.left_hand else 'right'}-hand, the tap {tool.thread} is not"
    if abs(tool.pitch_mm - form.pitch_mm) > LEAD_SHARE * form.pitch_mm:
        return said("a pitch of {} is wanted, the tap has {}", q(form.pitch_mm, "mm", "g"), q(tool.pitch_mm, "mm", "g"))
    if abs(tool.taper - form.taper) > TAPER_SAME:
        return (
            f"the thread is {'' if form.taper else 'not '}taper, the tap {tool.thread} is {'' if tool.taper else 'not'}"
        )
    if form.taper:
        return ""
    basic = form.pitch_d_mm[0] + 0.6495 * form.pitch_mm
    if form.flank_deg == 60 and abs(tool.d_mm - basic) > 0.1 * form.pitch_mm:
        return said("a thread of Ø {} is wanted, the tap has Ø {}", q(basic, "mm", "g"), q(tool.d_mm, "mm", "g"))
    low, high = form.crest_d_mm
    if core is not None and tool.form != "forming" and not low - SAME_MM <= core <= high + SAME_MM:
        return said("its core is Ø {}, limits {} to {}", q(core, "mm", ".3f"), q(low, "mm", ".3f", bare=True), q(high))
    return ""


def _milled(
    index: int,
    feature: HolePattern | Flats | Slot,
    form: Form | None,
    job: Job,
    sides: Sequence[SideMade],
    makers: Makers,
) -> Row:
    name = feature.name or {"holes": "holes", "flats": "flats", "slot": "slot"}[feature.kind]
    count = f"{feature.count} ×" if feature.count > 1 else "as drawn"
    row = Row(key=f"feature {index}", what=name, wanted=count, found="", state="open")
    if is_of_bar(job.stock, feature):
        return _with(row, "made", "of the bar")
    made, least = None, math.inf
    for number, side in enumerate(sides):
        left = dict(side.proof.milled).get(index)
        if left is not None and left < least:
            least, made = left, _by(index, number, side, makers)
    free = HOLE_LEFT_UM if isinstance(feature, HolePattern) and not feature.thread else LEFT_UM
    if least > free:
        what = "it is not cut" if not math.isfinite(least) or made is None else said("{} stay in it", q(least / 1000))
        broached = isinstance(feature, Slot) and feature.on == "inside"
        cure = "broaching or slotting, which is no part of this program" if broached else "a driven tool that cuts it"
        return _with(row, "open", "not made", what, cure, made)
    if isinstance(feature, HolePattern) and feature.thread:
        return _tapped_pattern(row, index, feature, form, sides, makers)
    return _with(row, "made", "as drawn", made=made)


def _by(index: int, number: int, side: SideMade, makers: Makers) -> Made | None:
    """The operation of a side that cuts a feature."""
    found = (one.id for one in side.job.operations if one.enabled and index in one.features_cut)
    name = next(found, None)
    return None if name is None else makers.of_operation(number, name)


def _tapped_pattern(
    row: Row, index: int, feature: HolePattern, form: Form | None, sides: Sequence[SideMade], makers: Makers
) -> Row:
    """Every hole of a pattern is tapped, by the tap and at the lead of its thread."""
    best: Row | None = None
    for number, side in enumerate(sides):
        own = side.job.part.features[index]
        if not isinstance(own, HolePattern) or own.on == "back":
            continue
        try:
            places = sunk_of(index, own, side.scene.part)
        except PartError:
            continue
        rows = [_tapped_place(row, place, form, side, number, makers) for place in places]
        worst = next((one for one in rows if one.state != "made"), rows[0])
        best = worst if best is None or worst.state == "made" else best
    return best or _with(row, "open", "none", "no tap goes in", "a tapping operation")


def _tapped_place(row: Row, place: Sunk, form: Form | None, side: SideMade, number: int, makers: Makers) -> Row:
    strokes = [one for one in side.proof.tapped if _is_at(one, place)]
    if not strokes and form is not None:
        chords = [one for one in side.proof.chords if is_at(one, place, place.d_mm)]
        if chords:
            return milled_thread_row(row, chords, place, form, side, number, makers)
    if not strokes:
        return _with(row, "open", "drilled", "no tap goes into every hole", "a tapping operation")
    deepest = min(strokes, key=lambda one: one.end)
    tool: Tool | None = next((one for one in side.job.tools if one.station == deepest.station), None)
    top = place.top
    shifted = Stroke(line=deepest.line, station=deepest.station, from_side=deepest.from_side, c_deg=deepest.c_deg,
                     place=deepest.place, end=deepest.end - top, lead_mm=deepest.lead_mm)  # fmt: skip
    length = abs(top - (place.level if place.threaded_to is None else place.threaded_to))
    core = place.d_mm if isinstance(tool, Tap) else None
    exact = place.threaded_to is not None
    return _tapped_row(row, form, [shifted], length, side, number, makers, core, exact=exact)


def _is_at(stroke: Stroke, place: Sunk) -> bool:
    if stroke.from_side is not (place.along == "x"):
        return False
    if stroke.from_side:
        turned = (stroke.c_deg - place.c_deg + 180) % 360 - 180
        return abs(turned) < 0.01 and math.dist(stroke.place, place.middle) < SAME_MM
    return math.dist(stroke.place, place.middle) < SAME_MM


def _knurl(index: int, knurl: Knurl, job: Job, final: Region, sides: Sequence[SideMade], makers: Makers) -> Row:
    low, high = knurl.from_z_mm - knurl.length_mm, knurl.from_z_mm
    nominal = nominal_d_mm(job.part, index, knurl)
    base = blank_d_mm(knurl.form, nominal, knurl.pitch_mm)
    name = knurl.name or f"knurl {knurl.form} {knurl.pitch_mm:g}"
    row = Row(key=f"feature {index}", what=name, wanted=said("Ø {} over the ridges", q(nominal, "mm", "g")), found="",
              state="open", at=((low + high) / 2, nominal / 2))  # fmt: skip
    there = shapely.clip_by_rect(final, low + END_MM, (base + nominal) / 4, high - END_MM, 1e5)
    d = 2 * float(there.bounds[3]) if not there.is_empty else base
    found = said("Ø {}", q(d))
    made = _by_rolls(index, sides, makers)
    if there.is_empty:
        return _with(row, "open", found, "it is not rolled", "a knurling operation", made)
    if abs(d - nominal) > 2 * RIDGE_MM:
        return _with(row, "wrong", found, "the ridges are not as high as drawn", "another depth of the wheels", made)
    if float(there.bounds[2] - there.bounds[0]) < knurl.length_mm - 2 * END_MM - SAME_MM:
        return _with(row, "open", found, "it is not rolled to its ends", "a longer way of the wheels", made)
    return _with(row, "made", found, made=made)


def _by_rolls(index: int, sides: Sequence[SideMade], makers: Makers) -> Made | None:
    return next((made for n, side in enumerate(sides) if (made := _by(index, n, side, makers)) is not None), None)
