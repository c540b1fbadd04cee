"""Drawings in: DXF lines, arcs, polylines, splines and ellipses to a turned part."""

import io
import itertools
import math
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from toreuma.core.errors import ImportFault, ToreumaError
from toreuma.core.geometry.assemble import metal_of
from toreuma.core.geometry.dimension import dimensioned
from toreuma.core.geometry.elements import Arc, Line, Points, Segment
from toreuma.core.geometry.recover import recover
from toreuma.core.memo import Check, never_cancel
from toreuma.exchange.imports import Imported, checked_bytes, understood

__all__ = ["read_dxf"]

MAX_ENTITIES = 20_000
MAX_RECORDS = 25_000
"""More records than this, vertices and tables counted, take too long to read."""

MAX_DEPTH = 6
GAP_MM = 0.05
SPLINE_MM = 0.0005
SPLINE_FIT_MM = 0.002
FLAT_MM = 0.02
HUGE_MM, BEYOND_MM = 5000.0, 100_000.0

UNITS_MM = {1: ("inch", 25.4), 2: ("ft", 304.8), 4: ("mm", 1.0), 5: ("cm", 10.0), 6: ("m", 1000.0)}
CENTRE_LINE = re.compile(r"cent|axis|achs|mitte", re.I)


@dataclass(frozen=True)
class _Loose:
    """A segment with the layer it lies on, and whether it is drawn as a centre line."""

    segment: Segment
    layer: str
    centre: bool


def read_dxf(
    path: Path,
    layers: Iterable[str] | None = None,
    units: str | None = None,
    gap_mm: float = GAP_MM,
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
) -> Imported:
    """Read a drawing of a half or full section. Raises `ImportFault` or `PartError` in one line.

    The axis is a centre line where there is one, else the line the drawing mirrors at, else its lowest edge. Only
    the half above it is used. ``layers`` limits what is read; ``units`` overrides what the file says.
    """
    document = _document(path, checked_bytes(path))
    check()
    progress(0.3)
    unit_name, scale, warnings = _units(document, units)
    chosen = set(layers) if layers is not None else None
    ignored: Counter[str] = Counter()
    loose = []
    for count, entity in enumerate(_flat(document.modelspace(), 0, ignored)):
        if count % 64 == 0:
            check()
        if count > MAX_ENTITIES:
            raise ImportFault(path.name, f"there are more than {MAX_ENTITIES} entities in it", "choose fewer layers")
        if entity is None:
            continue
        if chosen is None or entity.dxf.layer in chosen:
            loose.extend(_segments(entity, scale, ignored))
    progress(0.6)
    known = tuple(sorted({layer.dxf.name for layer in document.layers}))
    if not loose:
        raise ImportFault(path.name, "there is nothing in it that could be a profile", f"layers: {', '.join(known)}")
    try:
        half, notes = _upper_half(loose)
        metal, gaps = metal_of(half, gap_mm)
        check()
        found = dimensioned(metal)
        if metal.bounds[2] - metal.bounds[0] > HUGE_MM:
            warnings.append(f"the part is {(metal.bounds[2] - metal.bounds[0]) / 1000:.0f} m long: check the unit")
        warnings += [*notes, *(f"closed a gap of {gap.width_mm:.3f} mm at Z {gap.at[0]:.2f}" for gap in gaps[:20])]
        listed = tuple(f"{count} {kind}" for kind, count in sorted(ignored.items()))
        progress(0.9)
        return understood(found, metal, unit_name, path.stem, (), tuple(warnings), listed, known)
    except ToreumaError as error:
        raise ImportFault(path.name, error.what, error.cure) from None


def _document(path: Path, data: bytes) -> Any:
    import ezdxf
    from ezdxf import recover as mend

    if len(re.findall(rb"\r?\n\s*0\r?\n\s*[A-Z]{3,}", data)) > MAX_RECORDS:
        raise ImportFault(path.name, "there are far too many entities in it", "export the profile alone")
    if b"\x00" in data[:200]:
        raise ImportFault(path.name, "this is not a DXF drawing", "choose a .dxf file")
    try:
        document, _auditor = mend.read(io.BytesIO(data))
    except (ezdxf.DXFError, OSError, ValueError, IndexError, KeyError, TypeError, AttributeError, RecursionError):
        raise ImportFault(path.name, "this is not a DXF drawing, or it breaks off", "export it again as DXF") from None
    return document


def _units(document: Any, wanted: str | None) -> tuple[str, float, list[str]]:
    if wanted is not None:
        return wanted, 25.4 if wanted == "inch" else 1.0, []
    code = int(document.header.get("$INSUNITS", 0))
    if code in UNITS_MM:
        return (*UNITS_MM[code], [])
    metric = int(document.header.get("$MEASUREMENT", 1))
    name, scale = ("mm", 1.0) if metric else ("inch", 25.4)
    return name, scale, [f"the file does not say its unit: {name} was taken"]


