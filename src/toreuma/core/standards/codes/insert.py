"""Indexable inserts: ISO 1832 and the inch system of ANSI B212.4, read and written."""

import re
from dataclasses import replace

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.positions import InsertCode, System
from toreuma.core.standards.codes.scan import Scanner
from toreuma.core.standards.codes.tables import InsertTables

__all__ = ["LONG", "edge_length_mm", "ic_of", "insert_text", "read_insert"]

LONG = "LABK"
"""Shapes given by their longer edge, which have no inscribed circle."""

SHORT_OF_TEN = "STCDEMV"
"""Shapes with no metric size 10: there it means ten eighths of an inch."""

SAME_MM = 0.011


def read_insert(text: str, tables: InsertTables) -> InsertCode:
    """What the designation of an insert says, metric or inch. Raises `CodeError`."""
    scan = Scanner(text)
    shape = scan.table(1, "shape", tables.shapes)
    angle = tables.shapes[shape].angle_deg
    scan.note(1, "shape", shape, f"{tables.shapes[shape].name}" + (f", corner {angle:g}°" if shape in "LABK" else ""))
    clearance = scan.table(2, "clearance angle", [*tables.clearance_deg, "O"])
    degrees = tables.clearance_deg.get(clearance)
    scan.note(2, "clearance angle", clearance, f"{degrees:g}°" if degrees is not None else tables.clearances_note)
    tolerance = scan.table(3, "tolerance class", tables.tolerances)
    system = _system(scan.peek(), shape)
    at = len(scan.positions)
    fixing = _fixing(scan, tables, system)
    code = (_metric if system == "metric" else _inch)(scan, tables, shape)
    meaning = _tolerance(tables, tolerance, code.ic_mm or code.edge_length_mm, code.shape)
    scan.note(3, "tolerance class", tolerance, meaning)
    scan.positions.insert(at, scan.positions.pop())
    edge, hand = _edge_and_hand(scan, tables)
    return replace(
        code,
        clearance=clearance,
        tolerance=tolerance,
        fixing=fixing,
        included_angle_deg=angle,
        clearance_deg=degrees,
        edge=edge,
        hand=hand,
        tail=scan.tail(10),
        positions=tuple(scan.positions),
    )


def _system(rest: str, shape: str) -> System:
    """Inch sizes are single figures, three of them or two for a round, some with a half; metric ones come in pairs."""
    sizes = re.sub(r"^[A-Z]?[\s\-_/]*", "", rest)
    figures = re.match(r"[0-9LTM. \-]*", sizes)
    run = re.sub(r"[ \-]", "", figures.group(0) if figures else "")
    if "." in run:
        return "inch"
    if re.fullmatch(r"10\d\d", run) and shape in SHORT_OF_TEN:
        return "inch"
    count = r"\d{2,3}" if shape == "R" else r"\d{3}"
    return "inch" if re.fullmatch(count, run.rstrip("LTM")) else "metric"


def _fixing(scan: Scanner, tables: InsertTables, system: System) -> str:
    if system == "inch" and scan.peek()[:1].isdigit():
        return ""  # older inch codes of three letters: no hole, no chip former
    letter = scan.table(4, "hole and chip former", tables.fixings)
    row = tables.fixings[letter]
    former = {"none": "no chip former", "special": "special"}.get(row.chip_former, f"chip former on {row.chip_former}")
    scan.note(4, "hole and chip former", letter, row.hole if former == "special" else f"{row.hole}, {former}")
    return letter


def _tolerance(tables: InsertTables, letter: str, ic_mm: float, shape: str) -> str:
    ic, corner, thick = (tables.tolerance_um(letter, of, ic_mm, shape) for of in ("ic", "corner", "thickness"))
    return f"IC ± {ic / 1000:g}, corner height ± {corner / 1000:g}, thickness ± {thick / 1000:g} mm"


def _metric(scan: Scanner, tables: InsertTables, shape: str) -> InsertCode:
    ic, edge = _metric_size(scan, tables, shape)
    thickness = scan.table(6, "thickness", tables.thickness_mm)
    scan.note(6, "thickness", thickness, "", tables.thickness_mm[thickness])
    radius, wiper, metric_round = _metric_corner(scan, tables, shape)
    if shape == "R":
        ic, edge = _round_size(scan, tables, metric_round)
    return InsertCode(
        system="metric",
        shape=shape,
        clearance="",
        tolerance="",
        fixing="",
        ic_mm=ic,
        edge_length_mm=edge,
        thickness_mm=tables.thickness_mm[thickness],
        nose_radius_mm=radius,
        included_angle_deg=0,
        clearance_deg=None,
        metric_round=metric_round,
        wiper=wiper,
    )


