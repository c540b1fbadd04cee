"""The part of everything a line said: steps in their places, corners, threads, grooves; and what to tell of it."""

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from toreuma.core.errors import PartError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.line.attached import attached, seated
from toreuma.core.line.elements import End, elements_of
from toreuma.core.line.fault import Fault, Misread
from toreuma.core.line.feature_words import Fields, Ground, Waiting, feature_of
from toreuma.core.line.heard import Said
from toreuma.core.line.hole_features import BEHIND_PITCHES
from toreuma.core.line.knurled import parted_at_knurls
from toreuma.core.line.place import SAME_MM, Placed, placed_bore, placed_outside
from toreuma.core.line.step import Step, flipped_corners
from toreuma.core.line.tables import LineTables
from toreuma.core.model import Part
from toreuma.core.units import System

__all__ = ["part_of", "short_threads"]

SUM_MM = 0.02
"""Lengths written with four places of an inch may miss their sum by so much."""
TAPPED_MM = 8.0
"""A bore with a thread up to this size is tapped: threading bars begin above it."""


def part_of(said: Said, tables: LineTables, units: System, name: str) -> Part | None:
    """The part of everything said; None where there is no outside yet. Raises `Misread`."""
    if not said.outside:
        return None
    outside = _cornered([seated(s, "outside") for s in _tipped(said.outside)], said, "outside")
    placed = placed_outside(outside, said.length_mm)
    whole = -placed[-1].z1
    last = placed[-1].step
    if said.length_mm is not None and abs(whole - said.length_mm) > SUM_MM:
        what = f"the steps come to {_mm(whole, units)}, the length says {_mm(said.length_mm, units)}"
        raise Misread(last.start, last.end, what, "change a step, or leave one length out")
    tapped = _as_tapped(said.inside)
    if tapped is not None:
        said.features.append(tapped)
        said.inside = []
    inside = _cornered([seated(s, "inside") for s in said.inside], said, "inside")
    bore, from_back = placed_bore(inside, whole)
    through = bool(bore) and abs(bore[-1].z1 + whole) < SAME_MM
    ground = Ground(whole, lambda side, z: _d_at(placed if side == "outside" else bore, z))
    fields = [(one, waiting) for waiting in said.features for one in waiting.make(ground)]
    said.notes += [Fault(w.start, w.end, note, w.instead) for w in said.features if (note := w.note(ground))]
    said.notes += _widening(bore, from_back, units)
    features = [feature_of(one, waiting.start, waiting.end) for one, waiting in fields]
    features += attached(placed, "outside", tables, units)
    placed = parted_at_knurls(placed, [one for one, _ in fields])
    floor: End | None = None if through else "front" if from_back else "back"
    features += attached(_seen(bore, whole) if from_back else bore, "inside", tables, units, floor=floor)
    part = Part(
        name=name,
        outside=elements_of(placed, "outside"),
        inside=elements_of(_flipped(bore) if from_back else bore, "inside", through) if bore else (),
        inside_from_back=from_back,
        features=tuple(features),
        **said.general,
    )
    _check(part, placed, bore, [w for _, w in fields])
    return part


def _as_tapped(steps: list[Step]) -> Waiting | None:
    """A bore that is nothing but a small thread is a tapped hole: no bar goes into it."""
    if len(steps) != 1 or steps[0].thread is None or steps[0].thread.d_mm > TAPPED_MM or steps[0].to_mm is not None:
        return None
    step, thread = steps[0], steps[0].thread
    assert thread is not None
    if step.corners or step.relief or step.size or step.ra_um or step.deep or step.name:
        return None
    fields: Fields = {
        "kind": "axial_hole", "end": "back" if step.from_back else "front", "thread": step.thread_text,
        "d_mm": round(thread.tap_drill_mm, 4),
    }  # fmt: skip
    if step.length_mm is not None and not step.through:
        fields |= {
            "thread_length_mm": step.length_mm,
            "depth_mm": round(step.length_mm + BEHIND_PITCHES * thread.pitch_mm, 2),
        }
    return Waiting(step.start, step.end, lambda ground: [fields])


def _widening(bore: list[Placed], from_back: bool, units: System) -> Iterator[Fault]:
    """A step of the bore that is wider than the one in front of it is cut from behind: often its depth is meant."""
    for before, here in pairwise(bore if not from_back else []):
        step = here.step
        if not step.from_back and not before.step.from_back and here.d0 > before.d1 + SAME_MM and not step.through:
            what = f"Ø {_mm(here.d0, units)} lies behind Ø {_mm(before.d1, units)}"
            yield Fault(step.start, step.end, what, "if it begins at the face, write it first")


