"""The shop: the person's own machines, holds, materials, tools, bars and house rules, one open JSON file each.

They lie in one folder that can be copied, shared or kept under version control::

    shop/machines/our-slant-bed.json
    {"toreuma": "machine", "format": 1, "source": "its manual", "date": "2026-11-28", "value": {"name": …}}

Shipped data is never changed: an own entry stands beside it, and in its place where it has the same name.
"""

import json
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from toreuma.core.dialect import OwnDialect
from toreuma.core.errors import JobError
from toreuma.core.model import BarSize, Centre, Hold, HouseRules, Insert, Machine, Material, Rest
from toreuma.core.model.catalogue import InsertCarrier, WholeTool
from toreuma.files.home import home
from toreuma.files.jobs import validation_line
from toreuma.files.reading import json_of
from toreuma.files.writing import write_atomically

__all__ = [
    "FOLDERS",
    "Entry",
    "Shop",
    "entry_text",
    "load_shop",
    "read_entries",
    "remove_entry",
    "save_entry",
    "shop_folder",
]

FORMAT = 1
MOST_BYTES = 20_000_000
MOST_ENTRIES = 5_000

FOLDERS: dict[str, str] = {
    "machine": "machines",
    "hold": "holds",
    "centre": "centres",
    "rest": "rests",
    "material": "materials",
    "tool": "tools",
    "insert": "inserts",
    "holder": "holders",
    "bar": "bars",
    "rules": "rules",
    "dialect": "dialects",
}
"""Where entries of each kind lie."""

_MODELS: dict[str, TypeAdapter[Any]] = {
    "machine": TypeAdapter(Machine),
    "hold": TypeAdapter(Hold),
    "centre": TypeAdapter(Centre),
    "rest": TypeAdapter(Rest),
    "material": TypeAdapter(Material),
    "tool": TypeAdapter(WholeTool),
    "insert": TypeAdapter(Insert),
    "holder": TypeAdapter(InsertCarrier),
    "bar": TypeAdapter(BarSize),
    "rules": TypeAdapter(HouseRules),
    "dialect": TypeAdapter(OwnDialect),
}


@dataclass(frozen=True)
class Entry:
    """One thing of the shop. ``source`` says where its values come from, ``day`` when it was written (ISO 8601)."""

    kind: str
    name: str
    value: Any
    source: str = "own"
    day: str = ""


@dataclass(frozen=True)
class Shop:
    """Every entry that can be used, and a line for each that cannot; those files are left as they are."""

    entries: tuple[Entry, ...] = ()
    problems: tuple[JobError, ...] = ()

    def of(self, kind: str) -> dict[str, Entry]:
        """Entries of a kind by name."""
        return {one.name: one for one in self.entries if one.kind == kind}


def shop_folder() -> Path:
    """Where the shop is kept."""
    return home() / "shop"


def load_shop() -> Shop:
    """The shop as it lies on disk; never raises."""
    entries: list[Entry] = []
    problems: list[JobError] = []
    for kind, folder in FOLDERS.items():
        place = shop_folder() / folder
        try:
            files = sorted(place.glob("*.json"))[:MOST_ENTRIES] if place.is_dir() else []
        except OSError as error:
            problems.append(
                JobError(f"shop/{folder}", f"cannot be read ({error.strerror})", "check the folder's rights")
            )
            continue
        for path in files:
            try:
                entries.append(_read(path, kind))
            except JobError as error:
                problems.append(error)
    return Shop(tuple(entries), tuple(problems))


def _read(path: Path, kind: str) -> Entry:
    where = f"shop/{FOLDERS[kind]}/{path.name}"
    return _entry(_json(path, where), where, kind)


def _json(path: Path, where: str) -> Any:
    try:
        return json_of(path, MOST_BYTES)
    except FileNotFoundError:
        raise JobError(where, "there is no such file", "check its name") from None
    except JobError as error:
        raise JobError(where, error.what, "mend it, or move it out of the folder") from None


