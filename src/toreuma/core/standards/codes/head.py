"""The five letters of a holder's or bar's head, which both systems share."""

from dataclasses import dataclass

from toreuma.core.standards.codes.insert import LONG, edge_length_mm, ic_of
from toreuma.core.standards.codes.scan import Scanner
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["Head", "read_edge", "read_head"]


@dataclass(frozen=True, kw_only=True)
class Head:
    """Clamping, insert shape, style, insert clearance and hand, as letters."""

    clamping: str
    shape: str
    style: str
    clearance: str
    hand: str
    entering_angle_deg: float


def read_head(scan: Scanner, tables: CodeTables, first: int) -> Head:
    """Letters from position ``first`` on. Raises `CodeError`."""
    holder, insert = tables.holder, tables.insert
    clamping = scan.table(first, "clamping", holder.clamping)
    scan.note(first, "clamping", clamping, holder.clamping[clamping])
    shape = scan.table(first + 1, "insert shape", insert.shapes)
    scan.note(first + 1, "insert shape", shape, insert.shapes[shape].name)
    style = scan.table(first + 2, "style", holder.styles)
    angle, words = holder.styles[style]
    scan.note(first + 2, "style", style, f"entering angle {angle:g}°, {words}" if angle else words)
    clearance = scan.table(first + 3, "insert clearance", [*insert.clearance_deg, "O"])
    degrees = insert.clearance_deg.get(clearance)
    scan.note(
        first + 3, "insert clearance", clearance, f"{degrees:g}°" if degrees is not None else insert.clearances_note
    )
    hand = scan.table(first + 4, "hand", holder.hands)
    scan.note(first + 4, "hand", hand, holder.hands[hand])
    return Head(clamping=clamping, shape=shape, style=style, clearance=clearance, hand=hand, entering_angle_deg=angle)


def read_edge(scan: Scanner, tables: CodeTables, number: int, head: Head, inch: bool) -> tuple[float, float | None]:
    """Edge length in mm and inscribed circle of the insert the holder takes. Raises `CodeError`."""
    insert = tables.insert
    if inch:
        symbol = scan.table(number, "insert size", insert.inch_size_mm)
        ic = insert.inch_size_mm[symbol]
        scan.note(number, "insert size", symbol, f"inscribed circle, {symbol} eighths of an inch", ic)
        return edge_length_mm(head.shape, ic, insert), ic
    if head.shape in LONG:
        figures = scan.pattern(number, "edge length", r"\d\d", ["two figures, mm"])
        scan.note(number, "edge length", figures, "longer edge of the insert", float(figures))
        return float(figures), None
    known = list(insert.edge_codes[head.shape])
    symbol = scan.table(number, "edge length", [*known, *(insert.round_metric_mm if head.shape == "R" else ())])
    found = ic_of(head.shape, symbol, insert)
    edge = edge_length_mm(head.shape, found, insert) if found else 0.0
    scan.note(number, "edge length", symbol, f"inscribed circle {found:g} mm" if found else "", edge)
    return edge, found