DRAWN = frozenset(["LINE", "ARC", "CIRCLE", "LWPOLYLINE", "POLYLINE", "SPLINE", "ELLIPSE"])


def _flat(entities: Any, depth: int, ignored: Counter[str]) -> Iterator[Any]:
    """Entities with the blocks among them opened, as deep as is reasonable; None for each that gives nothing, so that
    whoever counts them sees an end."""
    for entity in entities:
        kind = entity.dxftype()
        if kind == "INSERT":
            if depth >= MAX_DEPTH:
                ignored["blocks nested too deep"] += 1
                continue
            yield None
            try:
                yield from _flat(entity.virtual_entities(), depth + 1, ignored)
            except (ValueError, TypeError, AttributeError):
                ignored["blocks that cannot be opened"] += 1
        elif kind in DRAWN:
            yield entity
        else:
            ignored[kind.lower()] += 1
            yield None


def _segments(entity: Any, scale: float, ignored: Counter[str]) -> Iterator[_Loose]:
    layer = entity.dxf.layer
    style = f"{entity.dxf.get('linetype', '')} {layer}"
    centre = bool(CENTRE_LINE.search(style))
    try:
        if _reach(entity) * scale > BEYOND_MM:
            ignored[f"{entity.dxftype().lower()} larger than any lathe"] += 1
            return
        found = list(_geometry(entity, scale))
    except (ValueError, TypeError, AttributeError, ZeroDivisionError, IndexError):
        ignored[f"{entity.dxftype().lower()} that cannot be read"] += 1
        return
    for segment in found:
        if not all(math.isfinite(value) for value in (*segment.start, *segment.end)):
            ignored[f"{entity.dxftype().lower()} without finite places"] += 1
        elif segment.length > 1e-7:
            yield _Loose(segment, layer, centre)


def _reach(entity: Any) -> float:
    """How large a curve is that would be taken apart into chords, in the drawing's unit."""
    kind = entity.dxftype()
    if kind == "ELLIPSE":
        return float(entity.dxf.major_axis.magnitude)
    if kind == "SPLINE":
        points = [*entity.control_points, *entity.fit_points]
        return max((max(abs(float(p[0])), abs(float(p[1]))) for p in points), default=0.0)
    return 0.0


def _geometry(entity: Any, scale: float) -> Iterator[Segment]:
    kind = entity.dxftype()
    if kind == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        yield Line((a.x * scale, a.y * scale), (b.x * scale, b.y * scale))
    elif kind == "ARC":
        yield from _arc(entity.dxf.center, entity.dxf.radius, entity.dxf.start_angle, entity.dxf.end_angle, scale)
    elif kind == "CIRCLE":
        yield from _arc(entity.dxf.center, entity.dxf.radius, 0.0, 360.0, scale)
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        if kind == "POLYLINE" and not entity.is_2d_polyline:
            raise ValueError("not flat")
        for piece in entity.virtual_entities():
            yield from _geometry(piece, scale)
    else:
        points = np.array([(p.x, p.y) for p in entity.flattening(SPLINE_MM / scale)]) * scale
        if len(points) > 1:
            yield from recover(points, SPLINE_FIT_MM)


def _arc(centre: Any, radius: float, start_deg: float, end_deg: float, scale: float) -> Iterator[Segment]:
    """Counter-clockwise from start to end, in pieces of at most a third of a turn."""
    c, r = (centre.x * scale, centre.y * scale), radius * scale
    sweep = (end_deg - start_deg) % 360 or 360.0
    pieces = math.ceil(sweep / 120)
    angles = np.radians(start_deg + sweep * np.arange(pieces + 1) / pieces)
    points = [(c[0] + r * math.cos(a), c[1] + r * math.sin(a)) for a in angles]
    for a, b in itertools.pairwise(points):
        yield Arc(a, b, c, clockwise=False)


def _upper_half(loose: list[_Loose]) -> tuple[list[Segment], list[str]]:
    """Segments above the axis, with the axis at r = 0 along z, and what was assumed on the way."""
    level, upright = _centre_lines(loose)
    notes: list[str] = []
    drawn = [one.segment for one in loose if not one.centre]
    if not drawn:
        raise ImportFault("drawing", "there are only centre lines in it", "choose the layer of the profile")
    points = np.vstack([segment.points(0.01) for segment in drawn])
    if upright is not None and level is None:
        drawn = [_turned(segment) for segment in drawn]
        points = points[:, ::-1] * [1, -1]
        axis = -upright
        notes.append("the axis stands upright: the drawing was turned")
    elif level is not None:
        axis = level
    else:
        axis, word = _guessed_axis(points)
        notes.append(f"there is no centre line: the axis was taken {word}")
    moved = [segment.moved(0.0, -axis) for segment in drawn]
    above = points[:, 1].max() - axis >= axis - points[:, 1].min() - FLAT_MM
    if not above:
        moved = [_upside_down(segment) for segment in moved]
    kept = [piece for segment in moved for piece in _above(segment)]
    if not kept:
        raise ImportFault("drawing", "nothing lies above the axis", "check the centre line")
    return kept, notes


