"""A drawing or a model, told apart by what is in it."""

from collections.abc import Callable, Iterable
from pathlib import Path

from toreuma.core.errors import ImportFault
from toreuma.core.memo import Check, never_cancel
from toreuma.exchange.dxf_in import GAP_MM, read_dxf
from toreuma.exchange.imports import Imported, checked_bytes

__all__ = ["SUFFIXES", "read_part"]

SUFFIXES = (".dxf", ".step", ".stp")


def read_part(
    path: Path,
    layers: Iterable[str] | None = None,
    units: str | None = None,
    gap_mm: float = GAP_MM,
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
) -> Imported:
    """Read a DXF drawing or a STEP model. Raises `ImportFault` in one line."""
    if gap_mm < 0 or gap_mm > 10:
        raise ImportFault("gap", f"{gap_mm:g} mm is no sensible gap", "use 0 to 10 mm")
    if b"ISO-10303-21" in checked_bytes(path)[:2000] or path.suffix.lower() in (".step", ".stp"):
        from toreuma.exchange.step_in import read_step

        return read_step(path, check, progress)
    return read_dxf(path, layers, units, gap_mm, check, progress)
