"""The log as files that other tools open: one CSV a table, or one JSON with all of them."""

import base64
import csv
import io
import json
import zipfile
from typing import Any

from toreuma.log.store import Store

__all__ = ["as_csv", "as_csv_archive", "as_json"]


def as_csv(store: Store, table: str) -> str:
    """A table with its headings, as RFC 4180 has it."""
    out = io.StringIO()
    writer = None
    for row in store.rows(table):
        if writer is None:
            writer = csv.DictWriter(out, list(row), lineterminator="\r\n")
            writer.writeheader()
        writer.writerow({key: _plain(value) for key, value in row.items()})
    return out.getvalue()


def as_csv_archive(store: Store) -> bytes:
    """Every table as a CSV, in one archive."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for table in store.tables:
            archive.writestr(f"{table}.csv", as_csv(store, table))
    return out.getvalue()


def as_json(store: Store) -> str:
    """Everything, by table."""
    every = {table: [{k: _plain(v) for k, v in row.items()} for row in store.rows(table)] for table in store.tables}
    return json.dumps({"version": store.version, "tables": every}, ensure_ascii=False, indent=1)


def _plain(value: Any) -> Any:
    return base64.b64encode(value).decode() if isinstance(value, bytes) else value