def _metric_size(scan: Scanner, tables: InsertTables, shape: str) -> tuple[float | None, float]:
    if shape in LONG:
        figures = scan.pattern(5, "edge length", r"\d\d", ["two figures, mm"])
        scan.note(5, "edge length", figures, "length of the longer edge, fractions left out", float(figures))
        return None, float(figures)
    known = {**tables.edge_codes[shape], **(dict.fromkeys(tables.round_metric_mm, ()) if shape == "R" else {})}
    symbol = scan.table(5, "edge length", known)
    sizes = known[symbol]
    ic = max(sizes, default=0.0)
    edge = edge_length_mm(shape, ic, tables)
    more = f", may also be {min(sizes):g} mm" if len(sizes) > 1 else ""
    scan.note(5, "edge length", symbol, f"inscribed circle {ic:g} mm{more}", edge)
    return ic, edge


def _round_size(scan: Scanner, tables: InsertTables, metric_round: bool) -> tuple[float, float]:
    """Diameter of a round insert: whole millimetres with M0, else from the inch series."""
    at = next(i for i, p in enumerate(scan.positions) if p.number == 5)
    symbol = scan.positions[at].symbol
    inch = max(tables.edge_codes["R"].get(symbol, ()), default=0.0)
    ic = tables.round_metric_mm.get(symbol, inch) if metric_round or not inch else inch
    if metric_round and symbol not in tables.round_metric_mm:
        raise CodeError(scan.text, 5, "diameter", symbol, tables.round_metric_mm)
    scan.positions[at] = replace(scan.positions[at], name="diameter", meaning="", mm=ic)
    return ic, ic


def _metric_corner(scan: Scanner, tables: InsertTables, shape: str) -> tuple[float | None, str, bool]:
    """Radius, wiper letters, and whether a round insert is metric."""
    here = scan.peek()
    if shape == "R":
        if here.startswith(("M0", "MO")):  # a zero, often typed as the letter
            scan.pattern(7, "corner", "M[0O]", ["M0", "00"])
            scan.note(7, "corner", "M0", "round insert, diameter in whole millimetres")
            return None, "", True
        if here[:2] in tables.corner_mm:
            symbol = scan.table(7, "corner", ["00"])
            scan.note(7, "corner", symbol, "round insert, diameter from the inch series")
            return None, "", False
        return None, "", True
    if re.match(r"[A-Z]{2}", here) and here[:1] != "M":
        first = scan.table(7, "corner", tables.wiper_entering_deg)
        second = scan.table(7, "corner", tables.wiper_clearance_deg)
        meaning = (
            f"wiper facet: entering angle {tables.wiper_entering_deg[first]:g}°, "
            f"its clearance {tables.wiper_clearance_deg[second]:g}°"
        )
        scan.note(7, "corner", first + second, meaning)
        return None, first + second, False
    symbol = scan.table(7, "corner radius", tables.corner_mm)
    radius = tables.corner_mm[symbol]
    scan.note(7, "corner radius", symbol, "sharp" if radius == 0 else "", radius)
    return radius, "", False


def _inch(scan: Scanner, tables: InsertTables, shape: str) -> InsertCode:
    """Sizes in eighths, sixteenths and sixty-fourths of an inch."""
    if shape in LONG:
        raise CodeError(scan.text, 5, "size", scan.peek()[:2], ["a metric code: inch ones for this shape vary"])
    size = _half(scan, 5, "size", tables.inch_size_mm)
    ic = tables.inch_size_mm[size]
    scan.note(5, "size", size, f"inscribed circle, {size} eighths of an inch", ic)
    thick = _half(scan, 6, "thickness", tables.inch_thickness_mm)
    scan.note(6, "thickness", thick, f"{thick} sixteenths of an inch", tables.inch_thickness_mm[thick])
    radius: float | None = None
    if shape != "R":
        corner = _half(scan, 7, "corner radius", tables.inch_corner_mm)
        radius = tables.inch_corner_mm[corner]
        meaning = "sharp" if radius == 0 else f"{corner} sixty-fourths of an inch"
        scan.note(7, "corner radius", corner, meaning, radius)
    elif scan.peek().startswith("0"):
        scan.pattern(7, "corner", "0", ["0"])
        scan.note(7, "corner", "0", "round insert")
    edge = edge_length_mm(shape, ic, tables)
    return InsertCode(
        system="inch",
        shape=shape,
        clearance="",
        tolerance="",
        fixing="",
        ic_mm=ic,
        edge_length_mm=edge,
        thickness_mm=tables.inch_thickness_mm[thick],
        nose_radius_mm=radius,
        included_angle_deg=0,
        clearance_deg=None,
    )


