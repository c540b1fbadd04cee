"""The inspection list of a part: every size, length, thread, feature and finish of its drawing, in its order."""

import math
from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from toreuma.core.geometry.chain import Chain
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.profile import Profile
from toreuma.core.measure.characteristic import Characteristic
from toreuma.core.measure.features import of_feature
from toreuma.core.measure.gauges import SELDOM, gauge_for, how_often
from toreuma.core.model import Part
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.part import Element, limits_turned
from toreuma.core.spoken import q, said
from toreuma.core.standards.gauges import GaugeTables
from toreuma.core.standards.general import GeneralTables, general_tolerance_mm
from toreuma.core.standards.threads import Thread

__all__ = ["Standards", "characteristics_of"]

SAME_MM, LONG_MM, CREST_MM = 1e-6, 0.05, 0.002


@dataclass(frozen=True, kw_only=True)
class Standards:
    """What limits are looked up in: threads of the part by designation, general tolerances, means of measuring."""

    threads: Mapping[str, Thread]
    general: GeneralTables
    gauges: GaugeTables


def characteristics_of(part: Part, standards: Standards) -> tuple[Characteristic, ...]:
    """Everything of a drawing that is measured, numbered in its order. Raises `PartError` for a part that cannot be."""
    shape = build_part(part)
    found = [
        *_lengths(part, shape),
        *_chain(part, shape.profile, part.outside, "outside", standards.threads),
        *_bore(part, shape, standards.threads),
        *_features(part, shape, standards.threads),
        *_edges(part),
        *_finish(part, shape),
    ]  # fmt: skip
    limited = (_with_general(one, part, standards.general) for one in found)
    return tuple(
        replace(_with_means(one, standards.gauges), number=number) for number, one in enumerate(limited, start=1)
    )


def _features(part: Part, shape: PartShape, threads: Mapping[str, Thread]) -> Iterator[Characteristic]:
    for index, feature in enumerate(part.features):
        yield from of_feature(index, feature, shape, threads)


def _with_general(one: Characteristic, part: Part, tables: GeneralTables) -> Characteristic:
    """The limits of the general tolerance, where the drawing has one and the size none of its own."""
    plain = one.quantity in ("diameter", "length", "depth", "width") and one.lower is None and one.upper is None
    if not plain or one.nominal is None or not part.general_tolerance or one.note:
        return one
    width = general_tolerance_mm(one.nominal, part.general_tolerance, tables)
    if width is None:
        return one
    words = f"ISO 2768-{part.general_tolerance}"
    low, high = round(one.nominal - width, 6), round(one.nominal + width, 6)
    return replace(one, lower=low, upper=high, from_where=words)


def _with_means(one: Characteristic, tables: GaugeTables) -> Characteristic:
    """By what it is measured, how well that tells, and when."""
    if one.quantity == "edge":
        return replace(one, means=one.means or "look, chamfer gauge", often=SELDOM)
    if one.quantity == "gauge":
        return replace(one, often="every 10th part, new edge")
    gauge, fine = gauge_for(one.quantity, one.side, one.nominal or 0.0, one.tolerance, tables)
    often = how_often(one.nominal or 0.0, one.tolerance) if one.quantity != "finish" else "every 25th part"
    if gauge is None:
        return replace(one, means="no means listed for this size", often=often)
    means = said("{}, {}", gauge.name, one.means) if one.means else gauge.name
    if not fine:
        means = said("{}; coarser than a fifth of the tolerance", means)
    return replace(one, means=means, uncertainty_um=gauge.uncertainty_um, often=often)


def _lengths(part: Part, shape: PartShape) -> Iterator[Characteristic]:
    """Overall length, and every shoulder of the outside from the front face."""
    back = shape.profile.back_z
    yield _length("length overall", "front face to the back face", (0.0, back), (back, 0.0), "outside back")
    known = {0.0, round(back, 6)}
    for element, index, at in _shoulders(shape.profile, part.outside):
        z = round(at[0], 6)
        if z not in known:
            known.add(z)
            words = element.name or said("front face to the shoulder up to Ø {}", q(element.d_mm, "mm", "g", bare=True))
            yield _length(f"shoulder {index}", words, (0.0, z), at, f"outside {index}")


def _length(key: str, what: str, ends: tuple[float, float], at: tuple[float, float], row: str) -> Characteristic:
    size = round(abs(ends[1] - ends[0]), 6)
    return Characteristic(
        key=key, row=row, number=0, what=what, quantity="length", side="outside", nominal=size, at=at, ends_z=ends
    )


