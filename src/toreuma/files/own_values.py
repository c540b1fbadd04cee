"""Single values of the person's own, laid over what ships or what the shop has, each with where it comes from.

One JSON file a kind beside the rack: ``{"C45": {"kc11_n_mm2": {"value": 2300, "source": "own test"}}}``.
"""

import json
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar

from toreuma.core.errors import JobError
from toreuma.files.aside import free_name
from toreuma.files.home import home
from toreuma.files.reading import json_of
from toreuma.files.writing import write_atomically

__all__ = ["Layer", "Own", "laid_over", "own_faults", "own_values", "set_own"]

T = TypeVar("T")

MOST_BYTES = 5_000_000
SET_ASIDE = "it is set aside, and a new one begun, when a value is kept"

Own = dict[str, dict[str, dict[str, Any]]]
"""Name, field, then ``value`` and ``source``."""


@dataclass(frozen=True)
class Layer:
    """Values of one kind: what the kind is called, its file, the fields one of it has, and one of it with a field
    changed (value and source given), which raises `JobError` for what cannot be."""

    kind: str
    file: str
    fields: Callable[[Any], list[str]]
    changed: Callable[[Any, str, object, str], Any]

    @property
    def path(self) -> Path:
        return home() / self.file


def own_values(layer: Layer) -> Own:
    """What the person has set; nothing where there is no such file. Raises `JobError` when it cannot be read."""
    return {name: {field: entry for field, entry in row.items() if isinstance(entry, dict)}
            for name, row in _as_it_lies(layer).items() if isinstance(row, dict)}  # fmt: skip


def own_faults(layer: Layer) -> list[JobError]:
    """Entries of the file that are none; they are passed over and stay where they are."""
    return [
        JobError(str(layer.path), f"the entry for {name} is no list of values", "mend it in the file")
        for name, row in _as_it_lies(layer).items()
        if not (isinstance(row, dict) and all(isinstance(entry, dict) for entry in row.values()))
    ]


def _as_it_lies(layer: Layer) -> dict[str, Any]:
    try:
        found = json_of(layer.path, MOST_BYTES)
    except FileNotFoundError:
        return {}
    except JobError as error:
        what = f"own {layer.kind} values cannot be read ({error.what})"
        raise JobError(str(layer.path), what, SET_ASIDE) from None
    if not isinstance(found, dict):
        raise JobError(str(layer.path), "is no list of own values", SET_ASIDE)
    return found


def laid_over(layer: Layer, base: dict[str, T], own: Own) -> dict[str, T]:
    """Everything with own values; those of unknown names or fields, or out of range, are passed over."""
    found = dict(base)
    for name, values in own.items():
        for field, entry in values.items() if isinstance(values, dict) else ():
            if name in found and isinstance(entry, dict):
                try:
                    source = str(entry.get("source", "own"))
                    found[name] = layer.changed(found[name], field, entry.get("value"), source)
                except JobError:
                    continue
    return found


def set_own(layer: Layer, base: dict[str, Any], name: str, field: str, value: float | None, source: str) -> None:
    """Keep an own value, or with None go back to what lies below. Raises `JobError`."""
    if name not in base:
        raise JobError(f"{layer.kind} {name}", f"there is no such {layer.kind}", "choose one from the list")
    if field not in layer.fields(base[name]):
        raise JobError(f"{layer.kind} {name}", f"has no value '{field}'", "choose one of its values")
    try:
        own, whole = own_values(layer), not own_faults(layer)
    except JobError:
        own, whole = {}, False
    mine = dict(own.get(name, {}))
    mine.pop(field, None)
    if value is not None:
        layer.changed(base[name], field, value, source)
        mine[field] = {"value": value, "source": source.strip() or "own"}
    own = {**{key: kept for key, kept in own.items() if key != name}, **({name: mine} if mine else {})}
    try:
        layer.path.parent.mkdir(parents=True, exist_ok=True)
        if not whole:
            shutil.copy2(layer.path, free_name(layer.path))
        write_atomically(layer.path, json.dumps(own, indent=1, ensure_ascii=False) + "\n")
    except OSError as error:
        what = f"cannot be written ({error.strerror})"
        raise JobError(str(layer.path), what, "free the place or set TOREUMA_HOME") from error
