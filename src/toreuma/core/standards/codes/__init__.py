"""Designations of inserts, holders and boring bars, read and written, metric and inch."""

from toreuma.core.standards.codes.bar import bar_text, read_bar
from toreuma.core.standards.codes.decode import decode
from toreuma.core.standards.codes.faults import CodeError
from toreuma.core.standards.codes.holder import holder_text, read_holder
from toreuma.core.standards.codes.insert import insert_text, read_insert
from toreuma.core.standards.codes.positions import BarCode, HolderCode, InsertCode, Position
from toreuma.core.standards.codes.tables import CodeTables

__all__ = [
    "BarCode",
    "CodeError",
    "CodeTables",
    "HolderCode",
    "InsertCode",
    "Position",
    "bar_text",
    "decode",
    "holder_text",
    "insert_text",
    "read_bar",
    "read_holder",
    "read_insert",
]