def short_threads(part: Part | None, said: Said, units: System) -> Iterator[Fault]:
    """A thread in a bore that ends at its floor: how much of it is full."""
    last = next((one for one in reversed(said.inside) if one.thread is not None and not one.from_back), None)
    if part is None or last is None or last.thread is None or last.relief is not None or last.length_mm is None:
        return
    made = next(
        (f for f in part.features if f.kind == "thread" and f.side == "inside" and f.designation == last.thread_text),
        None,
    )
    if made is not None and made.length_mm < last.length_mm - SAME_MM:
        short = _mm(last.length_mm - made.length_mm, units)
        what = f"{last.thread_text}: {_mm(made.length_mm, units)} of full thread, its run-out takes {short}"
        cure = f"for all of it full, type hole {last.thread_text} x {_mm(last.length_mm, units)}"
        yield Fault(last.start, last.end, what, cure)


def _d_at(placed: list[Placed], z: float) -> float:
    """Diameter of a side at a Z, mm; that of the nearest step beyond its ends."""
    one = next((p for p in placed if p.z0 + SAME_MM >= z > p.z1 + SAME_MM), placed[-1] if placed else None)
    if one is None:
        return 0.0
    share = (one.z0 - z) / (one.z0 - one.z1) if one.z0 > one.z1 else 1.0
    return one.d0 + min(max(share, 0.0), 1.0) * (one.d1 - one.d0)


def _seen(bore: list[Placed], whole: float) -> list[Placed]:
    """A bore that is read from the back as it lies seen from the front."""
    return [Placed(p.step, round(-whole - p.z1, 9), p.d1, round(-whole - p.z0, 9), p.d0) for p in reversed(bore)]


def _flipped(bore: list[Placed]) -> list[Placed]:
    """A bore read from the back: what is said of front and back changes places."""
    return [replace(p, step=replace(p.step, corners=flipped_corners(p.step))) for p in bore]


def _mm(value: float, units: System) -> str:
    return f"{value / 25.4:.4g} in" if units == "inch" else f"{value:g} mm"


def _cornered(steps: list[Step], said: Said, side: str) -> list[Step]:
    """Steps with the corners that were said between them: a chamfer goes to the outer edge there, a round to the inner
    corner; before the first step and behind the last there is only the edge."""
    found = list(steps)
    for mode, index, corner in said.loose:
        if mode != side or not found:
            continue
        if index == 0 or index >= len(found):
            at, end = (0, "front") if index == 0 else (len(found) - 1, "back")
        else:
            before, after = found[index - 1], found[index]
            ends_at = before.d1 if before.d1 is not None else before.d0
            begins_at = after.d0 if after.d0 is not None else ends_at
            rises = ((begins_at or 0.0) > (ends_at or 0.0)) == (side == "outside")
            at, end = (index - 1, "back") if rises == (corner.kind == "round") else (index, "front")
        mine = replace(corner, where=corner.where or end)  # type: ignore[arg-type]
        found[at] = replace(found[at], corners=(*found[at].corners, mine))
    return found


def _tipped(steps: list[Step]) -> list[Step]:
    """A rounded tip as the arc it is, tangent to the cone behind it; a ball goes on past its middle to the neck."""
    found = list(steps)
    for index, step in enumerate(found):
        if step.tip_mm is None:
            continue
        if index:
            raise Misread(step.start, step.end, "a tip stands at the front", "begin the line with it")
        behind = found[1] if len(found) > 1 else None
        slope = step.slope if step.slope is not None else behind.slope if behind is not None else None
        half = math.atan(slope if slope is not None else math.inf)
        if half <= 0:
            raise Misread(step.start, step.end, "a tip needs a cone that widens behind it", "type > 14 included 50")
        r = step.tip_mm
        neck = behind.d0 if step.ball and behind is not None else None
        if slope is not None:
            end_d, length = 2 * r * math.cos(half), r * (1 - math.sin(half))
        elif neck is not None and 0 < neck < 2 * r:
            end_d, length = neck, r + math.sqrt(r**2 - neck**2 / 4)
        else:
            end_d, length = 2 * r, r
        found[index] = replace(
            step, d0=0.0, d1=round(end_d, 6), length_mm=round(length, 6), slope=None, radius_mm=r, tip_mm=None
        )
    return found


def _check(part: Part, outside: list[Placed], inside: list[Placed], waiting: list[Waiting]) -> None:
    """A part that cannot be built is a fault of the piece it comes from. Raises `Misread`."""
    try:
        build_part(part)
    except PartError as error:
        span = _span(error, part, outside, inside, waiting)
        raise Misread(*span, error.what, error.cure) from None


def _span(
    error: PartError, part: Part, outside: list[Placed], inside: list[Placed], waiting: list[Waiting]
) -> tuple[int, int]:
    if error.section == "features" and 0 <= error.element < len(waiting):
        return waiting[error.element].start, waiting[error.element].end
    placed, elements = (inside, part.inside) if error.section == "inside" else (outside, part.outside)
    if 0 <= error.element < len(elements):
        z = elements[error.element].z_mm
        step = next((p.step for p in placed if p.z0 + SAME_MM >= z >= p.z1 - SAME_MM), placed[-1].step)
        return step.start, step.end
    return placed[0].step.start, placed[-1].step.end
