"""The person's own values of materials: kept apart from those that ship, each with where it comes from.

One JSON file beside the rack: ``{"C45": {"kc11_n_mm2": {"value": 2300, "source": "own test"}}}``. Speeds are named by
tool material and use, as ``coated carbide.rough_m_min``.
"""

import json
import shutil
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.model import Material
from toreuma.files.aside import free_name
from toreuma.files.home import home
from toreuma.files.reading import json_of
from toreuma.files.writing import write_atomically

__all__ = ["FIELDS", "Own", "own_faults", "own_values", "set_own", "speed_fields", "value_of", "with_own"]

FIELDS = (
    "kc11_n_mm2",
    "mc",
    "density_kg_m3",
    "hardness_hb",
    "e_n_mm2",
    "conductivity_w_m_k",
    "heat_j_kg_k",
    "alpha_um_m_k",
    "finish_ratio",
)
SPEED_FIELDS = ("rough_m_min", "finish_m_min", "part_off_m_min", "exponent")

MOST_BYTES = 5_000_000
SET_ASIDE = "it is set aside, and a new one begun, when a value is kept"

Own = dict[str, dict[str, dict[str, Any]]]
"""Material, field, then ``value`` and ``source``."""


def speed_fields(material: Material) -> list[str]:
    """The fields of a material's starting speeds, as ``tool material.field``."""
    return [f"{row.tool_material}.{field}" for row in material.speeds for field in SPEED_FIELDS]


def value_of(material: Material, field: str) -> float | None:
    """A value by its field."""
    if "." not in field:
        return getattr(material, field, None)
    tool, name = field.split(".", 1)
    row = next((row for row in material.speeds if row.tool_material == tool), None)
    return getattr(row, name, None) if row else None


def own_values() -> Own:
    """What the person has set; nothing where there is no such file. Raises `JobError` when it cannot be read."""
    return {name: {field: entry for field, entry in row.items() if isinstance(entry, dict)}
            for name, row in _as_it_lies().items() if isinstance(row, dict)}  # fmt: skip


def own_faults() -> list[JobError]:
    """Entries of the file that are none; they are passed over and stay where they are."""
    return [
        JobError(str(_path()), f"the entry for {name} is no list of values", "mend it in the file")
        for name, row in _as_it_lies().items()
        if not (isinstance(row, dict) and all(isinstance(entry, dict) for entry in row.values()))
    ]


def _path() -> Path:
    return home() / "materials.json"


def _as_it_lies() -> dict[str, Any]:
    try:
        found = json_of(_path(), MOST_BYTES)
    except FileNotFoundError:
        return {}
    except JobError as error:
        raise JobError(str(_path()), f"own material values cannot be read ({error.what})", SET_ASIDE) from None
    if not isinstance(found, dict):
        raise JobError(str(_path()), "is no list of own values", SET_ASIDE)
    return found


def with_own(shipped: dict[str, Material], own: Own) -> dict[str, Material]:
    """Materials with own values; those of unknown materials or fields, or out of range, are passed over."""
    found = dict(shipped)
    for name, values in own.items():
        for field, entry in values.items() if isinstance(values, dict) else ():
            if name in found and isinstance(entry, dict):
                try:
                    found[name] = _changed(found[name], field, entry.get("value"), str(entry.get("source", "own")))
                except JobError:
                    continue
    return found


def set_own(shipped: dict[str, Material], name: str, field: str, value: float | None, source: str) -> None:
    """Keep an own value, or with None go back to what ships. Raises `JobError`."""
    if name not in shipped:
        raise JobError(f"material {name}", "there is no such material", "choose one from the list")
    if field not in (*FIELDS, *speed_fields(shipped[name])):
        raise JobError(f"material {name}", f"has no value '{field}'", "choose one of its values")
    try:
        own, whole = own_values(), not own_faults()
    except JobError:
        own, whole = {}, False
    mine = dict(own.get(name, {}))
    mine.pop(field, None)
    if value is not None:
        _changed(shipped[name], field, value, source)
        mine[field] = {"value": value, "source": source.strip() or "own"}
    own = {**{key: kept for key, kept in own.items() if key != name}, **({name: mine} if mine else {})}
    path = _path()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        if not whole:
            shutil.copy2(path, free_name(path))
        write_atomically(path, json.dumps(own, indent=1, ensure_ascii=False) + "\n")
    except OSError as error:
        raise JobError(
            str(path), f"cannot be written ({error.strerror})", "free the place or set TOREUMA_HOME"
        ) from error


def _changed(material: Material, field: str, value: object, source: str) -> Material:
    """A material with one value changed. Raises `JobError` for what cannot be."""
    try:
        note = f"{material.source}; {field}: {source}"[:120]
        if "." not in field:
            if field not in FIELDS:
                raise JobError(f"material {material.name}", f"has no value '{field}'", "choose one of its values")
            kept = {**dict(material.sources), field: source[:120] or "own"}
            return material.changed(**{field: value}, source=note, sources=tuple(sorted(kept.items())))
        tool, name = field.split(".", 1)
        rows = tuple(
            row.changed(**{name: value}, source=_told(row.source, name, source))
            if row.tool_material == tool and name in SPEED_FIELDS
            else row
            for row in material.speeds
        )
        return material.changed(speeds=rows, source=note)
    except ValidationError as error:
        what = error.errors()[0]["msg"]
        raise JobError(f"{material.name}, {field}", f"cannot be {value}: {what}", "type a usual value") from error


def _told(before: str, name: str, source: str) -> str:
    """What is said of a row's own values, one after the other."""
    words = f"{name.removesuffix('_m_min').replace('_', ' ')} {source}"
    return f"{before}; {words}"[-400:] if before else words[:400]
