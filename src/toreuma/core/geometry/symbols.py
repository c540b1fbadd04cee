"""What a section drawing shows of features that leave the turned outline as it is (ISO 128, ISO 6410)."""

from dataclasses import dataclass
from typing import Literal

import shapely

from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.model.feature import Flats, HolePattern, Knurl, Slot, ThreadFeature
from toreuma.core.model.part import Part
from toreuma.core.standards.knurls import pressed_mm
from toreuma.core.standards.threads import Thread

__all__ = ["Symbol", "symbols_of"]

Place = tuple[float, float]


@dataclass(frozen=True)
class Symbol:
    """One line of a drawing: ``thin`` for thread roots and crossed flats, ``edge`` for what is cut, ``centre`` for
    the middle of holes. ``feature`` is the index of the feature it belongs to, ``milled`` whether a driven tool cuts
    it."""

    feature: int
    style: Literal["thin", "edge", "centre"]
    points: tuple[Place, ...]
    milled: bool = False


def symbols_of(part: Part, shape: PartShape, threads: dict[str, Thread]) -> list[Symbol]:
    """Lines for every thread, hole pattern, flat and slot; ``threads`` maps designations that are known."""
    found: list[Symbol] = []
    outside = upper_envelope(shape.region, shape.profile.front_z, shape.profile.back_z)
    for index, feature in enumerate(part.features):
        if isinstance(feature, ThreadFeature):
            thread = threads.get(feature.designation)
            if thread is not None:
                found += _thread(index, feature, thread)
        elif isinstance(feature, Knurl):
            found += _knurl(index, feature, shape)
        elif isinstance(feature, HolePattern):
            found += _holes(index, feature, shape, outside.height(feature.z_mm))
        elif isinstance(feature, Flats):
            found += _flats(index, feature, shape, outside.highest(feature.from_z_mm, feature.to_z_mm))
        elif isinstance(feature, Slot):
            found += _slot(index, feature, shape, outside.highest(feature.from_z_mm, feature.to_z_mm))
    return found


def _thread(index: int, feature: ThreadFeature, thread: Thread) -> list[Symbol]:
    """A thin line at the root, closed where the full thread ends."""
    side = thread.external.minor if feature.side == "outside" else thread.internal.major
    crest = thread.external.major if feature.side == "outside" else thread.internal.minor
    root, z0, z1 = side.min / 2, feature.from_z_mm, feature.from_z_mm - feature.length_mm
    return [
        Symbol(index, "thin", ((z0, root), (z1, root))),
        Symbol(index, "edge", ((z1, root), (z1, crest.middle / 2))),
    ]


def _knurl(index: int, feature: Knurl, shape: PartShape) -> list[Symbol]:
    """A line over the ridges, closed at both ends, and one at their roots, as for a thread."""
    z0, z1 = feature.from_z_mm, feature.from_z_mm - feature.length_mm
    ring = shapely.clip_by_rect(shape.ridges, z1, 0, z0, 1e4)
    if ring.is_empty:
        return []
    low, high = float(ring.bounds[1]), float(ring.bounds[3])
    root = low - pressed_mm(feature.form, feature.pitch_mm)
    return [
        Symbol(index, "edge", ((z0, low), (z0, high), (z1, high), (z1, low))),
        Symbol(index, "thin", ((z0, root), (z1, root))),
    ]


def _holes(index: int, holes: HolePattern, shape: PartShape, surface: float) -> list[Symbol]:
    half = holes.d_mm / 2
    if holes.on == "outside":
        bottom = surface - holes.depth_mm if holes.depth_mm is not None else 0.0
        z0, z1 = holes.z_mm - half, holes.z_mm + half
        box = ((z0, surface), (z0, bottom), (z1, bottom), (z1, surface))
        return [
            Symbol(index, "edge", box, True),
            Symbol(index, "centre", ((holes.z_mm, surface + 2), (holes.z_mm, max(bottom - 2, 0.0)))),
        ]
    back = shape.profile.back_z
    face = holes.z_mm if holes.z_mm else (0.0 if holes.on == "front" else back)
    into = -1.0 if holes.on == "front" else 1.0
    end = face + into * holes.depth_mm if holes.depth_mm is not None else (back if holes.on == "front" else 0.0)
    r = holes.circle_d_mm / 2
    box = ((face, r + half), (end, r + half), (end, r - half), (face, r - half))
    return [Symbol(index, "edge", box, True), Symbol(index, "centre", ((face - into * 2, r), (end + into * 2, r)))]


def _flats(index: int, flats: Flats, shape: PartShape, surface: float) -> list[Symbol]:
    """The flat seen from the side: its outline, crossed by thin lines."""
    z0, z1, low = flats.from_z_mm, flats.to_z_mm, flats.distance_mm
    if z0 <= z1:
        return []  # half typed: it has no length yet
    held = shapely.clip_by_rect(shape.void, z1, 0, z0, 1e5) if shape.void is not None else None
    inner = float(held.bounds[3]) if held is not None and not held.is_empty else 0.0
    return [
        Symbol(index, "edge", ((z0, surface), (z0, low), (z1, low), (z1, surface)), True),
        Symbol(index, "thin", ((z0, low), (z1, inner))),
        Symbol(index, "thin", ((z0, inner), (z1, low))),
    ]


def _slot(index: int, slot: Slot, shape: PartShape, surface: float) -> list[Symbol]:
    if slot.on in ("front", "back"):
        face = 0.0 if slot.on == "front" else shape.profile.back_z
        floor = face - slot.depth_mm if slot.on == "front" else face + slot.depth_mm
        reach = slot.off_mm + slot.length_mm / 2 if slot.length_mm else surface
        near = max(slot.off_mm - slot.length_mm / 2, 0.0) if slot.length_mm else 0.0
        return [Symbol(index, "edge", ((face, reach), (floor, reach), (floor, near), (face, near)), True)]
    base = surface
    if slot.on == "inside":
        base = float(shape.void.bounds[3]) if shape.void is not None else 0.0
    floor = base - slot.depth_mm if slot.on == "outside" else base + slot.depth_mm
    z0, z1 = slot.from_z_mm, slot.to_z_mm
    return [Symbol(index, "edge", ((z0, base), (z0, floor), (z1, floor), (z1, base)), True)]
