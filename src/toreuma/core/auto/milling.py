"""Operations of driven tools for the milled features of a part: behind the turning, in front of parting off."""

import math
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

from toreuma.core.critic.moves import LAST
from toreuma.core.errors import PartError
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk, mouth_d_mm, sunk_of
from toreuma.core.geometry.of_bar import is_of_bar
from toreuma.core.model import Carrier, HolesBeside, Job, MillFlats, MillSlot, ThreadForm
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.feature import Feature, Flats, HolePattern, Slot
from toreuma.core.model.tool import Drill, EndMill, Tap, ThreadMill, Tool
from toreuma.core.scene import build_scene
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads import Thread
from toreuma.core.standards.threads.form import form_of
from toreuma.core.standards.threads.same import cuts_thread

__all__ = ["MilledStep", "with_milled"]

Sized = TypeVar("Sized", Drill, EndMill, ThreadMill)

SAME_MM, ABOUT_MM = 0.05, 0.02
LARGEST_MILL_MM = 16.0
SAME_DEG = 0.5
TAPPED_SHARE = 0.6
"""A blind hole is threaded over this share at least."""

FLUTE_PAST_D = 0.5
"""Flutes are longer than a hole by so much of its diameter: point, breakthrough, room for chips."""

MILL_SHARE = 0.92
"""Of its core a thread mill fills no more: it has to go round, and its chips to come out."""
CUT_BY: dict[str, type[HolesBeside] | type[MillFlats] | type[MillSlot]] = {
    "holes": HolesBeside,
    "flats": MillFlats,
    "slot": MillSlot,
}


@dataclass(frozen=True)
class MilledStep:
    """One operation that was added, its tool, and why this one."""

    operation: HolesBeside | MillFlats | MillSlot
    tool: Tool
    reasons: tuple[str, ...]


def with_milled(
    job: Job, store_of: Callable[[int], Catalogue], rack: Collection[str], threads: Mapping[str, Thread]
) -> tuple[Job, tuple[MilledStep, ...], tuple[Finding, ...]]:
    """The job with an operation for every milled feature it can cut from here, and what it cannot; ``store_of`` has the
    tools that may serve a feature."""
    scene = build_scene(job)
    steps: list[MilledStep] = []
    without: list[Finding] = []
    done = set(job.stock.opened if job.stock.kind == "free" else ())
    done |= {each.feature for one in job.operations for each in one.milling}
    for index, feature in enumerate(job.part.features):
        if not isinstance(feature, HolePattern | Flats | Slot) or index in done or is_of_bar(job.stock, feature):
            continue
        try:
            places = sunk_of(index, feature, scene.part)
        except PartError as error:
            without.append(_cannot(feature, error.what))
            continue
        if any(place.behind for place in places) or not _reached(job, places[0], scene.clear_z):
            continue  # another side's
        carrier = _carrier(job, feature, places[0])
        if carrier is None:
            without.append(
                _cannot(feature, f"the {job.machine.name} drives no tools for it, or its spindle cannot stand")
            )
            continue
        form = _form(feature, threads)
        found = _tools(feature, form, store_of(index), rack, places[0])
        if not found:
            without.append(_cannot(feature, "no drill, tap or mill of the store has its size"))
            continue
        for tool, name, why in found:
            job, seated = _seated(job, tool, carrier, places[0], feature)
            if seated is None:
                without.append(_cannot(feature, f"no station of the {carrier.name} is free for {tool.name}"))
                break
            made = CUT_BY[feature.kind](id=f"m{len(steps) + 1}", name=name, tool=seated.id, feature=index)
            past = max((_past_mm(one) for one, _, _ in found if isinstance(one, Tap)), default=0.0)
            if isinstance(seated, Drill) and seated.form not in ("spot", "centre") and past and places[0].through:
                made = made.changed(breakthrough_mm=past)
            if isinstance(seated, ThreadMill):
                made = made.changed(form=form)
            steps.append(MilledStep(made, seated, why))
    at = next((n for n, one in enumerate(job.operations) if one.kind == LAST), len(job.operations))
    added = tuple(step.operation for step in steps)
    return job.with_setup(operations=(*job.operations[:at], *added, *job.operations[at:])), tuple(steps), tuple(without)


