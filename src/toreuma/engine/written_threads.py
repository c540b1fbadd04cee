"""Threads that a program cuts, as features of the drawing it has none of."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal

from toreuma.core.errors import StandardError
from toreuma.core.geometry.region import Region
from toreuma.core.model import ThreadForm
from toreuma.core.prove.piece import Step, bore_steps, outside_steps
from toreuma.core.read.overview import Overview
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.form import form_of
from toreuma.shipped.standards import thread_tables

__all__ = ["FoundThread", "found_threads", "standard_names"]

LEAD_MM = 0.003
"""Leads of inch threads are written in rounded mm."""

NEAR_MM = 0.35
"""A rod is turned so much larger or smaller than the thread's nominal size."""

FLAT_MM = 0.01


@dataclass(frozen=True, kw_only=True)
class FoundThread:
    """A thread of one station; ``form`` and ``feature`` where a standard has one of its size and lead."""

    station: int
    line: int
    lead_mm: float
    form: ThreadForm | None
    feature: dict[str, Any]


def found_threads(rows: Sequence[dict[str, Any]], overview: Overview, piece: Region, front: float) -> list[FoundThread]:
    """One for every row of `thread_rows`; ``piece`` stands without their ridges, its front face at ``front``."""
    inside = {use.station for use in overview.tools if use.inside}
    return [_found(row, row["station"] in inside, piece, front) for row in rows]


def _found(row: dict[str, Any], inside: bool, piece: Region, front: float) -> FoundThread:
    side: Literal["outside", "inside"] = "inside" if inside else "outside"
    seat = _seat(bore_steps(piece) if inside else outside_steps(piece), row)
    size = row["largest_d"] if inside or seat is None else seat.front_d
    name = next(iter(standard_names(size, row["lead_mm"], near=0.5 * row["lead_mm"] if inside else NEAR_MM)), "")
    found = FoundThread(station=row["station"], line=row["line"], lead_mm=row["lead_mm"], form=None, feature={})
    if seat is None or not name:
        return found
    begin, end = min(seat.front_z, row["front_z"]), max(seat.back_z, row["back_z"])
    feature = {"kind": "thread", "side": side, "designation": name,
               "from_z_mm": round(begin - front, 4), "length_mm": round(begin - end, 4)}  # fmt: skip
    form = form_of(thread_of(name, thread_tables()), side, name)
    return FoundThread(station=found.station, line=found.line, lead_mm=found.lead_mm, form=form, feature=feature)


def _seat(steps: Sequence[Step], row: dict[str, Any]) -> Step | None:
    """The longest cylinder that its passes run over, in one piece, with a broken edge before it."""
    flat: list[Step] = []
    for one in steps:
        if not one.is_cylinder or one.front_z < row["back_z"] or one.back_z > row["front_z"]:
            continue
        last = flat[-1] if flat else None
        if last and abs(last.back_z - one.front_z) < FLAT_MM and abs(last.front_d - one.front_d) < FLAT_MM:
            flat[-1] = Step(last.front_z, one.back_z, last.front_d, one.back_d)
        else:
            flat.append(one)
    return max(flat, key=lambda one: min(one.front_z, row["front_z"]) - max(one.back_z, row["back_z"]), default=None)


def standard_names(d: float, lead: float, near: float) -> list[str]:
    """Standard threads of about this diameter and lead, the nearest first, metric before others."""
    tables = thread_tables()
    coarse = tables.metric.coarse_pitch_mm
    usual = lead in {0.2, *coarse.values()}
    sizes = {*map(float, coarse), float(round(d)), float(round(d) + 1)}
    names = [f"M{size:g}x{lead:g}" for size in sizes] if usual else []
    for series, rows in tables.unified.series.items():
        names += [f"{size}-{per:g} {series}" for size, per in rows.items() if abs(25.4 / per - lead) < LEAD_MM]
    found = []
    for name in names:
        try:
            thread = thread_of(name, tables)
        except StandardError:
            continue
        if -near <= d - thread.d_mm <= near and abs(thread.lead_mm - lead) < LEAD_MM:
            found.append((not name.startswith("M"), abs(d - thread.d_mm), name))
    return [name for _, _, name in sorted(found)]