def _shoulders(
    chain: Chain | Profile, elements: tuple[Element, ...]
) -> Iterator[tuple[Element, int, tuple[float, float]]]:
    """Faces square to the axis between two diameters."""
    for segment, index, corner in zip(chain.segments, chain.elements, chain.corners, strict=True):
        if corner or index >= len(elements) or not isinstance(segment, Line):
            continue
        if abs(segment.start[0] - segment.end[0]) < SAME_MM and segment.length > LONG_MM:
            yield elements[index], index, segment.at(0.5)


def _chain(
    part: Part, chain: Chain | Profile, elements: tuple[Element, ...], side: str, threads: Mapping[str, Thread]
) -> Iterator[Characteristic]:
    features = [f for f in part.features if isinstance(f, ThreadFeature) and f.side == side]
    for segment, index, corner in zip(chain.segments, chain.elements, chain.corners, strict=True):
        if corner or index >= len(elements) or segment.length < LONG_MM or not isinstance(segment, Line):
            continue
        element, row = elements[index], f"{side} {index}"
        if abs(segment.start[1] - segment.end[1]) < SAME_MM and segment.start[1] > SAME_MM:
            if not _is_thread(features, threads, segment, element):
                yield _diameter(element, row, side, segment)
        elif abs(segment.start[0] - segment.end[0]) > SAME_MM and abs(segment.start[1] - segment.end[1]) > SAME_MM:
            begins = (elements[index - 1].z_mm, elements[index - 1].d_mm) if index else (0.0, 0.0)
            yield _cone(element, begins, row, side, segment)


def _is_thread(
    features: list[ThreadFeature], threads: Mapping[str, Thread], segment: Segment, element: Element
) -> bool:
    """The cylinder carries a thread and has no limits but those of its crest, which is measured with the thread."""
    z0, z1 = sorted((segment.start[0], segment.end[0]))
    for feature in features:
        if min(z1, feature.from_z_mm) - max(z0, feature.from_z_mm - feature.length_mm) < LONG_MM:
            continue
        known = threads.get(feature.designation)
        if element.size is None or known is None:
            return True
        crest = known.external.major if feature.side == "outside" else known.internal.minor
        low, high = limits_of(element)
        if crest.min - CREST_MM <= low and high <= crest.max + CREST_MM:
            return True
    return False


def limits_of(element: Element) -> tuple[float, float]:
    """Limits of a cylinder's diameter, mm; its size where it has none."""
    lower, upper = (element.size.lower_um, element.size.upper_um) if element.size is not None else (0.0, 0.0)
    return round(element.d_mm + lower / 1000, 6), round(element.d_mm + upper / 1000, 6)


def _diameter(element: Element, row: str, side: str, segment: Segment) -> Characteristic:
    d = element.d_mm
    low, high = limits_turned(element, side) or (None, None)
    if low is not None and high is not None:
        low, high = round(low, 6), round(high, 6)
        d = d if element.grind_mm is None else round((low + high) / 2, 6)
    words = "outside" if side == "outside" else "bore"
    what = (
        said("{}, Ø {}", element.name, q(d, "mm", "g", bare=True))
        if element.name
        else said("{} Ø {}", words, q(d, "mm", "g", bare=True))
    )
    return Characteristic(
        key=f"{row} d",
        row=row,
        number=0,
        what=what,
        quantity="diameter",
        side=side,
        nominal=d,
        lower=low,
        upper=high,
        at=segment.at(0.5),
        ends_z=(segment.start[0], segment.end[0]),
        from_where=_from_where(element),
    )


def _from_where(element: Element) -> str:
    """Where the limits come from."""
    size = element.size
    if element.grind_mm is not None:
        return said("before grinding to {}", size.fit if size is not None and size.fit else "size")
    return "" if size is None else (size.fit or "as typed")


def _cone(element: Element, begins: tuple[float, float], row: str, side: str, segment: Segment) -> Characteristic:
    """The angle between a cone's side and the axis, as it is drawn from where it ``begins`` (z, d)."""
    dz, dr = abs(element.z_mm - begins[0]), abs(element.d_mm - begins[1]) / 2
    ends = [begins[1], element.d_mm]
    name = element.name or ("cone" if side == "outside" else "cone in the bore")
    what = said("{}, Ø {} to Ø {}, to the axis", name, *(q(one, "mm", ".4g", bare=True) for one in ends))
    angle = math.degrees(math.atan2(dr, dz))
    return Characteristic(
        key=f"{row} angle", row=row, number=0, what=what, quantity="angle", side=side, nominal=angle,
        at=segment.at(0.5), ends_z=(segment.start[0], segment.end[0]),
    )  # fmt: skip


