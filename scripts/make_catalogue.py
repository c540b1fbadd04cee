"""Writes the starter catalogue from its rules: `python scripts/make_catalogue.py`."""

import json
import sys
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).parent))

from catalogue.blades import blades
from catalogue.carriers import carriers
from catalogue.holes import hole_tools
from catalogue.inserts import inserts
from catalogue.mills import mills
from catalogue.threaders import threaders

from toreuma.shipped.paths import data_path

SOURCE = (
    "sizes: ISO 1832, ISO 5608 and 5610, ISO 6261, ISO 235 (DIN 338), ISO 494 (DIN 340), DIN 1869, DIN 6537, DIN 333, "
    "DIN 212, ISO 529, ISO 2283, widths of DIN 471 and 472; chip windows, grades, tooth feeds and sizes of blades and "
    "mills: typical, made up for this catalogue"
)
BLADED = ("parting", "grooving", "threading", "pull")


def tools() -> list[dict[str, Any]]:
    """Whole tools, each named by its code."""
    found = []
    for row in (*hole_tools(), *mills(), *blades(), *threaders()):
        code = row["name"]
        for bad in (" ", "/", "#"):
            code = code.replace(bad, "-")
        whole = {"id": code, "station": 1, **row}
        if row["kind"] not in BLADED:
            whole["code"] = row["name"]
        found.append(whole)
    return found


def main() -> None:
    data = {"inserts": inserts(), "carriers": carriers(), "tools": tools()}
    lines = ["{", f'  "source": {json.dumps(SOURCE)},']
    for key, rows in data.items():
        names = [row.get("name", row.get("code")) for row in rows]
        twice = {name for name in names if names.count(name) > 1}
        if twice:
            raise SystemExit(f"twice in {key}: {sorted(twice)}")
        body = ",\n".join(f"    {json.dumps(row, ensure_ascii=False)}" for row in rows)
        lines += [f'  "{key}": [', body, "  ]" + ("," if key != "tools" else "")]
    Path(data_path("tools"), "catalogue.json").write_text("\n".join([*lines, "}"]) + "\n", encoding="utf-8")
    print({key: len(value) for key, value in data.items()})


if __name__ == "__main__":
    main()
