"""Unified inch threads: series and formulas of ASME B1.1."""

import math
import re
from decimal import ROUND_HALF_EVEN, ROUND_HALF_UP, Decimal

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, inch_size, listed_size
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["UNIFIED", "unified_thread"]

UNIFIED = re.compile(
    rf"^(?P<size>{INCH_SIZE})(?:\"|in)?\s*-?\s*(?P<tpi>(?<=[-\s])\d+(?:\.\d+)?)?\s*-?\s*(?P<series>UNEF|UNJ(?:EF|[CF])?|UNR[CF]|UN[CFRS]?)"
    r"?(?:\s*-?\s*(?P<cls>[123][AB]))?(?P<left>\s*-?\s*LH)?$",
    re.I,
)
"""``1/2-13 UNC-2A``, ``#10-32 UNF``, ``1/4-20``, ``5/16 UNF-3B``, ``1-12 UN``."""

BY_DIAMETER = (4.0, 6.0, 8.0)
"""Threads per inch of the constant pitches whose length of engagement is the diameter; others take nine pitches."""

THREE_PLACES_FROM_IN = 0.138
"""From #6 up minor diameters inside are printed in thousandths, but for the greatest of class 3B."""

PITCH_SHARE = {"1A": 1.5, "2A": 1.0, "3A": 0.75, "1B": 1.95, "2B": 1.3, "3B": 0.975}


def unified_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Limits of a unified thread; formulas in inches (ASME B1.1, 5.8). Raises `StandardError`."""
    table, name = tables.unified, match.string.strip()
    if "J" in (match["series"] or "").upper():
        what = "UNJ has a minor diameter and a root radius of its own (ASME B1.15), which is not listed here"
        raise StandardError(name, what, "take its limits from that standard; a UN thread of the same size is no UNJ")
    listed = _numbered(match, table.series) or listed_size(match["size"])
    d = inch_size(listed)
    series, per_inch = _series(name, listed, match, table.series)
    if not (0.05 < d <= 6) or not 3 <= per_inch <= 80 or 1 / per_inch > d / 2:
        raise StandardError(name, "the standard has no such thread", "use #0 to 6 inch with 3 to 80 threads per inch")
    p = 1 / per_inch
    cls = (match["cls"] or "").upper()
    a, b = (cls, f"{cls[0]}B") if cls.endswith("A") else (f"{cls[0]}A", cls) if cls else ("2A", "2B")
    engagement = d if series in ("UNC", "UNF") or (series == "UN" and per_inch in BY_DIAMETER) else 9 * p
    basic = 0.0015 * d ** (1 / 3) + 0.0015 * math.sqrt(engagement) + 0.015 * p ** (2 / 3)
    return Thread(
        designation=f"{listed}-{per_inch:g} {series}{' LH' if match['left'] else ''}",
        family="unified",
        d_mm=d * MM,
        pitch_mm=p * MM,
        flank_deg=60.0,
        external=_external(d, p, a, basic),
        internal=_internal(d, p, b, basic),
        depth_external=0.613434 * p * MM,
        depth_internal=0.541266 * p * MM,
        tap_drill_mm=tables.tap_drills_mm.get(f"{listed}-{per_inch:g}", (d - p) * MM),
        source=table.source,
        left_hand=bool(match["left"]),
    )


def _numbered(match: "re.Match[str]", series: dict[str, dict[str, float]]) -> str | None:
    """``10-24`` is the numbered size #10 when that series has so many threads per inch."""
    numbered = f"#{match['size']}"
    rows = [sizes[numbered] for sizes in series.values() if numbered in sizes]
    return numbered if match["tpi"] and float(match["tpi"]) in rows else None


def _series(name: str, listed: str, match: "re.Match[str]", series: dict[str, dict[str, float]]) -> tuple[str, float]:
    """Series and threads per inch, each found from the other when it is left out."""
    wanted = (match["series"] or "").upper().replace("R", "").replace("J", "")
    if match["tpi"]:
        per_inch = float(match["tpi"])
        found = next((key for key, sizes in series.items() if sizes.get(listed) == per_inch), "UN")
        if wanted in series and wanted != found:
            usual = series[wanted].get(listed)
            cure = f"{wanted} at {listed} has {usual:g} threads per inch" if usual else f"{wanted} has no size {listed}"
            raise StandardError(name, f"{per_inch:g} threads per inch is not {wanted}", cure)
        return (wanted if wanted == "UNS" else found), per_inch
    per = series.get(wanted, {}).get(listed)
    if per is None:
        raise StandardError(name, "the threads per inch are not given", f"write them, like {listed}-20 UN")
    return wanted, per


def _external(d: float, p: float, cls: str, basic: float) -> Side:
    """The allowance is 0.3 of the class 2A pitch tolerance, none for 3A."""
    allowance = 0.0 if cls == "3A" else _rounded(0.3 * basic, "even")
    major_tolerance = _rounded((0.090 if cls == "1A" else 0.060) * p ** (2 / 3))
    major, pitch = d - allowance, _rounded(d - 0.649519 * p) - allowance
    low = pitch - _rounded(PITCH_SHARE[cls] * basic)
    return Side(
        _mm(major - major_tolerance, major), _mm(low, pitch), _mm(low - 0.616025 * p, d - 1.082532 * p - allowance), cls
    )


def _internal(d: float, p: float, cls: str, basic: float) -> Side:
    pitch = _rounded(d - 0.649519 * p)
    high = pitch + _rounded(PITCH_SHARE[cls] * basic)
    places = 3 if d >= THREE_PLACES_FROM_IN else 4
    minor = _rounded(d - 1.082532 * p)
    most = minor + _rounded(_minor_tolerance(d, p, cls))
    least, most = _rounded(minor, places=places), _rounded(most, places=4 if cls == "3B" else places)
    return Side(_mm(d, high + 0.793857 * p), _mm(pitch, high), _mm(least, most), cls)


def _minor_tolerance(d: float, p: float, cls: str) -> float:
    """Tolerance of the internal minor diameter, in (ASME B1.1, 5.8.2)."""
    fine: float = 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002
    if cls == "3B":
        least = 0.23 * p - 1.5 * p**2 if p <= 1 / 13 else 0.120 * p
        return min(max(fine, least), 0.394 * p)
    least = 0.25 * p - 0.4 * p**2 if p <= 0.25 else 0.15 * p
    return min(max(fine, least), 0.394 * p) if d < 0.25 else least


def _rounded(inches: float, ties: str = "up", places: int = 4) -> float:
    """Worked out to six decimals, then rounded: tolerances and diameters with ties upward, allowances to the even."""
    worked = Decimal(repr(round(inches, 6)))
    how = ROUND_HALF_EVEN if ties == "even" else ROUND_HALF_UP
    return float(worked.quantize(Decimal(1).scaleb(-places), rounding=how))


def _mm(low: float, high: float) -> Limits:
    return Limits(low * MM, high * MM)
