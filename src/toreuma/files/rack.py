"""The person's own rack: what is in the drawer, how many edges are left, where it sits."""

import csv
import io
import json
from collections.abc import Callable, Iterable
from pathlib import Path

from pydantic import TypeAdapter, ValidationError

from toreuma.core.errors import JobError
from toreuma.core.model.catalogue import RackItem
from toreuma.files.home import home
from toreuma.files.jobs import validation_line, write_atomically

__all__ = ["load_rack", "rack_csv", "rack_path", "read_rack", "save_rack"]

ITEMS: TypeAdapter[tuple[RackItem, ...]] = TypeAdapter(tuple[RackItem, ...])
COLUMNS = ("code", "edges_left", "place", "note")
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
        writer.writerow([item.code, item.edges_left, item.place, item.note])
    return out.getvalue()


def read_rack(path: Path, known: Callable[[str], bool] = lambda code: True) -> tuple[tuple[RackItem, ...], list[str]]:
    """Items of a CSV or JSON file, and a line for every row that was not understood. Raises `JobError`.

    ``known`` tells whether a code means anything here.
    """
    try:
        raw = path.read_bytes()
    except OSError as error:
        raise JobError(str(path), f"it cannot be read ({error.strerror})", "choose another file") from None
    if len(raw) > MOST_BYTES:
        raise JobError(path.name, "this is too large for a rack", "choose a table of tools")
    text = raw.decode("utf-8-sig", errors="replace")
    rows = _json_rows(text, path.name) if text.lstrip().startswith("[") else list(csv.DictReader(io.StringIO(text)))
    if not rows or not isinstance(rows[0], dict) or "code" not in rows[0]:
        raise JobError(path.name, "there is no column named code", f"give the columns {', '.join(COLUMNS)}")
    items, problems = [], []
    for number, row in enumerate(rows, start=2 if not text.lstrip().startswith("[") else 1):
        try:
            kept = {key: row[key] for key in COLUMNS if row.get(key) not in (None, "")}
            item = RackItem.model_validate(kept)
            items.append(item)
            if not known(item.code):
                problems.append(f"row {number}: '{item.code}' is in no catalogue and no designation; kept as it stands")
        except ValidationError as error:
            place, what = validation_line(error)
            problems.append(f"row {number}: {place} {what}")
    return tuple(items), problems


def _json_rows(text: str, where: str) -> list[dict[str, object]]:
    try:
        data: list[dict[str, object]] = json.loads(text)
    except ValueError:
        raise JobError(where, "this is no JSON", "export it again") from None
    return data