def _entry(data: Any, where: str, kind: str = "") -> Entry:
    """An entry of the shop from its JSON. Raises `JobError`."""
    if not isinstance(data, dict) or data.get("toreuma") not in FOLDERS:
        raise JobError(where, "this is no entry of a shop", f'"toreuma" names its kind: {", ".join(FOLDERS)}')
    found = str(data["toreuma"])
    if kind and found != kind:
        raise JobError(where, f"it is a {found}", f"move it to shop/{FOLDERS[found]}")
    version = data.get("format")
    if not isinstance(version, int):
        raise JobError(where, "there is no format in it", f'add "format": {FORMAT}')
    if version > FORMAT:
        what = f"it was written by a newer Toreuma (format {version}, this one reads {FORMAT})"
        raise JobError(where, what, "use it with that version")
    try:
        value = _MODELS[found].validate_python(data.get("value"))
    except ValidationError as error:
        place, what = validation_line(error)
        raise JobError(f"{where}: {place}" if place else where, what, "mend that value") from None
    name = str(data.get("name") or name_of(found, value))
    return Entry(found, name[:120], value, str(data.get("source", ""))[:200], str(data.get("date", ""))[:40])


def name_of(kind: str, value: Any) -> str:
    """What an entry is called."""
    if kind == "rules":
        return "house rules"
    if kind == "bar":
        return f"{value.shape} {value.size_mm:g}" + (f" x {value.bore_d_mm:g}" if value.bore_d_mm else "")
    name = getattr(value, "name", "") or getattr(value, "code", "") or getattr(value, "id", "")
    return str(name)


def _file_name(name: str) -> str:
    """A file name every system takes."""
    plain = re.sub(r"[^a-z0-9.]+", "-", name.lower()).strip("-.")
    return (plain or "entry")[:80] + ".json"


def _path_of(kind: str, name: str) -> Path:
    """The file of an entry: the one that holds it already, else one of its own name that is free."""
    folder = shop_folder() / FOLDERS[kind]
    plain = _file_name(name)
    for path in sorted(folder.glob("*.json")) if folder.is_dir() else ():
        try:
            data = json_of(path, MOST_BYTES)
            held = data.get("name") or name_of(kind, _MODELS[kind].validate_python(data.get("value")))
        except (OSError, ValueError, AttributeError, JobError):
            continue
        if held == name:
            return path
    count, path = 1, folder / plain
    while path.exists():
        count += 1
        path = folder / plain.replace(".json", f"-{count}.json")
    return path


def _body(entry: Entry) -> dict[str, Any]:
    dumped = _MODELS[entry.kind].dump_python(entry.value, mode="json", exclude_none=True)
    day = entry.day or date.today().isoformat()
    return {
        "toreuma": entry.kind, "format": FORMAT, "name": entry.name, "source": entry.source, "date": day,
        "value": dumped,
    }  # fmt: skip


def entry_text(entries: Iterable[Entry]) -> str:
    """Entries as one file: a single one as it lies in the shop, several as a list."""
    bodies = [_body(one) for one in entries]
    return json.dumps(bodies[0] if len(bodies) == 1 else bodies, indent=2, ensure_ascii=False) + "\n"


def save_entry(entry: Entry) -> Path:
    """Write an entry in place of the one of its name. Raises `JobError`."""
    if not entry.name.strip():
        raise JobError(entry.kind, "it has no name", "give it one")
    try:
        path = _path_of(entry.kind, entry.name)
        path.parent.mkdir(parents=True, exist_ok=True)
        write_atomically(path, entry_text([entry]))
    except OSError as error:
        what = f"it cannot be written ({error.strerror})"
        raise JobError(str(shop_folder()), what, "free the place or set TOREUMA_HOME") from None
    return path


def remove_entry(kind: str, name: str) -> None:
    """Take an entry out of the shop; its file stays beside it as ``~``. Raises `JobError`."""
    try:
        path = _path_of(kind, name)
        if not path.exists():
            raise JobError(f"{kind} {name}", "there is no such own entry", "choose one of the shop's own")
        path.replace(path.with_name(path.name + "~"))
    except OSError as error:
        raise JobError(str(shop_folder()), f"it cannot be changed ({error.strerror})", "check its rights") from None


def read_entries(path: Path) -> tuple[tuple[Entry, ...], tuple[JobError, ...]]:
    """Entries of a file, one or a list of them, and what in it cannot be used. Raises `JobError` for no such file."""
    data = _json(path, path.name)
    found: list[Entry] = []
    problems: list[JobError] = []
    for where, one in _each(data, path.name):
        try:
            found.append(_entry(one, where))
        except JobError as error:
            problems.append(error)
    return tuple(found), tuple(problems)


def _each(data: Any, where: str) -> Iterator[tuple[str, Any]]:
    if isinstance(data, list):
        yield from ((f"{where}[{i}]", one) for i, one in enumerate(data[:MOST_ENTRIES]))
    else:
        yield where, data
