"""Metric threads: profile of ISO 68-1, tolerances of ISO 965-1."""

import math
import re
from bisect import bisect_left

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.rounding import to_r40
from toreuma.core.standards.threads.tables import MetricTables, Row, ThreadTables, by_pitch
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["METRIC", "metric_thread", "pitch_tolerance_um"]

_N = r"\d+(?:[.,]\d+)?"
_LEFT = r"[\s-]*LH"
METRIC = re.compile(
    rf"^[Mm]\s*(?P<d>{_N})"
    rf"(?:\s*[xX×*]\s*(?:Ph\s*(?P<lead>{_N})\s*P\s*(?P<p2>{_N})|(?P<lead3>{_N})\s*\(\s*P\s*(?P<p3>{_N})\s*\)|(?P<p>{_N})))?"
    rf"(?P<left1>{_LEFT})?"
    r"(?:[\s-]+(?P<tol>\d[A-Za-z](?:\d[A-Za-z])?)(?:\s*/\s*(?P<tol2>\d[A-Za-z](?:\d[A-Za-z])?))?)?"
    rf"(?P<left>{_LEFT})?$"
)
"""``M10``, ``m12x1,5``, ``M10x1.5-6g``, ``M8 6H``, ``M8-5g6g``, ``M12-6H/6g``, ``M20x1.5-6H LH``, ``M20x1.5-LH-6g``,
``M16xPh3P1.5-6g`` and ``M16x3(P1.5)`` with two starts."""

FINE_UP_TO_MM = 1.4
"""Up to this diameter a thread without a class is 6h and 5H (ISO 965-1)."""

SOURCE = "ISO 68-1, ISO 965-1"


