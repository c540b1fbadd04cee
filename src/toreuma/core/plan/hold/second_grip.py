"""Whether the surface chosen for the second side can be gripped, and what the first side must turn for it."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.of_bar import is_of_bar
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import Chuck, Collet, FinishOd, Hold, Job, Operation, Part, SecondHold, TurningTool
from toreuma.core.model.feature import Feature, Flats, Groove, Relief, Slot
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["SecondGrip", "free_stretches", "lies_between_jaws", "passed_d_mm", "second_grip"]

LEAST_WALL_SHARE = 0.12
"""Wall over diameter below which a grip presses the piece out of round."""

BORNE_SHARE, BORNE_AT_BOTH_ENDS = 0.6, 0.3
"""Jaws lie over what is only missing, where so much of their length sits on the surface; less is enough where it is
that at both their ends."""
LAND_MM = 1.0
BROKEN_MM = 2.5
"""An edge may be broken so far over the flats."""
TOUCH_MM = 1e-6

KEYWAY_SHARE = 0.35
"""A keyway is so much of a shaft's diameter wide at most (DIN 6885: 8 in 22 and over); three jaws sit beside it."""

Span = tuple[float, float]


@dataclass(frozen=True, kw_only=True)
class SecondGrip:
    """The chosen surface from ``front_z`` to ``back_z`` on ``d_mm``, ``gripped`` of it (from, to along Z), with what is
    read about it and its findings."""

    front_z: float
    back_z: float
    gripped: Span = (0.0, 0.0)
    d_mm: float
    reasons: tuple[Evidence, ...]
    findings: tuple[Finding, ...]


def second_grip(job: Job, scene: Scene) -> SecondGrip | None:
    """Check the surface of ``job.second_hold``; None when no second hold is wanted."""
    wanted = job.second_hold
    if wanted is None:
        return None
    span = _cylinder(scene, wanted.element)
    if span is None:
        return SecondGrip(front_z=0, back_z=0, d_mm=0, reasons=(), findings=(_not_round(job, scene),))
    front, back, d = span
    length = front - back
    wall = _wall(scene, front, back, d / 2)
    reasons = (
        Evidence("grip on diameter", "dg", d, "mm", formula="the chosen surface"),
        Evidence(
            "surface there is",
            "l",
            length,
            "mm",
            formula="length of the cylinder",
            inputs=(
                Input("begins behind its front edge", "", wanted.begins_mm, "mm"),
                Input("grip wanted", "lg", wanted.grip_length_mm, "mm"),
                Input("kept free", "", wanted.clearance_mm, "mm"),
            ),
        ),
        Evidence("wall behind it", "t", wall, "mm", formula="thinnest metal under the grip", measured_on="on radius"),
    )
    return SecondGrip(
        front_z=front,
        back_z=back,
        gripped=(front - wanted.begins_mm, max(front - wanted.begins_mm - wanted.grip_length_mm, back)),
        d_mm=d,
        reasons=reasons,
        findings=tuple(_findings(job, scene, wanted, front, back, d, wall)),
    )


def _cylinder(scene: Scene, element: int) -> tuple[float, float, float] | None:
    """Front, back and diameter of an outside element that is a cylinder."""
    profile = scene.profile
    for index in profile.segments_of(element):
        segment = profile.segments[index]
        level = isinstance(segment, Line) and abs(segment.start[1] - segment.end[1]) < TOUCH_MM
        if level and not profile.corners[index] and segment.length > TOUCH_MM:
            return segment.start[0], segment.end[0], 2 * segment.start[1]
    return None


def _not_round(job: Job, scene: Scene) -> Finding:
    """The longest cylinder is the cure."""
    spans = [(index, _cylinder(scene, index)) for index in range(len(job.part.outside))]
    best = max(((i, s[0] - s[1]) for i, s in spans if s), key=lambda pair: pair[1], default=None)
    cures: tuple[Cure, ...] = ()
    if best is not None:
        name = job.part.outside[best[0]].name or f"element {best[0] + 1}"
        cures = (Cure(f"Grip {name}", lambda j: _second(j, element=best[0])),)
    return Finding("error", "second.shape", "this surface is no cylinder", "jaws need one to sit on", cures=cures)


def _wall(scene: Scene, front: float, back: float, r: float) -> float:
    """Thinnest metal under a stretch, mm on radius: the uppermost piece of each column, grooves in it left out."""
    walls = []
    for z in np.linspace(back, front, 35)[1:-1]:
        column = shapely.intersection(scene.part, shapely.LineString([(z, 0.0), (z, r + 1.0)]))
        top = max((part.bounds for part in shapely.get_parts(column)), key=lambda b: b[3], default=None)
        if top is not None and top[3] > r - TOUCH_MM * 10:
            walls.append(top[3] - top[1])
    return float(min(walls, default=0.0))