def _half(scan: Scanner, number: int, name: str, table: dict[str, float]) -> str:
    """A figure of the inch system; quarters have one figure behind the point, as 1.2 for 1 1/4."""
    found = scan.pattern(number, name, r"10(?=\d)|\d?\.\d|\d", table)
    symbol = f"0{found}" if found.startswith(".") else found
    if symbol not in table:
        raise CodeError(scan.text, number, name, found, table)
    return symbol


def _edge_and_hand(scan: Scanner, tables: InsertTables) -> tuple[str, str]:
    """Optional symbols 8 and 9. Behind a dash stands the maker's text."""
    rest = scan.rest.lstrip(" ")
    match = re.match(rf"([{''.join(tables.edges)}]?)([{''.join(tables.hands)}]?)(?![A-Z])", rest)
    if match is None or not match.group(0) or (not match.group(2) and rest[match.end() :][:1].isdigit()):
        return "", ""
    edge, hand = match.groups()
    for number, name, symbol, table in ((8, "cutting edge", edge, tables.edges), (9, "hand", hand, tables.hands)):
        if symbol:
            scan.table(number, name, table)
            scan.note(number, name, symbol, table[symbol])
    return edge, hand


def edge_length_mm(shape: str, ic_mm: float, tables: InsertTables) -> float:
    """Length of the cutting edge of a shape with this inscribed circle (ISO 1832)."""
    return round(tables.edge_per_ic[shape] * ic_mm, 3)


def ic_of(shape: str, edge_symbol: str, tables: InsertTables) -> float | None:
    """Inscribed circle for a two-figure edge length; None for shapes without one or an unknown length."""
    sizes = tables.edge_codes.get(shape, {}).get(edge_symbol, ())
    return max(sizes, default=tables.round_metric_mm.get(edge_symbol) if shape == "R" else None)


def insert_text(code: InsertCode, tables: InsertTables, system: System) -> str:
    """The designation in one of the systems. Raises `StandardError` where that system has no symbol for a size."""
    letters = f"{code.shape}{code.clearance}{code.tolerance}{code.fixing or 'N'}"
    end = code.edge + code.hand + (f"-{code.tail}" if code.tail else "")
    if system == "metric":
        return f"{letters}{_metric_sizes(code, tables)}{end}"
    if code.wiper:
        raise StandardError(
            f"code '{letters}'", "the inch system has no symbol for a wiper facet", "use the metric code"
        )
    if code.ic_mm is None or code.metric_round:
        raise StandardError(f"code '{letters}'", "this size is not of the inch series", "use the metric code")
    size = _symbol(tables.inch_size_mm, code.ic_mm, "inscribed circle", letters)
    thick = _symbol(tables.inch_thickness_mm, code.thickness_mm, "thickness", letters)
    if code.nose_radius_mm is None:
        return f"{letters}{size}{thick}{end}"
    return f"{letters}{size}{thick}{_symbol(tables.inch_corner_mm, code.nose_radius_mm, 'radius', letters)}{end}"


def _metric_sizes(code: InsertCode, tables: InsertTables) -> str:
    letters = code.shape
    thick = _symbol(tables.thickness_mm, code.thickness_mm, "thickness", letters)
    if code.shape in LONG:
        size = f"{int(code.edge_length_mm):02d}"
    elif code.metric_round:
        size = _symbol(tables.round_metric_mm, code.ic_mm or 0.0, "diameter", letters)
    else:
        table = {symbol: ic for symbol, sizes in tables.edge_codes[code.shape].items() for ic in sizes}
        per_ic = {f"{symbol}/{ic}": ic for symbol, sizes in tables.edge_codes[code.shape].items() for ic in sizes}
        size = _symbol(per_ic or table, code.ic_mm or 0.0, "inscribed circle", letters).split("/")[0]
    if code.shape == "R":
        return f"{size}{thick}{'M0' if code.metric_round else '00'}"
    corner = code.wiper or _symbol(tables.corner_mm, code.nose_radius_mm or 0.0, "corner radius", letters)
    return f"{size}{thick}{corner}"


def _symbol(table: dict[str, float], mm: float, name: str, where: str) -> str:
    """The symbol of a size. Raises `StandardError`."""
    found = min(table, key=lambda symbol: abs(table[symbol] - mm))
    if abs(table[found] - mm) > SAME_MM:
        near = sorted(table.values(), key=lambda size: abs(size - mm))[:2]
        words = " or ".join(f"{size:g}" for size in sorted(near))
        raise StandardError(f"code '{where}'", f"no symbol for a {name} of {mm:g} mm", f"use {words} mm")
    return found
