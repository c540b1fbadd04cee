"""The person's own rack: what is in the drawer, how many edges are left, where it sits."""

import csv
import io
import json
import shutil
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.json_text import json_from
from toreuma.core.model.catalogue import RackItem
from toreuma.files.aside import free_name
from toreuma.files.home import home
from toreuma.files.jobs import validation_line
from toreuma.files.reading import bytes_of, json_of
from toreuma.files.writing import write_atomically

__all__ = [
    "COLUMNS",
    "load_rack",
    "matched",
    "rack_csv",
    "rack_faults",
    "rack_path",
    "rack_rows",
    "read_rack",
    "save_rack",
]

COLUMNS = ("code", "edges_left", "place", "price", "measured", "note")
OTHER_HEADINGS: dict[str, tuple[str, ...]] = {
    "code": ("designation", "tool", "item", "article", "part no", "part number", "iso", "iso code", "type"),
    "edges_left": ("edges", "edges left", "qty", "quantity", "count", "stock", "pcs", "pieces", "on hand"),
    "place": ("location", "drawer", "bin", "shelf", "cabinet", "rack", "position", "where"),
    "price": ("cost", "unit price", "price each"),
    "measured": ("size measured", "measurement", "offset", "length measured"),
    "note": ("remark", "remarks", "comment", "comments", "description", "notes"),
}  # fmt: skip
"""What other tables call the columns, in small letters."""
MOST_BYTES = 5_000_000


def rack_path() -> Path:
    """Where the rack is kept."""
    return home() / "rack.json"


def load_rack(path: Path | None = None) -> tuple[RackItem, ...]:
    """The rack; empty when there is none yet. Raises `JobError`."""
    path = path or rack_path()
    if not path.exists():
        return ()
    return _readable(path)[0]


def rack_faults(path: Path | None = None) -> list[JobError]:
    """What of the rack cannot be read, row by row."""
    path = path or rack_path()
    try:
        return _readable(path)[1] if path.exists() else []
    except JobError as error:
        return [error]


def _readable(path: Path) -> tuple[tuple[RackItem, ...], list[JobError]]:
    """Tools of a rack, and a fault for every row that is none. Raises `JobError` where it is no rack at all."""
    try:
        rows = json_of(path, MOST_BYTES)
    except (FileNotFoundError, JobError):
        rows = None
    if not isinstance(rows, list):
        raise JobError(str(path), "this is no rack", "it is set aside, and a new one begun, when a tool is put there")
    items, faults = [], []
    for number, row in enumerate(rows, start=1):
        try:
            items.append(RackItem.model_validate(row))
        except ValidationError as error:
            place, what = validation_line(error)
            faults.append(JobError(f"{path.name}, tool {number}", f"{place} {what}".strip(), "mend it in the file"))
    return tuple(items), faults


def save_rack(items: Iterable[RackItem], path: Path | None = None) -> None:
    """Write the rack; one that could not be read whole is kept beside it under a dated name. Raises `JobError` where
    the place cannot be written."""
    path = path or rack_path()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        if rack_faults(path):
            shutil.copy2(path, free_name(path))
        write_atomically(path, json.dumps([item.model_dump() for item in items], indent=1, ensure_ascii=False) + "\n")
    except OSError as error:
        raise JobError(
            str(path), f"the rack cannot be written ({error.strerror})", "free the place or set TOREUMA_HOME"
        ) from None


def rack_csv(items: Iterable[RackItem]) -> str:
    """The rack as a table."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for item in items:
        writer.writerow([getattr(item, column) for column in COLUMNS])
    return out.getvalue()


def matched(headings: Iterable[str]) -> dict[str, str]:
    """Which heading of a table stands for which column of the rack, by what tables usually call them."""
    found: dict[str, str] = {}
    plain = {one: " ".join((one or "").lower().replace("_", " ").split()) for one in headings}
    for column in COLUMNS:
        names = (column.replace("_", " "), *OTHER_HEADINGS[column])
        ranked = sorted((names.index(low), one) for one, low in plain.items() if low in names)
        if ranked:
            found[column] = ranked[0][1]
    return found


def read_rack(
    path: Path, known: Callable[[str], bool] = lambda code: True, columns: dict[str, str] | None = None
) -> tuple[tuple[RackItem, ...], list[str]]:
    """Items of a CSV or JSON file, and a line for every row that was not understood. Raises `JobError`.

    ``known`` tells whether a code means anything here; ``columns`` which heading of the file stands for which column,
    where its own headings do not say so.
    """
    rows, first = rack_rows(path)
    columns = columns or matched(rows[0])
    if "code" not in columns:
        seen = ", ".join(str(one) for one in rows[0] if one)
        raise JobError(
            path.name, f"no column holds the code; it has {seen}", f"call it code, or one of {_names('code')}"
        )
    items, problems = [], []
    for number, row in enumerate(rows, start=first):
        try:
            kept = {key: row[one] for key, one in columns.items() if row.get(one) not in (None, "")}
            if isinstance(kept.get("price"), str):
                kept["price"] = kept["price"].replace(",", ".").strip("€$£ ")
            item = RackItem.model_validate(kept)
            items.append(item)
            if not known(item.code):
                problems.append(f"row {number}: '{item.code}' is in no catalogue and no designation; kept as it stands")
        except ValidationError as error:
            place, what = validation_line(error)
            problems.append(f"row {number}: {place} {what}")
    return tuple(items), problems


def rack_rows(path: Path) -> tuple[list[dict[str, Any]], int]:
    """Rows of a CSV or JSON file by their headings, and the number the first of them has there. Raises `JobError`."""
    try:
        raw = bytes_of(path, MOST_BYTES)
    except FileNotFoundError:
        raise JobError(path.name, "there is no such file", "choose another file") from None
    text = raw.decode("utf-8-sig", errors="replace")
    is_json = text.lstrip().startswith("[")
    rows = _json_rows(text, path.name) if is_json else _table(text, path.name)
    if not rows:
        raise JobError(path.name, "there are no rows in it", f"give the columns {', '.join(COLUMNS)}")
    return rows, 1 if is_json else 2


def _names(column: str) -> str:
    return ", ".join(OTHER_HEADINGS[column][:5])


def _table(text: str, where: str) -> list[dict[str, Any]]:
    """Rows of a table parted by commas, semicolons or tabs."""
    first = text.splitlines()[0] if text.splitlines() else ""
    comma = max((";", "\t", ","), key=first.count) if first else ","
    try:
        rows = list(csv.DictReader(io.StringIO(text, newline=""), delimiter=comma))
    except csv.Error as error:
        raise JobError(where, f"this is no table ({error})", "export it again as CSV") from None
    return [{head: cell for head, cell in row.items() if head is not None} for row in rows]


def _json_rows(text: str, where: str) -> list[dict[str, Any]]:
    data = json_from(text, where)
    if not isinstance(data, list):
        raise JobError(where, "this is no list of tools", "give a list of objects, one a tool")
    for number, row in enumerate(data, start=1):
        if not isinstance(row, dict):
            raise JobError(where, f"row {number} is no object", 'write each tool as {"code": "..."}')
    return [{str(key): cell for key, cell in row.items()} for row in data]
