"""Metric threads: profile of ISO 68-1, tolerances of ISO 965-1."""

import math
import re
from bisect import bisect_left

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.rounding import to_r40
from toreuma.core.standards.threads.tables import MetricTables, Row, ThreadTables, by_pitch
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["METRIC", "metric_thread", "pitch_tolerance_um"]

METRIC = re.compile(
    r"^M\s*(?P<d>\d+(?:\.\d+)?)(?:\s*[xX×*]\s*(?:Ph\s*(?P<lead>\d+(?:\.\d+)?)\s*P\s*)?(?P<p>\d+(?:\.\d+)?))?"
    r"(?:\s*-\s*(?P<tol>\d[A-Za-z](?:\d[A-Za-z])?))?"
    r"(?P<left>\s*-?\s*LH)?$"
)
"""``M10``, ``M10x1``, ``M10x1.5-6g``, ``M8-5g6g``, ``M20x1.5-6H LH``, ``M16xPh3P1.5-6g`` with two starts."""

SOURCE = "ISO 68-1, ISO 965-1"


def metric_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Limits of a metric thread. Raises `StandardError`."""
    table = tables.metric
    d = float(match["d"])
    pitch = float(match["p"]) if match["p"] else by_pitch(table.coarse_pitch_mm, d)
    name = match.string.strip()
    if pitch is None:
        raise StandardError(name, f"M{d:g} has no standard coarse pitch", f"give the pitch, like M{d:g}x1")
    if not 1 <= d <= 355 or not 0.2 <= pitch <= 8 or pitch > d / 2:
        raise StandardError(
            name, "the standard has no such thread", "use M1 to M355 with a pitch of 0.2 to 8 mm below half of it"
        )
    starts = round(float(match["lead"]) / pitch) if match["lead"] else 1
    if starts < 1 or (match["lead"] and abs(starts * pitch - float(match["lead"])) > 1e-9):
        raise StandardError(
            name, "the lead is no multiple of the pitch", f"write it like M{d:g}xPh{2 * pitch:g}P{pitch:g}"
        )
    lead = f"Ph{starts * pitch:g}P" if starts > 1 else ""
    tolerance = match["tol"] or ""
    ext, internal = ("6g", "6H")
    if tolerance:
        ext, internal = (tolerance, "6H") if tolerance[-1].islower() else ("6g", tolerance)
    return Thread(
        designation=f"M{d:g}x{lead}{pitch:g}{' LH' if match['left'] else ''}",
        family="metric",
        starts=starts,
        d_mm=d,
        pitch_mm=pitch,
        flank_deg=60.0,
        external=_external(name, d, pitch, ext, table),
        internal=_internal(name, d, pitch, internal, table),
        depth_external=0.613434 * pitch,
        depth_internal=0.541266 * pitch,
        tap_drill_mm=d - pitch,
        source=table.source,
        left_hand=bool(match["left"]),
    )


def _external(name: str, d: float, pitch: float, tolerance: str, table: MetricTables) -> Side:
    """Major, pitch and minor limits; the least minor diameter is that of the rounded root, d2 - 0.616025 P."""
    pitch_zone, major_zone = tolerance[:2], tolerance[2:] or tolerance[:2]
    es = allowance_um(name, pitch_zone[1], pitch, table.allowance_um) / 1000
    td = _grade(name, "major_external", major_zone[0], 180 * pitch ** (2 / 3) - 3.15 / math.sqrt(pitch), pitch, table)
    td2 = pitch_tolerance_um(name, "pitch_external", pitch_zone[0], d, pitch, table) / 1000
    d2 = d - 0.649519 * pitch - es
    return Side(
        Limits(d - es - td / 1000, d - es),
        Limits(d2 - td2, d2),
        Limits(d2 - td2 - 0.616025 * pitch, d - 1.082532 * pitch - es),
        tolerance,
    )


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
    d2, d1 = d - 0.649519 * pitch + ei, d - 1.082532 * pitch + ei
    return Side(Limits(d + ei, d2 + td2 + 0.793857 * pitch), Limits(d2, d2 + td2), Limits(d1, d1 + td1), tolerance)


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
    """``Td2`` or ``TD2``, µm: 90 P^0.4 d^0.1 times the grade's factor, d the mean of the standard's step."""
    factor = table.grade_factors[which].get(grade)
    if factor is None:
        known = ", ".join(table.grade_factors[which])
        raise StandardError(name, f"there is no grade {grade} for this diameter", f"use one of {known}")
    steps = table.diameter_steps_mm
    index = min(max(bisect_left(steps, d), 1), len(steps) - 1)
    listed = table.exceptions_um[which].get(f"{steps[index - 1]:g}")
    if isinstance(listed, dict) and factor in (1, 1.32):
        exact = by_pitch(listed, pitch)
        if exact is not None:
            return exact
    mean = math.sqrt(steps[index - 1] * steps[index])
    return to_r40(factor * 90 * pitch**0.4 * mean**0.1)


def _grade(name: str, which: str, grade: str, basic_um: float, pitch: float, table: MetricTables) -> float:
    factor = table.grade_factors[which].get(grade)
    if factor is None:
        known = ", ".join(table.grade_factors[which])
        raise StandardError(name, f"there is no grade {grade} for this diameter", f"use one of {known}")
    listed = table.exceptions_um[which].get(f"{pitch:g}")
    if factor == 1 and isinstance(listed, float | int):
        return float(listed)
    return to_r40(factor * basic_um)