def _past_mm(tap: Tap) -> float:
    """How far behind the part a through hole is drilled for a tap: its lead and a turn more, for bar may be there."""
    return round((tap.lead_pitches + 1) * tap.pitch_mm, 2) if tap.taper == 0 else 0.0


def _cannot(feature: Feature, why: str) -> Finding:
    return Finding("warning", "auto.none", f"{feature.name or feature.kind}: no tool can do it", why)


def _reached(job: Job, place: Sunk, clear_z: float) -> bool:
    """It stands in front of the hold: what lies in the jaws is cut from the other side."""
    return place.along == "z" or place.region.bounds[0] > clear_z


def _carrier(job: Job, feature: Feature, place: Sunk) -> Carrier | None:
    """What drives the tool: one with Y where the way goes across, else the first that drives any."""
    if job.machine.c_axis is None:
        return None
    driving = [one for one in job.machine.carriers if one.live is not None and "main" in one.reaches]
    across = isinstance(feature, Flats | Slot) and place.along == "x"
    with_y = [one for one in driving if one.y_mm > 0]
    chosen = with_y or (driving if not across or isinstance(feature, Flats) else [])
    return chosen[0] if chosen else None


def _form(feature: Feature, threads: Mapping[str, Thread]) -> ThreadForm | None:
    """The thread of the holes, None where they have none that is known."""
    thread = threads.get(feature.thread) if isinstance(feature, HolePattern) else None
    return form_of(thread, "inside", thread.designation) if thread is not None else None


def _tools(
    feature: Feature, form: ThreadForm | None, store: Catalogue, rack: Collection[str], place: Sunk
) -> list[tuple[Tool, str, tuple[str, ...]]]:
    """The tools of a feature in their order, what each does, and why this one."""
    name = feature.name or {"holes": "the holes", "flats": "the flats", "slot": "the slot"}[feature.kind]
    if isinstance(feature, HolePattern):
        return _hole_tools(feature, form, name, store, rack, place.top - place.level)
    mills = [one for one in store.tools if isinstance(one, EndMill)]
    if isinstance(feature, Slot):
        fitting = [one for one in mills if one.d_mm < feature.width_mm - SAME_MM] or [
            one for one in mills if one.d_mm <= feature.width_mm + SAME_MM
        ]
        why = "the stoutest mill the slot lets in with its walls finished on their own"
    else:
        assert isinstance(feature, Flats)
        between = abs(feature.from_z_mm - feature.to_z_mm) if _has_walls(feature, place) else LARGEST_MILL_MM
        most = min(LARGEST_MILL_MM, between)
        fitting = [one for one in mills if one.d_mm <= most]
        why = said("the stoutest mill up to Ø{}: it bends least", q(most, "mm", "g", bare=True))
    best = _best(fitting, rack, lambda one: one.d_mm)
    return [(best, f"Mill {name}", (why,))] if best is not None else []


def _has_walls(feature: Flats, place: Sunk) -> bool:
    """Metal stands at both ends of flats that are cut from above."""
    return place.along == "x" and place.region.bounds[2] <= max(feature.from_z_mm, feature.to_z_mm) + SAME_MM


