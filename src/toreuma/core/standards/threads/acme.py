"""The 29 degree inch threads of lead screws: general purpose and centralizing (ASME B1.5), and stub (ASME B1.8)."""

import math
import re

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, inch_size, listed_size
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["ACME", "acme_thread"]

ACME = re.compile(
    rf"^(?:(?P<stub>STUB\s*)?ACME\s*)?(?P<size>{INCH_SIZE})\s*-\s*(?P<tpi>\d+(?:\.\d+)?)\s*-?\s*"
    r"(?P<stub2>STUB\s*-?\s*)?(?:ACME)?\s*-?\s*(?P<cls>[234][GC])?(?P<left>\s*-?\s*LH)?$",
    re.I,
)
"""``1-5 ACME-2G``, ``ACME 3/4-6``, ``1/2-10 ACME-3C``, ``1/2-10 STUB ACME``; the word must stand somewhere."""

COARSE_IN, COARSE_CLEARANCE_IN, FINE_CLEARANCE_IN = 0.1, 0.020, 0.010
"""Clearance on diameter at crest and root: that of ten threads per inch and coarser, and of finer ones."""

LEAST_TOLERANCE_IN = 0.005
"""Of crests that do not centre: a twentieth of the pitch, and no less."""

STUB_HEIGHT = 0.3
"""Height of the stub form in pitches; half a pitch is that of the others."""


def acme_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Class 2G to 4G, centralizing 2C to 4C, or stub 2G; formulas in inches. Raises `StandardError`.

    Pitch diameter outside: allowance ``a sqrt(D)``, tolerance ``b sqrt(D) + c sqrt(p)`` by class. Centralizing threads
    touch on their major diameters: outside ``D`` less ``e sqrt(D)``, inside from ``D + 0.001 sqrt(D)``; their inside
    minor diameter begins at ``D - 0.9 p``.
    """
    name, stub = match.string.strip(), bool(match["stub"] or match["stub2"])
    tpi = float(match["tpi"])
    d, p = inch_size(match["size"]), 1 / tpi if tpi else 0.0
    cls = (match["cls"] or "2G").upper()
    if stub and cls != "2G":
        raise StandardError(name, f"stub threads have no class {cls}", "use 2G or leave it out")
    if not 0.2 <= d <= 5 or not 1 / 16 <= p <= 1 or p >= d:
        raise StandardError(name, "the standard has no such thread", "use 1/4 to 5 inch with 16 to 2 threads per inch")
    height = STUB_HEIGHT if stub else 0.5
    external, internal = _sides(d, p, cls, height, tables)
    depth = (height * p + _clearance(p) / 2) * MM
    kind = "STUB ACME" if stub else f"ACME-{cls}" if cls[-1] == "C" else "ACME"
    return Thread(
        designation=f"{listed_size(match['size'])}-{1 / p:g} {kind}{' LH' if match['left'] else ''}",
        family="acme",
        d_mm=d * MM,
        pitch_mm=p * MM,
        flank_deg=29.0,
        external=external,
        internal=internal,
        depth_external=depth,
        depth_internal=depth,
        tap_drill_mm=internal.minor.min,
        source=tables.acme.source,
        left_hand=bool(match["left"]),
    )


def _clearance(p: float) -> float:
    return COARSE_CLEARANCE_IN if p >= COARSE_IN - 1e-9 else FINE_CLEARANCE_IN


def _sides(d: float, p: float, cls: str, height: float, tables: ThreadTables) -> tuple[Side, Side]:
    """Limits outside and inside; all inches."""
    shares, root_d = tables.acme.classes[f"{cls[0]}G"], math.sqrt(d)
    allowance = shares.allowance * root_d
    tolerance = shares.diameter * root_d + shares.pitch * math.sqrt(p)
    crest, loose = _clearance(p), max(0.05 * p, LEAST_TOLERANCE_IN)
    pitch, minor = d - height * p, d - 2 * height * p
    root = minor - crest
    root_tolerance = tolerance if height == STUB_HEIGHT else 1.5 * tolerance
    majors = _mm(d - loose, d), _mm(d + crest, d + 2 * crest)
    inside = minor
    if centre := tables.acme.centralizing.get(cls):
        begin = d + tables.acme.centralizing_allowance * root_d
        majors = _mm(d - centre.external * root_d, d), _mm(begin, begin + centre.internal * root_d)
        inside = minor + 0.1 * p
    external = Side(
        majors[0], _mm(pitch - allowance - tolerance, pitch - allowance), _mm(root - root_tolerance, root), cls
    )
    internal = Side(majors[1], _mm(pitch, pitch + tolerance), _mm(inside, inside + loose), cls)
    return external, internal


def _mm(low: float, high: float) -> Limits:
    return Limits(low * MM, high * MM)
