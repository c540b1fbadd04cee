"""Metric trapezoidal threads of lead screws: ISO 2904, tolerances ISO 2903."""

import math
import re

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.metric import allowance_um
from toreuma.core.standards.threads.rounding import to_r40
from toreuma.core.standards.threads.tables import ThreadTables, by_pitch
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["TRAPEZOIDAL", "trapezoidal_thread"]

TRAPEZOIDAL = re.compile(
    r"^Tr\s*(?P<d>\d+(?:\.\d+)?)(?:\s*[xX×*]\s*(?P<lead>\d+(?:\.\d+)?)(?:\s*\(?\s*P\s*(?P<p>\d+(?:\.\d+)?)\s*\)?)?)?"
    r"(?P<left>\s*-?\s*LH)?(?:\s*-\s*(?P<tol>\d[A-Za-z]))?(?P<left2>\s*-?\s*LH)?$"
)
"""``Tr20x4``, ``Tr40x14(P7) LH-7e``."""

EXTERNAL_SHARE = {"7": 1.25, "8": 1.6, "9": 2.0}
INTERNAL_SHARE = {"7": 1.7, "8": 2.12, "9": 2.65}

SEVERAL_STARTS = ((1, 1.0), (2, 1.12), (3, 1.25), (4, 1.4), (math.inf, 1.6))
"""Tolerances of the pitch diameter grow with the number of starts (ISO 2903)."""


def trapezoidal_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """``d2 = d - P/2``, ``d3 = d - P - 2 ac``, ``D1 = d - P``, ``D4 = d + 2 ac``. Raises `StandardError`."""
    table, metric, name = tables.trapezoidal, tables.metric, match.string.strip()
    d = float(match["d"])
    lead = float(match["lead"]) if match["lead"] else by_pitch(table.usual_pitch_mm, d)
    if lead is None:
        raise StandardError(name, f"Tr{d:g} has no usual pitch listed", f"give the pitch, like Tr{d:g}x4")
    pitch = float(match["p"]) if match["p"] else lead
    if pitch <= 0 or lead <= 0:
        raise StandardError(name, "a pitch of 0 is none", f"give the pitch, like Tr{d:g}x4")
    starts = round(lead / pitch)
    ac, td, td1 = (
        by_pitch(row, pitch) for row in (table.clearance_mm, table.major_external_um, table.minor_internal_um)
    )
    if ac is None or td is None or td1 is None or abs(starts * pitch - lead) > 1e-9 or pitch >= d / 2:
        known = ", ".join(table.major_external_um)
        raise StandardError(name, "the standard has no such pitch", f"use one of {known}, the lead a multiple of it")
    tolerance = match["tol"] or "7e"
    ext, internal = (tolerance, f"{tolerance[0]}H") if tolerance[-1].islower() else (f"{tolerance[0]}e", tolerance)
    if ext[0] not in EXTERNAL_SHARE:
        raise StandardError(name, f"there is no grade {ext[0]}", "use 7, 8 or 9")
    if internal[0] not in INTERNAL_SHARE:
        raise StandardError(name, f"there is no grade {internal[0]}", "use 7, 8 or 9")
    steps = metric.diameter_steps_mm
    index = next((i for i, step in enumerate(steps) if step >= d), len(steps) - 1)
    low_step = f"{steps[index - 1]:g}"
    base = 90 * pitch**0.4 * math.sqrt(steps[index - 1] * steps[index]) ** 0.1
    several = next(factor for most, factor in SEVERAL_STARTS if starts <= most)
    rows = {side: by_step.get(low_step, {}).get(f"{pitch:g}", {}) for side, by_step in table.pitch_um.items()}
    td2 = several * (rows["external"].get(ext[0]) or to_r40(EXTERNAL_SHARE[ext[0]] * base)) / 1000
    big_td2 = several * (rows["internal"].get(internal[0]) or to_r40(INTERNAL_SHARE[internal[0]] * base)) / 1000
    es = allowance_um(name, ext[1], pitch, table.allowance_um) / 1000
    d2, d3 = d - pitch / 2, d - pitch - 2 * ac
    return Thread(
        designation=f"Tr{d:g}x{lead:g}{f'(P{pitch:g})' if starts > 1 else ''}{_left(match)}",
        family="trapezoidal",
        d_mm=d,
        pitch_mm=pitch,
        flank_deg=30.0,
        external=Side(Limits(d - td / 1000, d), Limits(d2 - es - td2, d2 - es), Limits(d3 - es - 1.25 * td2, d3), ext),
        internal=Side(
            Limits(d + 2 * ac, d + 2 * ac + big_td2),
            Limits(d2, d2 + big_td2),
            Limits(d - pitch, d - pitch + td1 / 1000),
            internal,
        ),
        depth_external=pitch / 2 + ac,
        depth_internal=pitch / 2 + ac,
        tap_drill_mm=d - pitch,
        source=table.source,
        starts=starts,
        left_hand=bool(_left(match)),
    )


def _left(match: "re.Match[str]") -> str:
    return " LH" if match["left"] or match["left2"] else ""
