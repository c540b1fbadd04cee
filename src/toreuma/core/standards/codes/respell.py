"""Changing one position of a designation: what else may stand there, and the code that gives."""

from collections.abc import Iterable

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.decode import Code, decode
from toreuma.core.standards.codes.positions import HolderCode, InsertCode
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["respelled", "symbols_at"]

FREE_TEXT = "maker's free text"


def symbols_at(code: Code, number: int, tables: CodeTables) -> list[str]:
    """Every symbol that may stand at a position in place of the one that does, the rest of the code kept."""
    now = next((one.symbol for one in code.positions if one.number == number), "")
    parts = [one.symbol for one in code.positions if one.name != FREE_TEXT]
    at = next((i for i, one in enumerate(code.positions) if one.number == number), -1)
    found = []
    for symbol in _possible(code, number, tables):
        tried = _joined(code, [*parts[:at], symbol, *parts[at + 1 :]])
        try:
            read = decode(tried, tables)
        except StandardError:
            continue
        if read.kind == code.kind and any(one.number == number and one.symbol == symbol for one in read.positions):
            found.append(symbol)
    return found if now in found or not now else [now, *found]


def respelled(code: Code, number: int, symbol: str, tables: CodeTables) -> str:
    """The code with another symbol at a position."""
    parts = [symbol if one.number == number else one.symbol for one in code.positions if one.name != FREE_TEXT]
    return _joined(code, parts) + (f"-{code.tail}" if code.tail else "")


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