def _findings(
    job: Job, scene: Scene, wanted: SecondHold, front: float, back: float, d: float, wall: float
) -> Iterable[Finding]:
    reach = max(back, scene.clear_z)  # what the first hold covers is not there to grip
    place, need = ((front + reach) / 2, d / 2), wanted.grip_length_mm + wanted.clearance_mm
    begins, blocked = front - wanted.begins_mm, _blocked(job, front, reach)
    under = [one for one in blocked if _overlaps(one.span, begins, begins - wanted.grip_length_mm)]
    free = _free_from(begins, reach, [one.span for one in under if not one.is_gap])
    borne = wanted.grip_length_mm - sum(min(one.span[0], begins) - one.span[1] for one in under)
    ends = begins - wanted.grip_length_mm
    between = all(one.span[0] < begins - LAND_MM and one.span[1] > ends + LAND_MM for one in under)
    if borne < (BORNE_AT_BOTH_ENDS if between else BORNE_SHARE) * wanted.grip_length_mm:
        free = min(free, max(borne, 0.0))
    if free < need - TOUCH_MM:
        cures = tuple(_elsewhere(front, reach, [one.span for one in blocked], wanted))
        words = ", ".join(dict.fromkeys(one.word for one in under))
        blocked = under
        yield Finding(
            "error",
            "second.disturbed" if blocked else "second.short",
            said("{} of the surface stand free to grip, the second hold needs {}", q(max(free, 0.0)), q(need)),
            f"{words} lies on it"
            if blocked
            else "the jaws would sit on the next shoulder or on what is not turned yet",
            at=place,
            cures=cures,
        )
    if wanted.range_mm is not None and not wanted.range_mm[0] <= d <= wanted.range_mm[1]:
        low, high = wanted.range_mm
        yield Finding(
            "error",
            "second.range",
            said(
                "the jaws take Ø {} to {}, the surface is Ø {}",
                q(low, "mm", "g", bare=True),
                q(high, "mm", "g"),
                q(d, "mm", "g"),
            ),
            "use other jaws or another surface",
            at=place,
        )
    if any(
        lies_between_jaws(one, job.part) and _overlaps((one.from_z_mm, one.to_z_mm), front, reach)  # type: ignore[union-attr]
        for one in job.part.features
    ):
        yield Finding(
            "note",
            "second.keyway",
            "a keyway runs under the second grip",
            "set it between two jaws, so that no jaw sits on its edge",
            at=place,
        )
    if wall < LEAST_WALL_SHARE * d:
        yield Finding(
            "warning",
            "second.thin",
            said("the wall under the grip is {} thick", q(wall)),
            "jaws press a thin ring out of round: bore soft jaws to the diameter, or use a mandrel",
            at=place,
        )
    yield from _goes_in(job, scene, begins, d, place)
    gripped = max(reach, begins - wanted.grip_length_mm)
    yield from _finished(job, begins, gripped, place)


def passed_d_mm(hold: Hold, d_mm: float) -> float | None:
    """The widest head that goes past jaws which then close on ``d_mm``; None where they open as far as wanted."""
    opens = hold.opens_mm if isinstance(hold, Chuck | Collet) else None
    return None if opens is None else d_mm + opens


def _goes_in(job: Job, scene: Scene, begins: float, d: float, place: tuple[float, float]) -> Iterable[Finding]:
    """What lies deeper in the hold than the grip has to pass its jaws."""
    held = job.setups[1].hold if len(job.setups) > 1 else job.setup.hold
    passes = passed_d_mm(held, d)
    segments = scene.profile.segments[: scene.profile.outside_end]
    head = 2 * max((one.start[1] for one in segments if one.start[0] > begins + TOUCH_MM), default=0.0)
    if passes is not None and head > passes + TOUCH_MM:
        yield Finding(
            "warning",
            "second.head",
            said(
                "Ø {} lies in front of the grip, jaws that close on Ø {} open to Ø {}",
                q(head, "mm", "g", bare=True),
                q(d, "mm", "g", bare=True),
                q(passes, "mm", "g"),
            ),
            "grip another surface, or lay a split bush between; jaws moved by hand open farther",
            at=place,
        )


@dataclass(frozen=True)
class _Blocked:
    """What lies where jaws would sit, (high, low) along Z; ``is_gap``: there is only nothing to sit on."""

    word: str
    span: Span
    is_gap: bool


def _blocked(job: Job, front: float, back: float) -> list[_Blocked]:
    """What lies in a stretch of the outside."""
    found = []
    for feature in job.part.features:
        lies = FEATURES[feature.kind].on_outside(feature)
        if lies is None or (isinstance(feature, Flats) and _fits_collet(job, feature)):
            continue
        if lies_between_jaws(feature, job.part):
            continue
        word, high, low = lies
        if _overlaps((high, low), front, back):
            found.append(_Blocked(word, (high, low), isinstance(feature, Groove | Relief)))
    return found


def _overlaps(span: Span, front: float, back: float) -> bool:
    return span[1] < front - TOUCH_MM and span[0] > back + TOUCH_MM


def lies_between_jaws(feature: Feature, part: Part) -> bool:
    """A keyway so narrow that three jaws sit beside it."""
    if not isinstance(feature, Slot) or feature.on != "outside" or feature.count != 1:
        return False
    across = (one for one in part.outside if one.z_mm <= feature.from_z_mm + TOUCH_MM)
    d = next((one.d_mm for one in across if one.d_mm > 0), 0.0)
    return feature.width_mm < KEYWAY_SHARE * d


