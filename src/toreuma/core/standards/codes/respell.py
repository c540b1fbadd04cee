"""Changing one position of a designation: what else may stand there, and the code that gives."""

from collections.abc import Iterable
from dataclasses import replace

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.decode import Code, decode
from toreuma.core.standards.codes.insert import LONG, insert_text
from toreuma.core.standards.codes.positions import HolderCode, InsertCode, Position
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["respelled", "symbols_at"]

FREE_TEXT = "maker's free text"


def symbols_at(code: Code, number: int, tables: CodeTables) -> dict[str, str]:
    """Every symbol that may stand at a position in place of the one that does, and what it means there."""
    found = {one.symbol: _words(one) for one in code.positions if one.number == number}
    for symbol in _possible(code, number, tables):
        try:
            read = decode(_spelled(code, number, symbol, tables), tables)
        except StandardError:
            continue
        here = next((one for one in read.positions if one.number == number and one.symbol == symbol), None)
        if read.kind == code.kind and here is not None:
            found[symbol] = _words(here)
    return {symbol: found[symbol] for symbol in _in_order(found, _possible(code, number, tables))}


def _spelled(code: Code, number: int, symbol: str, tables: CodeTables) -> str:
    """The code with one symbol changed; another shape keeps the inscribed circle, so its edge length follows.

    Raises `StandardError` where the shape has no such size.
    """
    if isinstance(code, InsertCode) and number == 1 and code.ic_mm is not None and not code.metric_round:
        nose = None if symbol == "R" else code.nose_radius_mm or 0.0
        if symbol not in LONG:
            return insert_text(replace(code, shape=symbol, nose_radius_mm=nose, tail=""), tables.insert, code.system)
    parts = [symbol if one.number == number else one.symbol for one in code.positions if one.name != FREE_TEXT]
    return _joined(code, parts)


def _in_order(found: dict[str, str], order: list[str]) -> list[str]:
    return sorted(found, key=lambda symbol: order.index(symbol) if symbol in order else -1)


def _words(one: Position) -> str:
    size = "" if one.mm is None else f"{one.mm:g} mm"
    return one.meaning if not size or size in one.meaning else size if not one.meaning else f"{size}, {one.meaning}"


def respelled(code: Code, number: int, symbol: str, tables: CodeTables) -> str:
    """The code with another symbol at a position."""
    return _spelled(code, number, symbol, tables) + (f"-{code.tail}" if code.tail else "")


def _joined(code: Code, parts: list[str]) -> str:
    """Symbols written together; sizes of inch inserts with blanks, which keeps their halves apart."""
    if isinstance(code, InsertCode):
        letters = [p for p in parts if p.isalpha()]
        return (
            "".join(parts)
            if code.system == "metric"
            else "".join(letters[:4]) + " " + " ".join(parts[len(letters[:4]) :])
        )
    if isinstance(code, HolderCode):
        return "".join(parts[:5]) + " " + "".join(parts[5:])
    return "".join(parts[:3]) + "-" + "".join(parts[3:])


def _possible(code: Code, number: int, tables: CodeTables) -> list[str]:
    insert, holder, bar = tables.insert, tables.holder, tables.bar
    metric = code.system == "metric"
    if isinstance(code, InsertCode):
        sizes = [*insert.edge_codes.get(code.shape, {}), *(insert.round_metric_mm if code.metric_round else ())]
        table: dict[int, Iterable[str]] = {
            1: insert.shapes,
            2: [*insert.clearance_deg, "O"],
            3: insert.tolerances,
            4: insert.fixings,
            5: sizes if metric else insert.inch_size_mm,
            6: insert.thickness_mm if metric else insert.inch_thickness_mm,
            7: insert.corner_mm if metric else insert.inch_corner_mm,
            8: insert.edges,
            9: insert.hands,
        }
        return list(dict.fromkeys(table.get(number, ())))
    first = 1 if isinstance(code, HolderCode) else 4
    sizes = list(insert.edge_codes.get(code.shape, {})) if metric else list(insert.inch_size_mm)
    table = {
        first: holder.clamping,
        first + 1: insert.shapes,
        first + 2: holder.styles,
        first + 3: [*insert.clearance_deg, "O"],
        first + 4: holder.hands,
    }
    if isinstance(code, HolderCode):
        shanks = [f"{size:02.0f}" for size in holder.shank_mm]
        squares = [f"{n:02d}" for n in holder.inch_square_sixteenths]
        table |= {6: shanks, 7: shanks, 8: holder.length_mm, 9: sizes, 10: holder.qualified} if metric else {
            6: squares, 7: sizes, 8: holder.inch_length_in}  # fmt: skip
    else:
        across = (
            [f"{d:02.0f}" for d in bar.diameter_mm] if metric else [f"{n:02d}" for n in bar.inch_diameter_sixteenths]
        )
        table |= {1: bar.kinds, 2: across, 3: holder.length_mm if metric else bar.inch_length_in, 9: sizes}
    return list(dict.fromkeys(table.get(number, ())))
