"""Limits of a diameter as people type them: ``h6``, ``H7``, ``+0.02/-0.01``, ``±0.05``."""

import re

from toreuma.app.forms.part_edits import chained, changed_element
from toreuma.core.errors import PartError
from toreuma.core.model import Job, Size
from toreuma.core.standards.fits import tolerance_of
from toreuma.core.units import System, parse, show
from toreuma.shipped.standards import fit_tables

__all__ = ["size_of", "size_text", "with_size"]

ZONE = re.compile(r"^[A-Za-z]{1,2}\d{1,2}$")


def size_text(size: Size | None, system: System) -> str:
    """Limits as a person typed them."""
    if size is None:
        return ""
    if size.fit:
        return size.fit
    return "/".join(_signed(um / 1000, system) for um in (size.upper_um, size.lower_um))


def _signed(mm: float, system: System) -> str:
    return ("+" if mm >= 0 else "") + show(mm, "mm", system, trim=True).number


def size_of(text: str, d_mm: float, system: System) -> Size | None:
    """Limits from typed text for a diameter. Raises `ToreumaError`."""
    plain = text.replace("\u2212", "-").strip()
    if not plain:
        return None
    if ZONE.match(plain):
        found = tolerance_of(d_mm, plain, fit_tables())
        return Size(fit=plain, lower_um=found.lower_um, upper_um=found.upper_um)
    if plain.startswith(("±", "+-")):
        half = abs(parse(plain.lstrip("±+-"), "mm", system)) * 1000
        return Size(lower_um=-half, upper_um=half)
    parts = [part.strip() for part in re.split(r"\s*/\s*(?=[-+0])|\s+(?=[-+])", plain) if part.strip()]
    if len(parts) != 2:
        raise PartError(-1, "size", f"'{text}' is no tolerance", "type h6, +0.02/-0.01 or ±0.05")
    values = sorted(parse(part.lstrip("+"), "mm", system) * 1000 for part in parts)
    return Size(lower_um=round(values[0], 4), upper_um=round(values[1], 4))


def with_size(job: Job, side: str, index: int, text: str) -> Job:
    """The job with the limits of one cylinder changed. Raises `ToreumaError`."""
    element = chained(job, side)[index]
    return changed_element(job, side, index, size=size_of(text, element.d_mm, job.units))