def _fits_collet(job: Job, flats: Flats) -> bool:
    """The flats are those of the bar itself, and the collet has its shape, or three jaws find three of them."""
    hold = job.setup.hold
    return is_of_bar(job.stock, flats) and (hold.kind == "collet" or (hold.kind == "chuck" and flats.count % 3 == 0))


def _free_from(at: float, back: float, blocked: list[Span]) -> float:
    """Length of surface from a place on that nothing lies on."""
    highs = [min(high, at) for high, low in blocked if low < at - TOUCH_MM]
    return at - max([*highs, back])


def free_stretches(front: float, back: float, blocked: Iterable[Span]) -> list[Span]:
    """Stretches (high, low) of a surface that nothing lies on, front to back."""
    at, found = front, []
    for high, low in sorted((one for one in blocked if _overlaps(one, front, back)), reverse=True):
        if high < at - TOUCH_MM:
            found.append((at, high))
        at = min(at, low)
    if at > back + TOUCH_MM:
        found.append((at, back))
    return found


def _elsewhere(front: float, back: float, blocked: list[Span], wanted: SecondHold) -> Iterable[Cure]:
    """The longest free stretch, gripped as far as there is room."""
    high, low = max(free_stretches(front, back, blocked), key=lambda one: one[0] - one[1], default=(front, front))
    grip = min(wanted.grip_length_mm, round(high - low - wanted.clearance_mm, 2))
    begins = round(front - high, 3)
    if grip <= 1:
        return
    words = said("Grip {}", q(grip, "mm", "g"))
    if begins > 0:
        words = said("{}, {} behind the front edge", words, q(begins, "mm", "g"))
    yield Cure(words, lambda job: _second(job, grip_length_mm=grip, begins_mm=begins))


def _is_drawn(job: Job, front: float, back: float) -> bool:
    """The surface is the bar's own: drawn flats that nothing turns."""
    lies = (
        FEATURES[one.kind].on_outside(one)
        for one in job.part.features
        if isinstance(one, Flats) and is_of_bar(job.stock, one)
    )
    return any(one is not None and one[1] >= front - BROKEN_MM and one[2] <= back + BROKEN_MM for one in lies)


def _finished(job: Job, front: float, back: float, place: tuple[float, float]) -> Iterable[Finding]:
    """Whether a finishing cut of the first side covers the surface; the cure lengthens it."""
    cuts = [op for op in job.operations if op.kind == "finish_od" and op.enabled]
    if any(_covers(op, front, back) for op in cuts) or _is_drawn(job, front, back):
        return
    if not cuts:
        yield Finding(
            "error" if job.operations else "note",
            "second.rough",
            "the surface is not finished on the first side",
            said(
                "the second hold sits on Z {} to {}: add a finishing cut that covers it",
                q(front, "mm", "g", bare=True),
                q(back, "mm", "g", bare=True),
            ),
            at=place,
            cures=_finish_first(job, back),
        )
        return
    last = cuts[-1]

    def extend(job: Job) -> Job:
        return job.with_operation(
            last.id,
            lambda op: op.changed(
                to_z_mm=None if op.to_z_mm is None else min(op.to_z_mm, back),  # type: ignore[union-attr]
                from_z_mm=None if op.from_z_mm is None else max(op.from_z_mm, front),  # type: ignore[union-attr]
            ),
        )

    yield Finding(
        "error",
        "second.rough",
        f"'{last.name or last.id}' ends before the surface does",
        said("the second hold sits on Z {} to {}", q(front, "mm", "g", bare=True), q(back, "mm", "g", bare=True)),
        operation=last.id,
        at=place,
        cures=(Cure(said("Finish on to Z {}", q(back, "mm", "g", bare=True)), extend),),
    )


def _finish_first(job: Job, back: float) -> tuple[Cure, ...]:
    """A finishing cut up to ``back`` with a turning tool of the job, before the part comes off."""
    tool = next((t for t in reversed(job.tools) if isinstance(t, TurningTool) and t.hand == "right"), None)
    if tool is None:
        return ()

    def apply(job: Job) -> Job:
        cut = FinishOd(id=job.free_operation_id(), name="Finish for the second hold", tool=tool.id, to_z_mm=back)
        kept = job.operations
        at = next((i for i, op in enumerate(kept) if op.kind == "part_off"), len(kept))
        return job.with_setup(operations=(*kept[:at], cut, *kept[at:]))

    return (Cure(said("Finish to Z {} with {}", q(back, "mm", "g", bare=True), tool.id), apply),)


def _covers(operation: Operation, front: float, back: float) -> bool:
    to_z, from_z = getattr(operation, "to_z_mm", None), getattr(operation, "from_z_mm", None)
    return (to_z is None or to_z <= back + TOUCH_MM) and (from_z is None or from_z >= front - TOUCH_MM)


def _second(job: Job, **changes: object) -> Job:
    return job.changed(second_hold=job.second_hold.changed(**changes)) if job.second_hold else job