def _bore(part: Part, shape: PartShape, threads: Mapping[str, Thread]) -> Iterator[Characteristic]:
    """Diameters and depths of the bore; one that is read from the back is told in places of the drawing."""
    chain, back = _bore_chain(part, shape)
    if chain is None:
        return
    elements = part.inside
    found = [*_chain(part, chain, elements, "inside", threads)]
    through = elements[-1].z_mm < shape.profile.back_z + SAME_MM
    for element, index, at in _shoulders(chain, elements):
        if at[0] < -SAME_MM and not (through and at[0] < shape.profile.back_z + LONG_MM):
            words = element.name or said("depth in the bore to the face at Ø {}", q(element.d_mm, "mm", "g", bare=True))
            found.append(_depth(f"depth {index}", f"inside {index}", words, at))
    last = elements[-1]
    if not through and last.d_mm > 0 and not any(one.nominal == round(abs(last.z_mm), 6) for one in found):
        at = (last.z_mm, last.d_mm / 4)
        found.append(_depth("depth bottom", f"inside {len(elements) - 1}", "depth of the bore", at))
    yield from found if back is None else (_turned(one, back) for one in found)


def _depth(key: str, row: str, words: str, at: tuple[float, float]) -> Characteristic:
    z = round(at[0], 6)
    return Characteristic(
        key=key, row=row, number=0, what=words, quantity="depth", side="inside", nominal=abs(z), at=at, ends_z=(0.0, z)
    )


def _bore_chain(part: Part, shape: PartShape) -> tuple[Chain | None, float | None]:
    """The inside profile, and the Z of the back face where it is read from there."""
    if not part.inside or not part.inside_from_back:
        return shape.bore, None
    back, widest = shape.profile.back_z, 2 * shape.profile.largest_r
    outside = (Element(z_mm=0.0, d_mm=widest), Element(z_mm=back, d_mm=widest))
    turned = part.changed(outside=outside, inside_from_back=False, features=(), edge_break_mm=0.0)
    return build_part(turned).bore, back


def _turned(one: Characteristic, back: float) -> Characteristic:
    ends = one.ends_z and (back - one.ends_z[0], back - one.ends_z[1])
    return replace(one, at=(back - one.at[0], one.at[1]), ends_z=ends, row="bore")


def _edges(part: Part) -> Iterator[Characteristic]:
    """Chamfers and rounds, alike ones together, and the edges that are broken without being drawn."""
    counted: Counter[tuple[str, float]] = Counter()
    first: dict[tuple[str, float], tuple[str, Any]] = {}
    for side, elements in (("outside", part.outside), ("inside", part.inside)):
        for index, element in enumerate(elements):
            if element.corner is not None:
                kind = (element.corner.kind, element.corner.size_mm)
                counted[kind] += 1
                first.setdefault(kind, (f"{side} {index} corner", (element.z_mm, element.d_mm / 2)))
    for key, count in counted.items():
        (word, size), (row, at) = key, first[key]
        what = said("chamfer {}" if word == "chamfer" else "round R {}", q(size, "mm", "g", bare=True))
        yield Characteristic(
            key=f"{word} {size:g}", row=row, number=0, what=what if count == 1 else said("{}, {} times", what, count),
            quantity="edge", side=row.partition(" ")[0], nominal=size, at=at,
        )  # fmt: skip
    if part.edge_break_mm > 0:
        yield Characteristic(
            key="edges", row="", number=0, what="all other sharp edges broken", quantity="edge", side="outside",
            nominal=part.edge_break_mm,
        )  # fmt: skip


def _finish(part: Part, shape: PartShape) -> Iterator[Characteristic]:
    """Roughness of marked surfaces, and of all others where the drawing gives it."""
    for side, elements, chain in (("outside", part.outside, shape.profile), ("inside", part.inside, shape.bore)):
        for index, element in enumerate(elements):
            if element.ra_um is None:
                continue
            at = _place(chain, index) or (element.z_mm, element.d_mm / 2)
            what = (
                said("Ra on {}", element.name)
                if element.name
                else said("Ra on Ø {}", q(element.d_mm, "mm", "g", bare=True))
            )
            yield _ra(f"{side} {index}", what, element.ra_um, at, side)
    if part.ra_um is not None:
        yield _ra("all", "Ra on all other turned surfaces", part.ra_um, (0.0, 0.0), "outside")


def _ra(row: str, what: str, ra_um: float, at: tuple[float, float], side: str) -> Characteristic:
    return Characteristic(
        key=f"{row} ra", row=row, number=0, what=what, quantity="finish", side=side, nominal=ra_um, upper=ra_um,
        at=at, from_where="greatest",
    )  # fmt: skip


def _place(chain: Chain | Profile | None, element: int) -> tuple[float, float] | None:
    if chain is None:
        return None
    for segment, index, corner in zip(chain.segments, chain.elements, chain.corners, strict=True):
        if index == element and not corner:
            return segment.at(0.5)
    return None
