"""The American straight pipe thread of free-fitting mechanical joints (ASME B1.20.1): 60 degrees, parallel."""

import re

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, listed_size
from toreuma.core.standards.threads.pipe import turns_agree
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["NPSM", "npsm_thread"]

NPSM = re.compile(
    rf"^(?:NPSM\s*(?P<a>{INCH_SIZE})(?:\"|in)?(?:\s*-\s*(?P<tpi2>\d+(?:\.\d+)?))?"
    rf"|(?P<b>{INCH_SIZE})(?:\"|in)?(?:\s*-\s*(?P<tpi>\d+(?:\.\d+)?))?\s*-?\s*NPSM)(?P<left>\s*-?\s*LH)?$",
    re.I,
)
"""``1/2-14 NPSM``, ``NPSM 1/2``."""

DEPTH, ENGAGED = 0.613434, 0.541266
"""Heights outside and inside in pitches: the form is that of unified threads."""


def npsm_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Limits as printed, outside 2A and inside 2B by that standard. Raises `StandardError`."""
    table, name = tables.npsm, match.string.strip()
    listed = listed_size(match["a"] or match["b"])
    size = table.sizes.get(listed)
    if size is None:
        raise StandardError(name, "the standard has no such size", f"use one of {', '.join(table.sizes)}")
    turns_agree(name, match["tpi"] or match["tpi2"], size.per_inch)
    p = MM / size.per_inch
    outside, pitch, minor = (
        _mm(one) for one in (size.pitch_external_in, size.pitch_internal_in, size.minor_internal_in)
    )
    d = pitch.min + 0.649519 * p
    roots = Limits(outside.min - 0.616025 * p, outside.max - 0.433013 * p)
    return Thread(
        designation=f"{listed}-{size.per_inch:g} NPSM{' LH' if match['left'] else ''}",
        family="npsm",
        d_mm=d,
        pitch_mm=p,
        flank_deg=60.0,
        external=Side(_mm(size.major_external_in), outside, roots, "2A"),
        internal=Side(Limits(d, pitch.max + 0.793857 * p), pitch, minor, "2B"),
        depth_external=DEPTH * p,
        depth_internal=ENGAGED * p,
        tap_drill_mm=minor.middle,
        source=table.source,
        left_hand=bool(match["left"]),
    )


def _mm(inches: tuple[float, float]) -> Limits:
    return Limits(inches[0] * MM, inches[1] * MM)
