"""Use cases of the shop: what it has, new entries by likeness, and entries handed on."""

from collections.abc import Callable, Iterable
from dataclasses import replace
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.advise.from_rack import with_rack
from toreuma.core.dialect import OwnDialect
from toreuma.core.errors import JobError
from toreuma.core.kinds.shop import FIELDS_OF, ShopField
from toreuma.core.model import BarSize, Insert, Tool
from toreuma.core.model.catalogue import Catalogue, InsertCarrier, RackItem
from toreuma.engine.library import drop_entry, keep_entry, library, renew
from toreuma.engine.own_dialects import in_lines, said_otherwise, whole
from toreuma.files.jobs import validation_line
from toreuma.files.rack import load_rack, save_rack
from toreuma.files.shop import Entry, entry_text, name_of, read_entries, save_entry
from toreuma.shipped.library import dialect as shipped_dialect
from toreuma.shipped.library import dialect_names, material_names
from toreuma.shipped.standards import code_tables

__all__ = [
    "by_code",
    "by_likeness",
    "called",
    "drop",
    "every",
    "exported",
    "keep",
    "of_shop",
    "put_on_rack",
    "renamed",
    "shown",
    "taken_in",
    "tool_shown",
    "with_field",
]

NAMED = ("machine", "hold", "centre", "rest", "material", "dialect")
NAMED_BY = {**dict.fromkeys(NAMED, "name"), "insert": "code", "holder": "code"}
"""The field that is what an entry is called."""


def of_shop(kind: str) -> dict[str, Any]:
    """Every entry of a kind by name, own ones first, then those that ship."""
    shop = library()
    if kind == "bar":
        return {name: entry.value for name, entry in shop.shop.of("bar").items()}
    if kind == "rules":
        return {"house rules": shop.rules}
    kinds: dict[str, Callable[[], dict[str, Any]]] = {
        "rack": lambda: {item.code: item for item in shop.rack()},
        "machine": lambda: shop.machines | _entries("machine"),
        "hold": lambda: dict(shop.holds),
        "centre": lambda: dict(shop.centres),
        "rest": lambda: dict(shop.rests),
        "material": lambda: shop.materials | _entries("material"),
        "tool": lambda: {name_of("tool", one): one for one in shop.catalogue.tools},
        "insert": lambda: {one.code: one for one in shop.catalogue.inserts},
        "holder": lambda: {one.code: one for one in shop.catalogue.carriers},
        "dialect": _dialects,
    }
    return kinds[kind]()


def _entries(kind: str) -> dict[str, Any]:
    """Own entries as they are typed, without what the log has laid over them."""
    return {name: entry.value for name, entry in library().shop.of(kind).items()}


def _dialects() -> dict[str, Any]:
    """The shop's own ways of writing, and those that ship as the ground for more."""
    own = {name: entry.value for name, entry in library().shop.of("dialect").items()}
    ships = (shipped_dialect(one) for one in dialect_names())
    return own | {one.name: OwnDialect(name=one.name, based_on=one.id) for one in ships if one.name not in own}


def every(kind: str) -> list[tuple[str, bool]]:
    """Names of a kind, and whether each is the shop's own."""
    own = library().shop.of(kind)
    return [(name, kind == "rack" or name in own) for name in of_shop(kind)]


def called(kind: str, text: str) -> list[tuple[str, bool]]:
    """Those of a kind that have every word of a text in their name, or in another name of theirs."""
    words = text.casefold().split()
    others = material_names().names if kind == "material" else {}

    def has(name: str) -> bool:
        more = others.get(name)
        every_name = " ".join((name, *(more.same if more else ()), *(more.near if more else ()))).casefold()
        return all(word in every_name for word in words)

    return [row for row in every(kind) if has(row[0])]


def keep(kind: str, name: str, value: Any, source: str = "own") -> None:
    """Keep an own entry, or a tool of the rack, in place of the one of its name. Raises `JobError`."""
    if kind != "rack":
        keep_entry(kind, name, value, source)
        return
    put_on_rack([value])


def put_on_rack(items: Iterable[RackItem]) -> tuple[RackItem, ...]:
    """The rack as it lies on disk with these in place of those of their codes, written. Raises `JobError`.

    A rack that cannot be read, or not whole, stays beside the new one under a dated name.
    """
    try:
        held = {item.code: item for item in load_rack()}
    except JobError:
        held = {}
    held |= {item.code: item for item in items}
    save_rack(held.values())
    renew()
    return tuple(held.values())


def drop(kind: str, name: str) -> None:
    """Take an own entry, or a tool of the rack, out. Raises `JobError`."""
    if kind != "rack":
        drop_entry(kind, name)
        return
    save_rack(item for item in load_rack() if item.code != name)
    renew()


def renamed(kind: str, value: Any, name: str) -> Any:
    """A value of the shop under another name. Raises pydantic's `ValidationError`."""
    if kind in NAMED_BY:
        return value.changed(**{NAMED_BY[kind]: name})
    if kind == "tool":
        plain = "".join(c if c.isalnum() or c in "_.-" else "-" for c in name).strip("-")[:40] or "tool"
        code = {"code": name} if "code" in type(value).model_fields else {}
        return value.changed(id=plain, name=name, **code)
    return value


