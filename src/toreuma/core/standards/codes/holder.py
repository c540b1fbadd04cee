"""Holders with rectangular shanks: ISO 5608 and the inch system of ANSI B212.5, read and written."""

import re
from dataclasses import replace

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.head import Head, read_edge, read_head
from toreuma.core.standards.codes.positions import HolderCode, System
from toreuma.core.standards.codes.scan import Scanner
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["INCH", "edge_symbol", "holder_text", "read_holder"]

INCH = 25.4
SAME_MM = 0.6
"""Metric and inch shanks of nearly the same size are not the same: 25 and 25.4 mm differ in the seat."""


def read_holder(text: str, tables: CodeTables) -> HolderCode:
    """What the designation of a holder says, metric or inch. Raises `CodeError`."""
    scan = Scanner(text)
    head = read_head(scan, tables, 1)
    code = _metric(scan, tables, head) if re.match(r"\d{4}", _figures(scan)) else _inch(scan, tables, head)
    return replace(code, tail=scan.tail(11), positions=tuple(scan.positions))


def _figures(scan: Scanner) -> str:
    return re.sub(r"[\s\-_/]", "", scan.peek())


def _metric(scan: Scanner, tables: CodeTables, head: Head) -> HolderCode:
    holder = tables.holder
    shanks = [f"{size:02.0f}" for size in holder.shank_mm]
    height = scan.table(6, "shank height", shanks)
    scan.note(6, "shank height", height, "", float(height))
    width = scan.table(7, "shank width", shanks)
    scan.note(7, "shank width", width, "", float(width))
    letter = scan.table(8, "length", [*holder.length_mm, holder.special_length])
    length = holder.length_mm.get(letter)
    scan.note(8, "length", letter, "" if length else "special", length)
    edge, ic = read_edge(scan, tables, 9, head, inch=False)
    qualified = ""
    if re.fullmatch(r"[QFB]", scan.rest.strip(" ")):
        qualified = scan.table(10, "tolerance", holder.qualified)
        scan.note(10, "tolerance", qualified, f"± 0.08 mm at {holder.qualified[qualified]}")
    return _code("metric", head, float(height), float(width), length, edge, ic, qualified)


def _inch(scan: Scanner, tables: CodeTables, head: Head) -> HolderCode:
    holder = tables.holder
    symbol = scan.pattern(6, "shank", r"\d\d", ["two figures: 08, 12, 16 square; 85, 86 rectangular"])
    height, width, words = _inch_shank(symbol, tables, scan.text)
    scan.note(6, "shank", symbol, words, height)
    edge, ic = read_edge(scan, tables, 7, head, inch=True)
    length, qualified = None, ""
    if scan.peek()[:1] in holder.inch_length_in and not scan.rest.startswith("-" * 2):
        letter = scan.table(8, "length", holder.inch_length_in)
        inches, ends = holder.inch_length_in[letter]
        length, qualified = inches * INCH, ends
        scan.note(8, "length", letter, f"{inches:g} in, qualified at {ends}", length)
    return _code("inch", head, height, width, length, edge, ic, qualified)


def _inch_shank(symbol: str, tables: CodeTables, text: str) -> tuple[float, float, str]:
    """Height and width in mm: sixteenths of a square, or eighths wide by quarters high."""
    holder, number = tables.holder, int(symbol)
    if symbol in holder.inch_rectangular_in:
        width, height = holder.inch_rectangular_in[symbol]
    elif number in holder.inch_square_sixteenths:
        side = number / 16
        return side * INCH, side * INCH, f"{side:g} in square"
    else:
        width, height = int(symbol[0]) / 8, int(symbol[1]) / 4
    if width <= 0 or height < width:
        squares = [f"{n:02d}" for n in holder.inch_square_sixteenths]
        raise CodeError(text, 6, "shank", symbol, [*squares, "or rectangular such as 64 85 86"])
    return height * INCH, width * INCH, f"{width:g} in wide, {height:g} in high"


