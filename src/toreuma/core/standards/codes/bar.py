"""Boring bars: ISO 6261 and its inch twin, read and written."""

import re
from dataclasses import replace

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.head import read_edge, read_head
from toreuma.core.standards.codes.holder import INCH, edge_symbol
from toreuma.core.standards.codes.positions import BarCode, System
from toreuma.core.standards.codes.scan import Scanner
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["bar_text", "read_bar"]

SAME_MM = 0.2


def read_bar(text: str, tables: CodeTables) -> BarCode:
    """What the designation of a boring bar says, metric or inch. Raises `CodeError`."""
    scan, bar = Scanner(text), tables.bar
    kind = scan.table(1, "bar", bar.kinds)
    words, material, coolant, damped = bar.kinds[kind]
    scan.note(1, "bar", kind, words)
    figures = scan.pattern(2, "shank diameter", r"\d\d", [f"{d:02.0f}" for d in bar.diameter_mm])
    at = len(scan.positions)
    letter = scan.pattern(3, "length", r"[A-Z]", [*tables.holder.length_mm, tables.holder.special_length])
    head = read_head(scan, tables, 4)
    inch = re.match(r"\d\d|L3", scan.peek()) is None
    diameter, length = _inch(figures, letter, tables, scan.text) if inch else _metric(figures, letter, tables, scan)
    late, scan.positions = scan.positions[at:], scan.positions[:at]
    unit = f"{int(figures)} sixteenths of an inch" if inch else ""
    scan.note(2, "shank diameter", figures, unit, diameter)
    scan.note(3, "length", letter, "" if length else "special", length)
    scan.positions += late
    edge, ic = read_edge(scan, tables, 9, head, inch)
    code = BarCode(
        system="inch" if inch else "metric",
        bar=kind,
        material=material,
        coolant=coolant,
        damped=damped,
        shank_diameter_mm=diameter,
        length_mm=length,
        clamping=head.clamping,
        shape=head.shape,
        style=head.style,
        clearance=head.clearance,
        hand=head.hand,
        entering_angle_deg=head.entering_angle_deg,
        edge_length_mm=edge,
        ic_mm=ic,
    )
    return replace(code, tail=scan.tail(10), positions=tuple(scan.positions))


def _metric(figures: str, letter: str, tables: CodeTables, scan: Scanner) -> tuple[float, float | None]:
    if float(figures) not in tables.bar.diameter_mm:
        raise CodeError(scan.text, 2, "shank diameter", figures, [f"{d:02.0f}" for d in tables.bar.diameter_mm])
    lengths = tables.holder.length_mm
    if letter not in lengths and letter != tables.holder.special_length:
        raise CodeError(scan.text, 3, "length", letter, [*lengths, tables.holder.special_length])
    return float(figures), lengths.get(letter)


def _inch(figures: str, letter: str, tables: CodeTables, text: str) -> tuple[float, float | None]:
    bar = tables.bar
    if int(figures) not in bar.inch_diameter_sixteenths:
        raise CodeError(text, 2, "shank diameter", figures, [f"{n:02d}" for n in bar.inch_diameter_sixteenths])
    if letter not in bar.inch_length_in and letter != tables.holder.special_length:
        raise CodeError(text, 3, "length", letter, [*bar.inch_length_in, tables.holder.special_length])
    length = bar.inch_length_in.get(letter)
    return int(figures) / 16 * INCH, length * INCH if length else None


def bar_text(code: BarCode, tables: CodeTables, system: System) -> str:
    """The designation in one of the systems. Raises `StandardError` where that system has no such diameter."""
    head = f"{code.clamping}{code.shape}{code.style}{code.clearance}{code.hand}"
    special = tables.holder.special_length
    if system == "metric":
        diameter = min(tables.bar.diameter_mm, key=lambda d: abs(d - code.shank_diameter_mm))
        _close(diameter, code.shank_diameter_mm, head)
        lengths = tables.holder.length_mm
        length = min(lengths, key=lambda k: abs(lengths[k] - (code.length_mm or 0))) if code.length_mm else special
        return f"{code.bar}{diameter:02.0f}{length}-{head}{edge_symbol(code.shape, code, tables)}"
    if code.ic_mm is None:
        raise StandardError(f"code '{head}'", "the inch system gives no size for this shape", "use the metric code")
    sixteenths = min(tables.bar.inch_diameter_sixteenths, key=lambda n: abs(n / 16 * INCH - code.shank_diameter_mm))
    _close(sixteenths / 16 * INCH, code.shank_diameter_mm, head)
    sizes, ic = tables.insert.inch_size_mm, code.ic_mm
    size = min(sizes, key=lambda s: abs(sizes[s] - ic))
    _close(sizes[size], ic, head)
    inches = tables.bar.inch_length_in
    letter = min(inches, key=lambda k: abs(inches[k] * INCH - (code.length_mm or 0))) if code.length_mm else special
    return f"{code.bar}{sixteenths:02d}{letter}-{head}{size}"


def _close(found: float, wanted: float, head: str) -> None:
    if abs(found - wanted) > SAME_MM:
        raise StandardError(f"code '{head}'", f"no {wanted:g} mm in this system", f"the nearest is {found:g} mm")
