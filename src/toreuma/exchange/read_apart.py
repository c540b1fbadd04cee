"""Drawings and models read in a process of their own."""

from collections.abc import Iterable
from pathlib import Path
from typing import Any

import shapely
from pydantic import ValidationError

from toreuma.core.errors import ImportFault
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Part
from toreuma.exchange.apart import Limits, Progress, run_apart, serve
from toreuma.exchange.dxf_in import GAP_MM
from toreuma.exchange.imports import Imported, checked_bytes
from toreuma.exchange.reading import read_part

__all__ = ["read_part_apart"]

LIMITS = Limits(wall_s=90.0)
BEYOND = "a size in it is beyond what a lathe can hold", "check the unit it is drawn in"


def read_part_apart(
    path: Path,
    layers: Iterable[str] | None = None,
    units: str | None = None,
    gap_mm: float = GAP_MM,
    check: Check = never_cancel,
    progress: Progress = lambda share: None,
    limits: Limits = LIMITS,
) -> Imported:
    """Read a DXF drawing or a STEP model as `read_part` does, where it can do no harm. Raises `ImportFault`."""
    checked_bytes(path)
    request = {
        "path": str(path.absolute()), "where": path.name, "layers": list(layers) if layers is not None else None,
        "units": units, "gap_mm": gap_mm,
    }  # fmt: skip
    said = run_apart("toreuma.exchange.read_apart", request, path.name, limits, check, progress)
    try:
        return Imported(
            part=Part.model_validate_json(said["part"]),
            drawn=shapely.from_wkb(bytes.fromhex(said["drawn"])),
            units=said["units"],
            deviation_um=said["deviation_um"],
            **{name: tuple(said[name]) for name in ("warnings", "ignored", "layers")},
        )
    except ValidationError:
        raise ImportFault(path.name, *BEYOND) from None


def _work(request: dict[str, Any], progress: Progress) -> dict[str, Any]:
    where = request["where"]
    try:
        found = read_part(
            Path(request["path"]), request["layers"], request["units"], request["gap_mm"], progress=progress
        )
    except ValidationError:
        raise ImportFault(where, *BEYOND) from None
    except shapely.errors.GEOSException:
        raise ImportFault(where, "its outline crosses itself or has no area", "draw it as one closed line") from None
    return {
        "part": found.part.model_dump_json(exclude_none=True),
        "drawn": shapely.to_wkb(found.drawn).hex(),
        "units": found.units,
        "deviation_um": found.deviation_um,
        **{name: list(getattr(found, name)) for name in ("warnings", "ignored", "layers")},
    }


if __name__ == "__main__":
    serve(_work)
