"""Any designation: insert, holder or boring bar, whichever it can be."""

import re
from collections.abc import Callable, Iterator

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes.bar import bar_text, read_bar
from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.holder import holder_text, read_holder
from toreuma.core.standards.codes.insert import insert_text, read_insert
from toreuma.core.standards.codes.positions import BarCode, HolderCode, InsertCode, System
from toreuma.core.standards.codes.scan import closest
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["Code", "decode", "equivalents", "written"]

Code = InsertCode | HolderCode | BarCode


def decode(text: str, tables: CodeTables) -> Code:
    """What a code says. Raises `CodeError` with the position at fault and the nearest codes that can be."""
    if not re.sub(r"[\s\-_/]", "", text):
        raise CodeError(text, 1, "shape", "", tables.insert.shapes)
    if len(text) > 80:
        raise StandardError("code", "longer than any designation", "type one code")
    read = _reader(text, tables)
    try:
        return read(text, tables)
    except CodeError as fault:
        raise fault.near(closest(text, _mended(text, fault, read, tables))) from None


def _reader(text: str, tables: CodeTables) -> Callable[[str, CodeTables], Code]:
    """Bars begin with a letter and figures; holders have five letters; inserts four, or three in old inch codes."""
    bare = re.sub(r"[\s\-_/]", "", text.upper()).removeprefix("ISO")
    if re.match(r"[A-Z]\d", bare):
        return read_bar
    if re.match("W[A-Z]{3}L3", bare):  # the smallest trigons have a letter in their size, as left-hand holders do
        try:
            read_insert(text, tables.insert)
        except StandardError:
            return read_holder
        return _insert
    letters = re.match(r"[A-Z]*", bare)
    return read_holder if letters and len(letters.group(0)) >= 5 else _insert


def _insert(text: str, tables: CodeTables) -> Code:
    return read_insert(text, tables.insert)


def _mended(text: str, fault: CodeError, read: Callable[[str, CodeTables], Code], tables: CodeTables) -> Iterator[str]:
    """The text with each allowed symbol in place of what is wrong, where that can be read."""
    upper = re.sub(r"\s+", " ", text.strip().upper())
    at = upper.rfind(fault.found) if fault.position > 4 else upper.find(fault.found, max(fault.position - 1, 0))
    at = len(upper) if not fault.found or at < 0 else at
    for symbol in sorted(fault.allowed, key=lambda s: _apart(s, fault.found)):
        for width in {len(fault.found), len(symbol)} if fault.found else {0}:
            tried = upper[:at] + symbol + upper[at + width :]
            try:
                read(tried, tables)
            except StandardError:
                continue
            yield tried


def _apart(symbol: str, found: str) -> float:
    """How far a symbol is from what was typed: by number where both are numbers, else by place in the alphabet."""
    if symbol.isdigit() and found.isdigit():
        return abs(int(symbol) - int(found))
    return abs(ord(symbol[0]) - ord(found[0])) if symbol and found else 0.0


def written(code: Code, tables: CodeTables, system: System) -> str:
    """The designation of a decoded code in one of the systems. Raises `StandardError` where it has none."""
    if isinstance(code, InsertCode):
        return insert_text(code, tables.insert, system)
    return holder_text(code, tables, system) if isinstance(code, HolderCode) else bar_text(code, tables, system)


def equivalents(code: Code, tables: CodeTables) -> dict[str, str]:
    """The designation in both systems, as far as each has one."""
    found: dict[str, str] = {}
    systems: tuple[System, System] = ("metric", "inch")
    for system in systems:
        try:
            found[system] = written(code, tables, system)
        except StandardError:
            continue
    return found
