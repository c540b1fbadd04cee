"""The person's own rack: what is in the drawer, how many edges are left, where it sits."""

import csv
import io
import json
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError

from toreuma.core.errors import JobError
from toreuma.core.model.catalogue import RackItem
from toreuma.files.home import home
from toreuma.files.jobs import validation_line, write_atomically

__all__ = ["load_rack", "rack_csv", "rack_path", "read_rack", "save_rack"]

ITEMS: TypeAdapter[tuple[RackItem, ...]] = TypeAdapter(tuple[RackItem, ...])
COLUMNS = ("code", "edges_left", "place", "price", "measured", "note")
OTHER_HEADINGS: dict[str, tuple[str, ...]] = {
    "code": ("designation", "tool", "item", "article", "part no", "part number", "iso", "iso code", "type"),
    "edges_left": ("edges", "edges left", "qty", "quantity", "count", "stock", "pcs", "pieces", "on hand"),
    "place": ("location", "drawer", "bin", "shelf", "cabinet", "rack", "position"),
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
    try:
        return ITEMS.validate_python(json.loads(path.read_text(encoding="utf-8")))
    except (OSError, ValueError, ValidationError):
        raise JobError(str(path), "this is no rack", "move the file away; a new one is begun") from None


def save_rack(items: Iterable[RackItem], path: Path | None = None) -> None:
    """Write the rack. Raises `JobError` where the place cannot be written."""
    path = path or rack_path()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
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
    try:
        raw = path.read_bytes()
    except OSError as error:
        raise JobError(str(path), f"it cannot be read ({error.strerror})", "choose another file") from None
    if len(raw) > MOST_BYTES:
        raise JobError(path.name, "this is too large for a rack", "choose a table of tools")
    text = raw.decode("utf-8-sig", errors="replace")
    rows = _json_rows(text, path.name) if text.lstrip().startswith("[") else _table(text)
    if not rows or not isinstance(rows[0], dict):
        raise JobError(path.name, "there are no rows in it", f"give the columns {', '.join(COLUMNS)}")
    columns = columns or matched(str(one) for one in rows[0])
    if "code" not in columns:
        seen = ", ".join(str(one) for one in rows[0] if one)
        raise JobError(
            path.name, f"no column holds the code; it has {seen}", f"call it code, or one of {_names('code')}"
        )
    items, problems = [], []
    for number, row in enumerate(rows, start=2 if not text.lstrip().startswith("[") else 1):
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


def _names(column: str) -> str:
    return ", ".join(OTHER_HEADINGS[column][:5])


def _table(text: str) -> list[dict[str, Any]]:
    """Rows of a table parted by commas, semicolons or tabs."""
    first = text.splitlines()[0] if text.splitlines() else ""
    comma = max((";", "\t", ","), key=first.count) if first else ","
    return [dict(row) for row in csv.DictReader(io.StringIO(text), delimiter=comma)]


def _json_rows(text: str, where: str) -> list[dict[str, object]]:
    try:
        data: list[dict[str, object]] = json.loads(text)
    except ValueError:
        raise JobError(where, "this is no JSON", "export it again") from None
    return data