def _code(
    system: System,
    head: Head,
    height: float,
    width: float,
    length: float | None,
    edge: float,
    ic: float | None,
    qualified: str,
) -> HolderCode:
    return HolderCode(
        system=system,
        clamping=head.clamping,
        shape=head.shape,
        style=head.style,
        clearance=head.clearance,
        hand=head.hand,
        entering_angle_deg=head.entering_angle_deg,
        shank_height_mm=height,
        shank_width_mm=width,
        length_mm=length,
        edge_length_mm=edge,
        ic_mm=ic,
        qualified=qualified,
    )


def holder_text(code: HolderCode, tables: CodeTables, system: System) -> str:
    """The designation in one of the systems: the same head, the shank and length of that system nearest to it.

    Raises `StandardError` where that system has nothing near.
    """
    letters = f"{code.clamping}{code.shape}{code.style}{code.clearance}{code.hand}"
    if system == "metric":
        height, width = (_near(tables.holder.shank_mm, size, letters) for size in _pair(code))
        length = _letter(tables.holder.length_mm, code.length_mm) if code.length_mm else tables.holder.special_length
        qualified = code.qualified if code.qualified in tables.holder.qualified else ""
        return f"{letters} {height:02.0f}{width:02.0f} {length}{edge_symbol(code.shape, code, tables)}{qualified}"
    if code.ic_mm is None:
        raise StandardError(f"code '{letters}'", "the inch system gives no size for this shape", "use the metric code")
    shank = _inch_symbol(code, tables, letters)
    size = min(tables.insert.inch_size_mm, key=lambda s: abs(tables.insert.inch_size_mm[s] - (code.ic_mm or 0.0)))
    if abs(tables.insert.inch_size_mm[size] - code.ic_mm) > 0.05:
        raise StandardError(f"code '{letters}'", "this insert is not of the inch series", "use the metric code")
    lengths = {letter: inches * INCH for letter, (inches, ends) in tables.holder.inch_length_in.items()}
    ends = code.qualified or "back and end"
    kept = {k: v for k, v in lengths.items() if tables.holder.inch_length_in[k][1] == ends} or lengths
    return f"{letters}-{shank}{size}{_letter(kept, code.length_mm) if code.length_mm else ''}"


def _pair(code: HolderCode) -> tuple[float, float]:
    return code.shank_height_mm, code.shank_width_mm


def edge_symbol(shape: str, code: object, tables: CodeTables) -> str:
    """The two figures of the edge length of the insert a holder or bar takes."""
    ic, edge = getattr(code, "ic_mm", None), getattr(code, "edge_length_mm", 0.0)
    if ic is None:
        return f"{int(edge):02d}"
    for symbol, sizes in tables.insert.edge_codes[shape].items():
        if any(abs(size - ic) < 0.011 for size in sizes):
            return symbol
    return next((s for s, d in tables.insert.round_metric_mm.items() if abs(d - ic) < 0.011), f"{int(edge):02d}")


def _near(sizes: tuple[float, ...], mm: float, letters: str) -> float:
    found = min(sizes, key=lambda size: abs(size - mm))
    if abs(found - mm) > SAME_MM:
        raise StandardError(f"code '{letters}'", f"no shank of {mm:g} mm", f"the nearest is {found:g} mm")
    return found


def _letter(lengths: dict[str, float], mm: float) -> str:
    return min(lengths, key=lambda letter: abs(lengths[letter] - mm))


def _inch_symbol(code: HolderCode, tables: CodeTables, letters: str) -> str:
    height, width = (size / INCH for size in _pair(code))
    near = SAME_MM / INCH
    if abs(height - width) < near:
        side = min(tables.holder.inch_square_sixteenths, key=lambda n: abs(n / 16 - height))
        if abs(side / 16 - height) < near:
            return f"{side:02d}"
    for symbol, (w, h) in tables.holder.inch_rectangular_in.items():
        if abs(w - width) < near and abs(h - height) < near:
            return symbol
    wide, high = round(width * 8), round(height * 4)
    if 0 < wide < 10 and 0 < high < 10 and abs(wide / 8 - width) < near and abs(high / 4 - height) < near:
        return f"{wide}{high}"
    raise StandardError(f"code '{letters}'", "no inch shank of this size", "use the metric code")
