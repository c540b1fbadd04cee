"""The 55 degree inch threads of screws (BS 84): coarse BSW and fine BSF."""

import math
import re

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, inch_size, listed_size
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["WHITWORTH", "whitworth_thread"]

_CLASS = r"(?P<cls>close|medium|free|normal)"
WHITWORTH = re.compile(
    rf"^(?:(?P<kind>BS[WF])\s*(?P<size>{INCH_SIZE})|(?P<size2>{INCH_SIZE})(?:\"|in)?"
    r"(?:\s*-\s*(?P<tpi>\d+(?:\.\d+)?))?\s*-?\s*(?P<kind2>BS[WF]))"
    rf"(?:\s*-?\s*{_CLASS})?(?P<left>\s*-?\s*LH)?$",
    re.I,
)
"""``1/2 BSW``, ``BSF 3/8``, ``1/4-20 BSW``, ``1/2 BSW close``."""

HEIGHT = 0.640327
"""Of the form, in pitches; crest and root are round with 0.137329 P."""

SHARES = {"close": 2 / 3, "medium": 1.0, "free": 1.5, "normal": 1.5}
"""Of the tolerance of the medium class: free is for bolts, normal for nuts."""

ALLOWANCE, ALLOWED_TO_IN, LEAST_ALLOWED_IN = 0.3, 0.75, 0.25
"""Medium and free bolts of 3/4 inch and less are smaller by this share of the medium tolerance; below 1/4 inch by that
of 1/4 inch."""

MINOR_IN = ((26.0, 0.004), (22.0, 0.005), (0.0, 0.007))
"""Threads per inch and finer, and what the minor diameter of nuts may be off beside a fifth of the pitch, inches."""

DRILLED = 0.85
"""Share of a nut's minor tolerance that usual tap drills leave behind them: 5.1, 7.9 and 10.5 mm for 1/4, 3/8 and
1/2 BSW."""


def whitworth_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """BS 84, inches: ``T = 0.002 D^(1/3) + 0.003 L^(1/2) + 0.005 p^(1/2)`` with an engagement ``L`` of one diameter, on
    the pitch diameter; bolts ``+ 0.01 p^(1/2)`` on the major and ``+ 0.013 p^(1/2)`` on the minor diameter.

    Raises `StandardError` for sizes that are not listed.
    """
    name, kind = match.string.strip(), (match["kind"] or match["kind2"]).upper()
    said, rows = match["size"] or match["size2"], tables.whitworth.series[kind]
    listed = next((one for one in rows if abs(inch_size(one) - inch_size(listed_size(said))) < 1e-4), None)
    if listed is None:
        raise StandardError(name, f"{kind} has no such size", f"use one of {', '.join(rows)}")
    tpi = rows[listed]
    if match["tpi"] and abs(float(match["tpi"]) - tpi) > 1e-6:
        raise StandardError(name, f"{listed} {kind} has {tpi:g} threads per inch", f"write {listed}-{tpi:g} {kind}")
    cls = (match["cls"] or "medium").lower()
    external = _bolt(inch_size(listed), tpi, "free" if cls == "normal" else cls)
    internal = _nut(inch_size(listed), tpi, "normal" if cls == "free" else cls)
    depth = HEIGHT / tpi * MM
    return Thread(
        designation=f"{listed}-{tpi:g} {kind}{' ' + cls if match['cls'] else ''}{' LH' if match['left'] else ''}",
        family="whitworth",
        d_mm=inch_size(listed) * MM,
        pitch_mm=MM / tpi,
        flank_deg=55.0,
        external=external,
        internal=internal,
        depth_external=depth,
        depth_internal=depth,
        tap_drill_mm=internal.minor.min + DRILLED * (internal.minor.max - internal.minor.min),
        source=tables.whitworth.source,
        left_hand=bool(match["left"]),
    )


def _tolerance(d: float, p: float) -> float:
    """Of the pitch diameter in the medium class; inches."""
    return float(0.002 * d ** (1 / 3) + 0.003 * math.sqrt(d) + 0.005 * math.sqrt(p))


def _bolt(d: float, tpi: float, cls: str) -> Side:
    p = 1 / tpi
    t, root = SHARES[cls] * _tolerance(d, p), math.sqrt(p)
    off = 0.0
    if cls != "close" and d <= ALLOWED_TO_IN + 1e-9:
        off = ALLOWANCE * (_tolerance(d, p) if d >= LEAST_ALLOWED_IN else _tolerance(LEAST_ALLOWED_IN, 1 / 20))
    d, d2, d1 = d - off, d - off - HEIGHT * p, d - off - 2 * HEIGHT * p
    return Side(
        _mm(d - t - 0.01 * root, d), _mm(d2 - t, d2), _mm(d1 - t - 0.013 * root, d1), f"{cls} bolt"
    )  # fmt: skip


def _nut(d: float, tpi: float, cls: str) -> Side:
    p = 1 / tpi
    t, d2, d1 = SHARES[cls] * _tolerance(d, p), d - HEIGHT * p, d - 2 * HEIGHT * p
    loose = 0.2 * p + next(off for finest, off in MINOR_IN if tpi >= finest)
    return Side(_mm(d, d + t), _mm(d2, d2 + t), _mm(d1, d1 + loose), f"{cls} nut")


def _mm(low: float, high: float) -> Limits:
    return Limits(low * MM, high * MM)