def metric_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Limits of a metric thread. Raises `StandardError`."""
    table = tables.metric
    d = _number(match["d"])
    typed = match["p"] or match["p2"] or match["p3"]
    pitch = _number(typed) if typed else by_pitch(table.coarse_pitch_mm, d)
    name = match.string.strip()
    if pitch is None:
        raise StandardError(name, f"M{d:g} has no standard coarse pitch", f"give the pitch, like M{d:g}x1")
    if not 1 <= d <= 355 or not 0.2 <= pitch <= 8 or pitch > d / 2:
        raise StandardError(
            name, "the standard has no such thread", "use M1 to M355 with a pitch of 0.2 to 8 mm below half of it"
        )
    said = match["lead"] or match["lead3"]
    starts = round(_number(said) / pitch) if said else 1
    if starts < 1 or (said and abs(starts * pitch - _number(said)) > 1e-9):
        raise StandardError(
            name, "the lead is no multiple of the pitch", f"write it like M{d:g}xPh{2 * pitch:g}P{pitch:g}"
        )
    lead = f"Ph{starts * pitch:g}P" if starts > 1 else ""
    ext, internal = _classes(name, d, match["tol"] or "", match["tol2"] or "")
    left = bool(match["left"] or match["left1"])
    return Thread(
        designation=f"M{d:g}x{lead}{pitch:g}{' LH' if left else ''}",
        family="metric",
        starts=starts,
        d_mm=d,
        pitch_mm=pitch,
        flank_deg=60.0,
        external=_external(name, d, pitch, ext, table),
        internal=_internal(name, d, pitch, internal, table),
        depth_external=0.613434 * pitch,
        depth_internal=0.541266 * pitch,
        tap_drill_mm=tables.tap_drills_mm.get(f"M{d:g}x{pitch:g}", d - pitch),
        source=table.source,
        left_hand=left,
    )


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _classes(name: str, d: float, first: str, second: str) -> tuple[str, str]:
    """Tolerance classes outside and inside, as typed or as the standard means them where none is."""
    ext, internal = ("6h", "5H") if d <= FINE_UP_TO_MM else ("6g", "6H")
    for one in filter(None, (first, second)):
        if one[-1].islower():
            ext = one
        else:
            internal = one
    if first and second and first[-1].islower() is second[-1].islower():
        raise StandardError(name, f"{first}/{second} names two classes of one side", "write nut/bolt, like 6H/6g")
    return ext, internal


def _external(name: str, d: float, pitch: float, tolerance: str, table: MetricTables) -> Side:
    """Major, pitch and minor limits; the least minor diameter is that of the rounded root, d2 - 0.616025 P."""
    pitch_zone, major_zone = tolerance[:2], tolerance[2:] or tolerance[:2]
    es = allowance_um(name, pitch_zone[1], pitch, table.allowance_um) / 1000
    td = _grade(name, "major_external", major_zone[0], 180 * pitch ** (2 / 3) - 3.15 / math.sqrt(pitch), pitch, table)
    td2 = pitch_tolerance_um(name, "pitch_external", pitch_zone[0], d, pitch, table) / 1000
    d2 = round(d - 0.649519 * pitch, 3) - es
    return Side(
        _um(d - es - td / 1000, d - es),
        _um(d2 - td2, d2),
        _um(d2 - td2 - 0.616025 * pitch, round(d - 1.082532 * pitch, 3) - es),
        tolerance,
    )


def _um(least: float, most: float) -> Limits:
    """Limits in whole micrometres, as the standard prints them."""
    return Limits(round(least, 3), round(most, 3))


def _internal(name: str, d: float, pitch: float, tolerance: str, table: MetricTables) -> Side:
    """Major, pitch and minor limits; the greatest major diameter leaves the tap its crest, D2 + 0.793857 P."""
    pitch_zone, minor_zone = tolerance[:2], tolerance[2:] or tolerance[:2]
    letter = pitch_zone[1].lower()
    if letter not in "hg":
        raise StandardError(name, f"internal threads have no position {letter.upper()}", "use 6H or 6G")
    ei = allowance_um(name, letter, pitch, table.allowance_um) / 1000
    basic = 230 * pitch**0.7 if pitch >= 1 else 433 * pitch - 190 * pitch**1.22
    td1 = _grade(name, "minor_internal", minor_zone[0], basic, pitch, table) / 1000
    td2 = pitch_tolerance_um(name, "pitch_internal", pitch_zone[0], d, pitch, table) / 1000
    d2, d1 = round(d - 0.649519 * pitch, 3) + ei, round(d - 1.082532 * pitch, 3) + ei
    return Side(_um(d + ei, d2 + td2 + 0.793857 * pitch), _um(d2, d2 + td2), _um(d1, d1 + td1), tolerance)


def allowance_um(name: str, letter: str, pitch: float, rows: dict[str, Row]) -> float:
    """Fundamental deviation, µm, positive away from the basic profile."""
    if letter == "h":
        return 0.0
    row = rows.get(letter)
    if row is None:
        known = ", ".join(rows)
        raise StandardError(name, f"the standard has no position '{letter}'", f"use one of {known}")
    listed = by_pitch(row, pitch)
    base = {"g": 15.0, "f": 30.0, "e": 50.0}.get(letter)
    if listed is None and base is None:
        raise StandardError(name, f"position {letter} is not given for pitch {pitch:g}", "use another position")
    return listed if listed is not None else round(base + 11 * pitch)  # type: ignore[operator]


def pitch_tolerance_um(name: str, which: str, grade: str, d: float, pitch: float, table: MetricTables) -> float:
    """``Td2`` or ``TD2``, µm, as the standard prints it; for a pitch its table does not list in this step of diameters
    90 P^0.4 d^0.1 times the grade's factor, d the mean of the step."""
    steps = table.diameter_steps_mm
    index = min(max(bisect_left(steps, d), 1), len(steps) - 1)
    rows = table.pitch_um[which][f"{steps[index - 1]:g}"]
    mean = math.sqrt(steps[index - 1] * steps[index])
    return _tolerance(name, which, grade, rows, 90 * pitch**0.4 * mean**0.1, pitch, table)


def _grade(name: str, which: str, grade: str, basic_um: float, pitch: float, table: MetricTables) -> float:
    return _tolerance(name, which, grade, table.crest_um[which], basic_um, pitch, table)


def _tolerance(
    name: str, which: str, grade: str, rows: dict[str, Row], basic_um: float, pitch: float, table: MetricTables
) -> float:
    """A tolerance of the table, or by the formula where the pitch has no row. Raises `StandardError`."""
    row, factors = rows.get(f"{pitch:g}"), table.grade_factors[which]
    known = list(row) if row is not None else list(factors)
    if grade not in known:
        what = f"there is no grade {grade} for this diameter and pitch"
        raise StandardError(name, what, f"use one of {', '.join(known)}")
    return row[grade] if row is not None else to_r40(factors[grade] * basic_um)
