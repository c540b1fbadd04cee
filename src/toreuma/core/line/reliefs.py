"""Sizes of a relief in the line: as typed, or as the standards list them."""

from typing import Any

from toreuma.core.line.piece import Piece
from toreuma.core.line.step import ReliefWord

__all__ = ["relief_fields"]

SIZES = ("radius_mm", "depth_mm", "length_mm", "face_depth_mm")
BY_D_MM = ((10.0, 0.4, 0.2), (50.0, 0.8, 0.3), (80.0, 1.6, 0.3), (1e9, 2.5, 0.4))
"""Radius and depth by the largest diameter they are usual for (DIN 509, usual load)."""


def relief_fields(piece: Piece, word: ReliefWord, pitch_mm: float | None, d_mm: float) -> dict[str, Any]:
    """Fields of a relief without its place. Raises `Misread` for sizes no standard lists."""
    if not word.form and pitch_mm is not None:
        rows = piece.tables.reliefs["thread_runouts"]
        row = min(rows, key=lambda r: abs(float(r["pitch_mm"]) - pitch_mm))
        sizes = {"length_mm": row["length_mm"], "depth_mm": row["below_d_mm"] / 2, "radius_mm": row["radius_mm"]}
        return {"kind": "relief", "form": "thread", **sizes}
    form = word.form or "E"
    radius, depth = word.radius_mm, word.depth_mm
    if radius is None:
        radius, depth = next((r, t) for most, r, t in BY_D_MM if d_mm < most)
    rows = [row for row in piece.tables.reliefs["reliefs"] if row["form"] == form]
    same = [r for r in rows if abs(r["radius_mm"] - radius) < 0.01 and abs(r["depth_mm"] - (depth or 0)) < 0.01]
    if not same:
        known = ", ".join(f"{r['radius_mm']:g}x{r['depth_mm']:g}" for r in rows)
        raise piece.wrong(f"form {form} has no size {radius:g}x{depth:g}", f"choose {known}", piece.tokens[-1])
    return {"kind": "relief", "form": form, **{name: same[0][name] for name in SIZES}}
