"""Undercuts (DIN 509) and run-outs of threads (DIN 76-1), as the fields of a relief."""

from typing import Any, Literal

from pydantic import Field

from toreuma.core.errors import JobError
from toreuma.core.value import Name, Positive, Value

__all__ = ["ReliefTables", "RunOut", "Undercut", "run_out", "run_out_fields", "usual_undercut"]

Side = Literal["outside", "inside"]

MINOR_PITCHES = 1.082532
"""The bore of an inside thread lies so many pitches below its diameter (ISO 68-1)."""

SAME_MM = 1e-4


class Undercut(Value):
    """A size of DIN 509: ``length_mm`` is f, ``depth_mm`` t1, ``face_depth_mm`` t2."""

    form: Literal["E", "F", "G", "H"]
    name: Name
    radius_mm: Positive
    depth_mm: Positive
    length_mm: Positive
    face_depth_mm: float = Field(default=0.0, ge=0)


class Usual(Value):
    """The size for the usual load up to a diameter."""

    up_to_d_mm: Positive
    radius_mm: Positive
    depth_mm: Positive


class RunOut(Value):
    """A row of DIN 76-1: whole length g2 and floor g1 before the slope, usual and short, and by how much its diameter
    is off that of the thread: below it outside, above it inside."""

    pitch_mm: Positive
    off_d_mm: Positive
    floor_mm: Positive
    short_floor_mm: Positive
    length_mm: Positive
    short_length_mm: Positive
    radius_mm: Positive


class ReliefTables(Value):
    """Everything the standards list."""

    source: str
    reliefs: tuple[Undercut, ...]
    usual_by_d: tuple[Usual, ...]
    outside: tuple[RunOut, ...]
    inside: tuple[RunOut, ...]

    def of(self, form: str) -> tuple[Undercut, ...]:
        return tuple(row for row in self.reliefs if row.form == form)


def usual_undercut(tables: ReliefTables, d_mm: float, form: str = "E") -> Undercut:
    """The undercut of the usual load for a diameter (DIN 509, first series); the column of alternating loads is
    another one and is typed. Forms G and H have one size and two: the nearest."""
    usual = next(one for one in tables.usual_by_d if d_mm <= one.up_to_d_mm)
    rows = tables.of(form)
    same = (row for row in rows if (row.radius_mm, row.depth_mm) == (usual.radius_mm, usual.depth_mm))
    return next(same, None) or min(rows, key=lambda row: abs(row.radius_mm - usual.radius_mm))


def run_out(tables: ReliefTables, pitch_mm: float, side: Side) -> RunOut:
    """The row of a pitch; of one that is not listed, the next larger one. Raises `JobError` beyond the table."""
    rows = tables.outside if side == "outside" else tables.inside
    row = next((row for row in rows if row.pitch_mm >= pitch_mm - SAME_MM), None)
    if row is None:
        what = f"no run-out is listed for a pitch of {pitch_mm:g} mm"
        raise JobError("relief", what, f"type its sizes; the standard ends at {rows[-1].pitch_mm:g} mm")
    return row


def run_out_fields(tables: ReliefTables, pitch_mm: float, side: Side, short: bool = False) -> dict[str, Any]:
    """Length, depth and radius of a thread's relief; it is named where its pitch is not in the standard, and where it
    is short.

    The depth counts from what stands before the thread is cut: its crest outside, its bore inside. Raises `JobError`.
    """
    row = run_out(tables, pitch_mm, side)
    depth = row.off_d_mm / 2 if side == "outside" else (row.off_d_mm + MINOR_PITCHES * pitch_mm) / 2
    words = ["short"] if short else []
    if abs(row.pitch_mm - pitch_mm) > SAME_MM:
        words.append(f"run-out of pitch {row.pitch_mm:g}")
    return {
        "length_mm": row.short_length_mm if short else row.length_mm,
        "depth_mm": round(depth, 3),
        "radius_mm": row.radius_mm,
        **({"name": ", ".join(words)} if words else {}),
    }