def _hole_tools(
    feature: HolePattern, form: ThreadForm | None, name: str, store: Catalogue, rack: Collection[str], deep_mm: float
) -> list[tuple[Tool, str, tuple[str, ...]]]:
    taps = [one for one in store.tools if isinstance(one, Tap)] if feature.thread else []
    fitting = [one for one in taps if cuts_thread(one.thread, one.pitch_mm, feature.thread, feature.d_mm)]

    def worth(one: Tap) -> tuple[bool, bool, bool, bool]:
        suits = one.form == ("through" if feature.depth_mm is None else "blind")  # where its chips go
        lead = one.lead_pitches * one.pitch_mm
        way = deep_mm if feature.thread_length_mm is None else feature.thread_length_mm + lead
        follows = way <= one.flute_length_mm or one.follows_into(feature.d_mm)
        return _full_thread(one, feature) >= TAPPED_SHARE, follows, suits, one.code in rack

    tap = max(fitting, key=worth, default=None)
    mill = None
    if feature.thread and (tap is None or not all(worth(tap)[:2])):
        mill = _thread_mill(feature, form, store, rack)
        tap = None if mill is not None else tap
    if feature.thread and tap is None and mill is None:
        return []
    wanted = feature.d_mm
    drills = [one for one in store.tools if isinstance(one, Drill)]
    sized = [
        one for one in drills if one.form in ("twist", "spade") and abs(one.d_mm - wanted) < max(SAME_MM, 0.02 * wanted)
    ]
    sized.sort(key=lambda one: (round(abs(one.d_mm - wanted) / ABOUT_MM), one.flute_length_mm))
    close = [one for one in sized if abs(one.d_mm - wanted) < abs(sized[0].d_mm - wanted) + ABOUT_MM]
    deep_mm += _past_mm(tap) if tap is not None and feature.depth_mm is None else 0.0
    close = [one for one in close if one.flute_length_mm >= deep_mm + FLUTE_PAST_D * one.d_mm] or close
    drill = _best(close, rack, lambda one: float(one.material != "high-speed steel"))
    if drill is None:
        return []
    mouth = mouth_d_mm(feature, 0.0)
    spots = sorted((one for one in drills if one.form == "spot" and one.d_mm >= mouth), key=lambda one: one.d_mm)
    found: list[tuple[Tool, str, tuple[str, ...]]] = []
    if spots:
        found.append((spots[0], f"Spot {name}", ("marks the place and breaks the edge in one go",)))
    found.append(
        (
            drill,
            f"Drill {name}",
            (said("Ø{} for Ø{}", q(drill.d_mm, "mm", "g", bare=True), q(wanted, "mm", "g", bare=True)),),
        )
    )
    if tap is not None:
        found.append((tap, f"Tap {name}", (f"cuts {feature.thread}",)))
    if mill is not None:
        why = (
            f"no tap for {feature.thread} reaches deep enough"
            if fitting
            else f"no tap for {feature.thread} is in store"
        )
        found.append((mill, f"Mill the thread of {name}", (why,)))
    return found


def _full_thread(tap: Tap, feature: HolePattern) -> float:
    """The share of a blind hole that a tap threads whole: not its lead, nor a pitch of clearance; 1 where it goes
    through."""
    if feature.thread_length_mm is not None:
        room = math.inf if feature.depth_mm is None else feature.depth_mm - feature.thread_length_mm
        return 1.0 if tap.lead_pitches * tap.pitch_mm <= room + SAME_MM else 0.0
    if feature.depth_mm is None:
        return 1.0
    return 1.0 - (tap.lead_pitches + 1.0) * tap.pitch_mm / feature.depth_mm


def _thread_mill(
    feature: HolePattern, form: ThreadForm | None, store: Catalogue, rack: Collection[str]
) -> ThreadMill | None:
    """The stoutest that cuts the thread and goes into the hole with room to go round."""
    if form is None or form.taper:
        return None
    fitting = [
        one
        for one in store.tools
        if isinstance(one, ThreadMill)
        and abs(one.profile_deg - form.flank_deg) < SAME_DEG
        and one.pitch_mm[0] - SAME_MM <= form.pitch_mm <= one.pitch_mm[1] + SAME_MM
        and one.d_mm <= MILL_SHARE * feature.d_mm
        and (form.starts == 1 or one.rows == "one")
        and (feature.depth_mm is None or one.rows == "all" or one.flute_length_mm >= feature.depth_mm)
    ]
    return _best(fitting, rack, lambda one: one.d_mm)


def _best(found: Sequence[Sized], rack: Collection[str], rank: Callable[[Sized], float]) -> Sized | None:
    """What lies in the drawer first, then the highest rank."""
    return max(found, key=lambda one: (one.code in rack, rank(one)), default=None)


def _seated(job: Job, tool: Tool, carrier: Carrier, place: Sunk, feature: Feature) -> tuple[Job, Tool | None]:
    """The tool in a free station of the carrier, driven the way the feature asks for; one that sits there serves."""
    mount = "axial" if place.along == "z" or (isinstance(feature, Flats) and carrier.y_mm == 0) else "radial"
    numbers = job.machine.stations_of(carrier)
    for one in job.tools:
        if one.name == tool.name and one.mount == mount and one.station in numbers:
            return job, one
    taken = {one.station for one in job.tools}
    free = next((number for number in numbers if number not in taken), None)
    if free is None:
        return job, None
    names = {one.id for one in job.tools}
    name = next(text for text in (f"T{free}", *(f"T{n}" for n in range(1, 1000))) if text not in names)
    seated = tool.changed(id=name, station=free, mount=mount)
    return job.changed(tools=(*job.tools, seated)), seated
