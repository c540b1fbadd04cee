"""Sizes of a relief in the line: as typed, or as the standards list them."""

from typing import Any

from toreuma.core.errors import JobError
from toreuma.core.line.elements import Side
from toreuma.core.line.piece import Piece
from toreuma.core.line.step import ReliefWord
from toreuma.core.standards.reliefs import run_out_fields, usual_undercut

__all__ = ["relief_fields"]

SIZES = ("radius_mm", "depth_mm", "length_mm", "face_depth_mm")


def relief_fields(piece: Piece, word: ReliefWord, pitch_mm: float | None, d_mm: float, side: Side) -> dict[str, Any]:
    """Fields of a relief without its place. Raises `Misread` for sizes no standard lists."""
    tables = piece.tables.reliefs
    if not word.form and pitch_mm is not None:
        try:
            return {"kind": "relief", "form": "thread", **run_out_fields(tables, pitch_mm, side, word.short)}
        except JobError as error:
            raise piece.wrong(error.what, error.cure, piece.tokens[-1]) from None
    form = word.form or "E"
    if word.radius_mm is None:
        row = usual_undercut(tables, d_mm, form)
        return {"kind": "relief", "form": form, **{name: getattr(row, name) for name in SIZES}}
    rows, depth = tables.of(form), word.depth_mm or 0.0
    same = [r for r in rows if abs(r.radius_mm - word.radius_mm) < 0.01 and abs(r.depth_mm - depth) < 0.01]
    if not same:
        known = ", ".join(f"{r.radius_mm:g}x{r.depth_mm:g}" for r in rows)
        raise piece.wrong(f"form {form} has no size {word.radius_mm:g}x{depth:g}", f"choose {known}", piece.tokens[-1])
    return {"kind": "relief", "form": form, **{name: getattr(same[0], name) for name in SIZES}}