def by_code(kind: str, code: str) -> Any:
    """An insert, a holder or a boring bar as its code says; None where it is no code of one."""
    read = with_rack(Catalogue(), [code], code_tables())
    found: Any = next(iter({"insert": read.inserts, "holder": read.carriers}.get(kind, ())), None)
    return found


def tool_shown(value: Any) -> Tool:
    """A tool to draw: a holder or a bar with an insert that fits it."""
    if not isinstance(value, InsertCarrier):
        found: Tool = value
        return found
    fitting = (one for one in library().catalogue.inserts if value.seat.takes(one))
    usual = Insert(shape="C", included_angle_deg=80, ic_mm=value.seat.ic_mm, thickness_mm=4.76, nose_radius_mm=0.8)
    return value.with_insert(next(fitting, usual), "T1")


def fields_of(kind: str, value: Any) -> tuple[ShopField, ...]:
    """What is asked of an entry; words of programs are chosen among the dialects there are."""
    dialects = tuple((one.name, name) for name, one in library().dialects.items())
    found = FIELDS_OF[kind](shown(value)) if kind in FIELDS_OF and value is not None else ()
    return tuple(
        replace(one, form="choice", options=((("as the machine wants", None),) if one.empty else ()) + dialects)
        if one.path == "dialect"
        else one
        for one in found
    )


def shown(value: Any) -> Any:
    """An entry as its fields show it. Raises `JobError`."""
    return whole(value) if isinstance(value, OwnDialect) else value


def with_field(value: Any, path: str, number: Any) -> Any:
    """A value with one field changed, named by its path as ``carriers.0.stations``. Raises `JobError`."""
    head, _, rest = path.partition(".")
    if isinstance(value, OwnDialect) and head not in OwnDialect.model_fields:
        return said_otherwise(value, with_field(whole(value), path, in_lines(path, number)))
    fields = getattr(type(value), "model_fields", {})
    if head not in fields:
        raise JobError(path, "there is no such field", f"choose from {', '.join(sorted(fields)) or 'none'}")
    held = getattr(value, head)
    try:
        if not rest:
            return value.changed(**{head: number})
        if isinstance(held, dict):
            kept = {key: one for key, one in held.items() if key != rest}
            return value.changed(**{head: kept if number is None or number == () else {**held, rest: number}})
        if isinstance(held, tuple):
            index, _, tail = rest.partition(".")
            if not index.isdigit() or int(index) >= len(held):
                raise JobError(path, f"there are {len(held)} of them", "count from 0")
            inner = with_field(held[int(index)], tail, number) if tail else number
            return value.changed(**{head: (*held[: int(index)], inner, *held[int(index) + 1 :])})
        if held is None:
            raise JobError(path, f"there is no {head.replace('_', ' ')} yet", "add it first")
        return value.changed(**{head: with_field(held, rest, number)})
    except ValidationError as error:
        place, what = validation_line(error)
        raise JobError(place or path, what, "type another value") from None


def by_likeness(kind: str, name: str, like: str, changes: list[tuple[str, Any]], source: str) -> Entry:
    """A new entry of the shop like another one, with what is known typed over, written. Raises `JobError`."""
    known = of_shop(kind)
    fields = dict(changes)
    if kind == "rack":
        item = RackItem.model_validate({"code": name, **fields})
        keep(kind, name, item)
        return Entry(kind, name, item, source)
    if like and like not in known:
        close = next((one for one in known if one.casefold() == like.casefold()), "")
        if not close:
            few = ", ".join(list(known)[:12])
            raise JobError(
                f"--like {like}", f"there is no such {kind}", f"choose from {few}" if few else "leave it out"
            )
        like = close
    try:
        if kind == "rules":
            value: Any = known["house rules"]
        elif kind == "bar" and not like:
            value = BarSize.model_validate({"size_mm": fields.pop("size_mm", None), **fields})
            fields = {}
        else:
            value = by_code(kind, name)
            if value is not None:
                like, source = "", "its code" if source == "own" else source
            else:
                value = renamed(kind, known[like or next(iter(known))], name)
        for path, number in fields.items():
            value = with_field(value, path, number)
    except ValidationError as error:
        place, what = validation_line(error)
        raise JobError(f"{kind} {name}: {place}", what, "type another value") from None
    note = f"{source}; else like {like}" if like and source else source
    entry = Entry(kind, "house rules" if kind == "rules" else name, value, note)
    save_entry(entry)
    renew()
    return entry


def exported(kind: str | None, name: str | None) -> str:
    """One entry, all own entries of a kind, or the whole shop as text. Raises `JobError`."""
    own = library().shop
    if kind is not None and name is not None:
        entry = own.of(kind).get(name)
        if entry is None:
            known = of_shop(kind)
            if name not in known:
                raise JobError(f"{kind} {name}", "there is no such entry", "toreuma shop list names them")
            entry = Entry(kind, name, known[name], getattr(known[name], "source", "") or "ships with Toreuma")
        return entry_text([entry])
    entries = [one for one in own.entries if kind in (None, one.kind)]
    if not entries:
        raise JobError("shop", "it has no entries of its own yet", "toreuma shop new makes one")
    return entry_text(entries)


def taken_in(path: Path) -> tuple[list[str], tuple[JobError, ...]]:
    """Take the entries of a file into the shop: what was taken, and what could not be. Raises `JobError`."""
    entries, problems = read_entries(path)
    for entry in entries:
        save_entry(entry)
    renew()
    return [f"{entry.kind} {entry.name}" for entry in entries], problems