def _centre_lines(loose: list[_Loose]) -> tuple[float | None, float | None]:
    """Height of the longest level centre line, and place of the longest upright one."""
    best: dict[str, tuple[float, float]] = {}
    for one in loose:
        if not one.centre or not isinstance(one.segment, Line):
            continue
        (x0, y0), (x1, y1) = one.segment.start, one.segment.end
        way = "level" if abs(y1 - y0) < FLAT_MM else "upright" if abs(x1 - x0) < FLAT_MM else ""
        if way and one.segment.length > best.get(way, (0.0, 0.0))[0]:
            best[way] = (one.segment.length, y0 if way == "level" else x0)
    level, upright = best.get("level"), best.get("upright")
    if level and upright:  # a round view has both: the longer one is the axis
        return (level[1], None) if level[0] >= upright[0] else (None, upright[1])
    return level[1] if level else None, upright[1] if upright else None


def _guessed_axis(points: Points) -> tuple[float, str]:
    """The middle when the drawing is the same above and below it, else the lowest place."""
    low, high = float(points[:, 1].min()), float(points[:, 1].max())
    middle = (low + high) / 2
    above = points[points[:, 1] > middle + FLAT_MM]
    below = points[points[:, 1] < middle - FLAT_MM]
    if len(above) and len(below):
        mirrored = {(round(x, 2), round(2 * middle - y, 2)) for x, y in below}
        same = sum((round(x, 2), round(y, 2)) in mirrored for x, y in above)
        if same > 0.9 * len(above):
            return middle, "in the middle"
    if abs(low) < FLAT_MM or low > 0:
        return (0.0, "at Y 0") if low < 0.5 * high or abs(low) < FLAT_MM else (low, "at the lowest edge")
    return low, "at the lowest edge"


def _turned(segment: Segment) -> Segment:
    """A quarter turn clockwise: what stood upright lies level, up becomes z."""

    def turn(point: tuple[float, float]) -> tuple[float, float]:
        return point[1], -point[0]

    if isinstance(segment, Line):
        return Line(turn(segment.start), turn(segment.end))
    return Arc(turn(segment.start), turn(segment.end), turn(segment.centre), segment.clockwise)


def _upside_down(segment: Segment) -> Segment:
    def flip(point: tuple[float, float]) -> tuple[float, float]:
        return point[0], -point[1]

    if isinstance(segment, Line):
        return Line(flip(segment.start), flip(segment.end))
    return Arc(flip(segment.start), flip(segment.end), flip(segment.centre), not segment.clockwise)


def _above(segment: Segment) -> Iterator[Segment]:
    """The pieces of a segment that lie above the axis; what runs along it is dropped."""
    low, high = sorted((segment.start[1], segment.end[1]))
    if isinstance(segment, Line):
        if high < 1e-6:
            return
        if low > -1e-6:
            yield segment
            return
        share = segment.start[1] / (segment.start[1] - segment.end[1])
        cut = (segment.start[0] + share * (segment.end[0] - segment.start[0]), 0.0)
        yield Line(segment.start, cut) if segment.start[1] > 0 else Line(cut, segment.end)
        return
    points = segment.points(0.001)
    if points[:, 1].min() > -1e-6:
        yield segment
    elif points[:, 1].max() > 1e-6:
        yield from _cut_arc(segment)


def _cut_arc(arc: Arc) -> Iterator[Segment]:
    """An arc cut where it crosses the axis."""
    centre_r = arc.centre[1]
    if abs(centre_r) >= arc.radius:
        return
    start = math.atan2(arc.start[1] - centre_r, arc.start[0] - arc.centre[0])
    crossing = [math.asin(-centre_r / arc.radius), math.pi - math.asin(-centre_r / arc.radius)]
    sign = 1.0 if arc.sweep_rad > 0 else -1.0
    turns = sorted((sign * (angle - start)) % (2 * math.pi) for angle in crossing)
    shares = [0.0, *(t / abs(arc.sweep_rad) for t in turns if t < abs(arc.sweep_rad)), 1.0]
    for a, b in itertools.pairwise(shares):
        if b - a < 1e-9 or arc.at((a + b) / 2)[1] < 0:
            continue
        first, last = arc.at(a), arc.at(b)
        yield Arc((first[0], max(first[1], 0.0)), (last[0], max(last[1], 0.0)), arc.centre, arc.clockwise)
